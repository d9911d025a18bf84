//! Papers become facts once: the household's loose papers as typed amounts, each with its box.

use crate::{
    bringing::{Bringing, per_cent},
    facts::{Child, Disability, Facts, PersonFacts},
    figures::Figures,
    law,
    people::{ask, mark},
};
use hembo_core::{
    Household, Person,
    household::{Entry, Role},
    reading::Reading,
    settled,
};
use hembo_money::Rate;
use std::sync::Arc;

/// Reads a checked household.
pub fn read(household: &Household, figures: &Arc<Figures>) -> Facts {
    let answer = |id: &str| household.answers.get(id);
    let flag = |id: &str| answer(id).and_then(Entry::flag).unwrap_or(false);
    let marital = answer(ask::MARITAL).and_then(Entry::text);
    let children = household.people.iter().enumerate().filter(|(_, person)| is_child(person));
    let mut facts = Facts {
        figures: Arc::clone(figures),
        people: household
            .people
            .iter()
            .map(|person| person_facts(person, months_before(household)))
            .collect(),
        filers: household.filers().map(|(place, _)| place).collect(),
        children: children.map(|(place, person)| child(household, place, person, figures)).collect(),
        repairs: Vec::new(),
        married: matches!(marital, Some("married" | "apart")),
        apart: marital == Some("apart"),
        widowed: marital == Some("widowed"),
        with_adult: flag(ask::WITH_ADULT),
        special_fee: flag(ask::SPECIAL_FEE),
        church_cap: answer(ask::CHURCH_CAP)
            .and_then(Entry::decimal)
            .map(per_cent)
            .filter(|cap| *cap != Rate::ZERO),
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
    Some((land.to_owned(), household.answers.get(ask::MONTHS_BEFORE).and_then(Entry::count)?))
}

/// For how many months there was another Land.
fn months_before(household: &Household) -> i64 {
    land_before(household).map_or(0, |(_, months)| months)
}

fn is_child(person: &Person) -> bool {
    let relationship = person.answers.get(ask::RELATIONSHIP).and_then(Entry::text);
    person.role == Role::Dependent && relationship != Some("other")
}

/// A person's answers; `before` are the months in the Land before a move.
fn person_facts(person: &Person, before: i64) -> PersonFacts {
    let flag = |id: &str| person.answers.get(id).and_then(Entry::flag).unwrap_or(false);
    let church = if flag(ask::CHURCH) { count(person, ask::CHURCH_MONTHS).unwrap_or(12) } else { 0 };
    let last = person.answers.get(ask::CHURCH_PART).and_then(Entry::text) == Some("last");
    let outside = if last { 12 - church } else { 0 };
    PersonFacts {
        name: person.name.clone(),
        id: person.id.clone(),
        filer: person.role == Role::Filer,
        born: person.born,
        church_months: church,
        church_months_before: settled::lesser(settled::greater(before - outside, 0), church),
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

fn child(household: &Household, place: usize, person: &Person, figures: &Figures) -> Child {
    let year = figures.year;
    // In the year of birth from the month of birth on.
    let whole = match person.born {
        Some(born) if born.year() == year => 13 - i64::from(u8::from(born.month())),
        Some(born) if born.year() > year => 0,
        _ => 12,
    };
    let months = count(person, ask::MONTHS).unwrap_or(whole);
    let flag = |id: &str| person.answers.get(id).and_then(Entry::flag).unwrap_or(false);
    let half = flag(ask::HALF);
    let text = |id: &str| person.answers.get(id).and_then(Entry::text);
    Child {
        person: place,
        born: person.born,
        months,
        benefit_months: count(person, ask::BENEFIT_MONTHS).unwrap_or(months),
        half,
        parent: text(ask::PARENT).filter(|_| half).and_then(|id| household.index_of(id)),
        unsupported: half && flag(ask::UNSUPPORTED),
        registered: half
            && flag(ask::REGISTERED)
            && !figures.children.is_of_age_in(figures.year, person.born),
        lump_percent: count(person, ask::LUMP_PERCENT).unwrap_or(if half { 50 } else { 100 }),
        quarters: text(ask::GROUP).and_then(|group| group.parse().ok()).unwrap_or(4),
        household_months: count(person, ask::HOUSEHOLD_MONTHS).unwrap_or(0),
        away_months: count(person, ask::AWAY_MONTHS).unwrap_or(0),
        disability: disability(person),
    }
}
