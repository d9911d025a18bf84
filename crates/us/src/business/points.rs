//! What a business and its office must show, and what of them is not computed.

use super::{
    AREA, BUSINESS, Business, CAR_TWICE, GROSS_LESS, HOBBY, LOSS, OFFICE_ALONE, OFFICES, PASSIVE,
    PASSIVE_ASKED, RECORDS, STATUTORY, TWO, WRITTEN_OFF, brings, lost, of,
};
use crate::{home_office, papers::w2, points::Points};
use hembo_core::{
    Paper,
    household::Entry,
    point::{Gather, Place},
    reading::sum,
};
use hembo_money::Money;

/// What a business must show.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(BUSINESS.id) {
        one(points, paper);
    }
    for person in 0..points.facts.people.len() {
        whole(points, person);
    }
    for paper in points.papers(home_office::OFFICE.id) {
        office(points, paper);
    }
}

/// An office serves one business, and is its only one.
fn office(points: &mut Points<'_>, paper: &Paper) {
    let Some(owner) = points.owner(paper) else { return };
    let about = &points.facts.people[owner].own;
    let businesses = about.of(&brings::BUSINESSES);
    let place = Place::paper(&paper.id, "1");
    if !businesses.iter().any(|b| b.runs) {
        points.raise(&OFFICE_ALONE, place, "This office serves no business here.");
    } else if businesses.len() > 1 || about.of(&home_office::brings::OFFICES).len() > 1 {
        let message = "Several offices or businesses of one person are not computed yet.";
        points.raise(&OFFICES, place, message);
    } else if points.facts.divided {
        points.raise(&OFFICES, place, "The office of a community business is not computed yet.");
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let count = |id: &str| paper.boxes.get(id).and_then(Entry::count).unwrap_or(0);
    let owns = |p: &usize| paper.owners.iter().any(|o| points.household.index_of(&o.person) == Some(*p));
    let employed = |p: usize| points.facts.people[p].own.has(&w2::brings::STATUTORY);
    if paper.flag("statutory") && !(0..points.facts.people.len()).filter(owns).any(employed) {
        let message = "This is marked as a statutory employee's, and no Form W-2 is.";
        points.raise(&STATUTORY, at("statutory"), message);
    }
    if count("miles") > 0 && !paper.amount("9").is_zero() {
        points.raise(&CAR_TWICE, at("9"), "The car counts both by miles and by actual cost.");
    }
    if count("miles") > 0 {
        points.raise(&RECORDS, at("miles"), "Are there written records of the miles?");
    }
    if count("feet") > points.facts.figures.business.office_feet {
        points.raise(&AREA, at("feet"), "More than 300 square feet.");
    }
    if !paper.amount("13").is_zero() {
        points.raise(&WRITTEN_OFF, at("13"), "Equipment is written off here.");
    }
    let owner = points.owner(paper);
    let business = owner
        .and_then(|p| of(points.facts, p).iter().find(|b| points.household.papers[b.paper].id == paper.id));
    let loss = business.is_some_and(|b| b.gross < b.expenses);
    if loss {
        points.raise(&HOBBY, at("1"), "This business lost money: does it aim at a profit?");
    }
    if loss && !paper.boxes.contains_key("participates") {
        points.raise(&PASSIVE_ASKED, at("participates"), "This business has a loss.");
    } else if loss && !paper.flag("participates") {
        points.raise(&PASSIVE, at("participates"), "A passive loss is not computed yet.");
    }
}

fn whole(points: &mut Points<'_>, person: usize) {
    let facts = points.facts;
    let all: Vec<&Business> = of(facts, person).iter().filter(|b| b.runs).collect();
    let reported: Money = sum(facts.people[person].own.of(&brings::REPORTED));
    let gross: Money = all.iter().map(|b| b.receipts.amount).sum();
    let name = &facts.people[person].name;
    if reported > gross {
        let item = facts.people[person].own.of(&brings::REPORTED)[0];
        let place = Place::paper(&points.household.papers[item.paper].id, item.field);
        points.raise(
            &GROSS_LESS,
            place,
            format!("Payers report {reported:#} for {name}, and gross receipts are {gross:#}."),
        );
    }
    let Some(first) = all.first() else { return };
    let place = Place::paper(&points.household.papers[first.paper].id, "1");
    if all.len() > 1 {
        points.raise(&TWO, place.clone(), format!("{name} has {} businesses.", all.len()));
    }
    excess_loss(points, place, lost(facts, person));
}

/// Losses of trades and businesses over an amount are carried on instead (§461(l)).
pub fn excess_loss(points: &mut Points<'_>, place: Place, lost: Money) {
    let joint = points.facts.couple() && points.units.iter().any(|u| u.people.len() > 1);
    let figures = points.facts.figures.business.excess_loss;
    let most = if joint { figures.joint } else { figures.single };
    if lost > most {
        points.raise(&LOSS, place, "So large a loss is limited: not computed yet.");
    }
}
