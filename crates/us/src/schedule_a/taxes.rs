//! State and local taxes (§164), Schedule A lines 5a to 5e.

use crate::{
    lines::{TAXES_CAP, TAXES_PHASE_DOWN},
    unit::{On, TaxesDeducted},
};
use hembo_core::{
    limit::{self, PhaseOut},
    trail::Trail,
};
use hembo_money::Money;

/// Line 5e. The cap shrinks by 30 % of modified income above the threshold, not below its floor (§164(b)(7)).
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let general = match on.unit.taxes {
        TaxesDeducted::Income => on.gather(trail, "us.sched_a.5a", |own| &own.state_income_tax),
        TaxesDeducted::SalesActual => on.gather(trail, "us.sched_a.5a", |own| &own.sales_tax_actual),
        TaxesDeducted::SalesTable if on.unit.people.len() == 1 && on.facts.couple() => {
            on.gather(trail, "us.sched_a.5a", |own| &own.sales_tax_table_separate)
        }
        TaxesDeducted::SalesTable => on.gather(trail, "us.sched_a.5a", |own| &own.sales_tax_table),
    };
    let real_estate = on.gather(trail, "us.sched_a.5b", |own| &own.real_estate_tax);
    let personal = on.gather(trail, "us.sched_a.5c", |own| &own.personal_tax);
    let paid = trail.line("us.sched_a.5d", on.scope, general + real_estate + personal, |i| {
        i.line("us.sched_a.5a", on.scope, general).line("us.sched_a.5b", on.scope, real_estate).line(
            "us.sched_a.5c",
            on.scope,
            personal,
        );
    });
    let most = cap(on, trail, agi);
    let allowed = limit::cap(trail, TAXES_CAP.at(on.scope), paid, most);
    trail.line("us.sched_a.5e", on.scope, allowed, |i| {
        i.line("us.sched_a.5d", on.scope, paid).line("us.sched_a.cap", on.scope, most);
    })
}

/// The cap of the status, less its phase-down where the year has one.
fn cap(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let figures = &on.facts.figures.taxes;
    let status = on.unit.status;
    let full = *figures.cap.of(status);
    let Some(down) = &figures.phase_down else {
        return trail.line("us.sched_a.cap", on.scope, full, |i| {
            i.figure("Full cap", full);
        });
    };
    let rule = PhaseOut {
        least: *down.least.of(status),
        ..PhaseOut::continuous(*down.from.of(status), down.rate, Money::WHOLE)
    };
    let most = limit::phase_out(trail, TAXES_PHASE_DOWN.at(on.scope), full, agi, rule);
    trail.line("us.sched_a.cap", on.scope, most, |i| {
        i.figure("Full cap", full).figure("Shrinks above", rule.start).line("us.agi", on.scope, agi);
    })
}
