//! Lump sums for earlier years (ITA 110.2, 120.31; form T1198): pay, pensions, benefits and support of 3,000 and more in all that were due
//! in earlier years are taxed as of those years where that is lower. The authority compares on request; the return has them in full.

use crate::points::Points;
use hembo_core::{
    field::Field,
    household::Entry,
    open_points,
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { household_questions: &[ASKED], points: POINTS, ..Provision::NONE };

/// Whether any came in.
const ASKED: Field = Field::yes_no("lump_sums", "", "Lump sums for earlier years, with form T1198")
    .help("Back pay, pensions, employment insurance or support that was due in years before; the payer fills the form in.");

open_points! {
    COMPARED = not_weighed "C-36", "ITA 110.2, 120.31; form T1198",
        "Enter all of them, and send form T1198: the authority taxes them as of those years where that is lower.";
}

/// What the authority compares.
pub fn points(points: &mut Points<'_>) {
    if points.answered(ASKED.id).and_then(Entry::flag) == Some(true) {
        let message = "Whether tax as of the earlier years would be lower is not weighed.";
        points.raise(&COMPARED, Place::household(ASKED.id), message);
    }
}
