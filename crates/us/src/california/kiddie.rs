//! Tax of a child's unearned income at the parents' rates (R&TC 17041(g); FTB 3800), by the tests of federal Form 8615 with California's
//! amounts.

use super::made;
use crate::{
    kiddie::{self, Applies},
    state_facts::ParentsHere,
    unit::On,
};
use hembo_core::{Trail, limit, lines, provision::Provision, settled};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, figures: &["california_kiddie"], ..Provision::NONE };

lines! {
    pub L1 = "us.ca.3800.1", "Unearned income of the child in California", "R&TC 17041(g); FTB 3800, line 1", "The federal amount with the adjustments of Schedule CA.";
    L5 = "us.ca.3800.5", "Taxed at the parents' rates of California", "FTB 3800, line 5", "What of it is above the limit, up to taxable income.";
    L9 = "us.ca.3800.9", "Tax of California on the parents' income with it", "FTB 3800, line 9", "By the parents' status, with the line 5 of brothers and sisters.";
    L13 = "us.ca.3800.13", "The child's part of the tax of California that it adds", "FTB 3800, line 13", "What the tax is above the parents' own, shared among brothers and sisters.";
    L15 = "us.ca.3800.15", "Tax of California on the rest", "FTB 3800, line 15", "By the child's own rates.";
    pub L18 = "us.ca.3800.18", "Tax of the child in California", "R&TC 17041(g); FTB 3800, line 18", "Both together; the tax at the child's own rates, if that is more.";
}

/// What the tax of a child starts from.
#[derive(Debug, Clone, Copy)]
pub struct Child {
    /// Unearned income.
    pub unearned: Money,
    /// Line 19.
    pub taxable: Money,
}

impl Child {
    /// Line 5; nothing where the form does not apply.
    pub fn taxed_at_parents(self, on: On<'_>) -> Money {
        let limit_of = limit_of(on);
        match kiddie::applies(on, self.unearned, limit_of) {
            Applies::Yes => settled::lesser(settled::or_zero(self.unearned - limit_of), self.taxable),
            _ => Money::ZERO,
        }
    }
}

/// Up to which amount unearned income is taxed at the child's own rates; any where the year has no figures.
pub fn limit_of(on: On<'_>) -> Money {
    on.facts.figures.california_kiddie.as_ref().map_or(Money::LARGEST, |figures| figures.unearned_above)
}

/// Line 18, where the form applies and the parents' return is here; `tax_of` is the tax of a status on an income, `own` that at the child's
/// own rates.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    child: Child,
    own: Money,
    tax_of: impl Fn(crate::filing_status::Status, Money) -> Money,
) -> Option<Money> {
    let ParentsHere { status, taxable, tax, siblings } = on.unit.parents_here?;
    let counted = child.taxed_at_parents(on);
    if counted.is_zero() {
        return None;
    }
    made(on, trail, L1, child.unearned, &[], &[("Unearned income", &child.unearned)]);
    let at_parents = made(
        on,
        trail,
        L5,
        counted,
        &[(L1, child.unearned)],
        &[("Not at the parents' rates", &limit_of(on))],
    );
    let all = at_parents + siblings;
    let told: [(&'static str, &dyn ToString); 2] =
        [("Taxable income of the parents", &taxable), ("Line 5 of brothers and sisters", &siblings)];
    let with = made(on, trail, L9, tax_of(status, taxable + all), &[(L5, at_parents)], &told);
    let part = (with - tax).in_proportion(at_parents, all, Money::WHOLE, Rounding::HalfUp);
    let part = made(on, trail, L13, part, &[(L9, with)], &[("Tax of the parents", &tax)]);
    let rest = child.taxable - at_parents;
    let on_rest = made(
        on,
        trail,
        L15,
        tax_of(on.unit.status, rest),
        &[(L5, at_parents)],
        &[("The rest of taxable income", &rest)],
    );
    let tax = limit::greater(trail, part + on_rest, own);
    Some(made(on, trail, L18, tax, &[(L13, part), (L15, on_rest)], &[("At the child's own rates", &own)]))
}
