//! The return of California on top of the federal one: whole returns worked out independently from the law (`tests/california`).

use hembo_testing::us::{Family, line_of};
use serde_json::Value;
use std::{fs, path::Path};

#[test]
fn every_line_of_the_worked_returns() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/california");
    let mut files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.sort();
    assert!(files.len() >= 22);
    let mut wrong = Vec::new();
    for file in files {
        let case: Value = serde_json::from_str(&fs::read_to_string(&file).unwrap()).unwrap();
        let id = case["id"].as_str().unwrap();
        let outcome = Family(case["household"].clone()).outcome();
        if !outcome.covered {
            wrong.push(format!("{id}: not covered: {:?}", outcome.points));
        }
        if outcome.total.cents() != case["total"].as_i64().unwrap() * 100 {
            wrong.push(format!("{id}: {} together, not {}", outcome.total, case["total"]));
        }
        for (place, lines) in case["lines"].as_array().unwrap().iter().enumerate() {
            for (line, amount) in lines.as_object().unwrap() {
                let ours = line_of(&outcome, &format!("us.ca.{line}"), &format!("return/{place}"));
                if Some(ours) != amount.as_i64() {
                    wrong.push(format!("{id} {place} {line}: {ours}, not {amount}"));
                }
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}
