//! Deductions that are typed as they stand on their form (ITA 8, 20, 60(b), 62): dues, support, carrying charges, moving and
//! employment expenses; and support received.

use crate::{bringing::Bringing, plan::On, points::Points};
use hembo_core::{
    field::{Field, Years},
    limit, limits,
    line::LineId,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[DEDUCTED, SUPPORT],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] =
    &[Carry { line: MOVING_CARRIED, paper: "Other deductions", into: CarriedTo::Box("moving.earlier") }];

lines! {
    pub SUPPORT_RECEIVED = "ca.12800", "Taxable support received", "ITA 56(1)(b)",
        "Periodic support of a spouse by agreement or order.";
    pub MOVING = "ca.21900", "Moving expenses", "ITA 62",
        "At most what was earned at the new place.";
    MOVING_CARRIED = "ca.moving.carried", "Moving expenses kept for later", "ITA 62(1)(d)",
        "What the income at the new place did not take.";
    pub SUPPORT_PAID = "ca.22000", "Support paid", "ITA 60(b)",
        "Periodic support of a spouse by agreement or order.";
    pub CARRYING = "ca.22100", "Carrying charges", "ITA 20(1)(c), (bb)",
        "Interest and counsel for investments.";
}

limits! {
    AT_NEW_PLACE = "ca.limit.moving" on MOVING, "Moving expenses", "over what was earned at the new place, kept for later",
        "ITA 62(1)(c)";
}

open_points! {
    CONDITIONS = blocks "C-82", "ITA 8(10)", "Answer whether the employer signed form T2200.";
    AGREEMENT = blocks "C-84", "ITA 56.1(4), 60.1(4)", "Answer whether it is periodic support of a spouse by agreement or order.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Dues that stand on no T4.
    pub static DUES: Brought = Brought::new();

    /// Moving expenses, with those carried in.
    pub static MOVING: Brought = Brought::new();

    /// What was earned at the new place.
    pub static AT_NEW_PLACE: Brought = Brought::new();

    /// Carrying charges.
    pub static CARRYING: Brought = Brought::new();

    /// Employment expenses.
    pub static EMPLOYMENT: Brought = Brought::new();

    /// Support paid.
    pub static SUPPORT_PAID: Brought = Brought::new();

    /// Support received.
    pub static SUPPORT_RECEIVED: Brought = Brought::new();
}

const DEDUCTED: PaperKind = PaperKind {
    id: "Other deductions",
    subject: subject::ADJUSTMENTS,
    name: "Dues, moving, carrying and employment expenses",
    words: "union professional dues move interest counsel home office t777 t1-m",
    title: "About",
    shared: false,
    headline: "dues",
    boxes: &[
        Field::amount("dues", "21200", "Professional dues")
            .help("On no T4; required by law for the profession."),
        Field::amount("moving", "21900", "Moving expenses")
            .help("Form T1-M: 40 km nearer to new work or full-time studies."),
        Field::amount("moving.earlier", "", "Moving expenses carried in"),
        Field::amount("moving.earned", "", "Earned at the new place")
            .help("The deduction goes no higher; the rest is kept."),
        Field::amount("carrying", "22100", "Carrying charges and interest"),
        Field::amount("employment", "22900", "Employment expenses")
            .help("The total of a form T777; item by item on the paper T777."),
        Field::yes_no("t2200", "", "The employer signed form T2200"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const SUPPORT: PaperKind = PaperKind {
    id: "Support",
    subject: subject::ADJUSTMENTS,
    name: "Support of a former spouse",
    words: "alimony maintenance separation",
    title: "With",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::amount("paid", "22000", "Paid, deductible"),
        Field::amount("received", "12800", "Received, taxable"),
        Field::yes_no("agreement", "", "Periodic, of a spouse, by agreement or order")
            .help("Child support since May 1997 is neither."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What is deducted on lines of its own.
#[derive(Debug, Clone, Copy)]
pub struct Deducted {
    /// Line 21900.
    pub moving: Money,
    /// Line 22000.
    pub support: Money,
    /// Line 22100.
    pub carrying: Money,
}

impl Deducted {
    /// Each with its line.
    pub fn lines(self) -> [(LineId, Money); 3] {
        [(MOVING, self.moving), (SUPPORT_PAID, self.support), (CARRYING, self.carrying)]
    }
}

/// Lines 21900 to 22100.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Deducted {
    let own = on.own();
    Deducted {
        moving: moving(on, trail),
        support: on.gather(
            trail,
            SUPPORT_PAID,
            if on.plan.former { &[] } else { own.of(&brings::SUPPORT_PAID) },
        ),
        carrying: on.gather(trail, CARRYING, own.of(&brings::CARRYING)),
    }
}

fn moving(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = on.own();
    let spent = sum(own.of(&brings::MOVING));
    if spent.is_zero() {
        return Money::ZERO;
    }
    let earned = sum(own.of(&brings::AT_NEW_PLACE));
    let allowed = limit::cap(trail, AT_NEW_PLACE.at(on.scope), spent, earned);
    trail.line(MOVING, on.scope, allowed, |i| {
        i.items(own.of(&brings::MOVING)).items(own.of(&brings::AT_NEW_PLACE));
    });
    on.made(trail, MOVING_CARRIED, spent - allowed, &[(MOVING, allowed)], &[("Spent", &spent)]);
    allowed
}

/// Gives their boxes to the owner; what a condition is not met for is left out.
pub fn read(paper: &mut Bringing<'_>) {
    let flag = |field: &str| paper.paper.paper.flag(field);
    let (signed, agreed) = (flag("t2200"), flag("agreement"));
    if paper.paper.paper.kind == SUPPORT.id {
        if agreed {
            paper.give_all(&[("paid", &brings::SUPPORT_PAID), ("received", &brings::SUPPORT_RECEIVED)]);
        }
        return;
    }
    paper.give_all(&[
        ("dues", &brings::DUES),
        ("moving", &brings::MOVING),
        ("moving.earlier", &brings::MOVING),
        ("moving.earned", &brings::AT_NEW_PLACE),
        ("carrying", &brings::CARRYING),
    ]);
    if signed {
        paper.give_all(&[("employment", &brings::EMPLOYMENT)]);
    }
}

/// Conditions that were not answered.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(DEDUCTED.id) {
        if !paper.amount("employment").is_zero() && !paper.boxes.contains_key("t2200") {
            points.raise(&CONDITIONS, Place::paper(&paper.id, "t2200"), "Is form T2200 signed?");
        }
    }
    for paper in points.papers(SUPPORT.id) {
        let any = !paper.amount("paid").is_zero() || !paper.amount("received").is_zero();
        if any && !paper.boxes.contains_key("agreement") {
            points.raise(&AGREEMENT, Place::paper(&paper.id, "agreement"), "By agreement or order?");
        }
    }
}
