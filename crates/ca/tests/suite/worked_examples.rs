//! The worked examples of the law, line by line to the cent.

use hembo_testing::ca::{Family, assert_lines, line, money};
use serde_json::json;

/// A pension-splitting couple in Ontario: without a split, at an amount inside the best segment, and at the most.
fn pensioners() -> Family {
    Family::couple("ON", ["1957-05-05", "1959-03-03"])
        .paper("T4A", "ada", serde_json::json!({ "016": "66000", "022": "11500" }))
        .benefits("ada", "15500", "8700")
        .pension("bo", "9000")
        .benefits("bo", "8200", "8700")
        .interest("bo", "1500")
        .pin("ca.split", "ada")
}

#[test]
fn a_couple_without_a_split() {
    let outcome = pensioners().pin("ca.split.amount", "0").outcome();
    assert_lines(
        &outcome,
        0,
        &[
            ("15000", "90200.00"),
            ("23400", "90200.00"),
            ("23600", "90200.00"),
            ("26000", "90200.00"),
            ("40400", "15048.50"),
            ("30000", "16129.00"),
            ("30100", "2326.30"),
            ("31400", "2000.00"),
            ("33500", "20455.30"),
            ("33800", "2966.02"),
            ("42900", "12082.48"),
            ("428.tax", "6084.97"),
            ("58080", "0.00"),
            ("58360", "1762.00"),
            ("58800", "14509.00"),
            ("61500", "732.70"),
            ("428.basic", "5352.27"),
            ("ontario.surtax", "0.00"),
            ("ontario.reduction", "0.00"),
            ("ontario.health", "750.00"),
            ("42800", "6102.27"),
            ("43500", "18184.75"),
        ],
    );
    assert_lines(
        &outcome,
        1,
        &[
            ("15000", "27400.00"),
            ("26000", "27400.00"),
            ("40400", "3973.00"),
            ("30100", "9028.00"),
            ("33500", "27157.00"),
            ("33800", "3937.77"),
            ("42900", "35.23"),
            ("428.tax", "1383.70"),
            ("58080", "6223.00"),
            ("58800", "20732.00"),
            ("61500", "1046.97"),
            ("428.basic", "336.73"),
            ("ontario.reduction", "251.27"),
            ("ontario.health", "300.00"),
            ("42800", "385.46"),
            ("43500", "420.69"),
        ],
    );
    assert_eq!(outcome.total, money("18605.44"));
}

#[test]
fn the_same_couple_inside_the_best_segment() {
    let outcome = pensioners().pin("ca.split.amount", "30200").outcome();
    assert_lines(
        &outcome,
        0,
        &[
            ("21000", "30200.00"),
            ("23600", "60000.00"),
            ("40400", "8857.50"),
            ("30100", "6856.30"),
            ("31400", "2000.00"),
            ("33500", "24985.30"),
            ("33800", "3622.87"),
            ("42900", "5234.63"),
            ("428.tax", "3321.67"),
            ("58080", "4172.50"),
            ("58800", "18681.50"),
            ("61500", "943.42"),
            ("428.basic", "2378.25"),
            ("ontario.health", "600.00"),
            ("42800", "2978.25"),
            ("43500", "8212.88"),
            ("withheld.moved", "5262.12"),
            ("43700", "6237.88"),
        ],
    );
    assert_lines(
        &outcome,
        1,
        &[
            ("11600", "30200.00"),
            ("23600", "57600.00"),
            ("40400", "8365.50"),
            ("30100", "7216.30"),
            ("33800", "3675.07"),
            ("42900", "4690.43"),
            ("428.tax", "3102.07"),
            ("58080", "4532.50"),
            ("61500", "961.60"),
            ("42800", "2740.47"),
            ("43500", "7430.90"),
            ("43700", "5262.12"),
        ],
    );
    assert_eq!(outcome.total, money("15643.78"));
}

#[test]
fn the_same_couple_at_the_most_and_at_the_best() {
    let most = pensioners().pin("ca.split.amount", "33000").outcome();
    assert_lines(
        &most,
        0,
        &[("30100", "7276.30"), ("42900", "4610.23"), ("42800", "2700.84"), ("43500", "7311.07")],
    );
    assert_lines(
        &most,
        1,
        &[("30100", "6796.30"), ("42900", "5325.33"), ("42800", "3017.88"), ("43500", "8343.21")],
    );
    assert_eq!(most.total, money("15654.28"));
    let best = pensioners().outcome();
    let split = best.decisions.iter().find(|d| d.id == "ca.split.amount").unwrap().amount.clone().unwrap();
    // Every amount from 29,975 to 32,825 costs 15,643.78 but for 0.04 of rounding.
    assert!((money("29975")..=money("32825")).contains(&split.taken), "{split:?}");
    assert!(best.total <= money("15643.82") && best.total >= money("15643.74"), "{}", best.total);
    assert_eq!((split.none, split.all), (Some(money("18605.44")), Some(money("15654.28"))));
}

/// The same couple with 13,500 of care: Bo, with the lower net income, deducts the limits of the children; Ontario pays a part
/// (27 % at 101,721 of family income).
#[test]
fn a_low_income_partner_deducts_child_care() {
    let care = json!([
        { "child": "cy", "number": "900 000 000", "kind": "day", "amount": "9000" },
        { "child": "di", "number": "900 000 000", "kind": "day", "amount": "4500" },
    ]);
    let outcome = Family::couple("ON", ["1985-05-05", "1986-03-03"])
        .child("cy", "2022-02-02")
        .child("di", "2016-02-02")
        .employed("ada", "92000")
        .employed("bo", "24000")
        .shared("T778", &[("ada", "100")], json!({}), care)
        .outcome();
    assert_lines(
        &outcome,
        0,
        &[
            ("21400", "0.00"),
            ("30300", "5334.00"),
            ("33500", "27367.58"),
            ("33800", "3968.30"),
            ("42900", "11229.03"),
            ("58120", "1110.00"),
            ("58800", "18290.58"),
            ("61500", "923.67"),
            ("42800", "5977.73"),
            ("43500", "17206.76"),
        ],
    );
    assert_lines(
        &outcome,
        1,
        &[
            ("t778.limits", "13000.00"),
            ("t778.expenses", "13500.00"),
            ("t778.earned", "16000.00"),
            ("21400", "13000.00"),
            ("23600", "10795.00"),
            ("33500", "19008.35"),
            ("42900", "0.00"),
            ("58800", "14155.35"),
            ("42800", "0.00"),
            ("43500", "0.00"),
            ("ontario.child_care", "3510.00"),
            ("47900", "3510.00"),
        ],
    );
    assert_eq!(outcome.total, money("13696.76"));
}

#[test]
fn a_low_income_partner_without_child_care() {
    let outcome = Family::couple("ON", ["1985-05-05", "1986-03-03"])
        .child("cy", "2022-02-02")
        .child("di", "2016-02-02")
        .employed("ada", "92000")
        .employed("bo", "24000")
        .outcome();
    assert_lines(
        &outcome,
        0,
        &[
            ("30800", "3356.10"),
            ("22215", "1074.00"),
            ("31200", "1077.48"),
            ("23600", "90926.00"),
            ("43500", "18036.24"),
        ],
    );
    assert_lines(
        &outcome,
        1,
        &[
            ("30800", "1014.75"),
            ("22215", "205.00"),
            ("31200", "393.60"),
            ("23600", "23795.00"),
            ("42900", "694.07"),
            ("ontario.health", "227.70"),
            ("ontario.reduction", "101.20"),
            ("42800", "613.30"),
            ("43500", "1307.37"),
        ],
    );
    assert_eq!(outcome.total, money("19343.61"));
}

#[test]
fn gifts_pooled_in_alberta() {
    let family = Family::couple("AB", ["1975-05-05", "1976-03-03"])
        .employed("ada", "320000")
        .employed("bo", "55000")
        .gifts("ada", "7000")
        .gifts("bo", "3000");
    let cases: &[(&str, &str, &str, [&str; 4], [&str; 4])] = &[
        // claimed by each: credits federal and provincial, tax federal and provincial
        (
            "7000",
            "3000",
            "112879.28",
            ["2273.00", "1548.00", "74781.64", "32501.88"],
            ["841.00", "708.00", "4006.90", "1588.86"],
        ),
        (
            "0",
            "10000",
            "113200.28",
            ["0.00", "0.00", "77054.64", "34049.88"],
            ["2871.00", "2178.00", "1976.90", "118.86"],
        ),
        (
            "10000",
            "0",
            "112808.28",
            ["3263.00", "2178.00", "73791.64", "31871.88"],
            ["0.00", "0.00", "4847.90", "2296.86"],
        ),
        (
            "9800",
            "200",
            "112767.28",
            ["3197.00", "2136.00", "73857.64", "31913.88"],
            ["29.00", "120.00", "4818.90", "2176.86"],
        ),
        (
            "0",
            "0",
            "118249.28",
            ["0.00", "0.00", "77054.64", "34049.88"],
            ["0.00", "0.00", "4847.90", "2296.86"],
        ),
    ];
    for (ada, bo, total, first, second) in cases {
        let outcome = family.clone().pin("ca.gifts.ada", ada).pin("ca.gifts.bo", bo).outcome();
        for (place, lines) in [(0, first), (1, second)] {
            let ids = ["34900", "58969", "42900", "42800"];
            let expected: Vec<_> = ids.into_iter().zip(lines.iter().copied()).collect();
            assert_lines(&outcome, place, &expected);
        }
        assert_eq!(outcome.total, money(total), "{ada} {bo}");
    }
    let best = family.outcome();
    assert_eq!(best.total, money("112767.28"));
    assert_eq!((line(&best, 0, "34000"), line(&best, 1, "34000")), (money("9800"), money("200")));
    assert_lines(
        &best,
        0,
        &[("40400", "80018.81"), ("33500", "20442.58"), ("428.tax", "36190.41"), ("58800", "26756.58")],
    );
}

#[test]
fn contributions_deducted_now_or_later() {
    let family =
        Family::single("ON", "1980-01-01").employed("ada", "126000").contributions("ada", "45000", "30000");
    let cases = [
        // deducted, taxable, federal tax on it, 42900, Ontario tax on it, basic, surtax, premium, total
        ("0", "124926.00", "22727.01", "19532.14", "9647.34", "8779.72", "1144.12", "30205.98"),
        ("10176", "114750.00", "20081.25", "16886.38", "8511.70", "7644.08", "508.17", "25788.63"),
        ("19151", "105775.00", "18241.38", "15046.51", "7510.09", "6642.47", "186.49", "22625.47"),
        ("30000", "94926.00", "16017.33", "12822.46", "6517.40", "5649.78", "0.00", "19222.24"),
    ];
    for (deducted, taxable, on_it, federal, ontario, basic, surtax, total) in cases {
        let outcome = family.clone().pin("ca.rrsp.ada", deducted).outcome();
        assert_lines(
            &outcome,
            0,
            &[
                ("20800", deducted),
                ("26000", taxable),
                ("40400", on_it),
                ("33800", "3194.87"),
                ("42900", federal),
                ("428.tax", ontario),
                ("428.basic", basic),
                ("ontario.surtax", surtax),
                ("ontario.health", "750.00"),
                ("43500", total),
            ],
        );
        assert_eq!(line(&outcome, 0, "rrsp.carried"), money("30000") - money(deducted));
    }
    assert_eq!(line(&family.outcome(), 0, "20800"), money("30000"));
}

#[test]
fn eligible_dividends_and_the_recovery_of_old_age_security() {
    // The federal side of the example, which lives in another province.
    let family = |t5| {
        Family::single("ON", "1955-05-05")
            .pension("ada", "52000")
            .benefits("ada", "14000", "8750")
            .paper("T5", "ada", t5)
    };
    let dividends = family(serde_json::json!({ "24": "30000" })).outcome();
    assert_lines(
        &dividends,
        0,
        &[
            ("12000", "41400.00"),
            ("23400", "116150.00"),
            ("23500", "3404.40"),
            ("23600", "112745.60"),
            ("40400", "19670.35"),
            ("30100", "0.00"),
            ("33500", "18129.00"),
            ("33800", "2628.71"),
            ("40425", "6218.20"),
            ("42900", "10823.44"),
            ("42200", "3404.40"),
        ],
    );
    let interest = family(serde_json::json!({ "13": "30000" })).outcome();
    assert_lines(
        &interest,
        0,
        &[
            ("23500", "1694.40"),
            ("26000", "103055.60"),
            ("40400", "17683.90"),
            ("30100", "397.96"),
            ("42900", "14997.49"),
        ],
    );
}

#[test]
fn a_student_hands_tuition_to_a_parent() {
    // The federal side of the example, which lives in another province.
    let family = Family::of("ON", "divorced")
        .person("pat", "filer", "1975-05-05")
        .child("sam", "2005-05-05")
        .employed("pat", "84000")
        .employed("sam", "15500")
        .tuition("sam", "9400");
    let outcome = family.outcome();
    assert_lines(
        &outcome,
        1,
        &[
            ("22215", "120.00"),
            ("23600", "15380.00"),
            ("32300", "0.00"),
            ("32700", "5000.00"),
            ("tuition.carried", "4400.00"),
            ("42900", "0.00"),
        ],
    );
    assert_lines(
        &outcome,
        0,
        &[
            ("26000", "82926.00"),
            ("40400", "13557.33"),
            ("32400", "5000.00"),
            ("33500", "27033.58"),
            ("33800", "3919.87"),
            ("42900", "9637.46"),
        ],
    );
    let without = family.pin("ca.tuition.sam.amount", "0").outcome();
    assert_lines(&without, 0, &[("33500", "22033.58"), ("33800", "3194.87"), ("42900", "10362.46")]);
    assert_eq!(without.total - outcome.total, money("725.00"));
}

/// Returns worked out independently of the application, as far as they fit: 2025, Ontario and Alberta.
#[test]
fn independent_returns() {
    // don-06: gifts of 2019 have lapsed, those of 2020 count.
    let carried = json!([{ "year": 2019, "amount": "500" }, { "year": 2020, "amount": "300" }]);
    let outcome = Family::single("ON", "1980-05-01")
        .interest("ada", "90000")
        .shared("Gifts carried", &[("ada", "100")], json!({}), carried)
        .outcome();
    let lines = [("34000", "300"), ("34900", "58"), ("35000", "2396.71"), ("42900", "12610.79")];
    assert_lines(&outcome, 0, &lines);
    assert_lines(&outcome, 0, &[("58969", "21.26"), ("42800", "6151.69"), ("43500", "18762.48")]);

    // emp-07: turned 70 in March, three months of the pension plan.
    let t4 = json!({ "14": "48000", "26": "12000", "24": "48000", "16": "661.94", "18": "787.20" });
    let outcome = Family::single("ON", "1955-03-10").paper("T4", "ada", t4).outcome();
    let lines = [("22215", "111.25"), ("23600", "47888.75"), ("30100", "8672.99"), ("30800", "550.69")];
    assert_lines(&outcome, 0, &lines);
    let lines = [("31200", "787.20"), ("33500", "27610.88"), ("42900", "2940.29"), ("42800", "1749.08")];
    assert_lines(&outcome, 0, &lines);

    // fam-12: a parent of 70 in an Albertan home, not infirm.
    let outcome = Family::couple("AB", ["1980-05-01", "1980-05-01"])
        .employed("ada", "70000")
        .employed("bo", "40000")
        .person("may", "dependent", "1955-01-01")
        .answer_for("may", "relationship", json!("parent"))
        .answer_for("may", "net_income", json!("21000"))
        .answer_for("ada", "maintains_home", json!(true))
        .answer_for("bo", "maintains_home", json!(false))
        .outcome();
    let lines = [("33500", "21969.23"), ("58400", "12467"), ("58800", "39159.23"), ("42800", "2600.76")];
    assert_lines(&outcome, 0, &lines);
    assert_lines(&outcome, 1, &[("33500", "20062.75"), ("42800", "1187.94"), ("43500", "4025.92")]);
    assert_eq!(outcome.total, money("14212.32"));

    // stu-02: a student uses a part, hands on what is left of 5,000, and has the workers benefit.
    let outcome = Family::single("ON", "1980-05-01")
        .employed("ada", "90000")
        .child("cy", "2004-02-02")
        .employed("cy", "22000")
        .tuition("cy", "8000")
        .answer_for("cy", "full_time_student", json!(false))
        .outcome();
    assert_lines(&outcome, 0, &[("32400", "2061.55"), ("33500", "24095.13"), ("43500", "17144.32")]);
    let lines = [("32300", "2938.45"), ("tuition.carried", "3000"), ("ontario.reduction", "194.53")];
    assert_lines(&outcome, 1, &lines);
    assert_lines(&outcome, 1, &[("ontario.lift", "198.94"), ("43500", "108.90"), ("45300", "1633")]);
    assert_eq!(outcome.total, money("15620.22"));
}
