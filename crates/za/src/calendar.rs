//! Business days (TAA s 1): neither a Saturday, a Sunday nor a public holiday (Public Holidays Act 36 of 1994, s 1, s 2).

use hembo_core::dates::{easter, is_weekend};
use time::{Date, Duration, Month, Weekday};

/// The holidays of a fixed day.
const FIXED: [(Month, u8); 10] = [
    (Month::January, 1),
    (Month::March, 21),
    (Month::April, 27),
    (Month::May, 1),
    (Month::June, 16),
    (Month::August, 9),
    (Month::September, 24),
    (Month::December, 16),
    (Month::December, 25),
    (Month::December, 26),
];

/// Whether a day is no business day; `declared` are holidays of a year alone.
pub fn is_free(day: Date, declared: &[Date]) -> bool {
    is_weekend(day) || is_holiday(day, declared)
}

fn is_holiday(day: Date, declared: &[Date]) -> bool {
    let fixed = |day: Date| FIXED.contains(&(day.month(), day.day()));
    let sunday = day.previous_day().filter(|before| before.weekday() == Weekday::Sunday);
    let easter = easter(day.year());
    let friday = easter - Duration::days(2);
    let monday = easter + Duration::days(1);
    fixed(day) || sunday.is_some_and(fixed) || day == friday || day == monday || declared.contains(&day)
}

/// The days that disputes leave out (TAA s 1 'business day'): 16 December to 15 January.
pub fn is_recess(day: Date) -> bool {
    matches!((day.month(), day.day()), (Month::December, 16..) | (Month::January, ..=15))
}
