//! Whole returns worked out independently from the law, every line: `tests/cases`.

use hembo_testing::{
    family::broken_trails,
    za::{Family, line, money},
};
use serde_json::Value;
use std::{fs, path::Path};

#[test]
fn every_line_of_the_worked_returns() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/cases");
    let files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    assert!(files.len() >= 28);
    let mut wrong = Vec::new();
    for file in files {
        let case: Value = serde_json::from_str(&fs::read_to_string(&file).unwrap()).unwrap();
        let outcome = Family(case["household"].clone()).outcome();
        let id = case["id"].as_str().unwrap();
        wrong.extend(broken_trails(&outcome).into_iter().map(|trail| format!("{id}: {trail}")));
        for of in &outcome.schedules {
            wrong.extend(of.again.apart.iter().map(|apart| format!("{id}: made again {apart:?}")));
        }
        for (place, expected) in case["expected"].as_array().unwrap().iter().enumerate() {
            for (of, amount) in expected["lines"].as_object().unwrap() {
                let (ours, theirs) = (line(&outcome, place, of), money(amount.as_str().unwrap()));
                if ours != theirs {
                    wrong.push(format!("{id} of {place} {of}: {ours}, not {theirs}"));
                }
            }
        }
        let total = money(case["total"].as_str().unwrap());
        if outcome.total != total {
            wrong.push(format!("{id}: {} together, not {total}", outcome.total));
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}
