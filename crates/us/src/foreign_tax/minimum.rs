//! The foreign tax credit of the minimum tax (§59(a)): Form 1116 once more, with what the minimum tax counts.

use super::{CARRY_MINIMUM, Credited, MINIMUM_CREDIT, adjusted, brings, part_of};
use crate::{gains_tax::Layers, unit::On};
use hembo_core::{limit, line::LineId, reading::sum, trail::Trail};
use hembo_money::{Money, Rounding};

/// What the limit is worked out from.
#[derive(Debug, Clone, Copy)]
pub struct Minimum {
    /// Form 6251 line 4, and the line that has it.
    pub income: (LineId, Money),
    /// Form 6251 line 7, and the line that has it.
    pub tax: (LineId, Money),
    /// Form 6251 line 17: what is taxed at the two rates of the minimum tax.
    pub ordinary: Money,
    /// What is taxed at the rates for gains; none where they take no less.
    pub layers: Option<Layers>,
}

/// Form 6251 line 8.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, regular: Credited, from: Minimum) -> Money {
    let Some(form) = regular.form else {
        return trail.line(MINIMUM_CREDIT, on.scope, regular.credit, |i| {
            i.figure("Credited without Form 1116", regular.credit);
        });
    };
    let figures = &on.facts.figures;
    let counted = &figures.rate_differential.minimum;
    let over = from.ordinary - *figures.minimum_tax.high_from.of(on.unit.status);
    trail.step(over - Money::CENT, true);
    let layers = adjusted::layers_of(on, form.must_adjust || over > Money::ZERO, from.layers);
    let left_out = |of: &dyn Fn(Layers) -> Money| layers.map_or(Money::ZERO, of);
    let abroad = left_out(&|layers| adjusted::left_out_abroad(adjusted::qualified(on), layers, counted));
    let everywhere = left_out(&|layers| adjusted::left_out(layers, counted));
    let taxable = limit::or_zero(trail, form.income - abroad - form.deductions);
    let part = part_of(taxable, from.income.1 - everywhere, figures.foreign_tax.ratio_places);
    let most = from.tax.1.times(part, Money::WHOLE, Rounding::HalfUp);
    let carried = sum(on.items(&brings::CARRIED_MINIMUM)).to_whole();
    let credit = limit::lesser(trail, form.paid + carried, most);
    trail.line(MINIMUM_CREDIT, on.scope, credit, |i| {
        i.figure("Paid", form.paid)
            .figure("Carried here", carried)
            .figure("Foreign-source income", taxable)
            .line(from.income.0, on.scope, from.income.1)
            .figure("Left out for the lower rates", everywhere)
            .line(from.tax.0, on.scope, from.tax.1);
    });
    trail.line(CARRY_MINIMUM, on.scope, form.paid + carried - credit, |i| {
        i.figure("Paid", form.paid).figure("Carried here", carried).line(MINIMUM_CREDIT, on.scope, credit);
    });
    credit
}
