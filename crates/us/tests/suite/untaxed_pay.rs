//! Combat pay, Medicaid waiver payments and statutory employees, worked by hand.

use hembo_core::Outcome;
use hembo_money::Money;
use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn pay(family: Family, who: &str, wages: i64, code: &str, amount: i64) -> Family {
    let boxes = json!({
        "b": "36-4410927", "1": wages.to_string(), "12a": code, "12a.amount": amount.to_string(),
    });
    family.paper("W-2", &[who], boxes, Value::Null)
}

fn parent() -> Family {
    Family::single(2025).child("kim", "2015-05-05")
}

fn taken(outcome: &Outcome, id: &str) -> String {
    let decision = outcome.decisions.iter().find(|d| d.id == id).unwrap();
    decision.options.iter().find(|o| o.chosen).unwrap().id.clone()
}

/// 5,000 of wages, 10,000 of combat pay. Counted, earnings of 15,000 bring the most of one child, 4,328; left out, the band from 5,000
/// brings 34 % × 5,025 = 1,708.50. The child credit counts it in any case: 15 % × 12,500 = 1,875, up to 1,700.
#[test]
fn combat_pay_counts_where_that_is_more() {
    let family = pay(parent(), "ada", 5_000, "Q", 10_000);
    let outcome = family.clone().outcome();
    assert_lines(
        &outcome,
        &[("us.1a", 5_000), ("us.agi", 5_000), ("us.1i", 10_000), ("us.27a", 4_328), ("us.28", 1_700)],
    );
    assert_eq!((taken(&outcome, "us.combat_pay.ada").as_str(), outcome.total), ("in", Money::whole(-6_028)));
    let out = family.pin("us.combat_pay.ada", "out").outcome();
    assert_lines(&out, &[("us.1i", 0), ("us.27a", 1_709), ("us.28", 1_700)]);
}

/// 25,000 of wages are past 23,350: 4,328 − 15.98 % × 1,675 = 4,060.34; 20,000 more would take it further down.
#[test]
fn combat_pay_stays_out_where_it_costs() {
    let outcome = pay(parent(), "ada", 25_000, "Q", 20_000).outcome();
    assert_lines(&outcome, &[("us.1i", 0), ("us.27a", 4_060)]);
    assert_eq!(taken(&outcome, "us.combat_pay.ada"), "out");
}

/// Each spouse chooses alone: 4,000 + 20,000 stand on the plateau from 12,730 to 30,470; 8,000 more would leave it.
#[test]
fn each_spouse_chooses() {
    let family = Family::couple(2025).child("kim", "2015-05-05");
    let family = pay(pay(family, "ada", 4_000, "Q", 8_000), "bo", 0, "Q", 20_000);
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.1i", 20_000), ("us.27a", 4_328), ("us.8812.18b", 28_000)]);
    assert_eq!(taken(&outcome, "us.combat_pay.ada"), "out");
    assert_eq!(taken(&outcome, "us.combat_pay.bo"), "in");
}

/// Combat pay is compensation for an IRA (§219(f)(7)).
#[test]
fn combat_pay_is_compensation() {
    for (paid, deducted) in [("4999", 4_999), ("5000", 5_000), ("5001", 5_000)] {
        let family = pay(Family::single(2025).interest(&["ada"], 20_000), "ada", 0, "Q", 5_000);
        let outcome = family.paper("5498", &["ada"], json!({ "1": paid }), Value::Null).outcome();
        assert_eq!(line(&outcome, "us.sched_1.20"), deducted, "{paid}");
    }
}

/// 18,000 for the care of a child at home are no income. Counted as earned they stand on line 1d and come off on line 8s; whether box 1
/// holds them or not, the credits are the same: 4,328, and 15 % × 15,500 up to 1,700.
#[test]
fn waiver_payments_count_by_choice() {
    let apart = pay(parent(), "ada", 0, "II", 18_000);
    let outcome = apart.clone().outcome();
    assert_lines(
        &outcome,
        &[("us.1d", 18_000), ("us.1z", 18_000), ("us.sched_1.8s", -18_000), ("us.agi", 0)],
    );
    assert_lines(&outcome, &[("us.27a", 4_328), ("us.28", 1_700)]);
    let out = apart.pin("us.waiver_payments.ada", "out").outcome();
    assert_lines(&out, &[("us.1d", 0), ("us.sched_1.8s", 0), ("us.27a", 0), ("us.28", 0), ("us.agi", 0)]);

    let boxes = json!({ "b": "36-4410927", "1": "18000", "14.waiver": "18000" });
    let inside = parent().paper("W-2", &["ada"], boxes, Value::Null);
    let outcome = inside.clone().outcome();
    assert_lines(
        &outcome,
        &[("us.1a", 18_000), ("us.1d", 0), ("us.sched_1.8s", -18_000), ("us.agi", 0), ("us.27a", 4_328)],
    );
    let out = inside.pin("us.waiver_payments.ada", "out").outcome();
    assert_lines(&out, &[("us.sched_1.8s", -18_000), ("us.agi", 0), ("us.27a", 0), ("us.28", 0)]);
}

#[test]
fn no_more_is_excluded_than_box_1_holds() {
    let with = |amount: &str| {
        let boxes = json!({ "b": "36-4410927", "1": "100", "14.waiver": amount });
        has_point(&parent().paper("W-2", &["ada"], boxes, Value::Null).outcome(), "waiver-over")
    };
    assert_eq!((with("100"), with("101")), (false, true));
}

fn statutory(wages: i64) -> Family {
    let wages = wages.to_string();
    let boxes = json!({ "b": "36-4410927", "1": wages, "3": wages, "5": wages, "13.statutory": true });
    Family::single(2025).paper("W-2", &["ada"], boxes, Value::Null)
}

/// Box 1 is the receipts of Schedule C, without self-employment tax: 40,000 − 3,000; the business deduction is 20 % of taxable income
/// before it, 37,000 − 15,750 = 21,250, which is less than of the profit.
#[test]
fn a_statutory_employee_has_a_schedule_c() {
    let alone = statutory(40_000).outcome();
    assert_lines(&alone, &[("us.1a", 0), ("us.sched_1.3", 40_000), ("us.sched_2.4", 0), ("us.agi", 40_000)]);
    assert!(alone.covered && has_point(&alone, "K-053"));
    let expenses = json!({ "statutory": true, "22": "3000", "participates": true });
    let outcome = statutory(40_000).paper("Schedule C", &["ada"], expenses, Value::Null).outcome();
    assert_lines(
        &outcome,
        &[
            ("us.1a", 0),
            ("us.sched_1.3", 37_000),
            ("us.sched_2.4", 0),
            ("us.sched_1.15", 0),
            ("us.agi", 37_000),
            ("us.13a", 4_250),
            ("us.15", 17_000),
        ],
    );
    let alone = json!({ "1": "9000", "statutory": true, "participates": true });
    let alone = Family::single(2025).paper("Schedule C", &["ada"], alone, Value::Null).outcome();
    assert!(has_point(&alone, "business-statutory") && !has_point(&outcome, "business-statutory"));
    // Another business pays the tax on its own profit only, below the base that the wages leave.
    let other = json!({ "1": "10000", "participates": true });
    let both = statutory(40_000).paper("Schedule C", &["ada"], other, Value::Null).outcome();
    // 10,000 × 92.35 % = 9,235; 12.4 % + 2.9 % of it.
    assert_lines(&both, &[("us.sched_1.3", 50_000), ("us.sched_2.4", 1_413)]);
}

/// Wages of a statutory employee are earned in full (§32(c)(2)(A)(i)): 34 % of the middle of the band from 8,000, 8,025.
#[test]
fn wages_of_a_statutory_employee_are_earned() {
    let outcome = statutory(8_000).child("kim", "2015-05-05").outcome();
    assert_lines(&outcome, &[("us.27a", 2_729), ("us.28", 825)]);
}
