//! What the tax authority or a payer holds of a paper, beside what was keyed: box by box and line by line, with what may
//! have gone wrong in keying.

mod lines;

pub use lines::{BesideLine, lines, taking_line};

use crate::{
    command::Command,
    field::{Field, FieldKind},
    household::{Answers, Entry, Household, Paper, date},
    pack::Pack,
    paper::PaperKind,
    point::{Place, Point, PointDef},
};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use time::Date;
use utoipa::ToSchema;

/// What is held of a paper, as it was fetched.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Held {
    /// The name of the slip where it is held.
    pub slip: String,
    /// Who issued it, and sent it in.
    pub by: String,
    /// The day on which it was fetched.
    #[serde(with = "date::day")]
    pub on: Date,
    /// What stands in its boxes there.
    #[serde(default, skip_serializing_if = "Answers::is_empty")]
    pub boxes: Answers,
    /// The lines of its list there.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rows: Vec<Answers>,
    /// Why what was keyed stays, where it differs.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub kept: Option<String>,
}

/// A box as it is held and as it was keyed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Beside {
    /// The box.
    pub field: String,
    /// What is held.
    pub held: Option<Entry>,
    /// What was keyed.
    pub keyed: Option<Entry>,
    /// Whether both say the same; a blank says the same as what it is read as, and what is not held says nothing.
    pub agrees: bool,
    /// The amount held less the amount keyed, where both are amounts and differ.
    pub apart: Option<Money>,
    /// What may have gone wrong in keying.
    pub hint: Option<String>,
}

/// The boxes that are held or hold a keyed amount, in the paper's order; without those whose texts are secrets, which
/// nobody sends. `keyed` is nothing where no such paper was keyed.
pub fn beside(kind: &PaperKind, held: &Answers, keyed: Option<&Answers>) -> Vec<Beside> {
    let empty = Answers::new();
    let keyed = keyed.unwrap_or(&empty);
    let is_amount = |field: &Field| matches!(field.kind, FieldKind::Amount { .. });
    let shown = |field: &&Field| {
        let amount = is_amount(field) && keyed.contains_key(field.id);
        !field.secret && (held.contains_key(field.id) || amount)
    };
    let fields = kind.told_fields();
    let boxes = fields.iter().filter(shown).map(|field| {
        let (there, here) = (held.get(field.id), keyed.get(field.id));
        let agrees = same(field, there, here);
        let amounts = is_amount(field) && !agrees;
        let apart = amounts.then(|| amount(there) - amount(here));
        let hint = amounts.then(|| hint(&fields, field, (held, amount(there)), (keyed, amount(here))));
        Beside {
            field: field.id.into(),
            held: there.cloned(),
            keyed: here.cloned(),
            agrees,
            apart,
            hint: hint.flatten(),
        }
    });
    boxes.collect()
}

fn amount(entry: Option<&Entry>) -> Money {
    entry.and_then(Entry::money).unwrap_or_default()
}

fn same(field: &Field, there: Option<&Entry>, here: Option<&Entry>) -> bool {
    if there.is_none() {
        return true;
    }
    let read = |entry: Option<&Entry>| entry.cloned().or_else(|| field.blank_entry());
    match field.kind {
        FieldKind::Amount { .. } => amount(read(there).as_ref()) == amount(read(here).as_ref()),
        FieldKind::Text { .. } => letters(there) == letters(here),
        _ => read(there) == read(here),
    }
}

/// A text by its letters and digits alone: how a name or number is spaced makes no difference.
fn letters(entry: Option<&Entry>) -> String {
    let text = entry.and_then(Entry::text).unwrap_or_default();
    text.chars().filter(|c| c.is_alphanumeric()).flat_map(char::to_lowercase).collect()
}

/// What may have gone wrong in keying an amount: what all boxes hold, and the amount in this one.
fn hint(
    fields: &[Field],
    field: &Field,
    (held, there): (&Answers, Money),
    (keyed, here): (&Answers, Money),
) -> Option<String> {
    if swapped(there, here) {
        return Some("Two digits changed places.".into());
    }
    if [10, 100, 1000].iter().any(|&by| times(there, by) == Some(here) || times(here, by) == Some(there)) {
        return Some("The decimal point stands elsewhere.".into());
    }
    let name = |other: &Field| if other.number.is_empty() { other.label } else { other.number };
    let mut others = fields.iter().filter(|other| other.id != field.id);
    if here.is_zero() {
        // A box of which nothing is held, filled with this amount.
        let moved = others.find(|other| !held.contains_key(other.id) && amount(keyed.get(other.id)) == there);
        return moved.map(|other| format!("It was keyed in box {}.", name(other)));
    }
    let of_other = others.find(|other| amount(held.get(other.id)) == here);
    of_other.map(|other| format!("That is what box {} holds.", name(other)))
}

fn times(amount: Money, by: i64) -> Option<Money> {
    amount.cents().checked_mul(by).filter(|cents| *cents != 0).map(Money::from_cents)
}

/// Whether two amounts differ by two neighbouring digits in each other's place.
fn swapped(one: Money, other: Money) -> bool {
    let digits = |amount: Money| amount.cents().to_string().into_bytes();
    let (one, other) = (digits(one), digits(other));
    let apart: Vec<usize> = (0..one.len().min(other.len())).filter(|&at| one[at] != other[at]).collect();
    match apart.as_slice() {
        [at, next] => {
            one.len() == other.len()
                && *next == at + 1
                && (one[*at], one[*next]) == (other[*next], other[*at])
        }
        _ => false,
    }
}

/// The paper that a slip of a person makes; its title is who holds it.
pub fn paper_of(kind: &PaperKind, id: &str, person: &str, held: &Held) -> Paper {
    let told = held.boxes.clone().into_iter();
    let (boxes, coded): (Answers, Answers) = told.partition(|(field, _)| kind.field(field).is_some());
    let mut paper = Paper { title: held.by.clone(), boxes, ..Paper::new(id, kind.id, person) };
    for row in &held.rows {
        paper.add_row(None, row.clone());
    }
    for (code, amount) in coded {
        if let Some(codes) = kind.codes() {
            paper.add_row(None, codes.line(&code, amount));
        }
    }
    paper
}

/// The command that puts what is held into a paper that was keyed: into its box, or the line of its code.
pub fn taking(kind: &PaperKind, paper: &Paper, field: &str, held: Option<Entry>) -> Command {
    let (codes, entry) = match (kind.field(field), kind.codes(), held) {
        (None, Some(codes), Some(entry)) => (codes, entry),
        (_, _, value) => return Command::SetBox { paper: paper.id.clone(), field: field.into(), value },
    };
    match codes.line_of(paper, field, &entry) {
        Some((row, entry)) => Command::SetCell {
            paper: paper.id.clone(),
            row: row.id.clone(),
            field: codes.amount.into(),
            value: Some(entry),
        },
        None => Command::AddRow { paper: paper.id.clone(), id: None, row: codes.line(field, entry) },
    }
}

/// The keyed paper that a slip is: the one that it was taken into, else one of its kind and owner that no other slip
/// is, with the payer's number or name (`slip.by`), else one that names nobody. Papers in `others` are another slip's.
pub fn find<'h>(
    slip: &Held,
    kind: &PaperKind,
    owner: &str,
    household: &'h Household,
    others: &BTreeSet<String>,
) -> Option<&'h Paper> {
    let taken = |paper: &&Paper| paper.held.as_ref().is_some_and(|held| held.slip == slip.slip);
    if let Some(paper) = household.papers.iter().find(taken) {
        return Some(paper);
    }
    let open = |paper: &&Paper| {
        paper.kind == kind.id
            && paper.held.is_none()
            && !others.contains(&paper.id)
            && paper.owners.iter().any(|one| one.person == owner)
    };
    let agreeing = |paper: &&Paper| {
        beside(kind, &slip.boxes, Some(&kind.told(paper))).iter().filter(|of| of.agrees).count()
    };
    let same_payer = |paper: &&Paper| same_payer(kind, (&slip.by, &slip.boxes), paper);
    let number = crate::payer::number_box(kind);
    let names_nobody =
        |paper: &&Paper| paper.title.is_empty() && number.is_none_or(|id| !paper.boxes.contains_key(id));
    let of = || household.papers.iter().filter(open);
    of().filter(same_payer).max_by_key(agreeing).or_else(|| of().filter(names_nobody).max_by_key(agreeing))
}

/// Whether a slip with this title and these boxes is of the payer of a paper: by its number, else by its name.
pub(crate) fn same_payer(kind: &PaperKind, (title, boxes): (&str, &Answers), paper: &Paper) -> bool {
    let number = crate::payer::number_box(kind);
    let of = |boxes: &Answers| letters(number.and_then(|id| boxes.get(id)));
    let by_number = !of(boxes).is_empty() && of(boxes) == of(&paper.boxes);
    let name = |text: &str| letters(Some(&Entry::Text(text.into())));
    by_number || (!name(title).is_empty() && name(title) == name(&paper.title))
}

/// A fingerprint of what is held: a refusal holds for this only.
pub fn fingerprint(kind: &str, held: &Held) -> String {
    let facts = match held.rows.as_slice() {
        [] => serde_json::json!([kind, held.by, held.boxes]),
        rows => serde_json::json!([kind, held.by, held.boxes, rows]),
    };
    crate::outcome::fingerprint_of(&facts)
}

const DIFFERS: PointDef =
    PointDef::look("held-differs", "", "Take what is held, or say there why what is keyed is right.");

/// Papers that say otherwise than what is held of them, and nobody said why.
pub(crate) fn points(household: &Household, pack: &dyn Pack) -> Vec<Point> {
    let differs = |paper: &Paper| {
        let held = paper.held.as_ref().filter(|held| held.kept.is_none())?;
        let kind = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind)?;
        let apart: Vec<Beside> = beside(kind, &held.boxes, Some(&kind.told(paper)));
        let apart: Vec<&Beside> = apart.iter().filter(|of| !of.agrees).collect();
        let name = [paper.kind.as_str(), paper.title.as_str()].join(" ");
        let Some(first) = apart.first() else { return line_differs(kind, held, paper, name.trim_end()) };
        let fields = kind.told_fields();
        let field = fields.iter().find(|f| f.id == first.field);
        let field = field.map_or("", |f| if f.number.is_empty() { f.label } else { f.number });
        let more = if apart.len() > 1 { format!(" and {} more", apart.len() - 1) } else { String::new() };
        let message = format!("{}, box {field}{more}: {} holds something else.", name.trim_end(), held.by);
        Some(DIFFERS.at(Place::paper(&paper.id, &first.field), message))
    };
    household.papers.iter().filter_map(differs).collect()
}

/// A line of a paper's list that is held otherwise.
fn line_differs(kind: &PaperKind, held: &Held, paper: &Paper, name: &str) -> Option<Point> {
    let apart = lines(kind, &held.rows, Some(paper)).into_iter().find(|line| !line.agrees)?;
    let field = kind.columns.first()?.id;
    let row = apart.row.and_then(|id| paper.row(&id));
    let place = row.map_or_else(|| Place::paper(&paper.id, field), |row| Place::row(&paper.id, row, field));
    Some(DIFFERS.at(place, format!("{name}: {} holds another line than was keyed.", held.by)))
}

/// A kind of paper that nobody but the family holds, and what there is of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct FromFamily {
    /// The kind.
    pub kind: String,
    /// How many such papers are filled.
    pub papers: usize,
    /// An answer or last year calls for it, and nothing of it is there.
    pub called_for: bool,
}

/// What is never held by an authority and must be asked of the family: what last year or an answer calls for first,
/// then what is there, then the rest of what the year has.
pub fn from_family(household: &Household, pack: &dyn Pack) -> Vec<FromFamily> {
    let held: BTreeSet<&str> = pack.held_kinds().iter().copied().collect();
    let is_yes = |answer: Option<&Entry>| answer.and_then(Entry::flag) == Some(true);
    let of_household = pack.household_questions().iter().filter(|q| is_yes(household.answers.get(q.id)));
    let of_people = pack.person_questions().iter().map(|q| &q.field);
    let of_people = of_people.filter(|q| household.people.iter().any(|p| is_yes(p.answers.get(q.id))));
    let opened: BTreeSet<&str> =
        of_household.chain(of_people).flat_map(|q| q.opens.iter().copied()).collect();
    let kinds = pack.paper_kinds().iter().filter(|k| !held.contains(k.id) && k.years.hold(household.year));
    let mut all: Vec<FromFamily> = kinds
        .map(|kind| {
            let of_kind = || household.papers.iter().filter(|paper| paper.kind == kind.id);
            let filled = |paper: &&Paper| !paper.boxes.is_empty() || !paper.rows.is_empty();
            let papers = of_kind().filter(filled).count();
            let called_for = papers == 0 && (opened.contains(kind.id) || of_kind().count() > 0);
            FromFamily { kind: kind.id.into(), papers, called_for }
        })
        .collect();
    all.sort_by_key(|of| (!of.called_for, of.papers == 0));
    all
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn neighbouring_digits_in_each_others_place_are_seen() {
        let money = |text: &str| text.parse::<Money>().expect("an amount");
        assert!(swapped(money("6911.20"), money("6191.20")));
        assert!(swapped(money("12.34"), money("12.43")));
        assert!(!swapped(money("6911.20"), money("9611.21")));
        assert!(!swapped(money("100"), money("1000")));
        assert!(!swapped(money("5"), money("5")));
        assert!(!swapped(money("321"), money("123")), "they are no neighbours");
    }
}
