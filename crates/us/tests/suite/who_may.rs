//! Who may have a credit, who is asked, and where a return of one's own stands: cases at the edges of each test.

use hembo_core::Outcome;
use hembo_money::{Money, Rate};
use hembo_testing::us::{Family, has_point, line, line_of};
use hembo_us::{earned_income_credit, figures::Figures, filing_status::Status, not_computed::NOT_COMPUTED};
use serde_json::{Value, json};

fn caption(outcome: &Outcome) -> String {
    outcome.columns[0].files.clone().unwrap()
}

fn relative(id: &str, relationship: &str, born: &str) -> Value {
    json!({ "id": id, "name": id, "role": "dependent", "born": born, "lived_with": { "ada": 12 },
            "answers": { "relationship": relationship, "supported": true } })
}

/// §24(h)(7): the filer's own number counts from 2025 on (P.L. 119-21 §70104).
#[test]
fn the_number_of_a_filer_counts_for_the_child_credit_from_2025_on() {
    for (year, filer, child, credit) in [
        (2024, false, true, 2_000),
        (2024, true, false, 500),
        (2025, false, true, 500),
        (2025, true, true, 2_200),
        (2025, true, false, 500),
    ] {
        let family = Family::single(year).wages("ada", 60_000).child("kim", "2015-01-01");
        let family = family.set("ada", "/answers/work_ssn", json!(filer));
        let outcome = family.set("kim", "/answers/work_ssn", json!(child)).outcome();
        assert_eq!(line(&outcome, "us.8812.8"), credit, "{year} {filer} {child}");
    }
}

/// §2(b)(1)(A)(ii), (B): a relative must bring a deduction under §151, a child need not.
#[test]
fn a_head_of_household_by_a_relative_needs_a_dependent() {
    let with = |person: Value| {
        Family::single(2025).wages("ada", 50_000).set("ada", "/answers/paid_home", json!(true)).person(person)
    };
    let joint = json!(true);
    let parent = || with(relative("may", "parent", "1950-01-01"));
    let aunt = || with(relative("may", "aunt_uncle", "1950-01-01"));
    let child = || with(relative("may", "child", "2015-01-01"));
    let cases = [
        ("parent", parent(), "head of household"),
        ("parent, joint", parent().set("may", "/answers/files_joint", joint.clone()), "single"),
        ("parent abroad", parent().set("may", "/answers/residency", json!("other")), "single"),
        ("parent, claimable", parent().set("ada", "/answers/claimable", json!(true)), "single"),
        ("aunt", aunt(), "head of household"),
        ("aunt, joint", aunt().set("may", "/answers/files_joint", joint.clone()), "single"),
        ("child", child(), "head of household"),
        // An unmarried child needs not be a dependent; a married one does, but for the filer's being claimable.
        ("child abroad", child().set("may", "/answers/residency", json!("other")), "head of household"),
        ("child, claimable", child().set("ada", "/answers/claimable", json!(true)), "head of household"),
    ];
    for (what, family, status) in cases {
        assert_eq!(caption(&family.outcome()), status, "{what}");
    }
    let married = || child().set("may", "/answers/married", json!(true));
    let cases = [
        ("claimed", married(), "head of household"),
        ("filer claimable", married().set("ada", "/answers/claimable", json!(true)), "head of household"),
        ("joint", married().set("may", "/answers/files_joint", joint), "single"),
        ("abroad", married().set("may", "/answers/residency", json!("other")), "single"),
    ];
    for (what, family, status) in cases {
        assert_eq!(caption(&family.outcome()), status, "married child, {what}");
    }
}

/// §32(f): the table is rounded once. Every row against integers: 2 × (credit) in billionths of a dollar.
#[test]
fn every_row_of_the_earned_income_table_is_rounded_once() {
    // 25,975: 6,960 − 21.06 % of 3,255 = 6,960 − 685.503 = 6,274.497.
    let figures = Figures::of(2024).unwrap();
    let credit = earned_income_credit::table(figures, Status::Head, 2, Money::whole(25_950));
    assert_eq!(credit, Money::whole(6_274));
    let parts = |rate: Rate| i128::from(rate.billionths());
    for year in [2024, 2025] {
        let figures = Figures::of(year).unwrap();
        for (children, class) in figures.earned_income_credit.classes.iter().enumerate() {
            for (status, start) in [(Status::Single, class.out_from), (Status::Joint, class.out_from_joint)] {
                let (start, most) = (i128::from(start.cents()), i128::from(class.most.cents()));
                for band in 0..1_400_i64 {
                    let middle = i128::from(band) * 5_000 + 2_500;
                    let grown = (middle * parts(class.rate_in)).min(most * 1_000_000_000);
                    let left = most * 1_000_000_000 - (middle - start).max(0) * parts(class.rate_out);
                    let exact = grown.min(left);
                    let dollar = 100 * 1_000_000_000;
                    let expected = (2 * exact + dollar).div_euclid(2 * dollar).max(0);
                    let amount = Money::whole(band * 50 + 1);
                    let told = earned_income_credit::table(figures, status, children, amount);
                    // The last band ends where the credit does, and has a middle of its own.
                    if left > 25 * parts(class.rate_out) * 100 {
                        assert_eq!(i128::from(told.cents()), expected * 100, "{year} {children} {amount}");
                    } else {
                        assert!(told <= Money::whole(11), "{year} {children} {amount}: {told}");
                    }
                }
            }
        }
    }
}

/// §32(c)(1)(B): a qualifying child of someone else has no credit, and is asked.
#[test]
fn a_young_filer_is_asked_whose_child_that_is() {
    // At 24 nobody is a child any more.
    let grown = Family::of(2025).filer("ada", "2001-12-31").wages("ada", 9_000).outcome();
    assert!(!has_point(&grown, "K-016") && !has_point(&grown, "K-016-child"));
    let young = Family::of(2025)
        .filer("ada", "2004-05-05")
        .child("kim", "2024-02-02")
        .set("ada", "/answers/paid_home", json!(true))
        .wages("ada", 12_000);
    let outcome = young.outcome();
    assert!(line(&outcome, "us.27a") > 4_000);
    assert!(has_point(&outcome, "K-016") && has_point(&outcome, "K-016-child"));
    let said = young.set("ada", "/answers/claimable", json!(false));
    let outcome = said.clone().set("ada", "/answers/child_elsewhere", json!(true)).outcome();
    assert_eq!(line(&outcome, "us.27a"), 0);
    assert!(!has_point(&outcome, "K-016") && !has_point(&outcome, "K-016-child"));
    let outcome = said.set("ada", "/answers/child_elsewhere", json!(false)).outcome();
    assert!(line(&outcome, "us.27a") > 4_000 && !has_point(&outcome, "K-016-child"));
}

/// A brother of 30 whom nobody can claim has the credit of his own return: 7.65 % up to 649.
#[test]
fn nobodys_dependent_has_the_earned_income_credit() {
    let brother = relative("lee", "sibling", "1995-05-05");
    let outcome =
        Family::single(2025).wages("ada", 50_000).person(brother.clone()).wages("lee", 9_000).outcome();
    assert_eq!(line_of(&outcome, "us.27a", "return/1"), 649);
    assert_eq!(line_of(&outcome, "us.standard", "return/1"), 15_750);
    // Below the limit of gross income he is a dependent, and the childless credit is refused.
    let outcome = Family::single(2025).wages("ada", 50_000).person(brother).wages("lee", 5_199).outcome();
    assert_eq!(line_of(&outcome, "us.27a", "return/1"), 0);
    // A student of 20 who lives here is a qualifying child, however much is earned.
    let outcome = Family::single(2025)
        .wages("ada", 50_000)
        .child("kim", "2005-05-05")
        .set("kim", "/answers/student_months", json!(9))
        .wages("kim", 9_000)
        .outcome();
    assert_eq!(line_of(&outcome, "us.27a", "return/1"), 0);
}

/// Form 8615 asks for age, earnings against support and a living parent, not whether somebody can claim the child.
#[test]
fn form_8615_is_told_by_its_own_tests() {
    let child = |born: &str, interest: i64| {
        let family =
            Family::single(2025).wages("ada", 50_000).child("kim", born).interest(&["kim"], interest);
        family.pin("us.child_income.kim", "own")
    };
    let blocks = |family: Family| {
        let outcome = family.outcome();
        let taxed = outcome.lines.iter().any(|l| l.id == "us.8615.18");
        (taxed, has_point(&outcome, "K-151-ask"), outcome.covered)
    };
    let (none, blocked, asked) = ((false, false, true), (true, false, true), (false, true, false));
    assert_eq!(blocks(child("2015-05-05", 2_700)), none);
    assert_eq!(blocks(child("2015-05-05", 2_701)), blocked);
    // A parent of 77 is no child.
    let parent = relative("may", "parent", "1948-05-05");
    assert_eq!(
        blocks(Family::single(2025).wages("ada", 50_000).person(parent).interest(&["may"], 3_000)),
        none
    );
    // Who supports herself at 16 is still under 18; at 18 with earnings over half of the support no more.
    let own = |born: &str| {
        child(born, 20_000).wages("kim", 12_000).set("kim", "/answers/self_support", json!(true))
    };
    assert_eq!(blocks(own("2009-05-05")), blocked);
    assert_eq!(blocks(own("2007-05-05")), asked);
    assert_eq!(blocks(own("2007-05-05").set("kim", "/answers/earned_over_half", json!(true))), none);
    assert_eq!(blocks(own("2007-05-05").set("kim", "/answers/earned_over_half", json!(false))), blocked);
    // Without earnings they are not over half of anything.
    assert_eq!(blocks(child("2007-05-05", 20_000)), blocked);
    // 19 to 23 only as a student; the day-before rule: 18 is reached on 31 December by who is born on 1 January.
    assert_eq!(blocks(child("2003-05-05", 20_000)), asked);
    assert_eq!(blocks(child("2003-05-05", 20_000).set("kim", "/answers/student_months", json!(4))), none);
    assert_eq!(blocks(child("2003-05-05", 20_000).set("kim", "/answers/student_months", json!(5))), blocked);
    assert_eq!(blocks(child("2002-01-01", 20_000).set("kim", "/answers/student_months", json!(5))), none);
    assert_eq!(blocks(own("2008-01-01").set("kim", "/answers/earned_over_half", json!(true))), none);
    assert_eq!(blocks(own("2008-01-02").set("kim", "/answers/earned_over_half", json!(true))), blocked);
    assert_eq!(blocks(child("2015-05-05", 9_000).set("kim", "/answers/parent_alive", json!(false))), none);
    // A filer of 17 on her own is asked for a living parent; the point stands at the paper with the interest.
    let filer = Family::of(2025).filer("ada", "2008-05-05").interest(&["ada"], 20_000);
    let filer = filer.set("ada", "/answers/claimable", json!(false));
    assert_eq!(blocks(filer.clone()), asked);
    let outcome = filer.set("ada", "/answers/parent_alive", json!(true)).outcome();
    let point = outcome.points.iter().find(|p| p.id.starts_with("K-151:")).unwrap();
    assert_eq!((point.place.paper.as_deref(), point.place.field.as_deref()), (Some("paper0"), Some("1")));
}

/// §7703(a)(1): a spouse who died in the year makes it a year of marriage.
#[test]
fn widowed_in_the_year_is_no_widowed_before_it() {
    for (died, told) in [(2023, false), (2024, false), (2025, true), (2026, true)] {
        let family = Family::single(2025).wages("ada", 50_000).answer("marital", json!("widowed"));
        let outcome = family.set("ada", "/answers/spouse_died", json!(died)).outcome();
        assert_eq!(has_point(&outcome, "K-012-year"), told, "{died}");
        assert_eq!(outcome.covered, !told);
    }
}

/// §63(c)(5): a child whom one of two separate returns can claim has the small standard deduction; on a joint return
/// with a spouse who can be claimed, nobody can claim the child (§152(b)(1)).
#[test]
fn one_spouse_who_can_be_claimed_does_not_free_the_child() {
    let family = Family::couple(2025)
        .child("kim", "2012-05-05")
        .wages("ada", 60_000)
        .wages("bo", 20_000)
        .interest(&["kim"], 2_000)
        .set("bo", "/answers/claimable", json!(true));
    let standard = |status: &str, place: &str| {
        line_of(&family.clone().pin("us.status", status).outcome(), "us.standard", place)
    };
    assert_eq!(standard("separate", "return/2"), 1_350);
    assert_eq!(standard("joint", "return/1"), 15_750);
}

/// Nobody is called covered who was not asked: what the law has and the pack has not must be known to be absent.
#[test]
fn what_is_not_computed_must_be_known_to_be_absent() {
    for asked in NOT_COMPUTED {
        for year in [2024, 2025] {
            let family = Family::single(year).wages("ada", 50_000);
            assert!(family.outcome().covered);
            let yes = family.clone().answer(asked.field.id, json!(true)).outcome();
            let mut unsaid = family.clone();
            unsaid.0["answers"].as_object_mut().unwrap().remove(asked.field.id);
            let unsaid = unsaid.outcome();
            let matters = asked.field.years.hold(year);
            assert_eq!((yes.covered, unsaid.covered), (!matters, !matters), "{} {year}", asked.field.id);
            assert_eq!(unsaid.points.iter().any(|p| p.id == format!("asks:{}", asked.field.id)), matters);
        }
    }
}
