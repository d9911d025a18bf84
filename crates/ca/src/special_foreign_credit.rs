//! The special foreign credit of the minimum tax (ITA 127.54): where it is more than what section 126 credits, the minimum tax is less
//! by what it is more.

use crate::{
    foreign_income::{brings, countries},
    foreign_tax,
    plan::On,
    rounding::cents,
};
use hembo_core::{limit, lines, provision::Provision, settled, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, figures: &["minimum_tax"], ..Provision::NONE };

lines! {
    pub CREDIT = "ca.t691.foreign", "Special foreign credit", "ITA 127.54(2)",
        "Line 40500; or, if that is more, a part of foreign tax up to the rate of the minimum tax on the income it was paid on.";
}

/// 127.54(2)(b): of the taxes a part, up to the rate of the minimum tax on the income that they were paid on. What is deducted of
/// them is none of them (126(7)).
fn of_taxes(on: On<'_>) -> Money {
    let figures = &on.facts.figures.minimum_tax;
    let countries = countries(on);
    let taxes: Money = countries.iter().map(|country| country.tax).sum();
    let income: Money = countries.iter().map(|country| country.income).sum();
    settled::lesser(cents(taxes, figures.foreign_tax_part), cents(settled::or_zero(income), figures.rate))
}

/// What the minimum tax is less by, a line where there is any; `credited` is line 40500.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, minimum: Money, credited: Money) -> Money {
    if !on.own().has(&brings::ABROAD) {
        return Money::ZERO;
    }
    let of_taxes = of_taxes(on);
    let special = limit::greater(trail, credited, of_taxes);
    if minimum.is_zero() {
        return special;
    }
    let figures = &on.facts.figures.minimum_tax;
    on.made(
        trail,
        CREDIT,
        special,
        &[(foreign_tax::CREDIT, credited)],
        &[("Of the taxes", &of_taxes), ("Part", &figures.foreign_tax_part), ("Rate", &figures.rate)],
    )
}
