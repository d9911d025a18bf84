//! Options alone: what the laws and the parts read makes diagrams, and sums and minima over them the answer. The work
//! grows with what the parts read, not with the ways.

use super::{
    Law, Ranked, Stop, Weighable, Weighed,
    diagram::{Diagrams, NodeId},
    solve::{Packed, Solved},
    view::{CLOSED, Leaf, Standing, TooMany, View, values_of},
};
use crate::decision::{Bar, Taken, Way};
use hembo_money::Money;
use std::collections::{BTreeMap, BTreeSet};

/// Decisions are settled until a part has at most this fraction of the budget: the others have theirs.
const FITS_WELL: usize = 16;

/// Laws and parts as diagrams.
struct Factors {
    diagrams: Diagrams,
    all: Vec<NodeId>,
    /// For each option why some way bars it.
    bars: Vec<Vec<Option<Bar>>>,
}

impl Factors {
    fn of(
        case: &dyn Weighable,
        standing: Standing<'_>,
        most: usize,
        stop: &Stop,
    ) -> Result<Factors, TooMany> {
        let mut diagrams = Diagrams::new();
        let mut all = Vec::new();
        let mut bars = case.decisions().iter().map(|d| vec![None; d.options.len()]).collect::<Vec<_>>();
        let mut left = most;
        for (decision, bars) in bars.iter_mut().enumerate() {
            let view = View::searching(case, standing, left);
            let leaves = leaves_of_law(case, standing, &view, decision, bars, stop)?;
            left = left.saturating_sub(leaves.len());
            all.push(diagrams.of(case, leaves));
        }
        for part in 0..case.parts() {
            let view = View::searching(case, standing, left);
            let leaves = view.leaves(stop, |view| case.total(part, view))?;
            left = left.saturating_sub(leaves.len());
            all.push(diagrams.of(case, leaves));
        }
        Ok(Factors { diagrams, all, bars })
    }
}

/// A law as a factor: no cost, and no combination that it does not allow.
fn leaves_of_law(
    case: &dyn Weighable,
    standing: Standing<'_>,
    view: &View<'_>,
    decision: usize,
    bars: &mut [Option<Bar>],
    stop: &Stop,
) -> Result<Vec<Leaf>, TooMany> {
    let mut laws = Vec::new();
    let leaves = view.leaves(stop, |view| {
        laws.push(case.law(decision, view));
        // The place of the law among the laws, to be found again: dead combinations are left out.
        Money::from_cents(laws.len() as i64 - 1)
    })?;
    let mut all = Vec::new();
    for leaf in leaves {
        let law = &laws[leaf.result.cents() as usize];
        if let (Law::Open(barred), false) = (law, case.decisions()[decision].neutral) {
            for (known, bar) in bars.iter_mut().zip(barred) {
                *known = known.take().or_else(|| bar.clone());
            }
        }
        for value in values_of(case, decision, law, standing) {
            let values = leaf.values.iter().copied().chain([(decision, value)]).collect();
            all.push(Leaf { values, tally: None, result: Money::ZERO });
        }
    }
    Ok(all)
}

/// Weighs with as few decisions settled beforehand as the budget asks for; whether none was.
fn within_budget<T>(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    stop: &Stop,
    weigh: impl Fn(&Factors, usize) -> Result<T, TooMany>,
) -> Option<(T, bool)> {
    let mut settled = BTreeSet::new();
    let mut most = stop.most_of_options();
    while !stop.is_stopped() {
        let standing = Standing { pins, settled: &settled };
        match Factors::of(case, standing, most, stop).and_then(|factors| weigh(&factors, most)) {
            Ok(weighed) => return Some((weighed, settled.is_empty())),
            Err(TooMany(read)) if settle(case, &mut settled, &read, most) => {}
            // One way is left, and it is weighed in any case.
            Err(_) => most = usize::MAX,
        }
    }
    None
}

/// Settles so many of the decisions that were read, the last ones first, that the others fit the budget well. Whether
/// there was any.
fn settle(case: &dyn Weighable, settled: &mut BTreeSet<usize>, read: &[usize], most: usize) -> bool {
    let before = settled.len();
    let options = |decision: usize| case.decisions()[decision].options.len().max(1) as u128;
    let mut read: Vec<usize> = read.iter().copied().filter(|decision| !settled.contains(decision)).collect();
    read.sort_unstable();
    let fits = (most / FITS_WELL) as u128;
    let mut ways = read.iter().fold(1, |ways: u128, &d| ways.saturating_mul(options(d)));
    while let Some(last) = read.pop() {
        settled.insert(last);
        ways /= options(last);
        if ways <= fits {
            break;
        }
    }
    settled.len() > before
}

/// Weighs every lawful way and keeps the lowest `keep` of them.
pub(super) fn search(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    keep: usize,
    stop: &Stop,
) -> Weighed {
    let weigh = |factors: &Factors, most: usize| weighed(case, factors, pins, keep, most, stop);
    match within_budget(case, pins, stop, weigh) {
        Some((weighed, complete)) => Weighed { complete, ..weighed },
        None => Weighed::nothing(case),
    }
}

fn weighed(
    case: &dyn Weighable,
    factors: &Factors,
    pins: &BTreeMap<usize, Taken>,
    keep: usize,
    most: usize,
    stop: &Stop,
) -> Result<Weighed, TooMany> {
    let nothing = BTreeMap::new();
    let solved = |held| Solved::of(case, &factors.diagrams, &factors.all, held, most, stop);
    let mut free = solved(&nothing)?;
    let mut held = solved(pins)?;
    let mut prices = held.prices();
    // What another option of a pinned decision would cost is seen with that pin alone let go.
    for &pinned in pins.keys() {
        let mut others = pins.clone();
        others.remove(&pinned);
        let mut freed = Solved::of(case, &factors.diagrams, &factors.all, &others, most, stop)?.prices();
        if let Some(prices) = prices.get_mut(pinned) {
            *prices = freed.swap_remove(pinned);
        }
    }
    let narrow = |count: u128| u64::try_from(count).unwrap_or(u64::MAX);
    let prices = priced_options(case, prices);
    let mut bars = factors.bars.clone();
    clear_bars_of_priced_options(&mut bars, &prices);
    Ok(Weighed {
        lawful: narrow(free.count()),
        holding: narrow(held.count()),
        lowest: free.ranking(1).pop().map(ranked),
        ranking: held.ranking(keep).into_iter().map(ranked).collect(),
        prices,
        bars,
        ..Weighed::nothing(case)
    })
}

/// The lowest way that holds every pin, without the prices of anything else.
pub(super) fn lowest(case: &dyn Weighable, pins: &BTreeMap<usize, Taken>, stop: &Stop) -> Option<Ranked> {
    let weigh = |factors: &Factors, most: usize| {
        let mut solved = Solved::of(case, &factors.diagrams, &factors.all, pins, most, stop)?;
        Ok(solved.ranking(1).pop().map(ranked))
    };
    within_budget(case, pins, stop, weigh)?.0
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
