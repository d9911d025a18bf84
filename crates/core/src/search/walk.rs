//! The walk through all combinations of options, and at the end of each the amounts that it leaves open.

use super::{
    Edges, Ends, Law, Ranked, Stop, UNLAWFUL, View, Weighable, Weighed,
    discrete::clear_bars_of_priced_options,
    kinks::{At, Explorer},
    looking::{Amounts, Looking},
};
use crate::decision::{Amount, More, Taken, Way};
use hembo_money::{Money, Rounding};
use std::collections::{BTreeMap, BinaryHeap};

/// Amounts that are held, by their decision.
pub(super) type Held = BTreeMap<usize, Money>;

/// The ends of amounts are priced at once where that takes no more than so many points; else only when somebody asks
/// for them.
const FEW_POINTS: u64 = 4_000;

/// Weighs every lawful way and keeps the lowest `keep` of them. `pins` maps a decision to what is held; the ends of
/// amounts are priced where they are `asked` for, or where that takes few points.
pub(super) fn search(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    keep: usize,
    asked: bool,
    stop: &Stop,
) -> Weighed {
    let mut walk = Walk::new(case, pins, keep, stop);
    walk.from(&mut Way::default());
    if asked || walk.points_of_ends() <= FEW_POINTS {
        walk.price_ends();
    }
    walk.finish()
}

/// The lowest way that holds every pin, without the prices of anything else.
pub(super) fn lowest(case: &dyn Weighable, pins: &BTreeMap<usize, Taken>, stop: &Stop) -> Option<Ranked> {
    let mut walk = Walk::new(case, pins, 1, stop);
    walk.from(&mut Way::default());
    walk.finish().ranking.into_iter().next()
}

/// The kinks of the household's total along one amount of a way, everything else as it stands there.
pub fn along(
    case: &dyn Weighable,
    way: &Way,
    decision: usize,
    most: Money,
    stop: &Stop,
) -> Vec<(Money, Money)> {
    let mut moved = way.clone();
    let mut points: Vec<(Money, Money)> = Vec::new();
    let at = |amounts: &[Money], edges: &mut Edges| {
        moved.0[decision] = Some(Taken::Amount(amounts[0]));
        let view = View::of(&moved);
        let total = (0..case.parts()).map(|part| case.total_with_edges(part, &view, edges)).sum();
        if total < UNLAWFUL {
            points.push((amounts[0], total));
        }
        At { total, lawful: total }
    };
    Explorer::new(at, Money::LARGEST).explore(&[most], None, |_| stop.is_stopped());
    points.sort();
    points
}

struct Walk<'a> {
    case: &'a dyn Weighable,
    pins: &'a BTreeMap<usize, Taken>,
    keep: usize,
    stop: &'a Stop,
    /// How many points of amounts were reckoned.
    points: u64,
    kept: BinaryHeap<Ranked>,
    combinations: Vec<Combination>,
    weighed: Weighed,
}

/// A combination of options that was weighed.
struct Combination {
    /// Its amounts stand at their most.
    way: Way,
    /// Amounts that are held.
    held: Held,
    /// Pinned decisions that took something else.
    broken: Vec<usize>,
    /// The lowest.
    best: Ranked,
    /// How many points of amounts were reckoned for it.
    points: u64,
}

impl<'a> Walk<'a> {
    fn new(
        case: &'a dyn Weighable,
        pins: &'a BTreeMap<usize, Taken>,
        keep: usize,
        stop: &'a Stop,
    ) -> Walk<'a> {
        let weighed = Weighed::nothing(case);
        let (kept, combinations) = (BinaryHeap::new(), Vec::new());
        Walk { case, pins, keep, stop, points: 0, kept, combinations, weighed }
    }

    fn from(&mut self, way: &mut Way) {
        if self.stop.is_stopped() {
            return;
        }
        if self.stop.left(self.points) == 0 && !self.kept.is_empty() {
            self.weighed.complete = false;
            return;
        }
        let decision = way.0.len();
        let decisions = self.case.decisions();
        let Some(about) = decisions.get(decision) else {
            return self.weigh(way);
        };
        let Law::Open(bars) = self.case.law(decision, &View::of(way)) else {
            return self.with(way, None);
        };
        if about.amount.is_some() {
            let most = self.case.most(decision, &View::of(way));
            return self.with(way, (most > Money::ZERO).then_some(Taken::Amount(most)));
        }
        if about.neutral {
            let stands = self.pins.get(&decision).copied().unwrap_or(Taken::Option(0));
            return self.with(way, Some(stands));
        }
        let mut options: Vec<_> = bars.into_iter().enumerate().collect();
        // What is held comes first: it is weighed whatever the budget.
        let held = |option: usize| self.pins.get(&decision) == Some(&Taken::Option(option as u8));
        options.sort_by_key(|(option, _)| !held(*option));
        for (option, bar) in options {
            match bar {
                None => self.with(way, Some(Taken::Option(option as u8))),
                Some(bar) => {
                    self.weighed.bars[decision][option].get_or_insert(bar);
                }
            }
        }
    }

    fn with(&mut self, way: &mut Way, taken: Option<Taken>) {
        way.0.push(taken);
        self.from(way);
        way.0.pop();
    }

    /// Weighs one combination of options; its amounts stand at their most.
    fn weigh(&mut self, way: &Way) {
        let held: Held = self.pinned_amounts(way).filter(|(d, pin)| way.amount(*d) >= Some(*pin)).collect();
        let broken: Vec<usize> = self.broken_pins(way).collect();
        let before = self.points;
        let (best, weighed) = self.best(way, &held);
        let free = if held.is_empty() { best.clone() } else { self.best(way, &Held::new()).0 };
        if free.total >= UNLAWFUL {
            return;
        }
        if self.weighed.lowest.as_ref().is_none_or(|lowest| free < *lowest) {
            self.weighed.lowest = Some(free);
        }
        if best.total < UNLAWFUL {
            self.price_options(&best, &broken);
        }
        self.weighed.lawful += weighed;
        if broken.is_empty() {
            self.weighed.holding += weighed;
            if best.total < UNLAWFUL {
                self.keep(best.clone());
            }
        }
        let points = self.points - before;
        self.combinations.push(Combination { way: way.clone(), held, broken, best, points });
    }

    /// How many points the prices of all ends take at the most: each holds one amount more than the lowest did.
    fn points_of_ends(&self) -> u64 {
        let ends = |c: &Combination| {
            let open = self.case.decisions().iter().enumerate().filter(|(d, _)| c.way.amount(*d).is_some());
            let ends = |about: &Amount| 1 + u64::from(about.more != More::NeverCosts);
            open.filter_map(|(_, about)| about.amount.as_ref()).map(ends).sum::<u64>()
        };
        self.combinations.iter().map(|c| c.points * ends(c)).sum()
    }

    /// Prices the ends of the amounts of every combination, and keeps the ways at them. What does not come within the
    /// budget stays without a price.
    fn price_ends(&mut self) {
        let complete = self.weighed.complete;
        for Combination { way, held, broken, best, .. } in std::mem::take(&mut self.combinations) {
            let mut ends = self.price_amounts(&way, &held, &best, &broken);
            if !self.weighed.complete {
                self.weighed.ends.fill(Ends::default());
                break;
            }
            ends.sort();
            ends.dedup();
            ends.retain(|end| end.way != best.way && end.total < UNLAWFUL && broken.is_empty());
            ends.into_iter().for_each(|end| self.keep(end));
        }
        self.weighed.complete = complete;
    }

    fn pinned_amounts<'w>(&'w self, way: &'w Way) -> impl Iterator<Item = (usize, Money)> + 'w {
        let amount = |(d, pin): (&usize, &Taken)| match pin {
            Taken::Amount(amount) if way.amount(*d).is_some() => Some((*d, *amount)),
            _ => None,
        };
        self.pins.iter().filter_map(amount)
    }

    /// The pinned decisions that arise in this way and took another option, or cannot reach the amount.
    fn broken_pins<'w>(&'w self, way: &'w Way) -> impl Iterator<Item = usize> + 'w {
        let breaks = |d: &usize, pin: &Taken| match (way.0.get(*d).copied().flatten(), pin) {
            (Some(Taken::Option(taken)), Taken::Option(option)) => taken != *option,
            (Some(Taken::Amount(most)), Taken::Amount(amount)) => *amount > most,
            _ => false,
        };
        self.pins.iter().filter(move |(d, pin)| breaks(d, pin)).map(|(d, _)| *d)
    }

    /// The lowest over the amounts that are not held, and how many lawful points were reckoned for it.
    fn best(&mut self, way: &Way, held: &Held) -> (Ranked, u64) {
        let mut way = way.clone();
        for (&decision, &amount) in held {
            way.0[decision] = Some(Taken::Amount(amount));
        }
        let amounts = Amounts::of(self.case, &way, held);
        let budget = self.stop.left(self.points);
        if amounts.is_empty() || budget == 0 {
            self.weighed.complete &= amounts.is_empty();
            self.points += 1;
            return (Ranked { total: self.total(&way), way }, 1);
        }
        let mut looking = Looking::new(self.case, &amounts, way, self.stop, budget);
        looking.look();
        self.points += looking.work();
        self.weighed.complete &= looking.complete();
        let (best, lawful) = (looking.best.take(), looking.lawful);
        let best = best.unwrap_or_else(|| Ranked { total: UNLAWFUL, way: looking.way.clone() });
        (self.tidied(best, amounts.all()), lawful)
    }

    /// The same with amounts in whole units, where that costs nothing: a kink is known to the cent only.
    fn tidied(&mut self, ranked: Ranked, searched: impl Iterator<Item = (usize, Money)>) -> Ranked {
        let mut tidy = ranked.clone();
        for (decision, most) in searched {
            let whole = tidy.way.amount(decision).unwrap_or_default().to_whole().min(most);
            let mut way = tidy.way.clone();
            way.0[decision] = Some(Taken::Amount(whole));
            let total = self.total(&way);
            if total <= tidy.total {
                tidy = Ranked { total, way };
            }
        }
        tidy
    }

    fn total(&self, way: &Way) -> Money {
        let view = View::of(way);
        (0..self.case.parts()).map(|part| self.case.total(part, &view)).sum()
    }

    fn price_options(&mut self, best: &Ranked, broken: &[usize]) {
        for (decision, about) in self.case.decisions().iter().enumerate() {
            let Some(taken) = best.way.taken(decision) else { continue };
            if broken.iter().any(|&b| b != decision) {
                continue;
            }
            // A neutral decision costs the same whichever option stands.
            let options = if about.neutral { 0..about.options.len() } else { taken..taken + 1 };
            for price in &mut self.weighed.prices[decision][options] {
                lower(price, best.total);
            }
        }
    }

    /// The best totals of each amount at its ends and left free. Returns the ways at the ends of those not pinned.
    fn price_amounts(&mut self, way: &Way, held: &Held, best: &Ranked, broken: &[usize]) -> Vec<Ranked> {
        let mut ends = Vec::new();
        for (decision, about) in self.case.decisions().iter().enumerate() {
            let (Some(most), Some(about)) = (way.amount(decision), &about.amount) else { continue };
            if broken.iter().any(|&b| b != decision) {
                continue;
            }
            let mut others = held.clone();
            let pinned = others.remove(&decision).is_some() || broken.contains(&decision);
            let free = if pinned { self.best(way, &others).0 } else { best.clone() };
            let mut at = |amount| {
                others.insert(decision, amount);
                self.best(way, &others).0
            };
            let none = at(Money::ZERO);
            let all = if about.more == More::NeverCosts { free.clone() } else { at(most) };
            let told = &mut self.weighed.ends[decision];
            lower(&mut told.free, free.total.min(none.total).min(all.total));
            lower(&mut told.none, none.total);
            lower(&mut told.all, all.total);
            if !pinned {
                ends.extend([none, all]);
            }
        }
        ends
    }

    fn keep(&mut self, ranked: Ranked) {
        if self.kept.len() < self.keep {
            self.kept.push(ranked);
        } else if self.kept.peek().is_some_and(|worst| ranked < *worst) {
            self.kept.pop();
            self.kept.push(ranked);
        }
    }

    fn finish(mut self) -> Weighed {
        let ranking = std::mem::take(&mut self.kept).into_sorted_vec();
        let mut ranking: Vec<_> = ranking.into_iter().map(|ranked| self.trimmed(ranked)).collect();
        ranking.sort();
        ranking.dedup_by(|a, b| a.way == b.way);
        let mut weighed = self.weighed;
        weighed.ranking = ranking;
        if weighed.complete {
            bar_what_is_nowhere_lawful(&mut weighed);
        }
        clear_bars_of_priced_options(&mut weighed.bars, &weighed.prices);
        weighed
    }

    /// The same total with as little as possible of the amounts that never cost: what does nothing is better kept.
    fn trimmed(&mut self, mut ranked: Ranked) -> Ranked {
        for decision in 0..ranked.way.0.len() {
            let about = self.case.decisions()[decision].amount.as_ref();
            let Some(most) = ranked.way.amount(decision) else { continue };
            if about.is_none_or(|a| a.more == More::MayCost) || self.pins.contains_key(&decision) {
                continue;
            }
            let (mut less, mut enough) = (-1, most.cents());
            while enough - less > 1 {
                let middle = less + (enough - less) / 2;
                ranked.way.0[decision] = Some(Taken::Amount(Money::from_cents(middle)));
                if self.total(&ranked.way) <= ranked.total {
                    enough = middle;
                } else {
                    less = middle;
                }
            }
            let whole = Money::from_cents(enough).rounded(Money::WHOLE, Rounding::Up).min(most);
            ranked.way.0[decision] = Some(Taken::Amount(whole));
        }
        ranked.total = self.total(&ranked.way);
        ranked
    }
}

/// Options that the law opens, but that no amounts make lawful.
fn bar_what_is_nowhere_lawful(weighed: &mut Weighed) {
    let options = weighed.bars.iter_mut().flatten().zip(weighed.prices.iter().flatten());
    for (bar, _) in options.filter(|(bar, price)| bar.is_none() && price.is_none()) {
        *bar = Some("not lawful with any amount here".into());
    }
}

fn lower(price: &mut Option<Money>, total: Money) {
    if total >= UNLAWFUL {
        return;
    }
    *price = Some(price.map_or(total, |best| best.min(total)));
}
