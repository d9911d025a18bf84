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
    #[inline]
    pub fn divide(self, numerator: i128, denominator: i128) -> i128 {
        // Most amounts fit the machine's own division, which is many times faster, and where the denominator is
        // known beforehand needs none at all.
        match (i64::try_from(numerator), i64::try_from(denominator)) {
            (Ok(numerator), Ok(BILLION)) => self.divide_small(numerator, BILLION).into(),
            (Ok(numerator), Ok(denominator)) if numerator != i64::MIN => {
                self.divide_small(numerator, denominator).into()
            }
            _ => {
                let (quotient, rest) = (numerator.abs() / denominator, numerator.abs() % denominator);
                let raise = self.raises(rest, denominator - rest);
                (quotient + i128::from(raise)) * numerator.signum()
            }
        }
    }

    #[inline(always)]
    fn divide_small(self, numerator: i64, denominator: i64) -> i64 {
        let whole = numerator.saturating_abs();
        let (quotient, rest) = (whole / denominator, whole % denominator);
        (quotient + i64::from(self.raises(rest, denominator - rest))) * numerator.signum()
    }

    /// Whether a rest raises the quotient, given what it lacks to the whole.
    #[inline(always)]
    fn raises<T: PartialOrd + Default>(self, rest: T, lacking: T) -> bool {
        match self {
            Rounding::HalfUp => rest >= lacking,
            Rounding::Down => false,
            Rounding::Up => rest > T::default(),
        }
    }
}

/// The denominator of rates.
const BILLION: i64 = 1_000_000_000;

#[cfg(test)]
mod tests;
