//! Child care (form T778) of couples and of who is alone, at its limits, and the credit of Ontario for it.

use hembo_core::Outcome;
use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

/// A line of the paper: whose care, by the day, how much.
fn by_day(child: &str, amount: &str) -> Value {
    json!({ "child": child, "number": "9", "kind": "day", "amount": amount })
}

fn overnight(child: &str, weeks: i64, amount: &str) -> Value {
    json!({ "child": child, "number": "9", "kind": "overnight", "weeks": weeks, "amount": amount })
}

fn paid(family: Family, lines: &[Value]) -> Family {
    family.shared("T778", &[("ada", "100")], json!({}), json!(lines))
}

/// A parent alone with pay of so much and one child.
fn parent(pay: &str, born: &str) -> Family {
    let family = Family::of("AB", "divorced").person("ada", "filer", "1980-01-01").child("cy", born);
    family.answer_for("ada", "maintains_home", json!(true)).paper("T4", "ada", json!({ "14": pay }))
}

/// Ada with 90,000 and Bo with so much of pay, both without contributions.
fn couple(pay: &str) -> Family {
    let family = Family::couple("AB", ["1980-01-01", "1980-01-01"]);
    family.paper("T4", "ada", json!({ "14": "90000" })).paper("T4", "bo", json!({ "14": pay }))
}

#[test]
fn the_limit_of_a_child_goes_by_age_and_certificate() {
    for (born, certified, most) in [
        ("2018-12-31", false, "5000"), // seven on the last day of the year
        ("2019-01-01", false, "8000"),
        ("2025-12-31", false, "8000"),
        ("2010-06-06", false, "5000"),
        ("2010-06-06", true, "11000"),
        ("2022-06-06", true, "11000"),
        ("2009-01-02", false, "5000"), // sixteen in the year, fifteen on its first day
    ] {
        let family = parent("90000", born).answer_for("cy", "disability", json!(certified));
        for (spent, deducted) in [("4000", "4000"), ("20000", most)] {
            let outcome = paid(family.clone(), &[by_day("cy", spent)]).outcome();
            assert_lines(&outcome, 0, &[("t778.limits", most), ("21400", deducted)]);
        }
    }
    // Born on 1 January sixteen years before: under sixteen on no day of the year.
    let outcome = paid(parent("90000", "2009-01-01"), &[by_day("cy", "4000")]).outcome();
    assert_lines(&outcome, 0, &[("21400", "0")]);
    assert!(has_point(&outcome, "C-47"));
    // An infirm child of any age counts as one over six.
    let grown = parent("90000", "1999-01-01").answer_for("cy", "infirm", json!(true));
    assert_lines(&paid(grown, &[by_day("cy", "6000")]).outcome(), 0, &[("21400", "5000")]);
}

#[test]
fn two_thirds_of_earned_income_are_the_most() {
    for (pay, deducted) in [
        ("0", "0.00"),
        ("1500", "1000.00"),
        ("11999.99", "7999.99"), // 7,999.9933
        ("12000", "8000.00"),
        ("12000.01", "8000.00"),
    ] {
        let outcome = paid(parent(pay, "2022-02-02"), &[by_day("cy", "8000")]).outcome();
        assert_lines(&outcome, 0, &[("21400", deducted)]);
    }
    // A business, disability benefits of the plan and taxable scholarships are earned; interest and pensions are not.
    let bare = || Family::of("AB", "divorced").person("ada", "filer", "1980-01-01").child("cy", "2022-02-02");
    for (kind, boxes, deducted) in [
        ("T2125", json!({ "gross": "6000" }), "4000"),
        ("T2125", json!({ "gross": "6000", "goods": "9000" }), "0"),
        ("T4A(P)", json!({ "20": "9000", "16": "3000" }), "2000"),
        ("T4A", json!({ "105": "3500", "105.for": "none" }), "2000"),
        ("T4A", json!({ "016": "60000" }), "0"),
        ("T5", json!({ "13": "60000" }), "0"),
        ("T4E", json!({ "14": "9000", "15": "9000", "7": 0 }), "0"),
    ] {
        let outcome = paid(bare().paper(kind, "ada", boxes), &[by_day("cy", "8000")]).outcome();
        assert_eq!(line(&outcome, 0, "21400"), money(deducted), "{kind}");
    }
}

#[test]
fn nights_away_count_so_much_a_week() {
    for (born, certified, weeks, spent, counted) in [
        ("2022-02-02", false, 2, "399.99", "399.99"),
        ("2022-02-02", false, 2, "400.01", "400"),
        ("2015-02-02", false, 3, "900", "375"),
        ("2015-02-02", true, 1, "300", "275"),
    ] {
        let family = parent("90000", born).answer_for("cy", "disability", json!(certified));
        let outcome = paid(family, &[overnight("cy", weeks, spent)]).outcome();
        assert_lines(&outcome, 0, &[("t778.expenses", counted), ("21400", counted)]);
    }
    let unknown = json!({ "child": "cy", "number": "9", "kind": "overnight", "amount": "300" });
    assert!(has_point(&paid(parent("90000", "2015-02-02"), &[unknown]).outcome(), "C-48"));
}

#[test]
fn the_limits_of_all_children_are_one_pot() {
    // 8,000 and 5,000: all is paid for the older one.
    let family = parent("90000", "2022-02-02").child("di", "2014-04-04");
    let outcome = paid(family.clone(), &[by_day("di", "12000")]).outcome();
    assert_lines(&outcome, 0, &[("t778.limits", "13000"), ("21400", "12000")]);
    let over = paid(family, &[by_day("di", "12000"), by_day("cy", "2000")]).outcome();
    assert_lines(&over, 0, &[("t778.expenses", "14000"), ("21400", "13000")]);
    let lost = over.limits.iter().find(|limit| limit.id == "ca.limit.child_care").unwrap();
    assert_eq!(lost.lost, money("1000"));
}

#[test]
fn the_lower_net_income_of_a_couple_claims() {
    let claimed = |outcome: &Outcome| [0, 1].map(|place| line(outcome, place, "21400"));
    for (pay, expected) in [
        ("89999.99", ["0", "8000"]),
        ("90000.01", ["8000", "0"]),
        ("30000", ["0", "8000"]),
        ("6000", ["0", "4000"]),
        ("0", ["0", "0"]),
    ] {
        let outcome = paid(couple(pay).child("cy", "2022-02-02"), &[by_day("cy", "8000")]).outcome();
        assert_eq!(claimed(&outcome), expected.map(money), "{pay}");
    }
    // With the same net income they agree on it: that is a decision.
    let equal = paid(couple("90000").child("cy", "2022-02-02"), &[by_day("cy", "8000")]);
    for (who, expected) in [("ada", ["8000", "0"]), ("bo", ["0", "8000"])] {
        assert_eq!(claimed(&equal.clone().pin("ca.care", who).outcome()), expected.map(money));
    }
    assert!(equal.outcome().decisions.iter().any(|decision| decision.id == "ca.care"));
}

/// Retirement contributions may change which income is the lower one: then the care moves with it, and the best is found.
#[test]
fn a_deduction_may_move_the_care() {
    let family = paid(couple("88000").child("cy", "2022-02-02"), &[by_day("cy", "8000")]);
    let family = family.contributions("ada", "9000", "5000");
    let free = family.clone().outcome();
    assert!(free.complete);
    let mut lowest = None;
    for dollars in (0..=5_000).step_by(250).chain([1_999, 2_000, 2_001]) {
        let held = family.clone().pin("ca.rrsp.ada", &dollars.to_string()).outcome();
        let by = if dollars > 2_000 { 0 } else { 1 };
        // 90,000 less the deduction against 88,000; of equals the first claims.
        let by = if dollars == 2_000 { 0 } else { by };
        assert_eq!(line(&held, by, "21400"), money("8000"), "{dollars}");
        lowest = Some(lowest.map_or(held.total, |lowest: hembo_money::Money| lowest.min(held.total)));
    }
    assert!(free.total <= lowest.unwrap());
}

#[test]
fn the_higher_income_claims_for_weeks_of_the_other() {
    let family = |question: &str, value: i64| {
        let family = couple("30000").child("cy", "2022-02-02").child("di", "2014-04-04");
        paid(family, &[by_day("cy", "13000")]).answer_for("bo", question, json!(value))
    };
    // A week is 200 and 125, a month of part-time studies as much.
    for (question, value, most) in [
        ("care_weeks", 1, "325"),
        ("care_weeks", 10, "3250"),
        ("care_weeks", 40, "13000"),
        ("care_weeks", 52, "13000"),
        ("care_months", 3, "975"),
    ] {
        let outcome = family(question, value).pin("ca.care.higher", most).outcome();
        assert_eq!(line(&outcome, 0, "21400"), money(most), "{question} {value}");
        assert_eq!(line(&outcome, 1, "21400"), money("13000") - money(most));
        let decision = outcome.decisions.iter().find(|d| d.id == "ca.care.higher").unwrap();
        assert_eq!(decision.amount.as_ref().unwrap().most, money(most));
    }
    // Nothing needs to be claimed there.
    let none = family("care_weeks", 10).pin("ca.care.higher", "0").outcome();
    assert_lines(&none, 1, &[("21400", "13000")]);
    assert!(family("care_weeks", 10).outcome().total <= none.total);
    // Weeks of the one with the higher income bring nothing.
    let other = couple("30000").child("cy", "2022-02-02").answer_for("ada", "care_weeks", json!(10));
    let outcome = paid(other.clone(), &[by_day("cy", "8000")]).outcome();
    assert_eq!([0, 1].map(|place| line(&outcome, place, "21400")), [money("0"), money("8000")]);
    let both = paid(other.answer_for("bo", "care_weeks", json!(3)), &[by_day("cy", "8000")]).outcome();
    assert!(has_point(&both, "C-45"));
}

#[test]
fn a_student_alone_claims_out_of_net_income() {
    // Pay of 3,000 allows 2,000; with interest net income is 15,000, two thirds of it 10,000.
    let student = |weeks: i64| {
        let family = parent("3000", "2022-02-02").interest("ada", "12000").answer_for(
            "ada",
            "care_weeks",
            json!(weeks),
        );
        paid(family, &[by_day("cy", "8000")]).outcome()
    };
    for (weeks, deducted) in [(0, "2000"), (1, "2200"), (20, "6000"), (30, "8000"), (52, "8000")] {
        assert_lines(&student(weeks), 0, &[("21400", deducted)]);
    }
}

#[test]
fn of_two_students_the_one_with_less_claims_out_of_net_income() {
    let students = |weeks: i64| {
        let family = Family::couple("AB", ["1990-01-01", "1991-01-01"]).child("cy", "2022-02-02");
        let family = family.interest("ada", "60000").interest("bo", "12000");
        let family = family.paper("T4", "bo", json!({ "14": "3000", "28.cpp": true, "28.ei": true }));
        let family = ["ada", "bo"].iter().fold(family, |f, who| f.answer_for(who, "care_weeks", json!(30)));
        paid(family.answer("care_weeks_both", json!(weeks)), &[by_day("cy", "8000")]).outcome()
    };
    for (weeks, deducted) in [(0, "2000"), (1, "2200"), (20, "6000"), (30, "8000"), (40, "8000")] {
        let outcome = students(weeks);
        assert_lines(&outcome, 0, &[("21400", "0")]);
        assert_lines(&outcome, 1, &[("21400", deducted)]);
        assert!(!has_point(&outcome, "C-45"));
    }
}

#[test]
fn ontario_pays_a_part_that_falls_in_steps() {
    // A couple, all of the income with Ada but 12,001 of Bo's, who deducts 8,000.
    let credit = |income: i64| {
        let family = Family::couple("ON", ["1980-01-01", "1980-01-01"]).child("cy", "2022-02-02");
        let family = family.paper("T4", "bo", json!({ "14": "12001" }));
        // Family net income: Ada's interest and 4,001.
        let family = family.interest("ada", &(income - 4_001).to_string());
        line(&paid(family, &[by_day("cy", "8000")]).outcome(), 1, "ontario.child_care")
    };
    for (income, percent) in [
        (20_000, 75),
        (20_001, 73),
        (22_500, 73),
        (22_501, 71),
        (40_000, 59),
        (40_001, 57),
        (45_000, 57),
        (45_001, 55),
        (60_000, 51),
        (60_001, 49),
        (63_600, 49),
        (63_601, 47),
        (150_000, 1),
        (150_001, 0),
    ] {
        assert_eq!(credit(income), hembo_money::Money::whole(80 * percent), "{income}");
    }
    // Other provinces have none.
    let outcome = paid(parent("60000", "2022-02-02"), &[by_day("cy", "8000")]).outcome();
    assert_lines(&outcome, 0, &[("47900", "0")]);
}

#[test]
fn care_takes_from_the_supplement_of_the_same_child() {
    let family = parent("90000", "2015-02-02").answer_for("cy", "disability", json!(true));
    let family = family.answer_for("cy", "attendant", json!(false)).child("di", "2016-01-01");
    for (child, spent, transferred) in
        [("cy", "3464", "16052"), ("cy", "3465", "16051"), ("di", "5000", "16052"), ("cy", "10000", "10138")]
    {
        let outcome = paid(family.clone(), &[by_day(child, spent)]).outcome();
        assert_eq!(line(&outcome, 0, "31800"), money(transferred), "{child} {spent}");
    }
}

#[test]
fn relatives_count_with_little_income_of_their_own() {
    let relative = |net: &str| {
        let family = parent("90000", "2022-02-02").person("su", "dependent", "2014-01-01");
        let family = family.answer_for("su", "relationship", json!("sibling")).answer_for(
            "su",
            "net_income",
            json!(net),
        );
        paid(family, &[by_day("su", "4000")])
    };
    assert_lines(&relative("16129").outcome(), 0, &[("21400", "4000")]);
    let over = relative("16130").outcome();
    assert_lines(&over, 0, &[("21400", "0")]);
    assert!(has_point(&over, "C-47"));
    let with_papers = relative("0").interest("su", "50").outcome();
    assert!(has_point(&with_papers, "C-47-income") && !with_papers.covered);
}
