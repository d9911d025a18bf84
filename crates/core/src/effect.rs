//! What a change would do: the same computation on a changed copy of the household.

use crate::{
    check::faults,
    gathered,
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

/// The tax along an amount.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Curve {
    /// Its points.
    pub points: Vec<CurvePoint>,
    /// Where decisions turn, from the smallest amount up.
    pub turns: Vec<Turn>,
}

/// Where a decision turns along an amount.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Turn {
    /// The first whole amount with the other option.
    pub amount: Money,
    /// The decision.
    pub decision: String,
    /// What it is called.
    pub label: String,
    /// The option below the amount.
    pub from: String,
    /// The option from the amount on.
    pub to: String,
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
    let main = kind.field(kind.headline).filter(|field| !field.compared);
    let with_more = main.and_then(|field| {
        let more = household.with_entry(paper, field.id, Entry::amount(headline(pack, found) + step));
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

/// Where an amount stands that is tried: in a box of a paper, or in a line of its list.
#[derive(Debug, Clone, Copy)]
pub struct Spot<'a> {
    /// The paper.
    pub paper: &'a str,
    /// The line of its list.
    pub row: Option<&'a str>,
    /// The box or column.
    pub field: &'a str,
}

impl Spot<'_> {
    fn now(&self, household: &Household) -> Option<Money> {
        let paper = household.paper(self.paper)?;
        match self.row {
            None => Some(paper.amount(self.field)),
            Some(row) => paper.row(row)?.get(self.field)?.money(),
        }
    }

    fn with(&self, household: &Household, amount: Money) -> Household {
        household.with_cell(self.paper, self.row, self.field, Entry::amount(amount))
    }
}

/// The household's lowest tax along an amount, from zero to at least twice its amount, in `points` steps, and where its
/// decisions turn. Where a way is `held`, by option as it stands in files, only what is lawful with it.
pub fn curve(
    household: &Household,
    registry: &Registry,
    spot: Spot<'_>,
    held: &BTreeMap<String, String>,
    points: i64,
    stop: &Stop,
) -> Curve {
    let Some(now) = spot.now(household) else { return Curve::default() };
    let width = (now * 2)
        .max(Money::whole(100_000))
        .steps_of(Money::whole(1_000 * points), hembo_money::Rounding::Up);
    let step = Money::whole(1_000) * width;
    let along = Along { household, registry, spot, held, stop };
    let steps: Vec<_> = (0..=points + 1).map(|i| along.at(step * i, None)).collect();
    let hundreds = step.steps_of(Money::whole(100), hembo_money::Rounding::Down);
    let point = |(one, next): (&At, &At)| CurvePoint {
        amount: one.amount,
        total: one.total,
        next_hundred: Money::from_cents((next.total - one.total).cents() / hundreds),
    };
    let pairs = steps.windows(2).filter_map(|pair| pair[0].as_ref().zip(pair[1].as_ref()));
    Curve {
        points: pairs.clone().map(point).collect(),
        turns: pairs.flat_map(|(low, high)| along.turns(low, high)).collect(),
    }
}

/// An amount along which the household is reckoned.
struct Along<'a> {
    household: &'a Household,
    registry: &'a Registry,
    spot: Spot<'a>,
    held: &'a BTreeMap<String, String>,
    stop: &'a Stop,
}

/// What comes out with an amount in the box.
struct At {
    amount: Money,
    total: Money,
    /// What is taken of each decision between options that arises: its label, the option's id and label.
    taken: BTreeMap<String, (String, String, String)>,
}

impl Along<'_> {
    /// With that amount and the way that is held, holding one more option where one is named.
    fn at(&self, amount: Money, tried: Option<(&str, &str)>) -> Option<At> {
        let mut household = self.spot.with(self.household, amount);
        household.pins.extend(self.held.clone());
        household.pins.extend(tried.map(|(decision, option)| (decision.to_owned(), option.to_owned())));
        if !faults(&household, self.registry).is_empty() {
            return None;
        }
        let pack = self.registry.pack(&household.country)?;
        let household = gathered::apart(&household, pack.declared());
        let case = pack.open(&household);
        let pins = pins_of(&household, &*case);
        // Pins that no lawful way holds are set aside, as in the outcome; an option that is tried is not.
        let found = match lowest(&*case, &pins, self.stop).ok()? {
            None if tried.is_none() && self.held.is_empty() => {
                lowest(&*case, &BTreeMap::new(), self.stop).ok()?
            }
            found => found,
        }?;
        let taken = case.decisions().iter().enumerate().filter_map(|(d, about)| {
            let option = about.options.get(found.way.taken(d)?)?;
            Some((about.id.clone(), (about.label.clone(), option.id.clone(), option.label.clone())))
        });
        Some(At { amount, total: found.total, taken: taken.collect() })
    }

    /// Where decisions turn between two amounts, to the next whole unit; one that costs nothing to leave as it was is none.
    fn turns(&self, low: &At, high: &At) -> Vec<Turn> {
        let turned = low.taken.iter().filter_map(|(decision, (label, was, from))| {
            let (_, is, to) = high.taken.get(decision)?;
            let left = (was != is).then(|| self.at(high.amount, Some((decision, was))))?;
            if left.is_some_and(|left| left.total <= high.total) {
                return None;
            }
            let amount = self.first(low.amount, high.amount, decision, was)?;
            Some(Turn {
                amount,
                decision: decision.clone(),
                label: label.clone(),
                from: from.clone(),
                to: to.clone(),
            })
        });
        turned.collect()
    }

    /// The first whole amount at which an option is no longer taken.
    fn first(&self, mut low: Money, mut high: Money, decision: &str, was: &str) -> Option<Money> {
        while high - low > Money::WHOLE {
            let middle = low
                + Money::WHOLE * ((high - low).steps_of(Money::whole(2), hembo_money::Rounding::Up).max(1));
            let same = self.at(middle, None)?.taken.get(decision).is_some_and(|(_, option, _)| option == was);
            if same {
                low = middle;
            } else {
                high = middle;
            }
        }
        Some(high)
    }
}

/// The household's total in the chosen way, without its trail; nothing where it was stopped.
pub fn total(household: &Household, registry: &Registry, stop: &Stop) -> Option<Money> {
    if !faults(household, registry).is_empty() {
        return None;
    }
    let pack = registry.pack(&household.country)?;
    let household = gathered::apart(household, pack.declared());
    let case = pack.open(&household);
    let pins = pins_of(&household, &*case);
    // Pins that no lawful way holds are set aside, as in the outcome.
    let found = lowest(&*case, &pins, stop).ok()?;
    let found = found.or_else(|| lowest(&*case, &BTreeMap::new(), stop).ok().flatten());
    found.map(|r| r.total)
}
