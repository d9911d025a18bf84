//! What a property that is let must tell, and what of it is not computed.

use super::{
    ACTIVE, BUSINESS, Class, DAYS, FEW_DAYS, HOME_LOSS, KIND, NO_DEPRECIATION, NOT_AT_RISK, OLD_BUILDING,
    PARTICIPATES, RECHARACTERIZED, RENTED_DAYS, Rental, SOLD_BUSINESS, SOLD_KIND, STAY, of,
    paper::{RENTAL, count, is_left_out},
};
use crate::{business, business_property, points::Points};
use hembo_core::{
    Paper,
    household::Entry,
    point::{Gather, Place},
    settled,
};
use hembo_money::Money;

/// What a property must tell.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RENTAL.id) {
        days(points, paper);
        one(points, paper);
    }
    for person in 0..points.facts.people.len() {
        let worked: Vec<_> = of(points.facts, person).iter().filter(|r| r.class == Class::Working).collect();
        if let Some(first) = worked.first() {
            let net: Money = worked.iter().map(|r| r.net()).sum();
            let lost = business::lost(points.facts, person) - net;
            let place = Place::paper(&points.household.papers[first.paper].id, "participates");
            business::excess_loss(points, place, lost);
        }
    }
    ordinary_losses(points);
}

/// Ordinary losses of sales so large that they are limited.
fn ordinary_losses(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let lost = -points.amount(business_property::ORDINARY, place);
        let businesses: Money = unit.people.iter().map(|&p| business::lost(points.facts, p)).sum();
        if lost > Money::ZERO {
            business::excess_loss(points, points.whose(unit), lost + settled::or_zero(businesses));
        }
    }
}

fn days(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let (rented, own) = (count(&paper.boxes, "days"), count(&paper.boxes, "own_days"));
    let year = i64::from(time::util::days_in_year(points.facts.figures.year));
    if rented + own > year {
        points.raise(&DAYS, at("own_days"), format!("{} days, and the year has {year}.", rented + own));
    }
    let figures = &points.facts.figures.rental;
    if own > figures.home_days && !paper.boxes.contains_key("days") {
        points.raise(&RENTED_DAYS, at("days"), "For how many days was it let?");
    } else if is_left_out(&paper.boxes, figures) {
        points.raise(&FEW_DAYS, at("days"), "A home that was let for so few days is left out.");
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let Some(kind) = paper.text("kind") else {
        return points.raise(&KIND, at("kind"), "What was let?");
    };
    let owner = points.owner(paper);
    let here = |r: &&Rental| points.household.papers[r.paper].id == paper.id;
    let Some(rental) = owner.and_then(|p| of(points.facts, p).iter().find(here)) else { return };
    let said = |field: &str| paper.boxes.contains_key(field);
    business_property::of_paper(points, paper);
    sold(points, paper, rental);
    let loss = rental.net().is_negative() || !paper.amount("carried").is_zero();
    if kind == "short" && !said("short_stay") {
        points.raise(&STAY, at("short_stay"), "Do guests stay seven days or less on average?");
    }
    if loss && paper.flag("not_at_risk") {
        points.raise(&NOT_AT_RISK, at("not_at_risk"), "The at-risk limit is not computed yet.");
    }
    match rental.class {
        Class::Home if loss => {
            points.raise(&HOME_LOSS, at("own_days"), "A loss of a home that is let is limited.")
        }
        Class::OwnBusiness | Class::Land if !paper.amount("carried").is_zero() => points.raise(
            &RECHARACTERIZED,
            at("carried"),
            "Losses of earlier years beside income that is not passive.",
        ),
        Class::Working if loss => points.raise(&PARTICIPATES, at("participates"), "A loss in full."),
        Class::Passive if loss && !said("active") && !paper.flag("short_stay") => {
            points.raise(&ACTIVE, at("active"), "This property has a loss.");
        }
        _ => {}
    }
    let building = matches!(kind, "single" | "multi" | "short" | "commercial" | "self");
    let since = paper.boxes.get("since").and_then(Entry::date);
    let old = since.is_some_and(|since| since < points.facts.figures.rental.other_since.0);
    if matches!(kind, "commercial" | "self") && old && !said("18") {
        points.raise(&OLD_BUILDING, at("18"), "How much is written off of this building this year?");
    } else if building && !rental.spent.iter().any(|item| ["18", "cost"].contains(&item.field)) {
        points.raise(&NO_DEPRECIATION, at("18"), "No depreciation is taken.");
    }
    if rental.class != Class::Royalty && !rental.net().is_negative() && !said("business") {
        points.raise(&BUSINESS, at("business"), "Is this letting a trade or business?");
    }
}

/// A sale of what is no plain letting.
fn sold(points: &mut Points<'_>, paper: &Paper, rental: &Rental) {
    let Some((gain, _)) = rental.sold else { return };
    let at = Place::paper(&paper.id, "sold");
    let losses_before = |p: usize| points.facts.people[p].own.has(&business_property::brings::LOSSES);
    let before = (0..points.facts.people.len()).any(losses_before);
    if matches!(rental.class, Class::Royalty | Class::Home) {
        points.raise(&SOLD_KIND, at, "The sale of such property is not computed yet.");
    } else if rental.business && before && !gain.is_negative() {
        points.raise(&SOLD_BUSINESS, at, "A gain that earlier losses make ordinary, of a trade or business.");
    }
}
