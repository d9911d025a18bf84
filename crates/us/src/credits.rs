//! The nonrefundable credits of Schedule 3, Part I, in the order in which they use up the tax (§26(a)).

use crate::{care, education, foreign_tax, saver, unit::On};
use hembo_core::{lines, provision::Provision, trail::Trail};
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
}

/// What they come to.
#[derive(Debug, Clone, Copy)]
pub struct Schedule3 {
    /// Line 20 of Form 1040.
    pub used: Money,
    /// Line 29: the American opportunity credit that is paid out.
    pub education: Money,
}

/// Line 20: each credit has the tax that those before it leave.
pub fn schedule_3(on: On<'_>, trail: &mut impl Trail, from: From) -> Schedule3 {
    let left = from.before_credits - from.foreign;
    let care = care::reckon(on, trail, from.agi, left);
    let left = left - care;
    let education = education::reckon(on, trail, from.agi, left);
    let saver = saver::reckon(on, trail, from.agi, left - education.used);
    let parts = [
        (foreign_tax::CREDIT, from.foreign),
        (care::CREDIT, care),
        (education::CREDIT, education.used),
        (saver::CREDIT, saver),
    ];
    let used = trail.line(L20, on.scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    });
    Schedule3 { used, education: education.refundable }
}
