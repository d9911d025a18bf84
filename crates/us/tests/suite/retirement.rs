//! Pensions, IRAs, and the additional tax on early distributions, worked by hand from the worksheets.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn paper(family: Family, boxes: &Value) -> Family {
    family.paper("1099-R", &["ada"], boxes.clone(), json!(null))
}

fn single() -> Family {
    Family::single(2025).wages("ada", 50_000)
}

/// Someone of 67 in 2025.
fn retired() -> Family {
    Family::of(2025).filer("ada", "1958-03-03")
}

/// What each code does with 10,000 out of a pension and out of an IRA: line 4b or 5b, line 1h, additional tax.
#[test]
fn what_each_code_does() {
    let cases: [(&[&str], i64, i64, i64); 6] = [
        (&["2", "4", "5", "7", "9", "C", "D", "E", "F", "L", "M", "U"], 10_000, 0, 0),
        (&["1"], 10_000, 0, 1_000),
        (&["S"], 10_000, 0, 2_500),
        (&["6", "G", "H", "N", "P", "Q", "R", "W"], 0, 0, 0),
        (&["8"], 0, 10_000, 0),
        (&["3"], 10_000, 0, 0),
    ];
    for (codes, taxed, wages, additional) in cases {
        for code in codes {
            let pension = paper(single(), &json!({ "1": "10000", "7": code })).outcome();
            assert_lines(
                &pension,
                &[("us.4b", 0), ("us.5b", taxed), ("us.1z", 50_000 + wages), ("us.sched_2.8", additional)],
            );
            let ira = paper(single(), &json!({ "1": "10000", "7": code, "7.ira": true })).outcome();
            assert_lines(&ira, &[("us.4b", taxed + wages), ("us.5b", 0), ("us.1z", 50_000)]);
            assert!(!has_point(&ira, "1099-R-7"), "{code}");
        }
    }
    assert!(has_point(&paper(single(), &json!({ "1": "10000" })).outcome(), "1099-R-7"));
    assert!(!paper(single(), &json!({ "1": "10000", "7": "A" })).outcome().covered);
    // A disability pension before the minimum retirement age is wages.
    let early = paper(single(), &json!({ "1": "10000", "7": "3", "working_age": true })).outcome();
    assert_lines(&early, &[("us.1z", 60_000), ("us.5b", 0)]);
}

#[test]
fn rollovers_box_2a_and_exceptions() {
    for (boxes, taxed, additional) in [
        (json!({ "1": "10000", "2a": "6000", "7": "1" }), 6_000, 600),
        (json!({ "1": "10000", "7": "1", "rolled": "4000" }), 6_000, 600),
        (json!({ "1": "10000", "2a": "0", "7": "G" }), 0, 0),
        (json!({ "1": "10000", "2a": "3000", "7": "G" }), 3_000, 0),
        (json!({ "1": "10000", "7": "1", "exempt": "7000", "exempt.why": "09" }), 10_000, 300),
        (json!({ "1": "10000", "7": "1", "exempt": "10000", "exempt.why": "08" }), 10_000, 0),
    ] {
        let outcome = paper(single(), &boxes).outcome();
        assert_lines(&outcome, &[("us.5b", taxed), ("us.sched_2.8", additional)]);
    }
    for (boxes, code) in [
        (json!({ "1": "10000", "7": "1", "exempt": "10001", "exempt.why": "08" }), "5329-2"),
        (json!({ "1": "10000", "7": "1", "exempt": "500" }), "5329-2"),
        (json!({ "1": "10000", "7": "1", "rolled": "10001" }), "1099-R-parts"),
        (json!({ "1": "10000", "7": "7" }), "K-065"),
        (json!({ "1": "10000", "7": "7", "2b": true }), "K-066"),
        (json!({ "1": "10000", "7": "P" }), "1099-R-P"),
        (json!({ "1": "10000", "7": "1", "7.ira": true }), "K-068"),
    ] {
        assert!(has_point(&paper(single(), &boxes).outcome(), code), "{code}");
    }
    assert!(has_point(&paper(retired(), &json!({ "1": "900", "7": "1" })).outcome(), "K-065"));
}

/// Straight to charity from 70½ on: 108,000 for each person.
#[test]
fn gifts_straight_to_charity() {
    let old = |born: &str, given: i64| {
        let boxes = json!({ "1": "150000", "7": "7", "7.ira": true, "given": given.to_string() });
        paper(Family::of(2025).filer("ada", born), &boxes).outcome()
    };
    for (given, taxed) in [(107_999, 42_001), (108_000, 42_000), (108_001, 42_000)] {
        assert_lines(&old("1950-01-01", given), &[("us.4a", 150_000), ("us.4b", taxed)]);
    }
    assert!(!has_point(&old("1955-06-30", 1_000), "K-070"));
    assert!(has_point(&old("1955-07-01", 1_000), "K-070"));
}

/// Simplified Method: cost 31,000, one life, 64 at the start: 260 payments of 119.23; with two lives of together 125: 310, 100.
#[test]
fn the_simplified_method() {
    for (more, recovered) in [
        (json!({ "start.age": 64 }), 1_431),
        (json!({ "start.age": 65 }), 1_431),
        (json!({ "start.age": 66 }), 1_771),
        (json!({ "start.age": 125, "start.joint": true }), 1_200),
        (json!({ "start.age": 64, "months": 5 }), 596),
        (json!({ "start.age": 64, "recovered": "30500" }), 500),
        (json!({ "start.age": 64, "recovered": "31000" }), 0),
    ] {
        let mut boxes = json!({ "1": "24000", "7": "7", "2b": true, "9b": "31000" });
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        let outcome = paper(retired(), &boxes).outcome();
        assert_lines(&outcome, &[("us.5a", 24_000), ("us.5b", 24_000 - recovered)]);
        assert!(!has_point(&outcome, "K-066"));
    }
}

/// Premiums of a retired public safety officer: up to 3,000.
#[test]
fn premiums_of_a_public_safety_officer() {
    for (premiums, left) in [(2_999, 2_999), (3_000, 3_000), (3_001, 3_000)] {
        let outcome =
            paper(retired(), &json!({ "1": "24000", "7": "7", "officer": premiums.to_string() })).outcome();
        assert_lines(&outcome, &[("us.5b", 24_000 - left)]);
    }
}

/// Form 8606: basis 12,000, value at the end 50,000, out 10,000: 12 ÷ 60 = .200.
#[test]
fn basis_comes_out_in_proportion() {
    let with = |boxes: Value, basis: &str| {
        let basis = json!({ "2": basis, "6": "50000" });
        paper(single(), &boxes).paper("8606", &["ada"], basis, json!(null)).outcome()
    };
    let outcome = with(json!({ "1": "10000", "7": "1", "7.ira": true }), "12000");
    assert_lines(&outcome, &[("us.4a", 10_000), ("us.4b", 8_000), ("us.sched_2.8", 800)]);
    assert_eq!(line_of(&outcome, "us.8606.14", "person/ada"), 10_000);
    // A conversion is taxed alike, and not early.
    let outcome = with(json!({ "1": "10000", "7": "2", "7.ira": true, "converted": "10000" }), "12000");
    assert_lines(&outcome, &[("us.4b", 8_000), ("us.sched_2.8", 0)]);
    assert_eq!(line_of(&outcome, "us.8606.18", "person/ada"), 8_000);
    // Three places: 10,000 ÷ 60,000 = .167.
    assert_lines(&with(json!({ "1": "10000", "7": "7", "7.ira": true }), "10000"), &[("us.4b", 8_330)]);
    assert_lines(&with(json!({ "1": "10000", "7": "7", "7.ira": true }), "70000"), &[("us.4b", 0)]);
    let no_value = paper(single(), &json!({ "1": "900", "7": "2", "7.ira": true }));
    let no_value = no_value.paper("8606", &["ada"], json!({ "2": "500" }), json!(null)).outcome();
    assert!(has_point(&no_value, "8606-6"));
}

/// Out of a Roth IRA contributions come first, then conversions, then income.
#[test]
fn roth_distributions() {
    let with = |basis: Value| {
        paper(single(), &json!({ "1": "10000", "7": "J" }))
            .paper("8606", &["ada"], basis, json!(null))
            .outcome()
    };
    assert_lines(&with(json!({ "22": "12000" })), &[("us.4a", 10_000), ("us.4b", 0), ("us.sched_2.8", 0)]);
    assert_lines(&with(json!({ "22": "7000" })), &[("us.4b", 3_000), ("us.sched_2.8", 300)]);
    assert_lines(&with(json!({ "22": "1000", "20": "20000" })), &[("us.4b", 0)]);
    assert!(!with(json!({ "22": "7000", "24": "2000" })).covered);
    assert!(has_point(&paper(single(), &json!({ "1": "10000", "7": "J" })).outcome(), "8606-22"));
}

/// Benefits: 34,000 of two of 67, pension 22,000, IRA 6,000, interest 1,200 and 2,000 tax-exempt, in 2024.
#[test]
fn benefits_of_a_couple() {
    let family = |ira: i64| {
        Family::of(2024)
            .filer("ada", "1957-02-02")
            .filer("bo", "1957-03-03")
            .answer("marital", json!("married"))
            .answer("apart", json!(false))
            .paper("SSA-1099", &["ada"], json!({ "3": "20000", "5": "20000" }), json!(null))
            .paper("SSA-1099", &["bo"], json!({ "5": "14000" }), json!(null))
            .paper("1099-R", &["ada"], json!({ "1": "22000", "2a": "22000", "7": "7" }), json!(null))
            .paper("1099-R", &["bo"], json!({ "1": ira.to_string(), "7": "7", "7.ira": true }), json!(null))
            .paper("1099-INT", &["ada", "bo"], json!({ "1": "1200", "8": "2000" }), json!(null))
    };
    assert_lines(
        &family(6_000).outcome(),
        &[
            ("us.6a", 34_000),
            ("us.ss.7", 48_200),
            ("us.ss.9", 16_200),
            ("us.6b", 9_570),
            ("us.agi", 38_770),
            ("us.standard", 32_300),
            ("us.15", 6_470),
            ("us.16", 648),
        ],
    );
    assert_eq!(line(&family(7_000).outcome(), "us.agi"), 38_770 + 1_850);
    // Apart, having lived together: 85 % from the first dollar.
    let apart = family(6_000).pin("us.status", "separate").outcome();
    // Bo: 6,000 + 600 + 1,000 + 7,000 = 14,600, of which 85 % is 12,410; 85 % of the benefits 11,900.
    assert_eq!(line_of(&apart, "us.6b", "return/1"), 11_900);
    let all_year = family(6_000).answer("apart", json!(true)).answer("apart_all_year", json!(true));
    assert_eq!(line_of(&all_year.pin("us.status", "separate").outcome(), "us.6b", "return/1"), 0);
}

/// One dollar below, at and above both base amounts of someone single: 25,000 and 34,000.
#[test]
fn the_base_amounts() {
    for (other, taxed) in
        [(19_999, 0), (20_000, 0), (20_002, 1), (29_000, 4_500), (29_001, 4_501), (40_000, 8_500)]
    {
        let outcome = retired()
            .paper("SSA-1099", &["ada"], json!({ "5": "10000" }), json!(null))
            .paper("1099-R", &["ada"], json!({ "1": other.to_string(), "7": "7" }), json!(null))
            .outcome();
        assert_eq!(line(&outcome, "us.6b"), taxed, "{other}");
    }
}

/// What was paid for 2023 is taxed by its income, if that is lower: then nothing.
#[test]
fn benefits_for_an_earlier_year() {
    let row = json!({ "year": 2023, "amount": "6000", "benefits": "10000", "income": "9000", "taxed": "0" });
    let family = retired()
        .paper("SSA-1099", &["ada"], json!({ "5": "18000", "earlier": "6000" }), json!([row]))
        .paper("1099-R", &["ada"], json!({ "1": "40000", "7": "7" }), json!(null));
    let outcome = family.outcome();
    // Without the 6,000: 12,000 of benefits, 85 % of them 10,200. With them 15,300.
    assert_lines(&outcome, &[("us.ss.earlier", 0), ("us.6b", 10_200)]);
    assert_lines(&family.clone().pin("us.lump_sum", "now").outcome(), &[("us.6b", 15_300)]);
    let told = retired().paper("SSA-1099", &["ada"], json!({ "5": "18000", "earlier": "6000" }), json!(null));
    assert!(has_point(&told.outcome(), "K-072"));
    // Income of 30,000 then: 30,000 + 8,000 is 13,000 above 25,000: 4,500 + 85 % × 4,000 = 7,900, of which 4,000 was taxed.
    let row =
        json!({ "year": 2023, "amount": "6000", "benefits": "10000", "income": "30000", "taxed": "4000" });
    let rich = retired()
        .paper("SSA-1099", &["ada"], json!({ "5": "18000", "earlier": "6000" }), json!([row]))
        .paper("1099-R", &["ada"], json!({ "1": "40000", "7": "7" }), json!(null))
        .pin("us.lump_sum", "earlier");
    assert_lines(&rich.outcome(), &[("us.ss.earlier", 3_900), ("us.6b", 14_100)]);
}

/// Medicare premiums taken out of the benefits are medical bills already.
#[test]
fn medicare_premiums_are_medical() {
    let boxes = json!({ "5": "18000", "medicare": "2200" });
    let outcome = retired().paper("SSA-1099", &["ada"], boxes, json!(null)).outcome();
    assert_lines(&outcome, &[("us.sched_a.1", 2_200)]);
}

/// Contributions that were deducted since 70½ lower what leaves an IRA for charity untaxed.
#[test]
fn gifts_after_deducted_contributions() {
    for (given, deducted, taxed) in
        [("20000", "0", 0), ("20000", "7000", 7_000), ("5000", "7000", 5_000), ("120000", "7000", 19_000)]
    {
        let family = Family::of(2025).filer("ada", "1950-01-01").set(
            "ada",
            "/answers/ira_deducted_since_70",
            json!(deducted),
        );
        let boxes = json!({ "1": given, "2a": given, "7": "7", "7.ira": true, "given": given });
        let outcome = family.paper("1099-R", &["ada"], boxes, json!(null)).outcome();
        assert_lines(&outcome, &[("us.4b", taxed)]); // 108,000 in 2025
    }
}

/// A qualified distribution of a Roth IRA stands on line 4a.
#[test]
fn a_qualified_roth_distribution() {
    let boxes = json!({ "1": "9000", "7": "Q" });
    let outcome =
        Family::of(2025).filer("ada", "1950-01-01").paper("1099-R", &["ada"], boxes, json!(null)).outcome();
    assert_lines(&outcome, &[("us.4a", 9_000), ("us.4b", 0), ("us.5a", 0)]);
}
