//! The credit for minimum tax of earlier years (R&TC 17063; FTB 3510, code 188): what was paid only because something counted early comes back
//! in a year in which the tax is above the tentative minimum tax.

use super::{made, minimum_tax};
use crate::{
    bringing::Bringing,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    Trail,
    field::{Field, Years},
    forms::Required,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[PAPER],
    points: POINTS,
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRY, paper: "FTB 3510", into: CarriedTo::Box("carried") }];

lines! {
    AVAILABLE = "us.ca.3510.available", "Minimum tax of earlier years", "R&TC 17063", "Last year's minimum tax less what exclusion items alone would have made, and what was carried then.";
    pub CREDIT = "us.ca.188", "Minimum tax of earlier years, code 188", "R&TC 17063; FTB 3510", "Up to what the tax is above the tentative minimum tax.";
    CARRY = "us.ca.carryover.188", "Minimum tax credit of California carried on", "R&TC 17063", "What is not used, without end.";
}

limits! {
    TENTATIVE = "us.ca.limit.188" on CREDIT, "Minimum tax of earlier years", "over the tax above the minimum tax; carried on", "R&TC 17063";
}

open_points! {
    EXCLUSION = blocks "ca-3510", "R&TC 17063; FTB 3510, Part I",
        "Enter what exclusion items alone made of it, zero too: that part does not come back.";
}

/// What its paper brings.
pub mod brings {
    use hembo_core::brought::Brought;

    /// The credit that earlier years leave.
    pub static AVAILABLE: Brought = Brought::new();
}

/// The paper.
pub const PAPER: PaperKind = PaperKind {
    id: "FTB 3510",
    subject: subject::CREDITS,
    name: "Minimum tax of California of earlier years",
    words: "california amt minimum tax credit 3510 188 prior year",
    title: "From",
    shared: false,
    headline: "minimum",
    boxes: &[
        Field::amount("minimum", "", "Last year's minimum tax").help("Form 540 of last year, line 61."),
        Field::amount("exclusion", "", "Of exclusion items alone")
            .help("FTB 3510, Part I: last year's minimum tax without options and other timing."),
        Field::amount("carried", "", "Credit carried here").help("FTB 3510 of last year."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the credit to its owner; exclusion items above the minimum tax lower what was carried.
pub fn read(paper: &mut Bringing<'_>) {
    crate::earlier_minimum_tax::bring(paper, ["minimum", "exclusion", "carried"], &brings::AVAILABLE);
}

fn any(on: On<'_>) -> bool {
    on.owns().any(|(_, own)| own.has(&brings::AVAILABLE))
}

/// Code 188; `room` is the tax that the care credit leaves above the tentative minimum tax.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, room: Money, tentative: Money) -> Money {
    if !any(on) {
        return Money::ZERO;
    }
    let available = on.gather(trail, AVAILABLE, &brings::AVAILABLE);
    let credit = limit::cap(trail, TENTATIVE.at(on.scope), available, room);
    made(on, trail, CARRY, available - credit, &[(AVAILABLE, available)], &[("Used", &credit)]);
    let lines = [(AVAILABLE, available), (minimum_tax::TENTATIVE, tentative)];
    made(on, trail, CREDIT, credit, &lines, &[("Tax above the minimum tax", &room)])
}

/// FTB 3510.
pub fn form_3510(filed: Filed<'_>) -> Required {
    super::forms::here(filed, any(filed.on), "no minimum tax of earlier years")
}

/// What of last year's minimum tax does not come back.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAPER.id) {
        if !paper.amount("minimum").is_zero() && !paper.boxes.contains_key("exclusion") {
            let words = "How much of last year's minimum tax of California came from exclusion items?";
            points.raise(&EXCLUSION, Place::paper(&paper.id, "exclusion"), words);
        }
    }
}
