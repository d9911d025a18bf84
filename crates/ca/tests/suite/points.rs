//! Open points: each check where it applies and not where it does not, and nothing that makes the program stumble.

use hembo_ca::sin;
use hembo_core::{file, point::Weight};
use hembo_money::Money;
use hembo_testing::ca::{Family, REGISTRY, has_point, line, money};
use serde_json::{Value, json};

fn single() -> Family {
    Family::single("ON", "1980-01-01").interest("ada", "60000")
}

fn grown() -> Family {
    single().child("kim", "1999-01-01")
}

/// Whether each point is open as expected, and the result covered just where none that blocks says it is not.
fn check(cases: Vec<(&str, Family, bool)>) {
    for (code, family, open) in cases {
        let outcome = family.outcome();
        assert_eq!(has_point(&outcome, code), open, "{code}: {:?}", family.0);
        let blocks = outcome.points.iter().any(|p| p.weight == Weight::Blocks && p.not_covered);
        assert_eq!(outcome.covered, !blocks);
    }
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
        ("C-12-quebec", single().answer("province", json!("BC")), false),
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
        ("not-covered-box", t4(json!({ "14": "100", "55": "1" })), true),
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
        ("C-61", grown().medical("kim", &[("2025-02-02", "900")]), true),
        (
            "C-61",
            grown().answer_for("kim", "net_income", json!("0")).medical("kim", &[("2025-02-02", "900")]),
            false,
        ),
        ("medical-ceiling", grown().medical("kim", &[("2025-02-02", "10000")]), false),
        ("medical-ceiling", grown().medical("kim", &[("2025-02-02", "10000.01")]), true),
        (
            "C-59",
            grown().answer_for("kim", "relationship", json!("other")).medical("kim", &[("2025-02-02", "9")]),
            true,
        ),
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
    check(cases);
}

/// What is missing of people, and which of them these returns cannot hold.
#[test]
fn people_whose_particulars_are_missing_are_named() {
    let changed = |key: &str, value: Value| {
        let mut family = single();
        match value {
            Value::Null => drop(family.0["people"][0].as_object_mut().unwrap().remove(key)),
            value => family.0["people"][0][key] = value,
        }
        family
    };
    let nowhere = || {
        let mut family = single();
        family.0["answers"].as_object_mut().unwrap().remove("province");
        family
    };
    check(vec![
        ("C-5", single(), false),
        ("C-5", changed("born", Value::Null), true),
        ("C-1", single(), false),
        ("C-1", changed("id_number", Value::Null), true),
        ("C-2", changed("id_number", json!("912 345 675")), true),
        ("C-2", single(), false),
        ("C-3", changed("id_number", json!("012 345 674")), true),
        ("C-3", single(), false),
        ("C-16-final", changed("died", json!("2025-12-31")), true),
        ("C-16-final", changed("died", json!("2026-01-01")), false),
        ("C-12", nowhere(), true),
        ("C-12", single(), false),
    ]);
}

/// Foreign property: the short statement asks for the country, the long one from 250,000 on for each property as well.
#[test]
fn foreign_property_is_told_as_far_as_its_statement_asks() {
    let property = |row: Value| {
        single().answer("foreign_property", json!(true)).shared(
            "T1135",
            &[("ada", "100")],
            json!({}),
            json!([row]),
        )
    };
    let held = |most: &str| json!({ "category": "5", "what": "House in Porto", "country": "Portugal", "most": most, "end": most });
    let less = |most: &str, field: &str| {
        let mut row = held(most);
        row.as_object_mut().unwrap().remove(field);
        property(row)
    };
    check(vec![
        ("T1135-A", property(held("100000")), false),
        ("T1135-A", property(held("100000.01")), true),
        ("T1135-A", property(held("249999.99")), true),
        ("T1135-A", property(held("250000")), false),
        ("T1135-B", property(held("249999.99")), false),
        ("T1135-B", property(held("250000")), true),
        ("C-20", property(held("120000")), false),
        ("C-20", less("120000", "country"), true),
        ("C-20", less("90000", "country"), false),
        ("C-19", property(held("250000")), false),
        ("C-19", less("250000", "what"), true),
        ("C-19", less("250000", "category"), true),
        ("C-19", less("249999", "what"), false),
        ("C-18", single().answer("foreign_property", json!(true)), true),
        ("C-18", property(held("120000")), false),
        ("C-18-no", property(held("120000")).answer("foreign_property", json!(false)), true),
        ("C-18-no", property(held("100000")).answer("foreign_property", json!(false)), false),
    ]);
}

/// Slips of which a box decides how another is taxed, or whose income may be somebody else's.
#[test]
fn slips_ask_for_what_decides_on_their_tax() {
    let slip = |kind: &str, boxes: Value| single().paper(kind, "ada", boxes);
    let assisted = |family: Family| family.paper("T5007", "ada", json!({ "11": "9000" }));
    check(vec![
        ("C-68", slip("T4A", json!({ "105": "3000" })), true),
        ("C-68", slip("T4A", json!({ "105": "3000", "105.for": "full" })), false),
        ("ei-rate", slip("T4E", json!({ "14": "900", "15": "900" })), true),
        ("ei-rate", slip("T4E", json!({ "14": "900", "15": "900", "7": 0 })), false),
        ("ei-rate", slip("T4E", json!({ "14": "900", "37": "900" })), false),
        ("total-missing", slip("T4E", json!({ "37": "900" })), true),
        ("not-covered-box", slip("T4E", json!({ "14": "900", "20": "100" })), true),
        ("not-covered-box", slip("T4RSP", json!({ "22": "100" })), false),
        ("not-covered-box", slip("T4A", json!({ "040": "100" })), true),
        ("spousal-plan", slip("T4RSP", json!({ "22": "100", "24": true })), true),
        ("spousal-plan", slip("T4RSP", json!({ "22": "100", "24": false })), false),
        ("spousal-plan", slip("T4RIF", json!({ "16": "100", "26": true })), true),
        ("assistance-couple", assisted(single()), false),
        ("premiums", slip("T4A", json!({ "016": "100", "135": "10" })), true),
    ]);
}

/// Certificates, care and amounts of provinces that bear on the disability and caregiver amounts.
#[test]
fn impairments_ask_for_their_proof_and_their_care() {
    let certified = |family: Family, who: &str| family.answer_for(who, "disability", json!(true));
    let ada = || certified(single(), "ada");
    let kim = |income: &str| certified(grown(), "kim").answer_for("kim", "net_income", json!(income));
    let bills = |family: Family| family.medical("ada", &[("2025-02-02", "9000")]);
    let kept = |province: &str, born: &str| {
        let family = Family::single(province, "1970-01-01").interest("ada", "60000").child("kim", born);
        family.answer_for("kim", "infirm", json!(true)).answer_for("ada", "maintains_home", json!(false))
    };
    check(vec![
        ("C-54", bills(ada()), true),
        ("C-54", ada(), false),
        ("C-54", bills(single()), false),
        ("C-54", bills(ada()).answer_for("ada", "attendant", json!(false)), false),
        ("C-54-either", bills(ada()).answer_for("ada", "attendant", json!(true)), true),
        ("C-54-either", bills(ada()).answer_for("ada", "attendant", json!(false)), false),
        // The basic amount of 16,129 covers the dependant's own tax.
        ("disability-papers", kim("16129"), false),
        ("disability-papers", kim("16129.01"), true),
        ("disability-papers", kim("16129.01").interest("kim", "10"), false),
        ("province-caregiver", kept("ON", "1999-01-01"), false),
        ("province-caregiver", kept("PE", "1999-01-01"), true),
        ("disability-supplement", certified(single().child("cy", "2015-05-05"), "cy"), false),
    ]);
}

/// Lines of receipts that fall outside the law, and amounts that could be shared or divided in more ways than are weighed.
#[test]
fn what_may_be_shared_and_is_not_weighed_is_told() {
    let poor = |amount: &str| {
        let couple = Family::couple("ON", ["1980-01-01", "1981-01-01"])
            .employed("ada", amount)
            .employed("bo", "18000");
        let couple = couple.child("kim", "1999-01-01").answer_for("kim", "infirm", json!(true));
        couple.answer_for("kim", "net_income", json!("0")).pin("ca.caregiver.kim", "bo")
    };
    let receipts = |rows: Value| {
        grown().answer_for("kim", "net_income", json!("0")).shared(
            "Medical",
            &[("ada", "100")],
            json!({}),
            rows,
        )
    };
    let bill = |date: &str| json!({ "date": date, "patient": "kim", "amount": "900" });
    let loan = |year: i32| {
        single().shared(
            "Loan interest",
            &[("ada", "100")],
            json!({}),
            json!([{ "year": year, "amount": "100" }]),
        )
    };
    let home = |province: &str| {
        Family::single(province, "1980-01-01").interest("ada", "60000").paper(
            "Home credits",
            "ada",
            json!({ "home": true }),
        )
    };
    let care = |number: Option<&str>| {
        let mut row = json!({ "child": "cy", "kind": "day", "amount": "900" });
        if let Some(number) = number {
            row["number"] = json!(number);
        }
        single().child("cy", "2020-05-05").shared("T778", &[("ada", "100")], json!({}), json!([row]))
    };
    check(vec![
        ("amounts-shared", poor("90000"), true),
        ("amounts-shared", poor("90000").pin("ca.caregiver.kim", "ada"), true),
        ("amounts-shared", poor("90000").answer_for("kim", "infirm", json!(false)), false),
        ("medical-months", receipts(json!([bill("2024-06-01"), bill("2025-05-31")])), false),
        ("medical-months", receipts(json!([bill("2024-06-01"), bill("2025-06-01")])), true),
        ("loan-interest-year", loan(2019), true),
        ("loan-interest-year", loan(2020), false),
        ("loan-interest-year", loan(2025), false),
        ("loan-interest-year", loan(2026), true),
        ("C-70", home("ON"), true),
        ("C-70", single(), false),
        ("sk-home", home("SK"), true),
        ("sk-home", home("ON"), false),
        ("C-46", care(None), true),
        ("C-46", care(Some("528 416 902")), false),
    ]);
}

/// Of a couple one is a full-time student: 122.7(1) leaves the student out, which is not computed.
#[test]
fn a_student_in_a_couple_is_told_at_the_workers_benefit() {
    let couple = |ada: bool, bo: bool| {
        let family = Family::couple("ON", ["1990-01-01", "1990-01-01"])
            .employed("ada", "14000")
            .employed("bo", "9000");
        family.answer_for("ada", "full_time_student", json!(ada)).answer_for(
            "bo",
            "full_time_student",
            json!(bo),
        )
    };
    check(vec![
        ("C-87", couple(true, false), true),
        ("C-87", couple(false, true), true),
        ("C-87", couple(false, false), false),
        ("C-87", couple(true, true), false),
        ("C-87", couple(true, false).child("cy", "2015-05-05"), false),
    ]);
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
    // Bills of 9,000 less 3 % of 20,000 of the dependant's own net income.
    let outcome = bills.answer_for("kim", "net_income", json!("20000")).outcome();
    assert_eq!(line(&outcome, 0, "33099"), Money::ZERO);
    assert_eq!(line(&outcome, 0, "33199"), hembo_testing::ca::money("8400"));
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
        ("528 416 902", true),
        ("528416902", true),
        ("528-416-902", true),
        ("528 416 903", false),
        ("046 454 28", false),
        ("5284169020", false),
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
    file["year"] = json!(2023);
    let faults = file::read(file.to_string().as_bytes(), &REGISTRY).unwrap_err();
    assert_eq!(
        (faults[0].at.as_str(), faults[0].message.as_str()),
        ("/year", "No rule figures for 2023; known years: 2025, 2024.")
    );
}

/// An identification number in a text that is neither sealed nor hidden: written in groups it must fit, without them it must be
/// somebody's here; payers' numbers and other digits are none.
#[test]
fn a_number_in_a_text_is_told() {
    let titled = |title: &str| {
        let mut family = Family::single("ON", "1980-01-01").paper("T5", "ada", json!({ "13": "100" }));
        family.0["papers"][0]["title"] = json!(title);
        family
    };
    let own = titled("x").0["people"][0]["id_number"].as_str().unwrap().replace(' ', "");
    let row = |what: &str| {
        let row = json!([{ "date": "2025-06-01", "what": what, "amount": "10" }]);
        single().shared("Instalments", &[("ada", "100")], json!({}), row)
    };
    let told = |family: &Family| {
        family.outcome().points.iter().filter(|point| point.id.starts_with("number-in-text")).count()
    };
    for (family, count) in [
        (titled("Bank of Ada"), 0),
        (titled("528 416 902"), 1),
        (titled("SIN 528-416-902 of the mother"), 1),
        (titled("528 416 903"), 0),
        (titled("528416902"), 0),
        (titled(&format!("Account {own}")), 1),
        (titled("12 3456789 RP 0001"), 0),
        (row("Paid for 528 416 902"), 1),
        (row("Paid on 2025-06-01"), 0),
    ] {
        assert_eq!(told(&family), count, "{:?}", family.0["papers"]);
    }
}
