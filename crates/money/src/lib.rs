//! Exact money and rates, and the named rounding rules.
//!
//! [`Money`] is whole cents in an `i64`; [`Rate`] is an exact decimal with nine places. Nothing here, and
//! nothing that computes tax, uses floating point. Every operation that could lose a fraction of a cent asks
//! for a [`Rounding`] by name, because each law names its own.

mod money;
mod rate;

pub use money::{Money, ParseMoneyError};
pub use rate::{ParseRateError, Rate};

/// What happens to the part that does not fit the unit one rounds to.
///
/// Rules act on the magnitude, so a loss is rounded as the gain of the same size is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Rounding {
    /// Under a half is dropped, a half or more is raised (the usual rule for whole-dollar returns).
    HalfUp,
    /// Dropped.
    Down,
    /// Raised, if anything is left at all ("or fraction thereof").
    Up,
}

impl Rounding {
    /// `numerator ÷ denominator` as a whole number under this rule. The denominator is positive.
    pub fn divide(self, numerator: i128, denominator: i128) -> i128 {
        let (quotient, rest) = (numerator.abs() / denominator, numerator.abs() % denominator);
        let raise = match self {
            Rounding::HalfUp => rest * 2 >= denominator,
            Rounding::Down => false,
            Rounding::Up => rest > 0,
        };
        (quotient + i128::from(raise)) * numerator.signum()
    }
}

#[cfg(test)]
mod tests;
