//! What is charged on income tax (SolzG; church tax laws, §51a EStG): the solidarity surcharge and church tax, always with all allowances of
//! children.

use crate::{
    facts::Facts,
    plan::On,
    rounding::{cents_down, euros_down},
    tariff::{self, Table, Taxed},
};
use hembo_core::{limit, lines, provision::Provision, settled, trail::Trail};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Surcharge and church tax",
    lines: LINES,
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

/// Church tax on so many of the months of a base; of who was a member all year each Land has its rate for its months.
fn charged(facts: &Facts, base: Money, months: i64, of: i64) -> Money {
    match &facts.land_before {
        Some((land, before)) if months == of => {
            let part =
                |months: i64, land: &str| cents_down(by_months(base, months, 12), rate_in(facts, land));
            part(*before, land) + part(12 - before, &facts.land)
        }
        _ => cents_down(by_months(base, months, of), rate(facts)),
    }
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
        [one] => charged(on.facts, bases.church, one, 12),
        [one, 0] => of_one(on, bases, own, 0, one),
        [0, other] => of_one(on, bases, own, 1, other),
        // Of two members each has a half of the base (Halbteilung), by the own months.
        [one, other] => charged(on.facts, bases.church, one + other, 24),
        _ => Money::ZERO,
    };
    // Of each person the flat tax is cut to euros first.
    let of_flat = |(months, flat): (&i64, &Money)| charged(on.facts, euros_down(*flat), *months, 12);
    let on_flat = months.iter().zip(flat).map(of_flat);
    let all = on_tariff + on_flat.sum::<Money>();
    on.made(trail, CHURCH, all, &[(CHURCH_BASE, bases.church)], &[("Rate", &rate), ("Flat tax", &bases.flat)])
}

/// So much of an amount as falls on months of the year.
fn by_months(amount: Money, months: i64, of: i64) -> Money {
    amount.in_proportion(Money::whole(months), Money::whole(of), Money::CENT, Rounding::Down)
}

/// Of one spouse alone: the share of the base by the tax on what each earned, or the special fee where it is charged and more.
fn of_one(on: On<'_>, bases: Bases, own: &[Money], member: usize, months: i64) -> Money {
    let tax = |income: Money| {
        let of = Taxed { income: euros_down(settled::or_zero(income)), ..Taxed::default() };
        tariff::tax(&on.facts.figures.tariff, Table::Basic, of)
    };
    let (theirs, others) = (tax(own[member]), tax(own[1 - member]));
    let share = if (theirs + others).is_zero() {
        Money::ZERO
    } else {
        bases.church.in_proportion(theirs, theirs + others, Money::CENT, Rounding::Down)
    };
    let figures = &on.facts.figures.church;
    let at = figures.fee_from.iter().rposition(|from| *from <= bases.notional);
    let fee = at.filter(|_| on.facts.special_fee).map_or(Money::ZERO, |at| figures.fees[at]);
    by_months(settled::greater(charged(on.facts, share, 12, 12), fee), months, 12)
}
