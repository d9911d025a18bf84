//! How near a date of birth is to one with another tax.

use hembo_core::{
    Household,
    date_edges::{DateEdge, Dates, date_edges},
    search::Stop,
};
use hembo_money::Money;
use hembo_testing::ca::{Family, REGISTRY};
use serde_json::json;

fn edges(household: &Household, dates: Dates) -> Vec<DateEdge> {
    date_edges(household, &REGISTRY, dates, &Stop::default()).unwrap().edges
}

/// 65 by the end of 2025 are those born by 31 December 1960: a day decides on the age amount, and nothing else for a year.
#[test]
fn the_first_other_day_is_found_in_both_directions() {
    for (born, days, first) in [
        ("1960-12-31", 1, "1961-01-01"),
        ("1960-10-01", 92, "1961-01-01"),
        ("1961-01-01", -1, "1960-12-31"),
        ("1961-12-31", -365, "1960-12-31"),
    ] {
        let family = Family::single("AB", born).interest("ada", "30000");
        let found = edges(&family.household(), Dates::Births);
        let [one] = &found[..] else { panic!("{born}: {found:?}") };
        assert_eq!(
            (one.place.person.as_deref(), one.days, one.date.as_str()),
            (Some("ada"), days, first),
            "{born}"
        );
        assert_eq!(one.change.is_negative(), days < 0, "{born}");
    }
    let far = Family::single("AB", "1962-01-02").interest("ada", "30000").household();
    assert!(edges(&far, Dates::Births).is_empty());
    // Nobody waits for what was stopped.
    let stop = Stop::default();
    stop.stop();
    assert_eq!(date_edges(&far, &REGISTRY, Dates::Births, &stop), None);
}

/// A gift of the last days of the year counts in the next year from its first day on; one of the year before may still be claimed.
#[test]
fn a_payment_falls_into_this_year_or_another() {
    let family = |date: &str| {
        let rows = json!([{ "date": date, "what": "Harbour Rescue Society", "amount": "1000" }]);
        Family::single("AB", "1980-01-01").interest("ada", "60000").shared(
            "Gifts",
            &[("ada", "100")],
            json!({}),
            rows,
        )
    };
    for (date, edge) in [("2025-12-30", Some((2, "2026-01-01"))), ("2025-01-01", None), ("2025-07-01", None)]
    {
        let found = edges(&family(date).household(), Dates::Others);
        let edge_of = |one: &DateEdge| (one.days, one.date.clone());
        let near: Vec<_> = found.iter().map(edge_of).filter(|(days, _)| days.abs() < 100).collect();
        assert_eq!(
            near,
            edge.map(|(days, date)| (days, date.to_owned())).into_iter().collect::<Vec<_>>(),
            "{date}"
        );
        assert!(found.iter().all(|one| one.change > Money::ZERO && one.label.ends_with("line 1: Given on")));
    }
    assert!(edges(&family("2025-07-01").household(), Dates::Births).is_empty());
}
