//! Non-capital losses: of earlier years, and of this one.

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

fn single(income: &str) -> Family {
    Family::single("AB", "1980-01-01").interest("ada", income)
}

fn lost(family: Family, year: i64, amount: &str) -> Family {
    let rows = json!([{ "year": year, "amount": amount }]);
    family.shared("Non-capital losses", &[("ada", "100")], json!({}), rows)
}

#[test]
fn of_earlier_years_below_net_income() {
    let outcome = lost(single("50000"), 2010, "8000").outcome();
    assert_lines(
        &outcome,
        0,
        &[("23600", "50000"), ("25200", "8000"), ("26000", "42000"), ("noncapital.carried", "0")],
    );
    // Nothing is used where there is no tax, and no more than lowers it: 2025 leaves 16,129 free of federal tax, 22,323 in Alberta.
    let outcome = lost(single("10000"), 2010, "8000").outcome();
    assert_lines(&outcome, 0, &[("25200", "0"), ("noncapital.carried", "8000")]);
    let outcome = lost(single("20000"), 2010, "8000").outcome();
    assert_lines(
        &outcome,
        0,
        &[("25200", "3871"), ("26000", "16129"), ("42900", "0"), ("noncapital.carried", "4129")],
    );
    // A pinned amount goes no further than the income.
    let outcome = lost(single("5000"), 2010, "8000").pin("ca.noncapital.ada", "8000").outcome();
    assert_lines(&outcome, 0, &[("25200", "5000"), ("26000", "0"), ("noncapital.carried", "3000")]);
}

#[test]
fn twenty_years() {
    for (year, used, told) in
        [(2004, "0", true), (2005, "8000", false), (2024, "8000", false), (2025, "0", true)]
    {
        let outcome = lost(single("50000"), year, "8000").outcome();
        assert_eq!(line(&outcome, 0, "25200"), money(used), "{year}");
        assert_eq!(has_point(&outcome, "noncapital-year"), told, "{year}");
    }
}

fn business(family: Family, loss: &str) -> Family {
    let rows = json!([{ "what": "x", "kind": "full", "amount": loss }]);
    family.shared("T2125", &[("ada", "100")], json!({ "gross": "0" }), rows)
}

fn paid(amount: &str) -> Family {
    let boxes: Value = json!({ "14": amount, "28.cpp": true, "28.ei": true });
    Family::single("AB", "1980-01-01").paper("T4", "ada", boxes)
}

/// 111(8): losses above other income less deductions from all income, which make no loss of their own.
#[test]
fn of_this_year() {
    for (pay, loss, more, of_year) in [
        ("4000", "10000", json!({}), "6000"),
        ("9999.99", "10000", json!({}), "0.01"),
        ("10000", "10000", json!({}), "0"),
        ("15000", "10000", json!({}), "0"),
        // Moving costs of 7,000 take the income of 15,000 first: 8,000 are left against 10,000.
        ("15000", "10000", json!({ "moving": "7000", "moving.earned": "15000" }), "2000"),
        ("4000", "10000", json!({ "moving": "4000", "moving.earned": "4000" }), "10000"),
        // Dues are part of pay: a loss of employment of their own.
        ("4000", "10000", json!({ "dues": "5000" }), "11000"),
    ] {
        let outcome = business(paid(pay), loss).paper("Other deductions", "ada", more.clone()).outcome();
        assert_eq!(line(&outcome, 0, "noncapital.year"), money(of_year), "{pay} {more}");
        assert_eq!(line(&outcome, 0, "noncapital.carried"), money(of_year), "{pay} {more}");
        assert_eq!(has_point(&outcome, "T1A-noncapital"), of_year != "0");
    }
    // Carrying charges above the income of property.
    let outcome = single("100").paper("Other deductions", "ada", json!({ "carrying": "600" })).outcome();
    assert_lines(&outcome, 0, &[("noncapital.year", "500"), ("23600", "0")]);
}

/// Worked by hand, Alberta 2025: 60,000 and 20,000 abroad, with 3,000 of tax there; a loss of 30,000 leaves 50,000 taxable. Federal tax is
/// 7,250.00 less 2,338.71; the credit is its part of 20,000 in 80,000, as such a loss does not make the whole less (126(1)(b)).
#[test]
fn a_loss_leaves_the_part_that_foreign_income_is_of_all() {
    let abroad = json!([{ "country": "Fiji", "income": "20000", "tax": "3000" }]);
    let family =
        lost(single("60000"), 2010, "30000").shared("Foreign income", &[("ada", "100")], json!({}), abroad);
    let outcome = family.pin("ca.noncapital.ada", "30000").pin("ca.foreign.ada", "credit").outcome();
    assert_lines(&outcome, 0, &[("26000", "50000"), ("42900", "4911.29"), ("40500", "1227.82")]);
}
