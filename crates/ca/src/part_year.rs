//! Who came to or left Canada in the year (ITA 114, 118.91): personal amounts by days, but in full where nearly all income of the
//! other time was Canadian, and none of what asks for residence throughout the year.

use crate::{form_428, ontario, points::Points};
use hembo_core::{
    Household,
    field::Field,
    household::Entry,
    line::LineId,
    open_points,
    pack::{FILER, Question},
    point::{Gather, Place},
    provision::Provision,
};

/// What is asked about a part of the year.
pub static PROVISION: Provision = Provision {
    household_questions: &[Field::yes_no(ask::PART_YEAR, "", "Came to or left Canada in the year")],
    person_questions: QUESTIONS,
    points: POINTS,
    figures: &["part_year"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const PART_YEAR: &str = "part_year";
    pub const CAME: &str = "came_on";
    pub const LEFT: &str = "left_on";
    pub const WORLD: &str = "income_abroad";
    pub const CANADIAN: &str = "canadian_abroad";
    pub const ALL: [&str; 4] = [CAME, LEFT, WORLD, CANADIAN];
}

const QUESTIONS: &[Question] = &[
    asked(Field::date(ask::CAME, "", "Came to Canada on").help("The first day of residence.")),
    asked(Field::date(ask::LEFT, "", "Left Canada on").help("The last day of residence.")),
    asked(
        Field::amount(ask::WORLD, "", "Income of the time outside Canada")
            .help("From everywhere, in dollars; 0 where there was none."),
    ),
    asked(
        Field::amount(ask::CANADIAN, "", "Of it from Canada, and on this return")
            .help("From 90 % on the amounts are those of a whole year."),
    ),
];

const fn asked(field: Field) -> Question {
    Question { of: FILER, from_age: 0, field }
}

open_points! {
    NO_DAY = blocks "C-14", "ITA 114, 118.91", "Enter the day on which each came or left.";
    OTHER_DAY = blocks "C-14-day", "ITA 114", "A day of this year; who came in an earlier one is resident for all of it.";
    SAID_NO = blocks "C-14-no", "ITA 114", "Answer the household's question yes, or remove the day.";
    INCOME = blocks "C-14-income", "ITA 118.91(b)(i)", "It decides whether amounts are by days; 0 where there was none.";
    CAME = look "C-14-came", "ITA 128.1(1)(c)", "What was owned on that day has its value of the day as its cost; papers hold income from then on, and Canadian income of before.";
    LEFT = look "C-14-left", "ITA 128.1(4)(b); forms T1161, T1243", "Property is deemed sold on that day: enter it on Schedule 3; over 25,000 in all form T1161.";
    DEPENDANT = not_covered "C-14-dependant", "ITA 114, 118.91";
    AT_YEAR_END = not_covered "C-14-credits", "Income tax acts of the provinces; forms 428 and 479";
}

/// Whether a question about a person is asked of this household: its own only where the year was not a whole one.
pub fn is_asked(household: &Household, question: &str) -> bool {
    let said = household.answers.get(ask::PART_YEAR).and_then(Entry::flag);
    said == Some(true) || !ask::ALL.contains(&question)
}

/// Credits for which one has to live in the province at the end of the year.
const AT_THE_END: [LineId; 3] = [form_428::REDUCTION, ontario::REDUCTION, form_428::PAID_OUT];

/// What is missing, and what a change of residence brings.
pub fn points(points: &mut Points<'_>) {
    let said = points.answered(ask::PART_YEAR).and_then(Entry::flag);
    let filers = points.facts.filers.clone();
    let any =
        filers.iter().any(|&filer| [ask::CAME, ask::LEFT].iter().any(|field| points.said(filer, field)));
    let place = Place::household(ask::PART_YEAR);
    match (said, any) {
        (Some(true), false) => {
            points.raise(&NO_DAY, place, "A part of the year in Canada: from when, until when?")
        }
        (Some(true), true) => {}
        (_, true) => {
            points.raise(&SAID_NO, place, "A day on which someone came or left, and the answer is not yes.")
        }
        (_, false) => {}
    }
    for filer in filers {
        of_one(points, filer);
    }
    let own = points.facts.returns.iter().find(|&&person| !points.facts.people[person].filer);
    if let (Some(true), Some(&person)) = (said, own) {
        let message = "A dependant's own return for a part of the year in Canada is not computed yet.";
        points.raise(&DEPENDANT, points.at(person, "name"), message);
    }
}

fn of_one(points: &mut Points<'_>, filer: usize) {
    let (facts, who) = (points.facts, &points.household.people[filer]);
    let of_year = facts.year_begin..=facts.year_end;
    for field in [ask::CAME, ask::LEFT] {
        let day = who.answers.get(field).and_then(Entry::date);
        if day.is_some_and(|day| !of_year.contains(&day)) {
            points.raise(&OTHER_DAY, points.at(filer, field), "Not a day of this year.");
        }
    }
    let part = facts.people[filer].part_year;
    let Some(days) = part.days else { return };
    if !points.said(filer, ask::WORLD) {
        let message = format!("Income of {} in the time outside Canada?", who.name);
        points.raise(&INCOME, points.at(filer, ask::WORLD), message);
    }
    if part.came {
        let message = format!("{} was resident for {days}.", who.name);
        points.raise(&CAME, points.at(filer, ask::CAME), message);
    }
    if part.left {
        let message = format!("{} was resident for {days}.", who.name);
        points.raise(&LEFT, points.at(filer, ask::LEFT), message);
    }
    let place = facts.returns.iter().position(|&person| person == filer).unwrap_or_default();
    let day = |field: &str| who.answers.get(field).and_then(Entry::date);
    let came_back = part.came && day(ask::CAME) > day(ask::LEFT);
    if part.left && !came_back && AT_THE_END.iter().any(|line| !points.amount(line, place).is_zero()) {
        let message = format!(
            "{} did not live in the province on 31 December: its reductions and paid-out credits are not settled.",
            who.name
        );
        points.raise(&AT_YEAR_END, points.at(filer, ask::LEFT), message);
    }
}
