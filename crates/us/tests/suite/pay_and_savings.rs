//! The deductions of Schedule 1-A, tips that nobody reported, and the saver's credit, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use hembo_us::additional_deductions::is_vin;
use serde_json::{Value, json};

fn pay(wages: i64, boxes: Value) -> Family {
    Family::single(2025).wages_with("ada", wages, boxes)
}

fn tips(wages: i64, amount: i64) -> Family {
    pay(wages, json!({ "7": amount.to_string(), "14.tips": amount.to_string() }))
}

fn overtime(wages: i64, amount: i64) -> Family {
    pay(wages, json!({ "14.overtime": amount.to_string() }))
}

/// Tips: 25,000 a return, 100 less for each full 1,000 above 150,000. Overtime: 12,500, of a couple 25,000.
#[test]
fn tips_and_overtime() {
    for (wages, amount, deducted) in [
        (60_000, 24_999, 24_999),
        (60_000, 25_001, 25_000),
        (150_999, 8_000, 8_000),
        (151_000, 8_000, 7_900),
        (163_450, 8_000, 6_700),
        (399_999, 25_000, 100),
        (400_000, 25_000, 0),
    ] {
        assert_lines(&tips(wages, amount).outcome(), &[("us.sched_1a.13", deducted)]);
    }
    for (wages, amount, deducted) in
        [(60_000, 12_501, 12_500), (163_450, 14_000, 11_200), (275_000, 12_500, 0)]
    {
        assert_lines(&overtime(wages, amount).outcome(), &[("us.sched_1a.21", deducted)]);
    }
    let couple = Family::couple(2025)
        .wages_with("ada", 90_000, json!({ "14.overtime": "13000" }))
        .wages_with("bo", 90_000, json!({ "14.overtime": "13000" }));
    assert_lines(&couple.clone().outcome(), &[("us.sched_1a.21", 25_000), ("us.13b", 25_000)]);
    // Barred on separate returns, and without a number valid for work.
    assert_lines(&couple.clone().pin("us.status", "separate").outcome(), &[("us.sched_1a.21", 0)]);
    assert_lines(
        &couple.set("bo", "/answers/work_ssn", json!(false)).outcome(),
        &[("us.sched_1a.21", 13_000)],
    );
    assert!(has_point(&pay(60_000, json!({ "7": "899", "14.tips": "900" })).outcome(), "K-117"));
    assert!(has_point(&overtime(30_000, 10_000).outcome(), "K-118"));
    // The minimum tax allows both, and not the deduction for seniors.
    assert_lines(&overtime(60_000, 5_000).outcome(), &[("us.6251.4", 55_000)]);
}

fn car(wages: i64, interest: i64) -> Family {
    let boxes = json!({
        "interest": interest.to_string(), "vin": "1M8GDM9AXKP042788", "made": "2025-02-03", "new": true, "assembled": true,
        "personal": true,
    });
    Family::single(2025).wages("ada", wages).paper("Car loan", &["ada"], boxes, json!(null))
}

/// Car loans: 10,000 a return, 200 less for each 1,000 or part of it above 100,000.
#[test]
fn car_loans() {
    for (wages, interest, deducted) in [
        (90_000, 9_999, 9_999),
        (90_000, 10_001, 10_000),
        (100_000, 3_000, 3_000),
        (100_001, 3_000, 2_800),
        (101_000, 3_000, 2_800),
        (101_001, 3_000, 2_600),
        (123_450, 3_000, 0),
        (123_450, 12_000, 5_200),
        (149_000, 12_000, 200),
        (149_001, 12_000, 0),
    ] {
        assert_lines(&car(wages, interest).outcome(), &[("us.sched_1a.30", deducted)]);
    }
    let mut old = car(60_000, 900);
    old.0["papers"][1]["boxes"]["made"] = json!("2024-12-31");
    assert_lines(&old.outcome(), &[("us.13b", 0)]);
    let mut unsaid = car(60_000, 900);
    unsaid.0["papers"][1]["boxes"].as_object_mut().unwrap().remove("new");
    assert!(has_point(&unsaid.outcome(), "car-loan-tests"));
    let mut wrong = car(60_000, 900);
    wrong.0["papers"][1]["boxes"]["vin"] = json!("1M8GDM9AXKP042789");
    assert!(has_point(&wrong.outcome(), "K-116") && !has_point(&car(60_000, 900).outcome(), "K-116"));
}

#[test]
fn a_vehicle_number_has_a_check_digit() {
    for (vin, valid) in [
        ("1M8GDM9AXKP042788", true),
        ("1m8gdm9axkp042788", true),
        ("11111111111111111", true),
        ("1M8GDM9A1KP042788", false),
        ("1M8GDM9AXKP04278", false),
        ("IM8GDM9AXKP042788", false),
        ("", false),
    ] {
        assert_eq!(is_vin(vin), valid, "{vin}");
    }
}

/// Allocated tips are income, and taxed for social security up to the wage base: 176,100.
#[test]
fn tips_that_nobody_reported() {
    // 6.2 % and 1.45 % of 1,000: 62 and 15 (14.50).
    let outcome = pay(50_000, json!({ "8": "1000" })).outcome();
    assert_lines(&outcome, &[("us.1c", 1_000), ("us.1z", 51_000), ("us.sched_2.5", 77), ("us.23", 77)]);
    let by_records = pay(50_000, json!({ "8": "1000", "8.records": "400" })).outcome();
    assert_lines(&by_records, &[("us.1c", 400), ("us.sched_2.5", 25 + 6)]);
    for (social, taxed) in [("175000", 1_000), ("175600", 500), ("176100", 0)] {
        let outcome = pay(180_000, json!({ "3": social, "8": "1000" })).outcome();
        assert_lines(&outcome, &[("us.sched_2.5", taxed * 62 / 1_000 + 15)]);
    }
}

/// The saver's credit: 50, 20 and 10 % of up to 2,000 each, by income.
#[test]
fn the_savers_credit() {
    let deferral = json!({ "12a": "D", "12a.amount": "3000" });
    let single = |year, wages| Family::single(year).wages_with("ada", wages, deferral.clone());
    for (year, wages, rate) in [
        (2024, 23_000, 50),
        (2024, 23_001, 20),
        (2024, 25_000, 20),
        (2024, 25_001, 10),
        (2024, 38_250, 10),
        (2024, 38_251, 0),
        (2025, 23_750, 50),
        (2025, 23_751, 20),
        (2025, 25_500, 20),
        (2025, 25_501, 10),
        (2025, 39_500, 10),
        (2025, 39_501, 0),
    ] {
        let outcome = single(year, wages).outcome();
        let full = 2_000 * rate / 100;
        assert_eq!(line(&outcome, "us.sched_3.4"), full.min(line(&outcome, "us.18")), "{year} {wages}");
    }
    // Distributions of three years lower it; a student, someone claimed or under 18 has none.
    let less = single(2025, 30_000).set("ada", "/answers/testing_distributions", json!("1800"));
    assert_lines(&less.outcome(), &[("us.sched_3.4", 120)]);
    assert!(has_point(&single(2025, 30_000).outcome(), "8880-distributions"));
    for (pointer, value) in [
        ("/answers/student_months", json!(5)),
        ("/answers/claimable", json!(true)),
        ("/born", json!("2008-01-02")),
    ] {
        assert_lines(&single(2025, 30_000).set("ada", pointer, value).outcome(), &[("us.sched_3.4", 0)]);
    }
    assert_lines(
        &single(2025, 30_000).set("ada", "/born", json!("2008-01-01")).outcome(),
        &[("us.sched_3.4", 200)],
    );
    // A couple: each their own 2,000; distributions of one lower both.
    let couple = Family::couple(2025).wages_with("ada", 40_000, deferral.clone()).wages_with(
        "bo",
        39_000,
        json!({ "12b": "BB", "12b.amount": "1500" }),
    );
    assert_lines(&couple.outcome(), &[("us.sched_3.4", 350)]);
    let less = couple.set("ada", "/answers/testing_distributions", json!("1000"));
    assert_lines(&less.outcome(), &[("us.sched_3.4", 250)]);
    // It comes before the child credit.
    let head = single(2025, 30_000).set("ada", "/answers/paid_home", json!(true)).child("kim", "2015-05-05");
    // 30,000 − 23,625: tax 638 on the middle of 6,350 to 6,400; 50 % of 2,000 up to that; nothing is left for the child credit.
    assert_lines(&head.outcome(), &[("us.16", 638), ("us.sched_3.4", 638), ("us.19", 0), ("us.28", 1_700)]);
}

/// A plan under 501(c)(18)(D): deducted up to 7,000, and to a quarter of pay.
#[test]
fn code_h_is_deducted() {
    for (wages, amount, deducted) in [(50_000, 6_999, 6_999), (50_000, 7_001, 7_000), (20_000, 6_000, 5_000)]
    {
        let boxes = json!({ "12a": "H", "12a.amount": amount.to_string() });
        assert_lines(&pay(wages, boxes).outcome(), &[("us.sched_1.24f", deducted)]);
    }
}
