//! A partner whose return is not prepared here: a few facts stand for it (ITA 118(1)B(a), 118.8, 63(2), 122.7), and what the two
//! returns could move between them is told as not weighed.

use crate::{child_care, pension_split, people, points::Points, told::ask, workers_benefit};
use hembo_core::{
    Person,
    field::Field,
    household::{Entry, Role},
    open_points,
    pack::{DEPENDENT, Question},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What is asked about such a partner.
pub static PROVISION: Provision =
    Provision { person_questions: QUESTIONS, points: POINTS, ..Provision::NONE };

/// The relationship of a partner whose return is not prepared here.
pub const RELATIONSHIP: &str = "partner";

const QUESTIONS: &[Question] = &[
    asked(
        Field::amount(ask::WORKING, "", "Working income of the partner")
            .help("Pay and own business: schedule 6."),
    ),
    asked(
        Field::amount(ask::HANDED_FEDERAL, "", "Amounts that the partner hands over, federal")
            .help("Line 32600, from schedule 2 of the partner."),
    ),
    asked(
        Field::amount(ask::HANDED_PROVINCIAL, "", "Amounts that the partner hands over, province")
            .help("Line 58640."),
    ),
    asked(
        Field::amount(ask::CARE, "", "Child care that the partner claims").help("Line 21400 of the partner."),
    ),
    asked(Field::yes_no(ask::BENEFIT, "", "The partner claims the workers benefit")),
    asked(Field::yes_no(ask::SPLIT, "", "Pension income is split with the partner").help("Form T1032.")),
    asked(
        Field::amount(ask::SPLIT_GIVEN, "", "Pension income split to the partner")
            .help("Line 21000 here, line 11600 of the partner."),
    ),
    asked(
        Field::amount(ask::SPLIT_RECEIVED, "", "Pension income split from the partner")
            .help("Line 11600 here, line 21000 of the partner."),
    ),
    asked(
        Field::amount(ask::SPLIT_ANNUITY, "", "Of what the partner splits, from a life annuity")
            .help("Before 65 only that counts for line 31400 here: form T1032."),
    ),
    asked(
        Field::amount(ask::SPLIT_WITHHELD, "", "Tax withheld that comes with the split from the partner")
            .help("Form T1032. What goes to the partner follows from what was withheld here."),
    ),
];

const fn asked(field: Field) -> Question {
    Question { of: DEPENDENT, from_age: 0, field }
}

open_points! {
    NOT_HERE = not_weighed "C-8", "ITA 60.03, 118.1(1), 118.2(1), 118.8",
        "Compare with the partner's return: pension income, medical, gifts, home credits, tuition, and what the province gives a family once.";
    NET_INCOME = blocks "C-8-income", "ITA 118(1)B(a)", "Line 23600 of the partner, for the whole year.";
    SPLIT = blocks "C-8-split", "ITA 60.03", "Enter from form T1032 what is split, in one direction.";
    SPLIT_TOO_MUCH = blocks "C-8-split-most", "ITA 60.03(1) 'split-pension amount'",
        "At most a half of eligible pension income, for the months as a couple: correct it.";
    SPLIT_PARTS = blocks "C-8-split-parts", "ITA 60.03, 118(7)", "A part is no more than the whole: correct it.";
    ONE_ONLY = blocks "C-8-one", "ITA 118(1)B(a)", "A partner is a second filer, or one person beside one filer who is married or lives common-law.";
    PAPERS = blocks "C-8-paper", "ITA 150(1)", "It belongs to the partner's return: remove it, or make the partner a filer.";
}

/// Whether a person is such a partner.
pub fn is_one(person: &Person) -> bool {
    let relationship = person.answers.get(people::ask::RELATIONSHIP).and_then(Entry::text);
    person.role == Role::Dependent && relationship == Some(RELATIONSHIP)
}

/// Whether a question about someone who is no filer is asked of this person.
pub fn is_asked(person: &Person, question: &str) -> bool {
    use people::ask as who;
    const CARE: [&str; 2] = [child_care::ask::WEEKS, child_care::ask::MONTHS];
    const SHARED: [&str; 6] = [
        who::RELATIONSHIP,
        who::NET_INCOME,
        who::NOT_TAXED,
        who::INFIRM,
        who::DISABILITY,
        workers_benefit::ask::FULL_TIME_STUDENT,
    ];
    let splits = person.answers.get(ask::SPLIT).and_then(Entry::flag) == Some(true);
    match is_one(person) {
        true if ask::OF_SPLIT.contains(&question) => splits,
        true => [&ask::ALL[..], &SHARED, &CARE].concat().contains(&question),
        false if person.role == Role::Filer => true,
        false => ![&ask::ALL[..], &ask::OF_SPLIT, &CARE].concat().contains(&question),
    }
}

/// What is missing of such a partner, and what is not weighed with the other return.
pub fn points(points: &mut Points<'_>) {
    let household = points.household;
    for (place, person) in household.people.iter().enumerate().filter(|(_, person)| is_one(person)) {
        let at = |field: &str| Place::person(&person.id, field);
        if points.facts.elsewhere != Some(place) {
            points.raise(&ONE_ONLY, at(people::ask::RELATIONSHIP), "A partner who is nobody's here.");
            continue;
        }
        if !points.said(place, people::ask::NET_INCOME) {
            points.raise(&NET_INCOME, at(people::ask::NET_INCOME), format!("Net income of {}?", person.name));
        }
        let message = format!(
            "The return of {} is not here: what could move between the two is not weighed.",
            person.name
        );
        points.raise(&NOT_HERE, at("name"), message);
        if person.answers.get(ask::SPLIT).and_then(Entry::flag) == Some(true) {
            split(points, place);
        }
        for paper in &household.papers {
            if paper.owners.iter().any(|owner| owner.person == person.id) {
                let message = format!("A paper of {}, whose return is not prepared here.", person.name);
                points.raise(&PAPERS, Place::paper(&paper.id, "owners"), message);
            }
        }
    }
}

/// What cannot be of a split with a partner, by its place.
fn split(points: &mut Points<'_>, partner: usize) {
    let facts = points.facts;
    let of = facts.people[partner].told.split;
    let id = &points.household.people[partner].id;
    let at = |field: &str| Place::person(id, field);
    let most = facts.filers.iter().map(|&filer| pension_split::most(facts, filer)).sum::<Money>();
    if of.given.is_zero() == of.received.is_zero() {
        points.raise(&SPLIT, at(ask::SPLIT_GIVEN), "How much pension income is split, and to whom?");
    }
    if of.given > most {
        let message = format!("More than the {most:#} that may be split to the partner.");
        points.raise(&SPLIT_TOO_MUCH, at(ask::SPLIT_GIVEN), message);
    }
    if of.from_annuity > of.received {
        points.raise(&SPLIT_PARTS, at(ask::SPLIT_ANNUITY), "More from an annuity than is split.");
    }
    if of.received.is_zero() && !of.withheld.is_zero() {
        let message = "Tax comes with what is split from the partner only.";
        points.raise(&SPLIT_PARTS, at(ask::SPLIT_WITHHELD), message);
    }
}
