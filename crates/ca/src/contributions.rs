//! Retirement contributions (ITA 146(5), (5.1); Schedule 7): line 20800, and what is kept for later years.

use crate::{
    facts::Facts,
    plan::{Filed, On},
};
use hembo_core::{
    Scope, Silent, Trail, forms::Required, limit, limits, lines, provision::Provision, reading::sum,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, limits: LIMITS, ..Provision::NONE };

lines! {
    AVAILABLE = "ca.rrsp.available", "Contributions to deduct", "ITA 146(5), (5.1)",
        "Contributions of this year and its first 60 days after, and unused ones of earlier years, less repayments.";
    LIMIT = "ca.rrsp.limit", "Deduction limit", "ITA 146(1)",
        "From the last notice of assessment.";
    pub DEDUCTED = "ca.20800", "Retirement contributions deducted", "ITA 146(5), (5.1)",
        "As much of what is there as the way deducts now, within the deduction limit.";
    CARRIED = "ca.rrsp.carried", "Contributions kept for later", "ITA 146(5)",
        "What is not deducted now can be deducted in any later year.";
}

limits! {
    RRSP_LIMIT = "ca.limit.rrsp" on DEDUCTED, "Retirement contributions", "over the deduction limit, kept for later",
        "ITA 146(5)";
}

/// The most that a person may deduct this year.
pub fn most(facts: &Facts, person: usize) -> Money {
    allowed(facts, person, &mut Silent, Scope::Person(person))
}

fn allowed(facts: &Facts, person: usize, trail: &mut impl Trail, scope: Scope) -> Money {
    let who = &facts.people[person];
    limit::cap(trail, RRSP_LIMIT.at(scope), who.available_contributions(), sum(&who.own.rrsp_limit))
}

/// Line 20800: as much as the way deducts of what is there, within the deduction limit; the rest is carried.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = on.own();
    let available = on.who().available_contributions();
    trail.line(AVAILABLE, on.scope, available, |i| {
        i.items(&own.contributions).items(&own.repaid);
    });
    let most = allowed(on.facts, on.person, trail, on.scope);
    let wanted = on.plan.contributions[on.person].unwrap_or(Money::LARGEST);
    let deducted = limit::lesser(trail, wanted, most);
    let limit = on.gather(trail, LIMIT, &own.rrsp_limit);
    on.made(trail, DEDUCTED, deducted, &[(AVAILABLE, available), (LIMIT, limit)], &[]);
    on.made(trail, CARRIED, available - deducted, &[(AVAILABLE, available), (DEDUCTED, deducted)], &[]);
    deducted
}

/// Schedule 7: where there are contributions, or repayments among them.
pub fn schedule_7(filed: Filed<'_>) -> Required {
    let own = filed.on.own();
    let any = !own.contributions.is_empty() || !own.repaid.is_empty();
    Required::if_so(any, "no retirement contributions")
}
