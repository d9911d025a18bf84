//! Splitting pension income between partners (ITA 60.03, 60(c), 56(1)(a.2); form T1032): lines 11600 and 21000.

use crate::{
    facts::Facts,
    papers::{savings, t4a},
    plan::{Filed, On, Split},
    rounding::STEEPEST,
};
use hembo_core::{
    brought::Records,
    choice::{Chosen, Open},
    decision::{Amount, Bar, Decision, More, Opt},
    forms::Required,
    limit, lines,
    provision::Provision,
    reading::sum,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, figures: &["split", "pension"], ..Provision::NONE };

lines! {
    pub PENSIONS = "ca.11500", "Pensions", "ITA 56(1)(a)(i)",
        "Box 016 of every T4A; from 65 on, or on a spouse's death, annuities and what comes out of retirement funds too.";
    pub RECEIVED = "ca.11600", "Split pension received", "ITA 56(1)(a.2)",
        "The amount that the partner gives by joint election.";
    pub GIVEN = "ca.21000", "Split pension given", "ITA 60(c), 60.03",
        "At most a half of eligible pension income for the months as a couple, by joint election.";
}

/// A return's side of the split.
#[derive(Debug, Clone, Copy, Default)]
pub struct Side {
    /// Line 11600.
    pub received: Money,
    /// Line 21000.
    pub given: Money,
    /// Pension income that the pension amount takes: own, less what was given, with what counts of what was received.
    pub left: Money,
}

/// The largest amount that a person may elect: a half of eligible pension income, for the months as a couple of those of the
/// pensioner's own year, which ends with a death (60.03(1) 'split-pension amount' B, C).
pub fn most(facts: &Facts, person: usize) -> Money {
    let all = facts.last_month(person);
    let months = facts.months_together.clamp(0, all);
    let year = eligible(facts, person).times(facts.figures.split.part, Money::CENT, Rounding::HalfUp);
    year.in_proportion(Money::whole(months), Money::whole(all), Money::CENT, Rounding::HalfUp)
}

/// Pension income that a person may split (ITA 118(7)): of any age that of a life annuity, from 65 on all of it.
pub fn eligible(facts: &Facts, person: usize) -> Money {
    let aged = facts.reached(person, facts.figures.pension.age);
    sum(pensions(&facts.people[person].own, aged))
}

/// Pension income that can be split and that the pension amount takes, at an age at the end of the year.
pub fn pensions(own: &Records, aged: bool) -> impl Iterator<Item = &Item> + Clone {
    let by_age = [&t4a::brings::AGE_PENSIONS, &savings::brings::ANNUITIES, &savings::brings::FUNDS];
    let of_age = by_age.into_iter().filter(move |_| aged).flat_map(|kind| own.of(kind));
    own.of(&t4a::brings::LIFE_PENSIONS).iter().chain(of_age)
}

/// Lines 11600 and 21000, the same amount on both returns.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Side {
    let own = eligible(on.facts, on.person);
    match on.plan.split {
        Some(split) if split.from == on.person => {
            trail.line(GIVEN, on.scope, split.amount, |i| {
                i.line(PENSIONS, on.scope, own).figure("At most", most(on.facts, on.person));
            });
            Side { given: split.amount, left: own - split.amount, ..Side::default() }
        }
        Some(split) if split.to == on.person => {
            let from = on.of(split.from).scope;
            trail.line(RECEIVED, on.scope, split.amount, |i| {
                i.flow(GIVEN, from, split.amount);
            });
            Side { received: split.amount, left: own + counted(on, split), ..Side::default() }
        }
        _ => agreed(on, trail, own),
    }
}

/// The side of a split with a partner whose return is not prepared here, as form T1032 has it; nothing where there is none.
fn agreed(on: On<'_>, trail: &mut impl Trail, own: Money) -> Side {
    let Some(split) = on.facts.agreed_split(on.person) else { return Side { left: own, ..Side::default() } };
    let most = most(on.facts, on.person);
    on.made(trail, GIVEN, split.given, &[(PENSIONS, own)], &[("At most", &most)]);
    on.made(trail, RECEIVED, split.received, &[], &[("Form T1032 of the partner", &split.received)]);
    let aged = on.reached(on.facts.figures.pension.age);
    let counted = if aged { split.received } else { split.from_annuity };
    Side { received: split.received, given: split.given, left: own - split.given + counted }
}

/// Before 65 only the part that comes from a life annuity counts for the pension amount of who receives it.
fn counted(on: On<'_>, split: Split) -> Money {
    if on.reached(on.facts.figures.pension.age) {
        return split.amount;
    }
    let life = sum(on.facts.people[split.from].own.of(&t4a::brings::LIFE_PENSIONS));
    split.amount.in_proportion(life, eligible(on.facts, split.from), Money::CENT, Rounding::HalfUp)
}

/// Tax withheld from the pension moves in the same proportion (form T1032, step 4): what leaves or enters.
pub fn withheld_moved(on: On<'_>) -> Option<(Split, Money)> {
    let split = on.plan.split?;
    Some((split, withheld_of(on.facts, split.from, split.amount)))
}

/// Tax withheld that goes with so much of a person's pension.
pub fn withheld_of(facts: &Facts, person: usize, given: Money) -> Money {
    let withheld = sum(facts.people[person].own.of(&t4a::brings::WITHHELD_PENSION));
    withheld.in_proportion(given, eligible(facts, person), Money::CENT, Rounding::HalfUp)
}

/// Line 31400 (ITA 118(3)): pension income up to a most, federal or provincial.
pub fn amount(trail: &mut impl Trail, pension: Money, most: Money) -> Money {
    limit::lesser(trail, pension, most)
}

/// Form T1032: on both returns where anything moves.
pub fn form_t1032(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(GIVEN) || filed.has(RECEIVED), "no pension is split")
}

/// The law of the election.
const CITE: &str = "ITA 60.03; form T1032";

/// From which of the partners pension income moves: options by place among the filers.
pub static FROM: Open<Facts> = Open::new(only_where_it_can, |facts, _| {
    let option = |from: usize| {
        let to = facts.partner(from).unwrap_or(from);
        let (from_name, to_name) = (facts.first_name(from), facts.first_name(to));
        let id = facts.people[from].id.as_str();
        Opt::new(id, format!("From {from_name} to {to_name}"), format!("{from_name} to {to_name}"))
    };
    Decision::between(
        "ca.split",
        "Split the pension of",
        CITE,
        facts.filers.iter().map(|&f| option(f)).collect(),
    )
})
.bars(|facts, _, option, _| {
    let nothing = most(facts, facts.filers[option]).is_zero();
    nothing.then_some(Bar::Borrowed("no pension income that can be split"))
});

/// How much of it.
pub static AMOUNT: Open<Facts> = Open::new(only_where_it_can, |facts, _| {
    let most = facts.filers.iter().map(|&f| most(facts, f)).max().unwrap_or_default();
    let amount = Amount { most, short: "split".into(), more: More::MayCost, steepest: STEEPEST };
    Decision::amount("ca.split.amount", "Pension income split", CITE, amount)
})
.most(|facts, _, way| pair(facts, way).map_or(Money::ZERO, |(from, _)| most(facts, from)));

fn only_where_it_can(facts: &Facts) -> Vec<usize> {
    let can = facts.couple && facts.filers.iter().any(|&f| !most(facts, f).is_zero());
    if can { vec![0] } else { Vec::new() }
}

/// The partners by the direction of the split.
fn pair(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<(usize, usize)> {
    let from = facts.filers[way.taken(&FROM, 0)?];
    Some((from, facts.partner(from)?))
}

/// What a way splits.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<Split> {
    let (from, to) = pair(facts, way)?;
    Some(Split { from, to, amount: way.amount(&AMOUNT, 0)? })
}
