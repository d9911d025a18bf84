//! Other taxes of Schedule 2: Additional Medicare Tax (Form 8959), Net Investment Income Tax (Form 8960), and payroll
//! taxes that an employer could not collect. Their thresholds begin a tax rather than cut a benefit, so they are no
//! limits.

use crate::{income::Income, unit::On};
use hembo_core::{reading::sum, trail::Trail};
use hembo_money::{Money, Rounding};

/// Line 23.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Money {
    let medicare = additional_medicare(on, trail);
    let investment = investment(on, trail, income);
    let uncollected = on.gather(trail, "us.sched_2.13", |own| &own.uncollected);
    trail.line("us.23", on.scope, medicare + investment + uncollected, |i| {
        i.line("us.8959.18", on.scope, medicare).line("us.8960.17", on.scope, investment).line(
            "us.sched_2.13",
            on.scope,
            uncollected,
        );
    })
}

/// Form 8959: 0.9 % of Medicare wages above the threshold, both spouses' together on a joint return.
fn additional_medicare(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.additional_medicare;
    let wages = on.gather(trail, "us.8959.1", |own| &own.medicare_wages);
    let from = *figures.from.of(on.unit.status);
    let tax = (wages - from).or_zero().times(figures.rate, Money::WHOLE, Rounding::HalfUp);
    trail.line("us.8959.18", on.scope, tax, |i| {
        i.line("us.8959.1", on.scope, wages).figure("Above", from).figure("Rate", figures.rate);
    })
}

/// What employers withheld of it: Medicare tax above 1.45 % of Medicare wages, Form 8959 line 24.
pub fn additional_medicare_withheld(on: On<'_>) -> Money {
    let figures = &on.facts.figures.additional_medicare;
    let total =
        |amount: fn(&crate::facts::Own) -> Money| on.owns().map(|(_, own)| amount(own)).sum::<Money>();
    let (tax, wages) = (total(|own| sum(&own.medicare_tax)), total(|own| sum(&own.medicare_wages)));
    // In cents, rounded once: rounding both sides would make a dollar of nothing.
    (tax - wages.times(figures.regular_rate, Money::CENT, Rounding::HalfUp)).or_zero().to_whole()
}

/// Form 8960: 3.8 % of interest less the early withdrawal penalty, or of income above the threshold if that is less.
fn investment(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Money {
    let figures = &on.facts.figures.investment_tax;
    let net = (income.interest - income.penalty).or_zero();
    let from = *figures.from.of(on.unit.status);
    let above = (income.agi - from).or_zero();
    let tax = net.min(above).times(figures.rate, Money::WHOLE, Rounding::HalfUp);
    trail.line("us.8960.17", on.scope, tax, |i| {
        i.line("us.2b", on.scope, income.interest)
            .line("us.agi", on.scope, income.agi)
            .figure("Above", from)
            .figure("Rate", figures.rate);
    })
}
