//! Deductions from total income at their limits, and what is kept of them.

use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use serde_json::{Value, json};

fn paid(amount: &str) -> Family {
    Family::single("AB", "1980-01-01").interest("ada", amount)
}

#[test]
fn first_home_savings_come_before_retirement_contributions() {
    // 6,000 to a first home within 8,000, 5,000 to a plan within 9,000.
    let family = paid("90000")
        .paper("FHSA", "ada", json!({ "room": "8000", "paid": "6000" }))
        .contributions("ada", "9000", "5000");
    for (now, home, plan) in [
        ("0", "0", "0"),
        ("5999.99", "5999.99", "0"),
        ("6000", "6000", "0"),
        ("6000.01", "6000", "0.01"),
        ("11000", "6000", "5000"),
    ] {
        let outcome = family.clone().pin("ca.rrsp.ada", now).outcome();
        assert_lines(&outcome, 0, &[("20805", home), ("20800", plan)]);
        assert_eq!(line(&outcome, 0, "fhsa.carried"), money("6000") - money(home));
        assert_eq!(line(&outcome, 0, "rrsp.carried"), money("5000") - money(plan));
        assert_eq!(line(&outcome, 0, "23600"), money("90000") - money(now));
    }
}

#[test]
fn first_home_savings_within_their_room() {
    for (room, saved, unused, available, code) in [
        ("8000", "8000", "0", "8000", None),
        ("8000", "8000.01", "0", "8000", Some("C-44")),
        ("16000", "12000", "3000", "15000", None),
        ("0", "500", "0", "0", Some("C-44")),
    ] {
        let family =
            paid("90000").paper("FHSA", "ada", json!({ "room": room, "paid": saved, "unused": unused }));
        let outcome = family.outcome();
        assert_lines(&outcome, 0, &[("fhsa.available", available), ("20805", available)]);
        assert_eq!(has_point(&outcome, "C-44"), code.is_some(), "{room} {saved}");
    }
    assert!(has_point(&paid("9").paper("FHSA", "ada", json!({ "paid": "10" })).outcome(), "fhsa-room"));
    let after = paid("9").paper("FHSA", "ada", json!({ "room": "8000", "paid": "10", "withdrawn": true }));
    assert!(has_point(&after.outcome(), "fhsa-after"));
}

#[test]
fn the_deduction_limit_is_made_from_last_years_figures() {
    // Unused room and 18 % of earned income up to 32,490, less the pension adjustment; less that of past service.
    for (boxes, limit) in [
        (json!({ "earned": "50000" }), "9000"),
        (json!({ "earned": "180500" }), "32490"),
        (json!({ "earned": "180501" }), "32490"),
        (json!({ "earned": "180499" }), "32489.82"),
        (json!({ "earned": "50000", "room": "4000" }), "13000"),
        (json!({ "earned": "50000", "room": "4000", "adjustment": "2500" }), "10500"),
        (json!({ "earned": "10000", "room": "4000", "adjustment": "2500" }), "4000"),
        (json!({ "earned": "10000", "room": "4000", "past_service": "1000" }), "4800"),
        (json!({ "earned": "10000", "past_service": "9000" }), "0"),
        // The notice counts where it is there.
        (json!({ "earned": "50000", "limit": "1234" }), "1234"),
    ] {
        let rows = json!([{ "date": "2025-11-03", "plan": "own", "amount": "40000" }]);
        let outcome = paid("150000").shared("RRSP", &[("ada", "100")], boxes.clone(), rows).outcome();
        assert_eq!(line(&outcome, 0, "rrsp.limit"), money(limit), "{boxes}");
        assert_eq!(line(&outcome, 0, "20800"), money(limit), "{boxes}");
        assert!(!has_point(&outcome, "C-39"));
    }
    // 31,560 in 2024.
    let rows = json!([{ "date": "2024-11-03", "plan": "own", "amount": "40000" }]);
    let of_2024 =
        paid("150000").in_year(2024).shared("RRSP", &[("ada", "100")], json!({ "earned": "200000" }), rows);
    assert_lines(&of_2024.outcome(), 0, &[("20800", "31560")]);
}

#[test]
fn moving_goes_as_far_as_income_at_the_new_place() {
    for (spent, earlier, earned, deducted, kept) in [
        ("3000", "0", "3000", "3000", "0"),
        ("3000.01", "0", "3000", "3000", "0.01"),
        ("3000", "500", "2000", "2000", "1500"),
        ("3000", "0", "0", "0", "3000"),
    ] {
        let boxes = json!({ "moving": spent, "moving.earlier": earlier, "moving.earned": earned });
        let outcome = paid("60000").paper("Other deductions", "ada", boxes).outcome();
        assert_lines(&outcome, 0, &[("21900", deducted), ("moving.carried", kept)]);
    }
}

#[test]
fn expenses_and_support_under_their_conditions() {
    let with = |kind: &str, boxes: Value| paid("60000").paper(kind, "ada", boxes).outcome();
    let signed = with("Other deductions", json!({ "employment": "900", "t2200": true }));
    assert_lines(&signed, 0, &[("22900", "900"), ("23600", "59100")]);
    let unsigned = with("Other deductions", json!({ "employment": "900", "t2200": false }));
    assert_lines(&unsigned, 0, &[("22900", "0"), ("23600", "60000")]);
    assert!(!has_point(&unsigned, "C-82"));
    assert!(has_point(&with("Other deductions", json!({ "employment": "900" })), "C-82"));
    let agreed = with("Support", json!({ "paid": "5000", "agreement": true }));
    assert_lines(&agreed, 0, &[("22000", "5000"), ("23600", "55000")]);
    let received = with("Support", json!({ "received": "5000", "agreement": true }));
    assert_lines(&received, 0, &[("12800", "5000"), ("23600", "65000")]);
    let child_support = with("Support", json!({ "received": "5000", "paid": "100", "agreement": false }));
    assert_lines(&child_support, 0, &[("12800", "0"), ("22000", "0")]);
    assert!(has_point(&with("Support", json!({ "received": "5000" })), "C-84"));
    let dues = with("Other deductions", json!({ "dues": "640", "carrying": "310" }));
    assert_lines(&dues, 0, &[("21200", "640"), ("22100", "310"), ("23600", "59050")]);
    // Compensation repaid stands on the line of employment expenses.
    let both = paid("60000")
        .paper("Other deductions", "ada", json!({ "employment": "900", "t2200": true }))
        .paper("T4", "ada", json!({ "14": "1000", "77": "60", "28.cpp": true, "28.ei": true }));
    assert_lines(&both.outcome(), 0, &[("t777", "900"), ("22900.repaid", "60"), ("22900", "960")]);
}

fn trade(boxes: Value, rows: Value) -> Family {
    Family::single("AB", "1980-01-01").shared("T2125", &[("ada", "100")], boxes, rows)
}

#[test]
fn a_business_by_its_accounts() {
    let expense = |kind: &str, amount: &str| json!({ "what": "x", "kind": kind, "amount": amount });
    for (boxes, rows, net, home) in [
        (json!({ "gross": "40000" }), json!([]), "40000", "0"),
        (json!({ "gross": "40000", "goods": "9000", "cca": "1000" }), json!([]), "30000", "0"),
        (
            json!({ "gross": "40000" }),
            json!([expense("full", "8000"), expense("meals", "1000.01")]),
            "31499.99",
            "0",
        ),
        (json!({ "gross": "10000" }), json!([expense("home", "9999")]), "1", "0"),
        (json!({ "gross": "10000" }), json!([expense("home", "10000")]), "0", "0"),
        (json!({ "gross": "10000" }), json!([expense("home", "10001")]), "0", "1"),
        // The home makes no loss, other expenses do.
        (
            json!({ "gross": "10000" }),
            json!([expense("full", "12000"), expense("home", "500")]),
            "-2000",
            "500",
        ),
    ] {
        let outcome = trade(boxes, rows).interest("ada", "60000").outcome();
        assert_lines(&outcome, 0, &[("13500", net), ("t2125.home", home)]);
        assert_eq!(line(&outcome, 0, "15000"), money("60000") + money(net));
        assert_eq!(has_point(&outcome, "home-left"), home != "0");
    }
    let unsaid = trade(json!({ "gross": "10" }), json!([{ "what": "x", "amount": "3" }])).outcome();
    assert!(has_point(&unsaid, "t2125-kind"));
}

#[test]
fn the_pension_plan_asks_both_halves_of_a_business() {
    // 11.9 % above 3,500 up to 71,300, and 8 % up to 81,200: of it 4.95 % make a credit, the rest is deducted.
    for (net, payable, credited, deducted) in [
        ("3500", "0.00", "0.00", "0.00"),
        ("3501", "0.12", "0.05", "0.07"),
        ("13500", "1190.00", "495.00", "695.00"),
        ("71300", "8068.20", "3356.10", "4712.10"),
        ("71301", "8068.28", "3356.10", "4712.18"),
        ("81200", "8860.20", "3356.10", "5504.10"),
        ("90000", "8860.20", "3356.10", "5504.10"),
    ] {
        let outcome = trade(json!({ "gross": net }), json!([])).outcome();
        assert_lines(&outcome, 0, &[("42100", payable), ("31000", credited), ("22200", deducted)]);
    }
    // The year of the 70th birthday counts by months: of June six.
    let aged =
        Family::single("AB", "1955-06-15").paper("T2125", "ada", json!({ "gross": "20000" })).outcome();
    // 11.9 % of 20,000 less 1,750.
    assert_lines(&aged, 0, &[("42100", "2171.75")]);
    let older =
        Family::single("AB", "1954-06-15").paper("T2125", "ada", json!({ "gross": "20000" })).outcome();
    assert_lines(&older, 0, &[("42100", "0")]);
}

/// Ontario 2025, a business of 12,000 before capital cost of 5,000 and nothing else: no income tax either way. A dollar less of it saves
/// 11.9 cents of contributions (above 3,500), and costs 27 cents of the workers benefit, as soon as 27 % of what is above 3,000 falls
/// below its most of 1,633: at 9,048.13, where 5,548.13 × 11.9 % is 660.23.
#[test]
fn capital_cost_of_a_business_is_claimed_as_far_as_it_pays() {
    let of = |boxes: Value| Family::single("ON", "1990-01-01").paper("T2125", "ada", boxes);
    let outcome = of(json!({ "gross": "12000", "cca": "5000" })).outcome();
    assert_eq!(outcome.total, money("-972.77"));
    let claimed = line(&outcome, 0, "t2125.cca");
    assert!((money("2951.84")..=money("2951.88")).contains(&claimed), "{claimed}");
    assert_eq!(line(&outcome, 0, "t2125.left"), money("5000") - claimed);
    assert_eq!(line(&outcome, 0, "13500"), money("12000") - claimed);
    for (held, total) in [("0", "-621.50"), ("5000", "-663.50")] {
        let pinned = of(json!({ "gross": "12000", "cca": "5000" })).pin("ca.t2125.cca.ada", held).outcome();
        assert_eq!(pinned.total, money(total), "{held}");
    }
    // With income tax above, a dollar of it saves more than it costs: all is claimed, also where that makes a loss.
    for (gross, cca, net) in [("60000", "5000", "55000"), ("1000", "5000", "-4000")] {
        let family = of(json!({ "gross": gross, "cca": cca })).interest("ada", "70000");
        assert_lines(&family.outcome(), 0, &[("t2125.cca", cca), ("13500", net), ("t2125.left", "0")]);
    }
}

/// ITA 122.51: who earned less than 4,390 has no supplement: 6,000 of a business less more than 1,610 of capital cost.
#[test]
fn capital_cost_stops_where_the_medical_supplement_would_end() {
    let family = Family::single("ON", "1980-01-01")
        .interest("ada", "20000")
        .paper("T2125", "ada", json!({ "gross": "6000", "cca": "3000" }))
        .medical("ada", &[("2025-05-05", "5000")]);
    let held = |amount: &str| family.clone().pin("ca.t2125.cca.ada", amount).outcome();
    let (at, above) = (held("1610"), held("1610.01"));
    assert!(line(&at, 0, "45200") > money("1000") && line(&above, 0, "45200").is_zero());
    let outcome = family.outcome();
    assert_lines(&outcome, 0, &[("t2125.cca", "1610"), ("13500", "4390")]);
    assert_eq!(outcome.total, at.total);
}

/// Where all of the capital cost leaves more than what ends the workers benefit, more of it never costs: alone 37,742, of a couple 49,393 and the
/// exemption of the second earner, 16,386.
#[test]
fn capital_cost_never_costs_where_earnings_do_not_count() {
    let never_costs = |family: Family| {
        let outcome = family.outcome();
        let decision = outcome.decisions.into_iter().find(|d| d.id == "ca.t2125.cca.ada").unwrap();
        decision.amount.unwrap().never_costs
    };
    let trade =
        |family: Family, gross: &str| family.paper("T2125", "ada", json!({ "gross": gross, "cca": "2000" }));
    let alone = |interest: &str| Family::single("ON", "1950-01-01").interest("ada", interest);
    assert!(!never_costs(trade(alone("35741"), "4000")) && never_costs(trade(alone("35742"), "4000")));
    let couple = |interest: &str| Family::couple("ON", ["1950-01-01", "1950-01-01"]).interest("bo", interest);
    assert!(!never_costs(trade(couple("63778"), "4000")) && never_costs(trade(couple("63779"), "4000")));
    // Up to 9,048.15 of working income the benefit grows, of a couple up to 13,418.52.
    for (gross, never) in [("11048.14", false), ("11048.15", true)] {
        assert_eq!(never_costs(trade(alone("20000"), gross)), never, "{gross}");
    }
    for (gross, never) in [("15418.51", false), ("15418.52", true)] {
        assert_eq!(never_costs(trade(couple("20000"), gross)), never, "{gross}");
    }
    let impaired =
        alone("90000").answer_for("ada", "disability", json!(true)).answer_for("ada", "infirm", json!(true));
    assert!(!never_costs(trade(impaired, "4000")));
    // Earnings of 4,390 or more have the medical supplement: capital cost decides about it from that to 6,389.99; without bills about nothing.
    for (gross, never) in [("4389.99", true), ("4390", false), ("6389.99", false), ("6390", true)] {
        let bills = alone("90000").medical("ada", &[("2025-05-05", "5000")]);
        assert_eq!(never_costs(trade(bills, gross)), never, "{gross}");
        assert!(never_costs(trade(alone("90000"), gross)), "{gross}");
    }
    // Disability supports are limited by earnings.
    let supports = alone("90000").paper("Disability supports", "ada", json!({ "paid": "2000" }));
    assert!(!never_costs(trade(supports, "4000")));
    // What employment overpaid counts for the business.
    let paid = |withheld: &str| {
        alone("90000").set("ada", "/born", json!("1980-01-01")).paper(
            "T4",
            "ada",
            json!({ "14": "40000", "16": withheld }),
        )
    };
    assert!(never_costs(trade(paid("2171.75"), "9000")) && !never_costs(trade(paid("2171.76"), "9000")));
}

/// ITA 18(12): the home comes out of what capital cost leaves, so that capital cost above that only moves from this year's home to a
/// later one's.
#[test]
fn capital_cost_comes_before_the_home_and_each_business_has_its_own() {
    let home = |amount: &str| json!([{ "what": "Rooms", "kind": "home", "amount": amount }]);
    let of =
        |family: Family, boxes: Value, rows: Value| family.shared("T2125", &[("ada", "100")], boxes, rows);
    let alone = || Family::single("AB", "1980-01-01").interest("ada", "60000");
    let family = of(alone(), json!({ "gross": "10000", "cca": "3000" }), home("9000"));
    for (held, left, taken, kept) in [
        ("0", "1000", "9000", "0"),
        ("1000", "0", "9000", "0"),
        ("1000.01", "0", "8999.99", "0.01"),
        ("3000", "0", "7000", "2000"),
    ] {
        let outcome = family.clone().pin("ca.t2125.cca.ada", held).outcome();
        assert_lines(&outcome, 0, &[("13500", left), ("t2125.home.used", taken), ("t2125.home", kept)]);
    }
    assert_eq!(family.outcome().total, family.clone().pin("ca.t2125.cca.ada", "1000").outcome().total);
    let two = of(family, json!({ "gross": "4000", "cca": "500" }), home("100"));
    let outcome = two.clone().outcome();
    let ids: Vec<_> = outcome.decisions.iter().map(|d| d.id.as_str()).collect();
    assert_eq!(ids, ["ca.t2125.cca.ada", "ca.t2125.cca.2.ada"]);
    let held = two.pin("ca.t2125.cca.ada", "3000").pin("ca.t2125.cca.2.ada", "0").outcome();
    assert_lines(&held, 0, &[("13500", "3900"), ("t2125.home.used", "7100"), ("t2125.cca", "3000")]);
}

/// Canada Pension Plan 13, 38: what employment paid too much counts for a business or comes back, as much as capital cost leaves; that is
/// no tax, and not weighed.
#[test]
fn overpaid_contributions_beside_capital_cost_are_told() {
    let of = |withheld: &str, cca: &str| {
        let pay = json!({ "14": "40000", "16": withheld, "18": "656" });
        let boxes = json!({ "gross": "20000", "cca": cca });
        let family = Family::single("ON", "1980-01-01").paper("T4", "ada", pay);
        family.paper("T2125", "ada", boxes).outcome()
    };
    for (withheld, cca, told) in
        [("2171.75", "100", false), ("2171.76", "100", true), ("2171.76", "0", false)]
    {
        assert_eq!(has_point(&of(withheld, cca), "C-24-business"), told, "{withheld} {cca}");
    }
}

#[test]
fn rents_by_owner_and_without_a_loss_from_capital_cost() {
    for (gross, spent, cost, net, left) in [
        ("12000", "5000", "3000", "4000", "0"),
        ("12000", "5000", "7000", "0", "0"),
        ("12000", "5000", "7000.01", "0", "0.01"),
        ("12000", "13000", "500", "-1000", "500"),
    ] {
        let rows = json!([{ "what": "Repairs", "amount": spent }]);
        let family =
            paid("60000").shared("T776", &[("ada", "100")], json!({ "gross": gross, "cca": cost }), rows);
        let outcome = family.outcome();
        assert_lines(&outcome, 0, &[("12600", net), ("t776.left", left)]);
    }
    // Of all lets together: 5,000 and a loss of 2,000.
    let loss = json!([{ "what": "Repairs", "amount": "2000" }]);
    let two = paid("60000")
        .shared("T776", &[("ada", "100")], json!({ "gross": "5000", "cca": "4000" }), json!([]))
        .shared("T776", &[("ada", "100")], json!({ "gross": "0" }), loss);
    assert_lines(
        &two.outcome(),
        0,
        &[("t776.before", "3000"), ("t776.cca", "3000"), ("t776.left", "1000"), ("12600", "0")],
    );
    let couple = Family::couple("AB", ["1980-01-01", "1980-01-01"]).interest("ada", "9");
    let house =
        couple.shared("T776", &[("ada", "25"), ("bo", "75")], json!({ "gross": "100.01" }), json!([]));
    let outcome = house.outcome();
    assert_eq!(line(&outcome, 0, "12600") + line(&outcome, 1, "12600"), money("100.01"));
    let short = json!([{ "what": "Linen", "amount": "10" }]);
    let unlawful =
        paid("9").shared("T776", &[("ada", "100")], json!({ "gross": "90", "short_term": true }), short);
    assert!(has_point(&unlawful.outcome(), "short-term-rental"));
}

/// How much capital cost is claimed is weighed with savings and contributions, which come before it.
#[test]
fn capital_cost_of_lets_after_contributions() {
    let rented = |family: Family| {
        family.shared("T776", &[("ada", "100")], json!({ "gross": "10000", "cca": "4000" }), json!([]))
    };
    // Without tax nothing is claimed.
    assert_lines(
        &rented(paid("1")).outcome(),
        0,
        &[("t776.cca", "0"), ("t776.left", "4000"), ("12600", "10000")],
    );
    let family = rented(paid("60000").contributions("ada", "9000", "1000"));
    assert_lines(&family.outcome(), 0, &[("20800", "1000"), ("t776.cca", "4000"), ("12600", "6000")]);
    for (now, contributed, claimed) in [
        ("0", "0", "0"),
        ("999.99", "999.99", "0"),
        ("1000", "1000", "0"),
        ("2500", "1000", "1500"),
        ("5000", "1000", "4000"),
    ] {
        let outcome = family.clone().pin("ca.rrsp.ada", now).outcome();
        assert_lines(&outcome, 0, &[("20800", contributed), ("t776.cca", claimed)]);
    }
}

#[test]
fn supplements_compensation_and_assistance_are_not_taxed() {
    let family = |kind: &str, boxes: Value| {
        Family::single("ON", "1955-01-01").interest("ada", "30000").paper(kind, "ada", boxes).outcome()
    };
    for (kind, boxes, amount) in [
        ("T4A(OAS)", json!({ "18": "0", "21": "4000" }), "4000"),
        ("T5007", json!({ "10": "6000" }), "6000"),
        ("T5007", json!({ "11": "7000" }), "7000"),
        ("T5007", json!({ "10": "6000", "11": "7000" }), "13000"),
    ] {
        let outcome = family(kind, boxes);
        assert_lines(&outcome, 0, &[("25000", amount), ("26000", "30000")]);
        assert_eq!(line(&outcome, 0, "23600"), money("30000") + money(amount));
    }
    // Forces and options come off as well.
    let family = Family::single("ON", "1980-01-01").paper(
        "T4",
        "ada",
        json!({ "14": "90000", "43": "20000", "39": "5000" }),
    );
    let outcome = family.outcome();
    assert_eq!(line(&outcome, 0, "23600") - line(&outcome, 0, "26000"), money("25000"));
}
