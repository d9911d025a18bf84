//! New Brunswick (New Brunswick Income Tax Act; NB428): the low-income reduction.

use crate::{
    figures::{Figures, ProvincialBenefit},
    form_428,
    income::{Incomes, family_net},
    plan::On,
    points::Points,
    provincial_law::{ProvincialLaw, Reduction, Shared, Taxed, common, reduced},
    widowed,
};
use hembo_core::{limits, provision::Provision, trail::Trail};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    limits: LIMITS,
    figures: &[
        "new_brunswick",
        "new_brunswick_relatives",
        "new_brunswick_benefits",
        "new_brunswick_reduction",
    ],
    ..Provision::NONE
};

limits! {
    LOW_INCOME = "ca.limit.nb_reduction" on form_428::REDUCTION, "Low-income reduction of New Brunswick", "shrinks with family income",
        "New Brunswick Income Tax Act; NB428";
}

/// The law of New Brunswick.
#[derive(Debug)]
pub struct NewBrunswick;

impl ProvincialLaw for NewBrunswick {
    common!("NB", "nb", new_brunswick, new_brunswick_relatives, new_brunswick_credits, "nb479" => crate::form_428::form_479);

    fn benefits(figures: &Figures) -> Option<&ProvincialBenefit> {
        Some(&figures.new_brunswick_benefits)
    }

    fn tax(
        on: On<'_>,
        trail: &mut impl Trail,
        incomes: &Incomes,
        taxed: Taxed<'_>,
        shared: &mut Shared,
    ) -> Money {
        let figures = &on.facts.figures.new_brunswick_reduction;
        let of = Reduction {
            full: figures.each * on.adults(),
            income: family_net(on, incomes),
            from: figures.from,
            rate: figures.rate,
        };
        reduced(on, trail, LOW_INCOME.at(on.scope), taxed, of, shared)
    }

    fn points(points: &mut Points<'_>) {
        widowed::told(points);
    }
}
