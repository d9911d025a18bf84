//! Options alone: what the laws and the parts read makes diagrams, and sums and minima over them the answer. The work
//! grows with what the parts read, not with the ways.

use super::{
    Ends, Law, Ranked, Stop, Weighable, Weighed,
    diagram::{Diagrams, NodeId},
    solve::{Packed, Solved},
    view::{CLOSED, Leaf, View, values_of},
};
use crate::decision::{Bar, Taken, Way};
use hembo_money::Money;
use std::{cell::RefCell, collections::BTreeMap};

/// Laws and parts as diagrams.
struct Factors {
    diagrams: Diagrams,
    all: Vec<NodeId>,
    /// For each option why some way bars it.
    bars: Vec<Vec<Option<Bar>>>,
}

impl Factors {
    fn of(case: &dyn Weighable, pins: &BTreeMap<usize, Taken>, stop: &Stop) -> Factors {
        let mut diagrams = Diagrams::new();
        let mut all = Vec::new();
        let bars =
            RefCell::new(case.decisions().iter().map(|d| vec![None; d.options.len()]).collect::<Vec<_>>());
        for decision in 0..case.decisions().len() {
            let leaves = leaves_of_law(case, pins, decision, &mut bars.borrow_mut()[decision], stop);
            all.push(diagrams.of(case, leaves));
        }
        for part in 0..case.parts() {
            let view = View::searching(case, pins);
            let leaves = view.leaves(stop, |view| case.total(part, view));
            all.push(diagrams.of(case, leaves));
        }
        Factors { diagrams, all, bars: bars.into_inner() }
    }
}

/// A law as a factor: no cost, and no combination that it does not allow.
fn leaves_of_law(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    decision: usize,
    bars: &mut [Option<Bar>],
    stop: &Stop,
) -> Vec<Leaf> {
    let view = View::searching(case, pins);
    let mut laws = Vec::new();
    let leaves = view.leaves(stop, |view| {
        laws.push(case.law(decision, view));
        // The place of the law among the laws, to be found again: dead combinations are left out.
        Money::from_cents(laws.len() as i64 - 1)
    });
    let mut all = Vec::new();
    for leaf in leaves {
        let law = &laws[leaf.result.cents() as usize];
        if let (Law::Open(barred), false) = (law, case.decisions()[decision].neutral) {
            for (known, bar) in bars.iter_mut().zip(barred) {
                *known = known.take().or_else(|| bar.clone());
            }
        }
        for value in values_of(case, decision, law, pins) {
            let values = leaf.values.iter().copied().chain([(decision, value)]).collect();
            all.push(Leaf { values, tally: None, result: Money::ZERO });
        }
    }
    all
}

/// Weighs every lawful way and keeps the lowest `keep` of them.
pub(super) fn search(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    keep: usize,
    stop: &Stop,
) -> Weighed {
    let factors = Factors::of(case, pins, stop);
    let nothing = BTreeMap::new();
    let mut free = Solved::of(case, &factors.diagrams, &factors.all, &nothing, stop);
    let mut held = Solved::of(case, &factors.diagrams, &factors.all, pins, stop);
    let mut prices = held.prices();
    // What another option of a pinned decision would cost is seen with that pin alone let go.
    for &pinned in pins.keys() {
        let mut others = pins.clone();
        others.remove(&pinned);
        let mut freed = Solved::of(case, &factors.diagrams, &factors.all, &others, stop).prices();
        if let Some(prices) = prices.get_mut(pinned) {
            *prices = freed.swap_remove(pinned);
        }
    }
    let narrow = |count: u128| u64::try_from(count).unwrap_or(u64::MAX);
    let prices = priced_options(case, prices);
    let mut bars = factors.bars;
    clear_bars_of_priced_options(&mut bars, &prices);
    Weighed {
        lawful: narrow(free.count()),
        holding: narrow(held.count()),
        lowest: free.ranking(1).pop().map(ranked),
        ranking: held.ranking(keep).into_iter().map(ranked).collect(),
        prices,
        ends: vec![Ends::default(); case.decisions().len()],
        bars,
        complete: true,
    }
}

/// The lowest way that holds every pin, without the prices of anything else.
pub(super) fn lowest(case: &dyn Weighable, pins: &BTreeMap<usize, Taken>, stop: &Stop) -> Option<Ranked> {
    let factors = Factors::of(case, pins, stop);
    Solved::of(case, &factors.diagrams, &factors.all, pins, stop).ranking(1).pop().map(ranked)
}

fn ranked((total, values): (Money, Packed)) -> Ranked {
    let taken = |value: u8| value.checked_sub(1).map(Taken::Option);
    Ranked { total, way: Way(values.into_iter().map(taken).collect()) }
}

/// Prices of options: a neutral decision costs the same whichever option stands.
fn priced_options(case: &dyn Weighable, prices: Vec<Vec<Option<Money>>>) -> Vec<Vec<Option<Money>>> {
    let options = |(about, mut prices): (&crate::Decision, Vec<Option<Money>>)| {
        prices.remove(usize::from(CLOSED));
        let best = prices.iter().flatten().min().copied();
        if about.neutral { vec![best; prices.len()] } else { prices }
    };
    case.decisions().iter().zip(prices).map(options).collect()
}

/// An option barred in some ways only is not barred.
pub(super) fn clear_bars_of_priced_options(bars: &mut [Vec<Option<Bar>>], prices: &[Vec<Option<Money>>]) {
    for (bar, price) in bars.iter_mut().flatten().zip(prices.iter().flatten()) {
        if price.is_some() {
            *bar = None;
        }
    }
}
