//! Who lived in California when (R&TC 17014 to 17016): months by person, of whoever moved or lived elsewhere.

use super::asked::ask;
use crate::state_facts::Residence;
use hembo_core::{Person, household::Entry};
use time::{Date, Duration, Month};

/// The days that a person names: moved in on, left on, lived elsewhere all year.
struct Said {
    from: Option<Date>,
    until: Option<Date>,
    outside: bool,
}

/// What a person says.
fn said(person: &Person) -> Said {
    let day = |id: &str| person.answers.get(id).and_then(Entry::date);
    Said {
        from: day(ask::FROM),
        until: day(ask::UNTIL),
        outside: person.answers.get(ask::OUTSIDE).and_then(Entry::flag) == Some(true),
    }
}

impl Said {
    /// Whether the person lived there on a day; who left before coming back lived there before and after.
    fn lives(&self, day: Date) -> bool {
        match (self.from, self.until) {
            _ if self.outside => false,
            (None, None) => true,
            (Some(from), None) => day >= from,
            (None, Some(until)) => day <= until,
            (Some(from), Some(until)) if from <= until => (from..=until).contains(&day),
            (Some(from), Some(until)) => day >= from || day <= until,
        }
    }
}

/// Whether a person says anything about living elsewhere in the year.
pub fn is_said(person: &Person) -> bool {
    let said = said(person);
    said.outside || said.from.is_some() || said.until.is_some()
}

/// The months of a person in a year.
pub fn of(person: &Person, year: i32) -> Residence {
    let said = said(person);
    let days = |month: usize| {
        let first = first_day(year, month);
        let from = first.into_iter();
        from.flat_map(|first| (0..31).map(move |at| first + Duration::days(at)))
            .take_while(move |day| usize::from(u8::from(day.month())) == month + 1)
    };
    let months = std::array::from_fn(|month| days(month).any(|day| said.lives(day)));
    let whole = (0..12).filter(|&month| days(month).all(|day| said.lives(day))).count() as i64;
    Residence { months, whole }
}

/// The first day of a month, counted from 0.
pub fn first_day(year: i32, month: usize) -> Option<Date> {
    let month = Month::try_from(u8::try_from(month + 1).ok()?).ok()?;
    Date::from_calendar_date(year, month, 1).ok()
}
