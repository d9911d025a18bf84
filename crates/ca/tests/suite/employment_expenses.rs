//! Expenses of employment item by item: form T777.

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

fn employed(pay: &str) -> Family {
    Family::single("AB", "1980-01-01").paper("T4", "ada", json!({ "14": pay, "28.cpp": true, "28.ei": true }))
}

fn expense(kind: &str, amount: &str) -> Value {
    json!({ "what": "x", "kind": kind, "amount": amount })
}

fn signed(family: Family, boxes: Value, rows: Value) -> Family {
    let mut all = json!({ "t2200": true });
    all.as_object_mut().unwrap().extend(boxes.as_object().unwrap().clone());
    family.shared("T777", &[("ada", "100")], all, rows)
}

/// 8(1)(b), (f), (h) to (i), (q), (s), (t): in full, a half of meals, tools above 1,471 up to 1,000, relocation up to 4,000, an artist's
/// up to a fifth of that pay and 1,000.
#[test]
fn each_kind() {
    for (boxes, rows, deducted) in [
        (json!({}), json!([expense("supplies", "500"), expense("meals", "300")]), "650"),
        (json!({}), json!([expense("legal", "2000"), expense("car", "1500")]), "3500"),
        (json!({}), json!([expense("tools", "1471")]), "0"),
        (json!({}), json!([expense("tools", "2000")]), "529"),
        (json!({}), json!([expense("tools", "2471")]), "1000"),
        (json!({}), json!([expense("tools", "2472")]), "1000"),
        (json!({}), json!([expense("mobility", "4000")]), "4000"),
        (json!({}), json!([expense("mobility", "4001")]), "4000"),
        (json!({ "artist_income": "4000" }), json!([expense("artist", "900")]), "800"),
        (json!({ "artist_income": "6000" }), json!([expense("artist", "1200")]), "1000"),
    ] {
        let outcome = signed(employed("60000"), boxes, rows.clone()).outcome();
        assert_lines(&outcome, 0, &[("t777", deducted), ("22900", deducted)]);
    }
    // 1,433 in 2024.
    let of_2024 = signed(employed("60000").in_year(2024), json!({}), json!([expense("tools", "2000")]));
    assert_lines(&of_2024.outcome(), 0, &[("t777", "567")]);
}

#[test]
fn a_room_at_home_takes_its_part_and_no_more_than_the_pay_leaves() {
    let home = json!([expense("home", "12000"), expense("supplies", "1000")]);
    for (pay, boxes, of_home, kept) in [
        ("60000", json!({ "room": 20, "area": 100 }), "2400", "0"),
        ("60000", json!({ "room": 20, "area": 100, "hours": 40 }), "571.43", "0"),
        ("60000", json!({ "room": 20, "area": 100, "earlier": "300" }), "2700", "0"),
        ("3400", json!({ "room": 20, "area": 100 }), "2400", "0"),
        ("3399.99", json!({ "room": 20, "area": 100 }), "2399.99", "0.01"),
        ("900", json!({ "room": 20, "area": 100 }), "0", "2400"),
        // Of several employments its own pay.
        ("60000", json!({ "room": 20, "area": 100, "income": "2000" }), "1000", "1400"),
    ] {
        let outcome = signed(employed(pay), boxes.clone(), home.clone()).outcome();
        assert_eq!(line(&outcome, 0, "t777.home"), money(of_home), "{pay} {boxes}");
        assert_lines(&outcome, 0, &[("t777.others", "1000"), ("t777.home.carried", kept)]);
    }
}

/// On commission property tax and selling costs count as well, all of it up to the commissions; where the rules for everyone give more,
/// these.
#[test]
fn on_commission() {
    let rows = json!([
        expense("supplies", "2000"),
        expense("sales", "4000"),
        expense("home", "12000"),
        expense("home_sales", "3000"),
        expense("car", "700"),
    ]);
    for (commissions, deducted) in [
        // 2,000 and 2,400 of the home for everyone, with the car.
        ("4399", "5100"),
        ("4400", "5100"),
        ("4401", "5101"),
        ("6000", "6700"),
        // All of it: 6,000, a fifth of 15,000 and the car.
        ("9000", "9700"),
        ("9001", "9700"),
    ] {
        let boxes = json!({ "commissions": commissions, "room": 20, "area": 100 });
        let outcome = signed(employed("60000"), boxes, rows.clone()).outcome();
        assert_eq!(line(&outcome, 0, "t777"), money(deducted), "{commissions}");
    }
}

#[test]
fn what_must_be_answered() {
    let with = |boxes: Value, rows: Value| {
        employed("60000").shared("T777", &[("ada", "100")], boxes, rows).outcome()
    };
    let rows = || json!([expense("supplies", "500")]);
    assert!(has_point(&with(json!({}), rows()), "C-82-t777"));
    let unsigned = with(json!({ "t2200": false }), rows());
    assert!(!has_point(&unsigned, "C-82-t777"));
    assert_lines(&unsigned, 0, &[("t777", "0")]);
    // Legal costs, relocation and an artist's expenses need no form.
    let without = json!([
        expense("legal", "300"),
        expense("mobility", "200"),
        expense("tools", "9000"),
        expense("car", "50")
    ]);
    assert_lines(&with(json!({ "t2200": false, "earlier": "70" }), without), 0, &[("t777", "500")]);
    assert!(has_point(&with(json!({ "t2200": true }), json!([{ "what": "x", "amount": "5" }])), "t777-kind"));
    for (boxes, told) in [
        (json!({ "t2200": true }), true),
        (json!({ "t2200": true, "room": 20, "area": 19 }), true),
        (json!({ "t2200": true, "room": 20, "area": 20 }), false),
    ] {
        assert_eq!(has_point(&with(boxes, json!([expense("home", "5")])), "t777-areas"), told);
    }
    assert!(has_point(&with(json!({ "t2200": true }), json!([expense("sales", "5")])), "t777-commissions"));
}

/// 127.52(1)(e.1), (f): the minimum tax adds back a half of expenses, none of those of a seller on commission.
#[test]
fn the_minimum_tax_adds_back_a_half() {
    let adjusted = |boxes: Value, rows: Value| {
        let outcome = signed(employed("60000").interest("ada", "300000"), boxes, rows).outcome();
        line(&outcome, 0, "t691.adjusted") - line(&outcome, 0, "26000")
    };
    assert_eq!(adjusted(json!({}), json!([expense("supplies", "500")])), money("250"));
    let selling = json!([expense("supplies", "500"), expense("sales", "700")]);
    assert_eq!(adjusted(json!({ "commissions": "9000" }), selling), money("0"));
}
