//! Child and dependent care, worked by hand from Form 2441.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn care(family: Family, rows: Value) -> Family {
    family.paper("Care", &["ada"], json!({ "number": "36-4410927" }), rows)
}

fn bill(person: &str, amount: i64) -> Value {
    json!({ "person": person, "amount": amount.to_string() })
}

fn head(wages: i64) -> Family {
    Family::single(2025)
        .set("ada", "/answers/paid_home", json!(true))
        .wages("ada", wages)
        .child("kim", "2018-05-05")
}

/// 3,000 for one, 6,000 for two; 35 % up to 15,000 of income, a point less for each 2,000 or part of it, 20 % above 43,000.
#[test]
fn the_credit_by_income_and_number() {
    for (wages, part) in [(43_000, 21), (43_001, 20), (41_000, 22), (41_001, 21), (90_000, 20), (31_000, 27)]
    {
        let outcome = care(head(wages), json!([bill("kim", 5_000)])).outcome();
        assert_lines(&outcome, &[("us.2441.6", 3_000)]);
        let full = 3_000 * part / 100;
        assert_eq!(line(&outcome, "us.sched_3.2"), full.min(line(&outcome, "us.18")), "{wages}");
    }
    // A second child without bills makes the amount 6,000 all the same.
    let two = head(60_000).child("lou", "2020-05-05");
    assert_lines(
        &care(two, json!([bill("kim", 5_000)])).outcome(),
        &[("us.2441.6", 5_000), ("us.sched_3.2", 1_000)],
    );
}

/// Under 13 when the care was given.
#[test]
fn care_before_the_thirteenth_birthday() {
    let family = head(60_000).set("kim", "/born", json!("2012-06-15"));
    let dated = |day: &str| {
        let mut row = bill("kim", 900);
        row["date"] = json!(day);
        care(family.clone(), json!([row])).outcome()
    };
    assert_lines(&dated("2025-06-14"), &[("us.2441.6", 900)]);
    assert_lines(&dated("2025-06-15"), &[("us.2441.6", 0)]);
    assert!(has_point(&dated("2025-06-15"), "K-127"));
    assert!(has_point(&care(family.clone(), json!([bill("kim", 900)])).outcome(), "K-127"));
    // At any age for someone who cannot care for themselves.
    let disabled =
        family.set("kim", "/born", json!("2009-01-01")).set("kim", "/answers/incapable", json!(true));
    assert_lines(&care(disabled, json!([bill("kim", 900)])).outcome(), &[("us.2441.6", 900)]);
}

/// The smaller earnings of spouses; months as a student count as 250, for two children 500.
#[test]
fn both_spouses_must_earn() {
    let couple = |bo: i64| {
        let family = Family::couple(2025).wages("ada", 80_000).child("kim", "2018-05-05");
        let family = if bo == 0 { family } else { family.wages("bo", bo) };
        care(family, json!([bill("kim", 4_000)]))
    };
    assert_lines(&couple(2_000).outcome(), &[("us.2441.6", 2_000), ("us.sched_3.2", 400)]);
    let idle = couple(0);
    assert_lines(&idle.outcome(), &[("us.sched_3.2", 0)]);
    assert!(has_point(&idle.outcome(), "K-126"));
    let student = idle.set("bo", "/answers/deemed_earned_months", json!(8));
    assert_lines(&student.clone().outcome(), &[("us.2441.6", 2_000)]);
    let two = student.child("lou", "2020-05-05").outcome();
    assert_lines(&two, &[("us.2441.6", 4_000)]);
    // None on a separate return, but for a spouse apart who paid for the home.
    let separate = couple(30_000).pin("us.status", "separate").outcome();
    assert_lines(&separate, &[("us.sched_3.2", 0)]);
    assert!(has_point(&separate, "care-separate"));
}

/// Benefits of an employer: left out up to 5,000 and to what was paid and earned; they use up the amounts of the credit.
#[test]
fn benefits_of_an_employer() {
    let with = |benefits: i64, paid: i64, two: bool| {
        let family = Family::single(2025)
            .set("ada", "/answers/paid_home", json!(true))
            .wages_with("ada", 60_000, json!({ "10": benefits.to_string() }))
            .child("kim", "2018-05-05");
        let family = if two { family.child("lou", "2020-05-05") } else { family };
        care(family, json!([bill("kim", paid)])).outcome()
    };
    for (benefits, paid, two, taxed, counted) in [
        (5_000, 8_000, true, 0, 1_000),
        (5_000, 8_000, false, 0, 0),
        (2_000, 8_000, false, 0, 1_000),
        (6_000, 8_000, true, 1_000, 1_000),
        (3_000, 2_000, true, 1_000, 0),
    ] {
        let outcome = with(benefits, paid, two);
        assert_lines(&outcome, &[("us.1e", taxed), ("us.1z", 60_000 + taxed), ("us.2441.6", counted)]);
        assert!(outcome.covered);
    }
    // On a separate return 2,500.
    let couple = Family::couple(2025)
        .wages_with("ada", 60_000, json!({ "10": "4000" }))
        .wages("bo", 50_000)
        .child("kim", "2018-05-05");
    let apart =
        care(couple, json!([bill("kim", 8_000)])).pin("us.status", "separate").pin("us.claim.kim", "ada");
    assert_eq!(line_of(&apart.outcome(), "us.1e", "return/0"), 1_500);
}

#[test]
fn what_the_form_asks_is_asked() {
    let bare = head(60_000)
        .paper("Care", &["ada"], json!({}), json!([bill("kim", 900), { "amount": "5" }]))
        .outcome();
    assert!(has_point(&bare, "K-125") && has_point(&bare, "care-whom"));
    let asked =
        head(60_000).paper("Care", &["ada"], json!({ "asked": true }), json!([bill("kim", 900)])).outcome();
    assert!(!has_point(&asked, "K-125"));
    let grown = head(60_000).child("lou", "2009-01-01");
    assert!(has_point(&care(grown, json!([bill("lou", 900)])).outcome(), "care-nobody"));
    let yes = head(60_000).answer("care", json!(true)).outcome();
    assert!(has_point(&yes, "no-paper"));
}

/// The credit for last year's care that was paid this year is added, where this year's may be had.
#[test]
fn last_years_care_paid_this_year() {
    let family = |boxes: Value, rows: Value| {
        let family = Family::single(2025).wages("ada", 60_000).child("kim", "2019-05-05");
        let mut all = json!({ "number": "36-4410927" });
        for (key, value) in boxes.as_object().unwrap() {
            all[key] = value.clone();
        }
        family.paper("Care", &["ada"], all, rows)
    };
    let paid = || json!([{ "person": "kim", "amount": "2000" }]);
    assert_lines(&family(json!({}), paid()).outcome(), &[("us.sched_3.2", 400)]);
    assert_lines(&family(json!({ "9b": "150" }), paid()).outcome(), &[("us.sched_3.2", 550)]);
    assert_lines(&family(json!({ "9b": "150" }), json!([])).outcome(), &[("us.sched_3.2", 150)]);
}
