//! Moves of the armed forces and losses of declared disasters, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn moved(code_p: &str, boxes: Value) -> Family {
    let pay = json!({ "b": "36-4410927", "1": "50000", "12a": "P", "12a.amount": code_p });
    Family::single(2025).paper("W-2", &["ada"], pay, Value::Null).paper("3903", &["ada"], boxes, Value::Null)
}

/// 3,000 + 400 + 1,000 miles at 21 cents = 3,610; 100 paid back beside what Form W-2 says.
#[test]
fn a_move_on_orders_counts_above_what_was_paid_back() {
    let boxes = json!({ "orders": true, "1": "3000", "2": "400", "miles": 1_000, "4": "100" });
    for (code_p, deducted, taxed) in
        [("2500", 1_010, 0), ("3509", 1, 0), ("3510", 0, 0), ("3511", 0, 1), ("3700", 0, 190)]
    {
        let outcome = moved(code_p, boxes.clone()).outcome();
        assert_lines(
            &outcome,
            &[
                ("us.sched_1.14", deducted),
                ("us.1h.moving", taxed),
                ("us.1z", 50_000 + taxed),
                ("us.agi", 50_000 + taxed - deducted),
            ],
        );
        assert!(outcome.covered);
    }
}

#[test]
fn only_moves_on_orders_count() {
    let not = moved("0", json!({ "orders": false, "1": "3000" })).outcome();
    assert!(line(&not, "us.sched_1.14") == 0 && has_point(&not, "3903-other"));
    assert!(has_point(&moved("0", json!({ "1": "3000" })).outcome(), "3903-orders"));
    let pay = json!({ "b": "36-4410927", "1": "50000", "12a": "P", "12a.amount": "900" });
    let alone = Family::single(2025).paper("W-2", &["ada"], pay, Value::Null).outcome();
    assert!(has_point(&alone, "3903-missing"));
}

fn disaster(family: Family, kind: &str, fallen: i64, insurance: i64) -> Family {
    let row = json!([{
        "what": "House", "basis": "30000", "before": "50000", "after": (50_000 - fallen).to_string(),
        "insurance": insurance.to_string(),
    }]);
    family.paper("4684", &["ada"], json!({ "kind": kind }), row)
}

fn earning() -> Family {
    Family::single(2025).wages("ada", 60_000)
}

/// The smaller of 30,000 and what the value fell by, less insurance, less 100, less a tenth of 60,000.
#[test]
fn a_declared_disaster_counts_above_the_floor() {
    for (fallen, insurance, counted) in [
        (15_000, 2_000, 6_900),
        (6_100, 0, 0),
        (6_101, 0, 1),
        (100, 0, 0),
        (50_000, 0, 23_900),
        (15_000, 15_000, 0),
    ] {
        let outcome = disaster(earning(), "declared", fallen, insurance).outcome();
        assert_eq!(line(&outcome, "us.sched_a.15"), counted, "{fallen} {insurance}");
        assert!(outcome.covered);
    }
    // Of two disasters each leaves out 100: 10,000 − 100 + 5,000 − 100 − 6,000.
    let two = disaster(disaster(earning(), "declared", 10_000, 0), "declared", 5_000, 0).outcome();
    assert_lines(&two, &[("us.4684.14", 14_800), ("us.sched_a.15", 8_800), ("us.sched_a.17", 8_800)]);
    let other = disaster(earning(), "other", 15_000, 0).outcome();
    assert!(line(&other, "us.sched_a.15") == 0 && has_point(&other, "casualty-other"));
}

/// 13,000 − 500, without a floor, with the standard deduction of 15,750; the minimum tax adds back only the latter.
#[test]
fn a_qualified_disaster_goes_with_the_standard_deduction() {
    for (fallen, counted) in [(15_000, 12_500), (2_500, 0), (2_501, 1)] {
        let outcome = disaster(earning(), "qualified", fallen, 2_000).outcome();
        assert_lines(
            &outcome,
            &[
                ("us.4684.15", counted),
                ("us.12e", 15_750 + counted),
                ("us.15", 44_250 - counted),
                ("us.6251.4", 60_000 - counted),
            ],
        );
    }
    let itemized = disaster(earning(), "qualified", 15_000, 2_000).pin("us.deduction", "itemized").outcome();
    assert_lines(&itemized, &[("us.sched_a.17", 12_500), ("us.12e", 12_500)]);
}

#[test]
fn a_gain_is_told() {
    let gain =
        |insurance| has_point(&disaster(earning(), "declared", 40_000, insurance).outcome(), "casualty-gain");
    assert_eq!((gain(30_000), gain(30_001)), (false, true));
}
