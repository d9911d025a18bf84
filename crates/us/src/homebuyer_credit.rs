//! The credit for a first home bought in 2008, which is paid back in fifteen parts from 2010 to 2024 (§36(f), Form 5405).

use crate::{bringing::Bringing, points::Points, unit::On};
use hembo_core::{
    field::{Field, Years},
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[CREDIT],
    points: POINTS,
    figures: &["homebuyer_credit"],
    ..Provision::NONE
};

lines! {
    pub REPAID = "us.sched_2.10", "First-time homebuyer credit repaid", "IRC §36(f)(1)",
        "A fifteenth of the credit for a home bought in 2008; 2024 is the last year.";
}

open_points! {
    MOST = blocks "5405-most", "IRC §36(b)(1)(A), as of 2008",
        "The credit for a home bought in 2008 was at most 7,500: look at that return.";
    SOLD = look "5405-sold", "IRC §36(f)(3)",
        "Where it was sold to a stranger, no more than its gain is paid back: enter less of the credit then.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// The credit of 2008.
    pub static CREDIT: Brought = Brought::new();
}

const CREDIT: PaperKind = PaperKind {
    id: "5405",
    subject: subject::CREDITS,
    name: "Credit for a first home bought in 2008",
    words: "5405 first-time homebuyer credit 2008 repayment",
    title: "Home",
    shared: true,
    headline: "4",
    boxes: &[Field::amount("4", "4", "Credit claimed for 2008")],
    columns: &[],
    back: Back::Nothing,
    years: Years { since: None, until: Some(2024) },
    next_year: NextYear::Once,
};

/// Gives the credit to the owners, each of whom pays back a share.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("4", &brings::CREDIT);
}

/// Schedule 2 line 10.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let Some(figures) = &on.facts.figures.homebuyer_credit else { return Money::ZERO };
    let items = || on.items(&brings::CREDIT);
    let part = sum(items()).in_proportion(
        Money::whole(1),
        Money::whole(figures.parts),
        Money::WHOLE,
        Rounding::HalfUp,
    );
    trail.line(REPAID, on.scope, part, |i| {
        i.items(items()).figure("Parts", figures.parts);
    })
}

/// What the paper cannot say, and what it does not ask.
pub fn points(points: &mut Points<'_>) {
    let Some(figures) = &points.facts.figures.homebuyer_credit else { return };
    for paper in points.papers(CREDIT.id) {
        let place = || Place::paper(&paper.id, "4");
        if paper.amount("4") > figures.most {
            points.raise(&MOST, place(), "More than the credit ever was.");
        }
        points.raise(&SOLD, place(), "The last part is due, of a home sold in the year as well.");
    }
}
