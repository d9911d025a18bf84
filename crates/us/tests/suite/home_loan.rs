//! Home-loan interest (§163(h)(3), Pub. 936; Schedule A line 8): several loans, refinancing, points, lenders without a form, worked by
//! hand.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn loans(all: &[Value]) -> Family {
    let family = Family::single(2025).wages("ada", 300_000).pin("us.deduction", "itemized");
    all.iter().fold(family, |family, boxes| family.paper("1098", &["ada"], boxes.clone(), json!(null)))
}

/// A loan of a steady balance.
fn loan(interest: i64, balance: i64, originated: &str, more: Value) -> Value {
    let mut boxes = json!({
        "1": interest.to_string(), "2": balance.to_string(), "year_end": balance.to_string(), "3": originated,
    });
    for (key, value) in more.as_object().unwrap() {
        boxes[key] = value.clone();
    }
    boxes
}

/// Table 1 of Pub. 936: 750,000 for newer loans, 1,000,000 for older ones.
#[test]
fn several_loans_share_the_limit() {
    for (all, allowed) in [
        (vec![loan(30_000, 750_000, "2021-05-01", json!({}))], 30_000),
        (vec![loan(30_000, 750_100, "2021-05-01", json!({}))], 30_000), // 0.9999 is 1.000
        (vec![loan(30_000, 751_000, "2021-05-01", json!({}))], 29_970), // 0.99867 is 0.999
        (vec![loan(40_000, 1_000_000, "2017-12-15", json!({}))], 40_000),
        (vec![loan(40_000, 1_000_000, "2017-12-16", json!({}))], 30_000),
        (vec![loan(44_000, 1_100_000, "2016-12-15", json!({}))], 39_996), // 0.909
        // 600,000 old and 400,000 new: 750,000 of 1,000,000.
        (
            vec![
                loan(24_000, 600_000, "2016-01-01", json!({})),
                loan(20_000, 400_000, "2022-01-01", json!({})),
            ],
            33_000,
        ),
        // 800,000 old: the new loan finds no room, and 800,000 of 1,000,000 count.
        (
            vec![
                loan(24_000, 800_000, "2016-01-01", json!({})),
                loan(10_000, 200_000, "2022-01-01", json!({})),
            ],
            27_200,
        ),
    ] {
        assert_lines(&loans(&all).outcome(), &[("us.sched_a.8e", allowed)]);
    }
}

/// Up to the balance of the loan that it replaced a refinancing counts as of that one's day.
#[test]
fn a_refinancing_keeps_the_day() {
    let replaced = |balance: &str, day: &str| {
        loan(40_000, 1_000_000, "2021-05-01", json!({ "replaced": day, "replaced.balance": balance }))
    };
    for (balance, day, allowed) in [
        ("1000000", "2015-03-03", 40_000),
        ("1200000", "2015-03-03", 40_000),
        ("900000", "2015-03-03", 36_000), // 900,000 old, 100,000 new: 900,000
        ("600000", "2015-03-03", 30_000), // 600,000 old, 400,000 new: 750,000
        ("1000000", "2018-03-03", 30_000),
        ("1000000", "1986-03-03", 40_000),
    ] {
        let outcome = loans(&[replaced(balance, day)]).outcome();
        assert_lines(&outcome, &[("us.sched_a.8e", allowed)]);
        assert!(outcome.covered);
    }
    let half = loan(40_000, 700_000, "2021-05-01", json!({ "replaced": "2015-03-03" }));
    assert!(has_point(&loans(&[half]).outcome(), "loan-replaced"));
    assert!(!has_point(&loans(&[replaced("900000", "2015-03-03")]).outcome(), "loan-replaced"));
}

/// What was not for the home does not count: 100,000 of 600,000.
#[test]
fn equity_used_otherwise_does_not_count() {
    let used = loan(24_000, 600_000, "2021-05-01", json!({ "other_use": "100000" }));
    assert_lines(&loans(&[used]).outcome(), &[("us.sched_a.8e", 19_992)]); // 0.833
}

/// Points of a refinancing: an equal part for each month, and the rest when the loan is paid off.
#[test]
fn points_are_spread_over_the_loan() {
    for (more, spread) in [
        (json!({ "spread": "3600", "spread.months": 360 }), 120),
        (json!({ "spread": "3600", "spread.months": 360, "spread.year": 5 }), 50),
        (json!({ "spread": "3600", "spread.months": 360, "spread.before": "3500" }), 100),
        (
            json!({ "spread": "3600", "spread.months": 360, "spread.before": "1200", "spread.ended": true }),
            2_400,
        ),
        (json!({ "spread": "1000", "spread.months": 180, "spread.year": 7 }), 39), // 38.89
    ] {
        let outcome = loans(&[loan(20_000, 300_000, "2021-05-01", more)]).outcome();
        assert_lines(&outcome, &[("us.sched_a.8c", spread), ("us.sched_a.8e", 20_000 + spread)]);
    }
    // The limit on loans takes its part of them, too: 0.750.
    let large =
        loan(40_000, 1_000_000, "2021-05-01", json!({ "spread": "3600", "spread.months": 360, "6": "880" }));
    let outcome = loans(&[large]).outcome();
    assert_lines(&outcome, &[("us.sched_a.8a", 40_880), ("us.sched_a.8c", 120), ("us.sched_a.8e", 30_750)]);
    assert!(has_point(&outcome, "C-23"));
    let without = loan(20_000, 300_000, "2021-05-01", json!({ "spread": "3600" }));
    assert!(has_point(&loans(&[without]).outcome(), "points-spread"));
}

/// A private lender's interest stands on line 8b, with who it is.
#[test]
fn a_lender_without_a_form() {
    let named = json!({ "private": true, "private.number": "412-55-0137", "private.address": "4 Quay Street", "6": "500" });
    let outcome =
        loans(&[loan(9_000, 200_000, "2021-05-01", json!({})), loan(6_000, 100_000, "2021-05-01", named)])
            .outcome();
    assert_lines(
        &outcome,
        &[
            ("us.sched_a.8a", 9_000),
            ("us.sched_a.8b", 6_000),
            ("us.sched_a.8c", 500),
            ("us.sched_a.8e", 15_500),
        ],
    );
    let unnamed = loan(6_000, 100_000, "2021-05-01", json!({ "private": true }));
    assert!(has_point(&loans(&[unnamed]).outcome(), "K-107"));
}

/// Interest that comes back is income as far as it was deducted before.
#[test]
fn interest_that_comes_back() {
    let with = |more: Value| loans(&[loan(20_000, 300_000, "2021-05-01", more)]).outcome();
    let asked = with(json!({ "4": "700" }));
    assert!(has_point(&asked, "overpaid-interest"));
    assert!(has_point(&with(json!({ "4": "700", "4.income": "701" })), "overpaid-interest"));
    let said = with(json!({ "4": "700", "4.income": "500" }));
    assert!(!has_point(&said, "overpaid-interest"));
    assert_eq!((line(&said, "us.agi"), line(&said, "us.sched_a.8e")), (300_500, 20_000));
}
