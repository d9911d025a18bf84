//! The nonfarm optional method of Schedule SE (§1402(a)), worked by hand.

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::us::{Family, assert_lines, has_point};
use serde_json::{Value, json};

fn business(family: Family, gross: i64, spent: i64) -> Family {
    let boxes =
        json!({ "1": gross.to_string(), "22": spent.to_string(), "participates": true, "optional": true });
    family.paper("Schedule C", &["ada"], boxes, Value::Null)
}

fn parent() -> Family {
    Family::single(2025).child("kim", "2015-05-05")
}

fn options(outcome: &Outcome) -> Option<Vec<String>> {
    let decision = outcome.decisions.iter().find(|d| d.id == "us.optional_method.ada")?;
    Some(decision.options.iter().filter(|o| o.barred.is_none()).map(|o| o.id.clone()).collect())
}

/// A profit of 2,000 of 12,000. By the profit 1,847 are taxed with 283, and the credit is 34 % of 1,875. By the optional method 7,240
/// (two thirds would be 8,000) are taxed with 898 + 210; earnings of 7,240 − 554 bring 34 % of 6,675, and 15 % of 4,186 for the child.
#[test]
fn earnings_of_a_small_profit() {
    let family = business(parent(), 12_000, 10_000);
    let outcome = family.clone().outcome();
    assert_eq!(outcome.total, Money::whole(-1_790));
    assert_lines(
        &outcome,
        &[
            ("us.sched_1.3", 2_000),
            ("us.sched_2.4", 1_108),
            ("us.sched_1.15", 554),
            ("us.agi", 1_446),
            ("us.27a", 2_270),
            ("us.28", 628),
        ],
    );
    let regular = family.pin("us.optional_method.ada", "regular").outcome();
    assert_lines(&regular, &[("us.sched_2.4", 283), ("us.sched_1.15", 142), ("us.27a", 638), ("us.28", 0)]);
    assert_eq!(regular.total, Money::whole(-355));
    // Without a child it only costs.
    let alone = business(Family::single(2025), 12_000, 10_000).outcome();
    assert_lines(&alone, &[("us.sched_2.4", 283)]);
}

/// Open where 92.35 % of the profit are less than two thirds of the gross income, and than 7,240 (6,920 for 2024).
#[test]
fn the_profit_must_be_small() {
    for (year, gross, profit, open) in [
        (2025, 6_000, 4_331, true),
        (2025, 6_000, 4_332, false),
        (2025, 30_000, 7_839, true),
        (2025, 30_000, 7_840, false),
        (2024, 30_000, 7_493, true),
        (2024, 30_000, 7_494, false),
        (2025, 600, 0, true),
        (2025, 598, 0, false),
    ] {
        let outcome = business(Family::single(year), gross, gross - profit).outcome();
        assert_eq!(options(&outcome).is_some(), open, "{year} {gross} {profit}");
    }
}

#[test]
fn what_is_not_weighed_is_told() {
    let boxes = json!({ "1": "12000", "22": "10000", "participates": true });
    let unasked = parent().paper("Schedule C", &["ada"], boxes, Value::Null).outcome();
    assert!(has_point(&unasked, "C-75") && options(&unasked).is_none());
    let plan = json!({ "kind": "sep", "share": "100" });
    let beside = business(parent(), 12_000, 10_000).paper("Own plan", &["ada"], plan, Value::Null).outcome();
    assert!(has_point(&beside, "C-75-plan"));
    assert_eq!(options(&beside).unwrap(), ["regular"]);
}
