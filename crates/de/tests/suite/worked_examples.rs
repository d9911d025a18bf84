//! The worked examples of the law book, line by line: each written out by hand before the rules.

use hembo_core::Outcome;
use hembo_testing::de::{Family, line, money};
use serde_json::{Value, json};

/// Lines of a scope that are not what the example says.
fn apart(outcome: &Outcome, scope: &str, expected: &[(&str, &str)]) -> Vec<String> {
    let of = |(id, amount): &(&str, &str)| {
        let there = line(outcome, scope, id);
        (there != money(amount)).then(|| format!("{scope} {id}: {there}, not {amount}"))
    };
    expected.iter().filter_map(of).collect()
}

/// DE-1: one employee of a church, way to work, days at home, a laptop, a craftsman.
#[test]
fn an_employee_of_a_church() {
    let family = Family::single(2024)
        .answer_for("ada", "church", json!(true))
        .paper(
            "LStB",
            "ada",
            json!({ "3": "52000", "4": "7662", "6": "689.52", "22": "4836", "23": "4836", "25": "4238", "26": "1196", "27": "676" }),
        )
        .rows("Way to work", "ada", json!([{ "days": 130, "km": "24", "by": "car" }]))
        .paper("Work at home", "ada", json!({ "days": 85 }))
        .rows("Equipment", "ada", json!([{ "bought": "2024-03-01", "price": "1190", "digital": true, "work": 60 }]))
        .rows("Special expenses", "ada", json!([{ "kind": "gift", "amount": "250" }]))
        .rows("Household", "ada", json!([{ "kind": "crafts", "date": "2024-05-02", "amount": "640" }]));
    let outcome = family.outcome();
    let mut wrong = apart(
        &outcome,
        "person/ada",
        &[("commute", "978"), ("home_office", "510"), ("equipment", "714"), ("work_expenses", "2218")],
    );
    wrong.extend(apart(
        &outcome,
        "return/0",
        &[
            ("total_income", "49782"),
            ("pension_deduction", "4836"),
            ("health_deduction", "5265"),
            ("special", "940"),
            ("taxable_income", "38741"),
            ("tariff_tax", "7057"),
            ("income_tax", "6929"),
            ("soli", "0"),
            ("church_tax", "623.61"),
            ("balance", "-798.91"),
        ],
    ));
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// DE-2: a couple with two children: the benefit stays for both, together is lower.
#[test]
fn a_couple_with_two_children() {
    let family = Family::couple(2025)
        .person("cy", "dependent", "2016-02-03")
        .person("di", "dependent", "2021-04-05")
        .paper("LStB", "ada", json!({ "3": "64000", "4": "5989.92", "22": "5952", "23": "5952", "25": "5472", "26": "992" }))
        .paper("LStB", "bo", json!({ "3": "31000", "4": "6139.92", "22": "2883", "23": "2883", "25": "2650.50", "26": "480.50" }))
        .rows("Way to work", "ada", json!([{ "days": 150, "km": "32", "by": "car" }]))
        .shared("Care and school", &[("ada", "50"), ("bo", "50")], json!({ "child": "di", "care": "6200" }), Value::Null)
        .shared("Care and school", &[("ada", "50"), ("bo", "50")], json!({ "child": "cy", "care": "1500" }), Value::Null)
        .rows("Special expenses", "ada", json!([{ "kind": "gift", "amount": "300" }]))
        .rows("Household", "ada", json!([{ "kind": "crafts", "amount": "3000" }, { "kind": "services", "amount": "800" }]));
    let outcome = family.outcome();
    let wrong = apart(
        &outcome,
        "return/0",
        &[
            ("total_income", "92170"),
            ("provident", "18107"),
            ("childcare", "6000"),
            ("special", "6300"),
            ("taxable_income", "67763"),
            ("tariff_tax", "10864"),
            ("child_allowances", "0"),
            ("income_tax", "10104"),
            ("soli", "0"),
            // Withheld 12,129.84, credited as 12,130.
            ("balance", "-2026"),
        ],
    );
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// DE-3: with parental allowance each alone is lower by 167.
#[test]
fn each_alone_is_lower_with_parental_allowance() {
    let family = Family::couple(2025)
        .person("cy", "dependent", "2025-09-10")
        .paper("LStB", "ada", json!({ "3": "42000", "22": "3906", "23": "3906", "25": "3591", "26": "756" }))
        .paper(
            "LStB",
            "bo",
            json!({ "3": "36000", "15": "15000", "22": "3348", "23": "3348", "25": "3078", "26": "648" }),
        );
    let alone = family.outcome();
    let mut wrong = apart(&alone, "return/0", &[("taxable_income", "32624"), ("income_tax", "5061")]);
    wrong.extend(apart(
        &alone,
        "return/1",
        &[
            ("taxable_income", "27783"),
            ("progression", "15000"),
            ("income_tax", "5339"),
            ("child_allowances", "0"),
        ],
    ));
    let together = family.pin("de.filing", "joint").outcome();
    wrong.extend(apart(
        &together,
        "return/0",
        &[("taxable_income", "60407"), ("income_tax", "10567"), ("child_allowances", "0")],
    ));
    assert!(wrong.is_empty(), "{wrong:#?}");
    assert_eq!(together.total - alone.total, money("167"));
}

/// DE-4: alone with a child of ten whose disability lump sum passes whole.
#[test]
fn alone_with_a_child() {
    let family = Family::single(2024)
        .person("cy", "dependent", "2014-03-08")
        .answer_for("cy", "half", json!(true))
        .answer_for("cy", "lump_percent", json!(100))
        .answer_for("cy", "degree", json!(50))
        .answer_for("cy", "household_months", json!(12))
        .paper(
            "LStB",
            "ada",
            json!({ "3": "45000", "4": "4698", "22": "4185", "23": "4185", "25": "3667.50", "26": "765" }),
        )
        .paper("Care and school", "ada", json!({ "child": "cy", "care": "3300" }))
        .rows("Burdens", "ada", json!([{ "kind": "illness", "amount": "3050" }]));
    let wrong = apart(
        &family.outcome(),
        "return/0",
        &[
            ("single_parent", "4260"),
            ("total_income", "39510"),
            ("provident", "8472"),
            ("special", "2200"),
            ("burden_limit", "1031"),
            ("burdens", "2019"),
            ("lumps_33b", "1140"),
            ("taxable_income", "25679"),
            ("income_tax", "3206"),
            ("child_allowances", "0"),
            ("balance", "-1492"),
        ],
    );
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// DE-5: surcharge within its mitigation, church tax at 8 %, capital at home and abroad.
#[test]
fn a_church_member_with_capital() {
    let family = Family::single(2025)
        .answer("land", json!("BY"))
        .answer_for("ada", "church", json!(true))
        .paper(
            "LStB",
            "ada",
            json!({ "3": "112000", "22": "8983.80", "23": "8983.80", "24a": "5655.83", "24c": "1190.70", "25": "11311.65", "26": "2778.30" }),
        )
        .rows("Way to work", "ada", json!([{ "days": 60, "km": "12", "by": "transit", "ticket": "1150" }]))
        .paper("Work at home", "ada", json!({ "days": 160 }))
        .rows("Work costs", "ada", json!([{ "kind": "training", "amount": "890" }]))
        .rows("Special expenses", "ada", json!([{ "kind": "church", "amount": "1900" }, { "kind": "gift", "amount": "600" }]))
        .paper("KAP", "ada", json!({ "income": "3000", "tax": "490.19", "surcharge": "26.96", "church": "39.21" }))
        .paper("KAP", "ada", json!({ "untaxed": "4500", "foreign_tax": "600", "shares": "2000", "shares_before": "3500" }));
    let wrong = apart(
        &family.outcome(),
        "return/0",
        &[
            ("total_income", "108984"),
            ("provident", "16002"),
            ("taxable_income", "90482"),
            ("tariff_tax", "27090"),
            ("flat_tax", "1004"),
            ("income_tax", "28094"),
            ("soli", "904.88"),
            ("church_tax", "2247.52"),
            ("capital_tax_withheld", "491"),
            ("balance", "30689.23"),
        ],
    );
    assert!(wrong.is_empty(), "{wrong:#?}");
}

fn arrived() -> Family {
    Family::couple(2025)
        .answer_for("bo", "arrived", json!("2025-06-01"))
        .paper("LStB", "ada", json!({ "3": "54000", "4": "5861.46", "22": "5022", "23": "5022", "25": "4617", "26": "1296" }))
        .paper("LStB", "bo", json!({ "3": "8000", "4": "1225.32", "22": "744", "23": "744", "25": "684", "26": "192", "27": "104" }))
        .rows("Way to work", "ada", json!([{ "days": 150, "km": "12", "by": "car" }]))
        .paper("Work at home", "ada", json!({ "days": 60 }))
        .rows("Work costs", "ada", json!([{ "kind": "training", "amount": "780" }]))
        .rows("Progression", "bo", json!([{ "kind": "wages", "amount": "10000" }]))
}

/// DE-6: arrival and marriage in June; wages abroad before it raise the rate.
#[test]
fn arrival_and_marriage_in_june() {
    let wrong = apart(
        &arrived().outcome(),
        "return/0",
        &[
            ("total_income", "59074"),
            ("provident", "12344"),
            ("taxable_income", "46658"),
            ("progression", "10000"),
            ("income_tax", "6312"),
            ("balance", "-775"),
        ],
    );
    assert!(wrong.is_empty(), "{wrong:#?}");
    let alone = arrived().pin("de.filing", "separate").outcome();
    let mut wrong = apart(&alone, "return/0", &[("taxable_income", "41517"), ("income_tax", "7809")]);
    wrong.extend(apart(&alone, "return/1", &[("taxable_income", "5010"), ("income_tax", "162")]));
    assert!(wrong.is_empty(), "{wrong:#?}");
}

fn brewer(year_before: Option<&str>) -> Family {
    let family = Family::couple(2025)
        .answer("land", json!("BY"))
        .paper("LStB", "ada", json!({ "3": "4500", "22": "418.50", "23": "418.50" }))
        .paper(
            "LStB",
            "ada",
            json!({ "3": "32900", "4": "3926.81", "22": "3059.70", "23": "3059.70", "25": "2812.95", "26": "789.60", "27": "427.70" }),
        )
        .paper("Insurance", "ada", json!({ "health": "525", "care": "180" }))
        .rows("Way to work", "ada", json!([{ "days": 112, "km": "17", "by": "transit", "ticket": "343" }]))
        .paper("Work at home", "ada", json!({ "days": 48 }))
        .rows(
            "Equipment",
            "ada",
            json!([{ "bought": "2025-07-04", "price": "595", "years": 13 }, { "bought": "2025-07-04", "price": "1309", "years": 13 }]),
        )
        .rows("Work costs", "ada", json!([{ "kind": "training", "amount": "280" }]))
        .paper("Move", "ada", json!({ "loaded": "2025-05-24", "costs": "510", "home_before": true, "home_after": true }));
    match year_before {
        Some(amount) => family.rows("Progression", "bo", json!([{ "kind": "wages", "amount": amount }])),
        None => family,
    }
}

/// DE-7: a working student who became a brewing engineer; the spouse arrives in September.
#[test]
fn a_brewing_engineer_marries() {
    let outcome = brewer(None).outcome();
    let mut wrong = apart(
        &outcome,
        "person/ada",
        &[
            ("commute", "572"),
            ("home_office", "288"),
            ("equipment", "646"),
            ("moving", "1474"),
            ("work_expenses", "3276"),
            ("wages_income", "34124"),
        ],
    );
    wrong.extend(apart(
        &outcome,
        "return/0",
        &[
            ("pension_deduction", "3479"),
            ("health_deduction", "4196"),
            ("taxable_income", "26377"),
            ("income_tax", "326"),
            ("balance", "-3601"),
        ],
    ));
    wrong.extend(apart(
        &brewer(Some("10440")).outcome(),
        "return/0",
        &[("progression", "9210"), ("income_tax", "1629"), ("balance", "-2298")],
    ));
    let alone = brewer(None).pin("de.filing", "separate").outcome();
    wrong.extend(apart(&alone, "return/0", &[("taxable_income", "26413"), ("income_tax", "3307")]));
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// DE-8: pensioners of one church with letting, burdens and a disability.
#[test]
fn pensioners() {
    let mut family =
        Family::of(2025, "married").person("ada", "filer", "1952-04-10").person("bo", "filer", "1959-09-01");
    family = family.answer("land", json!("BY")).answer_for("bo", "degree", json!(50));
    for who in ["ada", "bo"] {
        family = family.answer_for(who, "church", json!(true));
    }
    let family = family
        .paper("Rente", "ada", json!({ "gross": "27600", "start": 2017, "free": "4900" }))
        .paper("LStB", "ada", json!({ "3": "6000", "8": "6000", "29": "6000", "30": 2018 }))
        .paper("Result", "ada", json!({ "kind": "rental", "result": "9600" }))
        .paper("Rente", "bo", json!({ "gross": "7800", "start": 2025 }))
        .paper("Insurance", "ada", json!({ "health": "2620", "care": "660" }))
        .paper("Insurance", "bo", json!({ "health": "1180", "care": "290" }))
        .rows(
            "Special expenses",
            "ada",
            json!([{ "kind": "church", "amount": "96" }, { "kind": "gift", "amount": "500" }]),
        )
        .rows("Burdens", "bo", json!([{ "kind": "illness", "amount": "3400" }]))
        .rows("Household", "ada", json!([{ "kind": "crafts", "amount": "1100" }]));
    let outcome = family.outcome();
    let mut wrong = apart(
        &outcome,
        "person/ada",
        &[("civil_allowance", "1584"), ("wages_income", "4314"), ("age_relief", "988")],
    );
    wrong.extend(apart(&outcome, "person/bo", &[("annuity_income", "6411")]));
    wrong.extend(apart(
        &outcome,
        "return/0",
        &[
            ("sum_of_income", "42923"),
            ("total_income", "41935"),
            ("provident", "4750"),
            ("special", "596"),
            ("burdens", "1457"),
            ("taxable_income", "33992"),
            ("tariff_tax", "1818"),
            ("income_tax", "1598"),
            ("church_tax", "127.84"),
            ("balance", "1725.84"),
        ],
    ));
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// DE-9: severance by fifths with unemployment benefit.
#[test]
fn severance_and_benefit() {
    let family = Family::single(2025)
        .paper(
            "LStB",
            "ada",
            json!({ "3": "75000", "19": "45000", "4": "18600", "22": "2790", "23": "2790", "25": "2565", "26": "720", "27": "390" }),
        )
        .rows("Progression", "ada", json!([{ "kind": "benefit", "amount": "9000" }]))
        .rows("Way to work", "ada", json!([{ "days": 100, "km": "35", "by": "car" }]))
        .rows("Work costs", "ada", json!([{ "kind": "training", "amount": "640" }]));
    let wrong = apart(
        &family.outcome(),
        "return/0",
        &[
            ("total_income", "73174"),
            ("taxable_income", "67165"),
            ("tariff_tax", "15412"),
            ("soli", "0"),
            ("balance", "-3188"),
        ],
    );
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// DE-10: a father whose child lives with the mother, with maintenance of the former spouse.
#[test]
fn a_divorced_father() {
    let family = Family::single(2024)
        .answer_for("ada", "church", json!(true))
        .person("cy", "dependent", "2015-03-08")
        .answer_for("cy", "half", json!(true))
        .paper(
            "LStB",
            "ada",
            json!({ "3": "98000", "4": "23961.96", "5": "455.52", "6": "1976.16", "22": "8425.80", "23": "8425.80", "25": "5061.15", "26": "1055.70", "27": "1177.80" }),
        )
        .rows("Way to work", "ada", json!([{ "days": 120, "km": "26", "by": "car" }]))
        .paper("Work at home", "ada", json!({ "days": 90 }))
        .rows(
            "Special expenses",
            "ada",
            json!([{ "kind": "maintenance", "amount": "12000" }, { "kind": "gift", "amount": "900" }, { "kind": "party", "amount": "300" }]),
        )
        .rows("Household", "ada", json!([{ "kind": "services", "amount": "1450" }]));
    let wrong = apart(
        &family.outcome(),
        "return/0",
        &[
            ("total_income", "96450"),
            ("provident", "14342"),
            ("special", "14877"),
            ("income_before_children", "67231"),
            ("child_allowances", "4770"),
            ("taxable_income", "62461"),
            ("tariff_tax", "15630"),
            ("child_benefit_added", "1500"),
            ("income_tax", "16690"),
            ("soli", "0"),
            ("church_tax", "1367.10"),
            ("balance", "-8336.58"),
        ],
    );
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// DE-11: a trainee whose interest is best by the tariff.
#[test]
fn a_trainee_with_interest() {
    let family = Family::single(2025)
        .answer("land", json!("SN"))
        .paper(
            "LStB",
            "ada",
            json!({ "3": "15600", "4": "12", "22": "1450.80", "23": "1450.80", "25": "1333.80", "26": "374.40", "27": "202.80" }),
        )
        .paper("Result", "ada", json!({ "kind": "freelance", "result": "380" }))
        .paper("Insurance", "ada", json!({ "other": "90" }))
        .paper("KAP", "ada", json!({ "income": "2400", "tax": "350", "surcharge": "19.25" }));
    let mut wrong = apart(
        &family.outcome(),
        "return/0",
        &[
            ("sum_of_income", "16150"),
            ("income", "12763"),
            ("hardship", "380"),
            ("taxable_income", "12383"),
            ("income_tax", "40"),
            ("balance", "-341.25"),
        ],
    );
    let left = family.pin("de.capital.ada", "left").outcome();
    wrong.extend(apart(
        &left,
        "return/0",
        &[
            ("total_income", "14750"),
            ("provident", "3351"),
            ("taxable_income", "10983"),
            ("income_tax", "0"),
            ("balance", "-12"),
        ],
    ));
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// In the year after a spouse's death: the splitting table, the lump sum of one (§10c S.2 doubles it for spouses together alone).
/// 60,072 − 36 = 60,036; half 30,018: z = 1.3013, (181.19 × 1.3013 + 2,397) × 1.3013 + 991.21 = 4,417.25 → 4,417 × 2.
#[test]
fn the_year_after_a_spouses_death() {
    let family = Family::of(2024, "widowed").person("ada", "filer", "1985-03-04").paper(
        "Result",
        "ada",
        json!({ "kind": "freelance", "result": "60072" }),
    );
    let wrong = apart(
        &family.outcome(),
        "return/0",
        &[("special", "36"), ("taxable_income", "60036"), ("tariff_tax", "8834")],
    );
    assert!(wrong.is_empty(), "{wrong:#?}");
}
