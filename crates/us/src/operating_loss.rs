//! Net operating losses of earlier years (§172), Schedule 1 line 8a: those of before 2018 in full, later ones up to 80 % of what taxable income
//! is without them.

use crate::{
    bringing::Bringing,
    points::Points,
    unit::{Filed, On, OperatingLoss},
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
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[CARRIED],
    points: POINTS,
    figures: &["operating_loss"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry { line: CARRY, paper: "172", into: CarriedTo::Box("since") },
    Carry { line: CARRY_BEFORE, paper: "172", into: CarriedTo::Box("before") },
];

lines! {
    pub L8A = "us.sched_1.8a", "Net operating losses of earlier years", "IRC §172(a)",
        "Of years before 2018 in full; of later ones up to a part of taxable income without them, below zero.";
    CARRY_BEFORE = "us.carryover.operating_loss_before", "Operating losses of before 2018 carried on", "IRC §172(b)(2)",
        "What taxable income does not use up, for twenty years.";
    CARRY = "us.carryover.operating_loss", "Operating losses carried on", "IRC §172(b)(1)(A)(ii)(II), (2)",
        "What is not deducted, without end.";
    pub MINIMUM = "us.6251.2f", "Operating losses for the minimum tax", "IRC §56(d)(1)",
        "Those of the minimum tax, up to a part of its income, in place of line 8a.";
}

limits! {
    PART = "us.limit.operating_loss" on L8A, "Operating loss", "over a part of taxable income; carried on",
        "IRC §172(a)(2)(B)";
}

open_points! {
    STATEMENT = beside "172-statement", "Reg. §1.172-1(c)",
        "Attach a statement of how the loss was reckoned and carried.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Losses of years before 2018.
    pub static BEFORE: Brought = Brought::new();

    /// Later ones.
    pub static SINCE: Brought = Brought::new();

    /// All of them as the minimum tax reckons them.
    pub static MINIMUM: Brought = Brought::new();
}

const CARRIED: PaperKind = PaperKind {
    id: "172",
    subject: subject::OWN_WORK,
    name: "Net operating losses of earlier years",
    words: "nol net operating loss carryforward carryover 172 excess business loss",
    title: "About",
    shared: false,
    headline: "since",
    boxes: &[
        Field::amount("since", "", "Losses of 2018 and later")
            .help("Not yet deducted; excess business losses of earlier years, Form 461, too."),
        Field::amount("before", "", "Losses of before 2018")
            .help("Not yet deducted, of the last twenty years."),
        Field::amount("amt", "", "All of them, for the minimum tax").blank_is("the same"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the losses to their owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("before", &brings::BEFORE);
    paper.give("since", &brings::SINCE);
    let of = paper.paper.paper;
    if of.boxes.contains_key("amt") {
        return paper.give("amt", &brings::MINIMUM);
    }
    for field in ["before", "since"] {
        paper.give(field, &brings::MINIMUM);
    }
}

/// Whether a return has such losses.
pub fn any(on: On<'_>) -> bool {
    on.owns().any(|(_, own)| own.has(&brings::BEFORE) || own.has(&brings::SINCE))
}

/// What a return is without the losses.
#[derive(Debug, Clone, Copy)]
pub struct Without {
    /// Taxable income without them and without the deduction of qualified business income, below zero too (§172(a)(2)(B)(ii)(II)).
    pub taxable: Money,
    /// The capital loss that counts, which uses up no operating loss (§172(d)(2)(A)).
    pub capital_loss: Money,
}

/// What of the losses is deducted, and what is left.
pub fn settle(on: On<'_>, without: Without) -> OperatingLoss {
    let of = |kind| sum(on.items(kind)).to_whole();
    let (before, since) = (of(&brings::BEFORE), of(&brings::SINCE));
    let room = settled::or_zero(without.taxable - before);
    let part = room.times(on.facts.figures.operating_loss.part, Money::WHOLE, Rounding::HalfUp);
    let later = settled::lesser(since, part);
    let used_up = settled::or_zero(without.taxable + without.capital_loss);
    let left_before = before - settled::lesser(before, used_up);
    OperatingLoss { deducted: before + later, left_before, left: since - later, most: before + part }
}

/// Line 8a.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let Some(loss) = on.unit.operating_loss else { return Money::ZERO };
    let all = || on.items(&brings::BEFORE).chain(on.items(&brings::SINCE));
    let deducted =
        limit::given(trail, PART.at(on.scope), limit::Shape::Cap, sum(all()).to_whole(), loss.deducted);
    for (line, left) in [(CARRY_BEFORE, loss.left_before), (CARRY, loss.left)] {
        trail.line(line, on.scope, left, |i| {
            i.line(L8A, on.scope, -deducted);
        });
    }
    trail.line(L8A, on.scope, -deducted, |i| {
        i.items(all()).figure("At most", loss.most);
    })
}

/// What the losses take of minimum taxable income, which is `income` without them.
pub fn for_minimum_tax(on: On<'_>, trail: &mut impl Trail, income: Money) -> Money {
    if !any(on) {
        return Money::ZERO;
    }
    let all = sum(on.items(&brings::MINIMUM)).to_whole();
    let part = on.facts.figures.operating_loss.minimum_tax_part;
    let most = settled::or_zero(income).times(part, Money::WHOLE, Rounding::HalfUp);
    let taken = limit::lesser(trail, all, most);
    trail.line(MINIMUM, on.scope, taken, |i| {
        i.items(on.items(&brings::MINIMUM)).figure("At most", most);
    })
}

/// Losses carried here.
pub fn form_172(filed: Filed<'_>) -> Required {
    Required::if_so(any(filed.on), "no operating loss of earlier years")
}

/// The first of such losses of a return.
pub fn first(on: On<'_>) -> Option<&Item> {
    on.items(&brings::BEFORE).chain(on.items(&brings::SINCE)).next()
}

/// What goes with a loss.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CARRIED.id) {
        let at = Place::paper(&paper.id, "since");
        points.raise(&STATEMENT, at, "An operating loss of earlier years is deducted.");
    }
}
