//! Tips that are in no box 1 (§§61(a), 3121(q)), Form 4137: income of line 1c, and the social security and Medicare tax on them.

use crate::{
    papers::w2,
    unit::{Filed, On},
};
use hembo_core::{
    forms::Required,
    limit, lines,
    provision::Provision,
    reading::sum,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, figures: &["social_security", "additional_medicare"], ..Provision::NONE };

lines! {
    pub L1C = "us.1c", "Tips not reported to an employer", "IRC §61(a)(1)",
        "Allocated tips of box 8, or what records show instead.";
    TAX_OF = "us.4137.13", "Social security and Medicare tax on tips", "IRC §3101",
        "Social security tax up to what is left of the wage base, and Medicare tax.";
    pub TAX = "us.sched_2.5", "Tax on tips not reported", "IRC §3101",
        "Form 4137 of each person.";
}

/// Line 1c.
pub fn income(on: On<'_>, trail: &mut impl Trail) -> Money {
    on.gather(trail, L1C, &w2::brings::TIPS_NOT_REPORTED)
}

/// Schedule 2 line 5.
pub fn tax(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, of_person(on, trail, p))).collect();
    on.of_each(trail, TAX, TAX_OF, &each)
}

fn of_person(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let own = &on.facts.people[person].own;
    let tips = sum(own.of(&w2::brings::ALLOCATED_TIPS)).to_whole();
    if tips.is_zero() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.social_security;
    let wages = sum(own.of(&w2::brings::SOCIAL_SECURITY_WAGES)).to_whole();
    let room = limit::or_zero(trail, figures.wage_base - wages);
    let taxed = limit::lesser(trail, tips, room);
    let by = |amount: Money, rate| amount.times(rate, Money::WHOLE, Rounding::HalfUp);
    let tax = by(taxed, figures.rate) + by(tips, on.facts.figures.additional_medicare.regular_rate);
    trail.line(TAX_OF, Scope::Person(person), tax, |i| {
        i.items(own.of(&w2::brings::ALLOCATED_TIPS)).figure("Below the wage base", taxed);
    })
}

/// Form 4137: where there are such tips.
pub fn form_4137(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(L1C), "no tips but those reported")
}
