//! Open points: what is asked, what is told not to be covered, what is worth a look.

use hembo_testing::de::{Family, has_point};
use serde_json::{Value, json};

fn wages(boxes: Value) -> Family {
    let mut all = json!({ "3": "40000", "25": "3000", "22": "3720", "23": "3720" });
    all.as_object_mut().unwrap().extend(boxes.as_object().unwrap().clone());
    Family::single(2025).paper("LStB", "ada", all)
}

fn couple() -> Family {
    Family::couple(2025).paper("LStB", "ada", json!({ "3": "40000", "25": "3000" }))
}

fn child(born: &str) -> Family {
    Family::single(2025).person("cy", "dependent", born)
}

#[test]
fn each_check_finds_its_fault_and_nothing_else() {
    let rows = |kind: &str, rows: Value| Family::single(2025).rows(kind, "ada", rows);
    let paper = |kind: &str, boxes: Value| Family::single(2025).paper(kind, "ada", boxes);
    let from_to = |from: &str, to: &str, class: i64, tax: &str| {
        wages(json!({ "from": from, "to": to, "class": class, "4": tax }))
    };
    let second = |from: &str, class: i64| {
        from_to("2025-01-01", "2025-06-30", 1, "0").paper(
            "LStB",
            "ada",
            json!({ "from": from, "to": "2025-12-31", "class": class, "3": "900", "25": "60" }),
        )
    };
    let supported = |who: &str| {
        let boxes = json!({ "paid": "9", "transferred": true, "net_income": "30000" });
        let mut family = child("2018-01-01").paper("Support", "ada", boxes);
        family.0["papers"][0]["title"] = json!(who);
        family
    };
    let moved_land =
        || wages(json!({})).answer_for("ada", "church", json!(true)).answer("land_before", json!("BY"));
    let gone = |day: &str| wages(json!({})).answer_for("ada", "left", json!(day));
    let cases = [
        (
            "DE-C03",
            couple().answer("separated_on", json!("2024-12-31")),
            couple().answer("separated_on", json!("2025-01-01")),
        ),
        (
            "DE-C05",
            couple().answer("married_on", json!("2026-01-01")),
            couple().answer("married_on", json!("2025-12-31")),
        ),
        (
            "DE-C06",
            paper("KAP", json!({})).answer("tax_number", json!("181/815/0815")),
            paper("KAP", json!({})).answer("tax_number", json!("5133081508159")),
        ),
        (
            "DE-C07",
            paper("KAP", json!({})).answer("account", json!("DE89 3704 0044 0532 0130 01")),
            paper("KAP", json!({})).answer("account", json!("DE89 3704 0044 0532 0130 00")),
        ),
        ("DE-C08", wages(json!({ "4": "18000.01" })), wages(json!({ "4": "18000" }))),
        ("DE-C09", from_to("2025-01-01", "2025-12-31", 1, "0"), from_to("2025-01-01", "2025-12-31", 3, "0")),
        (
            "DE-C10",
            from_to("2025-01-01", "2025-12-31", 1, "5800"),
            from_to("2025-01-01", "2025-12-31", 1, "4500"),
        ),
        (
            "DE-C11",
            wages(json!({ "4": "4000", "6": "1" })),
            wages(json!({ "4": "4000", "6": "360" })).answer_for("ada", "church", json!(true)),
        ),
        ("DE-C12", wages(json!({ "4": "1000", "5": "56.01" })), wages(json!({ "4": "1000", "5": "56" }))),
        ("DE-C13", wages(json!({ "23": "3907" })), wages(json!({ "23": "3906" }))),
        ("DE-C14", wages(json!({ "22": "0" })), wages(json!({}))),
        ("DE-C15", wages(json!({ "25": "0" })), wages(json!({ "25": "1" }))),
        (
            "DE-C16",
            wages(json!({})).rows("Way to work", "ada", json!([{ "days": 281, "km": "3", "by": "car" }])),
            wages(json!({})).rows("Way to work", "ada", json!([{ "days": 280, "km": "3", "by": "car" }])),
        ),
        (
            "DE-C16-year",
            wages(json!({}))
                .rows("Way to work", "ada", json!([{ "days": 366, "km": "3", "by": "car" }]))
                .paper("Work at home", "ada", json!({ "days": 1 })),
            wages(json!({})).rows("Way to work", "ada", json!([{ "days": 366, "km": "3", "by": "car" }])),
        ),
        (
            "DE-C17",
            paper("Work at home", json!({ "days": 211 })),
            paper("Work at home", json!({ "days": 210 })),
        ),
        (
            "DE-C19",
            rows("Way to work", json!([{ "days": 331, "km": "40", "by": "transit" }])),
            rows("Way to work", json!([{ "days": 330, "km": "40", "by": "transit" }])),
        ),
        (
            "DE-C20",
            wages(json!({ "letters": "F" })).rows(
                "Way to work",
                "ada",
                json!([{ "days": 9, "km": "3", "by": "car" }]),
            ),
            wages(json!({ "letters": "FR" })).rows(
                "Way to work",
                "ada",
                json!([{ "days": 9, "km": "3", "by": "car" }]),
            ),
        ),
        (
            "DE-C21",
            rows("Travel", json!([{ "full_days": 91 }])),
            rows("Travel", json!([{ "full_days": 90 }])),
        ),
        (
            "DE-C22",
            paper("Second household", json!({ "months": 1, "lodging": "1001" })),
            paper("Second household", json!({ "months": 1, "lodging": "1000" })),
        ),
        (
            "DE-C23",
            wages(json!({ "letters": "M" })).rows("Travel", "ada", json!([{ "part_days": 1, "costs": "1" }])),
            wages(json!({})).rows("Travel", "ada", json!([{ "part_days": 1, "costs": "1" }])),
        ),
        ("DE-C24", child("2018-01-01"), child("2018-01-01").set("cy", "/id_number", json!("65929970489"))),
        ("DE-C25", child("2000-01-01"), child("2000-01-02")),
        ("DE-C26", child("2008-01-01"), child("2008-01-02")),
        (
            "DE-C27",
            child("2018-01-01").answer_for("cy", "months", json!(5)).answer_for(
                "cy",
                "benefit_months",
                json!(6),
            ),
            child("2018-01-01").answer_for("cy", "months", json!(6)).answer_for(
                "cy",
                "benefit_months",
                json!(6),
            ),
        ),
        (
            "DE-C28",
            child("2010-12-31").paper("Care and school", "ada", json!({ "child": "cy", "care": "5" })),
            child("2011-01-02").paper("Care and school", "ada", json!({ "child": "cy", "care": "5" })),
        ),
        (
            "DE-C29",
            child("2018-01-01").paper(
                "Care and school",
                "ada",
                json!({ "child": "cy", "care": "5", "transferred": false }),
            ),
            child("2018-01-01").paper(
                "Care and school",
                "ada",
                json!({ "child": "cy", "care": "5", "transferred": true }),
            ),
        ),
        (
            "child-paper",
            child("2018-01-01").paper("Care and school", "ada", json!({ "care": "5" })),
            child("2018-01-01").paper("Care and school", "ada", json!({ "child": "cy", "care": "5" })),
        ),
        (
            "DE-C31",
            rows("Household", json!([{ "kind": "crafts", "amount": "5" }])),
            rows("Household", json!([{ "kind": "crafts", "amount": "5", "date": "2025-03-03" }])),
        ),
        (
            "DE-C32",
            child("2009-01-01").answer_for("cy", "away_months", json!(1)),
            child("2007-01-01").answer_for("cy", "away_months", json!(1)),
        ),
        (
            "DE-C33",
            child("2018-01-01")
                .answer_for("cy", "household_months", json!(1))
                .answer("with_adult", json!(true)),
            child("2018-01-01").answer_for("cy", "household_months", json!(1)),
        ),
        (
            "DE-C34",
            rows("Progression", json!([{ "kind": "benefit", "amount": "411" }])),
            rows("Progression", json!([{ "kind": "benefit", "amount": "410" }])),
        ),
        (
            "DE-C36",
            rows("Progression", json!([{ "kind": "benefit" }])),
            rows("Progression", json!([{ "kind": "benefit", "amount": "1" }])),
        ),
        (
            "DE-C40",
            paper("Result", json!({ "kind": "sales", "result": "900" })),
            paper("Result", json!({ "kind": "sales", "result": "1000" })),
        ),
        (
            "DE-C41",
            wages(json!({})).rows("Special expenses", "ada", json!([{ "kind": "gift", "amount": "7755" }])),
            wages(json!({})).rows("Special expenses", "ada", json!([{ "kind": "gift", "amount": "7754" }])),
        ),
        (
            "DE-C42",
            rows("Special expenses", json!([{ "kind": "party", "amount": "1" }])),
            rows("Special expenses", json!([{ "kind": "gift", "amount": "1" }])),
        ),
        (
            "DE-C43",
            child("2018-01-01").paper("Care and school", "ada", json!({ "child": "cy", "school": "16667" })),
            child("2018-01-01").paper("Care and school", "ada", json!({ "child": "cy", "school": "16666" })),
        ),
        (
            "DE-C45",
            paper("Support", json!({ "paid": "9" })),
            paper("Support", json!({ "paid": "9", "transferred": true })),
        ),
        (
            "DE-C46",
            rows("Burdens", json!([{ "kind": "typical", "amount": "9" }])).answer_for(
                "ada",
                "degree",
                json!(20),
            ),
            rows("Burdens", json!([{ "kind": "typical", "amount": "9" }])).answer_for(
                "ada",
                "degree",
                json!(19),
            ),
        ),
        (
            "DE-C47",
            from_to("2025-01-01", "2025-12-31", 5, "8000"),
            from_to("2025-01-01", "2025-12-31", 4, "8000"),
        ),
        ("DE-C49", wages(json!({ "19": "1" })), wages(json!({}))),
        (
            "DE-C50",
            couple().answer_for("ada", "church", json!(true)),
            couple().answer_for("ada", "church", json!(true)).answer("special_fee", json!(false)),
        ),
        (
            "DE-C53",
            paper("Result", json!({ "kind": "rental", "result": "5", "rent_level": 65 })),
            paper("Result", json!({ "kind": "rental", "result": "5", "rent_level": 66 })),
        ),
        ("DE-C55", second("2025-06-30", 1), second("2025-06-30", 6)),
        (
            "DE-C56",
            couple().answer_for("bo", "arrived", json!("2026-01-01")),
            couple().answer_for("bo", "arrived", json!("2025-12-31")),
        ),
        (
            "DE-C57",
            couple().answer_for("bo", "arrived", json!("2025-05-01")),
            couple().answer_for("bo", "arrived", json!("2025-05-01")).answer_for(
                "bo",
                "income_before",
                json!(false),
            ),
        ),
        (
            "DE-C58",
            Family::couple(2025).answer("married_on", json!("2025-05-03")).paper(
                "LStB",
                "ada",
                json!({ "class": 3, "from": "2025-05-02", "to": "2025-12-31", "3": "900" }),
            ),
            Family::couple(2025).answer("married_on", json!("2025-05-03")).paper(
                "LStB",
                "ada",
                json!({ "class": 3, "from": "2025-05-03", "to": "2025-12-31", "3": "900" }),
            ),
        ),
        ("DE-C59", second("2025-07-02", 1), second("2025-07-01", 1)),
        (
            "DE-C60",
            wages(json!({})).paper("Insurance", "ada", json!({ "health": "1" })),
            wages(json!({})).paper("Insurance", "ada", json!({ "other": "1" })),
        ),
        (
            "DE-C61",
            wages(json!({})).answer_for("ada", "health_alone", json!(true)),
            wages(json!({ "22": "0" })).answer_for("ada", "health_alone", json!(true)),
        ),
        (
            "DE-C62",
            rows("Work costs", json!([{ "kind": "training", "what": "German course", "amount": "5" }])),
            rows("Work costs", json!([{ "kind": "training", "what": "Course in Welsh", "amount": "5" }])),
        ),
        (
            "DE-C63",
            paper("Move", json!({ "costs": "1" })),
            paper("Move", json!({ "costs": "1", "loaded": "2025-03-03" })),
        ),
        (
            "DE-C64",
            rows("Equipment", json!([{ "price": "952.01", "bought": "2025-02-02" }])),
            rows("Equipment", json!([{ "price": "952", "bought": "2025-02-02" }])),
        ),
        (
            "DE-C65",
            rows("Equipment", json!([{ "price": "990", "years": 3, "bought": "2022-01-02" }])),
            rows("Equipment", json!([{ "price": "990", "years": 3, "bought": "2022-02-02" }])),
        ),
        (
            "DE-C68",
            rows("Way to work", json!([{ "days": 100, "km": "10", "by": "transit", "ticket": "299" }])),
            rows("Way to work", json!([{ "days": 100, "km": "10", "by": "transit", "ticket": "300" }])),
        ),
        (
            "DE-C69",
            from_to("2024-12-31", "2025-12-31", 1, "4500"),
            from_to("2025-01-01", "2025-12-31", 1, "4500"),
        ),
        (
            "DE-C71",
            paper("Rente", json!({ "gross": "9" })),
            paper("Rente", json!({ "gross": "9", "start": 2025 })),
        ),
        ("DE-C71-base", wages(json!({ "8": "9" })), wages(json!({ "8": "9", "29": "9", "30": 2020 }))),
        (
            "pension-free",
            paper("Rente", json!({ "gross": "9", "start": 2023 })),
            paper("Rente", json!({ "gross": "9", "start": 2024 })),
        ),
        (
            "DE-C72",
            rows("Household", json!([{ "kind": "crafts", "amount": "5" }])),
            rows("Special expenses", json!([{ "kind": "gift", "amount": "5" }])),
        ),
        ("DE-C74", wages(json!({ "4": "1" })), wages(json!({ "4": "1", "class": 3 }))),
        (
            "DE-C75",
            wages(json!({})).answer_for("ada", "church", json!(true)).answer_for(
                "ada",
                "church_months",
                json!(11),
            ),
            wages(json!({})).answer_for("ada", "church", json!(true)),
        ),
        (
            "DE-C30",
            rows(
                "Household",
                json!([{ "kind": "services", "what": "Carer", "amount": "80", "date": "2025-03-03" }]),
            )
            .rows(
                "Burdens",
                "ada",
                json!([{ "kind": "illness", "what": "carer", "amount": "80" }]),
            ),
            rows(
                "Household",
                json!([{ "kind": "services", "what": "Carer", "amount": "80", "date": "2025-03-03" }]),
            )
            .rows(
                "Burdens",
                "ada",
                json!([{ "kind": "illness", "what": "carer", "amount": "81" }]),
            ),
        ),
        ("DE-C38", paper("KAP", json!({ "untaxed": "1" })), paper("KAP", json!({ "income": "1" }))),
        ("DE-C44", supported("cy"), supported("di")),
        (
            "DE-C66",
            from_to("2025-01-01", "2025-01-14", 1, "0").paper("Work at home", "ada", json!({ "days": 12 })),
            from_to("2025-01-01", "2025-01-14", 1, "0").paper("Work at home", "ada", json!({ "days": 11 })),
        ),
        (
            "DE-C67",
            rows("Work costs", json!([{ "kind": "training", "what": "Semester fee", "amount": "5" }])),
            rows("Work costs", json!([{ "kind": "training", "what": "Brewing law", "amount": "5" }])),
        ),
        ("DE-C73", wages(json!({ "19": "20001" })), wages(json!({ "19": "20000" }))),
        (
            "care-grade",
            paper("Care given", json!({ "grade": 1 })),
            paper("Care given", json!({ "grade": 2 })),
        ),
        (
            "left",
            gone("2025-05-05").answer_for("ada", "limited", json!(true)),
            gone("2025-05-05").answer_for("ada", "limited", json!(false)),
        ),
        ("left-asked", gone("2025-05-05"), gone("2026-01-05")),
        (
            "land-moved",
            moved_land().answer("months_before", json!(4)).answer_for("ada", "church_months", json!(11)),
            moved_land().answer("months_before", json!(4)),
        ),
        ("months-before", moved_land(), moved_land().answer("months_before", json!(4))),
        (
            "fund-kind",
            rows("Fund", json!([{ "distributed": "5" }])),
            rows("Fund", json!([{ "distributed": "5", "kind": "other" }])),
        ),
        (
            "foreign-income",
            rows("Foreign tax", json!([{ "tax": "5" }])),
            rows("Foreign tax", json!([{ "tax": "5", "income": "9" }])),
        ),
        (
            "foreign-within",
            rows("Foreign tax", json!([{ "tax": "5", "income": "9" }])),
            rows("Foreign tax", json!([{ "tax": "5" }])),
        ),
        (
            "room-and-days",
            paper("Work at home", json!({ "days": 5, "centre": true, "months": 11 })),
            paper("Work at home", json!({ "days": 5, "centre": true })),
        ),
        (
            "loss-back",
            paper("Result", json!({ "kind": "rental", "result": "-1" })),
            paper("Result", json!({ "kind": "rental", "result": "0" })),
        ),
        (
            "sales-loss",
            paper("Result", json!({ "kind": "sales", "result": "-1" })),
            paper("Result", json!({ "kind": "sales", "result": "1" })),
        ),
    ];
    let mut wrong = Vec::new();
    for (code, found, clean) in cases {
        if !has_point(&found.outcome(), code) {
            wrong.push(format!("{code} is not found"));
        }
        if has_point(&clean.outcome(), code) {
            wrong.push(format!("{code} is found where nothing is wrong"));
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}

#[test]
fn what_is_not_covered_is_told() {
    let alone = Family::of(2025, "married").person("ada", "filer", "1985-03-04");
    assert!(has_point(&alone.outcome(), "DE-C04"));
    // Church tax that a cap may lower: 9 % of the tax on 400,000 is above 2.75 % of it, in Bayern there is no cap.
    let rich = |land: &str| {
        Family::single(2025)
            .answer("land", json!(land))
            .answer_for("ada", "church", json!(true))
            .paper("Result", "ada", json!({ "kind": "freelance", "result": "400000" }))
            .outcome()
    };
    assert!(has_point(&rich("NW"), "church-cap") && !has_point(&rich("BY"), "church-cap"));
    let loss = Family::single(2025).paper("KAP", "ada", json!({ "income": "-5" }));
    assert!(has_point(&loss.outcome(), "capital-loss"));
}

/// I to September, III from October: 4 × 715.58 + 3 × 354.83 = 3,926.81, as in the example of the brewing engineer.
#[test]
fn classes_that_changed_within_a_certificate() {
    let engineer = |classes: Value, married: &str| {
        let boxes = json!({ "from": "2025-06-01", "to": "2025-12-31", "class": 3, "3": "32900", "4": "3926.81", "25": "2812" });
        Family::couple(2025)
            .answer("married_on", json!(married))
            .shared("LStB", &[("ada", "100")], boxes, classes)
            .outcome()
    };
    let changed = json!([{ "by_class": 1, "since": "2025-06-01" }, { "by_class": 3, "since": "2025-10-01" }]);
    assert!(has_point(&engineer(Value::Null, "2025-05-03"), "DE-C10"));
    assert!(!has_point(&engineer(changed.clone(), "2025-05-03"), "DE-C10"));
    assert!(!has_point(&engineer(changed.clone(), "2025-10-01"), "DE-C58"));
    assert!(has_point(&engineer(changed, "2025-10-02"), "DE-C58"));
    // Cover of one's own before the job is none beside it.
    let covered = |to: &str| {
        wages(json!({ "from": "2025-06-01", "to": "2025-12-31" }))
            .paper("Insurance", "ada", json!({ "from": "2025-01-01", "to": to, "health": "525" }))
            .outcome()
    };
    assert!(!has_point(&covered("2025-05-31"), "DE-C60") && has_point(&covered("2025-06-01"), "DE-C60"));
}

/// Fifths of which the rest is below zero are not computed beside the progression clause.
#[test]
fn fifths_beside_the_progression_clause() {
    let family = |benefit: &str| {
        Family::single(2025)
            .paper("LStB", "ada", json!({ "3": "50000", "19": "50000", "23": "4000", "22": "4000" }))
            .rows("Progression", "ada", json!([{ "kind": "benefit", "amount": benefit }]))
            .outcome()
    };
    assert!(has_point(&family("5000"), "fifths-below-zero") && !family("5000").covered);
    assert!(!has_point(&family("0"), "fifths-below-zero"));
}
