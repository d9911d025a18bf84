//! Who is in the household: births, deaths, numbers, who is a resident.

use crate::points::Points;
use hembo_core::{
    Person,
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
            field: Field::text(ask::OCCUPATION, "", "Occupation", 60).help("Stands beside the signature."),
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
                .help("Number and state, or: not given.")
                .secret(),
        },
        Question {
            of: ANYONE,
            from_age: 0,
            field: Field::yes_no(ask::WORK_SSN, "", "Number valid for work")
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
    DIED_BEFORE = blocks "K-009", "IRC §§2(a), 6013(a)",
        "Remove this filer; see the status of a surviving spouse.";
}

/// Whether a number is taken to be valid for work where nobody says so: one that is no taxpayer number (ITIN, ATIN).
pub fn number_for_work(person: &Person) -> bool {
    !person.id_number.as_deref().is_some_and(|number| number.starts_with('9'))
}

/// What is missing of a person, and who cannot file this return.
pub fn points(points: &mut Points<'_>) {
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
