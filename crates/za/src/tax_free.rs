//! Tax-free investments (s12T): growth is exempt, contributions above the most of a year or a life are taxed.

use crate::{bringing::Bringing, plan::On, points::Points, rounding::cents};
use hembo_core::{
    field::{Field, Years},
    limit, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[ACCOUNT], points: POINTS, figures: &["tax_free"], ..Provision::NONE };

lines! {
    PAID = "za.tax_free.paid", "Paid into tax-free accounts", "s12T(4)",
        "Of all accounts in the year.";
    pub PENALTY = "za.tax_free_penalty", "Tax on contributions above the most", "s12T(7)",
        "A part of what is above the most of the year or of the life.";
}

open_points! {
    ABOVE = look "C69", "s12T(7)", "Above the most of a year or a life 40 % are taxed.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Contributions of the year.
    pub static PAID: Brought = Brought::new();
    /// Contributions of all years before.
    pub static BEFORE: Brought = Brought::new();
}

const ACCOUNT: PaperKind = PaperKind {
    id: "IT3(s)",
    subject: subject::ADJUSTMENTS,
    name: "Tax-free account",
    words: "tfsa savings tax free investment",
    title: "Account",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::amount("paid", "", "Contributions in the year"),
        Field::amount("before", "", "Contributions of all years before"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives contributions to who paid.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[("paid", &brings::PAID), ("before", &brings::BEFORE)]);
}

/// The tax on contributions above the most: the larger of both excesses.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = on.own();
    let paid = on.gather(trail, PAID, own.of(&brings::PAID));
    if paid.is_zero() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.tax_free;
    let of_year = limit::or_zero(trail, paid - figures.year_most);
    let before = sum(own.of(&brings::BEFORE));
    let of_life = limit::lesser(trail, paid, paid + before - figures.life_most);
    let of_life = limit::or_zero(trail, of_life);
    let above = limit::greater(trail, of_year, of_life);
    let tax = cents(above, figures.rate);
    on.made(
        trail,
        PENALTY,
        tax,
        &[(PAID, paid)],
        &[("Before", &before), ("Above the most", &above), ("Rate", &figures.rate)],
    )
}

/// Contributions above the most.
pub fn points(points: &mut Points<'_>) {
    for (place, person) in points.returns() {
        let tax = points.amount(PENALTY, place);
        let first = points.facts.people[person].own.of(&brings::PAID).first();
        if let Some(item) = first.filter(|_| !tax.is_zero()) {
            let paper = &points.household.papers[item.paper];
            let message = format!("{}: {tax:#} on contributions above the most.", points.name(person));
            points.raise(&ABOVE, Place::paper(&paper.id, "paid"), message);
        }
    }
}
