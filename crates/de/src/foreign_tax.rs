//! Tax that another country took of income which is taxed here, too (§34c(1), (6) EStG; Anlage AUS): credited country by country, at most the
//! average tax on that income, or deducted from it (§34c(2)). Capital income at the flat rate has its own credit (§32d(5)).

use crate::{
    bringing::Bringing,
    facts::Facts,
    kinds::KINDS,
    plan::{On, Plan},
};
use hembo_core::{
    Decision,
    choice::{Chosen, Open},
    decision::Opt,
    field::{Field, Years},
    household::Entry,
    limit, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { about: "Foreign tax", papers: &[TAXED_ABROAD], points: POINTS, ..Provision::NONE };

open_points! {
    INCOME_ASKED = blocks "foreign-income", "§34c(1) S.2", "Enter the income of that country: the credit is at most the tax on it here.";
    KIND_ASKED = look "foreign-kind", "§34c(2)", "Say of which kind the income is: then deducting its tax is weighed, too.";
    WITHIN = look "foreign-within", "§34d", "Is this income among the other papers? It is not added here.";
}

/// What its papers bring.
pub mod brings {
    use super::OfCountry;
    use hembo_core::brought::Brought;

    /// Income and tax of a country.
    pub static COUNTRIES: Brought<OfCountry> = Brought::new();
}

/// What was earned and taxed in a country.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct OfCountry {
    pub income: Money,
    pub tax: Item,
    /// Its kind of income, by place among those of results.
    pub kind: Option<usize>,
}

const TAXED_ABROAD: PaperKind = PaperKind {
    id: "Foreign tax",
    subject: subject::CREDITS,
    name: "Income taxed abroad and here, Anlage AUS",
    words: "foreign tax credit ausland anrechnung aus",
    title: "About",
    shared: false,
    headline: "tax",
    boxes: &[],
    columns: &[
        Field::text("country", "", "Country", 60).lasts(),
        Field::choice("kind", "", "Kind of income", KINDS).lasts(),
        Field::signed("income", "", "Income of it among the other papers, net"),
        Field::amount("tax", "", "Tax to be credited"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives each country to whose income it is.
pub fn read(paper: &mut Bringing<'_>) {
    let rows = paper.paper.paper.rows.iter().enumerate();
    let countries: Vec<OfCountry> = rows
        .map(|(row, cells)| {
            let money = |column: &str| cells.get(column).and_then(Entry::money).unwrap_or_default();
            let kind = cells.get("kind").and_then(Entry::text);
            OfCountry {
                income: money("income"),
                tax: paper.paper.item("tax", Some(row), money("tax")),
                kind: kind.and_then(|kind| KINDS.iter().position(|known| known.id == kind)),
            }
        })
        .collect();
    for person in paper.owners() {
        for country in &countries {
            paper.facts.people[person].own.add(&brings::COUNTRIES, *country);
        }
    }
}

/// The tax paid in each country, at most the average tax on its income; `tax` is that by the tariff on `taxable` income.
pub fn credit(on: On<'_>, trail: &mut impl Trail, tax: Money, taxable: Money) -> Money {
    let of = |country: &OfCountry| {
        let income = settled::lesser(settled::or_zero(country.income), taxable);
        if income.is_zero() {
            return Money::ZERO;
        }
        let most = tax.in_proportion(income, taxable, Money::CENT, Rounding::HalfUp);
        limit::lesser(trail, country.tax.amount, most)
    };
    credited(on).map(of).sum()
}

/// Every country of the filers in their order, with whose income it is.
fn all(facts: &Facts) -> impl Iterator<Item = (usize, &OfCountry)> + Clone {
    let of = |&person: &usize| {
        facts.people[person].own.of(&brings::COUNTRIES).iter().map(move |one| (person, one))
    };
    facts.filers.iter().flat_map(of)
}

/// Whether the tax of a country is deducted instead of credited.
pub static DEDUCTED: Open<Facts> = Open::new(
    |facts| {
        let open = |(_, of): &(usize, &OfCountry)| of.kind.is_some() && of.tax.amount > Money::ZERO;
        all(facts).enumerate().filter(|(_, one)| open(one)).map(|(at, _)| at).collect()
    },
    |facts, at| {
        let (person, _) = all(facts).nth(at).unwrap_or_else(|| unreachable!("of the same facts"));
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("credit", "Credited", ""),
            Opt::new("deduct", "Deducted from the income", format!("foreign tax {} deducted", at + 1)),
        ];
        let label = format!("Foreign tax {} of {name}", at + 1);
        Decision::between(format!("de.foreign.{at}"), label, "§34c(1), (2)", options)
    },
);

/// The tax of which countries is deducted in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    (0..all(facts).count()).filter(|at| way.taken(&DEDUCTED, *at) == Some(1)).collect()
}

/// The tax that is deducted from a person's income of a kind.
pub fn deducted<'f>(
    facts: &'f Facts,
    plan: &'f Plan,
    person: usize,
    kind: usize,
) -> impl Iterator<Item = &'f Item> + Clone {
    let of = all(facts).enumerate().filter(move |(at, (whose, of))| {
        *whose == person && of.kind == Some(kind) && plan.deducted.contains(at)
    });
    of.map(|(_, (_, of))| &of.tax)
}

/// Every country of those who are assessed whose tax is credited.
pub fn credited(on: On<'_>) -> impl Iterator<Item = &OfCountry> {
    let here = move |(at, (person, _)): &(usize, (usize, &OfCountry))| {
        on.people.contains(person) && !on.plan.deducted.contains(at)
    };
    all(on.facts).enumerate().filter(here).map(|(_, (_, of))| of)
}

/// Every country of all who are assessed.
pub fn countries(on: On<'_>) -> impl Iterator<Item = &OfCountry> {
    on.people.iter().flat_map(move |&person| on.own(person).of(&brings::COUNTRIES))
}

/// Income that is missing, and a reminder that it stands elsewhere.
pub fn points(points: &mut crate::points::Points<'_>) {
    for paper in points.papers(TAXED_ABROAD.id) {
        for row in &paper.rows {
            let at = Place::row(&paper.id, row, "income");
            if !row.contains_key("kind") {
                points.raise(&KIND_ASKED, Place::row(&paper.id, row, "kind"), "Income of which kind?");
            }
            if row.contains_key("income") {
                points.raise(&WITHIN, at, "Income taxed abroad.");
            } else {
                points.raise(&INCOME_ASKED, at, "How much income of that country?");
            }
        }
    }
}
