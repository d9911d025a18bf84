//! FamilyBoost (ITA subpart MH): a part of the fees of early childhood education by quarter, less a part of the quarter's income.

use crate::{bringing::Bringing, facts::Facts, plan::Filed, points::Points, rounding::cents};
use hembo_core::{
    Scope,
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    limit::{self, PhaseOut},
    limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "FamilyBoost",
    lines: LINES,
    limits: LIMITS,
    papers: &[FEES],
    points: POINTS,
    figures: &["family_boost"],
    ..Provision::NONE
};

lines! {
    pub CREDIT = "nz.familyboost", "FamilyBoost", "ITA MH 1 to MH 5",
        "By quarter a part of fees up to a most, less a part of the household's income of the quarter above a threshold.";
}

limits! {
    MOST = "nz.limit.familyboost" on CREDIT, "Part of fees", "over the most of a quarter", "ITA MH 3";
    BY_INCOME = "nz.limit.familyboost.income" on CREDIT, "FamilyBoost", "over the quarter's income", "ITA MH 4";
}

open_points! {
    CAPPED = look "C50", "ITA MH 3", "The most of the quarter is reached.";
    QUARTER = blocks "familyboost-quarter", "ITA MH 2", "Name the quarter, and the household's income in it.";
}

/// What its papers bring.
pub mod brings {
    use super::Fees;
    use hembo_core::brought::Brought;

    /// Fees by quarter.
    pub static FEES: Brought<Fees> = Brought::new();
}

/// Fees of a quarter.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Fees {
    /// The quarter, from zero: April to June.
    pub quarter: usize,
    /// What was paid after subsidies.
    pub fees: Item,
    /// The household's income of the quarter.
    pub income: Money,
}

const QUARTERS: &[Choice] = &[
    Choice::new("1", "April to June"),
    Choice::new("2", "July to September"),
    Choice::new("3", "October to December"),
    Choice::new("4", "January to March"),
];

const FEES: PaperKind = PaperKind {
    id: "FamilyBoost",
    subject: subject::CREDITS,
    name: "Fees of early childhood education",
    words: "childcare ece kindergarten boost fees",
    title: "About",
    shared: false,
    headline: "fees",
    boxes: &[],
    columns: &[
        Field::choice("quarter", "", "Quarter", QUARTERS),
        Field::text("provider", "", "Provider", 60).payer_name(),
        Field::amount("fees", "", "Fees after subsidies"),
        Field::amount("income", "", "Household's income of the quarter").help("Once a quarter."),
    ],
    back: Back::Nothing,
    years: Years { since: Some(2025), until: None },
    next_year: NextYear::Again,
};

/// Gives fees to who claims.
pub fn read(paper: &mut Bringing<'_>) {
    let rows: Vec<_> = paper.paper.lines("fees").collect();
    for (row, cells, fees) in rows {
        let quarter = cells.get("quarter").and_then(Entry::text).and_then(|text| text.parse::<usize>().ok());
        let Some(quarter) = quarter.and_then(|quarter| quarter.checked_sub(1)) else { continue };
        let income = cells.get("income").and_then(Entry::money).unwrap_or_default();
        let one = Fees { quarter, fees: paper.paper.item("fees", Some(row), fees), income };
        for person in paper.owners() {
            paper.facts.people[person].own.add(&brings::FEES, one);
        }
    }
}

/// Fees of the whole family.
fn all(facts: &Facts) -> Vec<Fees> {
    facts.filers.iter().flat_map(|&person| facts.people[person].own.of(&brings::FEES)).copied().collect()
}

/// The credit on the first filer's return.
pub fn reckon(facts: &Facts, trail: &mut impl Trail) -> Money {
    let fees = all(facts);
    if fees.is_empty() {
        return Money::ZERO;
    }
    let scope = Scope::Return(0);
    let figures = &facts.figures.family_boost;
    let mut credit = Money::ZERO;
    for (place, quarter) in figures.quarters.iter().enumerate() {
        let of = || fees.iter().filter(|one| one.quarter == place);
        let paid = of().map(|one| one.fees.amount).sum();
        let income = of().map(|one| one.income).sum();
        let part = limit::cap(trail, MOST.at(scope), cents(paid, quarter.part), quarter.most);
        let rule = PhaseOut::continuous(figures.from, quarter.rate, Money::CENT);
        credit += limit::phase_out(trail, BY_INCOME.at(scope), part, income, rule);
    }
    trail.line(CREDIT, scope, credit, |i| {
        i.items(fees.iter().map(|one| &one.fees)).figure("Threshold of a quarter", figures.from);
    })
}

/// The worksheet: where there are fees.
pub fn worksheet(filed: Filed<'_>) -> Required {
    filed.when(CREDIT, "no FamilyBoost")
}

/// Quarters that are not named, or at their most.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(FEES.id) {
        for cells in &paper.rows {
            for column in ["quarter", "income"] {
                let also = paper.rows.iter().any(|other| {
                    other.get("quarter") == cells.get("quarter") && other.contains_key("income")
                });
                let told = cells.contains_key(column) || (column == "income" && also);
                if !told {
                    let place = Place::row(&paper.id, cells, column);
                    points.raise(&QUARTER, place, "Which quarter, with which income?");
                }
            }
        }
    }
    for one in all(points.facts) {
        let figures = &points.facts.figures.family_boost;
        let Some(quarter) = figures.quarters.get(one.quarter) else { continue };
        let part = cents(one.fees.amount, quarter.part);
        if part > quarter.most {
            let paper = &points.household.papers[one.fees.paper];
            let place = Place::paper(&paper.id, "fees");
            points.raise(&CAPPED, place, format!("A part of {part:#}, at most {:#}.", quarter.most));
        }
    }
}
