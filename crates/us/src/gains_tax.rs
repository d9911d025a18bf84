//! The tax on taxable income that holds qualified dividends or a net capital gain (§1(h)): the Qualified Dividends and Capital
//! Gain Tax Worksheet, and where a layer is taxed at 28 % or 25 % the Schedule D Tax Worksheet, of which the other is the part
//! without these layers.

use crate::{
    filing_status::Status,
    gains::Gains,
    tax::on_taxable_income,
    taxable_income,
    unit::{Filed, On, Unit},
};
use hembo_core::{
    forms::Required,
    limit,
    line::LineId,
    lines,
    provision::Provision,
    settled,
    trail::{Trail, Unseen},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, figures: &["capital_gains"], ..Provision::NONE };

lines! {
    GAIN = "us.gains_tax.gain", "Taxed at the rates for gains", "IRC §1(h)(11)",
        "Qualified dividends and the net capital gain, but for its 28 % and 25 % layers.";
    pub ORDINARY = "us.gains_tax.ordinary", "Taxed at the ordinary rates", "IRC §1(h)(1)(A)",
        "The rest of taxable income.";
    pub AT_ZERO = "us.gains_tax.0", "Taxed at 0 %", "IRC §1(h)(1)(B)",
        "What of the gain lies below the end of the zero rate.";
    pub AT_MIDDLE = "us.gains_tax.15", "Taxed at 15 %", "IRC §1(h)(1)(C)",
        "What of the gain lies below the end of the 15 % rate.";
    pub AT_TOP = "us.gains_tax.20", "Taxed at 20 %", "IRC §1(h)(1)(D)",
        "The rest of the gain.";
    AT_25 = "us.gains_tax.25", "Taxed at 25 %", "IRC §1(h)(1)(E)",
        "Unrecaptured section 1250 gain, as far as it is not below the ordinary rates.";
    AT_28 = "us.gains_tax.28", "Taxed at 28 %", "IRC §1(h)(1)(F)",
        "The rest: gain of collectibles.";
    pub BY_WORKSHEET = "us.gains_tax", "Tax by the worksheet", "IRC §1(h)",
        "Each layer at its rate; the tax at the ordinary rates alone, if that is less.";
}

/// What is taxed at each of the rates for gains.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Layers {
    pub zero: Money,
    pub middle: Money,
    pub top: Money,
    pub at_25: Money,
    pub at_28: Money,
}

/// What the worksheets have that the minimum tax and Form 1116 ask for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Worksheet {
    /// Qualified dividends and net gain, without the layers of 28 % and 25 %.
    pub gain: Money,
    /// The same with the layers.
    pub gain_with_layers: Money,
    /// Taxable income without the first.
    pub rest: Money,
    /// Taxed at the ordinary rates.
    pub ordinary: Money,
    /// Unrecaptured section 1250 gain.
    pub section_1250: Money,
    /// What each rate takes; none where the ordinary rates alone take no more.
    pub layers: Option<Layers>,
}

impl Worksheet {
    /// The same with so much less of a net gain.
    pub fn without(self, less: Money) -> Worksheet {
        let of = |amount: Money| settled::or_zero(amount - less);
        Worksheet { gain: of(self.gain), gain_with_layers: of(self.gain_with_layers), ..self }
    }
}

/// The tax on taxable income, and what the minimum tax asks of the worksheet; none where there is nothing at the rates for gains.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    taxable: Money,
    qualified: Money,
    gains: Gains,
) -> (Money, Option<Worksheet>) {
    match by_worksheet(on, trail, taxable, qualified, gains) {
        Some((tax, worksheet)) => (tax, Some(worksheet)),
        None => (on_taxable_income(&on.facts.figures, on.unit.status, taxable), None),
    }
}

/// The tax of a status on taxable income with qualified dividends and gains, where nobody is to see how.
pub fn tax_of(
    on: On<'_>,
    trail: &mut impl Trail,
    status: Status,
    taxable: Money,
    qualified: Money,
    gains: Gains,
) -> Money {
    let unit = Unit::of_one(on.unit.people[0], status);
    let on = On { unit: &unit, ..on };
    let by = by_worksheet(on, &mut Unseen(trail), taxable, qualified, gains);
    by.map_or_else(|| on_taxable_income(&on.facts.figures, status, taxable), |(tax, _)| tax)
}

/// The tax by the worksheet; none where there is nothing at the rates for gains.
fn by_worksheet(
    on: On<'_>,
    trail: &mut impl Trail,
    taxable: Money,
    qualified: Money,
    gains: Gains,
) -> Option<(Money, Worksheet)> {
    let all = qualified + gains.net;
    if all.is_zero() {
        return None;
    }
    let figures = &on.facts.figures.capital_gains;
    let status = on.unit.status;
    let layers = limit::lesser(trail, gains.net, gains.rate_28 + gains.section_1250);
    let gain = all - layers;
    let rest = limit::or_zero(trail, taxable - gain);
    let below_zero_top = limit::lesser(trail, taxable, *figures.zero_up_to.of(status));
    let rest_below = limit::lesser(trail, rest, below_zero_top);
    let without_all = limit::or_zero(trail, taxable - all);
    let below_24 = limit::lesser(trail, taxable, *figures.layers_ordinary_up_to.of(status));
    let rest_below_24 = limit::lesser(trail, rest, below_24);
    let ordinary = limit::greater(trail, without_all, rest_below_24);
    let zero = below_zero_top - rest_below;
    let taxed = limit::lesser(trail, taxable, gain);
    let above_zero = taxed - zero;
    let below_middle_top = limit::lesser(trail, taxable, *figures.middle_up_to.of(status));
    let room = limit::or_zero(trail, below_middle_top - ordinary - zero);
    let middle = limit::lesser(trail, above_zero, room);
    let top = limit::or_zero(trail, above_zero - middle);
    let at_25 = layer_25(trail, taxable, gains, all + ordinary);
    let at_28 =
        if gains.rate_28.is_zero() { Money::ZERO } else { taxable - ordinary - zero - middle - top - at_25 };
    let bands: [(LineId, Money, Rate); 4] = [
        (AT_MIDDLE, middle, figures.middle_rate),
        (AT_TOP, top, figures.top_rate),
        (AT_25, at_25, figures.section_1250_rate),
        (AT_28, at_28, figures.collectibles_rate),
    ];
    let by_bands: Money =
        bands.iter().map(|&(_, amount, rate)| amount.times(rate, Money::WHOLE, Rounding::HalfUp)).sum();
    let by_ordinary = on_taxable_income(&on.facts.figures, status, ordinary);
    let alone = on_taxable_income(&on.facts.figures, status, taxable);
    let tax = limit::lesser(trail, by_bands + by_ordinary, alone);
    trail.line(GAIN, on.scope, gain, |i| {
        i.figure("Qualified dividends", qualified).figure("Net capital gain", gains.net);
    });
    trail.line(ORDINARY, on.scope, ordinary, |i| {
        i.line(taxable_income::L15, on.scope, taxable).line(GAIN, on.scope, gain);
    });
    let shown = [(AT_ZERO, zero)].into_iter().chain(bands.iter().map(|&(line, amount, _)| (line, amount)));
    for (line, amount) in shown.clone() {
        trail.line(line, on.scope, amount, |i| {
            i.line(GAIN, on.scope, gain).line(ORDINARY, on.scope, ordinary);
        });
    }
    trail.line(BY_WORKSHEET, on.scope, tax, |i| {
        i.line(ORDINARY, on.scope, ordinary).figure("Tax on that", by_ordinary);
        for (line, amount) in shown.filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
        i.figure("Tax at the ordinary rates alone", alone);
    });
    let layers = Some(Layers { zero, middle, top, at_25, at_28 }).filter(|_| tax < alone);
    let section_1250 = gains.section_1250;
    Some((tax, Worksheet { gain, gain_with_layers: all, rest, ordinary, section_1250, layers }))
}

/// Schedule D Tax Worksheet lines 35 to 39.
fn layer_25(trail: &mut impl Trail, taxable: Money, gains: Gains, all_and_ordinary: Money) -> Money {
    let section_1250 = limit::lesser(trail, gains.net, gains.section_1250);
    let over = limit::or_zero(trail, all_and_ordinary - taxable);
    limit::or_zero(trail, section_1250 - over)
}

/// The worksheet: where something is taxed at the rates for gains.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(GAIN), "no qualified dividends, no net capital gain")
}
