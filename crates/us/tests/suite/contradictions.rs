//! A blank is no answer, and answers that cannot be true together block at every box concerned.

use hembo_core::{Outcome, point::Weight};
use hembo_testing::us::{Family, has_point};
use serde_json::{Value, json};

/// The boxes at which a point of that code stands.
fn boxes(outcome: &Outcome, code: &str) -> Vec<String> {
    let of = |p: &&hembo_core::Point| p.id.split(':').next() == Some(code);
    outcome.points.iter().filter(of).filter_map(|p| p.place.field.clone()).collect()
}

fn with(family: Family, person: &str, answers: &Value) -> Family {
    let answers = answers.as_object().unwrap();
    answers.iter().fold(family, |family, (field, value)| {
        family.set(person, &format!("/answers/{field}"), value.clone())
    })
}

/// Spouses who lived apart from July, with a child for so many months with each.
fn apart(ada: i64, bo: i64) -> Family {
    let family = Family::couple(2025).answer("apart", json!(true)).wages("ada", 70_000).wages("bo", 40_000);
    let family = family.child("kim", "2015-01-01");
    family.set("kim", "/lived_with/ada", json!(ada)).set("kim", "/lived_with/bo", json!(bo))
}

#[test]
fn months_in_two_homes_are_at_most_those_of_the_year() {
    for (ada, bo, blocks) in [(12, 6, false), (6, 12, false), (9, 9, false), (12, 7, true), (12, 12, true)] {
        let outcome = apart(ada, bo).outcome();
        assert_eq!(
            boxes(&outcome, "K-015-apart"),
            if blocks { vec!["lived_with"] } else { vec![] },
            "{ada} {bo}"
        );
    }
    assert!(!has_point(&apart(12, 12).answer("apart", json!(false)).outcome(), "K-015-apart"));
    // Both heads of household, each with the same child: what the months alone allow is not a result.
    let both = apart(12, 12).set("ada", "/answers/paid_home", json!(true)).set(
        "bo",
        "/answers/paid_home",
        json!(true),
    );
    let blocked =
        |o: &Outcome| o.points.iter().any(|p| p.weight == Weight::Blocks && p.id.starts_with("K-015-apart"));
    assert!(blocked(&both.outcome()));
}

#[test]
fn months_are_preset_in_one_home_only() {
    assert!(!apart(9, 9).outcome().one_home);
    assert!(Family::couple(2025).outcome().one_home && Family::single(2025).outcome().one_home);
}

#[test]
fn answers_that_cannot_be_true_together_block_at_each_box() {
    let cases: [(&str, Value, &[&str]); 11] = [
        ("K-014-both", json!({ "self_support": true, "supported": true }), &["self_support", "supported"]),
        ("K-014-both", json!({ "self_support": true, "supported": false }), &[]),
        ("K-014-both", json!({ "supported": true }), &[]),
        (
            "K-014-of-one",
            json!({ "supported": false, "supported_alone_by": "bo" }),
            &["supported", "supported_alone_by"],
        ),
        ("K-014-of-one", json!({ "supported": true, "supported_alone_by": "bo" }), &[]),
        ("K-014-of-one", json!({ "supported_alone_by": "bo" }), &[]),
        ("joint-unmarried", json!({ "files_joint": true, "married": false }), &["married", "files_joint"]),
        ("joint-unmarried", json!({ "files_joint": true }), &[]),
        ("joint-unmarried", json!({ "files_joint": true, "married": true }), &[]),
        ("younger-parent", json!({ "relationship": "parent" }), &["born", "relationship"]),
        ("younger-parent", json!({ "relationship": "sibling" }), &[]),
    ];
    for (code, answers, expected) in cases {
        let family = Family::couple(2025).wages("ada", 70_000).child("kim", "1995-01-01");
        let outcome = with(family, "kim", &answers).outcome();
        assert_eq!(boxes(&outcome, code), expected, "{code} {answers}");
    }
    let died = |day: &str| {
        let family = Family::single(2025).wages("ada", 70_000).child("kim", "2015-01-01");
        family.set("kim", "/died", json!(day)).outcome()
    };
    assert_eq!(boxes(&died("2024-12-31"), "dependent-died"), ["died"]);
    assert!(!has_point(&died("2025-01-01"), "dependent-died"));
}

#[test]
fn a_blank_about_support_is_asked_and_not_told_as_a_no() {
    let family = Family::couple(2025).wages("ada", 70_000).wages("bo", 50_000);
    let family = family.child("nana", "1948-01-01").set("nana", "/answers/relationship", json!("parent"));
    let blank = family.outcome();
    assert_eq!(boxes(&blank, "K-014"), ["supported"]);
    assert!(!has_point(&blank, "K-013"));
    // Answered, the joint return claims her; which of the two alone pays for her decides on separate returns.
    let supported = family.clone().set("nana", "/answers/supported", json!(true));
    assert_eq!(boxes(&supported.outcome(), "K-014-one"), ["supported_alone_by"]);
    let separate = |family: &Family| family.clone().pin("us.status", "separate").outcome().total;
    let by_bo = supported.clone().set("nana", "/answers/supported_alone_by", json!("bo"));
    assert!(!has_point(&by_bo.outcome(), "K-014-one"));
    assert_eq!((separate(&supported) - separate(&by_bo)).cents(), 50_000);
    let refused = family.set("nana", "/answers/supported", json!(false)).outcome();
    assert!(has_point(&refused, "K-013") && !has_point(&refused, "K-014"));
}
