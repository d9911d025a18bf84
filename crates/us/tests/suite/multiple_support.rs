//! The multiple support agreement (§152(d)(3)), worked by hand.

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::us::{Family, has_point};
use serde_json::json;

/// A filer who keeps a home, with a grandmother whose support several pay.
fn with_gran(family: Family) -> Family {
    family.set("ada", "/answers/paid_home", json!(true)).child("gran", "1948-02-02").set(
        "gran",
        "/answers",
        json!({ "relationship": "parent", "multiple_support": "ada" }),
    )
}

fn status(outcome: &Outcome) -> &str {
    outcome.together.split(" · ").next().unwrap()
}

/// 60,000 − 15,750 = 44,250: 5,075 (middle of the band 44,275), less 500 for another dependent. By the agreement the filer
/// stays single; who pays over half alone is head of household: 60,000 − 23,625 = 36,375: 4,025, less 500.
#[test]
fn it_makes_a_dependent_and_no_head_of_household() {
    let alone = with_gran(Family::single(2025).wages("ada", 60_000));
    let agreed = alone.outcome();
    assert_eq!((status(&agreed), agreed.total), ("Single", Money::whole(5_075 - 500)));
    assert!(has_point(&agreed, "multiple-support-attach"));
    let supported = json!({ "relationship": "parent", "supported": true });
    let paid = alone.clone().set("gran", "/answers", supported).outcome();
    assert_eq!((status(&paid), paid.total), ("Head of household", Money::whole(4_025 - 500)));
    assert!(!has_point(&paid, "multiple-support-attach"));
    // Whose gross income is not below 5,200 is no relative, agreement or not.
    for (income, total) in [("5199", 5_075 - 500), ("5200", 5_075)] {
        let family = alone.clone().set("gran", "/answers/other_gross_income", json!(income));
        assert_eq!(family.outcome().total, Money::whole(total), "{income}");
    }
}

/// Of spouses who file apart the one whom it names claims.
#[test]
fn on_separate_returns_the_one_named_claims() {
    let couple = with_gran(Family::couple(2025).wages("ada", 60_000).wages("bo", 60_000));
    let outcome = couple.outcome();
    let claim = outcome.decisions.iter().find(|d| d.id == "us.claim.gran").unwrap();
    assert_eq!(claim.options[0].barred, None);
    assert_eq!(claim.options[1].barred.as_deref(), Some(hembo_us::dependents::NO_SUPPORT));
    assert!(!has_point(&outcome, "K-014-one"));
}

/// An agreement is for those of whom nobody pays over half.
#[test]
fn over_half_paid_here_contradicts_it() {
    let family = with_gran(Family::single(2025).wages("ada", 60_000));
    assert!(!has_point(&family.outcome(), "multiple-support-over-half"));
    for (field, value) in [("supported", json!(true)), ("supported_alone_by", json!("ada"))] {
        let changed = family.clone().set("gran", &format!("/answers/{field}"), value);
        assert!(has_point(&changed.outcome(), "multiple-support-over-half"), "{field}");
    }
}

/// A qualifying child is claimed without an agreement: nothing goes with the return.
#[test]
fn a_qualifying_child_needs_none() {
    let family = Family::single(2025).set("ada", "/answers/paid_home", json!(true)).wages("ada", 60_000);
    let child = family.child("kim", "2015-05-05").set("kim", "/answers/multiple_support", json!("ada"));
    let outcome = child.outcome();
    assert_eq!((status(&outcome), outcome.total), ("Head of household", Money::whole(1_825)));
    assert!(!has_point(&outcome, "multiple-support-attach"));
}
