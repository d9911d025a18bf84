//! How the returns round.

use hembo_core::{limit, trail::Trail};
use hembo_money::{Money, Rate, Rounding};

/// An amount × a rate, to the cent.
pub fn cents(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::HalfUp)
}

/// The same, noted as how the next line is worked out.
pub fn share(trail: &mut impl Trail, amount: Money, rate: Rate) -> Money {
    limit::share(trail, amount, rate, Money::CENT)
}

/// A dollar more or less of net income or of a credit moves a return's tax by less than this, whatever comes together:
/// top rates with the surtax, a ramp of the health premium, the recovery of old age security, amounts that shrink.
pub const STEEPEST: Rate = Rate::percent(150);
