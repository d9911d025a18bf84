//! The tax of California on taxable income (R&TC 17041, 17043, 17048): by the Tax Table, above its end by the schedules; the tax for behavioral
//! health services.

use super::{
    kiddie::{self, Child},
    made, parents_election,
};
use crate::{figures::CaliforniaRates, unit::On};
use hembo_core::{Silent, Trail, limit, line::LineId, lines, provision::Provision};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, figures: &["california_rates"], ..Provision::NONE };

lines! {
    pub L19 = "us.ca.540.19", "Taxable income of California", "Form 540, line 19", "California adjusted gross income less the deduction, not below zero.";
    pub L31 = "us.ca.540.31", "Tax of California", "R&TC 17041, 17048", "By the middle of the Tax Table's row, above its end by the schedule.";
    pub L62 = "us.ca.540.62", "Behavioral health services tax", "R&TC 17043", "A part of taxable income above a million, of every status.";
}

/// The amount whose tax the table has in the row of an income; the income itself above the table.
fn of_row(figures: &CaliforniaRates, taxable: Money) -> Money {
    let half = Money::from_cents(50);
    if taxable > figures.table_to || taxable <= Money::ZERO {
        return taxable;
    }
    if taxable <= figures.first_row {
        return Money::from_cents(figures.first_row.cents() / 2) + half;
    }
    let low = figures.first_row
        + (taxable - figures.first_row - Money::whole(1)).rounded(figures.row, Rounding::Down);
    let high = low + figures.row;
    let high = if high > figures.table_to { figures.table_to } else { high };
    Money::from_cents((low + Money::whole(1) + high).cents() / 2)
}

/// The tax on an income, in whole dollars.
pub fn on_taxable(figures: &CaliforniaRates, status: crate::filing_status::Status, taxable: Money) -> Money {
    let counted = of_row(figures, taxable);
    limit::by_brackets(&mut Silent, counted, figures.tops.of(status), figures.brackets.iter().copied())
        .to_whole()
}

/// Line 31 without the tax on children's income that is spared, which the line has too; of a child with unearned income by the parents' rates.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, child: Child, of_children: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_rates else { unreachable!("prepared with its figures") };
    let taxable = child.taxable;
    let tax = on_taxable(figures, on.unit.status, taxable);
    let of_status = |status, taxable| on_taxable(figures, status, taxable);
    if let Some(tax) = kiddie::reckon(on, trail, child, tax, of_status) {
        return made(on, trail, L31, tax, &[(kiddie::L18, tax)], &[]);
    }
    let counted = of_row(figures, taxable);
    let mut from = vec![(L19, taxable)];
    if !of_children.is_zero() {
        from.push((parents_election::L9, of_children));
    }
    made(on, trail, L31, tax + of_children, &from, &[("Taxed as", &counted)]);
    tax
}

/// Line 62, on taxable income with its line.
pub fn services(on: On<'_>, trail: &mut impl Trail, taxable: (LineId, Money)) -> Money {
    let Some(figures) = &on.facts.figures.california_rates else { return Money::ZERO };
    let tax =
        limit::share_above(trail, taxable.1, figures.services_from, figures.services_rate, Money::WHOLE);
    made(on, trail, L62, tax, &[taxable], &[("Above", &figures.services_from)])
}
