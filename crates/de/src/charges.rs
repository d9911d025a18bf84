//! What is charged on income tax (SolzG; church tax laws, §51a EStG): the solidarity surcharge and church tax, always with all allowances of
//! children.

use crate::{
    facts::{Facts, PersonFacts},
    plan::On,
    rounding::{cents_down, euros_down},
    tariff::{self, Table, Taxed},
};
use hembo_core::{limit, limits, lines, provision::Provision, settled, trail::Trail};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Surcharge and church tax",
    lines: LINES,
    limits: LIMITS,
    figures: &["surcharge", "church", "tariff"],
    ..Provision::NONE
};

lines! {
    pub NOTIONAL = "de.taxable_income_notional", "Taxable income with all allowances", "§51a(2); §3(2) SolzG",
        "As if the allowances of every child were used.";
    SURCHARGE_BASE = "de.soli_base", "Base of the surcharge", "§3(2) SolzG", "The tax on it less credits.";
    pub CHURCH_BASE = "de.church_base", "Base of church tax", "§51a(2)", "The same without the credit for trade tax.";
    pub SURCHARGE = "de.soli", "Solidarity surcharge (Solidaritätszuschlag)", "§§3, 4 SolzG",
        "Nothing to a limit, then mitigated; on the flat tax whole.";
    pub CHURCH = "de.church_tax", "Church tax (Kirchensteuer)", "church tax laws",
        "Of members, by the Land; of one spouse alone the share, or the special fee where that is more.";
}

limits! {
    CAPPED = "de.limit.church" on CHURCH, "Church tax", "over the cap of the church, not levied", "church tax laws";
}

/// The bases: the tax with all allowances, less credits with and without that for trade tax.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Bases {
    pub notional: Money,
    pub surcharge: Money,
    pub church: Money,
    /// Tax at the flat rate, with what of it is on whom.
    pub flat: Money,
}

/// The rate of church tax in the Land.
pub fn rate(facts: &Facts) -> Rate {
    rate_in(facts, &facts.land)
}

fn rate_in(facts: &Facts, land: &str) -> Rate {
    let figures = &facts.figures.church;
    if figures.lower_in.iter().any(|lower| lower == land) { figures.lower_rate } else { figures.rate }
}

/// Church tax of members on a base, of which each month of each of them is a part: after a move each Land has its rate for its months.
fn charged(facts: &Facts, base: Money, members: &[usize]) -> Money {
    let sum =
        |of: fn(&PersonFacts) -> i64| members.iter().map(|&member| of(&facts.people[member])).sum::<i64>();
    let (months, before) = (sum(|who| who.church_months), sum(|who| who.church_months_before));
    let part = |months: i64, rate: Rate| cents_down(by_months(base, months, 12 * members.len() as i64), rate);
    let in_land_before =
        facts.land_before.as_ref().map_or(Money::ZERO, |(land, _)| part(before, rate_in(facts, land)));
    in_land_before + part(months - before, rate(facts))
}

/// §§3, 4 SolzG.
pub fn surcharge(on: On<'_>, trail: &mut impl Trail, bases: Bases) -> Money {
    let figures = &on.facts.figures.surcharge;
    let free = match on.table() {
        Table::Basic => figures.free_to,
        Table::Splitting => figures.free_to * 2,
    };
    on.made(trail, SURCHARGE_BASE, bases.surcharge, &[(NOTIONAL, bases.notional)], &[]);
    let above = limit::or_zero(trail, bases.surcharge - free);
    let on_tariff =
        limit::lesser(trail, cents_down(bases.surcharge, figures.rate), cents_down(above, figures.mitigated));
    let all = on_tariff + cents_down(bases.flat, figures.rate);
    on.made(
        trail,
        SURCHARGE,
        all,
        &[(SURCHARGE_BASE, bases.surcharge)],
        &[("Free to", &free), ("Flat tax", &bases.flat)],
    )
}

/// Church tax of an assessment: `own` is what each person earned, `flat` the flat tax on each.
pub fn church(on: On<'_>, trail: &mut impl Trail, bases: Bases, own: &[Money], flat: &[Money]) -> Money {
    let rate = rate(on.facts);
    on.made(trail, CHURCH_BASE, bases.church, &[(NOTIONAL, bases.notional)], &[]);
    let months: Vec<i64> = on.people.iter().map(|&person| on.facts.people[person].church_months).collect();
    let on_tariff = match *months.as_slice() {
        [_, 0] => of_one(on, trail, bases, own, 0),
        [0, _] => of_one(on, trail, bases, own, 1),
        // Of two members each has a half of the base (Halbteilung), by the own months.
        _ => capped(on, trail, charged(on.facts, bases.church, on.people), bases.notional, on.people),
    };
    // Of each person the flat tax is cut to euros first.
    let on_flat =
        on.people.iter().zip(flat).map(|(&member, flat)| charged(on.facts, euros_down(*flat), &[member]));
    let all = on_tariff + on_flat.sum::<Money>();
    on.made(trail, CHURCH, all, &[(CHURCH_BASE, bases.church)], &[("Rate", &rate), ("Flat tax", &bases.flat)])
}

/// So much of an amount as falls on months of the year.
fn by_months(amount: Money, months: i64, of: i64) -> Money {
    amount.in_proportion(Money::whole(months), Money::whole(of), Money::CENT, Rounding::Down)
}

/// Church tax of members, at most the cap of their church on an income, by their months (Kappung).
fn capped(on: On<'_>, trail: &mut impl Trail, due: Money, income: Money, members: &[usize]) -> Money {
    let Some(cap) = on.facts.church_cap else { return due };
    let months = members.iter().map(|&member| on.facts.people[member].church_months).sum();
    let most = by_months(cents_down(income, cap), months, 12 * members.len() as i64);
    limit::cap(trail, CAPPED.at(on.scope), due, most)
}

/// Of one spouse alone: the share of the base by the tax on what each earned, or the special fee where it is charged and more. The cap goes by
/// the same share of income.
fn of_one(on: On<'_>, trail: &mut impl Trail, bases: Bases, own: &[Money], place: usize) -> Money {
    let member = on.people[place];
    let tax = |income: Money| {
        let of = Taxed { income: euros_down(settled::or_zero(income)), ..Taxed::default() };
        tariff::tax(&on.facts.figures.tariff, Table::Basic, of)
    };
    let (theirs, others) = (tax(own[place]), tax(own[1 - place]));
    let share = |of: Money| {
        if (theirs + others).is_zero() {
            return Money::ZERO;
        }
        of.in_proportion(theirs, theirs + others, Money::CENT, Rounding::Down)
    };
    let due = charged(on.facts, share(bases.church), &[member]);
    let due = capped(on, trail, due, share(bases.notional), &[member]);
    let figures = &on.facts.figures.church;
    let at = figures.fee_from.iter().rposition(|from| *from <= bases.notional);
    let fee = at.filter(|_| on.facts.special_fee).map_or(Money::ZERO, |at| figures.fees[at]);
    settled::greater(due, by_months(fee, on.facts.people[member].church_months, 12))
}
