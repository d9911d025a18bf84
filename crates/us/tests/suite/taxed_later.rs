//! Distributions of a disaster, spread over three years or taxed now, and an employer's shares, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn distribution(boxes: Value) -> Family {
    Family::single(2025).wages("ada", 60_000).paper("1099-R", &["ada"], boxes, Value::Null)
}

/// A third is taxed, to the dollar, the rest is left for two years, and nothing is taxed more for being early.
#[test]
fn a_plans_distribution_over_three_years() {
    for (gross, disaster, taxed, left, more) in [
        (21_000, 21_000, 7_000, 14_000, 0),
        (10_000, 10_000, 3_333, 6_667, 0),
        (10_001, 10_001, 3_334, 6_667, 0),
        (30_000, 21_000, 16_000, 14_000, 900),
        // No more of it than was distributed.
        (6_000, 9_000, 2_000, 4_000, 0),
    ] {
        let boxes = json!({ "1": gross.to_string(), "2a": gross.to_string(), "7": "1", "disaster": disaster.to_string() });
        let spread = distribution(boxes.clone()).outcome();
        assert!(spread.covered, "{:?}", spread.points);
        assert_lines(&spread, &[("us.5b", taxed), ("us.agi", 60_000 + taxed), ("us.sched_2.8", more)]);
        assert_eq!(line_of(&spread, "us.carryover.disaster_plan", "person/ada"), left);
        let now = distribution(boxes).pin("us.disaster_distributions.ada", "now").outcome();
        assert_lines(&now, &[("us.5b", gross), ("us.sched_2.8", more)]);
        assert!(now.total >= spread.total);
    }
}

/// Out of an IRA half of which is basis: 10,500 are taxed, a third of them now. Thirds of earlier years join, less what was repaid.
#[test]
fn an_ira_and_earlier_years() {
    let boxes = json!({ "1": "21000", "2a": "21000", "7": "1", "7.ira": true, "disaster": "21000" });
    let basis = json!({ "2": "10500", "6": "0" });
    let family = distribution(boxes).paper("8606", &["ada"], basis, Value::Null);
    assert_lines(&family.clone().outcome(), &[("us.4b", 3_500), ("us.sched_2.8", 0)]);
    let earlier = json!({ "14": "5000", "14.repaid": "2000", "25": "1000", "25.repaid": "1200" });
    let outcome = family.paper("8915-F", &["ada"], earlier, Value::Null).outcome();
    assert_lines(&outcome, &[("us.4b", 3_300), ("us.5b", 3_000), ("us.agi", 66_300)]);
    assert_eq!(line_of(&outcome, "us.8915.26", "person/ada"), 3_300);
    assert!(has_point(&outcome, "8915-repaid"));
    // Without any distribution this year.
    let alone = Family::single(2025).wages("ada", 60_000);
    let alone = alone.paper("8915-F", &["ada"], json!({ "14": "5000", "25": "700" }), Value::Null).outcome();
    assert_lines(&alone, &[("us.4b", 700), ("us.5b", 5_000), ("us.agi", 65_700)]);
    assert!(alone.covered);
}

/// More than 22,000 is of more than one disaster; a Roth IRA is not computed.
#[test]
fn what_is_told() {
    let of = |boxes: Value| distribution(boxes).outcome();
    let boxes = |gross: &str| json!({ "1": gross, "2a": gross, "7": "1", "disaster": gross });
    assert!(!has_point(&of(boxes("22000")), "8915-most"));
    assert!(has_point(&of(boxes("22001")), "8915-most"));
    let roth = of(json!({ "1": "900", "7": "J", "disaster": "900" }));
    assert!(has_point(&roth, "8915-other") && !roth.covered);
}

/// 60,000 of an employer's shares appreciated in the plan: taxed when sold, or with the distribution and, where that is early, 10 % more.
#[test]
fn appreciation_of_an_employers_shares() {
    for (code, later, now) in [("7", 0, 0), ("1", 4_000, 10_000)] {
        let boxes = json!({ "1": "100000", "2a": "40000", "6": "60000", "7": code, "2b.total": true });
        let family = Family::single(2025).wages("ada", 60_000);
        let family = family.paper("1099-R", &["ada"], boxes, Value::Null);
        let left = family.clone().outcome();
        assert_lines(&left, &[("us.5b", 40_000), ("us.sched_2.8", later)]);
        let taken = family.pin("us.appreciation.ada", "now").outcome();
        assert_lines(&taken, &[("us.5b", 100_000), ("us.sched_2.8", now)]);
        assert!(line(&left, "us.24") < line(&taken, "us.24"));
    }
}
