//! A joint return in two: who and what goes where, by owner, by half, and what has to be decided.

use hembo_core::{
    Household, Registry, check,
    divide::{Divided, NotTwo, divide},
    file,
    household::Entry,
    outcome,
};
use hembo_us::UnitedStates;
use serde_json::{Value, json};
use std::sync::Arc;

fn registry() -> Registry {
    Registry::of([Arc::new(UnitedStates::COMMITTED)])
}

fn couple(papers: Value) -> Household {
    let owners = |of: &[(&str, &str)]| -> Value {
        of.iter().map(|(person, percent)| json!({ "person": person, "percent": percent })).collect()
    };
    let mut papers = papers;
    for paper in papers.as_array_mut().unwrap() {
        let of = match paper["owners"].as_str() {
            Some("both") => owners(&[("ada", "50"), ("ben", "50")]),
            Some("30/70") => owners(&[("ada", "30"), ("ben", "70")]),
            Some(one) => owners(&[(one, "100")]),
            None => continue,
        };
        paper["owners"] = of;
    }
    let household = json!({
        "hembo": 1, "country": "us", "year": 2025, "name": "Quill", "reference": "Q-7",
        "people": [
            { "id": "ada", "name": "Ada Quill", "role": "filer", "born": "1980-02-01" },
            { "id": "ben", "name": "Ben Quill", "role": "filer", "born": "1979-05-09", "id_number": "831-26-3358" },
            { "id": "cora", "name": "Cora Quill", "role": "dependent", "born": "2012-01-05", "lived_with": { "ada": 12, "ben": 4 } },
            { "id": "dov", "name": "Dov Quill", "role": "dependent", "born": "2014-01-05", "lived_with": { "ada": 12, "ben": 12 } }
        ],
        "answers": { "marital": "married", "state": "ME", "spouse_itemizes": false, "refund_account": "011000015 1234567" },
        "papers": papers,
        "pins": { "us.status": "joint" },
    });
    file::household(household, &registry()).unwrap()
}

fn divided(papers: Value) -> Divided {
    divide(&couple(papers), registry().pack("us").unwrap()).unwrap()
}

fn told(divided: &Divided, what: &str) -> (String, String, bool) {
    let went = divided.went.iter().find(|one| one.what == what).unwrap();
    (went.to.clone(), went.how.clone(), went.decide)
}

#[test]
fn each_goes_with_the_dependents_who_lived_there_longer() {
    let divided = divided(json!([]));
    let names = divided.halves.each_ref().map(|half| {
        (half.name.as_str(), half.people.iter().map(|person| person.id.as_str()).collect::<Vec<_>>())
    });
    assert_eq!(names, [("Quill (Ada)", vec!["ada", "cora", "dov"]), ("Quill (Ben)", vec!["ben"])]);
    assert_eq!(told(&divided, "Cora Quill"), ("Ada".into(), "lived there longer".into(), false));
    assert!(told(&divided, "Dov Quill").2, "the same months with both: somebody decides");
    let [ada, ben] = &divided.halves;
    assert_eq!(ada.person("cora").unwrap().lived_with.keys().collect::<Vec<_>>(), ["ada"]);
    assert!(ada.pins.is_empty() && ben.pins.is_empty() && ada.reference == "Q-7");
    // Whether the spouse itemizes is asked anew, whether they are married is not.
    assert_eq!(ben.answers.get("marital"), ada.answers.get("marital"));
    assert!(ada.answers.contains_key("marital") && !ada.answers.contains_key("spouse_itemizes"));
    let text =
        |half: &Household, asked: &str| half.answers.get(asked).and_then(Entry::text).map(str::to_owned);
    assert_eq!(text(ada, "spouse_name").as_deref(), Some("Ben Quill"));
    assert_eq!(text(ada, "spouse_number").as_deref(), Some("831-26-3358"));
    assert_eq!((text(ben, "spouse_name").as_deref(), text(ben, "spouse_number")), (Some("Ada Quill"), None));
}

#[test]
fn what_both_own_is_divided_to_the_cent_and_what_one_owns_goes_whole() {
    let divided = divided(json!([
        { "id": "pay", "kind": "W-2", "title": "Gasworks", "owners": "ben", "boxes": { "1": "50000.01" }, "checked": true },
        { "id": "bank", "kind": "1099-INT", "title": "Bank", "owners": "both", "boxes": { "1": "100.01", "4": "7" }, "checked": true },
        { "id": "fund", "kind": "1099-DIV", "title": "Fund", "owners": "30/70", "boxes": { "1a": "10.00" } },
        { "id": "gifts", "kind": "Gifts", "title": "Family", "owners": "both",
          "rows": [{ "id": "r1", "date": "2025-03-01", "what": "Shelter", "amount": "33.33" }] },
        { "id": "child", "kind": "1099-INT", "title": "Saver", "owners": "cora", "boxes": { "1": "12.00" } }
    ]));
    let [ada, ben] = &divided.halves;
    let amount =
        |half: &Household, id: &str, field: &str| half.paper(id).map(|p| p.amount(field).to_string());
    assert_eq!((amount(ada, "pay", "1"), amount(ben, "pay", "1")), (None, Some("50000.01".into())));
    assert!(ben.paper("pay").unwrap().checked, "what went whole is as checked as it was");
    assert_eq!(amount(ada, "bank", "1").as_deref(), Some("50.01"));
    assert_eq!(amount(ben, "bank", "1").as_deref(), Some("50.00"));
    assert_eq!(amount(ben, "bank", "4").as_deref(), Some("3.50"));
    assert!(!ada.paper("bank").unwrap().checked);
    assert_eq!(amount(ada, "fund", "1a").as_deref(), Some("3.00"));
    assert_eq!(amount(ben, "fund", "1a").as_deref(), Some("7.00"));
    let row = |half: &Household| half.paper("gifts").unwrap().rows[0].get("amount").unwrap().money().unwrap();
    assert_eq!((row(ada).to_string(), row(ben).to_string()), ("16.67".into(), "16.66".into()));
    assert!(ada.paper("child").is_some() && ben.paper("child").is_none());
    for half in &divided.halves {
        for paper in &half.papers {
            assert_eq!(paper.owners.iter().map(|o| o.percent.to_string()).collect::<Vec<_>>(), ["100"]);
        }
    }
    assert_eq!(told(&divided, "1099-INT Bank").1, "half each");
    assert_eq!(told(&divided, "1099-DIV Fund").1, "by their shares");
    assert_eq!(told(&divided, "W-2 Gasworks"), ("Ben".into(), "its owner".into(), false));
}

#[test]
fn what_has_a_rule_of_its_own_is_told_with_it_to_be_decided() {
    let divided = divided(json!([
        { "id": "es", "kind": "1040-ES", "title": "", "owners": "ada", "rows": [] },
        { "id": "loss", "kind": "Losses carried", "title": "", "owners": "ada", "boxes": {} }
    ]));
    let (_, how, decide) = told(&divided, "1040-ES");
    assert!(decide && how.contains("as the two agree") && how.contains("§1.6654-2(e)(5)"), "{how}");
    assert!(told(&divided, "Losses carried").1.contains("§1.1212-1(c)"));
}

/// Whoever is named and goes elsewhere is taken out and told: what is left has nobody in it who is not there.
#[test]
fn nobody_is_named_who_is_in_the_other_household() {
    let mut household = couple(json!([
        { "id": "care", "kind": "Medical", "title": "Family", "owners": "both",
          "rows": [{ "id": "r1", "date": "2025-03-01", "patient": "cora", "amount": "10.00" },
                   { "id": "r2", "date": "2025-03-01", "patient": "ben", "amount": "20.00" }] }
    ]));
    let cora = household.people.iter_mut().find(|person| person.id == "cora").unwrap();
    cora.answers.insert("supported_alone_by".into(), Entry::Text("ben".into()));
    assert_eq!(check::faults(&household, &registry()), vec![]);
    let divided = divide(&household, registry().pack("us").unwrap()).unwrap();
    let [ada, ben] = &divided.halves;
    let patients = |half: &Household| -> Vec<Option<String>> {
        let rows = &half.paper("care").unwrap().rows;
        rows.iter().map(|row| row.get("patient").and_then(Entry::text).map(str::to_owned)).collect()
    };
    assert_eq!(patients(ada), [Some("cora".to_owned()), None]);
    assert_eq!(patients(ben), [None, Some("ben".to_owned())]);
    assert!(!ada.person("cora").unwrap().answers.contains_key("supported_alone_by"));
    let told: Vec<&str> = divided
        .went
        .iter()
        .filter(|one| one.decide && one.how.contains("left empty here"))
        .map(|one| one.what.as_str())
        .collect();
    assert_eq!(told, ["Cora Quill", "Medical Family", "Medical Family"]);
    for half in &divided.halves {
        assert_eq!(check::faults(half, &registry()), vec![], "{}", half.name);
    }
}

/// Both halves can be worked with, each files separately, and together they hold what was there.
#[test]
fn the_halves_are_households_that_can_be_reckoned() {
    let registry = registry();
    let divided = divided(json!([
        { "id": "pay", "kind": "W-2", "title": "Gasworks", "owners": "ben",
          "boxes": { "b": "36-4410927", "1": "50000", "2": "5000", "3": "50000", "4": "3100", "5": "50000", "6": "725" } },
        { "id": "bank", "kind": "1099-INT", "title": "Bank", "owners": "both", "boxes": { "1": "100.01" } }
    ]));
    for half in divided.halves {
        let outcome = outcome::reckon(&half, &registry).unwrap();
        assert!(outcome.ways.iter().all(|way| !way.name.to_lowercase().contains("joint")), "{:?}", half.name);
        let asked = outcome.points.iter().any(|point| point.id.contains("K-106"));
        assert!(asked, "whether the spouse itemizes is asked: {}", half.name);
    }
}

#[test]
fn only_two_filers_are_divided() {
    let mut alone = couple(json!([]));
    alone.people.retain(|person| person.id != "ben");
    assert_eq!(divide(&alone, registry().pack("us").unwrap()), Err(NotTwo));
}
