//! The premium tax credit, worked by hand from Form 8962.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn policy(family: Family, who: &[&str], amounts: [i64; 3]) -> Family {
    let [premium, benchmark, advance] = amounts.map(|amount| amount.to_string());
    family.paper("1095-A", who, json!({ "33A": premium, "33B": benchmark, "33C": advance }), json!(null))
}

fn single(year: i32, wages: i64) -> Family {
    Family::single(year).wages("ada", wages)
}

/// A couple with a child: the poverty line is 25,820; premium 14,400, benchmark 15,600, advance payments 13,200.
#[test]
fn a_family_with_advance_payments() {
    let family = |wages: i64| {
        let family = Family::couple(2025).wages("ada", wages).child("kim", "2015-05-05");
        policy(family, &["ada", "bo"], [14_400, 15_600, 13_200]).outcome()
    };
    // 280 %: .0520 of income.
    let low = family(72_304);
    assert_lines(
        &low,
        &[("us.8962.8a", 3_760), ("us.8962.24", 11_840), ("us.sched_2.1a", 1_360), ("us.17", 1_360)],
    );
    // Above 400 %: 8.5 %, and no limit on what is paid back.
    assert_lines(&family(105_000), &[("us.8962.8a", 8_925), ("us.8962.24", 6_675), ("us.sched_2.1a", 6_525)]);
    assert!(low.covered);
}

/// The part of income by its percentage of the poverty line of 15,060, and what is paid back at most.
#[test]
fn the_part_of_income_and_the_limit() {
    // Percentages by income: the first whole dollar that reaches one.
    let income = |percent: i64| (15_060 * percent + 99) / 100;
    for (percent, part) in [
        (100, 0),
        (149, 0),
        (150, 0),
        (151, 4),
        (199, 196),
        (200, 200),
        (249, 396),
        (250, 400),
        (299, 596),
        (300, 600),
        (301, 603),
        (302, 605),
        (399, 848),
        (400, 850),
        (401, 850),
    ] {
        let wages = income(percent);
        let outcome = policy(single(2025, wages), &["ada"], [9_000, 9_000, 0]).outcome();
        let expected = (wages * part + 5_000) / 10_000;
        assert_eq!(line(&outcome, "us.8962.8a"), expected, "{percent}");
        assert_eq!(line(&outcome, "us.sched_3.9"), 9_000 - expected, "{percent}");
    }
    for (wages, most) in
        [(30_119, 375), (30_120, 975), (45_179, 975), (45_180, 1_625), (60_239, 1_625), (60_241, 9_000)]
    {
        let outcome = policy(single(2025, wages), &["ada"], [0, 0, 9_000]).outcome();
        assert_eq!(line(&outcome, "us.sched_2.1a"), most, "{wages}");
    }
    // Below the poverty line: only where something was paid in advance.
    assert_lines(
        &policy(single(2025, 15_059), &["ada"], [9_000, 9_000, 0]).outcome(),
        &[("us.sched_3.9", 0)],
    );
    let expected = policy(single(2025, 15_059), &["ada"], [9_000, 9_000, 1]).outcome();
    assert_lines(&expected, &[("us.sched_3.9", 8_999)]);
    assert!(has_point(&expected, "K-136"));
    // Alaska and Hawaii have lines of their own.
    for (state, percent) in [("AK", "0.0196"), ("HI", "0.0264")] {
        let outcome =
            policy(single(2025, 37_447), &["ada"], [9_000, 9_000, 0]).answer("state", json!(state)).outcome();
        let trail = format!("{:?}", outcome.lines.iter().find(|l| l.id == "us.8962.8a").unwrap().inputs);
        assert!(trail.contains(percent), "{state} {trail}");
    }
}

/// Month by month: the smaller of the premium and what the benchmark is above the month's contribution.
#[test]
fn month_by_month() {
    let row = |month: i64, premium: i64| json!({ "month": month, "A": premium.to_string(), "B": "500", "C": "100" });
    let family = single(2025, 30_120).paper(
        "1095-A",
        &["ada"],
        json!({}),
        json!([row(1, 600), row(2, 600), row(3, 300)]),
    );
    // 200 %: 602 a year, 50 a month. 450, 450 and 300, less 300 in advance.
    assert_lines(&family.outcome(), &[("us.8962.24", 1_200), ("us.8962.25", 300), ("us.sched_3.9", 900)]);
}

/// Twelve months alike are reckoned by the year (line 11), one that differs month by month; a policy told by the year
/// beside one told by months counts for a twelfth in each.
#[test]
fn a_year_of_months() {
    let row =
        |month: i64, premium: i64| json!({ "month": month, "A": premium.to_string(), "B": "500", "C": "0" });
    let year = |last: i64| {
        let rows: Vec<Value> = (1..=11).map(|m| row(m, 600)).chain([row(12, last)]).collect();
        single(2025, 30_120).paper("1095-A", &["ada"], json!({}), json!(rows))
    };
    // 6,000 less 602; month by month 450 twelve times is 5,400; with 440 in December 11 × 450 + 440.
    assert_lines(&year(600).outcome(), &[("us.8962.24", 5_398)]);
    assert_lines(&year(440).outcome(), &[("us.8962.24", 5_390)]);
    // Another policy of 1,200 with a benchmark of 600: 50 more in each month.
    assert_lines(&policy(year(600), &["ada"], [1_200, 600, 0]).outcome(), &[("us.8962.24", 5_998)]);
    assert_lines(&policy(year(440), &["ada"], [1_200, 600, 0]).outcome(), &[("us.8962.24", 5_400 + 600)]);
}

/// Household income: tax-exempt interest and untaxed benefits count, and a dependent who must file.
#[test]
fn household_income() {
    let family =
        single(2025, 30_000).set("ada", "/answers/paid_home", json!(true)).child("kim", "2008-05-05");
    let family = policy(family, &["ada"], [9_000, 9_000, 0]);
    let exempt = family.clone().paper("1099-INT", &["ada"], json!({ "8": "900" }), json!(null));
    assert_lines(&exempt.outcome(), &[("us.8962.3", 30_900)]);
    assert_lines(&family.clone().interest(&["kim"], 1_350).outcome(), &[("us.8962.3", 30_000)]);
    assert_lines(&family.clone().interest(&["kim"], 1_351).outcome(), &[("us.8962.3", 31_351)]);
    assert_lines(&family.clone().wages("kim", 15_750).outcome(), &[("us.8962.3", 30_000)]);
    assert_lines(&family.wages("kim", 15_751).outcome(), &[("us.8962.3", 45_751)]);
    let retired = Family::of(2025).filer("ada", "1958-03-03").wages("ada", 20_000);
    let retired = retired.paper("SSA-1099", &["ada"], json!({ "5": "8000" }), json!(null));
    assert_lines(&policy(retired, &["ada"], [9_000, 9_000, 0]).outcome(), &[("us.8962.3", 28_000)]);
}

#[test]
fn separate_returns_and_what_is_asked() {
    let couple = policy(
        Family::couple(2025).wages("ada", 40_000).wages("bo", 20_000),
        &["ada", "bo"],
        [9_000, 9_000, 4_000],
    );
    let apart = couple.pin("us.status", "separate").outcome();
    // Half of the advance payments each; Ada at 265 %: 1,950 at most of 2,000; Bo at 132 %: 750.
    assert_lines(&apart, &[("us.8962.24", 0), ("us.sched_2.1a", 1_950)]);
    assert!(has_point(&apart, "K-134"));
    assert!(has_point(&policy(single(2025, 30_000), &["ada"], [9_000, 0, 100]).outcome(), "K-135"));
}

/// Half of the premium of 1,200, 60 % of the benchmark of 1,300 and 40 % of the advance payment of 1,100 belong here (Part IV), so that the
/// year is reckoned by months with 3,760 ÷ 12 = 313: 780 − 313 = 467 in each.
#[test]
fn a_policy_shared_with_another_return() {
    let family = |allocated: Value| {
        let mut boxes = json!({ "33A": "14400", "33B": "15600", "33C": "13200" });
        boxes.as_object_mut().unwrap().extend(allocated.as_object().unwrap().clone());
        let family = Family::couple(2025).wages("ada", 72_304).child("kim", "2015-05-05");
        family.paper("1095-A", &["ada", "bo"], boxes, Value::Null).outcome()
    };
    for (allocated, credit, advance, net, back) in [
        (json!({ "30e": 50, "30f": 60, "30g": 40 }), 5_604, 5_280, 324, 0),
        // From July on: six times 1,300 − 313 = 987, six times 467; advance payments of 6,600 and 2,640.
        (json!({ "30e": 50, "30f": 60, "30g": 40, "30c": 7 }), 8_724, 9_240, 0, 516),
        (json!({ "30e": 50, "30f": 60, "30g": 40, "30d": 6 }), 8_724, 9_240, 0, 516),
        // All of it is no allocation, so that it is reckoned by the year.
        (json!({ "30e": 100 }), 11_840, 13_200, 0, 1_360),
        (json!({ "30e": 0, "30f": 0, "30g": 0 }), 0, 0, 0, 0),
    ] {
        let outcome = family(allocated.clone());
        let expected =
            [("us.8962.24", credit), ("us.8962.25", advance), ("us.sched_3.9", net), ("us.sched_2.1a", back)];
        assert_lines(&outcome, &expected);
        assert!(!has_point(&outcome, "8962-shared"));
        assert_eq!(has_point(&outcome, "C-83"), back > 0, "{allocated}");
    }
    assert!(has_point(&family(json!({})), "8962-shared"));
    assert!(has_point(&family(json!({ "30e": 50, "30c": 8, "30d": 7 })), "8962-months"));
}

/// A policy told by months stands in lists, and goes to its line, by what its months add up to.
#[test]
fn months_add_up() {
    let rows: Vec<Value> =
        (1..=3).map(|month| json!({ "month": month, "A": "700", "B": "800", "C": "100" })).collect();
    let outcome = single(2025, 40_000).paper("1095-A", &["ada"], json!({}), json!(rows)).outcome();
    let paper = outcome.papers.last().unwrap();
    assert_eq!(paper.amount, hembo_money::Money::whole(2_100));
    assert!(paper.feeds.iter().any(|feed| feed.line == "us.8962.24"));
}

/// Ada's business of 50,000 (half of the self-employment tax 3,533) with a policy of 9,600, its benchmark 9,000: income before premiums
/// 46,467, and the poverty line is 15,060.
fn own_business(more_wages: i64, advance: i64) -> Family {
    let business = json!({ "1": "50000", "participates": true, "service": false });
    let family = Family::single(2025).paper("Schedule C", &["ada"], business, Value::Null);
    let family = if more_wages > 0 { family.wages("ada", more_wages) } else { family };
    let boxes = json!({ "33A": "9600", "33B": "9000", "33C": advance.to_string(), "own_work": true });
    family.paper("1095-A", &["ada"], boxes, Value::Null)
}

/// Rounds without advance payments (Rev. Proc. 2014-41): all of 9,600 deducted leaves 36,867, 244 %, .0376: a credit of 7,614 and a deduction
/// of 1,986. That leaves 44,481, 295 %, .0580: 6,420 and 3,180. 43,287, .0548: 6,628 and 2,972. 43,495, .0552: 6,599 and 3,001. 43,466:
/// 6,601 and 2,999. 43,468, .0552, 2,399: 6,601 and 2,999 again. One round alone: 1,986 and 6,420.
#[test]
fn premiums_of_the_self_employed_in_rounds() {
    let rounds = own_business(0, 0).outcome();
    assert_lines(
        &rounds,
        &[("us.sched_1.17", 2_999), ("us.agi", 43_468), ("us.8962.8a", 2_399), ("us.8962.24", 6_601)],
    );
    assert!(rounds.covered, "{:?}", rounds.points);
    let once = own_business(0, 0).pin("us.cover_method.ada", "simplified").outcome();
    assert_lines(&once, &[("us.sched_1.17", 1_986), ("us.agi", 44_481), ("us.8962.24", 6_420)]);
    // With other premiums beside: those are deducted first, and the same rounds begin at a lower income.
    let beside = own_business(0, 0).paper(
        "Own premiums",
        &["ada"],
        json!({ "amount": "900", "only_own": true }),
        Value::Null,
    );
    let beside = beside.outcome();
    let (cover, credit) = (line_of(&beside, "us.7206.cover", "person/ada"), line(&beside, "us.8962.24"));
    assert_eq!(line(&beside, "us.sched_1.17"), 900 + cover);
    assert_eq!(cover + credit, 9_600);
}

/// Advance payments of 7,000: 2,600 are paid oneself. With 375 more 2,975 would leave 43,492, not below 200 %; with 975 more 3,575 leave
/// 42,892, below 300 %, and the rounds end at 2,999 as without; 399 are paid back. Of 9,000 paid in advance 600 are one's own: 1,575 at
/// most, which leaves 44,892, 298 %, .0592: a credit of 6,342; of 2,658 too much 975 are paid back.
#[test]
fn premiums_of_the_self_employed_beside_advance_payments() {
    let some = own_business(0, 7_000).outcome();
    assert_lines(&some, &[("us.sched_1.17", 2_999), ("us.8962.24", 6_601), ("us.sched_2.1a", 399)]);
    let most = own_business(0, 9_000).outcome();
    assert_lines(
        &most,
        &[("us.sched_1.17", 1_575), ("us.agi", 44_892), ("us.8962.24", 6_342), ("us.sched_2.1a", 975)],
    );
    // 300 % of the poverty line is 45,180: one dollar below it at 975 more, and at it, where 1,625 more are tried: 2,225 leave 44,530, and
    // the limit stays the one that was tried.
    let below = own_business(287, 9_000).outcome();
    assert_lines(&below, &[("us.sched_1.17", 1_575), ("us.agi", 45_179), ("us.sched_2.1a", 975)]);
    // 44,530 is 295 %, .0580: 2,583 and a credit of 6,417.
    let at = own_business(288, 9_000).outcome();
    assert_lines(
        &at,
        &[("us.sched_1.17", 2_225), ("us.agi", 44_530), ("us.8962.24", 6_417), ("us.sched_2.1a", 1_625)],
    );
}

/// Not below zero profit, not two businesses, not beside a policy of someone else; and it is asked where it is not said.
#[test]
fn premiums_of_the_self_employed_are_asked_about() {
    let boxes = json!({ "33A": "9600", "33B": "9000" });
    let business = json!({ "1": "50000", "participates": true, "service": false });
    let unsaid = Family::single(2025).paper("Schedule C", &["ada"], business.clone(), Value::Null);
    let unsaid = unsaid.paper("1095-A", &["ada"], boxes.clone(), Value::Null).outcome();
    assert!(has_point(&unsaid, "8962-7206") && !unsaid.covered);
    let mixed = own_business(0, 0).paper(
        "1095-A",
        &["ada"],
        json!({ "33A": "1", "33B": "1", "own_work": false }),
        Value::Null,
    );
    assert!(has_point(&mixed.outcome(), "8962-7206-mixed"));
    let couple = Family::couple(2025)
        .paper("Schedule C", &["ada"], business.clone(), Value::Null)
        .paper("Schedule C", &["bo"], business, Value::Null)
        .paper("1095-A", &["ada"], json!({ "33A": "9600", "33B": "9000", "own_work": true }), Value::Null);
    assert!(has_point(&couple.pin("us.status", "joint").outcome(), "8962-7206-both"));
    let loss = json!({ "1": "5000", "27b": "9000", "participates": true });
    let loss = Family::single(2025).wages("ada", 30_000).paper("Schedule C", &["ada"], loss, Value::Null);
    let loss = loss.paper(
        "1095-A",
        &["ada"],
        json!({ "33A": "9600", "33B": "9000", "own_work": true }),
        Value::Null,
    );
    // 26,000 are 172 % of 15,060, .0088: 229. The premiums that the credit of 8,771 leaves are medical.
    let loss = loss.outcome();
    assert_lines(
        &loss,
        &[("us.sched_1.17", 0), ("us.agi", 26_000), ("us.8962.24", 8_771), ("us.sched_a.1", 829)],
    );
}

/// Where the rounds jump over a step of the percentage there is no end: one round is taken, and it is told. Deduction and credit never
/// come to more than the premium, and where there is an end they are all of it.
#[test]
fn rounds_without_an_end() {
    let mut without = 0;
    for wages in (10..2_000).step_by(90) {
        let outcome = own_business(wages, 0).pin("us.cover_method.ada", "iterative").outcome();
        let once = own_business(wages, 0).pin("us.cover_method.ada", "simplified").outcome();
        let both = |o| line(o, "us.sched_1.17") + line(o, "us.8962.24");
        if has_point(&outcome, "C-81") {
            without += 1;
            assert_eq!(line(&outcome, "us.sched_1.17"), line(&once, "us.sched_1.17"));
        } else {
            assert_eq!(both(&outcome), 9_600, "{wages}");
        }
        assert!(both(&once) <= 9_600);
        assert!(once.total >= outcome.total, "{wages}");
    }
    assert!(without > 0);
}

/// Married in July: 70,000 are 342 % of 20,440, .0705, 411 a month; half of it, 35,000, is 232 % of 15,060 for each, .0328, 96 a month. Until
/// July 404 each, then 1,000 − 411.
#[test]
fn the_year_of_a_marriage() {
    let couple = |child: bool, month: Value, advance: i64| {
        let family = Family::couple(2025).wages("ada", 30_000).wages("bo", 40_000);
        let family = if child { family.child("kim", "2015-05-05") } else { family };
        let boxes = json!({ "33A": "6000", "33B": "6000", "33C": advance.to_string(), "married": month });
        let mut boxes = boxes;
        boxes.as_object_mut().unwrap().retain(|_, value| !value.is_null());
        let family = family.paper("1095-A", &["ada"], boxes.clone(), Value::Null);
        family.paper("1095-A", &["bo"], boxes, Value::Null).pin("us.status", "joint").outcome()
    };
    let unsaid = couple(false, Value::Null, 5_100);
    assert_lines(&unsaid, &[("us.8962.24", 7_065), ("us.sched_2.1a", 3_135)]);
    assert!(has_point(&unsaid, "C-83"));
    for (month, credit) in [(7, 8_601), (1, 808 + 11 * 589), (12, 12 * 808)] {
        let outcome = couple(false, json!(month), 5_100);
        assert_lines(&outcome, &[("us.8962.alternative", credit), ("us.sched_2.1a", 10_200 - credit)]);
        assert!(!has_point(&outcome, "C-83"));
    }
    // With a child, who goes to either: 271 % of 25,820, 282 a month; 25 for a family of two and 96 for one.
    let child = couple(true, json!(7), 5_100);
    assert_lines(&child, &[("us.8962.alternative", 9_743), ("us.sched_2.1a", 457)]);
    // It makes no credit, and is not asked for where nothing is paid back.
    let none = couple(false, json!(12), 4_000);
    assert_lines(&none, &[("us.8962.24", 7_065), ("us.sched_2.1a", 0), ("us.sched_3.9", 0)]);
    let credit = couple(false, json!(12), 1_000);
    assert_lines(&credit, &[("us.sched_3.9", 5_065)]);
}

/// A small employer's reimbursement beside a policy is told.
#[test]
fn a_reimbursement_beside_a_policy_is_not_covered() {
    let coded =
        || Family::single(2025).wages_with("ada", 30_000, json!({ "12a": "FF", "12a.amount": "1200" }));
    assert!(coded().outcome().covered);
    let outcome = policy(coded(), &["ada"], [6_000, 6_200, 3_000]).outcome();
    assert!(has_point(&outcome, "8962-reimbursed") && !outcome.covered);
}
