//! Two who are not married and are prepared together: each files alone, and who claims whom is a decision (§152(c)(4), (e)),
//! worked by hand for 2025.

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::us::{Family, has_point, line_of};
use serde_json::json;

/// Two unmarried filers in one home, for which the first paid, with a child of ten of these relationships to each.
fn pair(wages: [i64; 2], related: [&str; 2]) -> Family {
    let family = Family::couple(2025)
        .answer("marital", json!("single"))
        .set("ada", "/answers/paid_home", json!(true))
        .set("bo", "/answers/paid_home", json!(false))
        .child("kim", "2015-05-05")
        .set("kim", "/answers/relationship", json!(related[0]))
        .set("kim", "/answers/relationship_second", json!(related[1]));
    let earned = |family: Family, who, amount| if amount == 0 { family } else { family.wages(who, amount) };
    earned(earned(family, "ada", wages[0]), "bo", wages[1])
}

fn claimer(outcome: &Outcome) -> String {
    let claim = outcome.decisions.iter().find(|d| d.id == "us.claim.kim").unwrap();
    claim.options.iter().find(|o| o.chosen).unwrap().label.clone()
}

fn barred(outcome: &Outcome, option: usize) -> Option<String> {
    let claim = outcome.decisions.iter().find(|d| d.id == "us.claim.kim").unwrap();
    claim.options[option].barred.as_ref().map(ToString::to_string)
}

fn pinned(family: &Family, to: &str) -> Money {
    let mut family = family.clone();
    family.0["pins"]["us.claim.kim"] = json!(to);
    family.outcome().total
}

#[test]
fn parents_of_one_child_choose_who_claims() {
    let family = pair([50_000, 60_000], ["child", "child"]);
    let outcome = family.outcome();
    assert!(outcome.covered && !has_point(&outcome, "K-011"), "{:#?}", outcome.points);
    assert_eq!((claimer(&outcome), outcome.total), ("ada".into(), Money::whole(5_635)));
    // Ada as head of household: 50,000 − 23,625 = 26,375, tax 2,825, less 2,200; earned income credit
    // 4,328 − 15.98 % × (50,025 − 23,350) = 65. Bo single: 60,000 − 15,750 = 44,250, tax 5,075.
    assert_eq!(line_of(&outcome, "us.24", "return/0"), 625);
    assert_eq!(line_of(&outcome, "us.27a", "return/0"), 65);
    assert_eq!(line_of(&outcome, "us.24", "return/1"), 5_075);
    // Bo: 5,075 − 2,200. Ada single, for with the claim goes head of household: 34,250, tax 3,875.
    assert_eq!(pinned(&family, "bo"), Money::whole(3_875 + 2_875));
    let filing = outcome.decisions.iter().find(|d| d.id == "us.status").unwrap();
    assert_eq!(filing.options[0].barred.as_ref().unwrap().to_string(), "not married to each other");
}

/// A second child may go to the other parent, and only one of them can pay over half of one home.
#[test]
fn each_child_has_its_claim() {
    let family = pair([50_000, 60_000], ["child", "child"]).child("lou", "2017-07-07").set(
        "lou",
        "/answers/relationship_second",
        json!("child"),
    );
    let outcome = family.outcome();
    // Ada with one child makes her head of household; the other child's 2,200 fits Bo's tax as well, or adds to Ada's earned
    // income credit: 7,152 − 21.06 % × 26,675 = 1,534 with two. Both with Ada: 2,825 − 2,825, 1,575 left, all paid out, 1,534:
    // −3,109, and Bo 5,075: 1,966. One each: 560 + 2,875 = 3,435.
    assert_eq!(outcome.total, Money::whole(1_966));
    let both = family.set("bo", "/answers/paid_home", json!(true)).outcome();
    assert!(has_point(&both, "K-010-one-home"));
}

/// A grandparent goes before the parent in the home only with a higher adjusted gross income (§152(c)(4)(C)).
#[test]
fn only_more_income_than_the_parents_allows_another_to_claim() {
    for (wages, allowed) in [(39_999, false), (40_000, false), (40_001, true)] {
        let outcome = pair([wages, 40_000], ["grandchild", "child"]).outcome();
        let why = barred(&outcome, 0);
        assert_eq!(why.is_none(), allowed, "{wages} {why:?}");
        if let Some(why) = why {
            assert!(why.contains("a parent who could claim"), "{why}");
        }
    }
    // A parent who can be claimed cannot claim, and bars nobody.
    let claimable =
        pair([20_000, 40_000], ["grandchild", "child"]).set("bo", "/answers/claimable", json!(true));
    assert_eq!(barred(&claimable.outcome(), 0), None);
}

/// The same with a parent who is not prepared here.
#[test]
fn a_parent_outside_goes_first_too() {
    let grandparent = Family::single(2025)
        .set("ada", "/answers/paid_home", json!(true))
        .wages("ada", 40_000)
        .child("kim", "2015-05-05")
        .set("kim", "/answers/relationship", json!("grandchild"));
    assert!(has_point(&grandparent.outcome(), "K-019-parent"));
    let outside = grandparent.set("kim", "/answers/parent_could_claim", json!(true));
    assert!(has_point(&outside.outcome(), "K-019-parent-income"));
    for (income, claims) in [("39999", true), ("40000", false), ("40001", false)] {
        let outcome = outside.clone().set("kim", "/answers/parent_income", json!(income)).outcome();
        let credit = line_of(&outcome, "us.19", "return/0");
        assert_eq!(credit > 0, claims, "{income}");
        let status = if claims { "Head of household" } else { "Single" };
        assert!(outcome.together.starts_with(status), "{}", outcome.together);
    }
}

/// A partner's child is the relative of the other only where the partner need not file (Notice 2008-5): below 15,750 of gross
/// income, 17,750 from 65 on.
#[test]
fn a_partners_child_is_a_relative_where_the_partner_need_not_file() {
    let of = |wages: i64, born: &str| {
        pair([60_000, wages], ["none", "child"]).set("bo", "/born", json!(born)).set(
            "kim",
            "/answers/supported_alone_by",
            json!("ada"),
        )
    };
    for (wages, born, allowed) in [
        (15_749, "1984-04-04", true),
        (15_750, "1984-04-04", false),
        (17_749, "1961-01-01", true),
        (17_750, "1961-01-01", false),
        (17_749, "1961-01-02", false),
    ] {
        let why = barred(&of(wages, born).outcome(), 0);
        assert_eq!(why.is_none(), allowed, "{wages} {born} {why:?}");
    }
    // Bo claims: earned income credit 34 % × 5,025 = 1,709 and 15 % × 2,500 = 375 paid out; Ada 5,075.
    let outcome = of(5_000, "1984-04-04").outcome();
    assert_eq!((claimer(&outcome), outcome.total), ("bo".into(), Money::whole(5_075 - 1_709 - 375)));
    // Ada claims: 500 for another dependent, and Bo's return only gets back what was withheld: no credit paid out, not even
    // that of someone without a child, 7.65 % × 5,025 = 384.
    assert_eq!(pinned(&of(5_000, "1984-04-04"), "ada"), Money::whole(4_575));
    // Without income Bo gains nothing by the child.
    let outcome = of(0, "1984-04-04").outcome();
    assert_eq!((claimer(&outcome), outcome.total), ("ada".into(), Money::whole(4_575)));
}

/// Parents who lived apart: the one with whom the child lived may release the claim to the other, and stays head of household
/// with the earned income credit (§152(e)). The same for spouses and for the unmarried.
#[test]
fn a_parent_may_release_the_claim_to_the_other() {
    for marital in ["single", "married"] {
        let family = pair([20_000, 90_000], ["child", "child"])
            .answer("marital", json!(marital))
            .answer("apart", json!(true))
            .set("kim", "/lived_with", json!({ "ada": 12, "bo": 0 }));
        // Ada: 4,328 and of 2,200 child credit 1,700 paid out. Bo on 74,250: 11,255.
        assert_eq!(separately(&family, "ada"), Money::whole(11_255 - 4_328 - 1_700), "{marital}");
        // Released: Bo has 2,200.
        let released = separately(&family, "bo");
        assert_eq!(released, Money::whole(11_255 - 4_328 - 2_200), "{marital}");
        if marital == "single" {
            let outcome = family.outcome();
            assert_eq!((claimer(&outcome), outcome.total), ("bo, by Form 8332".into(), released));
            assert!(has_point(&outcome, "release-attach"));
        }
        // Not where they lived together, nor of equal months, nor of one who is of age and in nobody's custody.
        for (path, value) in [("/lived_with", json!({ "ada": 4, "bo": 4 })), ("/born", json!("2007-01-01"))] {
            let outcome = family.clone().set("kim", path, value).outcome();
            let claim = outcome.decisions.iter().find(|d| d.id == "us.claim.kim");
            assert!(claim.is_none_or(|c| c.options[1].barred.is_some()), "{marital} {path}");
        }
    }
}

fn separately(family: &Family, to: &str) -> Money {
    let mut family = family.clone();
    let married = family.0["answers"]["marital"] == "married";
    family.0["pins"]["us.claim.kim"] = json!(to);
    if married {
        family.0["pins"]["us.status"] = json!("separate");
    }
    family.outcome().total
}

#[test]
fn what_is_not_said_of_two_unmarried_filers_is_asked() {
    let family = pair([50_000, 60_000], ["child", "child"]);
    let without = |field: &str| {
        let mut family = family.clone();
        family.0["people"][2]["answers"].as_object_mut().unwrap().remove(field);
        family.0["answers"].as_object_mut().unwrap().remove(field);
        family.outcome()
    };
    let asked = without("relationship_second");
    assert!(asked.points.iter().any(|p| p.id == "K-022:kim/relationship_second"));
    assert!(has_point(&without("apart"), "K-011"));
    let mut alone = family.clone();
    alone.0["people"].as_array_mut().unwrap().remove(0);
    alone.0["papers"].as_array_mut().unwrap().remove(0);
    alone.0["people"][1]["lived_with"] = json!({ "bo": 12 });
    assert!(has_point(&alone.outcome(), "relationship-second"));
    let together = family.paper("1040-ES", &["ada", "bo"], json!({}), json!([{ "amount": "500" }])).outcome();
    assert!(has_point(&together, "estimated-together"));
    let poor = pair([50_000, 5_199], ["child", "child"]).outcome();
    assert!(has_point(&poor, "partner-dependent"));
    assert!(!has_point(&pair([50_000, 5_200], ["child", "child"]).outcome(), "partner-dependent"));
}

/// Each chooses the deduction freely: §63(c)(6)(A) binds spouses only.
#[test]
fn each_chooses_the_deduction() {
    let family = pair([90_000, 60_000], ["child", "child"]).cash_gift(&["ada"], 30_000);
    let outcome = family.outcome();
    assert_eq!(line_of(&outcome, "us.15", "return/0"), 60_000);
    assert_eq!(line_of(&outcome, "us.15", "return/1"), 44_250);
}
