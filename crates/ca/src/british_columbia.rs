//! British Columbia (Income Tax Act, RSBC 1996 c. 215; BC428, BC479): tax reduction, gifts out of the top bracket, sales tax
//! credit and renter's credit.

use crate::{
    facts::Facts,
    figures::{Figures, TopUp},
    form_428,
    income::{self, Incomes, family_net},
    plan::On,
    points::Points,
    provinces,
    provincial_law::{Caring, ProvincialLaw, Reduction, Shared, Taxed, common, reduced},
    widowed,
};
use hembo_core::{
    field::Field,
    limit::{self, PhaseOut},
    limits,
    line::LineId,
    lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    household_questions: &[Field::count(ask::RENTED, "", "Months in a rented home in British Columbia", 12)
        .only_for(provinces::ask::PROVINCE, &["BC"])],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &[
        "british_columbia",
        "british_columbia_relatives",
        "british_columbia_reduction",
        "british_columbia_gifts",
        "british_columbia_sales",
        "british_columbia_renter",
        "workers_benefit",
    ],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const RENTED: &str = "rented_months";
}

lines! {
    SALES = "ca.bc.sales", "Sales tax credit", "Income Tax Act (British Columbia) s. 8; BC479",
        "For each of the family, less a part of family income; refundable.";
    RENTER = "ca.bc.renter", "Renter's credit", "Income Tax Act (British Columbia) s. 13.07; BC479",
        "For a family who rented for half a year or more, less a part of family income; refundable.";
}

limits! {
    LOW_INCOME = "ca.limit.bc_reduction" on form_428::REDUCTION, "Tax reduction of British Columbia", "shrinks with net income",
        "Income Tax Act (British Columbia); BC428";
    SALES_TAX = "ca.limit.bc_sales" on SALES, "Sales tax credit", "shrinks with family income",
        "Income Tax Act (British Columbia); BC479";
    RENT = "ca.limit.bc_renter" on RENTER, "Renter's credit", "shrinks with family income",
        "Income Tax Act (British Columbia); BC479";
}

open_points! {
    RENTED = not_known "bc-renter", "Income Tax Act (British Columbia); BC479",
        "It decides on the renter's credit.";
}

/// The law of British Columbia.
#[derive(Debug)]
pub struct BritishColumbia;

impl ProvincialLaw for BritishColumbia {
    common!("BC", "bc", british_columbia, british_columbia_relatives, british_columbia_credits, "bc479" => form_428::form_479);
    const CARING: Caring = Caring::OneLine;

    fn gifts_from_the_top(figures: &Figures) -> Option<&TopUp> {
        Some(&figures.british_columbia_gifts)
    }

    fn tax(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, taxed: Taxed<'_>, _: &mut Shared) -> Money {
        let figures = &on.facts.figures.british_columbia_reduction;
        let of = Reduction {
            full: figures.most,
            income: incomes[on.person].net,
            from: figures.from,
            rate: figures.rate,
        };
        // Each person's own: nothing of it is shared.
        reduced(on, trail, LOW_INCOME.at(on.scope), taxed, of, &mut None)
    }

    fn paid_out(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Vec<(LineId, Money)> {
        vec![(SALES, sales_tax(on, trail, incomes)), (RENTER, renter(on, trail, incomes))]
    }

    fn points(points: &mut Points<'_>) {
        rented(points);
        family_of_death(points);
    }
}

/// Whether this return has what a family has once: of a couple the first's, or that of who outlived the other.
fn has_it(on: On<'_>) -> bool {
    let facts = on.facts;
    match facts.deceased() {
        Some(deceased) => deceased != on.person,
        None => facts.partner(on.person).is_none() || facts.filers[0] == on.person,
    }
}

/// The sales tax credit: of 19 or over, or with a partner or a child.
fn sales_tax(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let facts = on.facts;
    let figures = &facts.figures.british_columbia_sales;
    let couple = facts.partner_at_end(on.person).is_some();
    let of_age = on.reached(facts.figures.workers_benefit.age);
    let parent = on.who().filer && facts.children_under(facts.figures.workers_benefit.age) > 0;
    if !has_it(on) || !(of_age || couple || parent) {
        return Money::ZERO;
    }
    let (full, from) = match couple {
        true => (figures.each * 2, figures.from_couple),
        false => (figures.each, figures.from_alone),
    };
    let family = family_net(on, incomes);
    let rule = PhaseOut::continuous(from, figures.rate, Money::CENT);
    let allowed = limit::phase_out(trail, SALES_TAX.at(on.scope), full, family, rule);
    on.made(
        trail,
        SALES,
        allowed,
        &[(income::NET, incomes[on.person].net)],
        &[("Net income of the family", &family)],
    )
}

/// The renter's credit.
fn renter(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let figures = &on.facts.figures.british_columbia_renter;
    let rents = on.facts.rented_months >= figures.months;
    if !rents || !has_it(on) || !on.who().filer {
        return Money::ZERO;
    }
    let family = family_net(on, incomes);
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    let allowed = limit::phase_out(trail, RENT.at(on.scope), figures.most, family, rule);
    on.made(
        trail,
        RENTER,
        allowed,
        &[(income::NET, incomes[on.person].net)],
        &[("Net income of the family", &family)],
    )
}

/// Whether who died of a couple could have had what a family has once.
fn family_of_death(points: &mut Points<'_>) {
    let facts = points.facts;
    let Some(deceased) = facts.deceased() else { return };
    let sales = &facts.figures.british_columbia_sales;
    let family = income::family_shown(points, deceased);
    let of_sales = sales.from_couple + (sales.each * 2).divided_by(sales.rate, Money::WHOLE, Rounding::Up);
    let rented = facts.rented_months >= facts.figures.british_columbia_renter.months;
    if family < of_sales || (rented && family < renter_gone(facts)) {
        widowed::told(points);
    }
}

/// The income from which nothing is left of the renter's credit.
fn renter_gone(facts: &Facts) -> Money {
    let figures = &facts.figures.british_columbia_renter;
    figures.from + figures.most.divided_by(figures.rate, Money::WHOLE, Rounding::Up)
}

/// Whether the family rented, where that may bring something.
fn rented(points: &mut Points<'_>) {
    let family = points.facts.filers.iter().map(|&filer| income::family_shown(points, filer)).min();
    let gone = renter_gone(points.facts);
    if points.answered(ask::RENTED).is_none() && family.is_some_and(|family| family < gone) {
        let message = "For how many months did the family rent its home?";
        points.raise(&RENTED, Place::household(ask::RENTED), message);
    }
}
