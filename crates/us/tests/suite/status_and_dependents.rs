//! Filing statuses, dependents, and who may claim whom.

use hembo_core::Outcome;
use hembo_testing::us::{Family, has_point, line};
use serde_json::{Value, json};

fn barred(outcome: &Outcome, decision: &str, option: &str) -> Option<String> {
    let found = outcome.decisions.iter().find(|d| d.id == decision).unwrap();
    found.options.iter().find(|o| o.id == option).unwrap().barred.clone()
}

const NO_SUPPORT: &str = hembo_us::dependents::NO_SUPPORT;

fn head() -> Family {
    Family::single(2025).set("ada", "/answers/paid_home", json!(true)).wages("ada", 60_000)
}

#[test]
fn the_facts_fix_the_status_of_the_unmarried() {
    let child = head().child("kim", "2015-01-01");
    assert!(child.outcome().together.starts_with("Head of household"));
    let cases = [
        // what is different, what comes out
        (child.clone().set("ada", "/answers/paid_home", json!(false)), "Single"),
        (child.clone().set("kim", "/lived_with/ada", json!(6)), "Single"),
        (child.clone().set("kim", "/lived_with/ada", json!(7)), "Head of household"),
        (child.clone().set("kim", "/born", json!("2000-01-01")), "Single"),
        // Born in November: over half of the part of the year in which the child lived.
        (
            child.clone().set("kim", "/born", json!("2025-11-02")).set("kim", "/lived_with/ada", json!(2)),
            "Head of household",
        ),
        // A parent need not live in the home, but must be a dependent.
        (
            head().child("gran", "1950-01-01").set("gran", "/lived_with/ada", json!(0)).set(
                "gran",
                "/answers",
                json!({ "relationship": "parent", "supported": true }),
            ),
            "Head of household",
        ),
        // Someone not related never makes a head of household.
        (
            head().child("pal", "1990-01-01").set(
                "pal",
                "/answers",
                json!({ "relationship": "none", "supported": true }),
            ),
            "Single",
        ),
        // A married child only where it can be claimed.
        (
            child.clone().set(
                "kim",
                "/answers",
                json!({ "relationship": "child", "married": true, "files_joint": true }),
            ),
            "Single",
        ),
    ];
    for (family, status) in cases {
        let together = family.outcome().together;
        assert!(together.starts_with(status), "{together} is not {status}: {:#}", family.0);
    }
}

#[test]
fn a_surviving_spouse_has_two_years() {
    for (died, status) in [(2025, "Head"), (2024, "Surviving"), (2023, "Surviving"), (2022, "Head")] {
        let family = head().child("kim", "2015-01-01").answer("marital", json!("widowed")).set(
            "ada",
            "/answers/spouse_died",
            json!(died),
        );
        assert!(family.outcome().together.starts_with(status), "{died}");
    }
}

#[test]
fn spouses_apart_file_as_head_of_household_and_separate() {
    let family = Family::couple(2025)
        .answer("apart", json!(true))
        .set("ada", "/answers/paid_home", json!(true))
        .child("kim", "2015-01-01")
        .set("kim", "/lived_with/bo", json!(3))
        .set("kim", "/answers/relationship", json!("stepchild"))
        .wages("ada", 40_000)
        .wages("bo", 60_000)
        .cash_gift(&["ada"], 30_000)
        .pin("us.status", "separate");
    let outcome = family.outcome();
    assert_eq!(outcome.columns[0].files.as_deref(), Some("head of household"));
    assert_eq!(outcome.columns[1].files.as_deref(), Some("separate"));
    assert_eq!(
        barred(&outcome, "us.claim.kim", "bo").as_deref(),
        Some("did not live with the claimer over half the year")
    );
    // The head of household may itemize; then the spouse may not take the standard deduction.
    let options = |w: &hembo_core::outcome::NamedWay| {
        (w.options["us.deduction.ada"].clone(), w.options["us.deduction.bo"].clone())
    };
    let ways: Vec<_> = outcome.ways.iter().map(options).collect();
    assert!(!ways.contains(&("itemized".into(), "standard".into())), "{ways:?}");
    for lawful in [("standard", "standard"), ("standard", "itemized"), ("itemized", "itemized")] {
        assert!(ways.contains(&(lawful.0.into(), lawful.1.into())), "{lawful:?}");
    }
}

#[test]
fn two_separate_returns_agree_on_the_deduction() {
    let family = Family::couple(2025).wages("ada", 90_000).wages("bo", 50_000).cash_gift(&["ada"], 25_000);
    let outcome = family.pin("us.status", "separate").outcome();
    let decision = outcome.decisions.iter().find(|d| d.id == "us.deduction").unwrap();
    assert!(decision.arises && outcome.decisions.iter().all(|d| d.id != "us.deduction.ada"));
    assert_eq!(outcome.holding_ways, 2);
}

#[test]
fn a_spouse_outside_the_household_binds() {
    let alone = Family::single(2025).answer("marital", json!("married")).wages("ada", 60_000);
    assert!(has_point(&alone.outcome(), "K-106"));
    let bound = alone.answer("spouse_itemizes", json!(true)).outcome();
    assert_eq!(barred(&bound, "us.deduction", "standard").as_deref(), Some("the spouse itemizes"));
    assert_eq!(line(&bound, "us.15"), 60_000);
}

#[test]
fn tests_of_a_qualifying_child_and_relative() {
    let cases = [
        // born, answers, months, credit, why not
        ("2007-01-01", json!({}), 12, 500, ""),
        ("2006-12-31", json!({}), 12, 0, NO_SUPPORT),
        ("2006-12-31", json!({ "supported": true }), 12, 500, ""),
        ("2006-12-31", json!({ "supported": true, "other_gross_income": "5199.99" }), 12, 500, ""),
        (
            "2006-12-31",
            json!({ "supported": true, "other_gross_income": "5200" }),
            12,
            0,
            "gross income is not below the limit",
        ),
        ("2003-06-01", json!({ "student_months": 5 }), 12, 500, ""),
        ("2003-06-01", json!({ "student_months": 4 }), 12, 0, NO_SUPPORT),
        ("2001-12-31", json!({ "student_months": 12 }), 12, 0, NO_SUPPORT),
        ("1995-01-01", json!({ "disabled": true }), 12, 500, ""),
        ("2015-01-01", json!({ "self_support": true }), 12, 0, "pays over half of own support"),
        ("2015-01-01", json!({ "residency": "canada_mexico" }), 12, 0, ""),
        (
            "2015-01-01",
            json!({ "residency": "other" }),
            12,
            0,
            "neither citizen nor resident of the US, Canada or Mexico",
        ),
        ("2015-01-01", json!({ "work_ssn": false }), 12, 500, ""),
        ("2015-01-01", json!({}), 6, 0, "did not live with the claimer over half the year"),
        ("2015-01-01", json!({ "relationship": "sibling" }), 12, 2_200, ""),
        ("1984-01-01", json!({ "relationship": "sibling", "student_months": 5 }), 12, 0, NO_SUPPORT),
    ];
    for (born, answers, months, credit, why) in cases {
        let mut family = Family::single(2025).wages("ada", 80_000).child("kim", born).set(
            "kim",
            "/lived_with/ada",
            json!(months),
        );
        for (key, value) in answers.as_object().unwrap() {
            family = family.set("kim", &format!("/answers/{key}"), value.clone());
        }
        let outcome = family.outcome();
        assert_eq!(line(&outcome, "us.8812.8"), credit, "{born} {answers}");
        let told = match why {
            // Nobody has said anything about support: that is asked, not told as a fact.
            NO_SUPPORT => has_point(&outcome, "K-014"),
            _ => outcome.points.iter().any(|p| p.message == format!("kim is not a dependent: {why}.")),
        };
        assert_eq!(told, !why.is_empty(), "{born} {answers}: {:?}", outcome.points);
    }
}

#[test]
fn each_spouse_claims_the_children_who_are_worth_most_there() {
    // Ada's income is 240,000: a child there loses 2,000 of 2,200; with bo nothing is lost.
    let family = Family::couple(2025)
        .child("kim", "2015-01-01")
        .child("lee", "2016-01-01")
        .wages("ada", 240_000)
        .wages("bo", 60_000)
        .pin("us.status", "separate")
        .outcome();
    let first = &family.ways[0].options;
    assert_eq!((first["us.claim.kim"].as_str(), first["us.claim.lee"].as_str()), ("bo", "bo"));
}

#[test]
fn a_child_with_wages_has_a_return_of_its_own() {
    let family = Family::single(2025).wages("ada", 80_000).child("kim", "2008-05-05").wages("kim", 4_310);
    let outcome = family.outcome();
    assert_eq!(outcome.columns[1].files.as_deref(), Some("own return"));
    assert_eq!(hembo_testing::us::line_of(&outcome, "us.standard", "return/1"), 4_760); // earned + 450
    assert_eq!(hembo_testing::us::line_of(&outcome, "us.27a", "return/1"), 0);
    assert_eq!(line(&outcome, "us.1a"), 80_000);
    assert!(has_point(&outcome, "K-017") && outcome.covered);
    let married = family.set("kim", "/answers/married", json!(true)).outcome();
    assert!(!married.covered && has_point(&married, "own-return-married"));
}

#[test]
fn what_the_law_asks_beyond_this_pack_blocks_the_result() {
    let wages = |boxes| Family::single(2025).wages_with("ada", 50_000, boxes);
    let cases = [
        wages(json!({ "12a": "T", "12a.amount": "800" })),
        wages(json!({ "12a": "Z", "12a.amount": "800" })),
        Family::single(2025).set("ada", "/answers/nonresident_alien", json!(true)),
    ];
    for family in cases {
        let outcome = family.outcome();
        assert!(!outcome.covered, "{:#}", family.0);
    }
    assert!(wages(json!({ "12a": "DD", "12a.amount": "800" })).outcome().covered);
}

#[test]
fn community_property_states_do_not_weigh_separate_returns() {
    let outcome = Family::couple(2025).answer("state", json!("TX")).wages("ada", 90_000).outcome();
    assert!(barred(&outcome, "us.status", "separate").is_some() && has_point(&outcome, "K-030"));
    assert!(!outcome.covered, "separate returns are not weighed");
    // One spouse alone has a separate return only, which would be wrong.
    let alone =
        Family::single(2025).answer("marital", json!("married")).answer("state", json!("TX")).outcome();
    assert!(!alone.covered && has_point(&alone, "K-030-separate"));
}

#[test]
fn checks_of_papers_name_their_box() {
    let outcome =
        Family::single(2025).wages_with("ada", 76_240, json!({ "4": "4762.88", "b": "12" })).outcome();
    let point = outcome.points.iter().find(|p| p.id.starts_with("K-041")).unwrap();
    assert_eq!(point.message, "Box 4 should be 4,726.88 — 6.2 % of boxes 3 and 7.");
    assert_eq!((point.place.field.as_deref(), point.suggested.as_deref()), (Some("4"), Some("4726.88")));
    assert!(has_point(&outcome, "K-040"));
    let twice = Family::single(2025).wages("ada", 50_000).wages("ada", 50_000).outcome();
    assert!(has_point(&twice, "K-055"));
    let goods = json!([{ "sort": "goods", "amount": "500.01", "date": "2024-12-31" }, { "sort": "cash", "amount": "250" }]);
    let itemized = || Family::single(2025).pin("us.deduction", "itemized");
    let gifts = itemized().paper("Gifts", &["ada"], json!({}), goods).outcome();
    for code in ["K-111", "K-112", "K-154"] {
        assert!(has_point(&gifts, code), "{code}");
    }
    let form = |outcome: &Outcome| outcome.points.iter().find(|p| p.id.starts_with("K-111")).unwrap().clone();
    let open = form(&gifts);
    assert!(open.beside && open.dismissed.is_none());
    let goods = json!([{ "sort": "goods", "amount": "500.01", "date": "2025-12-31" }]);
    let mut family = itemized().paper("Gifts", &["ada"], json!({}), goods);
    let said = json!({ open.id.as_str(): { "reason": "done beside this return" }, "K-004:ada/born": { "reason": "no" } });
    family.0["dismissed"] = said;
    let done = family.set("ada", "/born", Value::Null).outcome();
    assert_eq!(form(&done).dismissed.as_deref(), Some("done beside this return"));
    // Nothing else that blocks can be put aside.
    let born = done.points.iter().find(|p| p.id == "K-004:ada/born").unwrap();
    assert!(born.dismissed.is_none());
    let stranger = Family::single(2025).child("pal", "1990-01-01").medical(&["ada"], "pal", 100).outcome();
    assert!(has_point(&stranger, "medical-patient"));
}
