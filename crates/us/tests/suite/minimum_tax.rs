//! The minimum tax on the exercise of incentive options, worked by hand from Form 6251.

use hembo_testing::us::{Family, assert_lines, has_point};
use serde_json::{Value, json};

fn exercise(family: Family, boxes: Value) -> Family {
    family.paper("3921", &["ada"], boxes, json!(null))
}

/// Single, wages 400,000, exercise with a spread of 301,350, state tax 45,000, interest 16,000 and gifts of 9,000.
#[test]
fn options_of_a_high_earner() {
    let family = Family::single(2025)
        .wages("ada", 400_000)
        .state_tax(&["ada"], 45_000)
        .loan(&["ada"], 16_000, 300_000)
        .cash_gift(&["ada"], 9_000);
    let outcome = exercise(family, json!({ "3": "10", "4": "40.14", "5": 9_998 })).paper(
        "3921",
        &["ada"],
        json!({ "4": "10.28", "5": 1 }),
        json!(null),
    );
    // 30.14 × 9,998 = 301,339.72, and 10.28: 301,350.
    let outcome = outcome.outcome();
    assert_lines(
        &outcome,
        &[
            ("us.sched_a.17", 65_000),
            ("us.15", 335_000),
            ("us.16", 86_797),
            ("us.6251.2i", 301_350),
            ("us.6251.4", 676_350),
            ("us.6251.9", 163_428),
            ("us.amt", 76_631),
            ("us.24", 165_228),
        ],
    );
    assert!(has_point(&outcome, "K-153"));
}

#[test]
fn shares_sold_in_the_year_do_not_count() {
    let sold = exercise(
        Family::single(2025).wages("ada", 90_000),
        json!({ "3": "1", "4": "9", "5": 100, "sold": true }),
    );
    let outcome = sold.outcome();
    assert_lines(&outcome, &[("us.6251.2i", 0)]);
    assert!(has_point(&outcome, "3921-sold"));
}

/// Form 8801. Wages of 150,000: tax on 134,250 is 25,067, the tentative minimum tax 26 % of 61,900, 16,094: 8,973 come back, less what other
/// credits take.
#[test]
fn minimum_tax_of_earlier_years_comes_back() {
    let family =
        |boxes: Value| Family::single(2025).wages("ada", 150_000).paper("8801", &["ada"], boxes, Value::Null);
    for (minimum, exclusion, carried, credit, left) in [
        (76_631, 10_000, 500, 8_973, 58_158),
        (8_973, 0, 0, 8_973, 0),
        (8_974, 0, 0, 8_973, 1),
        (8_972, 0, 0, 8_972, 0),
        (0, 0, 100, 100, 0),
        // Exclusion items above the minimum tax take from what was carried, never more.
        (1_000, 1_500, 900, 400, 0),
        (1_000, 3_000, 1_500, 0, 0),
    ] {
        let boxes =
            json!({ "16": minimum.to_string(), "15": exclusion.to_string(), "19": carried.to_string() });
        let outcome = family(boxes).outcome();
        assert_lines(
            &outcome,
            &[
                ("us.sched_3.6b", credit),
                ("us.20", credit),
                ("us.24", 25_067 - credit),
                ("us.carryover.minimum_tax", left),
            ],
        );
        assert!(outcome.covered, "{:?}", outcome.points);
    }
    let certificate = family(json!({ "19": "20000" })).paper(
        "8396",
        &["ada"],
        json!({ "1": "2000", "2": "20" }),
        Value::Null,
    );
    assert_lines(
        &certificate.outcome(),
        &[("us.sched_3.6g", 400), ("us.sched_3.6b", 8_573), ("us.24", 16_094)],
    );
    assert!(has_point(&family(json!({ "16": "5" })).outcome(), "8801-15"));
}

/// Wages of 200,000, a long-term gain of 100,000, a spread of 250,000, and shares sold whose basis is 60,000 higher here: 490,000, of which
/// 361,900 above the exemption at two rates, 96,550, and 40,000 at 15 %.
#[test]
fn shares_sold_with_a_higher_basis() {
    let family = |boxes: Value| {
        let family = Family::single(2025).wages("ada", 200_000).sale(&["ada"], "long", 100_000);
        let family = exercise(family, json!({ "3": "0", "4": "25", "5": 10_000 }));
        family.paper("6251", &["ada"], boxes, Value::Null).outcome()
    };
    let sold = family(json!({ "2k": "60000" }));
    assert_lines(
        &sold,
        &[
            ("us.6251.2k", -60_000),
            ("us.6251.4", 490_000),
            ("us.6251.9", 102_550),
            ("us.16", 52_067),
            ("us.amt", 50_483),
        ],
    );
    assert_lines(&family(json!({ "3": "0" })), &[("us.6251.4", 550_000), ("us.6251.9", 111_550)]);
    assert_lines(
        &family(json!({ "2k": "60000", "2l": "700", "3": "-50" })),
        &[("us.6251.2l", 650), ("us.6251.4", 490_650)],
    );
    // Beside a loss only what its limit of 3,000 leaves.
    let lost = Family::single(2025).wages("ada", 90_000).sale(&["ada"], "long", -1_000);
    let lost = lost.paper("6251", &["ada"], json!({ "2k": "5000" }), Value::Null).outcome();
    assert_lines(&lost, &[("us.7", -1_000), ("us.6251.2k", -2_000)]);
}

/// Depreciation is asked about only where it could bring a minimum tax.
#[test]
fn depreciation_is_asked_about() {
    let family = |profit: i64, more: Value| {
        let boxes = json!({ "1": (profit + 60_000).to_string(), "13": "60000", "participates": true, "service": false });
        let family = Family::single(2025).paper("Schedule C", &["ada"], boxes, Value::Null);
        if more.is_null() { family } else { family.paper("6251", &["ada"], more, Value::Null) }
    };
    assert!(!has_point(&family(20_000, Value::Null).outcome(), "6251-2l"));
    assert!(has_point(&family(190_000, Value::Null).outcome(), "6251-2l"));
    assert!(!has_point(&family(190_000, json!({ "2l": "0" })).outcome(), "6251-2l"));
}
