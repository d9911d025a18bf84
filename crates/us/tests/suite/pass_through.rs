//! Schedules K-1, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

fn single(wages: i64) -> Family {
    Family::single(2025).wages("ada", wages)
}

/// A Schedule K-1 on which nothing else counts.
fn share(family: Family, kind: &str, who: &str, boxes: Value) -> Family {
    let mut all = json!({ "more": false, "service": false });
    all.as_object_mut().unwrap().extend(boxes.as_object().unwrap().clone());
    family.paper(kind, &[who], all, Value::Null)
}

/// Ordinary income 40,000 and payments of 20,000, all earned: 55,410 × 12.4 % = 6,871 and × 2.9 % = 1,607. Qualified income is
/// 40,000 less half of the tax.
#[test]
fn a_partner_who_works() {
    let boxes =
        json!({ "participates": true, "1": "40000", "4a": "20000", "14A": "60000", "qualified": "40000" });
    let outcome = share(Family::single(2025), "K-1 1065", "ada", boxes).outcome();
    assert!(outcome.covered, "{:#?}", outcome.points);
    assert_lines(
        &outcome,
        &[
            ("us.sched_e.32", 60_000),
            ("us.sched_1.5", 60_000),
            ("us.sched_2.4", 8_478),
            ("us.sched_1.15", 4_239),
            ("us.agi", 55_761),
            ("us.8995.2", 35_761),
            ("us.13a", 7_152),
            ("us.15", 32_859),
            ("us.16", 3_707),
        ],
    );
    assert_eq!(line_of(&outcome, "us.sched_se.6", "person/ada"), 55_410);
}

/// The same amounts stand in other boxes of each schedule, and go to the same lines.
#[test]
fn the_boxes_of_the_three_schedules() {
    let kinds = [
        ("K-1 1065", ["5", "6a", "6b", "8", "9a", "9c", "18A", "1"], "us.sched_e.32"),
        ("K-1 1120-S", ["4", "5a", "5b", "7", "8a", "8c", "16A", "1"], "us.sched_e.32"),
        ("K-1 1041", ["1", "2a", "2b", "3", "4a", "4c", "14A", "6"], "us.sched_e.37"),
    ];
    for (kind, fields, ordinary) in kinds {
        let amounts = ["101", "202", "150", "-40", "900", "60", "33", "5000"];
        let boxes: serde_json::Map<String, Value> =
            fields.iter().zip(amounts).map(|(field, amount)| ((*field).to_owned(), json!(amount))).collect();
        let mut boxes = Value::Object(boxes);
        boxes["participates"] = json!(true);
        boxes["qualified"] = json!("0");
        let outcome = share(single(50_000), kind, "ada", boxes).outcome();
        assert!(outcome.covered, "{kind}: {:#?}", outcome.points);
        assert_lines(
            &outcome,
            &[
                (ordinary, 5_000),
                ("us.2a", 33),
                ("us.2b", 101),
                ("us.3a", 150),
                ("us.3b", 202),
                ("us.sched_d.5", -40),
                ("us.sched_d.12", 900),
                ("us.sched_d.19", 20),
                ("us.7", 860),
                ("us.agi", 56_163),
                ("us.sched_2.4", 0),
            ],
        );
    }
}

/// What one does not work in is passive: it makes room for losses of what is let, and counts for the tax on investment income.
#[test]
fn passive_income() {
    let boxes = |works: bool| json!({ "participates": works, "6": "3000", "qualified": "0" });
    let let_out = json!({ "kind": "single", "days": 365, "3": "10000", "19": "15000", "18": "0", "active": false,
        "business": false });
    let family = |works: bool| {
        share(single(60_000), "K-1 1041", "ada", boxes(works)).paper(
            "Schedule E",
            &["ada"],
            let_out.clone(),
            Value::Null,
        )
    };
    let passive = family(false).outcome();
    assert_lines(&passive, &[("us.sched_e.26", -3_000), ("us.sched_e.37", 3_000), ("us.sched_1.5", 0)]);
    let working = family(true).outcome();
    assert_lines(&working, &[("us.sched_e.26", 0), ("us.sched_e.37", 3_000), ("us.sched_1.5", 3_000)]);

    let taxed = |works: bool| {
        let boxes = json!({ "participates": works, "1": "10000", "qualified": "0" });
        let outcome = share(single(230_000), "K-1 1120-S", "ada", boxes).outcome();
        let tax = outcome.lines.iter().find(|l| l.id == "us.8960.17");
        tax.map_or(0, |l| l.amount.cents() / 100)
    };
    assert_eq!((taxed(false), taxed(true)), (380, 0));
}

/// Passive income above 11,950 bars the earned income credit; what one works for does not.
#[test]
fn passive_income_is_investment_income_for_the_earned_income_credit() {
    let credit = |works: bool, income: i64| {
        let boxes = json!({ "participates": works, "1": income.to_string(), "qualified": "0" });
        let family = single(9_000).set("ada", "/answers/paid_home", json!(true)).child("kim", "2016-05-05");
        line(&share(family, "K-1 1120-S", "ada", boxes).outcome(), "us.27a")
    };
    assert!(credit(false, 11_950) > 0 && credit(false, 11_951) == 0 && credit(true, 11_951) > 0);
}

#[test]
fn on_a_joint_return_each_has_a_part() {
    let boxes = |amount: &str| json!({ "participates": true, "1": amount, "qualified": "0" });
    let family = Family::couple(2025).wages("ada", 40_000);
    let family = share(family, "K-1 1120-S", "ada", boxes("7000"));
    let outcome = share(family, "K-1 1120-S", "bo", boxes("9000")).outcome();
    assert_lines(&outcome, &[("us.sched_e.32", 16_000), ("us.agi", 56_000)]);
    assert_eq!(line_of(&outcome, "us.sched_e.32", "person/bo"), 9_000);
    assert_eq!(line_of(&outcome, "us.agi", "person/ada"), 47_000);
}

#[test]
fn what_is_not_computed_is_told() {
    let of = |kind: &str, boxes: Value| single(50_000).paper(kind, &["ada"], boxes, Value::Null).outcome();
    let worked = json!({ "participates": true, "more": false, "qualified": "0", "1": "100" });
    let with = |field: &str, value: Value| {
        let mut boxes = worked.clone();
        boxes[field] = value;
        boxes
    };
    assert!(of("K-1 1065", worked.clone()).covered);
    let loss = of("K-1 1065", with("1", json!("-1")));
    assert!(has_point(&loss, "k-1-basis") && !loss.covered);
    let trust = of("K-1 1041", with("6", json!("-1")));
    assert!(has_point(&trust, "k-1-loss") && !trust.covered);
    for field in ["3", "4b", "7", "11", "12", "13", "21"] {
        let outcome = of("K-1 1065", with(field, json!("1")));
        assert!(has_point(&outcome, "k-1-box") && !outcome.covered, "{field}");
    }
    let more = of("K-1 1065", with("more", json!(true)));
    assert!(has_point(&more, "k-1-box") && !more.covered);
    let unsaid = of("K-1 1065", json!({ "1": "100" }));
    assert!(has_point(&unsaid, "k-1-more") && has_point(&unsaid, "k-1-participates") && !unsaid.covered);
    assert!(has_point(&unsaid, "k-1-qualified"));
    // A part above its whole, and a partner who works without earnings; zero says that there are none.
    let mut dividends = with("6b", json!("11"));
    dividends["6a"] = json!("10");
    assert!(has_point(&of("K-1 1065", dividends.clone()), "k-1-dividends"));
    dividends["6a"] = json!("11");
    assert!(!has_point(&of("K-1 1065", dividends), "k-1-dividends"));
    assert!(has_point(&of("K-1 1065", worked.clone()), "k-1-earnings"));
    assert!(!has_point(&of("K-1 1065", with("14A", json!("0"))), "k-1-earnings"));
    assert!(!has_point(&of("K-1 1065", with("participates", json!(false))), "k-1-earnings"));
    assert!(!has_point(&of("K-1 1120-S", worked.clone()), "k-1-earnings"));
    // Interest alone asks neither for work nor for qualified income.
    let interest = of("K-1 1041", json!({ "1": "100", "more": false }));
    assert!(interest.covered && !has_point(&interest, "k-1-qualified"));
}

/// Above the threshold of 197,300 the question about a specified service decides.
#[test]
fn qualified_income_above_the_threshold() {
    let boxes = |service: bool| json!({ "participates": true, "1": "50000", "qualified": "50000", "service": service, "wages": "30000" });
    // Taxable income before it 384,250 is above 247,300: half of wages 30,000 is above a fifth of 50,000.
    let outcome = share(single(350_000), "K-1 1120-S", "ada", boxes(false)).outcome();
    assert_lines(&outcome, &[("us.8995.2", 50_000), ("us.13a", 10_000)]);
    let service = share(single(350_000), "K-1 1120-S", "ada", boxes(true)).outcome();
    assert_lines(&service, &[("us.13a", 0)]);
}

/// A loss that basis and risk cover.
fn lost(wages: i64, kind: &str, boxes: Value) -> hembo_core::Outcome {
    let mut all = json!({ "basis": true, "qualified": "0" });
    all.as_object_mut().unwrap().extend(boxes.as_object().unwrap().clone());
    share(single(wages), kind, "ada", all).outcome()
}

/// In full where the owner works in it, and it is carried on as a qualified loss; a partner's lowers the other earnings.
#[test]
fn losses_of_who_works_in_it() {
    let loss =
        lost(60_000, "K-1 1120-S", json!({ "participates": true, "1": "-20000", "qualified": "-20000" }));
    assert!(loss.covered, "{:#?}", loss.points);
    assert_lines(
        &loss,
        &[("us.sched_e.32", -20_000), ("us.agi", 40_000), ("us.carryover.business_loss", 20_000)],
    );
    let boxes =
        json!({ "participates": true, "1": "-20000", "14A": "-20000", "basis": true, "qualified": "0" });
    let business = json!({ "1": "50000", "participates": true, "service": false });
    let family = share(Family::single(2025), "K-1 1065", "ada", boxes);
    let both = family.paper("Schedule C", &["ada"], business, Value::Null).outcome();
    // 30,000 × .9235 = 27,705: 3,435 and 803.
    assert_lines(&both, &[("us.sched_2.4", 4_238), ("us.agi", 30_000 - 2_119)]);
}

/// Passive losses wait, but for what passive income there is; those of earlier years with them.
#[test]
fn passive_losses() {
    let passive = json!({ "participates": false, "1": "-5000" });
    let alone = lost(60_000, "K-1 1065", passive);
    assert!(alone.covered, "{:#?}", alone.points);
    assert_lines(&alone, &[("us.sched_e.32", 0), ("us.agi", 60_000), ("us.carryover.passive_loss", 5_000)]);
    assert!(has_point(&alone, "K-080"));
    let earlier = lost(60_000, "K-1 1065", json!({ "participates": false, "1": "1000", "carried": "4000" }));
    assert_lines(&earlier, &[("us.sched_e.32", 0), ("us.carryover.passive_loss", 3_000)]);
    let boxes = json!({ "participates": false, "1": "-5000", "basis": true, "qualified": "0" });
    let rented =
        json!({ "kind": "single", "days": 365, "3": "3000", "18": "0", "active": true, "business": false });
    let beside = share(single(60_000), "K-1 1065", "ada", boxes);
    let beside = beside.paper("Schedule E", &["ada"], rented, Value::Null).outcome();
    assert_lines(
        &beside,
        &[
            ("us.sched_e.26", 3_000),
            ("us.sched_e.32", -3_000),
            ("us.agi", 60_000),
            ("us.carryover.passive_loss", 2_000),
        ],
    );
    // A loss of one whom it makes work in goes beside a passive one in full.
    let boxes = json!({ "participates": true, "1": "-7000", "2": "-5000", "active": false });
    let both = lost(60_000, "K-1 1065", boxes);
    assert_lines(&both, &[("us.sched_e.32", -7_000), ("us.carryover.passive_loss", 5_000)]);
}

/// Rental real estate in box 2: the allowance by income, which what is not passive raises; in full for a professional who works in it.
#[test]
fn rental_real_estate_of_a_share() {
    let rental = |wages: i64, boxes: Value| {
        let mut all = json!({ "2": "-10000", "active": true });
        all.as_object_mut().unwrap().extend(boxes.as_object().unwrap().clone());
        lost(wages, "K-1 1065", all)
    };
    for (wages, more, net) in [
        (60_000, json!({}), -10_000),
        (130_000, json!({}), -10_000),
        (130_002, json!({}), -9_999),
        (150_000, json!({}), 0),
        (60_000, json!({ "active": false }), 0),
        // 130,000 with 10,000 of guaranteed payments.
        (130_000, json!({ "4a": "10000", "14A": "0" }), 5_000),
        (150_000, json!({ "participates": true, "professional": true }), -10_000),
    ] {
        let outcome = rental(wages, more.clone());
        assert_lines(&outcome, &[("us.sched_e.32", net)]);
        assert!(outcome.covered, "{more}: {:#?}", outcome.points);
    }
    assert!(has_point(&lost(60_000, "K-1 1065", json!({ "2": "-1" })), "k-1-active"));
}

/// Box 10: a gain on Schedule D, passive where one does not work in it; a loss is ordinary.
#[test]
fn business_property_of_a_share() {
    let gain = |works: bool| {
        let boxes = json!({ "participates": works, "10": "30000", "14A": "0", "qualified": "0" });
        let rented =
            json!({ "kind": "single", "days": 365, "3": "0", "19": "9000", "18": "0", "active": false });
        let family = share(single(190_000), "K-1 1065", "ada", boxes);
        family.paper("Schedule E", &["ada"], rented, Value::Null).outcome()
    };
    let passive = gain(false);
    assert_lines(&passive, &[("us.sched_d.11", 30_000), ("us.sched_e.26", -9_000)]);
    // 211,000 are 11,000 above the threshold.
    assert_lines(&passive, &[("us.agi", 211_000), ("us.8960.17", 418)]);
    let working = gain(true);
    assert_lines(&working, &[("us.sched_d.11", 30_000), ("us.sched_e.26", 0), ("us.agi", 220_000)]);
    assert!(!working.lines.iter().any(|l| l.id == "us.8960.17" && !l.amount.is_zero()));
    let loss = lost(60_000, "K-1 1120-S", json!({ "participates": true, "9": "-4000" }));
    assert_lines(&loss, &[("us.sched_1.4", -4_000), ("us.agi", 56_000)]);
    let passive = lost(60_000, "K-1 1120-S", json!({ "participates": false, "9": "-4000" }));
    assert!(has_point(&passive, "k-1-loss") && !passive.covered);
}

/// What the law asks beyond it is told.
#[test]
fn losses_that_are_not_computed() {
    for (boxes, point) in [
        (json!({ "participates": true, "1": "-1", "basis": false }), "k-1-loss"),
        (json!({ "participates": true, "1": "1", "carried": "5" }), "k-1-former"),
        (json!({ "participates": false, "1": "1", "2": "1", "active": true, "carried": "5" }), "k-1-former"),
        (json!({ "participates": false, "1": "-5", "qualified": "-5" }), "k-1-qualified-loss"),
        (json!({ "participates": true, "1": "-313001" }), "business-excess-loss"),
    ] {
        let outcome = lost(60_000, "K-1 1065", boxes.clone());
        assert!(has_point(&outcome, point) && !outcome.covered, "{boxes}");
    }
    assert!(!has_point(
        &lost(400_000, "K-1 1065", json!({ "participates": true, "1": "-313000" })),
        "business-excess-loss"
    ));
}

/// Premiums that an S corporation pays for its shareholder: up to its Medicare wages, off the qualified income of its share, and the rest
/// is medical.
#[test]
fn premiums_of_a_shareholder() {
    for (wages, deducted, qualified) in
        [("71000", 9_000, 21_000), ("9000", 9_000, 21_000), ("8000", 8_000, 22_000)]
    {
        let share = json!({ "participates": true, "1": "30000", "qualified": "30000", "service": false, "more": false });
        let premiums = json!({ "amount": "9000", "only_own": true, "corporation": wages });
        let family = Family::single(2025)
            .wages("ada", 80_000)
            .paper("K-1 1120-S", &["ada"], share, json!(null))
            .paper("Own premiums", &["ada"], premiums, json!(null));
        let outcome = family.outcome();
        let lines = [
            ("us.sched_1.17", deducted),
            ("us.agi", 110_000 - deducted),
            ("us.8995.2", qualified),
            ("us.sched_a.1", 9_000 - deducted),
        ];
        assert_lines(&outcome, &lines);
        assert!(outcome.covered, "{:?}", outcome.points);
    }
}
