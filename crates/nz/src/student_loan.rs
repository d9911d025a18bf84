//! Repayment of a student loan out of income without deductions (SLSA 2011 ss 37, 38, 73): settled beside the assessment.

use crate::{
    income::Income,
    plan::{Filed, On},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    field::Field,
    forms::Required,
    limit, lines, open_points,
    pack::{FILER, Question},
    point::Gather,
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    person_questions: &[Question {
        of: FILER,
        from_age: 0,
        field: Field::yes_no(ask::LOAN, "", "Student loan, based in New Zealand").lasts(),
    }],
    points: POINTS,
    figures: &["student_loan"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const LOAN: &str = "student_loan";
}

lines! {
    OTHER = "nz.student_loan.other", "Income without loan deductions", "SLSA 73",
        "Net income less pay, from which the payer deducts.";
    pub OBLIGATION = "nz.student_loan", "Student loan, on other income", "SLSA 37, 38",
        "A part of other income above what pay left of the year's threshold.";
}

open_points! {
    INTERIM = look "student-loan-interim", "SLSA 83 to 86", "Above 1,000 the next year is paid with the days of provisional tax.";
}

/// The obligation on income other than pay.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Money {
    if !on.who().student_loan {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.student_loan;
    let other = limit::or_zero(trail, income.net - income.pay);
    on.made(trail, OTHER, other, &[(crate::income::NET, income.net)], &[("Pay", &income.pay)]);
    let left = settled::or_zero(figures.threshold - income.pay);
    let counted = if other > figures.other_to { limit::or_zero(trail, other - left) } else { Money::ZERO };
    let obligation = cents(counted, figures.rate);
    on.made(
        trail,
        OBLIGATION,
        obligation,
        &[(OTHER, other)],
        &[("Left of the threshold", &left), ("Rate", &figures.rate)],
    )
}

/// The worksheet: where there is an obligation.
pub fn worksheet(filed: Filed<'_>) -> Required {
    filed.when(OBLIGATION, "nothing on other income")
}

/// Obligations that ask for instalments.
pub fn points(points: &mut Points<'_>) {
    for (place, person) in points.returns() {
        let obligation = points.amount(OBLIGATION, place);
        if obligation > Money::whole(1000) {
            let message = format!("{}: {obligation:#} on other income.", points.name(person));
            points.raise(&INTERIM, points.at(person, ask::LOAN), message);
        }
    }
}
