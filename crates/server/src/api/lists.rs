//! Lists as tables: CSV in, looked at before anything is stored, and out.

use super::Input;
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    work,
};
use axum::{
    Json,
    extract::{Path, State},
    http::header,
    response::IntoResponse,
};
use hembo_core::{
    Fault, Household, Pack, Paper,
    check::MOST_ROWS,
    field::{Field, FieldKind},
    household::{Answers, Entry},
    paper::PaperKind,
    typed,
    words::label_of,
};
use hembo_documents::sheets::{self, Cell, Sheet};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// How many lines with faults are told.
const MOST_FAULTS: usize = 100;

/// A table to look at.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = TableIn)]
pub struct Table {
    /// The CSV, with its headings in the first line.
    text: String,
    /// Which column of the list each of its columns is, in its order; nothing leaves one out. Matched by the headings
    /// where this is left out.
    #[serde(default)]
    columns: Option<Vec<Option<String>>>,
}

/// A table as the lines of a list.
#[derive(Serialize, ToSchema)]
#[schema(as = TableRead)]
#[allow(missing_docs)]
pub struct Read {
    /// Its columns, with the column of the list that each is.
    pub columns: Vec<Matched>,
    /// The lines that can be taken.
    pub rows: Vec<Answers>,
    /// What the column that stands for the paper adds up to.
    pub sum: Option<Money>,
    /// Lines that cannot be taken.
    pub faulty: usize,
    /// What is wrong with them, the first hundred.
    pub faults: Vec<LineFault>,
    /// Lines that stand in the list already, word for word.
    pub there: usize,
}

/// A column of a table.
#[derive(Serialize, ToSchema)]
#[schema(as = MatchedColumn)]
#[allow(missing_docs)]
pub struct Matched {
    pub heading: String,
    /// The column of the list; none where it is left out.
    pub column: Option<String>,
}

/// What is wrong with a line.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct LineFault {
    /// The line of the file, its headings being the first.
    pub line: u64,
    pub heading: String,
    pub message: String,
}

fn list<'p>(
    household: &'p Household,
    pack: &dyn Pack,
    paper: &str,
) -> Answer<(&'p Paper, &'static PaperKind)> {
    let paper = household.paper(paper).ok_or_else(|| Problem::not_found("paper"))?;
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind);
    let kind = kind.filter(|kind| !kind.columns.is_empty()).ok_or_else(|| Problem::not_found("list"))?;
    Ok((paper, kind))
}

fn wrong(message: String) -> Problem {
    Problem::invalid(vec![Fault::new("text", message)])
}

/// Look at a table as lines of a list; nothing is stored.
#[utoipa::path(post, path = "/api/households/{id}/papers/{paper}/table",
    params(("id" = Uuid, Path), ("paper" = String, Path)), request_body = Table,
    responses((status = 200, body = Read), (status = 404, body = Problem), (status = 413, body = Problem),
        (status = 422, body = Problem)))]
pub async fn look_at_table(
    State(app): State<App>,
    _: By,
    Path((id, paper)): Path<(Uuid, String)>,
    Input(table): Input<Table>,
) -> Answer<Json<Read>> {
    let (_, household) = work::load(&app, id).await?;
    let pack = work::pack(&app, &household)?;
    let (paper, kind) = list(&household, pack, &paper)?;
    if table.text.contains('\0') || table.text.contains('\u{fffd}') {
        return Err(wrong(
            "This is no CSV: it has signs that no text has. Save the table as CSV first.".into(),
        ));
    }
    let mut reader = csv::ReaderBuilder::new()
        .delimiter(delimiter(&table.text))
        .flexible(true)
        .trim(csv::Trim::All)
        .from_reader(table.text.trim_start_matches('\u{feff}').as_bytes());
    let headings: Vec<String> =
        reader.headers().map_err(|error| wrong(error.to_string()))?.iter().map(str::to_owned).collect();
    let columns = match &table.columns {
        Some(columns) => columns.iter().map(|id| id.as_deref().and_then(|id| kind.column(id))).collect(),
        None => matched(&headings, kind.columns),
    };
    if columns.iter().all(Option::is_none) {
        let known: Vec<&str> = kind.columns.iter().map(|column| column.label).collect();
        let message = format!("No heading in the first line is one of this list: {}.", known.join(", "));
        // With columns chosen by hand nothing may be chosen yet.
        if table.columns.is_none() && headings.len() < 2 {
            return Err(wrong(message));
        }
    }
    let mut read =
        Read { columns: Vec::new(), rows: Vec::new(), sum: None, faulty: 0, faults: Vec::new(), there: 0 };
    for record in reader.records() {
        let record = record.map_err(|error| wrong(format!("The table cannot be read: {error}")))?;
        let line = record.position().map_or(0, csv::Position::line);
        one_line(&record, line, &headings, &columns, (&household, pack), &mut read);
        if paper.rows.len() + read.rows.len() + read.faulty > MOST_ROWS {
            return Err(wrong(format!("A list has at most {MOST_ROWS} lines: take a part of the table.")));
        }
    }
    read.there = read.rows.iter().filter(|row| paper.rows.iter().any(|one| one.cells == **row)).count();
    let headline = kind.column(kind.headline);
    read.sum = headline
        .map(|column| read.rows.iter().filter_map(|row| row.get(column.id)).filter_map(Entry::money).sum());
    read.columns = headings
        .into_iter()
        .zip(columns.iter().chain(std::iter::repeat(&None)))
        .map(|(heading, column)| Matched { heading, column: column.map(|column| column.id.to_owned()) })
        .collect();
    Ok(Json(read))
}

/// The sign between the cells: the one of these that the first line has most of.
fn delimiter(text: &str) -> u8 {
    let first = text.lines().next().unwrap_or_default();
    let many = |sign: &u8| first.bytes().filter(|byte| byte == sign).count();
    [b',', b';', b'\t'].into_iter().rev().max_by_key(many).unwrap_or(b',')
}

/// Which column each heading is: by its words, its number or its name; each column once.
fn matched(headings: &[String], columns: &'static [Field]) -> Vec<Option<&'static Field>> {
    let plain = |text: &str| {
        text.chars().filter(|c| c.is_alphanumeric()).flat_map(char::to_lowercase).collect::<String>()
    };
    let mut taken = Vec::new();
    let find = |heading: &String| {
        let is_it = |field: &&Field| {
            let names = [field.label, field.id, field.number];
            !taken.contains(&field.id)
                && names.iter().any(|name| !name.is_empty() && plain(name) == plain(heading))
        };
        let found = columns.iter().find(is_it);
        taken.extend(found.map(|field| field.id));
        found
    };
    headings.iter().map(find).collect()
}

fn one_line(
    record: &csv::StringRecord,
    line: u64,
    headings: &[String],
    columns: &[Option<&'static Field>],
    (household, pack): (&Household, &dyn Pack),
    read: &mut Read,
) {
    let mut row = Answers::new();
    let mut faults = Vec::new();
    for (at, cell) in record.iter().enumerate() {
        let Some(field) = columns.get(at).copied().flatten() else { continue };
        match typed::entry(cell, field, household, pack) {
            Ok(Some(entry)) => {
                row.insert(field.id.to_owned(), entry);
            }
            Ok(None) => {}
            Err(message) => {
                let heading = headings.get(at).cloned().unwrap_or_default();
                faults.push(LineFault { line, heading, message });
            }
        }
    }
    if !faults.is_empty() {
        read.faulty += 1;
        let room = MOST_FAULTS.saturating_sub(read.faults.len());
        read.faults.extend(faults.into_iter().take(room));
    } else if !row.is_empty() {
        read.rows.push(row);
    }
}

/// A list as CSV, as it can be taken in again.
#[utoipa::path(get, path = "/api/households/{id}/papers/{paper}/table",
    params(("id" = Uuid, Path), ("paper" = String, Path)),
    responses((status = 200, content_type = "text/csv"), (status = 404, body = Problem)))]
pub async fn table(
    State(app): State<App>,
    _: By,
    Path((id, paper)): Path<(Uuid, String)>,
) -> Answer<impl IntoResponse> {
    let (_, household) = work::load(&app, id).await?;
    let pack = work::pack(&app, &household)?;
    let household = crate::seal::masked(household, pack);
    let (paper, kind) = list(&household, pack, &paper)?;
    let open: Vec<&Field> = kind.columns.iter().filter(|column| !column.secret).collect();
    let rows = paper
        .rows
        .iter()
        .map(|row| open.iter().map(|field| cell(field, row.get(field.id), &household)).collect());
    let sheet = Sheet {
        name: "List",
        head: open.iter().map(|field| field.label.to_owned()).collect(),
        rows: rows.collect(),
    };
    let file = sheets::csv(&sheet).map_err(Problem::internal)?;
    let headers = [
        (header::CONTENT_TYPE, "text/csv; charset=utf-8"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"list.csv\""),
    ];
    Ok((headers, file))
}

fn cell(field: &Field, entry: Option<&Entry>, household: &Household) -> Cell {
    match (field.kind, entry) {
        (_, None) => Cell::Empty,
        (FieldKind::Amount { .. }, Some(entry)) => entry.money().map_or(Cell::Empty, Cell::Amount),
        (_, Some(Entry::Flag(yes))) => Cell::Text(if *yes { "yes" } else { "no" }.into()),
        (_, Some(Entry::Count(count))) => Cell::Text(count.to_string()),
        (FieldKind::Choice { options }, Some(Entry::Text(id))) => {
            Cell::Text(label_of(options, id).unwrap_or(id).to_owned())
        }
        (FieldKind::Person, Some(Entry::Text(id))) => {
            Cell::Text(household.person(id).map_or(id.as_str(), |person| &person.name).to_owned())
        }
        (_, Some(Entry::Text(text))) => Cell::Text(text.clone()),
    }
}
