//! What is held beside what was keyed: when they agree, what may have gone wrong, and which paper a slip is.

use hembo_core::{
    Household, Pack,
    held::{self, Beside, Held},
    household::{Answers, Entry},
    paper::PaperKind,
};
use hembo_money::Money;
use hembo_us::UnitedStates;
use hembo_za::SouthAfrica;
use serde_json::json;
use std::collections::BTreeSet;

fn wage_statement() -> &'static PaperKind {
    UnitedStates::COMMITTED.paper_kinds().iter().find(|kind| kind.id == "W-2").unwrap()
}

fn boxes(of: serde_json::Value) -> Answers {
    serde_json::from_value(of).unwrap()
}

/// The one box of a W-2 that was keyed otherwise than it is held.
fn apart(held: serde_json::Value, keyed: serde_json::Value) -> Option<Beside> {
    let all = held::beside(wage_statement(), &boxes(held), Some(&boxes(keyed)));
    all.into_iter().find(|of| !of.agrees)
}

#[test]
fn the_same_amount_number_or_blank_agrees_however_it_is_written() {
    for (held, keyed) in [
        (json!({ "1": "1000.00" }), json!({ "1": "1000" })),
        (json!({ "4": "0.00" }), json!({})),
        (json!({ "b": "36-4410927" }), json!({ "b": "364410927" })),
        (json!({ "13.statutory": false }), json!({})),
        // Of what is not held nothing is said.
        (json!({ "1": "5.00" }), json!({ "1": "5.00", "17": "90.00" })),
    ] {
        assert_eq!(apart(held.clone(), keyed.clone()), None, "{held} {keyed}");
    }
}

#[test]
fn what_may_have_gone_wrong_in_keying_is_told() {
    let hint = |held, keyed| apart(held, keyed).unwrap().hint;
    let told = |words: &str| Some(words.to_owned());
    assert_eq!(
        hint(json!({ "2": "6911.20" }), json!({ "2": "6191.20" })),
        told("Two digits changed places.")
    );
    assert_eq!(
        hint(json!({ "2": "6911.20" }), json!({ "2": "69112.00" })),
        told("The decimal point stands elsewhere.")
    );
    assert_eq!(
        hint(json!({ "1": "80000", "2": "900" }), json!({ "1": "80000", "2": "80000" })),
        told("That is what box 1 holds.")
    );
    assert_eq!(hint(json!({ "2": "900" }), json!({ "17": "900" })), told("It was keyed in box 17."));
    assert_eq!(hint(json!({ "2": "900" }), json!({ "2": "735" })), None);
    let by = apart(json!({ "2": "900" }), json!({ "2": "735" })).unwrap();
    assert_eq!(
        (by.apart.unwrap().to_string(), by.keyed),
        ("165.00".to_owned(), Some(Entry::Text("735".into())))
    );
}

#[test]
fn a_slip_is_the_paper_of_its_payer_and_owner_and_no_other_slips() {
    let paper = |id: &str, owner: &str, title: &str, number: &str| json!({ "id": id, "kind": "W-2", "title": title, "owners": [{ "person": owner, "percent": "100" }], "boxes": { "b": number } });
    let household: Household = serde_json::from_value(json!({
        "hembo": 1, "country": "us", "year": 2025, "name": "Reef",
        "people": [{ "id": "ada", "name": "Ada Reef", "role": "filer" }, { "id": "bo", "name": "Bo Reef", "role": "filer" }],
        "papers": [paper("one", "ada", "Kelp Works", "36-0000001"), paper("two", "ada", "Kelp works", "36-0000002"),
            paper("three", "bo", "Kelp Works", "36-0000003"),
            { "id": "four", "kind": "W-2", "title": "", "owners": [{ "person": "bo", "percent": "100" }] }],
    }))
    .unwrap();
    let slip = |number: &str| Held {
        slip: "s".into(),
        by: "KELP WORKS".into(),
        on: time::macros::date!(2026 - 02 - 01),
        boxes: boxes(json!({ "b": number })),
        rows: Vec::new(),
        kept: None,
    };
    let find = |number: &str, owner: &str, others: &[&str]| {
        let others: BTreeSet<String> = others.iter().map(|&one| one.to_owned()).collect();
        held::find(&slip(number), wage_statement(), owner, &household, &others).map(|paper| paper.id.clone())
    };
    assert_eq!(find("360000002", "ada", &[]).as_deref(), Some("two"));
    assert_eq!(find("360000003", "bo", &[]).as_deref(), Some("three"));
    // Of two with that name the one that agrees more; once that is another slip's, the other.
    assert_eq!(find("36-0000001", "ada", &["one"]).as_deref(), Some("two"));
    assert_eq!(find("36-0000001", "ada", &["one", "two"]), None);
    // One that names nobody may be anybody's.
    assert_eq!(find("36-0000009", "bo", &["three"]).as_deref(), Some("four"));
}

/// A certificate by codes: each code is compared like a box, lines of the same code together, and taken into its line.
#[test]
fn a_code_of_a_list_is_compared_and_taken_like_a_box() {
    let pack = SouthAfrica::COMMITTED;
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == "IRP5").unwrap();
    let mut household: Household =
        serde_json::from_str(include_str!("../../../../demo/za/nortjie-dube.json")).unwrap();
    household.name_rows();
    let at = household.papers.iter().position(|paper| paper.kind == "IRP5").unwrap();
    let line = |code: &str, amount: &str| boxes(json!({ "code": code, "amount": amount }));
    household.papers[at].rows.clear();
    for (code, amount) in [("3601", "500000"), ("4102", "9000"), ("4102", "1000")] {
        household.papers[at].add_row(None, line(code, amount));
    }
    let held =
        boxes(json!({ "gross": "604000.00", "3601": "510000.00", "4102": "10500.00", "4001": "2000.00" }));
    let told = |household: &Household| kind.told(&household.papers[at]);
    let apart = |household: &Household| -> Vec<(String, String)> {
        let all = held::beside(kind, &held, Some(&told(household)));
        let differs = all.into_iter().filter(|of| !of.agrees);
        differs.map(|of| (of.field, of.apart.unwrap().to_string())).collect()
    };
    let pair = |field: &str, amount: &str| (field.to_owned(), amount.to_owned());
    assert_eq!(
        apart(&household),
        [pair("3601", "10000.00"), pair("4001", "2000.00"), pair("4102", "500.00")]
    );
    for of in held::beside(kind, &held, Some(&told(&household))) {
        held::taking(kind, &household.papers[at], &of.field, of.held).apply(&mut household).unwrap();
    }
    assert_eq!(apart(&household), []);
    let rows = &household.papers[at].rows;
    assert_eq!(rows.len(), 4, "{rows:?}");
    assert_eq!(told(&household)["4102"].money(), Some(Money::whole(10_500)));
    // As a paper of its own it has the boxes and a line a code.
    let held = Held {
        slip: "s".into(),
        by: "Agulhas Lights".into(),
        on: time::macros::date!(2026 - 02 - 01),
        boxes: held,
        rows: Vec::new(),
        kept: None,
    };
    let paper = held::paper_of(kind, "new", "thandeka", &held);
    assert_eq!((paper.boxes.len(), paper.rows.len(), kind.told(&paper)), (1, 3, held.boxes));
}

/// Payments as the authority has them, beside those that were keyed: what is the same, what differs in one cell, what is
/// only held and what is only keyed.
#[test]
fn a_line_of_a_list_is_paired_and_taken() {
    let pack = UnitedStates::COMMITTED;
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == "1040-ES").unwrap();
    let line = |date: &str, amount: &str| boxes(json!({ "date": date, "amount": amount }));
    let mut household: Household =
        serde_json::from_str(include_str!("../../../../demo/us/halvorsen-achebe.json")).unwrap();
    let at = household.papers.iter().position(|paper| paper.kind == "1040-ES").unwrap();
    household.papers[at].rows.clear();
    for (date, amount) in
        [("2025-04-15", "600"), ("2025-06-16", "600"), ("2025-09-15", "850"), ("2025-12-01", "75")]
    {
        household.papers[at].add_row(None, line(date, amount));
    }
    let held = [
        line("2025-09-15", "800.00"),
        line("2025-06-16", "600.00"),
        line("2025-04-15", "600.00"),
        line("2026-01-15", "600.00"),
    ];
    let beside = held::lines(kind, &held, Some(&household.papers[at]));
    let told: Vec<_> = beside.iter().map(|of| (of.row.as_deref(), of.held.is_some(), of.agrees)).collect();
    assert_eq!(
        told,
        [
            (Some("r7"), true, false),
            (Some("r6"), true, true),
            (Some("r5"), true, true),
            (None, true, false),
            (Some("r8"), false, true)
        ]
    );
    for of in &beside {
        for taking in held::taking_line(kind, &household.papers[at].clone(), of) {
            taking.apply(&mut household).unwrap();
        }
    }
    let paper = &household.papers[at];
    assert_eq!(paper.rows.len(), 5, "one line more, none twice");
    assert_eq!(paper.row("r7").unwrap()["amount"].money(), Some(Money::whole(800)));
    assert!(held::lines(kind, &held, Some(paper)).iter().all(|of| of.agrees));
    // Of a list of which nothing is held, nothing is said; without a paper every line is new.
    assert_eq!(held::lines(kind, &[], Some(paper)), []);
    assert!(held::lines(kind, &held, None).iter().all(|of| !of.agrees && of.keyed.is_none()));
}
