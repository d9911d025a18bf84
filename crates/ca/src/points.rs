//! Open points in the making: what the checks of every provision look at, and where they put what they find.

use crate::{credits, facts::Facts};
use hembo_core::{
    Household, Paper, Point, Recorder, Scope,
    household::{Answers, Entry},
    line::LineId,
    open_points,
    point::{Gather, Place, PointDef},
    provision::Provision,
};
use hembo_money::Money;

/// What several papers may find.
pub static PROVISION: Provision = Provision { points: POINTS, ..Provision::NONE };

open_points! {
    BOX_NOT_COMPUTED = not_covered "not-covered-box", "Guides RC4120, RC4157, T4015";
    UNDATED = blocks "date-missing", "ITA 249", "Enter the day it was paid.";
    TOTAL_MISSING = blocks "total-missing", "Guides RC4120, RC4157, T4015", "Enter it from the slip.";
}

/// The open points of a household in the chosen way.
#[derive(Debug)]
pub struct Points<'a> {
    /// The household's facts.
    pub facts: &'a Facts,
    /// The household as it was entered.
    pub household: &'a Household,
    /// The trail of the way.
    pub trail: &'a Recorder,
    /// What was found so far.
    pub found: Vec<Point>,
}

impl Gather for Points<'_> {
    fn found(&mut self) -> &mut Vec<Point> {
        &mut self.found
    }
}

impl<'a> Points<'a> {
    /// What was answered about the household.
    pub fn answered(&self, field: &str) -> Option<&'a Entry> {
        self.household.answers.get(field)
    }

    /// Whether a question about a person was answered.
    pub fn said(&self, person: usize, field: &str) -> bool {
        self.household.people[person].answers.contains_key(field)
    }

    /// The papers of a kind.
    pub fn papers(&self, kind: &'static str) -> impl Iterator<Item = &'a Paper> + use<'a> {
        self.household.papers.iter().filter(move |paper| paper.kind == kind)
    }

    /// The first owner of a paper.
    pub fn owner(&self, paper: &Paper) -> Option<usize> {
        paper.owners.first().and_then(|o| self.household.index_of(&o.person))
    }

    /// A place at a person.
    pub fn at(&self, person: usize, field: &str) -> Place {
        Place::person(&self.facts.people[person].id, field)
    }

    /// A line of a return; zero where it has none.
    pub fn amount(&self, line: LineId, place: usize) -> Money {
        self.trail.amount(line, Scope::Return(place)).unwrap_or_default()
    }

    /// Whether a return has more credits than tax, so that some are lost.
    pub fn credits_lost(&self, place: usize) -> bool {
        self.amount(credits::CREDIT, place) > self.amount(credits::TAX, place)
    }

    /// Boxes of which the law makes something that is not computed yet.
    pub fn boxes_not_computed(&mut self, paper: &Paper, fields: &[&str]) {
        for field in fields.iter().filter(|f| !paper.amount(f).is_zero()) {
            let message = format!("Box {field} of a {} is not computed yet.", paper.kind);
            self.raise(&BOX_NOT_COMPUTED, Place::paper(&paper.id, field), message);
        }
    }

    /// Days of a list that are missing or do not fit.
    pub fn dates(
        &mut self,
        paper: &Paper,
        def: &PointDef,
        what: &str,
        fits: impl Fn(&Facts, &Answers, time::Date) -> bool,
    ) {
        for cells in &paper.rows {
            let place = Place::row(&paper.id, cells, "date");
            match cells.get("date").and_then(Entry::date) {
                None => self.raise(&UNDATED, place, "A line without its day."),
                Some(date) if !fits(self.facts, cells, date) => {
                    let message = format!("{date} is {what}; the line is left out.");
                    self.raise(def, place, message);
                }
                Some(_) => {}
            }
        }
    }

    /// The box that counts is empty while those that make it up are not.
    pub fn total_missing(&mut self, paper: &Paper, total: &str, parts: &[&str]) {
        let sum: Money = parts.iter().map(|field| paper.amount(field)).sum();
        if !paper.boxes.contains_key(total) && !sum.is_zero() {
            let message = format!("Box {total} is what counts, and it is empty.");
            self.suggest(&TOTAL_MISSING, Place::paper(&paper.id, total), message, sum);
        }
    }
}
