//! What Schedule D comes to, for whoever asks.

use hembo_core::outcome::age_on;
use hembo_money::Money;
use time::Date;

/// Held for more than one year, counted from the day after acquisition (IRC §1222; Rev. Rul. 66-7); none past the last day of the calendar.
pub fn held_over_a_year(acquired: Date, sold: Date) -> Option<bool> {
    acquired.next_day().map(|first| age_on(first, sold) >= 1)
}

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
