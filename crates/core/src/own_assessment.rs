//! What an authority assesses by itself of what it holds, before anybody files: what becomes of it is answered for each filer.

use crate::{
    field::{Choice, Field},
    household::{Entry, Household, Person, Role},
    pack::{FILER, Pack, Question},
    point::{Place, Point, PointDef},
};

/// The id of the question.
pub const ASKED: &str = "own_assessment";

const ACCEPTED: &str = "accept";

/// Asked by every law whose authority assesses by itself.
pub const QUESTION: Question = Question {
    of: FILER,
    from_age: 0,
    field: Field::choice(
        ASKED,
        "",
        "The authority's own assessment",
        &[
            Choice::new(ACCEPTED, "Accepted as it is, nothing is filed"),
            Choice::new("change", "Changed by a return"),
        ],
    )
    .help("Compare both where the papers are held before it is accepted."),
};

const LEFT_OUT: PointDef = PointDef::blocks(
    "own-accepted",
    "",
    "Compare both where the papers are held: change it by a return, or take the papers out.",
);

/// Whether a person left the authority's own assessment as it is.
pub fn accepted(person: &Person) -> bool {
    person.role == Role::Filer && person.answers.get(ASKED).and_then(Entry::text) == Some(ACCEPTED)
}

/// Who accepted what is made of less than was keyed: papers that no authority holds are not taken along.
pub(crate) fn points(household: &Household, pack: &dyn Pack) -> Vec<Point> {
    let of = |person: &Person| {
        let left_out = household.papers.iter().filter(|paper| {
            paper.owners.iter().any(|owner| owner.person == person.id)
                && !pack.held_kinds().contains(&paper.kind.as_str())
                && (!paper.boxes.is_empty() || !paper.rows.is_empty())
        });
        let kinds: Vec<&str> = left_out.map(|paper| paper.kind.as_str()).collect();
        let message = format!("{} accepted an assessment without {}.", person.name, kinds.join(", "));
        (!kinds.is_empty()).then(|| LEFT_OUT.at(Place::person(&person.id, ASKED), message))
    };
    household.people.iter().filter(|person| accepted(person)).filter_map(of).collect()
}
