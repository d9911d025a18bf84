//! Who must file a return (§6012(a)(1)): where it is at least the standard deduction with the addition for age.

use crate::facts::Facts;
use hembo_core::settled;
use hembo_money::Money;

/// Whether a filer who is unmarried must file a return of their own. One whom someone can claim is taken to have to.
pub fn must_file(facts: &Facts, filer: usize) -> bool {
    let figures = &facts.figures.standard_deduction;
    let about = &facts.people[filer];
    let aged = about.reached(figures.aged, facts.year_end);
    let addition = if aged { figures.aged_or_blind_unmarried } else { Money::ZERO };
    about.claimable || about.gross_income >= figures.basic.single + addition
}

/// Whether a dependent who is unmarried must file (§6012(a)(1)(C)(i)): unearned income above the least standard deduction, earnings
/// above the basic one, or gross income above the larger of the first and earnings with an amount; a scholarship that is taken as income
/// is earned (Prop. Reg. §1.117-6(h)).
pub fn dependent_must_file(facts: &Facts, person: usize, scholarship: Money) -> bool {
    let figures = &facts.figures.standard_deduction;
    let about = &facts.people[person];
    let earned = settled::or_zero(about.gross_income - about.unearned_alone) + scholarship;
    let basic = figures.basic.single;
    let by_gross =
        settled::lesser(settled::greater(figures.dependent_least, earned + figures.dependent_plus), basic);
    about.unearned_alone > figures.dependent_least
        || earned > basic
        || about.gross_income + scholarship > by_gross
}
