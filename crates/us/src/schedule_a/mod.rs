//! Schedule A: itemized deductions, line by line.

mod gifts;
mod home_loan;
pub mod medical;
mod taxes;

use crate::unit::On;
use hembo_core::trail::Trail;
use hembo_money::Money;

/// What Schedule A comes to.
#[derive(Debug, Clone, Copy)]
pub struct Itemized {
    /// Line 17.
    pub total: Money,
    /// Line 7: the taxes that the minimum tax adds back.
    pub taxes: Money,
}

/// Computes Schedule A, whether or not the return takes it: gifts are carried over either way.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Itemized {
    let medical = medical::reckon(on, trail, agi);
    let taxes = taxes::reckon(on, trail, agi);
    let interest = home_loan::reckon(on, trail);
    let gifts = gifts::reckon(on, trail, agi);
    let total = trail.line("us.sched_a.17", on.scope, medical + taxes + interest + gifts, |i| {
        i.line("us.sched_a.4", on.scope, medical)
            .line("us.sched_a.5e", on.scope, taxes)
            .line("us.sched_a.8e", on.scope, interest)
            .line("us.sched_a.14", on.scope, gifts);
    });
    Itemized { total, taxes }
}
