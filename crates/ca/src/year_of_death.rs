//! The year in which someone dies (ITA 70, 118.93, 111(2), 118.1(1), 127.55): amounts in full, more time for medical receipts, gifts up
//! to all of net income, capital losses against any income, and no minimum tax. Of a couple either may still claim the amount for the
//! other, transfer and split (118(1)B(a), 118.8, 60.03(1)); what a family's income measures looks at the end of each one's own year.

use crate::{child_care, partner_elsewhere, people, points::Points};
use hembo_core::{
    Household,
    household::{Entry, Role},
    open_points,
    point::Gather,
    provision::Provision,
};

/// What a death in the year brings.
pub static PROVISION: Provision =
    Provision { points: POINTS, figures: &["ontario_reduction"], ..Provision::NONE };

open_points! {
    DIED_BEFORE = blocks "C-16-before", "ITA 150(1)(b)", "Correct the date, or remove the person.";
    OF_BOTH = not_covered "C-16", "ITA 70(1), 150(1)(b)";
    CARE = not_covered "C-16-care", "ITA 63(3) 'supporting person'";
    OF_A_CHILD = not_covered "C-16-child", "ITA 122.6, 122.7(1)";
    DIED = look "C-16-final", "ITA 70(1), (5), 146(8.8), 146.3(6), 150(1)(b)",
        "Property is deemed sold at its value and plans end on that day: enter both. Due on 30 April, or six months after the death if that is later; a partner has the same time to file.";
    OTHER_RETURNS = not_weighed "C-16-returns", "ITA 70(2), 118.93, 150(4)",
        "Rights or things may go on a return of their own with amounts of its own.";
    TO_PARTNER = not_weighed "C-16-partner", "ITA 70(6), (6.2), 146(8.91), 146.3(6.2)",
        "Property that goes to the partner goes at its cost, each at its value where that is elected; plans untaxed where they are designated. Enter what is chosen.";
}

/// Deaths of the year.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    for person in (0..facts.people.len()).filter(|&person| facts.died(person)) {
        let who = &facts.people[person];
        let place = points.at(person, "died");
        let child_to = facts.figures.ontario_reduction.child_to_age;
        if who.died.is_some_and(|day| day < facts.year_begin) {
            points.raise(&DIED_BEFORE, place, format!("{} died before the year began.", who.name));
        } else if who.filer {
            points.raise(&DIED, place.clone(), format!("The final return of {}.", who.name));
            points.raise(&OTHER_RETURNS, place.clone(), "Optional returns are not weighed.");
            if facts.deceased() == Some(person) {
                points.raise(&TO_PARTNER, place, "What goes to the partner is not weighed.");
            }
        } else if facts.is_child_under(person, child_to + 1) {
            let message = "What a child who died in the year brings to the family is not computed yet.";
            points.raise(&OF_A_CHILD, place, message);
        }
    }
    of_couple(points);
}

/// What the death of one of a couple leaves open, or of both.
fn of_couple(points: &mut Points<'_>) {
    let facts = points.facts;
    if let Some([first, _]) = facts.pair().filter(|pair| pair.iter().all(|&person| facts.died(person))) {
        let message = "The year in which both of a couple die is not computed yet.";
        points.raise(&OF_BOTH, points.at(first, "died"), message);
    }
    if let Some(deceased) = facts.deceased().filter(|_| child_care::any(facts)) {
        let message = "Child care in the year in which one of the parents dies is not computed yet.";
        points.raise(&CARE, points.at(deceased, "died"), message);
    }
}

/// Who outlived the other of a couple is widowed in the next year.
pub fn settle_next(before: &Household, next: &mut Household) {
    let adults = |household: &Household| {
        let is_one = |person: &&_| partner_elsewhere::is_one(person) || person.role == Role::Filer;
        household.people.iter().filter(is_one).count()
    };
    let marital = next.answers.get(people::ask::MARITAL).and_then(Entry::text);
    if matches!(marital, Some("married" | "common_law")) && adults(before) == 2 && adults(next) == 1 {
        next.answers.insert(people::ask::MARITAL.into(), Entry::Text("widowed".into()));
    }
}
