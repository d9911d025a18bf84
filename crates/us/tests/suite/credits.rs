//! Schedule R, Forms 5695, 8396, 8839, 8936 and Schedule H, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn single(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

/// 5,000 less half of what income is above 7,500: 15 % of the rest, up to the tax.
#[test]
fn the_elderly_or_disabled() {
    for (wages, untaxed, credit) in [
        (17_000, "0", 38),   // 5,000 − 4,750: 37.50
        (17_000, "100", 23), // 22.50
        (16_000, "0", 26),   // 112.50, but the tax is 26
        (17_499, "0", 0),
        (17_498, "0", 0), // .15
        (17_492, "0", 1), // 4: .60
    ] {
        let family = single(wages).answer_for("ada", "disability_income", json!("17000")).answer_for(
            "ada",
            "untaxed_pensions",
            json!(untaxed),
        );
        assert_lines(&family.outcome(), &[("us.sched_3.6d", credit)]);
    }
    // Under 65 no more than the pension; none of it without one.
    let pension =
        |amount: &str| single(17_000).answer_for("ada", "disability_income", json!(amount)).outcome();
    assert_lines(&pension("4900"), &[("us.sched_3.6d", 23)]);
    assert_lines(&pension("0"), &[("us.sched_3.6d", 0)]);
    assert!(has_point(&pension("4900"), "schedule-r-pensions"));
    // 65 is reached on the day before the birthday.
    for (born, credit) in [("1960-01-01", 38), ("1960-01-02", 0)] {
        let family = Family::of(2024).filer("ada", born).wages("ada", 17_000);
        assert_lines(&family.outcome(), &[("us.sched_3.6d", credit)]);
    }
}

fn home(family: Family, rows: Value) -> Family {
    family.paper("5695", &["ada"], json!({}), rows)
}

fn put_in(sort: &str, amount: i64) -> Value {
    json!({ "sort": sort, "date": "2025-06-30", "amount": amount.to_string(), "code": "A1B2" })
}

/// 30 %: windows 600, a door 250, doors 500, an audit 150, all together 1,200; heat pumps 2,000 beside it.
#[test]
fn home_improvements() {
    for (rows, credit) in [
        (json!([put_in("windows", 1_999)]), 600),
        (json!([put_in("windows", 3_000)]), 600),
        (json!([put_in("door", 1_000), put_in("door", 500)]), 400),
        (json!([put_in("door", 1_000), put_in("door", 1_000), put_in("door", 1_000)]), 500),
        (json!([put_in("audit", 600)]), 150),
        (json!([put_in("insulation", 3_999)]), 1_200),
        (
            json!([
                put_in("insulation", 1_000),
                put_in("windows", 3_000),
                put_in("door", 1_000),
                put_in("door", 500)
            ]),
            1_200,
        ),
        (json!([put_in("furnace", 3_000), put_in("water", 3_000)]), 1_200),
        (json!([put_in("pump", 6_660)]), 1_998),
        (json!([put_in("pump", 5_000), put_in("biomass", 3_000)]), 2_000),
        (json!([put_in("pump", 8_000), put_in("insulation", 4_000)]), 3_200),
    ] {
        assert_eq!(line(&home(single(60_000), rows.clone()).outcome(), "us.sched_3.5b"), credit, "{rows}");
    }
    // Up to the tax: 4,250 of taxable income bear 428.
    let outcome = home(single(20_000), json!([put_in("pump", 8_000)])).outcome();
    assert_lines(&outcome, &[("us.sched_3.5b", 428), ("us.22", 0)]);
    let late = json!([{ "sort": "pump", "date": "2026-01-02", "amount": "8000", "code": "A1B2" }]);
    let outcome = home(single(60_000), late).outcome();
    assert_lines(&outcome, &[("us.sched_3.5b", 0)]);
    assert!(has_point(&outcome, "K-132"));
    let unnamed = |sort: &str| {
        home(single(60_000), json!([{ "sort": sort, "date": "2025-05-05", "amount": "90" }])).outcome()
    };
    assert!(has_point(&unnamed("pump"), "K-132-code"));
    assert!(!has_point(&unnamed("insulation"), "K-132-code"));
    assert!(has_point(&unnamed("fuel_cell"), "5695-fuel-cell"));
    let earlier = Family::single(2024).wages("ada", 60_000);
    let rows = json!([{ "sort": "windows", "date": "2024-05-05", "amount": "900" }]);
    assert!(!has_point(&home(earlier, rows).outcome(), "K-132-code"));
}

/// 30 % without a limit but the tax; the rest is carried on.
#[test]
fn clean_energy() {
    let outcome = home(single(60_000), json!([put_in("solar", 20_000)])).outcome();
    assert_lines(&outcome, &[("us.16", 5_075), ("us.sched_3.5a", 5_075), ("us.carryover.clean_energy", 925)]);
    let carried = single(60_000).paper("5695", &["ada"], json!({ "12": "700" }), json!(null)).outcome();
    assert_lines(&carried, &[("us.sched_3.5a", 700), ("us.carryover.clean_energy", 0)]);
    // A fuel cell of 3 half kilowatts: 1,500 at most.
    let mut cell = put_in("fuel_cell", 9_000);
    cell["halves"] = json!(3);
    assert_lines(&home(single(60_000), json!([cell])).outcome(), &[("us.sched_3.5a", 1_500)]);
}

/// A child: of 2,200 as much as may be paid out does not stand before the credits that are carried on (Worksheet B).
#[test]
fn the_child_credit_makes_room() {
    let family = single(60_000).answer_for("ada", "paid_home", json!(true)).child("kim", "2015-05-05");
    let outcome = home(family.clone(), json!([put_in("solar", 20_000)])).outcome();
    // Tax 4,025; 2,200 − 1,700 stand before it: 3,525 for the panels, 500 for the child, 1,700 paid out.
    assert_lines(
        &outcome,
        &[
            ("us.16", 4_025),
            ("us.sched_3.5a", 3_525),
            ("us.19", 500),
            ("us.28", 1_700),
            ("us.carryover.clean_energy", 2_475),
            ("us.net_tax", -1_700),
        ],
    );
    // Small panels leave the child's credit as it was.
    let outcome = home(family, json!([put_in("solar", 1_000)])).outcome();
    assert_lines(&outcome, &[("us.sched_3.5a", 300), ("us.19", 2_200), ("us.28", 0), ("us.net_tax", 1_525)]);
}

/// Interest by the rate of the certificate, above 20 % up to 2,000; this year's first, then the oldest.
#[test]
fn mortgage_interest() {
    let with = |interest: i64, rate: &str, rows: Value, wages: i64| {
        single(wages).paper("8396", &["ada"], json!({ "1": interest.to_string(), "2": rate }), rows).outcome()
    };
    for (interest, rate, credit) in [
        (8_000, "20", 1_600),
        (11_000, "20", 2_200),
        (8_000, "25", 2_000),
        (7_996, "25", 1_999),
        (9_000, "25", 2_000),
        (4_000, "12.5", 500),
    ] {
        assert_lines(&with(interest, rate, json!(null), 60_000), &[("us.sched_3.6g", credit)]);
    }
    let rows = json!([{ "year": 2022, "amount": "500" }, { "year": 2023, "amount": "300" }, { "year": 2021, "amount": "900" }]);
    let outcome = with(8_000, "20", rows, 20_000);
    assert_lines(
        &outcome,
        &[("us.8396.7", 800), ("us.sched_3.6g", 428), ("us.carryover.mortgage_credit", 1_472)],
    );
    assert!(has_point(&with(8_000, "9.99", json!(null), 60_000), "8396-rate"));
    assert!(has_point(&with(8_000, "50.01", json!(null), 60_000), "8396-rate"));
    assert!(!has_point(&with(8_000, "10", json!(null), 60_000), "8396-rate"));
    // What was credited is not deducted.
    let family = single(90_000).loan(&["ada"], 20_000, 300_000).paper(
        "8396",
        &["ada"],
        json!({ "1": "20000", "2": "25" }),
        json!(null),
    );
    assert_lines(&family.outcome(), &[("us.sched_a.8e", 18_000), ("us.sched_3.6g", 2_000)]);
}

fn adoption(family: Family, boxes: Value, rows: Value) -> Family {
    family.paper("8839", &["ada"], boxes, rows)
}

/// 17,280 a child; between 259,190 and 299,190 it goes; 5,000 of it is paid out from 2025 on.
#[test]
fn adoptions() {
    let spent =
        |wages: i64| adoption(single(wages), json!({ "final": true, "5": "20000" }), json!(null)).outcome();
    assert_lines(&spent(100_000), &[("us.8839.6", 17_280), ("us.30", 5_000), ("us.sched_3.6c", 12_280)]);
    for (wages, credit) in [
        (259_190, 17_280),
        (259_209, 17_280),
        (259_210, 17_263),
        (279_190, 8_640),
        (299_189, 0),
        (299_190, 0),
    ] {
        assert_eq!(line(&spent(wages), "us.8839.11"), credit, "{wages}");
    }
    let case = |boxes: Value| line(&adoption(single(100_000), boxes, json!(null)).outcome(), "us.8839.11");
    assert_eq!(case(json!({ "final": true, "special": true })), 17_280);
    assert_eq!(case(json!({ "final": true, "special": true, "3": "7280" })), 10_000);
    assert_eq!(case(json!({ "final": false, "special": true, "5": "900" })), 900);
    assert_eq!(case(json!({ "final": false, "foreign": true, "5": "900" })), 0);
    assert_eq!(case(json!({ "final": true, "5": "9000", "3": "10000" })), 7_280);
    let earlier = adoption(
        Family::single(2024).wages("ada", 100_000),
        json!({ "final": true, "5": "20000" }),
        json!(null),
    );
    assert_lines(&earlier.outcome(), &[("us.30", 0), ("us.8839.11", 16_810)]);
    // First in, first out: 428 of 2020's 3,000, whose rest ends here.
    let rows = json!([{ "year": 2020, "amount": "3000" }, { "year": 2024, "amount": "1000" }, { "year": 2019, "amount": "50" }]);
    let outcome = adoption(single(20_000), json!({}), rows).outcome();
    assert_lines(
        &outcome,
        &[("us.8839.15", 4_000), ("us.sched_3.6c", 428), ("us.carryover.adoption", 1_000)],
    );
    assert!(has_point(&adoption(single(90_000), json!({ "5": "900" }), json!(null)).outcome(), "8839-when"));
    // Together 17,280 for the child, and nothing apart.
    let couple = Family::couple(2025).wages("ada", 60_000).wages("bo", 60_000).paper(
        "8839",
        &["ada", "bo"],
        json!({ "final": true, "5": "20000" }),
        json!(null),
    );
    assert_lines(
        &couple.clone().pin("us.status", "joint").outcome(),
        &[("us.8839.6", 17_280), ("us.30", 5_000)],
    );
    let apart = couple.pin("us.status", "separate").outcome();
    assert_lines(&apart, &[("us.20", 0)]);
    assert!(has_point(&apart, "8839-separate"));
}

/// Up to incomes of this year or the last; passed on to the dealer it is paid back above them.
#[test]
fn clean_vehicles() {
    let car = |wages: i64, more: Value| {
        let mut boxes = json!({
            "sort": "new", "vin": "1HGCM82633A004352", "acquired": "2025-09-30", "service": "2025-10-05", "credit": "7500",
        });
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        single(wages).paper("8936", &["ada"], boxes, json!(null)).outcome()
    };
    assert_lines(&car(150_000, json!({})), &[("us.sched_3.6f", 7_500)]);
    let over = car(150_001, json!({}));
    assert_lines(&over, &[("us.sched_3.6f", 0)]);
    assert!(has_point(&over, "K-133-income"));
    assert_lines(&car(150_001, json!({ "last_year": true })), &[("us.sched_3.6f", 7_500)]);
    assert_lines(&car(20_000, json!({})), &[("us.sched_3.6f", 428)]);
    let passed = car(150_001, json!({ "passed_on": true, "last_year": false }));
    assert_lines(&passed, &[("us.sched_2.1b", 7_500), ("us.17", 7_500), ("us.sched_3.6f", 0)]);
    assert_lines(&car(150_000, json!({ "passed_on": true })), &[("us.17", 0), ("us.sched_3.6f", 0)]);
    let used =
        |price: &str, wages: i64| car(wages, json!({ "sort": "used", "price": price, "credit": "4000" }));
    assert_lines(&used("12000", 75_000), &[("us.sched_3.6m", 3_600)]);
    assert_lines(&used("25000", 75_000), &[("us.sched_3.6m", 4_000)]);
    assert_lines(&used("12000", 75_001), &[("us.sched_3.6m", 0)]);
    assert!(has_point(&used("25001", 60_000), "8936-price"));
    for more in [json!({ "acquired": "2025-10-01" }), json!({ "service": "2026-01-01" })] {
        let late = car(90_000, more);
        assert_lines(&late, &[("us.sched_3.6f", 0)]);
        assert!(has_point(&late, "K-133"));
    }
    assert!(has_point(&car(90_000, json!({ "vin": "123" })), "8936-report"));
    assert!(!car(90_000, json!({ "business": true })).covered);
}

/// 12.4 % and 2.9 % from 2,800 a year of each; .6 % of the first 7,000 where unemployment tax is due.
#[test]
fn household_employees() {
    let paid = |wages: &[i64], more: Value| {
        let rows: Vec<_> =
            wages.iter().map(|w| json!({ "name": "Ida Marsh", "amount": w.to_string() })).collect();
        let mut boxes = json!({ "ein": "36-4410927" });
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        single(90_000).paper("Schedule H", &["ada"], boxes, json!(rows)).outcome()
    };
    for (wages, quarter, tax) in [
        (&[2_799][..], false, 0),
        (&[2_800], false, 347 + 81),
        (&[2_800], true, 347 + 81 + 17),
        (&[2_800, 2_799], true, 347 + 81 + 34), // 5,599 × .6 % = 33.59
        (&[10_000], true, 1_240 + 290 + 42),
        (&[177_100], false, 21_836 + 5_136), // 176,100 for social security
    ] {
        let outcome = paid(wages, json!({ "quarter": quarter, "one_state": true }));
        assert_eq!(line(&outcome, "us.sched_2.9"), tax, "{wages:?} {quarter}");
        assert!(outcome.covered);
    }
    assert!(has_point(&paid(&[2_799], json!({})), "schedule-h-small"));
    assert!(has_point(&paid(&[2_800], json!({ "quarter": true })), "schedule-h-state"));
    assert!(!paid(&[2_800], json!({ "quarter": true, "one_state": false })).covered);
    let mut unnamed = single(90_000).paper("Schedule H", &["ada"], json!({}), json!([{ "amount": "5000" }]));
    unnamed.0["papers"][1]["boxes"] = json!({});
    assert!(has_point(&unnamed.outcome(), "schedule-h-ein"));
}
