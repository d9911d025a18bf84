//! Income from employment of a person (§§8, 9, 9a, 19 EStG; Anlage N).

use crate::{facts::Facts, plan::Plan, rounding::euros_down, wage, work};
use hembo_core::{
    lines,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { about: "Employment", lines: LINES, figures: &["wages"], ..Provision::NONE };

lines! {
    pub GROSS = "de.gross_wage", "Gross wage (Bruttoarbeitslohn)", "§19(1); Anlage N",
        "Numbers 3 and 10 of every certificate, down to euros.";
    pub EXTRAORDINARY = "de.special_pay", "Of it extraordinary", "§34(2); numbers 10 and 19",
        "Compensation and pay for several years.";
    PENSION = "de.civil_pension", "Of it pensions of an employer (Versorgungsbezüge)", "§19(2); number 8",
        "What is paid for earlier service.";
    FREE = "de.civil_allowance", "Free of these pensions", "§19(2) S.3",
        "A part of the base by the year of the start with its supplement, by months.";
    pub INCOME = "de.wages_income", "Income from employment", "§§9, 9a, 19",
        "The wage less what is free, the lump sum of pensions and work expenses.";
}

/// Income from employment of a person.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Wages {
    pub income: Money,
    /// Of it extraordinary.
    pub extraordinary: Money,
    /// The wage without pensions of an employer: for the relief of old age.
    pub active: Money,
    /// What of the lump sum of wages is not used.
    pub lump_left: Money,
    /// By how much work expenses are above the lump sum; nothing where there is no wage.
    pub above_lump: Option<Money>,
}

/// Income from employment of a person.
pub fn reckon(facts: &Facts, plan: &Plan, trail: &mut impl Trail, person: usize) -> Wages {
    let own = &facts.people[person].own;
    let scope = Scope::Person(person);
    let figures = &facts.figures.wages;
    let items = own.of(&wage::brings::GROSS);
    if items.is_empty() {
        return Wages { lump_left: figures.lump, ..Wages::default() };
    }
    let gross = trail.line(GROSS, scope, euros_down(sum(items)), |i| _ = i.items(items));
    let special = own.of(&wage::brings::EXTRAORDINARY);
    let extraordinary = trail.line(EXTRAORDINARY, scope, euros_down(sum(special)), |i| _ = i.items(special));
    let pensions = own.of(&wage::brings::PENSIONS);
    let paid = || pensions.iter().map(|pension| &pension.paid);
    let civil = trail.line(PENSION, scope, euros_down(sum(paid())), |i| _ = i.items(paid()));
    let free = pensions.iter().map(|pension| pension.free).sum();
    let free = trail.line(FREE, scope, settled::lesser(free, civil), |i| _ = i.items(paid()));
    let lump = settled::lesser(figures.pension_lump, civil - free);
    let active = gross - civil;
    let expenses = work::reckon(facts, plan, trail, person, active);
    let income = active - expenses.taken + civil - free - lump;
    trail.line(INCOME, scope, income, |i| {
        i.line(GROSS, scope, gross).line(FREE, scope, free).figure("Lump sum of pensions", lump);
        i.line(work::TAKEN, scope, expenses.taken);
    });
    Wages {
        income,
        extraordinary,
        active,
        lump_left: expenses.lump_left,
        above_lump: Some(expenses.above_lump),
    }
}
