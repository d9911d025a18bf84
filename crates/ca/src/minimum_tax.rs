//! The minimum tax (ITA 127.5, form T691): not computed, so it must be told where it may be due.

use crate::{cpp_ei, dividends, federal, figures::Figures, gifts, income, points::Points, rounding::cents};
use hembo_core::{line::LineId, open_points, point::Gather, provision::Provision, settled};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { points: POINTS, figures: &["minimum_tax", "dividends"], ..Provision::NONE };

open_points! {
    MAY_BE_DUE = not_covered "C-92", "ITA 127.5";
}

/// Returns of which the minimum tax may be above the ordinary one.
pub fn points(points: &mut Points<'_>) {
    if points.facts.province.is_none() {
        return;
    }
    for (place, &person) in points.facts.returns.iter().enumerate() {
        let line = |id: LineId| points.amount(id, place);
        if minimum_tax(&points.facts.figures, &line) > line(federal::FEDERAL_TAX) {
            let name = &points.facts.people[person].name;
            let message = format!("Minimum tax (form T691) may be due from {name}: not computed yet.");
            points.raise(&MAY_BE_DUE, points.at(person, "name"), message);
        }
    }
}

/// Whether the minimum tax (ITA 127.5) could be above the ordinary one: as form T691 makes it from what this pack
/// knows, without the credits that would lower it further.
fn minimum_tax(figures: &Figures, line: &impl Fn(&'static str) -> Money) -> Money {
    let figures_of = &figures.minimum_tax;
    let gross_up = line(dividends::ALL) - actual_dividends(figures, line);
    let adjusted =
        line(income::TAXABLE) + cents(line(cpp_ei::ENHANCED), figures_of.deductions_part) - gross_up;
    let tax = cents(settled::or_zero(adjusted - figures_of.exemption), figures_of.rate);
    let credits = cents(line(federal::FOR_AMOUNTS), figures_of.credits_part);
    settled::or_zero(tax - credits - cents(line(gifts::CREDIT), figures_of.gifts_part))
}

fn actual_dividends(figures: &Figures, line: &impl Fn(&'static str) -> Money) -> Money {
    let (all, other) = (line(dividends::ALL), line(dividends::OTHER));
    let figures = &figures.dividends;
    let actual = |taxable: Money, factor| taxable.divided_by(factor, Money::CENT, Rounding::HalfUp);
    actual(all - other, figures.eligible) + actual(other, figures.other)
}
