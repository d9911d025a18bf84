//! For tests and benches only: families of every law, the search by brute force, what a pack's declarations must hold,
//! and what its modules import of each other.
//!
//! By brute force every lawful way is walked and reckoned one by one, nothing is remembered; what comes out must be what
//! [`hembo_core::search::search`] says, to the cent and in the same order.

#![allow(clippy::unwrap_used, clippy::missing_panics_doc)]

pub mod bench;
pub mod ca;
pub mod de;
pub mod declarations;
pub mod family;
pub mod laws;
pub mod modules;
pub mod mutants;
pub mod nz;
pub mod us;
pub mod za;

use hembo_core::{
    Way,
    decision::Taken,
    search::{Ends, Law, Ranked, View, Weighable, Weighed},
};
use hembo_money::Money;
use std::{collections::BTreeMap, time::Instant};

/// Options that are held, by their decision.
pub type Pins = BTreeMap<usize, Taken>;

/// The total of a way: all its parts.
pub fn total(case: &dyn Weighable, way: &Way) -> Money {
    let view = View::of(way);
    (0..case.parts()).map(|part| case.total(part, &view)).sum()
}

/// Everything that [`search`](hembo_core::search::search) finds where no decision is an amount.
pub fn weighed(case: &dyn Weighable, pins: &Pins, keep: usize) -> Weighed {
    let sizes: Vec<usize> = case.decisions().iter().map(|d| d.options.len()).collect();
    let mut found = Weighed {
        ranking: Vec::new(),
        lawful: 0,
        holding: 0,
        lowest: None,
        prices: sizes.iter().map(|&n| vec![None; n]).collect(),
        ends: vec![Ends::default(); sizes.len()],
        bars: sizes.iter().map(|&n| vec![None; n]).collect(),
        complete: true,
    };
    let mut all = Vec::new();
    walk(case, pins, Way::default(), &mut found, &mut all);
    all.sort();
    found.lawful = all.len() as u64;
    found.lowest = all.first().cloned();
    for Ranked { total, way } in &all {
        let broken: Vec<usize> =
            pins.iter().filter(|(d, pin)| breaks(way, **d, **pin)).map(|(d, _)| *d).collect();
        for (d, about) in case.decisions().iter().enumerate() {
            let Some(taken) = way.taken(d) else { continue };
            if broken.iter().any(|&b| b != d) {
                continue;
            }
            // A neutral decision costs the same whichever option stands.
            let same = if about.neutral { 0..about.options.len() } else { taken..taken + 1 };
            for price in &mut found.prices[d][same] {
                *price = Some(price.map_or(*total, |best: Money| best.min(*total)));
            }
        }
        if broken.is_empty() {
            found.holding += 1;
            if found.ranking.len() < keep {
                found.ranking.push(Ranked { total: *total, way: way.clone() });
            }
        }
    }
    for (bar, price) in found.bars.iter_mut().flatten().zip(found.prices.iter().flatten()) {
        if price.is_some() {
            *bar = None;
        }
    }
    found
}

fn breaks(way: &Way, decision: usize, pin: Taken) -> bool {
    way.0.get(decision).copied().flatten().is_some_and(|taken| taken != pin)
}

fn walk(case: &dyn Weighable, pins: &Pins, way: Way, found: &mut Weighed, all: &mut Vec<Ranked>) {
    let decision = way.0.len();
    let Some(about) = case.decisions().get(decision) else {
        return all.push(Ranked { total: total(case, &way), way });
    };
    let with = |taken: Option<Taken>| Way(way.0.iter().copied().chain([taken]).collect());
    let Law::Open(bars) = case.law(decision, &View::of(&way)) else {
        return walk(case, pins, with(None), found, all);
    };
    if about.neutral {
        let stands = pins.get(&decision).copied().unwrap_or(Taken::Option(0));
        return walk(case, pins, with(Some(stands)), found, all);
    }
    for (option, bar) in bars.into_iter().enumerate() {
        match bar {
            None => walk(case, pins, with(Some(Taken::Option(option as u8))), found, all),
            Some(bar) => {
                found.bars[decision][option].get_or_insert(bar);
            }
        }
    }
}

/// The median of `times` runs of some work, in seconds; for benches.
pub fn median(times: usize, mut work: impl FnMut()) -> f64 {
    let mut seconds: Vec<f64> = (0..times)
        .map(|_| {
            let begun = Instant::now();
            work();
            begun.elapsed().as_secs_f64()
        })
        .collect();
    seconds.sort_by(f64::total_cmp);
    seconds[times / 2]
}
