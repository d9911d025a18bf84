//! The alternative minimum tax (§§55, 56), Form 6251, of deferral items with incentive options: it adds back state and local taxes or
//! the standard deduction, and counts interest on private activity bonds.

use crate::{
    business, clean_vehicles,
    filing_status::Status,
    foreign_tax::{self, Credited},
    gains::Gains,
    gains_tax::{self, Layers, Worksheet},
    incentive_options, income, minimum_tax_items, operating_loss,
    papers::interest,
    points::Points,
    premium_tax_credit, tax, taxable_income,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    forms::Required,
    limit::{self, PhaseOut},
    limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail, Unseen},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["minimum_tax", "child_minimum_tax", "capital_gains"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: MINIMUM_TAX, paper: "8801", into: CarriedTo::Told("16") }];

lines! {
    INCOME = "us.6251.4", "Minimum taxable income", "IRC §§55(b)(2), 56, 57",
        "Income less the deductions that count here.";
    BEFORE_CREDIT = "us.6251.7", "Minimum tax before the foreign tax credit", "IRC §55(b)(1)(A), (3)",
        "Two rates on what is above the exemption; gains at their own.";
    pub TENTATIVE = "us.6251.9", "Tentative minimum tax", "IRC §55(b)(1)",
        "The same less the foreign tax credit of the minimum tax.";
    pub MINIMUM_TAX = "us.amt", "Alternative minimum tax", "IRC §55(a)",
        "What the tentative minimum tax is above the income tax.";
    pub L17 = "us.17", "Added to the tax", "Schedule 2, line 3",
        "Credits of the dealer or the Marketplace paid back, and alternative minimum tax.";
    pub L18 = "us.18", "Tax before credits", "IRC §26",
        "Income tax with what is added to it.";
}

limits! {
    MINIMUM_TAX_EXEMPTION = "us.limit.minimum_tax" on TENTATIVE, "Minimum tax exemption", "shrinks with income above the threshold",
        "IRC §55(d)(4)";
}

open_points! {
    DEPRECIATION = not_known "6251-2l", "IRC §56(a)(1)",
        "Enter what depreciation is less for the minimum tax on the paper of Form 6251, zero too: it could bring one.";
    SIMPLIFIED = not_weighed "6251-8-simplified", "IRC §59(a)(4)",
        "By election, for all later years too, its limit takes the foreign income of Form 1116: not weighed here.";
    RATES = not_covered "6251-8-rates", "IRC §§59(a), 904(b)(2)(B)";
    CARRIED_WHAT = not_known "6251-8-carried", "IRC §§59(a)(1), 904(c)",
        "Enter what was left for the minimum tax on last year's form, zero too.";
}

/// What the minimum tax starts from.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Form 1040 line 11a.
    pub agi: Money,
    /// Form 1040 line 12e.
    pub taken: Money,
    /// Lines 13a and 13b, but the deduction for seniors, which is not allowed here.
    pub other: Money,
    /// The taxes of Schedule A line 7, or the standard deduction.
    pub added_back: Money,
    /// Form 1040 line 16.
    pub regular: Money,
    /// Schedule 2 line 1z.
    pub repaid: Money,
    /// What line 16 was worked out by, where something is taxed at the rates for gains.
    pub worksheet: Option<Worksheet>,
    /// What a child whose unearned income is taxed at the parents' rates earned (§59(j)).
    pub child_earned: Option<Money>,
    /// A state refund that was income, which is none here (§56(b)(1)(D)).
    pub refund: Money,
    /// Schedule D.
    pub gains: Gains,
    /// Schedule 1 line 8a, which those of the minimum tax replace.
    pub operating_loss: Money,
    /// The foreign tax credit, of which each side has its own.
    pub foreign: Credited,
}

/// What Form 6251 comes to.
#[derive(Debug, Clone, Copy)]
pub struct Minimum {
    /// Line 9.
    pub tentative: Money,
    /// Line 11.
    pub tax: Money,
}

/// Line 11: the tentative minimum tax less the regular tax.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Minimum {
    let figures = &on.facts.figures.minimum_tax;
    let status = on.unit.status;
    let bonds =
        on.owns().map(|(_, own)| sum(own.of(&interest::brings::PRIVATE_ACTIVITY))).sum::<Money>().to_whole();
    let options = incentive_options::reckon(on, trail);
    let items = minimum_tax_items::reckon(on, trail, from.gains);
    let added = bonds + options + items.sum - from.refund;
    let income = from.agi - from.taken - from.other + from.added_back + added + from.operating_loss;
    let income = income - operating_loss::for_minimum_tax(on, trail, income);
    let amti =
        if status == Status::Separate { income + separate_add_back(on, trail, income) } else { income };
    trail.line(INCOME, on.scope, amti, |i| {
        i.line(income::AGI, on.scope, from.agi)
            .line(taxable_income::L12E, on.scope, from.taken)
            .figure("Other deductions", from.other)
            .figure("Taxes or standard deduction added back", from.added_back)
            .figure("Private activity bond interest", bonds)
            .figure("State refund", from.refund);
        if !options.is_zero() {
            i.line(incentive_options::SPREAD, on.scope, options);
        }
        if !from.operating_loss.is_zero() {
            i.line(operating_loss::L8A, on.scope, -from.operating_loss);
        }
        if !items.sum.is_zero() {
            i.figure("Adjustments", items.sum);
        }
    });
    let full = match from.child_earned {
        Some(earned) => {
            settled::lesser(*figures.exemption.of(status), earned + on.facts.figures.child_minimum_tax.plus)
        }
        None => *figures.exemption.of(status),
    };
    let start = *figures.phase_out_from.of(status);
    let rule = PhaseOut::continuous(start, figures.phase_out_rate, Money::WHOLE);
    let exemption = limit::phase_out(trail, MINIMUM_TAX_EXEMPTION.at(on.scope), full, amti, rule);
    let above = limit::or_zero(trail, amti - exemption);
    let taxed = match from.worksheet {
        Some(worksheet) => with_gains(on, trail, above, worksheet.without(items.less_gain)),
        None => Taxed { tax: at_two_rates(on, trail, above), ordinary: above, layers: None },
    };
    let before = trail.line(BEFORE_CREDIT, on.scope, taxed.tax, |i| {
        i.line(INCOME, on.scope, amti).figure("Exemption", exemption);
    });
    let against = foreign_tax::Minimum {
        income: (INCOME, amti),
        tax: (BEFORE_CREDIT, before),
        ordinary: taxed.ordinary,
        layers: taxed.layers,
    };
    let foreign = foreign_tax::against_minimum(on, trail, from.foreign, against);
    let tentative = limit::or_zero(trail, before - foreign);
    trail.line(TENTATIVE, on.scope, tentative, |i| {
        i.line(BEFORE_CREDIT, on.scope, before).line(foreign_tax::MINIMUM_CREDIT, on.scope, foreign);
    });
    let minimum = limit::or_zero(trail, tentative - (from.regular + from.repaid - from.foreign.credit));
    trail.line(MINIMUM_TAX, on.scope, minimum, |i| {
        i.line(TENTATIVE, on.scope, tentative).line(tax::L16, on.scope, from.regular);
    });
    Minimum { tentative, tax: minimum }
}

/// Line 7, and lines 18 and 39: two rates on what is above the exemption.
fn at_two_rates(on: On<'_>, trail: &mut impl Trail, above: Money) -> Money {
    let figures = &on.facts.figures.minimum_tax;
    let high_from = *figures.high_from.of(on.unit.status);
    let low = limit::share(trail, above, figures.low_rate, Money::CENT);
    let more = figures.high_rate - figures.low_rate;
    let high = limit::share_above(trail, above, high_from, more, Money::CENT);
    (low + high).to_whole()
}

/// Line 7, and how it came about.
struct Taxed {
    tax: Money,
    /// Line 17, or all where no gains keep their rates.
    ordinary: Money,
    /// What is taxed at the rates for gains; none where the two rates alone take no more.
    layers: Option<Layers>,
}

/// Part III (§55(b)(3)): qualified dividends and net gains keep their rates here.
fn with_gains(on: On<'_>, trail: &mut impl Trail, above: Money, from: Worksheet) -> Taxed {
    let figures = &on.facts.figures.capital_gains;
    let status = on.unit.status;
    let all = limit::lesser(trail, from.gain + from.section_1250, from.gain_with_layers);
    let gains = limit::lesser(trail, above, all);
    let rest = above - gains;
    let on_rest = at_two_rates(on, &mut Unseen(trail), rest);
    let room_zero = limit::or_zero(trail, *figures.zero_up_to.of(status) - from.rest);
    let gain = limit::lesser(trail, above, from.gain);
    let zero = limit::lesser(trail, room_zero, gain);
    let room_middle = limit::or_zero(trail, *figures.middle_up_to.of(status) - room_zero - from.ordinary);
    let middle = limit::lesser(trail, gain - zero, room_middle);
    let top = gain - zero - middle;
    let layer = if from.section_1250.is_zero() { Money::ZERO } else { above - rest - gain };
    let bands = [(middle, figures.middle_rate), (top, figures.top_rate), (layer, figures.section_1250_rate)];
    let on_bands: Money =
        bands.iter().map(|&(amount, rate)| amount.times(rate, Money::WHOLE, Rounding::HalfUp)).sum();
    let alone = at_two_rates(on, &mut Unseen(trail), above);
    let tax = limit::lesser(trail, on_rest + on_bands, alone);
    let layers = Layers { zero, middle, top, at_25: layer, at_28: Money::ZERO };
    Taxed { tax, ordinary: rest, layers: Some(layers).filter(|_| tax < alone) }
}

/// Schedule 2 lines 1a to 1c: credits that were paid in advance and are paid back.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Repaid {
    pub cover: Money,
    pub new_vehicle: Money,
    pub used_vehicle: Money,
}

impl Repaid {
    /// Line 1z.
    pub fn sum(self) -> Money {
        self.cover + self.new_vehicle + self.used_vehicle
    }
}

/// Line 18: the income tax, the minimum tax, and credits paid back.
pub fn before_credits(
    on: On<'_>,
    trail: &mut impl Trail,
    regular: Money,
    minimum: Money,
    repaid: Repaid,
) -> Money {
    let parts = [
        (premium_tax_credit::EXCESS, repaid.cover),
        (clean_vehicles::NEW_REPAID, repaid.new_vehicle),
        (clean_vehicles::USED_REPAID, repaid.used_vehicle),
    ];
    let added = trail.line(L17, on.scope, minimum + repaid.sum(), |i| {
        i.line(MINIMUM_TAX, on.scope, minimum);
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    });
    trail.line(L18, on.scope, regular + added, |i| {
        i.line(tax::L16, on.scope, regular).line(L17, on.scope, added);
    })
}

/// On a separate return income above the point where the exemption is gone counts a quarter more, up to the
/// exemption (§55(d)(4), last sentence).
fn separate_add_back(on: On<'_>, trail: &mut impl Trail, income: Money) -> Money {
    let figures = &on.facts.figures.minimum_tax;
    let from = figures.separate_add_back_from;
    let added = limit::share_above(trail, income, from, figures.phase_out_rate, Money::WHOLE);
    limit::lesser(trail, added, figures.exemption.separate)
}

/// Form 6251: where the tentative minimum tax is above the tax.
pub fn form_6251(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(MINIMUM_TAX), "the minimum tax is not above the tax")
}

/// What the minimum tax takes for granted, and what it must know.
pub fn points(points: &mut Points<'_>) {
    depreciation(points);
    for (place, unit) in points.units.iter().enumerate() {
        if !unit.foreign_tax.by_form() || points.amount(MINIMUM_TAX, place).is_zero() {
            continue;
        }
        let message = "The foreign tax credit of the minimum tax has its own limit.";
        points.raise(&SIMPLIFIED, points.whose(unit), message);
        let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
        let rates = [gains_tax::AT_ZERO, gains_tax::AT_MIDDLE, gains_tax::AT_TOP];
        if foreign_tax::is_divided(on, rates.map(|rate| points.amount(rate, place))) {
            let message =
                "Of the qualified dividends and gains, which fall under several rates, part is from abroad.";
            points.raise(&RATES, points.whose(unit), message);
        }
        let carried = points.papers(foreign_tax::CARRIED.id);
        let carried: Vec<&Paper> = carried.filter(|paper| points.is_of(paper, &unit.people)).collect();
        for paper in carried {
            for row in paper.rows.iter().filter(|row| !row.cells.contains_key("minimum")) {
                let message = "Is the same left for the minimum tax?";
                points.raise(&CARRIED_WHAT, Place::row(&paper.id, row, "minimum"), message);
            }
        }
    }
}

/// Depreciation of a business, where all of it would bring a minimum tax.
fn depreciation(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let household = points.household;
        let owned = |paper: &&Paper| {
            let mut owners = paper.owners.iter().filter_map(|owner| household.index_of(&owner.person));
            owners.any(|person| unit.people.contains(&person))
        };
        let written_off =
            |paper: &&Paper| paper.kind == business::BUSINESS.id && !paper.amount("13").is_zero();
        let said = household
            .papers
            .iter()
            .any(|paper| paper.kind == minimum_tax_items::ITEMS.id && paper.boxes.contains_key("2l"));
        let all: Vec<&Paper> = household.papers.iter().filter(|p| owned(p) && written_off(p)).collect();
        let Some(first) = all.first().filter(|_| !said) else { continue };
        let sum: Money = all.iter().map(|paper| paper.amount("13")).sum();
        let figures = &points.facts.figures.minimum_tax;
        if points.amount(INCOME, place) + sum <= *figures.exemption.of(unit.status) {
            continue;
        }
        // More income takes from the exemption, too.
        let counted = sum + sum.times(figures.phase_out_rate, Money::WHOLE, Rounding::Up);
        let most = counted.times(figures.high_rate, Money::WHOLE, Rounding::Up);
        let regular = points.amount(L18, place) - points.amount(MINIMUM_TAX, place);
        if points.amount(TENTATIVE, place) + most > regular {
            let message = "Depreciation may be less for the minimum tax.";
            points.raise(&DEPRECIATION, Place::paper(&first.id, "13"), message);
        }
    }
}
