//! The minimum tax of California (R&TC 17062; Schedule P (540)): a flat rate on income without what it does not allow.

use super::{
    adjustments::L17,
    form_540nr::{self, Here},
    itemized::{Deducted, L18},
    made,
};
use crate::{incentive_options, income, minimum_tax_items, unit::On};
use hembo_core::{Silent, Trail, limit, limits, lines, provision::Provision, settled};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["california_minimum_tax"], ..Provision::NONE };

lines! {
    INCOME = "us.ca.p.21", "Minimum taxable income", "R&TC 17062", "Taxable income with the standard deduction, or with property taxes, job expenses and other interest; options exercised.";
    EXEMPTION = "us.ca.p.22", "Exemption of the minimum tax", "R&TC 17062", "Less a part of income above a start.";
    pub TENTATIVE = "us.ca.p.24", "Tentative minimum tax", "R&TC 17062", "A flat rate above the exemption.";
    pub L61 = "us.ca.540.61", "Alternative minimum tax of California", "Form 540, line 61", "What the tentative one is above the tax before credits.";
}

limits! {
    PHASE_OUT = "us.ca.limit.minimum_tax" on EXEMPTION, "Exemption of the minimum tax", "less by income above the start", "R&TC 17062";
}

/// What the minimum tax comes to.
#[derive(Debug, Clone, Copy)]
pub struct Minimum {
    /// Line 61.
    pub tax: Money,
    /// The tentative one, below which some credits do not go.
    pub tentative: Money,
}

/// Line 61; `taxable` is line 19, below zero where deductions are more than income.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    taxable: Money,
    deducted: Deducted,
    here: Here,
    of: &income::Income,
) -> Minimum {
    let Some(figures) = &on.facts.figures.california_minimum_tax else {
        unreachable!("prepared with its figures")
    };
    let status = on.unit.status;
    let back = if on.unit.of_state.itemizes {
        let part = settled::or_zero(of.agi).times(figures.medical_part, Money::WHOLE, Rounding::HalfUp);
        let medical = limit::lesser(trail, deducted.medical, part);
        medical + deducted.taxes + deducted.other_loans + deducted.job - deducted.cut
    } else {
        deducted.taken
    };
    let options = incentive_options::reckon(on, &mut Silent);
    let items = minimum_tax_items::reckon(on, &mut Silent, of.gains).sum;
    let amount = taxable + back + options + items;
    made(
        on,
        trail,
        INCOME,
        amount,
        &[(L17, taxable + deducted.taken), (L18, deducted.taken)],
        &[("Added back", &back), ("Options and adjustments", &(options + items))],
    );
    let (full, start) = (*figures.exemption.of(status), *figures.phase_out_from.of(status));
    let rule = limit::PhaseOut::continuous(start, figures.phase_out_rate, Money::WHOLE);
    let exemption = limit::phase_out(trail, PHASE_OUT.at(on.scope), full, amount, rule);
    made(on, trail, EXEMPTION, exemption, &[(INCOME, amount)], &[("Full", &full), ("Less above", &start)]);
    let tentative = limit::share_above(trail, amount, exemption, figures.rate, Money::WHOLE);
    let tentative = of_california(on, trail, tentative, amount, (exemption, back, here));
    let tax = limit::or_zero(trail, tentative - here.tax.1);
    made(on, trail, L61, tax, &[(TENTATIVE, tentative), here.tax], &[]);
    Minimum { tax, tentative }
}

/// The tentative minimum tax; of part-year residents and nonresidents in the proportion of California's minimum taxable income to all of it, with
/// what is added back in the proportion of the deduction.
fn of_california(
    on: On<'_>,
    trail: &mut impl Trail,
    tentative: Money,
    all: Money,
    (exemption, back, here): (Money, Money, Here),
) -> Money {
    if !form_540nr::is_filed(on) {
        return made(on, trail, TENTATIVE, tentative, &[(INCOME, all), (EXEMPTION, exemption)], &[]);
    }
    let part = here.taxable.1 + back.times(here.of_deduction, Money::WHOLE, Rounding::HalfUp);
    let part = {
        let (own, whole) = (limit::or_zero(trail, part), limit::or_zero(trail, all));
        limit::lesser(trail, own, whole)
    };
    let own = if all > Money::ZERO {
        tentative.in_proportion(part, all, Money::WHOLE, Rounding::HalfUp)
    } else {
        Money::ZERO
    };
    let told: &[(&'static str, &dyn ToString)] =
        &[("On all income", &tentative), ("Of it in California", &part)];
    made(on, trail, TENTATIVE, own, &[(INCOME, all), (EXEMPTION, exemption)], told)
}
