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

/// The same of a dollar that a person gives: the top rate of Canada and of the province, or the province's rate of the first gifts, on one
/// return or moved to the other, with the province's part of what the minimum tax makes of it.
pub const STEEPEST_OF_GIFTS: Rate = Rate::percent(100);

/// The same of a dollar of medical expenses without the refundable supplement: the lowest rate of Canada and that of the province with its
/// surtax, on one return or moved to the other, and the province's part of what the minimum tax makes of it.
pub const STEEPEST_OF_MEDICAL: Rate = Rate::percent(35);

/// The same with what is a quarter of it: the refundable supplement, or what Ontario gives seniors.
pub const STEEPEST_OF_SUPPLEMENTED: Rate = Rate::percent(60);

/// The same of an amount that is credited at the lowest rate by Canada alone or by the province alone, with a surtax or a reduction that goes
/// with it, or with the province's part of the minimum tax.
pub const STEEPEST_OF_CREDIT: Rate = Rate::percent(30);
