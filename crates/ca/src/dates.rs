//! What is due when (ITA 150, 156, 156.1, 248): each return with its balance, and the instalments of the year after by this year's
//! tax, where that year owes as much again.

use crate::{business, figures::Figures, foreign_property, payments};
use hembo_core::{
    Outcome,
    dates::{DueDate, instalments, months_after},
    outcome::Line,
    settled,
};
use hembo_money::Money;
use time::Date;

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
    let died = died(outcome, balance);
    let of_death =
        died.filter(|day| *day >= rules.death_from.0).map(|day| months_after(day, rules.death_months));
    let [due, due_business] = [rules.due.0, rules.due_business.0]
        .map(|day| of_death.map_or(day, |later| settled::greater(later, day)));
    let business = outcome.lines.iter().any(|line| line.id == business::BEFORE && !line.amount.is_zero());
    let mut all = vec![DueDate {
        day: if business && !is_due { due_business } else { due },
        what: match (is_due, business) {
            (true, true) => "Balance".into(),
            (true, false) => "Return and balance".into(),
            _ => "Return".into(),
        },
        whose: balance.whose.clone(),
        amount: is_due.then_some(balance.amount),
        words: "Filed and paid by this day.".into(),
        cite: match of_death {
            Some(_) => "ITA 150(1)(b), 248(1) “balance-due day” (b)".into(),
            None => "ITA 150(1)(d)(i), 156.1(4), 248(1) “balance-due day”".into(),
        },
    }];
    if is_due && business {
        all.push(DueDate {
            day: due_business,
            what: "Return".into(),
            whose: balance.whose.clone(),
            amount: None,
            words: "Filed by this day, as one of the couple has a business; the balance is due before."
                .into(),
            cite: "ITA 150(1)(d)(ii)".into(),
        });
    }
    all.extend(statement(outcome, balance, figures, all[all.len() - 1].day));
    let amount = |id: &str| {
        let found = outcome.lines.iter().find(|line| line.id == id && line.scope == balance.scope);
        found.map_or(Money::ZERO, |line| line.amount)
    };
    let owing = amount(payments::NET_TAX) - amount(payments::WITHHELD);
    if owing <= rules.instalments_above || died.is_some() {
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

/// The day on which the one whose return it is died.
fn died(outcome: &Outcome, balance: &Line) -> Option<Date> {
    let is_own = |place: usize| balance.scope == format!("return/{place}");
    outcome.columns.iter().find(|column| column.place.is_some_and(is_own)).and_then(|column| column.died)
}

/// The statement of foreign property, due with the return.
fn statement(outcome: &Outcome, balance: &Line, figures: &Figures, with: Date) -> Option<DueDate> {
    let rules = &figures.foreign_property;
    let found =
        outcome.lines.iter().find(|line| line.id == foreign_property::COST && line.scope == balance.scope);
    let due = found.is_some_and(|line| line.amount > rules.above);
    due.then(|| DueDate {
        day: with,
        what: "Statement of foreign property".into(),
        whose: balance.whose.clone(),
        amount: None,
        words: format!(
            "Form T1135, filed with the return; a day too late costs {:#}, at least {:#}, at most {:#}.",
            rules.late_day, rules.late_least, rules.late_most
        ),
        cite: "ITA 233.3(3), 162(7)".into(),
    })
}
