//! From a checked household to its outcome: the search, one recording, and the parts that need no view.

use super::{
    AmountOutcome, Authority, Comparison, DecisionOutcome, Kink, MOST_WAYS, NAMED_WAYS, OptionOutcome,
    Outcome, Wanted, compare, forward, last_year, schedules, shown::Shown, simplest, why,
};
use crate::{
    asking,
    check::{Fault, faults},
    decision::{Amount, Decision, More, Taken, Way},
    field::{Field, FieldKind},
    gathered, held,
    household::{Entry, Household, Paper},
    misplaced,
    numbers::Numbers,
    own_assessment,
    pack::{Case, Pack, Registry},
    search::{Counted, Ends, Stop, Stopped, View, Weighable, Weighed, along, search, search_with_ends},
};
use hembo_money::Money;
use std::collections::BTreeMap;
use time::Date;

/// Why there is no outcome.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Unreckoned {
    /// The household cannot be worked with.
    Faults(Vec<Fault>),
    /// The computation was stopped.
    Stopped,
}

impl From<Stopped> for Unreckoned {
    fn from(_: Stopped) -> Unreckoned {
        Unreckoned::Stopped
    }
}

/// Computes a household: all lawful ways, and the chosen one with its trail.
///
/// # Errors
/// The faults of a household that cannot be worked with.
pub fn reckon(household: &Household, registry: &Registry) -> Result<Outcome, Vec<Fault>> {
    reckon_until(household, registry, Wanted::all(NAMED_WAYS), &Stop::default()).map_err(|why| match why {
        Unreckoned::Faults(faults) => faults,
        // Nobody can: the stop is known to nobody else.
        Unreckoned::Stopped => Vec::new(),
    })
}

/// The same with what is wanted of it, until it is stopped.
///
/// # Errors
/// The faults of a household that cannot be worked with, or that it was stopped.
pub fn reckon_until(
    household: &Household,
    registry: &Registry,
    wanted: Wanted,
    stop: &Stop,
) -> Result<Outcome, Unreckoned> {
    Ok(assemble(household, checked(household, registry)?, wanted, stop)?)
}

/// The pack of a household without faults.
pub(super) fn checked<'r>(household: &Household, registry: &'r Registry) -> Result<&'r dyn Pack, Unreckoned> {
    let found = faults(household, registry);
    match registry.pack(&household.country) {
        Some(pack) if found.is_empty() => Ok(pack),
        _ => Err(Unreckoned::Faults(found)),
    }
}

/// The household's pins as places among the decisions; pins of decisions that are gone are left out.
pub fn pins_of(household: &Household, case: &dyn Case) -> BTreeMap<usize, Taken> {
    taken_of(&household.pins, case)
}

/// What is taken of decisions, as it stands in files, by place.
pub(super) fn taken_of(way: &BTreeMap<String, String>, case: &dyn Case) -> BTreeMap<usize, Taken> {
    let find = |(d, held): (&String, &String)| {
        let decision = case.decisions().iter().position(|x| x.id == *d)?;
        let about = &case.decisions()[decision];
        if about.amount.is_some() {
            let amount: Money = held.parse().ok()?;
            return (!amount.is_negative()).then_some((decision, Taken::Amount(amount)));
        }
        let option = about.options.iter().position(|x| x.id == *held)?;
        Some((decision, Taken::Option(option as u8)))
    };
    way.iter().filter_map(find).collect()
}

/// The ranking that holds the pins; where no lawful way does, the ranking without them.
fn weigh(
    case: &dyn Weighable,
    pins: &BTreeMap<usize, Taken>,
    wanted: Wanted,
    stop: &Stop,
) -> Result<(Weighed, bool), Stopped> {
    let keep = wanted.ways.clamp(simplest::COMPARED, MOST_WAYS);
    let search = if wanted.comparisons { search_with_ends } else { search };
    let weighed = search(case, pins, keep, stop)?;
    if weighed.ranking.is_empty() && !pins.is_empty() {
        return Ok((search(case, &BTreeMap::new(), keep, stop)?, false));
    }
    Ok((weighed, true))
}

fn assemble(household: &Household, pack: &dyn Pack, wanted: Wanted, stop: &Stop) -> Result<Outcome, Stopped> {
    let keyed = household;
    let household = &*gathered::apart(keyed, pack.declared());
    let case = pack.open(household);
    let pins = pins_of(household, &*case);
    let counted = Counted::of(&*case);
    let (mut weighed, pins_hold) = weigh(&counted, &pins, wanted, stop)?;
    simplest::first(pack, &*case, household, &mut weighed.ranking);
    weighed.ranking.truncate(wanted.ways.max(1));
    let chosen = weighed.ranking.first().map(|r| r.way.clone()).unwrap_or_default();
    let trail = case.record(&chosen);
    let view = Shown::of(household, pack, &*case, &chosen, &trail);
    let total = weighed.ranking.first().map_or(Money::ZERO, |r| r.total);
    let mut beside = last_year::points(keyed, pack, &view.columns());
    beside.extend(held::points(keyed, pack));
    beside.extend(own_assessment::points(keyed, pack));
    beside.extend(misplaced::points(keyed, pack));
    beside.extend(schedules::points(&view));
    let points = view.points(&weighed, beside);
    let authorities = view.authorities();
    let all = |amount: fn(&Authority) -> Money| authorities.iter().map(amount).sum();
    let mut decisions = decisions(&view, &weighed, total);
    if wanted.comparisons {
        draw_curves(&*case, &chosen, &mut decisions, stop);
    }
    if stop.is_stopped() {
        return Err(Stopped);
    }
    let mut compared = Comparison::default();
    if wanted.comparisons {
        let columns = compare::columns(&weighed);
        compared = compare::side_by_side(pack, &*case, household, &columns, false);
        compared.why = why::sentences(&compared, &decisions);
    }
    let mut outcome = Outcome {
        country: household.country.clone(),
        locality: pack.locality(household),
        one_home: pack.one_home(household),
        year: household.year,
        planning: pack.is_planning(household.year),
        currency: pack.about().currency.into(),
        lowest: weighed.lowest.as_ref().map_or(total, |r| r.total.min(total)),
        total,
        paid: all(|a| a.paid),
        balance: all(|a| a.balance),
        authorities,
        covered: !points.iter().any(|p| p.not_covered),
        pins_hold,
        complete: weighed.complete,
        lawful_ways: weighed.lawful,
        holding_ways: weighed.holding,
        computed: counted.times(),
        columns: view.columns(),
        together: compare::way_name(&*case, &chosen),
        spread: view.spread(),
        ways: compare::named(&*case, &weighed.ranking),
        decisions,
        compared,
        schedules: if wanted.schedules { schedules::of(&view) } else { Vec::new() },
        lines: trail.lines.iter().map(|l| view.line(l.id, l.scope, l.amount, &l.inputs)).collect(),
        limits: trail
            .limits
            .iter()
            .filter(|(_, t)| !t.entered.is_zero())
            .map(|(a, t)| view.limit(*a, *t))
            .collect(),
        points,
        blanks: Vec::new(),
        papers: view.papers(),
        carried: forward::carried(household, pack, &trail, &case.returns(&chosen)),
    };
    outcome.blanks = asking::blanks(keyed, pack, &outcome);
    write_numbers(&mut outcome, pack.about().numbers);
    Ok(outcome)
}

/// Numbers within words as the country writes them; amounts by themselves stay plain for whoever shows them.
fn write_numbers(outcome: &mut Outcome, numbers: Numbers) {
    let workings = outcome.lines.iter_mut().flat_map(|line| &mut line.workings);
    let turns = outcome.decisions.iter_mut().filter_map(|decision| decision.break_even.as_mut());
    let ways = outcome.ways.iter_mut().flat_map(|way| [&mut way.name, &mut way.but]);
    let compared = outcome.compared.ways.iter_mut().flat_map(|way| [&mut way.name, &mut way.but]);
    let why = outcome.compared.why.iter_mut();
    let points = outcome.points.iter_mut().map(|point| &mut point.message);
    for words in workings
        .chain(turns)
        .chain(ways)
        .chain(compared)
        .chain(why)
        .chain(points)
        .chain([&mut outcome.together])
    {
        *words = numbers.write(words);
    }
}

/// The amount that stands for a paper in lists: its headline box (or the first amount that is filled, or the sum of the first
/// amounts of its list), or the sum of that column less what was paid back. None of a kind whose amounts make no sum.
pub fn headline(pack: &dyn Pack, paper: &Paper) -> Money {
    let kind = pack.paper_kinds().iter().find(|k| k.id == paper.kind && !k.headline.is_empty());
    let Some(kind) = kind else { return Money::ZERO };
    if kind.column(kind.headline).is_some() {
        let net = |(added, back)| -> Money { added - back };
        return paper.rows.iter().map(|row| net(kind.line(row))).sum();
    }
    let is_amount = |f: &&Field| matches!(f.kind, FieldKind::Amount { .. });
    let others = kind.boxes.iter().filter(is_amount).map(|f| f.id);
    let mut boxes = std::iter::once(kind.headline).chain(others).map(|id| paper.amount(id));
    let listed = || -> Option<Money> {
        let column = kind.columns.iter().find(is_amount)?.id;
        Some(paper.rows.iter().filter_map(|row| row.get(column).and_then(Entry::money)).sum())
    };
    boxes.find(|amount| !amount.is_zero()).or_else(listed).unwrap_or_default()
}

/// What of a paper's list was paid back.
pub fn paid_back(pack: &dyn Pack, paper: &Paper) -> Money {
    let kind = pack.paper_kinds().iter().find(|k| k.id == paper.kind);
    kind.map_or(Money::ZERO, |kind| paper.rows.iter().map(|row| kind.line(row).1).sum())
}

/// Full years from a birth to a day.
pub fn age_on(born: Date, day: Date) -> i32 {
    let had_birthday = (day.month() as u8, day.day()) >= (born.month() as u8, born.day());
    day.year() - born.year() - i32::from(!had_birthday)
}

fn decisions(view: &Shown<'_>, weighed: &Weighed, total: Money) -> Vec<DecisionOutcome> {
    let Shown { case, household, way: chosen, .. } = *view;
    let outcome = |(d, about): (usize, &Decision)| {
        let best = |o: usize| weighed.prices[d][o];
        let ends = weighed.ends[d];
        let open: Vec<_> = (0..about.options.len())
            .filter_map(best)
            .chain(ends.free)
            .chain(ends.none)
            .chain(ends.all)
            .collect();
        DecisionOutcome {
            id: about.id.clone(),
            label: about.label.clone(),
            cite: about.cite.into(),
            arises: chosen.0.get(d).is_some_and(Option::is_some),
            neutral: about.neutral,
            pinned: household.pins.get(&about.id).cloned(),
            reason: household.pin_reasons.get(&about.id).cloned(),
            worth: open
                .iter()
                .max()
                .zip(open.iter().min())
                .map_or(Money::ZERO, |(most, least)| *most - *least),
            options: about
                .options
                .iter()
                .enumerate()
                .map(|(o, option)| OptionOutcome {
                    id: option.id.clone(),
                    label: option.label.clone(),
                    chosen: chosen.taken(d) == Some(o),
                    best: best(o),
                    more: best(o).map(|b| b - total),
                    barred: weighed.bars[d][o].as_ref().map(|b| b.to_string()),
                })
                .collect(),
            amount: about.amount.as_ref().map(|a| amount(case, chosen, d, a, ends)),
            break_even: compare::break_even(view, d),
        }
    };
    case.decisions().iter().enumerate().map(outcome).collect()
}

fn amount(case: &dyn Case, chosen: &Way, decision: usize, about: &Amount, ends: Ends) -> AmountOutcome {
    let taken = chosen.amount(decision);
    AmountOutcome {
        taken: taken.unwrap_or_default(),
        most: taken.map_or(Money::ZERO, |_| case.most(decision, &View::of(chosen))),
        never_costs: about.more == More::NeverCosts,
        free: ends.free,
        none: ends.none,
        all: ends.all,
        curve: Vec::new(),
    }
}

/// The household's total along each amount that the chosen way takes.
fn draw_curves(case: &dyn Case, chosen: &Way, decisions: &mut [DecisionOutcome], stop: &Stop) {
    for (place, decision) in decisions.iter_mut().enumerate() {
        let (Some(amount), Some(_)) = (&mut decision.amount, chosen.amount(place)) else { continue };
        let kinks = along(case, chosen, place, amount.most, stop);
        amount.curve = kinks.into_iter().map(|(amount, total)| Kink { amount, total }).collect();
    }
}
