//! What the figures of each return of California ask for.

use super::{
    adjustments::{self, L17},
    affordability,
    asked::ask,
    choices, cover,
    credits::{self, L48},
    earned_income::L75,
    form_540::is_prepared,
    form_540nr, kiddie, minimum_tax, other_state_tax,
    tax::L31,
};
use crate::{
    business, care,
    facts::Facts,
    filing_status::Status,
    income,
    kiddie::{self as federal, Applies},
    operating_loss,
    papers::w2,
    points::Points,
    schedule_1,
    schedule_a::investment_interest,
    status,
    unit::{On, Unit},
};
use hembo_core::{
    Scope, open_points,
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "California, points of returns",
    points: POINTS,
    figures: &["california_renters", "california_care", "california_earned_income", "kiddie"],
    ..Provision::NONE
};

open_points! {
    BRONZE = look "ca-bronze", "R&TC 61015(b)(1)(B)", "The average bronze premium decides here, and its figure is to be confirmed from the instructions of FTB 3853.";
    TABLE = look "ca-earned-income", "R&TC 17052", "The figures of this credit are to be confirmed: compare it with the printed table of FTB 3514.";
    RENTER = look "ca-renter", "R&TC 17053.5", "Say whether rent was paid for the main home: a credit may be open.";
    CLIFF = look "ca-cliff", "R&TC 17052.6, 17053.5", "A little less income would open a credit: look at what may still be deducted.";
    CARRIED_HERE = look "ca-540nr-credits", "R&TC 17055; Form 540NR, lines 58 to 60", "Codes 188, 197 and 235 are taken in full and not in the proportion of line 38, as the form has it: to be confirmed by its instructions.";
    TIMES = look "ca-540nr-other-tax", "R&TC 18001, 18002; Schedule S", "Of who moved only income of the time in California counts for most states, for Arizona, Oregon and Virginia that of the other time: compare Schedule S.";
    WAGES_ASKED = blocks "ca-540nr-wages", "R&TC 17951; Schedule CA (540NR), column E", "Enter boxes 15 and 16: state wages are what of the pay is of California.";
    PART_ASKED = blocks "ca-540nr-part", "R&TC 17041(b); Schedule CA (540NR), column E", "Enter a line on the paper 'Schedule CA (540NR)', 0 where none of it is of California.";
    PART_LARGE = look "ca-540nr-more", "Schedule CA (540NR), line 27", "More income of California than in all: compare both columns.";
    PART_MINIMUM = not_covered "ca-540nr-minimum-tax", "Schedule P (540NR)";
    APART_HERE = not_weighed "ca-apart", "R&TC 18521(b)", "Spouses of whom one is in the forces, or lived elsewhere all year without income of California, may file apart there though together federally: compare it elsewhere.";
    EXEMPT = look "ca-cover-exempt", "R&TC 61020, 61023", "Ask what cover would have cost (paper 'Cost of cover'), and for a certificate of hardship.";
    MINIMUM = look "ca-540nr-amt", "Schedule P (540NR)", "The minimum tax is divided by minimum taxable income: compare the form.";
    SPOUSE_ASKED = blocks "ca-spouse-itemizes", "R&TC 17073.5; IRC §63(c)(6)(A)", "Say whether the spouse itemizes in California: then this return does, too.";
    HEAD = not_covered "ca-head", "R&TC 17042; Form 540, line 4";
    CHILD = not_covered "ca-3800", "R&TC 17041(g); FTB 3800";
    CHILD_MINIMUM = not_covered "ca-child-amt", "R&TC 17062; IRC §59(j)";
    CHILD_INCOME = not_covered "ca-3803", "R&TC 17041(g); FTB 3803";
    LOSS = not_covered "ca-3805v", "R&TC 17276; FTB 3805V";
    INVESTMENT = not_covered "ca-3526", "FTB 3526";
    COUNTED_PAY = not_weighed "ca-3514-pay", "R&TC 17052; FTB 3514", "Waiver payments within box 1 count for California as they stand in box 16: compare FTB 3514 without them.";
}

/// So little above a limit of income is worth a look.
const NEAR: i64 = 500;

/// Whether an income is a little above one of some limits.
fn is_near(income: Money, limits: &[Money]) -> bool {
    limits.iter().any(|limit| income > *limit && income <= *limit + Money::whole(NEAR))
}

/// What each return asks for.
pub fn points(points: &mut Points<'_>) {
    for place in 0..points.units.len() {
        let unit = &points.units[place];
        let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
        if !is_prepared(on) {
            continue;
        }
        if !unit.main {
            of_child(points, on, place);
        }
        of_amounts(points, on, place);
        not_computed(points, on, place);
        if form_540nr::is_filed(on) {
            of_part_year(points, on, place);
        }
    }
}

/// Whether a child's unearned income is taxed at the parents' rates.
fn of_child(points: &mut Points<'_>, on: On<'_>, place: usize) {
    let [total, agi, here] = [income::TOTAL, income::AGI, L17].map(|line| points.amount(line, place));
    let earned = [income::EARNED, business::L3, schedule_1::PENALTY].map(|line| points.amount(line, place));
    let unearned = total - earned.into_iter().sum::<Money>() + here - agi;
    let person = on.unit.people[0];
    match federal::applies(on, unearned, kiddie::limit_of(on)) {
        // Federally it is asked where there is more than the limit there.
        Applies::Asks(field) if unearned + agi - here <= on.facts.figures.kiddie.unearned_above => {
            federal::asked(points, person, field);
        }
        Applies::Yes if on.unit.parents_here.is_none() && !points.amount(L31, place).is_zero() => {
            let name = points.facts.people[person].name.clone();
            let words = format!("The parents' return of {name} is not here: FTB 3800 is not computed.");
            points.raise(&CHILD, points.whose(on.unit), words);
        }
        _ => {}
    }
    if !points.amount(minimum_tax::L61, place).is_zero() {
        points.raise(&CHILD_MINIMUM, points.whose(on.unit), "Minimum tax of California of a child.");
    }
}

/// What its figures are worth a look for.
fn of_amounts(points: &mut Points<'_>, on: On<'_>, place: usize) {
    let figures = &on.facts.figures;
    let amount = |line| points.amount(line, place);
    let (larger, bronze, penalty) = (amount(cover::LARGER), amount(cover::BRONZE), amount(cover::L92));
    let [earned, tax, income, federal] = [L75, L48, L17, income::AGI].map(amount);
    let renters = figures.california_renters.as_ref().map(|of| *of.income.of(on.unit.status));
    let unsaid = on.unit.people.iter().copied().find(|&p| choices::rented(on, p).is_none());
    let whose = points.whose(on.unit);
    let asked = points.papers(affordability::PAPER.id).next().is_some();
    if penalty > Money::ZERO && !asked {
        points.raise(&EXEMPT, whose.clone(), "An exemption may apply before the penalty is final.");
    }
    if penalty > Money::ZERO && larger > bronze {
        points.raise(&BRONZE, whose.clone(), "The penalty is capped by the average bronze premium.");
    }
    if !earned.is_zero() {
        points.raise(&TABLE, whose.clone(), "California earned income credit.");
    }
    let within = renters.is_some_and(|most| income <= most);
    if let Some(person) = unsaid.filter(|_| on.unit.main && within && tax > Money::ZERO) {
        let name = points.facts.people[person].name.clone();
        points.raise(&RENTER, points.at(person, ask::RENTED), format!("Did {name} pay rent?"));
    }
    let rents = credits::rents(on) && renters.is_some_and(|most| is_near(income, &[most]));
    let cared = on.owns().any(|(_, own)| own.has(&care::brings::BILLS))
        && figures.california_care.as_ref().is_some_and(|of| is_near(federal, &of.tops));
    if rents || cared {
        points.raise(&CLIFF, whose, "Income is a little above the limit of a credit.");
    }
}

/// What the return depends on and is not computed, or not said.
fn not_computed(points: &mut Points<'_>, on: On<'_>, place: usize) {
    let facts = points.facts;
    let Some(of) = &facts.of_state else { return };
    let whose = points.whose(on.unit);
    let has = |line| !points.amount(line, place).is_zero();
    let alone = on.unit.status == Status::Separate && facts.filers.len() == 1;
    if alone && of.spouse_itemizes.is_none() {
        let place = Place::household(ask::SPOUSE_ITEMIZES);
        return points.raise(&SPOUSE_ASKED, place, "Does the spouse itemize in California?");
    }
    let mut found = Vec::new();
    if on.unit.status == Status::Head && status::head_by_nonresident(facts, on.unit.people[0]) {
        found.push((&HEAD, "Head of household by a nonresident spouse is none in California."));
    }
    if !on.unit.elected.is_empty() && form_540nr::is_filed(on) {
        let words = "A child's income on the parents' federal return: FTB 3803 of part-year residents is not computed.";
        found.push((&CHILD_INCOME, words));
    }
    if has(operating_loss::L8A) {
        found.push((&LOSS, "Operating losses of California are not computed."));
    }
    if on.unit.of_state.itemizes && is_investment_interest_other(points, place) {
        found.push((&INVESTMENT, "Investment interest beside bonds that California taxes otherwise."));
    }
    if counts_pay(facts, on.unit) && within_earned_income(points, facts, place) {
        found.push((&COUNTED_PAY, "Waiver payments within wages may be left out for the California credit."));
    }
    for (def, words) in found {
        points.raise(def, whose.clone(), words);
    }
}

/// Whether interest of bonds that California taxes otherwise moves how much investment interest is deducted: without that of the United States
/// there may be too little income for it, with that of other states more than federally.
fn is_investment_interest_other(points: &Points<'_>, place: usize) -> bool {
    let amount = |line| points.amount(line, place);
    let [paid, deducted, income] =
        [investment_interest::ALL, investment_interest::L9, investment_interest::NET].map(amount);
    let too_little =
        deducted > income - amount(adjustments::TREASURY) && !amount(adjustments::TREASURY).is_zero();
    let more = paid > deducted && !amount(adjustments::OTHER_STATES).is_zero();
    !deducted.is_zero() && too_little || more
}

/// Whether someone on a return has waiver payments within wages: how they stand in state wages is not known.
fn counts_pay(facts: &Facts, unit: &Unit) -> bool {
    unit.people.iter().any(|&p| facts.people[p].own.has(&w2::brings::WAIVER_IN_WAGES))
}

/// Whether federal income is within the limit of the earned income credit.
fn within_earned_income(points: &Points<'_>, facts: &Facts, place: usize) -> bool {
    let figures = facts.figures.california_earned_income.as_ref();
    figures.is_some_and(|of| points.amount(income::AGI, place) <= of.most)
}

/// What Form 540NR needs: column E for every line of income.
fn of_part_year(points: &mut Points<'_>, on: On<'_>, place: usize) {
    let whose = points.whose(on.unit);
    let lacks = form_540nr::KINDS.iter().filter(|kind| form_540nr::lacks(on, points.trail, kind));
    let lacks: Vec<&str> = lacks.map(|kind| kind.label).collect();
    if !lacks.is_empty() {
        let paper = points.papers(form_540nr::PAPER.id).find(|paper| points.is_of(paper, &on.unit.people));
        let at = paper.map_or(whose.clone(), |paper| Place::paper(&paper.id, "amount"));
        points.raise(&PART_ASKED, at, format!("How much is of California: {}?", lacks.join("; ")));
    }
    let papers = points.papers("W-2").filter(|paper| points.is_of(paper, &on.unit.people));
    for paper in papers.filter(|paper| !paper.boxes.contains_key("16")).collect::<Vec<_>>() {
        let words = format!("{}: state wages?", paper.title);
        points.raise(&WAGES_ASKED, Place::paper(&paper.id, "16"), words);
    }
    let [here, all, minimum] =
        [form_540nr::L27E, L17, minimum_tax::L61].map(|line| points.amount(line, place));
    if here > all {
        points.raise(&PART_LARGE, whose.clone(), "Column E is more than column D.");
    }
    if form_540nr::has_minimum_tax_items(on) {
        let words = "Which adjustments of the minimum tax are of California is not computed.";
        points.raise(&PART_MINIMUM, whose.clone(), words);
    }
    let elsewhere = points.amount(other_state_tax::CREDIT, place);
    if points.amount(credits::L44, place) > elsewhere {
        points.raise(&CARRIED_HERE, whose.clone(), "Carried credits on Form 540NR.");
    }
    if !elsewhere.is_zero() {
        points.raise(&TIMES, whose.clone(), "Tax of another state in a year of moving.");
    }
    if !minimum.is_zero() {
        points.raise(&MINIMUM, whose.clone(), "Minimum tax of part-year residents.");
    }
    if on.unit.status == Status::Joint {
        points.raise(&APART_HERE, whose, "Separate returns in California alone are not weighed.");
    }
}
