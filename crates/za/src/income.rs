//! From all income to taxable income (s1, s20, s26A, s11F, s18A).

use crate::{
    carried, certificates, donations, foreign_pay, gains, home_office, investments, other, plan::On,
    points::Points, rental, retirement, trade, travel,
};
use hembo_core::{
    limit, lines, open_points,
    outcome::{CarriedTo, Carry},
    point::Gather,
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Income",
    lines: LINES,
    points: POINTS,
    figures: &["scale"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    BEFORE_LOSSES = "za.income.before_losses", "Income with the capital gain", "s1 'income', s26A",
        "All income less what is exempt and what is deducted, with the taxable gain.";
    pub USED = "za.assessed_loss_used", "Assessed loss of earlier years", "s20(1)(a)",
        "As much as income takes.";
    CARRIED = "za.assessed_loss_cf", "Assessed loss carried", "s20(1)(a)",
        "What is left, and a loss of this year.";
    pub BEFORE = "za.income_before_deductions", "Income before contributions and gifts", "s11F, s18A",
        "Result A: with the capital gain, after losses.";
    pub TAXABLE = "za.taxable_income", "Taxable income", "s1 'taxable income'",
        "After contributions and gifts, the cents dropped.";
}

const CARRIES: &[Carry] = &[
    Carry { line: CARRIED, paper: carried::PAPER, into: CarriedTo::Box("loss") },
    Carry { line: TAXABLE, paper: carried::PAPER, into: CarriedTo::Told("taxable") },
    Carry { line: gains::TAXABLE, paper: carried::PAPER, into: CarriedTo::Told("gain") },
];

open_points! {
    RING_FENCED = not_covered "C48", "s20A";
}

/// The income of a return.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Income {
    pub taxable: Money,
    /// Contributions and gifts that were deducted.
    pub deducted: Money,
    /// Gross income less what is exempt, before deductions.
    pub gross: Money,
    /// Of foreign sources.
    pub foreign: Money,
    /// Taxable amounts that are no remuneration and ask for provisional tax.
    pub unpaid: Money,
    pub has_trade: bool,
}

/// Result A to taxable income.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Income {
    let pay = certificates::reckon(on, trail);
    let abroad = foreign_pay::reckon(on, trail);
    let invested = investments::reckon(on, trail);
    let lets = rental::reckon(on, trail);
    let traded = trade::reckon(on, trail);
    let (other, other_deductions) = other::reckon(on, trail);
    let by_travel = travel::reckon(on, trail, pay.travel_allowance);
    let room = home_office::reckon(on, trail);
    let gained = gains::reckon(on, trail);
    let all = [
        (certificates::TAXABLE, pay.taxable),
        (foreign_pay::PAY, abroad.pay),
        (foreign_pay::EXEMPT, -abroad.exempt),
        (investments::INTEREST, invested.interest),
        (investments::INTEREST_EXEMPT, -invested.interest_exempt),
        (investments::INTEREST_FOREIGN, invested.interest_foreign),
        (investments::DIVIDENDS_TAXABLE, invested.dividends_taxable),
        (investments::PROPERTY, invested.property),
        (rental::NET, lets.net),
        (trade::NET, traded.net),
        (other::INCOME, other),
        (other::DEDUCTIONS, -other_deductions),
        (travel::CLAIM, -by_travel),
        (home_office::DEDUCTED, -room),
        (gains::TAXABLE, gained.taxable),
    ];
    let before_losses = on.add(trail, BEFORE_LOSSES, &all);
    let before = losses(on, trail, before_losses);
    let contributions = retirement::reckon(on, trail, [pay.remuneration, abroad.pay], before, gained.taxable);
    let gifts = donations::reckon(on, trail, before - contributions);
    let left = limit::or_zero(trail, before - contributions - gifts);
    let taxable = left.rounded(Money::WHOLE, Rounding::Down);
    on.made(
        trail,
        TAXABLE,
        taxable,
        &[(BEFORE, before), (retirement::DEDUCTED, contributions), (donations::DEDUCTED, gifts)],
        &[],
    );
    let interest_taxed = invested.interest - invested.interest_exempt;
    let passive = interest_taxed + invested.interest_foreign + invested.dividends_taxable;
    Income {
        taxable,
        deducted: contributions + gifts,
        gross: pay.taxable + abroad.pay - abroad.exempt
            + passive
            + invested.property
            + lets.rents
            + traded.turnover
            + other,
        foreign: abroad.taxed
            + invested.interest_foreign
            + invested.dividends_taxable
            + lets.foreign
            + traded.foreign
            + gained.abroad,
        unpaid: passive + limit::or_zero(trail, lets.net),
        has_trade: on.own().of(&trade::brings::TRADES).iter().any(|trade| !trade.by_turnover),
    }
}

/// Losses of earlier years, and what is carried; with it result A.
fn losses(on: On<'_>, trail: &mut impl Trail, before: Money) -> Money {
    let brought = carried::of(on, carried::LOSS);
    let positive = limit::or_zero(trail, before);
    let used = limit::lesser(trail, sum(brought), positive);
    if !brought.is_empty() {
        trail.line(USED, on.scope, used, |i| {
            i.items(brought).line(BEFORE_LOSSES, on.scope, before);
        });
    }
    let of_year = limit::or_zero(trail, -before);
    trail.line(CARRIED, on.scope, sum(brought) - used + of_year, |i| {
        i.items(brought).figure("Used", used).figure("Loss of this year", of_year);
    });
    on.made(trail, BEFORE, positive - used, &[(BEFORE_LOSSES, before), (USED, used)], &[])
}

/// Losses beside income of the top bracket.
pub fn points(points: &mut Points<'_>) {
    let top = points.facts.figures.scale.tops.last().copied().unwrap_or_default();
    for (place, person) in points.returns() {
        let loss = [trade::NET, rental::NET].into_iter().any(|line| points.amount(line, place).is_negative());
        if loss && points.amount(TAXABLE, place) > top {
            let message = format!(
                "{}: a loss beside income of the top bracket may be ring-fenced.",
                points.name(person)
            );
            points.raise(&RING_FENCED, points.at(person, "name"), message);
        }
    }
}
