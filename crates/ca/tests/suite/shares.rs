//! Ledgers of shares at their average cost, and superficial losses, against tables by hand and what must always hold.

use hembo_ca::shares::pool::{Entry, Step, What, reckon};
use hembo_core::{Outcome, drawn::Part};
use hembo_money::{Money, Rate};
use hembo_testing::ca::{Family, assert_lines, has_point, line, money};
use proptest::prelude::*;
use serde_json::{Value, json};
use time::{Date, Duration, macros::date};

/// A line: day, what, number, amount, outlays.
fn lines(of: &[(&str, &str, &str, &str, &str)]) -> Value {
    let line = |&(day, what, number, amount, outlays): &(&str, &str, &str, &str, &str)| {
        let mut line = json!({ "date": day, "what": what });
        for (field, text) in [("number", number), ("amount", amount), ("outlays", outlays)] {
            if !text.is_empty() {
                line[field] = json!(text);
            }
        }
        line
    };
    json!(of.iter().map(line).collect::<Vec<_>>())
}

fn ledger(family: Family, owners: &[(&str, &str)], rows: Value) -> Family {
    family.shared("Shares", owners, json!({}), rows)
}

fn single(rows: Value) -> Family {
    ledger(Family::single("AB", "1980-01-01").interest("ada", "60000"), &[("ada", "100")], rows)
}

/// The same family with a title on one of its papers.
fn titled(mut family: Family, paper: usize, title: &str) -> Family {
    family.0["papers"][paper]["title"] = json!(title);
    family
}

/// What stands in a worked column, line by line.
fn column(outcome: &Outcome, paper: usize, label: &str) -> Vec<String> {
    let drawn: Vec<_> = outcome.papers.iter().filter_map(|paper| paper.drawn.as_ref()).collect();
    let column = drawn[paper].columns.iter().find(|column| column.label == label).unwrap();
    let mut cells: Vec<_> =
        column.cells.iter().map(|(row, cell)| (row[1..].parse::<u32>().unwrap(), cell.clone())).collect();
    cells.sort();
    cells.into_iter().map(|(_, cell)| cell).collect()
}

/// The example of an average-cost pool from 2023 to 2025.
const POOL: &[(&str, &str, &str, &str, &str)] = &[
    ("2023-02-10", "bought", "200", "5000", "9.99"),
    ("2023-12-31", "added", "", "124", ""),
    ("2024-03-15", "bought", "150", "4260", "9.99"),
    ("2024-06-30", "returned", "", "122.50", ""),
    ("2024-09-16", "reinvested", "4", "116.40", ""),
    ("2024-10-07", "sold", "100", "3100", "9.99"),
    ("2025-02-03", "split", "254", "", ""),
    ("2025-04-14", "sold", "208", "2392", "9.99"),
    ("2025-04-30", "bought", "120", "1344", "9.99"),
    ("2025-11-20", "sold", "420", "5775", "9.99"),
];

#[test]
fn the_average_cost_pool_line_by_line() {
    let outcome = single(lines(POOL)).outcome();
    assert_eq!(
        column(&outcome, 0, "Held"),
        ["200", "200", "350", "350", "354", "254", "508", "300", "420", "0"]
    );
    assert_eq!(
        column(&outcome, 0, "Average"),
        ["25.05", "25.67", "26.8685", "26.5185", "26.5477", "26.5477", "13.2738", "13.2738", "13.2256"]
    );
    let drawn = outcome.papers.iter().find_map(|paper| paper.drawn.as_ref()).unwrap();
    let made: Vec<_> = drawn.workings.iter().map(|w| (w.title.as_str(), w.amount.to_string())).collect();
    assert_eq!(made, [("Sold 208", "-160.32".into()), ("Sold 420", "210.24".into())]);
    assert!(drawn.workings[0].parts.contains(&Part::new("Denied of the loss", money("218.63"))));
    assert_lines(&outcome, 0, &[("19700", "49.92"), ("12700", "24.96")]);
    assert_eq!(drawn.stands, Some(money("49.92")));
    let before = single(lines(POOL)).in_year(2024).outcome();
    assert_lines(&before, 0, &[("19700", "435.24"), ("12700", "217.62")]);
}

#[test]
fn losses_are_denied_as_far_as_the_same_is_bought_and_held() {
    let bought = ("2024-01-10", "bought", "100", "1000", "");
    let sold = ("2025-06-16", "sold", "100", "400", "");
    for (more, net) in [
        (vec![], "-600"),
        // The days: 30 before and after count, the 31st does not.
        (vec![("2025-07-16", "bought", "100", "400", "")], "0"),
        (vec![("2025-07-17", "bought", "100", "400", "")], "-600"),
        (vec![("2025-05-17", "bought", "100", "1000", "")], "0"),
        (vec![("2025-05-16", "bought", "100", "1000", "")], "-600"),
        // As many as were bought, and no more than are held at the end.
        (vec![("2025-07-01", "bought", "25", "100", "")], "-450"),
        (vec![("2025-07-01", "bought", "150", "600", "")], "0"),
        // 5 of 25 are held: 30 of 600 is denied, and the 25 cost 130; 20 of them cost 104 and lose 24, of which 5 of 20 is denied.
        (vec![("2025-07-01", "bought", "25", "100", ""), ("2025-07-10", "sold", "20", "80", "")], "-588"),
        // A plan of the family buys: denied, and lost.
        (vec![("2025-07-01", "in_plan", "50", "", "")], "-300"),
        // Twice as many after a split are the same.
        (vec![("2025-07-01", "bought", "10", "40", ""), ("2025-07-02", "split", "10", "", "")], "-540"),
    ] {
        let mut rows = vec![bought, sold];
        rows.extend(more.iter().copied());
        assert_eq!(line(&single(lines(&rows)).outcome(), 0, "19700"), money(net), "{more:?}");
    }
}

#[test]
fn a_denied_loss_is_cost_of_what_was_bought_in_place() {
    let couple = || Family::couple("AB", ["1980-01-01"; 2]).interest("ada", "60000").interest("bo", "40000");
    let own = lines(&[("2024-01-10", "bought", "100", "1000", ""), ("2025-06-16", "sold", "100", "400", "")]);
    let theirs =
        lines(&[("2025-07-01", "bought", "100", "400", ""), ("2025-12-01", "sold", "100", "900", "")]);
    let family = ledger(ledger(couple(), &[("ada", "100")], own), &[("bo", "100")], theirs);
    let outcome = titled(titled(family, 2, "Saltmarsh Rail"), 3, "saltmarsh rail ").outcome();
    assert_eq!(column(&outcome, 1, "Average"), ["10"]);
    assert_eq!([line(&outcome, 0, "19700"), line(&outcome, 1, "19700")], [money("0"), money("-100")]);
}

#[test]
fn moves_into_plans_and_returns_above_cost() {
    for (rows, net) in [
        (vec![("2025-03-03", "to_plan", "50", "400", "")], "0"),
        (vec![("2025-03-03", "to_plan", "50", "700", "")], "200"),
        (vec![("2025-03-03", "to_partner", "50", "", "")], "0"),
        (vec![("2025-03-03", "returned", "", "1000", "")], "0"),
        (vec![("2025-03-03", "returned", "", "1000.01", "")], "0.01"),
        (vec![("2025-03-03", "returned", "", "1100", ""), ("2025-09-01", "sold", "100", "50", "")], "150"),
        (
            vec![("2025-03-03", "merged", "90", "", ""), ("2025-09-01", "sold", "10", "1500", "1.50")],
            "498.50",
        ),
    ] {
        let mut all = vec![("2020-01-10", "bought", "100", "1000", "")];
        all.extend(rows.iter().copied());
        assert_eq!(line(&single(lines(&all)).outcome(), 0, "19700"), money(net), "{rows:?}");
    }
}

#[test]
fn amounts_in_another_currency_take_the_rate_of_their_day() {
    let rows = json!([
        { "date": "2020-01-10", "what": "bought", "number": "10.5", "amount": "1000", "outlays": "10", "rate": "1.3" },
        { "date": "2025-03-03", "what": "sold", "number": "10.5", "amount": "1000", "outlays": "10", "rate": "1.4" },
    ]);
    let family = Family::single("AB", "1980-01-01").interest("ada", "60000");
    let family = family.shared("Shares", &[("ada", "100")], json!({ "currency": "USD" }), rows.clone());
    // 1,400 − 14 − (1,300 + 13)
    assert_lines(&family.outcome(), 0, &[("19700", "73")]);
    assert!(!has_point(&family.outcome(), "C-78-rate"));
    let mut without = rows;
    without[1].as_object_mut().unwrap().remove("rate");
    let family = Family::single("AB", "1980-01-01");
    let family = family.shared("Shares", &[("ada", "100")], json!({ "currency": "USD" }), without);
    assert!(has_point(&family.outcome(), "C-78-rate"));
}

#[test]
fn what_a_ledger_lacks_is_told() {
    let bought = json!({ "date": "2024-01-10", "what": "bought", "number": "100", "amount": "1000" });
    let told = |row: Value, code: &str| has_point(&single(json!([bought, row])).outcome(), code);
    for field in ["date", "what", "number", "amount"] {
        let mut row = json!({ "date": "2025-01-10", "what": "sold", "number": "100", "amount": "1000" });
        assert!(!told(row.clone(), "C-73"));
        row.as_object_mut().unwrap().remove(field);
        assert!(told(row, "C-73"), "{field}");
    }
    let sold = |number: &str, amount: &str| json!({ "date": "2025-01-10", "what": "sold", "number": number, "amount": amount });
    assert!(!told(sold("100", "1000"), "C-73-short") && told(sold("100.000001", "1000"), "C-73-short"));
    assert!(!told(sold("100", "1000"), "C-75-plans") && told(sold("100", "999.99"), "C-75-plans"));
    assert!(told(
        json!({ "date": "2025-01-10", "what": "from_partner", "number": "1", "amount": "1" }),
        "C-85"
    ));
    let twice = single(json!([bought])).shared("Shares", &[("ada", "100")], json!({}), json!([bought]));
    assert!(has_point(&titled(titled(twice, 1, "Dune"), 2, " dune").outcome(), "C-73-twice"));
}

/// Purchases, sales, capital returned and splits of two ledgers on random days, never more sold than held.
fn entries() -> impl Strategy<Value = Vec<Entry>> {
    let one = (0..2_usize, 0..200_i64, 0..6_u8, 1..50_i64, 1..500_000_i64);
    proptest::collection::vec(one, 1..25).prop_map(|all| {
        let start: Date = date!(2024 - 06 - 01);
        let mut entries: Vec<Entry> = all
            .into_iter()
            .enumerate()
            .map(|(row, (ledger, day, what, units, cents))| Entry {
                ledger,
                row,
                date: start + Duration::days(day),
                what: [
                    What::Bought,
                    What::Bought,
                    What::Sold,
                    What::CapitalReturned,
                    What::Split,
                    What::InPlan,
                ][usize::from(what)],
                units: Rate::ONE * units,
                amount: Money::from_cents(cents),
                outlays: Money::from_cents(cents % 7),
            })
            .collect();
        // Everything is sold at the end.
        for ledger in 0..2 {
            let steps = reckon(entries.clone());
            let left =
                steps.iter().rev().find(|step| step.entry.ledger == ledger).map(|step| step.held.units);
            let (date, units) = (start + Duration::days(400), left.unwrap_or_default());
            let last = Entry {
                ledger,
                row: 99,
                date,
                what: What::Sold,
                units,
                amount: Money::whole(77),
                outlays: Money::ZERO,
            };
            entries.extend(left.map(|_| last));
        }
        entries
    })
}

proptest! {
    #[test]
    fn all_gains_together_are_the_money_that_came_in_less_what_was_paid(entries in entries()) {
        let steps = reckon(entries);
        let sum = |what: fn(&Step) -> Money| steps.iter().map(what).sum::<Money>();
        let gains = sum(|step| step.sale.map_or(Money::ZERO, |sale| sale.gain()));
        let cash = sum(|step| match step.entry.what {
            What::Bought => -(step.entry.amount + step.entry.outlays),
            What::Sold => step.entry.amount - step.entry.outlays,
            What::CapitalReturned => step.entry.amount,
            _ => Money::ZERO,
        });
        // Only what a plan bought in place is lost for ever, and only what no units are left to carry stays behind.
        let bought_in_plans = steps.iter().any(|step| step.entry.what == What::InPlan);
        let left = steps.iter().fold([Money::ZERO; 2], |mut left, step| {
            left[step.entry.ledger] = step.held.cost;
            left
        });
        let whole = gains - left[0] - left[1];
        if bought_in_plans { prop_assert!(whole >= cash) } else { prop_assert_eq!(whole, cash) }
        for step in &steps {
            let denied = step.sale.map_or(Money::ZERO, |sale| sale.denied);
            let loss = step.sale.map_or(Money::ZERO, |sale| (-sale.before_denial()).or_zero());
            prop_assert!(denied >= Money::ZERO && denied <= loss);
        }
    }
}

/// Box 42 of the slips of a fund stands against what its ledger has of the year, whichever ledger of the family it is on.
#[test]
fn what_a_funds_slip_takes_from_its_cost_is_on_its_ledger() {
    let told = |box_42: &[&str], title: &str, rows: &[(&str, &str, &str, &str, &str)]| {
        let bought = ("2024-03-01", "bought", "100", "5000", "");
        let mut family = titled(single(lines(&[&[bought], rows].concat())), 1, "Bow River Income Fund");
        for (n, amount) in box_42.iter().enumerate() {
            family = titled(family.paper("T3", "ada", json!({ "42": amount })), 2 + n, title);
        }
        has_point(&family.outcome(), "C-74-slip")
    };
    let back = |amount| ("2025-12-31", "returned", "", amount, "");
    let added = |amount| ("2025-12-31", "added", "", amount, "");
    for (box_42, title, rows, expected) in [
        (&["120"][..], "bow river income fund ", vec![], true),
        (&["120"], "Bow River Income Fund", vec![back("119.99")], true),
        (&["120"], "Bow River Income Fund", vec![back("120")], false),
        (&["120"], "Bow River Income Fund", vec![("2024-12-31", "returned", "", "120", "")], true),
        (&["100", "20"], "Bow River Income Fund", vec![back("120")], false),
        (&["-30"], "Bow River Income Fund", vec![added("30")], false),
        (&["-30"], "Bow River Income Fund", vec![back("30")], true),
        (&["120"], "Another Fund", vec![], false),
        (&[], "", vec![back("120")], false),
    ] {
        assert_eq!(told(box_42, title, &rows), expected, "{box_42:?} {title} {rows:?}");
    }
}
