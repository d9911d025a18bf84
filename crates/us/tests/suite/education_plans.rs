//! Distributions of education plans (§§529, 530; Form 1099-Q), worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn plan(boxes: Value) -> Family {
    Family::single(2025).wages("ada", 60_000).paper("1099-Q", &["ada"], boxes, json!(null))
}

/// Earnings × (1 − expenses ÷ distribution), and 10 % of them.
#[test]
fn what_expenses_do_not_cover_is_income() {
    for (expenses, spared, income, tax) in [
        ("10000", "0", 0, 0),
        ("12000", "0", 0, 0),
        ("9999", "0", 0, 0),  // .30
        ("9950", "0", 15, 2), // 1.50
        ("8000", "0", 600, 60),
        ("8000", "250", 600, 35),
        ("8000", "600", 600, 0),
        ("0", "0", 3_000, 300),
    ] {
        let boxes = json!({ "1": "10000", "2": "3000", "3": "7000", "expenses": expenses, "spared": spared });
        let outcome = plan(boxes).outcome();
        assert_lines(&outcome, &[("us.agi", 60_000 + income), ("us.sched_2.8", tax)]);
        assert!(outcome.covered, "{expenses}");
    }
    let moved = plan(json!({ "1": "10000", "2": "3000", "rolled": true })).outcome();
    assert_lines(&moved, &[("us.agi", 60_000)]);
    // It stands on the return of who is named: a student's own, as unearned income.
    let family = Family::couple(2025).wages("ada", 211_500).child("kim", "2008-05-05");
    let family =
        family.paper("1099-Q", &["kim"], json!({ "1": "9000", "2": "4000", "expenses": "0" }), json!(null));
    let outcome = family.outcome();
    assert_eq!(line_of(&outcome, "us.8615.5", "return/1"), 1_300);
    assert_eq!(line_of(&outcome, "us.5329.8", "person/kim"), 400);
    assert_eq!(line(&outcome, "us.agi"), 211_500);
}

#[test]
fn what_the_paper_must_tell() {
    assert!(has_point(&plan(json!({ "1": "900", "2": "300" })).outcome(), "K-086"));
    assert!(has_point(&plan(json!({ "1": "900", "2": "300", "3": "500" })).outcome(), "1099-Q-boxes"));
    assert!(has_point(&plan(json!({ "1": "900", "2": "901" })).outcome(), "1099-Q-boxes"));
    let spared = json!({ "1": "900", "2": "300", "expenses": "450", "spared": "150.01" });
    assert!(has_point(&plan(spared).outcome(), "1099-Q-spared"));
    let tuition = json!({ "1": "4000", "8": true, "years": 1, "f": "36-4410927" });
    let family = plan(json!({ "1": "900", "2": "300", "expenses": "900" })).paper(
        "1098-T",
        &["ada"],
        tuition,
        json!(null),
    );
    assert!(has_point(&family.outcome(), "C-85"));
}
