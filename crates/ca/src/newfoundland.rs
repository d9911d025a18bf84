//! Newfoundland and Labrador (Income Tax Act, 2000; NL428): the low-income reduction of who is alone.

use crate::{
    facts::Facts,
    form_428,
    income::{self, Incomes},
    plan::On,
    points::Points,
    provincial_law::{ProvincialLaw, Reduction, Shared, Taxed, common, reduced},
};
use hembo_core::{
    limits, open_points,
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    limits: LIMITS,
    points: POINTS,
    figures: &["newfoundland", "newfoundland_relatives", "newfoundland_reduction"],
    ..Provision::NONE
};

limits! {
    LOW_INCOME = "ca.limit.nl_reduction" on form_428::REDUCTION, "Low-income reduction of Newfoundland and Labrador", "shrinks with net income",
        "Income Tax Act, 2000 (Newfoundland and Labrador); NL428";
}

open_points! {
    FAMILIES = not_covered "nl-families", "Income Tax Act, 2000 (Newfoundland and Labrador); NL428";
}

/// The law of Newfoundland and Labrador.
#[derive(Debug)]
pub struct Newfoundland;

impl ProvincialLaw for Newfoundland {
    common!("NL", "nl", newfoundland, newfoundland_relatives, newfoundland_credits, "nl479" => crate::form_428::form_479);

    fn tax(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, taxed: Taxed<'_>, _: &mut Shared) -> Money {
        let figures = &on.facts.figures.newfoundland_reduction;
        let full = if on.adults() > 1 { Money::ZERO } else { figures.most };
        let of = Reduction { full, income: incomes[on.person].net, from: figures.from, rate: figures.rate };
        reduced(on, trail, LOW_INCOME.at(on.scope), taxed, of, &mut None)
    }

    fn points(points: &mut Points<'_>) {
        let facts = points.facts;
        let family: Money = facts.adults().map(|person| income::net_shown(points, person)).sum();
        if is_family(facts) && family < facts.figures.newfoundland_reduction.families_to {
            let message = "The low-income reduction of families is not held: this family may have one.";
            points.raise(&FAMILIES, Place::person(&facts.people[facts.filers[0]].id, "name"), message);
        }
    }
}

/// A couple, or who may have an eligible dependant.
fn is_family(facts: &Facts) -> bool {
    facts.partnered || facts.filers.iter().any(|&f| facts.people[f].maintains_home)
}
