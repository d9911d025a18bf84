//! Income and adjusted gross income (§§61, 62): Form 1040 lines 1a to 11a.

use crate::{facts::Own, unit::On};
use hembo_core::{
    reading::sum,
    trail::{Scope, Trail},
};
use hembo_money::Money;

/// Income down to line 11a.
#[derive(Debug, Clone, Copy)]
pub struct Income {
    /// Line 1a, which is line 1z here.
    pub wages: Money,
    /// Line 2a.
    pub exempt_interest: Money,
    /// Line 2b.
    pub interest: Money,
    /// Schedule 1 line 18.
    pub penalty: Money,
    /// Line 11a.
    pub agi: Money,
}

/// Lines 1a to 11a.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Income {
    let wages = on.gather(trail, "us.1a", |own| &own.wages);
    let exempt_interest = on.gather(trail, "us.2a", |own| &own.exempt_interest);
    let interest = on.gather(trail, "us.2b", |own| &own.interest);
    let total = trail.line("us.9", on.scope, wages + interest, |i| {
        i.line("us.1a", on.scope, wages).line("us.2b", on.scope, interest);
    });
    let penalty = on.gather(trail, "us.penalty", |own| &own.penalty);
    if on.unit.people.len() > 1 {
        for (person, own) in on.owns() {
            agi_of(trail, person, own);
        }
    }
    let agi = trail.line("us.agi", on.scope, total - penalty, |i| {
        i.line("us.9", on.scope, total).line("us.penalty", on.scope, penalty);
    });
    Income { wages, exempt_interest, interest, penalty, agi }
}

/// A spouse's part of the joint income.
fn agi_of(trail: &mut impl Trail, person: usize, own: &Own) {
    let scope = Scope::Person(person);
    let parts =
        [("us.1a", sum(&own.wages)), ("us.2b", sum(&own.interest)), ("us.penalty", sum(&own.penalty))];
    let [(_, wages), (_, interest), (_, penalty)] = parts;
    trail.line("us.agi", scope, wages + interest - penalty, |i| {
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, scope, amount);
        }
    });
}
