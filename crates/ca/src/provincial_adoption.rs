//! Adoption in the provinces (line 58330 of form 428): the same expenses up to a most of the province, divided on its own.

use crate::{
    adoption::{decision, divided, open, pool},
    facts::Facts,
    plan::On,
    province,
};
use hembo_core::{
    choice::{Chosen, Open},
    lines,
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, figures: &["adoption"], ..Provision::NONE };

lines! {
    pub PROVINCIAL = "ca.58330", "Adoption expenses, province", "Income tax acts of the provinces; form 428",
        "The same expenses up to the most of the province, divided on its own.";
}

/// What the family has in the province; nothing where that has no amount.
fn of_family(facts: &Facts) -> Money {
    let most = match province::mirrors(facts) {
        true => Some(facts.figures.adoption.most),
        false => province::figures(facts).and_then(|figures| figures.adoption),
    };
    most.map_or(Money::ZERO, |most| pool(facts, most))
}

/// Line 58330.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let all = of_family(on.facts);
    if all.is_zero() || !on.who().filer {
        return Money::ZERO;
    }
    divided(on, trail, PROVINCIAL, all, on.plan.adoption_provincial)
}

/// How much of it the first of a couple claims.
pub static OF_FIRST: Open<Facts> = Open::new(
    |facts| open(facts, of_family(facts)),
    |facts, _| decision(facts, "ca.adoption.province", ", province", of_family(facts)),
);

/// What the first claims in a way; all where nobody else may.
pub fn chosen(way: Chosen<'_, '_, Facts>) -> Option<Money> {
    way.amount(&OF_FIRST, 0)
}
