//! Open points: what is asked, what is told not to be covered, what is worth a look.

use hembo_testing::nz::{Family, has_point};
use serde_json::{Value, json};

fn single() -> Family {
    Family::single(2026).pay("ada", "50000", "8500")
}

#[test]
fn each_check_finds_its_fault_and_nothing_else() {
    let rows = |kind: &str, rows: Value| single().rows(kind, "ada", rows);
    let paper = |kind: &str, boxes: Value| single().paper(kind, "ada", boxes);
    let holding = |cost: &str| {
        paper("Foreign fund", json!({ "country": "US", "cost": cost, "opening": "1", "closing": "2" }))
    };
    let titled = |fund: &str, payer: &str| {
        let mut family = paper("Interest", json!({ "gross": "9" })).paper(
            "PIE",
            "ada",
            json!({ "income": "9", "rate": "17.5" }),
        );
        let papers = family.0["papers"].as_array_mut().unwrap();
        let last = papers.len() - 1;
        papers[last]["title"] = json!(fund);
        papers[last - 1]["title"] = json!(payer);
        family
    };
    let spent = |what: &str| {
        let owners = [("ada", "100")];
        single().shared(
            "Residential property",
            &owners,
            json!({ "rent": "90" }),
            json!([{ "what": what, "amount": "9" }]),
        )
    };
    // 1.17 a kilometre are more than costs of 10.
    let vehicle = |before: &str| {
        let boxes = json!({
            "turnover": "50000", "total_km": 1000, "business_km": 1000, "fuel": "petrol", "vehicle_costs": "10",
            "vehicle_before": before,
        });
        paper("Own trade", boxes)
    };
    let cases = [
        // 10.5 % of 15,600, 17.5 % of the rest of 50,000 and the levy are 8,493: 8 % of it are 679.
        (
            "C10",
            Family::single(2026).paper(
                "Pay",
                "ada",
                json!({ "gross": "50000", "paye": "9173", "code": "M" }),
            ),
            Family::single(2026).paper(
                "Pay",
                "ada",
                json!({ "gross": "50000", "paye": "9172", "code": "M" }),
            ),
        ),
        ("C27", titled("Tern fund", "Tern fund"), titled("Tern fund", "Tern bank")),
        (
            "C04",
            single().answer_for("ada", "transitional", json!("2025-01-01")).answer_for(
                "ada",
                "resident_before",
                json!(true),
            ),
            single().answer_for("ada", "transitional", json!("2025-01-01")).answer_for(
                "ada",
                "resident_before",
                json!(false),
            ),
        ),
        ("C72", vehicle("vehicle_costs"), vehicle("business_km")),
        ("C31", spent("Depreciation of the house"), spent("Depreciation of the curtains")),
        (
            "C08",
            paper("Pay", json!({ "gross": "1000", "paye": "420" })),
            paper("Pay", json!({ "gross": "1000", "paye": "400" })),
        ),
        ("C09", paper("Pay", json!({ "gross": "2001" })), paper("Pay", json!({ "gross": "2000" }))),
        (
            "C13",
            paper("Interest", json!({ "gross": "100", "rwt": "46.01" })),
            paper("Interest", json!({ "gross": "100", "rwt": "46" })),
        ),
        (
            "C14",
            paper("Interest", json!({ "gross": "100", "rwt": "45" })),
            paper("Interest", json!({ "gross": "100", "rwt": "39" })),
        ),
        (
            "C15",
            paper("Dividend", json!({ "gross": "100", "imputation": "28.02" })),
            paper("Dividend", json!({ "gross": "100", "imputation": "28" })),
        ),
        (
            "C16",
            paper("Dividend", json!({ "gross": "100", "imputation": "28", "rwt": "3.99" })),
            paper("Dividend", json!({ "gross": "100", "imputation": "28", "rwt": "4" })),
        ),
        (
            "C18",
            rows("Overseas income", json!([{ "kind": "rent", "gross": "9" }])),
            rows("Overseas income", json!([{ "country": "AU", "kind": "rent", "gross": "9" }])),
        ),
        (
            "C19",
            rows(
                "Overseas income",
                json!([{ "country": "AU", "kind": "rent", "gross": "100", "tax": "30.01" }]),
            ),
            rows(
                "Overseas income",
                json!([{ "country": "AU", "kind": "rent", "gross": "100", "tax": "30" }]),
            ),
        ),
        (
            "overseas-loss",
            rows(
                "Overseas income",
                json!([{ "country": "AU", "kind": "rent", "gross": "9", "deductions": "10" }]),
            ),
            rows(
                "Overseas income",
                json!([{ "country": "AU", "kind": "rent", "gross": "9", "deductions": "9" }]),
            ),
        ),
        ("C24", holding("55000"), holding("55000.01")),
        ("C24", holding("45000"), holding("44999.99")),
        (
            "C36",
            paper(
                "Own trade",
                json!({ "turnover": "1", "fuel": "petrol", "total_km": 1000, "business_km": 251, "logbook": false }),
            ),
            paper(
                "Own trade",
                json!({ "turnover": "1", "fuel": "petrol", "total_km": 1000, "business_km": 250, "logbook": false }),
            ),
        ),
        (
            "C71",
            paper("Own trade", json!({ "turnover": "1", "area": 11, "total_area": 10 })),
            paper("Own trade", json!({ "turnover": "1", "area": 10, "total_area": 10 })),
        ),
        (
            "C34",
            paper("Own trade", json!({ "turnover": "100" })).paper("IR10", "ada", json!({ "profit": "99" })),
            paper("Own trade", json!({ "turnover": "100" })).paper("IR10", "ada", json!({ "profit": "100" })),
        ),
        (
            "C38",
            rows("Other expenses", json!([{ "sort": "work", "amount": "9" }])),
            rows("Other expenses", json!([{ "sort": "return", "amount": "9" }])),
        ),
        (
            "C43",
            rows("Donations", json!([{ "amount": "4.99" }])),
            rows("Donations", json!([{ "amount": "5" }])),
        ),
        (
            "C45",
            rows("Donations", json!([{ "amount": "50000.01" }])),
            rows("Donations", json!([{ "amount": "50000" }])),
        ),
        (
            "C73",
            rows("Land sold", json!([{ "price": "9" }])),
            rows("Land sold", json!([{ "acquired": "2025-01-01", "sold": "2025-06-01", "price": "9" }])),
        ),
        (
            "pay-months",
            single().shared(
                "Pay",
                &[("ada", "100")],
                json!({ "gross": "100" }),
                json!([{ "month": "4", "month.gross": "99" }]),
            ),
            single().shared(
                "Pay",
                &[("ada", "100")],
                json!({}),
                json!([{ "month": "4", "month.gross": "99" }]),
            ),
        ),
        (
            "provisional-no-estimate",
            single().paper("Own trade", "ada", json!({ "turnover": "90000" })).paper(
                "Provisional tax",
                "ada",
                json!({ "method": "estimate" }),
            ),
            single().paper("Own trade", "ada", json!({ "turnover": "90000" })).paper(
                "Provisional tax",
                "ada",
                json!({ "method": "estimate", "estimate": "9" }),
            ),
        ),
        (
            "C55",
            single().answer("account", json!("12-3456-789")),
            single().answer("account", json!("12-3456-7890123-00")),
        ),
    ];
    for (code, found, without) in cases {
        assert!(has_point(&found.outcome(), code), "{code} is not found");
        assert!(!has_point(&without.outcome(), code), "{code} is found without need");
    }
}

#[test]
fn what_decides_is_asked_and_what_is_not_computed_is_told() {
    let asked = |family: Family, code: &str| {
        let outcome = family.outcome();
        assert!(has_point(&outcome, code), "{code}");
        assert!(!outcome.covered, "{code}");
    };
    let none = |question: &str| {
        let mut family = single();
        family.0["answers"].as_object_mut().unwrap().remove(question);
        family
    };
    asked(none("residence"), "C03");
    asked(none("other_property"), "asks");
    asked(single().answer("other_credits", json!(true)), "not-computed");
    asked(single().answer("residence", json!("none")), "non-resident");
    asked(single().answer("partner", json!(true)), "partner-elsewhere");
    asked(Family::couple(2026).answer("partner", json!(false)), "two-households");
    let parents = Family::couple(2026).pay("ada", "50000", "8500").child("cy", "2018-01-01");
    asked(parents.answer("partner_all_year", json!(false)), "partner-part");
    let mut months = single();
    months.0["people"][0]["answers"] = json!({});
    asked(months, "C41");
    let ends = single().answer_for("ada", "transitional", json!("2021-10-05"));
    asked(ends, "transitional-ends");
    assert!(single().outcome().covered);
    // Net income without the credit asks nothing about months.
    let mut low = Family::single(2026).pay("ada", "20000", "2500");
    low.0["people"][0]["answers"] = json!({});
    assert!(low.outcome().covered);
}

#[test]
fn options_that_are_not_weighed_are_told() {
    let family = Family::single(2026).pay("ada", "40000", "6500").child("cy", "2018-01-01");
    let outcome = family.outcome();
    assert!(has_point(&outcome, "families-floor") && has_point(&outcome, "families-weeks"));
    let boxes = json!({ "rent": "20000", "reason": "new_build" });
    let family =
        single().shared("Residential property", &[("ada", "100")], boxes, json!([{ "amount": "90000" }]));
    let sold =
        json!([{ "acquired": "2025-01-01", "sold": "2025-12-01", "price": "15", "cost": "5", "let": true }]);
    assert!(has_point(&family.rows("Land sold", "ada", sold).outcome(), "ring-release"));
}

/// What nobody else tells of is asked, until each question is answered or its paper is there.
#[test]
fn what_is_never_held_is_asked() {
    let questions = [
        "overseas",
        "shares_abroad",
        "lets",
        "land_sold",
        "own_work",
        "shares_of_others",
        "untaxed",
        "given",
    ];
    let (last, others) = questions.split_last().unwrap();
    let family = others.iter().fold(single(), |family, question| family.answer(question, json!(false)));
    assert!(has_point(&family.outcome(), "never-held"));
    assert!(!has_point(&family.clone().answer(last, json!(false)).outcome(), "never-held"));
    assert!(!has_point(&family.gifts("ada", &["50"]).outcome(), "never-held"));
}
