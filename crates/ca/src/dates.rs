//! What is due when (ITA 150, 156, 156.1, 248): each return with its balance, and the instalments of the year after by this year's
//! tax, where that year owes as much again.

use crate::{figures::Figures, payments};
use hembo_core::{
    Outcome,
    dates::{DueDate, instalments},
    outcome::Line,
};
use hembo_money::Money;

/// The dates of every return.
pub fn dates(outcome: &Outcome, figures: &Figures) -> Vec<DueDate> {
    let balances = outcome.lines.iter().filter(|line| line.id == payments::BALANCE);
    let mut all: Vec<DueDate> = balances.flat_map(|balance| of_return(outcome, balance, figures)).collect();
    all.sort_by_key(|due| due.day);
    all
}

fn of_return(outcome: &Outcome, balance: &Line, figures: &Figures) -> Vec<DueDate> {
    let rules = &figures.dates;
    let is_due = balance.amount > Money::ZERO;
    let mut all = vec![DueDate {
        day: rules.due.0,
        what: if is_due { "Return and balance".into() } else { "Return".into() },
        whose: balance.whose.clone(),
        amount: is_due.then_some(balance.amount),
        words: "Filed and paid by this day.".into(),
        cite: "ITA 150(1)(d)(i), 156.1(4), 248(1) “balance-due day”".into(),
    }];
    let amount = |id: &str| {
        let found = outcome.lines.iter().find(|line| line.id == id && line.scope == balance.scope);
        found.map_or(Money::ZERO, |line| line.amount)
    };
    let owing = amount(payments::NET_TAX) - amount(payments::WITHHELD);
    if owing <= rules.instalments_above {
        return all;
    }
    let days: Vec<_> = rules.instalments.iter().map(|day| day.0).collect();
    let words = format!(
        "A quarter of {owing:#}, the net tax owing of this year; asked for where the year after owes more than {:#} again.",
        rules.instalments_above
    );
    all.extend(instalments(owing, &days, Money::CENT).into_iter().map(|(day, amount)| DueDate {
        day,
        what: format!("Instalment for {}", outcome.year + 1),
        whose: balance.whose.clone(),
        amount: Some(amount),
        words: words.clone(),
        cite: "ITA 156(1)(b), 156.1(1), (2)".into(),
    }));
    all
}
