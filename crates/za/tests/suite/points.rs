//! Open points: what is asked, what is told not to be covered, what is worth a look.

use hembo_testing::za::{Family, has_point};
use serde_json::{Value, json};

fn single() -> Family {
    Family::single(2026, "1985-06-01").pay("ada", &[("3601", "500000"), ("4102", "100272")])
}

#[test]
fn each_check_finds_its_fault_and_nothing_else() {
    let rows = |kind: &str, rows: Value| single().rows(kind, "ada", rows);
    let paper = |kind: &str, boxes: Value| single().paper(kind, "ada", boxes);
    let bare = || Family::single(2026, "1985-06-01");
    let logbook = |boxes: Value| bare().pay("ada", &[("3701", "90000")]).paper("Logbook", "ada", boxes);
    let again = |proceeds: &str, cost: &str| {
        let line = json!([{ "what": "Shares", "kind": "shares", "date": "2025-09-09", "proceeds": proceeds, "cost": cost, "bought_again": true }]);
        single().rows("Assets sold", "ada", line)
    };
    let cases = [
        (
            "C07",
            bare().pay("ada", &[("3601", "100"), ("3699", "102")]),
            bare().pay("ada", &[("3601", "100"), ("3699", "101")]),
        ),
        (
            "C08",
            bare().pay("ada", &[("3601", "100"), ("4102", "45.01")]),
            bare().pay("ada", &[("3601", "100"), ("4102", "45")]),
        ),
        (
            "C10",
            bare().pay("ada", &[("4005", "100")]),
            bare().pay("ada", &[("4005", "100")]).paper("Scheme", "ada", json!({ "all": 1 })),
        ),
        (
            "C09",
            bare().paper("IRP5", "ada", json!({ "gross": "95751" })),
            bare().paper("IRP5", "ada", json!({ "gross": "95750" })),
        ),
        (
            "C59",
            bare().shared(
                "IRP5",
                &[("ada", "100")],
                json!({ "gross": "600001" }),
                json!([{ "code": "3815", "amount": "9" }]),
            ),
            bare().shared(
                "IRP5",
                &[("ada", "100")],
                json!({ "gross": "600000" }),
                json!([{ "code": "3815", "amount": "9" }]),
            ),
        ),
        ("C40", again("9", "10"), again("10", "10")),
        (
            "C74",
            bare().shared(
                "IRP5",
                &[("ada", "100")],
                json!({ "gross": "100" }),
                json!([{ "code": "3606", "amount": "49" }]),
            ),
            bare().shared(
                "IRP5",
                &[("ada", "100")],
                json!({ "gross": "100" }),
                json!([{ "code": "3606", "amount": "50" }]),
            ),
        ),
        (
            "C11",
            bare().pay("ada", &[("3817", "100"), ("4001", "99")]),
            bare().pay("ada", &[("3817", "100"), ("4001", "100")]),
        ),
        (
            "C12",
            bare().pay("ada", &[("3810", "100"), ("4005", "99")]),
            bare().pay("ada", &[("3810", "100"), ("4005", "100")]),
        ),
        ("C13", bare().pay("ada", &[("4018", "1")]), bare().pay("ada", &[("4001", "1")])),
        (
            "C62",
            bare().pay("ada", &[("4001", "100"), ("4497", "99")]),
            bare().pay("ada", &[("4001", "100"), ("4497", "100")]),
        ),
        (
            "C42",
            bare().pay("ada", &[("3915", "100")]),
            bare().pay("ada", &[("3915", "100")]).paper(
                "Lump sum",
                "ada",
                json!({ "directive": "1", "kind": "retirement", "earlier": "0", "amount": "100" }),
            ),
        ),
        ("C44", bare().pay("ada", &[("3926", "1999")]), bare().pay("ada", &[("3926", "2000")])),
        ("C73", single().pay("ada", &[("3601", "9"), ("4102", "1")]), single()),
        (
            "C14",
            logbook(json!({ "total_km": 10, "business_km": 5 })),
            logbook(json!({ "total_km": 10, "business_km": 5, "logbook": true })),
        ),
        (
            "C15",
            logbook(json!({ "total_km": 10, "business_km": 11, "logbook": true })),
            logbook(json!({ "total_km": 10, "business_km": 10, "logbook": true })),
        ),
        (
            "C16",
            logbook(json!({ "total_km": 101, "opening": 100, "closing": 200, "logbook": true })),
            logbook(json!({ "total_km": 100, "opening": 100, "closing": 200, "logbook": true })),
        ),
        (
            "C24",
            rows("Foreign tax", json!([{ "kind": "interest", "amount": "9" }])),
            rows("Foreign tax", json!([{ "kind": "interest", "amount": "9" }])).paper(
                "IT3(b)",
                "ada",
                json!({ "interest_foreign": "90" }),
            ),
        ),
        (
            "C27",
            paper("Annuity", json!({ "paid": "137500.01" })),
            paper("Annuity", json!({ "paid": "137500" })),
        ),
        (
            "C34",
            rows("Donations", json!([{ "amount": "9" }])),
            rows("Donations", json!([{ "amount": "9", "receipt": "1" }])),
        ),
        (
            "C35",
            rows("Donations", json!([{ "amount": "50000.01", "receipt": "1" }])),
            rows("Donations", json!([{ "amount": "50000", "receipt": "1" }])),
        ),
        (
            "C36",
            rows("Assets sold", json!([{ "proceeds": "9" }])),
            rows("Assets sold", json!([{ "proceeds": "9", "cost": "0" }])),
        ),
        (
            "C46",
            paper("Work abroad", json!({ "amount": "9", "days": 200 })),
            paper("Work abroad", json!({ "amount": "9", "days": 200, "run": 90 })),
        ),
        (
            "C49",
            single().shared(
                "Home office",
                &[("ada", "100")],
                json!({ "area": 1, "total_area": 9 }),
                json!([{ "amount": "9" }]),
            ),
            single().shared(
                "Home office",
                &[("ada", "100")],
                json!({ "area": 1, "total_area": 9, "qualifies": true }),
                json!([{ "amount": "9" }]),
            ),
        ),
        ("C64", paper("Scheme", json!({ "paid": "9" })), paper("Scheme", json!({ "paid": "9", "m3": 1 }))),
        ("C69", paper("IT3(s)", json!({ "paid": "36001" })), paper("IT3(s)", json!({ "paid": "36000" }))),
        (
            "C70",
            paper("Lump sum", json!({ "directive": "1", "kind": "retirement", "amount": "9" })),
            paper(
                "Lump sum",
                json!({ "directive": "1", "kind": "retirement", "amount": "9", "earlier": "0" }),
            ),
        ),
        (
            "C50",
            bare()
                .paper("IT3(b)", "ada", json!({ "interest": "153800.01" }))
                .pay("ada", &[("3601", "200000")]),
            bare().paper("IT3(b)", "ada", json!({ "interest": "53800" })).pay("ada", &[("3601", "200000")]),
        ),
        (
            "no-paper",
            single().answer("gifts", json!(true)),
            rows("Donations", json!([{ "amount": "9", "receipt": "1" }])).answer("gifts", json!(true)),
        ),
    ];
    for (code, found, without) in cases {
        assert!(has_point(&found.outcome(), code), "{code} is not found");
        assert!(!has_point(&without.outcome(), code), "{code} is found without need");
    }
}

#[test]
fn what_decides_is_asked_and_what_is_not_computed_is_told() {
    let open = |family: Family, code: &str| {
        let outcome = family.outcome();
        assert!(has_point(&outcome, code), "{code}");
        assert!(!outcome.covered, "{code}");
    };
    let without = |question: &str| {
        let mut family = single();
        family.0["answers"].as_object_mut().unwrap().remove(question);
        family
    };
    assert!(single().outcome().covered);
    open(without("residence"), "residence");
    open(without("marriage"), "C04");
    open(without("other_pay"), "asks");
    open(single().answer("other_gains", json!(true)), "not-computed");
    open(single().answer("residence", json!("part")), "residence-part");
    open(single().answer("marriage", json!("community")), "spouse-missing");
    let lump = |kind: &str| json!({ "directive": "1", "kind": kind, "amount": "9", "earlier": "0" });
    let both =
        single().paper("Lump sum", "ada", lump("retirement")).paper("Lump sum", "ada", lump("withdrawal"));
    open(both, "lump-both");
    let rich = Family::single(2026, "1985-06-01").pay("ada", &[("3601", "2000000")]);
    let lossy = rich.shared("Letting", &[("ada", "100")], json!({ "rent": "1" }), json!([{ "amount": "9" }]));
    open(lossy, "C48");
    let by_turnover = |boxes: Value| single().paper("Trade", "ada", boxes);
    open(by_turnover(json!({ "turnover": "1000001", "turnover_tax": true })), "C60-large");
    open(by_turnover(json!({ "turnover": "9", "share": "50", "turnover_tax": true })), "C60-partner");
    let closed = by_turnover(json!({ "turnover": "1000000", "turnover_tax": true })).outcome();
    assert!(closed.covered && has_point(&closed, "C60"));
    open(
        single().rows("Foreign tax", "ada", json!([{ "kind": "services", "amount": "9" }])),
        "foreign-tax-services",
    );
}

/// A date of birth that the number does not begin with, and numbers that cannot be.
#[test]
fn numbers_and_births_agree() {
    let family = single();
    assert!(!has_point(&family.outcome(), "C03"));
    assert!(has_point(&family.clone().set("ada", "/born", json!("1985-06-02")).outcome(), "C03"));
    let reference = |number: &str| {
        has_point(&family.clone().answer_for("ada", "tax_reference", json!(number)).outcome(), "C02")
    };
    assert!(!reference("0001339050") && reference("0001339051"));
}
