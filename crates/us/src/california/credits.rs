//! Credits of California that are not paid out, in the order of Form 540 lines 40 to 48: care, by codes, renters.

use super::{
    adjustments::L17,
    adoption_costs, code_credits, college_access, earlier_minimum_tax,
    form_540nr::{self, Here},
    made,
    minimum_tax::Minimum,
    of_person, other_state_tax,
};
use crate::{care, income, state_facts::Renter, unit::On};
use hembo_core::{Trail, limit, limits, line::LineId, lines, provision::Provision, settled};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &["california_care", "california_renters", "california_part_year"],
    ..Provision::NONE
};

lines! {
    pub L33 = "us.ca.540.33", "Tax after exemption credits", "Form 540, line 33", "Not below zero: what is not used is lost.";
    CARE_OPEN = "us.ca.3506.12", "Care credit, before the tax", "R&TC 17052.6", "A part by federal income of what the federal credit would be without a limit by the tax, for care in California.";
    pub L40 = "us.ca.540.40", "Care credit of California", "R&TC 17052.6; FTB 3506", "As far as the tax takes it, not below the tentative minimum tax.";
    RENTER_OPEN = "us.ca.renter", "Renter's credit, before the tax", "R&TC 17053.5", "By status, where California income is not above the limit and all filers qualify.";
    pub L46 = "us.ca.540.46", "Renter's credit", "R&TC 17053.5", "As far as the tax takes it.";
    pub L44 = "us.ca.540.44", "Credits of other states' tax and carried", "Form 540, lines 44 and 45; Form 540NR, lines 58 to 60", "Codes 187, 188, 197 and 235, after those that are not carried on; on Form 540NR lines 58 to 60, in full.";
    L47 = "us.ca.540.47", "Credits of California", "Form 540, line 47", "Lines 40, 43, 44 and 46.";
    pub L48 = "us.ca.540.48", "Tax after credits", "Form 540, line 48", "Line 33 less the credits.";
}

limits! {
    RENTER_MONTHS = "us.ca.limit.renter_months" on RENTER_OPEN, "Renter's credit", "for the months of residence", "R&TC 17053.5";
    CARE_TIER = "us.ca.limit.care_tier" on CARE_OPEN, "Care credit of California", "a part by federal income", "R&TC 17052.6(b)";
    RENTER_INCOME = "us.ca.limit.renter_income" on RENTER_OPEN, "Renter's credit", "none above the limit of income", "R&TC 17053.5";
    CARE_TAX = "us.ca.limit.care" on L40, "Care credit of California", "over the tax, lost", "R&TC 17039";
    RENTER_TAX = "us.ca.limit.renter" on L46, "Renter's credit", "over the tax, lost", "R&TC 17053.5";
}

/// What the credits go by.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Federal adjusted gross income.
    pub federal: Money,
    /// Line 17.
    pub agi: Money,
    /// Line 19.
    pub taxable: Money,
    /// What is taxed in California: tax and exemption credits.
    pub here: Here,
    /// Schedule P.
    pub minimum: Minimum,
}

/// Line 48.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let Here { tax, exemptions, .. } = from.here;
    let after = limit::or_zero(trail, tax.1 - exemptions.1);
    made(on, trail, L33, after, &[tax, exemptions], &[]);
    let open = care_open(on, trail, from.federal);
    let room = settled::or_zero(after - from.minimum.tentative);
    let care = limit::cap(trail, CARE_TAX.at(on.scope), open, room);
    made(on, trail, L40, care, &[(CARE_OPEN, open)], &[("Tax left", &room)]);
    // In the order of R&TC 17039: minimum tax of earlier years down to the tentative one, then what goes below it and is not carried on.
    let earlier = earlier_minimum_tax::reckon(on, trail, room - care, from.minimum.tentative);
    let coded = code_credits::reckon(
        on,
        trail,
        code_credits::From {
            agi: from.agi,
            taxable: from.taxable,
            tax: after,
            line: L33,
            left: after - care - earlier,
            part: from.here.of_credits,
        },
    );
    let left = after - care - earlier - coded;
    let open = renters(on, trail, from.agi);
    let renter = limit::cap(trail, RENTER_TAX.at(on.scope), open, left);
    made(on, trail, L46, renter, &[(RENTER_OPEN, open)], &[("Tax left", &left)]);
    let others = others(on, trail, from.here.income, left - renter, earlier);
    let parts: [(LineId, Money); 4] = [(L40, care), (code_credits::L43, coded), (L44, others), (L46, renter)];
    let all = super::add(on, trail, L47, &parts);
    made(on, trail, L48, after - all, &[(L33, after), (L47, all)], &[])
}

/// Lines 44 and 45: `left` is the tax that all credits without them leave.
fn others(on: On<'_>, trail: &mut impl Trail, income: (LineId, Money), left: Money, earlier: Money) -> Money {
    let elsewhere = other_state_tax::reckon(on, trail, income, left);
    let college = college_access::reckon(on, trail, left - elsewhere);
    let adoption = adoption_costs::reckon(on, trail, left - elsewhere - college);
    let lines = [
        (other_state_tax::CREDIT, elsewhere),
        (earlier_minimum_tax::CREDIT, earlier),
        (adoption_costs::CREDIT, adoption),
        (college_access::CREDIT, college),
    ];
    super::add(on, trail, L44, &lines)
}

/// FTB 3506: a part by tiers of federal income of what the federal credit would be for care within the state.
fn care_open(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_care else { return Money::ZERO };
    let earned = |person| form_540nr::earned_here(on, person);
    let most = form_540nr::is_filed(on).then_some(&earned as &dyn Fn(usize) -> Money);
    let federal = care::within_state(on, agi, most);
    let tier = figures.tops.iter().position(|top| agi <= *top);
    let part = tier.map_or(Rate::ZERO, |at| figures.parts[at]);
    let open = limit::part(trail, CARE_TIER.at(on.scope), federal, part, Money::WHOLE);
    let words = limit::percent(part);
    let told: &[(&'static str, &dyn ToString)] =
        &[("Federal credit before its tax", &federal), ("Part", &words)];
    made(on, trail, CARE_OPEN, open, &[(income::AGI, agi)], told)
}

/// Whether everyone on a return qualifies for the renter's credit but for income; one of two spouses together is enough for the rent.
pub fn rents(on: On<'_>) -> bool {
    let answers = || on.unit.people.iter().map(|&person| of_person(on, person));
    let homeowner = on.facts.of_state.as_ref().is_some_and(|of| of.homeowner);
    !homeowner && answers().any(|of| of.rented == Some(true) && !of.renter_barred)
}

/// The renter's credit for the whole months of residence of who rented, of spouses the longer ones; none where they are fewer than half a year.
fn for_months(on: On<'_>, trail: &mut impl Trail, credit: Money) -> Money {
    let Some(figures) = on.facts.figures.california_part_year.as_ref().filter(|_| form_540nr::is_filed(on))
    else {
        return credit;
    };
    let answers = on.unit.people.iter().map(|&person| of_person(on, person));
    let rented = answers.filter(|of| of.rented == Some(true) && !of.renter_barred);
    let months = rented.map(|of| of.residence.whole).max().filter(|months| *months >= figures.renter_months);
    let months = Money::whole(months.unwrap_or_default());
    let allowed = credit.in_proportion(months, Money::whole(12), Money::WHOLE, Rounding::HalfUp);
    limit::given(trail, RENTER_MONTHS.at(on.scope), limit::Shape::Cap, credit, allowed)
}

/// Line 46 before the tax.
fn renters(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_renters else { return Money::ZERO };
    let status = on.unit.status;
    let of_status = match on.unit.of_state.renter {
        Renter::Own => *figures.credit.of(status),
        Renter::All => figures.credit.joint,
        Renter::Nothing => Money::ZERO,
    };
    let whole = if rents(on) { for_months(on, trail, of_status) } else { Money::ZERO };
    let credit = if agi <= *figures.income.of(status) { whole } else { Money::ZERO };
    limit::given(trail, RENTER_INCOME.at(on.scope), limit::Shape::PhaseOut, whole, credit);
    made(on, trail, RENTER_OPEN, credit, &[(L17, agi)], &[("Income up to", figures.income.of(status))])
}
