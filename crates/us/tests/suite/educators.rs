//! Expenses of educators (§62(a)(2)(D)), worked by hand.

use hembo_money::Money;
use hembo_testing::us::{Family, assert_lines, line, line_of};
use serde_json::{Value, json};

fn teaching(family: Family, who: &str, spent: &str) -> Family {
    family.paper("Educator", &[who], json!({}), json!([{ "what": "Books", "amount": spent }]))
}

/// 60,000 − 300 − 15,750 = 43,950, middle of the band 43,975: 1,192.50 + 12 % × 32,050 = 5,038.50, so 5,039.
#[test]
fn each_dollar_counts_up_to_the_amount_of_the_year() {
    for year in [2024, 2025] {
        for (spent, allowed) in [("0", 0), ("299", 299), ("300", 300), ("301", 300), ("450.75", 300)] {
            let outcome = teaching(Family::single(year).wages("ada", 60_000), "ada", spent).outcome();
            assert_lines(
                &outcome,
                &[("us.sched_1.11", allowed), ("us.10", allowed), ("us.agi", 60_000 - allowed)],
            );
        }
    }
    let outcome = teaching(Family::single(2025).wages("ada", 60_000), "ada", "450.75").outcome();
    assert_eq!(outcome.total, Money::whole(5_039));
    let limit = outcome.limits.iter().find(|l| l.id == "us.limit.educator").unwrap();
    assert_eq!(limit.lost, Money::from_cents(15_075));
}

/// A joint return has up to 600, but what one spends over 300 is not the other's.
#[test]
fn each_spouse_has_an_amount_of_their_own() {
    let couple = Family::couple(2025).wages("ada", 60_000).wages("bo", 40_000);
    let both = |ada: &str, bo: &str| teaching(teaching(couple.clone(), "ada", ada), "bo", bo).outcome();
    for (ada, bo, allowed) in
        [("450", "100", 400), ("600", "0", 300), ("300", "300", 600), ("999", "999", 600)]
    {
        let outcome = both(ada, bo);
        assert_eq!(line(&outcome, "us.sched_1.11"), allowed, "{ada} {bo}");
    }
    let outcome = both("450", "100");
    assert_eq!(line_of(&outcome, "us.agi", "person/ada"), 59_700);
    assert_eq!(line_of(&outcome, "us.agi", "person/bo"), 39_900);
    let row = |label: &str| -> Value {
        let rows = outcome.spread.iter().flat_map(|s| &s.rows);
        serde_json::to_value(rows.into_iter().find(|r| r.label == label).unwrap()).unwrap()
    };
    assert_eq!(row("Educator expenses")["shared"], Value::Null);
    assert_eq!(row("Adjusted gross income")["shared"], Value::Null);
}
