//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    bringing::Bringing,
    facts::{Child, Disability, Facts, PersonFacts},
    figures::Figures,
    law,
    people::{ask, mark},
};
use hembo_core::{
    Household, Person,
    household::{Entry, Role},
    reading::Reading,
};
use std::sync::Arc;

/// Reads a checked household.
pub fn read(household: &Household, figures: &Arc<Figures>) -> Facts {
    let answer = |id: &str| household.answers.get(id);
    let flag = |id: &str| answer(id).and_then(Entry::flag).unwrap_or(false);
    let marital = answer(ask::MARITAL).and_then(Entry::text);
    let children = household.people.iter().enumerate().filter(|(_, person)| is_child(person));
    let mut facts = Facts {
        figures: Arc::clone(figures),
        people: household.people.iter().map(person_facts).collect(),
        filers: household.filers().map(|(place, _)| place).collect(),
        children: children.map(|(place, person)| child(place, person, figures.year)).collect(),
        married: matches!(marital, Some("married" | "apart")),
        apart: marital == Some("apart"),
        widowed: marital == Some("widowed"),
        with_adult: flag(ask::WITH_ADULT),
        special_fee: flag(ask::SPECIAL_FEE),
        land: answer(ask::LAND).and_then(Entry::text).unwrap_or_default().to_owned(),
        land_before: land_before(household),
    };
    for paper in Reading::all(household) {
        law::read(&mut Bringing { paper, facts: &mut facts });
    }
    facts
}

fn land_before(household: &Household) -> Option<(String, i64)> {
    let land = household.answers.get(ask::LAND_BEFORE).and_then(Entry::text)?;
    let months = household.answers.get(ask::MONTHS_BEFORE).and_then(Entry::count)?;
    Some((land.to_owned(), months))
}

fn is_child(person: &Person) -> bool {
    let relationship = person.answers.get(ask::RELATIONSHIP).and_then(Entry::text);
    person.role == Role::Dependent && relationship != Some("other")
}

fn person_facts(person: &Person) -> PersonFacts {
    let flag = |id: &str| person.answers.get(id).and_then(Entry::flag).unwrap_or(false);
    PersonFacts {
        name: person.name.clone(),
        id: person.id.clone(),
        filer: person.role == Role::Filer,
        born: person.born,
        church_months: if flag(ask::CHURCH) { count(person, ask::CHURCH_MONTHS).unwrap_or(12) } else { 0 },
        disability: disability(person),
        survivor: flag(ask::SURVIVOR),
        servant: flag(ask::SERVANT),
        health_alone: flag(ask::HEALTH_ALONE),
        ..PersonFacts::default()
    }
}

fn count(person: &Person, id: &str) -> Option<i64> {
    person.answers.get(id).and_then(Entry::count)
}

fn disability(person: &Person) -> Disability {
    Disability {
        degree: count(person, ask::DEGREE).unwrap_or(0),
        mark: mark(person.answers.get(ask::MARK).and_then(Entry::text)),
        care_grade: count(person, ask::CARE_GRADE).unwrap_or(0),
    }
}

fn child(place: usize, person: &Person, year: i32) -> Child {
    // In the year of birth from the month of birth on.
    let whole = match person.born {
        Some(born) if born.year() == year => 13 - i64::from(u8::from(born.month())),
        Some(born) if born.year() > year => 0,
        _ => 12,
    };
    let months = count(person, ask::MONTHS).unwrap_or(whole);
    let half = person.answers.get(ask::HALF).and_then(Entry::flag).unwrap_or(false);
    let text = |id: &str| person.answers.get(id).and_then(Entry::text);
    Child {
        person: place,
        born: person.born,
        months,
        benefit_months: count(person, ask::BENEFIT_MONTHS).unwrap_or(months),
        half,
        lump_percent: count(person, ask::LUMP_PERCENT).unwrap_or(if half { 50 } else { 100 }),
        quarters: text(ask::GROUP).and_then(|group| group.parse().ok()).unwrap_or(4),
        household_months: count(person, ask::HOUSEHOLD_MONTHS).unwrap_or(0),
        away_months: count(person, ask::AWAY_MONTHS).unwrap_or(0),
        disability: disability(person),
    }
}
