//! Whole returns worked out independently from the law, every line: `tests/cases`.

use hembo_money::Money;
use hembo_testing::ca::{Family, line, money};
use serde_json::Value;
use std::{fs, path::Path};

/// Within so much lines that are rounded in another order may lie.
const WITHIN: i64 = 5;

fn apart(one: Money, other: Money) -> bool {
    (one - other).cents().abs() > WITHIN
}

#[test]
fn every_line_of_the_worked_returns() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/cases");
    let files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    assert!(files.len() >= 50);
    let mut wrong = Vec::new();
    for file in files {
        let case: Value = serde_json::from_str(&fs::read_to_string(&file).unwrap()).unwrap();
        let outcome = Family(case["household"].clone()).outcome();
        let id = case["id"].as_str().unwrap();
        // Made again from the lines of the forms alone, every result is the same.
        assert!(outcome.schedules.iter().all(|of| of.again.sums > 15 && of.again.apart.is_empty()), "{id}");
        let of_case = case["expected"].as_array().unwrap();
        for (place, expected) in of_case.iter().enumerate() {
            let who = expected["person"].as_str().unwrap();
            for (of, amount) in expected["lines"].as_object().unwrap() {
                let (ours, theirs) = (line(&outcome, place, of), money(amount.as_str().unwrap()));
                if apart(ours, theirs) {
                    wrong.push(format!("{id} {who} {of}: {ours}, not {theirs}"));
                }
            }
        }
        // The credits of form BC479 are not in the expected total.
        let Some(total) = case["total"].as_str().map(money) else { continue };
        if apart(outcome.total, total) {
            wrong.push(format!("{id}: {} together, not {total}", outcome.total));
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}
