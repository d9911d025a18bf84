//! Superficial losses (ITA 40(2)(g)(i), 53(1)(f), 54 "superficial loss"): a loss is denied as far as the person or someone
//! affiliated, the partner or a plan of theirs, acquires the same within 30 days before or after the sale and holds it at the
//! end of them. What is denied is a part of the cost of what was bought in place; bought in a plan, it is lost.

use super::pool::{Entry, Sale, Units, What, portion};
use hembo_core::settled;
use hembo_money::{Money, Rate, Rounding};
use time::Duration;

/// Before and after the day of the sale.
const DAYS: Duration = Duration::days(30);

/// What of a loss is denied, and to which purchases it is added.
#[derive(Debug, Default)]
pub(super) struct Denied {
    pub(super) total: Money,
    /// By the place of the purchase among the entries.
    pub(super) added: Vec<(usize, Money)>,
}

/// What is denied of a sale. Each sale is looked at on its own, also where the days of two overlap.
pub(super) fn denied(entries: &[Entry], units: &Units, at: usize, sale: Sale) -> Denied {
    let loss = settled::or_zero(-sale.before_denial());
    let sold = less(units.before[at], units.after[at]);
    if entries[at].what != What::Sold || loss.is_zero() || sold == Rate::ZERO {
        return Denied { total: sale.denied, added: Vec::new() };
    }
    let bought = acquired(entries, units, at);
    let bought_or_sold = settled::lesser(sold, together(&bought));
    let most = settled::lesser(bought_or_sold, held_at_end(entries, units, at));
    let bought = in_order(entries, units, at, bought, most);
    let counted = together(&bought);
    let total = portion(loss, counted, sold);
    Denied { total, added: divided(entries, &bought, total, counted) }
}

fn together(bought: &[(usize, Rate)]) -> Rate {
    bought.iter().fold(Rate::ZERO, |sum, (_, units)| plus(sum, *units))
}

fn plus(one: Rate, other: Rate) -> Rate {
    Rate::from_billionths(one.billionths().saturating_add(other.billionths()))
}

fn less(one: Rate, other: Rate) -> Rate {
    Rate::from_billionths(one.billionths() - other.billionths())
}

/// What was acquired in the days around the sale, in units of its day, by date.
fn acquired(entries: &[Entry], units: &Units, at: usize) -> Vec<(usize, Rate)> {
    let day = entries[at].date;
    let around = (day - DAYS)..=(day + DAYS);
    let of = |(place, entry): (usize, &Entry)| (place, as_of(entries, units, place, at, entry.units));
    let acquires = |(place, entry): &(usize, &Entry)| {
        *place != at && entry.what.acquires() && around.contains(&entry.date)
    };
    entries.iter().enumerate().filter(acquires).map(of).collect()
}

/// What all ledgers and plans hold at the end of the days, in units of the day of the sale.
fn held_at_end(entries: &[Entry], units: &Units, at: usize) -> Rate {
    let end = entries[at].date + DAYS;
    let ledgers = entries.iter().map(|entry| entry.ledger + 1).max().unwrap_or(0);
    let within = || entries.iter().enumerate().filter(|(_, entry)| entry.date <= end);
    let of_ledger = |ledger: usize| {
        let last = within().filter(|(_, entry)| entry.ledger == ledger).map(|(place, _)| place).next_back();
        last.map_or(Rate::ZERO, |last| as_of(entries, units, last, at, units.after[last]))
    };
    let in_plans = within()
        .filter(|(_, entry)| entry.what.in_plan())
        .map(|(place, entry)| as_of(entries, units, place, at, entry.units));
    (0..ledgers).map(of_ledger).chain(in_plans).fold(Rate::ZERO, plus)
}

/// Units at one entry as they count at another, over the splits in between.
fn as_of(entries: &[Entry], units: &Units, from: usize, to: usize, number: Rate) -> Rate {
    let ledger = entries[from].ledger;
    let (first, last) = (settled::lesser(from, to), settled::greater(from, to));
    let between = (first + 1..=last).filter(|&place| {
        entries[place].ledger == ledger && matches!(entries[place].what, What::Split | What::Merged)
    });
    between.fold(number, |number, place| {
        let (before, after) = (units.before[place], units.after[place]);
        let (times, over) = if from < to { (after, before) } else { (before, after) };
        if over == Rate::ZERO {
            return number;
        }
        let exact = i128::from(number.billionths()) * i128::from(times.billionths());
        let scaled = Rounding::HalfUp.divide(exact, over.billionths().into());
        Rate::from_billionths(i64::try_from(scaled).unwrap_or(i64::MAX))
    })
}

/// Which purchases stand for what was sold: first those before the sale that are still held, then later ones by date.
fn in_order(
    entries: &[Entry],
    units: &Units,
    at: usize,
    bought: Vec<(usize, Rate)>,
    most: Rate,
) -> Vec<(usize, Rate)> {
    let ledgers = entries.iter().map(|entry| entry.ledger + 1).max().unwrap_or(0);
    let held_after = |ledger: usize| {
        let last = (0..=at).rev().find(|&place| entries[place].ledger == ledger);
        last.map_or(Rate::ZERO, |last| as_of(entries, units, last, at, units.after[last]))
    };
    let mut held: Vec<Rate> = (0..ledgers).map(held_after).collect();
    let mut left = most;
    let mut found = Vec::new();
    for (place, number) in bought {
        let entry = &entries[place];
        let own = &mut held[entry.ledger];
        let in_pool = place < at && !entry.what.in_plan();
        let there = if in_pool { settled::lesser(number, *own) } else { number };
        let taken = settled::lesser(there, left);
        if in_pool {
            *own = less(*own, taken);
        }
        left = less(left, taken);
        if taken > Rate::ZERO {
            found.push((place, taken));
        }
    }
    found
}

/// A denied loss over the purchases by their units, to the cent; what belongs to a plan is lost.
fn divided(entries: &[Entry], bought: &[(usize, Rate)], total: Money, counted: Rate) -> Vec<(usize, Money)> {
    let (mut so_far, mut given) = (Rate::ZERO, Money::ZERO);
    let mut added = Vec::new();
    for &(place, number) in bought {
        so_far = plus(so_far, number);
        let until = portion(total, so_far, counted);
        if !entries[place].what.in_plan() {
            added.push((place, until - given));
        }
        given = until;
    }
    added
}
