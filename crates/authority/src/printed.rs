//! Slips as their issuers print them: a PDF with its text, and a picture of it for the scanner.

use crate::data::{HeldSlip, Known};
use hembo_core::{
    Pack,
    field::{Field, FieldKind},
    household::{Answers, Entry},
    numbers::Numbers,
    paper::PaperKind,
    slip::Word,
};
use hembo_documents::{
    NotWritten,
    pack::sheet,
    slip::{Cell, Printed, Table, print},
};

/// Makes a picture of a PDF's first page, with its words.
pub type Camera = fn(&[u8]) -> Option<(Vec<u8>, Vec<Word>)>;

/// What stands behind a picture, before the name of its slip.
const BESIDE: &[u8] = b"\nslip:";

/// The slip of someone as a PDF.
///
/// Nothing of a kind that the law does not have.
///
/// # Errors
/// When it cannot be written, which must not happen.
pub fn pdf(known: &Known, slip: &HeldSlip, pack: &dyn Pack) -> Result<Option<Vec<u8>>, NotWritten> {
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == slip.kind);
    let Some(kind) = kind else { return Ok(None) };
    let numbers = pack.about().numbers;
    let printed = Printed {
        code: kind.id.into(),
        name: format!("{} {}", kind.name, slip.year),
        cells: cells(known, slip, kind, pack),
        table: table(slip, kind, numbers),
        foot: format!("Made up, to try things out. {}, issued {}", slip.id, slip.issued),
        sheet: sheet(pack),
    };
    print(&printed).map(Some)
}

fn cells(known: &Known, slip: &HeldSlip, kind: &PaperKind, pack: &dyn Pack) -> Vec<Cell> {
    let numbers = pack.about().numbers;
    let cell = |label: &str, value: &str| Cell { label: label.into(), value: value.into() };
    let mut cells = vec![
        cell(kind.title, &slip.title),
        cell("Issued to", &known.name),
        cell(pack.about().id_number, &known.number),
    ];
    // Of a list the codes that are there, of boxes all of the year.
    let is_shown = |field: &&Field| {
        let there = kind.field(field.id).is_some() || slip.boxes.contains_key(field.id);
        !field.secret && field.years.hold(slip.year) && there
    };
    let fields = kind.told_fields();
    cells.extend(fields.iter().filter(is_shown).map(|field| {
        cell(
            &label(field),
            &slip.boxes.get(field.id).map(|entry| told(field, entry, numbers)).unwrap_or_default(),
        )
    }));
    cells
}

fn label(field: &Field) -> String {
    format!("{} {}", field.number, field.label).trim().to_owned()
}

/// The lines of an account or a statement, in the columns that any of them fills.
fn table(slip: &HeldSlip, kind: &PaperKind, numbers: Numbers) -> Option<Table> {
    let is_filled = |field: &&Field| slip.rows.iter().any(|row| row.contains_key(field.id));
    let columns: Vec<&Field> = kind.columns.iter().filter(is_filled).collect();
    let line = |row: &Answers| {
        let cell =
            |field: &&Field| row.get(field.id).map(|entry| told(field, entry, numbers)).unwrap_or_default();
        columns.iter().map(cell).collect()
    };
    let head = columns.iter().map(|field| label(field)).collect();
    (!columns.is_empty()).then(|| Table { head, lines: slip.rows.iter().map(line).collect() })
}

/// What stands in a box as it is printed: numbers as the country writes them, choices in words.
fn told(field: &Field, entry: &Entry, numbers: Numbers) -> String {
    match (field.kind, entry) {
        (FieldKind::Amount { .. }, entry) => {
            entry.money().map_or_else(String::new, |money| numbers.amount(money))
        }
        (FieldKind::Choice { options }, Entry::Text(id)) => options
            .iter()
            .find(|option| option.id == id)
            .map_or(id.as_str(), |option| option.label)
            .to_owned(),
        (_, Entry::Flag(yes)) => if *yes { "X" } else { "" }.to_owned(),
        (_, Entry::Count(count)) => count.to_string(),
        (FieldKind::Number { .. }, Entry::Text(text)) => numbers.write(text),
        (_, Entry::Text(text)) => text.clone(),
    }
}

/// A picture with the name of its slip beside it.
pub fn picture(png: Vec<u8>, name: &str) -> Vec<u8> {
    [png, BESIDE.to_vec(), name.as_bytes().to_vec()].concat()
}

/// The name that stands beside a picture.
pub fn name_of(picture: &[u8]) -> Option<&str> {
    let at = picture.windows(BESIDE.len()).rposition(|window| window == BESIDE)?;
    std::str::from_utf8(&picture[at + BESIDE.len()..]).ok()
}
