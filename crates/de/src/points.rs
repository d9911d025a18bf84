//! Open points in the making: what the checks of every provision look at, and where they put what they find.

use crate::facts::Facts;
use hembo_core::{Household, Paper, Point, Recorder, Scope, household::Entry, line::LineId, point::Gather};
use hembo_money::Money;

/// The open points of a household in the chosen way.
#[derive(Debug)]
pub struct Points<'a> {
    /// The household's facts.
    pub facts: &'a Facts,
    /// The household as it was entered.
    pub household: &'a Household,
    /// How many assessments the way has.
    pub returns: usize,
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

    /// The papers of a kind.
    pub fn papers(&self, kind: &'static str) -> impl Iterator<Item = &'a Paper> + use<'a> {
        self.household.papers.iter().filter(move |paper| paper.kind == kind)
    }

    /// A line of a return; zero where it has none.
    pub fn amount(&self, line: LineId, place: usize) -> Money {
        self.trail.amount(line, Scope::Return(place)).unwrap_or_default()
    }
}
