//! T5: interest and dividends.

use super::{suggestion, times};
use crate::{bringing::Bringing, figures::Figures, points::Points};
use hembo_core::{
    Paper,
    field::{Field, Years},
    open_points,
    pack::Suggestion,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::{Money, Rate, Rounding};

/// What this paper declares.
pub static PROVISION: Provision =
    Provision { papers: &[T5], points: POINTS, figures: &["dividends"], ..Provision::NONE };

open_points! {
    APART = look "C-71", "ITA 82(1), 121",
        "Compare with the slip.";
    CURRENCY = not_covered "C-78", "ITA 261(2)";
    FOREIGN = look "C-21", "ITA 126(1), 233.3",
        "Compare its cost with line 26600.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// T5 box 25, or 24 grossed up.
    pub static ELIGIBLE_DIVIDENDS: Brought = Brought::new();

    /// T5 box 11, or 10 grossed up.
    pub static OTHER_DIVIDENDS: Brought = Brought::new();

    /// T5 box 18.
    pub static GAINS: Brought = Brought::new();

    /// T5 boxes 13, 14, 15, 17 and 19.
    pub static INTEREST: Brought = Brought::new();
}

/// The slip.
pub const T5: PaperKind = PaperKind {
    id: "T5",
    subject: subject::INVESTMENTS,
    name: "Investment income",
    words: "bank dividends interest shares",
    title: "Payer",
    shared: true,
    headline: "13",
    boxes: &[
        Field::amount("24", "24", "Actual eligible dividends"),
        Field::amount("25", "25", "Taxable eligible dividends"),
        Field::amount("26", "26", "Credit for eligible dividends"),
        Field::amount("10", "10", "Actual other dividends"),
        Field::amount("11", "11", "Taxable other dividends"),
        Field::amount("12", "12", "Credit for other dividends"),
        Field::amount("13", "13", "Interest from Canadian sources"),
        Field::amount("14", "14", "Other income from Canadian sources"),
        Field::amount("15", "15", "Foreign income"),
        Field::amount("16", "16", "Foreign tax paid"),
        Field::amount("17", "17", "Royalties")
            .help("Of property; those of one's own work belong in accounts, T2125."),
        Field::amount("18", "18", "Capital gains dividends"),
        Field::amount("19", "19", "Accrued income: annuities"),
        Field::text("country", "", "Country of foreign income", 40),
        Field::text("27", "27", "Foreign currency", 3).help("Blank where the amounts are in dollars."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    put_dividends(paper, ["25", "24"], ["11", "10"]);
    paper.put("18", None, paper.amount("18"), &brings::GAINS);
    for field in ["13", "14", "15", "17", "19"] {
        paper.put(field, None, paper.amount(field), &brings::INTEREST);
    }
    paper.files();
}

/// Gives taxable dividends to the owners: from the box for the taxable amount, or that for the actual one grossed up.
pub fn put_dividends(paper: &mut Bringing<'_>, eligible: [&'static str; 2], other: [&'static str; 2]) {
    let figures = &paper.facts.figures.dividends;
    let taxable = |[taxable, actual]: [&'static str; 2], factor| match paper.has(taxable) {
        true => (taxable, paper.amount(taxable)),
        false => (actual, paper.amount(actual).times(factor, Money::CENT, Rounding::HalfUp)),
    };
    let (eligible, other) = (taxable(eligible, figures.eligible), taxable(other, figures.other));
    paper.put(eligible.0, None, eligible.1, &brings::ELIGIBLE_DIVIDENDS);
    paper.put(other.0, None, other.1, &brings::OTHER_DIVIDENDS);
}

/// Dividends against what the boxes before them make, and what is not computed.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(T5.id) {
        one(points, paper);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let near = Money::from_cents(2);
    for made in dividends(&points.facts.figures, paper) {
        let told = paper.amount(&made.field);
        let wanted: Money = made.value.parse().unwrap_or_default();
        let apart = told - wanted;
        let actual = if matches!(made.field.as_str(), "25" | "26") { "24" } else { "10" };
        if paper.boxes.contains_key(&made.field)
            && paper.boxes.contains_key(actual)
            && (apart > near || -apart > near)
        {
            let place = Place::paper(&paper.id, &made.field);
            let message = format!("Box {} says {told:#}, the boxes before it make {wanted:#}.", made.field);
            points.suggest(&APART, place, message, wanted);
        }
    }
    if paper.text("27").is_some_and(|c| !c.is_empty() && c != "CAD") {
        let place = Place::paper(&paper.id, "27");
        points.raise(&CURRENCY, place, "Amounts in a foreign currency are not converted yet.");
    }
    if !paper.amount("15").is_zero() {
        let place = Place::paper(&paper.id, "15");
        points.raise(&FOREIGN, place, "Foreign income.");
    }
}

/// Taxable amounts and credits as the actual dividends make them.
pub fn dividends(figures: &Figures, paper: &Paper) -> Vec<Suggestion> {
    let figures = &figures.dividends;
    let each = |actual: &str, boxes: [&'static str; 2], factor: Rate, credit: Rate| {
        let taxable = match paper.boxes.contains_key(boxes[0]) {
            true => paper.amount(boxes[0]),
            false => times(paper.amount(actual), factor),
        };
        if taxable.is_zero() {
            return Vec::new();
        }
        vec![
            suggestion(boxes[0], times(paper.amount(actual), factor), "the actual amount grossed up"),
            suggestion(boxes[1], times(taxable, credit), "a part of the taxable amount"),
        ]
    };
    let mut all = each("24", ["25", "26"], figures.eligible, figures.eligible_credit);
    all.extend(each("10", ["11", "12"], figures.other, figures.other_credit));
    all
}
