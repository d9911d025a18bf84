//! What is due when: returns, balances, and the instalments of the year after.

use hembo_money::Money;
use serde::Serialize;
use time::{Date, Duration, Month, Weekday};
use utoipa::ToSchema;

/// Something that is due on a day.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct DueDate {
    /// The day, ISO 8601.
    #[serde(serialize_with = "iso")]
    #[schema(value_type = String, format = Date)]
    pub day: Date,
    /// What.
    pub what: String,
    /// Whose.
    pub whose: String,
    /// How much is to be paid, where something is.
    pub amount: Option<Money>,
    /// On what it rests.
    pub words: String,
    /// The rule.
    pub cite: String,
}

fn iso<S: serde::Serializer>(day: &Date, to: S) -> Result<S::Ok, S::Error> {
    to.collect_str(day)
}

/// The same amount on every day, rounded up to a unit; nothing where nothing is to be paid.
pub fn instalments(all: Money, days: &[Date], unit: Money) -> Vec<(Date, Money)> {
    let parts = i64::try_from(days.len()).unwrap_or(1).max(1);
    if all <= Money::ZERO {
        return Vec::new();
    }
    let step = parts * unit.cents();
    let each = (all.cents() + step - 1) / step * unit.cents();
    days.iter().map(|day| (*day, Money::from_cents(each))).collect()
}

/// The same day so many months later, or the last of a shorter month.
pub fn months_after(day: Date, months: u8) -> Date {
    let (mut year, mut month) = (day.year(), day.month());
    for _ in 0..months {
        month = month.next();
        year += i32::from(month == Month::January);
    }
    let last = month.length(year);
    Date::from_calendar_date(year, month, day.day().min(last)).unwrap_or(Date::MAX)
}

/// Whether a day is a Saturday or a Sunday.
pub fn is_weekend(day: Date) -> bool {
    matches!(day.weekday(), Weekday::Saturday | Weekday::Sunday)
}

/// The so manyth business day after a day, which does not count itself; `is_free` tells days that are none.
pub fn after_business_days(from: Date, days: i64, is_free: impl Fn(Date) -> bool) -> Date {
    let mut day = from;
    let mut left = days;
    while left > 0 {
        let Some(next) = day.next_day() else { return Date::MAX };
        day = next;
        left -= i64::from(!is_free(day));
    }
    day
}

/// Easter Sunday of a year by the Gregorian calendar (the anonymous algorithm of 1876).
pub fn easter(year: i32) -> Date {
    let (golden, century, rest) = (year % 19, year / 100, year % 100);
    let leap = century - century / 4 - (century - (century + 8) / 25 + 1) / 3 + 19 * golden + 15;
    let epact = leap % 30;
    let weekday = (32 + 2 * (century % 4) + 2 * (rest / 4) - epact - rest % 4) % 7;
    let later = (golden + 11 * epact + 22 * weekday) / 451;
    let at = epact + weekday - 7 * later + 114;
    let month = if at / 31 == 3 { Month::March } else { Month::April };
    let first = Date::from_calendar_date(year, month, 1).unwrap_or(Date::MAX);
    first + Duration::days(i64::from(at % 31))
}

/// Until when something is to be sent that an authority asks for.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Deadline {
    /// The last day.
    pub day: Date,
    /// How it is counted: "21 business days".
    pub counted: String,
    /// The rule.
    pub cite: &'static str,
}

#[cfg(test)]
mod tests {
    use super::*;
    use time::macros::date;

    #[test]
    fn easter_falls_where_the_almanac_has_it() {
        for day in [
            date!(2024 - 03 - 31),
            date!(2025 - 04 - 20),
            date!(2026 - 04 - 05),
            date!(2027 - 03 - 28),
            date!(2038 - 04 - 25),
            date!(2008 - 03 - 23),
        ] {
            assert_eq!(easter(day.year()), day);
        }
    }

    #[test]
    fn months_end_where_a_shorter_one_does() {
        for (day, then) in [
            (date!(2025 - 11 - 01), date!(2026 - 05 - 01)),
            (date!(2025 - 12 - 31), date!(2026 - 06 - 30)),
            (date!(2025 - 08 - 31), date!(2026 - 02 - 28)),
            (date!(2023 - 08 - 31), date!(2024 - 02 - 29)),
        ] {
            assert_eq!(months_after(day, 6), then, "{day}");
        }
    }

    #[test]
    fn instalments_are_rounded_up_so_that_together_they_are_enough() {
        let days =
            [date!(2026 - 04 - 15), date!(2026 - 06 - 15), date!(2026 - 09 - 15), date!(2027 - 01 - 15)];
        let each = |all: &str, unit| {
            instalments(all.parse().expect("an amount"), &days, unit)
                .first()
                .map(|(_, amount)| amount.to_string())
        };
        assert_eq!(each("1000", Money::WHOLE).as_deref(), Some("250.00"));
        assert_eq!(each("1000.01", Money::WHOLE).as_deref(), Some("251.00"));
        assert_eq!(each("1000.01", Money::CENT).as_deref(), Some("250.01"));
        assert_eq!(each("0", Money::WHOLE), None);
        assert_eq!(each("-5", Money::WHOLE), None);
    }
}
