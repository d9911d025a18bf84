//! Pay without withholding of an employee, worked by hand from Form 8919.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn pay(family: Family, amount: i64) -> Family {
    family.paper("8919", &["ada"], json!({ "reason": "G", "6": amount.to_string() }), Value::Null)
}

/// Wages of line 1g: 6.2 % up to 176,100 with other wages, 1.45 % of all.
#[test]
fn wages_with_both_taxes() {
    let alone = pay(Family::single(2025), 30_000).outcome();
    assert!(alone.covered, "{:?}", alone.points);
    assert_lines(
        &alone,
        &[("us.1g", 30_000), ("us.1z", 30_000), ("us.agi", 30_000), ("us.sched_2.6", 2_295)],
    );
    for (wages, amount, tax) in [
        (146_100, 30_000, 1_860 + 435),
        (146_101, 30_000, 1_860 + 435), // 29,999: 1,859.94
        (170_000, 30_000, 378 + 435),
        (176_100, 30_000, 435),
        (200_000, 30_000, 435),
    ] {
        let family =
            Family::single(2025).wages_with("ada", wages, json!({ "3": wages.min(176_100).to_string() }));
        assert_lines(&pay(family, amount).outcome(), &[("us.sched_2.6", tax)]);
    }
    // 230,000 of Medicare wages: .9 % of 30,000.
    let family = Family::single(2025).wages_with("ada", 200_000, json!({ "3": "176100", "5": "200000" }));
    assert_lines(&pay(family, 30_000).outcome(), &[("us.8959.18", 270)]);
}

/// It is earned: for the credits, and as compensation for an IRA.
#[test]
fn it_is_earned() {
    let family =
        Family::single(2025).set("ada", "/answers/paid_home", json!(true)).child("kim", "2016-05-05");
    let credit = |family: Family| line(&family.outcome(), "us.27a");
    assert_eq!(credit(pay(family.clone(), 15_000)), credit(family.wages("ada", 15_000)));
    let ira = Family::single(2025).paper("5498", &["ada"], json!({ "1": "7000" }), Value::Null);
    assert_lines(&pay(ira, 5_000).outcome(), &[("us.sched_1.20", 5_000)]);
}

#[test]
fn the_reason_is_asked() {
    let unsaid = Family::single(2025).paper("8919", &["ada"], json!({ "6": "100" }), Value::Null).outcome();
    assert!(has_point(&unsaid, "8919-reason"));
}

/// Three children and no earned income credit, for 12,000 of interest: half of the self-employment tax on 4,000, 283, is above 15 % of
/// 3,717 − 2,500, 183 (Schedule 8812, line 22).
#[test]
fn half_of_the_self_employment_tax_counts_for_the_child_credit() {
    let business = json!({ "1": "4000", "participates": true, "service": false });
    let family = Family::single(2025).set("ada", "/answers/paid_home", json!(true));
    let family = family.child("kim", "2016-05-05").child("lou", "2017-05-05").child("mia", "2018-05-05");
    let family = family.interest(&["ada"], 12_000).paper("Schedule C", &["ada"], business, Value::Null);
    assert_lines(&family.outcome(), &[("us.27a", 0), ("us.28", 283)]);
}
