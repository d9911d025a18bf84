//! Income that was repaid (§1341), and payments of long-term care insurance (Form 8853, Section C), worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line_of};
use serde_json::{Value, json};

fn repaid(family: Family, amount: &str, tax: Value) -> Family {
    let mut row = json!({ "what": "Signing bonus", "year": 2023, "amount": amount });
    if !tax.is_null() {
        row["tax"] = tax;
    }
    family.paper("1341", &["ada"], json!({}), json!([row]))
}

/// Of the deduction and the earlier year's tax the better one is taken.
#[test]
fn the_better_of_deduction_and_credit() {
    let alone = || Family::single(2025).wages("ada", 100_000);
    let owner = || alone().loan(&["ada"], 20_000, 300_000);
    for (family, tax, net) in [
        (alone(), "2400", 11_055), // 84,275: 13,455 less 2,400
        (alone(), "0", 13_455),
        (owner(), "2400", 10_120), // 80,025: 12,520 less 2,400; deducted 70,025: 10,320
        (owner(), "2201", 10_319),
        (owner(), "2199", 10_320),
        (owner(), "2100", 10_320),
    ] {
        let outcome = repaid(family, "10000", json!(tax)).outcome();
        assert_lines(&outcome, &[("us.net_tax", net)]);
        assert!(outcome.covered);
    }
    let deducted = repaid(owner(), "10000", json!("0")).outcome();
    assert_lines(&deducted, &[("us.sched_a.16", 10_000), ("us.sched_a.16.repaid", 10_000)]);
    let credited = repaid(owner(), "10000", json!("2400")).outcome();
    assert_lines(&credited, &[("us.sched_3.13b", 2_400), ("us.sched_a.16", 0), ("us.balance", 10_120)]);
    // The credit is paid out where it is more than the tax, beside 649 of earned income credit.
    let poor = repaid(Family::single(2025).wages("ada", 10_000), "10000", json!("2400")).outcome();
    assert_lines(&poor, &[("us.34", 3_049)]);
}

/// Only what is more than 3,000 counts.
#[test]
fn small_repayments_do_not_count() {
    let family = |amount| repaid(Family::single(2025).wages("ada", 100_000), amount, json!("700"));
    let small = family("3000").outcome();
    assert_lines(&small, &[("us.net_tax", 13_455)]);
    assert!(has_point(&small, "1341-small"));
    assert_lines(&family("3000.01").outcome(), &[("us.net_tax", 12_755)]);
    assert!(has_point(&repaid(Family::single(2025), "4000", Value::Null).outcome(), "1341-tax"));
}

/// On a dependent's own return only the deduction is taken: that is told.
#[test]
fn what_a_dependent_repaid_is_not_covered() {
    let family = Family::single(2025).wages("ada", 100_000).child("kim", "2006-05-05").wages("kim", 20_000);
    let row = json!([{ "amount": "4000", "tax": "400" }]);
    let outcome = family.paper("1341", &["kim"], json!({}), row).outcome();
    assert!(has_point(&outcome, "1341-dependent") && !outcome.covered);
}

/// Separate returns: each spouse chooses.
#[test]
fn each_spouse_chooses() {
    let family = Family::couple(2025).wages("ada", 100_000).wages("bo", 100_000).pin("us.status", "separate");
    let outcome = repaid(family, "10000", json!("2400")).outcome();
    assert_lines(&outcome, &[("us.net_tax", 11_055)]);
    assert_eq!(line_of(&outcome, "us.net_tax", "return/1"), 13_455);
}

/// 420 a day in 2025, or the cost of the care if more, less what was reimbursed.
#[test]
fn payments_by_the_day() {
    let family = |boxes: Value| {
        Family::single(2025).wages("ada", 60_000).paper("1099-LTC", &["ada"], boxes, Value::Null)
    };
    for (received, days, cost, reimbursed, taxed) in [
        ("42000", 100, "0", "0", 0),
        ("42001", 100, "0", "0", 1),
        ("45000", 100, "0", "0", 3_000),
        ("45000", 100, "44000", "0", 1_000),
        ("45000", 100, "44000", "2000", 3_000),
        ("45000", 100, "41999", "1000", 4_000),
    ] {
        let boxes =
            json!({ "1": received, "3": "day", "days": days, "cost": cost, "reimbursed": reimbursed });
        let outcome = family(boxes).outcome();
        assert_lines(&outcome, &[("us.agi", 60_000 + taxed)]);
        assert_eq!(line_of(&outcome, "us.8853.26", "person/ada"), taxed);
    }
    let paid = |more: Value| {
        let mut boxes = json!({ "1": "1000", "2": "9000", "3": "day", "days": 10 });
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        family(boxes).outcome()
    };
    assert_lines(&paid(json!({})), &[("us.agi", 65_800)]);
    assert_lines(&paid(json!({ "terminal": true })), &[("us.agi", 60_000)]);
    assert_lines(&paid(json!({ "3": "reimbursed" })), &[("us.agi", 60_000)]);
    assert!(has_point(&family(json!({ "1": "1000" })).outcome(), "1099-LTC-3"));
    assert!(has_point(&family(json!({ "1": "1000", "3": "day" })).outcome(), "1099-LTC-days"));
}
