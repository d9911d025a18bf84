//! The household's loose papers as typed amounts, each with its box.

use crate::figures::Figures;
use hembo_core::{brought::Records, words::first_name};
use std::sync::Arc;
use time::Date;

/// Everything the rules ask about a household.
#[derive(Debug)]
pub struct Facts {
    /// The year's figures.
    pub figures: Arc<Figures>,
    /// The first day of the year: 1 March.
    pub year_begin: Date,
    /// The last day of the year, in February.
    pub year_end: Date,
    /// The people, in the household's order.
    pub people: Vec<PersonFacts>,
    /// The filers, by place.
    pub filers: Vec<usize>,
    /// Those who have a return, in the order of the columns: the filers, then others with papers of their own.
    pub returns: Vec<usize>,
    /// The two filers are married in community of property.
    pub in_community: bool,
}

/// One person's facts.
#[derive(Debug, Default)]
#[allow(missing_docs)]
pub struct PersonFacts {
    pub name: String,
    pub id: String,
    pub filer: bool,
    pub born: Option<Date>,
    pub died: bool,
    /// Age on the last day of the year; none where the birth date is not known.
    pub age: Option<i32>,
    /// The person, a spouse or a child has a confirmed disability.
    pub disability: bool,
    /// At least 80 % of travel for work.
    pub mostly_business: bool,
    /// What papers bring to this person.
    pub own: Records,
}

impl Facts {
    /// The other of the two filers.
    pub fn partner(&self, person: usize) -> Option<usize> {
        let other = |&p: &usize| p != person;
        self.filers.iter().copied().find(other).filter(|_| self.filers.contains(&person))
    }

    /// The first of a person's names.
    pub fn first_name(&self, person: usize) -> &str {
        first_name(&self.people[person].name)
    }

    /// Whether someone has reached an age on the last day of the year.
    pub fn reached(&self, person: usize, age: i32) -> bool {
        self.people[person].age.is_some_and(|reached| reached >= age)
    }
}
