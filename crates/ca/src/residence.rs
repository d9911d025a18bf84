//! Where the household lived on 31 December (ITA 120): whose province's tax is computed.

use crate::{
    points::Points,
    provinces::{self, PROVINCES},
};
use hembo_core::{
    field::Field,
    household::Entry,
    open_points,
    point::{Gather, Place},
    provision::Provision,
};

/// What is asked about the province.
pub static PROVISION: Provision = Provision {
    household_questions: &[Field::choice(
        provinces::ask::PROVINCE,
        "",
        "Province or territory on 31 December",
        PROVINCES,
    )],
    points: POINTS,
    ..Provision::NONE
};

open_points! {
    ASKED = not_known "C-12", "ITA 120; Regulations 2601",
        "Name the province or territory of 31 December; without it there is no tax.";
    QUEBEC = not_covered "C-12-quebec", "ITA 120(2)";
}

/// A province that is not known, or not computed.
pub fn points(points: &mut Points<'_>) {
    let place = Place::household(provinces::ask::PROVINCE);
    match points.answered(provinces::ask::PROVINCE).and_then(Entry::text) {
        None => {
            points.raise(&ASKED, place, "Which province or territory?");
        }
        Some("QC") => {
            let message = "Quebec is not covered: its own return and the abatement are not computed.";
            points.raise(&QUEBEC, place, message);
        }
        Some(_) => {}
    }
}
