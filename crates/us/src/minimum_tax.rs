//! The alternative minimum tax (§§55, 56), Form 6251, for wages and interest: it adds back state and local taxes or
//! the standard deduction, and counts interest on private activity bonds.

use crate::{filing_status::Status, lines::MINIMUM_TAX_EXEMPTION, unit::On};
use hembo_core::{
    limit::{self, PhaseOut},
    reading::sum,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What the minimum tax starts from.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Form 1040 line 11a.
    pub agi: Money,
    /// Form 1040 line 12e; the deduction for seniors is not allowed here.
    pub taken: Money,
    /// The taxes of Schedule A line 7, or the standard deduction.
    pub added_back: Money,
    /// Form 1040 line 16.
    pub regular: Money,
}

/// Line 11: the tentative minimum tax less the regular tax.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let figures = &on.facts.figures.minimum_tax;
    let status = on.unit.status;
    let bonds = on.owns().map(|(_, own)| sum(&own.private_activity)).sum::<Money>().to_whole();
    let income = from.agi - from.taken + from.added_back + bonds;
    let amti = if status == Status::Separate { income + separate_add_back(on, income) } else { income };
    trail.line("us.6251.4", on.scope, amti, |i| {
        i.line("us.agi", on.scope, from.agi)
            .line("us.12e", on.scope, from.taken)
            .figure("Taxes or standard deduction added back", from.added_back)
            .figure("Private activity bond interest", bonds);
    });
    let full = *figures.exemption.of(status);
    let start = *figures.phase_out_from.of(status);
    let rule = PhaseOut::continuous(start, figures.phase_out_rate, Money::WHOLE);
    let exemption = limit::phase_out(trail, MINIMUM_TAX_EXEMPTION.at(on.scope), full, amti, rule);
    let above = (amti - exemption).or_zero();
    let high_from = *figures.high_from.of(status);
    let high = (above - high_from).or_zero().times(
        figures.high_rate - figures.low_rate,
        Money::CENT,
        Rounding::HalfUp,
    );
    let tentative = (above.times(figures.low_rate, Money::CENT, Rounding::HalfUp) + high).to_whole();
    trail.line("us.6251.9", on.scope, tentative, |i| {
        i.line("us.6251.4", on.scope, amti).figure("Exemption", exemption);
    });
    trail.line("us.amt", on.scope, (tentative - from.regular).or_zero(), |i| {
        i.line("us.6251.9", on.scope, tentative).line("us.16", on.scope, from.regular);
    })
}

/// On a separate return income above the point where the exemption is gone counts a quarter more, up to the
/// exemption (§55(d)(4), last sentence).
fn separate_add_back(on: On<'_>, income: Money) -> Money {
    let figures = &on.facts.figures.minimum_tax;
    let excess = (income - figures.separate_add_back_from).or_zero();
    excess.times(figures.phase_out_rate, Money::WHOLE, Rounding::HalfUp).min(figures.exemption.separate)
}
