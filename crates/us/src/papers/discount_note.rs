//! A bill or note of one year or less bought below its face (§§454(b), 1271(a)(3), (4)): held to maturity its discount is interest
//! of that year; sold before, a gain is interest up to the share of the discount for the days held, and the rest a short-term gain.

use crate::{
    bringing::Bringing,
    capital_gains::{self, SaleBox},
    papers::interest,
    points::Points,
    states,
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    household::Entry,
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
};
use hembo_money::{Money, Rounding};
use time::Date;

/// What this paper declares.
pub static PROVISION: Provision = Provision { papers: &[NOTE], points: POINTS, ..Provision::NONE };

open_points! {
    DAYS = blocks "discount-note-days", "IRC §1271(a)(3), (4)",
        "Enter the days on which it was bought and matures, and that of the sale between them.";
    CONSTANT = not_weighed "discount-note-yield", "IRC §1271(a)(3)(E); §1283(b)(2)",
        "By election the discount accrues at a constant rate, which gives less interest early on: not weighed here.";
}

const NOTE: PaperKind = PaperKind {
    id: "Discount note",
    subject: subject::INVESTMENTS,
    name: "Treasury bill or other short note",
    words: "treasury bill t-bill discount maturity commercial paper",
    title: "What",
    shared: true,
    headline: "face",
    boxes: &[
        Field::amount("face", "", "Face").help("What is paid at maturity."),
        Field::amount("cost", "", "Cost"),
        Field::date("bought", "", "Bought on"),
        Field::date("matures", "", "Matures on"),
        Field::date("sold", "", "Sold on").help("Empty if held to maturity."),
        Field::amount("proceeds", "", "Proceeds").help("Only if sold before."),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

fn day(paper: &Paper, field: &str) -> Option<Date> {
    paper.boxes.get(field).and_then(Entry::date)
}

/// The share of the discount for the days held, to the cent; none where the days are missing or out of order.
fn accrued(paper: &Paper) -> Option<Money> {
    let (bought, matures) = (day(paper, "bought")?, day(paper, "matures")?);
    let sold = day(paper, "sold")?;
    if !(bought <= sold && sold <= matures && bought < matures) {
        return None;
    }
    let days = |from: Date, to: Date| Money::whole((to - from).whole_days());
    let discount = settled::or_zero(paper.amount("face") - paper.amount("cost"));
    Some(discount.in_proportion(days(bought, sold), days(bought, matures), Money::CENT, Rounding::HalfUp))
}

/// Gives interest and gain to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    let note = paper.paper.paper;
    let (face, cost, proceeds) = (note.amount("face"), note.amount("cost"), note.amount("proceeds"));
    if day(note, "sold").is_none() {
        let interest = settled::or_zero(face - cost);
        return paper.put("face", None, interest, &interest::brings::INTEREST);
    }
    let Some(accrued) = accrued(note) else { return };
    let interest = settled::lesser(settled::or_zero(proceeds - cost), accrued);
    paper.put("face", None, interest, &interest::brings::INTEREST);
    let parts = [("proceeds", proceeds), ("cost", cost), ("face", -interest)];
    capital_gains::sale(paper, SaleBox::B, None, parts);
}

/// Days that are missing, and the other way to accrue.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(NOTE.id) {
        let sold = day(paper, "sold").is_some();
        let at = |field: &str| Place::paper(&paper.id, field);
        if sold && accrued(paper).is_none() {
            points.raise(&DAYS, at("bought"), "The days of this note are missing or out of order.");
        } else if sold {
            points.raise(&CONSTANT, at("sold"), "The discount was taken to accrue evenly by days.");
        } else if !paper.amount("proceeds").is_zero() {
            points.raise(&DAYS, at("sold"), "When was this note sold?");
        }
    }
}
