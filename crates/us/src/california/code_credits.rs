//! Credits by code of California (R&TC 17054.5, 17054.7; Form 540 line 43): a senior who was head of household, joint custody, a dependent
//! parent.

use super::{form_540nr, made, of_person, tax};
use crate::{filing_status::Status, unit::On};
use hembo_core::{Trail, limit, limits, line::LineId, lines, provision::Provision};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &["california_code_credits", "california_exemptions"],
    ..Provision::NONE
};

lines! {
    SENIOR = "us.ca.163", "Senior head of household, code 163", "R&TC 17054.7", "A part of taxable income up to a most, where income is not above the limit.";
    CUSTODY = "us.ca.170", "Joint custody, code 170", "R&TC 17054.5", "A part of the tax up to a most.";
    PARENT = "us.ca.173", "Dependent parent, code 173", "R&TC 17054.5", "A part of the tax up to a most.";
    pub L43 = "us.ca.540.43", "Credits by code", "Form 540, lines 43 to 45", "As far as the tax takes them.";
}

limits! {
    SENIOR_MOST = "us.ca.limit.163" on SENIOR, "Senior head of household", "over the most", "R&TC 17054.7";
    CUSTODY_MOST = "us.ca.limit.170" on CUSTODY, "Joint custody", "over the most", "R&TC 17054.5";
    PARENT_MOST = "us.ca.limit.173" on PARENT, "Dependent parent", "over the most", "R&TC 17054.5";
    PART = "us.ca.limit.codes_part" on L43, "Credits by code", "the part of California", "R&TC 17055";
    TAX = "us.ca.limit.codes" on L43, "Credits by code", "over the tax, lost", "R&TC 17039";
}

/// What they go by.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Line 17.
    pub agi: Money,
    /// Line 19.
    pub taxable: Money,
    /// Line 35, which is line 33 here, with that line.
    pub tax: Money,
    /// Its line.
    pub line: LineId,
    /// What the care credit leaves of it.
    pub left: Money,
    /// Which part of them counts on Form 540NR.
    pub part: Rate,
}

/// Line 43 with those of lines 44 and 45.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let figures = &on.facts.figures;
    let (Some(of), Some(exemptions)) = (&figures.california_code_credits, &figures.california_exemptions)
    else {
        return Money::ZERO;
    };
    let any =
        |is: fn(&crate::state_facts::OfPerson) -> bool| on.unit.people.iter().any(|&p| is(&of_person(on, p)));
    let aged = on.unit.people.iter().any(|&p| {
        of_person(on, p).senior_head && on.facts.people[p].reached(exemptions.aged, on.facts.year_end)
    });
    let senior = from.taxable.times(of.senior_rate, Money::WHOLE, Rounding::HalfUp);
    let senior = if aged && from.agi <= of.senior_income { senior } else { Money::ZERO };
    let senior = limit::cap(trail, SENIOR_MOST.at(on.scope), senior, of.senior_most);
    made(on, trail, SENIOR, senior, &[(tax::L19, from.taxable)], &[("Income up to", &of.senior_income)]);
    // Neither beside head of household or a surviving spouse, and not both.
    let open = !matches!(on.unit.status, Status::Head | Status::Surviving | Status::Joint);
    let part = from.tax.times(of.family_rate, Money::WHOLE, Rounding::HalfUp);
    let custody = if open && any(|of| of.joint_custody) { part } else { Money::ZERO };
    let custody = limit::cap(trail, CUSTODY_MOST.at(on.scope), custody, of.family_most);
    let apart = on.unit.status == Status::Separate && custody.is_zero();
    let parent = if apart && any(|of| of.dependent_parent) { part } else { Money::ZERO };
    let parent = limit::cap(trail, PARENT_MOST.at(on.scope), parent, of.family_most);
    for (line, amount) in [(CUSTODY, custody), (PARENT, parent)] {
        made(on, trail, line, amount, &[(from.line, from.tax)], &[("Part", &of.family_rate)]);
    }
    let lines = [(SENIOR, senior), (CUSTODY, custody), (PARENT, parent)];
    let all = lines.iter().map(|(_, amount)| *amount).sum();
    let all = form_540nr::part_of(on, trail, PART.at(on.scope), all, from.part);
    let used = limit::cap(trail, TAX.at(on.scope), all, from.left);
    made(on, trail, L43, used, &lines, &[("Tax left", &from.left)])
}
