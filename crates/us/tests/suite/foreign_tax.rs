//! The foreign tax credit, worked by hand: without the form, by Form 1116, or deducted.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

fn fund(family: Family, who: &[&str], boxes: &Value) -> Family {
    let mut all = json!({ "1a": "3000", "8": "Portugal" });
    for (key, value) in boxes.as_object().unwrap() {
        all[key] = value.clone();
    }
    family.paper("1099-DIV", who, all, json!(null))
}

fn single(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

/// Up to 300, on a joint return 600, the credit needs no form: the tax paid, up to the tax.
#[test]
fn a_small_tax_needs_no_form() {
    for (tax, form) in [("300", false), ("300.49", false), ("301", true)] {
        let outcome = fund(single(60_000), &["ada"], &json!({ "7": tax, "7.income": "3000" })).outcome();
        let decision = outcome.decisions.iter().find(|d| d.id == "us.foreign_tax");
        assert_eq!(decision.is_some(), form, "{tax}");
        assert!(outcome.covered, "{:#?}", outcome.points);
    }
    let couple = Family::couple(2025).wages("ada", 60_000);
    let outcome = fund(couple, &["ada"], &json!({ "7": "600" })).outcome();
    assert_lines(&outcome, &[("us.sched_3.1", 600)]);
    // Tax on 16,000 + 3,000 − 15,750 is 328 (middle of 3,250 to 3,300).
    let outcome = fund(single(16_000), &["ada"], &json!({ "7": "300" })).outcome();
    assert_lines(&outcome, &[("us.16", 328), ("us.sched_3.1", 300), ("us.22", 28)]);
    let outcome = fund(single(14_000), &["ada"], &json!({ "7": "300" })).outcome();
    assert_lines(&outcome, &[("us.16", 126), ("us.sched_3.1", 126), ("us.22", 0)]);
}

/// Form 1116: foreign-source income 3,000 of 63,000, with its share of the standard deduction.
#[test]
fn the_form_limits_the_credit() {
    let outcome = fund(single(60_000), &["ada"], &json!({ "7": "900", "7.income": "3000" })).outcome();
    // 3,000 ÷ 63,000 = .0476; × 15,750 = 750 (749.70). 2,250 ÷ 47,250 = .0476. Tax on 47,250: 5,435 (middle of the band
    // 47,275: 1,192.50 + 12 % × 35,350); × .0476 = 259 (258.71).
    assert_lines(
        &outcome,
        &[
            ("us.1116.6", 750),
            ("us.1116.17", 2_250),
            ("us.16", 5_435),
            ("us.1116.21", 259),
            ("us.sched_3.1", 259),
            ("us.carryover.foreign_tax", 641),
        ],
    );
    assert!(has_point(&outcome, "1116-carryback"));
    let carried = fund(single(60_000), &["ada"], &json!({ "7": "100", "7.income": "3000" })).paper(
        "Foreign tax carried",
        &["ada"],
        json!({}),
        json!([{ "year": 2020, "amount": "500" }, { "year": 2014, "amount": "9000" }]),
    );
    // With the form 100 and of the 500 carried here 159; without it 100. What is older than ten years is gone.
    let outcome = carried.outcome();
    assert_lines(&outcome, &[("us.sched_3.1", 259), ("us.carryover.foreign_tax", 341)]);
    assert_lines(&carried.pin("us.foreign_tax", "simple").outcome(), &[("us.sched_3.1", 100)]);
}

/// Deducted where that is lower: the limit of the form is small, and the return itemizes.
#[test]
fn it_may_be_deducted_instead() {
    let family = fund(single(100_000), &["ada"], &json!({ "1a": "20", "7": "2000", "7.income": "20" }))
        .state_tax(&["ada"], 9_000)
        .cash_gift(&["ada"], 12_000);
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.sched_a.6", 2_000), ("us.sched_a.17", 23_000), ("us.sched_3.1", 0)]);
    let form = family.clone().pin("us.foreign_tax", "form").outcome();
    assert_eq!(line(&form, "us.sched_a.6"), 0);
    // 22 % of 2,000, less the credit.
    assert_eq!(form.total - outcome.total, hembo_money::Money::whole(440 - line(&form, "us.sched_3.1")));
    let standard = family.pin("us.deduction", "standard").outcome();
    let decision = standard.decisions.iter().find(|d| d.id == "us.foreign_tax").unwrap();
    assert_eq!(decision.options[2].barred.as_deref(), Some("standard deduction taken"));
}

#[test]
fn what_the_form_asks_is_asked() {
    let with = |boxes| fund(single(60_000), &["ada"], &boxes).outcome();
    assert!(has_point(&with(json!({ "7": "900" })), "K-060"));
    assert!(!has_point(&with(json!({ "7": "200" })), "K-060"));
    // A dependent's own return.
    let child = Family::single(2025).wages("ada", 60_000).child("kim", "2012-05-05");
    let outcome = fund(child.wages("kim", 9_000), &["kim"], &json!({ "1a": "900", "7": "301" })).outcome();
    assert!(has_point(&outcome, "1116-dependent"));
}

/// Wages and a fund of which 20,000 of 30,000 from abroad are qualified.
fn with_qualified(wages: i64, qualified: &str) -> Family {
    let boxes =
        json!({ "1a": "30000", "1b": qualified, "7": "5000", "7.income": "30000", "7.qualified": qualified });
    fund(single(wages), &["ada"], &boxes)
}

/// Qualified dividends from abroad of 20,000, or ordinary income above the 24 % bracket, are adjusted (§904(b)(2)(B)).
#[test]
fn dividends_at_the_lower_rates_are_adjusted() {
    // Taxable 314,250, ordinary 294,250: 57,231 + 35 % × 43,725 = 72,535, and 15 % of 20,000. 20,000 × .5946 = 11,892 off lines 1a
    // and 18; 30,000 ÷ 330,000 = .0909 of 15,750 is 1,432. 16,676 ÷ 302,358 = .0552.
    // Minimum tax: 330,000 − 88,100 = 241,900; 26 % × 221,900 + 15 % × 20,000 = 60,694. 20,000 × .4643 = 9,286 off both:
    // 20,714 ÷ 320,714 = .0646.
    let outcome = with_qualified(300_000, "20000").outcome();
    assert_lines(
        &outcome,
        &[
            ("us.16", 75_535),
            ("us.1116.3d", 30_000),
            ("us.1116.1a", 18_108),
            ("us.1116.6", 1_432),
            ("us.1116.17", 16_676),
            ("us.1116.18", 302_358),
            ("us.1116.21", 4_170),
            ("us.sched_3.1", 4_170),
            ("us.carryover.foreign_tax", 830),
            ("us.6251.7", 60_694),
            ("us.6251.8", 3_921),
            ("us.carryover.foreign_tax_minimum", 1_079),
            ("us.amt", 0),
        ],
    );
    assert!(outcome.covered);
    let must = |family: Family| {
        let outcome = family.pin("us.foreign_tax", "form").outcome();
        line(&outcome, "us.1116.18") < line(&outcome, "us.15")
    };
    assert!(!must(with_qualified(60_000, "19999")));
    assert!(must(with_qualified(60_000, "20000")));
    // 197,300 of ordinary income: 211,050 of wages and the 2,000 that are not qualified, less 15,750.
    for (wages, adjusted) in [(211_050, false), (211_051, true)] {
        let boxes =
            json!({ "1a": "3000", "1b": "1000", "7": "900", "7.income": "3000", "7.qualified": "1000" });
        assert_eq!(must(fund(single(wages), &["ada"], &boxes)), adjusted, "{wages}");
    }
}

/// Who need not adjust may: it pays where most of what is taxed at the lower rates is from home.
#[test]
fn the_lower_rates_may_be_adjusted_for() {
    let family = fund(single(60_000), &["ada"], &json!({ "7": "900", "7.income": "3000" })).paper(
        "1099-DIV",
        &["ada"],
        json!({ "1a": "10000", "1b": "10000" }),
        json!(null),
    );
    // Taxable 57,250; 1,100 at 0 %, 8,900 at 15 %: 5,435 + 1,335. 3,000 ÷ 73,000 = .0411 of 15,750 is 647.
    let plain = family.clone().pin("us.foreign_tax", "form").outcome();
    assert_lines(&plain, &[("us.16", 6_770), ("us.1116.17", 2_353), ("us.1116.21", 278)]);
    // 57,250 − 1,100 − 5,292 = 50,858; 2,353 ÷ 50,858 = .0463.
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.1116.18", 50_858), ("us.1116.21", 313), ("us.sched_3.1", 313)]);
    let without = fund(single(60_000), &["ada"], &json!({ "7": "900", "7.income": "3000" })).outcome();
    let decision = without.decisions.iter().find(|d| d.id == "us.foreign_tax").unwrap();
    assert_eq!(decision.options[3].barred.as_deref(), Some("nothing taxed at the rates for gains"));
    // 4,000 of 10,000 are from abroad, 1,100 of these at 0 % and the rest at 15 %: the law does not say which, so nothing is adjusted.
    let boxes =
        json!({ "1a": "10000", "1b": "10000", "7": "900", "7.income": "4000", "7.qualified": "4000" });
    let part = fund(single(63_000), &["ada"], &boxes).pin("us.foreign_tax", "adjusted").outcome();
    assert_lines(&part, &[("us.1116.1a", 4_000), ("us.1116.18", 57_250)]);
    assert!(part.covered && has_point(&part, "1116-rates-left"));
    // Where all of it is from abroad, all of both layers is: 10,000 − 1,100 − 5,291.94.
    let boxes =
        json!({ "1a": "10000", "1b": "10000", "7": "900", "7.income": "10000", "7.qualified": "10000" });
    let all = fund(single(63_000), &["ada"], &boxes).pin("us.foreign_tax", "adjusted").outcome();
    assert_lines(&all, &[("us.16", 6_770), ("us.1116.1a", 3_608), ("us.1116.18", 50_858)]);
    assert!(all.covered && !has_point(&all, "1116-rates-left"));
    // Where the return must adjust, it blocks.
    let boxes =
        json!({ "1a": "60000", "1b": "60000", "7": "900", "7.income": "20000", "7.qualified": "20000" });
    let must = fund(single(40_000), &["ada"], &boxes).outcome();
    assert!(has_point(&must, "1116-rates") && !must.covered);
}

/// The minimum tax has a credit of its own (§59(a)): no part of the standard deduction belongs to the income from abroad.
#[test]
fn the_minimum_tax_has_its_own_credit() {
    let family = fund(single(150_000), &["ada"], &json!({ "7": "900", "7.income": "3000" })).paper(
        "3921",
        &["ada"],
        json!({ "3": "0", "4": "200", "5": 1_000 }),
        json!(null),
    );
    // 137,250: 25,787. 3,000 ÷ 153,000 = .0196; 309; 2,691 ÷ 137,250 = .0196. Minimum tax on 353,000 − 88,100: 62,166 + 7,224;
    // 3,000 ÷ 353,000 = .0085.
    let outcome = family.outcome();
    assert_lines(
        &outcome,
        &[
            ("us.16", 25_787),
            ("us.sched_3.1", 505),
            ("us.6251.4", 353_000),
            ("us.6251.7", 69_390),
            ("us.6251.8", 590),
            ("us.6251.9", 68_800),
            ("us.amt", 43_518),
        ],
    );
    assert!(has_point(&outcome, "6251-8-simplified") && outcome.covered);
    let carried = |row: Value| {
        let family = family.clone().paper("Foreign tax carried", &["ada"], json!({}), json!([row]));
        family.pin("us.foreign_tax", "form").outcome()
    };
    assert!(has_point(&carried(json!({ "year": 2023, "amount": "10" })), "6251-8-carried"));
    let told = carried(json!({ "year": 2023, "amount": "10", "minimum": "0" }));
    assert!(told.covered && !has_point(&told, "6251-8-carried"));
    assert_lines(&told, &[("us.carryover.foreign_tax_minimum", 310)]);
}

/// Tax of earlier years waits through a year without the form, and is used up in one that deducts as if it were credited.
#[test]
fn tax_of_earlier_years_outlasts_a_year_without_the_form() {
    let carried = |family: Family| {
        let rows = json!([{ "year": 2022, "amount": "500", "minimum": "400" }]);
        family.paper("Foreign tax carried", &["ada"], json!({}), rows)
    };
    let simple = carried(fund(single(60_000), &["ada"], &json!({ "7": "100", "7.income": "3000" })));
    let outcome = simple.pin("us.foreign_tax", "simple").outcome();
    assert_lines(
        &outcome,
        &[
            ("us.sched_3.1", 100),
            ("us.carryover.foreign_tax", 500),
            ("us.carryover.foreign_tax_minimum", 400),
        ],
    );
    let deducts = fund(single(100_000), &["ada"], &json!({ "7": "100", "7.income": "3000" }));
    let deducts = carried(deducts.state_tax(&["ada"], 9_000).cash_gift(&["ada"], 12_000));
    let outcome = deducts.pin("us.foreign_tax", "deduct").outcome();
    let used = 500 - line(&outcome, "us.carryover.foreign_tax");
    // 103,000 − 21,100; no part of state tax or gifts is from abroad. 3,000 ÷ 81,900 = .0366 of 12,938 is 474, less the 100 deducted.
    assert_lines(&outcome, &[("us.15", 81_900), ("us.sched_3.1", 0)]);
    assert_eq!(used, 374);
    assert!(has_point(&outcome, "1116-absorbed"));
}
