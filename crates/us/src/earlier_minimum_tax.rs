//! The credit for minimum tax of earlier years (§53), Form 8801: what was paid only because something counted early comes back in a year in
//! which the regular tax is above the tentative minimum tax.

use crate::{
    bringing::Bringing,
    minimum_tax,
    points::Points,
    tax,
    unit::{Filed, On},
};
use hembo_core::{
    brought::Brought,
    field::{Field, Years},
    forms::Required,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[EARLIER],
    points: POINTS,
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRY, paper: "8801", into: CarriedTo::Box("19") }];

lines! {
    AVAILABLE = "us.8801.21", "Minimum tax of earlier years", "IRC §53(b)",
        "Last year's minimum tax less what exclusion items alone would have made, and what was carried then.";
    pub CREDIT = "us.sched_3.6b", "Credit for minimum tax of earlier years", "IRC §53(a), (c)",
        "Up to what the regular tax less the other credits is above the tentative minimum tax.";
    CARRY = "us.carryover.minimum_tax", "Minimum tax credit carried on", "IRC §53(b)",
        "What is not used, without end.";
}

limits! {
    TENTATIVE = "us.limit.earlier_minimum_tax" on CREDIT, "Credit for minimum tax", "over the regular tax above the minimum tax; carried on",
        "IRC §53(c)";
}

open_points! {
    EXCLUSION = blocks "8801-15", "IRC §53(d)(1)(B)",
        "Enter Form 8801, line 15, zero too: what taxes, the standard deduction and other exclusion items made of last year's minimum tax does not come back.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// The credit that earlier years leave.
    pub static AVAILABLE: Brought = Brought::new();
}

const EARLIER: PaperKind = PaperKind {
    id: "8801",
    subject: subject::CREDITS,
    name: "Minimum tax of earlier years",
    words: "amt minimum tax credit 8801 prior year incentive stock option",
    title: "From",
    shared: false,
    headline: "16",
    boxes: &[
        Field::amount("16", "16", "Last year's minimum tax").help("Form 6251 of last year, line 11."),
        Field::amount("15", "15", "Of exclusion items alone").help(
            "Form 8801 of this year, Part I: last year's minimum tax without options and other timing.",
        ),
        Field::amount("19", "19", "Credit carried here").help("Form 8801 of last year, line 26."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the credit to its owner; exclusion items above the minimum tax lower what was carried (Form 8801, line 18).
pub fn read(paper: &mut Bringing<'_>) {
    bring(paper, ["16", "15", "19"], &brings::AVAILABLE);
}

/// Brings the boxes of last year's minimum tax, of exclusion items, and of what was carried then.
pub fn bring(paper: &mut Bringing<'_>, fields: [&'static str; 3], kind: &'static Brought) {
    let [minimum, exclusion, carried] = fields.map(|field| paper.paper.paper.amount(field));
    let taken = settled::lesser(exclusion, minimum + carried);
    for (field, amount) in fields.into_iter().zip([minimum, -taken, carried]) {
        paper.put(field, None, amount, kind);
    }
}

/// What the credit goes by.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Line 16 and Schedule 2 line 1z.
    pub regular: Money,
    /// Form 6251 line 9.
    pub tentative: Money,
    /// The other nonrefundable credits, line 19 too.
    pub others: Money,
}

/// Schedule 3 line 6b.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    if !on.owns().any(|(_, own)| own.has(&brings::AVAILABLE)) {
        return Money::ZERO;
    }
    let available = on.gather(trail, AVAILABLE, &brings::AVAILABLE);
    let room = limit::or_zero(trail, from.regular - from.others - from.tentative);
    let credit = limit::cap(trail, TENTATIVE.at(on.scope), available, room);
    trail.line(CARRY, on.scope, available - credit, |i| {
        i.line(AVAILABLE, on.scope, available);
    });
    trail.line(CREDIT, on.scope, credit, |i| {
        i.line(AVAILABLE, on.scope, available)
            .line(tax::L16, on.scope, from.regular)
            .line(minimum_tax::TENTATIVE, on.scope, from.tentative)
            .figure("Other credits", from.others);
    })
}

/// Form 8801: a credit of earlier years.
pub fn form_8801(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(AVAILABLE), "no minimum tax of earlier years")
}

/// What of last year's minimum tax does not come back.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(EARLIER.id) {
        if !paper.amount("16").is_zero() && !paper.boxes.contains_key("15") {
            let message = "How much of last year's minimum tax came from exclusion items?";
            points.raise(&EXCLUSION, Place::paper(&paper.id, "15"), message);
        }
    }
}
