//! Figures add up where they stand: rows of the Spread, and the columns of compared ways, of every demo household.

use hembo_core::{
    Outcome, file,
    outcome::{ComparedRow, Row, Standing, reckon},
};
use hembo_money::Money;
use hembo_testing::laws::EVERY_LAW as REGISTRY;
use std::path::PathBuf;

fn demos() -> Vec<(String, hembo_core::Household)> {
    let folder = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let read = |path: PathBuf| {
        let name = path.file_stem().unwrap().to_string_lossy().into_owned();
        (name, file::read(&std::fs::read(path).unwrap(), &REGISTRY).unwrap())
    };
    let files =
        ["us", "ca", "nz", "za", "de"].map(|country| std::fs::read_dir(folder.join(country)).unwrap());
    files.into_iter().flatten().map(|entry| read(entry.unwrap().path())).collect()
}

fn near(one: Money, other: Money) -> bool {
    let apart = one - other;
    apart < Money::whole(2) && -apart < Money::whole(2)
}

/// Each person's part, and what is nobody's, come to the last column.
fn row_foots(row: &Row) -> bool {
    let parts: Vec<Money> = row.cells.iter().flatten().filter(|c| !c.beside).map(|c| c.amount).collect();
    let Some(together) = row.together.as_ref().filter(|_| parts.iter().any(|p| !p.is_zero())) else {
        return true;
    };
    near(parts.into_iter().sum::<Money>() + row.shared.unwrap_or_default(), together.amount)
}

#[test]
fn rows_foot() {
    for (name, household) in demos() {
        let outcome = reckon(&household, &REGISTRY).unwrap();
        for row in outcome.spread.iter().flat_map(|s| &s.rows) {
            assert!(row_foots(row), "{name}: {row:?}");
        }
    }
}

/// The part of each spouse in taxes, gifts and what was withheld is all that the spouse brings.
#[test]
fn a_part_is_all_that_a_person_brings() {
    let (_, household) = demos().into_iter().find(|(name, _)| name == "vreeland-mbeki").unwrap();
    let outcome = reckon(&household, &REGISTRY).unwrap();
    for label in ["State and local taxes", "Gifts to charity", "Withheld", "Adjusted gross income"] {
        let row = outcome.spread.iter().flat_map(|s| &s.rows).find(|r| r.label == label).unwrap();
        assert_eq!(row.shared, None, "{row:?}");
    }
    let medical =
        outcome.spread.iter().flat_map(|s| &s.rows).find(|r| r.label.starts_with("Medical")).unwrap();
    let shared = medical.shared.unwrap().to_whole();
    assert_eq!(shared, -Money::whole(2_633), "what the floor took is nobody's part");
}

/// Walks a column from result to result: a result is what stands above it, going on from the one before or anew.
fn column_foots(rows: &[ComparedRow], column: usize) -> bool {
    let (mut sum, mut before) = (Money::ZERO, Money::ZERO);
    rows.iter().all(|row| {
        let amount = row.amounts[column].unwrap_or_default();
        if row.beside {
            return true;
        }
        if !row.result {
            sum += if row.takes_off { -amount } else { amount };
            return true;
        }
        let foots = near(sum, amount) || near(before + sum, amount);
        (sum, before) = (Money::ZERO, amount);
        foots
    })
}

/// Whether a row of what is left out is a result itself: then no row leads to that.
fn all_is_told_as_the_rest(rows: &[ComparedRow]) -> bool {
    rows.windows(2).any(|two| {
        two[0].line.is_empty() && !two[0].same && two[1].result && two[0].amounts == two[1].amounts
    })
}

fn told(rows: &[ComparedRow]) -> Vec<String> {
    let amounts = |row: &ComparedRow| {
        row.amounts.iter().map(|a| a.map_or("·".into(), |a| a.to_string())).collect::<Vec<_>>().join("  ")
    };
    rows.iter().map(|r| format!("{}{} {}", if r.takes_off { "−" } else { "" }, r.label, amounts(r))).collect()
}

#[test]
fn columns_of_compared_ways_foot() {
    for (name, household) in demos() {
        let Outcome { compared, decisions, .. } = reckon(&household, &REGISTRY).unwrap();
        if decisions.is_empty() {
            continue;
        }
        assert!(compared.ways.len() > 1, "{name}");
        for column in 0..compared.ways.len() {
            assert!(
                column_foots(&compared.rows, column),
                "{name} column {column}: {:#?}",
                told(&compared.rows)
            );
        }
        assert!(compared.rows.iter().any(|r| r.same), "{name}: nothing is the same in all");
        assert!(!all_is_told_as_the_rest(&compared.rows), "{name}: {:#?}", told(&compared.rows));
    }
}

/// A pin that costs stands first, and beside it the lowest without it.
#[test]
fn a_pin_stands_beside_what_it_would_be_let_go() {
    let (_, mut household) = demos().into_iter().find(|(name, _)| name == "vreeland-mbeki").unwrap();
    let free = reckon(&household, &REGISTRY).unwrap();
    let names: Vec<_> = free.ways.iter().map(|w| w.but.as_str()).take(3).collect();
    assert_eq!(names[..2], ["", "but standard"]);
    household.pins.insert("us.deduction".into(), "standard".into());
    let held = reckon(&household, &REGISTRY).unwrap().compared;
    let columns: Vec<_> = held.ways.iter().map(|w| (w.standing, w.more)).take(2).collect();
    assert_eq!(columns, [(Standing::Held, Money::ZERO), (Standing::LetGo, free.total - held.ways[0].total)]);
    assert_eq!(held.ways[1].but, "but itemized");
}

/// 16,330 of taxes, 14,512.40 of interest and 1,632.50 of gifts against 31,500.
#[test]
fn the_deduction_tells_where_it_turns() {
    let (_, household) = demos().into_iter().find(|(name, _)| name == "vreeland-mbeki").unwrap();
    let outcome = reckon(&household, &REGISTRY).unwrap();
    let deduction = outcome.decisions.iter().find(|d| d.id == "us.deduction").unwrap();
    assert_eq!(
        deduction.break_even.as_deref(),
        Some("itemized 32,475, standard 31,500: standard wins if itemized falls by 975")
    );
}

/// Three sentences: what it is worth, where it gains and what it gives up, and what would turn it.
#[test]
fn why_the_chosen_way() {
    let why = |name: &str, pin: Option<(&str, &str)>| {
        let (_, mut household) = demos().into_iter().find(|(file, _)| file == name).unwrap();
        household.pins.extend(pin.map(|(decision, option)| (decision.to_owned(), option.to_owned())));
        reckon(&household, &REGISTRY).unwrap().compared.why
    };
    let standard = [
        "Standard would be 214 more tax.",
        "It gains most at State and local taxes (16,330 instead of 0), and gives up most at Standard deduction (0 instead of 31,500).",
        "Itemized 32,475, standard 31,500: standard wins if itemized falls by 975.",
    ];
    assert_eq!(why("vreeland-mbeki", None), standard);
    let separate = why("vreeland-mbeki", Some(("us.deduction", "itemized")));
    assert_eq!(separate[0], "Separate would be 1,065 more tax.");
    assert_eq!(
        separate[1],
        "It gains most at Income tax (15,541 instead of 16,606), and gives up next to nothing."
    );
    // An amount that makes a credit is gained; what is handed on, and the sums of both taxes, tell nothing of where.
    let handed_on = why("kettering-adebayo", None);
    assert_eq!(handed_on[0], "No tuition of Corin would be 725 more tax.");
    assert_eq!(
        handed_on[1],
        "It gains most at Transferred from the partner (5,000 instead of 0), and gives up next to nothing."
    );
}
