//! Education credits, worked by hand from Form 8863.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn school(family: Family, student: &str, boxes: Value) -> Family {
    let mut all = json!({ "f": "36-4410927", "8": true, "years": 0 });
    for (key, value) in boxes.as_object().unwrap() {
        all[key] = value.clone();
    }
    family.paper("1098-T", &[student], all, json!(null))
}

fn single(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

/// A couple with a student of twenty.
fn parents(wages: i64) -> Family {
    Family::couple(2025).wages("ada", wages).child("kim", "2005-05-05").set(
        "kim",
        "/answers/student_months",
        json!(9),
    )
}

fn chosen(outcome: &Outcome, student: &str) -> String {
    let decision = outcome.decisions.iter().find(|d| d.id == format!("us.education.{student}")).unwrap();
    decision.options.iter().find(|o| o.chosen).unwrap().id.clone()
}

/// All of the first 2,000 and a quarter of the next; 40 % is paid out.
#[test]
fn the_american_opportunity_credit_by_expenses() {
    for (paid, credit) in
        [(1_999, 1_999), (2_000, 2_000), (2_004, 2_001), (3_999, 2_500), (4_000, 2_500), (9_000, 2_500)]
    {
        let outcome = school(parents(90_000), "kim", json!({ "1": paid.to_string() })).outcome();
        assert_lines(&outcome, &[("us.8863.7", credit), ("us.29", (credit * 4 + 5) / 10)]);
        assert_eq!(line(&outcome, "us.sched_3.3"), credit - (credit * 4 + 5) / 10);
        assert!(outcome.covered);
    }
    // Books count wherever bought, scholarships and other help do not.
    let outcome =
        school(parents(90_000), "kim", json!({ "1": "3000", "5": "1500", "aid": "500", "books": "400" }))
            .outcome();
    assert_lines(&outcome, &[("us.8863.7", 1_400)]);
}

/// From 80,000 to 90,000, of a couple from 160,000 to 180,000; three places.
#[test]
fn income_takes_from_the_credits() {
    for (wages, credit) in
        [(160_000, 2_500), (160_010, 2_500), (160_020, 2_498), (170_000, 1_250), (179_980, 3), (180_000, 0)]
    {
        let outcome = school(parents(wages), "kim", json!({ "1": "4000" })).outcome();
        let found = if wages == 180_000 { 0 } else { line(&outcome, "us.8863.7") };
        assert_eq!(found, credit, "{wages}");
    }
    let outcome = school(single(85_000), "ada", json!({ "1": "4000", "9": true })).outcome();
    // A graduate: 20 % of 4,000, half of it.
    assert_lines(&outcome, &[("us.8863.18", 400), ("us.29", 0)]);
}

/// 20 % of up to 10,000 for the whole return.
#[test]
fn lifetime_learning_is_for_a_return() {
    for (ada, bo, credit) in [(9_999, 0, 2_000), (9_990, 0, 1_998), (6_000, 6_000, 2_000)] {
        let family = school(
            Family::couple(2025).wages("ada", 90_000),
            "ada",
            json!({ "1": ada.to_string(), "9": true }),
        );
        let family = school(family, "bo", json!({ "1": bo.to_string(), "9": true }));
        assert_lines(&family.outcome(), &[("us.8863.18", credit)]);
    }
}

#[test]
fn who_has_which_credit() {
    let graduate = school(parents(90_000), "kim", json!({ "1": "4000", "9": true })).outcome();
    assert_eq!(chosen(&graduate, "kim"), "learning");
    for (boxes, why) in [
        (json!({ "8": false }), "not at least half-time"),
        (json!({ "9": true }), "the first four years are finished"),
        (json!({ "finished": true }), "the first four years are finished"),
        (json!({ "years": 4 }), "used in four years already"),
        (json!({ "felony": true }), "felony drug conviction"),
    ] {
        let mut all = boxes.clone();
        all["1"] = json!("4000");
        let outcome = school(parents(90_000), "kim", all).outcome();
        let decision = outcome.decisions.iter().find(|d| d.id == "us.education.kim").unwrap();
        assert_eq!(decision.options[0].barred.as_deref(), Some(why));
    }
    let first = school(parents(90_000), "kim", json!({ "1": "4000" }));
    assert_eq!(chosen(&first.clone().outcome(), "kim"), "opportunity");
    // Held back, the price is 2,500 less 800.
    let learning = first.clone().pin("us.education.kim", "learning").outcome();
    assert_eq!(learning.total - first.clone().outcome().total, Money::whole(1_700));
    // None on separate returns, nor for someone who is claimed.
    let apart = first.pin("us.status", "separate").outcome();
    assert_lines(&apart, &[("us.sched_3.3", 0)]);
    assert!(has_point(&apart, "education-barred"));
    let claimed =
        school(single(40_000), "ada", json!({ "1": "4000" })).set("ada", "/answers/claimable", json!(true));
    assert_lines(&claimed.outcome(), &[("us.sched_3.3", 0), ("us.29", 0)]);
}

/// Nothing is paid out to a filer under 24 who is a student, did not earn over half of the support, and has a living parent.
#[test]
fn the_part_paid_out_is_barred_for_the_young() {
    let young = school(single(20_000), "ada", json!({ "1": "4000" }))
        .set("ada", "/born", json!("2003-05-05"))
        .set("ada", "/answers/student_months", json!(9))
        .set("ada", "/answers/claimable", json!(false));
    assert_lines(&young.clone().outcome(), &[("us.29", 0), ("us.sched_3.3", 428)]);
    for (answer, value) in
        [("earned_over_half", json!(true)), ("parent_alive", json!(false)), ("student_months", json!(4))]
    {
        let outcome = young.clone().set("ada", &format!("/answers/{answer}"), value).outcome();
        assert_lines(&outcome, &[("us.29", 1_000), ("us.sched_3.3", 428)]);
    }
    assert_lines(&young.set("ada", "/born", json!("2002-01-01")).outcome(), &[("us.29", 1_000)]);
}

/// A couple with 168,000: a student with 9,000 of tuition, 600 of books and a grant of 7,000, of which 1,400 is taken as income, and a
/// spouse with a graduate course of 6,000.
#[test]
fn a_scholarship_taken_as_income() {
    let family = |taxed: &str| {
        let family = school(
            parents(168_000),
            "kim",
            json!({ "1": "9000", "books": "600", "5": "7000", "taxed": taxed }),
        );
        let family = school(family, "bo", json!({ "1": "6000", "9": true }));
        let income = json!([{ "sort": "scholarship", "amount": taxed }]);
        family.wages("kim", 6_000).paper("Other income", &["kim"], json!({}), income)
    };
    let outcome = family("1400").outcome();
    assert_lines(
        &outcome,
        &[
            ("us.8863.7", 1_500),
            ("us.29", 600),
            ("us.8863.18", 720),
            ("us.sched_3.3", 1_620),
            ("us.15", 136_500),
            ("us.16", 19_858),
            ("us.19", 500),
            ("us.22", 17_738),
            ("us.net_tax", 17_138),
        ],
    );
    assert_lines(&family("0").outcome(), &[("us.8863.7", 1_290)]);
    assert!(has_point(&family("0").outcome(), "scholarship-choice"));
    assert!(has_point(&outcome, "C-13"));
    let mut unsaid = school(parents(90_000), "kim", json!({ "1": "4000" }));
    unsaid.0["papers"][1]["boxes"].as_object_mut().unwrap().remove("f");
    assert!(has_point(&unsaid.outcome(), "K-128"));
}
