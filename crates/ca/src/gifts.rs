//! Gifts to charities (ITA 118.1; Schedule 9): one pool of a couple, each claims a part, the rest is carried.

use crate::{figures::Provincial, income::cents, limits::GIFTS, plan::On};
use hembo_core::{limit, reading::sum, trail::Trail};
use hembo_money::{Money, Rounding};

/// What this return claims of what the pool has left: at most the part of net income (118.1(1) "total gifts").
pub fn claimed(on: On<'_>, trail: &mut impl Trail, left: Money, net: Money) -> Money {
    if on.facts.gifts.is_empty() || !on.who().filer {
        return Money::ZERO;
    }
    let wanted = on.plan.gifts[on.person].unwrap_or(left);
    let wanted = limit::lesser(trail, wanted, left);
    let most = cents(net, on.facts.figures.gifts.part);
    let allowed = limit::cap(trail, GIFTS.at(on.scope), wanted, most);
    trail.line("ca.34000", on.scope, allowed, |i| {
        i.items(&on.facts.gifts).line("ca.23600", on.scope, net).figure("Left in the pool", left);
    })
}

/// What neither of a couple claims, for the five years after.
pub fn carried(on: On<'_>, trail: &mut impl Trail, left: Money) {
    if on.facts.gifts.is_empty() {
        return;
    }
    trail.line("ca.gifts.carried", on.scope, left, |i| {
        i.figure("Gifts of this year and carried in", sum(&on.facts.gifts));
    });
}

/// Line 34900 (118.1(3)): the first tier at the lowest rate, what is above it at the top rate as far as taxable income
/// reaches into the top bracket, the rest at the rate before.
pub fn credit(on: On<'_>, trail: &mut impl Trail, gifts: Money, taxable: Money) -> Money {
    if on.facts.gifts.is_empty() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.gifts;
    let first = limit::lesser(trail, gifts, figures.first);
    let above = gifts - first;
    let in_top = limit::or_zero(trail, taxable - figures.top_from);
    let top = limit::lesser(trail, above, in_top);
    let tiers = [(first, figures.first_rate), (top, figures.top_rate), (above - top, figures.rate)];
    let credit = Money::sum_of_products(tiers, Money::CENT, Rounding::HalfUp);
    on.made(trail, "ca.34900", credit, &[("ca.34000", gifts), ("ca.26000", taxable)], &[])
}

/// Line 58969: the same gifts at the rates of the province.
pub fn provincial_credit(on: On<'_>, trail: &mut impl Trail, gifts: Money, figures: &Provincial) -> Money {
    if on.facts.gifts.is_empty() {
        return Money::ZERO;
    }
    let first = limit::lesser(trail, gifts, on.facts.figures.gifts.first);
    let tiers = [(first, figures.gift_first_rate), (gifts - first, figures.gift_rate)];
    let credit = Money::sum_of_products(tiers, Money::CENT, Rounding::HalfUp);
    on.made(
        trail,
        "ca.58969",
        credit,
        &[("ca.34000", gifts)],
        &[("First tier", &figures.gift_first_rate), ("Above it", &figures.gift_rate)],
    )
}
