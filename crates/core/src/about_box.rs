//! What a box, a cell of a list or a question is: which lines it goes to and by which rule, tried with an example.

use crate::{
    asking::values,
    field::{Field, FieldKind},
    household::{Entry, Household, Row},
    outcome::{Line, LineInput, Outcome, Wanted, reckon_until},
    pack::Registry,
    point::Place,
    search::Stop,
};
use hembo_money::Money;
use serde::Serialize;
use utoipa::ToSchema;

/// How much more the example of an amount is.
const EXAMPLE: Money = Money::whole(1_000);
/// How many lines are told.
const LINES: usize = 8;

/// What a box is, by an example.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AboutBox {
    /// What was tried in it; nothing where no example can be made, as of words.
    pub example: Option<Entry>,
    /// The lines that it goes to with the example, or whose amounts it moves.
    pub lines: Vec<BoxLine>,
    /// It goes to these lines itself; otherwise it only moves their amounts.
    pub direct: bool,
    /// How the lowest tax changes with the example; nothing where there is none.
    pub total: Option<Money>,
}

/// A line that a box goes to, or moves.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BoxLine {
    /// The line.
    pub line: String,
    /// Whose: `return/0`, `person/ID`.
    pub scope: String,
    /// What it is called.
    pub label: String,
    /// Where it stands on the official forms; empty where on none.
    pub place: String,
    /// The rule.
    pub cite: String,
    /// How it is made.
    pub how: String,
    /// Its amount as the household stands; nothing where the line does not arise.
    pub now: Option<Money>,
    /// Its amount with the example.
    pub then: Money,
}

/// What the box, cell or question at a place is; nothing where there is none, or it was stopped.
pub fn about_box(household: &Household, registry: &Registry, at: &Place, stop: &Stop) -> Option<AboutBox> {
    let field = field_at(household, registry, at)?;
    let nothing = AboutBox { example: None, lines: Vec::new(), direct: false, total: None };
    let Some(example) = example(&field, household, at) else { return Some(nothing) };
    let reckon = |household: &Household| reckon_until(household, registry, Wanted::least(1), stop).ok();
    let now = reckon(household)?;
    // What cannot be tried here is told without lines.
    let Some(then) = with(household, at, &field, &example).and_then(|changed| reckon(&changed)) else {
        return Some(nothing);
    };
    let direct = told(&now, &then, |line| line.inputs.iter().any(|input| is_at(input, at)));
    let moved = || told(&now, &then, |line| before(&now, line) != Some(line.amount));
    let is_direct = !direct.is_empty();
    Some(AboutBox {
        example: Some(example),
        lines: if is_direct { direct } else { moved() },
        direct: is_direct,
        total: Some(then.total - now.total),
    })
}

/// The declaration of what stands at a place.
fn field_at(household: &Household, registry: &Registry, at: &Place) -> Option<Field> {
    let pack = registry.pack(&household.country)?;
    let id = at.field.as_deref()?;
    if let Some(paper) = &at.paper {
        let paper = household.paper(paper)?;
        let kind = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind)?;
        return if at.row.is_some() { kind.column(id).copied() } else { kind.field(id).copied() };
    }
    match &at.person {
        Some(_) => pack.person_questions().iter().map(|q| q.field).find(|field| field.id == id),
        None => pack.household_questions().iter().copied().find(|field| field.id == id),
    }
}

/// What stands there now.
fn entry_at<'h>(household: &'h Household, at: &Place) -> Option<&'h Entry> {
    let id = at.field.as_deref()?;
    match (&at.paper, &at.row, &at.person) {
        (Some(paper), Some(row), _) => household.paper(paper)?.row(row)?.get(id),
        (Some(paper), None, _) => household.paper(paper)?.boxes.get(id),
        (None, _, Some(person)) => household.person(person)?.answers.get(id),
        (None, _, None) => household.answers.get(id),
    }
}

/// Something else than what stands there: of an amount a little more.
fn example(field: &Field, household: &Household, at: &Place) -> Option<Entry> {
    let now = entry_at(household, at);
    if let FieldKind::Amount { .. } = field.kind {
        let amount = now.and_then(Entry::money).unwrap_or_default() + EXAMPLE;
        return Some(Entry::amount(amount));
    }
    if let FieldKind::Date = field.kind {
        let days = ["07-01", "02-01"].map(|day| Entry::Text(format!("{}-{day}", household.year)));
        return days.into_iter().find(|day| Some(day) != now);
    }
    let blank = field.blank_entry();
    values(field, household).into_iter().find(|value| Some(value) != now.or(blank.as_ref()))
}

/// The household with the example in its place.
fn with(household: &Household, at: &Place, field: &Field, example: &Entry) -> Option<Household> {
    let mut changed = household.clone();
    let (id, entry) = (field.id.to_owned(), example.clone());
    match (&at.paper, &at.row, &at.person) {
        (Some(paper), row, _) => {
            let paper = changed.papers.iter_mut().find(|one| one.id == *paper)?;
            match row {
                Some(row) => {
                    // The last, empty line of a list is not stored yet.
                    if paper.row(row).is_none() {
                        paper.rows.push(Row { id: row.clone(), ..Row::default() });
                    }
                    let row: &mut Row = paper.rows.iter_mut().find(|one| one.id == *row)?;
                    row.cells.insert(id, entry);
                }
                None => {
                    paper.boxes.insert(id, entry);
                }
            }
        }
        (None, _, Some(person)) => {
            changed.people.iter_mut().find(|one| one.id == *person)?.answers.insert(id, entry);
        }
        (None, _, None) => {
            changed.answers.insert(id, entry);
        }
    }
    Some(changed)
}

/// Whether an input of a line is the box at a place; of a list every line of it.
fn is_at(input: &LineInput, at: &Place) -> bool {
    match input {
        LineInput::Box { paper, field, row, .. } => {
            at.paper.as_ref() == Some(paper)
                && at.field.as_ref() == Some(field)
                && (at.row.is_none() || at.row == *row)
        }
        _ => false,
    }
}

fn before(now: &Outcome, line: &Line) -> Option<Money> {
    now.lines.iter().find(|one| one.id == line.id && one.scope == line.scope).map(|one| one.amount)
}

fn told(now: &Outcome, then: &Outcome, wanted: impl Fn(&Line) -> bool) -> Vec<BoxLine> {
    let line = |line: &Line| BoxLine {
        now: before(now, line),
        then: line.amount,
        line: line.id.clone(),
        scope: line.scope.clone(),
        label: line.label.clone(),
        place: line.place.clone(),
        cite: line.cite.clone(),
        how: line.how.clone(),
    };
    then.lines.iter().filter(|one| wanted(one)).map(line).take(LINES).collect()
}
