//! Where the household lived on 31 December (ITA 120): whose province's tax is computed.

use crate::{points::Points, province, provinces::PROVINCES};
use hembo_core::{
    field::Field,
    household::Entry,
    open_points,
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
    points: POINTS,
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const PROVINCE: &str = "province";
}

open_points! {
    ASKED = not_known "C-12", "ITA 120; Regulations 2601",
        "Name the province or territory of 31 December; without it there is no tax.";
    QUEBEC = not_covered "C-12-quebec", "ITA 120(2)";
    ELSEWHERE = not_covered "C-12-elsewhere", "ITA 120; Regulations 2601";
}

/// A province that is not known, or not computed.
pub fn points(points: &mut Points<'_>) {
    let place = Place::household(ask::PROVINCE);
    match points.answered(ask::PROVINCE).and_then(Entry::text) {
        None => {
            points.raise(&ASKED, place, "Which province or territory?");
        }
        Some("QC") => {
            let message = "Quebec is not covered: its own return and the abatement are not computed.";
            points.raise(&QUEBEC, place, message);
        }
        Some(code) if province::computed(code).is_none() => {
            let name = label_of(PROVINCES, code).unwrap_or(code);
            points.raise(&ELSEWHERE, place, format!("{name} is not covered yet: no tax is computed."));
        }
        Some(_) => {}
    }
}
