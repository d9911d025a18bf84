//! Shares and funds abroad (ITA CQ 5, EX 28 to EX 72): the fair dividend rate or the comparative value, one for all of a person; or
//! dividends as such where all of them cost little.

use crate::{
    bringing::Bringing,
    facts::Facts,
    overseas::{self, Overseas},
    plan::{FundMethod, On},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    field::{Field, Years},
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Foreign funds",
    lines: LINES,
    papers: &[HOLDING],
    points: POINTS,
    figures: &["foreign_funds"],
    ..Provision::NONE
};

lines! {
    FAIR = "nz.fif.fdr", "By the fair dividend rate", "ITA EX 52",
        "A part of what each was worth on 1 April, and of what was bought and sold within the year.";
    COMPARED = "nz.fif.cv", "By the comparative value", "ITA EX 51",
        "What all are worth at the end with sales and dividends, less at the start with purchases; not below zero.";
    pub INCOME = "nz.fif_income", "Foreign investment fund income", "ITA CQ 5; IR3 question 17 B",
        "By the method of the way; dividends are not taxed besides.";
}

open_points! {
    NO_COST = blocks "C21", "ITA CQ 5(1)(d)", "Enter what it cost: up to 50,000 for all decides how it is taxed.";
    NEAR = look "C24", "ITA CQ 5(1)(d)", "Make sure that the cost was never above 50,000: one day decides the year.";
    OPENING = blocks "C61", "ITA EX 51, EX 52", "Enter both values, so that both methods can be weighed.";
    NOT_ORDINARY = not_covered "fif-debt", "ITA EX 46(8)";
    LATER = look "C62", "ITA EX 68", "Returning income of funds that cost little is kept in later years; look whether that pays.";
}

/// What its papers bring.
pub mod brings {
    use super::Holding;
    use hembo_core::brought::Brought;

    /// Shares and funds.
    pub static HOLDINGS: Brought<Holding> = Brought::new();
}

/// A holding: the owner's part.
#[derive(Debug, Clone, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Holding {
    pub country: String,
    pub cost: Money,
    /// The highest cost of all in the year, where it was more than at the end.
    pub highest: Money,
    pub opening: Item,
    pub closing: Item,
    pub purchases: Item,
    pub sales: Item,
    pub dividends: Item,
    pub tax: Item,
    /// What shares bought and sold in the year add (EX 52(7) to (9)).
    pub quick: Item,
}

impl Holding {
    /// What the comparative value compares.
    fn compared_items(&self) -> [&Item; 5] {
        [&self.closing, &self.sales, &self.dividends, &self.opening, &self.purchases]
    }
}

const HOLDING: PaperKind = PaperKind {
    id: "Foreign fund",
    subject: subject::INVESTMENTS,
    name: "Foreign shares and funds",
    words: "fif fdr shares overseas etf units broker",
    title: "Holding",
    shared: true,
    headline: "closing",
    boxes: &[
        Field::text("country", "", "Country", 40).lasts(),
        Field::amount("cost", "", "Cost in dollars")
            .lasts()
            .help("Of what is held; with all others it decides whether dividends are taxed as such."),
        Field::amount("highest", "", "Highest cost of all in the year")
            .help("Of all holdings of the person together, where it was higher than at the end."),
        Field::amount("opening", "", "Value on 1 April"),
        Field::amount("purchases", "", "Bought in the year"),
        Field::amount("sales", "", "Sold in the year"),
        Field::amount("dividends", "", "Dividends"),
        Field::amount("closing", "", "Value on 31 March"),
        Field::amount("tax", "", "Foreign tax on dividends"),
        Field::amount("quick.cost", "", "Bought and sold in the year: average cost of one"),
        Field::count("quick.most", "", "Most held in the year", 1_000_000_000),
        Field::count("quick.opening", "", "Held on 1 April", 1_000_000_000),
        Field::count("quick.closing", "", "Held on 31 March", 1_000_000_000),
        Field::amount("quick.gain", "", "Gain on them, dividends included"),
        Field::yes_no("not_ordinary", "", "Like debt, the fair dividend rate is barred").lasts(),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives each owner a part of a holding.
pub fn read(paper: &mut Bringing<'_>) {
    let quick = quick_sale(paper);
    let boxes = ["opening", "closing", "purchases", "sales", "dividends", "tax"];
    for (at, person) in paper.owners().into_iter().enumerate() {
        let share = |amount: Money| paper.paper.shares(amount)[at].1;
        let item = |field: &'static str| paper.item(field, share(paper.amount(field)));
        let [opening, closing, purchases, sales, dividends, tax] = boxes.map(item);
        let one = Holding {
            country: paper.text("country").to_owned(),
            cost: share(paper.amount("cost")),
            highest: share(paper.amount("highest")),
            opening,
            closing,
            purchases,
            sales,
            dividends,
            tax,
            quick: paper.item("quick.gain", share(quick)),
        };
        paper.facts.people[person].own.add(&brings::HOLDINGS, one);
    }
    paper.needs_return();
}

/// What shares bought and sold in the year add: the part of their cost, or the gain if less (EX 52(7) to (9)).
fn quick_sale(paper: &Bringing<'_>) -> Money {
    let [most, opening, closing] =
        ["quick.most", "quick.opening", "quick.closing"].map(|field| paper.count(field));
    let number = settled::greater(settled::lesser(most - opening, most - closing), 0);
    let peak = cents(paper.amount("quick.cost") * number, paper.facts.figures.foreign_funds.rate);
    settled::lesser(peak, settled::or_zero(paper.amount("quick.gain")))
}

/// Income of funds: adds dividends and segments to what came from abroad.
pub fn dividends_as_such(on: On<'_>) -> Vec<(String, Item, Item)> {
    if method(on) != FundMethod::Dividends || overseas::is_transitional(on) {
        return Vec::new();
    }
    on.own().of(&brings::HOLDINGS).iter().map(|h| (h.country.clone(), h.dividends, h.tax)).collect()
}

/// The method of the way.
fn method(on: On<'_>) -> FundMethod {
    on.plan.funds.get(on.person).copied().unwrap_or_default()
}

/// Income of funds by the method of the way, its segments among those from abroad.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, abroad: &mut Overseas) -> Money {
    let holdings = on.own().of(&brings::HOLDINGS);
    if holdings.is_empty() || overseas::is_transitional(on) {
        return Money::ZERO;
    }
    let fair: Vec<Money> = holdings.iter().map(|h| fair(on, h)).collect();
    let compared: Vec<Money> = holdings.iter().map(compared).collect();
    let by_fair = fair.iter().copied().sum();
    let by_value = settled::or_zero(compared.iter().copied().sum());
    let rate = on.facts.figures.foreign_funds.rate;
    trail.line(FAIR, on.scope, by_fair, |i| {
        i.items(holdings.iter().flat_map(|h| [&h.opening, &h.quick]).filter(|item| !item.amount.is_zero()));
        i.figure("Part of the opening value", rate);
    });
    trail.line(COMPARED, on.scope, by_value, |i| {
        i.items(holdings.iter().flat_map(Holding::compared_items).filter(|item| !item.amount.is_zero()));
    });
    let (line, income, parts) = match method(on) {
        FundMethod::Dividends => return Money::ZERO,
        FundMethod::FairDividendRate => (FAIR, by_fair, fair),
        FundMethod::ComparativeValue => (COMPARED, by_value, compared),
    };
    for (holding, part) in holdings.iter().zip(parts) {
        abroad.put(&holding.country, "fund", part, holding.tax.amount);
    }
    on.made(trail, INCOME, income, &[(line, income)], &[])
}

fn fair(on: On<'_>, holding: &Holding) -> Money {
    cents(holding.opening.amount, on.facts.figures.foreign_funds.rate) + holding.quick.amount
}

fn compared(holding: &Holding) -> Money {
    holding.closing.amount + holding.sales.amount + holding.dividends.amount
        - holding.opening.amount
        - holding.purchases.amount
}

/// What all holdings of a person cost at the most.
fn cost(facts: &Facts, person: usize) -> Money {
    let holdings = facts.people[person].own.of(&brings::HOLDINGS);
    let held = holdings.iter().map(|h| h.cost).sum();
    holdings.iter().map(|h| h.highest).fold(held, settled::greater)
}

/// How income of foreign funds is reckoned, by the person's place.
pub static METHOD: Open<Facts> = Open::new(
    |facts: &Facts| {
        let has = |&p: &usize| facts.people[p].own.has(&brings::HOLDINGS);
        facts.returns.iter().copied().filter(has).collect()
    },
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("dividends", "Dividends as such", format!("dividends of funds of {name}")),
            Opt::new("fdr", "Fair dividend rate", format!("fair dividend rate for {name}")),
            Opt::new("cv", "Comparative value", format!("comparative value for {name}")),
        ];
        let id = format!("nz.funds.{}", facts.people[person].id);
        Decision::between(id, format!("Foreign funds of {name}"), "ITA CQ 5(1)(d), EX 44, EX 46", options)
    },
)
.bars(|facts, person, option, _| {
    let costly = cost(facts, person) > facts.figures.foreign_funds.least_cost;
    (option == 0 && costly).then_some(Bar::Borrowed("they cost more than 50,000"))
});

/// The methods of a way, by person.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<FundMethod> {
    let of = |person| match way.taken(&METHOD, person) {
        Some(0) => FundMethod::Dividends,
        Some(2) => FundMethod::ComparativeValue,
        _ => FundMethod::FairDividendRate,
    };
    (0..facts.people.len()).map(of).collect()
}

/// The method by which a person's income is lowest.
pub fn lowest(facts: &Facts, person: usize) -> FundMethod {
    let holdings = facts.people[person].own.of(&brings::HOLDINGS);
    let dividends: Money = holdings.iter().map(|h| h.dividends.amount).sum();
    let compared = settled::or_zero(holdings.iter().map(compared).sum());
    let rate = facts.figures.foreign_funds.rate;
    let fair = holdings.iter().map(|h| cents(h.opening.amount, rate) + h.quick.amount).sum();
    let open = cost(facts, person) <= facts.figures.foreign_funds.least_cost;
    match () {
        () if open && dividends <= fair && dividends <= compared => FundMethod::Dividends,
        () if compared <= fair => FundMethod::ComparativeValue,
        () => FundMethod::FairDividendRate,
    }
}

/// Holdings without cost or values, near the line between both laws, barred from the fair dividend rate.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(HOLDING.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        if !paper.boxes.contains_key("cost") {
            points.raise(&NO_COST, at("cost"), "What did it cost?");
        }
        let bought = !paper.amount("purchases").is_zero();
        for field in ["opening", "closing"] {
            if !paper.boxes.contains_key(field) && !bought {
                points.raise(&OPENING, at(field), "What was it worth?");
            }
        }
        if paper.boxes.get("not_ordinary").and_then(Entry::flag) == Some(true) {
            let message = "A holding for which the fair dividend rate is barred is not computed.";
            points.raise(&NOT_ORDINARY, at("not_ordinary"), message);
        }
    }
    for (place, person) in points.returns() {
        near(points, place, person);
    }
}

fn near(points: &mut Points<'_>, place: usize, person: usize) {
    let figures = &points.facts.figures.foreign_funds;
    if !points.facts.people[person].own.has(&brings::HOLDINGS) {
        return;
    }
    let cost = cost(points.facts, person);
    let apart = cost - figures.least_cost;
    if apart <= figures.near && -apart <= figures.near {
        let message = format!("Foreign funds of {} cost {cost:#}.", points.name(person));
        points.raise(&NEAR, points.at(person, "name"), message);
    }
    let returned = !points.amount(INCOME, place).is_zero();
    if returned && cost <= figures.least_cost {
        let message =
            format!("{}: income of funds is returned though they cost little.", points.name(person));
        points.raise(&LATER, points.at(person, "name"), message);
    }
}
