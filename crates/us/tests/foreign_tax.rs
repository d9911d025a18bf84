//! The foreign tax credit, worked by hand: without the form, by Form 1116, or deducted.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn fund(family: Family, who: &[&str], boxes: &Value) -> Family {
    let mut all = json!({ "1a": "3000", "8": "Portugal" });
    for (key, value) in boxes.as_object().unwrap() {
        all[key] = value.clone();
    }
    family.paper("1099-DIV", who, all, json!(null))
}

fn single(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

/// Up to 300, on a joint return 600, the credit needs no form: the tax paid, up to the tax.
#[test]
fn a_small_tax_needs_no_form() {
    for (tax, form) in [("300", false), ("300.49", false), ("301", true)] {
        let outcome = fund(single(60_000), &["ada"], &json!({ "7": tax, "7.income": "3000" })).outcome();
        let decision = outcome.decisions.iter().find(|d| d.id == "us.foreign_tax");
        assert_eq!(decision.is_some(), form, "{tax}");
        assert!(outcome.covered, "{:#?}", outcome.points);
    }
    let couple = Family::couple(2025).wages("ada", 60_000);
    let outcome = fund(couple, &["ada"], &json!({ "7": "600" })).outcome();
    assert_lines(&outcome, &[("us.sched_3.1", 600)]);
    // Tax on 16,000 + 3,000 − 15,750 is 328 (middle of 3,250 to 3,300).
    let outcome = fund(single(16_000), &["ada"], &json!({ "7": "300" })).outcome();
    assert_lines(&outcome, &[("us.16", 328), ("us.sched_3.1", 300), ("us.22", 28)]);
    let outcome = fund(single(14_000), &["ada"], &json!({ "7": "300" })).outcome();
    assert_lines(&outcome, &[("us.16", 126), ("us.sched_3.1", 126), ("us.22", 0)]);
}

/// Form 1116: foreign-source income 3,000 of 63,000, with its share of the standard deduction.
#[test]
fn the_form_limits_the_credit() {
    let outcome = fund(single(60_000), &["ada"], &json!({ "7": "900", "7.income": "3000" })).outcome();
    // 3,000 ÷ 63,000 = .0476; × 15,750 = 750 (749.70). 2,250 ÷ 47,250 = .0476. Tax on 47,250: 5,435 (middle of the band
    // 47,275: 1,192.50 + 12 % × 35,350); × .0476 = 259 (258.71).
    assert_lines(
        &outcome,
        &[
            ("us.1116.6", 750),
            ("us.1116.17", 2_250),
            ("us.16", 5_435),
            ("us.1116.21", 259),
            ("us.sched_3.1", 259),
            ("us.carryover.foreign_tax", 641),
        ],
    );
    assert!(has_point(&outcome, "1116-carryback"));
    let carried = fund(single(60_000), &["ada"], &json!({ "7": "100", "7.income": "3000" })).paper(
        "Foreign tax carried",
        &["ada"],
        json!({}),
        json!([{ "year": 2020, "amount": "500" }, { "year": 2014, "amount": "9000" }]),
    );
    // With the form 100 and of the 500 carried here 159; without it 100. What is older than ten years is gone.
    let outcome = carried.outcome();
    assert_lines(&outcome, &[("us.sched_3.1", 259), ("us.carryover.foreign_tax", 341)]);
    assert_lines(&carried.pin("us.foreign_tax", "simple").outcome(), &[("us.sched_3.1", 100)]);
}

/// Deducted where that is lower: the limit of the form is small, and the return itemizes.
#[test]
fn it_may_be_deducted_instead() {
    let family = fund(single(100_000), &["ada"], &json!({ "1a": "20", "7": "2000", "7.income": "20" }))
        .state_tax(&["ada"], 9_000)
        .cash_gift(&["ada"], 12_000);
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.sched_a.6", 2_000), ("us.sched_a.17", 23_000), ("us.sched_3.1", 0)]);
    let form = family.clone().pin("us.foreign_tax", "form").outcome();
    assert_eq!(line(&form, "us.sched_a.6"), 0);
    // 22 % of 2,000, less the credit.
    assert_eq!(form.total - outcome.total, hembo_money::Money::whole(440 - line(&form, "us.sched_3.1")));
    let standard = family.pin("us.deduction", "standard").outcome();
    let decision = standard.decisions.iter().find(|d| d.id == "us.foreign_tax").unwrap();
    assert_eq!(decision.options[2].barred.as_deref(), Some("standard deduction taken"));
}

#[test]
fn what_the_form_asks_is_asked_and_what_it_adjusts_blocks() {
    let with = |boxes| fund(single(60_000), &["ada"], &boxes).outcome();
    assert!(has_point(&with(json!({ "7": "900" })), "K-060"));
    assert!(!has_point(&with(json!({ "7": "200" })), "K-060"));
    for (qualified, covered) in [("19999", true), ("20000", false)] {
        let outcome = with(json!({
            "1a": "30000", "1b": qualified, "7": "900", "7.income": "30000", "7.qualified": qualified,
        }));
        assert_eq!(outcome.covered, covered, "{qualified}");
    }
    // Above the 24 % bracket even a dollar is adjusted: 197,300 of ordinary income.
    for (wages, covered) in [(210_050, true), (210_051, false)] {
        let boxes =
            json!({ "1a": "3000", "1b": "1000", "7": "900", "7.income": "3000", "7.qualified": "1000" });
        assert_eq!(fund(single(wages + 1_000), &["ada"], &boxes).outcome().covered, covered, "{wages}");
    }
    // A dependent's own return.
    let child = Family::single(2025).wages("ada", 60_000).child("kim", "2012-05-05");
    let outcome = fund(child.wages("kim", 9_000), &["kim"], &json!({ "1a": "900", "7": "301" })).outcome();
    assert!(has_point(&outcome, "1116-dependent"));
}
