//! Credits of California by code that carry on or meet another state (codes 187, 188, 197, 235) and FTB 5805, worked by hand.

use hembo_testing::us::{Family, has_point, line_of};
use serde_json::{Value, json};

/// The lines of the first return in whole dollars; nothing where the return has no such line.
fn lines<const N: usize>(family: &Family, ids: [&str; N]) -> [i64; N] {
    let outcome = family.outcome();
    ids.map(|id| {
        let id = format!("us.ca.{id}");
        let found = outcome.lines.iter().any(|line| line.id == id && line.scope == "return/0");
        if found { line_of(&outcome, &id, "return/0") } else { 0 }
    })
}

fn single(year: i32, pay: i64, withheld: i64) -> Family {
    let state = json!({ "15": "CA", "16": pay.to_string(), "17": withheld.to_string() });
    Family::single(year).in_california().wages_with("ada", pay, state)
}

/// Pay of 80,000 in 2024: taxable 74,460, tax 3,471 less 149.
fn of_2024() -> Family {
    single(2024, 80_000, 3_000)
}

fn schedule_s(state: &str, here: i64, there: i64, income: i64, tax: i64) -> Family {
    let boxes = json!({
        "state": state, "here": here.to_string(), "there": there.to_string(), "income": income.to_string(),
        "tax": tax.to_string(),
    });
    of_2024().paper("Schedule S", &["ada"], boxes, json!([]))
}

/// 3,322 × 0.2500 = 830.50; the other's tax in its own part.
#[test]
fn the_smaller_of_both_states_parts() {
    let credit = |family: Family| lines(&family, ["187", "540.48"]);
    assert_eq!(credit(of_2024()), [0, 3_322]);
    for (tax, expected) in [(0, 0), (830, 830), (831, 831), (832, 831), (5_000, 831)] {
        assert_eq!(
            credit(schedule_s("NY", 20_000, 20_000, 20_000, tax)),
            [expected, 3_322 - expected],
            "{tax}"
        );
    }
    // Four places: 12,345 / 80,000 = 0.1543, of the tax 512.58.
    assert_eq!(credit(schedule_s("NY", 12_345, 12_345, 12_345, 900))[0], 513);
    // There a third of 90,000: 0.3333 × 2,000 = 666.60.
    assert_eq!(credit(schedule_s("NY", 30_000, 30_000, 90_000, 2_000))[0], 667);
    // No part is more than all, and nothing is a part of nothing.
    assert_eq!(credit(schedule_s("NY", 90_000, 20_000, 10_000, 4_000))[0], 3_322);
    assert_eq!(credit(schedule_s("NY", 20_000, 20_000, 0, 900))[0], 0);
}

/// Each state by itself, all of them up to the tax; two papers of one state are one Schedule S.
#[test]
fn one_schedule_for_each_state() {
    let add = |family: Family, state: &str, amount: i64, tax: i64| {
        let amount = amount.to_string();
        let boxes = json!({ "state": state, "here": amount, "there": amount, "income": amount, "tax": tax.to_string() });
        family.paper("Schedule S", &["ada"], boxes, json!([]))
    };
    let two = add(add(of_2024(), "NY", 20_000, 900), "CO", 10_000, 300);
    assert_eq!(lines(&two, ["s.2", "187"]), [30_000, 831 + 300]);
    // 900 and 300 of half the income: 3,322 × 0.5 is above both.
    let same = add(add(of_2024(), "NY", 20_000, 900), "NY", 20_000, 300);
    assert_eq!(lines(&same, ["187"]), [1_200]);
    let all = add(add(of_2024(), "NY", 60_000, 3_000), "CO", 60_000, 3_000);
    assert_eq!(lines(&all, ["187", "540.48"]), [3_322, 0], "two of 2,492 each, up to the tax");
}

/// Arizona, Oregon and Virginia credit a resident of California themselves.
#[test]
fn states_that_credit_residents_of_california() {
    for state in ["AZ", "OR", "VA"] {
        let family = schedule_s(state, 20_000, 20_000, 20_000, 900);
        assert_eq!(lines(&family, ["187"]), [0], "{state}");
        assert!(has_point(&family.outcome(), "ca-s-state"));
    }
}

/// State wages elsewhere ask for the paper; with it the return is covered.
#[test]
fn wages_of_another_state_ask_for_schedule_s() {
    let wages =
        |state: &str| of_2024().wages_with("ada", 5_000, json!({ "15": state, "16": "5000", "17": "200" }));
    assert!(has_point(&wages("NY").outcome(), "ca-other-state"));
    assert!(!has_point(&wages("OR").outcome(), "ca-other-state"));
    let paper = json!({ "state": "NY", "tax": "0" });
    let told = wages("NY").paper("Schedule S", &["ada"], paper, json!([])).outcome();
    assert!(!has_point(&told, "ca-other-state") && told.covered);
    let lacks = wages("NY").paper("Schedule S", &["ada"], json!({ "state": "NY", "tax": "200" }), json!([]));
    assert!(has_point(&lacks.outcome(), "ca-s-income"));
}

/// Spouses who file apart each take their half of a paper of both.
#[test]
fn separate_returns_divide_the_other_state() {
    let boxes = json!({ "state": "NY", "here": "20000", "there": "20000", "income": "20000", "tax": "900" });
    let couple = |owners: &[&str]| {
        let state = json!({ "15": "CA", "16": "80000", "17": "3000" });
        Family::couple(2024)
            .in_california()
            .wages_with("ada", 80_000, state.clone())
            .wages_with("bo", 80_000, state)
            .paper("Schedule S", owners, boxes.clone(), json!([]))
            .pin("us.status", "separate")
            .outcome()
    };
    let both = couple(&["ada", "bo"]);
    // 3,322 × 0.1250 = 415.25 of each, below 450.
    assert_eq!(["return/0", "return/1"].map(|at| line_of(&both, "us.ca.187", at)), [415, 415]);
}

/// Half the costs, up to 2,500 a child; what the tax does not take is carried on.
#[test]
fn adoption_costs() {
    let child = |family: Family, costs: i64, carried: i64| {
        let boxes = json!({ "costs": costs.to_string(), "carried": carried.to_string() });
        family.paper("Code 197", &["ada"], boxes, json!([]))
    };
    for (costs, counted) in
        [(0, 0), (4_997, 2_499), (4_998, 2_499), (4_999, 2_500), (5_000, 2_500), (9_000, 2_500)]
    {
        assert_eq!(lines(&child(of_2024(), costs, 0), ["197.year", "197"]), [counted; 2], "{costs}");
    }
    let two = child(child(of_2024(), 4_000, 500), 6_000, 0);
    assert_eq!(
        lines(&two, ["197.year", "197.carried", "197", "carryover.197", "540.48"]),
        [4_500, 500, 3_322, 1_678, 0]
    );
}

/// Half of what is certified, six years carried, the oldest first; what of it is a federal gift is none here.
#[test]
fn college_access() {
    let given = |certified: i64, rows: Value| {
        let boxes = json!({ "certified": certified.to_string() });
        of_2024().paper("FTB 3592", &["ada"], boxes, rows)
    };
    let row = |year: i64, amount: i64| json!({ "year": year, "amount": amount.to_string() });
    let of = |family: &Family| lines(family, ["3592.year", "3592.carried", "235", "carryover.235"]);
    assert_eq!(of(&given(1_000, json!([]))), [500, 0, 500, 0]);
    assert_eq!(of(&given(1_000, json!([row(2018, 3_000)]))), [500, 3_000, 3_322, 178]);
    assert_eq!(of(&given(1_000, json!([row(2018, 3_400)]))), [500, 3_400, 3_322, 500], "78 of 2018 end");
    assert_eq!(of(&given(1_000, json!([row(2017, 3_000)]))), [500, 0, 500, 0], "the seventh year");
    // Gifts of 12,000 of which 1,000 went to the fund: 11,000 here.
    let gifts = of_2024().paper("Gifts", &["ada"], json!({}), json!([{ "sort": "cash", "amount": "12000" }]));
    let gifts =
        gifts.paper("FTB 3592", &["ada"], json!({ "certified": "1000", "deducted": "1000" }), json!([]));
    assert_eq!(lines(&gifts, ["sca2.14.b", "sca2.14"]), [1_000, 11_000]);
}

/// The fund's credit ends sooner, so it goes before adoption costs.
#[test]
fn credits_that_end_go_first() {
    let both = of_2024().paper("FTB 3592", &["ada"], json!({ "certified": "6000" }), json!([])).paper(
        "Code 197",
        &["ada"],
        json!({ "costs": "5000" }),
        json!([]),
    );
    assert_eq!(lines(&both, ["235", "197", "carryover.197", "540.44"]), [3_000, 322, 2_178, 3_322]);
}

/// Last year's minimum tax without exclusion items comes back above the tentative one.
#[test]
fn minimum_tax_of_earlier_years() {
    let earlier = |minimum: i64, exclusion: i64, carried: i64| {
        let boxes = json!({
            "minimum": minimum.to_string(), "exclusion": exclusion.to_string(), "carried": carried.to_string(),
        });
        of_2024().paper("FTB 3510", &["ada"], boxes, json!([]))
    };
    assert_eq!(lines(&earlier(2_000, 500, 0), ["188", "carryover.188", "540.48"]), [1_500, 0, 1_822]);
    assert_eq!(lines(&earlier(4_000, 0, 200), ["188", "carryover.188", "540.48"]), [3_322, 878, 0]);
    assert_eq!(lines(&earlier(500, 800, 400), ["188"]), [100], "exclusion items lower what was carried");
    let unsaid = of_2024().paper("FTB 3510", &["ada"], json!({ "minimum": "2000" }), json!([]));
    assert!(has_point(&unsaid.outcome(), "ca-3510"));
}

fn last_year(family: Family, boxes: Value) -> Family {
    family.paper("Last year, California", &["ada"], boxes, json!([]))
}

/// 2025, pay 100,000: tax 5,056, 90 % of it 4,550; by thirty, forty, nothing and thirty per cent against 500 withheld each time:
/// 500 for 62 days and 365 for 76 at 8 % and 77 at 7 % of the first, 135, 500 and 1,185 of the second, 1,365 of the last for 90 days.
#[test]
fn the_penalty_for_late_instalments() {
    let family = last_year(single(2025, 100_000, 2_000), json!({ "tax": "6000", "agi": "100000" }));
    assert_eq!(
        lines(&family, ["540.64", "5805.1", "5805.2", "5805.6", "540.113", "540.100", "540.114", "balance"]),
        [5_056, 5_056, 4_550, 4_550, 134, 3_056, 3_190, 3_190]
    );
    assert!(has_point(&family.outcome(), "ca-5805-taken"));
    // Paid when due: nothing is late.
    let rows = json!([
        { "date": "2025-04-15", "amount": "865" }, { "date": "2025-06-16", "amount": "1320" },
        { "date": "2026-01-15", "amount": "365" },
    ]);
    let paid = last_year(single(2025, 100_000, 2_000), json!({ "tax": "6000", "agi": "100000" })).paper(
        "540-ES",
        &["ada"],
        json!({}),
        rows,
    );
    assert_eq!(lines(&paid, ["540.113", "540.114"]), [0, 506]);
}

/// None below 500 owed, after a year without tax, or where withholding comes to what is required.
#[test]
fn when_there_is_no_penalty() {
    // Tax 583, 90 % of it 525.
    let of = |withheld: i64, boxes: Value| {
        lines(&last_year(single(2025, 40_000, withheld), boxes), ["540.64", "5805.6", "540.113"])
    };
    let high = json!({ "tax": "2000", "agi": "40000" });
    assert_eq!(of(84, high.clone()), [583, 525, 0], "499 owed");
    let [_, _, penalty] = of(83, high);
    assert!(penalty > 0, "500 owed");
    assert_eq!(of(0, json!({ "tax": "2000", "agi": "40000", "none": true })), [583, 525, 0]);
    assert_eq!(of(83, json!({ "tax": "83", "agi": "40000" })), [583, 83, 0]);
    assert_eq!(lines(&single(2025, 40_000, 0), ["540.113"]), [0], "last year is not known");
    assert!(has_point(&single(2025, 40_000, 0).outcome(), "ca-5805"));
}

/// 110 % of last year's tax after more than 150,000; from 1,000,000 on only this year's tax counts.
#[test]
fn last_years_tax_after_high_incomes() {
    let of = |agi: i64| {
        let boxes = json!({ "tax": "4000", "agi": agi.to_string() });
        lines(&last_year(single(2025, 100_000, 2_000), boxes), ["5805.5", "5805.6"])
    };
    assert_eq!([of(150_000), of(150_001)], [[4_000, 4_000], [4_400, 4_400]]);
    let rich = |pay: i64| {
        let family = last_year(single(2025, pay, 2_000), json!({ "tax": "4000", "agi": "100000" }));
        lines(&family, ["5805.2", "5805.6"])
    };
    assert_eq!(rich(999_999)[1], 4_000);
    let [part, required] = rich(1_000_000);
    assert_eq!(part, required);
}

/// An overpayment bears the penalty first.
#[test]
fn a_refund_bears_the_penalty() {
    let rows = json!([{ "date": "2026-01-15", "amount": "4000" }]);
    let family = last_year(single(2025, 100_000, 2_000), json!({ "tax": "6000", "agi": "100000" })).paper(
        "540-ES",
        &["ada"],
        json!({}),
        rows,
    );
    let [penalty, overpaid, due, refund, balance] =
        lines(&family, ["540.113", "540.97", "540.114", "540.115", "balance"]);
    assert_eq!([overpaid, due, refund, balance], [944, 0, 944 - penalty, penalty - 944]);
    assert!(penalty > 0);
}
