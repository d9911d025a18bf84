//! Which of the ways with the same lowest tax is chosen: the one that takes most as last year did; of these the one with the law's first
//! option of most decisions; of these the one with the fewest official forms; of these the first, which takes the law's first option of
//! the first decision in which they differ.
//!
//! Forms come after the law's first options, and leave amounts as they are: nothing goes to somebody else because that saves a form.

use crate::{
    decision::{Decision, Taken, Way},
    forms::Required,
    household::Household,
    pack::{Case, Pack},
    search::{Ranked, Stop, Stopped, search},
};
use hembo_money::Money;
use std::{cmp::Reverse, collections::BTreeMap};

/// How many ways with the same tax are compared: each may cost a recording.
pub const COMPARED: usize = 12;

/// Puts the simplest of the first ways with the same tax first; the others keep their order.
pub(super) fn first(pack: &dyn Pack, case: &dyn Case, household: &Household, ranking: &mut [Ranked]) {
    let Some(lowest) = ranking.first().map(|ranked| ranked.total) else { return };
    let tied = ranking.iter().take(COMPARED).take_while(|ranked| ranked.total == lowest).count();
    if tied < 2 {
        return;
    }
    let usual =
        |ranked: &Ranked| (Reverse(as_last_year(case, household, &ranked.way)), otherwise(case, &ranked.way));
    ranking[..tied].sort_by_cached_key(usual);
    let first = usual(&ranking[0]);
    let amounts = amounts(&ranking[0].way);
    let alike = |ranked: &&Ranked| usual(ranked) == first && self::amounts(&ranked.way) == amounts;
    let alike = ranking[..tied].iter().take_while(alike).count();
    if alike > 1 {
        ranking[..alike].sort_by_cached_key(|ranked| forms(pack, case, household, &ranked.way));
    }
}

/// The lowest way that holds every pin, the simplest of those with the same tax.
pub(super) fn lowest(
    pack: &dyn Pack,
    case: &dyn Case,
    household: &Household,
    pins: &BTreeMap<usize, Taken>,
    stop: &Stop,
) -> Result<Option<Ranked>, Stopped> {
    let mut ranking = search(case, pins, COMPARED, stop)?.ranking;
    first(pack, case, household, &mut ranking);
    Ok(ranking.into_iter().next())
}

/// How many forms are filed with all returns of a way; worksheets are kept and none.
fn forms(pack: &dyn Pack, case: &dyn Case, household: &Household, way: &Way) -> usize {
    let trail = case.record(way);
    let filed = pack.forms(household.year).forms.iter().filter(|form| !form.kept);
    let of_return = |place: usize| {
        filed.clone().filter(|form| case.required(&form.id, place, way, &trail) == Required::Yes).count()
    };
    (0..case.returns(way).len()).map(of_return).sum()
}

/// The amounts that a way takes.
fn amounts(way: &Way) -> Vec<Option<Money>> {
    (0..way.0.len()).map(|decision| way.amount(decision)).collect()
}

/// In how many decisions between options a way takes another than the law's first.
fn otherwise(case: &dyn Case, way: &Way) -> usize {
    (0..case.decisions().len()).filter(|&d| way.taken(d).is_some_and(|option| option > 0)).count()
}

/// In how many decisions a way takes the option of last year.
fn as_last_year(case: &dyn Case, household: &Household, way: &Way) -> usize {
    let Some(before) = &household.before else { return 0 };
    let now = taken(case, way);
    now.iter().filter(|(decision, option)| before.taken.get(*decision) == Some(*option)).count()
}

/// What a way takes of each decision between options, as the next year remembers it.
pub(super) fn taken(case: &dyn Case, way: &Way) -> BTreeMap<String, String> {
    let decisions = case.decisions().iter().enumerate();
    let option = |(d, about): (usize, &Decision)| {
        let option = about.options.get(way.taken(d)?)?;
        Some((about.id.clone(), option.id.clone()))
    };
    decisions.filter_map(option).collect()
}
