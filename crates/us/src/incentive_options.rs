//! Incentive stock options (§§421, 56(b)(3)), Form 3921: no income when exercised, but for the minimum tax, Form 6251 line 2i.

use crate::{bringing::Bringing, points::Points, states, unit::On};
use hembo_core::{
    field::{Field, Years},
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[EXERCISE], points: POINTS, ..Provision::NONE };

lines! {
    pub SPREAD = "us.6251.2i", "Exercise of incentive options", "IRC §56(b)(3)",
        "Market value above the price, of options whose shares were not sold in the same year.";
}

open_points! {
    BASIS = look "K-153", "IRC §§53, 56(b)(3)",
        "The shares have a higher basis for the minimum tax, and what it took is credited in later years (Form 8801).";
    SOLD = look "3921-sold", "IRC §421(b)",
        "A sale in the year of the exercise makes wages or a gain: see that Form W-2 and the sale hold it.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Market value above the price.
    pub static SPREAD: Brought = Brought::new();
}

const EXERCISE: PaperKind = PaperKind {
    id: "3921",
    subject: subject::INVESTMENTS,
    name: "Exercise of an incentive stock option",
    words: "iso stock option exercise employee shares 3921 amt",
    title: "Corporation",
    shared: false,
    headline: "4",
    boxes: &[
        Field::date("1", "1", "Option granted"),
        Field::date("2", "2", "Option exercised"),
        Field::amount("3", "3", "Price for each share"),
        Field::amount("4", "4", "Market value of each share"),
        Field::count("5", "5", "Shares", 100_000_000),
        Field::yes_no("sold", "", "Sold in the same year"),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the spread to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    if reading.flag("sold") {
        return;
    }
    let shares = reading.boxes.get("5").and_then(hembo_core::household::Entry::count).unwrap_or(0);
    let each = settled::or_zero(reading.amount("4") - reading.amount("3"));
    paper.put("4", None, each * shares, &brings::SPREAD);
}

/// Line 2i.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    on.gather(trail, SPREAD, &brings::SPREAD)
}

/// What goes with an exercise.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(EXERCISE.id) {
        let (def, message) = if paper.flag("sold") {
            (&SOLD, "The shares were sold in the year of the exercise.")
        } else {
            (&BASIS, "The exercise counts for the minimum tax.")
        };
        points.raise(def, Place::paper(&paper.id, "4"), message);
    }
}
