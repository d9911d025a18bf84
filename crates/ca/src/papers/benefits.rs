//! T4A(OAS) and T4A(P): old age security and the pension plan's benefits.

use crate::{
    bringing::{self, Bringing},
    papers::t4a,
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
    Provision { papers: &[OLD_AGE, PENSION_PLAN], points: POINTS, figures: &["oas"], ..Provision::NONE };

open_points! {
    OF_A_CHILD = look "child-benefit-slip", "ITA 56(1)(a)(i)", "It is the child's income: give the slip to the child.";
    EARLY_PENSION = look "C-35", "Old Age Security Act 3",
        "Check the owner of the slip.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T4A(OAS) box 18.
    pub static OAS: Brought = Brought::new();

    /// T4A(OAS) box 21.
    pub static SUPPLEMENTS: Brought = Brought::new();

    /// T4A(OAS) box 20.
    pub static OAS_RECOVERED: Brought = Brought::new();

    /// T4A(P) box 20, less a death benefit.
    pub static CPP: Brought = Brought::new();

    /// T4A(P) box 16, which is in box 20.
    pub static CPP_DISABILITY: Brought = Brought::new();
}

const OLD_AGE: PaperKind = PaperKind {
    id: "T4A(OAS)",
    subject: subject::RETIREMENT,
    name: "Old age security",
    words: "oas pension senior supplement",
    title: "Payer",
    shared: false,
    headline: "18",
    boxes: &[
        Field::amount("18", "18", "Taxable pension paid"),
        Field::amount("19", "19", "Gross pension paid"),
        Field::amount("20", "20", "Overpayment recovered"),
        Field::amount("21", "21", "Net supplements paid"),
        Field::amount("22", "22", "Income tax deducted"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const PENSION_PLAN: PaperKind = PaperKind {
    id: "T4A(P)",
    subject: subject::RETIREMENT,
    name: "Canada Pension Plan benefits",
    words: "cpp retirement pension survivor disability",
    title: "Payer",
    shared: false,
    headline: "20",
    boxes: &[
        Field::amount("14", "14", "Retirement benefit"),
        Field::amount("15", "15", "Survivor benefit"),
        Field::amount("16", "16", "Disability benefit"),
        Field::amount("17", "17", "Child benefit"),
        Field::amount("18", "18", "Death benefit"),
        Field::amount("19", "19", "Post-retirement benefit"),
        Field::amount("20", "20", "Taxable CPP benefits"),
        Field::amount("22", "22", "Income tax deducted"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives their boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == PENSION_PLAN.id {
        paper.give_all(&[
            ("20", &brings::CPP),
            ("16", &brings::CPP_DISABILITY),
            ("22", &bringing::brings::WITHHELD),
        ]);
        // A death benefit is in box 20 and stands on another line.
        let on_death = paper.amount("18");
        paper.put("18", None, -on_death, &brings::CPP);
        return paper.give_all(&[("18", &t4a::brings::OTHER)]);
    }
    paper.give_all(&[
        ("18", &brings::OAS),
        ("20", &brings::OAS_RECOVERED),
        ("21", &brings::SUPPLEMENTS),
        ("22", &bringing::brings::WITHHELD),
    ]);
}

/// Totals that are missing, and a pension before its age.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PENSION_PLAN.id) {
        points.total_missing(paper, "20", &["14", "15", "16", "17", "18", "19"]);
        let of_filer = points.owner(paper).is_some_and(|p| points.facts.people[p].filer);
        if of_filer && !paper.amount("17").is_zero() {
            let message = "A child's benefit on the slip of a filer.";
            points.raise(&OF_A_CHILD, Place::paper(&paper.id, "17"), message);
        }
    }
    for paper in points.papers(OLD_AGE.id) {
        points.total_missing(paper, "18", &["19"]);
        let owner = points.owner(paper);
        if owner.is_some_and(|p| {
            points.facts.people[p].born.is_some() && !points.facts.reached(p, points.facts.figures.oas.age)
        }) {
            let message = "Old age security before its age?";
            points.raise(&EARLY_PENSION, Place::paper(&paper.id, "18"), message);
        }
    }
}
