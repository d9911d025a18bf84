//! The search against brute force on random families, and what must hold for every family.

use hembo_core::{
    Pack,
    decision::Taken,
    search::{Stop, lowest, search},
};
use hembo_testing::{
    family::broken_trails,
    mutants::{noticed, written},
    us::{Family, REGISTRY},
};
use hembo_us::UnitedStates;
use proptest::{prelude::*, strategy::ValueTree, test_runner::TestRunner};
use serde_json::json;
use std::collections::BTreeMap;

prop_compose! {
    fn family()(
        couple in any::<bool>(),
        home in prop::sample::select(vec!["OH", "OH", "CA", "TX"]),
        married in prop::bool::weighted(0.7),
        apart in any::<bool>(),
        related in prop::collection::vec((0_usize..4, 0_usize..4, 0_usize..3), 5),
        wages in prop::array::uniform2(0_i64..320_000),
        medical in 0_i64..40_000,
        state in prop::array::uniform2(0_i64..20_000),
        sales in 0_i64..9_000,
        loan in 0_i64..30_000,
        gifts in 0_i64..30_000,
        kids in prop::collection::vec((2003_i32..2026, 0_u8..13, 0_u8..13), 0..5),
        bills in prop::collection::vec(0_i64..9_000, 5),
        own in prop::collection::vec(0_i64..6_000, 5),
        together in 0_i64..9_000,
        gain in -9_000_i64..90_000,
        foreign in prop::array::uniform2(0_i64..1_800),
        year in prop::sample::select(vec![2025, 2025, 2026]),
        rare in (0_usize..36, 0_i64..40_000),
    ) -> Family {
        let mut family = if couple { Family::couple(year).answer("apart", json!(apart)) } else { Family::single(year) };
        if couple && !married {
            family = family.answer("marital", json!("single"));
        }
        let owners: &[&str] = if couple { &["ada", "bo"] } else { &["ada"] };
        family = family.answer("state", json!(home)).answer("community_all_year", json!(true));
        family = family.set("ada", "/answers/paid_home", json!(true));
        for (i, who) in owners.iter().enumerate() {
            family = family.wages(who, wages[i]).state_tax(&[who], state[i]);
            if state[i] % 7 == 0 {
                let code = if state[i] % 2 == 0 { "Q" } else { "II" };
                let boxes = json!({ "b": "36-4410927", "12a": code, "12a.amount": (medical / 2).to_string() });
                family = family.paper("W-2", &[who], boxes, json!(null));
            }
        }
        family = family.medical(&["ada"], "ada", medical).loan(owners, loan, 300_000).cash_gift(owners, gifts);
        let tables = json!({ "actual": sales.to_string(), "table": (sales / 2).to_string(), "table_separate": (sales / 3).to_string() });
        family = family.paper("Sales tax", owners, tables, json!(null));
        family = family.sale(owners, "long", gain);
        for (who, tax) in owners.iter().zip(foreign) {
            let boxes = json!({ "1a": "4000", "1b": "3000", "7": tax.to_string(), "7.income": "3500", "8": "Chile" });
            family = family.paper("1099-DIV", &[who], boxes, json!(null));
        }
        family = family.paper("1040-ES", owners, json!({}), json!([{ "amount": together.to_string() }]));
        for (i, (born, with_ada, with_bo)) in kids.into_iter().enumerate() {
            let id = format!("kid{i}");
            family = family.child(&id, &format!("{born}-03-01")).set(&id, "/lived_with/ada", json!(with_ada));
            if couple {
                family = family.set(&id, "/lived_with/bo", json!(with_bo));
            }
            let (first, second, payer) = related[i];
            if couple && !married {
                let kinds = ["child", "child", "grandchild", "none"];
                family = family
                    .set(&id, "/answers/relationship", json!(kinds[first]))
                    .set(&id, "/answers/relationship_second", json!(kinds[second]));
                if payer < 2 {
                    family = family.set(&id, "/answers/supported_alone_by", json!(owners[payer]));
                }
            }
            // Bills for a dependent count on the return that claims it; wages make a return of its own.
            if bills[i] > 4_000 {
                family = family.medical(&[owners[i % owners.len()]], &id, bills[i]);
            }
            if bills[i] % 5 == 0 {
                let grant = if bills[i] % 10 == 0 { bills[i] / 2 } else { 0 }.to_string();
                let boxes = json!({
                    "1": bills[i].to_string(), "8": true, "years": 1, "f": "36-4410927", "5": grant, "living": grant,
                });
                family = family.paper("1098-T", &[&id], boxes, json!(null));
            }
            if bills[i] % 3 == 0 {
                let row = json!({ "person": id, "amount": bills[i].to_string() });
                family = family.paper("Care", &[owners[i % owners.len()]], json!({ "number": "36-4410927" }), json!([row]));
            }
            if own[i] % 4 == 0 {
                family = family.interest(&[&id], own[i] * 3);
            }
            if own[i] > 4_500 {
                family = family.wages(&id, own[i]).state_tax(&[&id], own[i] / 4);
            }
        }
        with_rare(family, owners, rare)
    }
}

/// One of the provisions that few families meet, or none.
fn with_rare(family: Family, owners: &[&str], (which, amount): (usize, i64)) -> Family {
    let (who, amount) = (owners[which % owners.len()], amount.to_string());
    let business = json!({ "1": amount, "participates": true, "service": false });
    let policy = json!({ "33A": "9600", "33B": "9000", "33C": "5000", "own_work": true });
    let sold = json!({
        "kind": "single", "days": 200, "3": "9000", "18": "0", "business": false, "active": true, "carried": "6000",
        "sold": "2025-08-20", "bought": "2015-03-03", "price": amount, "basis": "30000", "written_off": "9000",
        "plain_sale": true,
    });
    let share = json!({
        "participates": false, "1": "-3000", "2": "-4000", "9": amount, "basis": true, "active": true, "more": false,
        "qualified": "0",
    });
    let any_child = family.0["people"].as_array().unwrap().iter().any(|person| person["id"] == "kid0");
    let student = if any_child { "kid0" } else { "ada" };
    let bonds = json!({ "student": student, "eligible": true, "5": "9000", "6": "3000", "2": amount });
    let shares = json!({ "1": "50000", "2a": "20000", "6": "30000", "7": "1" });
    let spread = json!({ "1": amount, "2a": amount, "7": "1", "disaster": amount });
    match which {
        0 | 1 => family.paper("Schedule C", &[who], business, json!(null)).paper(
            "1095-A",
            owners,
            policy,
            json!(null),
        ),
        2 => family.paper("Schedule E", owners, sold, json!(null)),
        3 => family.paper("K-1 1120-S", &[who], share, json!(null)),
        4 => family.paper("1099-INT", &[who], json!({ "3": "3000" }), json!(null)).paper(
            "8815",
            &[who],
            bonds,
            json!(null),
        ),
        5 => family.paper("1099-R", &[who], spread, json!(null)),
        6 => family.paper("1099-R", &[who], shares, json!(null)),
        7 => family.paper("172", &[who], json!({ "since": amount, "before": "900" }), json!(null)),
        8 => family.paper("8801", &[who], json!({ "16": amount, "15": "0" }), json!(null)),
        9 => family.paper("8919", &[who], json!({ "reason": "G", "6": amount }), json!(null)),
        10 => family.paper("5498", &[who], json!({ "1": "5000", "10": "4000" }), json!(null)).paper(
            "5329",
            &[who],
            json!({ "9": amount, "18": "3000", "52b": "900" }),
            json!(null),
        ),
        11 => family.paper("HSA", &[who], json!({ "2": amount, "self": 12 }), json!(null)),
        12 => family.paper("1341", &[who], json!({}), json!([{ "amount": amount, "tax": "1500" }])),
        13 => family.paper(
            "Other adjustments",
            &[who],
            json!({}),
            json!([{ "sort": "trust", "amount": "700" }, { "sort": "personal_property", "amount": amount }]),
        ),
        14 => family
            .paper(
                "Schedule C",
                &[who],
                json!({ "1": amount, "feet": 120, "participates": true, "service": false }),
                json!(null),
            )
            .paper(
                "8829",
                &[who],
                json!({ "1": 120, "2": 1_200, "10": "9000", "11": "4000", "21": amount }),
                json!(null),
            ),
        15 => family
            .paper("1099-DIV", &[who], json!({ "1a": "9000", "1b": "9000" }), json!(null))
            .paper(
                "1099-DIV",
                &[who],
                json!({ "1a": "8000", "1b": "4000", "7": amount, "7.income": "8000", "7.qualified": "4000", "8": "RIC" }),
                json!(null),
            ),
        16 => family.paper("2439", &[who], json!({ "1a": amount, "1b": "100", "2": "900" }), json!(null)),
        _ => family,
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(240))]

    /// Counts, prices, bars with their words, and the lowest ways in their order: as brute force has them.
    #[test]
    fn the_search_finds_what_brute_force_finds(
        family in family(),
        pins in prop::collection::vec(any::<(prop::sample::Index, prop::sample::Index)>(), 0..4),
    ) {
        let household = family.household();
        let case = UnitedStates::COMMITTED.open(&household);
        let pin = |(d, o): (prop::sample::Index, prop::sample::Index)| {
            let decision = d.index(case.decisions().len());
            (decision, Taken::Option(o.index(case.decisions()[decision].options.len()) as u8))
        };
        for pins in [BTreeMap::new(), pins.into_iter().map(pin).collect()] {
            prop_assert_eq!(search(&*case, &pins, 24, &Stop::default()).unwrap(), hembo_testing::weighed(&*case, &pins, 24));
            prop_assert_eq!(lowest(&*case, &pins, &Stop::default()).unwrap(), hembo_testing::weighed(&*case, &pins, 1).ranking.pop());
        }
    }

    /// People in another order are the same family: what claims add up to does not hang on who stands for them.
    #[test]
    fn the_order_of_the_people_does_not_matter(family in family()) {
        let mut turned = family.clone();
        turned.0["people"].as_array_mut().unwrap().reverse();
        for person in turned.0["people"].as_array_mut().unwrap() {
            let answers = person["answers"].as_object_mut().unwrap();
            let (first, second) = (answers.remove("relationship"), answers.remove("relationship_second"));
            if let (Some(first), Some(second)) = (first.clone(), second) {
                answers.extend([("relationship".to_owned(), second), ("relationship_second".to_owned(), first)]);
            } else if let Some(first) = first {
                answers.insert("relationship".to_owned(), first);
            }
        }
        let (one, other) = (family.outcome(), turned.outcome());
        prop_assert_eq!((one.total, one.lawful_ways), (other.total, other.lawful_ways));
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    #[test]
    fn a_pin_holds_and_its_price_is_what_it_costs(family in family(), pick in any::<prop::sample::Index>()) {
        let free = family.outcome();
        let options: Vec<_> = free.decisions.iter().flat_map(|d| d.options.iter().map(move |o| (d, o))).collect();
        let lawful: Vec<_> = options.into_iter().filter(|(d, o)| o.best.is_some() && !d.neutral).collect();
        let (decision, option) = lawful[pick.index(lawful.len())];
        let pinned = family.clone().pin(&decision.id, &option.id).outcome();
        prop_assert!(pinned.pins_hold);
        prop_assert!(pinned.total >= free.total);
        let arises = pinned.decisions.iter().find(|d| d.id == decision.id).unwrap().arises;
        if arises {
            prop_assert_eq!(Some(pinned.total), option.best);
        }
        // Letting go brings the lowest back, to the same way.
        prop_assert_eq!(pinned.lowest, free.total);
    }

    #[test]
    fn another_hundred_of_gifts_never_costs(family in family()) {
        let more = family.clone().cash_gift(&["ada"], 100).outcome();
        prop_assert!(more.total <= family.outcome().total);
    }

    #[test]
    fn silent_and_recorded_computations_agree(family in family()) {
        let outcome = family.outcome();
        let recorded: i64 = outcome.lines.iter().filter(|l| l.id == "us.net_tax").map(|l| l.amount.cents()).sum();
        prop_assert_eq!(recorded, outcome.total.cents());
        prop_assert_eq!(broken_trails(&outcome), Vec::<String>::new());
        for limit in &outcome.limits {
            prop_assert!(limit.lost.cents() >= 0 && limit.distance.is_none_or(|d| d.cents() >= 0), "{limit:?}");
        }
    }
}

#[test]
fn spouses_who_both_deduct_sales_tax_use_the_same_method() {
    let tables = json!({ "actual": "4000", "table": "3000", "table_separate": "5000" });
    let family = Family::couple(2025)
        .wages("ada", 90_000)
        .wages("bo", 90_000)
        .loan(&["ada", "bo"], 40_000, 500_000)
        .paper("Sales tax", &["ada", "bo"], tables, json!(null))
        .pin("us.status", "separate")
        .pin("us.taxes.ada", "sales");
    let outcome = family.outcome();
    assert!(outcome.ways.iter().all(|w| w.options.get("us.taxes.bo").is_none_or(|o| o != "table")));
    assert_eq!(hembo_core::reckon(&family.household(), &REGISTRY).unwrap(), outcome);
}

#[test]
fn estimated_tax_paid_together_moves_the_balance_but_not_the_tax() {
    let family = Family::couple(2025)
        .wages("ada", 90_000)
        .wages("bo", 50_000)
        .paper("1040-ES", &["ada", "bo"], json!({}), json!([{ "amount": "1000.01" }]))
        .pin("us.status", "separate");
    for (option, ada, bo) in [("half", 500, 500), ("ada", 1_000, 0), ("bo", 0, 1_000)] {
        let outcome = family.clone().pin("us.estimated", option).outcome();
        assert_eq!(hembo_testing::us::line_of(&outcome, "us.26", "return/0"), ada, "{option}");
        assert_eq!(hembo_testing::us::line_of(&outcome, "us.26", "return/1"), bo, "{option}");
        assert_eq!(outcome.total, family.outcome().total);
    }
}

/// An option that is dropped, bars that are turned round, an edge that is not told: some of these households come to another tax.
#[test]
fn every_choice_is_noticed_where_it_goes_wrong() {
    let mut runner = TestRunner::deterministic();
    let written = written(env!("CARGO_MANIFEST_DIR"), &["tests/cases", "tests/california", "../../demo/us"])
        .map(Family);
    let random = (0..80).map(|_| family().new_tree(&mut runner).unwrap().current());
    let families = few().into_iter().chain(written).chain(random);
    let noticed = noticed(&UnitedStates::COMMITTED, families.map(|family| family.household()));
    assert_eq!(noticed.unnoticed(), Vec::<String>::new());
    // Eight are what others are, for returns of one spouse or of a dependent.
    assert_eq!(noticed.kinds().len() + 8, hembo_us::law::CHOICES.len(), "{:?}", noticed.kinds());
}

/// What few families have.
fn few() -> Vec<Family> {
    let invested = Family::single(2025)
        .wages("ada", 150_000)
        .loan(&["ada"], 20_000, 300_000)
        .interest(&["ada"], 1_000)
        .dividends(&["ada"], 8_000, 8_000)
        .paper("4952", &["ada"], json!({ "1": "6000" }), json!(null));
    let property = json!([{ "sort": "property", "amount": "48000", "basis": "45000" }]);
    let gave = Family::single(2025).wages("ada", 100_000).paper("Gifts", &["ada"], json!({}), property);
    let accounts = json!({ "1": "12000", "22": "10000", "participates": true, "optional": true });
    let trades =
        Family::single(2025).child("kim", "2015-05-05").paper("Schedule C", &["ada"], accounts, json!(null));
    let row = json!({ "year": 2023, "amount": "6000", "benefits": "10000", "income": "9000", "taxed": "0" });
    let late = Family::single(2025).wages("ada", 40_000).paper(
        "SSA-1099",
        &["ada"],
        json!({ "5": "18000", "earlier": "6000" }),
        json!([row]),
    );
    let student = Family::couple(2025)
        .in_california()
        .wages("ada", 131_412)
        .child("kim", "2010-05-05")
        .interest(&["kim"], 20_000)
        .cash_gift(&["kim"], 9_000)
        .pin("us.child_income.kim", "own");
    // The parents' deduction and credits of California use up what the child has.
    let retired = Family::couple(2025).in_california().interest(&["ada"], 10_000);
    let retired = retired.child("kim", "2010-05-05").interest(&["kim"], 6_000);
    let untaxed = |code: &str| {
        let boxes = json!({ "15": "CA", "16": "3000", "17": "0", "12a": code, "12a.amount": "5000" });
        Family::single(2025).in_california().child("kim", "2015-05-05").wages_with("ada", 3_000, boxes)
    };
    vec![invested, gave, trades, late, student, retired, untaxed("Q"), untaxed("II")]
}
