//! A household carried forward, and what is due when.

use hembo_core::{Pack, outcome::next_year, search::Stop};
use hembo_nz::NewZealand;
use hembo_testing::nz::Family;
use serde_json::json;

#[test]
fn the_last_assessment_of_the_next_year_is_this_outcome() {
    let family =
        Family::single(2025).pay("ada", "20000", "3000").earlier("ada", [("50000", "900"), ("40000", "0")]);
    let dividend = json!({ "gross": "10000", "imputation": "2800" });
    let family = family.paper("Dividend", "ada", dividend).paper(
        "PIE",
        "ada",
        json!({ "income": "700", "tax": "196" }),
    );
    let house = json!({ "rent": "9000", "reason": "new_build" });
    let family =
        family.shared("Residential property", &[("ada", "100")], house, json!([{ "amount": "9500" }]));
    let next = next_year(&family.household(), &NewZealand::COMMITTED, &Stop::default()).unwrap();
    assert_eq!(next.year, 2026);
    let paper = next.papers.iter().find(|paper| paper.kind == "Last year").unwrap();
    let boxes = serde_json::to_value(&paper.boxes).unwrap();
    assert_eq!((&boxes["taxable.1"], &boxes["taxable.2"]), (&json!("30000.00"), &json!("50000")));
    assert_eq!((&boxes["funds.1"], &boxes["funds.2"]), (&json!("700.00"), &json!("900")));
    assert_eq!(boxes["rental"], json!("500.00"));
}

#[test]
fn returns_balances_and_instalments_have_their_days() {
    let outcome = Family::single(2025).paper("Own trade", "ada", json!({ "turnover": "58000" })).outcome();
    let due = NewZealand::COMMITTED.dates(&outcome);
    let told: Vec<_> =
        due.iter().map(|due| (due.day.to_string(), due.amount.map(|a| a.to_string()))).collect();
    let at = |day: &str, amount: Option<&str>| (day.to_owned(), amount.map(str::to_owned));
    assert_eq!(
        told,
        [
            at("2025-07-07", None),
            at("2025-08-28", Some("3338.19")),
            at("2026-01-15", Some("3338.19")),
            at("2026-02-09", Some("9537.70")),
            at("2026-05-07", Some("3338.21")),
        ]
    );
}
