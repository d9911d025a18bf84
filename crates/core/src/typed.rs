//! What the cell of a table says, read as the entry of a column: amounts with signs of currencies and groups of three,
//! days in the country's order, choices by their words, people by their names.

use crate::{
    check,
    field::{Choice, Field, FieldKind},
    household::{Entry, Household},
    numbers::Numbers,
    pack::{DayOrder, Pack},
};
use time::{Date, Month};

/// The entry that a text means in a field; nothing where it is blank.
///
/// # Errors
/// Why it means none, and what would.
pub fn entry(
    text: &str,
    field: &Field,
    household: &Household,
    pack: &dyn Pack,
) -> Result<Option<Entry>, String> {
    // What a spreadsheet would have taken for a formula was written with an apostrophe.
    let text = text.trim();
    let text = text.strip_prefix('\'').filter(|rest| rest.starts_with(['=', '+', '-', '@'])).unwrap_or(text);
    if text.is_empty() {
        return Ok(None);
    }
    let numbers = pack.about().numbers;
    let read = match field.kind {
        FieldKind::Amount { .. } => Entry::Text(amount(text, numbers)),
        FieldKind::Count { .. } => Entry::Count(
            numbers
                .read(text)
                .replace([',', ' '], "")
                .parse()
                .map_err(|_| format!("'{text}' is no whole number"))?,
        ),
        FieldKind::Number { .. } => Entry::Text(amount(text, numbers)),
        FieldKind::YesNo => {
            Entry::Flag(yes_no(text).ok_or_else(|| format!("'{text}' is neither yes nor no"))?)
        }
        FieldKind::Date => Entry::Text(day(text, pack.about().days, household.year)?),
        FieldKind::Choice { options } => Entry::Text(choice(text, options)?),
        FieldKind::Person => Entry::Text(person(text, household)?),
        FieldKind::Text { .. } => Entry::Text(text.to_owned()),
    };
    check::entry(field, &read, household, pack)?;
    Ok(Some(read))
}

/// An amount as plain decimal text; what is grouped otherwise than by threes stays as it is and is refused by the check.
fn amount(text: &str, numbers: Numbers) -> String {
    let (text, negative) = match text.strip_prefix('(').and_then(|rest| rest.strip_suffix(')')) {
        Some(inner) => (inner.trim(), true),
        None => (text, false),
    };
    let text = text.replace('−', "-");
    let (text, negative) = match text.strip_prefix('-') {
        Some(rest) => (rest.to_owned(), !negative),
        None => (text, negative),
    };
    let bare = text.trim_start_matches(|c: char| c.is_alphabetic() || "$€£".contains(c) || c.is_whitespace());
    let bare = &numbers.read(bare);
    let mut groups = bare.split([',', '\u{a0}', ' ']);
    let first = groups.next().unwrap_or_default();
    let rest: Vec<&str> = groups.collect();
    let whole = |group: &str| group.len() == 3 && group.bytes().all(|b| b.is_ascii_digit());
    let by_threes = !rest.is_empty()
        && (1..=3).contains(&first.len())
        && rest.iter().enumerate().all(|(at, group)| {
            let units =
                if at + 1 == rest.len() { group.split('.').next().unwrap_or_default() } else { group };
            whole(units)
        });
    let plain = if by_threes { format!("{first}{}", rest.concat()) } else { bare.clone() };
    if negative { format!("-{plain}") } else { plain }
}

fn yes_no(text: &str) -> Option<bool> {
    match text.to_lowercase().as_str() {
        "yes" | "y" | "true" | "1" | "x" | "✓" => Some(true),
        "no" | "n" | "false" | "0" => Some(false),
        _ => None,
    }
}

/// A day as ISO 8601: written so, or by its numbers in the country's order, or with the name of its month.
fn day(text: &str, order: DayOrder, year: i32) -> Result<String, String> {
    let wrong = || format!("'{text}' is not a day; a day is written 2025-03-31");
    let parts: Vec<&str> =
        text.split(|c: char| !c.is_alphanumeric()).filter(|part| !part.is_empty()).collect();
    let numbers: Vec<Option<i32>> = parts.iter().map(|part| part.parse().ok()).collect();
    let (y, m, d) = match (parts.as_slice(), numbers.as_slice()) {
        ([first, ..], [Some(a), Some(b), Some(c)]) if first.len() == 4 => (*a, *b, *c),
        (_, [Some(a), Some(b), Some(c)]) => match order {
            DayOrder::MonthDayYear => (*c, *a, *b),
            DayOrder::DayMonthYear => (*c, *b, *a),
            DayOrder::YearMonthDay => (*a, *b, *c),
        },
        ([_, name, _], [Some(d), None, Some(y)]) => (*y, month(name).ok_or_else(wrong)?, *d),
        ([name, ..], [None, Some(d), Some(y)]) => (*y, month(name).ok_or_else(wrong)?, *d),
        ([_, name], [Some(d), None]) => (year, month(name).ok_or_else(wrong)?, *d),
        ([name, _], [None, Some(d)]) => (year, month(name).ok_or_else(wrong)?, *d),
        _ => return Err(wrong()),
    };
    let y = if (0..100).contains(&y) { y + 2000 } else { y };
    let month = u8::try_from(m).ok().and_then(|m| Month::try_from(m).ok()).ok_or_else(wrong)?;
    let day = u8::try_from(d).map_err(|_| wrong())?;
    Date::from_calendar_date(y, month, day).map(|date| date.to_string()).map_err(|_| wrong())
}

/// A month by its name or its first three letters.
fn month(name: &str) -> Option<i32> {
    let name = name.to_lowercase();
    let starts = |m: &u8| {
        let full = Month::try_from(*m).map(|month| month.to_string().to_lowercase()).unwrap_or_default();
        name.len() >= 3 && full.starts_with(&name)
    };
    (1..=12u8).find(starts).map(i32::from)
}

fn choice(text: &str, options: &[Choice]) -> Result<String, String> {
    let same = |one: &str| one.eq_ignore_ascii_case(text);
    let found = options.iter().find(|option| same(option.id) || same(option.label));
    found.map(|option| option.id.to_owned()).ok_or_else(|| {
        if options.len() <= MOST_TOLD {
            let labels: Vec<&str> = options.iter().map(|option| option.label).collect();
            return format!("'{text}' is none of: {}", labels.join(", "));
        }
        format!("'{text}' is none of the list; it might be {}", nearest(text, options).join(", "))
    })
}

/// How many choices are told; of a longer list those that are nearest.
const MOST_TOLD: usize = 12;
const NEAREST: usize = 4;

/// The choices whose code or words are nearest to a text.
fn nearest(text: &str, options: &[Choice]) -> Vec<&'static str> {
    let text = text.to_lowercase();
    let apart = |option: &Choice| {
        let of = |one: &str| strsim::damerau_levenshtein(&one.to_lowercase(), &text);
        of(option.id).min(of(option.label))
    };
    let mut sorted: Vec<&Choice> = options.iter().collect();
    sorted.sort_by_key(|option| apart(option));
    sorted.into_iter().take(NEAREST).map(|option| option.label).collect()
}

fn person(text: &str, household: &Household) -> Result<String, String> {
    let same = |one: &str| one.to_lowercase() == text.to_lowercase();
    let named = household.people.iter().filter(|person| {
        let first = person.name.split_whitespace().next().unwrap_or_default();
        same(&person.id) || same(&person.name) || same(first)
    });
    let named: Vec<_> = named.collect();
    match named.as_slice() {
        [one] => Ok(one.id.clone()),
        [] => Err(format!("nobody in the household is called '{text}'")),
        _ => Err(format!("several people are called '{text}': write the whole name")),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn of_a_long_list_the_nearest_are_told() {
        const LONG: [Choice; 14] = {
            let mut all = [Choice::new("9000", "9000 Other"); 14];
            all[3] = Choice::new("3601", "3601 Salary");
            all[7] = Choice::new("3610", "3610 Annuity");
            all
        };
        let told = choice("3061", &LONG).expect_err("there is none");
        assert!(told.starts_with("'3061' is none of the list; it might be 3601 Salary, "), "{told}");
        assert_eq!(choice("3610", &LONG), Ok("3610".to_owned()));
        assert!(choice("3061", &LONG[2..5]).expect_err("there is none").contains("none of: 9000 Other, "));
    }

    #[test]
    fn amounts_are_read_as_people_write_them_and_never_guessed() {
        for (text, plain) in [
            ("1,234.50", "1234.50"),
            ("$ 1,234", "1234"),
            ("CA$12.00", "12.00"),
            ("(45.10)", "-45.10"),
            ("−45.10", "-45.10"),
            ("1 234 567.8", "1234567.8"),
            ("12,5", "12,5"),
            ("1,23,456", "1,23,456"),
        ] {
            assert_eq!(amount(text, Numbers::Point), plain, "{text}");
        }
    }

    #[test]
    fn days_are_read_in_the_countrys_order() {
        let read = |text: &str, order| day(text, order, 2025).ok();
        for text in ["2025-05-14", "5/14/2025", "5/14/25", "14 May 2025", "May 14, 2025", "14 may", "May 14"]
        {
            assert_eq!(read(text, DayOrder::MonthDayYear).as_deref(), Some("2025-05-14"), "{text}");
        }
        assert_eq!(read("14.5.2025", DayOrder::DayMonthYear).as_deref(), Some("2025-05-14"));
        for wrong in ["14/5/2025", "2025-02-30", "soon", "5/14", "Ma 14"] {
            assert_eq!(read(wrong, DayOrder::MonthDayYear), None, "{wrong}");
        }
    }
}
