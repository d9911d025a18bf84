//! Identification numbers: thirteen digits that begin with the day of birth (Identification Act 68 of 1997), and the tax reference number.

use hembo_core::check::{digits, luhn};
use time::{Date, Month};

/// Whether a number has the form of an identity number.
///
/// # Errors
/// What the number should look like.
pub fn check(number: &str) -> Result<(), &'static str> {
    let plain = digits(number);
    if plain.len() != 13 || number.len() > 17 {
        return Err("An ID number has thirteen digits, such as 800101 5009 087.");
    }
    if !luhn(&plain) {
        return Err("The last digit does not fit the others: one of them was mistyped.");
    }
    if birth_days(&plain).is_empty() {
        return Err("An ID number begins with the day of birth: year, month and day, two digits each.");
    }
    Ok(())
}

/// The days of birth that a number may mean: of this century and the last.
pub fn birth_days(number: &str) -> Vec<Date> {
    let plain = digits(number);
    let part = |from: usize| plain.get(from..from + 2).and_then(|text| text.parse::<u8>().ok());
    let (Some(year), Some(month), Some(day)) = (part(0), part(2), part(4)) else { return Vec::new() };
    let of = |century: i32| {
        Date::from_calendar_date(century + i32::from(year), Month::try_from(month).ok()?, day).ok()
    };
    [1900, 2000].into_iter().filter_map(of).collect()
}

/// Whether a number has the form of a tax reference number: ten digits, of which the first is 0, 1, 2, 3 or 9.
pub fn is_tax_reference(number: &str) -> bool {
    let plain = digits(number);
    plain.len() == 10 && plain.starts_with(['0', '1', '2', '3', '9']) && luhn(&plain)
}
