//! What Schedule D comes to, for whoever asks.

use hembo_money::Money;

/// What Schedule D comes to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Gains {
    /// Form 1040 line 7, with a loss below zero.
    pub line_7: Money,
    /// Schedule D line 7.
    pub short: Money,
    /// Schedule D line 15.
    pub long: Money,
    /// What is taxed at the rates for capital gains: the smaller of lines 15 and 16, zero where either is a loss.
    pub net: Money,
    /// Line 18.
    pub rate_28: Money,
    /// Line 19.
    pub section_1250: Money,
    /// Gains and distributions, without losses.
    pub gross: Money,
}
