//! Schedule 1-A: of its four deductions the one for seniors (§151(d)(5)(C)). Tips, overtime and car loans have no
//! paper here yet; a W-2 that shows tips raises an open point.

use crate::{
    filing_status::Status,
    income,
    unit::{Filed, On},
};
use hembo_core::{
    forms::Required,
    limit::{self, PhaseOut},
    limits, lines,
    provision::Provision,
    trail::{Scope, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, limits: LIMITS, ..Provision::NONE };

lines! {
    pub SENIOR_EACH = "us.senior", "Senior deduction of this person", "IRC §151(d)(5)(C)",
        "An amount from the age of 65, less a part of income above the threshold.";
    pub L13B = "us.13b", "Additional deductions", "IRC §151(d)(5)(C)",
        "Schedule 1-A, line 38.";
}

limits! {
    SENIOR = "us.limit.senior" on SENIOR_EACH, "Senior deduction", "shrinks with income above the threshold",
        "IRC §151(d)(5)(C)(iii)";
}

/// Line 38: 6,000 for each filer of 65, each less 6 % of income above the threshold. Barred on separate returns.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = &on.facts.figures.senior else { return Money::ZERO };
    let aged = on.facts.figures.standard_deduction.aged;
    let rule = PhaseOut::continuous(*figures.from.of(on.unit.status), figures.rate, Money::WHOLE);
    let mut total = Money::ZERO;
    for &person in &on.unit.people {
        let about = &on.facts.people[person];
        if on.unit.status == Status::Separate || !about.work_ssn || !about.reached(aged, on.facts.year_end) {
            continue;
        }
        let scope = Scope::Person(person);
        let allowed = limit::phase_out(trail, SENIOR.at(scope), figures.each, agi, rule);
        total += trail.line(SENIOR_EACH, scope, allowed, |i| {
            i.figure("Each", figures.each)
                .line(income::AGI, on.scope, agi)
                .figure("Shrinks above", rule.start);
        });
    }
    trail.line(L13B, on.scope, total, |i| {
        for &person in &on.unit.people {
            i.figure("Senior", &on.facts.people[person].name);
        }
    })
}

/// Schedule 1-A: where it deducts anything.
pub fn schedule_1_a(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(L13B), "no deduction for seniors")
}
