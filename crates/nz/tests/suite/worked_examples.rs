//! Worked examples of the law, line by line; the hand computation of each stands beside it.

use hembo_testing::nz::{Family, assert_lines, line, money};
use serde_json::json;

fn dividend(family: Family, who: &str, gross: &str, rwt: &str, imputation: &str) -> Family {
    family.paper("Dividend", who, json!({ "gross": gross, "rwt": rwt, "imputation": imputation }))
}

fn interest(family: Family, who: &str, gross: &str, rwt: &str) -> Family {
    family.paper("Interest", who, json!({ "gross": gross, "rwt": rwt }))
}

fn fund(family: Family, who: &str, income: &str, tax: &str) -> Family {
    family.paper("PIE", who, json!({ "income": income, "tax": tax }))
}

/// Tax 1,470 + 205.12 + 5,670 + 1,190.20 + 4,500 = 13,035.32; the new credit 520 − 0.13 × 2,500 = 195, × 244/365 = 130.36.
#[test]
fn an_employee_with_interest_and_a_dividend() {
    let family = interest(Family::single(2025).pay("ada", "66500", "13540"), "ada", "1000", "300");
    let outcome = dividend(family, "ada", "1000", "50", "280").gifts("ada", &["600"]).outcome();
    let expected = [
        ("taxable_income", "68500"),
        ("tax", "13035.32"),
        ("imputation_used", "280"),
        ("ietc", "130.36"),
        ("tax_after_credits", "12624.96"),
        ("earner_levy", "1064"),
        ("employment_tax", "12476"),
        ("residual_income_tax", "-201.04"),
        ("refund", "201.04"),
        ("donation_credit", "200"),
    ];
    assert_lines(&outcome, 0, &expected);
    assert!(outcome.covered);
}

/// FDR 5 % × 64,000 = 3,200 against CV 76,500 + 1,100 − 64,000 − 10,000 = 3,600; 28,600 − 19,000 − 8,200 − 3,900 = −2,500.
#[test]
fn an_employee_with_a_let_house_funds_and_a_wrong_rate() {
    let family = interest(Family::single(2026).pay("ada", "95000", "23900"), "ada", "600", "198");
    let holding = json!({
        "country": "US", "cost": "55000", "opening": "64000", "purchases": "10000", "closing": "76500", "dividends": "1100", "tax": "165",
    });
    let house = json!({ "rent": "28600", "interest": "19000" });
    let costs = json!([{ "amount": "8200" }, { "amount": "3900" }]);
    let family = family.paper("Foreign fund", "ada", holding);
    let family = family.shared("Residential property", &[("ada", "100")], house, costs);
    let outcome =
        fund(family, "ada", "2400", "420").earlier("ada", [("95000", "0"), ("90000", "0")]).outcome();
    let expected = [
        ("fif.fdr", "3200"),
        ("fif.cv", "3600"),
        ("fif_income", "3200"),
        ("rental_loss_cf", "2500"),
        ("rental_net", "0"),
        ("taxable_income", "98800"),
        ("tax", "22481.50"),
        ("foreign_tax_credit", "165"),
        ("tax_after_credits", "22316.50"),
        ("employment_tax", "22313.50"),
        ("residual_income_tax", "-195"),
        ("pie_adjustment", "252"),
        ("to_pay", "57"),
    ];
    assert_lines(&outcome, 0, &expected);
}

/// 9,885.32 − 520 × 244/365 = 347.62; 9,537.70 × 1.05 = 10,014.585; 12 % × (58,000 − 24,128).
#[test]
fn a_trade_with_a_student_loan_and_provisional_tax() {
    let family = Family::single(2025).answer_for("ada", "student_loan", json!(true));
    let outcome = family.paper("Own trade", "ada", json!({ "turnover": "58000" })).outcome();
    let expected = [
        ("tax", "9885.32"),
        ("ietc", "347.62"),
        ("residual_income_tax", "9537.70"),
        ("student_loan", "4064.64"),
        ("provisional_standard_next", "10014.59"),
        ("provisional_instalment_1", "3338.19"),
        ("provisional_instalment_2", "3338.19"),
        ("provisional_instalment_3", "3338.21"),
        ("provisional_110_following", "10491.47"),
    ];
    assert_lines(&outcome, 0, &expected);
}

/// Seven whole months: 520 × 7/12 = 303.33; the foreign interest is exempt.
#[test]
fn a_transitional_resident_who_came_in_september() {
    let family = Family::single(2026).answer("residence", json!("part"));
    let family = family.answer_for("ada", "came", json!("2025-09-01")).answer_for(
        "ada",
        "transitional",
        json!("2025-09-01"),
    );
    let family = interest(family.pay("ada", "56000", "13300"), "ada", "500", "225");
    let abroad = json!([{ "country": "Portugal", "kind": "interest", "gross": "4000" }]);
    let outcome = family.clone().rows("Overseas income", "ada", abroad.clone()).outcome();
    let expected = [
        ("earner_levy", "935.20"),
        ("overseas_exempt", "4000"),
        ("taxable_income", "56500"),
        ("tax", "9170.50"),
        ("ietc", "303.33"),
        ("tax_after_credits", "8867.17"),
        ("employment_tax", "12364.80"),
        ("refund", "3722.63"),
    ];
    assert_lines(&outcome, 0, &expected);
    // Pay for work done while resident is taxed.
    let work = json!([{ "country": "Portugal", "kind": "work", "gross": "4000" }]);
    assert_lines(&family.rows("Overseas income", "ada", work).outcome(), 0, &[("taxable_income", "60500")]);
}

#[test]
fn two_jobs_a_bank_shares_and_two_funds() {
    let family = Family::single(2026).pay("ada", "88000", "19820").pay("ada", "30000", "9600");
    let family = dividend(interest(family, "ada", "1250", "412.50"), "ada", "900", "45", "252");
    let family = family.rows("Other expenses", "ada", json!([{ "sort": "insurance", "amount": "860" }]));
    let family =
        fund(fund(family, "ada", "1500", "262.50"), "ada", "800", "224").gifts("ada", &["120", "250", "4"]);
    let outcome = family.earlier("ada", [("110000", "1000"), ("105000", "900")]).outcome();
    let expected = [
        ("employment_gross", "118000"),
        ("paye_total", "29420"),
        ("earner_levy", "1970.60"),
        ("employment_tax", "27449.40"),
        ("total_income", "120150"),
        ("other_expenses", "860"),
        ("taxable_income", "119290"),
        ("tax", "29243.20"),
        ("imputation_used", "252"),
        ("tax_after_credits", "28991.20"),
        ("withheld", "27906.90"),
        ("residual_income_tax", "1084.30"),
        ("pie_tax_paid", "486.50"),
        ("pie_tax_due", "644"),
        ("pie_adjustment", "157.50"),
        ("to_pay", "1241.80"),
        ("donation_credit", "123.33"),
        ("provisional_standard_next", "0"),
    ];
    assert_lines(&outcome, 0, &expected);
    assert_eq!(outcome.total, money("28991.20") + money("644") - money("123.33"));
}

#[test]
fn a_couple_with_two_children() {
    let family = interest(Family::couple(2026).pay("ada", "62000", "11900"), "ada", "300", "99");
    let family = family.pay("bo", "24000", "3600").gifts("ada", &["2400"]);
    let family = family.child("cy", "2018-05-05").child("di", "2024-03-10").answer("work_weeks", json!(52));
    let quarter = |q: usize| json!({ "quarter": q.to_string(), "fees": "2600", "income": "21575" });
    let fees: Vec<_> = (1..5).map(quarter).collect();
    let outcome = family.clone().rows("FamilyBoost", "ada", json!(fees)).outcome();
    let first = [
        ("earner_levy", "1035.40"),
        ("employment_tax", "10864.60"),
        ("tax", "10910.50"),
        ("ietc", "0"),
        ("residual_income_tax", "-53.10"),
        ("donation_credit", "800"),
        ("family_scheme_income", "86300"),
        ("abatement", "11772"),
        ("family_tax_credit", "1846"),
        ("in_work", "5070"),
        ("best_start", "2305"),
        ("wff_total", "9221"),
        ("familyboost", "3770"),
    ];
    assert_lines(&outcome, 0, &first);
    assert_lines(&outcome, 1, &[("tax", "3108"), ("residual_income_tax", "-91.20"), ("refund", "91.20")]);
    // Not claiming brings two credits of 520: claiming wins by 9,221 less these.
    let without =
        family.clone().rows("FamilyBoost", "ada", json!(fees)).pin("nz.families", "leave").outcome();
    assert_eq!(without.total - outcome.total, money("8181"));
    // Where family credits do not count in what is minimised, the earner credits win.
    let beside = family.answer("count_family", json!(false)).outcome();
    assert_lines(&beside, 0, &[("ietc", "520"), ("family_counted", "0")]);
}

#[test]
fn an_electrician_on_own_account() {
    let boxes = json!({
        "turnover": "118400", "fuel": "petrol", "total_km": 20000, "business_km": 12000, "vehicle_costs": "17500",
        "area": 12, "total_area": 120, "premises": "20000", "utilities": "6000",
    });
    let family =
        Family::single(2025).shared("Own trade", &[("ada", "100")], boxes, json!([{ "amount": "31250" }]));
    let family = interest(family, "ada", "410", "135.30");
    let family = family.rows("Other expenses", "ada", json!([{ "sort": "return", "amount": "650" }]));
    let outcome = family.rows("Provisional tax", "ada", json!([{ "amount": "15000" }])).outcome();
    let expected = [
        ("vehicle", "11160"),
        ("home_office", "2667.20"),
        ("self_employment", "73322.80"),
        ("taxable_income", "73082.80"),
        ("tax", "14440.68"),
        ("residual_income_tax", "14305.38"),
        ("refund", "694.62"),
        ("provisional_standard_next", "15020.65"),
        ("provisional_instalment_1", "5006.88"),
        ("provisional_instalment_3", "5006.89"),
    ];
    assert_lines(&outcome, 0, &expected);
}

#[test]
fn two_let_houses_and_a_section_sold() {
    let house = |rent: &str, interest: &str, reason: &str| json!({ "rent": rent, "interest": interest, "reason": reason });
    let owner = [("ada", "100")];
    let family = Family::single(2025).pay("ada", "71000", "15100");
    let family = family
        .shared(
            "Residential property",
            &owner,
            house("27500", "24000", "old_loan"),
            json!([{ "amount": "7900" }]),
        )
        .shared(
            "Residential property",
            &owner,
            house("26000", "15000", "new_build"),
            json!([{ "amount": "6200" }]),
        )
        .paper("Last year", "ada", json!({ "rental": "4100" }));
    let sold =
        json!([{ "acquired": "2023-05-10", "sold": "2024-08-20", "price": "642000", "cost": "621500" }]);
    let outcome = family.rows("Land sold", "ada", sold).outcome();
    let expected = [
        ("rental_income", "53500"),
        ("rental_deductions_available", "52400"),
        ("rental_net", "1100"),
        ("bright_line", "20500"),
        ("total_income", "92600"),
        ("tax", "20780.51"),
        ("employment_tax", "13964"),
        ("to_pay", "6816.51"),
        ("provisional_standard_next", "7157.34"),
        ("provisional_instalment_3", "2385.78"),
    ];
    assert_lines(&outcome, 0, &expected);
}

#[test]
fn income_from_abroad_of_three_kinds_and_funds() {
    let family = Family::single(2026).pay("ada", "92000", "20600");
    let abroad = json!([
        { "country": "GB", "kind": "pension", "gross": "9000" },
        { "country": "AU", "kind": "dividend", "gross": "2400", "tax": "360" },
        { "country": "AU", "kind": "interest", "gross": "500", "tax": "50" },
    ]);
    let us = json!({
        "country": "US", "cost": "90000", "opening": "96000", "purchases": "6000", "sales": "4000", "closing": "97200",
        "dividends": "1300", "tax": "195",
    });
    let ie = json!({ "country": "IE", "cost": "20000", "opening": "24000", "closing": "24600" });
    let family = family.rows("Overseas income", "ada", abroad).paper("Foreign fund", "ada", us);
    let family = family.paper("Foreign fund", "ada", ie);
    let expected = [
        ("overseas_income", "11900"),
        ("fif.fdr", "6000"),
        ("fif.cv", "1100"),
        ("fif_income", "1100"),
        ("tax", "24527.50"),
        ("foreign_tax_credit", "526.80"),
        ("tax_after_credits", "24000.70"),
        ("to_pay", "4937.10"),
    ];
    assert_lines(&family.clone().outcome(), 0, &expected);
    assert_lines(&family.pin("nz.funds.ada", "fdr").outcome(), 0, &[("fif_income", "6000")]);
}

#[test]
fn a_superannuitant_whom_the_office_assesses() {
    let pay = json!({ "kind": "super", "gross": "28000", "paye": "4060" });
    let family = Family::single(2026).answer_for("ada", "benefit_months", json!(12)).paper("Pay", "ada", pay);
    let family = dividend(interest(family, "ada", "2600", "455"), "ada", "1500", "75", "420");
    let family = fund(family, "ada", "1800", "504").gifts("ada", &["300"]);
    let outcome = family.earlier("ada", [("31000", "1700"), ("30500", "1500")]).outcome();
    let expected = [
        ("earner_levy", "0"),
        ("employment_tax", "4060"),
        ("tax", "4525.50"),
        ("ietc", "0"),
        ("imputation_used", "420"),
        ("residual_income_tax", "-484.50"),
        ("pie_tax_due", "315"),
        ("pie_adjustment", "-189"),
        ("refund", "673.50"),
        ("donation_credit", "100"),
    ];
    assert_lines(&outcome, 0, &expected);
    let form = |id: &str| outcome.schedules[0].forms.iter().find(|form| form.id == id).unwrap().required;
    assert_eq!([form("ir3"), form("assessment")], [false, true]);
}

#[test]
fn part_time_pay_contracts_and_a_loss() {
    let family =
        Family::single(2025).answer_for("ada", "benefit_months", json!(3)).pay("ada", "21000", "2800");
    let contract = json!({ "gross": "24000", "tax": "4800", "expenses": "3500" });
    let family = family.paper("Schedular", "ada", contract);
    let family = family.rows("Other income", "ada", json!([{ "amount": "150" }]));
    let outcome =
        family.paper("Last year", "ada", json!({ "losses": "6200", "imputation": "310" })).outcome();
    let expected = [
        ("earner_levy", "336"),
        ("total_income", "41650"),
        ("net_income", "41650"),
        ("losses_used", "6200"),
        ("taxable_income", "35450"),
        ("tax", "5148.87"),
        ("ietc", "390"),
        ("imputation_used", "310"),
        ("tax_after_credits", "4448.87"),
        ("withheld", "7264"),
        ("refund", "2815.13"),
    ];
    assert_lines(&outcome, 0, &expected);
    assert_eq!(line(&outcome, 0, "losses_cf"), money("0"));
}
