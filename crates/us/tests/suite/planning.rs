//! 2026 as a year for planning: what its law adds, worked by hand from the statute, one unit below, at and above each threshold.

use hembo_core::{Outcome, Pack, outcome::LineInput};
use hembo_testing::us::{Family, assert_lines, has_point};
use hembo_us::UnitedStates;
use serde_json::{Value, json};

fn single(wages: i64) -> Family {
    Family::single(2026).wages("ada", wages)
}

/// What a figure of a line says.
fn figure(outcome: &Outcome, id: &str, label: &str) -> String {
    let line = outcome.lines.iter().find(|l| l.id == id && l.scope == "return/0").unwrap();
    let found = line.inputs.iter().find_map(|input| match input {
        LineInput::Figure { label: of, value } if of == label => Some(value.clone()),
        _ => None,
    });
    found.unwrap()
}

#[test]
fn only_the_year_that_runs_is_for_planning() {
    let planning =
        UnitedStates::COMMITTED.years().into_iter().filter(|&y| UnitedStates::COMMITTED.is_planning(y));
    assert_eq!(planning.collect::<Vec<_>>(), [2026]);
}

/// 60,000 less 16,100 is 43,900, in the band of 43,925: 1,240 + 12 % of 31,525.
#[test]
fn the_brackets_and_the_standard_deduction() {
    let outcome = single(60_000).outcome();
    assert_lines(&outcome, &[("us.standard", 16_100), ("us.15", 43_900), ("us.16", 5_023)]);
    let couple = Family::couple(2026).wages("ada", 250_000).outcome();
    // 250,000 − 32,200 = 217,800: 2,480 + 9,120 + 24,332 + 24 % of 6,400.
    assert_lines(&couple, &[("us.15", 217_800), ("us.16", 37_468)]);
}

/// §170(p): 1,000, of a couple 2,000, beside the standard deduction only.
#[test]
fn gifts_beside_the_standard_deduction() {
    for (given, allowed) in [(999, 999), (1_000, 1_000), (1_001, 1_000)] {
        let outcome = single(60_000).cash_gift(&["ada"], given).outcome();
        assert_lines(&outcome, &[("us.unitemized_gifts", allowed), ("us.15", 43_900 - allowed)]);
    }
    let couple = Family::couple(2026).wages("ada", 90_000).cash_gift(&["ada"], 2_500).outcome();
    assert_lines(&couple, &[("us.unitemized_gifts", 2_000), ("us.12e", 32_200), ("us.15", 55_800)]);
    let itemized = single(60_000).cash_gift(&["ada"], 2_500).pin("us.deduction", "itemized").outcome();
    assert!(itemized.lines.iter().all(|l| l.id != "us.unitemized_gifts"));
    // 2025 has neither this nor the floor.
    let before = Family::single(2025).wages("ada", 60_000).cash_gift(&["ada"], 2_500).outcome();
    assert!(before.lines.iter().all(|l| l.id != "us.unitemized_gifts"));
    assert_lines(&before, &[("us.sched_a.14", 2_500)]);
}

/// §170(b)(1)(I): only what is above 0.5 % of income, 1,000 of 200,000.
#[test]
fn gifts_above_the_floor() {
    for (given, allowed) in [(999, 0), (1_000, 0), (1_001, 1), (10_000, 9_000)] {
        let outcome = single(200_000).cash_gift(&["ada"], given).pin("us.deduction", "itemized").outcome();
        assert_lines(&outcome, &[("us.sched_a.14", allowed)]);
    }
    // Cash above 60 % of 100,000 is carried over, and the 500 of the floor with it.
    let over = single(100_000).cash_gift(&["ada"], 70_000).pin("us.deduction", "itemized").outcome();
    assert_lines(&over, &[("us.sched_a.14", 59_500), ("us.gifts.carried_cash", 10_500)]);
    let within = single(100_000).cash_gift(&["ada"], 60_000).pin("us.deduction", "itemized").outcome();
    assert_lines(&within, &[("us.sched_a.14", 59_500), ("us.gifts.carried_cash", 0)]);
}

/// §68: 2/37 of the smaller of the deductions and what income before them is above 640,600.
#[test]
fn the_overall_limit_on_itemized_deductions() {
    let of = |wages: i64| single(wages).cash_gift(&["ada"], 100_000).property_tax(&["ada"], 10_000).outcome();
    // Gifts 100,000 − 4,000, taxes 10,000: 106,000 × 2/37 = 5,729.73.
    let all = of(800_000);
    assert_lines(
        &all,
        &[("us.sched_a.17", 106_000), ("us.itemized_limit", 5_730), ("us.12e", 100_270), ("us.15", 699_730)],
    );
    // Deductions 106,500; 700,000 is 59,400 above: 3,210.81.
    let part = of(700_000);
    assert_lines(&part, &[("us.itemized_limit", 3_211), ("us.12e", 103_289), ("us.15", 596_711)]);
    // 2/37 of 9 is 0.49, of 10 is 0.54.
    let none = |wages: i64| of(wages).lines.iter().all(|l| l.id != "us.itemized_limit");
    assert!(none(640_600) && none(640_609) && !none(640_610));
    let other_year = Family::single(2025).wages("ada", 800_000).cash_gift(&["ada"], 100_000).outcome();
    assert!(other_year.lines.iter().all(|l| l.id != "us.itemized_limit"));
}

/// §163(h)(3)(E): a tenth less for each 1,000 or part of it above 100,000.
#[test]
fn mortgage_insurance_premiums() {
    for (wages, allowed) in
        [(100_000, 1_000), (100_001, 900), (101_000, 900), (101_001, 800), (109_000, 100), (109_001, 0)]
    {
        let loan = json!({ "1": "9000", "2": "300000", "year_end": "300000", "5": "1000" });
        let outcome = single(wages)
            .paper("1098", &["ada"], loan, Value::Null)
            .pin("us.deduction", "itemized")
            .outcome();
        assert_lines(&outcome, &[("us.sched_a.8d", allowed), ("us.sched_a.8e", 9_000 + allowed)]);
    }
    let loan = json!({ "1": "9000", "2": "300000", "year_end": "300000", "5": "1000" });
    let before =
        Family::single(2025).wages("ada", 90_000).paper("1098", &["ada"], loan, Value::Null).outcome();
    assert_lines(&before, &[("us.sched_a.8e", 9_000)]);
}

/// §21(a)(2): 50 % to 35 % from 15,000, then from 75,000 (of a couple 150,000, by 4,000) to 20 %.
#[test]
fn the_part_of_care_in_two_tiers() {
    let care = |family: Family| {
        let rows = json!([{ "person": "kim", "amount": "5000" }]);
        let family = family.child("kim", "2019-05-05");
        let outcome = family.paper("Care", &["ada"], json!({ "number": "36-4410927" }), rows).outcome();
        figure(&outcome, "us.sched_3.2", "Part")
    };
    let head = |wages: i64| {
        care(Family::single(2026).set("ada", "/answers/paid_home", json!(true)).wages("ada", wages))
    };
    let expected = [
        (15_000, "0.5"),
        (15_001, "0.49"),
        (43_000, "0.36"),
        (43_001, "0.35"),
        (75_000, "0.35"),
        (75_001, "0.34"),
        (77_001, "0.33"),
        (103_000, "0.21"),
        (103_001, "0.2"),
        (300_000, "0.2"),
    ];
    for (wages, part) in expected {
        assert_eq!(head(wages), part, "{wages}");
    }
    let couple = |wages: i64| care(Family::couple(2026).wages("ada", wages - 20_000).wages("bo", 20_000));
    for (wages, part) in
        [(150_000, "0.35"), (150_001, "0.34"), (154_001, "0.33"), (206_000, "0.21"), (206_001, "0.2")]
    {
        assert_eq!(couple(wages), part, "{wages}");
    }
}

/// §165(d): 90 % of losses, up to the winnings.
#[test]
fn gambling_losses() {
    for (lost, allowed) in [(1_000, 900), (2_222, 2_000), (2_223, 2_000), (2_221, 1_999)] {
        let rows = json!([{ "sort": "gambling", "amount": lost.to_string() }]);
        let outcome = single(90_000)
            .paper("W-2G", &["ada"], json!({ "1": "2000" }), Value::Null)
            .paper("Other deductions", &["ada"], json!({}), rows)
            .outcome();
        assert_lines(&outcome, &[("us.sched_a.16.gambling", allowed)]);
    }
}

/// 350 above the line; the rest is itemized.
#[test]
fn educators_expenses() {
    let rows = json!([{ "what": "Books", "amount": "500" }]);
    let family = single(60_000).paper("Educator", &["ada"], json!({}), rows);
    let outcome = family.pin("us.deduction", "itemized").outcome();
    assert_lines(
        &outcome,
        &[("us.sched_1.11", 350), ("us.sched_a.16.educators", 150), ("us.sched_a.17", 150)],
    );
}

/// AMTI 800,000 of a single person: half of 300,000 above 500,000 takes all of 90,100; 26 % of 244,500 and 28 % of 555,500.
#[test]
fn the_minimum_tax_exemption_is_gone_sooner() {
    let options = json!({ "3": "10", "4": "30", "5": 10_000 });
    let outcome = single(600_000).paper("3921", &["ada"], options, Value::Null).outcome();
    assert_lines(&outcome, &[("us.6251.4", 800_000), ("us.6251.9", 219_110)]);
}

/// 199A(i): at least 400 where businesses that one works in bring 1,000.
#[test]
fn the_least_deduction_for_business_income() {
    // 1,075: net 992.76, tax 152, half 76, so 999; 1,076 leaves 1,000.
    for (profit, qualified, deduction) in [(1_075, 999, 200), (1_076, 1_000, 400), (2_600, 2_416, 483)] {
        let boxes = json!({ "1": profit.to_string(), "participates": true, "service": false });
        let outcome = single(60_000).paper("Schedule C", &["ada"], boxes, Value::Null).outcome();
        assert_lines(&outcome, &[("us.8995.2", qualified), ("us.13a", deduction)]);
    }
}

/// §36B: nothing above 400 % of 15,650, and all of the advance payments is paid back; 9.96 % from 300 % on.
#[test]
fn the_premium_tax_credit_ends_at_four_times_the_poverty_line() {
    let of = |wages: i64| {
        let boxes = json!({ "33A": "9000", "33B": "9600", "33C": "5000" });
        single(wages).paper("1095-A", &["ada"], boxes, Value::Null).outcome()
    };
    // 62,600 × .0996 = 6,234.96; 9,600 − 6,235.
    assert_lines(&of(62_600), &[("us.8962.8a", 6_235), ("us.8962.24", 3_365), ("us.sched_2.1a", 1_635)]);
    assert_lines(&of(62_601), &[("us.8962.24", 0), ("us.sched_2.1a", 5_000)]);
    // 149 %: 3.14 + 16/17 × 1.05 = 4.13; 150 %: 4.19.
    for (percent, part) in
        [(132, 210), (133, 314), (141, 363), (149, 413), (150, 419), (299, 993), (300, 996)]
    {
        let income = (15_650 * percent + 99) / 100;
        let expected = (income * part + 5_000) / 10_000;
        assert_lines(&of(income), &[("us.8962.8a", expected)]);
    }
}

/// Nothing that was put in after 2025 has a credit.
#[test]
fn home_energy_has_ended() {
    let rows = json!([{ "date": "2026-02-01", "sort": "solar", "amount": "20000" }]);
    let outcome = single(90_000).paper("5695", &["ada"], json!({ "12": "300" }), rows).outcome();
    assert_lines(&outcome, &[("us.sched_3.5a", 300)]);
    assert!(has_point(&outcome, "K-132"));
}

/// From 2026 tips and overtime stand in box 12: codes TP and TT.
#[test]
fn tips_and_overtime_by_their_codes() {
    let boxes = json!({ "12a": "TP", "12a.amount": "3000", "12b": "TT", "12b.amount": "1500", "12c": "TA", "12c.amount": "900" });
    let of = |year: i32| Family::single(year).wages_with("ada", 60_000, boxes.clone()).outcome();
    let next = of(2026);
    assert_lines(&next, &[("us.13b", 4_500), ("us.15", 39_400)]);
    assert!(!has_point(&next, "K-048-year"));
    let before = of(2025);
    assert_lines(&before, &[("us.13b", 0)]);
    assert!(has_point(&before, "K-048-year"));
}

/// From 2026 the education credits ask for numbers valid for work, of the student and of the filer.
#[test]
fn education_credits_ask_for_numbers_valid_for_work() {
    let school = json!({ "1": "4000", "8": true, "years": 1, "f": "36-4410927" });
    let of = |year: i32, valid: bool| {
        let family = Family::single(year).set("ada", "/answers/work_ssn", json!(valid)).wages("ada", 60_000);
        family.paper("1098-T", &["ada"], school.clone(), Value::Null).outcome()
    };
    let next = of(2026, false);
    assert!(has_point(&next, "education-number") && !next.covered);
    assert!(
        !has_point(&of(2026, true), "education-number") && !has_point(&of(2025, false), "education-number")
    );
}
