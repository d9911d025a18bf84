//! How the returns round: every line half up to the cent, but where its rule drops a fraction.

use hembo_money::{Money, Rate, Rounding};

/// An amount × a rate, to the cent.
pub fn cents(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::HalfUp)
}

/// A part of an amount, `part` of `whole`, to the cent; nothing of a whole that is none.
pub fn portion(amount: Money, part: i64, whole: i64) -> Money {
    if whole == 0 {
        return Money::ZERO;
    }
    amount.in_proportion(Money::whole(part), Money::whole(whole), Money::CENT, Rounding::HalfUp)
}

/// An amount × a rate, the fraction of a cent dropped.
pub fn cents_down(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::Down)
}

/// The half of a joint amount.
pub fn half(amount: Money) -> Money {
    portion(amount, 1, 2)
}
