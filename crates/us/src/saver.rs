//! The saver's credit (§25B), Form 8880: a part of what each put into retirement accounts, by adjusted gross income.

use crate::{
    facts::Facts,
    income, ira_deduction,
    papers::w2,
    points::Points,
    self_employment,
    unit::{Filed, On},
};
use hembo_core::{
    brought::{Brought, Records},
    field::Field,
    forms::Required,
    limit, limits, lines, open_points,
    pack::{FILER, Question},
    point::Gather,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    person_questions: &[Question {
        of: FILER,
        from_age: 18,
        field: Field::amount(ask::TESTING, "", "Retirement distributions of three years")
            .help("This year until the due date, and the two before; they lower the saver's credit."),
    }],
    points: POINTS,
    figures: &["dependents", "saver"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const TESTING: &str = "testing_distributions";
}

lines! {
    EACH = "us.8880.6", "Retirement savings that count", "IRC §25B(a), (d)",
        "Deferrals and contributions of a person less distributions of three years, up to an amount.";
    pub CREDIT = "us.sched_3.4", "Saver's credit", "IRC §25B",
        "A part of them by income, up to the tax.";
}

limits! {
    MOST = "us.limit.saver" on EACH, "Saver's credit", "savings over the amount for each person", "IRC §25B(a)";
    TAX = "us.limit.saver_tax" on CREDIT, "Saver's credit", "over the tax", "IRC §25B(g)";
}

open_points! {
    TESTING_ASKED = look "8880-distributions", "IRC §25B(d)(2)",
        "Distributions of this year and the two before lower the credit: enter them, zero too.";
}

/// Deferrals and contributions of a person.
static SAVED: [&Brought; 8] = [
    &w2::brings::DEFERRALS,
    &w2::brings::ROTH_DEFERRALS,
    &w2::brings::PLAN_457,
    &w2::brings::PLAN_501,
    &self_employment::brings::SOLO_ELECTIVE,
    &self_employment::brings::SIMPLE_ELECTIVE,
    &ira_deduction::brings::TRADITIONAL,
    &ira_deduction::brings::ROTH,
];

fn saved(own: &Records) -> Money {
    SAVED.into_iter().map(|kind| sum(own.of(kind))).sum()
}

/// Of age, no student, nobody's dependent.
fn may(on: On<'_>, person: usize) -> bool {
    let (facts, about) = (on.facts, &on.facts.people[person]);
    let student = about.student_months >= facts.figures.dependents.student_months;
    about.reached(facts.figures.saver.from_age, facts.year_end) && !student && !on.unit.claimable
}

fn of_person(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let own = &on.facts.people[person].own;
    let saved = saved(own).to_whole();
    if saved.is_zero() || !may(on, person) {
        return Money::ZERO;
    }
    let scope = Scope::Person(person);
    let net = settled::or_zero(saved - distributed(on.facts, on));
    let counted = limit::cap(trail, MOST.at(scope), net, on.facts.figures.saver.most);
    trail.line(EACH, scope, counted, |i| {
        for kind in SAVED {
            i.items(own.of(kind));
        }
    })
}

/// Distributions of three years: of both spouses on a joint return for each of them (§25B(d)(2)(D)).
fn distributed(facts: &Facts, on: On<'_>) -> Money {
    on.unit.people.iter().map(|&p| facts.people[p].testing_distributions).sum::<Money>().to_whole()
}

/// The part of the savings that is credited at an income; zero above the last step.
fn rate(on: On<'_>, agi: Money) -> Rate {
    let tiers = &on.facts.figures.saver.tiers;
    tiers.iter().find(|tier| agi <= *tier.up_to.of(on.unit.status)).map_or(Rate::ZERO, |tier| tier.rate)
}

/// Schedule 3 line 4; `left` is the tax that earlier credits leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money, left: Money) -> Money {
    for tier in &on.facts.figures.saver.tiers {
        trail.edge(agi - *tier.up_to.of(on.unit.status), true);
    }
    let rate = rate(on, agi);
    // Above the last step nothing is lost to a limit.
    if rate == Rate::ZERO {
        return trail.line(CREDIT, on.scope, Money::ZERO, |i| {
            i.line(income::AGI, on.scope, agi);
        });
    }
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, of_person(on, trail, p))).collect();
    let saved: Money = each.iter().map(|(_, amount)| *amount).sum();
    if saved.is_zero() {
        return trail.line(CREDIT, on.scope, Money::ZERO, |_| {});
    }
    let full = saved.times(rate, Money::WHOLE, Rounding::HalfUp);
    let credit = limit::cap(trail, TAX.at(on.scope), full, left);
    trail.line(CREDIT, on.scope, credit, |i| {
        for (person, amount) in each.iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(EACH, Scope::Person(*person), *amount);
        }
        i.line(income::AGI, on.scope, agi).figure("Rate", rate).figure("Tax left", left);
    })
}

/// Form 8880: where there is a credit.
pub fn form_8880(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CREDIT), "no saver's credit")
}

/// Distributions that were not said.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        if points.amount(CREDIT, place).is_zero() {
            continue;
        }
        for &person in &unit.people {
            if !points.said(person, ask::TESTING) {
                let message = format!(
                    "Did {} take anything out of retirement accounts in three years?",
                    points.facts.people[person].name
                );
                points.raise(&TESTING_ASKED, points.at(person, ask::TESTING), message);
            }
        }
    }
}
