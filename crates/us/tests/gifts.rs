//! Gifts to charity at the edges of their limits (§170(b)(1)), worked out by hand from an income of 50,000: cash up to
//! 60 % (30,000), goods up to 50 % (25,000) less the cash, and what is not used goes into next year.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

const INCOME: i64 = 50_000;

fn given(year: i32, cash: i64, goods: i64) -> Family {
    let row = |sort: &str, amount: i64| json!({ "sort": sort, "amount": amount.to_string() });
    let rows = json!([row("cash", cash), row("goods", goods)]);
    Family::single(year).wages("ada", INCOME).paper("Gifts", &["ada"], json!({}), rows)
}

fn carried(family: Family, rows: Value) -> Family {
    family.paper("Gift carryover", &["ada"], json!({}), rows)
}

fn carry(year: i32, class: &str, amount: i64) -> Value {
    json!({ "year": year, "class": class, "amount": amount.to_string() })
}

#[test]
fn gifts_of_the_year_at_their_limits() {
    let cases = [
        // cash, goods, line 14, cash and goods into next year
        (29_999, 0, 29_999, 0, 0),
        (30_000, 0, 30_000, 0, 0),
        (30_001, 0, 30_000, 1, 0),
        (0, 24_999, 24_999, 0, 0),
        (0, 25_000, 25_000, 0, 0),
        (0, 25_001, 25_000, 0, 1),
        (10_000, 14_999, 24_999, 0, 0),
        (10_000, 15_000, 25_000, 0, 0),
        (10_000, 15_001, 25_000, 0, 1),
        (24_999, 5, 25_000, 0, 4),
        (25_000, 5, 25_000, 0, 5),
        (26_000, 5, 26_000, 0, 5),
        (40_000, 900, 30_000, 10_000, 900),
    ];
    for year in [2024, 2025] {
        for (cash, goods, allowed, next_cash, next_goods) in cases {
            let outcome = given(year, cash, goods).outcome();
            let expected = [
                ("us.sched_a.11", cash),
                ("us.sched_a.12", goods),
                ("us.sched_a.13", 0),
                ("us.sched_a.14", allowed),
                ("us.gifts.carried_cash", next_cash),
                ("us.gifts.carried_goods", next_goods),
                ("us.sched_a.17", allowed),
            ];
            assert_lines(&outcome, &expected);
        }
    }
}

#[test]
fn cash_carried_over_takes_what_this_year_leaves() {
    let cases = [
        // cash of this year, cash of 2023, used of it, line 14, into next year
        (28_000, 1_999, 1_999, 29_999, 0),
        (28_000, 2_000, 2_000, 30_000, 0),
        (28_000, 2_001, 2_000, 30_000, 1),
        (30_000, 1, 0, 30_000, 1),
        (30_001, 1, 0, 30_000, 2),
        (0, 31_000, 30_000, 30_000, 1_000),
    ];
    for (cash, before, used, allowed, next) in cases {
        let family = carried(given(2025, cash, 0), json!([carry(2023, "cash", before)]));
        let expected = [
            ("us.sched_a.13", used),
            ("us.sched_a.14", allowed),
            ("us.gifts.carried_cash", next),
            ("us.gifts.carried_goods", 0),
        ];
        assert_lines(&family.outcome(), &expected);
    }
}

#[test]
fn goods_carried_over_come_after_all_else() {
    let cases = [
        // cash, goods, goods of 2023, used of them, line 14, into next year
        (0, 24_000, 999, 999, 24_999, 0),
        (0, 24_000, 1_000, 1_000, 25_000, 0),
        (0, 24_000, 1_001, 1_000, 25_000, 1),
        (20_000, 5_000, 7, 0, 25_000, 7),
        (27_000, 0, 7, 0, 27_000, 7),
    ];
    for (cash, goods, before, used, allowed, next) in cases {
        let family = carried(given(2025, cash, goods), json!([carry(2023, "goods", before)]));
        let expected =
            [("us.sched_a.13", used), ("us.sched_a.14", allowed), ("us.gifts.carried_goods", next)];
        assert_lines(&family.outcome(), &expected);
    }
}

/// A gift is carried to each of the five years that follow it, the oldest first (§170(d)(1)(A)).
#[test]
fn what_is_carried_over_runs_out_after_five_years() {
    let cases = [
        // year of the gift, used of 1,000 beside 20,000 of this year, of 1,000 beside 30,000 into next year
        (2019, 0, 0),
        (2020, 1_000, 0), // its last year: what is not used now is lost
        (2021, 1_000, 1_000),
        (2024, 1_000, 1_000),
    ];
    for (year, used, next) in cases {
        let rows = json!([carry(year, "cash", 1_000)]);
        let room = carried(given(2025, 20_000, 0), rows.clone()).outcome();
        assert_lines(&room, &[("us.sched_a.13", used), ("us.gifts.carried_cash", 0)]);
        let full = carried(given(2025, 30_000, 0), rows).outcome();
        assert_lines(&full, &[("us.sched_a.13", 0), ("us.gifts.carried_cash", next)]);
    }
    let both = json!([carry(2024, "cash", 600), carry(2020, "cash", 400)]);
    let outcome = carried(given(2025, 29_500, 0), both).outcome();
    assert_lines(&outcome, &[("us.sched_a.13", 500), ("us.gifts.carried_cash", 500)]);
}

/// Of two lawful ways the one with the lower tax: gifts below the standard deduction change nothing.
#[test]
fn gifts_count_from_the_standard_deduction_on() {
    let without = Family::single(2025).wages("ada", INCOME).outcome();
    for (cash, deduction) in [(15_749, 15_750), (15_750, 15_750), (15_751, 15_751)] {
        let outcome = given(2025, cash, 0).outcome();
        assert_eq!(line(&outcome, "us.12e"), deduction);
        assert!(line(&outcome, "us.16") <= line(&without, "us.16"));
    }
}

/// Property held long: 30 % of income, and what cash and goods leave of the 50 %; the rest is carried on in its class.
#[test]
fn property_held_long() {
    // Income 100,000. Cash, goods, property, property carried here: allowed of property, used, carried on.
    for (cash, goods, property, carried, allowed, used, on) in [
        (0, 0, 29_999, 0, 29_999, 0, 0),
        (0, 0, 30_001, 0, 30_000, 0, 1),
        (40_000, 0, 25_000, 0, 10_000, 0, 15_000),
        (0, 35_000, 25_000, 0, 15_000, 0, 10_000),
        (55_000, 0, 5_000, 0, 0, 0, 5_000),
        (0, 0, 20_000, 15_000, 20_000, 10_000, 5_000),
    ] {
        let row = |sort: &str, amount: i64| json!({ "sort": sort, "amount": amount.to_string() });
        let rows = json!([row("cash", cash), row("goods", goods), row("property", property)]);
        let before = json!([{ "year": 2023, "class": "property", "amount": carried.to_string() }]);
        let outcome = Family::single(2025)
            .wages("ada", 100_000)
            .paper("Gifts", &["ada"], json!({}), rows)
            .paper("Gift carryover", &["ada"], json!({}), before)
            .outcome();
        assert_lines(
            &outcome,
            &[
                ("us.sched_a.12", goods + property),
                ("us.sched_a.13", used),
                ("us.sched_a.14", cash + goods + allowed + used),
                ("us.gifts.carried_property", on),
            ],
        );
        assert!(has_point(&outcome, "C-27"));
    }
}
