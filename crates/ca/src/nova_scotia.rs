//! Nova Scotia (Income Tax Act; NS428): supplements of 2024, the low-income reduction, the age tax credit.

use crate::{
    facts::Facts,
    figures::{Figures, ProvincialBenefit},
    form_428,
    income::{self, Incomes, family_net},
    plan::On,
    points::Points,
    provincial_law::{Changed, ProvincialLaw, Reduction, Shared, Taxed, before_reduction, common, reduction},
    rounding::cents,
    widowed, young_children,
};
use hembo_core::{limit, limits, lines, provision::Provision, trail::Trail};
use hembo_money::{Money, Rate};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &[
        "nova_scotia",
        "nova_scotia_relatives",
        "nova_scotia_benefits",
        "nova_scotia_reduction",
        "nova_scotia_age",
        "nova_scotia_supplement",
    ],
    ..Provision::NONE
};

lines! {
    pub AGE_CREDIT = "ca.ns.age", "Age tax credit", "Income Tax Act (Nova Scotia); NS428",
        "From 65 on, off the tax of small taxable incomes.";
}

limits! {
    LOW_INCOME = "ca.limit.ns_reduction" on form_428::REDUCTION, "Low-income reduction of Nova Scotia", "shrinks with family income",
        "Income Tax Act (Nova Scotia); NS428";
}

/// The law of Nova Scotia.
#[derive(Debug)]
pub struct NovaScotia;

impl ProvincialLaw for NovaScotia {
    common!("NS", "ns", nova_scotia, nova_scotia_relatives, nova_scotia_credits, "ns479" => crate::form_428::form_479);

    fn benefits(figures: &Figures) -> Option<&ProvincialBenefit> {
        Some(&figures.nova_scotia_benefits)
    }

    fn changed(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Changed {
        let as_it_stands = Changed::nothing(Self::figures(&on.facts.figures));
        let Some(supplement) = &on.facts.figures.nova_scotia_supplement else { return as_it_stands };
        let above = limit::or_zero(trail, incomes[on.person].taxable - supplement.from);
        let mut left = |full: Money, rate: Rate| limit::or_zero(trail, full - cents(above, rate));
        let basic = left(supplement.basic, supplement.rate);
        Changed {
            basic: as_it_stands.basic + basic,
            age: left(supplement.age, supplement.age_rate),
            others: basic,
        }
    }

    fn tax(
        on: On<'_>,
        trail: &mut impl Trail,
        incomes: &Incomes,
        taxed: Taxed<'_>,
        shared: &mut Shared,
    ) -> Money {
        let (facts, figures) = (on.facts, &on.facts.figures.nova_scotia_reduction);
        let children = if on.who().filer { facts.children_under(figures.child_under) } else { 0 };
        let of = Reduction {
            full: figures.each * on.adults() + figures.child * children,
            income: family_net(on, incomes),
            from: figures.from,
            rate: figures.rate,
        };
        let before = before_reduction(on, trail, taxed);
        // Here the credit for foreign tax stands before the reduction.
        let foreign = taxed.foreign_credit(on, trail, before);
        let reduced = reduction(on, trail, LOW_INCOME.at(on.scope), before - foreign, of, shared);
        let left = before - foreign - reduced;
        let aged = age_credit(on, trail, incomes[on.person].taxable, left);
        let made = [
            (form_428::BEFORE, before),
            (form_428::FOREIGN, foreign),
            (form_428::REDUCTION, reduced),
            (AGE_CREDIT, aged),
        ];
        on.made(trail, form_428::LEFT, left - aged, &made, &[])
    }

    fn jump(facts: &Facts) -> Money {
        let credit = &facts.figures.nova_scotia_age;
        let aged = facts.returns.iter().filter(|&&p| facts.reached(p, credit.age)).count();
        credit.amount * aged as i64
    }

    fn points(points: &mut Points<'_>) {
        young_children::points(points);
        widowed::told(points);
    }
}

/// The age tax credit, of which nothing is left where taxable income comes to its end; at most the tax.
fn age_credit(on: On<'_>, trail: &mut impl Trail, taxable: Money, tax: Money) -> Money {
    let credit = &on.facts.figures.nova_scotia_age;
    if !on.reached(credit.age) {
        return Money::ZERO;
    }
    let below = credit.below - taxable - Money::CENT;
    trail.step(below, !tax.is_zero());
    let full = if below.is_negative() { Money::ZERO } else { credit.amount };
    let taken = limit::lesser(trail, full, tax);
    on.made(
        trail,
        AGE_CREDIT,
        taken,
        &[(income::TAXABLE, taxable)],
        &[("Taxable income below", &credit.below)],
    )
}
