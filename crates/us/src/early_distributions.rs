//! Additional taxes on retirement accounts (§72(t)), Form 5329 Part I: 10 % of early distributions, 25 % out of a SIMPLE IRA in
//! its first two years.

use crate::{
    education_plans, excess_contributions, ira_basis,
    papers::retirement::{Distribution, Early, Goes},
    points::Points,
    retirement,
    unit::{Filed, Now, On},
};
use hembo_core::{
    forms::Required,
    lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Scope, Silent, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, points: POINTS, figures: &["early_distribution"], ..Provision::NONE };

lines! {
    EARLY = "us.5329.3", "Early distributions, taxed more", "IRC §72(t)(1), (2)",
        "What is taxed of a person's early distributions, less what an exception spares.";
    EACH = "us.5329.4", "Additional tax on early distributions", "IRC §72(t)(1), (6)",
        "10 % of them, 25 % out of a SIMPLE IRA in its first two years.";
    pub TAX = "us.sched_2.8", "Additional tax on retirement and education accounts", "IRC §§72(t), 530(d)(4), 4973, 4974",
        "That of each person: early distributions, excess contributions, what was not distributed.";
}

open_points! {
    EXEMPT = blocks "5329-2", "IRC §72(t)(2)",
        "An exception has a reason, and spares no more than is taxed: look at both boxes.";
}

/// What of a distribution the additional tax takes: of an IRA not the `untaxed` part, of a Roth IRA what is left of `roth_taxed`.
fn subject(distribution: &Distribution, untaxed: Rate, roth_taxed: &mut Money, now: Now) -> Money {
    let before = settled::or_zero(distribution.taxed - distribution.given - distribution.converted);
    let taxed = match distribution.goes {
        Goes::Ira => before - before.times(untaxed, Money::CENT, Rounding::HalfUp),
        Goes::Roth => {
            let part = settled::lesser(distribution.gross.amount, *roth_taxed);
            *roth_taxed -= part;
            part
        }
        Goes::Pension if now.appreciation => before + distribution.appreciation,
        Goes::Pension | Goes::Wages | Goes::RothQualified => before,
    };
    settled::or_zero(taxed - distribution.exempt - distribution.disaster)
}

/// What of a person's early distributions is taxed more: of plans, out of a SIMPLE IRA in its first two years, of education plans.
pub fn subject_of(on: On<'_>, person: usize) -> [Money; 3] {
    let [plain, simple] = early_of(on, person);
    [plain, simple, education_plans::taxed_more(on.facts, person)]
}

fn of_person(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let figures = &on.facts.figures.early_distribution;
    let all = retirement::of(on.facts, person);
    if all.iter().all(|d| d.early.is_none()) {
        return Money::ZERO;
    }
    let [plain, simple] = early_of(on, person);
    let scope = Scope::Person(person);
    trail.line(EARLY, scope, plain + simple, |i| {
        i.items(all.iter().filter(|d| d.early.is_some()).map(|d| &d.gross));
    });
    let tax = plain.times(figures.rate, Money::WHOLE, Rounding::HalfUp)
        + simple.times(figures.simple_rate, Money::WHOLE, Rounding::HalfUp);
    trail.line(EACH, scope, tax, |i| {
        i.line(EARLY, scope, plain + simple).figure("Rate", figures.rate);
        if !simple.is_zero() {
            i.figure("Out of a SIMPLE IRA", simple).figure("Rate for that", figures.simple_rate);
        }
    })
}

/// Early distributions that are taxed more: of plans, and out of a SIMPLE IRA in its first two years.
fn early_of(on: On<'_>, person: usize) -> [Money; 2] {
    let (facts, now) = (on.facts, on.taxed_now(person));
    let all = retirement::of(facts, person);
    let mut roth_taxed = ira_basis::roth(facts, &mut Silent, person);
    let given: Money = all.iter().filter(|d| d.goes == Goes::Ira).map(|d| d.given).sum();
    let untaxed = ira_basis::untaxed_part(facts, person, given).unwrap_or(Rate::ZERO);
    let (mut plain, mut simple) = (Money::ZERO, Money::ZERO);
    for distribution in all {
        match distribution.early {
            Some(Early::Plain) => plain += subject(distribution, untaxed, &mut roth_taxed, now),
            Some(Early::Simple) => simple += subject(distribution, untaxed, &mut roth_taxed, now),
            None => {}
        }
    }
    [plain.to_whole(), simple.to_whole()]
}

/// Schedule 2 line 8, with the taxes on excess contributions and on what was not distributed; `for_ira` is the income by which the ranges
/// of IRA contributions go.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, for_ira: Money) -> Money {
    let mut parts = Vec::new();
    for &person in &on.unit.people {
        parts.push((person, EACH, of_person(on, trail, person)));
        let (line, amount) = education_plans::tax_of(on.facts, trail, person);
        parts.push((person, line, amount));
        let excess = excess_contributions::taxes_of(on, trail, person, for_ira);
        parts.extend(excess.into_iter().map(|(line, amount)| (person, line, amount)));
    }
    trail.line(TAX, on.scope, parts.iter().map(|(_, _, amount)| *amount).sum(), |i| {
        for (person, line, amount) in parts.into_iter().filter(|(_, _, amount)| !amount.is_zero()) {
            i.line(line, Scope::Person(person), amount);
        }
    })
}

/// Form 5329: where an exception is claimed that the payer did not know, the rate is that of a SIMPLE IRA, or an account holds too
/// much or paid out too little; else the tax goes straight to Schedule 2.
pub fn form_5329(filed: Filed<'_>) -> Required {
    let all = filed.on.unit.people.iter().flat_map(|&p| retirement::of(filed.on.facts, p));
    let mut needs = all.filter(|d| !d.exempt.is_zero() || d.early == Some(Early::Simple));
    let education = education_plans::any(filed.on);
    let excess = excess_contributions::any(filed);
    let why = if filed.has(TAX) {
        "the tax goes straight to Schedule 2"
    } else {
        "no early distribution, no excess contribution"
    };
    Required::if_so(needs.next().is_some() || education || excess, why)
}

/// An exception without a reason, or of more than is taxed.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    for distribution in (0..facts.people.len()).flat_map(|p| retirement::of(facts, p)) {
        let paper = &points.household.papers[distribution.gross.paper];
        let reason = paper.text("exempt.why").is_some();
        let wrong = distribution.exempt > distribution.gross.amount
            || (distribution.early.is_some() && reason == distribution.exempt.is_zero());
        if wrong {
            points.raise(
                &EXEMPT,
                Place::paper(&paper.id, "exempt"),
                "The exception and its amount do not fit.",
            );
        }
    }
}
