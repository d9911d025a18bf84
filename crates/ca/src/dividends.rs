//! Taxable dividends (ITA 82): lines 12000 and 12010, and the election by which one partner reports those of the other.

use crate::{
    facts::Facts,
    papers::t5,
    plan::{Election, Filed, On},
};
use hembo_core::{forms::Required, lines, provision::Provision, reading::sum, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub ALL = "ca.12000", "Taxable dividends", "ITA 82(1)",
        "Eligible and other dividends, grossed up.";
    ELIGIBLE_GIVEN = "ca.dividends.eligible_given", "Eligible dividends that the partner reports", "ITA 82(3)",
        "All taxable eligible dividends of this return, by election.";
    OTHER_GIVEN = "ca.dividends.other_given", "Other dividends that the partner reports", "ITA 82(3)",
        "All other taxable dividends of this return, by election.";
    pub OTHER = "ca.12010", "Of these other than eligible", "ITA 82(1)(b)(i)",
        "Box 11 of every T5, or box 10 grossed up.";
}

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
    Dividends {
        eligible: sum(own.of(&t5::brings::ELIGIBLE_DIVIDENDS)),
        other: sum(own.of(&t5::brings::OTHER_DIVIDENDS)),
    }
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
    trail.line(OTHER, on.scope, all.other, |i| {
        i.items(on.own().of(&t5::brings::OTHER_DIVIDENDS));
        if let Some(from) = given {
            i.flow(OTHER_GIVEN, from.scope, theirs.other);
        }
    });
    trail.line(ALL, on.scope, all.eligible + all.other, |i| {
        i.line(OTHER, on.scope, all.other).items(on.own().of(&t5::brings::ELIGIBLE_DIVIDENDS));
        if let Some(from) = given {
            i.flow(ELIGIBLE_GIVEN, from.scope, theirs.eligible);
        }
    });
    all
}

/// The return whose dividends the partner reports has none.
fn give(on: On<'_>, trail: &mut impl Trail) -> Dividends {
    let Dividends { eligible, other } = own(on);
    trail.line(OTHER_GIVEN, on.scope, other, |i| {
        i.items(on.own().of(&t5::brings::OTHER_DIVIDENDS));
    });
    trail.line(ELIGIBLE_GIVEN, on.scope, eligible, |i| {
        i.items(on.own().of(&t5::brings::ELIGIBLE_DIVIDENDS));
    });
    Dividends::default()
}

/// The election: on the return whose dividends the partner reports.
pub fn election_statement(filed: Filed<'_>) -> Required {
    let given = filed.has(ELIGIBLE_GIVEN) || filed.has(OTHER_GIVEN);
    Required::if_so(given, "everyone reports their own dividends")
}

/// Taxable dividends of a person's papers.
pub fn of_papers(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    sum(own.of(&t5::brings::ELIGIBLE_DIVIDENDS)) + sum(own.of(&t5::brings::OTHER_DIVIDENDS))
}

/// The election of an option: not at all, the first partner reports those of the second, the second those of the first.
pub fn election(facts: &Facts, option: usize) -> Option<Election> {
    let to = *facts.filers.get(option.checked_sub(1)?)?;
    Some(Election { from: facts.partner(to)?, to })
}
