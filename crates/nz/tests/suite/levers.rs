//! Advice: what each step would be worth, worked by hand from the scale of the year ended 31 March 2026.

use hembo_testing::nz::{Family, steps};
use serde_json::json;

/// Ada's 90,000 of pay and 20,000 of interest are taxed at 33 % down to 78,100; Bo's 50,000 at 17.5 % up to 53,500. 3,500 × 15.5 % =
/// 542.50; 16,000: 12,500 × 3 % more, 917.50; all 20,000: 4,000 × 3 % more, but Bo's earner credit of 520 is gone: 517.50. The end of
/// Ada's bracket is 31,900 away: more than there is.
#[test]
fn interest_is_told_for_the_partner_to_the_ends_of_the_brackets() {
    let what = "Interest-bearing money to the partner";
    let couple = |of_bo: &str| {
        Family::couple(2026).pay("ada", "90000", "0").interest("ada", "20000").pay("bo", of_bo, "0")
    };
    assert_eq!(
        couple("50000").advised(what),
        steps(&[("3500.00", "-542.50"), ("16000.00", "-917.50"), ("20000.00", "-517.50")])
    );
    // Who has as much gains nothing by it.
    assert_eq!(couple("110000").advised(what), None);
    assert_eq!(Family::single(2026).pay("ada", "90000", "0").interest("ada", "20000").advised(what), None);
}

/// A profit of 80,000: 1,000 of costs save 33 %; 1,900 down to 78,100 save 627.00.
#[test]
fn costs_before_the_year_ends_are_told_to_the_bracket_below() {
    let what = "Costs before 31 March";
    let trade =
        |turnover: &str| Family::single(2026).paper("Own trade", "ada", json!({ "turnover": turnover }));
    assert_eq!(trade("80000").advised(what), steps(&[("1000.00", "-330.00"), ("1900.00", "-627.00")]));
    // At the end of a bracket the one below is told; at 53,500 the earner credit of 520 is whole.
    assert_eq!(trade("78100").advised(what), steps(&[("1000.00", "-300.00"), ("24600.00", "-7900.00")]));
    assert_eq!(Family::single(2026).pay("ada", "80000", "0").advised(what), None);
}

/// 40,000 of profit on top of 90,000 of pay: 33 %, 13,200.00.
#[test]
fn land_sold_within_the_time_is_told_with_the_day_from_which_it_is_free() {
    let what = "Land sold after the time";
    let sold = |day: &str| {
        let row = json!({ "acquired": "2024-01-15", "sold": day, "price": "440000", "cost": "400000" });
        Family::single(2026).pay("ada", "90000", "0").rows("Land sold", "ada", json!([row]))
    };
    assert_eq!(sold("2026-01-14").advised(what), steps(&[("", "-13200.00")]));
    assert_eq!(sold("2026-01-15").advised(what), None);
}
