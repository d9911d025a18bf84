//! The answers and the months of health cover as facts.

use super::{affordability, asked::ask, cover_months, residence};
use crate::{
    figures::Figures,
    state_facts::{OfPerson, Residence, StateFacts},
};
use hembo_core::{Household, Person, household::Entry};

/// What a household answers for this return, where it is prepared.
pub fn read(household: &Household, figures: &Figures) -> Option<StateFacts> {
    let answer = |id: &str| household.answers.get(id);
    let flag = |id: &str| answer(id).and_then(Entry::flag);
    if flag(ask::PREPARED) != Some(true) || figures.california_rates.is_none() {
        return None;
    }
    let part_year = flag(ask::ALL_YEAR) == Some(false);
    let people: Vec<_> = household.people.iter().map(|of| person(of, part_year, household.year)).collect();
    Some(StateFacts {
        homeowner: flag(ask::HOMEOWNER) == Some(true),
        spouse_itemizes: flag(ask::SPOUSE_ITEMIZES),
        covered: flag(ask::COVERED),
        cover: cover_months::read(household, &people),
        people,
        offers: affordability::read(household),
        part_year,
        use_tax: answer(ask::USE_TAX).and_then(Entry::money),
    })
}

fn person(person: &Person, part_year: bool, year: i32) -> OfPerson {
    let said = |id: &str| person.answers.get(id).and_then(Entry::flag);
    let flag = |id: &str| said(id) == Some(true);
    OfPerson {
        rented: said(ask::RENTED),
        renter_barred: flag(ask::RENTER_BARRED),
        foster_youth: flag(ask::FOSTER),
        senior_head: flag(ask::SENIOR_HEAD),
        joint_custody: flag(ask::CUSTODY),
        dependent_parent: flag(ask::PARENT),
        lacks_number: flag(ask::NO_NUMBER),
        residence: if part_year { residence::of(person, year) } else { Residence::default() },
    }
}
