//! Thresholds one dollar below, at and above, worked out by hand from the law.

use hembo_ca::figures::{COMMITTED, Figures, SOURCES};
use hembo_money::Money;
use hembo_testing::ca::{Family, assert_lines, line, money};
use serde_json::json;

/// One person with a pension of so much and nothing else.
fn pensioner(province: &str, born: &str, amount: &str) -> hembo_core::Outcome {
    Family::single(province, born).pension("ada", amount).outcome()
}

#[test]
fn every_line_of_one_income_at_its_edges() {
    let cases: &[(&str, &str, &str, &str, &str)] = &[
        // province, born, pension, line, amount
        ("ON", "1970-01-01", "57374", "40400", "8319.23"),
        ("ON", "1970-01-01", "57375", "40400", "8319.38"),
        ("ON", "1970-01-01", "57376", "40400", "8319.58"),
        ("ON", "1970-01-01", "114750", "40400", "20081.25"),
        ("ON", "1970-01-01", "114751", "40400", "20081.51"),
        ("ON", "1970-01-01", "177883", "40400", "36495.86"),
        ("ON", "1970-01-01", "253415", "40400", "58400.18"),
        ("ON", "1970-01-01", "177882", "30000", "16129.00"),
        ("ON", "1970-01-01", "215648", "30000", "15333.50"),
        ("ON", "1970-01-01", "253413", "30000", "14538.02"),
        ("ON", "1970-01-01", "253414", "30000", "14538.00"),
        ("ON", "1970-01-01", "300000", "30000", "14538.00"),
        ("ON", "1960-12-31", "45522", "30100", "9028.00"),
        ("ON", "1960-12-31", "45523", "30100", "9027.85"),
        ("ON", "1961-01-01", "45000", "30100", "0.00"),
        ("ON", "1960-12-31", "105708", "30100", "0.10"),
        ("ON", "1960-12-31", "105709", "30100", "0.00"),
        ("ON", "1960-12-31", "46331", "58080", "6222.85"),
        ("AB", "1960-12-31", "46309", "58080", "6220.85"),
        ("ON", "1970-01-01", "1999", "31400", "1999.00"),
        ("ON", "1970-01-01", "2001", "31400", "2000.00"),
        ("ON", "1970-01-01", "1763", "58360", "1762.00"),
        ("AB", "1970-01-01", "1720", "58360", "1719.00"),
        ("ON", "1970-01-01", "52886", "428.tax", "2670.74"),
        ("ON", "1970-01-01", "52887", "428.tax", "2670.83"),
        ("ON", "1970-01-01", "20000", "ontario.health", "0.00"),
        ("ON", "1970-01-01", "20001", "ontario.health", "0.06"),
        ("ON", "1970-01-01", "25000", "ontario.health", "300.00"),
        ("ON", "1970-01-01", "36001", "ontario.health", "300.06"),
        ("ON", "1970-01-01", "38500", "ontario.health", "450.00"),
        ("ON", "1970-01-01", "48300", "ontario.health", "525.00"),
        ("ON", "1970-01-01", "48600", "ontario.health", "600.00"),
        ("ON", "1970-01-01", "72001", "ontario.health", "600.25"),
        ("ON", "1970-01-01", "200600", "ontario.health", "900.00"),
        ("ON", "1970-01-01", "250000", "ontario.health", "900.00"),
        ("AB", "1970-01-01", "60000", "428.tax", "4800.00"),
        ("AB", "1970-01-01", "60001", "428.tax", "4800.10"),
        ("AB", "1970-01-01", "151235", "428.tax", "13923.52"),
    ];
    for (province, born, amount, id, expected) in cases {
        let outcome = pensioner(province, born, amount);
        assert_eq!(line(&outcome, 0, id), money(expected), "{id} of {amount} in {province}");
    }
}

#[test]
fn the_ontario_reduction_ends_at_twice_the_basic_amount() {
    // Tax after credits A: the reduction is A up to 294, then 588 − A, nothing from 588 on.
    for (pension, tax, reduction) in [
        ("20322", "293.56", "293.56"),
        ("20330", "293.97", "293.97"),
        ("20331", "294.02", "293.98"),
        ("26152", "587.98", "0.02"),
        ("26153", "588.03", "0.00"),
    ] {
        let outcome = pensioner("ON", "1970-01-01", pension);
        assert_lines(&outcome, 0, &[("ontario.before", tax), ("ontario.reduction", reduction)]);
    }
}

#[test]
fn the_ontario_surtax_has_two_steps() {
    // Basic tax is tax less 5.05 % of 12,747 + 1,762 (732.70): 20 % of it above 5,710, and 36 % above 7,307.
    for (pension, tax, surtax) in [
        ("94109", "6442.65", "0.00"),
        ("94110", "6442.74", "0.01"),
        ("94111", "6442.83", "0.03"),
        ("110520", "8039.63", "319.39"),
        ("110521", "8039.74", "319.42"),
        ("110522", "8039.85", "319.48"),
    ] {
        let outcome = pensioner("ON", "1970-01-01", pension);
        assert_lines(&outcome, 0, &[("428.tax", tax), ("61500", "732.70"), ("ontario.surtax", surtax)]);
    }
}

#[test]
fn old_age_security_is_recovered_from_the_threshold_to_all_of_it() {
    for (pension, recovered) in [
        ("84453", "0.00"),
        ("84454", "0.00"),
        ("84455", "0.15"),
        ("144453", "8999.85"),
        ("144454", "9000.00"),
        ("144455", "9000.00"),
    ] {
        let outcome =
            Family::single("ON", "1955-05-05").pension("ada", pension).benefits("ada", "0", "9000").outcome();
        assert_lines(&outcome, 0, &[("23500", recovered), ("42200", recovered)]);
        assert_eq!(line(&outcome, 0, "23600"), money(pension) + money("9000") - money(recovered));
    }
}

#[test]
fn a_repaid_supplement_is_not_deducted_twice() {
    let family = Family::single("ON", "1955-05-05").pension("ada", "160000");
    let outcome = family.paper("T4A(OAS)", "ada", json!({ "18": "9000", "21": "2000" })).outcome();
    // All 11,000 is recovered, 2,000 of it supplement: nothing is left for line 25000.
    assert_lines(&outcome, 0, &[("23500", "11000.00"), ("25000", "0.00"), ("26000", "160000.00")]);
}

#[test]
fn contributions_and_premiums_by_earnings() {
    let cases: &[(&str, &str, &str, &str, &str, &str)] = &[
        // paid: employment, 16, 18; counted: base credit, enhanced deduction, premiums
        ("3500", "0", "57.40", "0.00", "0.00", "57.40"),
        ("2000", "0", "32.80", "0.00", "0.00", "0.00"),
        ("2020", "0", "33.13", "0.00", "0.00", "20.00"),
        ("71300", "4034.10", "1077.48", "3356.10", "678.00", "1077.48"),
        ("71300", "4134.10", "1177.48", "3356.10", "678.00", "1077.48"),
    ];
    for (earned, cpp, ei, base, enhanced, premiums) in cases {
        let boxes = json!({ "14": earned, "16": cpp, "18": ei });
        let outcome = Family::single("AB", "1980-01-01").paper("T4", "ada", boxes).outcome();
        assert_lines(&outcome, 0, &[("30800", base), ("22215", enhanced), ("31200", premiums)]);
        let back = money(cpp) + money(ei) - money(base) - money(enhanced) - money(premiums);
        assert_eq!(line(&outcome, 0, "44800") + line(&outcome, 0, "45000"), back, "{earned}");
    }
    // The plan applies from the month after the 18th birthday to that of the 70th: half a year each.
    for born in ["2007-06-30", "1955-06-01"] {
        let boxes = json!({ "14": "35650", "16": "2121.18" });
        let outcome = Family::single("AB", born).paper("T4", "ada", boxes).outcome();
        // (35,650 − 1,750) × 5.95 % = 2,017.05, of which 49.5/59.5 is the base.
        assert_lines(&outcome, 0, &[("30800", "1678.05"), ("22215", "339.00"), ("44800", "104.13")]);
    }
}

#[test]
fn gifts_by_tier_and_to_three_quarters_of_income() {
    let cases: &[(&str, &str, &str, &str)] = &[
        // pension, gifts, federal, provincial credit in Ontario
        ("60000", "199", "28.86", "10.05"),
        ("60000", "200", "29.00", "10.10"),
        ("60000", "201", "29.29", "10.21"),
        ("253414", "1200", "319.00", "121.70"),
        ("253415", "1200", "319.04", "121.70"),
        ("254413", "1200", "358.96", "121.70"),
        ("254414", "1200", "359.00", "121.70"),
        ("255000", "1200", "359.00", "121.70"),
    ];
    for (pension, gifts, federal, provincial) in cases {
        let outcome =
            Family::single("ON", "1970-01-01").pension("ada", pension).gifts("ada", gifts).outcome();
        assert_lines(&outcome, 0, &[("34900", federal), ("58969", provincial)]);
    }
    // At most 75 % of net income; the rest is kept.
    for (gifts, claimed, kept) in
        [("29999", "29999.00", "0.00"), ("30000", "30000.00", "0.00"), ("30001", "30000.00", "1.00")]
    {
        let outcome = Family::single("ON", "1970-01-01")
            .pension("ada", "40000")
            .gifts("ada", gifts)
            .pin("ca.gifts.ada", gifts)
            .outcome();
        assert_lines(&outcome, 0, &[("34000", claimed), ("gifts.carried", kept)]);
    }
}

#[test]
fn what_a_gift_does_not_bring_now_is_kept() {
    // 17,000 leaves 871 of federal income uncovered with the pension amount: no federal tax, so no gift is claimed.
    let outcome = Family::single("AB", "1970-01-01").pension("ada", "17000").gifts("ada", "500").outcome();
    assert_lines(&outcome, 0, &[("42900", "0.00"), ("34000", "0.00"), ("gifts.carried", "500.00")]);
}

#[test]
fn the_medical_threshold_is_three_per_cent_up_to_the_most() {
    for (pension, paid, federal, ontario) in [
        ("60000", "1800", "0.00", "0.00"),
        ("60000", "1801", "1.00", "1.00"),
        ("94466", "3000", "166.02", "166.02"),
        ("94467", "3000", "166.00", "165.99"),
        ("96167", "3000", "166.00", "115.00"),
        ("120000", "3000", "166.00", "115.00"),
    ] {
        let family = Family::single("ON", "1970-01-01").pension("ada", pension);
        let outcome = family.medical("ada", &[("2025-03-03", paid)]).outcome();
        assert_lines(&outcome, 0, &[("33200", federal), ("58769", ontario)]);
    }
}

#[test]
fn the_best_twelve_months_cross_the_new_year() {
    let family =
        Family::couple("ON", ["1979-03-08", "1981-11-19"]).employed("ada", "83000").employed("bo", "39000");
    let bills = [
        ("2024-11-20", "2400"),
        ("2025-01-15", "600"),
        ("2025-04-22", "800"),
        ("2025-09-30", "1900"),
        ("2025-11-12", "3000"),
        ("2025-12-20", "450"),
    ];
    let family = family.medical("ada", &bills);
    let outcome = family.outcome();
    let windows = &outcome.decisions.iter().find(|d| d.id == "ca.medical.window").unwrap().options;
    let told: Vec<_> = windows.iter().map(|w| (w.id.as_str(), w.label.as_str(), w.chosen)).collect();
    assert_eq!(
        told,
        [
            ("2025-11-12", "Ending 12 November · 8,700", true),
            ("2025-12-20", "Ending 20 December · 6,750", false)
        ]
    );
    assert_lines(&outcome, 0, &[("33200", "0.00")]);
    assert_lines(&outcome, 1, &[("33099", "8700.00"), ("33200", "7540.65")]);
    // A bill of a year and a day before is in no window; one on the first day of the year before is.
    for (date, claimed) in [("2024-01-01", "0.00"), ("2024-01-02", "9000.00")] {
        let old = Family::single("ON", "1970-01-01")
            .pension("ada", "30000")
            .medical("ada", &[(date, "9000")])
            .outcome();
        assert_eq!(line(&old, 0, "33099"), money(claimed), "{date}");
    }
    // What was in an earlier claim, or paid back, does not count.
    let rows = json!([
        { "date": "2025-02-02", "patient": "ada", "amount": "5000", "reimbursed": "1200" },
        { "date": "2025-02-03", "patient": "ada", "amount": "700", "used": true },
    ]);
    let family = Family::single("ON", "1970-01-01").pension("ada", "30000");
    let outcome = family.shared("Medical", &[("ada", "100")], json!({}), rows).outcome();
    assert_lines(&outcome, 0, &[("33099", "3800.00")]);
}

/// A bill of ten dollars on every day of two years, one of them dearer: the best twelve months hold it, 29 February and
/// 364 others.
#[test]
fn a_bill_a_day_leaves_the_largest_windows() {
    let days: Vec<String> = (0..730)
        .map(|i| (time::macros::date!(2024 - 01 - 02) + time::Duration::days(i)).to_string())
        .collect();
    let bills: Vec<(&str, &str)> =
        days.iter().map(|day| (day.as_str(), if day == "2024-12-30" { "510" } else { "10" })).collect();
    let outcome = Family::single("ON", "1970-01-01").pension("ada", "30000").medical("ada", &bills).outcome();
    assert_eq!(line(&outcome, 0, "33099"), money("4160.00"));
    assert!(outcome.covered && outcome.complete);
    let windows = outcome.decisions.iter().find(|d| d.id == "ca.medical.window").unwrap();
    assert_eq!(windows.options.len(), 200);
}

#[test]
fn the_medical_supplement_is_paid_out_to_low_earners() {
    // Earned 9,000; bills of 5,270 above 270: a quarter of 5,000 is 1,250, family income below the threshold.
    let family = |earned: &str| {
        let family = Family::single("AB", "1980-01-01").paper("T4", "ada", json!({ "14": earned }));
        family.medical("ada", &[("2025-03-03", "5270")]).outcome()
    };
    assert_lines(&family("9000"), 0, &[("33200", "5000.00"), ("45200", "1250.00"), ("net_tax", "-1250.00")]);
    // One dollar of earnings decides.
    assert_eq!(line(&family("4389"), 0, "45200"), Money::ZERO);
    assert_eq!(line(&family("4390"), 0, "45200"), money("1284.58"));
    // 5 % of what family income is above 33,294.
    let outcome = Family::single("AB", "1980-01-01")
        .paper("T4", "ada", json!({ "14": "43294" }))
        .medical("ada", &[("2025-03-03", "6298.82")])
        .outcome();
    assert_lines(&outcome, 0, &[("33200", "5000.00"), ("45200", "750.00")]);
}

#[test]
fn tuition_is_used_first_then_handed_on_then_kept() {
    let family = |earned: &str, carried: &str| {
        Family::couple("AB", ["1999-01-01", "2000-01-01"])
            .employed("ada", "70000")
            .paper("T4", "bo", json!({ "14": earned }))
            .tuition("bo", "6000")
            .paper("Tuition carried", "bo", json!({ "federal": carried }))
    };
    // Amounts before tuition: 16,129 + 1,471 = 17,600.
    for (earned, carried, used, handed_on, kept) in [
        ("17600", "0", "0.00", "5000.00", "1000.00"),
        ("17601", "0", "1.00", "4999.00", "1000.00"),
        ("22599", "0", "4999.00", "1.00", "1000.00"),
        ("22600", "0", "5000.00", "0.00", "1000.00"),
        ("20600", "3000", "3000.00", "5000.00", "1000.00"),
        ("21600", "3000", "4000.00", "4000.00", "1000.00"),
    ] {
        let outcome = family(earned, carried).outcome();
        assert_lines(&outcome, 1, &[("32300", used), ("32700", handed_on), ("tuition.carried", kept)]);
        assert_eq!(line(&outcome, 0, "32600"), money(handed_on), "{earned}");
    }
    // A parent who needs only a part takes only that; the rest stays with the student.
    let parent = Family::of("AB", "divorced").person("pat", "filer", "1975-01-01").child("sam", "2005-01-01");
    let outcome = parent.pension("pat", "20129").tuition("sam", "6000").outcome();
    assert_lines(&outcome, 0, &[("32400", "2000.00"), ("42900", "0.00")]);
    assert_lines(&outcome, 1, &[("32700", "2000.00"), ("tuition.carried", "4000.00")]);
}

#[test]
fn pension_income_by_age_and_by_months() {
    let annuity = |born: &str| {
        let family = Family::couple("ON", [born, "1962-01-01"]);
        let boxes = json!({ "016": "30000", "024": "10000" });
        family.paper("T4A", "ada", boxes).pin("ca.split", "ada")
    };
    for (born, months, most) in [
        ("1960-12-31", 12, "20000.00"),
        ("1961-01-01", 12, "15000.00"),
        ("1960-12-31", 7, "11666.67"),
        ("1960-12-31", 0, "0.00"),
    ] {
        let outcome = annuity(born).answer("months_together", json!(months)).outcome();
        let found =
            outcome.decisions.iter().find(|d| d.id == "ca.split.amount").and_then(|d| d.amount.clone());
        assert_eq!(found.map_or(Money::ZERO, |a| a.most), money(most), "{born} {months}");
    }
    // Before 65 an annuity is no pension: it is other investment income, and the partner counts the life annuity only.
    let outcome = annuity("1961-01-01").pin("ca.split.amount", "15000").outcome();
    assert_lines(&outcome, 0, &[("11500", "30000.00"), ("12100", "10000.00"), ("31400", "2000.00")]);
    assert_lines(&outcome, 1, &[("11600", "15000.00"), ("31400", "2000.00")]);
    let outcome = annuity("1960-12-31").pin("ca.split.amount", "1000").outcome();
    // Of 1,000 only three quarters come from the life annuity.
    assert_lines(&outcome, 1, &[("11600", "1000.00"), ("31400", "750.00")]);
}

#[test]
fn spouse_and_dependant_amounts() {
    for (partner, federal, ontario, alberta) in [
        ("0", "16129.00", "10823.00", "22323.00"),
        ("1082", "15047.00", "10823.00", "21241.00"),
        ("1083", "15046.00", "10822.00", "21240.00"),
        ("11905", "4224.00", "0.00", "10418.00"),
        ("16128", "1.00", "0.00", "6195.00"),
        ("16129", "0.00", "0.00", "6194.00"),
        ("22323", "0.00", "0.00", "0.00"),
    ] {
        for (province, expected) in [("ON", ontario), ("AB", alberta)] {
            let family = Family::couple(province, ["1970-01-01", "1970-01-01"]);
            let outcome = family.interest("ada", "60000").interest("bo", partner).outcome();
            assert_lines(&outcome, 0, &[("30300", federal), ("58120", expected)]);
            assert_lines(&outcome, 1, &[("30300", "0.00"), ("58120", "0.00")]);
        }
    }
    let parent = |born: &str| {
        let family = Family::of("ON", "divorced").person("pat", "filer", "1980-01-01").child("cy", born);
        family.answer_for("pat", "maintains_home", json!(true)).interest("pat", "60000")
    };
    for (born, amount) in [("2007-01-02", "16129.00"), ("2007-01-01", "0.00"), ("2015-05-05", "16129.00")] {
        assert_eq!(line(&parent(born).outcome(), 0, "30400"), money(amount), "{born}");
    }
    let told = parent("2015-05-05").answer_for("cy", "net_income", json!("4000"));
    assert_eq!(line(&told.clone().outcome(), 0, "30400"), money("12129"));
    let paying = told.answer_for("cy", "support_paid", json!(true)).outcome();
    assert_eq!(line(&paying, 0, "30400"), Money::ZERO);
}

#[test]
fn low_income_workers_in_ontario() {
    // Employment 40,000: the most of 875, less 5 % of net income above 32,500.
    let family = |second: &str| {
        let family = Family::couple("ON", ["1980-01-01", "1980-01-01"]);
        family.paper("T4", "ada", json!({ "14": "40000" })).interest("bo", second)
    };
    assert_lines(&family("10000").outcome(), 0, &[("ontario.lift", "500.00")]);
    // 40,000 + 33,000 is 8,000 above the family threshold, which is more than 7,500.
    assert_lines(&family("33000").outcome(), 0, &[("ontario.lift", "475.00")]);
    // A small earner gets a part of earnings only.
    let small = Family::single("ON", "1980-01-01")
        .paper("T4", "ada", json!({ "14": "10000" }))
        .interest("ada", "20000");
    assert_lines(
        &small.outcome(),
        0,
        &[("ontario.before", "871.28"), ("ontario.reduction", "0.00"), ("ontario.lift", "505.00")],
    );
}

#[test]
fn the_children_count_with_the_higher_net_income() {
    let family = |first: &str, second: &str| {
        let family = Family::couple("ON", ["1980-01-01", "1980-01-01"])
            .child("cy", "2006-06-06")
            .child("di", "2012-01-01");
        family.interest("ada", first).interest("bo", second).outcome()
    };
    // Basic tax of 30,000: 1,515 less 643.72 of credits = 871.28; of 30,001: 871.33. One child was over 18.
    let higher = family("30000", "30001");
    assert_lines(&higher, 0, &[("ontario.before", "871.28"), ("ontario.reduction", "0.00")]);
    assert_lines(&higher, 1, &[("ontario.before", "871.33"), ("ontario.reduction", "804.67")]);
    let equal = family("30000", "30000");
    assert_lines(&equal, 0, &[("ontario.reduction", "804.72")]);
    assert_lines(&equal, 1, &[("ontario.reduction", "0.00")]);
}

#[test]
fn large_amounts_keep_the_earlier_rate() {
    // Bills of 60,000 at no more than the most of the threshold, with 120,000 of pension.
    let outcome = Family::single("AB", "1970-01-01")
        .pension("ada", "120000")
        .medical("ada", &[("2025-01-05", "60000")])
        .outcome();
    // 16,129 + 2,000 + 57,166 = 75,295; 0.5 % above 57,375. Alberta: 22,323 + 1,719 + 57,116 = 81,158; 2 % above 60,000.
    assert_lines(
        &outcome,
        0,
        &[("33500", "75295.00"), ("34990", "89.60"), ("58800", "81158.00"), ("alberta.supplement", "423.16")],
    );
}

#[test]
fn every_figure_has_its_source_and_its_certainty() {
    assert_eq!(COMMITTED.years(), [2025, 2024]);
    assert!(Figures::of(2023).is_none());
    for (year, text, unsure) in
        SOURCES.iter().map(|(y, t)| (*y, *t, t.matches("\"to_be_confirmed\"").count()))
    {
        let tables = text.matches("status = ").count();
        assert_eq!(text.matches("cite = ").count(), tables, "{year}");
        // What the book could not confirm stays so.
        assert_eq!((tables, unsure), if year == 2025 { (104, 63) } else { (102, 61) }, "{year}");
    }
}
