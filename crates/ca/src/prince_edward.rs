//! Prince Edward Island (Income Tax Act; PE428): the low-income reduction.

use crate::{
    form_428,
    income::{Incomes, family_net},
    plan::On,
    points::Points,
    provincial_law::{ProvincialLaw, Reduction, Shared, Taxed, common, reduced},
    widowed, young_children,
};
use hembo_core::{limits, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    limits: LIMITS,
    figures: &["prince_edward", "prince_edward_relatives", "prince_edward_reduction"],
    ..Provision::NONE
};

limits! {
    LOW_INCOME = "ca.limit.pe_reduction" on form_428::REDUCTION, "Low-income reduction of Prince Edward Island", "shrinks with family income",
        "Income Tax Act (Prince Edward Island); PE428";
}

/// The law of Prince Edward Island.
#[derive(Debug)]
pub struct PrinceEdward;

impl ProvincialLaw for PrinceEdward {
    common!("PE", "pe", prince_edward, prince_edward_relatives, prince_edward_credits);

    fn tax(
        on: On<'_>,
        trail: &mut impl Trail,
        incomes: &Incomes,
        taxed: Taxed<'_>,
        shared: &mut Shared,
    ) -> Money {
        let (facts, rule) = (on.facts, &on.facts.figures.prince_edward_reduction);
        let family = [Some(on.person), facts.partner_at_end(on.person)].into_iter().flatten();
        let aged = family.filter(|&p| facts.reached(p, rule.age)).count() as i64;
        let children = if on.who().filer { facts.children_under(rule.child_under) } else { 0 };
        let of = Reduction {
            full: rule.each * on.adults() + rule.aged * aged + rule.child * children,
            income: family_net(on, incomes),
            from: rule.from,
            rate: rule.rate,
        };
        reduced(on, trail, LOW_INCOME.at(on.scope), taxed, of, shared)
    }

    fn points(points: &mut Points<'_>) {
        young_children::points(points);
        widowed::told(points);
    }
}
