//! Tax by the scale and what comes off it (ITA BC 6, LJ 1, LC 13, LE 1, LE 2), in the order in which credits are used.

use crate::{
    facts::Facts,
    income::{self, Income},
    investments, last_assessment, overseas, pay,
    plan::On,
    points::Points,
    trusts,
};
use hembo_core::{
    Paper, Silent,
    field::Field,
    limit::{self, PhaseOut},
    limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    pack::{FILER, Question},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Tax and credits",
    lines: LINES,
    limits: LIMITS,
    person_questions: &[Question {
        of: FILER,
        from_age: 0,
        field: Field::count(
            ask::BENEFIT_MONTHS,
            "",
            "Months with a main benefit, NZ Super or a veteran's pension",
            12,
        )
        .help("Or with an overseas equivalent: in them there is no independent earner credit. None: 0."),
    }],
    points: POINTS,
    figures: &["scale", "earner_credit", "levy"],
    carries: CARRIES,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const BENEFIT_MONTHS: &str = "benefit_months";
}

lines! {
    pub TAX = "nz.tax", "Tax by the scale", "ITA BC 6, Schedule 1 Part A clause 1",
        "Each rate on its slice of taxable income, rounded once.";
    pub EARNER = "nz.ietc", "Independent earner credit", "ITA LC 13",
        "A part of a year's credit for every month; it shrinks with net income, and is none with Working for Families.";
    IMPUTED = "nz.imputation_all", "Imputation credits there are", "ITA LE 1, LE 3",
        "Of this year's dividends, trusts and partnerships, and brought forward.";
    pub IMPUTATION_USED = "nz.imputation_used", "Imputation credits used", "ITA LE 1, LE 2",
        "As much as the tax takes.";
    IMPUTATION_CARRIED = "nz.imputation_cf", "Imputation credits carried to the next year", "ITA LE 2, LE 3",
        "What the tax does not take.";
    pub AFTER_CREDITS = "nz.tax_after_credits", "Tax after these credits", "ITA BC 8",
        "Tax by the scale less credits for foreign tax, of independent earners and imputation.";
}

limits! {
    FROM = "nz.limit.earner" on EARNER, "Independent earner credit", "over net income where it shrinks", "ITA LC 13(2)";
    IMPUTATION_LIMIT = "nz.limit.imputation" on IMPUTATION_USED, "Imputation credits", "over the tax, carried forward", "ITA LE 2";
}

const CARRIES: &[Carry] =
    &[Carry { line: IMPUTATION_CARRIED, paper: last_assessment::PAPER, into: CarriedTo::Box("imputation") }];

open_points! {
    PAYE_ODD = look "C10", "ITA RD 3, Schedule 2", "Compare the code, the months and extra pays with the record of the payer.";
    MONTHS_ASKED = not_known "C41", "ITA LC 13(1)(d)", "Say for how many months; none is 0.";
    NEARLY = look "C42", "ITA LC 13(1)", "The credit begins at 24,000: look at the last items once more.";
    BLENDED = look "C68", "ITA LC 13; Taxation (Budget Measures) Act 2024", "The amount of this year is weighted by days; the office may come to up to 0.95 more or less.";
}

/// The tax of a return.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Tax {
    pub after_credits: Money,
    pub earner: Money,
}

/// Questions 32 to 34: tax by the scale less the credits that it pays nothing out for.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Tax {
    let scale = &on.facts.figures.scale;
    let tax = limit::by_brackets(trail, income.taxable, &scale.tops, scale.rates.iter().copied());
    on.made(trail, TAX, tax, &[(income::TAXABLE, income.taxable)], &[]);
    let foreign = overseas::credit(on, trail, &income.segments, tax, income.net);
    let earner = earner(on, trail, income.net, tax - foreign);
    let used = imputation(on, trail, income, tax - foreign - earner);
    let after = tax - foreign - earner - used;
    on.made(
        trail,
        AFTER_CREDITS,
        after,
        &[(TAX, tax), (overseas::CREDIT, foreign), (EARNER, earner), (IMPUTATION_USED, used)],
        &[],
    );
    Tax { after_credits: after, earner }
}

/// Whether the credit of independent earners is open in a way: not to a family that claims Working for Families.
fn earner_months(on: On<'_>) -> i64 {
    if on.plan.claims_family { 0 } else { on.who().earner_months }
}

/// LC 13: from a net income on a credit for every whole month; past another it shrinks by whole dollars. Where the law changed within
/// the year each part has its days.
fn earner(on: On<'_>, trail: &mut impl Trail, net: Money, tax: Money) -> Money {
    let figures = &on.facts.figures.earner_credit;
    let months = earner_months(on);
    trail.step(net - figures.from, months > 0);
    if months == 0 || net < figures.from {
        return Money::ZERO;
    }
    let days: i64 = figures.phases.iter().map(|phase| phase.days).sum();
    let mut weighted = Money::ZERO;
    for phase in &figures.phases {
        let rule = PhaseOut {
            step: Some((Money::WHOLE, Rounding::Down)),
            ..PhaseOut::continuous(phase.from, figures.rate, Money::CENT)
        };
        weighted += limit::phase_out(trail, FROM.at(on.scope), figures.amount, net, rule) * phase.days;
    }
    let year = Money::whole(days * 12);
    let credit = weighted.in_proportion(Money::whole(months), year, Money::CENT, Rounding::HalfUp);
    let taken = limit::lesser(trail, credit, tax);
    on.made(
        trail,
        EARNER,
        taken,
        &[(income::NET, net)],
        &[("A year", &figures.amount), ("Months", &months), ("At most the tax", &tax)],
    )
}

/// LE 1 to LE 3: what the tax takes of imputation credits, the rest is carried.
fn imputation(on: On<'_>, trail: &mut impl Trail, income: &Income, tax: Money) -> Money {
    let brought = last_assessment::of(on, last_assessment::IMPUTATION);
    let of_others = on.own().of(&trusts::brings::IMPUTATION);
    let all = income.imputation + sum(brought);
    if all.is_zero() {
        return Money::ZERO;
    }
    trail.line(IMPUTED, on.scope, all, |i| {
        i.line(investments::IMPUTATION, on.scope, income.imputation - sum(of_others));
        i.items(of_others).items(brought);
    });
    let used = limit::cap(trail, IMPUTATION_LIMIT.at(on.scope), all, tax);
    on.made(trail, IMPUTATION_USED, used, &[(IMPUTED, all)], &[("Tax", &tax)]);
    on.made(trail, IMPUTATION_CARRIED, all - used, &[(IMPUTED, all), (IMPUTATION_USED, used)], &[]);
    used
}

/// Months that decide on a credit and are not known, net income just below it.
pub fn points(points: &mut Points<'_>) {
    for (place, person) in points.returns() {
        one(points, place, person);
    }
}

/// PAYE of one job all year under the main code, more than 8 % from what the scale and the levy take of it.
fn unlike_scale(points: &mut Points<'_>, person: usize) {
    let id = &points.facts.people[person].id;
    let own = |paper: &&Paper| paper.owners.iter().any(|owner| owner.person == *id);
    let papers: Vec<&Paper> = points.papers(pay::PAY.id).filter(own).collect();
    let [paper] = papers.as_slice() else { return };
    let (gross, paye) = (paper.amount("gross"), paper.amount("paye"));
    if paper.text("code") != Some("M") || paye.is_zero() {
        return;
    }
    let figures = &points.facts.figures;
    let tax =
        limit::by_brackets(&mut Silent, gross, &figures.scale.tops, figures.scale.rates.iter().copied());
    let within = hembo_core::settled::lesser(gross, figures.levy.most);
    let expected = tax + within.times(figures.levy.rate, Money::CENT, Rounding::Down);
    let apart = if paye > expected { paye - expected } else { expected - paye };
    if apart * 100 > expected * 8 {
        let message = format!(
            "PAYE of {paye:#}, where code M takes about {:#}.",
            expected.rounded(Money::WHOLE, Rounding::HalfUp)
        );
        points.raise(&PAYE_ODD, Place::paper(&paper.id, "paye"), message);
    }
}

fn one(points: &mut Points<'_>, place: usize, person: usize) {
    unlike_scale(points, person);
    let facts: &Facts = points.facts;
    let figures = &facts.figures.earner_credit;
    let net = points.amount(income::NET, place);
    let asked = Place::person(&facts.people[person].id, ask::BENEFIT_MONTHS);
    let top = figures.phases.iter().map(|phase| phase.from).fold(Money::ZERO, hembo_core::settled::greater);
    let end = top + figures.amount.divided_by(figures.rate, Money::CENT, Rounding::Up);
    let in_play = net >= figures.from && net < end;
    if in_play && facts.people[person].filer && points.said(person, ask::BENEFIT_MONTHS).is_none() {
        let message = format!("{}: months with a benefit or NZ Super?", points.name(person));
        points.raise(&MONTHS_ASKED, asked.clone(), message);
    }
    let apart = figures.from - net;
    if apart > Money::ZERO && apart <= Money::whole(500) && facts.people[person].earner_months > 0 {
        let message = format!(
            "{}: net income is {apart:#} below a credit of {:#}.",
            points.name(person),
            figures.amount
        );
        points.raise(&NEARLY, asked.clone(), message);
    }
    if figures.phases.len() > 1 && !points.amount(EARNER, place).is_zero() && net >= figures.phases[0].from {
        points.raise(&BLENDED, asked, "The credit of this year follows two laws.");
    }
}
