//! Dependents' own returns of California, and FTB 3800: worked by hand from the law.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_core::Outcome;
use hembo_testing::us::{Family, has_point, line_of};
use serde_json::{Value, json};

/// A couple with taxable income of 120,000 in California, whose tax is 4,368, and a child of fifteen with a return of its own.
fn family() -> Family {
    let wages = json!({ "15": "CA", "16": "131412", "17": "1" });
    let family = Family::couple(2025).in_california().wages_with("ada", 131_412, wages);
    family.child("kim", "2010-05-05").pin("us.child_income.kim", "own")
}

fn assert_lines(outcome: &Outcome, place: usize, expected: &[(&str, i64)]) {
    for (line, amount) in expected {
        let ours = line_of(outcome, &format!("us.ca.{line}"), &format!("return/{place}"));
        assert_eq!(ours, *amount, "{line} of {place}");
    }
}

fn has_line(outcome: &Outcome, place: usize, line: &str) -> bool {
    let (id, scope) = (format!("us.ca.{line}"), format!("return/{place}"));
    outcome.lines.iter().any(|of| of.id == id && of.scope == scope)
}

/// 3,300 of 6,000 at the parents' eight per cent: 264; 1,350 at the child's one per cent: 13. At its own rates it would be 46.
#[test]
fn a_child_at_the_parents_rates() {
    let outcome = family().interest(&["kim"], 6_000).outcome();
    assert!(outcome.covered, "{:?}", outcome.points);
    assert_lines(&outcome, 0, &[("540.19", 120_000), ("540.31", 4_368)]);
    let expected = [
        ("540.13", 6_000),
        ("540.18", 1_350),
        ("540.19", 4_650),
        ("3800.1", 6_000),
        ("3800.5", 3_300),
        ("3800.9", 4_632),
        ("3800.13", 264),
        ("3800.15", 13),
        ("540.31", 277),
        ("540.32", 0),
        ("net_tax", 277),
    ];
    assert_lines(&outcome, 1, &expected);
    // Without anything above the limit there is no such form; with a dollar of it the own rates are more: 14 on 1,351.
    let outcome = family().interest(&["kim"], 2_700).outcome();
    assert_lines(&outcome, 1, &[("540.31", 13)]);
    assert!(!has_line(&outcome, 1, "3800.18"));
    let outcome = family().interest(&["kim"], 2_701).outcome();
    assert_lines(&outcome, 1, &[("3800.5", 1), ("3800.13", 0), ("3800.15", 13), ("540.31", 14)]);
}

/// Interest of the United States is not taxed here: 1,300 of 4,000 at the parents' rates, 104, and 13.
#[test]
fn by_the_amounts_of_california() {
    let boxes = json!({ "1": "4000", "3": "2000" });
    let outcome = family().paper("1099-INT", &["kim"], boxes, Value::Null).outcome();
    let expected =
        [("540.17", 4_000), ("3800.1", 4_000), ("3800.5", 1_300), ("3800.13", 104), ("540.31", 117)];
    assert_lines(&outcome, 1, &expected);
}

/// 3,300 and 2,000 add 424 to the parents' tax: 264 and 160.
#[test]
fn brothers_and_sisters_share() {
    let both = family().child("lea", "2012-05-05").pin("us.child_income.lea", "own");
    let outcome = both.interest(&["kim"], 6_000).interest(&["lea"], 4_700).outcome();
    assert_lines(&outcome, 1, &[("3800.9", 4_792), ("3800.13", 264)]);
    assert_lines(&outcome, 2, &[("3800.9", 4_792), ("3800.13", 160)]);
}

/// Form 540 of a dependent is due above the own standard deduction, or where tax was withheld.
#[test]
fn when_a_return_is_due() {
    let due = |family: Family| has_line(&family.outcome(), 1, "540.19");
    assert!(!due(family().interest(&["kim"], 1_350)) && due(family().interest(&["kim"], 1_351)));
    let paid = |amount: i64, withheld: &str| {
        family().wages_with("kim", amount, json!({ "15": "CA", "16": amount.to_string(), "17": withheld }))
    };
    assert!(!due(paid(3_000, "0")) && due(paid(3_000, "20")));
    assert_lines(&paid(3_000, "20").outcome(), 1, &[("540.18", 3_450), ("540.71", 20), ("540.115", 20)]);
    // Of earnings and 450 at most the deduction of the status; no credit for who is claimed.
    let outcome = paid(15_706, "0").outcome();
    assert_lines(&outcome, 1, &[("540.18", 5_706), ("540.19", 10_000), ("540.31", 100), ("540.32", 0)]);
    assert!(outcome.covered, "{:?}", outcome.points);
    // No form for a year in which somebody lived elsewhere.
    let moved = |amount| paid(amount, "1").answer("ca_all_year", json!(false)).outcome();
    assert!(has_point(&moved(5_707), "ca-dependent") && !has_point(&moved(5_706), "ca-dependent"));
}
