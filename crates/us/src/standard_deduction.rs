//! The standard deduction (§63(c), (f)).

use crate::unit::On;
use hembo_core::{
    field::Field,
    limit::{self, Shape},
    limits, lines,
    pack::{ANYONE, Question},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: QUESTIONS,
    lines: LINES,
    limits: LIMITS,
    figures: &["standard_deduction"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const BLIND: &str = "blind";
}

const QUESTIONS: &[Question] =
    &[Question { of: ANYONE, from_age: 0, field: Field::yes_no(ask::BLIND, "", "Blind").lasts() }];

lines! {
    pub STANDARD = "us.standard", "Standard deduction", "IRC §63(c), (f)",
        "The basic amount, and an addition for each age of 65 and each blindness.";
}

limits! {
    DEPENDENT_STANDARD = "us.limit.dependent_standard" on STANDARD, "Standard deduction", "someone can claim the filer",
        "IRC §63(c)(5)";
}

/// The standard deduction of a return: the basic amount, that of a dependent where someone can claim the filer, and
/// an addition for each age of 65 and each blindness. `earned` is earned income.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, earned: Money) -> Money {
    let figures = &on.facts.figures.standard_deduction;
    let full = *figures.basic.of(on.unit.status);
    let basic = if on.unit.claimable { dependents_amount(on, trail, full, earned) } else { full };
    let each = if on.unit.status.unmarried() {
        figures.aged_or_blind_unmarried
    } else {
        figures.aged_or_blind_married
    };
    let boxes: i64 = on
        .unit
        .people
        .iter()
        .map(|&p| &on.facts.people[p])
        .map(|p| i64::from(p.reached(figures.aged, on.facts.year_end)) + i64::from(p.blind))
        .sum();
    trail.line(STANDARD, on.scope, basic + each * boxes, |i| {
        i.figure("Basic amount", basic)
            .figure("Age 65 and blindness, boxes", boxes)
            .figure("For each box", each);
    })
}

/// Earned income plus an amount, at least a minimum, at most the basic amount (§63(c)(5)).
fn dependents_amount(on: On<'_>, trail: &mut impl Trail, full: Money, earned: Money) -> Money {
    let figures = &on.facts.figures.standard_deduction;
    let own = limit::greater(trail, earned + figures.dependent_plus, figures.dependent_least);
    let allowed = limit::lesser(trail, full, own);
    limit::given(trail, DEPENDENT_STANDARD.at(on.scope), Shape::Cap, full, allowed)
}
