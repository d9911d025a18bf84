//! The search over all lawful ways.
//!
//! Every lawful way is weighed; nothing is left out by a guess. A household's total is the sum of its *parts* (returns),
//! and what a part reads of a way is observed ([`view`](View)). Options are weighed as sums and minima over what the
//! parts read ([`discrete`]), without walking the ways one by one; amounts are chosen exactly, at their [`kinks`].

mod cells;
mod corner;
mod counted;
mod crossing;
mod curves;
mod diagram;
mod discrete;
mod edges;
mod kinks;
mod looking;
mod solve;
mod steepness;
mod stop;
mod view;
mod walk;

pub use counted::Counted;
pub use edges::Edges;
pub use stop::{Stop, Stopped};
pub use view::{Sums, Tally, View};
pub use walk::along;

use crate::decision::{Bar, Decision, Taken, Way};
use hembo_money::Money;
use std::collections::BTreeMap;

/// What a part tells of a way that its amounts make unlawful: no such way is weighed. Far above any tax.
pub const UNLAWFUL: Money = Money::whole(100_000_000_000);

/// Something whose ways can be weighed.
pub trait Weighable {
    /// The decisions, in an order in which the law of each depends only on options taken of earlier ones.
    fn decisions(&self) -> &[Decision];

    /// What the law says of a decision: whether it arises, and which options are barred. It reads earlier decisions
    /// only.
    fn law(&self, decision: usize, view: &View<'_>) -> Law;

    /// The largest amount that may be taken, given the options taken of the earlier decisions; at zero there is
    /// nothing to decide.
    fn most(&self, _decision: usize, _view: &View<'_>) -> Money {
        Money::ZERO
    }

    /// By how much the household's total jumps at the very most where a rule steps, all steps together.
    fn jump(&self) -> Money {
        Money::ZERO
    }

    /// How many parts the household's total has: each is asked in every way.
    fn parts(&self) -> usize;

    /// The total of one part in a way; zero where it does not arise, [`UNLAWFUL`] where its amounts allow no such way.
    fn total(&self, part: usize, view: &View<'_>) -> Money;

    /// The same, telling every edge that it meets: for a part that depends on an amount.
    fn total_with_edges(&self, part: usize, view: &View<'_>, _edges: &mut Edges) -> Money {
        self.total(part, view)
    }

    /// Into how many worlds the amounts fall. A world is the law without what makes an amount of
    /// [`NeverCostsInWorlds`](crate::decision::More) cost: a limit that binds the tighter the more of it is taken, a
    /// condition that it may break, a rule that jumps (a world for each of its sides).
    fn worlds(&self) -> usize {
        1
    }

    /// The household's total in one world, telling every edge. For every lawful way some way of some world is inside and
    /// no higher; outside the total goes on evenly.
    fn total_in_world(&self, _world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        (0..self.parts()).map(|part| self.total_with_edges(part, view, edges)).sum()
    }

    /// By how much the total of a world jumps at the most: by less than the law's where what jumps is taken away.
    fn jump_in_worlds(&self) -> Money {
        Money::ZERO
    }

    /// How far inside its world a way is, telling every edge on which that depends; below zero it is not in it.
    /// More of an amount moves it one way only.
    fn inside_world(&self, _world: usize, _view: &View<'_>, _edges: &mut Edges) -> Money {
        Money::ZERO
    }

    /// Whether more of an amount leads out of a world. Where several of those that never cost in it do, the last gives way first: where
    /// the last of them lowers the total by something, the ones before it lower it by as much at least for the way that they lead out.
    fn leads_out_of_world(&self, _world: usize, _view: &View<'_>, _decision: usize) -> bool {
        false
    }

    /// Whether an amount moves how far inside a world a way is: what is taken of those that lead out of it follows it then.
    fn moves_inside(&self, _decision: usize) -> bool {
        true
    }

    /// The claims of a tally that a part reads.
    fn tally(&self, _tally: usize) -> Tally {
        Tally::default()
    }
}

/// What the law says of a decision in a way.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Law {
    /// It does not arise.
    Closed,
    /// It arises; for each option why it is not lawful, or nothing. For an amount the list is empty.
    Open(Vec<Option<Bar>>),
}

impl Law {
    /// A decision that arises where a condition holds, with nothing barred.
    pub fn open_if(open: bool, about: &Decision) -> Law {
        if open { Law::Open(vec![None; about.options.len()]) } else { Law::Closed }
    }

    /// Whether the decision arises.
    pub fn is_open(&self) -> bool {
        matches!(self, Law::Open(_))
    }
}

/// Weighs every lawful way and keeps the lowest `keep` of them. `pins` maps a decision to what is held. The ends of
/// amounts are priced where that is little work; [`search_with_ends`] prices them in any case.
///
/// # Errors
/// When it was stopped.
pub fn search(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    keep: usize,
    stop: &Stop,
) -> Result<Weighed, Stopped> {
    weighed(case, pins, keep, false, stop)
}

/// The same with the ends of all amounts priced, within the budget.
///
/// # Errors
/// When it was stopped.
pub fn search_with_ends(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    keep: usize,
    stop: &Stop,
) -> Result<Weighed, Stopped> {
    weighed(case, pins, keep, true, stop)
}

fn weighed(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    keep: usize,
    ends: bool,
    stop: &Stop,
) -> Result<Weighed, Stopped> {
    let found = if has_amounts(case) {
        walk::search(case, pins, keep, ends, stop)
    } else {
        discrete::search(case, pins, keep, stop)
    };
    stop.unless_stopped(found)
}

/// The lowest way that holds every pin, without the prices of anything else.
///
/// # Errors
/// When it was stopped.
pub fn lowest(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    stop: &Stop,
) -> Result<Option<Ranked>, Stopped> {
    let found =
        if has_amounts(case) { walk::lowest(case, pins, stop) } else { discrete::lowest(case, pins, stop) };
    stop.unless_stopped(found)
}

fn has_amounts(case: &dyn Weighable) -> bool {
    case.decisions().iter().any(|d| d.amount.is_some())
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
    /// best, and where the ends are priced none of it and all of it.
    pub ranking: Vec<Ranked>,
    /// How many ways are lawful, an amount counted at each of its kinks; all were weighed. At the largest number it
    /// stands for that many or more.
    pub lawful: u64,
    /// How many of them hold every pin.
    pub holding: u64,
    /// The lowest total of any lawful way, pins or not.
    pub lowest: Option<Ranked>,
    /// For each option of each decision, the best total it allows while the other pins hold.
    pub prices: Vec<Vec<Option<Money>>>,
    /// For each amount, the best totals while the other pins hold; nothing where they are not priced.
    pub ends: Vec<Ends>,
    /// For each option that no lawful way takes, why.
    pub bars: Vec<Vec<Option<Bar>>>,
    /// Whether every lawful way was weighed; if not, there were too many: amounts were looked at less closely from some way
    /// on, or of some decisions one option only.
    pub complete: bool,
}

impl Weighed {
    /// What is known before anything was weighed.
    fn nothing(case: &dyn Weighable) -> Weighed {
        let options = || case.decisions().iter().map(|d| d.options.len());
        Weighed {
            ranking: Vec::new(),
            lawful: 0,
            holding: 0,
            lowest: None,
            prices: options().map(|n| vec![None; n]).collect(),
            ends: options().map(|_| Ends::default()).collect(),
            bars: options().map(|n| vec![None; n]).collect(),
            complete: true,
        }
    }

    /// Whether an option of a decision was left out, where not every way was weighed.
    pub fn left_out(&self, decision: usize) -> bool {
        let mut options = self.prices[decision].iter().zip(&self.bars[decision]);
        !self.complete && options.any(|(price, bar)| price.is_none() && bar.is_none())
    }
}

/// The best totals that an amount allows; none where it never arises, or was not priced.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Ends {
    /// With the amount left free.
    pub free: Option<Money>,
    /// With none of it.
    pub none: Option<Money>,
    /// With all of it.
    pub all: Option<Money>,
}
