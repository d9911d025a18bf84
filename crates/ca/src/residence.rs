//! Where the household lived on 31 December (ITA 120): whose province's tax is computed.

use crate::{
    points::Points,
    provinces::{PROVINCES, Province},
    questions::ask,
};
use hembo_core::{
    Point,
    field::Field,
    household::Entry,
    point::{Gather, Place},
    provision::Provision,
    words::label_of,
};

/// What is asked about the province.
pub static PROVISION: Provision = Provision {
    household_questions: &[Field::choice(
        ask::PROVINCE,
        "",
        "Province or territory on 31 December",
        PROVINCES,
    )],
    ..Provision::NONE
};

/// A province that is not known, or not computed.
pub fn points(points: &mut Points<'_>) {
    let place = Place::household(ask::PROVINCE);
    match points.answered(ask::PROVINCE).and_then(Entry::text) {
        None => {
            let remedy = "Name the province or territory of 31 December; without it there is no tax.";
            let message = "Which province or territory?";
            points.found.push(Point { not_covered: true, ..Point::blocks("C-12", place, message, remedy) });
        }
        Some("QC") => {
            let message = "Quebec is not covered: its own return and the abatement are not computed.";
            points.not_covered("C-12", place, message);
        }
        Some(code) if Province::of(code).is_none() => {
            let name = label_of(PROVINCES, code).unwrap_or(code);
            points.not_covered("C-12", place, format!("{name} is not covered yet: no tax is computed."));
        }
        Some(_) => {}
    }
}
