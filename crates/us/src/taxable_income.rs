//! Taxable income (§63): Form 1040 lines 12e to 15.

use crate::{additional_deductions, deduction, income, standard_deduction, unit::On};
use hembo_core::{limit, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub L12E = "us.12e", "Standard or itemized", "IRC §63(b), (e)",
        "The one that this way takes.";
    L14 = "us.14", "Total deductions", "IRC §63",
        "Line 12e and line 13b.";
    pub L15 = "us.15", "Taxable income", "IRC §63",
        "Adjusted gross income less the deductions, never less than zero.";
}

/// Line 12e: the standard deduction or the itemized ones, whichever the way takes.
pub fn taken(on: On<'_>, trail: &mut impl Trail, standard: Money, itemized: Money) -> Money {
    let (line, amount) =
        if on.unit.itemizes { (deduction::L17, itemized) } else { (standard_deduction::STANDARD, standard) };
    trail.line(L12E, on.scope, amount, |i| {
        i.line(line, on.scope, amount);
    })
}

/// Line 15, never less than zero. `additional` is line 13b.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money, taken: Money, additional: Money) -> Money {
    let deductions = trail.line(L14, on.scope, taken + additional, |i| {
        i.line(L12E, on.scope, taken).line(additional_deductions::L13B, on.scope, additional);
    });
    let taxable = limit::or_zero(trail, agi - deductions);
    trail.line(L15, on.scope, taxable, |i| {
        i.line(income::AGI, on.scope, agi).line(L14, on.scope, deductions);
    })
}
