//! Passive losses (§469), Form 8582: they go against passive income; of rental real estate in which one takes part an allowance goes
//! further. What is left waits, activity by activity.

use crate::{
    filing_status::Status,
    points::Points,
    status,
    unit::{Filed, On},
};
use hembo_core::{
    forms::Required,
    limit::{self, Shape},
    limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["rental"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRY, paper: "Schedule E", into: CarriedTo::ByHand }];

lines! {
    ACTIVE = "us.8582.1d", "Rental real estate with active participation", "IRC §469(i)",
        "Income less losses, those of earlier years too.";
    OTHER = "us.8582.2d", "Other passive activities", "IRC §469(c)",
        "Income less losses, those of earlier years too.";
    TOGETHER = "us.8582.3", "Passive income or loss", "IRC §469(d)(1)",
        "Lines 1d and 2d.";
    MODIFIED = "us.8582.6", "Modified adjusted gross income", "IRC §469(i)(3)(F)",
        "Without passive activities, taxed benefits, the IRA deduction, half of the self-employment tax and student-loan interest.";
    PRIOR = "us.8582.c", "Losses of earlier years", "IRC §469(b)",
        "What was not allowed then.";
    ALLOWANCE = "us.8582.9", "Allowance for rental real estate", "IRC §469(i)",
        "Up to an amount that shrinks with income.";
    ALLOWED = "us.8582.11", "Passive losses allowed", "IRC §469(a), (i)",
        "Up to passive income, and the allowance.";
    pub CARRY = "us.carryover.passive_loss", "Passive losses carried on", "IRC §469(b)",
        "What is not allowed waits for income of the activity, or for its end.";
}

limits! {
    BY_INCOME = "us.limit.rental_allowance" on ALLOWANCE, "Allowance for rental losses", "shrinks with income", "IRC §469(i)(2), (3)";
    PASSIVE = "us.limit.passive" on ALLOWED, "Passive losses", "over passive income and the allowance; carried on",
        "IRC §469(a)(1)";
}

open_points! {
    HELD_BACK = look "K-080", "IRC §469(b)",
        "They are carried on: keep them with each property.";
    LIVED_APART = blocks "rental-apart", "IRC §469(i)(5)(B)",
        "Spouses who file apart have the allowance only where they lived apart all year: answer the question.";
}

/// A passive activity on a return.
#[derive(Debug, Clone, Copy)]
pub struct Activity {
    /// Income or loss of the year.
    pub net: Money,
    /// Losses of earlier years that were not allowed.
    pub carried: Money,
    /// Rental real estate with active participation.
    pub active: bool,
}

impl Activity {
    /// Income less losses, those of earlier years too.
    pub fn overall(&self) -> Money {
        self.net - self.carried
    }
}

/// What each activity comes to, losses as far as they are allowed; `modified` is Form 8582 line 6.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, modified: Money, all: &[Activity]) -> Vec<Money> {
    if all.is_empty() {
        return Vec::new();
    }
    let sum = |active: bool| all.iter().filter(|a| a.active == active).map(Activity::overall).sum::<Money>();
    let (active, other) = (sum(true), sum(false));
    let together = active + other;
    for (line, amount) in [(ACTIVE, active), (OTHER, other)] {
        trail.line(line, on.scope, amount, |_| {});
    }
    trail.line(TOGETHER, on.scope, together, |i| {
        i.line(ACTIVE, on.scope, active).line(OTHER, on.scope, other);
    });
    let prior = trail.line(PRIOR, on.scope, all.iter().map(|a| a.carried).sum(), |_| {});
    trail.line(MODIFIED, on.scope, modified, |_| {});
    let allowance = allowance(on, trail, modified, active, together);
    let held_back = limit::or_zero(trail, -together) - allowance;
    let left = held_back_of_each(all, allowance, held_back);
    let losses = losses(all);
    let allowed = losses - held_back;
    limit::given(trail, PASSIVE.at(on.scope), Shape::Cap, losses, allowed);
    trail.line(ALLOWED, on.scope, allowed, |i| {
        i.line(TOGETHER, on.scope, together)
            .line(ALLOWANCE, on.scope, allowance)
            .line(PRIOR, on.scope, prior)
            .figure("Losses", losses);
    });
    trail.line(CARRY, on.scope, held_back, |i| {
        i.line(TOGETHER, on.scope, together).line(ALLOWANCE, on.scope, allowance);
    });
    all.iter().zip(left).map(|(activity, left)| activity.overall() + left).collect()
}

/// Losses of the year and of earlier ones.
fn losses(all: &[Activity]) -> Money {
    all.iter().map(|a| a.carried + if a.net.is_negative() { -a.net } else { Money::ZERO }).sum()
}

/// Line 9. Spouses who file apart have half of it, and none where they lived together at any time.
fn allowance(on: On<'_>, trail: &mut impl Trail, modified: Money, active: Money, together: Money) -> Money {
    let figures = &on.facts.figures.rental;
    let separate = on.unit.status == Status::Separate;
    let (lost, overall) = (limit::or_zero(trail, -active), limit::or_zero(trail, -together));
    let loss = limit::lesser(trail, lost, overall);
    let (most, gone_at) = match separate {
        true => (figures.allowance_apart, figures.gone_at_apart),
        false => (figures.allowance, figures.gone_at),
    };
    let income = limit::or_zero(trail, modified);
    let room = limit::or_zero(trail, gone_at - income);
    let room = room.times(figures.allowance_rate, Money::WHOLE, Rounding::HalfUp);
    let room = limit::lesser(trail, room, most);
    let barred = separate && on.facts.apart_all_year != Some(true);
    let allowed = if barred { Money::ZERO } else { limit::lesser(trail, loss, room) };
    if !loss.is_zero() {
        limit::given(trail, BY_INCOME.at(on.scope), Shape::PhaseOut, loss, allowed);
    }
    trail.line(ALLOWANCE, on.scope, allowed, |i| {
        if !loss.is_zero() {
            i.line(MODIFIED, on.scope, modified).figure("Gone at", gone_at).figure("At most", most);
        }
    })
}

/// What waits of each: the allowance goes to the rental losses by their size, the rest is held back by what each has left (Form 8582,
/// Parts VI and VII).
fn held_back_of_each(all: &[Activity], allowance: Money, held_back: Money) -> Vec<Money> {
    let loss = |a: &Activity| if a.overall().is_negative() { -a.overall() } else { Money::ZERO };
    let rental = |a: &Activity| if a.active { loss(a).cents() } else { 0 };
    let special = split_whole(allowance, &all.iter().map(rental).collect::<Vec<_>>());
    let rest: Vec<i64> = all.iter().zip(special).map(|(a, special)| (loss(a) - special).cents()).collect();
    split_whole(held_back, &rest)
}

/// Whole dollars in proportion.
fn split_whole(amount: Money, weights: &[i64]) -> Vec<Money> {
    let parts = Money::from_cents(amount.cents() / Money::WHOLE.cents()).split(weights).into_iter();
    parts.map(|part| part * Money::WHOLE.cents()).collect()
}

/// Form 8582: with any passive loss, but where there is nothing except rental real estate with active participation whose loss of the year
/// is allowed in full at a low income.
pub fn form_8582(filed: Filed<'_>) -> Required {
    let from = filed.on.facts.figures.rental.form_above;
    let lost = filed.has(ALLOWED) || filed.has(CARRY);
    let other = filed.has(OTHER) || filed.has(PRIOR);
    let in_full = !filed.has(CARRY) && filed.amount(MODIFIED) <= from;
    let why = if lost { "losses in full within the allowance" } else { "no passive loss" };
    Required::if_so(lost && (other || !in_full), why)
}

/// Losses that are held back, and whether spouses lived apart.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let carried = points.amount(CARRY, place);
        if carried.is_zero() {
            continue;
        }
        let message = format!("Passive losses of {carried:#} are held back.");
        points.raise(&HELD_BACK, points.whose(unit), message);
        let rental = points.amount(ACTIVE, place).is_negative();
        if rental && unit.status == Status::Separate && points.facts.apart_all_year.is_none() {
            let place = Place::household(status::ask::APART_ALL_YEAR);
            points.raise(&LIVED_APART, place, "Did the spouses live apart all year?");
        }
    }
}
