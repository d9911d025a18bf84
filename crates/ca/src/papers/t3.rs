//! T3: income from a trust or fund.

use crate::{
    bringing::Bringing,
    papers::{t4a, t5},
    points::Points,
};
use hembo_core::{
    field::{Field, Years},
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
};

/// What this paper declares.
pub static PROVISION: Provision = Provision { papers: &[T3], ..Provision::NONE };

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T3 box 21, less box 37.
    pub static GAINS: Brought = Brought::new();

    /// T3 box 38, paid out.
    pub static PART_XII_2: Brought = Brought::new();
}

/// Boxes of which the law makes something that is not computed yet.
const NOT_COMPUTED: &[&str] = &["24", "30", "33", "40"];

/// The box of what takes from the cost of the units.
pub const COST: &str = "42";

/// The slip.
pub const T3: PaperKind = PaperKind {
    id: "T3",
    subject: subject::INVESTMENTS,
    name: "Income from a trust or fund",
    words: "mutual fund estate trust distribution",
    title: "Payer",
    shared: true,
    headline: "26",
    boxes: &[
        Field::amount("21", "21", "Capital gains"),
        Field::amount("23", "23", "Actual other dividends"),
        Field::amount("24", "24", "Foreign business income"),
        Field::amount("25", "25", "Foreign non-business income"),
        Field::amount("26", "26", "Other income"),
        Field::amount("30", "30", "Gains eligible for the exemption"),
        Field::amount("31", "31", "Qualifying pension income").help("Part of box 26."),
        Field::amount("32", "32", "Taxable other dividends"),
        Field::amount("33", "33", "Foreign business tax"),
        Field::amount("34", "34", "Foreign non-business tax"),
        Field::text("country", "", "Country of foreign income", 40),
        Field::amount("37", "37", "Insurance fund capital losses"),
        Field::amount("38", "38", "Part XII.2 credit"),
        Field::amount("40", "40", "Investment tax credit"),
        Field::signed(COST, "42", "Change of the cost base")
            .help("Takes from the cost of the units; below zero it adds."),
        Field::amount("49", "49", "Actual eligible dividends"),
        Field::amount("50", "50", "Taxable eligible dividends"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    t5::put_dividends(paper, ["50", "49"], ["32", "23"]);
    paper.put("26", None, paper.amount("26") - paper.amount("31"), &t4a::brings::OTHER);
    paper.put("37", None, -paper.amount("37"), &brings::GAINS);
    paper.give_all(&[
        ("21", &brings::GAINS),
        ("38", &brings::PART_XII_2),
        ("25", &t5::brings::INTEREST),
        ("31", &t4a::brings::LIFE_PENSIONS),
    ]);
}

/// What is not computed.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(T3.id) {
        points.boxes_not_computed(paper, NOT_COMPUTED);
    }
}
