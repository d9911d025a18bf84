//! The multiple support agreement (§152(d)(3), Form 2120): of several who together pay over half of a relative's support, and
//! none of whom does alone, one who pays over a tenth claims, and the others sign that they do not. Such a dependent makes
//! nobody head of household (§2(b)(3)(B)(ii)).

use crate::{
    dependents,
    points::Points,
    unit::{Dependent, Household},
};
use hembo_core::{
    field::Field,
    open_points,
    pack::{DEPENDENT, Question},
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: &[Question {
        of: DEPENDENT,
        from_age: 0,
        field: Field::person(ask::NAMED, "", "Multiple support agreement names").help(
            "Form 2120: a group pays over half of the support, this filer over a tenth, and the others sign.",
        ),
    }],
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const NAMED: &str = "multiple_support";
}

open_points! {
    NOT_NEEDED = blocks "multiple-support-over-half", "IRC §152(d)(3)(A)",
        "An agreement is for those of whom nobody pays over half: correct one of the answers.";
    ATTACH = beside "multiple-support-attach", "IRC §152(d)(3)(D)",
        "Attach Form 2120, and keep the statements that the others signed.";
}

/// What of an agreement cannot be, and what goes with it.
pub fn points(points: &mut Points<'_>) {
    for index in points.facts.candidates() {
        let about = &points.facts.people[index];
        if about.multiple_support.is_none() {
            continue;
        }
        let at = |field: &str| Place::person(&about.id, field);
        let alone = about.supported_alone_by.is_some().then_some(dependents::ask::SUPPORTED_ALONE_BY);
        let over_half = alone.or((about.supported == Some(true)).then_some(dependents::ask::SUPPORTED));
        if let Some(field) = over_half {
            let message = format!(
                "The support of {} is by a multiple support agreement, and over half of it is paid here.",
                about.name
            );
            points.raise(&NOT_NEEDED, at(field), message.as_str());
            points.raise(&NOT_NEEDED, at(ask::NAMED), message);
        }
        // A qualifying child needs no support from the claimer, and no agreement.
        let by_it = |d: &Dependent| d.person == index && d.as_a == Household::QualifyingRelative;
        let claimed = points.units.iter().any(|u| u.main && u.dependents.iter().any(by_it));
        if claimed {
            let message = format!("Form 2120 for {} goes with the return.", about.name);
            points.raise(&ATTACH, at(ask::NAMED), message);
        }
    }
}
