//! How the returns round.

use hembo_money::{Money, Rate, Rounding};

/// An amount × a rate, to the cent.
pub fn cents(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::HalfUp)
}
