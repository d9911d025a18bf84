//! Credits and deductions that stand alone: disability supports, volunteers, adoption, split income, minimum tax of earlier years,
//! repayments of plans.

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

fn paid(province: &str, amount: &str) -> Family {
    let boxes = json!({ "14": amount, "28.cpp": true, "28.ei": true });
    Family::single(province, "1980-01-01").paper("T4", "ada", boxes)
}

/// ITA 64: at most what was earned, and of a student 375 a week up to 15,000 and other income.
#[test]
fn disability_supports() {
    for (pay, interest, weeks, cost, deducted) in [
        ("5000", "0", 0, "5000", "5000"),
        ("4999.99", "0", 0, "5000", "4999.99"),
        ("3000", "20000", 0, "5000", "3000"),
        ("3000", "20000", 5, "5000", "4875"),
        ("3000", "20000", 6, "5000", "5000"),
        ("3000", "1000", 10, "5000", "4000"),
        ("3000", "40000", 40, "19000", "18000"),
        ("3000", "40000", 41, "19000", "18000"),
    ] {
        let outcome = paid("AB", pay)
            .interest("ada", interest)
            .paper("Disability supports", "ada", json!({ "paid": cost, "weeks": weeks }))
            .outcome();
        assert_eq!(line(&outcome, 0, "21500"), money(deducted), "{pay} {interest} {weeks}");
        assert!(has_point(&outcome, "supports-or-medical"));
    }
}

/// The refundable supplement takes a quarter of line 21500 beside the medical claim (122.51(2)), up to 1,504; it asks for earnings of 4,390.
#[test]
fn supports_count_for_the_medical_supplement() {
    let supported =
        |pay: &str, cost: &str| paid("AB", pay).paper("Disability supports", "ada", json!({ "paid": cost }));
    for (pay, cost, expected) in [
        ("20000", "4000", "1000"),
        ("20000", "6015", "1503.75"),
        ("20000", "6016", "1504"),
        ("20000", "6017", "1504"),
        ("4390", "4000", "1000"),
        ("4389.99", "4000", "0"),
    ] {
        assert_eq!(line(&supported(pay, cost).outcome(), 0, "45200"), money(expected), "{pay} {cost}");
    }
    // 3 % of a net income of 16,000 are 480: of 1,480 in bills 1,000 are above it.
    let both = supported("20000", "4000").medical("ada", &[("2025-02-01", "1480")]).outcome();
    assert_lines(&both, 0, &[("23600", "16000"), ("33200", "1000"), ("45200", "1250")]);
}

/// Line 21500 for studies is limited by income after contributions: of pay of 4,500 and interest of 1,000 with nothing contributed 5,500 are deducted,
/// and a quarter is paid out, 1,375; with 1,000 contributed 4,500, and 1,125.
#[test]
fn contributions_may_lower_supports_and_the_supplement() {
    let family = paid("AB", "4500").interest("ada", "1000").contributions("ada", "18000", "1000").paper(
        "Disability supports",
        "ada",
        json!({ "paid": "9000", "weeks": 10 }),
    );
    let held = |amount: &str| family.clone().pin("ca.rrsp.ada", amount).outcome();
    assert_lines(&held("0"), 0, &[("21500", "5500"), ("23600", "0"), ("45200", "1375")]);
    assert_lines(&held("1000"), 0, &[("21500", "4500"), ("23600", "0"), ("45200", "1125")]);
    let best = family.outcome();
    assert_eq!(best.total, held("0").total);
    let decision = best.decisions.iter().find(|d| d.id == "ca.rrsp.ada").unwrap();
    assert!(!decision.amount.as_ref().unwrap().never_costs);
}

fn volunteer(province: &str, kind: &str, pay: &str, exempt: &str) -> Family {
    let boxes = json!({ "14": pay, "87": exempt, "28.cpp": true, "28.ei": true });
    Family::single(province, "1980-01-01").paper("T4", "ada", boxes).answer_for(
        "ada",
        "volunteer",
        json!(kind),
    )
}

#[test]
fn volunteers_have_the_amount_or_exempt_pay() {
    let outcome = volunteer("BC", "fire", "60000", "0").outcome();
    assert_lines(&outcome, 0, &[("31220", "6000"), ("31240", "0"), ("58315", "3000")]);
    let outcome = volunteer("YT", "search", "60000", "0").outcome();
    assert_lines(&outcome, 0, &[("31220", "0"), ("31240", "6000"), ("58315", "6000")]);
    // 6,000 at the lowest rate is worth more than 1,000 at any.
    let outcome = volunteer("BC", "fire", "60000", "1000").outcome();
    assert_lines(&outcome, 0, &[("10100", "61000"), ("31220", "6000")]);
    // Without tax the pay stays exempt.
    let outcome = volunteer("BC", "fire", "9000", "1000").outcome();
    assert_lines(&outcome, 0, &[("10100", "9000"), ("31220", "0"), ("58315", "0")]);
    // Who is no volunteer of 200 hours has the exempt pay without more.
    let boxes = json!({ "14": "60000", "87": "1000", "28.cpp": true, "28.ei": true });
    let outcome = Family::single("BC", "1980-01-01").paper("T4", "ada", boxes).outcome();
    assert_lines(&outcome, 0, &[("10100", "60000"), ("31220", "0")]);
    // Where pay that is income would be earned income as well, that is not computed.
    let working = volunteer("BC", "fire", "24000", "1000").outcome();
    assert_eq!(has_point(&working, "volunteer-earned"), !line(&working, 0, "45300").is_zero());
    assert!(!line(&working, 0, "45300").is_zero() && !line(&working, 0, "31220").is_zero());
    assert!(!has_point(&volunteer("BC", "fire", "60000", "1000").outcome(), "volunteer-earned"));
    assert!(has_point(&volunteer("NB", "fire", "60000", "0").outcome(), "volunteer-province"));
    assert!(!has_point(&volunteer("ON", "fire", "60000", "0").outcome(), "volunteer-province"));
    assert_lines(
        &volunteer("NS", "fire", "60000", "0").outcome(),
        0,
        &[("479.volunteers", "500"), ("47900", "500")],
    );
}

#[test]
fn adoption_is_divided_between_parents() {
    let couple = |province: &str, incomes: [&str; 2], costs: Value| {
        let family = Family::couple(province, ["1980-01-01", "1981-01-01"]).interest("ada", incomes[0]);
        family.interest("bo", incomes[1]).shared("Adoption", &[("bo", "100")], json!({}), costs)
    };
    let one = || json!([{ "child": "Mika", "amount": "25000" }]);
    let outcome = couple("ON", ["100000", "0"], one()).outcome();
    assert_lines(&outcome, 0, &[("adoption.pool", "19580"), ("31300", "19580"), ("58330", "15550")]);
    let outcome = couple("ON", ["0", "100000"], one()).outcome();
    assert_lines(&outcome, 0, &[("31300", "0"), ("58330", "0")]);
    assert_lines(&outcome, 1, &[("31300", "19580"), ("58330", "15550")]);
    // Each child has its own most.
    let two = json!([{ "child": "Mika", "amount": "19580" }, { "child": "Juno", "amount": "19580.01" }]);
    assert_lines(
        &couple("AB", ["200000", "0"], two).outcome(),
        0,
        &[("adoption.pool", "39160"), ("58330", "30536")],
    );
    // Federally each takes what its tax holds, the province divides on its own.
    let outcome = couple("BC", ["30000", "30000"], one()).outcome();
    assert_eq!(line(&outcome, 0, "31300") + line(&outcome, 1, "31300"), money("19580"));
    // 2 x (4,350.00 - 2,338.71) - 2,839.10, to a cent of rounding.
    let tax = line(&outcome, 0, "42900") + line(&outcome, 1, "42900");
    assert!((tax - money("1183.48")).cents().abs() <= 1, "{tax}");
    assert!(has_point(&couple("NL", ["100000", "0"], one()).outcome(), "adoption-province"));
}

/// Worked by hand, Ontario 2025: other dividends of 10,000 are 11,500 taxable. 33 % are 3,795.00, less 9.0301 % or 1,038.46: the tax is no
/// less than 2,756.54, whatever the basic amount would take. Ontario: 13.16 % or 1,513.40.
#[test]
fn split_income_of_a_child() {
    let family = Family::single("ON", "1980-01-01")
        .interest("ada", "30000")
        .child("cy", "2011-05-01")
        .paper("T5", "cy", json!({ "10": "10000", "11": "11500", "12": "1038.46" }))
        .paper("Split income", "cy", json!({ "other": "11500" }));
    let outcome = family.outcome();
    assert_lines(
        &outcome,
        1,
        &[
            ("12000", "11500"),
            ("23200", "11500"),
            ("23600", "0"),
            ("40424", "3795"),
            ("40425", "1038.46"),
            ("split.least", "2756.54"),
            ("42900", "2756.54"),
            ("61510", "1513.40"),
        ],
    );
    // With more tax of its own the least does not bind: 60,000 of interest make 8,857.50 on top.
    let outcome = family.interest("cy", "60000").outcome();
    // 8,857.50 + 3,795.00 - 2,338.71 - 1,038.46
    assert_lines(&outcome, 1, &[("42900.split", "0"), ("42900", "9275.33")]);
}

fn earlier(family: Family, year: i64, amount: &str) -> Family {
    family.shared("Minimum tax", &[("ada", "100")], json!({}), json!([{ "year": year, "amount": amount }]))
}

/// Worked by hand, 2025: 300,000 of interest; minimum tax (300,000 - 177,882) x 20.5 % = 25,034.19 less a half of 14,538 x 14.5 %,
/// 23,980.18; ordinary tax 58,399.85 + 33 % of 46,586 less 2,108.01 = 71,665.22. 47,685.04 may be taken.
#[test]
fn minimum_tax_of_earlier_years() {
    let single = || Family::single("ON", "1980-01-01").interest("ada", "300000");
    for (amount, taken, left) in [
        ("50000", "47685.04", "2314.96"),
        ("47685.04", "47685.04", "0"),
        ("47685", "47685", "0"),
        ("500", "500", "0"),
    ] {
        let outcome = earlier(single(), 2020, amount).outcome();
        assert_eq!(line(&outcome, 0, "40427"), money(taken), "{amount}");
        assert_eq!(line(&outcome, 0, "42900"), money("71665.22") - money(taken));
        assert_lines(&outcome, 0, &[("t691.carried", left)]);
    }
    // 24.63 % of it from the tax of Ontario.
    assert_lines(&earlier(single(), 2020, "500").outcome(), 0, &[("61540", "123.15")]);
    for (year, told) in [(2017, true), (2018, false), (2024, false), (2025, true)] {
        let outcome = earlier(single(), year, "500").outcome();
        assert_eq!(has_point(&outcome, "minimum-year"), told, "{year}");
        assert_eq!(line(&outcome, 0, "40427").is_zero(), told, "{year}");
    }
}

/// ITA 146.01(3), (4): what is due to a plan is designated out of the contributions, what is missing is income.
#[test]
fn repayments_of_plans() {
    for (hbp, llp, contributed, more, deducted, missed) in [
        ("1000", "0", "1000", "0", "0", "0"),
        ("1000", "0", "999", "0", "0", "1"),
        ("1000", "0", "1001", "0", "1", "0"),
        ("600", "400", "300", "0", "0", "700"),
        ("600", "400", "5000", "0", "4000", "0"),
        ("600", "400", "5000", "1500", "3500", "0"),
    ] {
        let rows = json!([{ "date": "2025-11-03", "plan": "own", "amount": contributed }]);
        let boxes = json!({ "limit": "9000", "hbp": hbp, "llp": llp, "repaid": more });
        let outcome = paid("AB", "60000").shared("RRSP", &[("ada", "100")], boxes, rows).outcome();
        assert_lines(&outcome, 0, &[("20800", deducted), ("12900.missed", missed), ("12900", missed)]);
        assert_eq!(has_point(&outcome, "C-43"), missed != "0");
    }
}
