//! A nonresident spouse: resident by election, or without a return (§§2(b)(2)(B), 6013(g)), worked by hand.

use hembo_core::Outcome;
use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::json;

fn couple(wages: i64) -> Family {
    Family::couple(2025).wages("ada", wages).set("bo", "/answers/nonresident_alien", json!(true)).set(
        "bo",
        "/answers/income_from_us",
        json!(false),
    )
}

fn filed(outcome: &Outcome) -> &str {
    let decision = outcome.decisions.iter().find(|d| d.id == "us.status").unwrap();
    &decision.options.iter().find(|o| o.chosen).unwrap().id
}

/// 60,000 − 31,500 = 28,500 by election: 2,385 + 12 % of 4,675 to the middle of the band = 2,946. Alone 44,250.
#[test]
fn the_election_makes_a_joint_return() {
    let outcome = couple(60_000).outcome();
    assert_eq!(filed(&outcome), "joint");
    assert_lines(&outcome, &[("us.15", 28_500), ("us.16", 2_946)]);
    assert!(outcome.covered && has_point(&outcome, "nonresident-election"));
}

/// 200,000 of interest abroad would come to the joint return; without it there is one separate return, on 44,250:
/// 1,192.50 + 12 % of 32,350 to the middle of the band = 5,074.50.
#[test]
fn without_the_election_the_other_files_alone() {
    let outcome = couple(60_000).interest(&["bo"], 200_000).outcome();
    assert_eq!(filed(&outcome), "separate");
    assert_lines(&outcome, &[("us.agi", 60_000), ("us.15", 44_250), ("us.16", 5_075)]);
    assert_eq!(outcome.total, hembo_money::Money::whole(5_075));
    assert!(outcome.covered && outcome.columns[1].files.is_none());
}

/// A child makes the other head of household, though the spouses live together: 60,000 − 23,625 = 36,375, tax 4,025, less 2,200. For
/// the earned income credit the two are married.
#[test]
fn head_of_household_beside_a_nonresident() {
    let family = |wages| {
        let family = couple(wages).child("kim", "2015-05-05").set("ada", "/answers/paid_home", json!(true));
        family.interest(&["bo"], 200_000)
    };
    let outcome = family(60_000).outcome();
    assert_lines(&outcome, &[("us.15", 36_375), ("us.16", 4_025), ("us.19", 2_200), ("us.22", 1_825)]);
    assert!(outcome.covered);
    let poor = family(20_000).outcome();
    assert_lines(&poor, &[("us.27a", 0), ("us.28", 1_700)]);
    let apart = family(20_000).answer("apart", json!(true)).outcome();
    assert_lines(&apart, &[("us.27a", 4_328)]);
    // What hangs on being married is not settled.
    let loan = family(60_000).paper("1098-E", &["ada"], json!({ "1": "900" }), json!(null)).outcome();
    assert!(!loan.covered && has_point(&loan, "nonresident-head"));
}

#[test]
fn what_is_not_settled_is_told() {
    let family = couple(60_000);
    let asked = Family::couple(2025).set("bo", "/answers/nonresident_alien", json!(true)).outcome();
    assert!(has_point(&asked, "nonresident-income"));
    let earns = family.clone().set("bo", "/answers/income_from_us", json!(true)).outcome();
    assert!(!earns.covered && has_point(&earns, "nonresident-return"));
    let both = family.set("ada", "/answers/nonresident_alien", json!(true)).outcome();
    assert!(!both.covered && has_point(&both, "nonresident"));
    let alone = Family::single(2025).set("ada", "/answers/nonresident_alien", json!(true)).outcome();
    assert!(!alone.covered && line(&alone, "us.27a") == 0);
}
