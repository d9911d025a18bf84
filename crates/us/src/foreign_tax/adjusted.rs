//! What Form 1116 counts of qualified dividends and gains, which are taxed at lower rates (§904(b)(2)(B)).

use crate::{
    bringing,
    figures::CountedAt,
    gains_tax::{Layers, Worksheet},
    unit::{ForeignTax, On},
};
use hembo_core::reading::sum;
use hembo_money::{Money, Rate, Rounding};

/// The rates at which gains are taxed, each with what of it is left out.
fn layers(layers: Layers, counted: &CountedAt) -> [(Money, Rate); 5] {
    [
        (layers.zero, Rate::ONE),
        (layers.middle, Rate::ONE - counted.middle),
        (layers.top, Rate::ONE - counted.top),
        (layers.at_25, Rate::ONE - counted.at_25),
        (layers.at_28, Rate::ONE - counted.at_28),
    ]
}

/// What line 18 leaves out: of all that is taxed at these rates.
pub fn left_out(of: Layers, counted: &CountedAt) -> Money {
    let part = |(amount, rate): (Money, Rate)| amount.times(rate, Money::WHOLE, Rounding::HalfUp);
    layers(of, counted).into_iter().map(part).sum()
}

/// What line 1a leaves out of qualified dividends from abroad, which are taken to be taxed at each rate in proportion.
pub fn left_out_abroad(qualified: Money, of: Layers, counted: &CountedAt) -> Money {
    let all = of.zero + of.middle + of.top;
    if all.is_zero() {
        return Money::ZERO;
    }
    let part = |(amount, rate): (Money, Rate)| {
        let share = qualified.in_proportion(amount, all, Money::CENT, Rounding::HalfUp);
        share.times(rate, Money::CENT, Rounding::HalfUp)
    };
    let of = Layers { at_25: Money::ZERO, at_28: Money::ZERO, ..of };
    layers(of, counted).into_iter().map(part).sum::<Money>().to_whole()
}

/// The qualified dividends from abroad.
pub fn qualified(on: On<'_>) -> Money {
    sum(on.items(&bringing::brings::FOREIGN_QUALIFIED)).to_whole()
}

/// Whether the return must adjust: few qualified dividends from abroad, and no more than the 24 % bracket at ordinary rates, leave
/// it free.
pub fn must(on: On<'_>, worksheet: &Worksheet) -> bool {
    let figures = &on.facts.figures;
    let most = *figures.capital_gains.layers_ordinary_up_to.of(on.unit.status);
    qualified(on) >= figures.foreign_tax.adjust_from || worksheet.ordinary > most
}

/// What the return adjusts by, if it does: because it must, or because the way chose it.
pub fn layers_of(on: On<'_>, worksheet: Option<&Worksheet>) -> Option<Layers> {
    let worksheet = worksheet?;
    let adjusts = on.unit.foreign_tax == ForeignTax::Adjusted || must(on, worksheet);
    worksheet.layers.filter(|_| adjusts)
}
