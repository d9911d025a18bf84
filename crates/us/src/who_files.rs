//! Gross income, and who must file a return (§6012(a)(1)): where gross income is at least the standard deduction with the addition for age.

use crate::{
    capital_gains, excess_deferrals,
    facts::Facts,
    papers::{dividends, interest, w2},
};
use hembo_core::reading::sum;
use hembo_money::Money;

/// Gross income (§61), as it counts for a dependent (§152(d)(1)(B)) and for who must file.
pub fn gross_income(facts: &Facts, person: usize) -> Money {
    let about = &facts.people[person];
    let own = &about.own;
    let wages = sum(own.of(&w2::brings::WAGES)) + excess_deferrals::excess_of(facts, person);
    let invested = sum(own.of(&interest::brings::INTEREST)) + sum(own.of(&dividends::brings::ORDINARY));
    wages + invested + capital_gains::gross(own) + about.other_gross_income
}

/// Whether a filer who is unmarried must file a return of their own. One whom someone can claim is taken to have to.
pub fn must_file(facts: &Facts, filer: usize) -> bool {
    let figures = &facts.figures.standard_deduction;
    let about = &facts.people[filer];
    let aged = about.reached(figures.aged, facts.year_end);
    let addition = if aged { figures.aged_or_blind_unmarried } else { Money::ZERO };
    about.claimable || gross_income(facts, filer) >= figures.basic.single + addition
}
