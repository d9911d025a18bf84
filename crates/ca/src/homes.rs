//! Who keeps the home of a dependant: it decides on line 30400, and in most provinces on line 58400.

use crate::{dependants, points::Points, province};
use hembo_core::{
    field::Field,
    open_points,
    pack::{FILER, Question},
    point::{Gather, Place},
    provision::Provision,
};

/// What is asked about homes.
pub static PROVISION: Provision = Provision {
    person_questions: &[Question {
        of: FILER,
        from_age: 0,
        field: Field::yes_no(ask::MAINTAINS_HOME, "", "Keeps the home of a dependant")
            .help("Lived with and supported the dependant there at some time in the year."),
    }],
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const MAINTAINS_HOME: &str = "maintains_home";
}

open_points! {
    KEPT = blocks "C-50", "ITA 118(1)(b)", "It may bring line 30400, and in most provinces line 58400.";
}

/// Filers with someone whose home they may keep.
pub fn points(points: &mut Points<'_>) {
    for &filer in &points.facts.filers {
        one(points, filer);
    }
}

fn one(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let alone = points.facts.alone() == Some(person);
    let anyone =
        (0..points.facts.people.len()).any(|p| p != person && dependants::qualifies(points.facts, p));
    let relative = province::counts_keepers(points.facts);
    if ((alone && anyone) || relative) && !points.said(person, ask::MAINTAINS_HOME) {
        let message = format!("Did {} keep the home of a dependant?", who.name);
        points.raise(&KEPT, Place::person(&who.id, ask::MAINTAINS_HOME), message);
    }
}
