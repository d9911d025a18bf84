//! Open points: each check where it applies and not where it does not, and nothing that makes the program stumble.
#![allow(missing_docs, clippy::unwrap_used, clippy::type_complexity)]

use hembo_ca::sin;
use hembo_core::{file, point::Weight};
use hembo_money::Money;
use hembo_testing::ca::{Family, REGISTRY, has_point, line, money};
use serde_json::json;

fn single() -> Family {
    Family::single("ON", "1980-01-01").interest("ada", "60000")
}

#[test]
fn each_check_opens_where_it_applies() {
    let t4 = |boxes| single().paper("T4", "ada", boxes);
    let list = |kind: &str, row| single().shared(kind, &[("ada", "100")], json!({}), json!([row]));
    let couple = || Family::couple("ON", ["1980-01-01", "1981-01-01"]).interest("ada", "60000");
    let relative = |relationship: &str, born: &str| {
        single().child("kim", born).answer_for("kim", "relationship", json!(relationship))
    };
    let cases: Vec<(&str, Family, bool)> = vec![
        ("C-12-quebec", single().answer("province", json!("QC")), true),
        ("C-12-elsewhere", single().answer("province", json!("BC")), true),
        ("C-12-elsewhere", single().answer("province", json!("AB")), false),
        ("C-6", single(), false),
        ("C-9", couple().answer("marital", json!("single")), true),
        ("C-9", couple(), false),
        ("C-7", single().answer("marital", json!("married")), true),
        ("C-14", single().answer("part_year", json!(true)), true),
        ("C-18", single().answer("foreign_property", json!(true)), true),
        ("C-17", single(), false),
        ("C-53", single().answer_for("ada", "disability", json!(true)), true),
        ("C-25", t4(json!({ "14": "60000", "16": "3361.75", "18": "984" })), false),
        ("C-25", t4(json!({ "14": "60000", "16": "3363.75", "18": "984" })), true),
        ("C-25", t4(json!({ "14": "60000", "16": "3362.74", "18": "984" })), false),
        ("C-25", t4(json!({ "14": "60000", "28.cpp": true, "18": "984" })), false),
        ("C-25", t4(json!({ "14": "60000", "18": "984" })), true),
        ("C-26", t4(json!({ "14": "60000", "16": "3361.75", "18": "900" })), true),
        ("C-24", t4(json!({ "14": "80000", "16": "5000", "16A": "348", "18": "1077.48" })), true),
        ("C-28", t4(json!({ "14": "100", "22": "101" })), true),
        ("not-covered-box", t4(json!({ "14": "100", "39": "1" })), true),
        ("premiums", t4(json!({ "14": "100", "85": "1" })), true),
        ("C-35", single().paper("T4A(OAS)", "ada", json!({ "18": "9000" })), true),
        ("C-71", single().paper("T5", "ada", json!({ "24": "1000", "25": "1380" })), false),
        ("C-71", single().paper("T5", "ada", json!({ "24": "1000", "25": "1381" })), true),
        ("C-71", single().paper("T5", "ada", json!({ "25": "1381" })), false),
        ("C-78", single().paper("T5", "ada", json!({ "13": "5", "27": "USD" })), true),
        ("C-21", single().paper("T5", "ada", json!({ "15": "5" })), true),
        ("C-65", single().tuition("ada", "100"), true),
        ("C-65", single().tuition("ada", "100.01"), false),
        ("training-credit", single().tuition("ada", "500"), true),
        ("C-39", list("RRSP", json!({ "date": "2025-05-05", "amount": "100" })), true),
        ("C-39", single().contributions("ada", "100", "100"), false),
        ("C-40", single().contributions("ada", "1000", "3000"), false),
        ("C-40", single().contributions("ada", "1000", "3000.01"), true),
        ("C-41", list("RRSP", json!({ "date": "2025-03-03", "amount": "100" })), true),
        ("C-41", list("RRSP", json!({ "date": "2025-03-04", "amount": "100" })), false),
        ("C-41", list("RRSP", json!({ "date": "2026-03-02", "amount": "100" })), false),
        ("C-41", list("RRSP", json!({ "date": "2026-03-03", "amount": "100" })), true),
        ("date-missing", list("Medical", json!({ "amount": "100" })), true),
        ("C-57", list("Medical", json!({ "date": "2023-12-31", "amount": "100" })), true),
        ("C-63", list("Gifts", json!({ "date": "2024-12-31", "number": "1", "amount": "100" })), true),
        ("C-63-carried", list("Gifts carried", json!({ "year": 2019, "amount": "100" })), true),
        ("C-63-carried", list("Gifts carried", json!({ "year": 2020, "amount": "100" })), false),
        ("C-64", list("Gifts", json!({ "date": "2025-12-31", "amount": "100" })), true),
        ("C-87-province", Family::single("AB", "1980-01-01").employed("ada", "20000"), true),
        ("C-87-province", Family::single("AB", "1980-01-01").employed("ada", "60000"), false),
        ("C-86", single().child("cy", "2015-05-05").interest("cy", "10"), true),
        ("C-86", single().child("cy", "2007-12-31").interest("cy", "10"), false),
        ("C-86", single().child("cy", "2008-01-01").paper("T5", "cy", json!({ "24": "10" })), true),
        ("C-63-used", list("Gifts", json!({ "date": "2025-02-28", "number": "1", "amount": "100" })), true),
        ("C-63-used", list("Gifts", json!({ "date": "2025-03-01", "number": "1", "amount": "100" })), false),
        (
            "C-63-used",
            list("Gifts", json!({ "date": "2025-01-01", "number": "1", "amount": "100", "used": false })),
            false,
        ),
        ("asks", single(), false),
        ("not-computed", single().answer("sales", json!(true)), true),
        ("C-38", single().contributions("ada", "9000", "100").contributions("ada", "9000", "100"), true),
        ("C-50", single().child("cy", "2015-05-05"), true),
        ("C-50", single().child("cy", "2015-05-05").answer_for("ada", "maintains_home", json!(false)), false),
        ("C-50", couple().child("cy", "2015-05-05"), false),
        ("C-51", single().person("cy", "dependent", "2015-05-05"), true),
        ("C-51", single().child("cy", "2015-05-05"), false),
        ("C-51-younger", relative("parent", "1980-01-01"), true),
        ("C-51-younger", relative("grandparent", "1979-12-31"), false),
        ("C-51-younger", relative("child", "1990-01-01"), false),
        ("C-61", single().child("kim", "1999-01-01").medical("kim", &[("2025-02-02", "900")]), true),
        ("gifts-of-dependant", single().child("kim", "1999-01-01").gifts("kim", "10"), true),
        (
            "gifts-of-dependant",
            single().child("kim", "1999-01-01").paper("T4", "kim", json!({ "14": "900", "46": "10" })),
            true,
        ),
        ("total-missing", single().paper("T4A(P)", "ada", json!({ "14": "900" })), true),
        ("total-missing", single().paper("T4A(P)", "ada", json!({ "14": "900", "20": "900" })), false),
        ("total-missing", single().paper("T4A(OAS)", "ada", json!({ "19": "900" })), true),
        ("C-92", single().gifts("ada", "10"), false),
    ];
    for (code, family, open) in cases {
        let outcome = family.outcome();
        assert_eq!(has_point(&outcome, code), open, "{code}: {:?}", family.0);
        let blocks = outcome.points.iter().any(|p| p.weight == Weight::Blocks && p.not_covered);
        assert_eq!(outcome.covered, !blocks);
    }
}

#[test]
fn a_dependants_own_papers_make_a_return_of_their_own() {
    let family = Family::of("ON", "divorced").person("pat", "filer", "1975-05-05").child("sam", "2004-05-05");
    let outcome = family.employed("pat", "70000").interest("sam", "30000").outcome();
    assert_eq!(outcome.columns[1].files.as_deref(), Some("own return"));
    // The household's total is that of both returns.
    assert_eq!(line(&outcome, 0, "net_tax") + line(&outcome, 1, "net_tax"), outcome.total);
    assert!(line(&outcome, 1, "net_tax") > Money::ZERO);
    let adult = Family::single("ON", "1970-01-01").interest("ada", "60000").child("kim", "1999-01-01");
    let bills = adult.shared(
        "Medical",
        &[("ada", "100")],
        json!({}),
        json!([{ "date": "2025-02-02", "patient": "kim", "amount": "9000" }]),
    );
    let outcome = bills.outcome();
    assert!(has_point(&outcome, "C-61") && !outcome.covered);
    assert_eq!(line(&outcome, 0, "33099"), Money::ZERO);
}

#[test]
fn a_joint_slip_is_shared_to_the_cent() {
    let family = Family::couple("ON", ["1970-01-01", "1971-01-01"]);
    let boxes = json!({ "24": "100.01", "25": "138.01", "10": "50", "11": "57.50", "13": "33.33" });
    let outcome = family.shared("T5", &[("ada", "33.3"), ("bo", "66.7")], boxes, json!(null)).outcome();
    for (id, whole) in [("12000", "195.51"), ("12010", "57.50"), ("12100", "33.33")] {
        assert_eq!(line(&outcome, 0, id) + line(&outcome, 1, id), money(whole), "{id}");
    }
    assert_eq!(line(&outcome, 0, "12100"), money("11.10"));
}

#[test]
fn a_number_checks_itself() {
    for (number, right) in [
        ("046 454 286", true),
        ("046454286", true),
        ("046-454-286", true),
        ("046 454 287", false),
        ("046 454 28", false),
        ("0464542860", false),
        ("111 111 111", false),
        ("000 000 000", false),
        ("812 345 678", false),
        ("abc def ghi", false),
        ("", false),
    ] {
        assert_eq!(sin::check(number).is_ok(), right, "{number}");
    }
}

#[test]
fn what_cannot_be_right_names_its_place() {
    let cases = [
        (json!({ "kind": "T9" }), "/papers/0/kind", "no kind of paper 'T9'"),
        (json!({ "boxes": { "14": "-1" } }), "/papers/0/boxes/14", "negative"),
        (json!({ "boxes": { "14": 12 } }), "/papers/0/boxes/14", "decimal text"),
        (json!({ "boxes": { "99": "1" } }), "/papers/0/boxes/99", "no box"),
        (json!({ "boxes": { "10": "XX" } }), "/papers/0/boxes/10", "one of ON, AB"),
        (json!({ "owners": [{ "person": "ada", "percent": "99" }] }), "/papers/0/owners", "99 %"),
    ];
    for (change, at, words) in cases {
        let mut file = single().0;
        file["papers"][0] = json!({ "id": "t4", "kind": "T4", "owners": [{ "person": "ada", "percent": "100" }], "boxes": {} });
        for (key, value) in change.as_object().unwrap() {
            file["papers"][0][key] = value.clone();
        }
        let faults = file::read(file.to_string().as_bytes(), &REGISTRY).unwrap_err();
        assert!(faults.iter().any(|f| f.at == at && f.message.contains(words)), "{faults:?}");
    }
    let mut file = single().0;
    file["year"] = json!(2024);
    let faults = file::read(file.to_string().as_bytes(), &REGISTRY).unwrap_err();
    assert_eq!(
        (faults[0].at.as_str(), faults[0].message.as_str()),
        ("/year", "No rule figures for 2024; known years: 2025.")
    );
}
