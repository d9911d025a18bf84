//! Tax of a child at the parents' rates (§1(g), Form 8615): not computed, so it must be told where it applies.

use crate::{
    dependents,
    filing_status::Status,
    income,
    papers::{dividends, interest, w2},
    points::Points,
    schedule_1,
    unit::On,
};
use hembo_core::{
    field::Field,
    household::Role,
    open_points,
    pack::Question,
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: &[Role::Filer, Role::Dependent],
            from_age: 0,
            field: Field::yes_no(ask::PARENT_ALIVE, "", "A parent was alive at the end of the year"),
        },
        Question {
            of: &[Role::Filer, Role::Dependent],
            from_age: 18,
            field: Field::yes_no(ask::EARNED_OVER_HALF, "", "Own earnings were over half of own support"),
        },
    ],
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const PARENT_ALIVE: &str = "parent_alive";
    pub const EARNED_OVER_HALF: &str = "earned_over_half";
}

open_points! {
    ASKED = not_known "K-151-ask", "IRC §1(g)(2)",
        "It decides whether Form 8615 taxes this income at the parents' rates.";
    FORM_8615 = not_covered "K-151", "IRC §1(g)";
}

/// Whether the part of the American opportunity credit that is paid out is barred (§25A(i)): for someone under 18, or under 24 whose
/// earnings were not over half of the support, with a parent alive, on no joint return.
pub fn bars_refund(on: On<'_>) -> bool {
    let figures = &on.facts.figures.kiddie;
    let about = &on.facts.people[on.unit.people[0]];
    let end = on.facts.year_end;
    if on.unit.status == Status::Joint
        || about.parent_alive == Some(false)
        || about.reached(figures.under, end)
    {
        return false;
    }
    let student = about.student_months >= on.facts.figures.dependents.student_months;
    let by_support = about.earned_over_half != Some(true);
    let young = !about.reached(figures.from_age, end);
    let eighteen = !about.reached(figures.student_from_age, end) && by_support;
    young || eighteen || (student && by_support)
}

/// Every return that is not a joint one.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        if unit.status != Status::Joint {
            one(points, place, unit.people[0]);
        }
    }
}

/// Form 8615 (§1(g)(2)): unearned income above the limit of someone under 18, or under 19 (a student under 24)
/// whose earnings were not over half of the support, with a parent alive.
fn one(points: &mut Points<'_>, place: usize, person: usize) {
    let (figures, about) = (&points.facts.figures.kiddie, &points.facts.people[person]);
    let amount = |line| points.amount(line, place);
    let unearned = amount(income::TOTAL) - amount(income::EARNED) - amount(schedule_1::PENALTY);
    let end = points.facts.year_end;
    let grown = about.born.is_none() || about.reached(figures.under, end);
    if unearned <= figures.unearned_above || grown || about.parent_alive == Some(false) {
        return;
    }
    let ask = |points: &mut Points<'_>, field: &str, message: String| {
        points.raise(&ASKED, Place::person(&about.id, field), message);
    };
    let name = &about.name;
    if about.reached(figures.student_from_age, end) {
        let months = points.household.people[person].answers.contains_key(dependents::ask::STUDENT_MONTHS);
        if !months {
            return ask(
                points,
                dependents::ask::STUDENT_MONTHS,
                format!("For how many months was {name} a student?"),
            );
        }
        if about.student_months < points.facts.figures.dependents.student_months {
            return;
        }
    }
    if about.reached(figures.from_age, end) && about.own.has(&w2::brings::WAGES) {
        match about.earned_over_half {
            Some(true) => return,
            Some(false) => {}
            None => {
                let message = format!("Were the earnings of {name} over half of the support?");
                return ask(points, ask::EARNED_OVER_HALF, message);
            }
        }
    }
    let parent_here = !about.filer && points.facts.child_of_filers(person);
    if about.parent_alive.is_none() && !parent_here {
        return ask(
            points,
            ask::PARENT_ALIVE,
            format!("Was a parent of {name} alive at the end of the year?"),
        );
    }
    let (interest, dividends) = (&interest::brings::INTEREST, &dividends::brings::ORDINARY);
    let unearned = about.own.of(interest).iter().chain(about.own.of(dividends));
    let largest = unearned.max_by_key(|item| item.amount);
    let place = largest.map(|item| Place::paper(&points.household.papers[item.paper].id, item.field));
    let message = format!("{name} has unearned income over the limit: Form 8615 is not computed yet.");
    points.raise(&FORM_8615, place.unwrap_or_default(), message);
}
