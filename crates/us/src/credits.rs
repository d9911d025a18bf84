//! The nonrefundable credits of Schedule 3, Part I, in the order in which they use up the tax (§26(a)).

use crate::{foreign_tax, unit::On};
use hembo_core::{lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub L20 = "us.20", "Other credits", "IRC §26(a)",
        "Schedule 3, line 8: the foreign tax credit.";
}

/// Line 20.
pub fn schedule_3(on: On<'_>, trail: &mut impl Trail, foreign: Money) -> Money {
    trail.line(L20, on.scope, foreign, |i| {
        i.line(foreign_tax::CREDIT, on.scope, foreign);
    })
}
