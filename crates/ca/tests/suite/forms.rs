//! Which official forms are filed with each return of a household, and that they add up.

use hembo_core::{Outcome, outcome::FormOutcome};
use hembo_money::Money;
use hembo_testing::ca::Family;

fn find<'o>(outcome: &'o Outcome, place: usize, id: &str) -> Option<&'o FormOutcome> {
    outcome.schedules[place].forms.iter().find(|f| f.id == id)
}

fn filed(outcome: &Outcome, place: usize) -> Vec<&str> {
    outcome.schedules[place].forms.iter().filter(|f| f.required && !f.kept).map(|f| f.id.as_str()).collect()
}

#[test]
fn a_split_is_on_both_returns_and_gifts_where_they_are_claimed() {
    let family = Family::couple("ON", ["1950-07-01", "1952-07-01"])
        .pension("ada", "60000")
        .benefits("bo", "4000", "8000")
        .gifts("bo", "2000")
        .pin("ca.gifts.ada", "2000");
    let outcome = family.outcome();
    // What is left of Bo's age amount comes to Ada: Schedule 2.
    assert_eq!(filed(&outcome, 0), ["t1", "schedule-2", "schedule-9", "t1032", "on428"]);
    assert!(filed(&outcome, 1).contains(&"t1032") && !filed(&outcome, 1).contains(&"schedule-9"));
    assert_eq!(find(&outcome, 1, "schedule-9").unwrap().why_not, "no gifts claimed here");
    // A form of another province is not even named.
    assert!(find(&outcome, 0, "ab428").is_none());
    let given = find(&outcome, 0, "t1").unwrap().rows.iter().find(|r| r.number == "21000").unwrap();
    assert_eq!(given.from.as_deref(), Some("t1032"));
}

#[test]
fn the_form_of_the_province_names_the_line() {
    for (province, form) in [("ON", "ON428"), ("AB", "AB428")] {
        let outcome = Family::single(province, "1980-01-01").employed("ada", "60000").outcome();
        let line = outcome.lines.iter().find(|l| l.id == "ca.58040").unwrap();
        assert_eq!(line.place, format!("{form}, line 58040"));
        assert_eq!(find(&outcome, 0, "schedule-8").map(|f| f.required), Some(true));
    }
}

/// Line 48500 or 48400: total payable less total credits, those paid out among them.
#[test]
fn the_end_of_the_return_adds_up() {
    let family = Family::single("ON", "1980-01-01").employed("ada", "16000");
    let outcome = family.outcome();
    let form = find(&outcome, 0, "t1").unwrap();
    let at = |number: &str| form.rows.iter().find(|r| r.number == number).unwrap().amount.unwrap();
    assert!(at("45300") > Money::ZERO, "the workers benefit is paid out");
    assert_eq!(at("48200"), at("43700") + at("44800") + at("45000") + at("45300"));
    assert_eq!(at("48400") - at("48500"), at("48200") - at("43500"));
    assert_eq!(outcome.balance, at("43500") - at("48200"));
}

#[test]
fn each_form_is_filed_where_it_has_something_to_say() {
    let single = |province: &str| Family::single(province, "1980-01-01").employed("ada", "60000");
    let students = || Family::couple("ON", ["1980-01-01", "1982-01-01"]).employed("ada", "60000");
    let cases: Vec<(&str, &str, Family, usize, bool)> = vec![
        ("no contributions", "schedule-7", single("ON"), 0, false),
        ("contributions", "schedule-7", single("ON").contributions("ada", "9000", "4000"), 0, true),
        ("pay with contributions", "schedule-8", single("ON"), 0, true),
        (
            "interest only",
            "schedule-8",
            Family::single("ON", "1980-01-01").interest("ada", "60000"),
            0,
            false,
        ),
        ("gifts", "schedule-9", single("ON").gifts("ada", "500"), 0, true),
        ("no gifts", "schedule-9", single("ON"), 0, false),
        ("the student", "schedule-11", students().tuition("bo", "4000"), 1, true),
        ("who receives tuition", "schedule-11", students().tuition("bo", "4000"), 0, false),
        ("tuition from the partner", "schedule-2", students().tuition("bo", "4000"), 0, true),
        ("nothing from a partner", "schedule-2", students(), 1, false),
        ("low pay", "schedule-6", Family::single("ON", "1980-01-01").employed("ada", "16000"), 0, true),
        ("good pay", "schedule-6", single("ON"), 0, false),
        (
            "low pay in Ontario",
            "on428-a",
            Family::single("ON", "1980-01-01").employed("ada", "25000"),
            0,
            true,
        ),
        ("good pay in Ontario", "on428-a", single("ON"), 0, false),
        ("no split", "t1032", students(), 0, false),
        ("Alberta", "ab428", single("AB"), 0, true),
    ];
    for (what, id, family, place, expected) in cases {
        let outcome = family.outcome();
        let form = find(&outcome, place, id).unwrap_or_else(|| panic!("{what}: no form {id}"));
        assert_eq!(form.required, expected, "{what}: {id}");
        assert_eq!(form.why_not.is_empty(), expected, "{what}: the reason is told where it is not filed");
        assert_eq!(form.rows.is_empty(), !expected, "{what}: rows where it is filed");
    }
}

/// What a form says is what the return came to: every row's amount is that of its line.
#[test]
fn every_row_is_a_line_of_the_return() {
    let family = Family::couple("AB", ["1950-07-01", "1970-07-01"])
        .pension("ada", "70000")
        .employed("bo", "50000")
        .contributions("bo", "9000", "4000")
        .gifts("ada", "3000")
        .tuition("bo", "2500");
    let outcome = family.outcome();
    for form in outcome.schedules.iter().flat_map(|of| &of.forms) {
        for row in &form.rows {
            let line = outcome.lines.iter().find(|l| l.id == row.line && l.scope == row.scope);
            assert_eq!(row.amount, line.map(|l| l.amount), "{} {}", form.name, row.title);
        }
    }
    let place = |line: &str| outcome.lines.iter().find(|l| l.id == line).unwrap().place.as_str();
    assert_eq!((place("ca.20800"), place("ca.32700")), ("T1, line 20800", "Schedule 11, line 32700"));
}

#[test]
fn returns_are_reckoned_again_from_their_lines() {
    let couple =
        Family::couple("ON", ["1950-01-01", "1958-01-01"]).pension("ada", "70000").employed("bo", "52000");
    let family =
        couple.gifts("ada", "900").medical("bo", &[("2025-03-03", "5000")]).benefits("ada", "9000", "8800");
    for family in
        [family.clone(), family.in_year(2024), Family::single("AB", "1980-01-01").employed("ada", "90000")]
    {
        for of in family.outcome().schedules {
            assert!(of.again.sums >= 19, "{}", of.again.sums);
            assert_eq!(of.again.apart, []);
        }
    }
}

#[test]
fn a_home_that_is_sold_without_a_gain_is_reported() {
    let sale = serde_json::json!([{ "kind": "home", "proceeds": "700000", "cost": "300000" }]);
    let family = Family::single("AB", "1980-01-01").employed("ada", "60000");
    let outcome = family.shared("Schedule 3", &[("ada", "100")], serde_json::json!({}), sale).outcome();
    assert_eq!(find(&outcome, 0, "schedule-3").map(|form| form.required), Some(true));
}
