//! Gifts to charities (ITA 118.1; Schedule 9): one pool of a couple, each claims a part, the rest is carried.

use crate::{
    figures::Provincial,
    income,
    income::cents,
    plan::{Filed, On},
};
use hembo_core::{forms::Required, limit, limits, lines, provision::Provision, reading::sum, trail::Trail};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, limits: LIMITS, ..Provision::NONE };

lines! {
    pub CLAIMED = "ca.34000", "Gifts claimed", "ITA 118.1(1)",
        "As much of the pool as the way claims here, at most a part of net income.";
    CARRIED = "ca.gifts.carried", "Gifts kept for later", "ITA 118.1(1)",
        "What neither partner claims, for five years.";
    pub CREDIT = "ca.34900", "Credit for gifts", "ITA 118.1(3)",
        "The first tier at the lowest rate, the rest at the higher ones.";
    pub PROVINCIAL_CREDIT = "ca.58969", "Credit for gifts, province", "provincial act",
        "The same gifts at the rates of the province.";
}

limits! {
    pub GIFTS = "ca.limit.gifts" on CLAIMED, "Gifts", "over the part of net income, kept for later",
        "ITA 118.1(1)";
}

/// What this return claims of what the pool has left: at most the part of net income (118.1(1) "total gifts").
pub fn claimed(on: On<'_>, trail: &mut impl Trail, left: Money, net: Money) -> Money {
    if on.facts.gifts.is_empty() || !on.who().filer {
        return Money::ZERO;
    }
    let wanted = on.plan.gifts[on.person].unwrap_or(left);
    let wanted = limit::lesser(trail, wanted, left);
    let most = cents(net, on.facts.figures.gifts.part);
    let allowed = limit::cap(trail, GIFTS.at(on.scope), wanted, most);
    trail.line(CLAIMED, on.scope, allowed, |i| {
        i.items(&on.facts.gifts).line(income::NET, on.scope, net).figure("Left in the pool", left);
    })
}

/// What neither of a couple claims, for the five years after.
pub fn carried(on: On<'_>, trail: &mut impl Trail, left: Money) {
    if on.facts.gifts.is_empty() {
        return;
    }
    trail.line(CARRIED, on.scope, left, |i| {
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
    on.made(trail, CREDIT, credit, &[(CLAIMED, gifts), (income::TAXABLE, taxable)], &[])
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
        PROVINCIAL_CREDIT,
        credit,
        &[(CLAIMED, gifts)],
        &[("First tier", &figures.gift_first_rate), ("Above it", &figures.gift_rate)],
    )
}

/// Schedule 9: where gifts are claimed.
pub fn schedule_9(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CLAIMED), "no gifts claimed here")
}
