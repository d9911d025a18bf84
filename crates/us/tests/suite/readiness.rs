//! What filing asks beside the figures: the preparer's checklist, numbers of accounts, PINs.

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

/// 60,000 with 9,000 withheld: 5,075 of tax leave 3,925.
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

fn signatures(family: Family, who: &[&str], boxes: Value) -> Outcome {
    family.paper("8879", who, boxes, Value::Null).outcome()
}

/// Each return has its own signatures: who signed when, with which PIN.
#[test]
fn each_return_is_signed() {
    let alone = || Family::single(2025).wages("ada", 60_000);
    let pair = Family::couple(2025).wages("ada", 60_000);
    assert!(has_point(&alone().outcome(), "K-161"));
    let settled = alone().answer("signing", json!(true)).outcome();
    let message = settled.points.iter().find(|p| p.id.starts_with("K-161:")).unwrap().message.clone();
    assert_eq!(message, "ada: the paper of signatures is missing (8879).");
    assert!(!has_point(&alone().signed(&["ada"]).outcome(), "K-161"));
    let apart = pair.clone().pin("us.status", "separate").signed(&["ada"]).outcome();
    let message = apart.points.iter().find(|p| p.id.starts_with("K-161:")).unwrap().message.clone();
    assert!(message.starts_with("bo:"), "{message}");
    let boxes = |how: &str, day: &str, pin: &str| json!({ "how": how, "signed": day, "pin": pin });
    for (how, day, pin, unsigned, no_pin) in [
        ("preparer", "2026-02-02", "12345", false, false),
        ("preparer", "2025-12-31", "12345", true, false),
        ("preparer", "2026-01-01", "00000", false, true),
        ("preparer", "2026-01-01", "1234", false, true),
        ("paper", "2026-01-01", "", false, false),
    ] {
        let outcome = signatures(alone(), &["ada"], boxes(how, day, pin));
        assert_eq!(
            (has_point(&outcome, "K-161-day"), has_point(&outcome, "K-162")),
            (unsigned, no_pin),
            "{how} {day} {pin}"
        );
        assert_eq!(has_point(&outcome, "licence"), how != "paper");
    }
    let planned = Family::single(2026).wages("ada", 60_000).outcome();
    assert!(!has_point(&planned, "K-161"), "a year for planning is not filed");
    // Both of a couple sign, but not one who has died.
    let one = boxes("paper", "2026-02-02", "");
    assert!(has_point(&signatures(pair.clone(), &["ada", "bo"], one.clone()), "K-161-day"));
    let died = pair.set("bo", "/died", json!("2025-06-06"));
    assert!(!has_point(&signatures(died, &["ada", "bo"], one), "K-161-day"));
    let last = alone().set("ada", "/died", json!("2025-06-06")).outcome();
    assert!(has_point(&last, "K-176"));
}

/// Filers who enter their own PINs prove who they are by last year's return.
#[test]
fn last_years_return_proves_who_signs() {
    let alone = || Family::single(2025).wages("ada", 60_000);
    let own = json!({ "how": "filers", "signed": "2026-02-02", "pin": "12345" });
    assert!(has_point(&signatures(alone(), &["ada"], own.clone()), "K-162-earlier"));
    let mut pin = own.clone();
    pin["earlier_pin"] = json!("54321");
    assert!(!has_point(&signatures(alone(), &["ada"], pin), "K-162-earlier"));
    let last = alone().paper("Last year", &["ada"], json!({ "agi": "0", "tax": "0" }), Value::Null);
    assert!(!has_point(&signatures(last, &["ada"], own), "K-162-earlier"));
}

/// Numbers, address, consent, the day of filing, who may ask, and how a balance is paid.
#[test]
fn what_filing_asks() {
    let alone = || Family::single(2025).wages("ada", 60_000);
    let whole = json!({
        "how": "paper", "signed": "2026-02-02", "ptin": "P01748236", "consent": false, "street": "1 Quay Street",
        "town": "Astoria, OR", "zip": "97103-4418", "telephone": "(503) 555-0110", "paid_by": "cheque",
    });
    let with = |more: Value| {
        let mut boxes = whole.clone();
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        boxes.as_object_mut().unwrap().retain(|_, value| !value.is_null());
        signatures(alone(), &["ada"], boxes)
    };
    let codes = ["K-163", "consent-7216", "K-164", "K-165", "K-166", "K-174"];
    let raised = |more: Value| {
        let outcome = with(more);
        codes.into_iter().filter(|code| has_point(&outcome, code)).collect::<Vec<_>>()
    };
    assert!(raised(json!({})).is_empty());
    for (more, code) in [
        (json!({ "ptin": "01748236" }), "K-163"),
        (json!({ "ptin": null }), "K-163"),
        (json!({ "consent": null }), "consent-7216"),
        (json!({ "zip": "9710" }), "K-164"),
        (json!({ "telephone": "555-0110" }), "K-164"),
        (json!({ "street": null }), "K-164"),
        (json!({ "filed": "2026-04-16" }), "K-165"),
        (json!({ "paid_by": null }), "K-166"),
        (json!({ "designee": true, "designee.name": "Orla Finch" }), "K-174"),
    ] {
        assert_eq!(raised(more), [code]);
    }
    assert!(raised(json!({ "filed": "2026-04-15" })).is_empty());
    assert!(raised(json!({ "filed": "2026-10-01", "extended": true })).is_empty());
    let named = json!({
        "designee": true, "designee.name": "Orla Finch", "designee.telephone": "503-555-0111", "designee.pin": "10203",
    });
    assert!(raised(named).is_empty());
}

/// A joint refund is kept for one spouse's old debts.
#[test]
fn old_debts_of_a_spouse() {
    let family = |withheld: &str| {
        let family = Family::couple(2025).wages_with("ada", 60_000, json!({ "2": withheld }));
        family.set("bo", "/answers/old_debts", json!(true))
    };
    assert!(has_point(&family("9000").outcome(), "K-175"));
    assert!(!has_point(&family("0").outcome(), "K-175"));
    assert!(!has_point(&family("9000").set("ada", "/answers/old_debts", json!(true)).outcome(), "K-175"));
}

/// Accounts abroad: 10,000 for each person's report, 50,000 and 75,000 (joint 100,000 and 150,000) for Form 8938.
#[test]
fn accounts_abroad() {
    let accounts = |family: Family, who: &[&str], highest: &str, end: &str| {
        let rows = json!([{ "bank": "Kanton", "highest": highest, "year_end": end }]);
        let outcome =
            family.answer("foreign_account", json!(true)).paper("8938", who, json!({}), rows).outcome();
        (has_point(&outcome, "K-026-report"), has_point(&outcome, "K-027"))
    };
    let alone = || Family::single(2025).wages("ada", 60_000);
    assert_eq!(accounts(alone(), &["ada"], "10000", "10000"), (false, false));
    assert_eq!(accounts(alone(), &["ada"], "10000.01", "10000"), (true, false));
    assert_eq!(accounts(alone(), &["ada"], "75000", "50000"), (true, false));
    assert_eq!(accounts(alone(), &["ada"], "75000", "50000.01"), (true, true));
    assert_eq!(accounts(alone(), &["ada"], "75000.01", "0"), (true, true));
    let pair = || Family::couple(2025).wages("ada", 60_000);
    assert_eq!(accounts(pair(), &["ada", "bo"], "150000", "100000"), (true, false));
    assert_eq!(accounts(pair(), &["ada", "bo"], "150000", "100001"), (true, true));
    assert!(has_point(&alone().answer("foreign_account", json!(true)).outcome(), "K-027-values"));
}

/// What is worth a look beside the papers.
#[test]
fn what_is_worth_a_look() {
    let alone = || Family::single(2025).wages("ada", 60_000);
    let raises = |family: Family, code: &str| has_point(&family.outcome(), code);
    // A refund above 10,000.
    let withheld = |amount: &str| Family::single(2025).wages_with("ada", 60_000, json!({ "2": amount }));
    assert!(!raises(withheld("15075"), "K-160") && raises(withheld("15076"), "K-160")); // the tax of 44,275 is 5,074.50
    // Last year's overpayment among no payments.
    let last = alone().paper("Last year", &["ada"], json!({ "36": "700" }), Value::Null);
    assert!(raises(last.clone(), "K-155"));
    let paid = last.paper("1040-ES", &["ada"], json!({}), json!([{ "amount": "700" }]));
    assert!(!raises(paid, "K-155"));
    // Gifts above a fifth of 60,000.
    assert!(
        !raises(alone().cash_gift(&["ada"], 12_000), "K-113")
            && raises(alone().cash_gift(&["ada"], 12_001), "K-113")
    );
    // Round thousands of property tax.
    assert!(
        raises(alone().property_tax(&["ada"], 4_000), "K-109")
            && !raises(alone().property_tax(&["ada"], 4_001), "K-109")
    );
    // Income without tax, and none to speak of.
    let large = Family::single(2025).child("kim", "2015-05-05").wages("ada", 50_000);
    assert!(!raises(large, "K-150"));
    let business = |boxes: Value| Family::single(2025).paper("Schedule C", &["ada"], boxes, Value::Null);
    let round = json!({ "1": "9000", "participates": true, "service": false });
    assert!(raises(business(round.clone()), "K-124"));
    assert!(!raises(business(json!({ "1": "9001", "participates": true, "service": false })), "K-124"));
    assert!(!raises(
        business(json!({ "1": "9000", "18": "1", "participates": true, "service": false })),
        "K-124"
    ));
    assert!(!raises(business(round), "K-075"));
    assert!(raises(
        business(json!({ "1": "900", "18": "1000", "participates": true, "service": false })),
        "K-075"
    ));
    assert!(raises(
        business(json!({ "1": "9000", "13": "100", "participates": true, "service": false })),
        "C-72"
    ));
    let wages = |more: Value| Family::single(2025).wages_with("ada", 60_000, more);
    assert!(
        raises(wages(json!({ "5": "59999" })), "K-046-wages") && !raises(wages(json!({})), "K-046-wages")
    );
    assert!(raises(wages(json!({ "12a": "V", "12a.amount": "5" })), "K-051"));
    assert!(!raises(wages(json!({ "15": "OH", "16": "45000" })), "K-054"));
    assert!(raises(wages(json!({ "15": "OH", "16": "44999" })), "K-054"));
    assert!(!raises(wages(json!({ "15": "OH", "16": "30000", "15b": "PA", "16b": "30000" })), "K-054"));
    let account = alone().paper("HSA", &["ada"], json!({ "2": "100", "self": 12 }), Value::Null);
    assert!(!raises(account.clone(), "K-101"));
    assert!(raises(
        account.paper("SSA-1099", &["ada"], json!({ "5": "9000", "medicare": "900" }), Value::Null),
        "K-101"
    ));
}

/// Names as on a card, numbers that run out, and a child is younger than its parents.
#[test]
fn names_numbers_and_ages() {
    let pair = || Family::couple(2025).wages("ada", 60_000);
    let raises = |family: Family, code: &str| has_point(&family.outcome(), code);
    assert!(!raises(pair(), "K-003") && !raises(pair(), "K-007"));
    assert!(raises(pair().set("bo", "/name", json!("Bo 2")), "K-003"));
    assert!(raises(pair().set("bo", "/id_number", json!("912-70-1234")), "K-007"));
    assert!(!raises(pair().set("bo", "/id_number", json!("912-93-1234")), "K-007"));
    // Ada of 1985 and Bo of 1984.
    assert!(raises(pair().child("kim", "1995-12-31"), "K-021"));
    assert!(!raises(pair().child("kim", "1996-01-01"), "K-021"));
}

/// Who need not file: below the standard deduction with the addition for age, without other taxes or advance payments, and with
/// nothing to be paid out.
#[test]
fn who_need_not_file() {
    let need_not = |family: Family| has_point(&family.outcome(), "C-07");
    let aged = |wages| Family::of(2025).filer("ada", "1960-06-01").wages("ada", wages);
    // Too young for the earned income credit without a child.
    let young = || Family::of(2025).filer("ada", "2003-03-03");
    let pair = |wages| Family::couple(2025).wages("ada", wages);
    for (family, expected) in [
        (young().wages("ada", 15_749), true),
        (young().wages("ada", 15_750), false),
        (Family::single(2025).wages("ada", 15_749), false), // the earned income credit is paid out
        (young().wages_with("ada", 15_749, json!({ "2": "100" })), false),
        (aged(17_749), true),
        (aged(17_750), false),
        (pair(31_499), true),
        (pair(31_500), false),
        (pair(4).pin("us.status", "separate"), true),
        (pair(5).pin("us.status", "separate").wages("bo", 900), false),
        (pair(5).answer("apart", json!(true)), false),
    ] {
        assert_eq!(need_not(family.clone()), expected, "{:?}", family.0["papers"]);
    }
    let business = |gross: &str| {
        let boxes = json!({ "1": gross, "participates": true, "service": false });
        young().paper("Schedule C", &["ada"], boxes, Value::Null)
    };
    assert!(need_not(business("433")) && !need_not(business("434")));
    let spent = json!({ "1": "300", "bills": "300" });
    assert!(!need_not(young().wages("ada", 9_000).paper("1099-SA", &["ada"], spent, Value::Null)));
    let covered = young().wages("ada", 9_000);
    let policy = json!({ "33A": "6000", "33B": "6000", "33C": "3000" });
    assert!(!need_not(covered.paper("1095-A", &["ada"], policy, Value::Null)));
    assert!(!need_not(Family::single(2025)), "without income nothing is said");
    // A child of whom the parents can take a claim: 1,350 of unearned income, or earnings of 15,750.
    let child = |interest: i64, wages: i64| {
        let family = Family::single(2025).wages("ada", 60_000).child("kim", "2008-05-05");
        let family = if wages > 0 { family.wages("kim", wages) } else { family };
        need_not(if interest > 0 { family.interest(&["kim"], interest) } else { family })
    };
    assert!(child(1_350, 0) && !child(1_351, 0) && child(0, 15_750) && !child(0, 15_751));
}
