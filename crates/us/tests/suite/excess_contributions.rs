//! Accounts that hold too much or pay out too little (§§4973, 4974; Form 5329 Parts III to IX), worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn ada(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

fn with(wages: i64, contributed: Value, accounts: Value) -> Family {
    ada(wages).paper("5498", &["ada"], contributed, json!(null)).paper(
        "5329",
        &["ada"],
        accounts,
        json!(null),
    )
}

/// 7,000 for 2025: what is over it is taxed with 6 %, less what is taken out again, and no more than of the value.
#[test]
fn a_traditional_ira_holds_too_much() {
    for (contributed, out, value, excess, tax) in [
        ("7000", "0", "", 0, 0),
        ("7001", "0", "", 1, 0), // .06
        ("7008", "0", "", 8, 0), // .48
        ("7009", "0", "", 9, 1), // .54
        ("7800", "0", "", 800, 48),
        ("7800", "300", "", 500, 30),
        ("7800", "800", "", 0, 0),
        ("7800", "300", "501", 500, 30),
        ("7800", "300", "400", 500, 24),
    ] {
        let accounts = if value.is_empty() { json!({}) } else { json!({ "17": value }) };
        let outcome = with(60_000, json!({ "1": contributed, "1.out": out }), accounts).outcome();
        assert_lines(&outcome, &[("us.sched_2.8", tax), ("us.agi", 53_000)]);
        if excess > 0 {
            assert_eq!(line_of(&outcome, "us.5329.16", "person/ada"), excess);
        }
        assert_eq!(has_point(&outcome, "K-102"), excess > 0, "{contributed} {out}");
        assert!(outcome.covered);
    }
}

#[test]
fn no_more_comes_out_than_went_in() {
    let outcome = |out: &str| with(60_000, json!({ "1": "500", "1.out": out }), json!({})).outcome();
    assert!(!has_point(&outcome("500"), "5498-out") && has_point(&outcome("501"), "5498-out"));
}

/// Compensation is a limit, too: 3,000 of wages, and on a joint return the spouse's.
#[test]
fn compensation_is_a_limit() {
    let alone = ada(3_000).paper("5498", &["ada"], json!({ "1": "3500" }), json!(null)).outcome();
    assert_lines(&alone, &[("us.sched_2.8", 30), ("us.24", 30)]);
    let both = Family::couple(2025).wages("bo", 60_000);
    let both = both.paper("5498", &["ada"], json!({ "1": "7500" }), json!(null));
    assert_lines(&both.outcome(), &[("us.sched_2.8", 30)]);
}

/// What is left of this year's limit takes up the excess of earlier years, and is deducted (§219(f)(6)); taxed distributions and the
/// excess itself taken out lower it, too.
#[test]
fn the_excess_of_earlier_years_is_taken_up() {
    for (contributed, earlier, out, left, deducted, tax) in [
        ("6000", "999", "0", 0, 6_999, 0),
        ("6000", "1000", "0", 0, 7_000, 0),
        ("6000", "1500", "0", 500, 7_000, 30),
        ("6000", "1500", "500", 0, 7_000, 0),
        ("6000", "1500", "1500", 0, 6_000, 0),
        ("7000", "1500", "0", 1_500, 7_000, 90),
        ("0", "1500", "0", 0, 1_500, 0),
    ] {
        let family = with(60_000, json!({ "1": contributed }), json!({ "9": earlier, "12": out }));
        let outcome = family.outcome();
        assert_lines(&outcome, &[("us.sched_1.20", deducted), ("us.sched_2.8", tax)]);
        if left > 0 {
            assert_eq!(line_of(&outcome, "us.5329.16", "person/ada"), left);
        }
    }
    let family = with(60_000, json!({ "1": "7000" }), json!({ "9": "1500" }));
    let paid_out = json!({ "1": "400", "2a": "400", "7": "7", "7.ira": true });
    let family = family.paper("1099-R", &["ada"], paid_out, json!(null));
    assert_eq!(line_of(&family.outcome(), "us.5329.16", "person/ada"), 1_100);
}

/// 150,000 to 165,000 in 2025: the limit shrinks in proportion, to the next ten, and is at least 200 within the range.
#[test]
fn a_roth_ira_goes_by_income() {
    for (wages, room) in [
        (149_999, 7_000),
        (150_000, 7_000),
        (150_001, 7_000), // 6,999.53
        (150_021, 7_000), // 6,990.20
        (150_022, 6_990), // 6,989.73
        (155_000, 4_670), // 4,666.67
        (164_571, 210),   // 200.20
        (164_572, 200),   // 199.73
        (164_999, 200),
        (165_000, 0),
    ] {
        let outcome = ada(wages).paper("5498", &["ada"], json!({ "10": "7000" }), json!(null)).outcome();
        let excess = 7_000 - room;
        assert_lines(&outcome, &[("us.sched_2.8", (excess * 6 + 50) / 100)]);
        if excess > 0 {
            assert_eq!(line_of(&outcome, "us.5329.24", "person/ada"), excess, "{wages}");
        }
        assert_eq!(has_point(&outcome, "K-103"), excess > 0);
    }
}

/// The limit is one for both sorts, a conversion does not count as income here, and the excess of earlier years waits for room.
#[test]
fn a_roth_ira_has_what_the_other_leaves() {
    let tax = |family: Family| line(&family.outcome(), "us.sched_2.8");
    assert_eq!(tax(with(60_000, json!({ "1": "4000", "10": "3000" }), json!({}))), 0);
    assert_eq!(tax(with(60_000, json!({ "1": "4000", "10": "4000" }), json!({}))), 60);
    assert_eq!(tax(with(60_000, json!({ "10": "6000" }), json!({ "18": "2500" }))), 90);
    assert_eq!(tax(with(160_000, json!({ "10": "2330" }), json!({ "18": "2500" }))), 149); // 7,000 × ⅓, to the ten: 2,340
    assert_eq!(tax(with(165_000, json!({}), json!({ "18": "2500", "25": "2000" }))), 120);
    let converted = json!({ "1": "40000", "2a": "40000", "7": "2", "7.ira": true, "converted": "40000" });
    let family = ada(140_000).paper("1099-R", &["ada"], converted, json!(null));
    assert_eq!(tax(family.paper("5498", &["ada"], json!({ "10": "7000" }), json!(null))), 0);
    let taken = json!({ "1": "600", "7": "Q" });
    let family =
        with(165_000, json!({}), json!({ "18": "2500" })).paper("1099-R", &["ada"], taken, json!(null));
    assert_eq!(tax(family), 114);
    // Apart, having lived together: the range is 0 to 10,000.
    let apart = Family::couple(2025).wages("ada", 9_000).wages("bo", 60_000).pin("us.status", "separate");
    let apart = apart.paper("5498", &["ada"], json!({ "10": "1000" }), json!(null)).outcome();
    assert_eq!(line_of(&apart, "us.5329.24", "person/ada"), 300); // 7,000 × 1/10
}

/// 4,300 for self-only cover: the employer's contributions count, and are income where they alone are over the limit.
#[test]
fn a_health_savings_account_holds_too_much() {
    let family = |own: &str, employer: &str, more: Value| {
        let mut boxes = json!({ "2": own, "self": 12 });
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        let coded = json!({ "12a": "W", "12a.amount": employer });
        Family::single(2025).wages_with("ada", 60_000, coded).paper("HSA", &["ada"], boxes, json!(null))
    };
    for (own, employer, out, excess, agi, tax) in [
        ("2300", "2000", "0", 0, 57_700, 0),
        ("2301", "2000", "0", 1, 57_700, 0),
        ("3300", "2000", "0", 1_000, 57_700, 60),
        ("3300", "2000", "400", 600, 57_700, 36),
        ("3300", "2000", "1000", 0, 57_700, 0),
        ("0", "4300", "0", 0, 60_000, 0),
        ("0", "5000", "0", 700, 60_700, 42),
        ("0", "5000", "700", 0, 60_700, 0),
        ("100", "5000", "800", 0, 60_700, 0),
    ] {
        let outcome = family(own, employer, json!({ "2.out": out })).outcome();
        assert_lines(&outcome, &[("us.agi", agi), ("us.sched_2.8", tax)]);
        if excess > 0 {
            assert_eq!(line_of(&outcome, "us.5329.48", "person/ada"), excess);
        }
        assert_eq!(has_point(&outcome, "K-100"), excess > 0);
    }
    // 500 of earlier years: 300 left of the limit takes them up and is deducted; 150 was distributed untaxed by bills.
    let earlier =
        family("2000", "2000", json!({})).paper("5329", &["ada"], json!({ "42": "500" }), json!(null));
    assert_lines(&earlier.outcome(), &[("us.agi", 57_700), ("us.sched_2.8", 12)]);
    let spent = json!({ "1": "150", "bills": "0" });
    let earlier = family("2000", "2000", json!({}))
        .paper("5329", &["ada"], json!({ "42": "500", "49": "40" }), json!(null))
        .paper("1099-SA", &["ada"], spent, json!(null));
    assert_lines(&earlier.outcome(), &[("us.agi", 57_850), ("us.sched_2.8", 2)]);
}

/// Spouses share the family limit of 8,550; another division than the one taken is told.
#[test]
fn another_division_of_the_family_limit_is_told() {
    let family = |bo: &str| {
        Family::couple(2025)
            .wages("ada", 60_000)
            .paper("HSA", &["ada"], json!({ "2": "5000", "family": 12 }), json!(null))
            .paper("HSA", &["bo"], json!({ "2": bo, "family": 12 }), json!(null))
            .outcome()
    };
    assert!(!has_point(&family("3550"), "C-22"));
    let over = family("3651");
    assert!(has_point(&over, "C-22"));
    assert_eq!(line_of(&over, "us.5329.48", "person/bo"), 101);
    assert_lines(&over, &[("us.sched_2.8", 6), ("us.agi", 51_450)]);
}

/// 25 % of what was not distributed, 10 % of what is made good in time; a Coverdell account has 6 %.
#[test]
fn what_had_to_be_distributed() {
    let tax = |accounts: Value| line(&with(60_000, json!({}), accounts).outcome(), "us.sched_2.8");
    assert_eq!(tax(json!({ "52b": "4000", "53b": "1000" })), 750);
    assert_eq!(tax(json!({ "52b": "4000", "53b": "4000" })), 0);
    assert_eq!(tax(json!({ "52a": "4000", "53a": "1000" })), 300);
    assert_eq!(tax(json!({ "52a": "4000", "52b": "800", "53b": "794" })), 402); // 1.50 is 2
    assert_eq!(tax(json!({ "32": "500", "33": "600" })), 30);
    assert_eq!(tax(json!({ "32": "500", "33": "300" })), 18);
    let more = with(60_000, json!({}), json!({ "53b": "10" })).outcome();
    assert!(has_point(&more, "5329-52"));
}

/// At 73 an IRA must pay out.
#[test]
fn an_ira_that_paid_nothing_out() {
    let family = |born: &str, accounts: Value| {
        let family = Family::of(2025).filer("ada", born).wages("ada", 30_000);
        family.paper("5329", &["ada"], accounts, json!(null))
    };
    let asks = |born, accounts| has_point(&family(born, accounts).outcome(), "K-067");
    assert!(asks("1952-12-31", json!({ "17": "90000" })));
    assert!(!asks("1953-01-01", json!({ "17": "90000" })));
    assert!(!asks("1952-12-31", json!({})));
    assert!(!asks("1952-12-31", json!({ "17": "90000", "52b": "3500", "53b": "3500" })));
    let paid = json!({ "1": "400", "2a": "400", "7": "7", "7.ira": true });
    let paid = family("1952-12-31", json!({ "17": "90000" })).paper("1099-R", &["ada"], paid, json!(null));
    assert!(!has_point(&paid.outcome(), "K-067"));
}

/// No instalment of estimated tax is due for these taxes: they are not in Form 2210.
#[test]
fn no_instalment_is_due_for_them() {
    let family = with(60_000, json!({ "1": "17000" }), json!({}));
    let family = family.paper("Last year", &["ada"], json!({ "tax": "9000", "agi": "60000" }), json!(null));
    let outcome = family.outcome();
    assert_eq!(line(&outcome, "us.sched_2.8"), 600);
    assert_eq!(line(&outcome, "us.2210.4"), line(&outcome, "us.24") - 600);
}

/// What last year's whole-year limit allowed too much is income with 10 %; an amount out of an IRA counts against the limit.
#[test]
fn a_whole_years_limit_that_was_not_kept() {
    let family =
        |boxes: Value| Family::single(2025).wages("ada", 60_000).paper("HSA", &["ada"], boxes, json!(null));
    let failed = family(json!({ "18": "1045", "self": 6 })).outcome();
    assert_lines(&failed, &[("us.agi", 61_045), ("us.sched_1.8f", 1_045), ("us.sched_2.17d", 105)]); // 104.50
    let moved = family(json!({ "2": "3300", "10": "1000", "self": 12 })).outcome();
    assert_lines(&moved, &[("us.agi", 56_700), ("us.sched_2.8", 0)]);
    let more = family(json!({ "2": "3400", "10": "1000", "self": 12 })).outcome();
    assert_lines(&more, &[("us.agi", 56_700), ("us.sched_2.8", 6)]);
}

/// Of spouses who file alone the range of the limit hangs on whether they lived apart all year, for an earlier excess as well.
#[test]
fn an_earlier_excess_of_spouses_who_file_alone() {
    let family = |said: bool| {
        let family = Family::couple(2025).wages("ada", 60_000).answer("apart", json!(true));
        let family = if said { family.answer("apart_all_year", json!(true)) } else { family };
        let family = family.paper("5329", &["ada"], json!({ "18": "3000", "25": "90000" }), json!(null));
        family.pin("us.status", "separate").outcome()
    };
    assert!(has_point(&family(false), "ira-apart"));
    assert!(!has_point(&family(true), "ira-apart"));
}
