//! Gifts of cash beside the standard deduction (§170(p)), from 2026: to public charities, up to an amount.

use crate::{schedule_a::gifts, unit::On};
use hembo_core::{limit, limits, lines, provision::Provision, reading::sum, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["unitemized_gifts"], ..Provision::NONE };

lines! {
    pub GIFTS = "us.unitemized_gifts", "Gifts beside the standard deduction", "IRC §170(p)",
        "Gifts of cash to public charities, up to an amount, where nothing is itemized.";
}

limits! {
    MOST = "us.limit.unitemized_gifts" on GIFTS, "Gifts beside the standard deduction", "over the amount", "IRC §170(p)";
}

/// What is deducted; nothing on a return that itemizes.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let Some(figures) = on.facts.figures.unitemized_gifts.as_deref() else { return Money::ZERO };
    let given = sum(on.items(&gifts::brings::CASH)).to_whole();
    if on.unit.itemizes || given.is_zero() {
        return Money::ZERO;
    }
    let allowed = limit::cap(trail, MOST.at(on.scope), given, *figures.most.of(on.unit.status));
    trail.line(GIFTS, on.scope, allowed, |i| {
        i.items(on.items(&gifts::brings::CASH));
    })
}
