//! Additional income and adjustments of Schedule 1, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn single(year: i32, wages: i64) -> Family {
    Family::single(year).wages("ada", wages)
}

fn covered(year: i32, wages: i64) -> Family {
    Family::single(year).wages_with("ada", wages, json!({ "13.retirement": true }))
}

fn ira(family: Family, who: &str, amount: i64) -> Family {
    family.paper("5498", &[who], json!({ "1": amount.to_string() }), json!(null))
}

/// The deduction within the range: 70 % of what is left of it, to the next ten, at least 200.
#[test]
fn the_ira_deduction_shrinks_with_income() {
    for (year, income, deducted) in [
        (2024, 77_000, 7_000),
        (2024, 77_001, 7_000),
        (2024, 79_999, 4_910),
        (2024, 84_444, 1_790),
        (2024, 86_750, 200),
        (2024, 86_999, 200),
        (2024, 87_000, 0),
        (2025, 79_500, 6_650),
        (2025, 88_980, 200),
    ] {
        let outcome = ira(covered(year, income), "ada", 7_000).outcome();
        assert_eq!(line(&outcome, "us.sched_1.20"), deducted, "{year} {income}");
    }
    // Not covered: no range.
    assert_lines(&ira(single(2025, 300_000), "ada", 7_000).outcome(), &[("us.sched_1.20", 7_000)]);
    // 50 on the last day of the year: 8,000.
    let fifty = ira(single(2025, 90_000), "ada", 8_000);
    assert_lines(
        &fifty.clone().set("ada", "/born", json!("1975-12-31")).outcome(),
        &[("us.sched_1.20", 8_000)],
    );
    let younger = fifty.set("ada", "/born", json!("1976-01-01")).outcome();
    assert_lines(&younger, &[("us.sched_1.20", 7_000)]);
    assert!(has_point(&younger, "K-102"));
}

/// A spouse without income may put in, too; where only one is covered the other has a range of its own.
#[test]
fn spouses_and_the_ira() {
    let couple = |wages: i64| {
        let family = Family::couple(2025).wages_with("ada", wages, json!({ "13.retirement": true }));
        ira(ira(family, "ada", 7_000), "bo", 7_000)
    };
    // 130,000: 7,000 × 16,000 ÷ 20,000 = 5,600 for the one covered.
    let outcome = couple(130_000).outcome();
    assert_eq!(line_of(&outcome, "us.ira.deducted", "person/ada"), 5_600);
    assert_eq!(line_of(&outcome, "us.ira.deducted", "person/bo"), 7_000);
    // 241,000: half of the range of 236,000 to 246,000.
    assert_eq!(line_of(&couple(241_000).outcome(), "us.ira.deducted", "person/bo"), 3_500);
    assert_eq!(line_of(&couple(246_000).outcome(), "us.ira.deducted", "person/bo"), 0);
    // Together no more than both earn: 9,000 − 7,000.
    let poor = couple(9_000).outcome();
    assert_eq!(line_of(&poor, "us.ira.deducted", "person/bo"), 2_000);
    // Apart: from 0 to 10,000, unless they lived apart all year.
    let apart = ira(
        Family::couple(2025).wages("ada", 4_000).wages_with("bo", 60_000, json!({ "13.retirement": true })),
        "ada",
        3_000,
    );
    let apart = apart.pin("us.status", "separate");
    // 7,000 × 6,000 ÷ 10,000 = 4,200, above what was paid.
    assert_lines(&apart.outcome(), &[("us.sched_1.20", 3_000)]);
    let richer = ira(
        Family::couple(2025).wages("ada", 9_500).wages_with("bo", 60_000, json!({ "13.retirement": true })),
        "ada",
        3_000,
    );
    let richer = richer.pin("us.status", "separate");
    assert_lines(&richer.outcome(), &[("us.sched_1.20", 350)]);
    assert!(has_point(&richer.outcome(), "ira-apart"));
    let alone = richer.answer("apart", json!(true)).answer("apart_all_year", json!(true)).outcome();
    assert_lines(&alone, &[("us.sched_1.20", 3_000)]);
}

/// Benefits and the deduction depend on each other: first the benefits without it, then it, then the benefits again.
#[test]
fn benefits_and_the_ira_deduction() {
    // 67, covered, wages 70,000, benefits 20,000: half 10,000, 80,000 is far above: 17,000 taxed. 87,000 of income: 8,000 × 2,000 ÷
    // 10,000 = 1,600 deducted. The benefits stay at 85 %.
    let family = Family::of(2025)
        .filer("ada", "1958-03-03")
        .wages_with("ada", 70_000, json!({ "13.retirement": true }))
        .paper("SSA-1099", &["ada"], json!({ "5": "20000" }), json!(null));
    assert_lines(
        &ira(family, "ada", 8_000).outcome(),
        &[("us.sched_1.20", 1_600), ("us.6b", 17_000), ("us.agi", 85_400)],
    );
    // Wages 24,000: 24,000 + 5,000 = 29,000, 2,000 of 10,000 taxed. All 4,000 deducted, then 25,000 is not above the base.
    let family = Family::of(2025).filer("ada", "1958-03-03").wages("ada", 24_000).paper(
        "SSA-1099",
        &["ada"],
        json!({ "5": "10000" }),
        json!(null),
    );
    assert_lines(
        &ira(family, "ada", 4_000).outcome(),
        &[("us.sched_1.20", 4_000), ("us.6b", 0), ("us.agi", 20_000)],
    );
}

#[test]
fn a_roth_contribution_has_its_range() {
    let roth = |wages: i64| {
        let boxes = json!({ "10": "7000" });
        has_point(&single(2025, wages).paper("5498", &["ada"], boxes, json!(null)).outcome(), "K-103")
    };
    assert_eq!([150_000, 150_200, 165_000].map(roth), [false, true, true]);
    let left = ira(covered(2025, 88_000), "ada", 7_000).outcome();
    assert!(has_point(&left, "ira-basis-made") && has_point(&left, "ira-nondeductible"));
}

/// Self-only 4,300, family 8,550 in 2025, by months; 1,000 more from 55 on; the employer's part first.
#[test]
fn health_savings_accounts() {
    let hsa = |family: Family, who: &str, boxes: Value| family.paper("HSA", &[who], boxes, json!(null));
    for (boxes, deducted) in [
        (json!({ "2": "5000", "self": 12 }), 4_300),
        (json!({ "2": "4299", "self": 12 }), 4_299),
        (json!({ "2": "9000", "family": 12 }), 8_550),
        (json!({ "2": "9000", "self": 6, "family": 6 }), 6_425),
        (json!({ "2": "9000", "self": 1, "december": "family" }), 8_550),
    ] {
        assert_lines(
            &hsa(single(2025, 60_000), "ada", boxes.clone()).outcome(),
            &[("us.sched_1.13", deducted)],
        );
    }
    let old = hsa(single(2025, 60_000), "ada", json!({ "2": "9000", "self": 12 })).set(
        "ada",
        "/born",
        json!("1970-12-31"),
    );
    assert_lines(&old.outcome(), &[("us.sched_1.13", 5_300)]);
    // Code W comes first; what is over the limit is told.
    let paid = Family::single(2025).wages_with("ada", 60_000, json!({ "12a": "W", "12a.amount": "3000" }));
    assert!(has_point(&paid.outcome(), "K-050"));
    let outcome = hsa(paid, "ada", json!({ "2": "2000", "self": 12 })).outcome();
    assert_lines(&outcome, &[("us.sched_1.13", 1_300)]);
    assert!(has_point(&outcome, "K-100"));
    // A family's limit is shared by spouses as they put in: 6,000 and 2,550 of 8,550; a dollar more is over.
    let both = |second: i64| {
        let family =
            hsa(Family::couple(2025).wages("ada", 90_000), "ada", json!({ "2": "6000", "family": 12 }));
        hsa(family, "bo", json!({ "2": second.to_string(), "family": 12 })).outcome()
    };
    assert_lines(&both(2_550), &[("us.sched_1.13", 8_550)]);
    assert_lines(&both(2_551), &[("us.sched_1.13", 8_550)]);
    assert!(!has_point(&both(2_550), "K-100") && has_point(&both(2_551), "K-100"));
    // Distributions that paid no bills: income, and 20 %; not from 65 on.
    let boxes = json!({ "1": "5000", "bills": "3000" });
    let taken = single(2025, 60_000).paper("1099-SA", &["ada"], boxes, json!(null));
    assert_lines(&taken.outcome(), &[("us.sched_1.8f", 2_000), ("us.sched_2.17c", 400)]);
    assert_lines(&taken.set("ada", "/born", json!("1961-01-01")).outcome(), &[("us.sched_2.17c", 0)]);
}

/// Student-loan interest: 2,500, gone from 85,000 to 100,000; .001 of it are 2.50, so 3; none apart or for someone who is claimed.
#[test]
fn student_loan_interest() {
    let loan = |family: Family| family.paper("1098-E", &["ada"], json!({ "1": "3000" }), json!(null));
    for (wages, deducted) in [(85_000, 2_500), (85_015, 2_497), (92_500, 1_250), (99_999, 0), (100_000, 0)] {
        assert_eq!(line(&loan(single(2025, wages)).outcome(), "us.sched_1.21"), deducted, "{wages}");
    }
    let apart = loan(Family::couple(2025).wages("ada", 40_000)).pin("us.status", "separate").outcome();
    assert_lines(&apart, &[("us.sched_1.21", 0)]);
    assert!(has_point(&apart, "K-104"));
    let claimed = loan(single(2025, 40_000)).set("ada", "/answers/claimable", json!(true)).outcome();
    assert_lines(&claimed, &[("us.sched_1.21", 0)]);
}

/// A refund is income as far as the tax lowered last year's taxable income.
#[test]
fn state_refunds() {
    let refund = |more: Value| {
        let mut boxes = json!({
            "2": "900", "itemized": true, "last.5a": "6000", "last.5d": "9000", "last.5e": "9000", "last.17": "20000",
            "last.standard": "14600", "last.sales": "1000",
        });
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        single(2025, 60_000).paper("1099-G", &["ada"], boxes, json!(null))
    };
    for (more, taxed) in [
        (json!({}), 900),
        (json!({ "itemized": false }), 0),
        // 700 of it was lost to the cap.
        (json!({ "last.5d": "10700", "last.5e": "10000" }), 200),
        // The itemized deductions were only 300 above the standard deduction.
        (json!({ "last.17": "14900" }), 300),
        (json!({ "last.17": "14600" }), 0),
        // Sales tax of 5,600 could have been deducted.
        (json!({ "last.sales": "5600" }), 400),
        (json!({ "last.unused": "5000" }), 400),
        (json!({ "2": "9000" }), 5_000),
    ] {
        assert_eq!(line(&refund(more.clone()).outcome(), "us.sched_1.1"), taxed, "{more}");
    }
    assert_lines(&refund(json!({})).outcome(), &[("us.8", 900), ("us.agi", 60_900), ("us.6251.4", 60_000)]);
    let bare = single(2025, 60_000).paper("1099-G", &["ada"], json!({ "2": "900" }), json!(null));
    assert!(has_point(&bare.outcome(), "K-073"));
}

#[test]
fn unemployment_and_other_income() {
    let outcome = single(2025, 40_000)
        .paper("1099-G", &["ada"], json!({ "1": "5000", "repaid": "800" }), json!(null))
        .paper("W-2G", &["ada"], json!({ "1": "2000", "4": "480" }), json!(null))
        .paper(
            "Other income",
            &["ada"],
            json!({}),
            json!([
                { "sort": "gambling", "amount": "500" },
                { "sort": "jury", "amount": "200" },
                { "sort": "jury_given", "amount": "150" },
                { "sort": "prize", "amount": "1000" },
            ]),
        )
        .paper("Other deductions", &["ada"], json!({}), json!([{ "sort": "gambling", "amount": "3000" }]))
        .outcome();
    assert_lines(
        &outcome,
        &[
            ("us.sched_1.7", 4_200),
            ("us.sched_1.8b", 2_500),
            ("us.sched_1.8h", 200),
            ("us.sched_1.8i", 1_000),
            ("us.8", 7_900),
            ("us.sched_1.24a", 150),
            ("us.agi", 47_750),
            // Losses no more than winnings.
            ("us.sched_a.16", 2_500),
            ("us.25c", 480),
        ],
    );
}

/// Alimony counts under instruments before 2019 that were not changed to the new rule.
#[test]
fn alimony_by_its_date() {
    for (day, changed, counts) in
        [("2018-12-31", false, true), ("2019-01-01", false, false), ("2018-12-31", true, false)]
    {
        let boxes = json!({ "received": "5000", "paid": "2000", "instrument": day, "changed": changed, "number": "811-34-9911" });
        let outcome = single(2025, 40_000).paper("Alimony", &["ada"], boxes, json!(null)).outcome();
        let agi = if counts { 43_000 } else { 40_000 };
        assert_lines(&outcome, &[("us.agi", agi)]);
    }
    let bare =
        single(2025, 40_000).paper("Alimony", &["ada"], json!({ "paid": "2000" }), json!(null)).outcome();
    assert!(has_point(&bare, "K-082"));
}

/// A scholarship is earned income for a dependent's standard deduction, and unearned for the tax of a child.
#[test]
fn a_scholarship_of_a_dependent() {
    let family = Family::single(2025).wages("ada", 60_000).child("kim", "2006-05-05");
    let family = family.set("kim", "/answers/student_months", json!(9)).wages("kim", 6_000);
    let outcome = family
        .paper("Other income", &["kim"], json!({}), json!([{ "sort": "scholarship", "amount": "1400" }]))
        .outcome();
    // 7,400 + 450.
    assert_eq!(line_of(&outcome, "us.standard", "return/1"), 7_850);
    assert_eq!(line_of(&outcome, "us.15", "return/1"), 0);
}
