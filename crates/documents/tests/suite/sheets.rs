//! Sheets: every figure is there as a number, and no cell of words is taken for a formula.

use calamine::{Data, Reader, Xlsx};
use hembo_core::{Household, Outcome, certificate::certificate, file, outcome};
use hembo_documents::{
    pack::Source,
    sheets::{Cell, NAMES, Sheet, csv, sheets, xlsx},
};
use hembo_testing::laws::every_law;
use std::{fs, io::Cursor, path::PathBuf};

fn sheets_of(change: impl Fn(&mut Household)) -> ([Sheet; 4], Outcome) {
    let registry = every_law();
    let path = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo/us/vreeland-mbeki.json");
    let mut household = file::read(&fs::read(path).unwrap(), &registry).unwrap();
    change(&mut household);
    let outcome = outcome::reckon(&household, &registry).unwrap();
    let rules = registry.pack("us").unwrap();
    let (practice, made) = ("Quay Street Practice", "3 March 2026");
    let source = Source {
        household: &household,
        outcome: &outcome,
        rules,
        practice,
        revision: Some(7),
        made,
        notes: &[],
        letter: None,
        slips: &[],
        asked: &[],
        certificate: &certificate(&household, &outcome, rules),
    };
    (sheets(source), outcome)
}

#[test]
fn a_workbook_has_every_sheet_and_its_figures_as_numbers() {
    let (sheets, outcome) = sheets_of(|_| {});
    let mut book: Xlsx<_> = Xlsx::new(Cursor::new(xlsx(&sheets).unwrap())).unwrap();
    assert_eq!(book.sheet_names(), NAMES);
    let spread = book.worksheet_range("Spread").unwrap();
    let total = spread.rows().find(|row| row[1] == Data::String("Total tax".into())).unwrap();
    let expected: f64 = outcome.total.to_string().parse().unwrap();
    assert_eq!(total.last(), Some(&Data::Float(expected)));
    for sheet in &sheets {
        assert!(!sheet.rows.is_empty(), "{}", sheet.name);
        assert!(sheet.rows.iter().all(|row| row.len() == sheet.head.len()), "{}", sheet.name);
    }
    let papers = &sheets[3];
    let wages = |row: &&Vec<Cell>| row[4] == Cell::Text("1".into()) && row[0] == Cell::Text("W-2".into());
    assert_eq!(papers.rows.iter().filter(wages).count(), 2);
}

#[test]
fn words_that_look_like_a_formula_are_made_harmless() {
    let (sheets, _) = sheets_of(|household| {
        for (paper, title) in household.papers.iter_mut().zip(["=1+1", "+2", "-3", "@sum", "a \"b\", c"]) {
            paper.title = title.into();
        }
    });
    let text = String::from_utf8(csv(&sheets[3]).unwrap()).unwrap();
    for harmless in [",'=1+1,", ",'+2,", ",'-3,", ",'@sum,", ",\"a \"\"b\"\", c\","] {
        assert!(text.contains(harmless), "{harmless} in {text}");
    }
    assert!(!text.contains(",=1+1"));
    // An amount below zero is a number.
    let spread = String::from_utf8(csv(&sheets[0]).unwrap()).unwrap();
    assert!(spread.lines().any(|line| line.starts_with("Paid,Withheld,-")), "{spread}");
    // In a workbook it is a string.
    let mut book: Xlsx<_> = Xlsx::new(Cursor::new(xlsx(&sheets).unwrap())).unwrap();
    let papers = book.worksheet_range("Papers").unwrap();
    assert!(papers.rows().any(|row| row[1] == Data::String("=1+1".into())));
    assert_eq!(book.worksheet_formula("Papers").unwrap().used_cells().count(), 0);
}
