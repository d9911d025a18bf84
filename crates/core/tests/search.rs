//! The search and the limits on their own.
#![allow(missing_docs, clippy::unwrap_used, clippy::type_complexity)]

use hembo_core::{
    Decision, Recorder, Scope, Silent, Way,
    decision::{Amount, Bar, Opt, Taken},
    limit::{self, LimitDef, PhaseIn, PhaseOut, Shape},
    search::{Edges, Part, Weighable, search},
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

    fn last(&self, way: &Way) -> usize {
        way.taken(way.0.len().wrapping_sub(1)).unwrap_or(9)
    }
}

impl Weighable for Puzzle {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }
    fn open(&self, decision: usize, taken: &Way) -> bool {
        decision == 0 || !self.random(decision * 11 + self.last(taken)).is_multiple_of(4)
    }
    fn barred(&self, decision: usize, option: usize, taken: &Way) -> Option<Bar> {
        let barred =
            option > 0 && self.random(decision * 17 + option * 5 + self.last(taken)).is_multiple_of(5);
        barred.then(|| "by the table".into())
    }
    fn parts(&self, _: &Way) -> Vec<Part> {
        // Two parts: the even and the odd decisions; neutral ones matter to neither.
        let of = |odd: usize| {
            let matters = |d: &usize| d % 2 == odd && !self.decisions[*d].neutral;
            Part { id: odd, depends: (0..self.decisions.len()).filter(matters).collect() }
        };
        vec![of(0), of(1)]
    }
    fn total(&self, part: usize, way: &Way) -> Money {
        let depends = &self.parts(way)[part].depends;
        let key = depends.iter().fold(part + 1, |key, &d| key * 7 + way.taken(d).map_or(6, |o| o));
        Money::whole(self.random(key) as i64 % 50)
    }
}

fn everything(puzzle: &Puzzle, way: Way, found: &mut Vec<(Money, Way)>) {
    let decision = way.0.len();
    let push = |option| {
        let mut next = way.clone();
        next.0.push(option);
        next
    };
    if decision == puzzle.decisions.len() {
        found.push((puzzle.total(0, &way) + puzzle.total(1, &way), way));
    } else if !puzzle.open(decision, &way) {
        everything(puzzle, push(None), found);
    } else {
        for option in 0..puzzle.decisions[decision].options.len() {
            if puzzle.barred(decision, option, &way).is_none() || puzzle.decisions[decision].neutral {
                everything(puzzle, push(Some(Taken::Option(option as u8))), found);
            }
        }
    }
}

proptest! {
    #[test]
    fn the_search_is_brute_force(
        sizes in prop::collection::vec(1_usize..4, 1..6),
        random in prop::collection::vec(any::<u16>(), 64),
        neutral in any::<bool>(),
        pin in (0_usize..6, 0_usize..4),
    ) {
        let puzzle = Puzzle::new(&sizes, neutral, random);
        let pins: BTreeMap<_, _> = [pin].into_iter().filter(|(d, o)| sizes.get(*d).is_some_and(|n| o < n)).collect();
        let mut all = Vec::new();
        everything(&puzzle, Way::default(), &mut all);
        let held = pins.iter().map(|(d, o)| (*d, Taken::Option(*o as u8))).collect();
        let weighed = search(&puzzle, &held, 20);
        prop_assert_eq!(weighed.lowest.map(|r| r.total), all.iter().map(|a| a.0).min());
        let holds = |way: &Way| pins.iter().all(|(d, o)| way.taken(*d).is_none_or(|t| t == *o));
        let mut held: Vec<Money> = all.iter().filter(|(_, way)| holds(way)).map(|a| a.0).collect();
        held.sort();
        if !neutral {
            prop_assert_eq!(weighed.lawful as usize, all.len());
            prop_assert_eq!(weighed.holding as usize, held.len());
            let ranking: Vec<Money> = weighed.ranking.iter().map(|r| r.total).collect();
            prop_assert_eq!(&ranking[..], &held[..ranking.len()]);
            prop_assert_eq!(ranking.len(), held.len().min(20));
        }
        for (d, prices) in weighed.prices.iter().enumerate() {
            for (o, price) in prices.iter().enumerate() {
                let others_hold = |way: &Way| pins.iter().all(|(p, q)| *p == d || way.taken(*p).is_none_or(|t| t == *q));
                let best = all.iter().filter(|(_, w)| w.taken(d) == Some(o) && others_hold(w)).map(|a| a.0).min();
                prop_assert_eq!(*price, best, "decision {} option {}", d, o);
                prop_assert!(price.is_none() || weighed.bars[d][o].is_none());
            }
        }
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
                never_costs: false,
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

    fn of(&self, way: &Way, trail: &mut impl hembo_core::Trail) -> Money {
        self.at(way.amount(0).unwrap(), way.amount(1).unwrap(), trail)
    }
}

impl Weighable for Bent {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }
    fn open(&self, _: usize, _: &Way) -> bool {
        true
    }
    fn barred(&self, _: usize, _: usize, _: &Way) -> Option<Bar> {
        None
    }
    fn most(&self, _: usize, _: &Way) -> Money {
        Money::whole(MOST)
    }
    fn parts(&self, _: &Way) -> Vec<Part> {
        vec![Part { id: 0, depends: vec![0, 1] }]
    }
    fn total(&self, _: usize, way: &Way) -> Money {
        self.of(way, &mut Silent)
    }
    fn total_with_edges(&self, _: usize, way: &Way, edges: &mut Edges) -> Money {
        self.of(way, edges)
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
        let weighed = search(&bent, &pins, 3);
        let best = &weighed.ranking[0];
        let seconds: Vec<i64> = held.map_or((0..=MOST).collect(), |at| vec![at]);
        let grid = (0..=MOST).flat_map(|x| seconds.iter().map(move |&y| (x, y)));
        let lowest = grid.map(|(x, y)| bent.at(Money::whole(x), Money::whole(y), &mut Silent)).min().unwrap();
        // Corners are whole cents: a corner between two of them is missed by less than a cent of each slope.
        prop_assert!(best.total.cents() <= lowest.cents() + 20, "{best:?} but {lowest}");
        prop_assert_eq!(bent.of(&best.way, &mut Silent), best.total);
        prop_assert!(held.is_none_or(|at| best.way.amount(1) == Some(Money::whole(at))));
        prop_assert!(weighed.ends[0].none.unwrap() >= weighed.ends[0].free.unwrap());
    }
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
