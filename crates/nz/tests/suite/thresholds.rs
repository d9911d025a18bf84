//! One unit below, at and above what the law names.

use hembo_core::{Outcome, Pack};
use hembo_nz::{NewZealand, ird_number};
use hembo_testing::nz::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

#[test]
fn the_scales_of_all_years_at_their_borders() {
    let table = [
        ("0.01", ["0.00", "0.00", "0.00"]),
        ("13999.99", ["1470.00", "1470.00", "1470.00"]),
        ("14000", ["1470.00", "1470.00", "1470.00"]),
        ("14001", ["1470.18", "1470.13", "1470.11"]),
        ("15600", ["1750.00", "1675.12", "1638.00"]),
        ("15601", ["1750.18", "1675.30", "1638.18"]),
        ("23999", ["3219.83", "3144.95", "3107.83"]),
        ("47999", ["7419.83", "7344.95", "7307.83"]),
        ("48001", ["7420.30", "7345.34", "7308.18"]),
        ("53499", ["9069.70", "8535.10", "8270.33"]),
        ("53501", ["9070.30", "8535.62", "8270.80"]),
        ("69999", ["14019.70", "13485.02", "13220.20"]),
        ("70001", ["14020.33", "13485.63", "13220.80"]),
        ("78099", ["16692.67", "15995.20", "15650.20"]),
        ("78101", ["16693.33", "15995.84", "15650.83"]),
        ("179999", ["50319.67", "49622.18", "49277.17"]),
        ("180001", ["50320.39", "49622.90", "49277.89"]),
        ("250000", ["77620.00", "76922.51", "76577.50"]),
    ];
    for (income, taxes) in table {
        for (year, tax) in [2024, 2025, 2026].into_iter().zip(taxes) {
            let outcome = Family::single(year).interest("ada", income).outcome();
            assert_eq!(line(&outcome, 0, "tax"), money(tax), "{income} in {year}");
        }
    }
}

#[test]
fn the_independent_earner_credit() {
    for (year, net, credit) in [
        (2026, "23999.99", "0"),
        (2026, "24000", "520"),
        (2026, "66000", "520"),
        (2026, "66000.99", "520"),
        (2026, "66001", "519.87"),
        (2026, "67000", "390"),
        (2026, "69999", "0.13"),
        (2026, "70000", "0"),
        (2025, "44000", "520"),
        (2025, "46000", "433.81"),
        (2025, "48000", "347.62"),
        (2025, "66000", "347.62"),
        (2025, "67000", "260.71"),
        (2025, "69000", "86.90"),
        (2025, "70000", "0"),
        (2024, "44000", "520"),
        (2024, "44001", "519.87"),
        (2024, "47000", "130"),
        (2024, "48000", "0"),
    ] {
        let family = Family::single(year).interest("ada", net);
        assert_eq!(line(&family.outcome(), 0, "ietc"), money(credit), "{net} in {year}");
    }
    let family = Family::single(2026).interest("ada", "30000");
    let months = |months: i64| family.clone().answer_for("ada", "benefit_months", json!(months)).outcome();
    assert_lines(&months(1), 0, &[("ietc", "476.67")]);
    assert_lines(&months(12), 0, &[("ietc", "0")]);
}

#[test]
fn the_levy_drops_fractions_and_ends_at_its_most() {
    for (year, gross, levy) in [
        (2024, "139383", "2132.55"),
        (2024, "139384", "2132.57"),
        (2024, "139385", "2132.57"),
        (2025, "142283", "2276.52"),
        (2025, "142284", "2276.52"),
        (2026, "152789", "2551.57"),
        (2026, "152790", "2551.59"),
        (2026, "200000", "2551.59"),
    ] {
        let outcome = Family::single(year).pay("ada", gross, "60000").outcome();
        assert_eq!(line(&outcome, 0, "earner_levy"), money(levy), "{gross} in {year}");
    }
    let free = json!({ "gross": "60000", "paye": "11000", "free": "10000" });
    assert_lines(&Family::single(2026).paper("Pay", "ada", free).outcome(), 0, &[("earner_levy", "835")]);
}

#[test]
fn funds_by_both_methods_and_the_cost_that_decides() {
    let holding = |[opening, bought, sold, dividends, closing]: [&str; 5], cost: &str| {
        let boxes = json!({
            "country": "US", "cost": cost, "opening": opening, "purchases": bought, "sales": sold, "dividends": dividends,
            "closing": closing,
        });
        Family::single(2026).pay("ada", "90000", "20000").paper("Foreign fund", "ada", boxes).outcome()
    };
    for (values, fair, compared, lower) in [
        (["100000", "0", "0", "2000", "108000"], "5000", "10000", "5000"),
        (["100000", "0", "0", "2000", "95000"], "5000", "0", "0"),
        (["80000", "20000", "0", "1500", "103000"], "4000", "4500", "4000"),
        (["60000", "0", "10000", "900", "51000"], "3000", "1900", "1900"),
    ] {
        let outcome = holding(values, "60000");
        assert_lines(&outcome, 0, &[("fif.fdr", fair), ("fif.cv", compared), ("fif_income", lower)]);
    }
    // At 50,000 dividends may be taxed as such; a cent above they may not.
    let values = ["40000", "0", "0", "100", "60000"];
    assert_lines(&holding(values, "50000"), 0, &[("overseas_income", "100"), ("fif_income", "0")]);
    let above = holding(values, "50000.01");
    assert_lines(&above, 0, &[("overseas_income", "0"), ("fif_income", "2000")]);
    let decision = above.decisions.iter().find(|d| d.id == "nz.funds.ada").unwrap();
    assert_eq!(decision.options[0].barred.as_deref(), Some("they cost more than 50,000"));
    // Crossing the line once in the year decides it too.
    let once = json!({ "country": "US", "cost": "40000", "highest": "50001", "opening": "40000", "closing": "60000" });
    assert_lines(
        &Family::single(2026).paper("Foreign fund", "ada", once).outcome(),
        0,
        &[("fif_income", "2000")],
    );
}

#[test]
fn the_rate_of_managed_funds_by_two_years() {
    for (last, before, tax) in [
        (("15000", "1000"), ("60000", "2000"), "105"),
        (("52000", "3000"), ("90000", "0"), "175"),
        (("50000", "30000"), ("54000", "1000"), "280"),
        (("15600", "37900"), ("80000", "0"), "105"),
        (("15600", "37901"), ("53500", "24600"), "175"),
        (("15600.01", "0"), ("80000", "0"), "175"),
        (("53500", "24600.01"), ("80000", "0"), "280"),
    ] {
        let family = Family::single(2026).paper("PIE", "ada", json!({ "income": "1000", "tax": "280" }));
        let outcome = family.earlier("ada", [last, before]).outcome();
        assert_eq!(line(&outcome, 0, "pie_tax_due"), money(tax), "{last:?} {before:?}");
    }
    let alone =
        Family::single(2026).paper("PIE", "ada", json!({ "income": "1000", "tax": "175", "rate": "17.5" }));
    let outcome = alone.outcome();
    assert_lines(&outcome, 0, &[("pie_tax_due", "280"), ("pie_adjustment", "105")]);
    assert!(has_point(&outcome, "C63") && has_point(&outcome, "C25"));
}

#[test]
fn families_by_scheme_income() {
    let family = |year: i32, income: &str, children: &[&str]| {
        let family = Family::single(year).paper("Own trade", "ada", json!({ "turnover": income }));
        let born = children.iter().enumerate();
        let family = born.fold(family, |family, (at, born)| family.child(&format!("c{at}"), born));
        family.pin("nz.families", "claim").outcome()
    };
    let (one, three) = (["2015-05-05"], ["2015-05-05", "2014-05-05", "2013-05-05"]);
    for (income, of_one, of_three) in [
        ("42700", "12574", "24802"),
        ("42700.99", "12574", "24802"),
        ("42701", "12573.73", "24801.73"),
        ("50000", "10603", "22831"),
        ("60000", "7903", "20131"),
        ("80000", "2503", "14731"),
        ("100000", "0", "9331"),
        ("140000", "0", "0"),
    ] {
        assert_eq!(line(&family(2026, income, &one), 0, "wff_total"), money(of_one), "{income}");
        assert_eq!(line(&family(2026, income, &three), 0, "wff_total"), money(of_three), "{income}");
    }
    // The in-work credit of 2024-25 by days, that of a fourth child, and of a year before.
    assert_lines(&family(2025, "40000", &one), 0, &[("in_work", "4639.04"), ("family_tax_credit", "7504")]);
    let four = ["2015-05-05", "2014-05-05", "2013-05-05", "2012-05-05"];
    assert_lines(&family(2026, "40000", &four), 0, &[("in_work", "5850")]);
    assert_lines(&family(2024, "40000", &one), 0, &[("in_work", "3770"), ("family_tax_credit", "7121")]);
    // Eighteen in the year: counted up to the day before.
    assert_lines(&family(2026, "40000", &["2007-10-01"]), 0, &[("family_tax_credit", "3762.28")]);
}

#[test]
fn best_start_by_age_and_income() {
    let start = |born: &str, income: &str| {
        let family =
            Family::single(2026).paper("Own trade", "ada", json!({ "turnover": income })).child("cy", born);
        line(&family.pin("nz.families", "claim").outcome(), 0, "best_start")
    };
    for (income, credit) in
        [("79000", "3838"), ("79001", "3837.79"), ("86000", "2368"), ("95000", "478"), ("97277", "0")]
    {
        assert_eq!(start("2024-03-10", income), money(credit), "{income}");
    }
    // Born in the year: by days at any income. The third birthday ends it.
    assert_eq!(start("2025-10-01", "200000"), money("1913.74"));
    assert_eq!(start("2022-04-02", "50000"), money("10.52"));
    assert_eq!(start("2022-04-01", "50000"), money("0"));
}

#[test]
fn family_boost_by_quarter() {
    for (fees, income, before, since) in [
        ("2000", "30000", "500", "800"),
        ("3900", "35000", "975", "1560"),
        ("5000", "36000", "877.50", "1490"),
        ("3900", "40000", "487.50", "1210"),
        ("3900", "45000", "0", "860"),
        ("3900", "57000", "0", "20"),
    ] {
        let quarter = |quarter: &str| {
            let rows = json!([{ "quarter": quarter, "fees": fees, "income": income }]);
            line(&Family::single(2026).rows("FamilyBoost", "ada", rows).outcome(), 0, "familyboost")
        };
        assert_eq!((quarter("1"), quarter("2")), (money(before), money(since)), "{fees} {income}");
    }
}

#[test]
fn small_balances() {
    // Tax on 30,000 is 4,158.00; the levy of pay is 501.00.
    let assessed = |paye: &str| {
        Family::single(2026)
            .pay("ada", "30000", paye)
            .answer_for("ada", "benefit_months", json!(12))
            .outcome()
    };
    assert_lines(&assessed("4609"), 0, &[("written_off", "50"), ("to_pay", "0"), ("balance", "0")]);
    assert_lines(&assessed("4608.99"), 0, &[("written_off", "0"), ("to_pay", "50.01")]);
    let by_return = |paye: &str| {
        let family =
            Family::single(2026).pay("ada", "29500", paye).answer_for("ada", "benefit_months", json!(12));
        family.rows("Other income", "ada", json!([{ "amount": "500" }])).outcome()
    };
    // The levy of 29,500 is 492.65.
    assert_lines(&by_return("4630.65"), 0, &[("written_off", "20"), ("to_pay", "0")]);
    assert_lines(&by_return("4630.64"), 0, &[("written_off", "0"), ("to_pay", "20.01")]);
}

#[test]
fn provisional_tax_begins_above_five_thousand() {
    let of = |turnover: &str| {
        Family::single(2026)
            .paper("Own trade", "ada", json!({ "turnover": turnover }))
            .answer_for("ada", "benefit_months", json!(12))
            .outcome()
    };
    assert_lines(&of("34811.43"), 0, &[("residual_income_tax", "5000"), ("provisional_standard_next", "0")]);
    assert_lines(
        &of("34811.49"),
        0,
        &[("residual_income_tax", "5000.01"), ("provisional_standard_next", "5250.01")],
    );
}

/// 221 + 1,654 − 1,645 = 230 of net income, 24.15 of tax: 221/230 of it are 23.21 and with 1.00 of the other segment 24.21, above all of it.
#[test]
fn foreign_tax_of_all_segments_is_never_more_than_the_tax() {
    let fund = json!({ "country": "US", "opening": "0", "closing": "0", "cost": "1", "dividends": "221", "tax": "31" });
    let abroad = json!([{ "country": "AU", "kind": "interest", "gross": "1654", "tax": "1" }]);
    let expenses = json!([{ "sort": "return", "amount": "1645" }]);
    let family =
        Family::single(2026).paper("Foreign fund", "ada", fund).rows("Overseas income", "ada", abroad);
    let outcome = family.rows("Other expenses", "ada", expenses).outcome();
    assert_lines(&outcome, 0, &[("net_income", "230"), ("tax", "24.15"), ("foreign_tax_credit", "24.15")]);
    assert_eq!(hembo_testing::family::broken_trails(&outcome), Vec::<String>::new());
}

/// 100,000 of profit: 15,650.50 + 21,900 × 33 % = 22,877.50; of 410,000 of supplies 55.8 in a thousand, 5.6 %.
#[test]
fn the_ratio_goes_by_supplies() {
    let method = |turnover: &str, boxes: Value| {
        let trade = Family::single(2026).paper("Own trade", "ada", json!({ "turnover": turnover }));
        trade.paper("Provisional tax", "ada", boxes).outcome()
    };
    let outcome = method("100000", json!({ "method": "ratio", "supplies": "410000", "expected": "400000" }));
    assert_lines(&outcome, 0, &[("provisional_ratio", "56"), ("provisional_next", "22400")]);
    assert_eq!(line(&outcome, 0, "provisional_instalment_1"), money("0"));
    let days: Vec<_> =
        NewZealand::COMMITTED.dates(&outcome).into_iter().map(|due| due.day.to_string()).collect();
    assert!(days.contains(&"2026-06-29".to_owned()) && days.contains(&"2027-03-01".to_owned()), "{days:?}");
    let open = |outcome: &Outcome, code: &str| assert!(has_point(outcome, code), "{code}");
    open(&outcome, "provisional-ratio");
    open(&method("100000", json!({ "method": "ratio" })), "provisional-no-supplies");
    open(&method("100000", json!({ "method": "ratio", "supplies": "20000" })), "provisional-ratio-closed");
    // 180,000 → 49,277.50; 39 % above: 150,000.00 of tax at 438,262.82 of profit.
    let supplies = json!({ "method": "ratio", "supplies": "900000" });
    open(&method("438262.82", supplies.clone()), "provisional-ratio");
    open(&method("438262.85", supplies), "provisional-ratio-closed");
}

#[test]
fn student_loans_on_other_income() {
    let owed = |pay: &str, other: &str| {
        let family =
            Family::single(2026).answer_for("ada", "student_loan", json!(true)).pay("ada", pay, "9000");
        line(&family.interest("ada", other).outcome(), 0, "student_loan")
    };
    assert_eq!(owed("20000", "9000"), money("584.64"));
    assert_eq!(owed("40000", "9000"), money("1080"));
    assert_eq!(owed("40000", "1500"), money("0"));
    assert_eq!(owed("40000", "1500.01"), money("180"));
}

#[test]
fn sales_of_land_within_the_time() {
    let profit = |year: i32, row: serde_json::Value| {
        let mut row = row;
        row["price"] = json!("500000");
        row["cost"] = json!("480000");
        line(&Family::single(year).rows("Land sold", "ada", json!([row])).outcome(), 0, "bright_line")
    };
    let day = |acquired: &str, sold: &str| json!({ "acquired": acquired, "sold": sold });
    assert_eq!(profit(2026, day("2023-11-20", "2025-11-19")), money("20000"));
    assert_eq!(profit(2026, day("2023-11-20", "2025-11-20")), money("0"));
    // Agreements to June 2024 go by ten, five and two years.
    assert_eq!(profit(2025, day("2021-03-27", "2024-06-30")), money("20000"));
    assert_eq!(profit(2025, day("2021-03-27", "2024-07-01")), money("0"));
    assert_eq!(profit(2024, day("2018-06-01", "2023-05-31")), money("20000"));
    assert_eq!(profit(2024, day("2018-06-01", "2023-06-01")), money("0"));
    let new_build = json!({ "acquired": "2021-06-01", "sold": "2026-03-01", "new_build": true });
    assert_eq!(profit(2026, new_build), money("0"));
    let home = json!({ "acquired": "2025-02-01", "sold": "2026-01-01", "home": true });
    assert_eq!(profit(2026, home), money("0"));
}

#[test]
fn interest_of_lets_by_year_and_reason() {
    for (year, reason, allowed) in [
        (2024, "old_loan", "5000"),
        (2024, "new_loan", "0"),
        (2024, "new_build", "10000"),
        (2025, "old_loan", "8000"),
        (2025, "new_loan", "8000"),
        (2026, "new_loan", "10000"),
    ] {
        let boxes = json!({ "rent": "30000", "interest": "10000", "reason": reason });
        let outcome = Family::single(year).paper("Residential property", "ada", boxes).outcome();
        assert_eq!(line(&outcome, 0, "rental_deductions"), money(allowed), "{year} {reason}");
    }
}

#[test]
fn deductions_of_lets_go_against_their_sale() {
    let boxes = json!({ "rent": "20000", "reason": "new_build" });
    let family = Family::single(2026).shared(
        "Residential property",
        &[("ada", "100")],
        boxes,
        json!([{ "amount": "26000" }]),
    );
    assert_lines(&family.clone().outcome(), 0, &[("rental_net", "0"), ("rental_loss_cf", "6000")]);
    let sold = json!([{ "acquired": "2025-01-01", "sold": "2025-12-01", "price": "515000", "cost": "500000", "let": true }]);
    let outcome = family.rows("Land sold", "ada", sold).outcome();
    assert_lines(&outcome, 0, &[("rental_net", "-6000"), ("total_income", "9000"), ("rental_loss_cf", "0")]);
}

#[test]
fn gifts_above_taxable_income_go_to_the_partner() {
    let family = Family::couple(2026).interest("ada", "3000").interest("bo", "50000");
    let outcome = family.gifts("ada", &["6000", "4.99"]).gifts("bo", &["900"]).outcome();
    assert_lines(&outcome, 0, &[("donations", "6000"), ("donation_credit", "1000")]);
    assert_lines(&outcome, 1, &[("donations_claimed", "3900"), ("donation_credit", "1300")]);
    assert!(has_point(&outcome, "C43"));
}

#[test]
fn numbers_are_checked() {
    assert_eq!(ird_number::check("49-091-850"), Ok(()));
    assert!(ird_number::check("49-091-851").is_err());
}
