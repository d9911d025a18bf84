//! Gifts to charity at the edges of their limits (§170(b)(1)), worked out by hand from an income of 50,000: cash up to
//! 60 % (30,000), goods up to 50 % (25,000) less the cash, and what is not used goes into next year.

use hembo_testing::us::{Family, assert_lines, has_point, line};
use serde_json::{Value, json};

const INCOME: i64 = 50_000;

fn given(year: i32, cash: i64, goods: i64) -> Family {
    let row = |sort: &str, amount: i64| json!({ "sort": sort, "amount": amount.to_string() });
    let rows = json!([row("cash", cash), row("goods", goods)]);
    Family::single(year).wages("ada", INCOME).paper("Gifts", &["ada"], json!({}), rows)
}

fn carried(family: Family, rows: Value) -> Family {
    family.paper("Gift carryover", &["ada"], json!({}), rows)
}

fn carry(year: i32, class: &str, amount: i64) -> Value {
    json!({ "year": year, "class": class, "amount": amount.to_string() })
}

#[test]
fn gifts_of_the_year_at_their_limits() {
    let cases = [
        // cash, goods, line 14, cash and goods into next year
        (29_999, 0, 29_999, 0, 0),
        (30_000, 0, 30_000, 0, 0),
        (30_001, 0, 30_000, 1, 0),
        (0, 24_999, 24_999, 0, 0),
        (0, 25_000, 25_000, 0, 0),
        (0, 25_001, 25_000, 0, 1),
        (10_000, 14_999, 24_999, 0, 0),
        (10_000, 15_000, 25_000, 0, 0),
        (10_000, 15_001, 25_000, 0, 1),
        (24_999, 5, 25_000, 0, 4),
        (25_000, 5, 25_000, 0, 5),
        (26_000, 5, 26_000, 0, 5),
        (40_000, 900, 30_000, 10_000, 900),
    ];
    for year in [2024, 2025] {
        for (cash, goods, allowed, next_cash, next_goods) in cases {
            let outcome = given(year, cash, goods).outcome();
            let expected = [
                ("us.sched_a.11", cash),
                ("us.sched_a.12", goods),
                ("us.sched_a.13", 0),
                ("us.sched_a.14", allowed),
                ("us.gifts.carried_cash", next_cash),
                ("us.gifts.carried_goods", next_goods),
                ("us.sched_a.17", allowed),
            ];
            assert_lines(&outcome, &expected);
        }
    }
}

#[test]
fn cash_carried_over_takes_what_this_year_leaves() {
    let cases = [
        // cash of this year, cash of 2023, used of it, line 14, into next year
        (28_000, 1_999, 1_999, 29_999, 0),
        (28_000, 2_000, 2_000, 30_000, 0),
        (28_000, 2_001, 2_000, 30_000, 1),
        (30_000, 1, 0, 30_000, 1),
        (30_001, 1, 0, 30_000, 2),
        (0, 31_000, 30_000, 30_000, 1_000),
    ];
    for (cash, before, used, allowed, next) in cases {
        let family = carried(given(2025, cash, 0), json!([carry(2023, "cash", before)]));
        let expected = [
            ("us.sched_a.13", used),
            ("us.sched_a.14", allowed),
            ("us.gifts.carried_cash", next),
            ("us.gifts.carried_goods", 0),
        ];
        assert_lines(&family.outcome(), &expected);
    }
}

#[test]
fn goods_carried_over_come_after_all_else() {
    let cases = [
        // cash, goods, goods of 2023, used of them, line 14, into next year
        (0, 24_000, 999, 999, 24_999, 0),
        (0, 24_000, 1_000, 1_000, 25_000, 0),
        (0, 24_000, 1_001, 1_000, 25_000, 1),
        (20_000, 5_000, 7, 0, 25_000, 7),
        (27_000, 0, 7, 0, 27_000, 7),
    ];
    for (cash, goods, before, used, allowed, next) in cases {
        let family = carried(given(2025, cash, goods), json!([carry(2023, "goods", before)]));
        let expected =
            [("us.sched_a.13", used), ("us.sched_a.14", allowed), ("us.gifts.carried_goods", next)];
        assert_lines(&family.outcome(), &expected);
    }
}

/// A gift is carried to each of the five years that follow it, the oldest first (§170(d)(1)(A)).
#[test]
fn what_is_carried_over_runs_out_after_five_years() {
    let cases = [
        // year of the gift, used of 1,000 beside 20,000 of this year, of 1,000 beside 30,000 into next year
        (2019, 0, 0),
        (2020, 1_000, 0), // its last year: what is not used now is lost
        (2021, 1_000, 1_000),
        (2024, 1_000, 1_000),
    ];
    for (year, used, next) in cases {
        let rows = json!([carry(year, "cash", 1_000)]);
        let room = carried(given(2025, 20_000, 0), rows.clone()).outcome();
        assert_lines(&room, &[("us.sched_a.13", used), ("us.gifts.carried_cash", 0)]);
        let full = carried(given(2025, 30_000, 0), rows).outcome();
        assert_lines(&full, &[("us.sched_a.13", 0), ("us.gifts.carried_cash", next)]);
    }
    let both = json!([carry(2024, "cash", 600), carry(2020, "cash", 400)]);
    let outcome = carried(given(2025, 29_500, 0), both).outcome();
    assert_lines(&outcome, &[("us.sched_a.13", 500), ("us.gifts.carried_cash", 500)]);
}

/// Of two lawful ways the one with the lower tax: gifts below the standard deduction change nothing.
#[test]
fn gifts_count_from_the_standard_deduction_on() {
    let without = Family::single(2025).wages("ada", INCOME).outcome();
    for (cash, deduction) in [(15_749, 15_750), (15_750, 15_750), (15_751, 15_751)] {
        let outcome = given(2025, cash, 0).outcome();
        assert_eq!(line(&outcome, "us.12e"), deduction);
        assert!(line(&outcome, "us.16") <= line(&without, "us.16"));
    }
}

/// Property held long: 30 % of income, and what cash and goods leave of the 50 %; the rest is carried on in its class.
#[test]
fn property_held_long() {
    // Income 100,000. Cash, goods, property, property carried here: allowed of property, used, carried on.
    for (cash, goods, property, carried, allowed, used, on) in [
        (0, 0, 29_999, 0, 29_999, 0, 0),
        (0, 0, 30_001, 0, 30_000, 0, 1),
        (40_000, 0, 25_000, 0, 10_000, 0, 15_000),
        (0, 35_000, 25_000, 0, 15_000, 0, 10_000),
        (55_000, 0, 5_000, 0, 0, 0, 5_000),
        (0, 0, 20_000, 15_000, 20_000, 10_000, 5_000),
    ] {
        let row = |sort: &str, amount: i64| json!({ "sort": sort, "amount": amount.to_string() });
        let rows = json!([row("cash", cash), row("goods", goods), row("property", property)]);
        let before = json!([{ "year": 2023, "class": "property", "amount": carried.to_string() }]);
        let outcome = Family::single(2025)
            .wages("ada", 100_000)
            .paper("Gifts", &["ada"], json!({}), rows)
            .paper("Gift carryover", &["ada"], json!({}), before)
            .outcome();
        assert_lines(
            &outcome,
            &[
                ("us.sched_a.12", goods + property),
                ("us.sched_a.13", used),
                ("us.sched_a.14", cash + goods + allowed + used),
                ("us.gifts.carried_property", on),
            ],
        );
        assert!(has_point(&outcome, "C-27"));
    }
}

/// An income of 100,000: 60,000 of cash, 50,000 with goods, 30,000 of property, 30,000 to other organizations, 20,000 of property to
/// them.
fn of_sorts(rows: &[(&str, i64, i64)]) -> Family {
    let row = |&(sort, amount, basis): &(&str, i64, i64)| match basis {
        0 => json!({ "sort": sort, "amount": amount.to_string() }),
        _ => json!({ "sort": sort, "amount": amount.to_string(), "basis": basis.to_string() }),
    };
    let rows: Vec<Value> = rows.iter().map(row).collect();
    let family = Family::single(2025).wages("ada", 100_000).pin("us.deduction", "itemized");
    family.paper("Gifts", &["ada"], json!({}), json!(rows))
}

/// 30,000 at most, and what public charities leave of 50,000, property to them in full (§170(b)(1)(B)).
#[test]
fn other_organizations_have_what_public_charities_leave() {
    for (public, given, counted) in [
        (("cash", 0), 29_999, 29_999),
        (("cash", 0), 30_000, 30_000),
        (("cash", 0), 30_001, 30_000),
        (("cash", 20_000), 30_001, 30_000),
        (("cash", 20_001), 30_000, 29_999),
        (("cash", 30_000), 20_001, 20_000),
        (("cash", 50_000), 5, 0),
        (("cash", 60_000), 5, 0),
        (("goods", 30_000), 20_001, 20_000),
        // Of 40,000 of property 30,000 count, and all of it stands before the others.
        (("property", 40_000), 10_001, 10_000),
    ] {
        let outcome = of_sorts(&[(public.0, public.1, 0), ("others", given, 0)]).outcome();
        let of_public = if public.0 == "property" { 30_000 } else { public.1 };
        assert_eq!(line(&outcome, "us.sched_a.14"), of_public + counted, "{public:?} {given}");
        assert_eq!(line(&outcome, "us.gifts.carried_others"), given - counted, "{public:?} {given}");
    }
}

/// 20,000 at most, what property to public charities leaves of 30,000, and what other gifts leave (§170(b)(1)(D)).
#[test]
fn property_to_other_organizations_comes_last() {
    for (others, property, given, counted) in [
        (0, 0, 20_000, 20_000),
        (0, 0, 20_001, 20_000),
        (0, 10_000, 20_001, 20_000),
        (0, 10_001, 20_000, 19_999),
        (0, 30_000, 5, 0),
        (10_000, 0, 20_001, 20_000),
        (10_001, 0, 20_000, 19_999),
        (30_000, 0, 5, 0),
    ] {
        let rows = [("others", others, 0), ("property", property, 0), ("other_property", given, 0)];
        let outcome = of_sorts(&rows).outcome();
        assert_eq!(
            line(&outcome, "us.sched_a.14"),
            others + property + counted,
            "{others} {property} {given}"
        );
        assert_eq!(line(&outcome, "us.gifts.carried_other_property"), given - counted);
    }
}

/// What is carried in follows this year's gifts of its class.
#[test]
fn other_classes_are_carried_five_years() {
    for (given, left, used) in [(20_000, 12_000, 10_000), (30_000, 12_000, 0), (20_000, 9_999, 9_999)] {
        let family = carried(of_sorts(&[("others", given, 0)]), json!([carry(2020, "others", left)]));
        let outcome = family.outcome();
        assert_lines(&outcome, &[("us.sched_a.13", used), ("us.gifts.carried_others", 0)]);
        let later =
            carried(of_sorts(&[("others", given, 0)]), json!([carry(2021, "others", left)])).outcome();
        assert_eq!(line(&later, "us.gifts.carried_others"), left - used);
    }
    let family =
        carried(of_sorts(&[("other_property", 15_000, 0)]), json!([carry(2022, "other_property", 6_000)]));
    assert_lines(&family.outcome(), &[("us.sched_a.13", 5_000), ("us.gifts.carried_other_property", 1_000)]);
}

/// At market value 30,000 of 48,000 count; at its basis all of it, up to 50,000 (§170(b)(1)(C)(iii)).
#[test]
fn property_at_its_basis_where_that_is_more() {
    for (basis, chosen, counted) in [
        (45_000, "basis", 45_000),
        (30_001, "basis", 30_001),
        (30_000, "value", 30_000),
        (20_000, "value", 30_000),
    ] {
        let outcome = of_sorts(&[("property", 48_000, basis)]).outcome();
        let decision = outcome.decisions.iter().find(|d| d.id == "us.gifts_at_basis").unwrap();
        assert_eq!(decision.options.iter().find(|o| o.chosen).unwrap().id, chosen, "{basis}");
        let left = if chosen == "basis" { 0 } else { 18_000 };
        assert_lines(&outcome, &[("us.sched_a.14", counted), ("us.gifts.carried_property", left)]);
    }
    // What is carried in goes by its basis, too, and must be known.
    let with = |basis: Value| {
        let mut row = carry(2023, "property", 10_000);
        row["basis"] = basis;
        carried(of_sorts(&[("property", 40_000, 39_000)]), json!([row])).outcome()
    };
    let outcome = with(json!("4000"));
    assert_lines(&outcome, &[("us.sched_a.14", 43_000), ("us.sched_a.13", 4_000)]);
    let unknown = with(json!("0"));
    // One of two gifts without a basis leaves the choice unknown, too.
    let two = of_sorts(&[("property", 40_000, 39_000), ("property", 5_000, 0)]).outcome();
    let decision = two.decisions.iter().find(|d| d.id == "us.gifts_at_basis").unwrap();
    assert_eq!(decision.options[1].barred.as_deref(), Some("a basis is not entered"));
    let decision = unknown.decisions.iter().find(|d| d.id == "us.gifts_at_basis").unwrap();
    assert_eq!(decision.options[1].barred.as_deref(), Some("a basis is not entered"));
    assert!(has_point(&of_sorts(&[("property", 9, 0)]).outcome(), "C-27"));
}

/// A conservation gift is told, and counts nowhere.
#[test]
fn a_conservation_gift_is_not_covered() {
    let rows = json!([{ "sort": "conservation", "amount": "50000" }]);
    let outcome =
        Family::single(2025).wages("ada", 60_000).paper("Gifts", &["ada"], json!({}), rows).outcome();
    assert!(!outcome.covered);
    assert_eq!(line(&outcome, "us.sched_a.14"), 0);
}
