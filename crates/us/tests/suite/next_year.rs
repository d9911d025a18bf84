//! A household carried forward: who and what goes into the next year, and what is other than last year there.

use hembo_core::{
    Household, check,
    outcome::{self, NotForward, next_year},
    search::Stop,
};
use hembo_testing::us::{Family, REGISTRY, assert_lines};
use hembo_us::UnitedStates;
use serde_json::{Value, json};

fn forward(family: &Family) -> Household {
    let next = next_year(&family.household(), &UnitedStates::COMMITTED, &Stop::default()).unwrap();
    assert_eq!(check::faults(&next, &REGISTRY), vec![]);
    next
}

/// The papers of a kind in the next year: title, boxes and rows without their ids.
fn papers(family: &Family, kind: &str) -> Vec<Value> {
    let of = |paper: &hembo_core::Paper| {
        let rows: Vec<Value> = paper.rows.iter().map(|row| json!(row.cells)).collect();
        json!([paper.title, paper.boxes, rows])
    };
    forward(family).papers.iter().filter(|paper| paper.kind == kind).map(of).collect()
}

#[test]
fn what_is_left_of_losses_and_gifts_becomes_a_paper() {
    // 9,000 less 3,000 of this year.
    let losses = Family::single(2024).wages("ada", 60_000).sale(&["ada"], "long", -9_000);
    assert_eq!(papers(&losses, "Losses carried"), [json!(["2024", { "long": "6000.00" }, []])]);
    assert!(papers(&Family::single(2024).wages("ada", 60_000), "Losses carried").is_empty());
    // 60 % of 20,000 is 12,000: 3,000 of 15,000 are left, beside what 2022 had.
    let gifts = Family::single(2024).wages("ada", 20_000).cash_gift(&["ada"], 15_000).paper(
        "Gift carryover",
        &["ada"],
        json!({}),
        json!([{ "year": 2022, "class": "cash", "amount": "500" }]),
    );
    let rows = json!([
        { "year": 2022, "class": "cash", "amount": "500.00" },
        { "year": 2024, "class": "cash", "amount": "3000.00" },
    ]);
    assert_eq!(papers(&gifts, "Gift carryover"), [json!(["2024", {}, rows])]);
}

/// What the year itself brought is used first, then the oldest (§904(c)).
#[test]
fn foreign_tax_is_left_by_year() {
    let of = |tax: &str, earlier: Value| {
        let boxes = json!({ "1a": "3000", "7": tax, "7.income": "3000", "8": "Chile" });
        let family =
            Family::single(2025).wages("ada", 60_000).paper("1099-DIV", &["ada"], boxes, json!(null));
        papers(&family.paper("Foreign tax carried", &["ada"], json!({}), earlier), "Foreign tax carried")
    };
    // The limit is 259; that of the minimum tax is nothing, so that all of the year is left for it.
    let earlier = json!([
        { "year": 2020, "amount": "300", "minimum": "0" }, { "year": 2022, "amount": "200", "minimum": "0" },
    ]);
    let rows = json!([
        { "year": 2020, "amount": "141.00" }, { "year": 2022, "amount": "200.00" }, { "year": 2025, "minimum": "100.00" },
    ]);
    assert_eq!(of("100", earlier), [json!(["2025", {}, rows])]);
    let rows = json!([{ "year": 2025, "amount": "641.00", "minimum": "900.00" }]);
    assert_eq!(of("900", json!([])), [json!(["2025", {}, rows])]);
}

#[test]
fn papers_come_again_empty_with_last_years_amounts_beside_them() {
    let family = Family::single(2024)
        .wages_with("ada", 60_000, json!({ "b": "36-4410927", "15": "OH" }))
        .medical(&["ada"], "ada", 900)
        .paper("1341", &["ada"], json!({}), json!([{ "amount": "5000", "tax": "0" }]));
    let next = forward(&family);
    let kinds: Vec<&str> = next.papers.iter().map(|paper| paper.kind.as_str()).collect();
    assert_eq!(kinds, ["W-2", "Medical", "Last year"]);
    let [w2, medical, last] = &next.papers[..] else { panic!() };
    assert_eq!(json!(w2.boxes), json!({ "b": "36-4410927", "15": "OH" }));
    assert_eq!(json!(w2.before["1"]), json!("60000"));
    assert_eq!((json!(medical.before), medical.rows.len()), (json!({ "amount": "900.00" }), 0));
    // AGI 60,000; tax on 45,400 of 2024.
    assert_eq!(last.boxes["agi"], hembo_core::household::Entry::Text("60000.00".into()));
    assert_eq!(next.before.as_ref().unwrap().results["Adjusted gross income"].to_string(), "60000.00");
    assert_eq!(
        (next.year, next.answers.contains_key("state"), next.answers.contains_key("sales")),
        (2025, true, false)
    );
}

/// Whether a point that every pack has was found.
fn has(outcome: &hembo_core::Outcome, code: &str) -> bool {
    outcome.points.iter().any(|point| point.id.starts_with(&format!("{code}:")))
}

#[test]
fn what_is_other_than_last_year_is_worth_a_look() {
    let told = |amount: Option<&str>| {
        let mut next = forward(&Family::single(2024).wages("ada", 60_000));
        if let Some(amount) = amount {
            let entry = hembo_core::household::Entry::Text(amount.into());
            next.papers[0].boxes.insert("1".into(), entry);
        }
        let outcome = outcome::reckon(&next, &REGISTRY).unwrap();
        (has(&outcome, "last-year-missing"), has(&outcome, "last-year-much"))
    };
    assert_eq!(told(None), (true, false));
    for (amount, far) in [("90000", false), ("90001", true), ("30000", false), ("29999", true)] {
        assert_eq!(told(Some(amount)), (false, far), "{amount}");
    }
    // Filed as head of household, and single this year: nobody lives there any more.
    let mut next = forward(
        &Family::single(2024)
            .wages("ada", 60_000)
            .answer_for("ada", "paid_home", json!(true))
            .child("kim", "2015-05-05"),
    );
    next.people.pop();
    let outcome = outcome::reckon(&next, &REGISTRY).unwrap();
    assert!(has(&outcome, "last-year-filed"));
}

#[test]
fn a_spouse_who_died_is_left_out_and_the_other_is_widowed() {
    let family = Family::couple(2024).wages("ada", 60_000).wages("bo", 20_000).interest(&["ada", "bo"], 400);
    let next = forward(&family.set("bo", "/died", json!("2024-08-08")));
    assert_eq!(next.people.len(), 1);
    assert_eq!(
        (json!(next.answers["marital"]), json!(next.people[0].answers["spouse_died"])),
        (json!("widowed"), json!(2024))
    );
    let owners: Vec<Value> = next.papers.iter().map(|paper| json!(paper.owners)).collect();
    assert!(
        owners.iter().all(|owners| *owners == json!([{ "person": "ada", "percent": "100" }])),
        "{owners:?}"
    );
}

#[test]
fn a_year_without_figures_and_a_household_without_filers_are_refused() {
    let refused = |family: Family| {
        next_year(&family.household(), &UnitedStates::COMMITTED, &Stop::default()).unwrap_err()
    };
    assert_eq!(refused(Family::single(2026)), NotForward::NoFigures(2027));
    assert_eq!(
        refused(Family::single(2024).set("ada", "/died", json!("2024-12-31"))),
        NotForward::NobodyFiles(2025)
    );
    let lives = Family::single(2024).set("ada", "/died", json!("2025-01-01"));
    assert_eq!(forward(&lives).people.len(), 1);
}

/// What is carried over from figures that are no result is told.
#[test]
fn figures_that_were_no_result_are_told() {
    let told =
        |family: Family| has(&outcome::reckon(&forward(&family), &REGISTRY).unwrap(), "last-year-no-result");
    let family = || Family::single(2024).wages("ada", 60_000);
    assert!(!told(family()));
    assert!(told(family().answer("other_income", json!(true))));
}

/// What a joint return leaves is of two, whose part is whose by Reg. §1.1212-1(c) and §1.172-7 is nowhere in it: that is told.
#[test]
fn what_a_joint_return_leaves_is_told_to_be_of_two() {
    let told = |next: &Household| {
        let points = outcome::reckon(next, &REGISTRY).unwrap().points;
        let of_two = points.into_iter().filter(|point| point.code() == "last-year-of-two");
        of_two.map(|point| point.message).collect::<Vec<_>>()
    };
    let couple = || Family::couple(2024).wages("ada", 60_000).sale(&["ada"], "short", -9_000);
    let mut next =
        forward(&couple().paper("Business losses carried", &["ada"], json!({ "3": "700" }), json!(null)));
    let messages = told(&next);
    let one = |kind: &str, parts: &str| {
        messages.iter().any(|message| message.starts_with(kind) && message.ends_with(parts))
    };
    assert_eq!(messages.len(), 2, "{messages:?}");
    assert!(one("Losses carried of 2024:", "in equal parts."), "{messages:?}");
    assert!(one("Business losses carried of 2024:", "whole."), "{messages:?}");
    next.papers.retain(|paper| paper.kind != "Losses carried");
    assert_eq!(told(&next).len(), 1);
    let alone = Family::single(2024).wages("ada", 60_000).sale(&["ada"], "short", -9_000);
    assert_eq!(told(&forward(&alone)), Vec::<String>::new());
}

/// Twice forward is lawful, too: what the first year left is left further.
#[test]
fn losses_go_on_from_year_to_year() {
    let family = Family::single(2024).wages("ada", 60_000).sale(&["ada"], "short", -9_000);
    let mut next = forward(&family);
    next.papers[0].boxes.insert("1".into(), hembo_core::household::Entry::Text("60000".into()));
    let outcome = outcome::reckon(&next, &REGISTRY).unwrap();
    assert_lines(&outcome, &[("us.7", -3_000), ("us.carryover.short", 3_000)]);
    let third = next_year(&next, &UnitedStates::COMMITTED, &Stop::default()).unwrap();
    let carried = third.papers.iter().find(|paper| paper.kind == "Losses carried").unwrap();
    assert_eq!(json!(carried.boxes), json!({ "short": "3000.00" }));
}

/// Basis of IRAs goes into the form that comes again; passive losses are told until they stand with their property.
#[test]
fn what_belongs_to_a_paper_that_comes_again_goes_into_it() {
    let family = Family::single(2024).wages("ada", 200_000).paper(
        "8606",
        &["ada"],
        json!({ "2": "4000", "22": "900" }),
        json!(null),
    );
    assert_eq!(papers(&family, "8606"), [json!(["", { "2": "4000", "22": "900" }, []])]);
    // Covered at work and above the range nothing is deducted: 5,000 are basis beside the 4,000. Of 9,000 the limit of 7,000 is.
    for (paid, basis) in [("5000", "9000.00"), ("9000", "11000.00")] {
        let family =
            family.clone().paper("W-2", &["ada"], json!({ "1": "1000", "13.retirement": true }), json!(null));
        let family = family.paper("5498", &["ada"], json!({ "1": paid }), json!(null));
        let next = forward(&family);
        let carried = next.papers.iter().find(|paper| paper.kind == "8606").unwrap();
        assert_eq!(carried.amount("2").to_string(), basis, "{paid}");
    }
    let boxes = json!({ "kind": "single", "days": 365, "active": true, "business": false, "3": "9000", "9": "15000", "18": "0" });
    let next = forward(&Family::single(2024).wages("ada", 200_000).paper(
        "Schedule E",
        &["ada"],
        boxes,
        json!(null),
    ));
    assert_eq!(next.before.as_ref().unwrap().left["Passive losses carried on"].to_string(), "6000.00");
    assert!(has(&outcome::reckon(&next, &REGISTRY).unwrap(), "last-year-left"));
}

/// What this year cannot use stays: every paper with an amount carried over comes again with it.
#[test]
fn nothing_carried_over_is_lost() {
    let rows = |cells: Value| (json!({}), json!([cells]));
    let boxes = |boxes: Value| (boxes, json!(null));
    for (kind, (keyed, list)) in [
        ("Losses carried", boxes(json!({ "short": "9000", "long": "8000" }))),
        ("Business losses carried", boxes(json!({ "3": "700" }))),
        ("172", boxes(json!({ "since": "5000", "before": "400" }))),
        ("8801", boxes(json!({ "19": "300" }))),
        ("4797", boxes(json!({ "8": "600" }))),
        ("5695", boxes(json!({ "12": "800" }))),
        ("4952", boxes(json!({ "2": "900" }))),
        ("8606", boxes(json!({ "2": "4000" }))),
        ("8915-F", boxes(json!({ "14.next": "250", "25.next": "350" }))),
        ("Gift carryover", rows(json!({ "year": 2022, "class": "cash", "amount": "500" }))),
        ("Foreign tax carried", rows(json!({ "year": 2022, "amount": "500", "minimum": "500" }))),
        ("8396", rows(json!({ "year": 2023, "amount": "450" }))),
        ("8839", rows(json!({ "year": 2023, "amount": "650" }))),
    ] {
        let found = papers(&Family::single(2024).paper(kind, &["ada"], keyed.clone(), list.clone()), kind);
        let amount = |of: &Value| of.as_str().map(|text| text.trim_end_matches(".00").to_owned());
        let amounts = |of: &Value| -> Vec<String> {
            let cells = of[1]
                .as_object()
                .into_iter()
                .chain(of[2].as_array().into_iter().flatten().filter_map(Value::as_object));
            let mut all: Vec<String> = cells.flat_map(|cells| cells.values().filter_map(amount)).collect();
            all.sort();
            all
        };
        let rows = if list.is_null() { json!([]) } else { list };
        let mut wanted = amounts(&json!(["", keyed, rows]));
        if kind == "Losses carried" {
            // 3,000 of the short one are taken, whatever the income (§1212(b)(2)).
            wanted = vec!["8000".into(), "9000".into()];
        }
        assert_eq!(found.iter().flat_map(amounts).collect::<Vec<_>>(), wanted, "{kind}");
    }
}

/// Of what earlier years left it is told how much came in and how much is left, also where nothing is.
#[test]
fn what_came_in_is_told_beside_what_is_left() {
    let carried = |family: &Family, paper: &str| -> Vec<(String, String)> {
        let outcome = outcome::reckon(&family.household(), &REGISTRY).unwrap();
        let here = outcome.carried.iter().filter(|one| one.paper == paper);
        here.map(|one| (one.came.to_string(), one.amount.to_string())).collect()
    };
    let told = |came: &str, left: &str| vec![(came.to_owned(), left.to_owned())];
    let losses = |amount: &str| {
        let family = Family::single(2024).wages("ada", 60_000);
        family.paper("Losses carried", &["ada"], json!({ "long": amount }), json!(null))
    };
    // 3,000 are taken (§1211(b)): at 3,000 nothing is left, a cent above it a cent (whole dollars).
    assert_eq!(carried(&losses("9000"), "Losses carried"), told("9000.00", "6000.00"));
    assert_eq!(carried(&losses("3001"), "Losses carried"), told("3001.00", "1.00"));
    assert_eq!(carried(&losses("3000"), "Losses carried"), told("3000.00", "0.00"));
    let gifts = |earlier: &str| {
        let rows = json!([{ "year": 2022, "class": "cash", "amount": earlier }]);
        let family = Family::single(2024).wages("ada", 20_000).cash_gift(&["ada"], 15_000);
        family.paper("Gift carryover", &["ada"], json!({}), rows)
    };
    // The year's own 15,000 fill the 12,000: 3,000 of them are left beside the 500.
    assert_eq!(carried(&gifts("500"), "Gift carryover"), told("500.00", "3500.00"));
    assert_eq!(carried(&Family::single(2024).wages("ada", 60_000), "Losses carried"), []);
}
