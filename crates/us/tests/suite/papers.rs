//! Papers: where each box goes, what it suggests, and the open points that it raises.

use hembo_core::point::Weight;
use hembo_testing::us::{Family, has_point, line};
use hembo_us::{figures::Figures, papers::w2};
use serde_json::{Value, json};

#[test]
fn where_the_boxes_of_a_1099_int_go() {
    let cases = [
        // boxes, line, amount
        (json!({ "1": "100.49" }), "us.2b", 100),
        (json!({ "1": "100.50" }), "us.2b", 101),
        (json!({ "3": "40" }), "us.2b", 40),
        (json!({ "10": "7" }), "us.2b", 7),
        (json!({ "1": "100", "3": "40", "10": "7", "11": "30", "12": "15" }), "us.2b", 102),
        (json!({ "1": "100", "11": "130" }), "us.2b", 0),
        (json!({ "3": "100", "12": "130" }), "us.2b", 0),
        (json!({ "1": "10", "2": "25" }), "us.penalty", 25),
        (json!({ "1": "10", "2": "25" }), "us.agi", 49_985),
        (json!({ "4": "12" }), "us.25b", 12),
        (json!({ "8": "90", "13": "20" }), "us.2a", 70),
        (json!({ "17": "33" }), "us.sched_a.5a", 33),
    ];
    for (boxes, id, amount) in cases {
        let family =
            Family::single(2025).wages("ada", 50_000).paper("1099-INT", &["ada"], boxes.clone(), Value::Null);
        assert_eq!(line(&family.outcome(), id), amount, "{boxes}");
    }
}

/// Every code of box 12, and what it does: what it adds to boxes 3 and 5, what goes to Schedule 2 line 13, and what is
/// told not to be computed.
#[test]
fn what_each_code_of_box_12_does() {
    let cases: [(&[&str], i64, i64, Option<&str>); 8] = [
        (&["A", "B", "M", "N"], 0, 1_000, None),
        (&["C", "J", "L", "V", "Y", "DD", "FF", "GG", "HH"], 0, 0, None),
        (&["D", "E", "F", "G", "H", "S"], 1_000, 0, None),
        (&["AA", "BB", "EE"], 0, 0, None),
        (&["K", "W"], 0, 0, None),
        (&["Z"], 0, 0, Some("tax on")),
        (&["P", "Q", "II"], 0, 0, None),
        (&["R", "T"], 0, 0, Some("not computed yet")),
    ];
    let figures = Figures::of(2025).unwrap();
    for (codes, deferred, uncollected, needs) in cases {
        for code in codes {
            let boxes = json!({ "b": "36-4410927", "1": "90000", "12a": code, "12a.amount": "1000" });
            let family = Family::single(2025).paper("W-2", &["ada"], boxes, Value::Null);
            let household = family.household();
            let made = w2::suggestions(figures, &household.papers[0]);
            let medicare = made.iter().find(|s| s.field == "5").unwrap();
            assert_eq!(medicare.value, format!("{}.00", 90_000 + deferred), "{code}");
            let outcome = family.outcome();
            assert_eq!(line(&outcome, "us.sched_2.13"), uncollected, "{code}");
            // The excise tax itself stands in the box (§4999).
            let excise = if *code == "K" { 1_000 } else { 0 };
            assert_eq!(line(&outcome, "us.sched_2.17k"), excise, "{code}");
            assert_eq!(line(&outcome, "us.23"), uncollected + excise, "{code}");
            let told = outcome.points.iter().find(|p| p.id.starts_with("box-12:"));
            assert_eq!(told.is_some(), needs.is_some(), "{code}");
            let words = needs.unwrap_or_default();
            assert!(told.is_none_or(|point| point.message.contains(words) && point.not_covered), "{code}");
        }
    }
}

#[test]
fn shares_divide_a_paper_to_the_cent() {
    let mut family = Family::couple(2025).interest(&["ada", "bo"], 0).pin("us.status", "separate");
    family.0["papers"][0]["boxes"]["1"] = json!("1000.01");
    for (ada, bo, expected) in
        [("50", "50", (500, 500)), ("33.333333333", "66.666666667", (333, 667)), ("100", "0", (1_000, 0))]
    {
        family.0["papers"][0]["owners"] =
            json!([{ "person": "ada", "percent": ada }, { "person": "bo", "percent": bo }]);
        let outcome = family.outcome();
        let parts = (
            hembo_testing::us::line_of(&outcome, "us.2b", "return/0"),
            hembo_testing::us::line_of(&outcome, "us.2b", "return/1"),
        );
        assert_eq!(parts, expected);
    }
}

#[test]
fn lists_of_receipts_add_up() {
    let medical = json!([
        { "sort": "bill", "amount": "1000.40" },
        { "sort": "premium", "amount": "2000" },
        { "sort": "travel", "miles": 101, "amount": "4.10" },
        { "sort": "reimbursed", "amount": "500" },
        { "amount": "0.20" },
    ]);
    // 1,000.40 + 2,000 + 21.21 + 4.10 − 500 + 0.20 = 2,525.91
    let family = Family::single(2025).paper("Medical", &["ada"], json!({}), medical);
    assert_eq!(line(&family.outcome(), "us.sched_a.1"), 2_526);
    let gifts = json!([
        { "sort": "cash", "amount": "100" },
        { "sort": "travel", "miles": 100, "amount": "3.50" },
        { "sort": "goods", "amount": "60" },
    ]);
    let outcome =
        Family::single(2025).wages("ada", 50_000).paper("Gifts", &["ada"], json!({}), gifts).outcome();
    assert_eq!((line(&outcome, "us.sched_a.11"), line(&outcome, "us.sched_a.12")), (118, 60)); // 100 + 14 + 3.50
    let payments =
        json!([{ "amount": "600.50", "date": "2025-04-15" }, { "amount": "600.50", "date": "2026-01-15" }]);
    let outcome = Family::single(2025).paper("1040-ES", &["ada"], json!({}), payments).outcome();
    assert_eq!((line(&outcome, "us.26"), line(&outcome, "us.balance")), (1_201, -1_201));
    // Paid back more than paid: nothing counts, and nothing is below zero.
    let back = json!([{ "sort": "reimbursed", "amount": "50" }]);
    let outcome = Family::single(2025).paper("Medical", &["ada"], json!({}), back).outcome();
    assert_eq!((line(&outcome, "us.sched_a.1"), line(&outcome, "us.sched_a.4")), (0, 0));
}

#[test]
fn sales_tax_is_an_option_of_its_own() {
    let tables = json!({ "actual": "900", "table": "1500", "table_separate": "800", "vehicles": "300" });
    let family = Family::single(2025).wages("ada", 90_000).loan(&["ada"], 20_000, 300_000);
    let family = family.state_tax(&["ada"], 1_000).paper("Sales tax", &["ada"], tables, Value::Null);
    for (option, tax) in [("income", 1_000), ("sales", 900), ("table", 1_800)] {
        let outcome = family.clone().pin("us.taxes", option).outcome();
        assert_eq!(line(&outcome, "us.sched_a.5a"), tax, "{option}");
    }
    assert_eq!(line(&family.outcome(), "us.sched_a.5a"), 1_800);
    // Without a sales-tax paper there is nothing to choose.
    let none = Family::single(2025).wages("ada", 90_000).outcome();
    assert!(none.decisions.iter().all(|d| d.id != "us.taxes"));
}

#[test]
fn a_w2_suggests_the_boxes_that_follow() {
    let figures = Figures::of(2025).unwrap();
    let of = |boxes: Value| {
        let household = Family::single(2025).paper("W-2", &["ada"], boxes, Value::Null).household();
        let all = w2::suggestions(figures, &household.papers[0]);
        all.into_iter().map(|s| (s.field, s.value)).collect::<Vec<_>>()
    };
    let told = |pairs: &[(&str, &str)]| {
        pairs.iter().map(|(f, v)| ((*f).to_owned(), (*v).to_owned())).collect::<Vec<_>>()
    };
    assert_eq!(of(json!({})), []);
    assert_eq!(of(json!({ "1": "71240" })), told(&[("3", "71240.00"), ("5", "71240.00")]));
    let deferred =
        json!({ "1": "71240", "12a": "D", "12a.amount": "5000", "12b": "DD", "12b.amount": "9412" });
    assert_eq!(of(deferred), told(&[("3", "76240.00"), ("5", "76240.00")]));
    assert_eq!(of(json!({ "1": "300000" }))[0], ("3".to_owned(), "176100.00".to_owned()));
    let filled = json!({ "1": "300000", "3": "176100", "5": "300000", "15": "CA" });
    assert_eq!(of(filled), told(&[("4", "10918.20"), ("6", "5250.00"), ("16", "300000.00")]));
    let complete = json!({ "1": "100", "3": "100", "4": "6.20", "5": "100", "6": "1.45" });
    assert_eq!(of(complete), []);
}

#[test]
fn each_check_raises_its_point() {
    let wages = |boxes: Value| Family::single(2025).wages_with("ada", 60_000, boxes);
    let interest = |boxes: Value| Family::single(2025).paper("1099-INT", &["ada"], boxes, Value::Null);
    let loan =
        |boxes: Value| Family::single(2025).wages("ada", 90_000).paper("1098", &["ada"], boxes, Value::Null);
    let couple = Family::couple(2025).wages("ada", 60_000);
    let child = Family::single(2025).child("kim", "2015-01-01");
    let cases: Vec<(Family, &str, Weight)> = vec![
        (wages(json!({ "b": "" })), "K-040", Weight::Blocks),
        (wages(json!({ "b": "12-345678" })), "K-040", Weight::Blocks),
        (wages(json!({ "4": "3722" })), "K-041", Weight::Look),
        (wages(json!({ "6": "868" })), "K-042", Weight::Look),
        (wages(json!({ "3": "176100.01" })), "K-043", Weight::Look),
        (wages(json!({ "4": "10918.21" })), "K-044", Weight::Look),
        (wages(json!({ "2": "30000.01" })), "K-045", Weight::Look),
        (wages(json!({ "11": "1" })), "K-046", Weight::Look),
        (wages(json!({ "12a.amount": "5" })), "K-048-code", Weight::Blocks),
        (wages(json!({ "12a": "D", "12b": "D" })), "K-048", Weight::Look),
        (wages(json!({ "13.statutory": true })), "K-053", Weight::Look),
        (interest(json!({ "1": "50", "3": "50" })), "K-058", Weight::Look),
        (interest(json!({ "8": "50", "9": "51" })), "K-058-bonds", Weight::Blocks),
        (interest(json!({ "6": "1" })), "K-139", Weight::Blocks),
        (interest(json!({ "1": "1501" })), "K-026", Weight::Blocks),
        (loan(json!({ "1": "9000" })), "K-108", Weight::Blocks),
        (loan(json!({ "1": "9000", "2": "900000" })), "K-108-end", Weight::Look),
        (loan(json!({ "1": "9000", "2": "900000" })), "K-108-date", Weight::Look),
        (loan(json!({ "4": "10" })), "overpaid-interest", Weight::Blocks),
        (couple.clone().set("ada", "/id_number", Value::Null), "K-001", Weight::Blocks),
        (couple.clone().set("ada", "/born", Value::Null), "K-004", Weight::Blocks),
        (couple.clone().set("bo", "/died", json!("2024-12-31")), "K-009", Weight::Blocks),
        (couple.clone().answer("state", json!("CA")), "K-030", Weight::Blocks),
        (couple.clone().answer("marital", json!("single")), "partner-dependent", Weight::Look),
        (child.clone(), "K-010", Weight::Blocks),
        (child.clone().set("kim", "/answers", json!({})), "K-022", Weight::Blocks),
        (child.clone().set("kim", "/lived_with", json!({})), "K-015", Weight::Blocks),
        (child.clone().set("kim", "/lived_with/ada", json!(6)), "K-015-half", Weight::Look),
        (child.answer("marital", json!("widowed")), "K-012", Weight::Blocks),
        (Family::single(2025).wages("ada", 60_000), "K-156", Weight::Look),
        (Family::single(2025).answer("marital", json!("married")), "K-169", Weight::Look),
        (Family::single(2025).answer("marital", json!("married")), "K-169-named", Weight::Look),
        (
            Family::single(2025).answer("marital", json!("married")).answer("spouse_name", json!("Bo Reed")),
            "K-169-named",
            Weight::Look,
        ),
    ];
    for (family, code, weight) in cases {
        let outcome = family.outcome();
        let found =
            outcome.points.iter().find(|p| p.id.split(':').next() == Some(code) && p.weight == weight);
        let point = found.unwrap_or_else(|| panic!("{code} is not open: {:#?}", outcome.points));
        assert!(!point.message.is_empty() && !point.remedy.is_empty());
    }
    // And not where there is no reason.
    let calm = Family::single(2025)
        .wages_with("ada", 60_000, json!({ "2": "6000", "4": "3720", "6": "870" }))
        .signed(&["ada"])
        .outcome();
    assert!(calm.points.is_empty(), "{:#?}", calm.points);
    let within = wages(json!({ "2": "6000", "4": "3721", "6": "869" })).outcome();
    assert!(!has_point(&within, "K-041") && !has_point(&within, "K-042"), "a dollar is let pass");
    assert!(!has_point(&interest(json!({ "1": "1500" })).outcome(), "K-026"));
}

#[test]
fn unanswered_questions_are_open_at_once() {
    let mut family = Family::couple(2025);
    family.0["answers"] = json!({});
    let outcome = family.outcome();
    for code in ["K-008", "K-011", "K-024", "K-029-married"] {
        assert!(has_point(&outcome, code), "{code}");
    }
    let ids: std::collections::BTreeSet<_> = outcome.points.iter().map(|p| &p.id).collect();
    assert_eq!(ids.len(), outcome.points.len(), "every point has an id of its own");
}

#[test]
fn figures_refuse_what_they_do_not_know() {
    let text = include_str!("../../rules/2025.toml");
    assert!(toml::from_str::<Figures>(text).is_ok());
    for (from, to) in [
        ("mile = \"0.21\"", "mile = \"0.21\"\nyard = \"1\""),
        ("\"0.075\"", "\"seven\""),
        ("status = \"enacted\"", "status = \"rumoured\""),
        ("status =", "colour = \"red\"\nstatus ="),
    ] {
        let error = toml::from_str::<Figures>(&text.replacen(from, to, 1)).unwrap_err().to_string();
        assert!(error.contains("line"), "{error}");
    }
    assert_eq!(
        Figures::of(2025).unwrap().medical.cite,
        "IRC §213(a), (d)(10); Notice 2025-5; Rev. Proc. 2024-40"
    );
    assert!(Figures::of(2030).is_none());
}
