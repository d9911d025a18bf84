//! The tax on split income (ITA 120.4; form T1206): what comes to someone from a business of relatives is taxed at the top rate.

use crate::{bringing::Bringing, credits, figures::Provincial, plan::On, rounding::share};
use hembo_core::{
    field::{Field, Years},
    limit, lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { papers: &[SPLIT], lines: LINES, figures: &["brackets", "dividends"], ..Provision::NONE };

lines! {
    pub DEDUCTED = "ca.23200.split", "Split income deducted", "ITA 20(1)(ww)",
        "Taxed on its own, it leaves ordinary income.";
    pub TAX = "ca.40424", "Tax on split income", "ITA 120.4(2); form T1206",
        "The top rate on all of it.";
    LEAST = "ca.split.least", "Federal tax with split income, at least", "ITA 120.4(3)",
        "The tax on it less the dividend credit and the disability amount.";
    pub PROVINCIAL = "ca.61510", "Tax on split income, province", "Income tax acts of the provinces; form T1206",
        "The top rate of the province on all of it.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Taxable eligible dividends of it.
    pub static ELIGIBLE: Brought = Brought::new();

    /// Taxable dividends other than eligible.
    pub static OTHER_DIVIDENDS: Brought = Brought::new();

    /// Anything else.
    pub static REST: Brought = Brought::new();
}

const SPLIT: PaperKind = PaperKind {
    id: "Split income",
    subject: subject::INVESTMENTS,
    name: "Split income",
    words: "tosi t1206 kiddie private company related business child dividends",
    title: "From",
    shared: false,
    headline: "other",
    boxes: &[
        Field::amount("eligible", "", "Taxable eligible dividends")
            .help("Of those on the slips: T5 box 25, T3 box 50, as far as they are split income."),
        Field::amount("other", "", "Taxable other dividends").help("T5 box 11, T3 box 32."),
        Field::amount("rest", "", "Other split income")
            .help("Interest, rents or gains that are on other papers too."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[
        ("eligible", &brings::ELIGIBLE),
        ("other", &brings::OTHER_DIVIDENDS),
        ("rest", &brings::REST),
    ]);
}

fn all(on: On<'_>) -> Money {
    let own = on.own();
    [&brings::ELIGIBLE, &brings::OTHER_DIVIDENDS, &brings::REST]
        .into_iter()
        .map(|kind| sum(own.of(kind)))
        .sum()
}

/// What leaves ordinary income.
pub fn deducted(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = on.own();
    let items =
        own.of(&brings::ELIGIBLE).iter().chain(own.of(&brings::OTHER_DIVIDENDS)).chain(own.of(&brings::REST));
    on.gather(trail, DEDUCTED, items)
}

/// Line 40424.
pub fn tax(on: On<'_>, trail: &mut impl Trail) -> Money {
    let rates = &on.facts.figures.brackets.rates;
    let (all, rate) = (all(on), rates[rates.len() - 1]);
    let tax = share(trail, all, rate);
    on.made(trail, TAX, tax, &[(DEDUCTED, all)], &[("Rate", &rate)])
}

/// Line 61510.
pub fn provincial(on: On<'_>, trail: &mut impl Trail, figures: &Provincial) -> Money {
    let (all, rate) = (all(on), figures.rates[figures.rates.len() - 1]);
    let tax = share(trail, all, rate);
    on.made(trail, PROVINCIAL, tax, &[(DEDUCTED, all)], &[("Rate", &rate)])
}

/// What line 42900 is short of the tax on split income less its dividend credit and a disability amount (120.4(3)).
pub fn more(on: On<'_>, trail: &mut impl Trail, before: Money, of_split: Money, disability: Money) -> Money {
    if of_split.is_zero() {
        return Money::ZERO;
    }
    let (own, figures) = (on.own(), &on.facts.figures.dividends);
    let credit = share(trail, sum(own.of(&brings::ELIGIBLE)), figures.eligible_credit)
        + share(trail, sum(own.of(&brings::OTHER_DIVIDENDS)), figures.other_credit);
    let impaired = share(trail, disability, on.facts.figures.brackets.rates[0]);
    let least = limit::or_zero(trail, of_split - credit - impaired);
    let made = [(TAX, of_split), (credits::DIVIDENDS, credit)];
    on.made(trail, LEAST, least, &made, &[("For a disability", &impaired)]);
    limit::or_zero(trail, least - before)
}
