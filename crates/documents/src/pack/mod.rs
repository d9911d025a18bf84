//! The pack of a return: its parts, which may be chosen and ordered, made from the outcome.

mod carried;
mod certificate;
mod dates;
mod forms;
mod limits;
mod notes;
mod papers;
mod points;
mod slips;
mod summary;
mod ways;

use crate::letter::Letter;
use crate::{
    Sheet,
    document::{Block, Document, Part as Chapter, Picture},
};
use hembo_core::{
    Household, Outcome, Pack,
    certificate::Certificate,
    outcome::NamedWay,
    pack::Page,
    point::{Point, Weight},
};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A part of the pack.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[schema(as = PackPart)]
pub enum Part {
    /// The letter to the family, as it was edited.
    Letter,
    /// For the family, in plain words.
    Summary,
    /// The official forms that are filed.
    Forms,
    /// Worksheets: kept, not filed.
    Worksheets,
    /// The ways that were weighed, and what each choice is worth.
    Ways,
    /// What was weighed and why nothing is lower, with a digest that can be checked again.
    Certificate,
    /// What limits took.
    Limits,
    /// The list of papers.
    Papers,
    /// The slips that were added to papers as files.
    Slips,
    /// What is carried over into the next year.
    Carried,
    /// What is due when, with the instalments of the next year.
    Dates,
    /// Open points, and what was put aside with which reason.
    Points,
    /// Notes of the practice: internal, and in a pack only where somebody chooses them.
    Notes,
}

impl Part {
    /// All of them, in their usual order.
    pub const ALL: [Part; 13] = [
        Part::Letter,
        Part::Summary,
        Part::Forms,
        Part::Ways,
        Part::Certificate,
        Part::Limits,
        Part::Papers,
        Part::Slips,
        Part::Carried,
        Part::Dates,
        Part::Worksheets,
        Part::Points,
        Part::Notes,
    ];

    /// The part of a name: `summary`, `forms`.
    pub fn named(name: &str) -> Option<Part> {
        Part::ALL.into_iter().find(|part| part.name() == name)
    }

    /// Its name, as it is stored and typed.
    pub fn name(self) -> &'static str {
        match self {
            Part::Letter => "letter",
            Part::Summary => "summary",
            Part::Forms => "forms",
            Part::Worksheets => "worksheets",
            Part::Ways => "ways",
            Part::Certificate => "certificate",
            Part::Limits => "limits",
            Part::Papers => "papers",
            Part::Slips => "slips",
            Part::Carried => "carried",
            Part::Dates => "dates",
            Part::Points => "points",
            Part::Notes => "notes",
        }
    }

    /// Its title.
    pub fn title(self) -> &'static str {
        match self {
            Part::Letter => "Letter",
            Part::Summary => "Summary for the family",
            Part::Forms => "Forms and schedules",
            Part::Worksheets => "Worksheets",
            Part::Ways => "Ways weighed",
            Part::Certificate => "Certificate",
            Part::Limits => "What limits took",
            Part::Papers => "Papers",
            Part::Slips => "Slips as files",
            Part::Carried => "Carried to next year",
            Part::Dates => "Days and instalments",
            Part::Points => "Open points",
            Part::Notes => "Notes",
        }
    }
}

/// What a pack is made from.
#[derive(Clone, Copy)]
pub struct Source<'a> {
    /// The household, its secrets hidden but for the last digits.
    pub household: &'a Household,
    /// What comes out, with its forms.
    pub outcome: &'a Outcome,
    /// The rules.
    pub rules: &'a dyn Pack,
    /// The practice's name.
    pub practice: &'a str,
    /// The revision; none of a file.
    pub revision: Option<i64>,
    /// The day on which it is made, as people read it; may be empty.
    pub made: &'a str,
    /// The notes of the practice, the oldest first.
    pub notes: &'a [Note],
    /// The letter to the family, where one was written.
    pub letter: Option<&'a Letter>,
    /// The pages of the slips that were added to papers as files; read only where they are wanted.
    pub slips: &'a [Picture],
    /// The kinds of papers that the family was asked for, by their codes.
    pub asked: &'a [String],
    /// The certificate of the result.
    pub certificate: &'a Certificate,
}

/// A note of the practice.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Note {
    /// What it stands on.
    pub about: String,
    /// What it says.
    pub words: String,
    /// Who wrote it and when.
    pub by: String,
    /// It is settled.
    pub settled: bool,
}

impl Source<'_> {
    /// Country, and the part of it.
    pub(crate) fn law(&self) -> String {
        let parts = [self.rules.about().name, &self.outcome.locality];
        parts.into_iter().filter(|text| !text.is_empty()).collect::<Vec<_>>().join(" · ")
    }

    /// The results that moved against last year, and by how much in words.
    pub(crate) fn changes(&self) -> Vec<(String, Money)> {
        let Some(before) = &self.household.before else { return Vec::new() };
        let results = self.outcome.spread.iter().flat_map(|section| &section.rows).filter(|row| row.result);
        let moved = results.filter_map(|row| {
            let (now, was) = (row.together.as_ref()?.amount, *before.results.get(&row.label)?);
            let by = now - was;
            (!by.is_zero()).then(|| (row.label.clone(), by))
        });
        moved.collect()
    }

    /// An amount with the mark of its currency: "$ 1,234", "−$ 12.50"; the two stay on one line.
    pub(crate) fn money(&self, amount: Money) -> String {
        let sign = if amount.is_negative() { "−" } else { "" };
        let about = self.rules.about();
        format!("{sign}{}\u{a0}{}", about.symbol, about.numbers.amount(size(amount)))
    }

    /// An amount where there is one, as [`Source::plain`] writes it.
    fn any(&self, amount: Option<Money>) -> String {
        amount.map_or_else(String::new, |amount| self.plain(amount))
    }

    /// An amount without the mark of its currency; what takes off carries a minus sign.
    fn plain(&self, amount: Money) -> String {
        let sign = if amount.is_negative() { "−" } else { "" };
        format!("{sign}{}", self.rules.about().numbers.amount(size(amount)))
    }

    /// The lowest ways; those that differ only in what moves no tax are one.
    fn ways(&self) -> Vec<&NamedWay> {
        let mut ways: Vec<&NamedWay> = self.outcome.ways.iter().collect();
        ways.dedup_by_key(|way| (way.total, &way.but));
        ways
    }

    /// Open points of a weight.
    fn open(&self, weight: Weight) -> impl Iterator<Item = &Point> {
        self.outcome.points.iter().filter(move |p| p.weight == weight && p.dismissed.is_none())
    }

    /// Why the figures are not the last word.
    pub(crate) fn unsettled(&self) -> Option<String> {
        let blocking = self.open(Weight::Blocks).count();
        if !self.outcome.covered {
            return Some("The figures are not a result".into());
        }
        if self.outcome.planning {
            return Some(format!("For planning: {} is not over", self.outcome.year));
        }
        let words = if blocking == 1 { "open point blocks" } else { "open points block" };
        (blocking > 0).then(|| format!("Not final: {blocking} {words}"))
    }
}

/// An amount without its sign.
pub(crate) fn size(amount: Money) -> Money {
    amount.max(-amount)
}

/// The pack with these parts in this order. A part without anything to say says so; a letter that was not written is left
/// out.
pub fn document(of: Source<'_>, parts: &[Part]) -> Document {
    let Source { household, outcome, rules, practice, revision, made, .. } = of;
    let law = of.law();
    let people: Vec<&str> = household.people.iter().map(|person| person.name.as_str()).collect();
    let number = Some(&household.reference).filter(|text| !text.is_empty());
    let mut about = vec![format!("{} household", household.name), people.join(", "), law];
    about.extend(number.map(|number| format!("Our number: {number}")));
    let from = revision.map_or_else(|| "a file".to_owned(), |revision| format!("revision {revision}"));
    let on = if made.is_empty() { String::new() } else { format!("on {made} ") };
    about.push(format!("Made {on}from {from}"));
    about.extend(of.unsettled());
    Document {
        title: format!("{} return", outcome.year),
        author: practice.into(),
        about,
        foot: format!("{} household · {} · from {from}", household.name, outcome.year),
        watermark: of.unsettled(),
        sheet: sheet(rules),
        language: "en",
        contents: true,
        parts: parts.iter().filter(|part| is_there(of, **part)).map(|part| chapter(of, *part)).collect(),
    }
}

fn is_there(of: Source<'_>, part: Part) -> bool {
    part != Part::Letter || of.letter.is_some()
}

/// The pages that offices of a country print on.
pub fn sheet(rules: &dyn Pack) -> Sheet {
    match rules.about().page {
        Page::Letter => Sheet::Letter,
        Page::A4 => Sheet::A4,
    }
}

/// What stands in a part.
pub fn chapter(of: Source<'_>, part: Part) -> Chapter {
    let blocks = match part {
        Part::Letter => match of.letter {
            Some(letter) => letter.blocks(),
            None => vec![Block::text("No letter was written.")],
        },
        Part::Summary => summary::blocks(of),
        Part::Forms => forms::blocks(of, false),
        Part::Worksheets => forms::blocks(of, true),
        Part::Ways => ways::blocks(of),
        Part::Certificate => certificate::blocks(of),
        Part::Limits => limits::blocks(of),
        Part::Papers => papers::blocks(of),
        Part::Slips => slips::blocks(of),
        Part::Carried => carried::blocks(of),
        Part::Dates => dates::blocks(of),
        Part::Points => points::blocks(of),
        Part::Notes => notes::blocks(of),
    };
    Chapter { title: part.title().into(), blocks }
}
