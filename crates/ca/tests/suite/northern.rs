//! The northern deduction: days, zones, the home, the part of net income, and trips.

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

fn lived(family: Family, who: &str, boxes: Value, trips: Value) -> Family {
    let mut all = json!({ "half_year": true });
    all.as_object_mut().unwrap().extend(boxes.as_object().unwrap().clone());
    family.shared("Northern", &[(who, "100")], all, trips)
}

fn single(income: &str) -> Family {
    Family::single("YT", "1980-01-01").interest("ada", income)
}

/// 11 dollars a day, a half of it in the intermediate zone, twice for who keeps the home, less what the employer bore.
#[test]
fn days_by_zone_and_home() {
    for (boxes, deducted) in [
        (json!({ "days_a": 365, "keeps_home": true }), "8030"),
        (json!({ "days_a": 365 }), "4015"),
        (json!({ "days_a": 364 }), "4004"),
        (json!({ "days_b": 365 }), "2007.50"),
        (json!({ "days_b": 365, "keeps_home": true }), "4015"),
        (json!({ "days_a": 100, "days_b": 265, "keeps_home": true }), "5115"),
        (json!({ "days_a": 365, "keeps_home": true, "site": "2000" }), "6030"),
        (json!({ "days_a": 100, "site": "2000" }), "0"),
    ] {
        let outcome = lived(single("90000"), "ada", boxes.clone(), json!([])).outcome();
        assert_eq!(line(&outcome, 0, "25500"), money(deducted), "{boxes}");
        assert_eq!(line(&outcome, 0, "23600"), money("90000"));
        assert_eq!(line(&outcome, 0, "26000"), money("90000") - money(deducted));
    }
}

#[test]
fn at_most_a_fifth_of_net_income() {
    for (income, deducted) in [("40150", "8030"), ("40149.95", "8029.99"), ("40151", "8030"), ("1000", "200")]
    {
        let home = json!({ "days_a": 365, "keeps_home": true });
        let outcome = lived(single(income), "ada", home, json!([])).outcome();
        assert_eq!(line(&outcome, 0, "25500"), money(deducted), "{income}");
    }
}

#[test]
fn of_a_home_one_claims_all_or_each_a_half() {
    let both = |ada: &str, bo: &str| {
        let family =
            Family::couple("YT", ["1980-01-01", "1981-01-01"]).interest("ada", ada).interest("bo", bo);
        let family = lived(family, "ada", json!({ "days_a": 365, "keeps_home": true }), json!([]));
        lived(family, "bo", json!({ "days_a": 365 }), json!([]))
    };
    // 29 % and more against the lowest rate: all of it with who has more.
    let outcome = both("190000", "50000").outcome();
    assert_lines(&outcome, 0, &[("25500", "8030")]);
    assert_lines(&outcome, 1, &[("25500", "0")]);
    // Alone the smaller income would not hold it: a fifth of 30,000 is 6,000, so that each for oneself takes more.
    let outcome = both("30000", "30000").outcome();
    assert_lines(&outcome, 0, &[("25500", "4015")]);
    assert_lines(&outcome, 1, &[("25500", "4015")]);
    let each = both("190000", "50000").pin("ca.northern", "each").outcome();
    assert!(each.total > both("190000", "50000").outcome().total);
}

#[test]
fn six_months_in_a_row_are_asked() {
    let days = |half: Option<bool>| {
        let mut boxes = json!({ "days_a": 200 });
        if let Some(half) = half {
            boxes["half_year"] = json!(half);
        }
        single("90000").shared("Northern", &[("ada", "100")], boxes, json!([])).outcome()
    };
    assert!(has_point(&days(None), "northern-months"));
    assert_eq!(line(&days(None), 0, "25500"), money("0"));
    assert!(!has_point(&days(Some(false)), "northern-months"));
    assert_eq!(line(&days(Some(false)), 0, "25500"), money("0"));
    assert_eq!(line(&days(Some(true)), 0, "25500"), money("2200"));
    for (a, b, told) in [(200, 165, false), (200, 166, true)] {
        let outcome = lived(single("9"), "ada", json!({ "days_a": a, "days_b": b }), json!([])).outcome();
        assert_eq!(has_point(&outcome, "northern-days"), told);
    }
}

fn trip(purpose: &str, amount: &str, cost: &str, fare: &str) -> Value {
    json!({ "who": "ada", "purpose": purpose,
            "amount": amount, "cost": cost, "fare": fare })
}

/// Of each trip the least of three; of the holidays of a person the two with the most, every medical one.
#[test]
fn trips() {
    let holidays = [
        trip("holiday_allotted", "400", "900", "700"),
        trip("holiday_allotted", "300", "1000", "650"),
        trip("holiday_allotted", "500", "450", "800"),
    ];
    let deducted = |trips: Value| lived(single("90000"), "ada", json!({}), trips).outcome();
    assert_lines(&deducted(json!(holidays)), 0, &[("25500", "850")]);
    let mut medical = holidays.to_vec();
    medical.push(json!({ "who": "ada", "purpose": "medical",
                         "amount": "600", "cost": "200", "fare": "700" }));
    assert_lines(&deducted(json!(medical)), 0, &[("25500", "1050")]);
    let mut of_another = holidays.to_vec();
    of_another[1]["who"] = json!("bo");
    let couple = Family::couple("YT", ["1980-01-01", "1981-01-01"]).interest("ada", "90000");
    assert_lines(&lived(couple, "ada", json!({}), json!(of_another)).outcome(), 0, &[("25500", "1150")]);
    let from_nearer = lived(
        single("90000"),
        "ada",
        json!({ "zone": "intermediate" }),
        json!([trip("holiday", "400", "900", "700")]),
    );
    assert_lines(&from_nearer.outcome(), 0, &[("25500", "200")]);
    for (amount, told) in [("500", false), ("500.01", true)] {
        let mut all = holidays.to_vec();
        all[2]["amount"] = json!(amount);
        assert_eq!(has_point(&deducted(json!(all)), "northern-allotted"), told, "{amount}");
    }
}
