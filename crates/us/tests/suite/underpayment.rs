//! The addition for underpaid estimated tax (§6654; Form 2210), worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

/// 60,000 of interest bear 5,075; last year's tax and income; what was withheld, and what was paid when.
fn owing(last: i64, agi: i64, withheld: &str, payments: Value) -> Family {
    Family::single(2025)
        .paper("1099-INT", &["ada"], json!({ "1": "60000", "4": withheld }), json!(null))
        .paper("Last year", &["ada"], json!({ "tax": last.to_string(), "agi": agi.to_string() }), json!(null))
        .paper("1040-ES", &["ada"], json!({}), payments)
}

fn paid(date: &str, amount: i64) -> Value {
    json!({ "date": date, "amount": amount.to_string() })
}

/// What was paid with the extension stands on Schedule 3, and lowers no instalment before its day.
#[test]
fn paid_with_the_extension() {
    let family = |sort: &str, date: &str| {
        let mut row = json!({ "sort": sort, "amount": "3000" });
        if !date.is_empty() {
            row["date"] = json!(date);
        }
        let family = Family::single(2025).wages("ada", 90_000);
        let last = json!({ "tax": "9000", "agi": "80000" });
        let family = family.paper("Last year", &["ada"], last, json!(null));
        family.paper("1040-ES", &["ada"], json!({}), json!([row])).outcome()
    };
    let estimated = family("estimated", "2026-04-15");
    assert_lines(&estimated, &[("us.26", 3_000), ("us.sched_3.10", 0)]);
    for date in ["", "2026-04-15"] {
        let extension = family("extension", date);
        let same = [("us.26", 0), ("us.sched_3.10", 3_000), ("us.38", line(&estimated, "us.38"))];
        assert_lines(&extension, &same);
        assert_eq!(line(&extension, "us.balance"), line(&estimated, "us.balance"));
        assert!(!has_point(&extension, "2210-date"));
    }
    assert!(line(&family("extension", "2026-01-15"), "us.38") < line(&estimated, "us.38"));
}

#[test]
fn four_instalments() {
    for (last, agi, withheld, payments, required, addition) in [
        // 1,000 a quarter, open for 365, 303, 212 and 90 days at 7 %.
        (4_000, 60_000, "0", json!([]), 4_000, 186),
        (4_000, 150_000, "0", json!([]), 4_000, 186),
        (4_000, 150_001, "0", json!([]), 4_400, 205), // 204.63
        (9_000, 60_000, "0", json!([]), 4_568, 212),  // 90 % of 5,075: 212.45
        (4_000, 60_000, "4000", json!([]), 4_000, 0),
        (9_000, 60_000, "4076", json!([]), 4_568, 0), // 999 is less than 1,000
        (9_000, 60_000, "4075", json!([]), 4_568, 23), // 493: 22.93
        (4_000, 60_000, "0", json!([paid("2025-06-16", 4_000)]), 4_000, 12), // 62 days: 11.89
        (4_000, 60_000, "0", json!([paid("2025-04-15", 4_000)]), 4_000, 0),
        (
            4_000,
            60_000,
            "0",
            json!([
                paid("2025-04-15", 1_000),
                paid("2025-06-16", 1_000),
                paid("2025-09-15", 1_000),
                paid("2026-01-15", 1_000)
            ]),
            4_000,
            0,
        ),
        // Half of it withheld: 500 a quarter, and the last payment a month late for each.
        (4_000, 60_000, "2000", json!([paid("2026-01-15", 2_000)]), 4_000, 58), // 275 + 213 + 122 days: 58.49
    ] {
        let outcome = owing(last, agi, withheld, payments.clone()).outcome();
        assert_lines(&outcome, &[("us.2210.9", required), ("us.38", addition)]);
        let due = 5_075 - line(&outcome, "us.paid") + addition;
        assert_lines(&outcome, &[("us.balance", due), ("us.37", due), ("us.net_tax", 5_075)]);
    }
}

/// 2024: 8 % to the end of December, by 366 days, then 7 %.
#[test]
fn the_rates_of_two_years() {
    let outcome = Family::single(2024)
        .interest(&["ada"], 60_000)
        .paper("Last year", &["ada"], json!({ "tax": "4000", "agi": "60000" }), json!(null))
        .outcome();
    // 563 days at 8 %: 123.06; 405 at 7 %: 77.67.
    assert_lines(&outcome, &[("us.2210.4", 5_219), ("us.38", 201)]);
}

#[test]
fn who_is_spared_and_what_is_asked() {
    let mut nothing = owing(0, 9_000, "0", json!([]));
    nothing.0["papers"][1]["boxes"]["none"] = json!(true);
    assert_lines(&nothing.outcome(), &[("us.38", 0)]);
    let with = owing(4_000, 60_000, "0", json!([])).outcome();
    assert!(has_point(&with, "K-156-penalty") && !has_point(&with, "K-156"));
    assert!(has_point(&Family::single(2025).interest(&["ada"], 60_000).outcome(), "K-156"));
    assert!(has_point(&owing(4_000, 60_000, "0", json!([{ "amount": "500" }])).outcome(), "2210-date"));
    assert!(with.covered);
    // Spouses apart: a high income from 75,000 on.
    let couple = |agi: &str| {
        Family::couple(2025)
            .pin("us.status", "separate")
            .interest(&["ada"], 60_000)
            .paper("Last year", &["ada"], json!({ "tax": "4000", "agi": agi }), json!(null))
            .outcome()
    };
    assert_lines(&couple("75000"), &[("us.2210.9", 4_000)]);
    assert_lines(&couple("75001"), &[("us.2210.9", 4_400)]);
}
