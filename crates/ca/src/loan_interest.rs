//! Interest on student loans (ITA 118.62): line 31900, this year's and that of the five years before, as much as the student claims.

use crate::{
    bringing::Bringing, earlier_minimum_tax, facts::Facts, plan::On, points::Points, rounding::STEEPEST,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision},
    field::{Field, Years},
    household::Entry,
    limit, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[PAID],
    lines: LINES,
    points: POINTS,
    figures: &["loan_interest"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry {
    line: CARRIED,
    paper: "Loan interest",
    into: CarriedTo::Rows { column: "amount", says: None },
}];

lines! {
    pub CLAIMED = "ca.31900", "Interest on student loans", "ITA 118.62",
        "As much as the way claims of this year's and of the five years before.";
    CARRIED = "ca.loan.carried", "Interest on student loans kept for later", "ITA 118.62",
        "What is not claimed, for five years.";
}

open_points! {
    TOO_OLD = blocks "loan-interest-year", "ITA 118.62", "Correct the year, or remove it.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Interest that can be claimed.
    pub static PAID: Brought = Brought::new();
}

const PAID: PaperKind = PaperKind {
    id: "Loan interest",
    subject: subject::CREDITS,
    name: "Interest on government student loans",
    words: "student loan osap",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::count("year", "", "Paid in", 2100),
        Field::amount("amount", "", "Interest not yet claimed"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

fn counts(facts: &Facts, year: i64) -> bool {
    let of = i64::from(facts.figures.year);
    (of - facts.figures.loan_interest.carried_years..=of).contains(&year)
}

/// Interest of the years that count.
pub fn read(paper: &mut Bringing<'_>) {
    let of = i64::from(paper.facts.figures.year);
    for (row, cells, amount) in paper.paper.lines("amount") {
        let year = cells.get("year").and_then(Entry::count).unwrap_or(of);
        if counts(paper.facts, year) {
            paper.put("amount", Some(row), amount, &brings::PAID);
        }
    }
    paper.files();
}

fn most(facts: &Facts, person: usize) -> Money {
    sum(facts.people[person].own.of(&brings::PAID))
}

/// Line 31900; a province has the same on line 58520.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let all = most(on.facts, on.person);
    if all.is_zero() {
        return all;
    }
    let wanted = on.plan.loan_interest.get(on.person).copied().flatten().unwrap_or(Money::LARGEST);
    let claimed = limit::lesser(trail, wanted, all);
    trail.line(CLAIMED, on.scope, claimed, |i| {
        i.items(on.own().of(&brings::PAID));
    });
    on.made(trail, CARRIED, all - claimed, &[(CLAIMED, claimed)], &[("Not yet claimed", &all)]);
    claimed
}

/// How much of it a person claims now, by the person's place.
pub static NOW: Open<Facts> = Open::new(
    |facts| facts.returns.iter().copied().filter(|&p| !most(facts, p).is_zero()).collect(),
    |facts, person| {
        let name = facts.first_name(person);
        let amount = Amount {
            most: most(facts, person),
            short: format!("loan interest of {name}"),
            more: earlier_minimum_tax::more(facts, person),
            steepest: STEEPEST,
        };
        let id = format!("ca.loan.{}", facts.people[person].id);
        Decision::amount(id, format!("Loan interest that {name} claims now"), "ITA 118.62", amount)
    },
);

/// What each person claims in a way; all where nothing is said.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.people.len()).map(|person| way.amount(&NOW, person)).collect()
}

/// Years that do not count.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAID.id) {
        for cells in &paper.rows {
            let year = cells.get("year").and_then(Entry::count);
            if year.is_some_and(|year| !counts(points.facts, year)) {
                let message = "Interest counts in the year in which it was paid and the five after.";
                points.raise(&TOO_OLD, Place::row(&paper.id, cells, "year"), message);
            }
        }
    }
}
