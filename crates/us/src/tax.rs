//! The tax on taxable income (§§1, 3), Form 1040 line 16: the Tax Table below 100,000, the schedules from there.

use crate::{figures::Figures, status::Status, unit::On};
use hembo_core::trail::Trail;
use hembo_money::{Money, Rounding};

/// Line 16.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, taxable: Money) -> Money {
    let amount = on_taxable_income(on.facts.figures, on.unit.status, taxable);
    trail.line("us.16", on.scope, amount, |i| {
        let top = on.facts.figures.rates.rates[bracket(on.facts.figures, on.unit.status, taxable)];
        i.line("us.15", on.scope, taxable).figure("Rate on the last dollar", top);
    })
}

/// The tax on taxable income, in whole dollars: by the Tax Table's band where it is below 100,000.
///
/// ```
/// use hembo_money::Money;
/// use hembo_us::{figures::Figures, status::Status, tax::on_taxable_income};
/// let figures = Figures::of(2025).unwrap();
/// assert_eq!(on_taxable_income(figures, Status::Joint, Money::whole(48_480)), Money::whole(5_340));
/// ```
pub fn on_taxable_income(figures: &Figures, status: Status, taxable: Money) -> Money {
    if taxable >= figures.rates.table_below {
        return by_schedule(figures, status, taxable).to_whole();
    }
    by_schedule(figures, status, table_midpoint(taxable)).to_whole()
}

/// The place of the bracket that holds the last dollar.
fn bracket(figures: &Figures, status: Status, taxable: Money) -> usize {
    figures.rates.tops.of(status).iter().take_while(|&&top| taxable > top).count()
}

/// The rate schedule, to the cent.
fn by_schedule(figures: &Figures, status: Status, taxable: Money) -> Money {
    let tops = figures.rates.tops.of(status);
    let mut tax = Money::ZERO;
    let mut from = Money::ZERO;
    for (i, rate) in figures.rates.rates.iter().enumerate() {
        let top = tops.get(i).copied().unwrap_or(Money::LARGEST);
        let inside = taxable.min(top) - from;
        if inside <= Money::ZERO {
            break;
        }
        tax += inside.times(*rate, Money::CENT, Rounding::HalfUp);
        from = top;
    }
    tax
}

/// The midpoint of the Tax Table's band (Form 1040 instructions): 0 to 5, 5 to 15, 15 to 25, then 25 wide to 3,000,
/// then 50 wide; at least the lower, less than the upper end.
fn table_midpoint(taxable: Money) -> Money {
    let (first, wide) = (Money::whole(25), Money::whole(3_000));
    if taxable < Money::whole(5) {
        return Money::ZERO;
    }
    if taxable < first {
        let low = if taxable < Money::whole(15) { 5 } else { 15 };
        return Money::whole(low + 5);
    }
    let width = if taxable < wide { Money::whole(25) } else { Money::whole(50) };
    let low = taxable.rounded(width, Rounding::Down);
    low + Money::from_cents(width.cents() / 2)
}
