//! Letting (ITA 9, 18; Regulations 1100(11); form T776): line 12600, each owner's part.

use crate::{
    bringing::Bringing,
    plan::{Filed, On},
    points::Points,
};
use hembo_core::{
    brought::Records,
    field::{Field, Years},
    forms::Required,
    household::Entry,
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
    papers: &[STATEMENT],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: LEFT, paper: "T776", into: CarriedTo::ByHand }];

lines! {
    BEFORE = "ca.t776.before", "Rents before capital cost", "ITA 9(1); form T776",
        "Rents less expenses, by each owner's part.";
    CAPITAL_COST = "ca.t776.cca", "Capital cost of lets", "ITA 20(1)(a); Regulations 1100(11)",
        "As much of the most as the way claims; it makes no loss of all lets together.";
    LEFT = "ca.t776.left", "Capital cost left in the pool", "ITA 13(21)",
        "What is not claimed stays for later years.";
    pub NET = "ca.12600", "Rental income", "ITA 9(1); form T776",
        "Rents before capital cost less what is claimed of it.";
}

limits! {
    NO_LOSS = "ca.limit.rents" on CAPITAL_COST, "Capital cost of lets", "over the rents that are left, stays in the pool",
        "Regulations 1100(11)";
}

open_points! {
    SHORT_TERM = blocks "short-term-rental", "ITA 67.7", "Expenses of a short-term rental that is not lawful where it lies are not deductible: leave them out.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Rents before capital cost, below zero a loss.
    pub static BEFORE: Brought = Brought::new();

    /// The most of capital cost.
    pub static CAPITAL_COST: Brought = Brought::new();
}

const STATEMENT: PaperKind = PaperKind {
    id: "T776",
    subject: subject::OWN_WORK,
    name: "Rents",
    words: "rental landlord house let tenant",
    title: "Property",
    shared: true,
    headline: "gross",
    boxes: &[
        Field::amount("gross", "12599", "Gross rents"),
        Field::amount("cca", "9936", "Capital cost allowance, the most")
            .help("How much of it is claimed is weighed; it makes no loss."),
        Field::yes_no("short_term", "", "Short-term, and not lawful there")
            .help("Lets for less than 90 days against rules of the place."),
    ],
    columns: &[Field::text("what", "", "What", 80), Field::amount("amount", "", "Expense")],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives rents before capital cost, and the most of that, to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let rows = &paper.paper.paper.rows;
    let spent: Money = rows.iter().filter_map(|row| row.get("amount").and_then(Entry::money)).sum();
    paper.put("gross", None, paper.amount("gross") - spent, &brings::BEFORE);
    paper.give_all(&[("cca", &brings::CAPITAL_COST)]);
}

/// Line 12600, where the way claims `wanted` of capital cost at the most.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, wanted: Money) -> Money {
    let own = on.own();
    let before = on.gather(trail, BEFORE, own.of(&brings::BEFORE));
    let all = sum(own.of(&brings::CAPITAL_COST));
    let most = limit::cap(trail, NO_LOSS.at(on.scope), all, settled::or_zero(before));
    let claimed = limit::lesser(trail, wanted, most);
    trail.line(CAPITAL_COST, on.scope, claimed, |i| {
        i.items(own.of(&brings::CAPITAL_COST)).line(BEFORE, on.scope, before);
    });
    on.made(trail, LEFT, all - claimed, &[(CAPITAL_COST, claimed)], &[("The most", &all)]);
    on.made(trail, NET, before - claimed, &[(BEFORE, before), (CAPITAL_COST, claimed)], &[])
}

/// The most of capital cost that a person may claim: none that makes a loss.
pub fn most(own: &Records) -> Money {
    settled::lesser(sum(own.of(&brings::CAPITAL_COST)), settled::or_zero(sum(own.of(&brings::BEFORE))))
}

/// Net rents of a person where all capital cost is claimed.
pub fn net(own: &Records) -> Money {
    sum(own.of(&brings::BEFORE)) - most(own)
}

/// Form T776: where anything is let.
pub fn form_t776(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.own().has(&brings::BEFORE), "nothing is let")
}

/// Lets that are not lawful.
pub fn points(points: &mut Points<'_>) {
    for paper in
        points.papers(STATEMENT.id).filter(|paper| paper.flag("short_term") && !paper.rows.is_empty())
    {
        let message = "Expenses of a short-term rental that is not lawful.";
        points.raise(&SHORT_TERM, Place::paper(&paper.id, "short_term"), message);
    }
}
