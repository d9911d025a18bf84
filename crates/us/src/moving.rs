//! Moving of the armed forces (§217(g), (k)), Form 3903: what a move on orders cost above what was paid back.

use crate::{
    bringing::{Bringing, miles_of},
    facts::Facts,
    papers::w2,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    brought::Records,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[MOVE], points: POINTS, figures: &["moving"], ..Provision::NONE };

lines! {
    L3 = "us.3903.3", "Moving expenses", "IRC §217(b), (g)",
        "Transport and storage of things, travel and lodging, miles; no meals.";
    L4 = "us.3903.4", "Moving expenses paid back", "IRC §132(g)(2)",
        "Box 12 code P of Form W-2, and other reimbursements that are not in wages.";
    pub OF = "us.3903.of", "Moving expenses of this person", "IRC §217(g)",
        "What was paid above what was paid back.";
    pub L14 = "us.sched_1.14", "Moving of the armed forces", "IRC §62(a)(15)",
        "Form 3903 of each person.";
    pub TAXED = "us.1h.moving", "Moving money above the cost", "IRC §82",
        "What was paid back above the expenses is income.";
}

open_points! {
    ORDERS = blocks "3903-orders", "IRC §217(g), (k)",
        "Only a move of the armed forces on orders for a permanent change of station counts: answer the question.";
    OTHERS = look "3903-other", "IRC §217(k)",
        "Nobody else deducts a move: the paper counts for nothing.";
    ALONE = blocks "3903-missing", "IRC §82",
        "Add Form 3903 with what the move cost: money above it is income.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Expenses of a move on orders.
    pub static PAID: Brought = Brought::new();

    /// What was paid back and stands on no Form W-2.
    pub static BACK: Brought = Brought::new();
}

const MOVE: PaperKind = PaperKind {
    id: "3903",
    subject: subject::DEDUCTIONS,
    name: "Move of the armed forces",
    words: "moving move relocation military armed forces pcs orders station",
    title: "From, to",
    shared: false,
    headline: "1",
    boxes: &[
        Field::yes_no("orders", "", "On orders, permanent change of station")
            .help("Of a member on active duty, or of the spouse and children."),
        Field::amount("1", "1", "Transport and storage of household goods"),
        Field::amount("2", "2", "Travel and lodging on the way").help("No meals."),
        Field::count("miles", "2", "Miles driven", 100_000)
            .help("Instead of the car's cost; tolls and parking go to travel."),
        Field::amount("4", "4", "Paid back, not on Form W-2")
            .help("What is in wages is not taken off. Box 12 code P counts by itself."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the move to who moved.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    if !reading.flag("orders") {
        return;
    }
    let miles = reading.boxes.get("miles").and_then(Entry::count).unwrap_or(0);
    let driven = miles_of(miles).times(paper.facts.figures.moving.mile, Money::CENT, Rounding::HalfUp);
    paper.give("1", &brings::PAID);
    paper.give("2", &brings::PAID);
    paper.put("miles", None, driven, &brings::PAID);
    paper.give("4", &brings::BACK);
}

fn paid(own: &Records) -> Money {
    sum(own.of(&brings::PAID)).to_whole()
}

fn back(own: &Records) -> Money {
    (sum(own.of(&brings::BACK)) + sum(own.of(&w2::brings::MOVING))).to_whole()
}

/// What a person deducts.
pub fn of_person(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    settled::or_zero(paid(own) - back(own))
}

/// What of the money for a move is a person's income.
pub fn taxed_of(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    settled::or_zero(back(own) - paid(own))
}

/// Line 14 of Schedule 1.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, of_person(on.facts, p))).collect();
    for &(person, amount) in &each {
        one(on, trail, person, OF, amount);
    }
    on.of_each(trail, L14, OF, &each)
}

/// Money for a move above its cost, in line 1h.
pub fn taxed(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each = on.unit.people.iter().map(|&p| taxed_of(on.facts, p));
    let all: Money = each.sum();
    trail.line(TAXED, on.scope, all, |i| {
        for &person in &on.unit.people {
            let own = &on.facts.people[person].own;
            i.items(own.of(&w2::brings::MOVING)).items(own.of(&brings::BACK)).items(own.of(&brings::PAID));
        }
    })
}

fn one(on: On<'_>, trail: &mut impl Trail, person: usize, line: LineId, amount: Money) {
    let own = &on.facts.people[person].own;
    if paid(own).is_zero() {
        return;
    }
    let scope = Scope::Person(person);
    trail.line(L3, scope, paid(own), |i| {
        i.items(own.of(&brings::PAID));
    });
    trail.line(L4, scope, back(own), |i| {
        i.items(own.of(&w2::brings::MOVING)).items(own.of(&brings::BACK));
    });
    trail.line(line, scope, amount, |i| {
        i.line(L3, scope, paid(own)).line(L4, scope, back(own));
    });
}

/// Form 3903: where a move is deducted.
pub fn form_3903(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(L14), "no move on orders that cost more than was paid back")
}

/// Whose move it is, and money for a move without one.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(MOVE.id) {
        let at = Place::paper(&paper.id, "orders");
        if !paper.boxes.contains_key("orders") {
            points.raise(&ORDERS, at, "Was this a move on orders?");
        } else if !paper.flag("orders") {
            points.raise(&OTHERS, at, "This move is not deducted.");
        }
    }
    for person in 0..points.facts.people.len() {
        let own = &points.facts.people[person].own;
        if let (Some(item), true) = (own.of(&w2::brings::MOVING).first(), paid(own).is_zero()) {
            let place = Place::paper(&points.household.papers[item.paper].id, item.field);
            points.raise(&ALONE, place, "Code P pays for a move whose cost is not here.");
        }
    }
}
