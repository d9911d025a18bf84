//! Worked examples of the law, line by line; the hand computation of each stands beside it.

use hembo_testing::za::{Family, assert_lines, line, money};
use serde_json::{Value, json};

fn scheme(family: Family, who: &str, paid: &str, members: i64) -> Family {
    family.paper("Scheme", who, json!({ "paid": paid, "all": members }))
}

fn bills(family: Family, who: &str, amount: &str) -> Family {
    family.rows("Medical bills", who, json!([{ "amount": amount }]))
}

fn gifts(family: Family, who: &str, amount: &str) -> Family {
    family.rows("Donations", who, json!([{ "receipt": "18-1", "amount": amount }]))
}

fn list(family: Family, kind: &str, who: &str, boxes: Value, cost: &str) -> Family {
    family.shared(kind, &[(who, "100")], boxes, json!([{ "amount": cost }]))
}

/// 480,000 + 40,000 + 36,000 + 48,000 = 604,000; L = 27.5 % × 607,700 = 167,117.50; 77,362 + 31 % × 85,200 = 103,774.
#[test]
fn an_employee_with_fund_scheme_gift_and_bills() {
    let codes = [
        ("3601", "480000"),
        ("3605", "40000"),
        ("3810", "36000"),
        ("3817", "48000"),
        ("3699", "604000"),
        ("4001", "84000"),
        ("4005", "72000"),
        ("4102", "82500"),
    ];
    let family = Family::single(2026, "1987-06-01").pay("ada", &codes).interest("ada", "27500");
    let family = family.paper("Annuity", "ada", json!({ "paid": "60000" }));
    let family = bills(scheme(gifts(family, "ada", "8000"), "ada", "0", 3), "ada", "25000");
    let outcome = family.outcome();
    let expected = [
        ("irp5_taxable", "604000"),
        ("remuneration", "604000"),
        ("interest_exempt", "23800"),
        ("income_before_deductions", "607700"),
        ("retirement_contributions", "144000"),
        ("retirement_limit", "167117.50"),
        ("retirement_deduction", "144000"),
        ("donation_limit", "46370"),
        ("donation_deduction", "8000"),
        ("taxable_income", "455700"),
        ("table_tax", "103774"),
        ("rebates", "17235"),
        ("medical_credit", "11688"),
        ("medical_fees", "72000"),
        ("additional_medical_credit", "4017.63"),
        ("normal_tax", "70833.37"),
        ("total_tax", "70833.37"),
        ("refund", "11666.63"),
    ];
    assert_lines(&outcome, 0, &expected);
    assert!(outcome.covered);
}

/// 111,273/32,000 = 347.73 c, with 191.4 and 71.4 610.53 c × 14,500; actual 154,400 × 14,500/32,000.
#[test]
fn a_travel_allowance_by_both_methods() {
    let family = Family::single(2025, "1985-06-01").pay("ada", &[("3601", "420000"), ("3701", "120000")]);
    let family = scheme(family.paper("Annuity", "ada", json!({ "paid": "30000" })), "ada", "0", 1);
    let logbook = json!({ "value": "385000", "total_km": 32000, "business_km": 14500, "logbook": true, "costs": "154400" });
    let family = family.paper("Logbook", "ada", logbook);
    let outcome = family.clone().outcome();
    let expected = [
        ("remuneration", "516000"),
        ("retirement_limit", "141900"),
        ("travel_deemed", "88526.85"),
        ("travel_actual", "69962.50"),
        ("travel_claim", "88526.85"),
        ("taxable_income", "421473"),
        ("table_tax", "93163.63"),
        ("normal_tax", "71560.63"),
    ];
    assert_lines(&outcome, 0, &expected);
    assert_lines(&family.pin("za.travel.ada", "actual").outcome(), 0, &[("travel_claim", "69962.50")]);
}

/// Half of 90,000 is 45,000, less 34,500; 33.3 % × 88,792 = 29,567.74, of which the tax takes 28,947.
#[test]
fn a_pensioner_of_69_in_community_of_property() {
    let family =
        Family::couple(2026, "community", ["1956-05-01", "1960-05-01"]).pay("ada", &[("3603", "310000")]);
    let family = bills(scheme(family.interest("ada", "90000"), "ada", "84000", 2), "ada", "31000");
    let outcome = family.outcome();
    let expected = [
        ("interest", "45000"),
        ("interest_exempt", "34500"),
        ("taxable_income", "320500"),
        ("table_tax", "64362"),
        ("rebates", "26679"),
        ("medical_credit", "8736"),
        ("additional_medical_credit_full", "29567.74"),
        ("additional_medical_credit", "28947"),
        ("normal_tax", "0"),
    ];
    assert_lines(&outcome, 0, &expected);
    // The spouse turned 65 in the year.
    assert_lines(&outcome, 1, &[("interest", "45000"), ("interest_exempt", "34500")]);
}

/// Weighted 1,040 × 250 = 260,000, first in first out 220,000, specific 300,000: the last is the lowest gain.
#[test]
fn shares_a_trade_and_a_foreign_dividend() {
    let family = Family::single(2026, "1985-06-01").pay("ada", &[("3601", "310000")]);
    let family = list(family, "Trade", "ada", json!({ "turnover": "410000" }), "140000");
    let family = family.paper("IT3(b)", "ada", json!({ "dividends_foreign": "45000" }));
    let family = family.rows(
        "Foreign tax",
        "ada",
        json!([{ "country": "Ireland", "kind": "dividends", "amount": "6750" }]),
    );
    let family = family.paper("Annuity", "ada", json!({ "paid": "150000" }));
    let sold = |costs: Value| {
        let mut line = costs;
        line["kind"] = json!("shares");
        line["proceeds"] = json!("525000");
        json!([line])
    };
    let weighted = family.clone().rows("Assets sold", "ada", sold(json!({ "average": "260000" }))).outcome();
    let expected = [
        ("dividends_foreign_taxable", "20000"),
        ("gains_net", "265000"),
        ("taxable_capital_gain", "90000"),
        ("retirement_limit", "189750"),
        ("taxable_income", "540000"),
        ("table_tax", "131267"),
        ("foreign_income", "15945.95"),
        ("foreign_tax_limit", "3367.31"),
        ("foreign_tax_credit", "3367.31"),
        ("foreign_tax_cf", "3382.69"),
        ("normal_tax", "110664.69"),
    ];
    assert_lines(&weighted, 0, &expected);
    let all = sold(json!({ "fifo": "220000", "average": "260000", "specific": "300000" }));
    let outcome = family.rows("Assets sold", "ada", all).outcome();
    assert_lines(&outcome, 0, &[("gains_net", "225000")]);
    let cost = outcome.decisions.iter().find(|decision| decision.id.starts_with("za.cost.")).unwrap();
    assert_eq!(
        cost.options.iter().map(|option| option.id.as_str()).collect::<Vec<_>>(),
        ["fifo", "average", "specific"]
    );
}

#[test]
fn lump_sums_by_both_tables_with_earlier_ones() {
    let tax = |kind: &str, amount: &str, earlier: &str| {
        let boxes = json!({ "directive": "1", "kind": kind, "amount": amount, "earlier": earlier });
        line(&Family::single(2026, "1970-01-01").paper("Lump sum", "ada", boxes).outcome(), 0, "lump_sum_tax")
    };
    for (kind, amount, earlier, expected) in [
        ("severance", "620000", "0", "12600"),
        ("retirement", "900000", "620000", "262350"),
        ("withdrawal", "40000", "300000", "7200"),
        ("withdrawal", "27500", "0", "0"),
        ("withdrawal", "27501", "0", "0.18"),
        ("withdrawal", "726000", "0", "125730"),
        ("withdrawal", "1089001", "0", "223740.36"),
        ("retirement", "550000", "0", "0"),
        ("retirement", "550001", "0", "0.18"),
        ("retirement", "770001", "0", "39600.27"),
        ("retirement", "1155000", "0", "143550"),
        ("retirement", "1500000", "0", "267750"),
    ] {
        assert_eq!(tax(kind, amount, earlier), money(expected), "{kind} {amount} after {earlier}");
    }
}

/// 135,048/38,400 = 351.69 c + 288.7; both methods above the allowance of 96,000; room 96,000 × 14/160.
#[test]
fn a_commission_earner_with_travel_and_a_room() {
    let codes = [("3601", "300000"), ("3606", "420000"), ("3701", "96000"), ("4102", "185000")];
    let family = Family::single(2025, "1980-06-01").pay("ada", &codes);
    let logbook = json!({ "value": "465000", "total_km": 38400, "business_km": 21600, "logbook": true, "costs": "188000" });
    let family = family.paper("Logbook", "ada", logbook);
    let family = list(
        family,
        "Home office",
        "ada",
        json!({ "area": 14, "total_area": 160, "qualifies": true }),
        "96000",
    );
    let family = family.paper("Annuity", "ada", json!({ "paid": "90000" })).paper(
        "Last year",
        "ada",
        json!({ "retirement": "12000" }),
    );
    let months = json!({ "paid": "66000", "all": 3, "m3": 2, "m4": 2, "m5": 2, "m6": 2, "m7": 2, "m8": 2, "m9": 2, "m10": 2 });
    let outcome = bills(family.paper("Scheme", "ada", months), "ada", "9500").outcome();
    let expected = [
        ("irp5_taxable", "816000"),
        ("remuneration", "796800"),
        ("travel_deemed", "138324.24"),
        ("travel_actual", "105750"),
        ("travel_claim", "96000"),
        ("home_office", "8400"),
        ("income_before_deductions", "711600"),
        ("retirement_limit", "219120"),
        ("retirement_deduction", "102000"),
        ("taxable_income", "609600"),
        ("table_tax", "156323"),
        ("medical_credit", "9720"),
        ("additional_medical_credit", "0"),
        ("normal_tax", "129368"),
        ("refund", "55632"),
    ];
    assert_lines(&outcome, 0, &expected);
}

/// Home: half of 2,700,000 less a million; shares a loss of 25,000 each.
#[test]
fn a_couple_in_community_with_home_and_shares_sold() {
    let family = Family::couple(2026, "community", ["1985-06-01", "1987-06-01"]);
    let family = family
        .pay("ada", &[("3601", "640000"), ("4102", "150000")])
        .pay("bo", &[("3601", "180000"), ("4102", "13000")]);
    let family = list(family.interest("ada", "64000"), "Letting", "bo", json!({ "rent": "132000" }), "96000");
    let family = bills(scheme(gifts(family, "bo", "21000"), "ada", "84000", 4), "ada", "6000");
    let sold = json!([
        { "kind": "home", "proceeds": "4200000", "cost": "1500000" },
        { "kind": "shares", "proceeds": "210000", "cost": "260000" },
    ]);
    let outcome = family.rows("Assets sold", "ada", sold).outcome();
    let first = [
        ("irp5_taxable", "640000"),
        ("interest", "32000"),
        ("rental", "18000"),
        ("gains_net", "325000"),
        ("gains_after_exclusion", "285000"),
        ("taxable_capital_gain", "114000"),
        ("taxable_income", "780200"),
        ("table_tax", "220955"),
        ("medical_credit", "14640"),
        ("additional_medical_credit", "0"),
        ("normal_tax", "189080"),
        ("to_pay", "39080"),
    ];
    assert_lines(&outcome, 0, &first);
    let second = [
        ("income_before_deductions", "320200"),
        ("donation_limit", "32020"),
        ("donation_deduction", "21000"),
        ("taxable_income", "299200"),
        ("table_tax", "58824"),
        ("normal_tax", "41589"),
        ("to_pay", "28589"),
    ];
    assert_lines(&outcome, 1, &second);
    assert_lines(&outcome, 0, &[("provisional_income", "26200")]);
}

/// August ½ × (138,467 − 17,235 − 4,368); February 152,867 − 21,603 − 58,432.
#[test]
fn a_trade_with_provisional_payments() {
    let family = Family::single(2025, "1980-06-01");
    let family = list(family, "Trade", "ada", json!({ "turnover": "1480000", "wear": "62000" }), "560000");
    let family = scheme(family.interest("ada", "18000"), "ada", "34000", 1).paper(
        "Annuity",
        "ada",
        json!({ "paid": "160000" }),
    );
    let family = family.gain("ada", "310000", "196000");
    let family = family.paper("Last year", "ada", json!({ "capital_loss": "22000", "taxable": "560000" }));
    let estimates = json!({ "estimate_1": "560000", "estimate_2": "600000", "credits": "4368" });
    let outcome = list(family, "IRP6", "ada", estimates, "178000").outcome();
    let expected = [
        ("business", "858000"),
        ("gains_net", "114000"),
        ("gains_after_exclusion", "74000"),
        ("taxable_capital_gain", "20800"),
        ("income_before_deductions", "878800"),
        ("retirement_limit", "241670"),
        ("taxable_income", "718800"),
        ("table_tax", "197009"),
        ("normal_tax", "175406"),
        ("refund", "2594"),
        ("basic_amount", "560000"),
        ("provisional_1", "58432"),
        ("provisional_2", "72832"),
        ("underestimation_penalty", "0"),
    ];
    assert_lines(&outcome, 0, &expected);
}

/// 214 > 183 and 75 > 60: 1,250,000 exempt; limit 181,490 × 413,200/723,200.
#[test]
fn work_and_investments_abroad() {
    let family = Family::single(2026, "1985-06-01").pay("ada", &[("3601", "310000"), ("4102", "52000")]);
    let family = family.paper("Work abroad", "ada", json!({ "amount": "1640000", "days": 214, "run": 75 }));
    let invested = json!({ "interest": "9000", "interest_foreign": "7200", "dividends_foreign": "36000" });
    let family = family.paper("IT3(b)", "ada", invested);
    let tax = json!([{ "kind": "pay", "amount": "55600" }, { "kind": "dividends", "amount": "5400" }]);
    let outcome = family.rows("Foreign tax", "ada", tax).outcome();
    let expected = [
        ("foreign_employment", "1640000"),
        ("foreign_employment_exempt", "1250000"),
        ("interest_exempt", "9000"),
        ("dividends_foreign_taxable", "16000"),
        ("taxable_income", "723200"),
        ("table_tax", "198725"),
        ("foreign_income", "413200"),
        ("foreign_tax_limit", "103694.23"),
        ("foreign_tax_credit", "61000"),
        ("normal_tax", "120490"),
        ("to_pay", "68490"),
    ];
    assert_lines(&outcome, 0, &expected);
}

/// 33.3 % × (98,000 − 26,208 + 27,500) = 33,064.24, used 19,978; T(1,100,000) 128,700.
#[test]
fn aged_76_with_annuity_lump_sum_and_a_tax_free_account() {
    let family = Family::single(2026, "1949-07-20")
        .pay("ada", &[("3610", "264000"), ("4102", "21000"), ("4115", "98400")]);
    let invested = json!({ "interest": "71000", "property": "12600", "dividends": "40000" });
    let family = bills(
        scheme(gifts(family.paper("IT3(b)", "ada", invested), "ada", "15000"), "ada", "98000", 2),
        "ada",
        "27500",
    );
    let family = family.paper("IT3(s)", "ada", json!({ "paid": "39000" }));
    let lump = json!({ "directive": "1", "kind": "retirement", "amount": "680000", "earlier": "420000" });
    let outcome = family.paper("Lump sum", "ada", lump).outcome();
    let expected = [
        ("interest_exempt", "34500"),
        ("dividends_local", "40000"),
        ("reit_dividends", "12600"),
        ("income_before_deductions", "313100"),
        ("donation_limit", "31310"),
        ("taxable_income", "298100"),
        ("table_tax", "58538"),
        ("rebates", "29824"),
        ("medical_credit", "8736"),
        ("additional_medical_credit", "19978"),
        ("normal_tax", "0"),
        ("tax_free_penalty", "1200"),
        ("lump_sum_tax", "128700"),
        ("total_tax", "129900"),
        ("to_pay", "10500"),
    ];
    assert_lines(&outcome, 0, &expected);
}

/// −61,000 + 40,000 = −21,000 carried; 33.3 % × (28,000 − 13,104 + 18,000); solar 25 % × 52,000.
#[test]
fn losses_solar_panels_and_a_disability_in_2024() {
    let family = Family::single(2024, "1980-06-01").answer_for("ada", "disability", json!(true));
    let family = family.pay("ada", &[("3601", "395000"), ("4102", "69000")]);
    let family = list(family, "Trade", "ada", json!({ "turnover": "360000", "share": "50" }), "405000");
    let family = list(family, "Letting", "ada", json!({ "rent": "84000" }), "91000");
    let family = gifts(family.paper("Solar panels", "ada", json!({ "cost": "52000" })), "ada", "48000");
    let family = bills(scheme(family.gain("ada", "90000", "151000"), "ada", "28000", 1), "ada", "18000");
    let outcome = family.outcome();
    let expected = [
        ("rental", "-7000"),
        ("business", "-22500"),
        ("gains_net", "-61000"),
        ("gains_after_exclusion", "-21000"),
        ("capital_loss_cf", "21000"),
        ("income_before_deductions", "365500"),
        ("donation_deduction", "36550"),
        ("donations_cf", "11450"),
        ("taxable_income", "328950"),
        ("table_tax", "66559"),
        ("additional_medical_credit", "10954.37"),
        ("solar_credit", "13000"),
        ("normal_tax", "21001.63"),
        ("refund", "47998.37"),
    ];
    assert_lines(&outcome, 0, &expected);
}
