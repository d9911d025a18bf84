//! Exemption credits (R&TC 17054, 17054.1; Form 540 lines 7 to 11 and 32): for filers, the blind, the aged and dependents, less by steps of
//! income above a threshold.

use super::{add, made};
use crate::{income, unit::On};
use hembo_core::{
    Trail,
    limit::{self, Shape},
    limits, lines,
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &["california_exemptions", "california_deductions"],
    ..Provision::NONE
};

lines! {
    L7 = "us.ca.540.7", "Personal exemption credit", "R&TC 17054(a)", "For each filer, two of a surviving spouse; none of who can be claimed.";
    L8 = "us.ca.540.8", "Blind exemption credit", "R&TC 17054(c)", "For each filer who is blind.";
    L9 = "us.ca.540.9", "Senior exemption credit", "R&TC 17054(c)", "For each filer of 65 and more.";
    L10 = "us.ca.540.10", "Dependent exemption credit", "R&TC 17054(d)", "For each dependent.";
    L11 = "us.ca.540.11", "Exemption amount", "Form 540, line 11", "Lines 7 to 10.";
    pub L32 = "us.ca.540.32", "Exemption credits", "R&TC 17054.1", "Less an amount for each step of federal income above the threshold, those of filers and of dependents apart.";
}

limits! {
    STEPS = "us.ca.limit.exemptions" on L32, "Exemption credits", "less by steps of income", "R&TC 17054.1";
}

/// Line 32; `agi` is federal.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let figures = &on.facts.figures;
    let (Some(of), Some(deductions)) = (&figures.california_exemptions, &figures.california_deductions)
    else {
        unreachable!("prepared with its figures")
    };
    let dependent = !on.unit.main && on.unit.claimable;
    let people = on.unit.people.iter().map(|&p| &on.facts.people[p]);
    let open = || people.clone().filter(|about| !about.claimable && !dependent);
    let twice = on.unit.status == crate::filing_status::Status::Surviving;
    let personal = open().count() as i64 * if twice { 2 } else { 1 };
    let blind = open().filter(|about| about.blind).count() as i64;
    let aged = open().filter(|about| about.reached(of.aged, on.facts.year_end)).count() as i64;
    let dependents = on.unit.dependents.len() as i64;
    let units = [
        (L7, personal, of.personal),
        (L8, blind, of.personal),
        (L9, aged, of.personal),
        (L10, dependents, of.dependent),
    ];
    let lines =
        units.map(|(line, many, each)| (line, made(on, trail, line, each * many, &[], &[("Units", &many)])));
    let all = add(on, trail, L11, &lines);
    let start = *deductions.high_income.of(on.unit.status);
    let over = limit::or_zero(trail, agi - start);
    let steps = over.steps_of(*of.step.of(on.unit.status), Rounding::Up);
    let left = |lines: &[(hembo_core::line::LineId, Money)], many: i64| {
        settled::or_zero(lines.iter().map(|(_, amount)| *amount).sum::<Money>() - of.each_step * steps * many)
    };
    let credit = left(&lines[..3], personal + blind + aged) + left(&lines[3..], dependents);
    limit::given(trail, STEPS.at(on.scope), Shape::PhaseOut, all, credit);
    made(
        on,
        trail,
        L32,
        credit,
        &[(L11, all), (income::AGI, agi)],
        &[("Threshold", &start), ("Steps", &steps)],
    )
}
