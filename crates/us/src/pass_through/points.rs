//! What a Schedule K-1 must tell, and what of it is not computed.

use super::{
    ACTIVE, COVERED, DIVIDENDS, FORMER, LOSS, MORE, NO_EARNINGS, NO_QUALIFIED, NOT_COMPUTED, QUALIFIED_LOSS,
    Share, WORKED, of,
    papers::{LAYOUTS, Layout},
};
use crate::{business, facts::Facts, passive_losses, points::Points};
use hembo_core::{
    Paper,
    household::Entry,
    point::{Gather, Place},
};
use hembo_money::Money;

/// Losses, boxes that are not computed, and what is not said.
pub fn points(points: &mut Points<'_>) {
    for layout in &LAYOUTS {
        for paper in points.papers(layout.kind) {
            of_paper(points, layout, paper);
        }
    }
}

fn of_paper(points: &mut Points<'_>, layout: &'static Layout, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    losses(points, layout, paper);
    for field in layout.others.iter().filter(|field| !paper.amount(field).is_zero()) {
        points.raise(&NOT_COMPUTED, at(field), "What this box of a Schedule K-1 brings is not computed yet.");
    }
    let said = |field: &str| paper.boxes.contains_key(field);
    if !said("more") {
        points.raise(&MORE, at("more"), "Does another box or code of this Schedule K-1 count?");
    } else if paper.flag("more") {
        points.raise(&NOT_COMPUTED, at("more"), "What else this Schedule K-1 brings is not computed yet.");
    }
    let income = !paper.amount(layout.ordinary).is_zero();
    let sold = layout.sold.is_some_and(|field| !paper.amount(field).is_zero());
    if (income || sold) && !said("participates") {
        points.raise(&WORKED, at("participates"), "Did the owner work in it regularly?");
    }
    let [ordinary, qualified] = layout.dividends;
    if paper.amount(qualified) > paper.amount(ordinary) {
        let message = format!("Box {qualified} is above box {ordinary}.");
        points.raise(&DIVIDENDS, at(qualified), message);
    }
    let paid = layout.guaranteed.is_some_and(|field| !paper.amount(field).is_zero());
    if let Some(earnings) =
        layout.earnings.filter(|field| !said(field) && (paid || (income && paper.flag("participates"))))
    {
        points.raise(&NO_EARNINGS, at(earnings), "No self-employment earnings are entered.");
    }
    if income && !said("qualified") {
        points.raise(&NO_QUALIFIED, at("qualified"), "How much of this income is qualified business income?");
    }
}

/// Losses: what must be said about them, and which are not computed.
fn losses(points: &mut Points<'_>, layout: &'static Layout, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let amount = |field: Option<&str>| field.map_or(Money::ZERO, |field| paper.amount(field));
    let fields = [Some(layout.ordinary), layout.earnings, layout.rental, layout.sold, Some("qualified")];
    let below = |field: &&str| paper.amount(field).is_negative();
    let carried = !paper.amount("carried").is_zero();
    let first = fields.into_iter().flatten().find(below).or(carried.then_some("carried"));
    let Some(first) = first else { return };
    let passive_sale = amount(layout.sold).is_negative() && !paper.flag("participates");
    let not_covered = paper.boxes.get("basis").and_then(Entry::flag) == Some(false);
    if layout.trust || not_covered || passive_sale {
        let message = "Such a loss of a share is not computed yet.";
        return points.raise(&LOSS, at(first), message);
    }
    if !paper.boxes.contains_key("basis") {
        points.raise(&COVERED, at("basis"), "Do basis and amount at risk cover the loss of this share?");
    }
    let (ordinary, rental) = (amount(Some(layout.ordinary)), amount(layout.rental));
    if (rental.is_negative() || (carried && !rental.is_zero())) && !paper.boxes.contains_key("active") {
        points.raise(&ACTIVE, at("active"), "The rental real estate of this share has a loss.");
    }
    let whose = !ordinary.is_zero() && !rental.is_zero();
    if carried && (paper.flag("participates") || whose) {
        let message = "Losses of earlier years of what is no longer passive, or of one of two activities.";
        points.raise(&FORMER, at("carried"), message);
    }
    let works = paper.flag("participates");
    let passive = !works || (rental.is_negative() && !paper.flag("professional"));
    let held_back =
        (0..points.units.len()).any(|place| !points.amount(passive_losses::CARRY, place).is_zero());
    if passive && (held_back || carried) && !amount(Some("qualified")).is_zero() {
        let message = "Qualified business income of a loss that is held back or was.";
        points.raise(&QUALIFIED_LOSS, at("qualified"), message);
    }
    let owners: Vec<usize> =
        paper.owners.iter().filter_map(|o| points.household.index_of(&o.person)).collect();
    for person in owners {
        let lost = lost(points.facts, person) + business::lost(points.facts, person);
        business::excess_loss(points, at(layout.ordinary), lost);
    }
}

/// What the shares in which a person works lose.
fn lost(facts: &Facts, person: usize) -> Money {
    let let_out = |share: &Share| if share.rental_works { share.rental.amount } else { Money::ZERO };
    let worked = of(facts, person).iter().filter(|share| share.works);
    -worked.map(|share| share.ordinary.amount + let_out(share)).sum::<Money>()
}
