//! From which income on a return of California is due (R&TC 18501), which the penalty for months without cover goes by, too.

use crate::{figures::CaliforniaThresholds, filing_status::Status, unit::On};
use hembo_core::{provision::Provision, settled};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "California, who must file",
    figures: &["california_gross_thresholds", "california_income_thresholds", "california_exemptions"],
    ..Provision::NONE
};

/// The threshold of gross income and that of adjusted gross income, by status, ages and dependents.
pub fn of(on: On<'_>) -> [Money; 2] {
    let figures = &on.facts.figures;
    let tables = (&figures.california_gross_thresholds, &figures.california_income_thresholds);
    let (Some(gross), Some(income)) = tables else { unreachable!("prepared with its figures") };
    [row(on, gross), row(on, income)]
}

fn row(on: On<'_>, table: &CaliforniaThresholds) -> Money {
    let Some(exemptions) = &on.facts.figures.california_exemptions else { return Money::ZERO };
    let is_aged = |&p: &usize| on.facts.people[p].reached(exemptions.aged, on.facts.year_end);
    // Spouses who file apart have the row of both.
    let couple = matches!(on.unit.status, Status::Joint | Status::Separate);
    let both = if couple { &on.facts.filers } else { &on.unit.people };
    let amounts = match (couple, both.iter().filter(|p| is_aged(p)).count()) {
        (false, 0) => &table.alone,
        (false, _) => &table.alone_aged,
        (true, 0) => &table.couple,
        (true, 1) => &table.couple_one_aged,
        (true, _) => &table.couple_aged,
    };
    let least = usize::from(on.unit.status == Status::Surviving);
    let dependents = settled::greater(on.unit.dependents.len(), least);
    amounts[settled::lesser(dependents, amounts.len() - 1)]
}
