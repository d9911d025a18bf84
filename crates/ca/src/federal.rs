//! Federal tax and its credits: step 5 of the T1, lines 30000 to 42900.

use crate::{
    adoption, caregivers, cpp_ei,
    credits::{CREDIT, DIVIDENDS, FEDERAL_TAX, TAX},
    disability, dividends,
    foreign_tax::{self, Left},
    gifts, home_credits,
    income::{self, Income, Incomes},
    loan_interest, medical,
    minimum_tax::{self, Ordinary},
    others_medical,
    personal::{self, Personal},
    plan::On,
    rounding::{cents, share},
    split_income,
    transfers::{self, Offer},
    tuition::{self, Tuition},
    volunteers,
};
use hembo_core::{limit, limits, lines, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &["brackets", "top_up", "dividends", "medical"],
    ..Provision::NONE
};

lines! {
    pub AMOUNTS = "ca.33500", "Amounts together", "ITA 118-118.9",
        "All non-refundable amounts.";
    pub FOR_AMOUNTS = "ca.33800", "Credit for amounts", "ITA 118",
        "Amounts at the lowest rate.";
    pub TOP_UP = "ca.34990", "Top-up credit", "2025 budget legislation",
        "Amounts above the first bracket keep the rate of the years before.";
    BEFORE_LEAST = "ca.42900.before", "Federal tax before the least of split income", "ITA 117-121",
        "Tax with that on split income, less the credits, never below zero.";
    pub MORE_FOR_SPLIT = "ca.42900.split", "More for split income", "ITA 120.4(3)",
        "What the tax on split income less its own credits is above the tax with all of them.";
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

/// What a return comes to.
#[derive(Debug, Clone)]
pub struct Federal {
    /// Line 42900.
    pub tax: Money,
    /// What the amounts of the return make that the minimum tax takes a half of.
    pub credits: Money,
    /// Line 40427.
    pub of_earlier: Money,
    /// Line 31900, which the province has as well.
    pub interest: Money,
    /// Line 34900.
    pub gifts: Money,
    /// Line 45200.
    pub supplement: Money,
    /// Line 40600.
    pub after_foreign: Money,
    /// Foreign tax that the federal credit leaves.
    pub foreign: Vec<Left>,
}

/// Lines 32400 to 42900, and the medical supplement that is paid out.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: Credits<'_>) -> Federal {
    let income: &Income = &from.incomes[on.person];
    let own = from.personal;
    let used = from.tuition[on.person].used;
    let from_child = tuition::from_child(on, trail, tuition::FEDERAL, from.tuition);
    let from_partner = transfers::reckon(on, trail, transfers::FEDERAL, from.offer);
    let interest = loan_interest::reckon(on, trail);
    let own_medical = medical::federal(on, trail, income.net);
    let of_others = others_medical::reckon(on, trail, from.incomes, true, on.facts.figures.medical.most);
    let both = [(medical::ALLOWED, own_medical), (others_medical::ALLOWED, of_others)];
    let medical = on.add(trail, medical::TOGETHER, &both);
    let amounts = on.add(
        trail,
        AMOUNTS,
        &[
            (personal::BASIC_AMOUNT, own.basic),
            (personal::AGE_AMOUNT, own.age),
            (personal::SPOUSE, own.spouse),
            (personal::DEPENDANT, own.dependant),
            (caregivers::TOPPED_UP, own.topped_up),
            (caregivers::CAREGIVER, own.caregiver),
            (caregivers::CHILDREN, own.children),
            (cpp_ei::CPP, own.cpp),
            (cpp_ei::OF_BUSINESS_CREDITED, own.cpp_business),
            (cpp_ei::EI, own.ei),
            (personal::EMPLOYED, own.employment),
            (volunteers::AMOUNT, own.volunteer),
            (home_credits::CLAIMED, own.home),
            (adoption::CLAIMED, own.adoption),
            (personal::PENSION, own.pension),
            (disability::OWN, own.disability),
            (disability::TRANSFERRED, own.disability_transferred),
            (loan_interest::CLAIMED, interest),
            (tuition::USED, used),
            (tuition::FROM_CHILD, from_child),
            (transfers::FROM_PARTNER, from_partner),
            (medical::TOGETHER, medical),
        ],
    );
    let rate = on.facts.figures.brackets.rates[0];
    let credit = share(trail, amounts, rate);
    on.made(trail, FOR_AMOUNTS, credit, &[(AMOUNTS, amounts)], &[("Rate", &rate)]);
    let given = gifts::credit(on, trail, from.gifts, income.taxable);
    let mut credits = vec![(FOR_AMOUNTS, credit), (gifts::CREDIT, given)];
    credits.extend(top_up(on, trail, amounts).map(|top_up| (TOP_UP, top_up)));
    let credits = on.add(trail, CREDIT, &credits);
    let split = split_income::tax(on, trail);
    let taken = limit::cap(trail, CREDITS.at(on.scope), credits, from.tax + split);
    let dividends = dividend_credit(on, trail, income);
    let transferred = own.pension + own.disability_transferred + from_child + from_partner;
    let halved = credit - cents(transferred, rate);
    let without = limit::or_zero(trail, from.tax + split - taken - dividends);
    let ordinary = Ordinary {
        credits: halved,
        gifts: given,
        tax: without,
        foreign: Money::ZERO,
        of_earlier: Money::ZERO,
    };
    let of_earlier = minimum_tax::of_earlier_years(on, trail, income, ordinary);
    let before = on.made(
        trail,
        BEFORE_LEAST,
        without - of_earlier,
        &[
            (TAX, from.tax),
            (split_income::TAX, split),
            (CREDIT, credits),
            (DIVIDENDS, dividends),
            (minimum_tax::OF_EARLIER_YEARS, of_earlier),
        ],
        &[],
    );
    let more = split_income::more(on, trail, before, split, own.disability);
    on.made(trail, MORE_FOR_SPLIT, more, &[(BEFORE_LEAST, before)], &[]);
    let basic = on.add(trail, FEDERAL_TAX, &[(BEFORE_LEAST, before), (MORE_FOR_SPLIT, more)]);
    let (foreign, left) = foreign_tax::federal(on, trail, income, basic, dividends);
    let made = [(FEDERAL_TAX, basic), (foreign_tax::CREDIT, foreign)];
    let after_foreign = on.made(trail, foreign_tax::AFTER, basic - foreign, &made, &[]);
    Federal {
        tax: basic,
        credits: halved,
        of_earlier,
        interest,
        gifts: given,
        after_foreign,
        foreign: left,
        supplement: medical::supplement(on, trail, medical, from.incomes),
    }
}

/// Line 34990: amounts above the first bracket keep the credit rate of the years before.
fn top_up(on: On<'_>, trail: &mut impl Trail, amounts: Money) -> Option<Money> {
    let figures = on.facts.figures.top_up.as_ref()?;
    let above = limit::or_zero(trail, amounts - figures.above);
    let credit = share(trail, above, figures.rate);
    Some(on.made(
        trail,
        TOP_UP,
        credit,
        &[(AMOUNTS, amounts)],
        &[("Above", &figures.above), ("Rate", &figures.rate)],
    ))
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
