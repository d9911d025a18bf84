//! What every paper should hold to: days in the year, and nothing twice.

use crate::{payments, points::Points};
use hembo_core::{
    Paper, gathered,
    household::Entry,
    open_points,
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision { points: POINTS, ..Provision::NONE };

open_points! {
    OTHER_YEAR = look "K-154", "IRC §461(a)",
        "Correct the day, or remove the line.";
    TWICE = look "K-055", "General Instructions for Forms W-2 and W-3",
        "Remove one if it is the same paper.";
}

/// Days outside the year, and papers that are there twice.
pub fn points(points: &mut Points<'_>) {
    for paper in points.household.papers.iter().filter(|paper| !gathered::is_part(paper)) {
        days(points, paper);
    }
    duplicates(points);
}

/// Receipts are for what was paid in the year; estimated tax of the year may be paid in the next January.
fn days(points: &mut Points<'_>, paper: &Paper) {
    let late = paper.kind == payments::ESTIMATED.id;
    for row in &paper.rows {
        let Some(day) = row.get("date").and_then(Entry::date) else { continue };
        let year = points.facts.figures.year;
        if day.year() != year && !(late && (day.year() - year).abs() == 1) {
            let message = format!("{day} is not in {year}: what is paid in another year counts there.");
            points.raise(&OTHER_YEAR, Place::row(&paper.id, row, "date"), message);
        }
    }
}

/// K-055: two papers with the same boxes.
fn duplicates(points: &mut Points<'_>) {
    let papers = &points.household.papers;
    for (i, paper) in papers.iter().enumerate().filter(|(_, paper)| !gathered::is_part(paper)) {
        let same = |other: &&Paper| {
            other.kind == paper.kind
                && other.boxes == paper.boxes
                && other.owners == paper.owners
                && !paper.boxes.is_empty()
        };
        if papers[..i].iter().find(same).is_some() {
            let place = Place { paper: Some(paper.id.clone()), ..Place::default() };
            points.raise(&TWICE, place, format!("Two {} papers have the same boxes.", paper.kind));
        }
    }
}
