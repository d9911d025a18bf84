//! Who is in the household: births, numbers, partners, children in care.

use crate::{facts::Facts, points::Points};
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
        own_assessment::QUESTION,
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::choice(ask::RELATIONSHIP, "", "Relationship to a filer", RELATIONSHIPS).lasts(),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::count(ask::CARE, "", "Per cent of the time in care here", 100)
                .blank_is("100")
                .lasts()
                .help("A child counts from a third of the time on, for its part."),
        },
        Question {
            of: DEPENDENT,
            from_age: 17,
            field: Field::yes_no(ask::SCHOOL, "", "At school or in tertiary study")
                .help("At 18 a child counts to 31 December where it still is."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::count(ask::LEAVE_WEEKS, "", "Weeks of paid parental leave for this child", 26)
                .help("In them there is no Best Start."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::amount(ask::PASSIVE, "", "Passive income of the child")
                .help("Interest, dividends, trusts: above 500 it counts for the family."),
        },
    ],
    household_questions: &[
        Field::yes_no(ask::PARTNER, "", "Had a partner at any time in the year").lasts(),
        Field::yes_no(ask::PARTNER_ALL_YEAR, "", "For the whole year").blank_is("true"),
    ],
    points: POINTS,
    figures: &["families"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const OCCUPATION: &str = "occupation";
    pub const RELATIONSHIP: &str = "relationship";
    pub const CARE: &str = "care";
    pub const SCHOOL: &str = "at_school";
    pub const LEAVE_WEEKS: &str = "leave_weeks";
    pub const PASSIVE: &str = "passive_income";
    pub const PARTNER: &str = "partner";
    pub const PARTNER_ALL_YEAR: &str = "partner_all_year";
}

/// What a dependant is to a filer.
pub const RELATIONSHIPS: &[Choice] = &[
    Choice::new("child", "Child in care"),
    Choice::new("parent", "Parent"),
    Choice::new("other", "Someone else"),
];

open_points! {
    PARTNER_ASKED = blocks "partner", "ITA MB 1, LC 13, LD 1(2)", "Answer the question.";
    PARTNER_ELSEWHERE = not_covered "partner-elsewhere", "ITA MB 1, LC 13(1)(c)";
    NO_COUPLE = not_covered "two-households", "TAA 33";
    PART_OF_YEAR = not_covered "partner-part", "ITA MB 1, MD 13(3)";
    BORN = blocks "born", "ITA MD 3, MG 1", "Ages decide what a child brings.";
    NO_NUMBER = blocks "C01", "TAA 24BA", "Enter it from a letter of Inland Revenue.";
    RELATIONSHIP = blocks "relationship", "ITA MC 2", "It decides what a child brings.";
    SHARE = look "C48", "ITA MC 8", "A child counts from a third of the time on.";
    OWN_INCOME = look "child-income", "TAA 22F", "A child with papers has an assessment of its own, shown beside.";
}

/// What is missing of the household and its people.
pub fn points(points: &mut Points<'_>) {
    let facts: &Facts = points.facts;
    let place = Place::household(ask::PARTNER);
    match (points.answered(ask::PARTNER).and_then(Entry::flag), facts.couple()) {
        (None, _) => points.raise(&PARTNER_ASKED, place, "A partner in the year?"),
        (Some(false), true) => {
            points.raise(&NO_COUPLE, place, "Two filers who are no partners are two households here.");
        }
        (Some(true), false) => {
            let message = "Add the partner as a second filer: family credits and gifts go by both.";
            points.raise(&PARTNER_ELSEWHERE, place, message);
        }
        _ => {}
    }
    let whole = points.answered(ask::PARTNER_ALL_YEAR).and_then(Entry::flag) != Some(false);
    if facts.couple() && !whole && facts.children.days > 0 {
        let message = "Family credits of partners for a part of the year are not computed.";
        points.raise(&PART_OF_YEAR, Place::household(ask::PARTNER_ALL_YEAR), message);
    }
    for person in 0..facts.people.len() {
        one(points, person);
    }
}

fn one(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let filer = points.facts.people[person].filer;
    if who.born.is_none() {
        points.raise(&BORN, Place::person(&who.id, "born"), format!("Date of birth of {}?", who.name));
    }
    if filer && who.id_number.is_none() {
        points.raise(
            &NO_NUMBER,
            Place::person(&who.id, "id_number"),
            format!("{} has no IRD number here.", who.name),
        );
    }
    if filer {
        return;
    }
    if !who.answers.contains_key(ask::RELATIONSHIP) {
        let message = format!("What is {} to a filer?", who.name);
        points.raise(&RELATIONSHIP, Place::person(&who.id, ask::RELATIONSHIP), message);
    }
    let share = who.answers.get(ask::CARE).and_then(Entry::count).unwrap_or(100);
    if share < points.facts.figures.families.share_least {
        let message = format!("{} is here for {share} % of the time: no family credit.", who.name);
        points.raise(&SHARE, Place::person(&who.id, ask::CARE), message);
    }
    if points.facts.returns.contains(&person) {
        let message = format!("{} has papers of its own.", who.name);
        points.raise(&OWN_INCOME, Place::person(&who.id, "name"), message);
    }
}
