//! Who came to or left Canada in the year: amounts by days, by hand.

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::json;

fn came(province: &str, day: &str) -> Family {
    Family::single(province, "1980-01-01")
        .answer("part_year", json!(true))
        .answer_for("ada", "came_on", json!(day))
        .answer_for("ada", "income_abroad", json!("20000"))
        .answer_for("ada", "canadian_abroad", json!("0"))
}

#[test]
fn amounts_are_by_the_days_of_residence() {
    // 16,129 and 22,323 of Alberta by 183, 1 and 365 of 365 days.
    for (day, federal, provincial) in [
        ("2025-07-02", "8086.59", "11192.08"),
        ("2025-12-31", "44.19", "61.16"),
        ("2025-01-01", "16129", "22323"),
    ] {
        let outcome = came("AB", day).employed("ada", "40000").outcome();
        assert_lines(&outcome, 0, &[("30000", federal), ("58040", provincial)]);
        assert!(outcome.covered, "{day}");
    }
    // 184 of 366 days in 2024: 15,705.
    let leap = came("AB", "2024-07-01").employed("ada", "40000").in_year(2024).outcome();
    assert_lines(&leap, 0, &[("30000", "7895.41")]);
    // Until a day, its own counted; and away in between.
    let left = |left: &str| {
        let family = Family::single("AB", "1980-01-01").answer("part_year", json!(true));
        family
            .answer_for("ada", "left_on", json!(left))
            .answer_for("ada", "income_abroad", json!("1"))
            .employed("ada", "9000")
    };
    assert_lines(&left("2025-03-31").outcome(), 0, &[("30000", "3977.01")]);
    let back = left("2025-03-31").answer_for("ada", "came_on", json!("2025-12-31")).outcome();
    assert_lines(&back, 0, &[("30000", "4021.20")]);
    let between = left("2025-03-31").answer_for("ada", "came_on", json!("2025-03-30")).outcome();
    assert_lines(&between, 0, &[("30000", "88.38")]);
}

#[test]
fn nearly_all_income_from_canada_makes_whole_amounts() {
    for (world, canadian, basic) in [
        ("10000", "9000", "16129"),
        ("10000", "8999.99", "8086.59"),
        ("0", "0", "16129"),
        ("0.01", "0", "8086.59"),
    ] {
        let family = came("AB", "2025-07-02").answer_for("ada", "income_abroad", json!(world));
        let outcome = family.answer_for("ada", "canadian_abroad", json!(canadian)).outcome();
        assert_lines(&outcome, 0, &[("30000", basic)]);
    }
}

#[test]
fn other_amounts_are_by_days_too_and_those_of_the_time_are_not() {
    let old = came("AB", "2025-07-02").set("ada", "/born", json!("1950-01-01")).answer_for(
        "ada",
        "disability",
        json!(true),
    );
    let outcome = old.pension("ada", "9000").outcome();
    let whole = Family::single("AB", "1950-01-01")
        .answer_for("ada", "disability", json!(true))
        .pension("ada", "9000")
        .outcome();
    for id in ["30100", "31600", "58080", "58440"] {
        let by_days = line(&whole, 0, id).in_proportion(
            hembo_money::Money::whole(183),
            hembo_money::Money::whole(365),
            hembo_money::Money::CENT,
            hembo_money::Rounding::HalfUp,
        );
        assert!(by_days > money("0"));
        assert_eq!(line(&outcome, 0, id), by_days, "{id}");
    }
    assert_lines(&outcome, 0, &[("31400", "2000")]);
}

#[test]
fn the_amount_for_a_partner_counts_the_partners_income_of_the_whole_year() {
    let couple = Family::couple("AB", ["1980-01-01", "1982-01-01"])
        .answer("part_year", json!(true))
        .employed("ada", "60000")
        .interest("bo", "6000");
    let family = ["ada", "bo"].into_iter().fold(couple, |family, who| {
        let family = family.answer_for(who, "came_on", json!("2025-07-02"));
        family.answer_for(who, "income_abroad", json!("2000"))
    });
    // (16,129 − 6,000 − 2,000) × 183/365
    assert_lines(&family.outcome(), 0, &[("30300", "4075.64")]);
}

#[test]
fn what_asks_for_the_whole_year_is_not_given() {
    let family = came("ON", "2025-01-02").employed("ada", "24000");
    assert_lines(&family.outcome(), 0, &[("45300", "0"), ("ontario.lift", "0")]);
    let whole = Family::single("ON", "1980-01-01").employed("ada", "24000").outcome();
    assert!(line(&whole, 0, "45300") > money("0") && line(&whole, 0, "ontario.lift") > money("0"));
    // The health premium by days: 600 of a taxable income of 60,000.
    let premium = came("ON", "2025-07-02").interest("ada", "60000").outcome();
    assert_lines(&premium, 0, &[("ontario.health", "300.82")]);
    // No statement of foreign property for the year of arrival.
    let house =
        json!([{ "category": "5", "what": "Flat", "country": "FRA", "most": "300000", "end": "300000" }]);
    let with = |family: Family| {
        family.answer("foreign_property", json!(true)).shared(
            "T1135",
            &[("ada", "100")],
            json!({}),
            house.clone(),
        )
    };
    assert!(!has_point(&with(came("AB", "2025-07-02")).outcome(), "T1135-B"));
    assert!(has_point(&with(Family::single("AB", "1980-01-01")).outcome(), "T1135-B"));
}

#[test]
fn what_is_missing_is_told() {
    let yes = Family::single("AB", "1980-01-01").answer("part_year", json!(true));
    assert!(has_point(&yes.outcome(), "C-14"));
    let with_day = yes.clone().answer_for("ada", "came_on", json!("2025-07-02"));
    assert!(!has_point(&with_day.outcome(), "C-14") && has_point(&with_day.outcome(), "C-14-income"));
    assert!(has_point(&with_day.outcome(), "C-14-came"));
    assert!(has_point(&with_day.clone().answer("part_year", json!(false)).outcome(), "C-14-no"));
    for (day, other) in [("2024-12-31", true), ("2025-01-01", false), ("2025-12-31", false)] {
        let family = yes.clone().answer_for("ada", "came_on", json!(day));
        assert_eq!(has_point(&family.outcome(), "C-14-day"), other, "{day}");
    }
    // Who left has no reduction for residents of 31 December that is settled.
    let left = Family::single("ON", "1980-01-01").answer("part_year", json!(true)).employed("ada", "9000");
    let left =
        left.answer_for("ada", "left_on", json!("2025-12-30")).answer_for("ada", "income_abroad", json!("1"));
    assert!(!left.outcome().covered || !has_point(&left.outcome(), "C-14-credits"));
    let taxed = left.interest("ada", "12000").outcome();
    assert!(has_point(&taxed, "C-14-credits") && has_point(&taxed, "C-14-left") && !taxed.covered);
}

#[test]
fn a_dependants_own_return_and_a_benefit_to_come_are_not_guessed() {
    let family = came("AB", "2025-07-02").employed("ada", "20000").child("cy", "2009-05-05");
    assert!(!has_point(&family.outcome(), "C-14-dependant"));
    assert!(has_point(&family.interest("cy", "100").outcome(), "C-14-dependant"));
    assert_lines(&came("AB", "2025-07-02").outcome(), 0, &[("benefits.sales", "0")]);
}
