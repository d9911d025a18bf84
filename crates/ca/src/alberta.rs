//! Alberta (Alberta Personal Income Tax Act; AB428).

use crate::{income::cents, plan::On};
use hembo_core::{limit, trail::Trail};
use hembo_money::Money;

/// The supplemental credit: amounts above the first bracket keep the credit rate of the years before.
pub fn supplement(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Money {
    let figures = &on.facts.figures.alberta_supplement;
    let above = limit::or_zero(trail, amounts - figures.above);
    let credit = cents(above, figures.rate);
    on.made(
        trail,
        "ca.alberta.supplement",
        credit,
        &[("ca.58800", amounts)],
        &[("Above", &figures.above), ("Rate", &figures.rate)],
    )
}

/// Line 42800 from basic Alberta tax.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, basic: Money, dividends: Money) -> Money {
    let tax = limit::or_zero(trail, basic - dividends);
    on.made(trail, "ca.42800", tax, &[("ca.428.basic", basic), ("ca.61520", dividends)], &[])
}
