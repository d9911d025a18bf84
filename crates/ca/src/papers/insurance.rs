//! T4E and T5007: employment insurance, compensation and assistance.

use crate::{
    bringing::{self, Bringing},
    points::Points,
};
use hembo_core::{
    field::{Field, Years},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
};

/// What these papers declare.
pub static PROVISION: Provision =
    Provision { papers: &[INSURANCE, BENEFITS], points: POINTS, ..Provision::NONE };

open_points! {
    RATE = blocks "ei-rate", "Employment Insurance Act 145", "Enter 30 or 0 from box 7.";
    ASSISTANCE = not_covered "assistance-couple", "ITA 56(1)(u)";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T4E box 14.
    pub static INSURANCE: Brought = Brought::new();

    /// T4E box 15 of slips whose benefits are to be repaid, less those repaid.
    pub static REGULAR: Brought = Brought::new();

    /// T4E box 30.
    pub static REPAID: Brought = Brought::new();

    /// T5007 box 10.
    pub static COMPENSATION: Brought = Brought::new();

    /// T5007 box 11, of whom it was paid to.
    pub static ASSISTANCE_PAID: Brought = Brought::new();

    /// The same, of whose income it is: of a couple the one with more net income.
    pub static ASSISTANCE: Brought = Brought::new();
}

/// Boxes of which the law makes something that is not computed yet.
const NOT_COMPUTED: &[&str] = &["17", "20", "33"];

const INSURANCE: PaperKind = PaperKind {
    id: "T4E",
    subject: subject::PAY,
    name: "Employment insurance",
    words: "ei unemployment maternity parental sickness benefits",
    title: "Payer",
    shared: false,
    headline: "14",
    boxes: &[
        Field::count("7", "7", "Repayment rate", 30)
            .help("30 or 0, per cent: whether regular benefits may have to be repaid."),
        Field::amount("14", "14", "Total benefits paid"),
        Field::amount("15", "15", "Regular and other benefits paid"),
        Field::amount("17", "17", "Employment benefits and support"),
        Field::amount("20", "20", "Taxable tuition assistance"),
        Field::amount("22", "22", "Income tax deducted"),
        Field::amount("26", "26", "Overpayment recovered, regular benefits"),
        Field::amount("30", "30", "Total repayment"),
        Field::amount("33", "33", "Payment out of the Consolidated Revenue Fund"),
        Field::amount("36", "36", "Provincial parental benefits"),
        Field::amount("37", "37", "Maternity and parental benefits"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const BENEFITS: PaperKind = PaperKind {
    id: "T5007",
    subject: subject::PAY,
    name: "Workers' compensation and assistance",
    words: "injury social assistance welfare",
    title: "Payer",
    shared: false,
    headline: "10",
    boxes: &[
        Field::amount("10", "10", "Workers' compensation benefits"),
        Field::amount("11", "11", "Social assistance or supplement"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives their boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == BENEFITS.id {
        return paper.give_all(&[("10", &brings::COMPENSATION), ("11", &brings::ASSISTANCE_PAID)]);
    }
    paper.give_all(&[
        ("14", &brings::INSURANCE),
        ("22", &bringing::brings::WITHHELD),
        ("30", &brings::REPAID),
    ]);
    let rate = paper.paper.paper.boxes.get("7").and_then(hembo_core::household::Entry::count);
    if rate.is_some_and(|rate| rate > 0) {
        paper.put("15", None, paper.amount("15") - paper.amount("26"), &brings::REGULAR);
    }
}

/// What is not computed, and a rate that is missing.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(INSURANCE.id) {
        points.boxes_not_computed(paper, NOT_COMPUTED);
        points.total_missing(paper, "14", &["15", "37"]);
        if !paper.amount("15").is_zero() && !paper.boxes.contains_key("7") {
            let message = "Does box 7 say 30 or 0?";
            points.raise(&RATE, Place::paper(&paper.id, "7"), message);
        }
    }
    for paper in points.papers(BENEFITS.id) {
        if !paper.amount("11").is_zero() && !points.facts.assistance_settled {
            let message = "Assistance of a couple is income of the one with more net income, which a way may change: not computed yet.";
            points.raise(&ASSISTANCE, Place::paper(&paper.id, "11"), message);
        }
    }
}
