//! What Form 1116 counts of qualified dividends and gains, which are taxed at lower rates (§904(b)(2)(B)).

use crate::{
    bringing,
    figures::CountedAt,
    gains_tax::{Layers, Worksheet},
    unit::{ForeignTax, On},
};
use hembo_core::{reading::sum, trail::Trail};
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

/// Whether part of the qualified dividends and gains is from abroad and they fall under several rates: which of them are those from
/// abroad the law does not say.
pub fn divided(qualified: Money, of: Layers) -> bool {
    let layers = [of.zero, of.middle, of.top];
    let several = layers.iter().filter(|layer| !layer.is_zero()).count() > 1;
    several && !qualified.is_zero() && qualified != layers.into_iter().sum()
}

/// What line 1a leaves out of qualified dividends from abroad: at each rate as much of them as of all. That is exact where they are
/// all there are, or all is taxed at one rate; else it blocks.
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
pub fn must(on: On<'_>, trail: &mut impl Trail, worksheet: &Worksheet) -> bool {
    let figures = &on.facts.figures;
    let over = worksheet.ordinary - *figures.capital_gains.layers_ordinary_up_to.of(on.unit.status);
    trail.step(over - Money::CENT, true);
    qualified(on) >= figures.foreign_tax.adjust_from || over > Money::ZERO
}

/// What the return adjusts by, if it does: because it must, or because the way chose it where the law says how.
pub fn layers_of(on: On<'_>, must: bool, layers: Option<Layers>) -> Option<Layers> {
    let chosen = on.unit.foreign_tax == ForeignTax::Adjusted;
    layers.filter(|layers| must || (chosen && !divided(qualified(on), *layers)))
}
