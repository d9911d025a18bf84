//! A household carried forward into the next return year: what the law carries over.

use hembo_ca::Canada;
use hembo_core::{
    Household,
    check::faults,
    outcome::{Beside, compared, next_year},
    search::Stop,
};
use hembo_testing::ca::{Family, REGISTRY, assert_lines, money};
use serde_json::{Value, json};
use std::collections::BTreeMap;

fn forward(family: &Family) -> Household {
    next_year(&family.household(), &Canada::COMMITTED, &Stop::default()).unwrap()
}

/// Boxes and lists of the papers of a kind.
fn papers(next: &Household, kind: &str) -> Vec<Value> {
    let of_kind = next.papers.iter().filter(|paper| paper.kind == kind);
    of_kind
        .map(|paper| json!([paper.boxes, paper.rows.iter().map(|row| &row.cells).collect::<Vec<_>>()]))
        .collect()
}

#[test]
fn what_is_left_goes_into_the_papers_of_the_next_year() {
    // Nothing to tax: all that was saved, lent and lost is kept.
    let family = Family::single("BC", "1999-06-06")
        .in_year(2024)
        .paper("FHSA", "ada", json!({ "room": "8000", "paid": "5000" }))
        .paper("Capital losses", "ada", json!({ "left": "900" }))
        .shared("Loan interest", &[("ada", "100")], json!({}), json!([{ "year": 2021, "amount": "120" }]))
        .shared(
            "Schedule 3",
            &[("ada", "100")],
            json!({}),
            json!([{ "kind": "bonds", "proceeds": "100", "cost": "500" }]),
        )
        .paper("Other deductions", "ada", json!({ "moving": "2000", "moving.earned": "300" }))
        .tuition("ada", "4000");
    let next = forward(&family);
    assert_eq!(next.year, 2025);
    assert_eq!(papers(&next, "FHSA"), [json!([{ "unused": "5000.00" }, []])]);
    assert_eq!(papers(&next, "Capital losses"), [json!([{ "left": "1100.00" }, []])]);
    assert_eq!(papers(&next, "Other deductions"), [json!([{ "moving.earlier": "1700.00" }, []])]);
    assert_eq!(papers(&next, "Loan interest"), [json!([{}, [{ "year": 2021, "amount": "120.00" }]])]);
    assert_eq!(
        papers(&next, "Tuition carried"),
        [json!([{ "federal": "4000.00", "provincial": "4000.00" }, []])]
    );
}

#[test]
fn who_outlived_a_partner_is_widowed() {
    let couple = Family::couple("AB", ["1950-01-01"; 2]).in_year(2024);
    for (died, marital) in [("2024-12-31", "widowed"), ("2025-01-01", "married")] {
        let next = forward(&couple.clone().set("bo", "/died", json!(died)));
        assert_eq!(json!(next.answers["marital"]), json!(marital), "{died}");
        assert_eq!(next.people.len(), if marital == "widowed" { 1 } else { 2 });
    }
}

/// What a way leaves stands beside its tax, and at its worth to the preparer below it: the tax itself stays as it is.
#[test]
fn what_ways_leave_is_told_beside_them() {
    let family = Family::couple("AB", ["1980-01-01"; 2]).employed("ada", "60000");
    let mut household = family.contributions("ada", "15000", "10000").household();
    let way = |amount: &str| BTreeMap::from([("ca.rrsp.ada".to_owned(), amount.to_owned())]);
    let beside = |household: &Household, ways: Vec<_>| {
        let beside = Beside { ways, all_rows: false };
        compared(household, &REGISTRY, &beside, &Stop::default()).unwrap()
    };
    let plain = beside(&household, vec![way("4000"), way("9999.99")]);
    let [left] = &plain.later[..] else { panic!("{:?}", plain.later) };
    assert_eq!((left.line.as_str(), left.worth), ("ca.rrsp.carried", None));
    assert_eq!(left.amounts, [money("0"), money("6000"), money("0.01")]);
    assert!(plain.less_later.is_empty());
    household.worth.insert("ca.rrsp.carried".into(), "0.3".parse().unwrap());
    let valued = beside(&household, vec![way("4000"), way("9999.99")]);
    assert_eq!(valued.ways, plain.ways);
    let less: Vec<_> =
        valued.ways.iter().zip(&valued.less_later).map(|(way, less)| way.total - *less).collect();
    assert_eq!(less, [money("0"), money("1800"), money("0")]);
    // Of what nothing is left, and more than all of a unit, no worth can be said.
    for (line, worth, told) in
        [("ca.42900", "0.3", "Nothing of this line"), ("ca.rrsp.carried", "1.01", "one at the most")]
    {
        let wrong = Household {
            worth: BTreeMap::from([(line.to_owned(), worth.parse().unwrap())]),
            ..household.clone()
        };
        let faults = faults(&wrong, &REGISTRY);
        assert!(faults.len() == 1 && faults[0].message.contains(told), "{faults:?}");
        assert_eq!(faults[0].at, format!("/worth/{line}"));
    }
}

#[test]
fn contributions_that_are_kept_stand_on_the_next_years_paper() {
    let rows = json!([{ "date": "2024-11-03", "plan": "own", "amount": "6000" }]);
    let family = Family::single("ON", "1980-01-01").in_year(2024).interest("ada", "60000");
    let family = family.shared("RRSP", &[("ada", "100")], json!({ "limit": "4000" }), rows);
    let outcome = family.outcome();
    assert_lines(&outcome, 0, &[("20800", "4000"), ("rrsp.carried", "2000")]);
    assert_eq!(papers(&forward(&family), "RRSP"), [json!([{ "unused": "2000.00" }, []])]);
}

#[test]
fn a_ledger_is_kept_on_with_all_its_lines() {
    let rows = json!([
        { "date": "2020-02-03", "what": "bought", "number": "30", "amount": "600" },
        { "date": "2024-05-06", "what": "sold", "number": "10", "amount": "150" },
    ]);
    let family = Family::single("BC", "1980-06-06").in_year(2024);
    let next =
        forward(&family.shared("Shares", &[("ada", "100")], json!({ "currency": "USD" }), rows.clone()));
    assert_eq!(papers(&next, "Shares"), [json!([{ "currency": "USD" }, rows])]);
}
