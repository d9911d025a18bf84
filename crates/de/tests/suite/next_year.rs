//! What changes with the year for a household that is carried forward, and when things are due.

use hembo_core::{Pack, household::Entry, outcome::next_year, search::Stop};
use hembo_de::Germany;
use hembo_money::Money;
use hembo_testing::de::{Family, money};
use serde_json::json;

#[test]
fn pensions_are_fixed_things_go_on_and_renovations_come_to_their_next_year() {
    let before = Family::single(2024)
        .paper("Rente", "ada", json!({ "gross": "10000", "start": 2023 }))
        .paper("Rente", "ada", json!({ "gross": "10000", "start": 2024 }))
        .paper("Rente", "ada", json!({ "gross": "9000", "start": 2015, "free": "2500" }))
        .rows(
            "Equipment",
            "ada",
            json!([
                { "what": "Desk", "price": "1309", "years": 13, "bought": "2024-07-04" },
                { "what": "Lamp", "price": "90", "bought": "2024-07-04" },
                { "what": "Old chair", "price": "1309", "years": 3, "bought": "2022-01-04" },
            ]),
        )
        .rows(
            "Household",
            "ada",
            json!([{ "kind": "energy_1", "amount": "9000" }, { "kind": "crafts", "amount": "80" }]),
        )
        .rows("Way to work", "ada", json!([{ "days": 90, "km": "17", "by": "transit", "ticket": "300" }]))
        .household();
    let next = next_year(&before, &Germany::COMMITTED, &Stop::default()).unwrap();
    // 10,000 × (100 − 82.5) % of the year after the start; the others stay.
    let free: Vec<Money> =
        next.papers.iter().filter(|paper| paper.kind == "Rente").map(|paper| paper.amount("free")).collect();
    assert_eq!(free, ["1750", "0", "2500"].map(money));
    let rows = |kind: &str, column: &str| -> Vec<String> {
        let paper = next.papers.iter().find(|paper| paper.kind == kind).unwrap();
        paper.rows.iter().filter_map(|row| row.get(column).and_then(Entry::text).map(str::to_owned)).collect()
    };
    assert_eq!(rows("Equipment", "what"), ["Desk"]);
    assert_eq!(rows("Household", "kind"), ["energy_2"]);
    // Distance and means last, days and tickets are asked anew.
    let way = next.papers.iter().find(|paper| paper.kind == "Way to work").unwrap();
    assert_eq!(serde_json::to_value(&way.rows[0].cells).unwrap(), json!({ "km": "17", "by": "transit" }));
}

#[test]
fn prepayments_follow_a_balance_that_is_not_small() {
    let due = |result: &str| {
        let family = Family::single(2025)
            .paper("Result", "ada", json!({ "kind": "freelance", "result": result }))
            .outcome();
        let dates = Germany::COMMITTED.dates(&family);
        (family.balance, dates.into_iter().filter_map(|due| due.amount).collect::<Vec<_>>())
    };
    // Taxable 14,495: y = 0.2399, (932.30 × 0.2399 + 1,400) × 0.2399 = 389.51; 14,564 is the first with 400.
    assert_eq!(due("14500"), (money("383"), Vec::new()));
    let (balance, quarters) = due("14700");
    assert!(balance >= money("400"), "{balance}");
    assert_eq!(quarters.len(), 4);
}
