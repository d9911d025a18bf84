//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    bringing::Bringing,
    children,
    facts::{Facts, PersonFacts},
    families,
    figures::Figures,
    law, residence, student_loan, tax,
};
use hembo_core::{
    Household, Person,
    household::{Entry, Role},
    reading::Reading,
    settled,
};
use std::{collections::HashSet, sync::Arc};
use time::{Date, Month};

/// The first and the last day of an income year: 1 April to 31 March.
pub fn span(year: i32) -> [Date; 2] {
    let day = |year, month, day| Date::from_calendar_date(year, month, day).unwrap_or(Date::MAX);
    [day(year - 1, Month::April, 1), day(year, Month::March, 31)]
}

/// Reads a checked household.
pub fn read(household: &Household, figures: &Arc<Figures>) -> Facts {
    let span = span(figures.year);
    let filers: Vec<usize> = household.filers().map(|(place, _)| place).collect();
    let answer = |id: &str| household.answers.get(id);
    let mut facts = Facts {
        figures: Arc::clone(figures),
        year_begin: span[0],
        year_end: span[1],
        people: household
            .people
            .iter()
            .map(|person| person_facts(household, person, span, figures))
            .collect(),
        filers: filers.clone(),
        returns: Vec::new(),
        children: children::read(household, figures, span),
        work_weeks: answer(families::ask::WORK_WEEKS)
            .and_then(Entry::count)
            .unwrap_or(figures.families.weeks),
        counts_family: answer(families::ask::COUNTED).and_then(Entry::flag).unwrap_or(true),
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
    let own = (0..facts.people.len()).filter(|person| !filers.contains(person) && owners.contains(person));
    facts.returns = filers.iter().copied().chain(own).collect();
    facts
}

fn person_facts(household: &Household, person: &Person, span: [Date; 2], figures: &Figures) -> PersonFacts {
    let answer = |id: &str| person.answers.get(id);
    let benefit_months = answer(tax::ask::BENEFIT_MONTHS).and_then(Entry::count).unwrap_or(0);
    let filer = person.role == Role::Filer;
    let months = residence::months(household, person, span) - benefit_months;
    let part_of_year = household.answers.get(residence::ask::RESIDENCE).and_then(Entry::text) == Some("part");
    PersonFacts {
        name: person.name.clone(),
        id: person.id.clone(),
        filer,
        born: person.born,
        earner_months: if filer { settled::greater(months, 0) } else { 0 },
        transitional: residence::is_transitional(person, span[1], figures.transitional.months),
        student_loan: answer(student_loan::ask::LOAN).and_then(Entry::flag).unwrap_or(false),
        family_adjustments: answer(families::ask::ADJUSTMENTS).and_then(Entry::money).unwrap_or_default(),
        needs_return: part_of_year,
        ..PersonFacts::default()
    }
}
