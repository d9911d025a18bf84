//! What each filing status changes: deductions, thresholds and credits, below, at and above each figure.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::json;

/// A family whose first return has this status.
fn with_status(year: i32, status: &str) -> Family {
    let single = Family::single(year);
    match status {
        "single" => single,
        "head" => single.set("ada", "/answers/paid_home", json!(true)).child("kim", "2015-01-01"),
        "surviving" => with_status(year, "head").answer("marital", json!("widowed")).set(
            "ada",
            "/answers/spouse_died",
            json!(year - 1),
        ),
        "joint" => Family::couple(year).pin("us.status", "joint"),
        "separate" => single.answer("marital", json!("married")).answer("spouse_itemizes", json!(false)),
        other => panic!("no status {other}"),
    }
}

const STATUSES: [&str; 5] = ["single", "head", "surviving", "joint", "separate"];

#[test]
fn standard_deduction_of_each_status_with_age_and_blindness() {
    let cases = [
        // year, status, under 65, 65, 65 and blind
        (2024, "single", 14_600, 16_550, 18_500),
        (2024, "head", 21_900, 23_850, 25_800),
        (2024, "surviving", 29_200, 30_750, 32_300),
        (2024, "joint", 29_200, 30_750, 32_300),
        (2024, "separate", 14_600, 16_150, 17_700),
        (2025, "single", 15_750, 17_750, 19_750),
        (2025, "head", 23_625, 25_625, 27_625),
        (2025, "surviving", 31_500, 33_100, 34_700),
        (2025, "joint", 31_500, 33_100, 34_700),
        (2025, "separate", 15_750, 17_350, 18_950),
    ];
    for (year, status, young, aged, blind) in cases {
        let family = with_status(year, status).interest(&["ada"], 30_000);
        assert_lines(&family.outcome(), &[("us.standard", young)]);
        let family = family.set("ada", "/born", json!("1950-05-05"));
        assert_lines(&family.outcome(), &[("us.standard", aged)]);
        let family = family.set("ada", "/answers/blind", json!(true));
        assert_lines(&family.outcome(), &[("us.standard", blind)]);
    }
}

#[test]
fn additional_medicare_tax_starts_at_the_threshold_of_the_status() {
    for (status, from) in [
        ("single", 200_000),
        ("head", 200_000),
        ("surviving", 200_000),
        ("joint", 250_000),
        ("separate", 125_000),
    ] {
        for (wages, tax) in [(from - 1_000, 0), (from, 0), (from + 1_000, 9), (from + 100_000, 900)] {
            let outcome = with_status(2025, status).wages("ada", wages).outcome();
            assert_eq!(line(&outcome, "us.8959.18"), tax, "{status} {wages}");
        }
    }
    // On a joint return the wages of both count together.
    let both = with_status(2025, "joint").wages("ada", 150_000).wages("bo", 150_000);
    assert_lines(&both.outcome(), &[("us.8959.1", 300_000), ("us.8959.18", 450)]);
}

#[test]
fn net_investment_income_tax_takes_the_smaller_base() {
    for (status, from) in [
        ("single", 200_000),
        ("head", 200_000),
        ("surviving", 250_000),
        ("joint", 250_000),
        ("separate", 125_000),
    ] {
        for (over, tax) in [(-1_000, 0), (0, 0), (1_000, 38), (10_000, 380), (20_000, 380)] {
            let family =
                with_status(2025, status).wages("ada", from - 10_000 + over).interest(&["ada"], 10_000);
            assert_eq!(line(&family.outcome(), "us.8960.17"), tax, "{status} {over}");
        }
    }
    // The penalty for early withdrawal comes off the income first.
    let boxes = json!({ "1": "10000", "2": "2000" });
    let family =
        with_status(2025, "single").wages("ada", 250_000).paper("1099-INT", &["ada"], boxes, json!(null));
    assert_lines(&family.outcome(), &[("us.8960.17", 304)]);
}

#[test]
fn senior_deduction_by_status() {
    let cases = [
        // status, income, deduction: 6 % of what is above 75,000, joint 150,000
        ("single", 75_000, 6_000),
        ("single", 75_001, 6_000),
        ("single", 75_100, 5_994),
        ("single", 174_999, 0),
        ("single", 174_000, 60),
        ("single", 175_000, 0),
        ("surviving", 100_000, 4_500),
        ("joint", 150_000, 6_000),
        ("joint", 200_000, 3_000),
        ("joint", 250_000, 0),
        ("separate", 50_000, 0),
    ];
    for (status, income, deduction) in cases {
        let family =
            with_status(2025, status).set("ada", "/born", json!("1950-05-05")).interest(&["ada"], income);
        let outcome = family.outcome();
        assert_eq!(line(&outcome, "us.13b"), deduction, "{status} {income}");
    }
    let without_number = with_status(2025, "single")
        .set("ada", "/born", json!("1950-05-05"))
        .set("ada", "/answers/work_ssn", json!(false))
        .interest(&["ada"], 50_000);
    assert_lines(&without_number.outcome(), &[("us.13b", 0)]);
    // There was none before 2025.
    let before =
        with_status(2024, "single").set("ada", "/born", json!("1950-05-05")).interest(&["ada"], 50_000);
    assert_eq!(line(&before.outcome(), "us.14"), line(&before.outcome(), "us.12e"));
}

#[test]
fn the_exemption_of_the_minimum_tax_shrinks_and_separate_returns_pay_for_it() {
    let cases = [
        // status, income, what is above the exemption: wages with the standard deduction added back
        ("single", 600_000, 511_900),
        ("single", 626_350, 538_250),
        ("single", 726_350, 663_250), // 25 % × 100,000 less exemption
        ("single", 978_750, 978_750),
        ("joint", 1_252_700, 1_115_700),
        ("joint", 1_800_700, 1_800_700),
        ("head", 626_350, 538_250),
        ("separate", 626_350, 557_850),
        ("separate", 900_350, 900_350),
        ("separate", 1_000_350, 1_025_350), // 25 % of what is above 900,350 is added
        ("separate", 1_300_350, 1_368_850), // at most the exemption of 68,500
    ];
    for (status, income, above) in cases {
        let outcome = with_status(2025, status).interest(&["ada"], income).outcome();
        let half = if status == "separate" { 119_550 } else { 239_100 };
        let cents = above * 26 + (above - half).max(0) * 2;
        assert_eq!(line(&outcome, "us.6251.9"), (cents + 50) / 100, "{status} {income}");
        assert_eq!(line(&outcome, "us.amt"), 0, "{status} {income}");
    }
}

#[test]
fn who_gets_the_earned_income_credit() {
    let childless = |born: &str| Family::of(2025).filer("ada", born).wages("ada", 9_000);
    let cases = [
        ("2001-01-01", 649), // 25 is reached the day before the birthday
        ("2001-01-02", 0),
        ("1961-01-01", 649), // under 65 by the anniversary
        ("1960-12-31", 0),
    ];
    for (born, credit) in cases {
        assert_lines(&childless(born).outcome(), &[("us.27a", credit)]);
    }
    let base = childless("1990-01-01");
    for (question, credit) in [("work_ssn", 0), ("home_abroad", 0), ("claimable", 0)] {
        let value = json!(question != "work_ssn");
        let family = base.clone().set("ada", &format!("/answers/{question}"), value);
        assert_eq!(line(&family.outcome(), "us.27a"), credit, "{question}");
    }
    // Investment income: 11,950 is allowed, a dollar more is not; tax-exempt interest counts.
    for (taxable, exempt, some) in
        [(11_950, 0, true), (11_951, 0, false), (11_000, 950, true), (11_000, 951, false)]
    {
        let boxes = json!({ "1": taxable.to_string(), "8": exempt.to_string() });
        let family = Family::single(2025)
            .set("ada", "/answers/paid_home", json!(true))
            .child("kim", "2015-01-01")
            .wages("ada", 12_000)
            .paper("1099-INT", &["ada"], boxes, json!(null));
        assert_eq!(line(&family.outcome(), "us.27a") > 0, some, "{taxable} {exempt}");
    }
    // A separate return only of a spouse who lived apart, with a child.
    let apart = |apart: bool| {
        Family::couple(2025)
            .answer("apart", json!(apart))
            .child("kim", "2015-01-01")
            .wages("ada", 15_000)
            .set("kim", "/lived_with/bo", json!(0))
            .pin("us.status", "separate")
            .outcome()
    };
    assert_eq!(line(&apart(false), "us.27a"), 0);
    assert_eq!(line(&apart(true), "us.27a"), 4_328);
    // A child who pays over half of its own support still counts here, but is no dependent.
    let own_support = Family::single(2025)
        .child("kim", "2008-01-01")
        .set("kim", "/answers/self_support", json!(true))
        .wages("ada", 15_000)
        .outcome();
    assert_eq!((line(&own_support, "us.27a"), line(&own_support, "us.8812.8")), (4_328, 0));
    // A pension of a nonqualified plan is not earned.
    let pension = Family::single(2025).wages_with("ada", 9_000, json!({ "11": "9000" })).outcome();
    assert_eq!(line(&pension, "us.27a"), 0);
}

#[test]
fn each_spouse_owns_what_is_theirs_on_separate_returns() {
    let family = Family::couple(2025)
        .child("kim", "2015-01-01")
        .wages_with("ada", 80_000, json!({ "2": "9000", "17": "3000", "19": "100", "14": "50", "17b": "7" }))
        .wages_with("bo", 60_000, json!({ "2": "5000", "17": "2000" }))
        .interest(&["ada", "bo"], 1_001)
        .interest(&["bo"], 500)
        .loan(&["ada", "bo"], 12_001, 300_000)
        .property_tax(&["bo"], 4_000)
        .cash_gift(&["ada"], 2_000)
        .cash_gift(&["ada", "bo"], 500)
        .medical(&["bo"], "ada", 9_000)
        .medical(&["ada"], "kim", 8_000)
        .pin("us.status", "separate")
        .pin("us.deduction", "itemized")
        .pin("us.claim.kim", "bo");
    let outcome = family.outcome();
    let both = |id: &str| (line_of(&outcome, id, "return/0"), line_of(&outcome, id, "return/1"));
    assert_eq!(both("us.1a"), (80_000, 60_000));
    assert_eq!(both("us.2b"), (501, 1_001)); // 500.50 rounds up; 500.50 + 500
    assert_eq!(both("us.sched_a.5a"), (3_157, 2_000));
    assert_eq!(both("us.sched_a.5b"), (0, 4_000));
    assert_eq!(both("us.sched_a.8e"), (6_001, 6_001)); // 6,000.50 each
    assert_eq!(both("us.sched_a.11"), (2_250, 250));
    assert_eq!(both("us.25a"), (9_000, 5_000));
    // A bill counts for who paid it: bo paid ada's; ada's payment for kim does not, as bo claims kim.
    assert_eq!(both("us.sched_a.1"), (0, 9_000));
    assert_eq!(both("us.8812.8"), (0, 2_200));
    let other = family.pin("us.claim.kim", "ada").outcome();
    assert_eq!(line_of(&other, "us.sched_a.1", "return/0"), 8_000);
}

#[test]
fn every_status_counts_every_dollar_once() {
    for status in STATUSES {
        let outcome = with_status(2025, status).wages("ada", 70_000).interest(&["ada"], 900).outcome();
        assert_eq!(line(&outcome, "us.agi"), 70_900, "{status}");
        let taxable = line(&outcome, "us.agi") - line(&outcome, "us.14");
        assert_eq!(line(&outcome, "us.15"), taxable, "{status}");
        assert_eq!(
            line(&outcome, "us.balance"),
            line(&outcome, "us.net_tax") - line(&outcome, "us.paid"),
            "{status}"
        );
    }
}

/// Spouses apart from July with a child half the time: nine months with each, and one alone is entitled to it (§152(c)(4)).
#[test]
fn two_heads_by_one_child_are_not_covered() {
    let apart = |months: i64, second: bool| {
        let family = Family::couple(2025)
            .answer("apart", json!(true))
            .child("kim", "2015-01-01")
            .wages("ada", 60_000)
            .wages("bo", 50_000)
            .set("ada", "/answers/paid_home", json!(true))
            .set("bo", "/answers/paid_home", json!(true))
            .set("kim", "/lived_with/ada", json!(9))
            .set("kim", "/lived_with/bo", json!(months));
        // Each has a child of its own besides.
        let own = |family: Family, id: &str, with: &str, without: &str| {
            family.child(id, "2016-01-01").set(id, &format!("/lived_with/{with}"), json!(12)).set(
                id,
                &format!("/lived_with/{without}"),
                json!(6),
            )
        };
        if second { own(own(family, "lou", "ada", "bo"), "max", "bo", "ada") } else { family }.outcome()
    };
    assert!(has_point(&apart(9, false), "both-heads") && !apart(9, false).covered);
    assert!(!has_point(&apart(6, false), "both-heads"));
    assert!(!has_point(&apart(9, true), "both-heads"));
}
