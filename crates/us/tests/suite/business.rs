//! A business of one's own: Schedules C and SE, its plans and premiums, and the deduction of qualified business income, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn with(family: Family, who: &str, profit: i64, more: Value) -> Family {
    let mut boxes = json!({ "1": profit.to_string(), "participates": true, "service": false });
    for (key, value) in more.as_object().unwrap() {
        boxes[key] = value.clone();
    }
    family.paper("Schedule C", &[who], boxes, json!(null))
}

fn business(profit: i64, more: Value) -> Family {
    with(Family::single(2025), "ada", profit, more)
}

/// 92.35 % of the profit from 400 of it on; 12.4 % up to 176,100 with wages, and 2.9 %.
#[test]
fn self_employment_tax() {
    for (profit, net, tax) in [
        // 433 × .9235 = 399.88, below 400; 434: 400.80, so 401: 12.4 % is 49.72, 2.9 % is 11.63.
        (433, 0, 0),
        (434, 401, 50 + 12),
        (40_000, 36_940, 4_581 + 1_071),
        // 40,374.4965 is 40,374, no dollar more by way of its cents.
        (43_719, 40_374, 5_006 + 1_171),
        // 190,000: 175,465; 195,000: 180,083 (180,082.50), of which 176,100 for social security.
        (190_000, 175_465, 21_758 + 5_088),
        (195_000, 180_083, 21_836 + 5_222),
    ] {
        let outcome = business(profit, json!({})).outcome();
        assert_lines(
            &outcome,
            &[("us.sched_1.3", profit), ("us.sched_2.4", tax), ("us.sched_1.15", (tax + 1) / 2)],
        );
        assert_eq!(line_of(&outcome, "us.sched_se.6", "person/ada"), net);
        assert!(outcome.covered);
    }
    // Wages take from the base first: 176,100 − 170,000 = 6,100.
    let outcome = with(
        Family::single(2025).wages_with("ada", 170_000, json!({ "3": "170000" })),
        "ada",
        40_000,
        json!({}),
    )
    .outcome();
    assert_lines(&outcome, &[("us.sched_2.4", 756 + 1_071)]);
    // Additional Medicare: 170,000 of wages leave 30,000 of the threshold; .9 % of 6,940.
    assert_lines(&outcome, &[("us.8959.18", 62)]);
}

/// Miles at 70 cents, meals by half, a home office of 300 square feet at 5, no more than what is left.
#[test]
fn what_a_business_spends() {
    for (more, profit) in [
        (json!({ "8": "100", "22": "50.40", "27b": "9.60" }), 19_840),
        (json!({ "24b": "501" }), 19_750),
        (json!({ "miles": 1_001, "parking": "30" }), 19_269),
        (json!({ "feet": 200 }), 19_000),
        (json!({ "feet": 400 }), 18_500),
        (json!({ "feet": 300, "office_months": 6 }), 19_250),
        (json!({ "feet": 300, "27b": "19000" }), 0),
        (json!({ "4": "15000", "2": "1000" }), 4_000),
        (json!({ "27b": "25000" }), -5_000),
    ] {
        let outcome = business(20_000, more.clone()).outcome();
        assert_eq!(line(&outcome, "us.sched_1.3"), profit, "{more}");
    }
    let year = with(Family::single(2024), "ada", 20_000, json!({ "miles": 1_000 })).outcome();
    assert_lines(&year, &[("us.sched_1.3", 19_330)]);
    // Both methods of the home office: a decision.
    let both = business(60_000, json!({ "feet": 200, "office": "2400" }));
    let outcome = both.clone().outcome();
    assert_lines(&outcome, &[("us.sched_1.3", 57_600)]);
    let decision = outcome.decisions.iter().find(|d| d.id.starts_with("us.home_office")).unwrap();
    let id = decision.id.clone();
    assert_lines(&both.pin(&id, "simple").outcome(), &[("us.sched_1.3", 59_000)]);
}

#[test]
fn what_a_business_must_show_is_asked() {
    for (more, code) in [
        (json!({ "miles": 100, "9": "50" }), "business-car"),
        (json!({ "miles": 100 }), "K-077"),
        (json!({ "feet": 301 }), "K-078"),
    ] {
        assert!(has_point(&business(20_000, more).outcome(), code), "{code}");
    }
    let mut unsaid = business(1_000, json!({ "27b": "5000" }));
    unsaid.0["papers"][0]["boxes"].as_object_mut().unwrap().remove("participates");
    assert!(has_point(&unsaid.outcome(), "business-participates"));
    assert!(!business(1_000, json!({ "27b": "5000", "participates": false })).outcome().covered);
    let reported = business(900, json!({})).paper("1099-NEC", &["ada"], json!({ "1": "901" }), json!(null));
    assert!(has_point(&reported.outcome(), "K-074"));
    assert!(!business(1, json!({ "27b": "313002" })).outcome().covered);
    assert!(business(1, json!({ "27b": "313001" })).outcome().covered);
}

/// A business earns for the credits: the profit less half of the tax.
#[test]
fn a_business_earns_for_credits() {
    let outcome = business(12_000, json!({}))
        .set("ada", "/answers/paid_home", json!(true))
        .child("kim", "2015-05-05")
        .outcome();
    // 11,082 of net earnings: 1,374 and 321; half 848. Earned 11,152, in the band to 11,200: 34 % of 11,175 is 3,800.
    assert_lines(&outcome, &[("us.sched_2.4", 1_695), ("us.agi", 11_152), ("us.27a", 3_800)]);
}

/// A SEP: 20 % of the profit less half of the tax; health premiums up to what is left, the rest is medical.
#[test]
fn plans_and_premiums() {
    let plan = |kind: &str, boxes: Value| {
        let mut all = json!({ "kind": kind });
        for (key, value) in boxes.as_object().unwrap() {
            all[key] = value.clone();
        }
        business(60_000, json!({})).paper("Own plan", &["ada"], all, json!(null))
    };
    // 55,410: 6,871 and 1,607, half of 8,478 is 4,239; 20 % of 55,761 is 11,152.
    for (paid, deducted) in [(11_151, 11_151), (11_152, 11_152), (11_153, 11_152)] {
        assert_lines(
            &plan("sep", json!({ "share": paid.to_string() })).outcome(),
            &[("us.sched_1.16", deducted)],
        );
    }
    let solo = plan("solo", json!({ "elective": "23500", "share": "12000" })).outcome();
    assert_lines(&solo, &[("us.sched_1.16", 23_500 + 11_152)]);
    assert!(has_point(&plan("sep", json!({ "share": "900" })).outcome(), "C-80"));
    let premiums = |profit: i64, own: bool| {
        let boxes = json!({ "amount": "9000", "only_own": own });
        business(profit, json!({})).paper("Own premiums", &["ada"], boxes, json!(null)).outcome()
    };
    assert_lines(&premiums(60_000, true), &[("us.sched_1.17", 9_000), ("us.sched_a.1", 0)]);
    // 5,000: 4,618 (4,617.50): 573 and 134, half of 707 is 354: 4,646 is left; 4,354 are medical.
    assert_lines(&premiums(5_000, true), &[("us.sched_1.17", 4_646), ("us.sched_a.1", 4_354)]);
    assert_lines(&premiums(60_000, false), &[("us.sched_1.17", 0), ("us.sched_a.1", 9_000)]);
}

/// Deferrals of one's own plan share the limit of the year with those at work.
#[test]
fn deferrals_of_a_plan_of_ones_own() {
    let plan = |kind: &str, born: &str, at_work: &str, boxes: Value| {
        let mut all = json!({ "kind": kind });
        for (key, value) in boxes.as_object().unwrap() {
            all[key] = value.clone();
        }
        let family = Family::of(2025).filer("ada", born);
        let coded = json!({ "12a": "D", "12a.amount": at_work });
        let business = json!({ "1": "60000", "participates": true, "service": false });
        let family =
            family.wages_with("ada", 100, coded).paper("Schedule C", &["ada"], business, json!(null));
        line(&family.paper("Own plan", &["ada"], all, json!(null)).outcome(), "us.sched_1.16")
    };
    for (born, at_work, elective, deducted) in [
        ("1985-03-03", "0", "23500", 23_500),
        ("1985-03-03", "0", "30000", 23_500),
        ("1985-03-03", "20000", "30000", 3_500),
        ("1985-03-03", "25000", "30000", 0),
        ("1975-12-31", "0", "40000", 31_000),
        ("1965-12-31", "0", "40000", 34_750),
        ("1961-12-31", "0", "40000", 31_000),
    ] {
        assert_eq!(
            plan("solo", born, at_work, json!({ "elective": elective })),
            deducted,
            "{born} {at_work}"
        );
    }
    // A SIMPLE plan: 55,410 of net earnings, of which 3 % are 1,662 and 2 % are 1,108.
    for (born, at_work, elective, share, large, deducted) in [
        ("1985-03-03", "0", "17600", "0", false, 17_600),
        ("1985-03-03", "0", "17601", "0", false, 17_600),
        ("1985-03-03", "0", "17601", "0", true, 16_500),
        ("1985-03-03", "0", "17600", "1663", false, 19_262),
        ("1985-03-03", "0", "500", "2000", false, 1_608),
        ("1985-03-03", "0", "1200", "2000", false, 2_400),
        ("1985-03-03", "20000", "17600", "0", false, 3_500),
        ("1975-12-31", "0", "30000", "0", false, 21_450),
        ("1975-12-31", "0", "30000", "0", true, 20_000),
        ("1965-12-31", "0", "30000", "0", false, 22_850),
        ("1965-12-31", "0", "30000", "0", true, 21_750),
    ] {
        let boxes = json!({ "elective": elective, "share": share, "large": large });
        assert_eq!(plan("simple", born, at_work, boxes), deducted, "{born} {elective} {share} {large}");
    }
    // They are savings for the credit, too: 21,304 of income, half of 1,000, of a tax of 443.
    let saver = business(24_000, json!({})).paper(
        "Own plan",
        &["ada"],
        json!({ "kind": "solo", "elective": "1000" }),
        json!(null),
    );
    let saver = saver.set("ada", "/answers/testing_distributions", json!("0")).outcome();
    assert_lines(&saver, &[("us.agi", 21_304), ("us.sched_3.4", 443)]);
}

/// 20 % of qualified income, up to 20 % of taxable income without the net capital gain.
#[test]
fn the_deduction_below_the_threshold() {
    let outcome = business(60_000, json!({})).outcome();
    // 60,000 − 4,239 = 55,761, of which 11,152; taxable before it 40,011: 8,002.
    assert_lines(
        &outcome,
        &[("us.8995.2", 55_761), ("us.8995.5", 11_152), ("us.8995.11", 40_011), ("us.13a", 8_002)],
    );
    // Losses of earlier years come off; what is left below zero goes on.
    let carried = |loss: i64| {
        business(60_000, json!({}))
            .wages("ada", 50_000)
            .paper("Business losses carried", &["ada"], json!({ "3": loss.to_string() }), json!(null))
            .outcome()
    };
    assert_lines(
        &carried(5_761),
        &[("us.8995.2", 50_000), ("us.13a", 10_000), ("us.carryover.business_loss", 0)],
    );
    assert_lines(
        &carried(60_000),
        &[("us.8995.2", -4_239), ("us.13a", 0), ("us.carryover.business_loss", 4_239)],
    );
}

/// Above 197,300 wages and property limit it, and a specified service loses it at 247,300.
#[test]
fn the_deduction_above_the_threshold() {
    // Wages so large that taxable income before it is as told; business income 100,000, of a person at the wage base.
    let at = |before: i64, more: Value| {
        // Social security is used up by wages; 2.9 % of 92,350 is 2,678, half 1,339.
        let wages = before + 15_750 - 100_000 + 1_339;
        let family = Family::single(2025).wages_with("ada", wages, json!({ "3": "176100" }));
        with(family, "ada", 100_000, more).outcome()
    };
    let income = 98_661;
    for (before, more, component) in [
        (197_300, json!({ "service": true }), 19_732),
        (197_300, json!({}), 19_732),
        // Half of the range: half of the excess over half of the wages, none paid: 19,732 − 9,866.
        (222_300, json!({}), 9_866),
        (247_300, json!({}), 0),
        // Half of a service: 49,331 (49,330.50), 9,866, and no wages: half of it.
        (222_300, json!({ "service": true }), 4_933),
        (247_300, json!({ "service": true }), 0),
        // Property of 400,000: 2.5 % is 10,000.
        (300_000, json!({ "property": "400000" }), 10_000),
    ] {
        let outcome = at(before, more.clone());
        assert_eq!(line(&outcome, "us.8995.11"), before, "{more}");
        assert_lines(&outcome, &[("us.8995.2", income), ("us.8995.5", component)]);
    }
    // Wages paid of 30,000: half of them.
    let outcome = at(300_000, json!({ "1": "130000", "26": "30000" }));
    assert_lines(&outcome, &[("us.8995.5", 15_000)]);
    let mut unsaid = with(Family::single(2025).wages("ada", 150_000), "ada", 100_000, json!({}));
    unsaid.0["papers"][1]["boxes"].as_object_mut().unwrap().remove("service");
    assert!(has_point(&unsaid.outcome(), "K-120"));
}
