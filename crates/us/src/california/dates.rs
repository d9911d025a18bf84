//! What is due to California when (R&TC 18566, 19001, 19136, 19136.1): the return with its balance, and the instalments of the year after.

use super::{
    adjustments::L17,
    payments::{BALANCE, L64, L71},
};
use crate::{figures::Figures, filing_status::Status, status::files_apart};
use hembo_core::{Outcome, dates::DueDate, limit::percent, line::LineId, outcome::Line};
use hembo_money::{Money, Rounding};

/// The dates of every return of California of the chosen way.
pub fn dates(outcome: &Outcome, figures: &Figures, next: Option<&Figures>) -> Vec<DueDate> {
    let balances = outcome.lines.iter().filter(|line| line.id == BALANCE);
    balances.flat_map(|balance| of_return(outcome, balance, figures, next)).collect()
}

fn of_return(outcome: &Outcome, balance: &Line, figures: &Figures, next: Option<&Figures>) -> Vec<DueDate> {
    let Some(rules) = &figures.california_payments else { return Vec::new() };
    let is_due = balance.amount > Money::ZERO;
    let due = DueDate {
        day: figures.underpayment.until.0,
        what: if is_due { "California return and balance".into() } else { "California return".into() },
        whose: balance.whose.clone(),
        amount: is_due.then_some(balance.amount),
        words: "Paid by this day; the return alone may be filed six months later without asking.".into(),
        cite: "R&TC 18566, 18567, 19001".into(),
    };
    let amount = |id: LineId| {
        let found = outcome.lines.iter().find(|line| line.id == id && line.scope == balance.scope);
        found.map_or(Money::ZERO, |line| line.amount)
    };
    let back: Money = super::earned_income::PAID_OUT.iter().map(|line| amount(line)).sum();
    let (tax, withheld, income) = (amount(L64) - back, amount(L71), amount(L17));
    let days = next.map(|next| next.underpayment.due.as_slice()).unwrap_or_default();
    // A year like this one: with so much income only this year's tax protects, in a part.
    let status = if files_apart(outcome) { Status::Separate } else { Status::Joint };
    let part = rules.protecting_part(status, income);
    let left = tax.times(part, Money::WHOLE, Rounding::HalfUp) - withheld;
    if tax - withheld < *rules.least.of(status) {
        return vec![due];
    }
    let shares: Vec<String> = rules.shares.iter().map(|share| percent(*share)).collect();
    let words = format!(
        "{} of this year's tax less {withheld:#} withheld, if the year after is like it: {}.",
        percent(part),
        shares.join(", ")
    );
    let instalment = |(day, share): (&hembo_core::figures::Day, &hembo_money::Rate)| DueDate {
        day: day.0,
        what: format!("Estimated tax of California for {}", outcome.year + 1),
        whose: balance.whose.clone(),
        amount: Some(left.times(*share, Money::WHOLE, Rounding::HalfUp)),
        words: words.clone(),
        cite: "R&TC 19136, 19136.1, 19136.3".into(),
    };
    let parts = days.iter().zip(&rules.shares).map(instalment).filter(|due| due.amount > Some(Money::ZERO));
    std::iter::once(due).chain(parts).collect()
}
