//! Foreign income that is no business's with the tax on it (ITA 20(11), (12)): what of the tax is deducted, and what may be credited by
//! country.

use crate::{
    bringing::Bringing,
    facts::Facts,
    papers::{t3, t5},
    plan::On,
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Paper,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
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
    papers: &[ABROAD],
    lines: LINES,
    points: POINTS,
    figures: &["foreign_tax"],
    ..Provision::NONE
};

lines! {
    pub DEDUCTED = "ca.foreign.deducted", "Foreign tax deducted", "ITA 20(11), (12)",
        "Of each country what is above a part of its income; all of it where it is deducted in place of the credit.";
}

open_points! {
    COUNTRY = blocks "C-78-country", "ITA 126(1)", "Name the country: the credit is made for each.";
}

/// What its papers bring.
pub mod brings {
    use super::Abroad;
    use hembo_core::brought::Brought;

    /// Income of a country with its tax.
    pub static ABROAD: Brought<Abroad> = Brought::new();
}

/// Income of a country, and the tax on it.
#[derive(Debug, Clone)]
pub struct Abroad {
    country: String,
    income: Money,
    /// The tax, at its place.
    pub tax: Item,
}

/// Income of one country, the tax on it that may be credited, and what of it is deducted.
#[derive(Debug, Clone, Copy)]
pub struct OfCountry {
    /// Income less what of the tax is deducted.
    pub income: Money,
    /// Tax that may be credited.
    pub tax: Money,
    /// Tax that is deducted.
    pub deducted: Money,
}

const ABROAD: PaperKind = PaperKind {
    id: "Foreign income",
    subject: subject::INVESTMENTS,
    name: "Foreign interest and dividends",
    words: "abroad withholding treaty country",
    title: "Payer",
    shared: true,
    headline: "income",
    boxes: &[],
    columns: &[
        Field::text("country", "", "Country", 40),
        Field::text("what", "", "What", 80),
        Field::amount("income", "", "Income, in dollars")
            .help("Before the tax, at the rate of the day or the year's average."),
        Field::amount("tax", "", "Tax, in dollars"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives every line to the owners, income beside interest.
pub fn read(paper: &mut Bringing<'_>) {
    for (row, cells, income) in paper.paper.lines("income") {
        let country = cells.get("country").and_then(Entry::text).unwrap_or_default().to_owned();
        let tax = cells.get("tax").and_then(Entry::money).unwrap_or_default();
        paper.put("income", Some(row), income, &t5::brings::INTEREST);
        give(paper, &country, income, paper.paper.item("tax", Some(row), tax));
    }
    paper.files();
}

/// A T5 with its foreign tax.
pub fn read_t5(paper: &mut Bringing<'_>) {
    t5::read(paper);
    of_slip(paper, "15", "16");
}

/// A T3 with its foreign tax.
pub fn read_t3(paper: &mut Bringing<'_>) {
    t3::read(paper);
    of_slip(paper, "25", "34");
}

/// What a slip tells of foreign income: its boxes for income and tax.
fn of_slip(paper: &mut Bringing<'_>, income: &'static str, tax: &'static str) {
    let country = paper.paper.paper.text("country").unwrap_or_default().to_owned();
    let (income, tax) = (paper.amount(income), paper.paper.item(tax, None, paper.amount(tax)));
    give(paper, &country, income, tax);
}

fn give(paper: &mut Bringing<'_>, country: &str, income: Money, tax: Item) {
    if tax.amount.is_zero() {
        return;
    }
    let taxes = paper.paper.shares(tax.amount);
    for ((person, income), (_, amount)) in paper.paper.shares(income).into_iter().zip(taxes) {
        let abroad = Abroad { country: country.to_owned(), income, tax: Item { amount, ..tax } };
        paper.facts.people[person].own.add(&brings::ABROAD, abroad);
    }
}

/// The countries of a person, in the order of their names; of each a part of the income may be credited, the rest of the tax is
/// deducted (20(11)), or all of it (20(12)).
pub fn countries(on: On<'_>) -> Vec<OfCountry> {
    let all = on.own().of(&brings::ABROAD);
    let mut names: Vec<&str> = all.iter().map(|a| a.country.as_str()).collect();
    names.sort_unstable();
    names.dedup();
    let deducts = on.plan.deducts_foreign_tax.contains(&on.person);
    let one = |name: &str| {
        let of = || all.iter().filter(|a| a.country == name);
        let (income, tax): (Money, Money) = (of().map(|a| a.income).sum(), of().map(|a| a.tax.amount).sum());
        let most = cents(income, on.facts.figures.foreign_tax.part);
        let credited = if deducts { Money::ZERO } else { settled::lesser(tax, most) };
        let deducted = tax - credited;
        OfCountry { income: income - deducted, tax: credited, deducted }
    };
    names.into_iter().map(one).collect()
}

/// What is deducted from income.
pub fn deducted(on: On<'_>, trail: &mut impl Trail) -> Money {
    let all = on.own().of(&brings::ABROAD);
    if all.is_empty() {
        return Money::ZERO;
    }
    let total = countries(on).iter().map(|country| country.deducted).sum();
    trail.line(DEDUCTED, on.scope, total, |i| {
        i.items(all.iter().map(|abroad| &abroad.tax))
            .figure("Credited up to", on.facts.figures.foreign_tax.part);
    })
}

/// Whether a person deducts all foreign tax in place of the credit, by the person's place.
pub static DEDUCT: Open<Facts> = Open::new(
    |facts| {
        let has = |&p: &usize| facts.people[p].own.has(&brings::ABROAD);
        facts.returns.iter().copied().filter(has).collect()
    },
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("credit", "As a credit", ""),
            Opt::new("deduct", "Deducted from income", format!("foreign tax of {name} deducted")),
        ];
        let id = format!("ca.foreign.{}", facts.people[person].id);
        Decision::between(id, format!("Foreign tax of {name}"), "ITA 20(12), 126(1)", options)
    },
);

/// Who deducts it in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    facts.returns.iter().copied().filter(|&p| way.taken(&DEDUCT, p) == Some(1)).collect()
}

/// Countries that are not named.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(ABROAD.id) {
        for cells in &paper.rows {
            let taxed = cells.get("tax").and_then(Entry::money).is_some_and(|tax| !tax.is_zero());
            if taxed && cells.get("country").and_then(Entry::text).is_none_or(str::is_empty) {
                points.raise(&COUNTRY, Place::row(&paper.id, cells, "country"), "Of which country?");
            }
        }
    }
}

/// What a T5 leaves open.
pub fn points_t5(points: &mut Points<'_>) {
    t5::points(points);
    for paper in points.papers(t5::T5.id) {
        ask_country(points, paper, "16");
    }
}

/// What a T3 leaves open.
pub fn points_t3(points: &mut Points<'_>) {
    t3::points(points);
    for paper in points.papers(t3::T3.id) {
        ask_country(points, paper, "34");
    }
}

/// The country of a slip's foreign tax, where it is not named.
fn ask_country(points: &mut Points<'_>, paper: &Paper, tax: &str) {
    let named = paper.text("country").is_some_and(|country| !country.is_empty());
    if !paper.amount(tax).is_zero() && !named {
        points.raise(&COUNTRY, Place::paper(&paper.id, "country"), "Of which country is the foreign tax?");
    }
}
