//! Tax that comes back whatever the income tax is: what a fund paid on gains that it kept (§852(b)(3)(D), Form 2439), and the tax on
//! fuels (§34, Form 4136).

use crate::{bringing::Bringing, capital_gains, points::Points, states, unit::On};
use hembo_core::{
    field::{Field, Years},
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[KEPT, FUEL], points: POINTS, ..Provision::NONE };

lines! {
    pub L12 = "us.sched_3.12", "Tax on fuels", "IRC §34(a)",
        "Line 17 of every Form 4136.";
    pub L13A = "us.sched_3.13a", "Tax paid by a fund", "IRC §852(b)(3)(D)(ii)",
        "Box 2 of every Form 2439.";
}

open_points! {
    PART = blocks "2439-part", "IRC §852(b)(3)(D)",
        "A part is not above its whole: look at the paper.";
    SMALL_BUSINESS = not_covered "2439-1c", "IRC §1202";
    BASIS = look "2439-basis", "IRC §852(b)(3)(D)(iii)",
        "Raise the basis of the shares by box 1a less box 2, and keep the paper.";
    INCOME = look "4136-income", "Form 4136, Instructions",
        "Where the cost of the fuel was deducted, enter the credit as income of that business, too.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Form 2439 box 2.
    pub static PAID_BY_FUND: Brought = Brought::new();

    /// Form 4136 line 17.
    pub static FUEL: Brought = Brought::new();
}

const KEPT: PaperKind = PaperKind {
    id: "2439",
    subject: subject::INVESTMENTS,
    name: "Gains that a fund kept",
    words: "2439 undistributed long-term capital gains fund reit",
    title: "Fund",
    shared: true,
    headline: "1a",
    boxes: &[
        Field::amount("1a", "1a", "Total undistributed long-term capital gains"),
        Field::amount("1b", "1b", "Unrecaptured section 1250 gain").help("The part of box 1a."),
        Field::amount("1c", "1c", "Section 1202 gain").help("The part of box 1a."),
        Field::amount("1d", "1d", "Collectibles (28 %) gain").help("The part of box 1a."),
        Field::amount("2", "2", "Tax paid by the fund"),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const FUEL: PaperKind = PaperKind {
    id: "4136",
    subject: subject::CREDITS,
    name: "Tax on fuels",
    words: "4136 fuel gasoline diesel kerosene off-highway farm boat credit",
    title: "About",
    shared: false,
    headline: "17",
    boxes: &[Field::amount("17", "17", "Total income tax credit claimed")],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == FUEL.id {
        paper.give("17", &brings::FUEL);
        return;
    }
    paper.earns();
    paper.give("1a", &capital_gains::brings::UNDISTRIBUTED);
    paper.give("1b", &capital_gains::brings::SECTION_1250);
    paper.give("1d", &capital_gains::brings::COLLECTIBLES);
    paper.give("2", &brings::PAID_BY_FUND);
}

/// Lines 12 and 13a of Schedule 3.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> [(LineId, Money); 2] {
    [(L12, &brings::FUEL), (L13A, &brings::PAID_BY_FUND)]
        .map(|(line, kind)| (line, on.gather(trail, line, kind)))
}

/// What the papers tell beside their amounts.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(KEPT.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        for part in ["1b", "1c", "1d", "2"].into_iter().filter(|part| paper.amount(part) > paper.amount("1a"))
        {
            points.raise(&PART, at(part), "More than box 1a.");
        }
        if !paper.amount("1c").is_zero() {
            points.raise(&SMALL_BUSINESS, at("1c"), "Section 1202 gain is not computed yet.");
        }
        if !paper.amount("1a").is_zero() {
            points.raise(&BASIS, at("1a"), "The fund kept this gain and paid its tax.");
        }
    }
    for paper in points.papers(FUEL.id) {
        points.raise(&INCOME, Place::paper(&paper.id, "17"), "Tax on fuels comes back.");
    }
}
