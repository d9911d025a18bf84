//! Medical receipts as facts: each with its day, the months in which they may be claimed, and what bears on dividing them.

use hembo_core::trail::Item;
use hembo_money::Money;
use time::Date;

/// A medical receipt, less what was paid back.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Receipt {
    /// The day on which it was paid.
    pub date: Date,
    /// The amount and its place.
    pub item: Item,
}

/// Months with receipts in them.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Window {
    /// The last day.
    pub end: Date,
    /// The first of the receipts, by date.
    pub from: usize,
    /// The one after the last.
    pub to: usize,
    /// What they add up to; of those that may be claimed, with what is claimed for who died.
    pub sum: Money,
    /// It holds more than every window that ends earlier.
    pub above_earlier: bool,
    /// It holds more than every window that ends later.
    pub above_later: bool,
}

impl Window {
    /// Whether it may be one of two that partners claim: any other has beside it one that is no smaller and reaches as far.
    pub fn may_be_one_of_two(&self) -> bool {
        self.above_earlier || self.above_later
    }

    /// All receipts that are claimed with the window: of those for who lives, by date, the ones in it, and those for who died.
    pub fn receipts<'f>(
        &self,
        living: &'f [Receipt],
        dead: &'f [Receipt],
    ) -> impl Iterator<Item = &'f Receipt> + use<'f> {
        living[self.from..self.to].iter().chain(dead)
    }
}

/// What bears on the division of medical receipts between partners.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Division {
    /// What the thresholds of both are together at the least.
    pub thresholds: Money,
    /// What the largest window holds.
    pub largest: Money,
    /// What is allowed of it at the least where one claims it.
    pub of_one: Money,
    /// One may have too little tax for a claim, or both the supplement.
    pub uneven: bool,
    /// What both claim may count for Ontario's seniors, above a threshold or not.
    pub of_seniors: bool,
}
