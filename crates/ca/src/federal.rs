//! Federal tax and its credits: step 5 of the T1, lines 30000 to 42900.

use crate::{
    gifts,
    income::{Income, cents},
    limits::CREDITS,
    medical,
    personal::{Incomes, Personal},
    plan::On,
    transfers::{self, Offer},
    tuition::{self, Tuition},
};
use hembo_core::{limit, trail::Trail};
use hembo_money::Money;

/// Tax on taxable income (ITA 117(2)).
pub fn tax(on: On<'_>, trail: &mut impl Trail, taxable: Money) -> Money {
    let figures = &on.facts.figures.brackets;
    let tax = limit::by_brackets(trail, taxable, &figures.tops, figures.rates.iter().copied());
    let bracket = figures.tops.iter().take_while(|&&top| taxable > top).count();
    on.made(
        trail,
        "ca.40400",
        tax,
        &[("ca.26000", taxable)],
        &[("Rate on the last dollar", &figures.rates[bracket])],
    )
}

/// What a return's own amounts leave of its income to cover, in amounts.
pub fn to_cover(on: On<'_>, trail: &mut impl Trail, taxable: Money) -> Money {
    let figures = &on.facts.figures.brackets;
    tuition::to_cover(trail, taxable, &figures.tops, &figures.rates)
}

/// What a return's credits are made of.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Credits<'a> {
    pub incomes: &'a Incomes,
    pub personal: Personal,
    pub tuition: &'a [Tuition],
    pub offer: Option<Offer>,
    pub gifts: Money,
    pub tax: Money,
}

/// Lines 32400 to 42900, and the medical supplement that is paid out: (basic federal tax, line 45200).
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: Credits<'_>) -> (Money, Money) {
    let income: &Income = &from.incomes[on.person];
    let own = from.personal;
    let used = from.tuition[on.person].used;
    let from_child = tuition::from_child(on, trail, from.tuition);
    let from_partner = transfers::reckon(on, trail, transfers::FEDERAL, from.offer);
    let medical = medical::federal(on, trail, income.net);
    let amounts = on.add(
        trail,
        "ca.33500",
        &[
            ("ca.30000", own.basic),
            ("ca.30100", own.age),
            ("ca.30300", own.spouse),
            ("ca.30400", own.dependant),
            ("ca.30800", own.cpp),
            ("ca.31200", own.ei),
            ("ca.31260", own.employment),
            ("ca.31400", own.pension),
            ("ca.32300", used),
            ("ca.32400", from_child),
            ("ca.32600", from_partner),
            ("ca.33200", medical),
        ],
    );
    let rate = on.facts.figures.brackets.rates[0];
    let credit = cents(amounts, rate);
    on.made(trail, "ca.33800", credit, &[("ca.33500", amounts)], &[("Rate", &rate)]);
    let given = gifts::credit(on, trail, from.gifts, income.taxable);
    let top_up = top_up(on, trail, amounts);
    let credits =
        on.add(trail, "ca.35000", &[("ca.33800", credit), ("ca.34900", given), ("ca.34990", top_up)]);
    let taken = limit::cap(trail, CREDITS.at(on.scope), credits, from.tax);
    let dividends = dividend_credit(on, trail, income);
    let basic = limit::or_zero(trail, from.tax - taken - dividends);
    on.made(
        trail,
        "ca.42900",
        basic,
        &[("ca.40400", from.tax), ("ca.35000", credits), ("ca.40425", dividends)],
        &[],
    );
    (basic, medical::supplement(on, trail, medical, from.incomes))
}

/// Line 34990: amounts above the first bracket keep the credit rate of the years before.
fn top_up(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Money {
    let figures = &on.facts.figures.top_up;
    let above = limit::or_zero(trail, amounts - figures.above);
    let credit = cents(above, figures.rate);
    on.made(
        trail,
        "ca.34990",
        credit,
        &[("ca.33500", amounts)],
        &[("Above", &figures.above), ("Rate", &figures.rate)],
    )
}

/// Line 40425 (ITA 121): a part of the taxable amount of dividends.
fn dividend_credit(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Money {
    let figures = &on.facts.figures.dividends;
    let credit = cents(income.eligible_dividends, figures.eligible_credit)
        + cents(income.other_dividends, figures.other_credit);
    on.made(
        trail,
        "ca.40425",
        credit,
        &[("ca.12000", income.eligible_dividends + income.other_dividends)],
        &[("Of eligible dividends", &figures.eligible_credit), ("Of the others", &figures.other_credit)],
    )
}
