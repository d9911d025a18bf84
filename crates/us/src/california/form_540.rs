//! Form 540 from federal adjusted gross income to the balance, in the order of the law's computation.

use super::{
    adjustments::{self, Adjusted, L17},
    cover, credits, earned_income, exemptions, form_540nr,
    itemized::{self, Deducted, L18},
    kiddie, made, minimum_tax, papers, payments,
    tax::{self, L19},
};
use crate::{income, state_facts::ParentsHere, unit::On};
use hembo_core::{Silent, Trail, limit, lines, provision::Provision};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, ..Provision::NONE };

lines! {
    L13 = "us.ca.540.13", "Federal adjusted gross income", "Form 540, line 13", "Of the federal return.";
}

/// Whether a return of California is prepared: asked for, in the state, in a year whose figures are here; of a dependent where one is due,
/// or tax of the state was paid.
pub fn is_prepared(on: On<'_>) -> bool {
    on.facts.of_state.is_some() && (on.unit.main || is_own(on))
}

/// Whether a dependent has a return of California: of who lived there all year.
fn is_own(on: On<'_>) -> bool {
    let person = on.unit.people[0];
    let scholarship = cover::scholarship_of(on.unit, person);
    if on.unit.of_state.with_parents {
        return false;
    }
    let gross = on.facts.people[person].gross_income + scholarship;
    let is_due = gross > cover::free_of_dependent(on.facts, person, scholarship);
    !form_540nr::is_filed(on) && (is_due || papers::is_paid(&on.facts.people[person].own))
}

/// A return down to line 31.
struct Front {
    adjusted: Adjusted,
    deducted: Deducted,
    /// California adjusted gross income less the deduction.
    before: Money,
    taxable: Money,
    /// Line 31 without the tax on children's income that is spared.
    regular: Money,
    child: kiddie::Child,
}

/// Lines 13 to 31.
fn front(on: On<'_>, trail: &mut impl Trail, income: &income::Income, earned: Money) -> Front {
    made(on, trail, L13, income.agi, &[(income::AGI, income.agi)], &[]);
    let adjusted = adjustments::reckon(on, trail, income);
    let deducted = itemized::reckon(on, trail, income, earned);
    let before = adjusted.agi - deducted.taken;
    let taxable = limit::or_zero(trail, before);
    made(on, trail, L19, taxable, &[(L17, adjusted.agi), (L18, deducted.taken)], &[]);
    let child = kiddie::Child { unearned: income.unearned + adjusted.agi - income.agi, taxable };
    let regular = tax::reckon(on, trail, child, adjusted.children.tax);
    Front { adjusted, deducted, before, taxable, regular, child }
}

/// What a parent's return has for the form of a child's unearned income; `siblings` is what other children's have of it.
pub fn as_parents(
    on: On<'_>,
    income: &income::Income,
    earned: Money,
    siblings: Money,
) -> Option<ParentsHere> {
    let front = is_prepared(on).then(|| front(on, &mut Silent, income, earned))?;
    Some(ParentsHere { status: on.unit.status, taxable: front.taxable, tax: front.regular, siblings })
}

/// What of a child's income is taxed at the parents' rates.
pub fn taxed_at_parents(on: On<'_>, income: &income::Income, earned: Money) -> Money {
    if !is_prepared(on) {
        return Money::ZERO;
    }
    front(on, &mut Silent, income, earned).child.taxed_at_parents(on)
}

/// The return of California on top of a federal one, where it is prepared; the result is what the household pays to the state for good. `earned`
/// is what was earned for the federal standard deduction.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &income::Income, earned: Money) -> Money {
    if !is_prepared(on) {
        return Money::ZERO;
    }
    let Front { adjusted, deducted, before, taxable, regular, .. } = front(on, trail, income, earned);
    let exempt = exemptions::reckon(on, trail, income.agi);
    let all = form_540nr::AllYear {
        agi: adjusted.agi,
        deduction: deducted.taken,
        taxable,
        tax: regular + adjusted.children.tax,
        exemptions: exempt,
    };
    let here = form_540nr::reckon(on, trail, all);
    let minimum = minimum_tax::reckon(on, trail, before, deducted, here, income);
    let from = credits::From { federal: income.agi, agi: adjusted.agi, taxable, here, minimum };
    let after = credits::reckon(on, trail, from);
    let services = tax::services(on, trail, here.taxable);
    let paid_out = earned_income::reckon(on, trail, (income, adjusted.children), here.of_credits);
    let penalty = cover::reckon(on, trail, adjusted, income);
    payments::reckon(
        on,
        trail,
        payments::From { agi: adjusted.agi, tax: after, minimum: minimum.tax, services, penalty, paid_out },
    )
}
