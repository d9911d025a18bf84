//! Edges by date: how near a person's date of birth is to one with another tax. Ages decide at the end of the year and by months, so
//! that what a day more or less does to the tax of this year is what the passing of time does to that of a later one.

use crate::{effect::total, household::Household, pack::Registry, search::Stop};
use hembo_money::Money;
use serde::Serialize;
use time::{Date, Duration};
use utoipa::ToSchema;

/// The nearest other date of birth, later or earlier, with another tax.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Birthday {
    /// The person.
    pub person: String,
    /// The first date with another tax, ISO 8601.
    pub born: String,
    /// So many days later; below zero earlier.
    pub days: i64,
    /// By how much the total changes.
    pub change: Money,
}

/// How far is looked, in days, as ages change within a year; and in which steps, as some law goes by months.
const FAR: i64 = 366;
const STEP: i64 = 28;

/// The nearest of every person in both directions within a year, what changes the tax most first; nothing where it was stopped.
pub fn birthdays(household: &Household, registry: &Registry, stop: &Stop) -> Option<Vec<Birthday>> {
    let now = total(household, registry, stop)?;
    let mut found = Vec::new();
    for (place, born) in
        household.people.iter().enumerate().filter_map(|(place, person)| Some((place, person.born?)))
    {
        let at = |days: i64| {
            let born = born.checked_add(Duration::days(days))?;
            let mut other = household.clone();
            other.people[place].born = Some(born);
            Some((born, total(&other, registry, stop)?))
        };
        for sign in [1, -1] {
            found.extend(nearest(|days| at(sign * days), now).map(|(days, born, then)| Birthday {
                person: household.people[place].id.clone(),
                born: born.to_string(),
                days: sign * days,
                change: then - now,
            }));
            if stop.is_stopped() {
                return None;
            }
        }
    }
    found.sort_by_key(|one| (-one.change.cents().abs(), one.days.abs()));
    Some(found)
}

/// The fewest days with another tax than now, where a year has another one. A date that cannot be is no edge.
fn nearest(at: impl Fn(i64) -> Option<(Date, Money)>, now: Money) -> Option<(i64, Date, Money)> {
    let differs = |days: i64| at(days).filter(|(_, then)| *then != now);
    let steps = (1..FAR / STEP + 1).map(|n| n * STEP).chain([FAR]);
    let (mut high, mut found) = { steps }.find_map(|days| Some((days, differs(days)?)))?;
    let mut low = (high - STEP).max(0);
    while high - low > 1 {
        let middle = (low + high) / 2;
        match differs(middle) {
            Some(there) => (high, found) = (middle, there),
            None => low = middle,
        }
    }
    Some((high, found.0, found.1))
}
