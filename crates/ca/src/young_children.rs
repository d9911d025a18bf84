//! Amounts of provinces for young children (line 58230), whose figures are not held: told where a family may have one.

use crate::points::Points;
use hembo_core::{
    open_points,
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { points: POINTS, figures: &["young_children"], ..Provision::NONE };

open_points! {
    YOUNG = not_covered "young-children", "Form 428 of the province, line 58230";
}

/// Where there is a young child.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let under = facts.figures.young_children.under;
    for person in (0..facts.people.len()).filter(|&p| facts.is_child_under(p, under)) {
        let message = format!(
            "The province's amount for young children is not held: {} is under {under}.",
            facts.first_name(person)
        );
        points.raise(&YOUNG, Place::person(&facts.people[person].id, "born"), message);
    }
}
