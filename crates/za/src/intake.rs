//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    bringing::Bringing,
    certificates,
    facts::{Facts, PersonFacts},
    figures::Figures,
    law, medical, people,
};
use hembo_core::{
    Household, Person,
    household::{Entry, Role},
    outcome::age_on,
    reading::Reading,
};
use std::{collections::HashSet, sync::Arc};
use time::{Date, Month};

/// The first and the last day of a year of assessment: 1 March to the last day of February.
pub fn span(year: i32) -> [Date; 2] {
    let march = |year| Date::from_calendar_date(year, Month::March, 1).unwrap_or(Date::MAX);
    [march(year - 1), march(year).previous_day().unwrap_or(Date::MAX)]
}

/// Reads a checked household.
pub fn read(household: &Household, figures: &Arc<Figures>) -> Facts {
    let span = span(figures.year);
    let filers: Vec<usize> = household.filers().map(|(place, _)| place).collect();
    let marriage = household.answers.get(people::ask::MARRIAGE).and_then(Entry::text);
    let mut facts = Facts {
        figures: Arc::clone(figures),
        year_begin: span[0],
        year_end: span[1],
        people: household.people.iter().map(|person| person_facts(household, person, span)).collect(),
        in_community: marriage == Some("community") && filers.len() == 2,
        filers,
        returns: Vec::new(),
    };
    for paper in Reading::all(household) {
        law::read(&mut Bringing { paper, facts: &mut facts });
    }
    let owners: HashSet<usize> = household
        .papers
        .iter()
        .flat_map(|paper| &paper.owners)
        .filter_map(|owner| household.index_of(&owner.person))
        .collect();
    let own =
        (0..facts.people.len()).filter(|person| !facts.filers.contains(person) && owners.contains(person));
    facts.returns = facts.filers.iter().copied().chain(own).collect();
    facts
}

fn person_facts(household: &Household, person: &Person, [_, end]: [Date; 2]) -> PersonFacts {
    let theirs = |owner: &hembo_core::household::Share| owner.person == person.id;
    let mostly_business = household
        .papers
        .iter()
        .any(|paper| certificates::mostly_business(paper) && paper.owners.iter().any(theirs));
    PersonFacts {
        name: person.name.clone(),
        id: person.id.clone(),
        filer: person.role == Role::Filer,
        born: person.born,
        died: person.died.is_some_and(|died| died <= end),
        // Who died is of the age of the year's end (s6(2)).
        age: person.born.map(|born| age_on(born, end)),
        disability: person.answers.get(medical::ask::DISABILITY).and_then(Entry::flag).unwrap_or(false),
        mostly_business,
        ..PersonFacts::default()
    }
}
