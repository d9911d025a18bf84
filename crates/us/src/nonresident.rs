//! A spouse who is a nonresident alien (§§6013(g), (h), 871): resident by election for a joint return; else the other files alone, and
//! the nonresident files nothing, where there is no income from the United States.

use crate::{
    additional_deductions, adoption, care, education, elderly, filing_status::Status, ira_deduction,
    points::Points, premium_tax_credit, rentals, social_security, states, status, student_loan,
};
use hembo_core::{
    field::Field,
    line::LineId,
    open_points,
    pack::{FILER, Question},
    point::Gather,
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    person_questions: &[
        Question {
            of: FILER,
            from_age: 0,
            field: Field::yes_no(ask::NONRESIDENT_ALIEN, "", "Nonresident alien in the year"),
        },
        Question {
            of: FILER,
            from_age: 0,
            field: Field::yes_no(ask::FROM_HERE, "", "As a nonresident: income from the US")
                .help("Without any, a nonresident spouse files no return of one's own."),
        },
    ],
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const NONRESIDENT_ALIEN: &str = "nonresident_alien";
    pub const FROM_HERE: &str = "income_from_us";
}

open_points! {
    NONRESIDENT = not_covered "nonresident", "IRC §871";
    ASKED = blocks "nonresident-income", "IRC §§871, 6012(a)",
        "It decides whether a separate return leaves the spouse with one, too.";
    OWN_RETURN = not_covered "nonresident-return", "IRC §§871, 6012(a)";
    COMMUNITY = not_covered "nonresident-community", "IRC §879";
    HEAD = not_covered "nonresident-head", "IRC §§2(b)(2)(B), 7703(b)";
    ELECTION = beside "nonresident-election", "IRC §6013(g), (h); Reg. §1.6013-6(a)(4)",
        "Attach the statement that both sign; income of the whole world is entered for both.";
}

/// What a married person has on a joint return only, and a head of household by the status.
const UNSETTLED: [LineId; 11] = [
    student_loan::L21,
    ira_deduction::L20,
    rentals::L26,
    social_security::L6B,
    additional_deductions::L13B,
    care::CREDIT,
    education::CREDIT,
    education::L29,
    elderly::CREDIT,
    adoption::CREDIT,
    premium_tax_credit::NET,
];

/// A nonresident filer, and what is open about a nonresident spouse.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let Some(spouse) = facts.nonresident_spouse() else {
        for &filer in facts.filers.iter().filter(|&&f| facts.people[f].nonresident_alien) {
            let place = points.at(filer, ask::NONRESIDENT_ALIEN);
            points.raise(&NONRESIDENT, place, "Form 1040-NR is not computed yet.");
        }
        return;
    };
    let name = &facts.people[spouse].name;
    let place = points.at(spouse, ask::FROM_HERE);
    match facts.people[spouse].income_from_us {
        None => {
            points.raise(&ASKED, place.clone(), format!("Did {name} have income from the United States?"))
        }
        Some(true) => {
            let message = "Form 1040-NR is not computed yet, so separate returns are not weighed.";
            points.raise(&OWN_RETURN, place.clone(), message);
        }
        Some(false) => {}
    }
    if facts.state.as_deref().is_some_and(states::community_property) {
        let message = "Community income of a nonresident spouse is not divided here.";
        points.raise(&COMMUNITY, place.clone(), message);
    }
    let Some(unit) = points.units.first().filter(|unit| unit.main) else { return };
    if unit.status == Status::Joint {
        points.raise(&ELECTION, place, format!("{name} is treated as a resident by election."));
    } else if unit.status == Status::Head && status::head_by_nonresident(facts, unit.people[0]) {
        let has = |line: &LineId| points.amounts(line).any(|(_, amount)| !amount.is_zero());
        if UNSETTLED.iter().any(has) {
            let message =
                "What a married person has on a joint return only is not settled for this head of household.";
            points.raise(&HEAD, place, message);
        }
    }
}
