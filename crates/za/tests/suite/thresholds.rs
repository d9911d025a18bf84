//! One unit below, at and above what the law names.

use hembo_testing::za::{Family, assert_lines, has_point, line, money};
use serde_json::json;

#[test]
fn the_table_and_the_rebates_by_age() {
    for (year, taxable, table) in [
        (2024, "237100", "42678"),
        (2026, "237101", "42678.26"),
        (2026, "370500", "77362"),
        (2026, "370501", "77362.31"),
        (2026, "512800", "121475"),
        (2026, "512801", "121475.36"),
        (2026, "673000", "179147"),
        (2026, "673001", "179147.39"),
        (2026, "857900", "251258"),
        (2026, "857901", "251258.41"),
        (2025, "1817000", "644489"),
        (2025, "1817001", "644489.45"),
        (2025, "2500000", "951839"),
        (2025, "300000.99", "59032"),
    ] {
        let outcome = Family::single(year, "1985-06-01").pay("ada", &[("3601", taxable)]).outcome();
        assert_eq!(line(&outcome, 0, "table_tax"), money(table), "{taxable} in {year}");
    }
    for (born, pay, tax) in [
        ("1985-06-01", "95750", "0"),
        ("1985-06-01", "95751", "0.18"),
        ("1955-06-01", "148217", "0.06"),
        ("1955-06-01", "148216", "0"),
        ("1945-06-01", "165689", "0.02"),
        ("1945-06-01", "165688", "0"),
        // Sixty-five on the last day, and on the day after it.
        ("1960-02-28", "300000", "32353"),
        ("1960-03-01", "300000", "41797"),
    ] {
        let outcome = Family::single(2025, born).pay("ada", &[("3601", pay)]).outcome();
        assert_eq!(line(&outcome, 0, "normal_tax"), money(tax), "{born} {pay}");
    }
}

#[test]
fn exempt_interest_and_foreign_dividends() {
    let taxable = |born: &str, interest: &str| {
        line(&Family::single(2026, born).interest("ada", interest).outcome(), 0, "taxable_income")
    };
    assert_eq!(taxable("1985-06-01", "23800"), money("0"));
    assert_eq!(taxable("1985-06-01", "23801"), money("1"));
    assert_eq!(taxable("1961-02-28", "34500"), money("0"));
    assert_eq!(taxable("1961-02-28", "34501"), money("1"));
    let foreign =
        Family::single(2026, "1985-06-01").paper("IT3(b)", "ada", json!({ "dividends_foreign": "9000" }));
    assert_lines(&foreign.outcome(), 0, &[("dividends_foreign_taxable", "4000")]);
}

#[test]
fn contributions_by_the_least_of_three() {
    for (pay, gain, paid, most, deducted, carried) in [
        ("500000", "0", "100000", "137500", "100000", "0"),
        ("1500000", "0", "500000", "350000", "350000", "150000"),
        ("1272727.27", "0", "400000", "349999.99", "349999.99", "50000.01"),
    ] {
        let family = Family::single(2026, "1985-06-01").pay("ada", &[("3601", pay)]).gain("ada", gain, "0");
        let outcome = family.paper("Annuity", "ada", json!({ "paid": paid })).outcome();
        let expected =
            [("retirement_limit", most), ("retirement_deduction", deducted), ("retirement_cf", carried)];
        assert_lines(&outcome, 0, &expected);
    }
    // Income of 120,000 of which 100,000 is taxable gain: only the rest.
    let family =
        Family::single(2026, "1985-06-01").rows("Other income", "ada", json!([{ "amount": "20000" }]));
    let family = family.gain("ada", "290000", "0").paper("Annuity", "ada", json!({ "paid": "30000" }));
    assert_lines(
        &family.outcome(),
        0,
        &[("taxable_capital_gain", "100000"), ("retirement_deduction", "20000"), ("retirement_cf", "10000")],
    );
    // The employer's part that 4001 does not hold is added once.
    let apart = Family::single(2026, "1985-06-01")
        .pay("ada", &[("3601", "300000"), ("3817", "9000"), ("4001", "4000")]);
    let outcome = apart.outcome();
    assert_lines(&outcome, 0, &[("retirement_contributions", "13000")]);
    assert!(has_point(&outcome, "C11"));
}

#[test]
fn gains_exclusion_and_losses() {
    let of = |proceeds: &str, cost: &str, brought: &str| {
        let family = Family::single(2026, "1985-06-01").gain("ada", proceeds, cost);
        family.paper("Last year", "ada", json!({ "capital_loss": brought })).outcome()
    };
    for (proceeds, cost, brought, taxable, carried) in [
        ("40000", "0", "0", "0", "0"),
        ("40001", "0", "0", "0.40", "0"),
        ("150000", "0", "50000", "24000", "0"),
        ("0.01", "55000.01", "0", "0", "15000"),
        ("60000", "0", "50000", "0", "30000"),
        ("0.01", "40000.01", "500", "0", "500"),
    ] {
        let expected = [("taxable_capital_gain", taxable), ("capital_loss_cf", carried)];
        assert_lines(&of(proceeds, cost, brought), 0, &expected);
    }
    let home = |proceeds: &str, cost: &str, percent: i64| {
        let line = json!([{ "kind": "home", "proceeds": proceeds, "cost": cost, "home_percent": percent }]);
        Family::single(2026, "1985-06-01").rows("Assets sold", "ada", line).outcome()
    };
    assert_lines(
        &home("3000000", "1000000", 80),
        0,
        &[("gains_net", "400000"), ("taxable_capital_gain", "144000")],
    );
    assert_lines(&home("2000000", "100000", 100), 0, &[("gains_net", "0")]);
    assert_lines(&home("3000001", "1000000", 100), 0, &[("gains_net", "1")]);
    assert_lines(&home("1000000", "1500000", 100), 0, &[("gains_net", "0")]);
}

#[test]
fn medical_credits_by_case() {
    let of = |born: &str, pay: &str, paid: &str, members: i64, bills: &str| {
        let family = Family::single(2026, born).pay("ada", &[("3601", pay)]);
        let family = family.paper("Scheme", "ada", json!({ "paid": paid, "all": members }));
        line(
            &family.rows("Medical bills", "ada", json!([{ "amount": bills }])).outcome(),
            0,
            "additional_medical_credit_full",
        )
    };
    assert_eq!(of("1985-06-01", "455700", "72000", 3, "25000"), money("4017.63"));
    assert_eq!(of("1985-06-01", "400000", "30000", 2, "10000"), money("0"));
    assert_eq!(of("1985-06-01", "300000", "60000", 1, "0"), money("5007"));
    assert_eq!(of("1955-06-01", "455700", "72000", 3, "25000"), money("20624.69"));
    assert_eq!(of("1955-06-01", "320500", "84000", 2, "31000"), money("29567.74"));
    // Above the floor by a cent: 42,528 − 17,472... of 1 person: 60,000 − 17,472 = 42,528 = 7.5 % of 567,040.
    assert_eq!(of("1985-06-01", "567040", "60000", 1, "0"), money("0"));
    assert_eq!(of("1985-06-01", "567040", "60000", 1, "0.04"), money("0.01"));
    let scheme = |members: i64| {
        let family = Family::single(2026, "1985-06-01").pay("ada", &[("3601", "400000")]);
        line(&family.paper("Scheme", "ada", json!({ "all": members })).outcome(), 0, "medical_credit")
    };
    assert_eq!([scheme(0), scheme(1), scheme(2), scheme(3)], ["0", "4368", "8736", "11688"].map(money));
}

#[test]
fn work_abroad_by_days() {
    let exempt = |amount: &str, days: i64, run: i64| {
        let boxes = json!({ "amount": amount, "days": days, "run": run });
        line(
            &Family::single(2026, "1985-06-01").paper("Work abroad", "ada", boxes).outcome(),
            0,
            "foreign_employment_exempt",
        )
    };
    assert_eq!(exempt("600000", 183, 90), money("0"));
    assert_eq!(exempt("600000", 200, 60), money("0"));
    assert_eq!(exempt("600000", 184, 61), money("600000"));
    assert_eq!(exempt("1250000.01", 184, 61), money("1250000"));
}

#[test]
fn penalties_of_estimates() {
    for (actual, last, second, paye, expected) in [
        ("600000", "500000", "450000", "5228", "2054.40"),
        ("600000", "500000", "545000", "0", "0"),
        ("600000", "500000", "540000", "0", "0"),
        ("600000", "500000", "539999", "0", "0"),
        ("600000", "500000", "499999", "0", "0.06"),
    ] {
        let family =
            Family::single(2026, "1985-06-01").rows("Other income", "ada", json!([{ "amount": actual }]));
        let family = if paye == "0" { family } else { family.pay("ada", &[("4102", paye)]) };
        let family = family.paper("Last year", "ada", json!({ "taxable": last }));
        let boxes = json!({ "estimate_1": second, "estimate_2": second });
        let outcome = family.shared("IRP6", &[("ada", "100")], boxes, json!([{ "amount": "0" }])).outcome();
        let paid = line(&outcome, 0, "provisional_1")
            + line(&outcome, 0, "provisional_2")
            + line(&outcome, 0, "paye");
        let penalty = line(&outcome, 0, "underestimation_penalty");
        if second == "450000" {
            // 20 % of what the tax on 500,000 is above what was paid in time.
            assert_eq!(penalty.cents(), (10_027_200 - paid.cents()) / 5);
        } else {
            assert_eq!(penalty, money(expected), "{second}");
        }
    }
}

#[test]
fn small_results_stay_on_the_account() {
    let of = |paye: &str| {
        Family::single(2026, "1985-06-01").pay("ada", &[("3601", "500000"), ("4102", paye)]).outcome()
    };
    // Tax is 100,272.00.
    assert_lines(&of("100172"), 0, &[("to_pay", "100"), ("on_account", "0"), ("balance_due", "100")]);
    assert_lines(&of("100172.01"), 0, &[("to_pay", "0"), ("on_account", "99.99"), ("balance_due", "0")]);
    assert_lines(&of("100371.99"), 0, &[("refund", "0"), ("on_account", "-99.99")]);
    assert_lines(&of("100372"), 0, &[("refund", "100"), ("balance_due", "-100")]);
}

#[test]
fn tax_free_accounts() {
    let penalty = |paid: &str, before: &str| {
        let boxes = json!({ "paid": paid, "before": before });
        line(
            &Family::single(2026, "1985-06-01").paper("IT3(s)", "ada", boxes).outcome(),
            0,
            "tax_free_penalty",
        )
    };
    assert_eq!(penalty("36000", "0"), money("0"));
    assert_eq!(penalty("36001", "0"), money("0.40"));
    assert_eq!(penalty("36000", "464000"), money("0"));
    assert_eq!(penalty("36000", "464001"), money("0.40"));
    assert_eq!(penalty("36000", "480000"), money("6400"));
}

#[test]
fn deemed_cost_by_the_value_of_the_vehicle() {
    let deemed = |year: i32, value: &str| {
        let family = Family::single(year, "1985-06-01").pay("ada", &[("3601", "420000"), ("3701", "120000")]);
        let boxes =
            json!({ "value": value, "total_km": 10000, "business_km": 1000, "logbook": true, "costs": "10" });
        family.paper("Logbook", "ada", boxes).outcome()
    };
    // 135,048 → 1,350.48 c; 159,934 → 1,599.34 c a kilometre, with fuel and maintenance.
    assert_lines(&deemed(2025, "500000"), 0, &[("travel_deemed", "16391.80")]);
    assert_lines(&deemed(2025, "500000.01"), 0, &[("travel_deemed", "19327.40")]);
    let without = deemed(2026, "500000");
    let decision = without.decisions.iter().find(|decision| decision.id == "za.travel.ada").unwrap();
    assert_eq!(decision.options[0].barred.as_deref(), Some("the notice of this year is not known"));
    assert!(has_point(&without, "C61"));
}
