//! The saver's credit (§25B, Form 8880): not computed, so it must be told where it may be due.

use crate::{
    income, minimum_tax,
    papers::w2::{self, Does},
    points::Points,
    status,
};
use hembo_core::{
    Paper, open_points,
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { points: POINTS, ..Provision::NONE };

open_points! {
    FORM_8880 = not_covered "savers-credit", "IRC §25B";
}

/// Deferrals of someone who may have the credit.
pub fn points(points: &mut Points<'_>) {
    for paper in w2::all(points) {
        deferrals(points, paper);
    }
}

fn deferrals(points: &mut Points<'_>, paper: &Paper) {
    let counts = |does| matches!(does, Does::Deferral | Does::DeferralAnd(_) | Does::RothDeferral);
    let field = w2::coded(paper).find(|(_, _, code)| counts(code.does)).map(|(field, _, _)| field);
    let owner = paper.owners.first().and_then(|o| points.household.index_of(&o.person));
    let (Some(field), Some(owner)) = (field, owner) else { return };
    if may_have_savers_credit(points, owner) {
        let message = "The saver's credit for these deferrals (Form 8880) is not computed yet.";
        points.raise(&FORM_8880, Place::paper(&paper.id, field), message);
    }
}

/// Of age, no student, nobody's dependent, and in some status with tax and an income not above the limit.
fn may_have_savers_credit(points: &Points<'_>, person: usize) -> bool {
    let (facts, about) = (points.facts, &points.facts.people[person]);
    let figures = &facts.figures.saver;
    let place = points.units.iter().position(|u| u.people.contains(&person));
    let Some((place, unit)) = place.and_then(|p| Some((p, points.units.get(p)?))) else { return false };
    let of_age = about.born.is_none() || about.reached(figures.from_age, facts.year_end);
    let student = about.student_months >= facts.figures.dependents.student_months;
    if !of_age || student || unit.claimable {
        return false;
    }
    if facts.couple() && about.filer {
        let together: Money = facts.filers.iter().map(|&f| facts.people[f].agi_alone).sum();
        let alone = *figures.most.of(status::alone(facts, person));
        return together.to_whole() <= figures.most.joint
            || facts.people[person].agi_alone.to_whole() <= alone;
    }
    points.amount(income::AGI, place) <= *figures.most.of(unit.status)
        && !points.amount(minimum_tax::L18, place).is_zero()
}
