//! Whole returns worked out independently from the law, every line: `tests/cases`.

use hembo_testing::us::{Family, line_of};
use serde_json::Value;
use std::{fs, path::Path};

#[test]
fn every_line_of_the_worked_returns() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/cases");
    let files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    assert!(files.len() >= 51);
    for file in files {
        let case: Value = serde_json::from_str(&fs::read_to_string(&file).unwrap()).unwrap();
        let outcome = Family(case["household"].clone()).outcome();
        let id = case["id"].as_str().unwrap();
        assert_eq!(outcome.covered, case["covered"] == true, "{id}: {:?}", outcome.points);
        if !outcome.covered {
            continue;
        }
        assert_eq!(outcome.total.cents(), case["net_tax"].as_i64().unwrap() * 100, "{id}");
        for (scope, lines) in case["lines"].as_object().unwrap() {
            for (line, amount) in lines.as_object().unwrap() {
                assert_eq!(line_of(&outcome, line, scope), amount.as_i64().unwrap(), "{id} {scope} {line}");
            }
        }
    }
}
