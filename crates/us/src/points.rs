//! Open points in the making: what the checks of every provision look at, and where they put what they find.

use crate::{facts::Facts, unit::Unit};
use hembo_core::{
    Household, Paper, Point, Recorder, Scope,
    household::Entry,
    line::LineId,
    point::{Gather, Place},
};
use hembo_money::Money;

/// The open points of a household in the chosen way.
#[derive(Debug)]
pub struct Points<'a> {
    /// The household's facts.
    pub facts: &'a Facts,
    /// The household as it was entered.
    pub household: &'a Household,
    /// The returns of the way.
    pub units: &'a [Unit],
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

    /// Whose paper it is, of several owners the first.
    pub fn owner(&self, paper: &Paper) -> Option<usize> {
        paper.owners.first().and_then(|owner| self.household.index_of(&owner.person))
    }

    /// Whether a paper is of one of some people.
    pub fn is_of(&self, paper: &Paper, people: &[usize]) -> bool {
        let mut owners = paper.owners.iter().filter_map(|owner| self.household.index_of(&owner.person));
        owners.any(|owner| people.contains(&owner))
    }

    /// A line of a return; zero where it has none.
    pub fn amount(&self, line: LineId, place: usize) -> Money {
        self.trail.amount(line, Scope::Return(place)).unwrap_or_default()
    }

    /// A line of every federal return.
    pub fn amounts<'s>(&'s self, line: LineId) -> impl Iterator<Item = (usize, Money)> + 's {
        let of = move |r| Some((r, self.trail.amount(line, Scope::Return(r))?));
        (0..self.units.len()).filter(|&r| !self.units[r].of_state.alone).filter_map(of)
    }

    /// A place at a person.
    pub fn at(&self, person: usize, field: &str) -> Place {
        Place::person(&self.facts.people[person].id, field)
    }

    /// The person of a return as a whole.
    pub fn whose(&self, unit: &Unit) -> Place {
        let person = &self.facts.people[unit.people[0]];
        Place { person: Some(person.id.clone()), ..Place::default() }
    }
}
