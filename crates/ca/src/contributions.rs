//! Retirement contributions (ITA 146(5), (5.1); Schedule 7): line 20800, and what is kept for later years.

use crate::{facts::Facts, limits::RRSP_LIMIT, plan::On};
use hembo_core::{Scope, Silent, Trail, limit, reading::sum};
use hembo_money::Money;

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
    trail.line("ca.rrsp.available", on.scope, available, |i| {
        i.items(&own.contributions).items(&own.repaid);
    });
    let most = allowed(on.facts, on.person, trail, on.scope);
    let wanted = on.plan.contributions[on.person].unwrap_or(Money::LARGEST);
    let deducted = limit::lesser(trail, wanted, most);
    let limit = on.gather(trail, "ca.rrsp.limit", &own.rrsp_limit);
    on.made(trail, "ca.20800", deducted, &[("ca.rrsp.available", available), ("ca.rrsp.limit", limit)], &[]);
    on.made(
        trail,
        "ca.rrsp.carried",
        available - deducted,
        &[("ca.rrsp.available", available), ("ca.20800", deducted)],
        &[],
    );
    deducted
}
