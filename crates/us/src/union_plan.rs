//! Contributions to a plan under §501(c)(18)(D), Schedule 1 line 24f: up to an amount, and to a quarter of compensation.

use crate::{
    ira_deduction,
    papers::w2,
    unit::{Filed, On},
};
use hembo_core::{
    forms::Required,
    limit, limits, lines,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Silent, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["union_plan"], ..Provision::NONE };

lines! {
    pub OF = "us.24f.of", "Plan under 501(c)(18)(D), deducted", "IRC §219(b)(3)",
        "Box 12 code H of a person, up to the limit.";
    pub L24F = "us.sched_1.24f", "Plan under 501(c)(18)(D)", "IRC §§62(a)(7), 219(b)(3)",
        "That of each person.";
}

limits! {
    MOST = "us.limit.union_plan" on OF, "Plan under 501(c)(18)(D)", "over the limit", "IRC §219(b)(3)";
}

fn amount(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let facts = on.facts;
    let own = &facts.people[person].own;
    let paid = sum(own.of(&w2::brings::PLAN_501)).to_whole();
    if paid.is_zero() {
        return Money::ZERO;
    }
    let figures = &facts.figures.union_plan;
    let part = ira_deduction::compensation(on, person).times(figures.part, Money::WHOLE, Rounding::HalfUp);
    let scope = Scope::Person(person);
    let allowed = limit::cap(trail, MOST.at(scope), paid, settled::lesser(figures.most, part));
    trail.line(OF, scope, allowed, |i| {
        i.items(own.of(&w2::brings::PLAN_501));
    })
}

/// What a person deducts.
pub fn of_person(on: On<'_>, person: usize) -> Money {
    amount(on, &mut Silent, person)
}

/// Schedule 1 line 24f.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, amount(on, trail, p))).collect();
    on.of_each(trail, L24F, OF, &each)
}

/// The worksheet: where there is such a plan.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(L24F), "no such plan")
}
