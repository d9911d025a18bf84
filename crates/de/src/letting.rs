//! Large repairs of a let home (§21 EStG, §82b EStDV): taken off at once or spread over two to five years, each in equal parts.

use crate::{
    bringing::{Bringing, count, money},
    facts::{Facts, Repairs},
    plan::Plan,
    points::Points,
};
use hembo_core::{
    Decision,
    choice::{Chosen, Open},
    decision::Opt,
    field::{Field, Years},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::Item,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Large repairs of a let home",
    papers: &[REPAIRS],
    points: POINTS,
    figures: &["letting"],
    ..Provision::NONE
};

open_points! {
    YEARS_ASKED = blocks "repairs-years", "§82b EStDV", "Enter over how many years they were spread: the choice was made in their year.";
    OVER = look "repairs-over", "§82b EStDV", "Their years are over: nothing of them falls on this year.";
}

const REPAIRS: PaperKind = PaperKind {
    id: "Large repairs",
    subject: subject::OWN_WORK,
    name: "Large repairs of a let home, größerer Erhaltungsaufwand",
    words: "repairs roof heating erhaltungsaufwand verteilung letting",
    title: "Home",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::text("what", "", "What", 80),
        Field::count("paid", "", "Year in which it was paid", 2100),
        Field::amount("amount", "", "Costs, not in the result of letting"),
        Field::count("years", "", "Spread over years", 5)
            .help("Blank in the year of payment: every way is weighed."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Whole,
};

/// Gives repairs to the owners of the home.
pub fn read(paper: &mut Bringing<'_>) {
    for (row, cells) in paper.paper.paper.rows.iter().enumerate() {
        let paid = match count(cells, "paid") {
            0 => i64::from(paper.facts.figures.year),
            year => year,
        };
        let years = Some(count(cells, "years")).filter(|years| *years > 0);
        let parts = paper.paper.parts("amount", Some(row), money(cells, "amount"));
        paper.facts.repairs.push(Repairs { parts, paid, years });
    }
}

/// Over how many years repairs of the year are spread.
pub static SPREAD: Open<Facts> = Open::new(
    |facts| {
        let open = |of: &Repairs| of.years.is_none() && of.paid == i64::from(facts.figures.year);
        (0..facts.repairs.len()).filter(|&at| open(&facts.repairs[at])).collect()
    },
    |facts, at| {
        let option = |years: i64| match years {
            1 => Opt::new("1", "All in this year", ""),
            _ => Opt::new(
                years.to_string(),
                format!("Over {years} years"),
                format!("repairs {} over {years} years", at + 1),
            ),
        };
        let options = (1..=facts.figures.letting.most_years).map(option).collect();
        Decision::between(
            format!("de.repairs.{at}"),
            format!("Large repairs {}", at + 1),
            "§82b EStDV",
            options,
        )
    },
);

/// Over how many years all repairs are spread in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<i64> {
    let of = |(at, repairs): (usize, &Repairs)| {
        let weighed = || way.taken(&SPREAD, at).map_or(1, |option| option as i64 + 1);
        repairs.years.unwrap_or_else(weighed)
    };
    facts.repairs.iter().enumerate().map(of).collect()
}

/// What of repairs falls on the year for a person, with the parts it is of.
pub fn of_year<'f>(facts: &'f Facts, plan: &Plan, person: usize) -> (Money, Vec<&'f Item>) {
    let (mut sum, mut items) = (Money::ZERO, Vec::new());
    for (repairs, years) in facts.repairs.iter().zip(&plan.repairs) {
        for (_, item) in repairs.parts.iter().filter(|(owner, _)| *owner == person) {
            sum += repairs.of_year(item.amount, facts.figures.year, *years);
            items.push(item);
        }
    }
    (sum, items)
}

/// Repairs of earlier years of which it is not said how they were spread, or nothing is left.
pub fn points(points: &mut Points<'_>) {
    let year = i64::from(points.facts.figures.year);
    for paper in points.papers(REPAIRS.id) {
        for row in paper.rows.iter().filter(|row| (1..year).contains(&count(row, "paid"))) {
            let years = count(row, "years");
            if years == 0 {
                points.raise(
                    &YEARS_ASKED,
                    Place::row(&paper.id, row, "years"),
                    "Spread over how many years?",
                );
            } else if count(row, "paid") + years <= year {
                points.raise(&OVER, Place::row(&paper.id, row, "paid"), "Nothing of it falls on this year.");
            }
        }
    }
}
