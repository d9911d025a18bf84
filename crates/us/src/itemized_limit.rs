//! The overall limit on itemized deductions (§68), from 2026: two parts of 37 of what stands against income in the highest bracket.

use crate::{deduction::L17, unit::On};
use hembo_core::{
    limit::{self, Shape},
    limits, lines,
    provision::Provision,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["itemized_limit", "rates"], ..Provision::NONE };

lines! {
    pub TAKEN = "us.itemized_limit", "Taken by the overall limit", "IRC §68",
        "So many parts of 37 of the itemized deductions, or of what income before them is above the start of the highest bracket.";
}

limits! {
    OVERALL = "us.limit.itemized" on TAKEN, "Itemized deductions", "against income in the highest bracket", "IRC §68";
}

/// What the limit takes of the itemized deductions. `taxable` is taxable income without it, which may be below zero; the deduction for
/// business income is that without it, too (§68(c)).
pub fn reckon(on: On<'_>, trail: &mut impl Trail, itemized: Money, taxable: Money) -> Money {
    let Some(figures) = on.facts.figures.itemized_limit.as_deref().filter(|_| on.unit.itemizes) else {
        return Money::ZERO;
    };
    let tops = on.facts.figures.rates.tops.of(on.unit.status);
    let start = tops.last().copied().unwrap_or(Money::LARGEST);
    let income = limit::or_zero(trail, taxable) + itemized;
    let above = limit::or_zero(trail, income - start);
    let counted = limit::lesser(trail, itemized, above);
    let parts = Money::whole(figures.parts);
    let taken = counted.in_proportion(parts, Money::whole(figures.of), Money::WHOLE, Rounding::HalfUp);
    if taken.is_zero() {
        return taken;
    }
    limit::given(trail, OVERALL.at(on.scope), Shape::PhaseOut, itemized, itemized - taken);
    trail.line(TAKEN, on.scope, taken, |i| {
        i.line(L17, on.scope, itemized)
            .figure("Income before them", income)
            .figure("The highest bracket starts at", start);
    })
}
