//! What an open point is about, in a few letters: who puts it aside does so for these facts only.

use crate::{household::Household, point::Point};
use serde_json::{Value, json};

/// A fingerprint of a point's words and of the facts at its place.
pub(super) fn of(point: &Point, household: &Household) -> String {
    let facts = json!([point.message, point.suggested, at(point, household)]);
    of_facts(&facts)
}

/// A fingerprint of facts.
pub fn of_facts(facts: &Value) -> String {
    format!("{:016x}", hash(facts.to_string().as_bytes()))
}

/// What stands at the place of a point: a box, a cell, an answer, or where no field is named all of the paper or person.
fn at(point: &Point, household: &Household) -> Value {
    let place = &point.place;
    let field = place.field.as_deref();
    let paper = place.paper.as_deref().and_then(|id| household.paper(id));
    let person = place.person.as_deref().and_then(|id| household.person(id));
    if let Some(paper) = paper {
        let row = place.row.as_deref().and_then(|id| paper.row(id));
        return match (row, field.and_then(|f| paper.boxes.get(f))) {
            (Some(row), _) => json!(row.cells),
            (None, Some(entry)) => json!(entry),
            (None, None) => json!([paper.boxes, paper.rows, paper.owners]),
        };
    }
    if let Some(person) = person {
        return match field.and_then(|f| person.answers.get(f)) {
            Some(entry) => json!(entry),
            None => json!([person.born, person.died, person.lived_with]),
        };
    }
    json!(field.and_then(|f| household.answers.get(f)))
}

/// FNV-1a: small, and the same on every machine and in every version.
fn hash(bytes: &[u8]) -> u64 {
    let step = |hash: u64, byte: &u8| (hash ^ u64::from(*byte)).wrapping_mul(0x0100_0000_01b3);
    bytes.iter().fold(0xcbf2_9ce4_8422_2325, step)
}
