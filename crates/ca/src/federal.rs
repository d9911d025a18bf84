//! Federal tax and its credits: step 5 of the T1, lines 30000 to 42900.

use crate::{
    cpp_ei, dividends, gifts,
    income::{self, Income},
    medical,
    personal::{self, Incomes, Personal},
    plan::On,
    rounding::share,
    transfers::{self, Offer},
    tuition::{self, Tuition},
};
use hembo_core::{limit, limits, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &["brackets", "top_up", "dividends"],
    ..Provision::NONE
};

lines! {
    pub TAX = "ca.40400", "Tax on taxable income", "ITA 117(2)",
        "Each rate on its slice of taxable income.";
    pub AMOUNTS = "ca.33500", "Amounts together", "ITA 118-118.9",
        "All non-refundable amounts.";
    pub FOR_AMOUNTS = "ca.33800", "Credit for amounts", "ITA 118",
        "Amounts at the lowest rate.";
    pub TOP_UP = "ca.34990", "Top-up credit", "2025 budget legislation",
        "Amounts above the first bracket keep the rate of the years before.";
    pub CREDIT = "ca.35000", "Non-refundable credits", "ITA 118-118.9",
        "Credits for amounts and gifts.";
    pub DIVIDENDS = "ca.40425", "Dividend tax credit", "ITA 121",
        "A part of the taxable amount of dividends.";
    pub FEDERAL_TAX = "ca.42900", "Federal tax", "ITA 117-127",
        "Tax less the credits, never below zero.";
}

limits! {
    pub CREDITS = "ca.limit.credits" on CREDIT, "Federal credits", "beyond the tax, lost",
        "ITA 118-118.9";
}

/// Tax on taxable income (ITA 117(2)).
pub fn tax(on: On<'_>, trail: &mut impl Trail, taxable: Money) -> Money {
    let figures = &on.facts.figures.brackets;
    let tax = limit::by_brackets(trail, taxable, &figures.tops, figures.rates.iter().copied());
    let bracket = figures.tops.iter().take_while(|&&top| taxable > top).count();
    on.made(
        trail,
        TAX,
        tax,
        &[(income::TAXABLE, taxable)],
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
        AMOUNTS,
        &[
            (personal::BASIC_AMOUNT, own.basic),
            (personal::AGE_AMOUNT, own.age),
            (personal::SPOUSE, own.spouse),
            (personal::DEPENDANT, own.dependant),
            (cpp_ei::CPP, own.cpp),
            (cpp_ei::EI, own.ei),
            (personal::EMPLOYED, own.employment),
            (personal::PENSION, own.pension),
            (tuition::USED, used),
            (tuition::FROM_CHILD, from_child),
            (transfers::FROM_PARTNER, from_partner),
            (medical::ALLOWED, medical),
        ],
    );
    let rate = on.facts.figures.brackets.rates[0];
    let credit = share(trail, amounts, rate);
    on.made(trail, FOR_AMOUNTS, credit, &[(AMOUNTS, amounts)], &[("Rate", &rate)]);
    let given = gifts::credit(on, trail, from.gifts, income.taxable);
    let top_up = top_up(on, trail, amounts);
    let credits = on.add(trail, CREDIT, &[(FOR_AMOUNTS, credit), (gifts::CREDIT, given), (TOP_UP, top_up)]);
    let taken = limit::cap(trail, CREDITS.at(on.scope), credits, from.tax);
    let dividends = dividend_credit(on, trail, income);
    let basic = limit::or_zero(trail, from.tax - taken - dividends);
    on.made(trail, FEDERAL_TAX, basic, &[(TAX, from.tax), (CREDIT, credits), (DIVIDENDS, dividends)], &[]);
    (basic, medical::supplement(on, trail, medical, from.incomes))
}

/// Line 34990: amounts above the first bracket keep the credit rate of the years before.
fn top_up(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Money {
    let figures = &on.facts.figures.top_up;
    let above = limit::or_zero(trail, amounts - figures.above);
    let credit = share(trail, above, figures.rate);
    on.made(
        trail,
        TOP_UP,
        credit,
        &[(AMOUNTS, amounts)],
        &[("Above", &figures.above), ("Rate", &figures.rate)],
    )
}

/// Line 40425 (ITA 121): a part of the taxable amount of dividends.
fn dividend_credit(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Money {
    let figures = &on.facts.figures.dividends;
    let credit = share(trail, income.eligible_dividends, figures.eligible_credit)
        + share(trail, income.other_dividends, figures.other_credit);
    on.made(
        trail,
        DIVIDENDS,
        credit,
        &[(dividends::ALL, income.eligible_dividends + income.other_dividends)],
        &[("Of eligible dividends", &figures.eligible_credit), ("Of the others", &figures.other_credit)],
    )
}
