//! Funds that are held without a bank that withholds here (§§16 to 20 InvStG; Anlage KAP-INV): what they paid, the lump sum of the year before
//! and sales, less the part that is exempt by the kind of fund.

use crate::{
    bringing::{Bringing, money},
    figures,
};
use hembo_core::{
    field::{Choice, Field, Years},
    household::{Answers, Entry},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { about: "Funds", papers: &[FUND], points: POINTS, figures: &["funds"], ..Provision::NONE };

open_points! {
    KIND_ASKED = blocks "fund-kind", "§§2(6) to (9), 20 InvStG", "Say which kind of fund it is: it decides the exempt part.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// The taxable part of each fund.
    pub static FUNDS: Brought = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("equity", "Equity fund, 51 % in shares and more"),
    Choice::new("mixed", "Mixed fund, 25 % in shares and more"),
    Choice::new("property", "Property fund"),
    Choice::new("foreign_property", "Property fund, mostly abroad"),
    Choice::new("other", "Another fund"),
];

const FUND: PaperKind = PaperKind {
    id: "Fund",
    subject: subject::INVESTMENTS,
    name: "Funds held abroad, Anlage KAP-INV",
    words: "fund etf vorabpauschale kap-inv investment",
    title: "Where held",
    shared: true,
    headline: "distributed",
    boxes: &[],
    columns: &[
        Field::text("what", "", "Fund", 80).lasts(),
        Field::choice("kind", "", "Kind", KINDS).lasts(),
        Field::amount("distributed", "", "Paid out in the year"),
        Field::signed("sold", "", "Result of sales, less lump sums taxed before"),
        Field::amount("opening", "", "Value at the beginning of the year before"),
        Field::amount("closing", "", "Value at its end"),
        Field::amount("distributed_before", "", "Paid out in that year"),
        Field::count("months", "", "Months held in that year", 12).blank_is("12"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the taxable part of funds to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let figures = &paper.facts.figures.funds;
    let rows = paper.paper.paper.rows.iter().enumerate();
    let amounts: Vec<(usize, Money)> = rows.map(|(at, cells)| (at, taxable(figures, cells))).collect();
    for (row, amount) in amounts {
        paper.put("distributed", Some(row), amount, &brings::FUNDS);
    }
}

/// What of a fund is taxed in the year.
fn taxable(figures: &figures::Funds, cells: &Answers) -> Money {
    let all = money(cells, "distributed") + money(cells, "sold") + lump_sum(figures, cells);
    let exempt = match cells.get("kind").and_then(Entry::text) {
        Some("equity") => figures.equity,
        Some("mixed") => figures.mixed,
        Some("property") => figures.property,
        Some("foreign_property") => figures.foreign_property,
        _ => Rate::ZERO,
    };
    all - all.times(exempt, Money::CENT, Rounding::HalfUp)
}

/// §18 InvStG: a part of the value at the beginning by the base rate, at most what the value rose with what was paid out, less that; by months.
fn lump_sum(figures: &figures::Funds, cells: &Answers) -> Money {
    let (opening, paid) = (money(cells, "opening"), money(cells, "distributed_before"));
    let yielded = opening.times(figures.base_rate, Money::CENT, Rounding::HalfUp).times(
        figures.base_part,
        Money::CENT,
        Rounding::HalfUp,
    );
    let rise = money(cells, "closing") - opening + paid;
    let lump = settled::or_zero(settled::lesser(yielded, rise) - paid);
    let months = cells.get("months").and_then(Entry::count).unwrap_or(12);
    lump.in_proportion(Money::whole(months), Money::whole(12), Money::CENT, Rounding::HalfUp)
}

/// Funds whose kind is not known.
pub fn points(points: &mut crate::points::Points<'_>) {
    for paper in points.papers(FUND.id) {
        for row in paper.rows.iter().filter(|row| !row.contains_key("kind")) {
            points.raise(&KIND_ASKED, Place::row(&paper.id, row, "kind"), "Which kind of fund?");
        }
    }
}
