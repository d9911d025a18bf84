//! What is due when, by hand: the return, its balance, and the estimated tax of the year after.

use hembo_core::{Pack, dates::DueDate};
use hembo_money::Money;
use hembo_testing::us::Family;
use hembo_us::UnitedStates;

fn dates(family: &Family) -> Vec<DueDate> {
    UnitedStates::COMMITTED.dates(&family.outcome())
}

fn instalments(family: &Family) -> Vec<(String, i64)> {
    let due = dates(family).into_iter().filter(|due| due.what.starts_with("Estimated"));
    due.map(|due| (due.day.to_string(), due.amount.unwrap().cents() / 100)).collect()
}

/// A single person with interest alone: nothing is withheld.
fn interest(amount: i64) -> Family {
    Family::single(2025).interest(&["ada"], amount)
}

#[test]
fn a_balance_is_due_with_the_return_and_the_year_after_is_paid_in_four_parts() {
    // 100,000 less 15,750: 84,250, by the table 13,455 (§1(j), 2025): a quarter is 3,363.75.
    let family = interest(100_000);
    let all = dates(&family);
    assert_eq!((all[0].what.as_str(), all[0].day.to_string().as_str()), ("Return and balance", "2026-04-15"));
    assert_eq!(all[0].amount, Some(Money::whole(13_455)));
    let days = ["2026-04-15", "2026-06-15", "2026-09-15", "2027-01-15"];
    assert_eq!(instalments(&family), days.map(|day| (day.to_owned(), 3_364)));
}

#[test]
fn after_a_high_income_it_is_a_tenth_more() {
    // §6654(d)(1)(C): above 150,000, not at it. 200,000 less 15,750: 184,250: 37,067; 110 % is 40,773.70, rounded 40,774.
    assert_eq!(instalments(&interest(200_000))[0].1, 10_194);
    let words = |amount| dates(&interest(amount)).into_iter().nth(1).unwrap().words;
    assert!(words(150_000).starts_with("This year's tax"));
    assert!(words(150_001).starts_with("1.1"), "{}", words(150_001));
}

#[test]
fn below_a_thousand_after_what_is_withheld_nothing_is_paid_ahead() {
    // §6654(e)(1): taxable 9,950 is 998 by the table, 10,000 is 1,003.
    assert_eq!(instalments(&interest(25_700)), []);
    assert_eq!(instalments(&interest(25_750))[0].1, 251);
    let withheld =
        |amount: &str| Family::single(2025).wages_with("ada", 100_000, serde_json::json!({ "2": amount }));
    assert_eq!(instalments(&withheld("12456.00")), []);
    assert_eq!(instalments(&withheld("12455.00"))[0].1, 250);
    let all = dates(&withheld("14000.00"));
    assert_eq!((all[0].what.as_str(), all[0].amount), ("Return", None));
}

#[test]
fn a_year_after_of_which_no_figures_are_known_has_no_instalments() {
    assert!(instalments(&Family::single(2026).interest(&["ada"], 100_000)).is_empty());
    assert_eq!(instalments(&Family::single(2024).interest(&["ada"], 100_000))[0].0, "2025-04-15");
}
