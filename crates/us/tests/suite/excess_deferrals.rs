//! Elective deferrals over the limit of the year (§402(g)), worked by hand.

use hembo_money::Money;
use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::json;

/// A W-2 with a code in box 12a.
fn deferring(family: Family, who: &str, code: &str, amount: &str) -> Family {
    family.wages_with(who, 60_000, json!({ "12a": code, "12a.amount": amount }))
}

fn one(year: i32, born: &str, code: &str, amount: &str) -> Family {
    deferring(Family::of(year).filer("ada", born), "ada", code, amount)
}

/// 15,000 and 12,000 of two employers are 3,500 over 23,500: 123,500 − 15,750 = 107,750: 17,651 + 24 % × 4,400 = 18,707.
#[test]
fn what_two_employers_take_together_is_over() {
    let family = deferring(one(2025, "1985-03-03", "D", "15000"), "ada", "E", "12000");
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.1a", 120_000), ("us.1h", 3_500), ("us.1z", 123_500), ("us.agi", 123_500)]);
    assert_eq!(outcome.total, Money::whole(18_707));
    assert!(has_point(&outcome, "K-047"));
    let limit = outcome.limits.iter().find(|l| l.id == "us.limit.deferrals").unwrap();
    assert_eq!((limit.entered, limit.lost), (Money::whole(27_000), Money::whole(3_500)));
}

/// The limit by year and age at its end: 50 on the last day counts; from 60 to 63 more is allowed from 2025 on.
#[test]
fn the_limit_grows_with_age() {
    for (year, born, limit) in [
        (2024, "1985-03-03", 23_000),
        (2024, "1975-01-01", 23_000),
        (2024, "1974-12-31", 30_500),
        (2024, "1963-06-06", 30_500),
        (2025, "1976-01-01", 23_500),
        (2025, "1975-12-31", 31_000),
        (2025, "1966-01-01", 31_000),
        (2025, "1965-12-31", 34_750),
        (2025, "1962-01-01", 34_750),
        (2025, "1961-12-31", 31_000),
    ] {
        for over in [-1, 0, 1] {
            let outcome = one(year, born, "D", &(limit + over).to_string()).outcome();
            assert_eq!(line(&outcome, "us.1h"), over.max(0), "{year} {born} {over}");
            assert_eq!(has_point(&outcome, "K-047"), over > 0, "{year} {born} {over}");
        }
    }
}

#[test]
fn only_codes_within_the_limit_count() {
    for (code, excess) in
        [("D", 6_500), ("E", 6_500), ("F", 6_500), ("S", 6_500), ("G", 0), ("EE", 0), ("DD", 0)]
    {
        let outcome = one(2025, "1985-03-03", code, "30000").outcome();
        assert_eq!(line(&outcome, "us.1h"), excess, "{code}");
    }
    // A plan under 457(b) has a limit of its own: over it is told not to be computed.
    for (amount, told) in [("23500", false), ("23501", true)] {
        let outcome = one(2025, "1985-03-03", "G", amount).outcome();
        assert_eq!((has_point(&outcome, "excess-457"), outcome.covered), (told, !told), "{amount}");
    }
    // Roth contributions are in box 1 already; which of both kinds is over is not told.
    let roth = one(2025, "1985-03-03", "AA", "30000").outcome();
    assert_eq!((line(&roth, "us.1h"), has_point(&roth, "K-047")), (0, true));
    assert!(has_point(&roth, "excess-roth"));
    assert!(!roth.covered);
}

/// §402(g)(7): at most 3,000 a year more after 15 years with the employer.
#[test]
fn fifteen_years_with_an_employer_allow_more() {
    for (allowed, excess) in [("0", 6_500), ("2999", 3_501), ("3000", 3_500), ("5000", 3_500)] {
        let family = one(2025, "1985-03-03", "E", "30000");
        let outcome = family.set("ada", "/answers/fifteen_years_catch_up", json!(allowed)).outcome();
        assert_eq!(line(&outcome, "us.1h"), excess, "{allowed}");
    }
}

/// The limit is each spouse's own; the part over it is that spouse's on the joint return and apart.
#[test]
fn spouses_have_a_limit_each() {
    let couple = Family::couple(2025);
    let both = deferring(deferring(couple.clone(), "ada", "D", "20000"), "bo", "D", "20000").outcome();
    assert_eq!(line(&both, "us.1h"), 0);
    let one = deferring(deferring(couple, "ada", "D", "30000.40"), "bo", "D", "100").outcome();
    assert_eq!((line(&one, "us.1h"), line_of(&one, "us.1h", "person/ada")), (6_500, 6_500));
    assert_eq!(line_of(&one, "us.agi", "person/ada"), 66_500);
}

/// It is earned income: 6,500 over the limit and 3,000 of wages make 9,500; 15 % × 7,000 = 1,050 of child credit paid out, and
/// the earned income credit at 9,500 with one child (middle of the band 9,525): 34 % × 9,525 = 3,238.50, so 3,239.
#[test]
fn it_is_earned_income() {
    let family = Family::single(2025)
        .wages_with("ada", 3_000, json!({ "12a": "D", "12a.amount": "30000" }))
        .child("kim", "2015-05-05");
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.1z", 9_500), ("us.28", 1_050), ("us.27a", 3_239)]);
}
