//! The Spread, the ways, the forms and the papers as sheets: XLSX with all of them, or CSV one by one.

use crate::pack::Source;
use hembo_core::{
    field::{Field, FieldKind},
    household::{Entry, Paper},
    words::label_of,
};
use hembo_money::Money;
use rust_xlsxwriter::{Format, Workbook, XlsxError};

/// A sheet.
#[derive(Debug, Clone, PartialEq)]
pub struct Sheet {
    /// Its name.
    pub name: &'static str,
    /// The headings of its columns.
    pub head: Vec<String>,
    /// Its rows.
    pub rows: Vec<Vec<Cell>>,
}

/// A cell.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Cell {
    /// Nothing.
    Empty,
    /// Words.
    Text(String),
    /// An amount.
    Amount(Money),
}

impl Cell {
    fn text(text: impl Into<String>) -> Cell {
        Cell::Text(text.into())
    }

    fn amount(amount: Option<Money>) -> Cell {
        amount.map_or(Cell::Empty, Cell::Amount)
    }
}

/// The names of the sheets, as they are asked for.
pub const NAMES: [&str; 4] = ["Spread", "Ways", "Forms", "Papers"];

/// Every sheet of a return.
pub fn sheets(of: Source<'_>) -> [Sheet; 4] {
    [spread(of), ways(of), forms(of), papers(of)]
}

fn heads<const N: usize>(heads: [&str; N]) -> Vec<String> {
    heads.map(str::to_owned).into()
}

fn spread(of: Source<'_>) -> Sheet {
    let mut head = heads(["Section", "Row"]);
    head.extend(of.outcome.columns.iter().map(|column| column.name.clone()));
    head.push("Together".into());
    let row = |section: &str, row: &hembo_core::outcome::Row| {
        let signed = |amount: Money| if row.takes_off { -amount } else { amount };
        let cells = row.cells.iter().chain([&row.together]);
        let amounts = cells.map(|cell| Cell::amount(cell.as_ref().map(|cell| signed(cell.amount))));
        [Cell::text(section), Cell::text(&row.label)].into_iter().chain(amounts).collect()
    };
    let counted = |section: &'_ hembo_core::outcome::Section| {
        let rows = section.rows.iter().filter(|row| row.counts);
        rows.map(|one| row(&section.title, one)).collect::<Vec<_>>()
    };
    Sheet { name: NAMES[0], head, rows: of.outcome.spread.iter().flat_map(counted).collect() }
}

fn ways(of: Source<'_>) -> Sheet {
    let rows = of.outcome.ways.iter().map(|way| {
        vec![Cell::text(&way.name), Cell::text(&way.but), Cell::Amount(way.total), Cell::Amount(way.more)]
    });
    Sheet {
        name: NAMES[1],
        head: heads(["Way", "Against the lowest", "Total tax", "More"]),
        rows: rows.collect(),
    }
}

fn forms(of: Source<'_>) -> Sheet {
    let mut rows = Vec::new();
    for of_return in &of.outcome.schedules {
        for form in of_return.forms.iter().filter(|form| form.required) {
            rows.extend(form.rows.iter().map(|row| {
                let words = [&of_return.whose, &form.name, &row.number, &row.title].map(Cell::text);
                words.into_iter().chain([Cell::amount(row.amount)]).collect()
            }));
        }
    }
    Sheet { name: NAMES[2], head: heads(["Return", "Form", "Line", "What it is", "Amount"]), rows }
}

fn papers(of: Source<'_>) -> Sheet {
    let rows = of.household.papers.iter().flat_map(|paper| one_paper(of, paper)).collect();
    Sheet {
        name: NAMES[3],
        head: heads(["Paper", "From, or about", "Whose", "Line", "Box", "What it is", "Entry"]),
        rows,
    }
}

/// A row each filled box and each filled cell of a list.
fn one_paper(of: Source<'_>, paper: &Paper) -> Vec<Vec<Cell>> {
    let Some(kind) = of.rules.paper_kinds().iter().find(|kind| kind.id == paper.kind) else {
        return Vec::new();
    };
    let owners = paper.owners.iter().filter_map(|owner| of.household.person(&owner.person));
    let owners = owners.map(|person| person.name.as_str()).collect::<Vec<_>>().join(", ");
    let row = |line: String, field: &Field, entry: &Entry| {
        let words = [paper.kind.clone(), paper.title.clone(), owners.clone(), line];
        let words = words.into_iter().chain([field.number.to_owned(), field.label.to_owned()]);
        words.map(Cell::text).chain([shown(of, field, entry)]).collect::<Vec<_>>()
    };
    let boxes =
        kind.boxes.iter().filter_map(|field| Some(row(String::new(), field, paper.boxes.get(field.id)?)));
    let lines = paper.rows.iter().enumerate().flat_map(|(at, line)| {
        let filled = kind.columns.iter().filter_map(move |field| Some((field, line.get(field.id)?)));
        filled.map(move |(field, entry)| (at + 1, field, entry))
    });
    let lines: Vec<_> = lines.map(|(at, field, entry)| row(at.to_string(), field, entry)).collect();
    boxes.chain(lines).collect()
}

/// An entry as people read it.
fn shown(of: Source<'_>, field: &Field, entry: &Entry) -> Cell {
    match (entry, field.kind) {
        (Entry::Flag(flag), _) => Cell::text(if *flag { "yes" } else { "no" }),
        (Entry::Count(count), _) => Cell::text(count.to_string()),
        (Entry::Text(text), FieldKind::Amount { .. }) => {
            text.parse().map_or_else(|_| Cell::text(text), Cell::Amount)
        }
        (Entry::Text(text), FieldKind::Choice { options }) => {
            Cell::text(label_of(options, text).unwrap_or(text))
        }
        (Entry::Text(text), FieldKind::Person) => {
            Cell::text(of.household.person(text).map_or(text.as_str(), |person| person.name.as_str()))
        }
        (Entry::Text(text), _) => Cell::text(text),
    }
}

/// Sheets as one XLSX file. Words are written as words, whatever they begin with.
///
/// # Errors
/// When the file cannot be written, which must not happen.
pub fn xlsx(sheets: &[Sheet]) -> Result<Vec<u8>, XlsxError> {
    let mut book = Workbook::new();
    let (bold, money) = (Format::new().set_bold(), Format::new().set_num_format("#,##0.00"));
    for sheet in sheets {
        let page = book.add_worksheet().set_name(sheet.name)?;
        page.set_freeze_panes(1, 0)?;
        for (column, head) in (0..).zip(&sheet.head) {
            page.write_string_with_format(0, column, head, &bold)?;
        }
        for (row, cells) in (1..).zip(&sheet.rows) {
            for (column, cell) in (0..).zip(cells) {
                match cell {
                    Cell::Empty => {}
                    Cell::Text(text) => {
                        page.write_string(row, column, text)?;
                    }
                    Cell::Amount(amount) => {
                        page.write_number_with_format(row, column, amount.cents() as f64 / 100.0, &money)?;
                    }
                }
            }
        }
        page.autofit();
    }
    book.save_to_buffer()
}

/// A sheet as CSV, with amounts as plain decimals. Words that a spreadsheet would take for a formula begin with an apostrophe.
///
/// # Errors
/// When it cannot be written, which must not happen.
pub fn csv(sheet: &Sheet) -> Result<Vec<u8>, csv::Error> {
    let mut writer = csv::Writer::from_writer(Vec::new());
    writer.write_record(sheet.head.iter().map(|head| harmless(head)))?;
    for row in &sheet.rows {
        writer.write_record(row.iter().map(|cell| match cell {
            Cell::Empty => String::new(),
            Cell::Text(text) => harmless(text),
            Cell::Amount(amount) => amount.to_string(),
        }))?;
    }
    writer.into_inner().map_err(|why| why.into_error().into())
}

fn harmless(text: &str) -> String {
    let dangerous = text.starts_with(['=', '+', '-', '@', '\t', '\r']);
    if dangerous { format!("'{text}") } else { text.to_owned() }
}
