//! The tax on taxable income (§§1, 3), Form 1040 line 16: by the Tax Table, above its end by the rate
//! schedules.

use crate::{figures::Figures, filing_status::Status, taxable_income, unit::On};
use hembo_core::{Silent, limit, line::LineId, lines, provision::Provision, trail::Trail};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, figures: &["rates"], ..Provision::NONE };

lines! {
    pub L16 = "us.16", "Income tax", "IRC §§1, 3",
        "By the Tax Table, above its end by the rate schedule.";
}

/// What line 16 is made of.
#[derive(Debug, Clone, Copy)]
pub struct Line16 {
    /// Line 15.
    pub taxable: Money,
    /// The tax on it.
    pub tax: Money,
    /// The line of a worksheet or form that gives it, if one does.
    pub by: Option<LineId>,
    /// The tax of children whose income is on this return, with its line.
    pub of_children: (LineId, Money),
}

/// Line 16: by the line of a worksheet or form, else by the Tax Table or the rate schedule, with the tax of children.
pub fn line_16(on: On<'_>, trail: &mut impl Trail, from: Line16) -> Money {
    let Line16 { taxable, tax, by, of_children: (children, of_children) } = from;
    trail.line(L16, on.scope, tax + of_children, |i| {
        i.line(taxable_income::L15, on.scope, taxable);
        if !of_children.is_zero() {
            i.line(children, on.scope, of_children);
        }
        if let Some(line) = by {
            i.line(line, on.scope, tax);
            return;
        }
        let top = on.facts.figures.rates.rates[bracket(&on.facts.figures, on.unit.status, taxable)];
        i.figure("Rate on the last dollar", top);
        i.working(in_words(&on.facts.figures, on.unit.status, taxable));
    })
}

/// How the tax is worked out; the Tax Table takes the middle of its band.
fn in_words(figures: &Figures, status: Status, taxable: Money) -> String {
    let tops = figures.rates.tops.of(status);
    let by = |base: Money| limit::brackets_in_words(base, tops, figures.rates.rates.iter().copied());
    match table_midpoint(figures, taxable) {
        Some(middle) => format!("Tax Table, middle of the band {middle:#}: {}", by(middle)),
        None => by(taxable),
    }
}

/// The tax on taxable income, in whole dollars: by the Tax Table's band as far as the table goes.
///
/// ```
/// use hembo_money::Money;
/// use hembo_us::{figures::Figures, filing_status::Status, tax::on_taxable_income};
/// let figures = Figures::of(2025).unwrap();
/// assert_eq!(on_taxable_income(figures, Status::Joint, Money::whole(48_480)), Money::whole(5_340));
/// ```
pub fn on_taxable_income(figures: &Figures, status: Status, taxable: Money) -> Money {
    let counted = table_midpoint(figures, taxable).unwrap_or(taxable);
    limit::by_brackets(
        &mut Silent,
        counted,
        figures.rates.tops.of(status),
        figures.rates.rates.iter().copied(),
    )
    .to_whole()
}

/// The place of the bracket that holds the last dollar.
fn bracket(figures: &Figures, status: Status, taxable: Money) -> usize {
    figures.rates.tops.of(status).iter().take_while(|&&top| taxable > top).count()
}

/// The midpoint of the Tax Table's band (Form 1040 instructions), which is at least the band's lower end and less
/// than its upper end; none where the schedules apply.
fn table_midpoint(figures: &Figures, taxable: Money) -> Option<Money> {
    let mut from = Money::ZERO;
    for band in &figures.rates.table {
        if taxable < band.below {
            let low = from + (taxable - from).rounded(band.width, Rounding::Down);
            return Some(low + Money::from_cents(band.width.cents() / 2));
        }
        from = band.below;
    }
    None
}
