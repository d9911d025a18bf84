//! Schedule 1-A: of its four deductions the one for seniors (§151(d)(5)(C)). Tips, overtime and car loans have no
//! paper here yet; a W-2 that shows tips raises an open point.

use crate::{filing_status::Status, lines::SENIOR, unit::On};
use hembo_core::{
    limit::{self, PhaseOut},
    trail::{Scope, Trail},
};
use hembo_money::Money;

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
        total += trail.line("us.senior", scope, allowed, |i| {
            i.figure("Each", figures.each).line("us.agi", on.scope, agi).figure("Shrinks above", rule.start);
        });
    }
    trail.line("us.13b", on.scope, total, |i| {
        for &person in &on.unit.people {
            i.figure("Senior", &on.facts.people[person].name);
        }
    })
}
