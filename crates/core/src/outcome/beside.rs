//! Two outcomes side by side, row by row of the Spread for all together: a return and a trial of it.

use super::{Outcome, Row, Section};
use hembo_money::Money;
use serde::Serialize;
use utoipa::ToSchema;

/// A section of the Spread, in both.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BesideSection {
    /// The heading.
    pub title: String,
    /// The rows that either has.
    pub rows: Vec<BesideRow>,
}

/// A row of the Spread, in both.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BesideRow {
    /// The words at the left.
    pub label: String,
    /// The line of the returns.
    pub line: String,
    /// Whose lines the trial's amount adds up: `return/0`, `person/ID`; none where it has no such row.
    pub scopes: Vec<String>,
    /// Shown with a minus sign.
    pub takes_off: bool,
    /// A balance: told as due or back.
    pub balance: bool,
    /// A result.
    pub result: bool,
    /// The end of the computation.
    pub end: bool,
    /// The amount of the return; nothing where it has no such row.
    pub was: Option<Money>,
    /// The amount of the trial.
    pub now: Option<Money>,
    /// Whether it counts in the way of the return.
    pub counted: bool,
    /// Whether it counts in that of the trial.
    pub counts: bool,
    /// The trial less the return; what takes off is less where it grows.
    pub difference: Money,
}

/// Both, section by section: in the order of the return, what only the trial has after what stands before it there.
pub fn beside(was: &Outcome, now: &Outcome) -> Vec<BesideSection> {
    let titles = merged(&was.spread, &now.spread, |section| section.title.as_str());
    let of = |outcome: &Outcome, title: &str| -> Vec<Row> {
        let found = outcome.spread.iter().filter(|section| section.title == title);
        found.flat_map(|section: &Section| section.rows.clone()).collect()
    };
    let section =
        |title: &str| BesideSection { title: title.to_owned(), rows: rows(&of(was, title), &of(now, title)) };
    titles.into_iter().map(section).collect()
}

/// What either list has, by what tells them apart.
fn merged<'a, T>(was: &'a [T], now: &'a [T], key: impl Fn(&'a T) -> &'a str) -> Vec<&'a str> {
    let mut all: Vec<&str> = Vec::new();
    for one in was.iter().map(&key) {
        if !all.contains(&one) {
            all.push(one);
        }
    }
    let mut after = 0;
    for one in now.iter().map(&key) {
        match all.iter().position(|known| *known == one) {
            Some(at) => after = at + 1,
            None => {
                all.insert(after, one);
                after += 1;
            }
        }
    }
    all
}

fn rows(was: &[Row], now: &[Row]) -> Vec<BesideRow> {
    let labels = merged(was, now, |row| row.label.as_str());
    // By their words: two rows may show one line.
    let row = |label: &str| {
        let find = |rows: &[Row]| rows.iter().find(|row| row.label == label).cloned();
        let (old, new) = (find(was), find(now));
        let about = new.clone().or_else(|| old.clone())?;
        let amount = |row: &Option<Row>| row.as_ref()?.together.as_ref().map(|cell| cell.amount);
        let (old_amount, new_amount) = (amount(&old), amount(&new));
        let more = new_amount.unwrap_or_default() - old_amount.unwrap_or_default();
        Some(BesideRow {
            label: about.label,
            line: about.line,
            scopes: new
                .as_ref()
                .and_then(|row| row.together.as_ref())
                .map(|cell| cell.scopes.clone())
                .unwrap_or_default(),
            takes_off: about.takes_off,
            balance: about.balance,
            result: about.result,
            end: about.end,
            was: old_amount,
            now: new_amount,
            counted: old.is_some_and(|row| row.counts),
            counts: new.is_some_and(|row| row.counts),
            difference: if about.takes_off { -more } else { more },
        })
    };
    labels.into_iter().filter_map(row).collect()
}
