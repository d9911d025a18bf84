//! What filing asks beside the figures: the preparer's checklist, numbers of accounts, PINs.
#![allow(missing_docs, clippy::unwrap_used)]

use hembo_core::Outcome;
use hembo_testing::us::{Family, has_point};
use serde_json::{Value, json};

fn asked(outcome: &Outcome) -> Vec<String> {
    let of =
        |id: &str| id.split(':').nth(1).and_then(|at| at.split('/').nth(1)).unwrap_or_default().to_owned();
    outcome.points.iter().filter(|p| p.id.starts_with("K-137")).map(|p| of(&p.id)).collect()
}

fn checklist(family: Family, who: &[&str], boxes: Value) -> Family {
    family.paper("8867", who, boxes, Value::Null)
}

/// Nobody is asked for what is not claimed, and each credit has its own questions.
#[test]
fn each_credit_has_its_questions() {
    let alone = Family::single(2025).wages("ada", 90_000);
    assert!(!has_point(&alone.clone().outcome(), "K-137"));
    let parent = alone.child("kim", "2015-05-05").set("ada", "/answers/paid_home", json!(true));
    assert!(has_point(&parent.clone().outcome(), "K-137"));
    let empty = checklist(parent.clone(), &["ada"], json!({})).outcome();
    assert_eq!(asked(&empty), ["1", "3", "5", "6", "15", "10", "11", "14"]);
    let poor = Family::single(2025).wages("ada", 20_000).child("kim", "2015-05-05");
    let empty = checklist(poor.clone(), &["ada"], json!({})).outcome();
    assert_eq!(asked(&empty), ["1", "3", "5", "6", "15", "9a", "9b", "10", "11"]);
    let school = json!({ "f": "36-4410927", "8": true, "years": 0, "1": "4000" });
    let student = Family::single(2025).wages("ada", 60_000).paper("1098-T", &["ada"], school, Value::Null);
    assert_eq!(asked(&checklist(student, &["ada"], json!({})).outcome()), ["1", "3", "5", "6", "15", "13"]);
}

#[test]
fn an_answer_may_stop_a_claim() {
    let family = Family::single(2025).wages("ada", 20_000).child("kim", "2015-05-05");
    let mut all = json!({
        "1": true, "3": true, "4": false, "5": true, "6": true, "7": false, "9a": true, "9b": true, "10": true,
        "11": true, "15": true,
    });
    let with = |boxes: &Value| checklist(family.clone(), &["ada"], boxes.clone()).outcome();
    assert!(asked(&with(&all)).is_empty());
    all["9b"] = json!(false);
    assert!(has_point(&with(&all), "K-137-no"));
    all["9b"] = json!(true);
    all["4"] = json!(true);
    assert!(has_point(&with(&all), "K-137-further"));
    all["4b"] = json!(true);
    all["7"] = json!(true);
    assert!(has_point(&with(&all), "K-138"));
    all["7a"] = json!(true);
    assert!(!has_point(&with(&all), "K-138") && asked(&with(&all)).is_empty());
}

/// Two returns have a checklist each.
#[test]
fn separate_returns_have_a_checklist_each() {
    let family = Family::couple(2025).wages("ada", 60_000).wages("bo", 60_000);
    let family = family.child("kim", "2015-05-05").child("lee", "2016-05-05").pin("us.status", "separate");
    let family = family.pin("us.claim.kim", "ada").pin("us.claim.lee", "bo");
    let message = |family: Family| {
        family.outcome().points.iter().find(|p| p.id.starts_with("K-137:")).map(|p| p.message.clone())
    };
    assert!(message(family.clone()).unwrap().starts_with("ada and bo:"));
    assert!(message(checklist(family.clone(), &["bo"], json!({}))).unwrap().starts_with("ada:"));
    assert!(message(checklist(checklist(family, &["bo"], json!({})), &["ada"], json!({}))).is_none());
}

#[test]
fn pins_have_six_digits() {
    for (pin, wrong) in [("123456", false), ("12345", true), ("12345a", true)] {
        let outcome = Family::single(2025).set("ada", "/answers/protection_pin", json!(pin)).outcome();
        assert_eq!(has_point(&outcome, "K-028"), wrong, "{pin}");
    }
}

/// 60,000 with 9,000 withheld: 5,072 of tax leave 3,928.
#[test]
fn a_refund_goes_to_up_to_three_accounts() {
    let row = |amount: &str| json!({ "routing": "021000021", "account": "55619034", "kind": "savings", "amount": amount });
    let family = Family::single(2025).wages_with("ada", 60_000, json!({ "2": "9000" }));
    let outcome = family.clone().outcome();
    let refund = hembo_testing::us::line(&outcome, "us.34");
    let with = |rows: Value| family.clone().paper("8888", &["ada"], json!({}), rows).outcome();
    assert!(!has_point(&with(json!([row(&refund.to_string()), row("0"), row("0")])), "8888-three"));
    assert!(!has_point(&with(json!([row(&refund.to_string())])), "8888-sum"));
    assert!(has_point(&with(json!([row(&(refund + 1).to_string())])), "8888-sum"));
    assert!(has_point(&with(json!([row("1"), row("1"), row("1"), row("1")])), "8888-three"));
    assert!(has_point(
        &with(json!([{ "routing": "021000022", "account": "55619034", "kind": "savings" }])),
        "K-158"
    ));
    assert!(has_point(
        &with(json!([{ "routing": "021000021", "account": "1", "kind": "savings" }])),
        "K-158-account"
    ));
    assert!(has_point(&with(json!([{ "routing": "021000021", "account": "55619034" }])), "K-158-kind"));
    for (account, code) in [
        ("021000022 5561-9034", Some("K-158")),
        ("021000021", Some("K-158-account")),
        ("021000021 5561-9034", None),
    ] {
        let outcome = family.clone().answer("refund_account", json!(account)).outcome();
        let found = outcome
            .points
            .iter()
            .find(|p| p.id.starts_with("K-158"))
            .map(|p| p.id.split(':').next().unwrap());
        assert_eq!(found, code, "{account}");
    }
}
