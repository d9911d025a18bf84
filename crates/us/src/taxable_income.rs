//! Taxable income (§63): Form 1040 lines 12e to 15.

use crate::{
    additional_deductions, business_deduction, deduction, income, itemized_limit, standard_deduction,
    unit::On,
};
use hembo_core::{limit, line::LineId, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    pub L12E = "us.12e", "Standard or itemized", "IRC §63(b), (e)",
        "The one that this way takes; from 2026 itemized ones less what the overall limit takes.";
    L14 = "us.14", "Total deductions", "IRC §63",
        "Lines 12e, 13a and 13b; from 2026 gifts beside the standard deduction.";
    pub L15 = "us.15", "Taxable income", "IRC §63",
        "Adjusted gross income less the deductions, never less than zero.";
}

/// Line 12e: the itemized deductions less what the overall limit takes, or the standard one with a qualified disaster loss,
/// whichever the way takes.
pub fn taken(
    on: On<'_>,
    trail: &mut impl Trail,
    standard: Money,
    (itemized, over): (Money, Money),
    (of_disaster, disaster): (LineId, Money),
) -> Money {
    if on.unit.itemizes {
        return trail.line(L12E, on.scope, itemized - over, |i| {
            i.line(deduction::L17, on.scope, itemized);
            if !over.is_zero() {
                i.line(itemized_limit::TAKEN, on.scope, over);
            }
        });
    }
    trail.line(L12E, on.scope, standard + disaster, |i| {
        i.line(standard_deduction::STANDARD, on.scope, standard);
        if !disaster.is_zero() {
            i.line(of_disaster, on.scope, disaster);
        }
    })
}

/// What is taken off adjusted gross income.
#[derive(Debug, Clone, Copy)]
pub struct Deductions {
    /// Line 12e.
    pub taken: Money,
    /// Line 13a.
    pub business: Money,
    /// Line 13b.
    pub additional: Money,
    /// Gifts beside the standard deduction.
    pub gifts: Money,
    /// Of line 13b the deduction for seniors.
    pub seniors: Money,
}

impl Deductions {
    /// Line 14.
    pub fn sum(self) -> Money {
        self.taken + self.business + self.additional + self.gifts
    }
}

/// Line 15, never less than zero; `of_gifts` is the line of the gifts beside the standard deduction.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money, off: Deductions, of_gifts: LineId) -> Money {
    let deductions = trail.line(L14, on.scope, off.sum(), |i| {
        i.line(L12E, on.scope, off.taken).line(business_deduction::L13A, on.scope, off.business).line(
            additional_deductions::L13B,
            on.scope,
            off.additional,
        );
        if !off.gifts.is_zero() {
            i.line(of_gifts, on.scope, off.gifts);
        }
    });
    let taxable = limit::or_zero(trail, agi - deductions);
    trail.line(L15, on.scope, taxable, |i| {
        i.line(income::AGI, on.scope, agi).line(L14, on.scope, deductions);
    })
}
