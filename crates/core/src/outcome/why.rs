//! Why the chosen way: what it gains against the next one, where, what it gives up for it, and what would turn it; in sentences made from the
//! figures.

use super::{ComparedRow, Comparison, DecisionOutcome, Standing};
use crate::words::capital;
use hembo_money::Money;

/// The sentences; nothing where there is no other way with another tax.
pub(super) fn sentences(compared: &Comparison, decisions: &[DecisionOutcome]) -> Vec<String> {
    let [_, rest @ ..] = compared.ways.as_slice() else { return Vec::new() };
    let other = rest.iter().position(|way| way.standing == Standing::Dearer);
    let Some(column) = other.map(|at| at + 1) else { return Vec::new() };
    let next = &compared.ways[column];
    let what = next.but.strip_prefix("but ").unwrap_or(&next.name);
    let mut all = vec![format!("{} would be {:#} more tax.", capital(what), next.more.to_whole())];
    // A result that stands as a row of the next one tells nothing of where.
    let is_result = |line: &str| compared.rows.iter().any(|row| row.result && row.line == line);
    let tells = |row: &&ComparedRow| !row.beside && !row.line.is_empty() && !is_result(&row.line);
    let rows: Vec<&ComparedRow> = compared.rows.iter().filter(tells).collect();
    let gains = largest(&rows, column, |helps| helps);
    let costs = largest(&rows, column, |helps| !helps);
    let told = |row: &ComparedRow| {
        let [mine, theirs] = [0, column].map(|at| row.amounts[at].unwrap_or_default().to_whole());
        format!("{} ({mine:#} instead of {theirs:#})", row.label)
    };
    // What is given up by a hair beside what is gained is not worth a word.
    let costs =
        costs.filter(|cost| gains.is_some_and(|gain| size(cost, column) * WORTH_A_WORD > size(gain, column)));
    match (gains, costs) {
        (Some(gain), Some(cost)) => {
            all.push(format!("It gains most at {}, and gives up most at {}.", told(gain), told(cost)));
        }
        (Some(gain), None) => {
            all.push(format!("It gains most at {}, and gives up next to nothing.", told(gain)))
        }
        (None, _) => {}
    }
    all.extend(turn(decisions));
    all
}

/// So many times as much as what is given up is gained at the most, where it is told.
const WORTH_A_WORD: i64 = 50;

/// By how much a row differs, whichever way is better.
fn size(row: &ComparedRow, column: usize) -> Money {
    let by = helps(row, column);
    if by.is_negative() { -by } else { by }
}

/// Whether a row is better in the chosen way than in another: less of what comes in or is taxed, more of what takes off or
/// makes a credit.
fn helps(row: &ComparedRow, column: usize) -> Money {
    let [mine, theirs] = [0, column].map(|at| row.amounts[at].unwrap_or_default());
    if row.takes_off || row.lowers { mine - theirs } else { theirs - mine }
}

/// The row that differs most in favour of the chosen way, or most against it.
fn largest<'a>(
    rows: &[&'a ComparedRow],
    column: usize,
    side: impl Fn(bool) -> bool,
) -> Option<&'a ComparedRow> {
    let on_side = |row: &&&ComparedRow| {
        let by = helps(row, column);
        !by.to_whole().is_zero() && side(!by.is_negative())
    };
    rows.iter().filter(on_side).max_by_key(|row| size(row, column)).copied()
}

/// What would turn the decision that is worth most.
fn turn(decisions: &[DecisionOutcome]) -> Option<String> {
    let open = decisions.iter().filter(|decision| decision.arises && !decision.worth.is_zero());
    let first =
        open.filter(|decision| decision.break_even.is_some()).max_by_key(|decision| decision.worth)?;
    Some(format!("{}.", capital(first.break_even.as_ref()?)))
}
