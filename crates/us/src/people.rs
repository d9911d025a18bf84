//! Who is in the household: births, deaths, numbers, who is a resident.

use crate::{facts::Relationship, id_number, points::Points};
use hembo_core::{
    Person,
    check::digits,
    field::Field,
    household::Entry,
    open_points,
    pack::{ANYONE, FILER, Question},
    point::Gather,
    provision::Provision,
};

/// What is asked about everyone.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: FILER,
            from_age: 0,
            field: Field::text(ask::OCCUPATION, "", "Occupation", 60)
                .lasts()
                .help("Stands beside the signature."),
        },
        Question {
            of: ANYONE,
            from_age: 0,
            field: Field::text(ask::PROTECTION_PIN, "", "Identity protection PIN", 6)
                .help("Six digits, new each year, where the IRS gave one.")
                .secret(),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::text(ask::LICENCE, "", "Driver's licence or state ID", 40)
                .lasts()
                .help("Number and state, or: not given.")
                .secret(),
        },
        Question {
            of: ANYONE,
            from_age: 0,
            field: Field::yes_no(ask::WORK_SSN, "", "Number valid for work")
                .lasts()
                .help("A social security number issued in time and valid for employment."),
        },
    ],
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const OCCUPATION: &str = "occupation";
    pub const PROTECTION_PIN: &str = "protection_pin";
    pub const LICENCE: &str = "licence";
    pub const WORK_SSN: &str = "work_ssn";
}

open_points! {
    BORN = blocks "K-004", "IRC §§24(c), 32(c), 63(f)",
        "Enter it.";
    NO_NUMBER = blocks "K-001", "IRC §6109",
        "Enter the number as on the card.";
    PIN = blocks "K-028", "Form 1040; Pub. 5477",
        "Enter the six digits of this year's notice, or empty the box.";
    NAME = blocks "K-003", "Form 1040, page 1",
        "Enter the name as on the card of the authority.";
    ITIN = look "K-007", "IRC §6109(i)(3)",
        "A number that was on no return for three years in a row has run out: renew it with Form W-7.";
    AGE_GAP = look "K-021", "IRC §152(c)(2), (f)(1)",
        "Look at both dates of birth.";
    DIED_BEFORE = blocks "K-009", "IRC §§2(a), 6013(a)",
        "Remove this filer; see the status of a surviving spouse.";
}

/// Whether a number is taken to be valid for work where nobody says so: one that is no taxpayer number (ITIN, ATIN).
pub fn number_for_work(person: &Person) -> bool {
    !person.id_number.as_deref().is_some_and(|number| number.starts_with('9'))
}

/// The least years between a parent and a child that are not worth a look.
const LEAST_GAP: i32 = 12;

/// Names and numbers, each of one person.
fn named(points: &mut Points<'_>, index: usize) {
    let person = &points.household.people[index];
    let name = person.name.trim();
    if name.is_empty() || name.chars().any(|c| c.is_ascii_digit()) {
        points.raise(&NAME, points.at(index, "name"), format!("‘{name}’ is no name as on a card."));
    }
    if person.id_number.as_deref().is_some_and(|number| id_number::is_itin(&digits(number))) {
        let message = format!("{} has a taxpayer number (ITIN): has it run out?", person.name);
        points.raise(&ITIN, points.at(index, "id_number"), message);
    }
}

/// A child hardly younger than its parents.
fn aged(points: &mut Points<'_>, index: usize) {
    let facts = points.facts;
    let person = &facts.people[index];
    let Some(born) = person.born.filter(|_| !person.filer) else { return };
    let gap = |&filer: &usize| {
        (facts.related(&[filer], index) == Some(Relationship::Child)).then_some(facts.people[filer].born?)
    };
    let least = facts.filers.iter().filter_map(gap).map(|parent| born.year() - parent.year()).max();
    if least.is_some_and(|years| years < LEAST_GAP) {
        let message = format!("{} is hardly younger than a parent.", person.name);
        points.raise(&AGE_GAP, points.at(index, "born"), message);
    }
}

/// What is missing of a person, and who cannot file this return.
pub fn points(points: &mut Points<'_>) {
    for index in 0..points.facts.people.len() {
        named(points, index);
        aged(points, index);
    }
    for (index, person) in points.facts.people.iter().enumerate() {
        if person.born.is_none() {
            points.raise(&BORN, points.at(index, "born"), format!("Date of birth of {}?", person.name));
        }
        if !person.has_number {
            let message = format!("{} has no social security or taxpayer number.", person.name);
            points.raise(&NO_NUMBER, points.at(index, "id_number"), message);
        }
        let pin = points.household.people[index].answers.get(ask::PROTECTION_PIN).and_then(Entry::text);
        if pin.is_some_and(|pin| pin.len() != 6 || !pin.bytes().all(|b| b.is_ascii_digit())) {
            let message = format!("The identity protection PIN of {} has six digits.", person.name);
            points.raise(&PIN, points.at(index, ask::PROTECTION_PIN), message);
        }
        if person.filer && person.died.is_some_and(|died| died.year() < points.facts.figures.year) {
            let message = format!("{} died before the year began.", person.name);
            points.raise(&DIED_BEFORE, points.at(index, "died"), message);
        }
    }
}
