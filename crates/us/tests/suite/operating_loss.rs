//! Net operating losses of earlier years, worked by hand from §172.

use hembo_testing::us::{Family, assert_lines, has_point};
use serde_json::{Value, json};

fn carried(family: Family, boxes: Value) -> Family {
    family.paper("172", &["ada"], boxes, Value::Null)
}

fn single(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

/// Wages of 100,000 leave 84,250 without a loss: later losses count up to 80 % of it, 67,400; earlier ones in full, and first.
#[test]
fn earlier_losses_in_full_and_later_ones_in_part() {
    for (before, since, deducted, left_before, left) in [
        (0, 1, 1, 0, 0),
        (0, 67_399, 67_399, 0, 0),
        (0, 67_400, 67_400, 0, 0),
        (0, 67_401, 67_400, 0, 1),
        (0, 100_000, 67_400, 0, 32_600),
        // 64,250 are left of 84,250: 51,400.
        (20_000, 100_000, 71_400, 0, 48_600),
        (84_250, 5_000, 84_250, 0, 5_000),
        (84_251, 5_000, 84_251, 1, 5_000),
        (100_000, 0, 100_000, 15_750, 0),
    ] {
        let boxes = json!({ "before": before.to_string(), "since": since.to_string() });
        let outcome = carried(single(100_000), boxes).outcome();
        assert_lines(
            &outcome,
            &[
                ("us.sched_1.8a", -deducted),
                ("us.agi", 100_000 - deducted),
                ("us.carryover.operating_loss_before", left_before),
                ("us.carryover.operating_loss", left),
            ],
        );
        assert!(outcome.covered, "{:?}", outcome.points);
        assert!(has_point(&outcome, "172-statement"));
    }
}

/// The part goes by taxable income without the loss: medical bills above 7.5 % of 100,000, 12,500, and gifts of 15,000; with it the floor is
/// 7.5 % of 42,000.
#[test]
fn the_part_goes_by_what_would_be_without_it() {
    let family = single(100_000).medical(&["ada"], "ada", 20_000).cash_gift(&["ada"], 15_000);
    let outcome = carried(family, json!({ "since": "100000" })).pin("us.deduction", "itemized").outcome();
    assert_lines(
        &outcome,
        &[("us.sched_1.8a", -58_000), ("us.sched_a.4", 16_850), ("us.15", 42_000 - 31_850)],
    );
    // A business: the deduction of qualified income is not in the part, and goes by what the loss leaves.
    let business = json!({ "1": "60000", "participates": true, "service": false });
    let family = Family::single(2025).paper("Schedule C", &["ada"], business, Value::Null);
    let outcome = carried(family, json!({ "since": "100000" })).outcome();
    // 60,000 − 4,239 − 15,750 = 40,011; 80 %: 32,009 (32,008.80); 8,002 are left, a fifth of them 1,600.
    assert_lines(&outcome, &[("us.sched_1.8a", -32_009), ("us.13a", 1_600), ("us.15", 6_402)]);
}

/// The minimum tax has losses of its own, up to 90 % of its income: 84,250 and 15,750 added back are 100,000.
#[test]
fn losses_of_the_minimum_tax() {
    for (boxes, taken, income) in [
        (json!({ "since": "70000" }), 70_000, 30_000),
        (json!({ "since": "100000" }), 90_000, 10_000),
        (json!({ "since": "100000", "amt": "40000" }), 40_000, 60_000),
    ] {
        assert_lines(
            &carried(single(100_000), boxes).outcome(),
            &[("us.6251.2f", taken), ("us.6251.4", income)],
        );
    }
}

/// A capital loss uses up none of a loss of before 2018 (§172(d)(2)(A)): 81,250 and 3,000.
#[test]
fn beside_a_capital_loss() {
    let family = single(100_000).sale(&["ada"], "long", -9_000);
    let outcome = carried(family, json!({ "before": "100000" })).outcome();
    assert_lines(&outcome, &[("us.sched_1.8a", -100_000), ("us.carryover.operating_loss_before", 15_750)]);
}

/// What it would lower besides is told.
#[test]
fn what_is_not_computed() {
    let family = single(300_000).interest(&["ada"], 50_000);
    let outcome = carried(family, json!({ "since": "1000" })).outcome();
    assert!(has_point(&outcome, "172-investment") && !outcome.covered);
}

/// A dependent's own return has it as well: 9,000 of interest less the standard deduction of 1,350.
#[test]
fn on_a_dependents_own_return() {
    let family = single(60_000).set("ada", "/answers/paid_home", json!(true)).child("kim", "2010-05-05");
    let family =
        family.interest(&["kim"], 9_000).paper("172", &["kim"], json!({ "since": "90000" }), Value::Null);
    let outcome = family.pin("us.deduction", "standard").outcome();
    let own = |id: &str| hembo_testing::us::line_of(&outcome, id, "return/1");
    // 80 % of 7,650.
    assert_eq!((own("us.sched_1.8a"), own("us.agi")), (-6_120, 2_880));
}
