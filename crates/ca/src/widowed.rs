//! What a province measures by the family, of a couple of whom one died in the year: as far as its law says nothing of that, it is told.

use crate::points::Points;
use hembo_core::{open_points, point::Gather, provision::Provision};

/// What is told.
pub static PROVISION: Provision = Provision { points: POINTS, ..Provision::NONE };

open_points! {
    OF_FAMILY = not_covered "C-16-family", "Income tax acts of the provinces; form 428";
}

/// Says that it is not known of a couple of whom one, who files here, died.
pub fn told(points: &mut Points<'_>) {
    let facts = points.facts;
    if let Some(deceased) = facts.deceased().filter(|&deceased| facts.people[deceased].filer) {
        let message = "What the province measures by the family is not computed yet for the year of a death.";
        points.raise(&OF_FAMILY, points.at(deceased, "died"), message);
    }
}
