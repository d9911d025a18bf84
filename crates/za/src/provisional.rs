//! Provisional tax (Fourth Schedule paras 17 to 27): the basic amount, both payments, what an estimate that was too low costs; and what is
//! due when.

use crate::{
    carried,
    facts::Facts,
    figures::Figures,
    income::Income,
    payments::{self, PROVISIONAL_PAPER},
    plan::{Filed, On},
    points::Points,
    rounding::{cents, half},
    tax,
};
use hembo_core::{
    Household, Outcome, Paper, Silent,
    dates::DueDate,
    forms::Required,
    household::Entry,
    lines, open_points,
    outcome::Line,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rate};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Provisional tax",
    lines: LINES,
    points: POINTS,
    figures: &["provisional", "dates"],
    ..Provision::NONE
};

lines! {
    BASIC = "za.basic_amount", "Basic amount", "Fourth Schedule para 19(1)(d)",
        "Taxable income assessed last without gains and lump sums, with the uplift of late years.";
    FIRST = "za.provisional_1", "First payment", "Fourth Schedule para 21(1)(a)",
        "A half of the tax on the estimate less the PAYE of six months.";
    SECOND = "za.provisional_2", "Second payment", "Fourth Schedule para 21(1)(b)",
        "The tax on the estimate less PAYE and the first payment.";
    PENALTY = "za.underestimation_penalty", "Penalty for too low an estimate", "Fourth Schedule para 20",
        "A fifth of what the tax on a part of the actual income is above what was paid; charged beside the assessment.";
    OTHER_INCOME = "za.provisional_income", "Income that asks for payments", "Fourth Schedule para 1 'provisional taxpayer'",
        "Taxable interest, foreign dividends and net rents.";
}

open_points! {
    PAYER = look "C50", "Fourth Schedule para 1", "Provisional payments are due for such income: enter the IRP6.";
    TOO_LOW = look "C51", "Fourth Schedule para 20", "The second estimate was too low.";
    LATE_YEARS = look "basic-amount", "Fourth Schedule para 19(1)(d)", "Enter what was assessed last: the basic amount decides what a low estimate costs.";
}

/// What stands on the papers about provisional tax.
fn paper<'h>(facts: &Facts, household: &'h Household, person: usize, kind: &str) -> Option<&'h Paper> {
    let id = &facts.people[person].id;
    let of = |paper: &&Paper| paper.kind == kind && paper.owners.iter().any(|owner| owner.person == *id);
    household.papers.iter().find(of)
}

/// Tax on an estimate after rebates and credits.
fn on_estimate(on: On<'_>, estimate: Money, credits: Money) -> Money {
    let table = tax::by_table(on.facts, &mut Silent, estimate);
    settled::or_zero(table - tax::rebates(on.facts, on.person) - credits)
}

/// The basic amount, the payments and the penalty, of the chosen way only.
pub fn record(on: On<'_>, trail: &mut impl Trail, household: &Household, income: &Income) {
    if !income.unpaid.is_zero() {
        on.made(trail, OTHER_INCOME, income.unpaid, &[], &[]);
    }
    let Some(estimates) = paper(on.facts, household, on.person, PROVISIONAL_PAPER.id) else { return };
    let (first, second) = (estimates.amount("estimate_1"), estimates.amount("estimate_2"));
    if first.is_zero() && second.is_zero() {
        return;
    }
    let figures = &on.facts.figures.provisional;
    let basic = basic_amount(on, trail, household, figures.uplift);
    let credits = estimates.amount("credits");
    let paye = on.own().of(&crate::certificates::brings::PAYE).iter().map(|item| item.amount).sum::<Money>();
    let first_payment =
        settled::or_zero(half(on_estimate(on, first, credits)) - estimates.amount("paye_half"));
    on.made(trail, FIRST, first_payment, &[], &[("Estimate", &first), ("Credits", &credits)]);
    let second_payment = settled::or_zero(on_estimate(on, second, credits) - paye - first_payment);
    on.made(
        trail,
        SECOND,
        second_payment,
        &[(FIRST, first_payment)],
        &[("Estimate", &second), ("PAYE", &paye)],
    );
    let paid = paye + first_payment + second_payment;
    let actual = income.taxable;
    let base = if actual > figures.large_above {
        let part = cents(actual, figures.part_large);
        (second < part).then(|| on_estimate(on, part, credits))
    } else {
        let part = cents(actual, figures.part_small);
        let low = second < part && second < basic;
        low.then(|| settled::lesser(on_estimate(on, part, credits), on_estimate(on, basic, credits)))
    };
    let penalty = base.map_or(Money::ZERO, |base| cents(settled::or_zero(base - paid), figures.penalty));
    on.made(
        trail,
        PENALTY,
        penalty,
        &[(BASIC, basic), (FIRST, first_payment), (SECOND, second_payment)],
        &[("Paid in time", &paid)],
    );
}

/// What was assessed last without gains and lump sums, with the uplift of late years.
fn basic_amount(on: On<'_>, trail: &mut impl Trail, household: &Household, uplift: Rate) -> Money {
    let last = paper(on.facts, household, on.person, carried::PAPER);
    let amount = |field: &str| last.map_or(Money::ZERO, |paper| paper.amount(field));
    let years = last.and_then(|paper| paper.boxes.get("uplift_years")).and_then(Entry::count).unwrap_or(0);
    let plain = settled::or_zero(amount("taxable") - amount("gain") - amount("lump_sums"));
    let basic = plain + cents(plain, uplift) * years;
    on.made(trail, BASIC, basic, &[], &[("Assessed last", &plain), ("Years of uplift", &years)])
}

/// The worksheet: where estimates were made.
pub fn worksheet(filed: Filed<'_>) -> Required {
    let made = [FIRST, SECOND].into_iter().any(|line| filed.trail.amount(line, filed.on.scope).is_some());
    Required::if_so(made, "no estimates of provisional tax")
}

/// Who must pay in advance, and estimates that were too low.
pub fn points(points: &mut Points<'_>) {
    for (place, person) in points.returns() {
        let name = points.name(person);
        let figures = &points.facts.figures.provisional;
        let income = points.amount(OTHER_INCOME, place);
        let trades = points.facts.people[person]
            .own
            .of(&crate::trade::brings::TRADES)
            .iter()
            .any(|trade| !trade.by_turnover);
        let estimates = paper(points.facts, points.household, person, PROVISIONAL_PAPER.id);
        let taxed = !points.amount(tax::NORMAL, place).is_zero();
        if (income > figures.small_income || trades) && taxed && estimates.is_none() {
            points.raise(&PAYER, points.at(person, "name"), format!("{name} is a provisional taxpayer."));
        }
        let penalty = points.amount(PENALTY, place);
        if !penalty.is_zero() {
            let message = format!("{name}: a penalty of {penalty:#} beside the assessment.");
            points.raise(&TOO_LOW, points.at(person, "name"), message);
        }
        let last = paper(points.facts, points.household, person, carried::PAPER);
        if let Some(estimates) = estimates.filter(|_| last.is_none()) {
            let message = format!("{name}: nothing is known of the last assessment.");
            points.raise(&LATE_YEARS, Place::paper(&estimates.id, "estimate_2"), message);
        }
    }
}

/// What is due when, of every return.
pub fn dates(outcome: &Outcome, figures: &Figures) -> Vec<DueDate> {
    let balances = outcome.lines.iter().filter(|line| line.id == payments::BALANCE);
    let mut all: Vec<DueDate> = balances.flat_map(|balance| of_return(outcome, balance, figures)).collect();
    all.sort_by_key(|due| due.day);
    all
}

fn of_return(outcome: &Outcome, balance: &Line, figures: &Figures) -> Vec<DueDate> {
    let amount = |id: &str| outcome.amount(id, &balance.scope);
    let provisional =
        amount(OTHER_INCOME) > figures.provisional.small_income || !amount(crate::trade::NET).is_zero();
    let due = |day: Date, what: String, amount: Option<Money>, words: &str, cite: &str| DueDate {
        day,
        what,
        whose: balance.whose.clone(),
        amount,
        words: words.into(),
        cite: cite.into(),
    };
    let close = if provisional { figures.dates.close_provisional.0 } else { figures.dates.close.0 };
    let mut all = vec![due(
        close,
        "Return".into(),
        (balance.amount > Money::ZERO).then_some(balance.amount),
        "Filed before the season closes; what is payable by the day of the assessment.",
        "TAA s 25; notice of the season",
    )];
    if !provisional {
        return all;
    }
    if balance.amount > Money::ZERO {
        let words = "Voluntary, so that no interest runs.";
        all.push(due(
            figures.provisional.third.0,
            "Third payment".into(),
            Some(balance.amount),
            words,
            "Fourth Schedule para 23A",
        ));
    }
    let owed = settled::or_zero(amount(tax::NORMAL) - amount(payments::PAYE));
    for day in &figures.provisional.next_days {
        let words =
            "A half of this year's normal tax less PAYE, where the next year's income is estimated the same.";
        all.push(due(
            day.0,
            format!("Payment for {}", outcome.year + 1),
            Some(half(owed)),
            words,
            "Fourth Schedule paras 19, 21, 23",
        ));
    }
    all
}
