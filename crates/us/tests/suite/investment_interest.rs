//! Investment interest and its choice (§163(d); Form 4952), worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::json;

fn with(wages: i64, interest: i64) -> Family {
    Family::single(2025)
        .wages("ada", wages)
        .loan(&["ada"], 20_000, 300_000)
        .interest(&["ada"], 1_000)
        .dividends(&["ada"], 8_000, 8_000)
        .paper("4952", &["ada"], json!({ "1": interest.to_string() }), json!(null))
}

/// 1,000 of interest allow 1,000; 5,000 of dividends at ordinary rates allow the rest: 15 % of them saved.
#[test]
fn dividends_give_up_their_rates_for_the_deduction() {
    let outcome = with(150_000, 6_000).outcome();
    assert_lines(
        &outcome,
        &[
            ("us.4952.3", 6_000),
            ("us.4952.4f", 1_000),
            ("us.4952.4g", 5_000),
            ("us.sched_a.9", 6_000),
            ("us.carryover.investment_interest", 0),
            ("us.15", 133_000),
            ("us.16", 24_497), // 24,047 on 130,000, and 15 % of 3,000
        ],
    );
    assert!(outcome.covered);
    let kept = with(150_000, 6_000).pin("us.investment_interest", "kept").outcome();
    assert_lines(
        &kept,
        &[
            ("us.sched_a.9", 1_000),
            ("us.carryover.investment_interest", 5_000),
            ("us.15", 138_000),
            ("us.16", 25_247),
        ],
    );
    // No more than the interest needs, and no more than there is.
    for (interest, elected, deducted, carried) in
        [(1_000, 0, 1_000, 0), (1_001, 1, 1_001, 0), (9_000, 8_000, 9_000, 0), (9_001, 8_000, 9_000, 1)]
    {
        let outcome = with(150_000, interest).pin("us.investment_interest", "elected").outcome();
        assert_lines(
            &outcome,
            &[
                ("us.4952.4g", elected),
                ("us.sched_a.9", deducted),
                ("us.carryover.investment_interest", carried),
            ],
        );
    }
}

/// Where dividends bear nothing, the choice saves nothing, and the default stands; with the standard deduction it is barred.
#[test]
fn where_the_choice_saves_nothing() {
    let low = with(40_000, 6_000).outcome();
    assert_lines(&low, &[("us.4952.4g", 0), ("us.carryover.investment_interest", 5_000)]);
    let standard = with(150_000, 6_000).pin("us.deduction", "standard").outcome();
    assert_lines(&standard, &[("us.4952.4g", 0), ("us.16", 26_507)]); // 24,047 + 24 % × 5,250 + 1,200
}

/// Net gains are taken before dividends; short-term gains count without a choice.
#[test]
fn gains_first() {
    let family = with(150_000, 14_000).sale(&["ada"], "long", 4_000).sale(&["ada"], "short", 2_000);
    let outcome = family.outcome();
    // 14,000 − 1,000 − 2,000: 4,000 of gains and 7,000 of dividends.
    assert_lines(&outcome, &[("us.4952.4f", 3_000), ("us.4952.4g", 11_000), ("us.gains_tax.gain", 1_000)]);
    // A loss of the short term takes from the gain.
    let family = with(150_000, 14_000).sale(&["ada"], "long", 4_000).sale(&["ada"], "short", -3_000);
    assert_lines(
        &family.outcome(),
        &[("us.4952.4f", 1_000), ("us.4952.4g", 9_000), ("us.sched_a.9", 10_000)],
    );
}

/// What is carried here counts; what is deducted is no net investment income (Form 8960, line 9a).
#[test]
fn carried_interest_and_the_investment_tax() {
    let family = with(250_000, 2_000).paper("4952", &["ada"], json!({ "2": "1000" }), json!(null));
    let outcome = family.outcome();
    assert_lines(
        &outcome,
        &[("us.4952.3", 3_000), ("us.sched_a.9", 3_000), ("us.8960.12", 6_000), ("us.8960.17", 228)],
    );
    assert!(has_point(&outcome, "4952-use"));
    let abroad = json!({ "1a": "900", "7": "400", "7.income": "900", "8": "RIC" });
    let family = with(150_000, 2_000).paper("1099-DIV", &["ada"], abroad, json!(null));
    assert!(!family.pin("us.foreign_tax", "form").outcome().covered);
    let apart = Family::couple(2025)
        .wages("ada", 90_000)
        .wages("bo", 90_000)
        .loan(&["ada", "bo"], 40_000, 300_000)
        .dividends(&["bo"], 5_000, 5_000)
        .paper("4952", &["bo"], json!({ "1": "3000" }), json!(null))
        .pin("us.status", "separate")
        .outcome();
    assert_eq!(hembo_testing::us::line_of(&apart, "us.4952.4g", "return/1"), 3_000);
    assert_eq!(line(&apart, "us.17"), 0);
}
