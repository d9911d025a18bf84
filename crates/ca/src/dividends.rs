//! Taxable dividends (ITA 82): lines 12000 and 12010, and the election by which one partner reports those of the other.

use crate::plan::{Election, On};
use hembo_core::{reading::sum, trail::Trail};
use hembo_money::Money;

/// Taxable dividends on a return.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Dividends {
    pub eligible: Money,
    pub other: Money,
}

/// The dividends of a person's papers.
pub fn own(on: On<'_>) -> Dividends {
    let own = on.own();
    Dividends { eligible: sum(&own.eligible_dividends), other: sum(&own.other_dividends) }
}

/// Lines 12010 and 12000: own dividends, with those of the partner or without any where an election moves them.
pub fn reported(on: On<'_>, trail: &mut impl Trail) -> Dividends {
    let given = match on.plan.dividends {
        Some(Election { from, .. }) if from == on.person => return give(on, trail),
        Some(Election { from, to }) if to == on.person => Some(on.of(from)),
        _ => None,
    };
    let mine = own(on);
    let theirs = given.map(own).unwrap_or_default();
    let all = Dividends { eligible: mine.eligible + theirs.eligible, other: mine.other + theirs.other };
    trail.line("ca.12010", on.scope, all.other, |i| {
        i.items(&on.own().other_dividends);
        if let Some(from) = given {
            i.flow("ca.dividends.other_given", from.scope, theirs.other);
        }
    });
    trail.line("ca.12000", on.scope, all.eligible + all.other, |i| {
        i.line("ca.12010", on.scope, all.other).items(&on.own().eligible_dividends);
        if let Some(from) = given {
            i.flow("ca.dividends.eligible_given", from.scope, theirs.eligible);
        }
    });
    all
}

/// The return whose dividends the partner reports has none.
fn give(on: On<'_>, trail: &mut impl Trail) -> Dividends {
    let Dividends { eligible, other } = own(on);
    trail.line("ca.dividends.other_given", on.scope, other, |i| {
        i.items(&on.own().other_dividends);
    });
    trail.line("ca.dividends.eligible_given", on.scope, eligible, |i| {
        i.items(&on.own().eligible_dividends);
    });
    Dividends::default()
}
