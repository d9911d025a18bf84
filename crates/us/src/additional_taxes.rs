//! Other taxes of Schedule 2: Additional Medicare Tax (Form 8959), Net Investment Income Tax (Form 8960), and payroll
//! taxes that an employer could not collect. Their thresholds begin a tax rather than cut a benefit, so they are no
//! limits.

use crate::{
    capital_gains, early_distributions, health_savings, homebuyer_credit, household_employees,
    income::{self, Income},
    minimum_tax::MINIMUM_TAX,
    misclassified_pay, operating_loss,
    papers::w2,
    points::Points,
    schedule_1,
    schedule_a::investment_interest,
    self_employment,
    unit::{Filed, On},
    unreported_tips,
};
use hembo_core::{
    forms::Required,
    limit, lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    points: POINTS,
    figures: &["additional_medicare", "investment_tax"],
    ..Provision::NONE
};

lines! {
    MEDICARE_WAGES = "us.8959.1", "Medicare wages", "IRC §3121(a)",
        "Box 5 of every Form W-2.";
    MEDICARE = "us.8959.18", "Additional Medicare tax", "IRC §3101(b)(2)",
        "A rate on Medicare wages above the threshold.";
    NET_INVESTMENT = "us.8960.12", "Net investment income", "IRC §1411(c)",
        "Interest, dividends and gains, less the early withdrawal penalty.";
    pub INVESTMENT = "us.8960.17", "Net investment income tax", "IRC §1411",
        "A rate on net investment income, or on income above the threshold if less.";
    UNCOLLECTED = "us.sched_2.13", "Payroll tax not collected", "IRC §3102(c)",
        "Box 12 codes A, B, M and N.";
    EXCISE = "us.sched_2.17k", "Excise tax on a parachute payment", "IRC §4999",
        "Box 12 code K.";
    pub L23 = "us.23", "Other taxes", "Schedule 2, line 21",
        "Early distributions, Additional Medicare, net investment income, payroll tax not collected, and the rest of Schedule 2, Part II.";
}

open_points! {
    OPERATING_LOSS = not_covered "172-investment", "Reg. §1.1411-4(h)";
    STATE_TAX = look "8960-9b", "IRC §1411(c)(1)(B)",
        "Any reasonable division is lawful; claim it by hand.";
}

/// Line 23.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Money {
    let medicare = additional_medicare(on, trail);
    let investment = investment(on, trail, income);
    let uncollected = on.gather(trail, UNCOLLECTED, &w2::brings::UNCOLLECTED);
    let excise = on.gather(trail, EXCISE, &w2::brings::EXCISE);
    let tips = unreported_tips::tax(on, trail);
    let unwithheld = misclassified_pay::tax(on, trail);
    let early = early_distributions::reckon(on, trail, income.for_ira);
    let accounts = health_savings::penalty(on, trail);
    let cover_failed = health_savings::failed_tax(on, trail);
    let own = self_employment::tax(on, trail);
    let employees = household_employees::reckon(on, trail);
    let homebuyer = homebuyer_credit::reckon(on, trail);
    let parts = [
        (self_employment::TAX, own),
        (unreported_tips::TAX, tips),
        (misclassified_pay::TAX, unwithheld),
        (early_distributions::TAX, early),
        (household_employees::TAX, employees),
        (homebuyer_credit::REPAID, homebuyer),
        (MEDICARE, medicare),
        (INVESTMENT, investment),
        (UNCOLLECTED, uncollected),
        (health_savings::PENALTY, accounts),
        (health_savings::FAILED_TAX, cover_failed),
        (EXCISE, excise),
    ];
    trail.line(L23, on.scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    })
}

/// Form 8959: 0.9 % of Medicare wages above the threshold, both spouses' together on a joint return.
fn additional_medicare(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.additional_medicare;
    let paid = on.gather(trail, MEDICARE_WAGES, &w2::brings::MEDICARE_WAGES);
    let tips = sum(on.items(&w2::brings::ALLOCATED_TIPS)).to_whole();
    let wages = paid + tips + sum(on.items(&w2::brings::UNWITHHELD_EARNED)).to_whole();
    let from = *figures.from.of(on.unit.status);
    let tax = limit::share_above(trail, wages, from, figures.rate, Money::WHOLE);
    let earned: Money = on.unit.people.iter().map(|&p| self_employment::silent(on, p).net).sum();
    let room = limit::or_zero(trail, from - wages);
    let on_earned = limit::share_above(trail, earned, room, figures.rate, Money::WHOLE);
    let tax = tax + on_earned;
    trail.line(MEDICARE, on.scope, tax, |i| {
        i.line(MEDICARE_WAGES, on.scope, paid)
            .figure("With tips not reported and pay without withholding", wages)
            .figure("Net earnings from self-employment", earned)
            .figure("Above", from)
            .figure("Rate", figures.rate);
    })
}

/// What employers withheld of it: Medicare tax above 1.45 % of Medicare wages, Form 8959 line 24.
pub fn additional_medicare_withheld(on: On<'_>) -> Money {
    let figures = &on.facts.figures.additional_medicare;
    let (tax, wages) = (sum(on.items(&w2::brings::MEDICARE_TAX)), sum(on.items(&w2::brings::MEDICARE_WAGES)));
    // In cents, rounded once: rounding both sides would make a dollar of nothing.
    settled::or_zero(tax - wages.times(figures.regular_rate, Money::CENT, Rounding::HalfUp)).to_whole()
}

/// Form 8960: 3.8 % of net investment income, or of income above the threshold if that is less. A capital loss that is allowed
/// lowers the first (Reg. §1.1411-4(f)(4)).
fn investment(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Money {
    let figures = &on.facts.figures.investment_tax;
    let net = limit::or_zero(trail, income.investment());
    trail.line(NET_INVESTMENT, on.scope, net, |i| {
        i.line(income::INTEREST, on.scope, income.interest)
            .line(income::DIVIDENDS, on.scope, income.dividends)
            .line(capital_gains::L7, on.scope, income.gains.line_7)
            .line(schedule_1::PENALTY, on.scope, income.penalty);
        if !income.rents.invested.is_zero() {
            i.figure("Rents, royalties, passive shares", income.rents.invested);
        }
        if !income.investment_interest.is_zero() {
            i.line(investment_interest::L9, on.scope, income.investment_interest);
        }
        if !income.children.rest.is_zero() {
            i.figure("Children's income", income.children.rest - income.children.fund);
        }
        let property = income.property.ordinary - income.property.not_invested;
        if !property.is_zero() {
            i.figure("Property sold: ordinary, less what is no investment", property);
        }
        if !income.annuities.is_zero() {
            i.figure("Nonqualified annuities", income.annuities);
        }
    });
    let from = *figures.from.of(on.unit.status);
    let above = limit::or_zero(trail, income.agi - from);
    let taxed = limit::lesser(trail, net, above);
    let tax = limit::share(trail, taxed, figures.rate, Money::WHOLE);
    trail.line(INVESTMENT, on.scope, tax, |i| {
        i.line(NET_INVESTMENT, on.scope, net)
            .line(income::AGI, on.scope, income.agi)
            .figure("Above", from)
            .figure("Rate", figures.rate);
    })
}

/// Schedule 2: minimum tax, or any of the other taxes.
pub fn schedule_2(filed: Filed<'_>) -> Required {
    let any = filed.has(MINIMUM_TAX) || filed.has(L23);
    Required::if_so(any, "no minimum tax and no other taxes")
}

/// Form 8959: Medicare wages above the threshold, or more withheld than the ordinary tax.
pub fn form_8959(filed: Filed<'_>) -> Required {
    let from = *filed.on.facts.figures.additional_medicare.from.of(filed.on.unit.status);
    let needed = filed.has(MEDICARE)
        || filed.amount(MEDICARE_WAGES) > from
        || !additional_medicare_withheld(filed.on).is_zero();
    Required::if_so(needed, format!("Medicare wages not above {from:#}"))
}

/// Form 8960: income above the threshold, and net investment income.
pub fn form_8960(filed: Filed<'_>) -> Required {
    let from = *filed.on.facts.figures.investment_tax.from.of(filed.on.unit.status);
    if filed.amount(income::AGI) <= from {
        return Required::No(format!("income not above {from:#}").into());
    }
    Required::if_so(filed.has(NET_INVESTMENT), "no net investment income")
}

/// State tax that may lower the tax on investments is not taken.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
        if let Some(loss) = operating_loss::first(on).filter(|_| !points.amount(INVESTMENT, place).is_zero())
        {
            let place = Place::paper(&points.household.papers[loss.paper].id, "since");
            let message = "What of an operating loss lowers net investment income is not computed yet.";
            points.raise(&OPERATING_LOSS, place, message);
        }
        if unit.itemizes && !points.amount(INVESTMENT, place).is_zero() {
            let message = "State tax on interest may lower the net investment income tax (Form 8960, line 9b); it is not taken.";
            points.raise(&STATE_TAX, points.whose(unit), message);
        }
    }
}
