//! What a couple's tax classes would withhold, by the examples of the law book: advice for the year that runs, never a way.

use hembo_core::{Pack, withholding::Withholding};
use hembo_de::Germany;
use hembo_testing::de::{Family, money};
use serde_json::json;

fn told(family: &Family) -> Option<Withholding> {
    Germany::COMMITTED.withholding(&family.household(), &family.outcome())
}

fn months(of: &Withholding) -> Vec<(String, Vec<String>)> {
    let one =
        |months: &[hembo_core::withholding::Monthly]| months.iter().map(|m| m.amount.to_string()).collect();
    of.options.iter().map(|option| (option.label.clone(), one(&option.months))).collect()
}

/// DE-2: two children, so care at 1.55 %; the tax of the year is 10,104 under every combination.
#[test]
fn a_couple_with_two_children() {
    let family = Family::couple(2025)
        .person("cy", "dependent", "2016-02-03")
        .person("di", "dependent", "2021-04-05")
        .paper("LStB", "ada", json!({ "3": "64000", "22": "5952", "23": "5952", "25": "5472", "26": "992" }))
        .paper(
            "LStB",
            "bo",
            json!({ "3": "31000", "22": "2883", "23": "2883", "25": "2650.50", "26": "480.50" }),
        );
    let told = told(&family).unwrap();
    let expected = [
        ("III for ada, V for bo", ["499.16", "511.66"]),
        ("IV for both with the factor 0,953", ["863.41", "207.51"]),
        ("IV for both; as I for both before the marriage or arrival", ["906.00", "217.75"]),
    ];
    let there = months(&told);
    for (label, amounts) in expected {
        let found = there.iter().find(|(of, _)| of == label).unwrap_or_else(|| panic!("{label}: {there:?}"));
        assert_eq!(found.1, amounts, "{label}");
    }
    assert_eq!(there.len(), 4);
    let first = &told.options[0];
    assert_eq!(first.year, money("12129.84"));
    let tax = money("12129.84") + first.left.unwrap();
    assert!(told.options.iter().all(|option| option.year + option.left.unwrap() == tax));
}

/// DE-6: pay of four months counts as that of a year; what is left then is not told.
#[test]
fn pay_of_a_part_of_the_year() {
    let family = Family::couple(2025)
        .paper("LStB", "ada", json!({ "3": "54000", "from": "2025-01-01", "to": "2025-12-31" }))
        .paper("LStB", "bo", json!({ "3": "8000", "from": "2025-09-01", "to": "2025-12-31" }));
    let told = told(&family).unwrap();
    // Without children care is at 2.4 %, as in the example.
    let there = months(&told);
    let of = |label: &str| there.iter().find(|(of, _)| of.starts_with(label)).unwrap().1.clone();
    assert_eq!(of("III for ada"), ["314.16", "306.33"]);
    assert_eq!(of("IV for both;"), ["662.75", "94.66"]);
    assert!(told.options.iter().all(|option| option.left.is_none()));
}

#[test]
fn nobody_but_couples_with_pay_has_a_choice() {
    assert_eq!(told(&Family::single(2025).paper("LStB", "ada", json!({ "3": "54000" }))), None);
    assert_eq!(told(&Family::couple(2025)), None);
}
