//! Edges by date: how near a date of a household is to one with another tax. Ages decide at the end of the year and by months, so that
//! what a day more or less of a date of birth does to the tax of this year is what the passing of time does to that of a later one; a
//! payment, a sale or an arrival falls into this year or another.

use crate::{
    effect::total,
    field::{Field, FieldKind},
    household::{Answers, Entry, Household},
    pack::{Pack, Registry},
    point::Place,
    search::Stop,
};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use time::{Date, Duration};
use utoipa::ToSchema;

/// Which dates are looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Dates {
    /// Of birth.
    Births,
    /// All others: of questions, boxes and lists.
    Others,
}

/// The nearest other date, later or earlier, with another tax.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct DateEdge {
    /// Where the date stands.
    pub place: Place,
    /// What it is: "Ada Moss: Born".
    pub label: String,
    /// The first date with another tax, ISO 8601.
    pub date: String,
    /// So many days later; below zero earlier.
    pub days: i64,
    /// By how much the total changes.
    pub change: Money,
}

/// The edges, and how many dates were left out.
#[derive(Debug, Clone, Default, PartialEq, Eq, Serialize, ToSchema)]
pub struct DateEdges {
    /// What changes the tax most first.
    pub edges: Vec<DateEdge>,
    /// Dates beyond the most that are looked at.
    pub left_out: usize,
}

/// How many dates are looked at, each by some thirty computations.
const MOST: usize = 12;

/// How far is looked, in days, as ages change within a year; and in which steps, as some law goes by months.
const FAR: i64 = 366;
const STEP: i64 = 28;

/// The nearest of every such date in both directions within a year; nothing where it was stopped.
pub fn date_edges(
    household: &Household,
    registry: &Registry,
    dates: Dates,
    stop: &Stop,
) -> Option<DateEdges> {
    let now = total(household, registry, stop)?;
    let mut all = match dates {
        Dates::Births => births(household),
        Dates::Others => others(household, registry.pack(&household.country)?),
    };
    let left_out = all.len().saturating_sub(MOST);
    all.truncate(MOST);
    let mut edges = Vec::new();
    for dated in all {
        let at = |days: i64| {
            let date = dated.date.checked_add(Duration::days(days))?;
            let mut other = household.clone();
            dated.at.set(&mut other, date);
            Some((date, total(&other, registry, stop)?))
        };
        for sign in [1, -1] {
            edges.extend(nearest(|days| at(sign * days), now).map(|(days, date, then)| DateEdge {
                place: dated.place.clone(),
                label: dated.label.clone(),
                date: date.to_string(),
                days: sign * days,
                change: then - now,
            }));
            if stop.is_stopped() {
                return None;
            }
        }
    }
    edges.sort_by_key(|one| (-one.change.cents().abs(), one.days.abs()));
    Some(DateEdges { edges, left_out })
}

/// The fewest days with another tax than now, where a year has another one. A date that cannot be is no edge.
fn nearest(at: impl Fn(i64) -> Option<(Date, Money)>, now: Money) -> Option<(i64, Date, Money)> {
    let differs = |days: i64| at(days).filter(|(_, then)| *then != now);
    let steps = (1..FAR / STEP + 1).map(|n| n * STEP).chain([FAR]);
    let (mut high, mut found) = { steps }.find_map(|days| Some((days, differs(days)?)))?;
    let mut low = (high - STEP).max(0);
    while high - low > 1 {
        let middle = (low + high) / 2;
        match differs(middle) {
            Some(there) => (high, found) = (middle, there),
            None => low = middle,
        }
    }
    Some((high, found.0, found.1))
}

/// A date of a household.
struct Dated {
    place: Place,
    label: String,
    date: Date,
    at: At,
}

/// Where it is written.
enum At {
    Born(usize),
    Died(usize),
    OfHousehold(&'static str),
    OfPerson(usize, &'static str),
    Box(usize, &'static str),
    Cell(usize, usize, &'static str),
}

impl At {
    fn set(&self, household: &mut Household, date: Date) {
        let (answers, field): (&mut Answers, _) = match *self {
            At::Born(person) => return household.people[person].born = Some(date),
            At::Died(person) => return household.people[person].died = Some(date),
            At::OfHousehold(field) => (&mut household.answers, field),
            At::OfPerson(person, field) => (&mut household.people[person].answers, field),
            At::Box(paper, field) => (&mut household.papers[paper].boxes, field),
            At::Cell(paper, row, field) => (&mut household.papers[paper].rows[row].cells, field),
        };
        answers.insert(field.into(), Entry::Text(date.to_string()));
    }
}

fn births(household: &Household) -> Vec<Dated> {
    let people = household.people.iter().enumerate();
    let born = people.filter_map(|(person, of)| {
        let place = Place::person(&of.id, "born");
        Some(Dated { place, label: of.name.clone(), date: of.born?, at: At::Born(person) })
    });
    born.collect()
}

/// Of deaths, questions, boxes and lists, in this order.
fn others(household: &Household, pack: &dyn Pack) -> Vec<Dated> {
    let mut all = Vec::new();
    for (person, of) in household.people.iter().enumerate() {
        let place = Place::person(&of.id, "died");
        let label = format!("{}: died", of.name);
        all.extend(of.died.map(|date| Dated { place, label, date, at: At::Died(person) }));
        let fields = pack.person_questions().iter().map(|question| &question.field);
        all.extend(dated(fields, &of.answers).map(|(field, date)| Dated {
            place: Place::person(&of.id, field.id),
            label: format!("{}: {}", of.name, field.label),
            date,
            at: At::OfPerson(person, field.id),
        }));
    }
    let asked = dated(pack.household_questions().iter(), &household.answers);
    all.extend(asked.map(|(field, date)| Dated {
        place: Place::household(field.id),
        label: field.label.to_owned(),
        date,
        at: At::OfHousehold(field.id),
    }));
    for (number, paper) in household.papers.iter().enumerate() {
        let Some(kind) = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind) else { continue };
        let name = [paper.kind.as_str(), paper.title.as_str()].join(" ");
        all.extend(dated(kind.boxes.iter(), &paper.boxes).map(|(field, date)| Dated {
            place: Place::paper(&paper.id, field.id),
            label: format!("{}: {}", name.trim_end(), field.label),
            date,
            at: At::Box(number, field.id),
        }));
        for (place, row) in paper.rows.iter().enumerate() {
            all.extend(dated(kind.columns.iter(), row).map(|(field, date)| Dated {
                place: Place::row(&paper.id, row, field.id),
                label: format!("{}, line {}: {}", name.trim_end(), place + 1, field.label),
                date,
                at: At::Cell(number, place, field.id),
            }));
        }
    }
    all
}

/// The dates among these entries.
fn dated<'f>(
    fields: impl Iterator<Item = &'f Field>,
    entries: &Answers,
) -> impl Iterator<Item = (&'f Field, Date)> {
    fields
        .filter(|field| matches!(field.kind, FieldKind::Date))
        .filter_map(|field| Some((field, entries.get(field.id).and_then(Entry::date)?)))
}
