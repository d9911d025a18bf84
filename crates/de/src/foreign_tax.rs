//! Tax that another country took of income which is taxed here, too (§34c(1), (6) EStG; Anlage AUS): credited country by country, at most the
//! average tax on that income. Capital income at the flat rate has its own credit (§32d(5)).

use crate::{bringing::Bringing, plan::On};
use hembo_core::{
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
            OfCountry { income: money("income"), tax: paper.paper.item("tax", Some(row), money("tax")) }
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
    countries(on).map(of).sum()
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
            if row.contains_key("income") {
                points.raise(&WITHIN, at, "Income taxed abroad.");
            } else {
                points.raise(&INCOME_ASKED, at, "How much income of that country?");
            }
        }
    }
}
