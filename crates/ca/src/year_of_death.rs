//! The return of someone who died in the year (ITA 70, 118.93, 111(2), 118.1(1), 127.55): amounts in full, more time for medical
//! receipts, gifts up to all of net income, capital losses against any income, and no minimum tax.

use crate::points::Points;
use hembo_core::{open_points, point::Gather, provision::Provision};

/// What a death in the year brings.
pub static PROVISION: Provision =
    Provision { points: POINTS, figures: &["ontario_reduction"], ..Provision::NONE };

open_points! {
    OF_A_COUPLE = not_covered "C-16", "ITA 70(1), 150(1)(b)";
    OF_A_CHILD = not_covered "C-16-child", "ITA 122.6, 122.7(1)";
    DIED = look "C-16-final", "ITA 70(1), (5), 146(8.8), 146.3(6), 150(1)(b)",
        "Property is deemed sold at its value and plans end on that day: enter both. Due on 30 April, or six months after the death if that is later.";
    OTHER_RETURNS = not_weighed "C-16-returns", "ITA 70(2), 118.93, 150(4)",
        "Rights or things may go on a return of their own with amounts of its own.";
}

/// Deaths of the year.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    for person in (0..facts.people.len()).filter(|&person| facts.died(person)) {
        let who = &facts.people[person];
        let place = points.at(person, "died");
        let child_to = facts.figures.ontario_reduction.child_to_age;
        if who.filer && facts.sole_death().is_none() {
            let message = "The year in which one of a couple dies is not computed yet.";
            points.raise(&OF_A_COUPLE, place, message);
        } else if who.filer {
            points.raise(&DIED, place.clone(), format!("The final return of {}.", who.name));
            points.raise(&OTHER_RETURNS, place, "Optional returns are not weighed.");
        } else if facts.is_child_under(person, child_to + 1) {
            let message = "What a child who died in the year brings to the family is not computed yet.";
            points.raise(&OF_A_CHILD, place, message);
        }
    }
}
