//! Form 540 from federal adjusted gross income to the balance, in the order of the law's computation.

use super::{
    adjustments, adjustments::L17, cover, credits, earned_income, exemptions, form_540nr, is_prepared,
    itemized, itemized::L18, made, minimum_tax, payments, tax, tax::L19,
};
use crate::{income, unit::On};
use hembo_core::{Trail, limit, lines, provision::Provision};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    L13 = "us.ca.540.13", "Federal adjusted gross income", "Form 540, line 13", "Of the federal return.";
}

/// The return of California on top of a federal one, where it is prepared; the result is what the household pays to the state for good. `earned`
/// is what was earned for the federal standard deduction.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &income::Income, earned: Money) -> Money {
    if !is_prepared(on) {
        return Money::ZERO;
    }
    made(on, trail, L13, income.agi, &[(income::AGI, income.agi)], &[]);
    let adjusted = adjustments::reckon(on, trail, income);
    let deducted = itemized::reckon(on, trail, income, earned);
    let before = adjusted.agi - deducted.taken;
    let taxable = limit::or_zero(trail, before);
    made(on, trail, L19, taxable, &[(L17, adjusted.agi), (L18, deducted.taken)], &[]);
    let regular = tax::reckon(on, trail, taxable);
    let exempt = exemptions::reckon(on, trail, income.agi);
    let all = form_540nr::AllYear {
        agi: adjusted.agi,
        deduction: deducted.taken,
        taxable,
        tax: regular,
        exemptions: exempt,
    };
    let here = form_540nr::reckon(on, trail, all);
    let minimum = minimum_tax::reckon(on, trail, before, deducted, here, income);
    let from = credits::From { federal: income.agi, agi: adjusted.agi, taxable, here, minimum };
    let after = credits::reckon(on, trail, from);
    let services = tax::services(on, trail, here.taxable);
    let paid_out = earned_income::reckon(on, trail, income, here.of_credits);
    let penalty = cover::reckon(on, trail, adjusted, income);
    payments::reckon(
        on,
        trail,
        payments::From { agi: adjusted.agi, tax: after, minimum: minimum.tax, services, penalty, paid_out },
    )
}
