//! The search over all lawful ways.
//!
//! Every lawful way is weighed; nothing is left out by a guess. What saves time is independence: a household's
//! total is the sum of its *parts* (returns), a part's total depends only on the decisions that it names, and
//! each distinct combination of those is reckoned once.

use crate::decision::{Bar, Decision, Way};
use hembo_money::Money;
use std::collections::{BTreeMap, BinaryHeap, HashMap};

/// Something whose ways can be weighed.
pub trait Weighable {
    /// The decisions, in an order in which openness and bars depend only on earlier ones.
    fn decisions(&self) -> &[Decision];

    /// Whether a decision arises, given the options taken of the earlier ones.
    fn open(&self, decision: usize, taken: &Way) -> bool;

    /// Why an option is not lawful, given the options taken of the earlier decisions.
    fn barred(&self, decision: usize, option: usize, taken: &Way) -> Option<Bar>;

    /// The parts of the household's total in a way, each with the decisions on which it depends.
    fn parts(&self, way: &Way) -> Vec<Part>;

    /// The total of one part in a way.
    fn total(&self, part: usize, way: &Way) -> Money;
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
    /// The lowest ways that hold every pin, lowest first, as many as were asked for.
    pub ranking: Vec<Ranked>,
    /// How many ways are lawful; all were weighed.
    pub lawful: u64,
    /// How many of them hold every pin.
    pub holding: u64,
    /// The lowest total of any lawful way, pins or not.
    pub lowest: Option<Ranked>,
    /// For each option of each decision, the best total it allows while the other pins hold.
    pub prices: Vec<Vec<Option<Money>>>,
    /// For each option that no lawful way takes, why.
    pub bars: Vec<Vec<Option<Bar>>>,
}

/// Weighs every lawful way and keeps the lowest `keep` of them. `pins` maps a decision to the option held.
pub fn search<C: Weighable + ?Sized>(case: &C, pins: &BTreeMap<usize, usize>, keep: usize) -> Weighed {
    let sizes: Vec<usize> = case.decisions().iter().map(|d| d.options.len()).collect();
    let mut walk = Walk {
        case,
        pins,
        keep,
        memo: HashMap::new(),
        kept: BinaryHeap::new(),
        weighed: Weighed {
            ranking: Vec::new(),
            lawful: 0,
            holding: 0,
            lowest: None,
            prices: sizes.iter().map(|&n| vec![None; n]).collect(),
            bars: sizes.iter().map(|&n| vec![None; n]).collect(),
        },
    };
    walk.from(&mut Way::default());
    let Walk { kept, mut weighed, .. } = walk;
    weighed.ranking = kept.into_sorted_vec();
    clear_bars_of_priced_options(&mut weighed);
    weighed
}

/// An option barred in some ways only is not barred.
fn clear_bars_of_priced_options(weighed: &mut Weighed) {
    for (bars, prices) in weighed.bars.iter_mut().zip(&weighed.prices) {
        for (bar, price) in bars.iter_mut().zip(prices) {
            if price.is_some() {
                *bar = None;
            }
        }
    }
}

struct Walk<'a, C: ?Sized> {
    case: &'a C,
    pins: &'a BTreeMap<usize, usize>,
    keep: usize,
    memo: HashMap<(usize, Vec<Option<u8>>), Money>,
    kept: BinaryHeap<Ranked>,
    weighed: Weighed,
}

impl<C: Weighable + ?Sized> Walk<'_, C> {
    fn from(&mut self, way: &mut Way) {
        let decision = way.0.len();
        let decisions = self.case.decisions();
        let Some(about) = decisions.get(decision) else {
            return self.weigh(way);
        };
        if !self.case.open(decision, way) {
            return self.with(way, None);
        }
        if about.neutral {
            let stands = self.pins.get(&decision).copied().unwrap_or(0);
            return self.with(way, Some(stands as u8));
        }
        for option in 0..about.options.len() {
            match self.case.barred(decision, option, way) {
                None => self.with(way, Some(option as u8)),
                Some(bar) => {
                    self.weighed.bars[decision][option].get_or_insert(bar);
                }
            }
        }
    }

    fn with(&mut self, way: &mut Way, option: Option<u8>) {
        way.0.push(option);
        self.from(way);
        way.0.pop();
    }

    fn weigh(&mut self, way: &Way) {
        let ranked = Ranked { total: self.total(way), way: way.clone() };
        self.weighed.lawful += 1;
        if self.weighed.lowest.as_ref().is_none_or(|lowest| ranked < *lowest) {
            self.weighed.lowest = Some(ranked.clone());
        }
        let broken: Vec<usize> = self.broken_pins(way).collect();
        self.price(way, ranked.total, &broken);
        if broken.is_empty() {
            self.weighed.holding += 1;
            self.keep(ranked);
        }
    }

    fn total(&mut self, way: &Way) -> Money {
        let case = self.case;
        let parts = case.parts(way).into_iter();
        parts
            .map(|part| {
                let key = (part.id, part.depends.iter().map(|&d| way.0[d]).collect());
                *self.memo.entry(key).or_insert_with(|| case.total(part.id, way))
            })
            .sum()
    }

    /// The pinned decisions that arise in this way and took another option.
    fn broken_pins<'w>(&'w self, way: &'w Way) -> impl Iterator<Item = usize> + 'w {
        let breaks = |d: &usize, o: &usize| way.taken(*d).is_some_and(|taken| taken != *o);
        self.pins.iter().filter(move |(d, o)| breaks(d, o)).map(|(d, _)| *d)
    }

    fn price(&mut self, way: &Way, total: Money, broken: &[usize]) {
        for (decision, about) in self.case.decisions().iter().enumerate() {
            let Some(taken) = way.taken(decision) else { continue };
            if broken.iter().any(|&b| b != decision) {
                continue;
            }
            // A neutral decision costs the same whichever option stands.
            let options = if about.neutral { 0..about.options.len() } else { taken..taken + 1 };
            for price in &mut self.weighed.prices[decision][options] {
                *price = Some(price.map_or(total, |best| best.min(total)));
            }
        }
    }

    fn keep(&mut self, ranked: Ranked) {
        if self.kept.len() < self.keep {
            self.kept.push(ranked);
        } else if self.kept.peek().is_some_and(|worst| ranked < *worst) {
            self.kept.pop();
            self.kept.push(ranked);
        }
    }
}
