//! Payers: employers, banks, lenders, carers, schools and charities, by name and number, as a household's papers name them.

use crate::{
    household::{Answers, Entry, Household, Paper},
    pack::Pack,
    paper::PaperKind,
};
use serde::Serialize;
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// What of a payer a box or column holds.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PayerPart {
    /// The name.
    Name,
    /// The number under which the authority knows it.
    Number,
}

/// A payer.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct Payer {
    /// Its name.
    pub name: String,
    /// Its number; empty where it is not known, or where it is a person's own.
    pub number: String,
}

/// The payers that a household's papers name. A number that could be a person's own is left out.
pub fn payers(household: &Household, pack: &dyn Pack) -> BTreeSet<Payer> {
    let named = |name: &str, number: &str| {
        let number = if could_be_own(number, pack) { "" } else { number.trim() };
        let payer = Payer { name: name.trim().into(), number: number.into() };
        (!payer.name.is_empty()).then_some(payer)
    };
    let mut found = BTreeSet::new();
    for paper in &household.papers {
        let Some(kind) = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind) else { continue };
        if is_payer(kind, pack) {
            found.extend(named(&paper.title, number_of(paper, kind)));
        }
        for row in &paper.rows {
            let part = |part| kind.columns.iter().find(|column| column.payer == Some(part));
            let text = |part| part_text(row, part).unwrap_or_default();
            if let Some(name) = part(PayerPart::Name) {
                let number = part(PayerPart::Number).map_or("", |column| text(column.id));
                found.extend(named(text(name.id), number));
            }
        }
    }
    found
}

/// Whether a number could be a person's own: one that is written as such, or that has the right digits and no marks that
/// tell otherwise, as `00-0000000` does.
pub fn could_be_own(number: &str, pack: &dyn Pack) -> bool {
    let number = number.trim();
    let shape: String = number.chars().map(|c| if c.is_ascii_digit() { '0' } else { c }).collect();
    let bare = !number.is_empty() && number.chars().all(|c| c.is_ascii_digit());
    shape == pack.about().id_shape || (bare && pack.check_id_number(number).is_ok())
}

/// Whether the title of such a paper names a payer.
pub fn is_payer(kind: &PaperKind, pack: &dyn Pack) -> bool {
    pack.payer_titles().contains(&kind.title)
}

/// The box of such a paper that has the payer's number.
pub fn number_box(kind: &PaperKind) -> Option<&'static str> {
    kind.boxes.iter().find(|field| field.payer == Some(PayerPart::Number)).map(|field| field.id)
}

fn number_of<'p>(paper: &'p Paper, kind: &PaperKind) -> &'p str {
    number_box(kind).and_then(|id| paper.text(id)).unwrap_or_default()
}

fn part_text<'a>(row: &'a Answers, id: &str) -> Option<&'a str> {
    row.get(id).and_then(Entry::text)
}
