//! Pay from which a firm withheld nothing although its receiver was an employee (§§3101, 3121(d)), Form 8919: wages of line 1g, and the
//! employee's part of social security and Medicare tax.

use crate::{
    bringing::Bringing,
    papers::w2,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Choice, Field, Years},
    forms::Required,
    limit, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[PAY],
    points: POINTS,
    figures: &["social_security", "additional_medicare"],
    ..Provision::NONE
};

lines! {
    pub L1G = "us.1g", "Pay of an employee without withholding", "IRC §§61(a)(1), 3121(d)",
        "Form 8919, line 6.";
    TAX_OF = "us.8919.13", "Social security and Medicare tax of this person", "IRC §3101",
        "Social security tax up to what is left of the wage base, and Medicare tax.";
    pub TAX = "us.sched_2.6", "Tax on pay without withholding", "IRC §3101",
        "Form 8919 of each person.";
}

open_points! {
    REASON = blocks "8919-reason", "Form 8919, column (c)",
        "Choose the reason code: without one the firm's pay belongs on Schedule C.";
}

const REASONS: &[Choice] = &[
    Choice::new("A", "A · determined by letter"),
    Choice::new("C", "C · other correspondence"),
    Choice::new("G", "G · Form SS-8 filed, no reply"),
    Choice::new("H", "H · Form W-2 and 1099 of one firm"),
];

const PAY: PaperKind = PaperKind {
    id: "8919",
    subject: subject::PAY,
    name: "Pay without withholding of an employee",
    words: "misclassified contractor 1099 ss-8 uncollected social security 8919",
    title: "Firm",
    shared: false,
    headline: "6",
    boxes: &[
        Field::choice("reason", "(c)", "Reason", REASONS),
        Field::amount("6", "6", "Wages")
            .help("With no social security or Medicare tax withheld; not on Schedule C."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the pay to its owner, as wages.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    paper.give("6", &w2::brings::UNWITHHELD);
    paper.give_titled("6", &w2::brings::UNWITHHELD_EARNED);
}

/// Line 1g.
pub fn income(on: On<'_>, trail: &mut impl Trail) -> Money {
    on.gather(trail, L1G, &w2::brings::UNWITHHELD)
}

/// Schedule 2 line 6.
pub fn tax(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, of_person(on, trail, p))).collect();
    on.of_each(trail, TAX, TAX_OF, &each)
}

fn of_person(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let own = &on.facts.people[person].own;
    let pay = sum(own.of(&w2::brings::UNWITHHELD_EARNED)).to_whole();
    if pay.is_zero() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.social_security;
    let before = sum(own.of(&w2::brings::SOCIAL_SECURITY_WAGES)) + sum(own.of(&w2::brings::ALLOCATED_TIPS));
    let room = limit::or_zero(trail, figures.wage_base - before.to_whole());
    let taxed = limit::lesser(trail, pay, room);
    let by = |amount: Money, rate| amount.times(rate, Money::WHOLE, Rounding::HalfUp);
    let tax = by(taxed, figures.rate) + by(pay, on.facts.figures.additional_medicare.regular_rate);
    trail.line(TAX_OF, Scope::Person(person), tax, |i| {
        i.items(own.of(&w2::brings::UNWITHHELD_EARNED)).figure("Below the wage base", taxed);
    })
}

/// Form 8919: where there is such pay.
pub fn form_8919(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(L1G), "no pay without withholding")
}

/// The reason code.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAY.id).filter(|paper| paper.text("reason").is_none()) {
        points.raise(&REASON, Place::paper(&paper.id, "reason"), "Why is this pay an employee's?");
    }
}
