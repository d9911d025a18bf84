//! Whole assessments worked out independently from the law, every line: `tests/cases`.

use hembo_testing::{
    de::{Family, line, money},
    family::broken_trails,
};
use serde_json::Value;
use std::{fs, path::Path};

#[test]
fn every_line_of_the_worked_assessments() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/cases");
    let mut files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.sort();
    assert!(files.len() >= 56, "{}", files.len());
    let mut wrong = Vec::new();
    for file in files {
        let case: Value = serde_json::from_str(&fs::read_to_string(&file).unwrap()).unwrap();
        let outcome = Family(case["household"].clone()).outcome();
        let id = case["id"].as_str().unwrap();
        wrong.extend(broken_trails(&outcome).into_iter().map(|trail| format!("{id}: {trail}")));
        let mut compare = |scope: &str, lines: &Value| {
            for (of, amount) in lines.as_object().unwrap() {
                let of = if scope.starts_with("person") && of == "sum_of_income" { "own_income" } else { of };
                let (ours, theirs) = (line(&outcome, scope, of), money(amount.as_str().unwrap()));
                if ours != theirs {
                    wrong.push(format!("{id} {scope} {of}: {ours}, not {theirs}"));
                }
            }
        };
        for (place, expected) in case["expected"].as_array().unwrap().iter().enumerate() {
            compare(&format!("return/{place}"), &expected["lines"]);
            for (person, lines) in expected["people"].as_object().unwrap() {
                compare(&format!("person/{person}"), lines);
            }
        }
        let balance = money(case["balance"].as_str().unwrap());
        if outcome.balance != balance {
            wrong.push(format!("{id}: {} together, not {balance}", outcome.balance));
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}
