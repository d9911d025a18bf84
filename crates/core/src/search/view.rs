//! What rules read of a way.
//!
//! A law or a part never sees a whole way: it asks a [`View`] for what a decision takes, and what it asks is what it
//! depends on. In a search the view answers with one lawful value after the other, until a computation has been through
//! every combination of what it reads ([`View::leaves`]); nothing has to be declared, and nothing can be declared
//! wrongly.
//!
//! *Why that is exact.* A computation is deterministic and learns the way only through the view. Two ways that agree on
//! what it read take the same path through it and give the same result. So the combinations met are the leaves of one
//! decision tree: disjoint, together all lawful ways. As the law of a decision is asked before its value is given, each
//! is lawful by itself.

use super::{Law, Stop, Weighable};
use crate::decision::{Taken, Way};
use hembo_money::Money;
use std::{
    cell::{Cell, RefCell},
    collections::{BTreeMap, BTreeSet},
};

/// The value of a decision in a search: closed, or an option by its place plus one.
pub(super) type Value = u8;

/// The decision does not arise.
pub(super) const CLOSED: Value = 0;

/// A sum of the weights of claims.
pub type Sums = Vec<i64>;

/// Claims of which a part reads only what they add up to, such as who claims each of several children: option by option
/// of each claim a vector of weights. Ways with equal sums are one to the part. The law of a claim reads no other claim
/// of the tally.
#[derive(Debug, Clone, Default)]
pub struct Tally {
    /// The decisions, in their order.
    pub claims: Vec<usize>,
    /// The weights of each option of each claim; those of a claim that does not arise are zero.
    pub weights: Vec<Vec<Sums>>,
}

/// What a computation reads of a way.
pub struct View<'c> {
    kind: Kind<'c>,
}

enum Kind<'c> {
    /// A way that is settled.
    Settled(&'c Way),
    /// One combination after the other.
    Searching(Search<'c>),
}

struct Search<'c> {
    case: &'c dyn Weighable,
    /// What stands of decisions that are not weighed.
    standing: Standing<'c>,
    values: RefCell<Vec<Option<Value>>>,
    steps: RefCell<Vec<Step>>,
    /// A law reads earlier decisions only.
    ceiling: Cell<usize>,
    /// No option of an open decision is lawful: there is no such way.
    dead: Cell<bool>,
    /// How many combinations it may go through, and whether there were more.
    most: usize,
    over: Cell<bool>,
}

/// Decisions that are not weighed: neutral ones, and those that had to be settled so that the rest can be. What is held of
/// them stands, else the first option that is lawful.
#[derive(Clone, Copy)]
pub(super) struct Standing<'c> {
    pub(super) pins: &'c BTreeMap<usize, Taken>,
    pub(super) settled: &'c BTreeSet<usize>,
}

/// There are too many combinations of what was read: the decisions.
#[derive(Debug)]
pub(super) struct TooMany(pub(super) Vec<usize>);

/// Something that was read, with the other values that are still to be gone through.
struct Step {
    read: Read,
    left: Vec<Known>,
}

/// What a step gave: the value of a decision, or claims that add up to something.
#[derive(Clone)]
enum Known {
    Value(Value),
    Claims { sum: Sums, options: Vec<Value> },
}

enum Read {
    Decision(usize, Value),
    Tally { tally: usize, claims: Vec<usize>, sum: Sums },
}

/// One combination of what a computation read, and what came out.
#[derive(Debug, Clone)]
pub(super) struct Leaf {
    /// The values read, by decision.
    pub(super) values: Vec<(usize, Value)>,
    /// The tally read, with its sum.
    pub(super) tally: Option<(usize, Sums)>,
    /// What came out.
    pub(super) result: Money,
}

impl<'c> View<'c> {
    /// A way that is settled.
    pub fn of(way: &'c Way) -> View<'c> {
        View { kind: Kind::Settled(way) }
    }

    pub(super) fn searching(case: &'c dyn Weighable, standing: Standing<'c>, most: usize) -> View<'c> {
        let values = RefCell::new(vec![None; case.decisions().len()]);
        let search = Search {
            case,
            standing,
            values,
            steps: RefCell::new(Vec::new()),
            ceiling: Cell::new(usize::MAX),
            dead: Cell::new(false),
            most,
            over: Cell::new(false),
        };
        View { kind: Kind::Searching(search) }
    }

    /// The option that is taken of a decision; none where it does not arise.
    pub fn taken(&self, decision: usize) -> Option<usize> {
        match &self.kind {
            Kind::Settled(way) => way.taken(decision),
            Kind::Searching(search) => search.read(self, decision).checked_sub(1).map(usize::from),
        }
    }

    /// The amount that is taken of a decision; none where it does not arise.
    pub fn amount(&self, decision: usize) -> Option<Money> {
        match &self.kind {
            Kind::Settled(way) => way.amount(decision),
            Kind::Searching(_) => None,
        }
    }

    /// Reads claims as a sum: afterwards [`View::taken`] gives for each of them the option of one combination with that
    /// sum, which stands for all that have it. In a settled way it does nothing.
    pub fn tally(&self, tally: usize) {
        if let Kind::Searching(search) = &self.kind {
            search.tally(self, tally);
        }
    }

    /// Goes through every combination of what `compute` reads; a combination that no way has is left out.
    pub(super) fn leaves(
        &self,
        stop: &Stop,
        mut compute: impl FnMut(&View<'c>) -> Money,
    ) -> Result<Vec<Leaf>, TooMany> {
        let Kind::Searching(search) = &self.kind else { return Ok(Vec::new()) };
        let mut leaves = Vec::new();
        loop {
            let result = compute(self);
            if search.over.get() || leaves.len() > search.most {
                return Err(TooMany(search.decisions_read()));
            }
            if !search.dead.get() {
                leaves.push(search.leaf(result));
            }
            if !search.next() || stop.is_stopped() {
                return Ok(leaves);
            }
        }
    }
}

impl Search<'_> {
    fn read(&self, view: &View<'_>, decision: usize) -> Value {
        if decision >= self.ceiling.get() {
            debug_assert!(false, "the law of decision {} reads decision {decision}", self.ceiling.get());
            return CLOSED;
        }
        if let Some(value) = self.values.borrow()[decision] {
            return value;
        }
        let mut lawful = self.lawful(view, decision);
        lawful.reverse();
        let Some(value) = lawful.pop() else {
            self.dead.set(true);
            return 1;
        };
        self.values.borrow_mut()[decision] = Some(value);
        let left = lawful.into_iter().map(Known::Value).collect();
        self.steps.borrow_mut().push(Step { read: Read::Decision(decision, value), left });
        value
    }

    /// What a decision may take, in order: closed, or its lawful options.
    fn lawful(&self, view: &View<'_>, decision: usize) -> Vec<Value> {
        let before = self.ceiling.replace(decision);
        let law = self.case.law(decision, view);
        self.ceiling.set(before);
        values_of(self.case, decision, &law, self.standing)
    }

    fn tally(&self, view: &View<'_>, tally: usize) {
        let known = |step: &Step| matches!(step.read, Read::Tally { tally: t, .. } if t == tally);
        if self.steps.borrow().iter().any(known) {
            return;
        }
        let Tally { claims, weights } = self.case.tally(tally);
        let width = weights.iter().flatten().map(Vec::len).max().unwrap_or(0);
        // One combination for each sum that can be reached.
        let mut reached: BTreeMap<Sums, Vec<Value>> = BTreeMap::from([(vec![0; width], Vec::new())]);
        for (claim, weights) in claims.iter().zip(&weights) {
            let mut next = BTreeMap::new();
            let lawful = self.lawful(view, *claim);
            debug_assert!(claims.iter().all(|&c| self.values.borrow()[c].is_none()), "claims read as such");
            for (sum, options) in &reached {
                for &value in &lawful {
                    let added = plus(sum, value.checked_sub(1).and_then(|o| weights.get(usize::from(o))));
                    next.entry(added).or_insert_with(|| [&options[..], &[value]].concat());
                }
            }
            reached = next;
            if reached.len() > self.most {
                self.over.set(true);
                reached = reached.into_iter().take(1).collect();
            }
        }
        let mut left: Vec<Known> =
            reached.into_iter().rev().map(|(sum, options)| Known::Claims { sum, options }).collect();
        let Some(Known::Claims { sum, options }) = left.pop() else {
            self.dead.set(true);
            return;
        };
        self.place_claims(&claims, &options);
        self.steps.borrow_mut().push(Step { read: Read::Tally { tally, claims, sum }, left });
    }

    fn place_claims(&self, claims: &[usize], options: &[Value]) {
        let mut values = self.values.borrow_mut();
        for (&claim, &option) in claims.iter().zip(options) {
            values[claim] = Some(option);
        }
    }

    fn decisions_read(&self) -> Vec<usize> {
        let of = |step: &Step| match &step.read {
            Read::Decision(decision, _) => vec![*decision],
            Read::Tally { claims, .. } => claims.clone(),
        };
        self.steps.borrow().iter().flat_map(of).collect()
    }

    fn leaf(&self, result: Money) -> Leaf {
        let mut leaf = Leaf { values: Vec::new(), tally: None, result };
        for step in self.steps.borrow().iter() {
            match &step.read {
                Read::Decision(decision, value) => leaf.values.push((*decision, *value)),
                Read::Tally { tally, sum, .. } => leaf.tally = Some((*tally, sum.clone())),
            }
        }
        leaf
    }

    /// The next combination: the last thing read gets its next value; what was read before it stays. Whether there is
    /// one.
    fn next(&self) -> bool {
        self.dead.set(false);
        loop {
            let Some(Step { read, mut left }) = self.steps.borrow_mut().pop() else { return false };
            let next = left.pop();
            let read = match (read, next) {
                (Read::Decision(decision, _), Some(Known::Value(value))) => {
                    self.values.borrow_mut()[decision] = Some(value);
                    Read::Decision(decision, value)
                }
                (Read::Tally { tally, claims, .. }, Some(Known::Claims { sum, options })) => {
                    self.place_claims(&claims, &options);
                    Read::Tally { tally, claims, sum }
                }
                (Read::Decision(decision, _), _) => {
                    self.values.borrow_mut()[decision] = None;
                    continue;
                }
                (Read::Tally { claims, .. }, _) => {
                    let mut values = self.values.borrow_mut();
                    claims.iter().for_each(|&claim| values[claim] = None);
                    continue;
                }
            };
            self.steps.borrow_mut().push(Step { read, left });
            return true;
        }
    }
}

/// A sum with more weights on it.
pub(super) fn plus(sum: &Sums, weights: Option<&Sums>) -> Sums {
    match weights {
        Some(weights) => sum.iter().zip(weights).map(|(a, b)| a + b).collect(),
        None => sum.clone(),
    }
}

/// What a law leaves of a decision: closed, or its lawful options; one of them where it is not weighed.
pub(super) fn values_of(
    case: &dyn Weighable,
    decision: usize,
    law: &Law,
    standing: Standing<'_>,
) -> Vec<Value> {
    let Law::Open(bars) = law else { return vec![CLOSED] };
    let held = match standing.pins.get(&decision) {
        Some(Taken::Option(option)) => Some(option + 1),
        _ => None,
    };
    if case.decisions()[decision].neutral {
        return vec![held.unwrap_or(1)];
    }
    let lawful = bars.iter().zip(1..).filter(|(bar, _)| bar.is_none());
    let mut values: Vec<Value> = lawful.map(|(_, value)| value).collect();
    if standing.settled.contains(&decision) {
        let stands = held.filter(|held| values.contains(held)).or(values.first().copied());
        values.retain(|value| Some(*value) == stands);
    }
    values
}
