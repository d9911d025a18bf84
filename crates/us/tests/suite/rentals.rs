//! Rents, royalties and passive losses: Schedule E, Part I, and Form 8582, worked by hand.

use hembo_testing::us::{Family, assert_lines, has_point, line, line_of};
use serde_json::{Value, json};

/// A house that is let: rents, other expenses, and what else is keyed.
fn house(family: Family, who: &[&str], rents: i64, spent: i64, more: Value) -> Family {
    let mut boxes = json!({
        "kind": "single", "days": 365, "3": rents.to_string(), "19": spent.to_string(), "18": "0", "business": false,
    });
    for (key, value) in more.as_object().unwrap() {
        boxes[key] = value.clone();
    }
    family.paper("Schedule E", who, boxes, json!(null))
}

fn active() -> Value {
    json!({ "active": true })
}

/// Half of what income is below 150,000, up to 25,000 (Form 8582, lines 4 to 9).
#[test]
fn the_allowance_shrinks_with_income() {
    for (wages, loss, allowed) in [
        (90_000, 12_000, 12_000),
        (100_000, 25_000, 25_000),
        (100_000, 30_000, 25_000),
        (100_001, 30_000, 25_000), // 24,999.50
        (100_002, 30_000, 24_999),
        (130_000, 12_000, 10_000),
        (149_998, 12_000, 1),
        (149_999, 12_000, 1), // .50
        (150_000, 12_000, 0),
        (150_001, 12_000, 0),
    ] {
        let family = house(Family::single(2025).wages("ada", wages), &["ada"], 1_000, 1_000 + loss, active());
        let outcome = family.outcome();
        assert_lines(&outcome, &[("us.agi", wages - allowed), ("us.8582.9", allowed)]);
        assert_eq!(line(&outcome, "us.carryover.passive_loss"), loss - allowed, "{wages} {loss}");
        assert_eq!(has_point(&outcome, "K-080"), loss > allowed);
        assert!(outcome.covered);
    }
}

/// Who takes no part, guests of a week, a professional, royalties, land and what the own business rents.
#[test]
fn how_a_property_is_looked_at() {
    for (more, rents, spent, net) in [
        (json!({ "active": false }), 1_000, 6_000, 0),
        (json!({ "active": true, "short_stay": true }), 1_000, 6_000, 0),
        (json!({ "short_stay": true, "participates": true }), 1_000, 6_000, -5_000),
        (json!({ "participates": true, "active": false }), 1_000, 6_000, 0),
        (json!({ "professional": true, "participates": true }), 1_000, 41_000, -40_000),
        (json!({ "kind": "self", "active": false }), 1_000, 6_000, 0),
        (json!({ "kind": "land", "active": true }), 1_000, 6_000, -5_000),
        (json!({ "kind": "royalties", "3": "0", "4": "1000" }), 0, 6_000, -5_000),
    ] {
        let family = house(Family::single(2025).wages("ada", 60_000), &["ada"], rents, spent, more.clone());
        assert_eq!(line(&family.outcome(), "us.sched_e.26"), net, "{more}");
    }
    // Income of land or of the own business is not passive: nothing to set another loss off against.
    for (kind, net) in [("single", 2_000), ("self", 5_000), ("land", 5_000)] {
        let family = house(Family::single(2025), &["ada"], 9_000, 4_000, json!({ "kind": kind }));
        let family = house(family, &["ada"], 1_000, 4_000, json!({ "active": false }));
        assert_eq!(line(&family.outcome(), "us.sched_e.26"), net, "{kind}");
    }
}

/// Losses of earlier years count where there is income, and wait with the rest where there is none.
#[test]
fn earlier_losses() {
    let family = house(Family::single(2025), &["ada"], 16_000, 6_000, json!({ "carried": "4000" }));
    assert_lines(&family.outcome(), &[("us.sched_e.26", 6_000), ("us.agi", 6_000)]);
    let family =
        house(Family::single(2025), &["ada"], 16_000, 15_000, json!({ "carried": "4000", "active": false }));
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.sched_e.26", 0), ("us.8582.3", -3_000)]);
    assert_eq!(line(&outcome, "us.carryover.passive_loss"), 3_000);
}

/// Part I to VII with four properties: 130,000 of income leave 10,000 of allowance.
#[test]
fn several_properties() {
    let base = || Family::single(2025).wages("ada", 130_000);
    let family = house(base(), &["ada"], 5_000, 20_000, active());
    let family = house(family, &["ada"], 5_000, 10_000, active());
    let family = house(family, &["ada"], 1_000, 5_000, json!({ "active": false }));
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.8582.1d", -20_000), ("us.8582.2d", -4_000), ("us.8582.9", 10_000)]);
    assert_lines(&outcome, &[("us.sched_e.26", -10_000), ("us.8582.11", 10_000)]);
    assert_eq!(line(&outcome, "us.carryover.passive_loss"), 14_000);
    let outcome = house(family, &["ada"], 7_000, 1_000, json!({ "active": false })).outcome();
    assert_lines(&outcome, &[("us.8582.3", -18_000), ("us.8582.9", 10_000), ("us.sched_e.26", -10_000)]);
    assert_eq!(line(&outcome, "us.carryover.passive_loss"), 8_000);
}

/// Line 6 has neither half of the self-employment tax nor student-loan interest: 60,000 and 45,000 leave 22,500.
#[test]
fn modified_income() {
    let family = Family::single(2025)
        .wages("ada", 60_000)
        .paper(
            "Schedule C",
            &["ada"],
            json!({ "1": "45000", "participates": true, "service": false }),
            json!(null),
        )
        .paper("1098-E", &["ada"], json!({ "1": "1000" }), json!(null));
    let outcome = house(family, &["ada"], 0, 30_000, active()).outcome();
    // 105,000 − 22,500 − 3,179 (half of 6,358) − 1,000.
    assert_lines(&outcome, &[("us.8582.6", 105_000), ("us.sched_e.26", -22_500), ("us.agi", 78_321)]);
}

/// Spouses apart have half of the allowance, and none where they lived together (§469(i)(5)).
#[test]
fn spouses_apart() {
    let couple = |apart: Value| {
        let family = Family::couple(2025).answer("apart_all_year", apart).pin("us.status", "separate");
        house(family.wages("ada", 60_000).wages("bo", 60_000), &["ada"], 0, 20_000, active())
    };
    let outcome = couple(json!(true)).outcome();
    assert_lines(&outcome, &[("us.8582.9", 7_500), ("us.agi", 52_500)]);
    let outcome = couple(json!(false)).outcome();
    assert_lines(&outcome, &[("us.8582.9", 0), ("us.agi", 60_000)]);
    let mut unsaid = couple(json!(false));
    unsaid.0["answers"].as_object_mut().unwrap().remove("apart_all_year");
    assert!(has_point(&unsaid.outcome(), "rental-apart"));
    // Together: 120,000 leave 15,000; by owner.
    let joint = couple(json!(false)).pin("us.status", "joint").outcome();
    assert_lines(&joint, &[("us.8582.9", 15_000), ("us.agi", 105_000)]);
    assert_eq!(line_of(&joint, "us.sched_e.26", "person/ada"), -15_000);
    let halves =
        house(Family::couple(2025), &["ada", "bo"], 9_001, 1_000, active()).pin("us.status", "joint");
    let outcome = halves.outcome();
    assert_lines(&outcome, &[("us.sched_e.26", 8_001)]);
}

/// 27½ years from the middle of the first month, 39 for others; entered, it counts as entered.
#[test]
fn depreciation() {
    for (kind, since, written_off) in [
        ("single", "2020-05-20", 10_000),
        ("multi", "2025-07-01", 4_583), // 11 of 660 half months
        ("single", "2025-12-31", 417),
        ("single", "1998-01-05", 5_417), // 647 of 660 were used up
        ("single", "1997-06-05", 0),
        ("single", "2026-01-01", 0),
        ("commercial", "2020-05-20", 7_051),
        ("commercial", "1993-05-13", 7_051),
        ("commercial", "1993-05-12", 0), // 31½ years then: to be entered
    ] {
        let more = json!({ "kind": kind, "18": "0", "cost": "275000", "since": since });
        let family = house(Family::single(2025), &["ada"], 20_000, 0, more);
        assert_eq!(line(&family.outcome(), "us.sched_e.23e"), written_off, "{kind} {since}");
    }
    let more = json!({ "18": "1234", "cost": "275000", "since": "2020-05-20" });
    assert_eq!(
        line(&house(Family::single(2025), &["ada"], 9_000, 0, more).outcome(), "us.sched_e.23e"),
        1_234
    );
}

/// A home that is let (§280A): own days over 14 and over a tenth of the rented ones.
#[test]
fn a_home_that_is_let() {
    let base = |days: i64, own: i64, rents: i64| {
        house(
            Family::single(2025),
            &["ada"],
            rents,
            4_000,
            json!({ "days": days, "own_days": own, "active": true }),
        )
        .outcome()
    };
    let fourteen = base(14, 15, 9_000);
    assert_eq!(line(&fourteen, "us.agi"), 0);
    assert!(has_point(&fourteen, "rental-few-days"));
    assert_eq!(line(&base(15, 15, 9_000), "us.agi"), 5_000);
    for (days, own, covered) in
        [(140, 14, true), (100, 14, true), (100, 15, false), (150, 15, true), (149, 15, false)]
    {
        assert_eq!(base(days, own, 1_000).covered, covered, "{days} {own}");
    }
    assert!(has_point(&base(350, 16, 9_000), "K-079"));
    assert!(!has_point(&base(350, 15, 9_000), "K-079"));
}

/// Net rents are investment income (§§1411, 32(i)), a business where it is one (§199A), and gross income as rents.
#[test]
fn what_else_rents_do() {
    let family = house(Family::single(2025).wages("ada", 195_000), &["ada"], 25_000, 5_000, active());
    // 215,000: 3.8 % of 15,000.
    assert_lines(&family.outcome(), &[("us.8960.12", 20_000), ("us.8960.17", 570)]);
    let works = json!({ "professional": true, "participates": true });
    let family = house(Family::single(2025).wages("ada", 195_000), &["ada"], 25_000, 5_000, works);
    assert_lines(&family.outcome(), &[("us.8960.17", 0)]);
    for (rents, credit) in [(11_950, true), (11_951, false)] {
        let family =
            Family::single(2025).answer_for("ada", "paid_home", json!(true)).child("kim", "2015-05-05");
        let outcome = house(family.wages("ada", 12_000), &["ada"], rents, 0, active()).outcome();
        assert_eq!(line(&outcome, "us.27a") > 0, credit, "{rents}");
    }
    let family = house(
        Family::single(2025).wages("ada", 50_000),
        &["ada"],
        25_000,
        5_000,
        json!({ "business": true }),
    );
    let outcome = family.outcome();
    assert_lines(&outcome, &[("us.8995.2", 20_000), ("us.13a", 4_000)]);
    // A loss that waits is none of the business yet.
    let more = json!({ "business": true, "active": false });
    let family = house(Family::single(2025).wages("ada", 50_000), &["ada"], 1_000, 5_000, more);
    assert_lines(&family.outcome(), &[("us.13a", 0), ("us.8995.2", 0)]);
    // A parent with 6,000 of rents and 5,000 of expenses has too much gross income (§152(d)(1)(B)).
    for (rents, claimed) in [(5_199, true), (5_200, false)] {
        let family = Family::single(2025).wages("ada", 90_000).answer_for("ada", "paid_home", json!(true)).person(json!({
            "id": "ma", "name": "ma", "role": "dependent", "born": "1955-01-01", "lived_with": { "ada": 12 },
            "answers": { "relationship": "parent", "supported": true },
        }));
        let outcome = house(family, &["ma"], rents, 5_000, active()).outcome();
        assert_eq!(line(&outcome, "us.19") == 500, claimed, "{rents}");
    }
}

#[test]
fn what_a_property_must_tell_is_asked() {
    let asked = |boxes: Value| {
        Family::single(2025).wages("ada", 50_000).paper("Schedule E", &["ada"], boxes, json!(null)).outcome()
    };
    let loss = |more: Value| {
        let mut boxes = json!({ "kind": "single", "3": "1000", "19": "2000" });
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        asked(boxes)
    };
    assert!(has_point(&asked(json!({ "3": "1000" })), "rental-kind"));
    assert!(has_point(&loss(json!({})), "rental-active"));
    assert!(!has_point(&loss(json!({ "active": false })), "rental-active"));
    assert!(has_point(&loss(json!({})), "rental-depreciation"));
    assert!(!has_point(&loss(json!({ "18": "100" })), "rental-depreciation"));
    assert!(has_point(&loss(json!({ "kind": "short" })), "rental-stay"));
    assert!(has_point(&loss(json!({ "own_days": 15 })), "rental-days"));
    assert!(!loss(json!({ "not_at_risk": true })).covered);
    let old = |more: Value| loss(more).points.iter().any(|p| p.id.starts_with("rental-old-building"));
    assert!(old(json!({ "kind": "commercial", "cost": "9000", "since": "1993-05-12" })));
    assert!(!old(json!({ "kind": "commercial", "cost": "9000", "since": "1993-05-12", "18": "0" })));
    assert!(!old(json!({ "kind": "single", "cost": "9000", "since": "1993-05-12" })));
    let land = asked(json!({ "kind": "land", "3": "2000", "carried": "100" }));
    assert!(has_point(&land, "rental-recharacterized"));
    assert!(has_point(&asked(json!({ "kind": "single", "3": "2000" })), "C-78"));
    let working = json!({ "professional": true, "participates": true });
    assert!(has_point(&loss(working.clone()), "rental-participates"));
    let mut large = working;
    large["19"] = json!("314002");
    assert!(!loss(large.clone()).covered);
    large["19"] = json!("314000");
    assert!(loss(large).covered);
}
