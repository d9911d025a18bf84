//! A broker's statement: one paper, read as its parts.

use hembo_core::{Outcome, outcome::LineInput};
use hembo_testing::us::{Family, has_point};
use serde_json::{Value, json};

/// Boxes with the prefix of a part.
fn part(prefix: &str, boxes: &Value) -> Value {
    boxes.as_object().unwrap().iter().map(|(id, value)| (format!("{prefix}.{id}"), value.clone())).collect()
}

fn together(parts: &[Value]) -> Value {
    parts.iter().flat_map(|part| part.as_object().unwrap().clone()).collect::<serde_json::Map<_, _>>().into()
}

/// Every line with whose it is and its amount.
fn lines(outcome: &Outcome) -> Vec<(String, String, String)> {
    outcome.lines.iter().map(|l| (l.id.clone(), l.scope.clone(), l.amount.to_string())).collect()
}

#[test]
fn a_statement_comes_to_what_its_parts_come_to() {
    let dividends = json!({ "1a": "4200", "1b": "3100", "2a": "650", "3": "120", "4": "90", "7": "41" });
    let interest = json!({ "1": "830.55", "3": "60", "4": "15" });
    let discount = json!({ "1": "77", "6": "12" });
    let sale = json!({ "what": "40 Quay", "acquired": "2021-02-01", "sold": "2025-06-01", "proceeds": "9000",
        "basis": "6100" });
    let couple = || Family::couple(2025).wages("ada", 90_000);
    let both = ["ada", "bo"];
    let apart = couple()
        .paper("1099-DIV", &both, dividends.clone(), Value::Null)
        .paper("1099-INT", &both, interest.clone(), Value::Null)
        .paper("1099-OID", &both, discount.clone(), Value::Null)
        .paper("1099-B", &both, json!({ "4": "5" }), json!([sale]))
        .outcome();
    let boxes = together(&[
        part("div", &dividends),
        part("int", &interest),
        part("oid", &discount),
        json!({ "b.4": "5" }),
    ]);
    let statement = couple().paper("Broker", &both, boxes, json!([sale])).outcome();
    assert_eq!(lines(&statement), lines(&apart));
    assert_eq!(statement.total, apart.total);
    assert!(statement.covered);

    // What it feeds stands at the paper that was keyed, and the trail leads to its boxes and lines.
    let paper = &statement.papers[1];
    assert_eq!((paper.paper.as_str(), statement.papers.len()), ("paper1", 2));
    assert_eq!(paper.amount.to_string(), "4200.00");
    let feeds: Vec<_> = paper.feeds.iter().map(|f| f.line.as_str()).collect();
    assert!(feeds.contains(&"us.3b") && feeds.contains(&"us.2b"), "{feeds:?}");
    let boxes: Vec<_> = statement
        .lines
        .iter()
        .flat_map(|line| &line.inputs)
        .filter_map(|input| match input {
            LineInput::Box { paper, field, row, .. } if paper == "paper1" => {
                Some((field.as_str(), row.as_deref()))
            }
            _ => None,
        })
        .collect();
    for expected in [("div.1a", None), ("int.3", None), ("oid.6", None), ("proceeds", Some("r1"))] {
        assert!(boxes.contains(&expected), "{expected:?} in {boxes:?}");
    }
}

#[test]
fn what_is_unsettled_in_a_part_stands_at_its_box() {
    // More qualified than ordinary dividends.
    let boxes = json!({ "div.1a": "100", "div.1b": "200" });
    let outcome =
        Family::single(2025).wages("ada", 50_000).paper("Broker", &["ada"], boxes, Value::Null).outcome();
    let point = outcome.points.iter().find(|p| p.id.starts_with("K-059")).unwrap();
    assert_eq!(
        (point.place.paper.as_deref(), point.place.field.as_deref()),
        (Some("paper1"), Some("div.1b"))
    );
    // Two statements with the same boxes are told once.
    let boxes = json!({ "div.1a": "100", "int.1": "20" });
    let twice = Family::single(2025)
        .paper("Broker", &["ada"], boxes.clone(), Value::Null)
        .paper("Broker", &["ada"], boxes, Value::Null)
        .outcome();
    assert!(has_point(&twice, "K-055"));
    assert_eq!(twice.points.iter().filter(|p| p.id.starts_with("K-055")).count(), 1);
}

#[test]
fn a_statement_is_divided_as_community_property_by_one_answer() {
    let of = |kind: &str, boxes: Value| {
        let family =
            Family::couple(2025).answer("state", json!("AZ")).answer("community_all_year", json!(true));
        family
            .wages("ada", 90_000)
            .paper(kind, &["ada"], boxes, Value::Null)
            .pin("us.status", "separate")
            .outcome()
    };
    for separate in [false, true] {
        let alone = of("1099-INT", json!({ "1": "2000", "separate": separate }));
        let part = of("Broker", json!({ "int.1": "2000", "separate": separate }));
        assert_eq!(lines(&part), lines(&alone), "{separate}");
    }
}
