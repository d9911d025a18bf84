//! Education credits, worked by hand from Form 8863.

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
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
    taken(outcome, &format!("us.education.{student}"))
}

fn taken(outcome: &Outcome, id: &str) -> String {
    let decision = outcome.decisions.iter().find(|d| d.id == id).unwrap();
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

/// A couple with 168,000: a student with 9,000 of tuition, 600 of books and a grant of 7,000 that may be used to live on, and a spouse
/// with a graduate course of 6,000. Of the grant 1,400 is taken as income, which leaves 4,000: more credit, and no tax on 7,400.
#[test]
fn a_scholarship_taken_as_income() {
    let boxes = json!({ "1": "9000", "books": "600", "5": "7000", "living": "7000" });
    let family = school(parents(168_000), "kim", boxes);
    let family = school(family, "bo", json!({ "1": "6000", "9": true })).wages("kim", 6_000);
    let outcome = family.clone().outcome();
    assert_eq!(taken(&outcome, "us.scholarship.kim"), "140000");
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
    assert_eq!(line_of(&outcome, "us.sched_1.8r", "return/1"), 1_400);
    assert_eq!(line_of(&outcome, "us.standard", "return/1"), 7_850);
    assert_eq!(line_of(&outcome, "us.15", "return/1"), 0);
    let nothing = family.pin("us.scholarship.kim", "0").outcome();
    assert_lines(&nothing, &[("us.8863.7", 1_290)]);
    assert_eq!(nothing.total - outcome.total, Money::whole(210));
}

/// No more than the terms allow, and than pays for tuition: what is above that is income anyway.
#[test]
fn what_may_be_taken() {
    let options = |boxes: Value| {
        let outcome = school(parents(90_000), "kim", boxes).wages("kim", 6_000).outcome();
        let decision = outcome.decisions.into_iter().find(|d| d.id == "us.scholarship.kim");
        decision.map(|d| d.options.iter().map(|o| o.id.clone()).collect::<Vec<_>>()).unwrap_or_default()
    };
    let of = |amounts: [i64; 4]| amounts.map(|a| (a * 100).to_string()).to_vec();
    // 5,000 − 4,500 leave 500; 1,500 more make 2,000, 3,500 make 4,000, and 9,750 would be free of tax.
    let boxes = |living: &str| json!({ "1": "5000", "5": "4500", "living": living });
    assert_eq!(options(boxes("4500")), of([0, 1_500, 3_500, 4_500]));
    assert_eq!(options(boxes("3500")), of([0, 1_500, 3_500, 0])[..3]);
    assert_eq!(options(boxes("3499")), of([0, 1_500, 3_499, 0])[..3]);
    assert_eq!(options(boxes("0")), Vec::<String>::new());
    // Of 6,000 for living 1,000 is above tuition.
    assert_eq!(options(json!({ "1": "5000", "5": "6000", "living": "1000" })), Vec::<String>::new());
    assert_eq!(options(json!({ "1": "5000", "5": "6000", "living": "6000" })), of([0, 2_000, 4_000, 5_000]));
}

/// A student of 24 or more is a relative, whose income must stay below 5,200.
#[test]
fn a_relative_stays_below_the_gross_income() {
    let boxes = json!({ "1": "8000", "5": "8000", "living": "8000" });
    let family = school(parents(90_000), "kim", boxes)
        .set("kim", "/born", json!("2000-05-05"))
        .set("kim", "/answers/supported", json!(true))
        .wages("kim", 2_200);
    let outcome = family.outcome();
    let decision = outcome.decisions.iter().find(|d| d.id == "us.scholarship.kim").unwrap();
    assert_eq!(decision.options.last().unwrap().id, "299900");
}

/// 175,000 leave the parents a quarter of 2,500 and 500 for a dependent, 1,125 together. Unclaimed, the student has the credit against
/// a tax of 1,475 on 14,250, and nothing is paid out.
#[test]
fn a_student_who_is_not_claimed_has_the_credit() {
    let family = |wages| school(parents(wages), "kim", json!({ "1": "4000" })).wages("kim", 30_000);
    let outcome = family(175_000).outcome();
    assert_eq!(taken(&outcome, "us.student_claim.kim"), "forgone");
    assert_lines(&outcome, &[("us.19", 0), ("us.sched_3.3", 0), ("us.29", 0)]);
    for (id, amount) in [("us.standard", 15_750), ("us.16", 1_475), ("us.sched_3.3", 1_475), ("us.29", 0)] {
        assert_eq!(line_of(&outcome, id, "return/1"), amount, "{id}");
    }
    let claimed = family(175_000).pin("us.student_claim.kim", "claimed").outcome();
    assert_eq!(claimed.total - outcome.total, Money::whole(350));
    assert_eq!(taken(&family(90_000).outcome(), "us.student_claim.kim"), "claimed");
    assert!(has_point(&family(175_000).pin("us.status", "separate").outcome(), "education-barred"));
}

#[test]
fn what_a_school_must_say() {
    let mut unsaid = school(parents(90_000), "kim", json!({ "1": "4000" }));
    unsaid.0["papers"][1]["boxes"].as_object_mut().unwrap().remove("f");
    assert!(has_point(&unsaid.outcome(), "K-128"));
    let grant = |boxes| school(parents(90_000), "kim", boxes).outcome();
    assert!(has_point(&grant(json!({ "1": "4000", "5": "1" })), "scholarship-terms"));
    assert!(!has_point(&grant(json!({ "1": "4001", "5": "1" })), "scholarship-terms"));
    assert!(has_point(&grant(json!({ "1": "4000", "5": "4001" })), "K-083"));
    let twice = school(parents(90_000), "kim", json!({ "1": "4000", "5": "900", "living": "900" }));
    let income = json!([{ "sort": "scholarship", "amount": "900" }]);
    assert!(!has_point(&twice.clone().outcome(), "scholarship-twice"));
    let twice = twice.paper("Other income", &["kim"], json!({}), income).outcome();
    assert!(has_point(&twice, "scholarship-twice"));
}

/// A file of before, which says what was taken, is read as what may be.
#[test]
fn an_earlier_name_is_read() {
    let mut family = school(parents(90_000), "kim", json!({ "1": "5000", "5": "4500" }));
    family.0["papers"][1]["boxes"]["taxed"] = json!("1500");
    assert_eq!(taken(&family.outcome(), "us.scholarship.kim"), "150000");
}
