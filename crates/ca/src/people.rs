//! Who is in the household: births, deaths, numbers, marriage, residence, and what a dependant is to a filer.

use crate::{papers::t5, points::Points};
use hembo_core::{
    field::{Choice, Field},
    household::Entry,
    open_points,
    pack::{ANYONE, DEPENDENT, FILER, Question},
    point::{Gather, Place},
    provision::Provision,
};

/// What is asked about everyone, and about the household as such.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: FILER,
            from_age: 0,
            field: Field::text(ask::OCCUPATION, "", "Occupation", 60)
                .lasts()
                .help("For letters and the file."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::choice(ask::RELATIONSHIP, "", "Relationship to a filer", RELATIONSHIPS).lasts(),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::amount(ask::NET_INCOME, "", "Net income not among the papers").help("Line 23600."),
        },
        Question {
            of: ANYONE,
            from_age: 0,
            field: Field::yes_no(ask::INFIRM, "", "Infirm in mind or body")
                .lasts()
                .help("Depends on others because of an impairment."),
        },
        Question {
            of: ANYONE,
            from_age: 0,
            field: Field::yes_no(ask::DISABILITY, "", "Approved certificate T2201").lasts(),
        },
    ],
    household_questions: &[
        Field::choice(ask::MARITAL, "", "Marital status on 31 December", MARITAL).lasts(),
        Field::count(ask::MONTHS_TOGETHER, "", "Months of the year as a couple", 12)
            .blank_is("12")
            .help("Twelve where nothing is said; pension income is split for these months."),
        Field::yes_no(ask::PART_YEAR, "", "Came to or left Canada in the year"),
        Field::yes_no(ask::FOREIGN_PROPERTY, "", "Foreign property that cost over 100,000").lasts(),
    ],
    points: POINTS,
    figures: &["medical"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const OCCUPATION: &str = "occupation";
    pub const MARITAL: &str = "marital";
    pub const MONTHS_TOGETHER: &str = "months_together";
    pub const PART_YEAR: &str = "part_year";
    pub const FOREIGN_PROPERTY: &str = "foreign_property";
    pub const RELATIONSHIP: &str = "relationship";
    pub const INFIRM: &str = "infirm";
    pub const DISABILITY: &str = "disability";
    pub const NET_INCOME: &str = "net_income";
}

open_points! {
    MARITAL_ASKED = blocks "C-6", "ITA 118(1), 248(1)",
        "Answer the question.";
    NO_COUPLE = not_covered "C-9", "ITA 150(1)";
    PARTNER_ELSEWHERE = not_known "C-7", "ITA 118(1)(a), 118.8",
        "Add the partner as a second filer.";
    PART_YEAR = not_covered "C-14", "ITA 114, 118.91";
    FOREIGN_PROPERTY_ASKED = blocks "C-17", "ITA 233.3",
        "Line 26600 must be answered.";
    FOREIGN_PROPERTY = look "C-18", "ITA 233.3",
        "Prepare it beside the return.";
    BORN = blocks "C-5", "ITA 118(2)",
        "Ages decide many amounts.";
    NO_NUMBER = blocks "C-1", "ITA 237(1)",
        "Enter it from the card or letter.";
    NUMBER_ENDS = look "C-2", "ITA 237(1)",
        "Compare it with the filing day.";
    NO_SIN = look "C-3", "ITA 237(1)",
        "Apply for a SIN.";
    DIED = not_covered "C-16", "ITA 70(1), 150(1)(b)";
    CAREGIVER_OR_DISABILITY = not_covered "C-53", "ITA 118(1)(d), 118.3";
    RELATIONSHIP = blocks "C-51", "ITA 118(1)(b), 118(6)",
        "It decides what can be claimed.";
    YOUNGER_PARENT = blocks "C-51-younger", "ITA 118(1)(b), 118(6)",
        "Correct the date of birth, or the relationship.";
    ATTRIBUTION = look "C-86", "ITA 74.1(2), 120.4",
        "Ask where the money came from (ITA 74.1(2)); dividends of a private company: form T1206.";
}

/// Marital status on 31 December.
const MARITAL: &[Choice] = &[
    Choice::new("married", "Married"),
    Choice::new("common_law", "Living common-law"),
    Choice::new("widowed", "Widowed"),
    Choice::new("divorced", "Divorced"),
    Choice::new("separated", "Separated for 90 days or more"),
    Choice::new("single", "Single"),
];

/// What a dependant is to a filer.
pub const RELATIONSHIPS: &[Choice] = &[
    Choice::new("child", "Child, own or partner's"),
    Choice::new("grandchild", "Grandchild"),
    Choice::new("sibling", "Sibling, brother or sister"),
    Choice::new("parent", "Parent"),
    Choice::new("grandparent", "Grandparent"),
    Choice::new("other", "Other relative"),
];

/// What is missing of the household and its people, and who cannot file these returns.
pub fn points(points: &mut Points<'_>) {
    household(points);
    for person in 0..points.facts.people.len() {
        one(points, person);
        dependant(points, person);
    }
}

fn household(points: &mut Points<'_>) {
    let marital = Place::household(ask::MARITAL);
    let two = points.facts.filers.len() == 2;
    if points.answered(ask::MARITAL).is_none() {
        points.raise(&MARITAL_ASKED, marital.clone(), "Marital status on 31 December?");
    }
    if two && !points.facts.partnered {
        points.raise(&NO_COUPLE, marital, "Two filers who are no couple are two households here.");
    } else if !two && points.facts.partnered {
        let message = "The partner's return is not here: net income, transfers and splits are not weighed.";
        points.raise(&PARTNER_ELSEWHERE, marital, message);
    }
    let [part_year, foreign] =
        [ask::PART_YEAR, ask::FOREIGN_PROPERTY].map(|field| points.answered(field).and_then(Entry::flag));
    if part_year == Some(true) {
        let message = "A part of the year in Canada: amounts by days are not computed yet.";
        points.raise(&PART_YEAR, Place::household(ask::PART_YEAR), message);
    }
    match foreign {
        None => {
            let place = Place::household(ask::FOREIGN_PROPERTY);
            points.raise(
                &FOREIGN_PROPERTY_ASKED,
                place,
                "Foreign property that cost over 100,000: yes or no?",
            );
        }
        Some(true) => {
            let place = Place::household(ask::FOREIGN_PROPERTY);
            points.raise(&FOREIGN_PROPERTY, place, "Form T1135 is due.");
        }
        Some(false) => {}
    }
}

fn one(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let facts = &points.facts.people[person];
    let id = who.id.as_str();
    let files = facts.filer || facts.files;
    if who.born.is_none() {
        let message = format!("Date of birth of {}?", who.name);
        points.raise(&BORN, Place::person(id, "born"), message);
    }
    if files && who.id_number.is_none() {
        let message = format!("{} has no SIN here.", who.name);
        points.raise(&NO_NUMBER, Place::person(id, "id_number"), message);
    }
    match who.id_number.as_deref().and_then(|n| n.chars().next()) {
        Some('9') => {
            let message = "A number that begins with 9 has a date on which it ends.";
            points.raise(&NUMBER_ENDS, Place::person(id, "id_number"), message);
        }
        Some('0') => {
            let message = "An ITN or TTN: benefits need a SIN.";
            points.raise(&NO_SIN, Place::person(id, "id_number"), message);
        }
        _ => {}
    }
    if who.died.is_some_and(|died| died <= points.facts.year_end) {
        let message = "The return of a year of death is not computed yet.";
        points.raise(&DIED, Place::person(id, "died"), message);
    }
    for (field, what) in
        [(ask::INFIRM, "Canada caregiver amounts"), (ask::DISABILITY, "the disability amount")]
    {
        if who.answers.get(field).and_then(Entry::flag) == Some(true) {
            points.raise(
                &CAREGIVER_OR_DISABILITY,
                Place::person(id, field),
                format!("Not computed yet: {what}."),
            );
        }
    }
}

fn dependant(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let facts = &points.facts.people[person];
    let answered = |field: &str| who.answers.contains_key(field);
    if !facts.filer && !answered(ask::RELATIONSHIP) {
        let message = format!("What is {} to a filer?", who.name);
        points.raise(&RELATIONSHIP, Place::person(&who.id, ask::RELATIONSHIP), message);
    }
    let younger =
        |f: &usize| facts.born.zip(points.facts.people[*f].born).is_some_and(|(theirs, own)| theirs >= own);
    if facts.elder && points.facts.filers.iter().all(younger) {
        for field in ["born", ask::RELATIONSHIP] {
            let message = format!("{} is younger than every filer.", who.name);
            points.raise(&YOUNGER_PARENT, Place::person(&who.id, field), message);
        }
    }
    let under_18 = !points.facts.reached(person, points.facts.figures.medical.child_under);
    let invested = facts.own.has(&t5::brings::INTEREST)
        || facts.own.has(&t5::brings::ELIGIBLE_DIVIDENDS)
        || facts.own.has(&t5::brings::OTHER_DIVIDENDS);
    if !facts.filer && facts.born.is_some() && under_18 && invested {
        let message =
            format!("Income of {} from what a filer gave or lent is the filer's (attribution).", who.name);
        points.raise(&ATTRIBUTION, Place::person(&who.id, "born"), message);
    }
}
