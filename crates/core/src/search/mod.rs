//! The search over all lawful ways.
//!
//! Every lawful way is weighed; nothing is left out by a guess. What saves time is independence: a household's
//! total is the sum of its *parts* (returns), a part's total depends only on the decisions that it names, and
//! each distinct combination of those is reckoned once. Amounts are chosen exactly, at their [`kinks`].

mod kinks;
mod walk;

pub use kinks::Edges;
pub use walk::{along, lowest, search};

use crate::decision::{Bar, Decision, Way};
use hembo_money::Money;

/// Something whose ways can be weighed.
pub trait Weighable {
    /// The decisions, in an order in which openness, bars and the most of an amount depend only on options taken of
    /// earlier ones.
    fn decisions(&self) -> &[Decision];

    /// Whether a decision arises, given the options taken of the earlier ones.
    fn open(&self, decision: usize, taken: &Way) -> bool;

    /// Why an option is not lawful, given the options taken of the earlier decisions.
    fn barred(&self, decision: usize, option: usize, taken: &Way) -> Option<Bar>;

    /// The largest amount that may be taken, given the options taken of the earlier decisions; at zero there is
    /// nothing to decide.
    fn most(&self, _decision: usize, _taken: &Way) -> Money {
        Money::ZERO
    }

    /// By how much the household's total jumps at the very most where a rule steps, all steps together.
    fn jump(&self) -> Money {
        Money::ZERO
    }

    /// The parts of the household's total in a way, each with the decisions on which it depends.
    fn parts(&self, way: &Way) -> Vec<Part>;

    /// The total of one part in a way.
    fn total(&self, part: usize, way: &Way) -> Money;

    /// The same, telling every edge that it meets: for a part that depends on an amount.
    fn total_with_edges(&self, part: usize, way: &Way, _edges: &mut Edges) -> Money {
        self.total(part, way)
    }
}

/// A part of the household's total.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Part {
    /// Which part, for [`Weighable::total`].
    pub id: usize,
    /// The decisions on which its total depends.
    pub depends: Vec<usize>,
}

/// A way and its total.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct Ranked {
    /// The household's total in this way.
    pub total: Money,
    /// The way.
    pub way: Way,
}

/// What the search found.
#[derive(Debug, Clone, PartialEq)]
pub struct Weighed {
    /// The lowest ways that hold every pin, lowest first, as many as were asked for. Of an amount there stand the
    /// best, none of it and all of it.
    pub ranking: Vec<Ranked>,
    /// How many ways are lawful, an amount counted at each of its kinks; all were weighed.
    pub lawful: u64,
    /// How many of them hold every pin.
    pub holding: u64,
    /// The lowest total of any lawful way, pins or not.
    pub lowest: Option<Ranked>,
    /// For each option of each decision, the best total it allows while the other pins hold.
    pub prices: Vec<Vec<Option<Money>>>,
    /// For each amount, the best totals while the other pins hold.
    pub ends: Vec<Ends>,
    /// For each option that no lawful way takes, why.
    pub bars: Vec<Vec<Option<Bar>>>,
}

/// The best totals that an amount allows; none where it never arises.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Ends {
    /// With the amount left free.
    pub free: Option<Money>,
    /// With none of it.
    pub none: Option<Money>,
    /// With all of it.
    pub all: Option<Money>,
}
