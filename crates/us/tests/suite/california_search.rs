//! The federal and the state's return weighed together, against every way walked.

use hembo_core::{
    Pack,
    search::{Stop, search},
};
use hembo_testing::{Pins, family::broken_trails, us::Family, weighed};
use hembo_us::UnitedStates;
use proptest::prelude::*;
use serde_json::{Value, json};
use std::collections::BTreeMap;

prop_compose! {
    fn family()(
        year in 2024_i32..2026,
        couple in prop::bool::weighted(0.7),
        married in prop::bool::weighted(0.8),
        apart: bool,
        wages in prop::array::uniform2(0_i64..150_000),
        interest in 0_i64..30_000,
        medical in 0_i64..30_000,
        property in 0_i64..15_000,
        gifts in 0_i64..20_000,
        job in 0_i64..9_000,
        kids in prop::collection::vec((2004_i32..2025, 0_u8..13, 0_u8..13), 0..3),
        rented in prop::array::uniform2(any::<bool>()),
        gaps in prop::collection::vec((0_usize..4, 0_usize..12, 1_usize..12), 0..3),
        pension in prop::option::weighted(0.3, 0_i64..60_000),
        moved in prop::option::weighted(0.3, (1_u8..13, 0_i64..101)),
        untaxed in prop::option::weighted(0.3, (prop::sample::select(vec!["Q", "II"]), 0_i64..30_000)),
        offers in prop::collection::vec((0_usize..4, prop::sample::select(vec!["own", "family", "market"]), 0_i64..900), 0..3),
    ) -> Family {
        let mut family = if couple { Family::couple(year).answer("apart", json!(apart)) } else { Family::single(year) };
        if couple && !married {
            family = family.answer("marital", json!("single"));
        }
        for (question, answer) in [("state", json!("CA")), ("community_all_year", json!(true)), ("california", json!(true)), ("ca_covered", json!(false))] {
            family = family.answer(question, answer);
        }
        let owners: &[&str] = if couple { &["ada", "bo"] } else { &["ada"] };
        for (place, who) in owners.iter().enumerate() {
            let here = wages[place] * moved.map_or(100, |(_, percent)| percent) / 100;
            let mut boxes = json!({ "15": "CA", "16": here.to_string(), "17": "300" });
            if let Some((code, amount)) = untaxed.filter(|_| place == 0) {
                boxes["12a"] = json!(code);
                boxes["12a.amount"] = json!(amount.to_string());
            }
            family = family.wages_with(who, wages[place], boxes);
            family = family.answer_for(who, "ca_rented", json!(rented[place])).set(who, "/answers/paid_home", json!(true));
        }
        let boxes = json!({ "1": (interest / 2).to_string(), "3": (interest / 3).to_string(), "separate": true });
        family = family.paper("1099-INT", &["ada"], boxes, Value::Null).medical(&["ada"], "ada", medical);
        family = family.property_tax(owners, property).cash_gift(owners, gifts);
        let rows = json!([{ "kind": "miscellaneous", "amount": job.to_string() }]);
        family = family.paper("Schedule CA", &["ada"], json!({}), rows);
        if let Some(amount) = pension {
            let boxes = json!({ "1": amount.to_string(), "2a": amount.to_string(), "7": "1", "7.ira": true });
            family = family.paper("1099-R", &["ada"], boxes, Value::Null);
        }
        let mut people: Vec<String> = owners.iter().map(|who| (*who).to_owned()).collect();
        for (at, (born, with_ada, with_bo)) in kids.iter().enumerate() {
            let id = format!("c{at}");
            let lived = if couple { json!({ "ada": with_ada, "bo": with_bo }) } else { json!({ "ada": with_ada }) };
            family = family.person(json!({
                "id": id, "name": id, "role": "dependent", "born": format!("{born}-06-07"), "lived_with": lived,
                "answers": { "relationship": "child", "relationship_second": "child" },
            }));
            people.push(id);
        }
        let row = |(who, from, months): &(usize, usize, usize)| {
            let mut row = json!({ "person": people[who % people.len()], "year": "Z", "before": 0 });
            // What is left empty is left to the rules.
            let months = *from..(from + months).min(12);
            if offers.is_empty() {
                for month in months {
                    row[format!("m{}", month + 1)] = json!("X");
                }
            } else {
                row.as_object_mut().unwrap().remove("year");
                for month in (0..12).filter(|month| !months.contains(month)) {
                    row[format!("m{}", month + 1)] = json!("Z");
                }
            }
            row
        };
        let rows: Vec<Value> = gaps.iter().map(row).collect();
        let family = family.paper("Health cover", &["ada"], json!({}), json!(rows));
        let offer = |(who, source, month): &(usize, &str, i64)| {
            json!({ "person": people[who % people.len()], "source": source, "month": month.to_string(), "silver": "500" })
        };
        let rows: Vec<Value> = offers.iter().map(offer).collect();
        let family = family.paper("Cost of cover", &["ada"], json!({}), json!(rows));
        let Some((month, percent)) = moved else { return family };
        let rows = json!([{ "kind": "interest", "amount": (interest * percent / 200).to_string() }]);
        family
            .answer("ca_all_year", json!(false))
            .answer_for("ada", "ca_from", json!(format!("{year}-{month:02}-05")))
            .paper("Schedule CA (540NR)", &["ada"], json!({}), rows)
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(80))]

    #[test]
    fn both_authorities_are_weighed_together(family in family()) {
        let household = family.household();
        let case = UnitedStates::COMMITTED.open(&household);
        let found = search(&*case, &BTreeMap::new(), 12, &Stop::default()).unwrap();
        let all = weighed(&*case, &Pins::new(), 12);
        prop_assert_eq!(&found.lowest, &all.lowest);
        prop_assert_eq!(found.lawful, all.lawful);
        prop_assert_eq!(&found.prices, &all.prices);
        prop_assert_eq!(&found.bars, &all.bars);
    }

    /// The totals are those of both authorities, every line leads on, the forms add up by themselves.
    #[test]
    fn what_is_shown_is_what_was_weighed(family in family()) {
        let outcome = family.outcome();
        let sum = |ids: &[&str]| outcome.lines.iter().filter(|l| ids.contains(&l.id.as_str())).map(|l| l.amount.cents()).sum::<i64>();
        prop_assert_eq!(sum(&["us.net_tax", "us.ca.net_tax"]), outcome.total.cents());
        prop_assert_eq!(sum(&["us.balance", "us.ca.balance"]), outcome.balance.cents());
        prop_assert_eq!(outcome.authorities.len(), 2);
        prop_assert_eq!(broken_trails(&outcome), Vec::<String>::new());
        for of in &outcome.schedules {
            prop_assert!(of.again.apart.is_empty(), "{:?}", of.again.apart);
        }
    }
}
