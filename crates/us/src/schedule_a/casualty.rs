//! Casualty and theft of personal property (§165(h)), Form 4684, Section A: only in federally declared disasters; a qualified disaster
//! loss without the floor, and with the standard deduction, too.

use crate::{
    bringing::Bringing,
    income,
    points::Points,
    states,
    unit::{Filed, On},
};
use hembo_core::{
    brought::{Brought, Records},
    field::{Choice, Field, Years},
    forms::Required,
    household::{Answers, Entry},
    limit::{self, Shape},
    limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[EVENT],
    points: POINTS,
    figures: &["casualty"],
    ..Provision::NONE
};

lines! {
    LOST = "us.4684.14", "Losses of declared disasters", "IRC §165(h)(1), (5)",
        "Of each disaster what insurance did not pay, less an amount.";
    pub L15 = "us.sched_a.15", "Casualty and theft", "IRC §165(h)(2)",
        "Losses of declared disasters above a part of adjusted gross income.";
    pub QUALIFIED = "us.4684.15", "Qualified disaster loss", "IRC §165(h); P.L. 116-260 §304(b); P.L. 118-148 §2",
        "Of each such disaster what insurance did not pay, less an amount; no floor.";
}

limits! {
    FLOOR = "us.limit.casualty" on L15, "Casualty and theft", "below the floor of adjusted gross income", "IRC §165(h)(2)";
}

open_points! {
    KIND = blocks "casualty-kind", "IRC §165(h)(5)",
        "Choose it by the declaration: only losses of declared disasters count.";
    NOT_DECLARED = look "casualty-other", "IRC §165(h)(5)",
        "From 2018 on other losses of personal property are not deducted.";
    GAIN = not_covered "casualty-gain", "IRC §§165(h)(2)(B), 1033";
    EARLIER = not_weighed "C-32", "IRC §165(i)",
        "The loss may be taken in the year before instead: that is not weighed here.";
}

/// What of a disaster was lost on one thing.
#[derive(Debug, Clone)]
pub struct Loss {
    item: Item,
    event: usize,
}

/// What its papers bring.
pub mod brings {
    use super::Loss;
    use hembo_core::brought::Brought;

    /// Losses of federally declared disasters.
    pub static DECLARED: Brought<Loss> = Brought::new();

    /// Losses of qualified disasters.
    pub static QUALIFIED: Brought<Loss> = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("declared", "Federally declared disaster"),
    Choice::new("qualified", "Qualified disaster"),
    Choice::new("other", "Neither"),
];

const EVENT: PaperKind = PaperKind {
    id: "4684",
    subject: subject::DEDUCTIONS,
    name: "Disaster, casualty, theft",
    words: "casualty disaster hurricane flood fire storm theft loss fema",
    title: "Event",
    shared: true,
    headline: "basis",
    boxes: &[
        Field::choice("kind", "", "Disaster", KINDS)
            .help("Declared: by the President. Qualified: a major one, declared from 2020 to 2 September 2025, that began by 4 July 2025."),
        Field::text("declaration", "", "Declaration number", 12).help("DR or EM and four digits."),
        Field::date("date", "", "Day of the event"),
        states::SEPARATE,
    ],
    columns: &[
        Field::text("what", "1", "Property", 80),
        Field::amount("basis", "2", "Cost or basis"),
        Field::amount("insurance", "3", "Insurance and other money"),
        Field::amount("before", "5", "Value before"),
        Field::amount("after", "6", "Value after"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// What of a thing was lost: the smaller of its basis and its fall in value, less insurance.
fn lost(row: &Answers) -> Money {
    let of = |id: &str| row.get(id).and_then(Entry::money).unwrap_or_default();
    let fallen = settled::or_zero(of("before") - of("after"));
    settled::or_zero(settled::lesser(of("basis"), fallen) - of("insurance"))
}

/// Gives what was lost to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let kind = match paper.paper.paper.text("kind") {
        Some("declared") => &brings::DECLARED,
        Some("qualified") => &brings::QUALIFIED,
        _ => return,
    };
    let event = paper.paper.index;
    for (r, row, _) in paper.paper.lines("basis") {
        paper.put_as("basis", Some(r), lost(row), kind, |item| Loss { item, event });
    }
}

/// Whether papers bring a loss.
pub fn anything(own: &Records) -> bool {
    own.has(&brings::DECLARED) || own.has(&brings::QUALIFIED)
}

/// What a return lost in disasters of a kind, each less an amount (lines 10 to 12).
fn above(on: On<'_>, kind: &'static Brought<Loss>, less: Money) -> Money {
    let all: Vec<&Loss> = on.owns().flat_map(|(_, own)| own.of(kind)).collect();
    let mut events: Vec<usize> = all.iter().map(|loss| loss.event).collect();
    events.sort_unstable();
    events.dedup();
    let of = |event: usize| {
        let lost = sum(all.iter().filter(|loss| loss.event == event).map(|loss| &loss.item)).to_whole();
        settled::or_zero(lost - less)
    };
    events.into_iter().map(of).sum()
}

/// What a return may deduct of disasters.
#[derive(Debug, Clone, Copy, Default)]
pub struct Losses {
    /// Line 15 of Schedule A.
    pub declared: Money,
    /// The net qualified disaster loss, which goes with the standard deduction, too.
    pub qualified: Money,
}

/// Form 4684, Section A, without gains.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Losses {
    let figures = &on.facts.figures.casualty;
    let items = |kind: &'static Brought<Loss>| {
        on.owns().flat_map(move |(_, own)| own.of(kind)).map(|loss| &loss.item)
    };
    let lost = trail.line(LOST, on.scope, above(on, &brings::DECLARED, figures.each), |i| {
        i.items(items(&brings::DECLARED)).figure("Not counted, of each disaster", figures.each);
    });
    let floor = settled::or_zero(agi).times(figures.floor, Money::WHOLE, Rounding::HalfUp);
    let declared = limit::or_zero(trail, lost - floor);
    if !lost.is_zero() {
        limit::given(trail, FLOOR.at(on.scope), Shape::Floor, lost, declared);
    }
    trail.line(L15, on.scope, declared, |i| {
        i.line(LOST, on.scope, lost).line(income::AGI, on.scope, agi).figure("Floor", floor);
    });
    let qualified = above(on, &brings::QUALIFIED, figures.each_qualified);
    trail.line(QUALIFIED, on.scope, qualified, |i| {
        i.items(items(&brings::QUALIFIED)).figure("Not counted, of each disaster", figures.each_qualified);
    });
    Losses { declared, qualified }
}

/// Form 4684: where a disaster is deducted.
pub fn form_4684(filed: Filed<'_>) -> Required {
    let declared = filed.has(L15) && filed.on.unit.itemizes;
    Required::if_so(declared || filed.has(QUALIFIED), "no loss of a declared disaster is deducted")
}

/// What an event must show.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(EVENT.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        match paper.text("kind") {
            None => points.raise(&KIND, at("kind"), "Which kind of event was this?"),
            Some("other") => points.raise(&NOT_DECLARED, at("kind"), "This loss is not deducted."),
            Some(_) => points.raise(&EARLIER, at("kind"), "This loss may also be taken in the year before."),
        }
        for row in &paper.rows {
            let of = |id: &str| row.get(id).and_then(Entry::money).unwrap_or_default();
            if of("insurance") > of("basis") {
                let message = "Insurance paid more than the basis: the gain is not computed yet.";
                points.raise(&GAIN, Place::row(&paper.id, row, "insurance"), message);
            }
        }
    }
}
