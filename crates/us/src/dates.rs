//! What is due when (§§6072, 6151, 6654): the return with its balance, and the payments of the year after by which no addition
//! for underpayment arises, if that year is like this one.

use crate::{california, figures::Figures, income, payments, status, underpayment};
use hembo_core::{
    Outcome,
    dates::{DueDate, instalments},
    outcome::Line,
};
use hembo_money::{Money, Rounding};

/// The dates of every return of the chosen way.
pub fn dates(outcome: &Outcome, figures: &Figures, next: Option<&Figures>) -> Vec<DueDate> {
    let balances = outcome.lines.iter().filter(|line| line.id == payments::BALANCE);
    let mut all: Vec<DueDate> =
        balances.flat_map(|balance| of_return(outcome, balance, figures, next)).collect();
    all.extend(california::dates::dates(outcome, figures, next));
    all.sort_by_key(|due| due.day);
    all
}

fn of_return(outcome: &Outcome, balance: &Line, figures: &Figures, next: Option<&Figures>) -> Vec<DueDate> {
    let rules = &figures.underpayment;
    let is_due = balance.amount > Money::ZERO;
    let mut all = vec![DueDate {
        day: rules.until.0,
        what: if is_due { "Return and balance".into() } else { "Return".into() },
        whose: balance.whose.clone(),
        amount: is_due.then_some(balance.amount),
        words: "Filed and paid by this day; an extension is of the day for the return alone.".into(),
        cite: "IRC §§6072(a), 6151(a)".into(),
    }];
    let days: Vec<_> = next.into_iter().flat_map(|next| &next.underpayment.due).map(|day| day.0).collect();
    let amount = |id: &str| {
        let found = outcome.lines.iter().find(|line| line.id == id && line.scope == balance.scope);
        found.map_or(Money::ZERO, |line| line.amount)
    };
    let (tax, withheld) = (amount(underpayment::CURRENT), amount(payments::L25D));
    if days.is_empty() || tax - withheld < rules.no_penalty_below {
        return all;
    }
    let high = if status::files_apart(outcome) { rules.high_above_separate } else { rules.high_above };
    let is_high = amount(income::AGI) > high;
    let whole = if is_high { tax.times(rules.last_part_high, Money::WHOLE, Rounding::HalfUp) } else { tax };
    let part = if is_high {
        format!("{} times this year's tax", rules.last_part_high)
    } else {
        "This year's tax".into()
    };
    let words = format!("{part}, {whole:#}, less {withheld:#} if as much is withheld again; in four parts.");
    all.extend(instalments(whole - withheld, &days, Money::WHOLE).into_iter().map(|(day, amount)| DueDate {
        day,
        what: format!("Estimated tax for {}", outcome.year + 1),
        whose: balance.whose.clone(),
        amount: Some(amount),
        words: words.clone(),
        cite: "IRC §6654(c), (d)(1)(B)(ii), (C)".into(),
    }));
    all
}
