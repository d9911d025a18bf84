//! How the assessment rounds: every amount of a form to whole euros in the taxpayer's favour, taxable income and tax cut to euros,
//! surcharge and church tax cut to cents.

use hembo_money::{Money, Rate, Rounding};

/// Down to whole euros, a loss to the larger one: income, taxable income, tax.
pub fn euros_down(amount: Money) -> Money {
    let rule = if amount.is_negative() { Rounding::Up } else { Rounding::Down };
    amount.rounded(Money::WHOLE, rule)
}

/// Up to whole euros: what is deducted or credited.
pub fn euros_up(amount: Money) -> Money {
    -euros_down(-amount)
}

/// An amount × a rate, up to whole euros.
pub fn part_up(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::WHOLE, Rounding::Up)
}

/// An amount × a rate, the fraction of a cent dropped.
pub fn cents_down(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::Down)
}

/// `part` of `whole` of an amount, up to whole euros: what goes by months.
pub fn portion_up(amount: Money, part: i64, whole: i64) -> Money {
    amount.in_proportion(Money::whole(part), Money::whole(whole), Money::WHOLE, Rounding::Up)
}

/// The half of an amount, an odd cent up.
pub fn half_up(amount: Money) -> Money {
    amount.in_proportion(Money::whole(1), Money::whole(2), Money::CENT, Rounding::Up)
}

/// A rate of parts: `parts` of `of`, up to euros.
pub fn parts_up(amount: Money, parts: i64, of: i64) -> Money {
    amount.in_proportion(Money::whole(parts), Money::whole(of), Money::WHOLE, Rounding::Up)
}
