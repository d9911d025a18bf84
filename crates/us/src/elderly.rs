//! The credit for the elderly or the disabled (§22), Schedule R.

use crate::{
    facts::PersonFacts,
    filing_status::Status,
    income,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::Field,
    forms::Required,
    limit, limits, lines, open_points,
    pack::{FILER, Question},
    point::Gather,
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    person_questions: &[
        Question {
            of: FILER,
            from_age: 0,
            field: Field::amount(ask::DISABILITY_INCOME, "", "Taxed disability pension under 65")
                .help("Of someone retired on permanent and total disability; the credit of Schedule R."),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::amount(ask::UNTAXED_PENSIONS, "", "Untaxed pensions but social security")
                .help("Of veterans, for disability; they lower the credit of Schedule R."),
        },
    ],
    figures: &["elderly"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const DISABILITY_INCOME: &str = "disability_income";
    pub const UNTAXED_PENSIONS: &str = "untaxed_pensions";
}

lines! {
    INITIAL = "us.sched_r.12", "Amount of the elderly or disabled", "IRC §22(c)(2)",
        "From 65 on; under 65 no more than the taxed disability pension.";
    UNTAXED = "us.sched_r.13c", "Untaxed pensions", "IRC §22(c)(3)",
        "Social security that is not taxed, and pensions that are none of it.";
    EXCESS = "us.sched_r.17", "Half of the income above the amount", "IRC §22(d)",
        "Adjusted gross income above an amount, by half.";
    pub CREDIT = "us.sched_3.6d", "Credit for the elderly or disabled", "IRC §22",
        "A part of what is left of the amount, up to the tax.";
}

limits! {
    TAX = "us.limit.elderly_tax" on CREDIT, "Credit for the elderly or disabled", "over the tax, and lost", "IRC §26(a)";
}

open_points! {
    PENSIONS_ASKED = blocks "schedule-r-pensions", "IRC §22(c)(3)(B)",
        "Enter them, zero too: they lower the credit.";
}

/// How a filer qualifies: by age, or by an amount of taxed disability pension.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Qualifies {
    ByAge,
    ByPension(Money),
}

fn qualifies(on: On<'_>, about: &PersonFacts) -> Option<Qualifies> {
    let figures = &on.facts.figures.elderly;
    if about.nonresident_alien && on.unit.status != Status::Joint {
        None
    } else if about.reached(figures.age, on.facts.year_end) {
        Some(Qualifies::ByAge)
    } else {
        let pension = about.disability_income.to_whole();
        (!pension.is_zero()).then_some(Qualifies::ByPension(pension))
    }
}

/// Line 12.
fn initial(on: On<'_>) -> Money {
    let figures = &on.facts.figures.elderly;
    if on.unit.status == Status::Separate && on.facts.apart_all_year != Some(true) {
        return Money::ZERO;
    }
    let all: Vec<_> = on.unit.people.iter().filter_map(|&p| qualifies(on, &on.facts.people[p])).collect();
    let full = match all.len() {
        0 => return Money::ZERO,
        1 => *figures.one.of(on.unit.status),
        _ => figures.both,
    };
    let aged = all.contains(&Qualifies::ByAge);
    let pensions: Money =
        all.iter().map(|q| if let Qualifies::ByPension(p) = q { *p } else { Money::ZERO }).sum();
    // Beside a spouse of age the pension comes on top of that one's amount (Schedule R, line 11).
    let by_age = if aged { figures.one.joint } else { Money::ZERO };
    if aged && pensions.is_zero() { full } else { settled::lesser(full, by_age + pensions) }
}

/// What the credit starts from.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Line 11a.
    pub agi: Money,
    /// Social security that is not taxed.
    pub untaxed_benefits: Money,
    /// The tax that earlier credits leave.
    pub left: Money,
}

/// Schedule 3 line 6d.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let initial = initial(on);
    if initial.is_zero() || !on.unit.main {
        return trail.line(CREDIT, on.scope, Money::ZERO, |_| {});
    }
    let figures = &on.facts.figures.elderly;
    trail.line(INITIAL, on.scope, initial, |_| {});
    let pensions: Money = on.unit.people.iter().map(|&p| on.facts.people[p].untaxed_pensions).sum();
    let untaxed = trail.line(UNTAXED, on.scope, from.untaxed_benefits + pensions.to_whole(), |i| {
        i.figure("Social security not taxed", from.untaxed_benefits);
    });
    let start = *figures.income_from.of(on.unit.status);
    let excess = limit::share_above(trail, from.agi, start, figures.income_rate, Money::WHOLE);
    trail.line(EXCESS, on.scope, excess, |i| {
        i.line(income::AGI, on.scope, from.agi).figure("Above", start);
    });
    let left = limit::or_zero(trail, initial - untaxed - excess);
    let full = left.times(figures.rate, Money::WHOLE, Rounding::HalfUp);
    let credit = limit::cap(trail, TAX.at(on.scope), full, from.left);
    trail.line(CREDIT, on.scope, credit, |i| {
        i.line(INITIAL, on.scope, initial)
            .line(UNTAXED, on.scope, untaxed)
            .line(EXCESS, on.scope, excess)
            .figure("Rate", figures.rate);
    })
}

/// Schedule R: where there is a credit.
pub fn schedule_r(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CREDIT), "no credit for the elderly or disabled")
}

/// Pensions that were not said.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        if points.amount(CREDIT, place).is_zero() {
            continue;
        }
        for &person in &unit.people {
            if points.said(person, ask::UNTAXED_PENSIONS) {
                continue;
            }
            let message =
                format!("Does {} have pensions that are not taxed?", points.facts.people[person].name);
            points.raise(&PENSIONS_ASKED, points.at(person, ask::UNTAXED_PENSIONS), message);
        }
    }
}
