//! Tax of a fund and of fuels that comes back, and the credit of 2008 that is paid back, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn fund(boxes: Value) -> Family {
    Family::single(2025).wages("ada", 60_000).paper("2439", &["ada"], boxes, json!(null))
}

/// A gain that a fund kept is a long-term gain; its tax comes back.
#[test]
fn a_fund_keeps_a_gain_and_pays_its_tax() {
    let outcome = fund(json!({ "1a": "10000", "2": "2100" })).outcome();
    // Ordinary 44,250: 5,075; 4,100 of the gain at 0 %, 5,900 at 15 %: 885.
    assert_lines(
        &outcome,
        &[
            ("us.sched_d.11.fund", 10_000),
            ("us.7", 10_000),
            ("us.16", 5_960),
            ("us.sched_3.13a", 2_100),
            ("us.net_tax", 3_860),
            ("us.32", 2_100),
        ],
    );
    assert!(outcome.covered && has_point(&outcome, "2439-basis"));
    let layers = fund(json!({ "1a": "10000", "1b": "2000", "1d": "3000", "2": "2100" })).outcome();
    assert_lines(&layers, &[("us.sched_d.18", 3_000), ("us.sched_d.19", 2_000)]);
    for (part, more) in [("1b", "1c"), ("1d", "2")] {
        assert!(!has_point(&fund(json!({ "1a": "100", part: "100" })).outcome(), "2439-part"));
        assert!(has_point(&fund(json!({ "1a": "100", more: "101" })).outcome(), "2439-part"));
    }
    assert!(has_point(&fund(json!({ "1a": "100", "1c": "1" })).outcome(), "2439-1c"));
}

/// Tax on fuels comes back, below zero tax too.
#[test]
fn tax_on_fuels_comes_back() {
    let family = Family::single(2025).wages("ada", 15_750);
    let outcome = family.paper("4136", &["ada"], json!({ "17": "400" }), json!(null)).outcome();
    let eic = line(&outcome, "us.27a");
    assert_lines(&outcome, &[("us.24", 0), ("us.sched_3.12", 400), ("us.net_tax", -400 - eic)]);
    assert!(has_point(&outcome, "4136-income"));
}

/// A fifteenth of the credit for a home of 2008 is paid back with the return for 2024, the last time.
#[test]
fn the_credit_of_2008_is_paid_back() {
    let of = |family: Family, who: &[&str], credit: &str| {
        family.paper("5405", who, json!({ "4": credit }), json!(null)).outcome()
    };
    let single = || Family::single(2024).wages("ada", 60_000);
    for (credit, part) in [("7500", 500), ("7507.49", 500), ("7492", 499)] {
        let outcome = of(single(), &["ada"], credit);
        assert_lines(&outcome, &[("us.sched_2.10", part), ("us.23", part)]);
    }
    assert!(!has_point(&of(single(), &["ada"], "7500"), "5405-most"));
    assert!(has_point(&of(single(), &["ada"], "7501"), "5405-most"));
    let couple = Family::couple(2024).wages("ada", 60_000).wages("bo", 30_000);
    let separate = couple.clone().paper("5405", &["ada", "bo"], json!({ "4": "7500" }), json!(null));
    let outcome = separate.pin("us.status", "separate").outcome();
    assert_eq!(line(&outcome, "us.sched_2.10"), 250);
}
