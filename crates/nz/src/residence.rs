//! Where everyone was resident (ITA YD 1, HR 8, CW 27): all year, a part of it, or as a transitional resident.

use crate::points::{Points, in_words};
use hembo_core::{
    Household, Person,
    field::{Choice, Field},
    household::Entry,
    open_points,
    pack::{FILER, Question},
    point::{Gather, Place},
    provision::Provision,
};
use time::{Date, Month};

/// What is asked about residence.
pub static PROVISION: Provision = Provision {
    about: "Residence",
    household_questions: &[Field::choice(ask::RESIDENCE, "", "Resident in New Zealand", RESIDENCE)],
    person_questions: &[
        Question {
            of: FILER,
            from_age: 0,
            field: Field::date(ask::CAME, "", "Resident since").help("Where residence began in this year: a part of a day is a whole one."),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::date(ask::LEFT, "", "Resident until").help("Where residence ended in this year."),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::yes_no(ask::RESIDENT_BEFORE, "", "Resident, or transitional before, in the ten years before it")
                .lasts()
                .help("Of a transitional resident: then the person is none."),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::date(ask::TRANSITIONAL, "", "Transitional resident since")
                .lasts()
                .help("Came in the last four years after ten years away: income from abroad that is not for work is exempt."),
        },
    ],
    points: POINTS,
    figures: &["transitional"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const RESIDENCE: &str = "residence";
    pub const CAME: &str = "came";
    pub const LEFT: &str = "left";
    pub const TRANSITIONAL: &str = "transitional";
    pub const RESIDENT_BEFORE: &str = "resident_before";
}

/// How long the filers were resident in the year.
pub const RESIDENCE: &[Choice] = &[
    Choice::new("whole", "All year"),
    Choice::new("part", "A part of the year"),
    Choice::new("none", "Not at all"),
];

open_points! {
    ASKED = not_known "C03", "ITA YD 1", "Say whether the filers were resident all year.";
    DATES = blocks "C03-dates", "ITA YD 1(3) to (6)", "Enter the first or the last day of residence, of whom it was a part of the year.";
    INVERTED = blocks "C03-inverted", "ITA YD 1", "Correct the days: they must lie in this year, the first before the last.";
    NONE_BEFORE = blocks "C04", "ITA HR 8(2)(a), (b)", "Who was resident in the ten years before, or a transitional resident once, is none: clear the day.";
    NOT_RESIDENT = not_covered "non-resident", "ITA BD 1(5), RF 2";
    WORLD = look "C58", "ITA BD 1(4)", "Income of the whole world counts from the first day of residence; interest and dividends before it are settled by what was withheld.";
    OVER = look "C05", "ITA HR 8(3)", "The time is over: income from abroad is taxable.";
    OVER_IN_YEAR = not_covered "transitional-ends", "ITA HR 8(3)";
}

/// A day of a person.
pub fn day(person: &Person, question: &str) -> Option<Date> {
    person.answers.get(question).and_then(Entry::date)
}

/// The last day as a transitional resident: the end of so many months after the month in which it began.
pub fn transitional_until(since: Date, months: i32) -> Date {
    let all = since.year() * 12 + i32::from(u8::from(since.month())) + months;
    let (year, month) = (all / 12, all % 12);
    let first = u8::try_from(month + 1).ok().and_then(|month| Month::try_from(month).ok());
    let next = first.and_then(|month| Date::from_calendar_date(year, month, 1).ok());
    next.and_then(Date::previous_day).unwrap_or(Date::MAX)
}

/// Whether a person is a transitional resident to the end of the year.
pub fn is_transitional(person: &Person, year_end: Date, months: i32) -> bool {
    let since = day(person, ask::TRANSITIONAL);
    since.is_some_and(|since| since <= year_end && transitional_until(since, months) >= year_end)
}

/// Whole months of the year in which a person was resident.
pub fn months(household: &Household, person: &Person, [begin, end]: [Date; 2]) -> i64 {
    if household.answers.get(ask::RESIDENCE).and_then(Entry::text) != Some("part") {
        return 12;
    }
    let from = day(person, ask::CAME).filter(|day| (begin..=end).contains(day)).unwrap_or(begin);
    let to = day(person, ask::LEFT).filter(|day| (begin..=end).contains(day)).unwrap_or(end);
    let starts = (0..12).filter_map(|month| first_of_month(begin, month));
    let next = |first: Date| first_of_month(first, 1).unwrap_or(Date::MAX);
    starts.filter(|&first| from <= first && next(first).previous_day().is_some_and(|last| last <= to)).count()
        as i64
}

/// The first day of the month so many months after that of a day.
fn first_of_month(day: Date, after: i32) -> Option<Date> {
    let all = day.year() * 12 + i32::from(u8::from(day.month())) - 1 + after;
    let month = u8::try_from(all % 12 + 1).ok().and_then(|month| Month::try_from(month).ok())?;
    Date::from_calendar_date(all / 12, month, 1).ok()
}

/// Residence that is not known, days that are missing, what is not computed.
pub fn points(points: &mut Points<'_>) {
    let place = Place::household(ask::RESIDENCE);
    match points.answered(ask::RESIDENCE).and_then(Entry::text) {
        None => points.raise(&ASKED, place, "Resident all year?"),
        Some("none") => points.raise(&NOT_RESIDENT, place, "Returns of non-residents are not computed."),
        Some("part") => part(points),
        Some(_) => {}
    }
    for &person in &points.facts.filers.clone() {
        transitional(points, person);
    }
}

fn part(points: &mut Points<'_>) {
    let (begin, end) = (points.facts.year_begin, points.facts.year_end);
    let mut any = false;
    for &person in &points.facts.filers.clone() {
        let who = &points.household.people[person];
        let days = [ask::CAME, ask::LEFT].map(|question| day(who, question));
        any |= days.iter().any(Option::is_some);
        let outside = days.iter().flatten().any(|day| !(begin..=end).contains(day));
        let inverted = matches!(days, [Some(came), Some(left)] if left < came);
        if outside || inverted {
            points.raise(
                &INVERTED,
                points.at(person, ask::CAME),
                format!("{}: these days cannot be.", who.name),
            );
        } else if days.iter().any(Option::is_some) {
            points.raise(
                &WORLD,
                points.at(person, ask::CAME),
                format!("{} was resident for a part of the year.", who.name),
            );
        }
    }
    if !any {
        points.raise(&DATES, Place::household(ask::RESIDENCE), "From when, or until when?");
    }
}

fn transitional(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let Some(since) = day(who, ask::TRANSITIONAL) else { return };
    let until = transitional_until(since, points.facts.figures.transitional.months);
    let place = points.at(person, ask::TRANSITIONAL);
    if who.answers.get(ask::RESIDENT_BEFORE).and_then(Entry::flag) == Some(true) {
        let message = format!("{}: not a transitional resident.", who.name);
        points.raise(&NONE_BEFORE, place.clone(), message);
    }
    if until < points.facts.year_begin {
        points.raise(&OVER, place, format!("{}: the time ended on {}.", who.name, in_words(until)));
    } else if until < points.facts.year_end {
        let message =
            format!("{}: transitional residence ends on {}, within the year.", who.name, in_words(until));
        points.raise(&OVER_IN_YEAR, place, message);
    }
}
