//! The search against brute force on random households, and what must hold for every one of them.

use hembo_core::{
    Pack,
    search::{Stop, search},
};
use hembo_de::Germany;
use hembo_testing::{
    Pins,
    de::Family,
    family::broken_trails,
    mutants::{noticed, written},
    weighed,
};
use proptest::{prelude::*, strategy::ValueTree, test_runner::TestRunner};
use serde_json::{Value, json};
use std::collections::BTreeMap;

prop_compose! {
    fn household()(
        year in 2024_i32..2026,
        couple: bool,
        church in prop::array::uniform2(any::<bool>()),
        pay in prop::array::uniform2(prop::option::weighted(0.8, 0_i64..140_000)),
        special_pay in prop::option::weighted(0.2, 1_i64..60_000),
        benefits in prop::option::weighted(0.4, -2_000_i64..20_000),
        capital in prop::array::uniform2(prop::option::weighted(0.4, (0_i64..9_000, 0_i64..3_000, any::<bool>()))),
        room in prop::option::weighted(0.3, (0_i64..230, 0_i64..3_000)),
        degree in prop::option::weighted(0.3, 20_i64..100),
        typical in prop::option::weighted(0.5, 0_i64..6_000),
        burdens in 0_i64..9_000,
        gifts in 0_i64..9_000,
        crafts in 0_i64..9_000,
        children in prop::collection::vec((0_i64..13, prop::option::weighted(0.4, 20_i64..100), 0_i64..13), 0..3),
        care in 0_i64..9_000,
        either in prop::collection::vec((0_i64..60_000, 0_i64..9_000), 0..3),
        result in prop::option::weighted(0.3, -20_000_i64..40_000),
    ) -> Family {
        let mut family = if couple { Family::couple(year) } else { Family::single(year) };
        let text = |amount: i64| amount.to_string();
        for (place, who) in ["ada", "bo"].into_iter().take(if couple { 2 } else { 1 }).enumerate() {
            family = family.answer_for(who, "church", json!(church[place]));
            if let Some(amount) = pay[place] {
                let boxes = json!({ "3": text(amount), "4": text(amount / 6), "23": text(amount / 11), "22": text(amount / 11), "25": text(amount / 12) });
                family = family.paper("LStB", who, boxes);
            }
            if let Some((income, withheld, untaxed)) = capital[place] {
                let kind = if untaxed { "untaxed" } else { "income" };
                family = family.paper("KAP", who, json!({ kind: text(income), "tax": text(withheld / 4) }));
            }
        }
        if let Some(amount) = special_pay {
            family = family.paper("LStB", "ada", json!({ "3": text(amount + 1_000), "19": text(amount) }));
        }
        if let Some(amount) = benefits {
            family = family.rows("Progression", "ada", json!([{ "kind": "benefit", "amount": text(amount) }]));
        }
        if let Some((days, cost)) = room {
            family = family.paper("Work at home", "ada", json!({ "days": days, "centre": true, "cost": text(cost) }));
        }
        if let Some(degree) = degree {
            family = family.answer_for("ada", "degree", json!(degree));
        }
        if let Some(amount) = typical {
            family = family.rows("Burdens", "ada", json!([{ "kind": "typical", "amount": text(amount) }]));
        }
        for (at, (months, degree, away)) in children.iter().enumerate() {
            let id = format!("c{at}");
            family = family.person(&id, "dependent", "2006-02-03");
            family = family.answer_for(&id, "months", json!(months)).answer_for(&id, "away_months", json!(away));
            if let Some(degree) = degree {
                family = family.answer_for(&id, "degree", json!(degree));
            }
        }
        if !children.is_empty() {
            family = family.paper("Care and school", "ada", json!({ "child": "c0", "care": text(care) }));
        }
        for (all, labour) in either {
            let row = json!([{ "kind": "either", "amount": text(all + labour), "labour": text(labour), "date": "2025-03-03" }]);
            family = family.rows("Household", if couple { "bo" } else { "ada" }, row);
        }
        if let Some(amount) = result {
            family = family.paper("Result", "ada", json!({ "kind": "rental", "result": text(amount) }));
        }
        let list = |kind: &str, amount: i64| -> Value { json!([{ "kind": kind, "date": "2025-03-03", "amount": text(amount) }]) };
        family
            .rows("Burdens", "ada", list("illness", burdens))
            .rows("Special expenses", "ada", list("gift", gifts))
            .rows("Household", "ada", list("crafts", crafts))
    }
}

prop_compose! {
    /// Households with the choices that few have.
    fn rare()(
        year in 2024_i32..2026,
        couple: bool,
        pay in 0_i64..90_000,
        second in prop::option::of((0_i64..12_000, 0_i64..200, 60_i64..200, any::<bool>())),
        repairs in prop::option::of(0_i64..40_000),
        abroad in prop::option::of((0_i64..20_000, 0_i64..9_000)),
        care in prop::collection::vec(0_i64..20_000, 0..3),
        half in prop::option::of((any::<bool>(), any::<bool>(), any::<bool>())),
        riester in prop::option::of((0_i64..3_000, 0_i64..60_000)),
        church in prop::option::of(0_i64..13),
    ) -> Family {
        let mut family = if couple { Family::couple(year) } else { Family::single(year) };
        let text = |amount: i64| amount.to_string();
        let other = if couple { "bo" } else { "ada" };
        family = family.paper("LStB", "ada", json!({ "3": text(pay) }));
        if let Some((lodging, trips, km, car)) = second {
            let boxes = json!({ "months": 12, "lodging": text(lodging), "trips": 30, "km": text(km), "all_trips": trips, "car": car });
            family = family.paper("Second household", "ada", boxes);
        }
        if let Some(amount) = repairs {
            let both = [(other, "50"), ("ada", "50")];
            let owners = if couple { &both[..] } else { &[("ada", "100")] };
            family = family.shared("Large repairs", owners, json!({}), json!([{ "paid": year, "amount": text(amount) }]));
        }
        if let Some((income, tax)) = abroad {
            family = family.paper("Result", other, json!({ "kind": "rental", "result": text(income) }));
            let row = json!([{ "kind": "rental", "income": text(income), "tax": text(tax) }]);
            family = family.rows("Foreign tax", other, row);
        }
        for amount in care {
            family = family.rows("Burdens", other, json!([{ "kind": "care", "amount": text(amount) }]));
        }
        if let Some((unsupported, registered, hers)) = half {
            family = family.person("cy", "dependent", "2018-05-05").answer_for("cy", "half", json!(true));
            family = family.answer_for("cy", "unsupported", json!(unsupported));
            family = family.answer_for("cy", "registered", json!(registered));
            family = family.answer_for("cy", "parent", json!(if hers { "ada" } else { other }));
        }
        if let Some((paid, wage)) = riester {
            family = family.paper("Riester", "ada", json!({ "paid": text(paid), "wage_before": text(wage) }));
            family = family.paper("Riester", other, json!({ "entitled": "spouse", "paid": "60" }));
        }
        if let Some(months) = church {
            family = family.answer_for("ada", "church", json!(true)).answer_for("ada", "church_months", json!(months));
            family = family.answer("land_before", json!("BY")).answer("months_before", json!(5)).answer("church_cap", json!("2.75"));
        }
        family
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(100))]

    /// Totals, prices, bars and counts are those of every way walked.
    #[test]
    fn the_search_says_what_brute_force_says(family in prop_oneof![household(), rare()]) {
        let household = family.household();
        let case = Germany::COMMITTED.open(&household);
        let found = search(&*case, &BTreeMap::new(), 12, &Stop::default()).unwrap();
        let all = weighed(&*case, &Pins::new(), 12);
        prop_assert_eq!(&found.lowest, &all.lowest);
        prop_assert_eq!(found.lawful, all.lawful);
        prop_assert_eq!(&found.ranking, &all.ranking);
        prop_assert_eq!(&found.prices, &all.prices);
        prop_assert_eq!(&found.bars, &all.bars);
    }

    /// What is shown is what was weighed, and every line leads on.
    #[test]
    fn what_is_shown_is_what_was_weighed(family in prop_oneof![household(), rare()]) {
        let outcome = family.outcome();
        let sum = |id: &str| outcome.lines.iter().filter(|l| l.id == id).map(|l| l.amount.cents()).sum::<i64>();
        prop_assert_eq!(sum("de.total_tax"), outcome.total.cents());
        prop_assert_eq!(sum("de.balance"), outcome.balance.cents());
        prop_assert_eq!((outcome.total - outcome.paid).cents(), outcome.balance.cents());
        prop_assert_eq!(broken_trails(&outcome), Vec::<String>::new());
        for limit in &outcome.limits {
            prop_assert!(limit.lost.cents() >= 0 && limit.distance.is_none_or(|d| d.cents() >= 0), "{limit:?}");
        }
        for of in &outcome.schedules {
            prop_assert!(of.again.apart.is_empty(), "{:?}", of.again.apart);
        }
    }
}

/// An option that is dropped, bars that are turned round, an edge that is not told: some of these households come to another tax.
#[test]
fn every_choice_is_noticed_where_it_goes_wrong() {
    let mut runner = TestRunner::deterministic();
    let written = written(env!("CARGO_MANIFEST_DIR"), &["tests/cases", "../../demo/de"]).map(Family);
    let random = (0..80).map(|_| prop_oneof![household(), rare()].new_tree(&mut runner).unwrap().current());
    let families = written.chain(random);
    let noticed = noticed(&Germany::COMMITTED, families.map(|family| family.household()));
    assert_eq!(noticed.unnoticed(), Vec::<String>::new());
    assert_eq!(noticed.kinds().len(), hembo_de::law::CHOICES.len(), "{:?}", noticed.kinds());
}
