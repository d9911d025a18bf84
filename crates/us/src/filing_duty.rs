//! Returns that nobody must file (§6012(a)(1)), told where one is prepared.

use crate::{
    additional_taxes,
    facts::{Facts, Marital},
    filing_status::Status,
    health_savings, payments,
    points::Points,
    premium_tax_credit,
    unit::Unit,
    who_files,
};
use hembo_core::{open_points, point::Gather, provision::Provision};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Who need not file",
    points: POINTS,
    figures: &["standard_deduction"],
    ..Provision::NONE
};

open_points! {
    NEED_NOT = look "C-07", "IRC §6012(a)(1)",
        "Nothing is paid out either: it may be left out.";
}

/// Gross income from which on a return must be filed, by status and age; spouses who do not live together must from a few dollars on.
fn files_from(facts: &Facts, unit: &Unit) -> Money {
    let figures = &facts.figures.standard_deduction;
    let apart =
        facts.marital == Marital::Married && facts.apart == Some(true) && unit.status == Status::Joint;
    if unit.status == Status::Separate || apart {
        return figures.separate_files_from;
    }
    let married = matches!(unit.status, Status::Joint | Status::Surviving);
    let each = if married { figures.aged_or_blind_married } else { figures.aged_or_blind_unmarried };
    let aged = unit.people.iter().filter(|&&p| facts.people[p].reached(figures.aged, facts.year_end));
    *figures.basic.of(unit.status) + aged.map(|_| each).sum()
}

/// A return that nobody must file (§6012(a)(1)) and that pays nothing out: too little gross income, no other taxes and no advance
/// payments of the premium credit.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let advance = points.papers(premium_tax_credit::POLICY.id).next().is_some();
    for (place, unit) in points.units.iter().enumerate().filter(|(_, unit)| !unit.of_state.alone) {
        let gross: Money = unit.people.iter().map(|&p| facts.people[p].gross_income).sum();
        let must = match unit.people[..] {
            [person] if unit.claimable => who_files::dependent_must_file(facts, person, Money::ZERO),
            _ => gross >= files_from(facts, unit),
        };
        let any = unit.people.iter().any(|&p| facts.people[p].has_income);
        // Distributions of a health savings account are reported, taxed or not (Form 8889).
        let distributed =
            points.papers(health_savings::DISTRIBUTIONS.id).any(|p| points.is_of(p, &unit.people));
        let paid_out = !points.amount(payments::L34, place).is_zero();
        if any
            && !paid_out
            && !distributed
            && !must
            && !advance
            && points.amount(additional_taxes::L23, place).is_zero()
        {
            let names: Vec<_> = unit.people.iter().map(|&p| facts.people[p].name.as_str()).collect();
            let message = format!("{} need not file: gross income is {gross:#}.", names.join(" and "));
            points.raise(&NEED_NOT, points.whose(unit), message);
        }
    }
}
