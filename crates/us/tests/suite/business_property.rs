//! Rented property that was sold: Form 4797, its layer of 25 %, and the losses that the sale sets free, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

/// A house: 12,000 of rent, 5,000 spent; bought for 200,000, of which 40,000 are written off, and sold with costs of 18,000.
fn sold(family: Family, who: &[&str], price: i64, more: Value) -> Family {
    let mut boxes = json!({
        "kind": "single", "days": 200, "3": "12000", "19": "5000", "18": "0", "business": false, "active": true,
        "sold": "2025-08-20", "bought": "2015-03-03", "price": price.to_string(), "sale_costs": "18000",
        "basis": "200000", "written_off": "40000", "plain_sale": true,
    });
    let boxes_of = boxes.as_object_mut().unwrap();
    boxes_of.extend(more.as_object().unwrap().clone());
    boxes_of.retain(|_, value| !value.is_null());
    family.paper("Schedule E", who, boxes, Value::Null)
}

fn single(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

/// 300,000 − 18,000 − 160,000 = 122,000, of which 40,000 are depreciation. Taxable income of 173,250: 91,250 at the ordinary rates (the
/// layer lies below the end of the 24 % rate), 14,995 by the table, and 15 % of 82,000.
#[test]
fn a_gain() {
    let outcome = sold(single(60_000), &["ada"], 300_000, json!({})).outcome();
    assert!(outcome.covered, "{:#?}", outcome.points);
    assert_lines(
        &outcome,
        &[
            ("us.4797.7", 122_000),
            ("us.sched_d.11", 122_000),
            ("us.sched_d.19", 40_000),
            ("us.7", 122_000),
            ("us.sched_e.26", 7_000),
            ("us.agi", 189_000),
            ("us.16", 14_995 + 12_300),
        ],
    );
    // A gain below the depreciation is a layer of 25 % as a whole.
    let small = sold(single(60_000), &["ada"], 178_001, json!({})).outcome();
    assert_lines(&small, &[("us.sched_d.11", 1), ("us.sched_d.19", 1)]);
}

/// Losses of earlier years go with a gain, and with a loss all of it counts without any limit.
#[test]
fn losses_that_were_held_back() {
    let carried = json!({ "carried": "30000" });
    let gain = sold(single(60_000), &["ada"], 300_000, carried.clone()).outcome();
    assert_lines(&gain, &[("us.sched_e.26", -23_000), ("us.agi", 159_000)]);
    // 150,000 − 18,000 − 160,000.
    let loss = sold(single(200_000), &["ada"], 150_000, carried).outcome();
    assert_lines(
        &loss,
        &[
            ("us.4797.7", -28_000),
            ("us.sched_d.11", 0),
            ("us.sched_1.4", -28_000),
            ("us.sched_e.26", -23_000),
            ("us.agi", 149_000),
            ("us.carryover.section_1231", 28_000),
        ],
    );
    assert!(loss.covered);
}

/// Another house loses 20,000. A gain makes room for all of it. Without one the allowance goes by income, from which the loss of what was
/// sold is taken, and a gain is not: 140,000 − 51,000 leave the whole allowance.
#[test]
fn beside_another_house() {
    let other = |family: Family| {
        let boxes = json!({
            "kind": "single", "days": 365, "3": "1000", "19": "21000", "18": "0", "business": false, "active": true,
        });
        family.paper("Schedule E", &["ada"], boxes, Value::Null)
    };
    let gain = other(sold(single(160_000), &["ada"], 300_000, json!({}))).outcome();
    assert_lines(&gain, &[("us.sched_e.26", -13_000), ("us.agi", 160_000 + 122_000 - 13_000)]);
    let loss = other(sold(single(140_000), &["ada"], 150_000, json!({ "carried": "30000" }))).outcome();
    assert_lines(&loss, &[("us.8582.9", 20_000), ("us.sched_e.26", -43_000), ("us.agi", 140_000 - 71_000)]);
    // A gain of 2,000 with 7,000 of rent leaves 11,000 of the loss; the income for the allowance is 144,000: 3,000.
    let little = other(sold(single(144_000), &["ada"], 180_000, json!({}))).outcome();
    assert_lines(&little, &[("us.8582.3", -11_000), ("us.8582.6", 144_000), ("us.8582.9", 3_000)]);
    assert_lines(&little, &[("us.sched_e.26", 7_000 - 12_000), ("us.carryover.passive_loss", 8_000)]);
    // So it is beside a capital loss, of which 3,000 count with or without the gain.
    let beside = sold(single(147_000), &["ada"], 180_000, json!({})).sale(&["ada"], "long", -8_000);
    let beside = other(beside);
    assert_lines(&beside.outcome(), &[("us.7", -3_000), ("us.8582.6", 144_000), ("us.8582.9", 3_000)]);
}

/// A net gain is ordinary up to the losses of five years before, and no layer of 25 % is left of what they take.
#[test]
fn losses_of_five_years_before() {
    for (before, gain, ordinary, layer, left) in [
        (1, 121_999, 1, 39_999, 0),
        (50_000, 72_000, 50_000, 0, 0),
        (122_000, 0, 122_000, 0, 0),
        (150_000, 0, 122_000, 0, 28_000),
    ] {
        let family = sold(single(60_000), &["ada"], 300_000, json!({}));
        let outcome =
            family.paper("4797", &["ada"], json!({ "8": before.to_string() }), Value::Null).outcome();
        assert_lines(
            &outcome,
            &[
                ("us.sched_d.11", gain),
                ("us.sched_1.4", ordinary),
                ("us.carryover.section_1231", left),
                ("us.agi", 189_000),
            ],
        );
        let of = outcome.lines.iter().find(|l| l.id == "us.sched_d.19").map_or(0, |l| l.amount.cents() / 100);
        assert_eq!(of, layer, "{before}");
    }
}

/// More than a year from the day after it was bought.
#[test]
fn how_long_it_was_held() {
    for (bought, ordinary) in [("2024-08-20", 122_000), ("2024-08-19", 0), ("2024-08-21", 122_000)] {
        let outcome = sold(single(60_000), &["ada"], 300_000, json!({ "bought": bought })).outcome();
        assert_lines(&outcome, &[("us.sched_1.4", ordinary), ("us.agi", 189_000)]);
    }
    let leap = json!({ "bought": "2024-02-29", "sold": "2025-02-28" });
    assert_lines(&sold(single(60_000), &["ada"], 300_000, leap).outcome(), &[("us.sched_1.4", 122_000)]);
    let after = json!({ "bought": "2024-02-29", "sold": "2025-03-01" });
    assert_lines(&sold(single(60_000), &["ada"], 300_000, after).outcome(), &[("us.sched_1.4", 0)]);
}

/// 279,000 are 79,000 above the threshold; a professional's gain is no investment, nor is it for the earned income credit.
#[test]
fn other_taxes_and_credits() {
    let tax = |more: Value| {
        let outcome = sold(single(150_000), &["ada"], 300_000, more).outcome();
        outcome.lines.iter().find(|l| l.id == "us.8960.17").map_or(0, |l| l.amount.cents() / 100)
    };
    assert_eq!(tax(json!({})), 3_002);
    assert_eq!(tax(json!({ "professional": true, "participates": true })), 0);
    // An ordinary gain counts as well.
    assert_eq!(tax(json!({ "bought": "2025-01-01" })), 3_002);
    // A gain of 20,000.
    let family = single(9_000).set("ada", "/answers/paid_home", json!(true)).child("kim", "2016-05-05");
    assert!(line(&sold(family, &["ada"], 198_000, json!({})).outcome(), "us.27a") > 0);
}

/// The building is written off to the middle of the month in which it was sold: 5½ of 12 months of 10,000.
#[test]
fn depreciation_of_the_year() {
    let more = json!({ "18": Value::Null, "cost": "275000", "since": "2020-01-15", "sold": "2025-06-10" });
    let outcome = sold(single(60_000), &["ada"], 300_000, more).outcome();
    assert_lines(&outcome, &[("us.sched_e.23e", 5_000 + 4_583)]);
    // Let and sold in one year: from the middle of February to the middle of June.
    let more = json!({ "18": Value::Null, "cost": "275000", "since": "2025-02-15", "sold": "2025-06-10" });
    let outcome = sold(single(60_000), &["ada"], 300_000, more).outcome();
    assert_lines(&outcome, &[("us.sched_e.23e", 5_000 + 3_333)]);
}

/// A loss of a trade or business lowers its qualified income, a capital gain does not raise it; both spouses have their parts.
#[test]
fn whose_it_is_and_what_qualifies() {
    let business = json!({ "business": true });
    let loss = sold(single(60_000), &["ada"], 150_000, business.clone()).outcome();
    assert_lines(&loss, &[("us.8995.2", -21_000)]);
    let gain = sold(single(60_000), &["ada"], 300_000, business).outcome();
    assert_lines(&gain, &[("us.8995.2", 7_000)]);
    let both = sold(Family::couple(2025).wages("ada", 60_000), &["ada", "bo"], 300_000, json!({}));
    let both = both.pin("us.status", "joint").outcome();
    assert_lines(&both, &[("us.sched_d.11", 122_000), ("us.sched_d.19", 40_000)]);
    assert_eq!(line_of(&both, "us.7", "person/bo"), 61_000);
    assert_eq!(line_of(&both, "us.agi", "person/bo"), 61_000 + 3_500);
    let couple = sold(Family::couple(2025).wages("ada", 60_000), &["ada", "bo"], 300_000, json!({}));
    let apart = couple.pin("us.status", "separate").outcome();
    assert_eq!(line_of(&apart, "us.sched_d.11", "return/1"), 61_000);
}

#[test]
fn what_is_asked() {
    for (more, point) in [
        (json!({ "plain_sale": Value::Null }), "4797-plain"),
        (json!({ "plain_sale": false }), "4797-other"),
        (json!({ "written_off": Value::Null }), "4797-basis"),
        (json!({ "bought": Value::Null }), "4797-basis"),
        (json!({ "sold": "2024-12-31" }), "4797-dates"),
        (json!({ "bought": "2025-08-21" }), "4797-dates"),
        (json!({ "own_days": 60 }), "rental-sold"),
    ] {
        let outcome = sold(single(60_000), &["ada"], 300_000, more.clone()).outcome();
        assert!(has_point(&outcome, point), "{more}");
        assert!(!outcome.covered || point == "4797-dates" || point == "4797-basis");
    }
    let family = sold(single(60_000), &["ada"], 300_000, json!({ "business": true }));
    let family = family.paper("4797", &["ada"], json!({ "8": "1" }), Value::Null);
    assert!(has_point(&family.outcome(), "rental-sold-business"));
}
