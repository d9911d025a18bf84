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
            of: DEPENDENT,
            from_age: 0,
            field: Field::amount(ask::NOT_TAXED, "", "Of it supplements, compensation or assistance")
                .help("Line 25000: in net income, and not taxed."),
        },
        Question {
            of: DEPENDENT,
            from_age: 0,
            field: Field::yes_no(ask::SHARED_CUSTODY, "", "Shared custody with another household")
                .lasts()
                .help("Benefits come by halves to both (ITA 122.61(1.1), 122.5(3.01))."),
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
        Field::choice(ask::MARITAL, "", "Marital status on 31 December", MARITAL)
            .lasts()
            .help("Of a couple of whom one died in the year: widowed."),
        Field::count(ask::MONTHS_TOGETHER, "", "Months of the year as a couple", 12)
            .blank_is("12")
            .help("Twelve where nothing is said, or those to a death; pension income is split for these months."),
        Field::date(ask::SEPARATED_ON, "", "Living apart since")
            .help("Where it began in this year or late in the one before.")
            .only_for(ask::MARITAL, &["separated"]),
        Field::amount(ask::FORMER_NET, "", "Net income of the former partner until then")
            .help("Of this year, before the separation: the amount for a partner is weighed against support paid.")
            .only_for(ask::MARITAL, &["separated"]),
        Field::yes_no(ask::FOREIGN_PROPERTY, "", "Foreign property that cost over 100,000")
            .lasts()
            .opens(&["T1135"]),
    ],
    points: POINTS,
    figures: &["medical", "foreign_property"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const OCCUPATION: &str = "occupation";
    pub const MARITAL: &str = "marital";
    pub const MONTHS_TOGETHER: &str = "months_together";
    pub const FOREIGN_PROPERTY: &str = "foreign_property";
    pub const FORMER_NET: &str = "former_net";
    pub const SEPARATED_ON: &str = "separated_on";
    pub const RELATIONSHIP: &str = "relationship";
    pub const SHARED_CUSTODY: &str = "shared_custody";
    pub const INFIRM: &str = "infirm";
    pub const DISABILITY: &str = "disability";
    pub const NET_INCOME: &str = "net_income";
    pub const NOT_TAXED: &str = "not_taxed";
}

open_points! {
    MARITAL_ASKED = blocks "C-6", "ITA 118(1), 248(1)",
        "Answer the question.";
    NO_COUPLE = not_covered "C-9", "ITA 150(1)";
    PARTNER_ELSEWHERE = not_known "C-7", "ITA 118(1)(a), 118.8",
        "Add the partner: as a second filer, or as a person with the relationship 'Partner' and a few facts.";
    SEPARATED = not_weighed "C-13", "ITA 118(5), 60(b)",
        "Enter the net income of the former partner until then: the amount for a partner may be claimed in place of deducting support paid.";
    SEPARATED_ASKED = blocks "C-13-day", "ITA 118(5)", "Enter the first day apart; it may lie years back.";
    FOREIGN_PROPERTY_ASKED = blocks "C-17", "ITA 233.3",
        "Line 26600 must be answered.";
    BORN = blocks "C-5", "ITA 118(2)",
        "Ages decide many amounts.";
    NO_NUMBER = blocks "C-1", "ITA 237(1)",
        "Enter it from the card or letter.";
    NUMBER_ENDS = look "C-2", "ITA 237(1)",
        "Compare it with the filing day.";
    NO_SIN = look "C-3", "ITA 237(1)",
        "Apply for a SIN.";
    CERTIFICATE = look "C-53", "ITA 118(1), 118.3(1)(a.2), (a.3)",
        "Keep the statement of a practitioner, or the notice that approved form T2201.";
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
    Choice::new("kin", "Uncle, aunt, nephew or niece"),
    Choice::new("partner", "Partner, return not prepared here"),
    Choice::new("other", "Someone else"),
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
    } else if !two && points.facts.partnered && points.facts.elsewhere.is_none() {
        let message = "The partner's return is not here: net income, transfers and splits are not weighed.";
        points.raise(&PARTNER_ELSEWHERE, marital, message);
    }
    separation(points);
    let foreign = points.answered(ask::FOREIGN_PROPERTY).and_then(Entry::flag);
    if foreign.is_none() {
        let place = Place::household(ask::FOREIGN_PROPERTY);
        let above = points.facts.figures.foreign_property.above;
        let message = format!("Foreign property that cost over {above:#}: yes or no?");
        points.raise(&FOREIGN_PROPERTY_ASKED, place, message);
    }
}

/// Who lives apart: since this year, the year's own amount for the partner is a choice.
fn separation(points: &mut Points<'_>) {
    if points.answered(ask::MARITAL).and_then(Entry::text) != Some("separated") {
        return;
    }
    let place = Place::household(ask::SEPARATED_ON);
    match points.answered(ask::SEPARATED_ON).and_then(Entry::date) {
        None => points.raise(&SEPARATED_ASKED, place, "Since when apart?"),
        Some(day) if day >= points.facts.year_begin && points.facts.former.is_none() => {
            points.raise(&SEPARATED, Place::household(ask::FORMER_NET), "Separated in this year.");
        }
        Some(_) => {}
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
    for field in [ask::INFIRM, ask::DISABILITY] {
        if who.answers.get(field).and_then(Entry::flag) == Some(true) {
            let message = format!("The impairment of {} needs its proof.", who.name);
            points.raise(&CERTIFICATE, Place::person(id, field), message);
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
