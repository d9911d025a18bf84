//! Amounts that are looked for only where a world is below the law, against all amounts explored together.

use hembo_ca::Canada;
use hembo_core::{
    Decision, Pack, Way,
    decision::{More, Taken},
    search::{Edges, Law, Stop, UNLAWFUL, View, Weighable, Weighed, search, search_with_ends},
};
use hembo_money::{Money, Rate, Rounding};
use hembo_testing::ca::Family;
use proptest::prelude::*;
use serde_json::json;
use std::collections::BTreeMap;

/// What rounded lines add up to: no law asks for a search between two cents of it.
const ROUNDING: i64 = 8;

/// The same household with every amount explored that may cost anywhere.
struct Explored<'a> {
    case: &'a dyn Weighable,
    decisions: Vec<Decision>,
}

impl<'a> Explored<'a> {
    fn of(case: &'a dyn Weighable) -> Explored<'a> {
        let mut decisions = case.decisions().to_vec();
        for amount in decisions.iter_mut().filter_map(|d| d.amount.as_mut()) {
            if amount.more == More::NeverCostsInWorlds {
                amount.more = More::MayCost;
            }
        }
        Explored { case, decisions }
    }
}

impl Weighable for Explored<'_> {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }
    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        self.case.law(decision, view)
    }
    fn most(&self, decision: usize, view: &View<'_>) -> Money {
        self.case.most(decision, view)
    }
    fn jump(&self) -> Money {
        self.case.jump()
    }
    fn parts(&self) -> usize {
        self.case.parts()
    }
    fn total(&self, part: usize, view: &View<'_>) -> Money {
        self.case.total(part, view)
    }
    fn total_with_edges(&self, part: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.case.total_with_edges(part, view, edges)
    }
}

fn weighed(case: &dyn Weighable) -> Weighed {
    search_with_ends(case, &BTreeMap::new(), 24, &Stop::with_budget(3_000_000)).unwrap()
}

prop_compose! {
    /// A couple with all that may make a deduction cost: gifts about three quarters of an income, partners of like incomes with children,
    /// dividends that one of them could report.
    fn couple()(
        province in prop::sample::select(vec!["ON", "AB"]),
        first in 8_000_i64..60_000,
        apart in -6_000_i64..6_000,
        gifts in prop::option::of(3_000_i64..40_000),
        contributions in prop::array::uniform2(prop::option::of(500_i64..12_000)),
        child in prop::option::of(2009_i32..2025),
        dividends in prop::option::weighted(0.3, 1_000_i64..12_000),
        pension in prop::option::weighted(0.3, 1_000_i64..8_000),
    ) -> Family {
        let second = first + apart;
        let mut family = Family::couple(province, ["1955-02-02", "1990-05-05"])
            .interest("ada", &first.to_string())
            .employed("bo", &second.to_string());
        if let Some(amount) = gifts {
            family = family.gifts("ada", &amount.to_string());
        }
        for (who, paid) in ["ada", "bo"].into_iter().zip(contributions) {
            if let Some(paid) = paid {
                family = family.contributions(who, "15000", &paid.to_string());
            }
        }
        if let Some(born) = child {
            family = family.child("cy", &format!("{born}-03-03"));
        }
        if let Some(amount) = dividends {
            family = family.paper("T5", "bo", json!({ "24": amount.to_string() }));
        }
        if let Some(amount) = pension {
            family = family.pension("ada", &amount.to_string());
        }
        family
    }
}

/// A rule that tells other edges on an edge than beside it makes the search cut there again and again: ordinary couples took the whole budget of
/// 100,000 points, and were not weighed in full, where receipts were divided at the threshold, where a loss began, and where a partner claimed
/// no child care.
#[test]
fn few_points_are_enough_for_ordinary_couples() {
    let modest = |born| {
        Family::couple("AB", born)
            .pension("ada", "14000")
            .employed("bo", "12000")
            .gifts("ada", "3000")
            .medical("ada", &[("2025-02-01", "3400"), ("2025-09-01", "2100")])
    };
    let aged = ["1957-03-03", "1960-06-06"];
    let divided = modest(aged).employed("ada", "8000").benefits("ada", "9000", "8000");
    let lossy = Family::couple("NT", ["1981-03-03", "1984-06-06"])
        .employed("ada", "11488")
        .interest("bo", "17759")
        .paper("T2125", "bo", json!({ "gross": "6012", "cca": "7774" }))
        .gifts("ada", "9512")
        .medical("ada", &[("2025-02-01", "2861"), ("2025-09-01", "700")]);
    let care = json!([{ "child": "cy", "number": "9", "kind": "day", "amount": "3367" }]);
    let cared = Family::couple("MB", ["1995-07-01", "1992-07-01"])
        .pension("ada", "9611")
        .employed("ada", "84988")
        .pension("bo", "35703")
        .employed("bo", "102518")
        .gifts("bo", "11170")
        .contributions("bo", "15000", "8326")
        .child("cy", "2023-03-03")
        .shared("T778", &[("ada", "100")], json!({}), care)
        .answer_for("ada", "care_weeks", json!(3))
        .answer_for("bo", "care_weeks", json!(9))
        .answer("care_weeks_both", json!(2));
    for (name, family, points) in
        [("divided", divided, 5_000), ("lossy", lossy, 5_000), ("cared", cared, 5_000)]
    {
        let household = family.household();
        let case = Canada::COMMITTED.open(&household);
        let found = search(&*case, &BTreeMap::new(), 1, &Stop::with_budget(points)).unwrap();
        assert!(found.complete, "{name}");
    }
}

/// Gifts above the part of income that limits them, even with nothing deducted: each dollar deducted then costs three
/// quarters of a gift. The deduction is tried in steps.
#[test]
fn a_deduction_that_cuts_gifts_is_weighed() {
    for (province, income, gifts, paid) in [
        ("ON", 100_000, 90_000, 12_000),
        ("AB", 140_000, 130_000, 9_000),
        ("ON", 60_000, 80_000, 6_000),
        ("AB", 60_000, 44_900, 4_000),
    ] {
        let family = Family::single(province, "1980-01-01")
            .interest("ada", &income.to_string())
            .gifts("ada", &gifts.to_string())
            .contributions("ada", "18000", &paid.to_string());
        let best = family.outcome();
        assert!(best.complete && best.covered, "{:?}", best.points);
        let held = |dollars: i64| family.clone().pin("ca.rrsp.ada", &dollars.to_string()).outcome().total;
        let lowest = (0..=paid).step_by(250).map(held).min().unwrap();
        assert!((best.total - lowest).cents() <= ROUNDING, "{province} {income}: {} {lowest}", best.total);
    }
}

/// The lowest of a world at a way's explored amounts: with all that follows, or as much of what leads out as stays inside,
/// to the cent.
fn of_world(case: &dyn Weighable, world: usize, way: &Way) -> Option<Money> {
    let mut followed = way.clone();
    let follows =
        |d: &usize| case.decisions()[*d].amount.as_ref().is_some_and(|a| a.more == More::NeverCostsInWorlds);
    for decision in (0..way.0.len()).filter(follows) {
        let most = case.most(decision, &View::of(way));
        followed.0[decision] = way.0[decision].map(|_| Taken::Amount(most));
    }
    let out = (0..way.0.len()).find(|d| follows(d) && case.leads_out_of_world(world, &View::of(way), *d));
    let stays = |way: &Way| !case.inside_world(world, &View::of(way), &mut Edges::default()).is_negative();
    if let Some(out) = out.filter(|_| !stays(&followed)) {
        let (mut inside, mut outside) = (-1, followed.amount(out)?.cents());
        while outside - inside > 1 {
            let middle = inside + (outside - inside) / 2;
            followed.0[out] = Some(Taken::Amount(Money::from_cents(middle)));
            *if stays(&followed) { &mut inside } else { &mut outside } = middle;
        }
        followed.0[out] = Some(Taken::Amount(Money::from_cents(inside.max(0))));
    }
    if !stays(&followed) {
        return None;
    }
    Some(case.total_in_world(world, &View::of(&followed), &mut Edges::default()))
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// No way of the law is below every world that it is in.
    #[test]
    fn no_world_is_above_the_law(family in couple(), quarters in prop::array::uniform8((0_i64..=4).prop_map(|n| Rate::percent(25 * n))), options in prop::array::uniform8(0_u8..3)) {
        let household = family.household();
        let case = Canada::COMMITTED.open(&household);
        let mut way = Way::default();
        for decision in 0..case.decisions().len() {
            let about = &case.decisions()[decision];
            let Law::Open(bars) = case.law(decision, &View::of(&way)) else {
                way.0.push(None);
                continue;
            };
            let option = options[decision % 8].min(bars.len().saturating_sub(1) as u8);
            way.0.push(Some(match about.amount {
                Some(_) => Taken::Amount(case.most(decision, &View::of(&way)).times(quarters[decision % 8], Money::CENT, Rounding::Down)),
                None if bars[usize::from(option)].is_some() => Taken::Option(0),
                None => Taken::Option(option),
            }));
        }
        let law = case.total(0, &View::of(&way));
        prop_assume!(law < UNLAWFUL);
        let worlds: Vec<Money> = (0..case.worlds()).filter_map(|world| of_world(&*case, world, &way)).collect();
        prop_assert!(worlds.iter().any(|world| (*world - law).cents() <= ROUNDING), "{worlds:?} {law:?} {way:?}");
    }

    #[test]
    fn amounts_that_follow_are_chosen_as_if_all_were_explored(family in couple()) {
        let household = family.household();
        let case = Canada::COMMITTED.open(&household);
        let (following, explored) = (weighed(&*case), weighed(&Explored::of(&*case)));
        prop_assume!(following.complete && explored.complete);
        let apart = |one: Option<Money>, other: Option<Money>| match (one, other) {
            (Some(one), Some(other)) => (one - other).cents().abs(),
            (None, None) => 0,
            _ => i64::MAX,
        };
        let total = |w: &Weighed| w.lowest.as_ref().map(|r| r.total);
        prop_assert!(apart(total(&following), total(&explored)) <= ROUNDING, "{:?} {:?}", total(&following), total(&explored));
        for (one, other) in following.prices.iter().flatten().zip(explored.prices.iter().flatten()) {
            prop_assert!(apart(*one, *other) <= ROUNDING, "{one:?} {other:?}");
        }
        for (one, other) in following.ends.iter().zip(&explored.ends) {
            for (one, other) in [(one.none, other.none), (one.all, other.all), (one.free, other.free)] {
                prop_assert!(apart(one, other) <= ROUNDING, "{one:?} {other:?}");
            }
        }
    }
}
