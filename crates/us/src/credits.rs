//! The nonrefundable credits of Schedule 3, Part I, in the order in which they use up the tax (§26(a)): some before the child tax credit,
//! some after it.

use crate::{
    adoption::{self, OfYear},
    care, clean_vehicles, earlier_minimum_tax, education, elderly, foreign_tax, home_energy, mortgage_credit,
    saver,
    unit::On,
};
use hembo_core::{limit, line::LineId, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub L20 = "us.20", "Other credits", "IRC §26(a)",
        "Schedule 3, line 8.";
}

/// What the credits start from.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Line 11a.
    pub agi: Money,
    /// Line 18.
    pub before_credits: Money,
    /// Schedule 3 line 1.
    pub foreign: Money,
    /// Social security that is not taxed.
    pub untaxed_benefits: Money,
}

/// The credits before the child tax credit.
#[derive(Debug, Clone)]
pub struct BeforeChild {
    parts: Vec<(LineId, Money)>,
    /// Line 29: the American opportunity credit that is paid out.
    pub education: Money,
}

impl BeforeChild {
    /// Together.
    pub fn used(&self) -> Money {
        self.parts.iter().map(|(_, amount)| *amount).sum()
    }
}

/// Each credit has the tax that those before it leave.
pub fn before_child(on: On<'_>, trail: &mut impl Trail, from: From) -> BeforeChild {
    let mut left = from.before_credits - from.foreign;
    let care = care::reckon(on, trail, from.agi, left);
    left -= care;
    let untaxed_benefits = from.untaxed_benefits;
    let elderly = elderly::reckon(on, trail, elderly::From { agi: from.agi, untaxed_benefits, left });
    left -= elderly;
    let education = education::reckon(on, trail, from.agi, left);
    left -= education.used;
    let saver = saver::reckon(on, trail, from.agi, left);
    left -= saver;
    let improvements = home_energy::improvements(on, trail, left);
    left -= improvements;
    let new_vehicle = clean_vehicles::reckon(on, trail, true, from.agi, left);
    left -= new_vehicle;
    let used_vehicle = clean_vehicles::reckon(on, trail, false, from.agi, left);
    let parts = vec![
        (foreign_tax::CREDIT, from.foreign),
        (care::CREDIT, care),
        (elderly::CREDIT, elderly),
        (education::CREDIT, education.used),
        (saver::CREDIT, saver),
        (home_energy::IMPROVEMENTS, improvements),
        (clean_vehicles::NEW, new_vehicle),
        (clean_vehicles::USED, used_vehicle),
    ];
    BeforeChild { parts, education: education.refundable }
}

/// Whether there is any credit that has only the tax that the child tax credit leaves.
pub fn any_after_child(on: On<'_>) -> bool {
    mortgage_credit::any(on) || adoption::any(on) || home_energy::any_clean(on)
}

/// The credits of Schedule 3 but the one for minimum tax of earlier years, and line 30.
#[derive(Debug, Clone)]
pub struct Schedule3 {
    parts: Vec<(LineId, Money)>,
    /// Together.
    pub used: Money,
    /// Line 30: the adoption credit that is paid out.
    pub adoption: Money,
}

/// With the credits that come after `child`, which is the part of the child tax credit that cannot be paid out.
pub fn schedule_3(
    on: On<'_>,
    trail: &mut impl Trail,
    from: From,
    before: &BeforeChild,
    child: Money,
) -> Schedule3 {
    let mut parts = before.parts.clone();
    let mut adopted = OfYear::default();
    if any_after_child(on) {
        let mut left = limit::or_zero(trail, from.before_credits - before.used() - child);
        let interest = mortgage_credit::of_year(on, trail);
        let interest = mortgage_credit::reckon(on, trail, interest, left);
        left -= interest;
        adopted = adoption::of_year(on, trail, from.agi);
        let adoption = adoption::reckon(on, trail, adopted, left);
        left -= adoption;
        let clean = home_energy::clean(on, trail, left);
        parts.extend([
            (mortgage_credit::CREDIT, interest),
            (adoption::CREDIT, adoption),
            (home_energy::CLEAN, clean),
        ]);
    }
    let used = parts.iter().map(|(_, amount)| *amount).sum();
    Schedule3 { parts, used, adoption: adopted.paid_out }
}

/// Line 20, with the credit for minimum tax of earlier years, which has what all others leave.
pub fn line_20(on: On<'_>, trail: &mut impl Trail, schedule: Schedule3, minimum: Money) -> Money {
    trail.line(L20, on.scope, schedule.used + minimum, |i| {
        let parts = schedule.parts.into_iter().chain([(earlier_minimum_tax::CREDIT, minimum)]);
        for (line, amount) in parts.filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    })
}
