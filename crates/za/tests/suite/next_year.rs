//! A household carried forward, and what is due when.

use hembo_core::{Pack, outcome::next_year, search::Stop};
use hembo_testing::za::Family;
use hembo_za::SouthAfrica;
use serde_json::json;

#[test]
fn what_is_left_stands_on_the_last_year_of_the_next() {
    let family =
        Family::single(2025, "1985-06-01").pay("ada", &[("3601", "200000")]).gain("ada", "1", "100001");
    let family = family.paper("Annuity", "ada", json!({ "paid": "60000" }));
    let family = family.rows("Donations", "ada", json!([{ "receipt": "1", "amount": "50000" }]));
    let next = next_year(&family.household(), &SouthAfrica::COMMITTED, &Stop::default()).unwrap();
    assert_eq!(next.year, 2026);
    let paper = next.papers.iter().find(|paper| paper.kind == "Last year").unwrap();
    let boxes = serde_json::to_value(&paper.boxes).unwrap();
    // 27.5 % × 200,000 = 55,000; a tenth of 145,000; 100,000 less 40,000.
    assert_eq!((&boxes["retirement"], &boxes["gifts"]), (&json!("5000.00"), &json!("35500.00")));
    assert_eq!((&boxes["capital_loss"], &boxes["taxable"]), (&json!("60000.00"), &json!("130500.00")));
}

#[test]
fn returns_and_payments_have_their_days() {
    let outcome = Family::single(2025, "1985-06-01")
        .rows("Other income", "ada", json!([{ "amount": "300000" }]))
        .outcome();
    let days = |outcome| -> Vec<String> {
        SouthAfrica::COMMITTED.dates(outcome).iter().map(|due| format!("{} {}", due.day, due.what)).collect()
    };
    assert_eq!(days(&outcome), ["2025-10-20 Return"]);
    let trade =
        Family::single(2025, "1985-06-01").paper("Trade", "ada", json!({ "turnover": "300000" })).outcome();
    assert_eq!(
        days(&trade),
        [
            "2025-08-29 Payment for 2026",
            "2025-09-30 Third payment",
            "2026-01-19 Return",
            "2026-02-27 Payment for 2026"
        ]
    );
}
