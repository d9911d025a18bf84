//! What is due when as a calendar file (RFC 5545): an event of the whole day each, with a reminder two weeks before.

use hembo_core::{dates::DueDate, pack::About};
use icalendar::{Alarm, Calendar, Component, Event, EventLike};

/// How many days before a day it is reminded of.
const DAYS_BEFORE: i64 = 14;

/// The days of a household as a calendar; `about` is its law, `key` names it, so that a later one replaces these events.
pub fn calendar(dates: &[DueDate], household: &str, about: About, key: &str) -> String {
    let mut calendar = Calendar::new();
    calendar.name(household);
    for due in dates {
        let told = |amount| format!(": {} {}", about.symbol, about.numbers.amount(amount));
        let amount = due.amount.map(told).unwrap_or_default();
        let title = format!("{household} · {}{amount}", due.what);
        let mut event = Event::new();
        event
            .uid(&format!("{key}-{}-{}-{}@hembo", due.day, slug(&due.what), slug(&due.whose)))
            .summary(&title)
            .description(&format!("{}. {} {}", due.whose, due.words, due.cite))
            .starts(due.day);
        event.alarm(Alarm::display(&title, chrono::Duration::days(-DAYS_BEFORE)));
        calendar.push(event.done());
    }
    calendar.to_string()
}

/// The letters and digits of a text.
fn slug(text: &str) -> String {
    text.chars().filter(char::is_ascii_alphanumeric).collect()
}
