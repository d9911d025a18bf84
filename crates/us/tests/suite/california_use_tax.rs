//! Use tax of California (R&TC 6201, 6452.1), and pay that its earned income credit counts by choice, worked by hand.

use hembo_testing::us::{Family, has_point, line_of};
use serde_json::{Value, json};

fn family() -> Family {
    let state = json!({ "15": "CA", "16": "80000", "17": "3000" });
    Family::single(2025).in_california().wages_with("ada", 80_000, state)
}

fn purchase(price: &str, more: Value) -> Value {
    let mut row = json!({ "what": "kiln", "price": price, "rate": "9.5" });
    for (key, value) in more.as_object().unwrap() {
        row[key] = value.clone();
    }
    row
}

fn bought(rows: Value, table: Option<&str>) -> Family {
    let boxes = table.map_or(json!({}), |table| json!({ "table": table }));
    family().paper("Use tax", &["ada"], boxes, rows)
}

fn use_tax(family: &Family) -> i64 {
    line_of(&family.outcome(), "us.ca.540.91", "return/0")
}

/// 9.5 % of 1,500 is 142.50; less 60 of another state 82.50; no item below nothing.
#[test]
fn by_the_worksheet() {
    let of = |rows: Value| use_tax(&bought(rows, None));
    assert_eq!(of(json!([purchase("1500", json!({}))])), 143);
    assert_eq!(of(json!([purchase("1500", json!({ "elsewhere": "60" }))])), 83);
    let paid = purchase("1500", json!({ "elsewhere": "150" }));
    assert_eq!(of(json!([paid, purchase("200", json!({ "rate": "7.25" }))])), 15, "14.50, and not 7");
}

/// The table settles what was bought for oneself below 1,000: 47.50 and 94.91 by item, or 22.
#[test]
fn by_the_table_where_that_is_less() {
    let rows = || json!([purchase("500", json!({})), purchase("999", json!({}))]);
    assert_eq!(use_tax(&bought(rows(), None)), 142, "142.41");
    for (table, expected) in [("22", 22), ("141", 141), ("142", 142), ("150", 142)] {
        assert_eq!(use_tax(&bought(rows(), Some(table))), expected, "{table}");
    }
    assert_eq!(use_tax(&bought(json!([]), Some("22"))), 22, "no purchase is listed");
    assert_eq!(use_tax(&bought(rows(), Some("0"))), 0);
    // At 1,000, and for a business, it does not: 95 and 47.50 beside it.
    let large = json!([purchase("1000", json!({})), purchase("999.99", json!({}))]);
    assert_eq!(use_tax(&bought(large, Some("22"))), 95 + 22);
    let of_business = json!([purchase("500", json!({ "use": "business" }))]);
    assert_eq!(use_tax(&bought(of_business, Some("22"))), 48 + 22);
}

/// Payments bear it first, and it is no part of the tax.
#[test]
fn it_is_due_beside_the_tax() {
    let (without, with) = (family().outcome(), bought(json!([purchase("1500", json!({}))]), None).outcome());
    let of = |id: &str| [&without, &with].map(|outcome| line_of(outcome, &format!("us.ca.{id}"), "return/0"));
    let [before, after] = of("balance");
    assert_eq!(after - before, 143);
    let [before, after] = of("net_tax");
    assert_eq!(before, after);
    assert_eq!(without.total, with.total);
}

/// The paper takes the place of the answer; what is missing is asked.
#[test]
fn what_is_asked_of_use_tax() {
    let points = |family: Family| {
        let outcome = family.outcome();
        let codes =
            ["ca-use-tax", "ca-use-tax-twice", "ca-use-tax-rate", "ca-use-tax-table", "ca-use-tax-row"];
        codes.into_iter().filter(|code| has_point(&outcome, code)).collect::<Vec<_>>()
    };
    let unsaid = |mut family: Family| {
        family.0["answers"].as_object_mut().unwrap().remove("ca_use_tax");
        family
    };
    assert_eq!(points(unsaid(family())), ["ca-use-tax"]);
    let one = || json!([purchase("500", json!({}))]);
    assert_eq!(points(unsaid(bought(one(), None))), ["ca-use-tax-table"]);
    assert_eq!(points(bought(one(), Some("22"))), ["ca-use-tax-row"]);
    assert_eq!(
        points(bought(one(), Some("22")).answer("ca_use_tax", json!("5"))),
        ["ca-use-tax-twice", "ca-use-tax-row"]
    );
    let rate = |rate: &str| points(bought(json!([purchase("500", json!({ "rate": rate }))]), Some("22")));
    assert_eq!(rate("7.25"), ["ca-use-tax-row"]);
    assert_eq!(rate("7.2499"), ["ca-use-tax-rate", "ca-use-tax-row"]);
    let of_child = family().child("kim", "2015-05-05").paper("Use tax", &["kim"], json!({}), one()).outcome();
    assert!(has_point(&of_child, "ca-use-tax-owner"));
    let moved = bought(one(), None).answer("ca_all_year", json!(false)).outcome();
    assert!(has_point(&moved, "ca-use-tax-540nr"));
}

/// A parent with a child of ten, wages of California, and pay in a code of box 12.
fn parent(wages: i64, code: &str, pay: i64) -> Family {
    let boxes = json!({
        "15": "CA", "16": wages.to_string(), "17": "0", "12a": code, "12a.amount": pay.to_string(),
    });
    let family = Family::single(2025).in_california().child("kim", "2015-05-05");
    family.wages_with("ada", wages, boxes)
}

/// One child in 2025, 28.9 %: 3,000 bring 28.9 % of 2,975.50, 860. With 5,000 of combat pay 8,000 stand past the top of 6,998: 28.9 % of
/// 13,996 − 7,975.50, 1,740. With 20,000 they are in the tail: 250 × (32,900 − 22,975.50) ÷ (32,900 − 13,130.95), 126; federally 23,000
/// bring the most.
#[test]
fn pay_counts_in_california_by_its_own_choice() {
    let of = |family: &Family| {
        let outcome = family.outcome();
        let taken = ["us.combat_pay.ada", "us.ca.combat_pay.ada"].map(|id| {
            let decision = outcome.decisions.iter().find(|d| d.id == id).unwrap();
            decision.options.iter().find(|o| o.chosen).unwrap().id.clone()
        });
        (
            taken.join(" "),
            line_of(&outcome, "us.ca.3514.19", "return/0"),
            line_of(&outcome, "us.ca.540.75", "return/0"),
        )
    };
    let few = parent(3_000, "Q", 5_000);
    assert_eq!(of(&few), ("in in".into(), 8_000, 1_740));
    assert_eq!(of(&few.pin("us.ca.combat_pay.ada", "out")), ("in out".into(), 3_000, 860));
    assert_eq!(of(&parent(3_000, "Q", 20_000)), ("in out".into(), 3_000, 860));
    let counted = parent(3_000, "Q", 20_000).pin("us.ca.combat_pay.ada", "in");
    assert_eq!(of(&counted), ("in in".into(), 23_000, 126));
}

/// Waiver payments beside wages in the same way; within wages they are told.
#[test]
fn waiver_payments_in_california() {
    let beside = parent(3_000, "II", 5_000).outcome();
    assert_eq!(line_of(&beside, "us.ca.540.75", "return/0"), 1_740);
    assert!(!has_point(&beside, "ca-3514-pay"));
    let out = parent(3_000, "II", 5_000).pin("us.ca.waiver_payments.ada", "out").outcome();
    assert_eq!(line_of(&out, "us.ca.540.75", "return/0"), 860);
    let boxes = json!({ "15": "CA", "16": "8000", "17": "0", "14.waiver": "5000" });
    let within =
        Family::single(2025).in_california().child("kim", "2015-05-05").wages_with("ada", 8_000, boxes);
    assert!(has_point(&within.outcome(), "ca-3514-pay"));
}
