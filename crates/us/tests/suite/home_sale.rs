//! The sale of a main home (§121), worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn lived(person: &str, owned: i64, used: i64) -> Value {
    json!({ "person": person, "owned_of_60": owned, "used_of_60": used })
}

fn home(family: Family, owners: &[&str], price: i64, rows: Value) -> Family {
    home_with(family, owners, price, rows, json!({}))
}

/// Bought for 200,000 ten years ago, 20,000 of expenses.
fn home_with(family: Family, owners: &[&str], price: i64, rows: Value, more: Value) -> Family {
    let mut boxes =
        json!({ "price": price.to_string(), "expenses": "20000", "basis": "200000", "owned": 120 });
    for (key, value) in more.as_object().unwrap() {
        boxes[key] = value.clone();
    }
    family.paper("1099-S", owners, boxes, rows)
}

fn single() -> Family {
    Family::single(2025).wages("ada", 50_000)
}

fn couple() -> Family {
    Family::couple(2025).wages("ada", 50_000)
}

#[test]
fn so_much_is_left_out_for_each() {
    for (price, taxed) in [(470_000, 0), (470_001, 1), (500_000, 30_000)] {
        let outcome = home(single(), &["ada"], price, json!([lived("ada", 60, 60)])).outcome();
        assert_lines(&outcome, &[("us.home_sale", taxed), ("us.7", taxed)]);
        assert!(outcome.covered);
    }
    // A loss does not count.
    let loss = home(single(), &["ada"], 150_000, json!([lived("ada", 60, 60)])).outcome();
    assert_lines(&loss, &[("us.7", 0)]);
    // Both spouses used it, one owned it: each line says the months that either owned (§121(b)(2)(A)(i)).
    let both = json!([lived("ada", 60, 60), lived("bo", 60, 24)]);
    assert_lines(&home(couple(), &["ada"], 720_000, both.clone()).outcome(), &[("us.home_sale", 0)]);
    assert_lines(&home(couple(), &["ada"], 720_001, both.clone()).outcome(), &[("us.home_sale", 1)]);
    // Only one used it long enough.
    let one = json!([lived("ada", 60, 60), lived("bo", 60, 23)]);
    assert_lines(&home(couple(), &["ada"], 720_000, one).outcome(), &[("us.home_sale", 250_000)]);
    // On separate returns each has the own share and the own amount.
    let apart = home(couple(), &["ada", "bo"], 820_000, both).pin("us.status", "separate").outcome();
    assert_lines(&apart, &[("us.home_sale", 50_000)]);
}

/// 24 months owned, used, and since another exclusion; a part of it for a reason.
#[test]
fn two_years_or_a_part_for_a_reason() {
    let row = |owned: i64, used: i64, more: Value| {
        let mut row = lived("ada", owned, used);
        for (key, value) in more.as_object().unwrap() {
            row[key] = value.clone();
        }
        json!([row])
    };
    for (rows, most) in [
        (row(24, 24, json!({})), 250_000),
        (row(23, 24, json!({})), 0),
        (row(24, 23, json!({})), 0),
        (row(60, 60, json!({ "since": 23 })), 0),
        (row(60, 60, json!({ "since": 24 })), 250_000),
        (row(18, 12, json!({ "reason": "work" })), 125_000),
        (row(18, 12, json!({ "reason": "health", "since": 6 })), 62_500),
    ] {
        let outcome = home(single(), &["ada"], 1_000_000, rows.clone()).outcome();
        assert_eq!(780_000 - line(&outcome, "us.home_sale"), most, "{rows}");
    }
    assert!(has_point(
        &home(single(), &["ada"], 900_000, row(18, 12, json!({}))).outcome(),
        "home-sale-reason"
    ));
    assert!(has_point(&home(single(), &["ada"], 900_000, json!([])).outcome(), "home-sale-nobody"));
    let sold = home(single(), &["ada"], 400_000, row(60, 60, json!({}))).outcome();
    assert!(has_point(&sold, "home-sale-unused"));
}

/// Depreciation is not left out and taxed at 25 %; of the rest not the part of nonqualified use.
#[test]
fn depreciation_and_other_use() {
    let rows = json!([lived("ada", 60, 60)]);
    let rented =
        home_with(single(), &["ada"], 320_000, rows.clone(), json!({ "depreciation": "15000" })).outcome();
    // 320,000 − 20,000 − 185,000 = 115,000, of it 100,000 left out.
    assert_lines(&rented, &[("us.home_sale", 15_000), ("us.sched_d.19", 15_000), ("us.sched_d.15", 15_000)]);
    let other = home_with(single(), &["ada"], 320_000, rows.clone(), json!({ "nonqualified": 30 })).outcome();
    // A quarter of 100,000.
    assert_lines(&other, &[("us.home_sale", 25_000)]);
    let short = home_with(single(), &["ada"], 320_000, json!([lived("ada", 12, 12)]), json!({ "owned": 12 }))
        .outcome();
    assert_lines(&short, &[("us.sched_d.7", 100_000), ("us.sched_d.15", 0)]);
}

/// What is left out is no net investment income, and no income at all.
#[test]
fn what_is_left_out_is_no_income() {
    let outcome =
        home(Family::single(2025).wages("ada", 250_000), &["ada"], 480_000, json!([lived("ada", 60, 60)]))
            .outcome();
    assert_lines(&outcome, &[("us.agi", 260_000), ("us.8960.12", 10_000), ("us.8960.17", 380)]);
}
