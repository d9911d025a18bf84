//! What each province and territory adds, at its thresholds; the comments show the working by hand.

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::json;

/// Somebody of 45 with income of no kind that a province looks at.
fn alone(province: &str, income: &str) -> Family {
    Family::single(province, "1980-01-01").paper("T4A", "ada", json!({ "028": income }))
}

#[test]
fn british_columbia_reduces_small_taxes_and_pays_for_sales_tax_and_rent() {
    // 5.06 % of income less 654.36 of credits; the reduction is 562 less 3.56 % above 25,020.
    for (income, reduction, tax) in [
        ("25020", "562.00", "49.65"),
        ("25021", "561.96", "49.74"),
        ("30000", "384.71", "478.93"),
        ("40806", "0.02", "1410.40"),
        ("40807", "0.00", "1410.47"),
    ] {
        assert_lines(&alone("BC", income).outcome(), 0, &[("428.reduction", reduction), ("42800", tax)]);
    }
    for (income, sales) in [("15000", "75.00"), ("15050", "74.00"), ("18749", "0.02"), ("18750", "0.00")] {
        assert_lines(&alone("BC", income).outcome(), 0, &[("bc.sales", sales)]);
    }
    let rents =
        |months: i64, income: &str| alone("BC", income).answer("rented_months", json!(months)).outcome();
    for (months, income, credit) in [
        (5, "30000", "0"),
        (6, "30000", "400"),
        (12, "64764", "400"),
        (12, "64814", "399"),
        (12, "84764", "0"),
    ] {
        assert_lines(&rents(months, income), 0, &[("bc.renter", credit)]);
    }
    assert!(has_point(&alone("BC", "84763").outcome(), "bc-renter"));
    assert!(!has_point(&alone("BC", "84764").outcome(), "bc-renter"));
    // Gifts of 5,200 out of income 1,000 into the top bracket: 10.12 + 20.5 % of 1,000 + 16.8 % of 4,000.
    let given = alone("BC", "260829").gifts("ada", "5200").outcome();
    assert_lines(&given, 0, &[("58969", "887.12")]);
}

#[test]
fn saskatchewan_counts_children_once_and_seniors() {
    let couple = Family::couple("SK", ["1960-01-01", "1980-01-01"])
        .child("cy", "2008-01-01")
        .child("di", "2007-12-31");
    let outcome = couple.interest("ada", "60000").interest("bo", "40000").outcome();
    // Born in 2007 means 18 on 31 December; the senior supplement begins at 65.
    let both = line(&outcome, 0, "58210") + line(&outcome, 1, "58210");
    assert_eq!(both, money("7704"));
    assert_lines(&outcome, 0, &[("58220", "2027")]);
    assert_lines(&outcome, 1, &[("58220", "0")]);
    let parent = Family::of("SK", "divorced").person("ada", "filer", "1980-01-01").child("cy", "2012-01-01");
    let parent = parent.child("di", "2014-01-01").answer_for("ada", "maintains_home", json!(true));
    // One of the two is the eligible dependant.
    assert_lines(&parent.interest("ada", "60000").outcome(), 0, &[("58210", "7704"), ("58160", "19491")]);
}

#[test]
fn manitoba_has_a_family_benefit_and_takes_the_basic_amount_from_large_incomes() {
    // 2,065 less 9 % of net income.
    for (income, benefit) in [("20000", "265.00"), ("22944", "0.04"), ("22945", "0.00")] {
        assert_lines(&alone("MB", income).outcome(), 0, &[("61470", benefit)]);
    }
    assert_lines(&alone("MB", "20000").outcome(), 0, &[("58800", "16045.00"), ("42800", "427.14")]);
    for (income, basic) in [("200000", "15780"), ("300000", "7890"), ("399999", "0.08"), ("400000", "0")] {
        assert_lines(&alone("MB", income).outcome(), 0, &[("58040", basic)]);
        assert_lines(&alone("MB", income).in_year(2024).outcome(), 0, &[("58040", "15780")]);
    }
    // Two adults and a child: 2 × 2,065 + 2,752, less 9 % of the higher net income of 30,000.
    let couple = Family::couple("MB", ["1980-01-01", "1980-01-01"]).child("cy", "2015-01-01");
    let outcome = couple.interest("ada", "30000").interest("bo", "20000").outcome();
    assert_lines(&outcome, 0, &[("61470", "4182.00")]);
    assert_lines(&outcome, 1, &[("61470", "0.00")]);
}

#[test]
fn reductions_of_low_incomes_at_their_thresholds() {
    for (province, income, reduction, tax) in [
        // New Brunswick: 801 less 3 % above 21,920; 9.4 % of income less 1,259.22.
        ("NB", "21920", "801.00", "0.26"),
        ("NB", "25000", "708.60", "382.18"),
        ("NB", "48619", "0.03", "3310.94"),
        ("NB", "48620", "0.00", "3311.06"),
        // Nova Scotia: 300 less 5 % above 15,000; 8.79 % less 1,032.30.
        ("NS", "15000", "286.20", "0.00"),
        ("NS", "20000", "50.00", "675.70"),
        ("NS", "21000", "0.00", "813.60"),
        // Prince Edward Island: 350 less 5 % above 22,650; 9.5 % less 1,391.75.
        ("PE", "22650", "350.00", "410.00"),
        ("PE", "25000", "232.50", "750.75"),
        ("PE", "29650", "0.00", "1425.00"),
        // Newfoundland and Labrador: 1,010 less 16 % above 22,680; 8.7 % less 962.83.
        ("NL", "22680", "1010.00", "0.33"),
        ("NL", "25000", "638.80", "573.37"),
        ("NL", "28993", "0.00", "1559.56"),
    ] {
        let outcome = alone(province, income).outcome();
        assert_lines(&outcome, 0, &[("428.reduction", reduction), ("42800", tax)]);
    }
}

#[test]
fn a_couple_has_its_reduction_once() {
    // 2 × 801 less 3 % of 23,080: 909.60. Ada's tax is 620.78; Bo has the rest of 288.82.
    let couple =
        Family::couple("NB", ["1980-01-01", "1980-01-01"]).interest("ada", "20000").interest("bo", "25000");
    let outcome = couple.outcome();
    assert_lines(&outcome, 0, &[("428.before", "620.78"), ("428.reduction", "620.78"), ("42800", "0.00")]);
    assert_lines(&outcome, 1, &[("428.before", "1090.78"), ("428.reduction", "288.82"), ("42800", "801.96")]);
    // Families of Newfoundland and Labrador have figures that are not held.
    let told = |income: &str| {
        let couple = Family::couple("NL", ["1980-01-01", "1980-01-01"]).interest("ada", income);
        has_point(&couple.outcome(), "nl-families")
    };
    assert!(told("69999") && !told("70000"));
}

#[test]
fn nova_scotia_of_2024_has_supplements_and_a_credit_that_ends() {
    let of_2024 = |income: &str| alone("NS", income).in_year(2024).outcome();
    for (income, basic) in [("25000", "11481"), ("25100", "11475"), ("74999", "8481.06"), ("75000", "8481")] {
        assert_lines(&of_2024(income), 0, &[("58040", basic)]);
    }
    // 8.79 % of 24,000 less that of 11,744 + 5,734: the age credit takes all of it, and nothing from 24,000 on.
    let aged = |income: &str| {
        Family::single("NS", "1955-01-01").paper("T4A", "ada", json!({ "028": income })).outcome()
    };
    assert_lines(&aged("23999.99"), 0, &[("428.before", "573.28"), ("ns.age", "573.28"), ("42800", "0.00")]);
    assert_lines(&aged("24000"), 0, &[("428.before", "573.28"), ("ns.age", "0.00"), ("42800", "573.28")]);
}

#[test]
fn the_territories_go_by_their_own_rates() {
    // 5.9 % of 30,000 less that of 17,842; 4 % less that of 19,274.
    assert_lines(&alone("NT", "30000").outcome(), 0, &[("42800", "717.32")]);
    assert_lines(&alone("NU", "30000").outcome(), 0, &[("42800", "429.04")]);
    assert!(has_point(&alone("NT", "30000").outcome(), "nt-cost-of-living"));
    assert!(has_point(&alone("NU", "30000").outcome(), "nu-cost-of-living"));
    // Yukon has the federal amounts, that for employment too.
    let employed = Family::single("YT", "1980-01-01").employed("ada", "50000").outcome();
    assert_eq!(line(&employed, 0, "58800"), line(&employed, 0, "33500"));
}

#[test]
fn amounts_for_young_children_that_are_not_held_are_told() {
    for (province, born, open) in [
        ("NS", "2020-01-01", true),
        ("NS", "2019-12-31", false),
        ("PE", "2022-02-02", true),
        ("NU", "2022-02-02", true),
        ("NB", "2022-02-02", false),
    ] {
        let family =
            Family::couple(province, ["1980-01-01", "1980-01-01"]).child("cy", born).interest("ada", "90000");
        assert_eq!(has_point(&family.outcome(), "young-children"), open, "{province} {born}");
    }
}

/// Tuition of 9,400 and eight months: a student of 15,500 in each province with a credit for it.
#[test]
fn provincial_tuition_goes_by_fees_and_months() {
    for (province, of_year) in [
        ("BC", "9400"),
        ("MB", "12600"),
        ("NS", "11000"),
        ("PE", "12600"),
        ("NT", "12600"),
        ("NB", "9400"),
        ("YT", "9400"),
    ] {
        let family = Family::single(province, "2004-01-01").interest("ada", "60000").tuition("ada", "9400");
        assert_lines(&family.outcome(), 0, &[("58560", of_year), ("32300", "9400")]);
    }
    for province in ["ON", "AB", "SK"] {
        let family = Family::single(province, "2004-01-01").interest("ada", "60000").tuition("ada", "9400");
        assert_lines(&family.outcome(), 0, &[("58560", "0"), ("32300", "9400")]);
    }
}
