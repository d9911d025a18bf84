//! Advice: what each step would be worth, worked by hand from the tables of 2026.

use hembo_testing::za::{Family, steps};
use serde_json::json;

fn employee(pay: &str) -> Family {
    Family::single(2026, "1985-06-01").pay("ada", &[("3601", pay)])
}

/// Taxable 400,000: 29,500 above the bracket of 26 % (370,500), at 31 %: 9,145.00. The most is 27.5 % of 400,000 = 110,000: further
/// 80,500 at 26 % = 20,930.00, together 30,075.00.
#[test]
fn contributions_are_told_to_each_bracket_and_to_the_most() {
    let what = "More into a retirement annuity";
    let expected = steps(&[("29500.00", "-9145.00"), ("110000.00", "-30075.00")]);
    assert_eq!(employee("400000").advised(what), expected);
    // All that is deducted is paid already.
    assert_eq!(employee("400000").paper("Annuity", "ada", json!({ "paid": "110000" })).advised(what), None);
    // Below the threshold a contribution saves nothing.
    assert_eq!(employee("95750").advised(what), None);
}

/// Interest of 30,800: 7,000 above the exemption, at 26 %.
#[test]
fn taxed_interest_is_told_for_a_tax_free_account_while_there_is_room() {
    let what = "A tax-free account";
    let with = |paid: &str, before: &str| {
        let boxes = json!({ "paid": paid, "before": before });
        employee("300000").interest("ada", "30800").paper("IT3(s)", "ada", boxes)
    };
    assert_eq!(with("35999", "0").advised(what), steps(&[("1000.00", "-260.00")]));
    assert_eq!(with("36000", "0").advised(what), None);
    assert_eq!(with("0", "499999").advised(what), steps(&[("1000.00", "-260.00")]));
    assert_eq!(with("0", "500000").advised(what), None);
    assert_eq!(employee("300000").interest("ada", "23800").advised(what), None);
}

/// Bo earns nothing: 20,000 of interest are within the exemption 23,800; all 16,200 that are taxed at 26 % go: 4,212.00.
#[test]
fn interest_goes_to_the_spouse_out_of_community_only() {
    let what = "Interest-bearing money to the spouse";
    let couple = |marriage: &str, of_bo: &str| {
        let couple = Family::couple(2026, marriage, ["1985-06-01", "1986-06-01"]);
        couple.pay("ada", &[("3601", "300000")]).interest("ada", "40000").interest("bo", of_bo)
    };
    assert_eq!(couple("out", "0").advised(what), steps(&[("16200.00", "-4212.00")]));
    // Bo has 20,000 of own interest: 3,800 within the exemption save 988.00; the rest is taxed at no more than the threshold: the same.
    let expected = steps(&[("3800.00", "-988.00"), ("16200.00", "-4212.00")]);
    assert_eq!(couple("out", "20000").advised(what), expected);
    assert_eq!(couple("community", "0").advised(what), None);
}

/// Turnover 620,000, costs 200,000. Normal tax: 420,000 → 77,362 + 31 % × 49,500 = 92,707.00, less 17,235 = 75,472.00; turnover tax
/// 1,650 + 2 % × 120,000 = 4,050.00.
#[test]
fn turnover_tax_is_told_where_it_saves_and_computed_where_it_was_elected() {
    let what = "Turnover tax";
    let trade = |turnover: &str, costs: &str, elected: bool| {
        let boxes = json!({ "turnover": turnover, "turnover_tax": elected });
        let rows = json!([{ "what": "costs", "amount": costs }]);
        Family::single(2026, "1985-06-01").shared("Trade", &[("ada", "100")], boxes, rows)
    };
    assert_eq!(trade("620000", "200000", false).advised(what), steps(&[("", "-71422.00")]));
    // A trade that leaves little is better off under normal tax; above a million it is closed.
    assert_eq!(trade("620000", "600000", false).advised(what), None);
    assert!(trade("1000000", "0", false).advised(what).is_some());
    assert_eq!(trade("1000001", "0", false).advised(what), None);
    for (turnover, tax) in [
        ("335000", "0.00"),
        ("335001", "0.01"),
        ("500000", "1650.00"),
        ("620000", "4050.00"),
        ("750000", "6650.00"),
        ("1000000", "14150.00"),
    ] {
        assert_eq!(trade(turnover, "9", true).outcome().total.to_string(), tax, "{turnover}");
    }
}

/// 300,000 for work abroad are taxed with 42,678 + 26 % × 62,900 = 59,032.00, less 17,235 = 41,797.00; a day more makes them exempt.
#[test]
fn days_abroad_are_told_where_they_are_near() {
    let what = "More days abroad";
    let away = |days: i64, run: i64| {
        let boxes = json!({ "amount": "300000", "days": days, "run": run });
        Family::single(2026, "1985-06-01").paper("Work abroad", "ada", boxes)
    };
    assert_eq!(away(183, 61).advised(what), steps(&[("", "-41797.00")]));
    assert_eq!(away(184, 60).advised(what), steps(&[("", "-41797.00")]));
    assert_eq!(away(154, 61).advised(what), steps(&[("", "-41797.00")]));
    assert_eq!(away(153, 61).advised(what), None);
    assert_eq!(away(184, 61).advised(what), None);
}

/// Earlier lump sums of 500,000: 50,000 more are free, then 18 % on 220,000 = 39,600.00, then 27 % on 385,000 = 103,950.00.
#[test]
fn cash_on_retirement_is_told_with_its_price_at_the_ends_of_the_table() {
    let what = "Cash on retirement";
    let of_age = |born: &str| {
        let boxes =
            json!({ "directive": "1", "kind": "retirement", "amount": "100000", "earlier": "400000" });
        Family::single(2026, born)
            .pay("ada", &[("3601", "300000"), ("4001", "20000")])
            .paper("Lump sum", "ada", boxes)
    };
    let expected = steps(&[("50000.00", "0.00"), ("270000.00", "39600.00"), ("655000.00", "143550.00")]);
    assert_eq!(of_age("1971-02-28").advised(what), expected);
    assert_eq!(of_age("1971-03-01").advised(what), None);
}

/// Taxable 360,000: 2,000 at 26 %; 10,500 to the end of that rate.
#[test]
fn a_withdrawal_of_savings_is_told_with_its_price_since_there_is_one() {
    let what = "A withdrawal of savings";
    let of =
        |year: i32| Family::single(year, "1985-06-01").pay("ada", &[("3601", "380000"), ("4001", "20000")]);
    assert_eq!(of(2026).advised(what), steps(&[("2000.00", "520.00"), ("10500.00", "2730.00")]));
    assert_eq!(of(2024).advised(what), None);
}
