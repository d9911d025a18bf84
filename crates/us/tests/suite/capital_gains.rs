//! Dividends, gains and losses, worked by hand from the worksheets.

use hembo_core::Outcome;
use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::json;

fn single(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

/// Wages 52,000, interest 500, qualified dividends 3,000, net long-term gain 20,000: gains at 0 % up to 48,350.
#[test]
fn gains_fill_the_zero_rate_first() {
    let outcome = single(52_000)
        .interest(&["ada"], 500)
        .dividends(&["ada"], 3_000, 3_000)
        .sale(&["ada"], "long", 20_000)
        .outcome();
    assert!(outcome.covered, "{:#?}", outcome.points);
    assert_lines(
        &outcome,
        &[
            ("us.agi", 75_500),
            ("us.15", 59_750),
            ("us.gains_tax.gain", 23_000),
            ("us.gains_tax.ordinary", 36_750),
            ("us.gains_tax.0", 11_600),
            ("us.gains_tax.15", 11_400),
            ("us.gains_tax.20", 0),
            // 1,710 and by the table 4,175 on 36,750; at the ordinary rates alone 8,065.
            ("us.16", 5_885),
        ],
    );
}

/// One dollar below, at and above the end of the zero rate, all of taxable income being a gain.
#[test]
fn the_end_of_the_zero_rate() {
    for (taxable, tax) in [(48_349, 0), (48_350, 0), (48_351, 0), (48_354, 1), (48_360, 2)] {
        let outcome = Family::single(2025).sale(&["ada"], "long", 15_750 + taxable).outcome();
        // 15 % of 1 is 15 cents; of 4, 60; of 10, 150.
        assert_eq!((line(&outcome, "us.15"), line(&outcome, "us.16")), (taxable, tax));
    }
    // 533,400 is the end of the 15 % rate: 15 % of 485,050 is 72,757.50, and 20 % of 10 is 2.
    for (taxable, tax) in [(533_400, 72_758), (533_410, 72_760)] {
        let outcome = Family::single(2025).sale(&["ada"], "long", 15_750 + taxable).outcome();
        assert_eq!(line(&outcome, "us.16"), tax, "{taxable}");
    }
}

/// Net gain 60,000, of it collectibles 10,000 and depreciation 20,000; qualified dividends 5,000.
fn layered(taxable: i64) -> Outcome {
    let boxes = json!({ "1a": "5000", "1b": "5000", "2a": "30000", "2b": "20000" });
    let coin = json!({ "term": "long", "proceeds": "12000", "basis": "2000", "collectible": true });
    let share = json!({ "term": "long", "proceeds": "25000", "basis": "5000" });
    single(taxable + 15_750 - 65_000)
        .paper("1099-DIV", &["ada"], boxes, json!(null))
        .paper("1099-B", &["ada"], json!({}), json!([coin, share]))
        .outcome()
}

/// The Schedule D Tax Worksheet: layers of 28 % and 25 % fall below the end of the 24 % bracket (197,300), into it, above it.
#[test]
fn layers_are_taxed_at_28_and_25_but_never_above_the_ordinary_rates() {
    // Taxable income, ordinary, at 25 %, at 28 %, tax.
    for (taxable, ordinary, at_25, at_28, tax) in [
        // 15 % of 35,000 is 5,250; on 195,000: 17,651 + 24 % × 91,650 = 39,647.
        (230_000, 195_000, 0, 0, 44_897),
        // 5,250 + 28 % × 7,700 = 2,156 + 40,199 on 197,300.
        (240_000, 197_300, 0, 7_700, 47_605),
        // 5,250 + 25 % × 20,000 + 28 % × 10,000 + 52,263 on 235,000.
        (300_000, 235_000, 20_000, 10_000, 65_313),
    ] {
        let outcome = layered(taxable);
        assert_lines(
            &outcome,
            &[
                ("us.15", taxable),
                ("us.sched_d.18", 10_000),
                ("us.sched_d.19", 20_000),
                ("us.gains_tax.ordinary", ordinary),
                ("us.gains_tax.15", 35_000),
                ("us.gains_tax.25", at_25),
                ("us.gains_tax.28", at_28),
                ("us.16", tax),
            ],
        );
    }
}

/// Losses take from the 28 % gain first, then from the depreciation.
#[test]
fn losses_take_from_the_layers_in_order() {
    for (short, carried, rate_28, section_1250) in [
        (-4_000, 0, 6_000, 20_000),
        (-4_000, 6_000, 0, 20_000),
        (-4_000, 9_000, 0, 17_000),
        (3_000, 0, 10_000, 20_000),
    ] {
        let boxes = json!({ "2a": "30000", "2b": "20000" });
        let coin = json!({ "term": "long", "proceeds": "12000", "basis": "2000", "collectible": true });
        let outcome = single(300_000)
            .paper("1099-DIV", &["ada"], boxes, json!(null))
            .paper("1099-B", &["ada"], json!({}), json!([coin]))
            .sale(&["ada"], "short", short)
            .paper("Losses carried", &["ada"], json!({ "long": carried.to_string() }), json!(null))
            .outcome();
        assert_lines(&outcome, &[("us.sched_d.18", rate_28), ("us.sched_d.19", section_1250)]);
    }
}

/// A loss counts to 3,000, on a separate return to 1,500; the rest is carried on, short before long.
#[test]
fn a_loss_is_limited_and_carried_on() {
    for (loss, allowed) in [(2_999, 2_999), (3_000, 3_000), (3_001, 3_000)] {
        let outcome = single(50_000).sale(&["ada"], "long", -loss).outcome();
        assert_lines(&outcome, &[("us.7", -allowed), ("us.carryover.long", loss - allowed)]);
    }
    let apart = Family::couple(2025)
        .wages("ada", 50_000)
        .wages("bo", 50_000)
        .sale(&["ada"], "long", -9_000)
        .pin("us.status", "separate");
    assert_lines(&apart.outcome(), &[("us.7", -1_500), ("us.carryover.long", 7_500)]);
}

/// The Capital Loss Carryover Worksheet of 2024: taxable income 1,000, short loss 5,000, long loss 4,000; and with 2,000 less than
/// the deductions.
#[test]
fn the_carryover_worksheet() {
    for (over, short, long) in [(1_000, 2_000, 4_000), (-2_000, 4_000, 4_000)] {
        let outcome = Family::single(2024)
            .wages("ada", 14_600 + 3_000 + over)
            .sale(&["ada"], "short", -5_000)
            .sale(&["ada"], "long", -4_000)
            .outcome();
        assert_lines(&outcome, &[("us.carryover.short", short), ("us.carryover.long", long)]);
    }
    // A long gain takes from the short loss: 9,000 − 4,000 − 3,000.
    let outcome = single(60_000).sale(&["ada"], "short", -9_000).sale(&["ada"], "long", 4_000).outcome();
    assert_lines(&outcome, &[("us.carryover.short", 2_000), ("us.carryover.long", 0)]);
}

/// Held from the day after it was acquired: long from one year and a day on.
#[test]
fn the_term_is_that_of_the_days() {
    for (acquired, sold, long) in [
        ("2024-03-10", "2025-03-10", false),
        ("2024-03-10", "2025-03-11", true),
        ("2024-02-29", "2025-02-28", false),
        ("2024-02-29", "2025-03-01", true),
    ] {
        let row = json!({ "acquired": acquired, "sold": sold, "proceeds": "900", "basis": "400" });
        let outcome = single(50_000).paper("1099-B", &["ada"], json!({}), json!([row])).outcome();
        let expected = if long { (0, 500) } else { (500, 0) };
        assert_eq!(
            (line(&outcome, "us.sched_d.7"), line(&outcome, "us.sched_d.15")),
            expected,
            "{acquired} {sold}"
        );
    }
}

/// A wash sale's loss is not allowed; market discount is interest as far as there is a gain.
#[test]
fn wash_sales_and_market_discount() {
    let row = json!({ "term": "short", "proceeds": "700", "basis": "1000", "wash": "200" });
    let outcome = single(50_000).paper("1099-B", &["ada"], json!({}), json!([row])).outcome();
    assert_lines(&outcome, &[("us.sched_d.1b.g", 200), ("us.7", -100)]);
    for (proceeds, interest, gain) in [(1_050, 50, 0), (1_100, 80, 20), (1_000, 0, 0), (950, 0, -50)] {
        let row =
            json!({ "term": "long", "proceeds": proceeds.to_string(), "basis": "1000", "discount": "80" });
        let outcome = single(50_000).paper("1099-B", &["ada"], json!({}), json!([row])).outcome();
        assert_lines(&outcome, &[("us.2b", interest), ("us.7", gain)]);
    }
}

/// Each lot goes to the row of its box of Form 8949, and spouses' lots net on a joint return.
#[test]
fn lots_stand_on_their_rows() {
    let row = |term: &str, reported: &str, gain: i64| json!({ "term": term, "reported": reported, "proceeds": (1_000 + gain).to_string(), "basis": "1000" });
    let rows = json!([
        row("short", "basis", 1),
        row("short", "no_basis", 20),
        row("short", "digital", 300),
        row("long", "basis", 4),
        row("long", "no_basis", 50),
        row("long", "nothing", 600),
    ]);
    let outcome = single(50_000).paper("1099-B", &["ada"], json!({}), rows).outcome();
    let ids = ["1b", "2", "3", "8b", "9", "10"].map(|id| line(&outcome, &format!("us.sched_d.{id}")));
    assert_eq!(ids, [1, 20, 300, 4, 50, 600]);
    let couple = Family::couple(2025)
        .wages("ada", 90_000)
        .sale(&["ada"], "long", 5_000)
        .sale(&["bo"], "short", -9_000)
        .outcome();
    assert_eq!(line(&couple, "us.7"), -3_000);
    assert_eq!(line_of(&couple, "us.7", "person/ada"), 5_000);
    assert_eq!(line_of(&couple, "us.7", "person/bo"), -9_000);
}

/// Net investment income: gains count, an allowed loss takes from interest and dividends; 200,000 is the threshold.
#[test]
fn gains_and_losses_in_net_investment_income() {
    let outcome = single(230_000).dividends(&["ada"], 8_000, 0).sale(&["ada"], "long", -5_000).outcome();
    // 8,000 − 3,000, at 3.8 %; and 0.9 % of 30,000 of wages.
    assert_lines(&outcome, &[("us.8960.12", 5_000), ("us.8960.17", 190), ("us.23", 190 + 270)]);
    let outcome = single(230_000).sale(&["ada"], "long", 10_000).outcome();
    assert_lines(&outcome, &[("us.8960.17", 380)]);
}

/// Investment income above 11,950 ends the earned income credit; a loss does not lower it.
#[test]
fn gains_and_dividends_end_the_earned_income_credit() {
    for (gain, credit) in [(1_950, true), (1_951, false)] {
        let outcome = Family::single(2025)
            .set("ada", "/answers/paid_home", json!(true))
            .child("kim", "2015-05-05")
            .wages("ada", 15_000)
            .dividends(&["ada"], 10_000, 10_000)
            .sale(&["ada"], "long", gain)
            .outcome();
        assert_eq!(line(&outcome, "us.27a") > 0, credit, "{gain}");
    }
}

/// The minimum tax keeps the rates of gains: with a large gain and little else there is none.
#[test]
fn the_minimum_tax_on_a_large_gain() {
    // Single, 2025: gain 900,000 and wages 60,000. AMTI 960,000; exemption 88,100 − 25 % × 333,650 = 4,687.50, so 4,688. Above
    // it 955,312: on 55,312 at 26 % 14,381; of the gain no zero rate (ordinary 44,250 of 48,350 leaves 4,100), 15 % up to
    // 533,400 − 4,100 − 44,250 = 485,050: 72,757.50; 20 % of 410,850: 82,170.
    let outcome = single(60_000).sale(&["ada"], "long", 900_000).outcome();
    assert_lines(
        &outcome,
        &[
            ("us.15", 944_250),
            ("us.16", 5_075 + 72_758 + 82_170),
            ("us.6251.9", 14_381 + 72_758 + 82_170),
            ("us.amt", 9_306),
        ],
    );
}

/// Section 199A dividends: 20 %, up to 20 % of taxable income without the net capital gain.
#[test]
fn dividends_of_real_estate_trusts() {
    let with = |wages: i64, gain: i64| {
        let boxes = json!({ "1a": "2000", "5": "2000" });
        single(wages).paper("1099-DIV", &["ada"], boxes, json!(null)).sale(&["ada"], "long", gain).outcome()
    };
    assert_lines(&with(50_000, 0), &[("us.8995.9", 400), ("us.13a", 400), ("us.15", 35_850)]);
    // 15,000 + 2,000 − 15,750 = 1,250, and the gain does not count: 250.
    assert_lines(&with(15_000, 9_000), &[("us.8995.9", 400), ("us.13a", 250)]);
}

#[test]
fn what_a_broker_or_fund_did_not_say_is_asked() {
    let sale = |row| single(50_000).paper("1099-B", &["ada"], json!({}), json!([row])).outcome();
    let fund = |boxes| single(50_000).paper("1099-DIV", &["ada"], boxes, json!(null)).outcome();
    let row = |more: &[(&str, serde_json::Value)]| {
        let mut row = json!({ "what": "Reed", "term": "short", "proceeds": "900", "basis": "1000" });
        for (key, value) in more {
            row[*key] = value.clone();
        }
        row
    };
    let bare = json!({ "proceeds": "900" });
    assert!(has_point(&sale(bare.clone()), "K-062-term") && has_point(&sale(bare), "K-061"));
    let days = [("acquired", json!("2020-01-01")), ("sold", json!("2025-01-01"))];
    assert!(has_point(&sale(row(&days)), "K-062"));
    assert!(has_point(&sale(row(&[("wash", json!("101"))])), "K-063-loss"));
    assert!(!has_point(&sale(row(&[("wash", json!("100"))])), "K-063-loss"));
    let again = |acquired: &str, reported: &str| {
        let reported = ("reported", json!(reported));
        let rows = json!([
            row(&[("sold", json!("2025-05-10")), reported.clone()]),
            row(&[("acquired", json!(acquired)), ("basis", json!("100")), reported]),
        ]);
        has_point(&single(50_000).paper("1099-B", &["ada"], json!({}), rows).outcome(), "K-063")
    };
    assert_eq!(
        ["2025-04-09", "2025-04-10", "2025-06-09", "2025-06-10"].map(|day| again(day, "basis")),
        [false, true, true, false]
    );
    assert!(!again("2025-05-11", "digital"), "no stock or securities");
    assert!(has_point(&fund(json!({ "1a": "5", "1b": "6" })), "K-059"));
    assert!(!fund(json!({ "1a": "5", "2a": "9", "2c": "9" })).covered);
    assert!(has_point(&fund(json!({ "3": "40" })), "1099-div-3"));
    // A return of capital above the basis is a gain, long unless it is said to be short.
    let outcome = fund(json!({ "3": "400", "3.gain": "150" }));
    assert_lines(&outcome, &[("us.sched_d.10", 150), ("us.7", 150)]);
}

/// The answer on page 1 about digital assets, and the papers.
#[test]
fn digital_assets_and_the_answer_agree() {
    let sold = json!([{ "term": "long", "proceeds": "9", "basis": "4", "reported": "digital" }]);
    let sold = single(50_000).paper("1099-B", &["ada"], json!({}), sold);
    let received = json!([{ "sort": "digital", "amount": "300" }]);
    let received = single(50_000).paper("Other income", &["ada"], json!({}), received);
    for (family, told) in [(single(50_000), true), (sold, false), (received, false)] {
        let says =
            |yes: bool| has_point(&family.clone().answer("digital_assets", json!(yes)).outcome(), "K-025");
        assert_eq!((says(true), says(false)), (told, !told));
    }
}
