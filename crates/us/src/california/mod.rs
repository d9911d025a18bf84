//! California on top of the federal return: Form 540 of residents of the whole year, Form 540NR of others, in the order of their lines.

pub mod adjustments;
pub mod adoption_costs;
pub mod affordability;
pub mod asked;
pub mod choices;
pub mod code_credits;
pub mod college_access;
pub mod counted_pay;
pub mod cover;
pub mod cover_months;
pub mod credits;
pub mod dates;
pub mod earlier_minimum_tax;
pub mod earned_income;
pub mod exemptions;
pub mod form_540;
pub mod form_540nr;
pub mod forms;
pub mod itemized;
pub mod kiddie;
pub mod minimum_tax;
pub mod mortgage;
pub mod other_state_tax;
pub mod papers;
pub mod parents_election;
pub mod payments;
pub mod points;
pub mod read;
pub mod residence;
pub mod return_points;
pub mod spread;
pub mod tax;
pub mod thresholds;
pub mod underpayment;
pub mod use_tax;

/// What is answered about a person for this return.
pub fn of_person(on: crate::unit::On<'_>, person: usize) -> crate::state_facts::OfPerson {
    answers_of(on.facts, person)
}

/// The same of a household.
pub fn answers_of(facts: &crate::facts::Facts, person: usize) -> crate::state_facts::OfPerson {
    let answers = facts.of_state.as_ref().and_then(|of| of.people.get(person));
    answers.copied().unwrap_or_default()
}

/// A line that is made of others, and of figures.
fn made(
    on: crate::unit::On<'_>,
    trail: &mut impl hembo_core::Trail,
    id: hembo_core::line::LineId,
    amount: hembo_money::Money,
    lines: &[(hembo_core::line::LineId, hembo_money::Money)],
    figures: &[(&'static str, &dyn ToString)],
) -> hembo_money::Money {
    hembo_core::trail::made(trail, id, on.scope, amount, lines, figures)
}

/// A line that adds up others.
fn add(
    on: crate::unit::On<'_>,
    trail: &mut impl hembo_core::Trail,
    id: hembo_core::line::LineId,
    lines: &[(hembo_core::line::LineId, hembo_money::Money)],
) -> hembo_money::Money {
    hembo_core::trail::add(trail, id, on.scope, lines)
}
