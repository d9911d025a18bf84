//! Identification numbers where they do not belong: in a text that is neither sealed nor hidden.

use crate::{
    check::digits,
    field::{Field, FieldKind},
    household::{Answers, Entry, Household, Row},
    pack::Pack,
    point::{Place, Point, PointDef},
};
use std::collections::BTreeSet;

const IN_TEXT: PointDef = PointDef::look(
    "number-in-text",
    "",
    "Move it to its box, where it is sealed and hidden: in a text everybody reads it.",
);

/// So many digits stand before the first sign in every number that is written in groups.
const FIRST_GROUP: usize = 3;
/// From so many digits on a number that fits is one by its check digits alone.
const TELLING: usize = 11;

/// Every text that holds what looks like an identification number of its law, or is that of somebody in the household.
pub(crate) fn points(household: &Household, pack: &dyn Pack) -> Vec<Point> {
    let looking = Looking::of(household, pack);
    let told = |what: &str, place: Place| {
        IN_TEXT.at(
            place,
            format!("{what} holds what looks like an identification number ({}).", pack.about().id_number),
        )
    };
    let mut points = Vec::new();
    for (what, text) in [("The household's name", &household.name), ("Its own number", &household.reference)]
    {
        points.extend(looking.finds(text).then(|| told(what, Place::default())));
    }
    let asked = pack.household_questions().iter();
    points.extend(looking.fields(asked, &household.answers).map(|f| told(f.label, Place::household(f.id))));
    for person in &household.people {
        let asked = pack.person_questions().iter().map(|question| &question.field);
        let found = looking.fields(asked, &person.answers);
        points.extend(
            found.map(|f| told(&format!("{}, {}", person.name, f.label), Place::person(&person.id, f.id))),
        );
    }
    for paper in &household.papers {
        let Some(kind) = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind) else { continue };
        let title = looking.finds(&paper.title);
        points.extend(
            title.then(|| told(&format!("{}, {}", kind.id, kind.title), Place::paper(&paper.id, "title"))),
        );
        let boxes = looking.fields(kind.boxes.iter(), &paper.boxes);
        points
            .extend(boxes.map(|f| told(&format!("{}, {}", kind.id, f.label), Place::paper(&paper.id, f.id))));
        let in_row = |row: &Row| {
            let found: Vec<&Field> = looking.fields(kind.columns.iter(), row).collect();
            found
                .into_iter()
                .map(|f| told(&format!("{}, {}", kind.id, f.label), Place::row(&paper.id, row, f.id)))
                .collect::<Vec<_>>()
        };
        points.extend(paper.rows.iter().flat_map(in_row));
    }
    points
}

/// What is looked for.
struct Looking<'p> {
    pack: &'p dyn Pack,
    /// The digits of the household's own numbers.
    own: BTreeSet<String>,
}

impl Looking<'_> {
    fn of<'p>(household: &Household, pack: &'p dyn Pack) -> Looking<'p> {
        let own =
            household.people.iter().filter_map(|person| person.id_number.as_deref()).map(digits).collect();
        Looking { pack, own }
    }

    /// The fields of which the text holds one: those that are sealed, or are a payer's number, may.
    fn fields<'f>(
        &self,
        fields: impl Iterator<Item = &'f Field>,
        answers: &Answers,
    ) -> impl Iterator<Item = &'f Field> {
        let free = |field: &&Field| {
            matches!(field.kind, FieldKind::Text { .. }) && !field.secret && field.payer.is_none()
        };
        fields
            .filter(free)
            .filter(|field| answers.get(field.id).and_then(Entry::text).is_some_and(|text| self.finds(text)))
    }

    fn finds(&self, text: &str) -> bool {
        runs(text).into_iter().any(|run| self.is_number(run))
    }

    fn is_number(&self, run: &str) -> bool {
        let number = digits(run);
        if self.own.contains(&number) {
            return true;
        }
        let grouped = run.find(|c: char| !c.is_ascii_digit()) == Some(FIRST_GROUP);
        (grouped || number.len() >= TELLING) && self.pack.check_id_number(run).is_ok()
    }
}

/// The runs of digits in a text, each with the single signs between them.
fn runs(text: &str) -> Vec<&str> {
    let is_part = |c: char| c.is_ascii_digit() || matches!(c, '-' | ' ' | '.' | '/');
    let pieces = text.split(|c: char| !is_part(c));
    pieces
        .map(|piece| piece.trim_matches(|c: char| !c.is_ascii_digit()))
        .filter(|piece| !piece.is_empty())
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn runs_are_told_apart_by_words() {
        assert_eq!(runs("Acct 12-345 of Ada, 811-34-2207."), ["12-345", "811-34-2207"]);
        assert_eq!(runs("no digits"), Vec::<&str>::new());
    }
}
