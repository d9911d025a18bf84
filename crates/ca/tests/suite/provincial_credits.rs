//! What provinces give for what was paid: parties, fares, fertility, homes of seniors, activities of children.

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

fn with(province: &str, income: &str, boxes: Value, rows: Value) -> Family {
    let family = Family::single(province, "1980-01-01").interest("ada", income);
    family.shared("Provincial credits", &[("ada", "100")], boxes, rows)
}

#[test]
fn gifts_to_parties_by_province() {
    for (province, given, credit) in [
        ("BC", "100", "75"),
        ("BC", "102", "76"),
        ("BC", "550", "300"),
        ("BC", "1150", "500"),
        ("BC", "1151", "500"),
        ("AB", "200", "150"),
        ("AB", "2300", "1000"),
        ("SK", "1275", "650"),
        ("MB", "2325", "1000"),
        ("NB", "1075", "500"),
        ("NS", "1000", "750"),
        ("NS", "1001", "750"),
        ("NL", "1150", "500"),
        ("PE", "1150", "500"),
        ("YT", "1275", "650"),
        ("NT", "100", "100"),
        ("NT", "102", "101"),
        ("NT", "900", "500"),
        ("NU", "901", "500"),
    ] {
        let plain = with(province, "80000", json!({}), json!([])).outcome();
        let outcome = with(province, "80000", json!({ "parties": given }), json!([])).outcome();
        assert_eq!(line(&outcome, 0, "428.parties"), money(credit), "{province} {given}");
        assert_eq!(
            line(&plain, 0, "42800") - line(&outcome, 0, "42800"),
            money(credit),
            "{province} {given}"
        );
    }
    // Never more than the tax.
    let outcome = with("BC", "10000", json!({ "parties": "1150" }), json!([])).outcome();
    assert_lines(&outcome, 0, &[("428.parties", "0"), ("42800", "0")]);
}

#[test]
fn labour_sponsored_funds_by_province() {
    for (province, slip, credit) in [
        ("SK", "874.99", "874.99"),
        ("SK", "875", "875"),
        ("SK", "876", "875"),
        ("MB", "1800", "1800"),
        ("MB", "1801", "1800"),
        ("NB", "2001", "2000"),
        ("NS", "2001", "2000"),
        ("ON", "500", "0"),
    ] {
        let plain = with(province, "80000", json!({}), json!([])).outcome();
        let outcome = with(province, "80000", json!({ "labour": slip }), json!([])).outcome();
        assert_eq!(line(&plain, 0, "42800") - line(&outcome, 0, "42800"), money(credit), "{province} {slip}");
        assert_eq!(has_point(&outcome, "province-without"), credit == "0", "{province}");
        assert!(outcome.points.iter().all(|point| point.code() != "sums-apart"), "{:?}", outcome.points);
    }
    // After gifts to parties, and never more than the tax.
    let boxes = json!({ "parties": "400", "labour": "875" });
    let outcome = with("SK", "19000", boxes, json!([])).outcome();
    assert!(line(&outcome, 0, "42800").is_zero() && line(&outcome, 0, "428.labour_funds") < money("875"));
}

#[test]
fn ontario_pays_its_out() {
    for (boxes, credit) in [
        (json!({ "parties": "506" }), "379.50"),
        (json!({ "parties": "1689" }), "971"),
        (json!({ "parties": "3842" }), "1688.67"),
        (json!({ "parties": "3900" }), "1688.67"),
        (json!({ "fertility": "20001" }), "5000"),
    ] {
        let outcome = with("ON", "9000", boxes.clone(), json!([])).outcome();
        assert_eq!(line(&outcome, 0, "47900"), money(credit), "{boxes}");
    }
    // Fares of who is 65 at the start of the year.
    for (born, fares, credit) in
        [("1960-01-01", "2999", "449.85"), ("1960-01-01", "3001", "450"), ("1960-01-02", "3001", "0")]
    {
        let family = Family::single("ON", born).interest("ada", "9000");
        let outcome = family.paper("Provincial credits", "ada", json!({ "fares": fares })).outcome();
        assert_eq!(line(&outcome, 0, "47900"), money(credit), "{born} {fares}");
        assert_eq!(has_point(&outcome, "province-without"), credit == "0");
    }
    // Treatment of infertility from 2025 on.
    let outcome = with("ON", "9000", json!({ "fertility": "20000" }), json!([])).in_year(2024).outcome();
    assert_lines(&outcome, 0, &[("47900", "0")]);
    assert!(has_point(&outcome, "province-without"));
}

#[test]
fn others() {
    let child = |amount: &str| json!({ "child": "x", "amount": amount });
    for (province, boxes, rows, credit) in [
        ("BC", json!({ "renovation": "10001" }), json!([]), "1000"),
        ("NB", json!({ "renovation": "9999" }), json!([]), "999.90"),
        ("MB", json!({ "fertility": "40001" }), json!([]), "16000"),
        ("SK", json!({ "fertility": "20000" }), json!([]), "10000"),
        ("NS", json!({ "fertility": "20000" }), json!([]), "8000"),
        ("NS", json!({}), json!([child("501"), child("499")]), "87.81"),
        ("NL", json!({}), json!([child("1500"), child("501")]), "348"),
        ("YT", json!({}), json!([child("1001"), child("500")]), "96"),
        ("SK", json!({}), json!([child("301"), child("100")]), "400"),
    ] {
        let outcome = with(province, "110000", boxes.clone(), rows.clone()).outcome();
        assert_eq!(line(&outcome, 0, "47900"), money(credit), "{province} {boxes} {rows}");
    }
    assert!(has_point(&with("AB", "9", json!({}), json!([child("5")])).outcome(), "province-without"));
}

/// Saskatchewan 2025: 300 for each child up to 120,000 of family income; 2024: 150 up to 60,000.
#[test]
fn active_families_end_at_an_income() {
    let rows = || json!([{ "child": "x", "amount": "1000" }]);
    for (year, income, credit) in [
        (2025, "119999.99", "300"),
        (2025, "120000", "300"),
        (2025, "120000.01", "0"),
        (2024, "60000", "150"),
        (2024, "60000.01", "0"),
    ] {
        let outcome = with("SK", income, json!({}), rows()).in_year(year).outcome();
        assert_eq!(line(&outcome, 0, "47900"), money(credit), "{year} {income}");
    }
    // A contribution of the least that brings it back is found: 1,000 of room, 400 too much income.
    let family = with("SK", "120400", json!({}), rows()).contributions("ada", "1000", "1000");
    assert_lines(&family.outcome(), 0, &[("47900", "300")]);
}
