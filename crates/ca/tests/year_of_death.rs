//! The return of someone who died in the year, by hand.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::json;

fn late(province: &str, born: &str, died: &str) -> Family {
    Family::of(province, "widowed").person("ada", "filer", born).set("ada", "/died", json!(died))
}

#[test]
fn amounts_are_whole_and_ages_are_those_at_death() {
    for (born, age) in [("1960-03-10", true), ("1960-03-11", false)] {
        let outcome = late("AB", born, "2025-03-10").interest("ada", "20000").outcome();
        assert_lines(&outcome, 0, &[("30000", "16129")]);
        assert_eq!(line(&outcome, 0, "30100") > money("0"), age, "{born}");
        assert!(outcome.covered && has_point(&outcome, "C-16-final") && has_point(&outcome, "C-16-returns"));
    }
}

#[test]
fn medical_receipts_of_24_months_with_the_day_of_death() {
    for (bills, claimed) in [
        (vec![("2023-03-11", "1000"), ("2025-03-10", "500")], "1500"),
        // No 24 months hold this one and the day of death.
        (vec![("2023-03-10", "1000"), ("2025-03-10", "500")], "500"),
        (vec![("2023-03-09", "1000"), ("2025-03-09", "500")], "500"),
        (vec![("2024-06-01", "1000"), ("2025-11-30", "500")], "1500"),
    ] {
        let outcome =
            late("AB", "1950-01-01", "2025-03-10").interest("ada", "90000").medical("ada", &bills).outcome();
        assert_lines(&outcome, 0, &[("33099", claimed)]);
    }
    // Who lives has twelve months.
    let living = Family::of("AB", "widowed").person("ada", "filer", "1950-01-01").interest("ada", "90000");
    let bills = [("2024-06-01", "1000"), ("2025-11-30", "500")];
    assert_lines(&living.medical("ada", &bills).outcome(), 0, &[("33099", "1000")]);
}

#[test]
fn gifts_losses_and_the_minimum_tax() {
    let giver = |family: Family| family.interest("ada", "300000").gifts("ada", "500000").outcome();
    // Three quarters of net income leave a tax that only more gifts take away.
    assert!(line(&giver(late("AB", "1950-01-01", "2025-03-10")), 0, "34000") > money("225000"));
    let living = Family::of("AB", "widowed").person("ada", "filer", "1950-01-01");
    assert_lines(&giver(living.clone()), 0, &[("34000", "225000")]);
    let losses = |family: Family| {
        let family =
            family.interest("ada", "30000").paper("Capital losses", "ada", json!({ "left": "5000" }));
        let sold = json!([{ "kind": "bonds", "proceeds": "1000", "cost": "3000" }]);
        family.shared("Schedule 3", &[("ada", "100")], json!({}), sold).outcome()
    };
    assert_lines(
        &losses(late("AB", "1950-01-01", "2025-03-10")),
        0,
        &[("25300", "6000"), ("26000", "24000")],
    );
    assert_lines(&losses(living.clone()), 0, &[("25300", "0"), ("26000", "30000")]);
    let rich = |family: Family| {
        let sold = json!([{ "kind": "bonds", "proceeds": "900000", "cost": "0" }]);
        family.shared("Schedule 3", &[("ada", "100")], json!({}), sold).outcome()
    };
    let tax = |outcome| line(&outcome, 0, "42000");
    assert!(tax(rich(late("AB", "1950-01-01", "2025-03-10"))) < tax(rich(living)));
}

#[test]
fn the_workers_benefit_is_for_who_lived_past_june() {
    for (died, given) in [("2025-06-30", false), ("2025-07-01", true)] {
        let outcome = late("ON", "1970-01-01", died).employed("ada", "14000").outcome();
        assert_eq!(line(&outcome, 0, "45300") > money("0"), given, "{died}");
    }
}

#[test]
fn who_else_died_is_told() {
    let couple = Family::couple("AB", ["1950-01-01"; 2]).set("bo", "/died", json!("2025-05-05")).outcome();
    assert!(has_point(&couple, "C-16") && !couple.covered);
    let single = Family::single("AB", "1980-01-01");
    let child =
        |born: &str| single.clone().child("cy", born).set("cy", "/died", json!("2025-05-05")).outcome();
    assert!(has_point(&child("2006-05-06"), "C-16-child") && !has_point(&child("2006-05-05"), "C-16-child"));
    let next_year = Family::single("AB", "1980-01-01").set("ada", "/died", json!("2026-01-01")).outcome();
    assert!(!has_point(&next_year, "C-16-final"));
}

#[test]
fn a_separation_of_the_year_leaves_a_choice() {
    let apart = Family::of("AB", "separated").person("ada", "filer", "1980-01-01");
    assert!(has_point(&apart.outcome(), "C-13-day"));
    for (day, told) in [("2024-12-31", false), ("2025-01-01", true)] {
        let outcome = apart.clone().answer("separated_on", json!(day)).outcome();
        assert_eq!((has_point(&outcome, "C-13"), has_point(&outcome, "C-13-day")), (told, false), "{day}");
    }
}
