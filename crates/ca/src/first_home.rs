//! First home savings (ITA 146.6; Schedule 15): line 20805. What is deducted now is one amount with retirement contributions, and
//! these come first.

use crate::{
    bringing::Bringing,
    facts::Facts,
    plan::{Filed, On},
    points::Points,
};
use hembo_core::{
    field::{Field, Years},
    forms::Required,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[SAVED],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRIED, paper: "FHSA", into: CarriedTo::Box("unused") }];

lines! {
    AVAILABLE = "ca.fhsa.available", "First home savings to deduct", "ITA 146.6(5)",
        "Contributions of the year within the room, and earlier ones that were not deducted.";
    pub DEDUCTED = "ca.20805", "First home savings deducted", "ITA 146.6(5)",
        "As much of what is there as the way deducts now.";
    CARRIED = "ca.fhsa.carried", "First home savings kept for later", "ITA 146.6(5)",
        "What is not deducted now can be deducted in any later year.";
}

limits! {
    ROOM = "ca.limit.fhsa" on AVAILABLE, "First home savings", "over the room",
        "ITA 146.6(1) 'annual FHSA limit'";
}

open_points! {
    ROOM_UNKNOWN = blocks "fhsa-room", "ITA 146.6(1)", "Enter the room of the year.";
    OVER = look "C-44", "ITA 207.01, 207.02", "1 % a month is due on what is above the room: form RC728.";
    AFTER = look "fhsa-after", "ITA 146.6(5)",
        "Contributions after the first qualifying withdrawal are not deductible: leave them out.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Contributions of the year.
    pub static PAID: Brought = Brought::new();

    /// Contributions of earlier years that were not deducted.
    pub static UNUSED: Brought = Brought::new();

    /// The room of the year.
    pub static ROOM: Brought = Brought::new();
}

const SAVED: PaperKind = PaperKind {
    id: "FHSA",
    subject: subject::ADJUSTMENTS,
    name: "First home savings account",
    words: "fhsa home contribution",
    title: "Issuer",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::amount("room", "", "Room of the year")
            .help("8,000 when it was opened; later 8,000 and up to 8,000 unused: form RC723."),
        Field::amount("paid", "18", "Contributions")
            .help("Of the calendar year; without transfers from a retirement plan."),
        Field::amount("unused", "", "Unused contributions").help("Made in earlier years, not deducted."),
        Field::yes_no("withdrawn", "", "A qualifying withdrawal was made"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The most that a person may deduct this year.
pub fn most(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    settled::lesser(sum(own.of(&brings::PAID)), sum(own.of(&brings::ROOM))) + sum(own.of(&brings::UNUSED))
}

/// Line 20805 where the way deducts `wanted` at the most; the rest is carried.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, wanted: Money) -> Money {
    let own = on.own();
    if !own.has(&brings::PAID) && !own.has(&brings::UNUSED) {
        return Money::ZERO;
    }
    let within = limit::cap(trail, ROOM.at(on.scope), sum(own.of(&brings::PAID)), sum(own.of(&brings::ROOM)));
    let available = trail.line(AVAILABLE, on.scope, within + sum(own.of(&brings::UNUSED)), |i| {
        i.items(own.of(&brings::PAID)).items(own.of(&brings::UNUSED)).items(own.of(&brings::ROOM));
    });
    let deducted = limit::lesser(trail, wanted, available);
    on.made(trail, DEDUCTED, deducted, &[(AVAILABLE, available)], &[]);
    on.made(trail, CARRIED, available - deducted, &[(AVAILABLE, available), (DEDUCTED, deducted)], &[]);
    deducted
}

/// Schedule 15: where there are contributions.
pub fn schedule_15(filed: Filed<'_>) -> Required {
    let own = filed.on.own();
    Required::if_so(own.has(&brings::PAID) || own.has(&brings::UNUSED), "no first home savings")
}

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[("paid", &brings::PAID), ("unused", &brings::UNUSED), ("room", &brings::ROOM)]);
}

/// Room that is missing or passed.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(SAVED.id) {
        let (paid, room) = (paper.amount("paid"), paper.amount("room"));
        if !paid.is_zero() && !paper.boxes.contains_key("room") {
            points.raise(&ROOM_UNKNOWN, Place::paper(&paper.id, "room"), "What room did the year have?");
        } else if paid > room {
            let message = format!("{:#} above the room of the year.", paid - room);
            points.raise(&OVER, Place::paper(&paper.id, "paid"), message);
        }
        if paper.flag("withdrawn") && !paid.is_zero() {
            let message = "Were these contributions made before the withdrawal?";
            points.raise(&AFTER, Place::paper(&paper.id, "paid"), message);
        }
    }
}
