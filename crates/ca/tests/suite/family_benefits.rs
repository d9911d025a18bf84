//! What filing brings, estimated by hand for the benefit year after.

use hembo_core::Outcome;
use hembo_testing::ca::{Family, assert_lines, line, money};
use serde_json::json;

/// A parent alone in Alberta with a child of each date of birth.
fn parent(year: i32, net: &str, born: &[&str]) -> Family {
    let family = Family::single("AB", "1985-01-01").interest("ada", net).in_year(year);
    born.iter().enumerate().fold(family, |family, (n, born)| family.child(&format!("c{n}"), born))
}

#[test]
fn the_child_benefit_below_at_and_above_its_thresholds() {
    // 2024: the year from July 2025. One of 3 and one of 10: 7,997 + 6,748, 13.5 % from 37,487, 5.7 % from 81,222.
    for (net, benefit) in [
        ("0", "14745.00"),
        ("37487", "14745.00"),
        ("37488", "14744.88"),
        ("81222", "8840.76"),
        ("81223", "8840.76"),
        ("100000", "7770.48"),
        ("240000", "0"),
    ] {
        let outcome = parent(2024, net, &["2021-10-10", "2014-10-10"]).outcome();
        assert_lines(&outcome, 0, &[("benefits.income", net), ("benefits.child", benefit)]);
    }
    // 2025: one child under 6 in all months.
    assert_lines(&parent(2025, "0", &["2022-01-01"]).outcome(), 0, &[("benefits.child", "8157.00")]);
}

#[test]
fn ages_count_by_the_month() {
    // Six on 15 December 2026: young up to December, older from January on: 6 × 679.75 + 6 × 573.58.
    assert_lines(&parent(2025, "0", &["2020-12-15"]).outcome(), 0, &[("benefits.child", "7519.98")]);
    // Six on 1 December: in December that was not before the month.
    assert_lines(&parent(2025, "0", &["2020-12-01"]).outcome(), 0, &[("benefits.child", "7519.98")]);
    assert_lines(&parent(2025, "0", &["2020-11-30"]).outcome(), 0, &[("benefits.child", "7413.81")]);
    // Eighteen on 2 July 2026: one month.
    assert_lines(&parent(2025, "0", &["2008-07-02"]).outcome(), 0, &[("benefits.child", "573.58")]);
    assert_lines(&parent(2025, "0", &["2008-06-30"]).outcome(), 0, &[("benefits.child", "0")]);
}

#[test]
fn a_certificate_brings_more() {
    let family = parent(2025, "0", &["2022-01-01"]).answer_for("c0", "disability", json!(true)).outcome();
    assert_lines(&family, 0, &[("benefits.child", "11637.00")]);
}

#[test]
fn the_credit_for_goods_and_services_tax() {
    let single = |net: &str| Family::single("AB", "1985-01-01").interest("ada", net).in_year(2024).outcome();
    for (net, credit) in [
        ("0", "349"),
        ("11337", "349"),
        ("12337", "369"),
        ("20537", "533"),
        ("45521", "533"),
        ("45541", "532"),
        ("60000", "0"),
    ] {
        assert_lines(&single(net), 0, &[("benefits.sales", credit)]);
    }
    let couple = Family::couple("AB", ["1985-01-01"; 2]).child("cy", "2020-01-01").in_year(2024).outcome();
    assert_lines(&couple, 0, &[("benefits.sales", "882")]);
    // A parent alone: the first child counts as an adult, and the whole supplement.
    assert_lines(
        &parent(2024, "0", &["2020-01-01", "2018-01-01"]).outcome(),
        0,
        &[("benefits.sales", "1066")],
    );
}

/// 122.61(1.1): a half of what there would be with the child and of what without.
#[test]
fn children_in_shared_custody_bring_halves() {
    let shared = |family: Family| family.answer_for("c0", "shared_custody", json!(true)).outcome();
    assert_lines(&shared(parent(2025, "0", &["2022-01-01"])), 0, &[("benefits.child", "4078.50")]);
    let two = parent(2025, "0", &["2022-01-01", "2022-01-01"]);
    assert_lines(&shared(two), 0, &[("benefits.child", "12235.50")]);
}

/// Ontario 2025: 378 a person less 4 % above 29,047 alone or 36,309; 1,760 a child less 8 % above 26,865.
#[test]
fn provinces_pay_with_them() {
    let parent = |province: &str, year: i32, net: &str, children: usize| {
        let family = Family::single(province, "1985-01-01").interest("ada", net).in_year(year);
        (0..children).fold(family, |family, n| family.child(&format!("c{n}"), "2018-01-01")).outcome()
    };
    for (province, year, net, children, amount) in [
        ("ON", 2025, "29047", 0, "378"),
        ("ON", 2025, "29147", 0, "374"),
        ("ON", 2025, "26865", 1, "2516"),
        ("ON", 2025, "26965", 1, "2508"),
        ("ON", 2025, "36309", 2, "3898.48"),
        ("ON", 2025, "100000", 2, "0"),
        ("ON", 2024, "28506", 0, "371"),
        ("NB", 2025, "35000", 1, "400"),
        ("NB", 2025, "36000", 1, "380"),
        ("NS", 2025, "30000", 2, "375"),
        ("NS", 2025, "31000", 2, "325"),
        ("AB", 2025, "0", 2, "0"),
    ] {
        let outcome = parent(province, year, net, children);
        assert_eq!(
            line(&outcome, 0, "benefits.province"),
            money(amount),
            "{province} {year} {net} {children}"
        );
    }
}

/// Counted, a contribution is worth what it brings of benefits as well, and is made where it saves no tax.
#[test]
fn benefits_count_where_the_household_says_so() {
    let family = parent(2025, "21000", &["2020-01-01", "2018-01-01", "2016-01-01"])
        .contributions("ada", "9000", "3000");
    let beside = family.clone().outcome();
    let counted = family.clone().answer("count_benefits", json!(true)).outcome();
    assert_eq!(line(&beside, 0, "benefits.counted"), money("0"));
    assert_eq!(counted.total, beside.total - line(&counted, 0, "benefits.all"));
    assert_eq!(line(&counted, 0, "balance"), line(&beside, 0, "balance"));
    // Above 38,237 each dollar less brings 19 cents, though the amounts leave no tax.
    let tall = || {
        parent(2025, "41237", &["2020-01-01", "2018-01-01", "2016-01-01"])
            .contributions("ada", "9000", "3000")
    };
    let held = tall().answer("count_benefits", json!(true)).pin("ca.rrsp.ada", "0").outcome();
    let free = tall().answer("count_benefits", json!(true)).outcome();
    assert_lines(&free, 0, &[("20800", "3000"), ("23600", "38237")]);
    let tax = |outcome: &Outcome| line(outcome, 0, "net_tax") + line(outcome, 0, "benefits.counted");
    assert_eq!(free.total, held.total - (tax(&held) - tax(&free)) - money("570"));
}

/// Where the year after is another matter nothing is estimated: then it is said that nothing counts, and only there.
#[test]
fn benefits_that_are_to_count_and_are_not_estimated_are_told() {
    let told = |family: &Family| {
        let outcome = family.outcome();
        outcome.points.iter().any(|point| point.code() == "benefits-counted" && point.unweighed)
    };
    let family = || parent(2025, "21000", &["2020-01-01"]);
    let dead = || family().set("ada", "/died", json!("2025-12-31"));
    let came = || family().answer_for("ada", "came_on", json!("2025-01-02"));
    let counts = |family: Family| family.answer("count_benefits", json!(true));
    for (family, expected) in [
        (family(), false),
        (counts(family()), false),
        (dead(), false),
        (counts(dead()), true),
        (came(), false),
        (counts(came()), true),
    ] {
        assert_eq!(told(&family), expected);
    }
}
