//! Savings bonds cashed for education, worked by hand from Form 8815.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn bonds(family: Family, who: &[&str], student: &str, more: Value) -> Family {
    let mut boxes =
        json!({ "student": student, "eligible": true, "5": "12500", "6": "5000", "2": "10000", "3": "2500" });
    boxes.as_object_mut().expect("boxes").extend(more.as_object().expect("more").clone());
    family.paper("1099-INT", &who[..1], json!({ "3": "5000" }), Value::Null).paper(
        "8815",
        who,
        boxes,
        Value::Null,
    )
}

/// 7,500 of 12,500 paid for education, .600 of 5,000. Single in 2025: from 99,500 to 114,500, the part to three places.
#[test]
fn it_shrinks_with_income() {
    for (year, from) in [(2024, 96_800), (2025, 99_500), (2026, 101_800)] {
        for (above, left) in [
            (-1, 3_000),
            (0, 3_000),
            // 7 ÷ 15,000 is .0005, half up to .000; 8 are .0005(3).
            (7, 3_000),
            (8, 2_997),
            (7_500, 1_500),
            (14_992, 3),
            (14_993, 0),
            (15_000, 0),
            (15_001, 0),
        ] {
            let family = Family::single(year).wages("ada", from + above - 5_000);
            let outcome = bonds(family, &["ada"], "ada", json!({})).outcome();
            let at = format!("{year} {above}");
            assert_eq!(line(&outcome, "us.8815.14"), left, "{at}");
            assert_eq!(line(&outcome, "us.2b"), 5_000 - left, "{at}");
            assert_eq!(line(&outcome, "us.agi"), from + above - left, "{at}");
        }
    }
    // A couple in 2025: from 149,250 over 30,000; none on separate returns.
    let couple =
        |wages: i64| bonds(Family::couple(2025).wages("ada", wages), &["ada", "bo"], "bo", json!({}));
    for (income, left) in [(149_250, 3_000), (164_250, 1_500), (179_250, 0)] {
        assert_lines(&couple(income - 5_000).pin("us.status", "joint").outcome(), &[("us.8815.14", left)]);
    }
    let apart = couple(60_000).pin("us.status", "separate").outcome();
    assert_lines(&apart, &[("us.8815.14", 0), ("us.2b", 5_000)]);
    assert!(has_point(&apart, "8815-barred"));
}

/// Expenses at the proceeds and above are all of them; one dollar less is a part to three places.
#[test]
fn the_part_of_the_proceeds() {
    for (expenses, left) in [("12500", 5_000), ("15000", 5_000), ("12499", 5_000), ("12493", 4_995), ("0", 0)]
    {
        let boxes = json!({ "2": expenses, "3": "0" });
        let outcome = bonds(Family::single(2025).wages("ada", 40_000), &["ada"], "ada", boxes).outcome();
        assert_lines(&outcome, &[("us.8815.8", left), ("us.8815.14", left)]);
    }
}

/// Benefits are taxed as if all interest were: 20,000 and half of 20,000 are 5,000 above 25,000, half of them taxed; the income that the
/// range asks for is 22,500.
#[test]
fn benefits_count_it() {
    let retired = Family::of(2025).filer("ada", "1955-03-03");
    let retired = retired.paper("SSA-1099", &["ada"], json!({ "5": "20000" }), Value::Null);
    let retired = retired.paper("1099-INT", &["ada"], json!({ "3": "15000" }), Value::Null);
    let boxes = json!({ "5": "20000", "6": "20000", "2": "30000", "3": "0" });
    let outcome = bonds(retired, &["ada"], "ada", boxes).outcome();
    assert_lines(&outcome, &[("us.6b", 2_500), ("us.8815.14", 20_000), ("us.2b", 0), ("us.agi", 2_500)]);
    assert!(outcome.covered, "{:?}", outcome.points);
}

#[test]
fn what_is_asked() {
    let asked = |who: &str, boxes: Value| {
        bonds(Family::single(2025).wages("ada", 40_000), &["ada"], who, boxes).outcome()
    };
    assert!(has_point(&asked("ada", json!({ "6": "12501" })), "8815-interest"));
    assert!(has_point(&asked("ada", json!({ "6": "5001" })), "8815-1099"));
    assert!(!has_point(&asked("ada", json!({})), "8815-1099"));
    let family =
        Family::single(2025).wages("ada", 40_000).paper("8815", &["ada"], json!({ "6": "1" }), Value::Null);
    let outcome = family.outcome();
    assert!(has_point(&outcome, "8815-eligible") && has_point(&outcome, "8815-student") && !outcome.covered);
    let other = asked("ada", json!({ "eligible": false }));
    assert_lines(&other, &[("us.2b", 5_000)]);
    // A student who is no dependent.
    let grown = bonds(
        Family::single(2025).wages("ada", 40_000).child("kim", "1990-05-05"),
        &["ada"],
        "kim",
        json!({}),
    );
    let grown = grown.outcome();
    assert_lines(&grown, &[("us.8815.14", 0)]);
    assert!(has_point(&grown, "8815-barred"));
}
