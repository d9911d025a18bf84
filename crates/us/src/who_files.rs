//! Who must file a return (§6012(a)(1)): where it is at least the standard deduction with the addition for age.

use crate::facts::Facts;
use hembo_money::Money;

/// Whether a filer who is unmarried must file a return of their own. One whom someone can claim is taken to have to.
pub fn must_file(facts: &Facts, filer: usize) -> bool {
    let figures = &facts.figures.standard_deduction;
    let about = &facts.people[filer];
    let aged = about.reached(figures.aged, facts.year_end);
    let addition = if aged { figures.aged_or_blind_unmarried } else { Money::ZERO };
    about.claimable || about.gross_income >= figures.basic.single + addition
}
