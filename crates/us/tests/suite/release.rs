//! The claim of a child released to the other parent (§152(e)), worked by hand.

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::us::{Family, has_point, line, line_of};
use serde_json::json;

/// A parent alone who paid for the home, with a child of ten who lived there so many months.
fn parent(wages: i64, months: i64) -> Family {
    Family::single(2025)
        .set("ada", "/answers/paid_home", json!(true))
        .wages("ada", wages)
        .child("kim", "2015-05-05")
        .set("kim", "/lived_with/ada", json!(months))
}

fn away(family: Family) -> Family {
    family.set("kim", "/answers/released_away", json!(true))
}

fn here(family: Family) -> Family {
    family.set("kim", "/answers/released_to", json!("ada"))
}

fn told(outcome: &Outcome) -> (String, Money) {
    (outcome.together.split(" · ").next().unwrap().to_owned(), outcome.total)
}

/// For 2025: the custodial parent stays head of household and keeps the earned income credit; the other parent, single, has the
/// child credit and its refundable part.
#[test]
fn the_claim_moves_and_the_home_stays() {
    for (family, status, total) in [
        // 60,000 − 23,625 = 36,375: 1,700 + 12 % × 19,375 = 4,025 (middle of the band 36,375), less 2,200.
        (parent(60_000, 12), "Head of household", 1_825),
        (away(parent(60_000, 12)), "Head of household", 4_025),
        // 60,000 − 15,750 = 44,250, middle of the band 44,275: 1,192.50 + 12 % × 32,350 = 5,074.50, so 5,075; less 2,200.
        (here(parent(60_000, 4)), "Single", 2_875),
        (parent(60_000, 4), "Single", 5_075),
        // 20,000 − 23,625: no tax; the earned income credit with one child is whole, 4,328; 15 % × 17,500 = 2,625, at most
        // 1,700 of child credit paid out.
        (parent(20_000, 12), "Head of household", -6_028),
        (away(parent(20_000, 12)), "Head of household", -4_328),
        // 20,000 − 15,750 = 4,250, middle of the band 4,275: 427.50, so 428, used up; of the 1,772 left 1,700 are paid out. No
        // earned income credit: without a child it ends at 19,104.
        (here(parent(20_000, 4)), "Single", -1_700),
    ] {
        assert_eq!(told(&family.outcome()), (status.to_owned(), Money::whole(total)), "{:#}", family.0);
    }
}

/// Medical bills of the child count for both parents (§213(d)(5)).
#[test]
fn medical_bills_count_for_both_parents() {
    for family in [away(parent(60_000, 12)), here(parent(60_000, 4))] {
        // 9,000 less 7.5 % × 60,000.
        assert_eq!(line(&family.medical(&["ada"], "kim", 9_000).outcome(), "us.sched_a.4"), 4_500);
    }
}

/// The child's own return: someone can claim the child, wherever the claim is.
#[test]
fn the_childs_own_return_is_that_of_one_who_can_be_claimed() {
    let own = |family: Family| family.wages("kim", 3_000).outcome();
    for family in [parent(60_000, 12), away(parent(60_000, 12)), here(parent(60_000, 4))] {
        // 3,000 + 450, not 15,750.
        assert_eq!(line_of(&own(family), "us.standard", "return/1"), 3_450);
    }
}

/// Spouses who lived apart: the one who keeps the home may be head of household though the claim is released
/// (§7703(b)(1)); on separate returns the filer to whom it was released has it.
#[test]
fn spouses_apart() {
    let couple = Family::couple(2025)
        .answer("apart", json!(true))
        .set("ada", "/answers/paid_home", json!(true))
        .wages("ada", 60_000)
        .wages("bo", 60_000)
        .child("kim", "2015-05-05");
    let released = couple
        .clone()
        .set("kim", "/lived_with", json!({ "ada": 12, "bo": 0 }))
        .set("kim", "/answers/released_away", json!(true))
        .outcome();
    let filing = released.decisions.iter().find(|d| d.id == "us.status").unwrap();
    assert!(filing.options[1].label.contains("ada head of household"), "{filing:?}");
    assert!(released.decisions.iter().all(|d| !d.id.starts_with("us.claim")));
    let received = couple
        .clone()
        .set("kim", "/lived_with", json!({ "ada": 3, "bo": 1 }))
        .set("kim", "/answers/released_to", json!("bo"))
        .outcome();
    let claim = received.decisions.iter().find(|d| d.id == "us.claim.kim").unwrap();
    let barred: Vec<_> = claim.options.iter().map(|o| o.barred.as_deref()).collect();
    assert_eq!(barred, [Some("the claim was released to the other filer"), None]);
}

/// What cannot be, and what goes with it: each stands at the boxes concerned.
#[test]
fn a_release_that_cannot_be_is_told() {
    let cases = [
        (away(here(parent(60_000, 12))), "release-both"),
        (away(parent(60_000, 12)).set("kim", "/answers/relationship", json!("grandchild")), "release-parent"),
        (away(parent(60_000, 6)), "release-away-months"),
        (here(parent(60_000, 7)), "release-here-months"),
        (away(parent(60_000, 12)).set("kim", "/born", json!("2007-12-31")), "release-age"),
        (here(parent(60_000, 4)), "release-attach"),
    ];
    for (family, code) in cases {
        assert!(has_point(&family.outcome(), code), "{code}: {:#}", family.0);
    }
    for code in
        ["release-both", "release-parent", "release-away-months", "release-here-months", "release-age"]
    {
        for family in [parent(60_000, 12), away(parent(60_000, 7)), here(parent(60_000, 6))] {
            assert!(!has_point(&family.outcome(), code), "{code}");
        }
    }
    // Of age, and in nobody's custody for half of the year: nothing is released, here or there.
    let of_age = |family: Family| family.set("kim", "/born", json!("2007-06-01"));
    for family in [away(parent(60_000, 12)), here(parent(60_000, 4))] {
        let grown = of_age(family.clone()).set("kim", "/answers/in_custody", json!(false)).outcome();
        assert!(!has_point(&grown, "release-age"));
        let plain = family.clone().set("kim", "/answers", json!({ "relationship": "child" }));
        assert_eq!(grown.total, of_age(plain).outcome().total);
        let held = of_age(family).set("kim", "/answers/in_custody", json!(true)).outcome();
        assert!(!has_point(&held, "release-age") && held.total != grown.total);
    }
    // Seventeen on the last day of the year.
    let young = away(parent(60_000, 12)).set("kim", "/born", json!("2008-01-01")).outcome();
    assert!(!has_point(&young, "release-age"));
}

/// Without parents' relation, over age, or with own support, nothing is received.
#[test]
fn a_received_child_still_meets_the_tests() {
    let family = here(parent(60_000, 4));
    for (changed, why) in [
        (family.clone().set("kim", "/answers/relationship", json!("stepchild")), "only a child's parents"),
        (family.clone().set("kim", "/answers/self_support", json!(true)), "pays over half of own support"),
        (family.clone().set("kim", "/born", json!("2006-12-31")), "19 or older"),
        (family.clone().set("kim", "/answers/residency", json!("other")), "neither citizen nor resident"),
    ] {
        let outcome = changed.outcome();
        assert_eq!(outcome.total, Money::whole(5_075), "{why}");
        assert!(outcome.points.iter().any(|p| p.message.contains(why)), "{why}: {:?}", outcome.points);
    }
}

/// A child who lives elsewhere is no qualifying relative where it is the qualifying child of another (§152(d)(1)(D)): asked
/// where the child may live elsewhere, and a claim less 500.
#[test]
fn a_qualifying_child_of_another_is_no_relative() {
    let nephew = parent(60_000, 5).set("kim", "/answers/relationship", json!("niece_nephew")).set(
        "kim",
        "/answers/supported",
        json!(true),
    );
    let open = nephew.outcome();
    assert!(has_point(&open, "child-of-another"));
    assert_eq!(open.total, Money::whole(5_075 - 500));
    let no = nephew.clone().set("kim", "/answers/child_elsewhere", json!(false)).outcome();
    assert!(!has_point(&no, "child-of-another"));
    assert_eq!(no.total, Money::whole(4_575));
    let yes = nephew.set("kim", "/answers/child_elsewhere", json!(true)).outcome();
    assert_eq!(yes.total, Money::whole(5_075));
    assert!(yes.points.iter().any(|p| p.id.starts_with("K-013")), "{:?}", yes.points);
}
