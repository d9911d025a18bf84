//! What a change would do: the same computation on a changed copy of the household.

use crate::{
    check::faults,
    household::{Entry, Household},
    outcome::{NamedWay, Outcome, Wanted, headline, pins_of, reckon_until},
    pack::Registry,
    search::{Stop, lowest},
};
use hembo_money::Money;
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What a paper does to the household's tax.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Effect {
    /// How much of its main amount was added.
    pub step: Money,
    /// How the lowest tax changes with that much more on it; nothing for a list.
    pub with_more: Option<Money>,
    /// How the lowest tax changes without the paper.
    pub without: Money,
    /// The best way then.
    pub way_without: Option<NamedWay>,
}

/// A point of the curve of tax along an amount.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CurvePoint {
    /// The amount in the box.
    pub amount: Money,
    /// The household's lowest tax with it.
    pub total: Money,
    /// The tax on the next step, for each hundred of it.
    pub next_hundred: Money,
}

/// What a paper does: `step` more on its main box, and without it; nothing where there is no such paper, or it was
/// stopped.
pub fn of_paper(
    household: &Household,
    registry: &Registry,
    paper: &str,
    step: Money,
    stop: &Stop,
) -> Option<Effect> {
    let pack = registry.pack(&household.country)?;
    let found = household.paper(paper)?;
    let kind = pack.paper_kinds().iter().find(|k| k.id == found.kind)?;
    let now = total(household, registry, stop)?;
    let with_more = kind.field(kind.headline).and_then(|field| {
        let more = with_box(household, paper, field.id, headline(pack, found) + step);
        Some(total(&more, registry, stop)? - now)
    });
    let mut without = household.clone();
    without.papers.retain(|p| p.id != paper);
    let outcome = reckon_until(&without, registry, Wanted::least(1), stop).ok()?;
    Some(Effect { step, with_more, without: outcome.total - now, way_without: first_way(outcome) })
}

fn first_way(outcome: Outcome) -> Option<NamedWay> {
    outcome.ways.into_iter().next()
}

/// The household's lowest tax along a box, from zero to at least twice its amount, in `points` steps.
pub fn curve(
    household: &Household,
    registry: &Registry,
    paper: &str,
    field: &str,
    points: i64,
    stop: &Stop,
) -> Vec<CurvePoint> {
    let Some(found) = household.paper(paper) else { return Vec::new() };
    let now = found.amount(field);
    let width = (now * 2)
        .max(Money::whole(100_000))
        .steps_of(Money::whole(1_000 * points), hembo_money::Rounding::Up);
    let step = Money::whole(1_000) * width;
    let amounts: Vec<_> = (0..=points + 1).map(|i| step * i).collect();
    let totals: Vec<_> =
        amounts.iter().map_while(|&a| total(&with_box(household, paper, field, a), registry, stop)).collect();
    let hundreds = step.steps_of(Money::whole(100), hembo_money::Rounding::Down);
    amounts
        .iter()
        .zip(totals.windows(2))
        .map(|(&amount, pair)| CurvePoint {
            amount,
            total: pair[0],
            next_hundred: Money::from_cents((pair[1] - pair[0]).cents() / hundreds),
        })
        .collect()
}

fn with_box(household: &Household, paper: &str, field: &str, amount: Money) -> Household {
    let mut changed = household.clone();
    for found in changed.papers.iter_mut().filter(|p| p.id == paper) {
        found.boxes.insert(field.into(), Entry::Text(amount.to_string()));
    }
    changed
}

/// The household's total in the chosen way, without its trail; nothing where it was stopped.
pub fn total(household: &Household, registry: &Registry, stop: &Stop) -> Option<Money> {
    if !faults(household, registry).is_empty() {
        return None;
    }
    let case = registry.pack(&household.country)?.open(household);
    let pins = pins_of(household, &*case);
    // Pins that no lawful way holds are set aside, as in the outcome.
    let found = lowest(&*case, &pins, stop).ok()?;
    let found = found.or_else(|| lowest(&*case, &BTreeMap::new(), stop).ok().flatten());
    found.map(|r| r.total)
}
