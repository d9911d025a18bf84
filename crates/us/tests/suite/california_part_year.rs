//! Part-year residents and nonresidents of California by hand from the law: Form 540NR, months of residence, what is asked.

use hembo_testing::us::{Family, has_point, line_of};
use serde_json::{Value, json};

/// A single filer who moved there on a day, with wages of all places and of California.
fn moved(year: i32, day: &str, wages: i64, here: i64) -> Family {
    let family = Family::single(year).in_california().answer("ca_all_year", json!(false));
    let family = family.answer_for("ada", "ca_from", json!(day));
    family.wages_with("ada", wages, json!({ "15": "CA", "16": here.to_string(), "17": "900" }))
}

fn lines<const N: usize>(family: &Family, ids: [&str; N]) -> [i64; N] {
    let outcome = family.outcome();
    ids.map(|id| line_of(&outcome, &format!("us.ca.{id}"), "return/0"))
}

const STEPS: [&str; 10] = [
    "540.18",
    "540.19",
    "540.31",
    "540nr.27e",
    "540nr.iv.4",
    "540nr.35",
    "540nr.37",
    "540nr.39",
    "540.33",
    "540nr.away",
];

/// 80,000 of all places, 32,000 of California: 0.4000 of the deduction; 3,471 ÷ 74,460 is 0.0466; 0.4000 of the credit.
#[test]
fn the_average_rate_on_what_is_of_california() {
    let family = moved(2024, "2024-08-01", 80_000, 32_000);
    assert_eq!(lines(&family, STEPS), [5_540, 74_460, 3_471, 32_000, 2_216, 29_784, 1_388, 60, 1_328, 2_083]);
    let outcome = family.outcome();
    assert!(outcome.covered, "{:?}", outcome.points);
    // 900 withheld.
    assert_eq!(lines(&family, ["540.64", "540.71", "540.111"]), [1_328, 900, 428]);
}

/// All, nothing, and more of California than in all.
#[test]
fn the_ends_of_the_proportion() {
    let of =
        |here: i64| lines(&moved(2024, "2024-08-01", 80_000, here), ["540nr.35", "540nr.37", "540nr.39"]);
    // 3,471 ÷ 74,460 is 0.0466, and 74,460 of it 3,470: the rate is rounded.
    assert_eq!(of(80_000), [74_460, 3_470, 149]);
    assert_eq!(of(0), [0, 0, 0]);
    assert!(has_point(&moved(2024, "2024-08-01", 80_000, 80_001).outcome(), "ca-540nr-more"));
}

/// 50,000 of all places, 20,000 of California: 17,784 at 0.0281 is 500, less 60; the renter's credit by whole months, from six on.
#[test]
fn the_renters_credit_by_months() {
    let of = |day: &str| {
        let family = moved(2024, day, 50_000, 20_000).answer_for("ada", "ca_rented", json!(true));
        lines(&family, ["540nr.37", "540.33", "540.46", "540.48"])
    };
    assert_eq!(of("2024-06-01"), [500, 440, 35, 405]);
    assert_eq!(of("2024-06-02"), [500, 440, 30, 410]);
    assert_eq!(of("2024-07-02"), [500, 440, 0, 440]);
    let back = moved(2024, "2024-10-01", 50_000, 20_000)
        .answer_for("ada", "ca_until", json!("2024-05-31"))
        .answer_for("ada", "ca_rented", json!(true));
    assert_eq!(lines(&back, ["540.46"]), [40], "left in May and came back in October: eight months");
}

/// 6,000 of 12,000: half of the credit that is paid out; none to who never lived there.
#[test]
fn credits_that_are_paid_out_in_part() {
    let family = moved(2024, "2024-07-01", 12_000, 6_000);
    assert_eq!(lines(&family, ["540nr.35", "540.75"]), [3_230, 41]);
    let never = moved(2024, "2024-07-01", 12_000, 6_000).answer_for("ada", "ca_outside", json!(true));
    assert_eq!(lines(&never, ["540nr.35", "540.75"]), [3_230, 0]);
}

/// Care in California: no more than what was earned there, a half of the federal part.
#[test]
fn care_by_what_was_earned_there() {
    let of = |here: i64| {
        let family = moved(2024, "2024-07-01", 38_000, here).child("cy", "2019-05-05");
        let rows = json!([{ "person": "cy", "amount": "3000" }]);
        lines(
            &family.paper("Care", &["ada"], json!({ "number": "36-4410927", "address": "9 Quay" }), rows),
            ["3506.12"],
        )[0]
    };
    // 38,000: 23 % of 3,000 is 690, half of it 345; 2,000 earned there: 230.
    assert_eq!([of(3_000), of(2_999), of(2_000)], [345, 345, 230]);
}

/// Months before arrival are free of the penalty for months without cover; two in a gap are short.
#[test]
fn months_without_cover_before_arrival() {
    let family = |cells: &[(&str, &str)]| {
        let mut row = json!({ "person": "ada", "year": "Z" });
        for (month, cell) in cells {
            row[*month] = json!(cell);
        }
        let family = moved(2025, "2025-07-15", 60_000, 30_000).answer("ca_covered", json!(false));
        family.paper("Health cover", &["ada"], json!({}), json!([row]))
    };
    let before: Vec<(&str, &str)> = ["m1", "m2", "m3", "m4", "m5", "m6"].map(|month| (month, "X")).into();
    assert_eq!(lines(&family(&before), ["3853.months"]), [0]);
    let later = [before.clone(), vec![("m7", "X"), ("m8", "X")]].concat();
    assert_eq!(lines(&family(&later), ["3853.months"]), [2]);
}

/// Every kind of income needs its part, of whoever it is; use tax is on Form 540 alone.
#[test]
fn what_is_asked_of_who_moved() {
    let family = || moved(2025, "2025-03-01", 60_000, 30_000);
    let asks = ["ca-540nr-days", "ca-540nr-part", "ca-540nr-state"];
    let open = |family: &Family| {
        let outcome = family.outcome();
        asks.into_iter().filter(|code| has_point(&outcome, code)).collect::<Vec<_>>()
    };
    assert!(open(&family()).is_empty());
    let interest = || family().interest(&["ada"], 700);
    assert!(has_point(&interest().outcome(), "ca-540nr-part"));
    let told = |amount: &str| {
        let rows = json!([{ "kind": "interest", "amount": amount }]);
        interest().paper("Schedule CA (540NR)", &["ada"], json!({}), rows)
    };
    assert!(!has_point(&told("0").outcome(), "ca-540nr-part"));
    assert_eq!(lines(&told("500"), ["540nr.27e", "540nr.e.2b"]), [30_500, 500]);
    let still = Family::single(2025).in_california().answer("ca_all_year", json!(false)).wages("ada", 9_000);
    assert!(has_point(&still.outcome(), "ca-540nr-days") && has_point(&still.outcome(), "ca-540nr-wages"));
    let oregon = family().answer("state", json!("OR"));
    assert!(open(&oregon).is_empty());
    let all_year = oregon.answer("ca_all_year", json!(true));
    assert!(has_point(&all_year.outcome(), "ca-540nr-state"));
    let use_tax = family().answer("ca_use_tax", Value::String("90".into()));
    assert_eq!(lines(&use_tax, ["540.91"]), [0]);
}

/// Tax of 1,328. Carried credits count in full, not 0.4000 of them; minimum tax of earlier years too, as there is none of this year.
#[test]
fn carried_credits_in_full() {
    let family = || moved(2024, "2024-08-01", 80_000, 32_000);
    let with = |kind: &str, boxes: Value| {
        let family = family().paper(kind, &["ada"], boxes, json!([]));
        assert!(has_point(&family.outcome(), "ca-540nr-credits") && family.outcome().covered, "{kind}");
        lines(&family, ["540.44", "540.48"])
    };
    assert_eq!(with("Code 197", json!({ "costs": "1000" })), [500, 828]);
    assert_eq!(with("Code 197", json!({ "costs": "4000" })), [1_328, 0]);
    assert_eq!(with("FTB 3592", json!({ "certified": "600" })), [300, 1_028]);
    assert_eq!(with("FTB 3510", json!({ "minimum": "400", "exclusion": "0" })), [400, 928]);
    assert!(!has_point(&family().outcome(), "ca-540nr-credits"));
}

/// 8,000 of 32,000 of California, 0.2500 of 1,328: 332, and no more; of the other state's tax 0.4000.
#[test]
fn tax_of_another_state_for_its_time() {
    let of = |family: Family, state: &str, tax: i64| {
        let boxes = json!({ "state": state, "here": "8000", "there": "8000", "income": "20000", "tax": tax.to_string() });
        let family = family.paper("Schedule S", &["ada"], boxes, json!([]));
        (lines(&family, ["540.44", "540.48"]), has_point(&family.outcome(), "ca-s-state"))
    };
    let mover = || moved(2024, "2024-08-01", 80_000, 32_000);
    assert_eq!(of(mover(), "NY", 800), ([320, 1_008], false));
    assert_eq!(of(mover(), "NY", 829), ([332, 996], false), "331.60");
    assert_eq!(of(mover(), "NY", 1_000), ([332, 996], false));
    assert_eq!(of(mover(), "AZ", 1_000), ([332, 996], false), "of the time in Arizona");
    // Who never lived there is credited for Arizona alone.
    let never = || mover().answer_for("ada", "ca_outside", json!(true));
    assert_eq!(of(never(), "AZ", 1_000), ([332, 996], false));
    assert_eq!(of(never(), "NY", 1_000), ([0, 1_328], true));
}

/// Wages that two states have together are no double income; more than there are ask for Schedule S.
#[test]
fn wages_that_two_states_tax() {
    let of = |here: i64, state: &str, there: i64| {
        let boxes = json!({
            "15": "CA", "16": here.to_string(), "17": "900", "15b": state, "16b": there.to_string(), "17b": "500",
        });
        let family = Family::single(2024).in_california().answer("ca_all_year", json!(false));
        family.answer_for("ada", "ca_from", json!("2024-08-01")).wages_with("ada", 80_000, boxes)
    };
    assert!(!has_point(&of(50_000, "NY", 30_000).outcome(), "ca-other-state"));
    assert!(has_point(&of(50_000, "NY", 30_001).outcome(), "ca-other-state"));
    let none = json!({ "state": "NY", "tax": "0" });
    let told = of(50_000, "NY", 40_000).paper("Schedule S", &["ada"], none, json!([])).outcome();
    assert!(!has_point(&told, "ca-other-state") && told.covered, "{:?}", told.points);
}
