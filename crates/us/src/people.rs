//! Who is in the household: births, deaths, numbers, who is a resident.

use crate::{
    points::Points,
    questions::{ANYONE, FILER, ask},
};
use hembo_core::{field::Field, pack::Question, point::Gather, provision::Provision};

/// What is asked about everyone.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: FILER,
            field: Field::yes_no(ask::NONRESIDENT_ALIEN, "", "Nonresident alien in the year"),
        },
        Question {
            of: ANYONE,
            field: Field::yes_no(ask::WORK_SSN, "", "Number valid for work")
                .help("A social security number issued in time and valid for employment."),
        },
    ],
    ..Provision::NONE
};

/// What is missing of a person, and who cannot file this return.
pub fn points(points: &mut Points<'_>) {
    for (index, person) in points.facts.people.iter().enumerate() {
        if person.born.is_none() {
            points.blocks(
                "K-004",
                points.at(index, "born"),
                format!("Date of birth of {}?", person.name),
                "Enter it.",
            );
        }
        if !person.has_number {
            let message = format!("{} has no social security or taxpayer number.", person.name);
            points.blocks(
                "K-001",
                points.at(index, "id_number"),
                message,
                "Enter the number as on the card.",
            );
        }
        if person.filer && person.died.is_some_and(|died| died.year() < points.facts.figures.year) {
            let message = format!("{} died before the year began.", person.name);
            let remedy = "Remove this filer; see the status of a surviving spouse.";
            points.blocks("K-009", points.at(index, "died"), message, remedy);
        }
        if person.filer && person.nonresident_alien {
            let place = points.at(index, ask::NONRESIDENT_ALIEN);
            points.not_covered("nonresident", place, "Form 1040-NR is not computed yet.");
        }
    }
}
