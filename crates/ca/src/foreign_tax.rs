//! The credits for foreign tax on income that is no business's (ITA 126(1); forms T2209, T2036): line 40500 by country, and the
//! province's of what is left.

use crate::{
    foreign_income::{brings, countries},
    form_428,
    income::Income,
    plan::{Filed, On},
};
use hembo_core::{forms::Required, limit, limits, lines, provision::Provision, settled, trail::Trail};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, limits: LIMITS, ..Provision::NONE };

lines! {
    pub CREDIT = "ca.40500", "Federal foreign tax credit", "ITA 126(1); form T2209",
        "Of each country the tax, or the federal tax on its income if less.";
    pub AFTER = "ca.40600", "Federal tax after it", "ITA 126(1)",
        "Federal tax less the credit.";
}

limits! {
    TAX_ON_IT = "ca.limit.foreign" on CREDIT, "Foreign tax", "over the federal tax on its income",
        "ITA 126(1)";
}

/// What the federal credit leaves of a country's tax, with the country's income.
#[derive(Debug, Clone, Copy)]
pub struct Left {
    income: Money,
    tax: Money,
}

/// What is credited of a country's tax: no more than the tax of this law on its income, which is its part of what is taxable, at most
/// all.
fn credited(trail: &mut impl Trail, paid: Money, tax: Money, income: Money, taxable: Money) -> Money {
    let within = limit::lesser(trail, settled::or_zero(income), taxable);
    let part = tax.in_proportion(within, taxable, Money::CENT, Rounding::HalfUp);
    let most = if taxable.is_zero() { tax } else { part };
    let credited = limit::lesser(trail, paid, most);
    trail.curve(credited, taxable);
    credited
}

/// Line 40500, with what it leaves of each country's tax. `basic` is basic federal tax, `dividends` the dividend credit.
pub fn federal(
    on: On<'_>,
    trail: &mut impl Trail,
    income: &Income,
    basic: Money,
    dividends: Money,
) -> (Money, Vec<Left>) {
    let all = on.own().of(&brings::ABROAD);
    if all.is_empty() {
        return (Money::ZERO, Vec::new());
    }
    let (mut credit, mut left, mut wanted) = (Money::ZERO, Vec::new(), Money::ZERO);
    for country in countries(on) {
        let of_country =
            credited(trail, country.tax, basic + dividends, country.income, income.of_all_countries);
        wanted += country.tax;
        credit += of_country;
        left.push(Left { income: country.income, tax: country.tax - of_country });
    }
    // Never more than the tax.
    let of_tax = limit::lesser(trail, credit, basic);
    let allowed = limit::cap(trail, TAX_ON_IT.at(on.scope), wanted, of_tax);
    trail.line(CREDIT, on.scope, allowed, |i| {
        i.items(all.iter().map(|abroad| &abroad.tax))
            .figure("Income that it is a part of", income.of_all_countries);
        i.figure("Basic federal tax and dividend credit", basic + dividends);
    });
    (allowed, left)
}

/// The province's credit (T2036): what the federal one leaves, or the provincial tax on the income if less.
pub fn provincial(on: On<'_>, trail: &mut impl Trail, left: &[Left], all: Money, tax: Money) -> Money {
    if left.is_empty() {
        return Money::ZERO;
    }
    let credit = left.iter().map(|country| credited(trail, country.tax, tax, country.income, all)).sum();
    let taken = limit::lesser(trail, credit, tax);
    on.made(
        trail,
        form_428::FOREIGN,
        taken,
        &[],
        &[("Income that it is a part of", &all), ("Provincial tax", &tax)],
    )
}

/// Form T2209: where there is a credit.
pub fn form_t2209(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CREDIT), "no foreign tax credited")
}
