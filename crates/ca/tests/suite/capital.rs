//! Capital gains and losses, foreign income and the minimum tax, by hand.

use hembo_money::{Money, Rounding};
use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

fn sold(kind: &str, proceeds: &str, cost: &str, outlays: &str) -> Value {
    json!({ "date": "2025-05-05", "kind": kind, "proceeds": proceeds, "cost": cost, "outlays": outlays })
}

fn sales(rows: &[Value]) -> Family {
    let family = Family::single("AB", "1980-01-01").interest("ada", "60000");
    family.shared("Schedule 3", &[("ada", "100")], json!({}), json!(rows))
}

#[test]
fn a_half_of_gains_less_losses_is_taxable() {
    for (rows, net, taxable, kept) in [
        (vec![sold("shares", "5000", "3000", "20")], "1980", "990", "0"),
        (vec![sold("shares", "3000", "5000", "20")], "-2020", "0", "1010"),
        (
            vec![sold("shares", "5000", "3000", "0"), sold("bonds", "1000", "1700.01", "0")],
            "1299.99",
            "650.00",
            "0",
        ),
        (vec![sold("property", "300000", "300000", "0")], "0", "0", "0"),
        // Personal-use property: a floor of 1,000 under both sides, and no loss.
        (vec![sold("personal", "900", "400", "0")], "0", "0", "0"),
        (vec![sold("personal", "1200", "400", "0")], "200", "100", "0"),
        (vec![sold("personal", "1200", "400", "50")], "150", "75", "0"),
        (vec![sold("personal", "800", "4000", "0")], "0", "0", "0"),
        (vec![sold("personal", "999.99", "0", "0")], "0", "0", "0"),
        // A home that was designated for all years has no gain.
        (vec![sold("home", "700000", "200000", "20000")], "0", "0", "0"),
    ] {
        let outcome = sales(&rows).outcome();
        assert_lines(&outcome, 0, &[("19700", net), ("12700", taxable), ("losses.carried", kept)]);
        assert_eq!(line(&outcome, 0, "15000"), money("60000") + money(taxable));
    }
}

#[test]
fn what_a_sale_leaves_open_is_told() {
    let open = |row: Value, code: &str| has_point(&sales(&[row]).outcome(), code);
    assert!(open(sold("home_part", "700000", "200000", "0"), "C-22"));
    let mut years = sold("home_part", "700000", "200000", "0");
    (years["owned"], years["designated"]) = (json!(20), json!(15));
    assert!(open(years.clone(), "C-27") && !open(years, "C-22"));
    assert!(!open(sold("home", "700000", "200000", "0"), "C-22"));
    assert!(
        open(sold("shares", "3000", "3000.01", "0"), "C-75")
            && !open(sold("shares", "3000", "3000", "0"), "C-75")
    );
    assert!(!open(sold("bonds", "3000", "4000", "0"), "C-75"));
    assert!(open(json!({ "kind": "bonds", "proceeds": "10" }), "C-76"));
    assert!(
        open(sold("bonds", "3000", "4000", "0"), "T1A") && !open(sold("bonds", "4000", "4000", "0"), "T1A")
    );
    // A sale that settled in another year is left out.
    for (date, taxable) in
        [("2024-12-31", "0"), ("2025-01-01", "50"), ("2025-12-31", "50"), ("2026-01-01", "0")]
    {
        let row = json!({ "date": date, "kind": "bonds", "proceeds": "200", "cost": "100" });
        let outcome = sales(&[row]).outcome();
        assert_eq!(line(&outcome, 0, "12700"), money(taxable), "{date}");
        assert_eq!(has_point(&outcome, "C-74"), taxable == "0", "{date}");
    }
}

#[test]
fn each_owner_has_a_part_of_a_sale() {
    let family =
        Family::couple("AB", ["1980-01-01", "1980-01-01"]).interest("ada", "60000").interest("bo", "40000");
    let row = json!([sold("shares", "1000.01", "0", "0")]);
    let outcome = family.shared("Schedule 3", &[("ada", "33.3"), ("bo", "66.7")], json!({}), row).outcome();
    let net = [0, 1].map(|place| line(&outcome, place, "19700"));
    assert_eq!(net[0] + net[1], money("1000.01"));
}

#[test]
fn losses_of_other_years_take_from_taxable_gains_only() {
    for (gain, left, used, kept) in [
        ("10000", "3000", "3000", "0"),
        ("10000", "5000", "5000", "0"),
        ("10000", "5000.01", "5000", "0.01"),
        ("0", "700", "0", "700"),
    ] {
        let family =
            sales(&[sold("bonds", gain, "0", "0")]).paper("Capital losses", "ada", json!({ "left": left }));
        let outcome = family.pin("ca.losses.ada", used).outcome();
        assert_lines(&outcome, 0, &[("25300", used), ("losses.carried", kept)]);
        // Net income stays: it decides on credits and benefits.
        assert_eq!(line(&outcome, 0, "23600") - line(&outcome, 0, "26000"), money(used));
    }
    // What would save nothing is kept: all of the income is covered by the basic amounts.
    let poor = Family::single("AB", "1980-01-01").interest("ada", "9000");
    let poor =
        poor.shared("Schedule 3", &[("ada", "100")], json!({}), json!([sold("bonds", "10000", "0", "0")]));
    let outcome = poor.paper("Capital losses", "ada", json!({ "left": "4000" })).outcome();
    assert_lines(&outcome, 0, &[("25300", "0"), ("losses.carried", "4000")]);
}

#[test]
fn slips_bring_gains_beside_sales() {
    let family = sales(&[sold("bonds", "100", "0", "0")]).paper("T5", "ada", json!({ "18": "40" }));
    let outcome = family.paper("T3", "ada", json!({ "21": "60" })).outcome();
    assert_lines(&outcome, 0, &[("19700", "200"), ("12700", "100")]);
}

/// Gains of 900,000 in Ontario in 2024: 20.5 % of 900,000 − 173,205, less a half of 2,123.40, is 25,838.91 above the ordinary tax.
#[test]
fn the_minimum_tax_of_large_gains() {
    let family = |province: &str, gain: &str| {
        let family = Family::single(province, "1980-01-01").in_year(2024);
        let row = json!([{ "kind": "bonds", "proceeds": gain, "cost": "0" }]);
        family.shared("Schedule 3", &[("ada", "100")], json!({}), row)
    };
    let outcome = family("ON", "900000").outcome();
    assert_lines(
        &outcome,
        0,
        &[
            ("26000", "450000"),
            ("t691.adjusted", "900000"),
            ("t691.minimum", "147931.28"),
            ("42900", "122092.37"),
            ("t691.additional", "25838.91"),
            ("42000", "147931.28"),
            ("428.minimum", "6364.12"),
            ("42800", "82712.01"),
        ],
    );
    assert!(has_point(&outcome, "C-92"));
    // Elsewhere the part is that of the lowest rate in 20.5 %.
    for (province, part) in [("AB", "0.4878"), ("BC", "0.2468"), ("SK", "0.5122"), ("NU", "0.1951")] {
        let expected = money("25838.91").times(part.parse().unwrap(), Money::CENT, Rounding::HalfUp);
        assert_eq!(line(&family(province, "900000").outcome(), 0, "428.minimum"), expected, "{province}");
    }
    // Below the exemption there is none: gains of 173,205 are as much of adjusted income.
    for gain in ["173205", "200000"] {
        assert_lines(&family("ON", gain).outcome(), 0, &[("t691.additional", "0")]);
    }
}

#[test]
fn what_the_minimum_tax_adds_back() {
    let base = || {
        let family = Family::single("AB", "1980-01-01").interest("ada", "300000");
        family.paper("T4", "ada", json!({ "14": "100000", "16": "4034.10", "16A": "396" }))
    };
    // 400,000 less 1,074 of enhanced contributions, of which a half is added back.
    let adjusted = |family: Family| line(&family.outcome(), 0, "t691.adjusted");
    assert_eq!(adjusted(base()), money("399463"));
    let other = |boxes: Value| adjusted(base().paper("Other deductions", "ada", boxes));
    assert_eq!(other(json!({ "carrying": "1000" })), money("398963"));
    assert_eq!(other(json!({ "employment": "1000", "t2200": true })), money("398963"));
    assert_eq!(other(json!({ "moving": "1000", "moving.earned": "1000" })), money("398963"));
    assert_eq!(other(json!({ "dues": "1000" })), money("398463"));
    // Options in full; dividends without their gross-up.
    assert_eq!(
        adjusted(base().paper("T4", "ada", json!({ "14": "1", "39": "5000", "16": "0", "28.cpp": true }))),
        money("399464")
    );
    assert_eq!(adjusted(base().paper("T5", "ada", json!({ "24": "10000" }))), money("409463"));
    assert_eq!(adjusted(base().paper("T5", "ada", json!({ "10": "10000" }))), money("409463"));
}

/// Worked by hand, Alberta 2025: 600,000 of interest with 60,000 from Fiji, and losses of 600,000. Of taxable income of 60,000 basic
/// federal tax is 8,319.38 + 20.5 % of 2,625 less 2,108.01 = 6,749.49, an eleventh of it is on the income from Fiji: 613.59. The minimum
/// tax is 20.5 % of 360,000 - 177,882, less 1,054.01: 36,280.18, less 6,000, two thirds of the tax paid, in place of 613.59.
#[test]
fn the_special_foreign_credit_of_the_minimum_tax() {
    let with_losses = |losses: &str, tax: &str, choice: &str| {
        let family = Family::single("AB", "1980-01-01").interest("ada", "600000");
        let rows = json!([{ "country": "Fiji", "income": "60000", "tax": tax }]);
        let family = family.shared("Foreign income", &[("ada", "100")], json!({}), rows);
        let rows = json!([{ "year": 2020, "amount": losses }]);
        let family = family.shared("Non-capital losses", &[("ada", "100")], json!({}), rows);
        family.pin("ca.noncapital.ada", losses).pin("ca.foreign.ada", choice).outcome()
    };
    let family = |tax: &str, choice: &str| with_losses("600000", tax, choice);
    let outcome = family("9000", "credit");
    assert_lines(
        &outcome,
        0,
        &[
            ("26000", "60000"),
            ("42900", "6749.49"),
            ("40500", "613.59"),
            ("t691.adjusted", "360000"),
            ("t691.minimum", "36280.18"),
            ("t691.foreign", "6000"),
            ("t691.additional", "24144.28"),
            ("42000", "30280.18"),
            ("428.minimum", "9421.10"),
        ],
    );
    assert!(!has_point(&outcome, "foreign-minimum") && has_point(&outcome, "foreign-minimum-kept"));
    // Two thirds of the tax are below line 40500, at it and above it.
    for (tax, special, additional) in [
        ("920", "613.59", "29530.69"),
        ("920.38", "613.59", "29530.69"),
        ("920.4", "613.6", "29530.68"),
        ("930", "620", "29524.28"),
    ] {
        let outcome = family(tax, "credit");
        assert_lines(&outcome, 0, &[("t691.foreign", special), ("t691.additional", additional)]);
    }
    // Above 15 % tax is deducted, and is none of the credit: of 42,000 there are 33,000, and 27,000 of income, of which 20.5 % are less
    // than two thirds of 9,000.
    assert_lines(&family("42000", "credit"), 0, &[("foreign.deducted", "33000"), ("t691.foreign", "5535")]);
    // What is deducted in place of the credit is none either.
    let outcome = family("9000", "deduct");
    assert_lines(&outcome, 0, &[("40500", "0"), ("t691.foreign", "0")]);
    assert!(!has_point(&outcome, "foreign-minimum-kept"));
    // Where there is no ordinary tax, all of the special credit is more: 20.5 % of 335,000 - 177,882, less 1,054.01 and 6,000.
    let outcome = with_losses("650000", "9000", "credit");
    assert_lines(&outcome, 0, &[("40500", "0"), ("t691.foreign", "6000"), ("t691.additional", "25155.18")]);
    assert!(has_point(&outcome, "foreign-minimum-kept"));
}

/// 120.2(1)(b), (3): what the credit for foreign tax does to the minimum tax of other years is not known.
#[test]
fn minimum_tax_of_other_years_beside_foreign_tax() {
    let family = |rows: Value| {
        let family = Family::single("AB", "1980-01-01").interest("ada", "100000");
        let earlier = json!([{ "year": 2022, "amount": "500" }]);
        let family = family.shared("Minimum tax", &[("ada", "100")], json!({}), earlier);
        family.shared("Foreign income", &[("ada", "100")], json!({}), rows)
    };
    for (tax, told) in [("0", false), ("1", true)] {
        let family = family(json!([{ "country": "Fiji", "income": "1000", "tax": tax }]));
        for choice in ["credit", "deduct"] {
            let outcome = family.clone().pin("ca.foreign.ada", choice).outcome();
            assert_eq!(has_point(&outcome, "foreign-minimum"), told, "{tax} {choice}");
        }
    }
}

fn abroad(rows: Value) -> Family {
    Family::single("ON", "1980-01-01").employed("ada", "90000").shared(
        "Foreign income",
        &[("ada", "100")],
        json!({}),
        rows,
    )
}

#[test]
fn foreign_tax_up_to_fifteen_per_cent_is_credited() {
    for (tax, deducted) in [("149.99", "0"), ("150", "0"), ("150.01", "0.01"), ("400", "250")] {
        let rows = json!([{ "country": "Fiji", "income": "1000", "tax": tax }]);
        let outcome = abroad(rows).pin("ca.foreign.ada", "credit").outcome();
        assert_lines(&outcome, 0, &[("foreign.deducted", deducted), ("23200", deducted)]);
        assert_eq!(line(&outcome, 0, "15000"), money("91000"));
    }
    // Two lines of one country are one; of two countries each has its own limit.
    let together = json!([
        { "country": "Fiji", "income": "1000", "tax": "250" },
        { "country": "Fiji", "income": "1000", "tax": "50" },
    ]);
    assert_lines(
        &abroad(together).pin("ca.foreign.ada", "credit").outcome(),
        0,
        &[("foreign.deducted", "0")],
    );
    let apart = json!([
        { "country": "Fiji", "income": "1000", "tax": "250" },
        { "country": "Peru", "income": "1000", "tax": "50" },
    ]);
    assert_lines(&abroad(apart).pin("ca.foreign.ada", "credit").outcome(), 0, &[("foreign.deducted", "100")]);
    let unnamed = json!([{ "income": "1000", "tax": "250" }]);
    assert!(has_point(&abroad(unnamed).outcome(), "C-78-country"));
}

#[test]
fn slips_bring_foreign_tax_with_their_country() {
    for (kind, boxes) in [
        ("T5", json!({ "15": "1000", "16": "90", "country": "Fiji" })),
        ("T3", json!({ "25": "1000", "34": "90", "country": "Fiji" })),
    ] {
        let family = Family::single("ON", "1980-01-01").employed("ada", "90000");
        let outcome = family.clone().paper(kind, "ada", boxes.clone()).outcome();
        assert_lines(&outcome, 0, &[("40500", "90"), ("12100", "1000")]);
        let mut nameless = boxes;
        nameless.as_object_mut().unwrap().remove("country");
        assert!(has_point(&family.paper(kind, "ada", nameless).outcome(), "C-78-country"), "{kind}");
    }
}

/// Every province takes what the federal credit leaves, and never more than its own tax on the income.
#[test]
fn provinces_credit_what_is_left() {
    for province in ["ON", "BC", "AB", "SK", "MB", "NB", "NS", "NL", "PE", "YT", "NT", "NU"] {
        // Of 20,000 beside pay of 40,000 the federal tax is far below 15 %.
        let family = Family::single(province, "1980-01-01").paper("T4", "ada", json!({ "14": "40000" }));
        let rows = json!([{ "country": "Fiji", "income": "20000", "tax": "3000" }]);
        let family = family.shared("Foreign income", &[("ada", "100")], json!({}), rows);
        let outcome = family.pin("ca.foreign.ada", "credit").outcome();
        let at = |id: &str| line(&outcome, 0, id);
        let share =
            |tax: Money| tax.in_proportion(money("20000"), at("26000"), Money::CENT, Rounding::HalfUp);
        assert_eq!(at("40500"), share(at("42900")), "{province}");
        assert_eq!(at("40600"), at("42900") - at("40500"));
        let before = if province == "ON" { at("ontario.before") } else { at("428.before") };
        let reduced = if province == "NS" { Money::ZERO } else { at("428.reduction") };
        let most = share(before - reduced);
        let left = money("3000") - at("40500");
        assert_eq!(at("428.foreign"), most.min(left), "{province}");
    }
}

/// 40(2)(b): of a gain of 500,000 the part of the years that are not designated, but for one more.
#[test]
fn a_home_designated_for_a_part_of_its_years() {
    for (owned, designated, taxable) in [
        (20, 0, "237500"),
        (20, 15, "50000"),
        (20, 18, "12500"),
        (20, 19, "0"),
        (20, 20, "0"),
        (3, 0, "166666.67"),
    ] {
        let mut row = sold("home_part", "700000", "190000", "10000");
        (row["owned"], row["designated"]) = (json!(owned), json!(designated));
        assert_eq!(line(&sales(&[row]).outcome(), 0, "12700"), money(taxable), "{owned} {designated}");
    }
    // A loss on a home is none.
    let mut row = sold("home_part", "100000", "190000", "0");
    (row["owned"], row["designated"]) = (json!(9), json!(2));
    assert_eq!(line(&sales(&[row]).outcome(), 0, "19700"), money("0"));
}

/// 110.6: of 400,000 the half is taxable and may be exempt, within what is left of the lifetime, the gains limit after losses and the
/// investment loss.
#[test]
fn gains_of_a_small_business_are_exempt_within_their_limits() {
    let sold_with = |room: Value, others: &[Value]| {
        let mut rows = vec![sold("exempt", "500000", "90000", "10000")];
        rows.extend_from_slice(others);
        sales(&rows).interest("ada", "50000").paper("Gains exemption", "ada", room)
    };
    for (room, exempt) in [
        (json!({ "room": "1250000" }), "200000"),
        (json!({ "room": "400000" }), "200000"),
        (json!({ "room": "399999.98" }), "199999.99"),
        (json!({ "room": "100000" }), "50000"),
        (json!({ "room": "1250000", "cnil": "30000" }), "170000"),
        (json!({ "room": "1250000", "cnil": "30000", "earlier": "20000" }), "190000"),
        (json!({ "room": "1250000", "earlier": "20000" }), "200000"),
    ] {
        let outcome = sold_with(room.clone(), &[]).outcome();
        assert_eq!(line(&outcome, 0, "25400"), money(exempt), "{room}");
        assert_eq!(line(&outcome, 0, "26000"), line(&outcome, 0, "23600") - money(exempt));
    }
    // Losses of other years beyond the other gains take from it.
    let losses = |family: Family| {
        family
            .paper("Capital losses", "ada", json!({ "left": "60000" }))
            .pin("ca.losses.ada", "60000")
            .outcome()
    };
    let room = || json!({ "room": "1250000" });
    assert_eq!(line(&losses(sold_with(room(), &[])), 0, "25400"), money("140000"));
    let other = [sold("bonds", "40000", "0", "0")];
    assert_eq!(line(&losses(sold_with(room(), &other)), 0, "25400"), money("160000"));
    // A loss of this year on something else leaves less of the gain to be taxed.
    let lost = [sold("bonds", "0", "100000", "0")];
    assert_eq!(line(&sold_with(room(), &lost).outcome(), 0, "25400"), money("150000"));
    // 30 % of the exempt gain of 400,000 stays in the minimum tax.
    let rich = sales(&[sold("exempt", "500000", "90000", "10000")]).interest("ada", "300000");
    let outcome = rich.clone().paper("Gains exemption", "ada", room()).outcome();
    assert_eq!(line(&outcome, 0, "t691.adjusted"), line(&outcome, 0, "26000") + money("120000"));
    assert!(has_point(&outcome, "exemption-shares") && !has_point(&outcome, "exemption-room"));
    assert!(has_point(&rich.outcome(), "exemption-room"));
}
