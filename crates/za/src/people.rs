//! Who is in the household: births and numbers, marriage and its regime (s7(2A)), residence.

use crate::{
    facts::Facts,
    id_number::{birth_days, is_tax_reference},
    points::Points,
};
use hembo_core::{
    field::{Choice, Field},
    household::Entry,
    open_points, own_assessment,
    pack::{DEPENDENT, FILER, Question},
    point::{Gather, Place},
    provision::Provision,
};

/// What is asked about everyone, and about the household as such.
pub static PROVISION: Provision = Provision {
    about: "People",
    person_questions: &[
        Question {
            of: FILER,
            from_age: 0,
            field: Field::text(ask::OCCUPATION, "", "Occupation", 60)
                .lasts()
                .help("For letters and the file."),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::text(ask::REFERENCE, "", "Tax reference number", 12)
                .secret()
                .lasts()
                .help("Ten digits."),
        },
        own_assessment::QUESTION,
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::choice(ask::RELATIONSHIP, "", "Relationship to a filer", RELATIONSHIPS).lasts(),
        },
    ],
    household_questions: &[
        Field::choice(ask::RESIDENCE, "", "Resident in South Africa", RESIDENCE),
        Field::choice(ask::MARRIAGE, "", "Marriage", MARRIAGE)
            .lasts()
            .help("In community of property investment income and gains are halved."),
    ],
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const OCCUPATION: &str = "occupation";
    pub const REFERENCE: &str = "tax_reference";
    pub const RELATIONSHIP: &str = "relationship";
    pub const RESIDENCE: &str = "residence";
    pub const MARRIAGE: &str = "marriage";
}

/// What a dependant is to a filer.
pub const RELATIONSHIPS: &[Choice] =
    &[Choice::new("child", "Child"), Choice::new("parent", "Parent"), Choice::new("other", "Someone else")];

/// How long the filers were resident in the year.
pub const RESIDENCE: &[Choice] = &[
    Choice::new("whole", "All year"),
    Choice::new("part", "A part of the year"),
    Choice::new("none", "Not at all"),
];

/// Marriage and its regime.
const MARRIAGE: &[Choice] = &[
    Choice::new("single", "Not married"),
    Choice::new("community", "In community of property"),
    Choice::new("out", "Out of community of property"),
    Choice::new("accrual", "Out of community, with accrual"),
    Choice::new("relationship", "A permanent relationship"),
];

open_points! {
    RESIDENCE_ASKED = not_known "residence", "s1 'resident'", "Say whether the filers were resident all year.";
    NOT_ALL_YEAR = not_covered "residence-part", "s1 'resident', s6(4), s9H";
    REGIME = not_known "C04", "s7(2A)", "Say how they are married: in community of property investments are halved.";
    SPOUSE = not_covered "spouse-missing", "s7(2A)";
    BORN = blocks "born", "s6(2)", "Ages decide rebates and exemptions.";
    NO_NUMBER = blocks "C01-missing", "TAA s 24", "Enter the ID number, or say in the notes that there is a passport.";
    DISAGREE = blocks "C03", "Identification Act 68 of 1997", "Compare both with the identity document.";
    REFERENCE_WRONG = blocks "C02", "TAA s 24", "Compare it with a letter of the revenue service: ten digits, the first 0, 1, 2, 3 or 9.";
    RELATIONSHIP_ASKED = blocks "relationship", "s6B(1) 'dependant'", "Say what the person is to a filer.";
}

/// What is missing of the household and its people.
pub fn points(points: &mut Points<'_>) {
    let facts: &Facts = points.facts;
    let place = Place::household(ask::RESIDENCE);
    match points.answered(ask::RESIDENCE).and_then(Entry::text) {
        None => points.raise(&RESIDENCE_ASKED, place, "Resident all year?"),
        Some("whole") => {}
        Some(_) => {
            points.raise(&NOT_ALL_YEAR, place, "Returns of who was not resident all year are not computed.")
        }
    }
    let place = Place::household(ask::MARRIAGE);
    match (points.answered(ask::MARRIAGE).and_then(Entry::text), facts.filers.len()) {
        (None, _) => points.raise(&REGIME, place, "Married, and how?"),
        (Some("community"), 1) => {
            let message = "In community of property both spouses are needed: add the other as a filer.";
            points.raise(&SPOUSE, place, message);
        }
        (Some("single"), 2) => points.raise(&REGIME, place, "Two filers who are not married?"),
        _ => {}
    }
    for person in 0..facts.people.len() {
        one(points, person);
    }
}

fn one(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let filer = points.facts.people[person].filer;
    let at = |field: &str| Place::person(&who.id, field);
    if who.born.is_none() {
        points.raise(&BORN, at("born"), format!("Date of birth of {}?", who.name));
    }
    match (&who.id_number, who.born) {
        (None, _) if filer => {
            points.raise(&NO_NUMBER, at("id_number"), format!("{} has no ID number here.", who.name))
        }
        (Some(number), Some(born)) if !birth_days(number).contains(&born) => {
            let message = format!("The ID number of {} begins with another day of birth.", who.name);
            points.raise(&DISAGREE, at("born"), message);
        }
        _ => {}
    }
    let reference = who.answers.get(ask::REFERENCE).and_then(Entry::text);
    if reference.is_some_and(|number| !is_tax_reference(number)) {
        points.raise(
            &REFERENCE_WRONG,
            at(ask::REFERENCE),
            format!("The tax reference number of {}.", who.name),
        );
    }
    if !filer && !who.answers.contains_key(ask::RELATIONSHIP) {
        points.raise(&RELATIONSHIP_ASKED, at(ask::RELATIONSHIP), format!("What is {} to a filer?", who.name));
    }
}
