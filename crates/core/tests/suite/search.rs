//! The search and the limits on their own.

use hembo_core::{
    Decision, Recorder, Scope, Silent,
    decision::{Amount, Bar, More, Opt, Taken},
    limit::{self, LimitDef, PhaseIn, PhaseOut, Shape},
    search::{Edges, Law, Stop, Stopped, Tally, View, Weighable, lowest, search},
};
use hembo_money::{Money, Rate, Rounding};
use proptest::prelude::*;
use std::collections::BTreeMap;

/// Decisions whose openness, bars and totals come from a table of random numbers.
#[derive(Debug)]
struct Puzzle {
    decisions: Vec<Decision>,
    random: Vec<u16>,
}

impl Puzzle {
    fn new(sizes: &[usize], neutral: bool, random: Vec<u16>) -> Puzzle {
        let opt = |o: usize| Opt::new(o.to_string(), "", "");
        let decision = |(d, &n): (usize, &usize)| Decision {
            id: d.to_string(),
            label: String::new(),
            cite: "",
            options: (0..n).map(opt).collect(),
            amount: None,
            neutral: neutral && d == sizes.len() - 1,
        };
        Puzzle { decisions: sizes.iter().enumerate().map(decision).collect(), random }
    }

    fn random(&self, seed: usize) -> usize {
        usize::from(self.random[(seed * 31 + 7) % self.random.len()])
    }

    /// What is taken of the decision before; of claims, of the one before all of them.
    fn last(&self, decision: usize, view: &View<'_>) -> usize {
        let before =
            self.claims().find(|c| *c <= decision).map_or(decision, |_| self.claims().min().unwrap_or(0));
        before.checked_sub(1).and_then(|d| view.taken(d)).unwrap_or(9)
    }

    /// The last two decisions that are not neutral.
    fn claims(&self) -> impl Iterator<Item = usize> + '_ {
        (0..self.decisions.len()).rev().filter(|d| !self.decisions[*d].neutral).take(2)
    }

    fn open(&self, decision: usize, view: &View<'_>) -> bool {
        decision == 0 || !self.random(decision * 11 + self.last(decision, view)).is_multiple_of(4)
    }

    fn barred(&self, decision: usize, option: usize, view: &View<'_>) -> Option<Bar> {
        let of = decision * 17 + option * 5 + self.last(decision, view);
        (option > 0 && self.random(of).is_multiple_of(5)).then(|| "by the table".into())
    }
}

impl Weighable for Puzzle {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }
    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        if !self.open(decision, view) {
            return Law::Closed;
        }
        Law::Open(
            (0..self.decisions[decision].options.len()).map(|o| self.barred(decision, o, view)).collect(),
        )
    }
    /// Three parts: the even decisions, the odd ones but only after a first that is taken, and the last two as a sum;
    /// neutral ones matter to none.
    fn parts(&self) -> usize {
        3
    }
    fn total(&self, part: usize, view: &View<'_>) -> Money {
        if part == 2 {
            view.tally(0);
            let Tally { claims, weights } = self.tally(0);
            let weight = |(d, w): (&usize, &Vec<Vec<i64>>)| view.taken(*d).map_or(0, |o| w[o][0]);
            let sum: i64 = claims.iter().zip(&weights).map(weight).sum();
            return Money::whole(self.random(300 + sum as usize) as i64 % 40);
        }
        if part == 1 && view.taken(0) == Some(0) {
            return Money::ZERO;
        }
        let of = (0..self.decisions.len()).filter(|d| d % 2 == part && !self.decisions[*d].neutral);
        let key = of.fold(part + 1, |key, d| key * 7 + view.taken(d).unwrap_or(6));
        Money::whole(self.random(key) as i64 % 50)
    }
    fn tally(&self, _: usize) -> Tally {
        let mut claims: Vec<usize> = self.claims().collect();
        claims.reverse();
        let weights = |d: &usize| {
            (0..self.decisions[*d].options.len()).map(|o| vec![(self.random(d * 3 + o) % 2) as i64]).collect()
        };
        Tally { weights: claims.iter().map(weights).collect(), claims }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(3_000))]

    /// Counts, prices, bars with their words, and the lowest ways in their order: as brute force has them.
    #[test]
    fn the_search_is_brute_force(
        sizes in prop::collection::vec(1_usize..4, 1..8),
        random in prop::collection::vec(any::<u16>(), 64),
        neutral in any::<bool>(),
        pins in prop::collection::btree_map(0_usize..8, 0_u8..4, 0..4),
    ) {
        let puzzle = Puzzle::new(&sizes, neutral, random);
        let fits = |(d, o): &(usize, u8)| sizes.get(*d).is_some_and(|n| usize::from(*o) < *n);
        let pins: BTreeMap<_, _> = pins.into_iter().filter(fits).map(|(d, o)| (d, Taken::Option(o))).collect();
        prop_assert_eq!(search(&puzzle, &pins, 24, &Stop::default()).unwrap(), hembo_testing::weighed(&puzzle, &pins, 24));
        prop_assert_eq!(lowest(&puzzle, &pins, &Stop::default()).unwrap(), hembo_testing::weighed(&puzzle, &pins, 1).ranking.pop());
    }

    /// Within a budget that is too small some decisions are settled: what is told is of lawful ways, is the lowest of as many
    /// as are told, and is not said to be all.
    #[test]
    fn over_its_budget_a_search_tells_what_it_weighed(
        sizes in prop::collection::vec(2_usize..4, 2..7),
        random in prop::collection::vec(any::<u16>(), 64),
        budget in 1_u64..12,
    ) {
        let puzzle = Puzzle::new(&sizes, false, random);
        let nothing = BTreeMap::new();
        let all = hembo_testing::weighed(&puzzle, &nothing, usize::MAX);
        let few = search(&puzzle, &nothing, usize::MAX, &Stop::with_budget(budget)).unwrap();
        prop_assert!(few.ranking.iter().all(|ranked| all.ranking.contains(ranked)));
        prop_assert_eq!(few.lawful, few.ranking.len() as u64);
        prop_assert_eq!(few.complete, few.lawful == all.lawful && few == all);
        prop_assert_eq!(&few.lowest, &few.ranking.first().cloned());
        let left_out = (0..sizes.len()).any(|decision| few.left_out(decision));
        prop_assert!(few.complete || left_out || few.prices == all.prices);
    }
}

/// A total of two amounts that bends along random lines: one amount is neither good nor bad, of the other more never
/// costs.
#[derive(Debug)]
struct Bent {
    decisions: Vec<Decision>,
    hinges: Vec<Hinge>,
}

/// So much for each unit above a line: `slope × max(0, x × first + y × second − start)`.
#[derive(Debug, Clone, Copy)]
struct Hinge {
    first: i64,
    second: i64,
    start: i64,
    slope: i64,
}

const MOST: i64 = 40;

impl Bent {
    fn new(hinges: Vec<Hinge>) -> Bent {
        let amount = |d: usize| Decision {
            id: d.to_string(),
            label: String::new(),
            cite: "",
            options: Vec::new(),
            amount: Some(Amount {
                most: Money::whole(MOST),
                short: String::new(),
                more: More::MayCost,
                steepest: Rate::percent(5_000),
            }),
            neutral: false,
        };
        Bent { decisions: vec![amount(0), amount(1)], hinges }
    }

    fn at(&self, x: Money, y: Money, trail: &mut impl hembo_core::Trail) -> Money {
        let of = |hinge: &Hinge| {
            let over = x * hinge.first + y * hinge.second - Money::whole(hinge.start);
            limit::or_zero(trail, over) * hinge.slope
        };
        self.hinges.iter().map(of).sum()
    }

    fn of(&self, view: &View<'_>, trail: &mut impl hembo_core::Trail) -> Money {
        self.at(view.amount(0).unwrap(), view.amount(1).unwrap(), trail)
    }
}

impl Weighable for Bent {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }
    fn law(&self, _: usize, _: &View<'_>) -> Law {
        Law::Open(Vec::new())
    }
    fn most(&self, _: usize, _: &View<'_>) -> Money {
        Money::whole(MOST)
    }
    fn parts(&self) -> usize {
        1
    }
    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.of(view, &mut Silent)
    }
    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.of(view, edges)
    }
}

proptest! {
    #[test]
    fn no_point_of_two_amounts_is_lower_than_what_the_search_finds(
        hinges in prop::collection::vec((-1_i64..=1, -1_i64..=1, -60_i64..60, -4_i64..=4), 1..7),
        held in prop::option::of(0_i64..=MOST),
    ) {
        let hinge = |(first, second, start, slope)| Hinge { first, second, start, slope };
        let bent = Bent::new(hinges.into_iter().map(hinge).collect());
        let pins = held.map(|at| (1, Taken::Amount(Money::whole(at)))).into_iter().collect();
        let weighed = search(&bent, &pins, 3, &Stop::default()).unwrap();
        let best = &weighed.ranking[0];
        let seconds: Vec<i64> = held.map_or((0..=MOST).collect(), |at| vec![at]);
        let grid = (0..=MOST).flat_map(|x| seconds.iter().map(move |&y| (x, y)));
        let lowest = grid.map(|(x, y)| bent.at(Money::whole(x), Money::whole(y), &mut Silent)).min().unwrap();
        // Corners are whole cents: a corner between two of them is missed by less than a cent of each slope.
        prop_assert!(best.total.cents() <= lowest.cents() + 20, "{best:?} but {lowest}");
        prop_assert_eq!(bent.of(&View::of(&best.way), &mut Silent), best.total);
        prop_assert!(held.is_none_or(|at| best.way.amount(1) == Some(Money::whole(at))));
        prop_assert!(weighed.ends[0].none.unwrap() >= weighed.ends[0].free.unwrap());
    }
}

#[test]
fn a_stopped_search_finds_nothing() {
    let stop = Stop::default();
    stop.clone().stop();
    let bent = Bent::new(vec![Hinge { first: 1, second: 1, start: 20, slope: 3 }]);
    let puzzle = Puzzle::new(&[2, 3], false, vec![1, 2, 3]);
    for case in [&bent as &dyn Weighable, &puzzle] {
        assert_eq!(search(case, &BTreeMap::new(), 1, &stop).unwrap_err(), Stopped);
        assert_eq!(lowest(case, &BTreeMap::new(), &stop).unwrap_err(), Stopped);
    }
}

#[test]
fn a_search_over_its_budget_says_that_it_is_not_complete() {
    // Two valleys that cross: lowest where the amounts are 13 and 29, which takes a few corners to find.
    let at = [(1, 0, 13), (-1, 0, -13), (0, 1, 29), (0, -1, -29)];
    let bent = Bent::new(at.map(|(first, second, start)| Hinge { first, second, start, slope: 4 }).to_vec());
    let within = |points| search(&bent, &BTreeMap::new(), 1, &Stop::with_budget(points)).unwrap();
    let all = within(1_000);
    assert!(all.complete && all.ranking[0].total == Money::ZERO);
    let few = within(5);
    assert!(!few.complete && few.ranking[0].total > Money::ZERO, "{few:?}");
    // Held amounts need no looking for.
    let pins = [(0, 13), (1, 29)].map(|(d, at)| (d, Taken::Amount(Money::whole(at)))).into_iter().collect();
    assert!(search(&bent, &pins, 1, &Stop::with_budget(100)).unwrap().complete);
}

static LIMIT: LimitDef = LimitDef { id: "l", label: "L", how: "h", line: "x", cite: "c" };

#[test]
fn limits_cut_and_tell_the_next_edge() {
    let scope = Scope::Return(0);
    let at = LIMIT.at(scope);
    let whole = Money::whole;
    let down = PhaseOut {
        least: whole(10_000),
        ..PhaseOut::continuous(whole(500_000), "0.3".parse().unwrap(), Money::WHOLE)
    };
    let steps = PhaseOut {
        start: whole(200_000),
        step: Some((whole(1_000), Rounding::Up)),
        rate: Rate::percent(5),
        least: Money::ZERO,
        unit: Money::WHOLE,
    };
    type Run = fn(&mut Recorder, hembo_core::limit::LimitAt, PhaseOut, i64, i64) -> Money;
    let cap: Run = |t, at, _, a, b| limit::cap(t, at, Money::whole(a), Money::whole(b));
    let above: Run = |t, at, _, a, b| limit::above(t, at, Money::whole(a), Money::whole(b));
    let out: Run = |t, at, rule, a, b| limit::phase_out(t, at, Money::whole(a), Money::whole(b), rule);
    let grow: Run = |t, at, _, a, b| {
        let rule = PhaseIn { start: Money::whole(2_500), rate: Rate::percent(15), unit: Money::WHOLE };
        limit::phase_in(t, at, Money::whole(a), Money::whole(b), rule)
    };
    let cases: &[(Run, PhaseOut, i64, i64, i64, Option<(i64, i64)>)] = &[
        // rule, entered, other amount, allowed, edge and distance
        (cap, down, 99, 100, 99, Some((100, 1))),
        (cap, down, 100, 100, 100, Some((100, 0))),
        (cap, down, 101, 100, 100, None),
        (above, down, 99, 100, 0, Some((100, 1))),
        (above, down, 100, 100, 0, Some((100, 0))),
        (above, down, 101, 100, 1, None),
        (out, down, 40_000, 499_999, 40_000, Some((500_000, 1))),
        (out, down, 40_000, 500_000, 40_000, Some((500_000, 0))),
        (out, down, 40_000, 550_000, 25_000, Some((600_000, 50_000))),
        (out, down, 40_000, 700_000, 10_000, None),
        (out, down, 5_000, 700_000, 5_000, None),
        (out, down, 5_000, 400_000, 5_000, None), // never below the least: nothing to lose
        (out, steps, 2_200, 200_000, 2_200, Some((200_000, 0))),
        (out, steps, 2_200, 200_001, 2_150, Some((201_000, 999))),
        (out, steps, 2_200, 201_000, 2_150, Some((201_000, 0))),
        (out, steps, 2_200, 243_000, 50, Some((243_000, 0))),
        (out, steps, 2_200, 243_001, 0, None),
        (grow, down, 1_700, 2_500, 0, Some((13_833, 11_333))),
        (grow, down, 1_700, 5_000, 375, Some((13_833, 8_833))),
        (grow, down, 1_700, 14_000, 1_700, None),
    ];
    for &(run, rule, entered, other, allowed, edge) in cases {
        let mut recorder = Recorder::default();
        let result = run(&mut recorder, at, rule, entered, other);
        let (_, taken) = recorder.limits[0];
        assert_eq!((result, taken.entered), (whole(allowed), whole(entered)), "{entered} {other}");
        assert_eq!(taken.allowed, result);
        let told = taken.edge.map(|e| (e.at.cents() / 100, e.distance.cents() / 100));
        assert_eq!(told, edge, "{entered} {other}");
    }
    let part = limit::part(&mut Silent, at, whole(36_000), "0.833".parse().unwrap(), Money::WHOLE);
    let given = limit::given(&mut Silent, at, Shape::Cap, whole(5), whole(3));
    assert_eq!((part, given), (whole(29_988), whole(3)));
}
