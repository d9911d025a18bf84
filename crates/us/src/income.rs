//! Income and adjusted gross income (§§61, 62): Form 1040 lines 1a to 11a.

use crate::{
    educators,
    excess_deferrals::{self, EXCESS},
    facts::Facts,
    papers::{interest, w2},
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::Field,
    forms::Required,
    household::Entry,
    line::LineId,
    lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Scope, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, household_questions: QUESTIONS, points: POINTS, ..Provision::NONE };

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const DIGITAL_ASSETS: &str = "digital_assets";
    pub const FOREIGN_ACCOUNT: &str = "foreign_account";
}

const QUESTIONS: &[Field] = &[
    Field::yes_no(ask::DIGITAL_ASSETS, "", "Received or disposed of digital assets"),
    Field::yes_no(ask::FOREIGN_ACCOUNT, "", "Held a financial account abroad"),
];

lines! {
    pub WAGES = "us.1a", "Wages", "IRC §61(a)(1)",
        "Box 1 of every Form W-2, added with cents and rounded once.";
    EXEMPT_INTEREST = "us.2a", "Tax-exempt interest", "IRC §103",
        "Box 8 of every Form 1099-INT, less the premium in box 13.";
    pub INTEREST = "us.2b", "Taxable interest", "IRC §61(a)(4)",
        "Boxes 1, 3 and 10 of every Form 1099-INT, less the premiums in boxes 11 and 12.";
    EARNED = "us.1z", "Wages and other earned income", "IRC §61(a)(1)",
        "Lines 1a to 1h.";
    TOTAL = "us.9", "Total income", "IRC §61",
        "Wages, other earned income and taxable interest.";
    pub PENALTY = "us.penalty", "Early withdrawal penalty", "IRC §62(a)(9)",
        "Box 2 of every Form 1099-INT, in full.";
    ADJUSTMENTS = "us.10", "Adjustments", "IRC §62",
        "Schedule 1, Part II: educator expenses and the early withdrawal penalty.";
    pub AGI = "us.agi", "Adjusted gross income", "IRC §62",
        "Total income less the adjustments.";
}

open_points! {
    DIGITAL_ASSETS_ASKED = blocks "K-024", "Form 1040, page 1",
        "Everyone answers this on page 1 of Form 1040.";
    DIGITAL_ASSETS = not_covered "digital-assets", "IRC §1001";
    FOREIGN_ACCOUNT = blocks "K-026", "31 U.S.C. §5314; Schedule B, Part III",
        "Answer for Schedule B, Part III.";
}

/// Income down to line 11a.
#[derive(Debug, Clone, Copy)]
pub struct Income {
    /// Line 1z.
    pub wages: Money,
    /// Line 2a.
    pub exempt_interest: Money,
    /// Line 2b.
    pub interest: Money,
    /// Schedule 1 line 18.
    pub penalty: Money,
    /// Line 11a.
    pub agi: Money,
}

/// Lines 1a to 11a.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Income {
    let paid = on.gather(trail, WAGES, &w2::brings::WAGES);
    let excess = excess_deferrals::reckon(on, trail);
    let wages = trail.line(EARNED, on.scope, paid + excess, |i| {
        i.line(WAGES, on.scope, paid);
        if !excess.is_zero() {
            i.line(EXCESS, on.scope, excess);
        }
    });
    let exempt_interest = on.gather(trail, EXEMPT_INTEREST, &interest::brings::EXEMPT_INTEREST);
    let interest = on.gather(trail, INTEREST, &interest::brings::INTEREST);
    let total = trail.line(TOTAL, on.scope, wages + interest, |i| {
        i.line(EARNED, on.scope, wages).line(INTEREST, on.scope, interest);
    });
    let penalty = on.gather(trail, PENALTY, &interest::brings::PENALTY);
    if on.unit.people.len() > 1 {
        for &person in &on.unit.people {
            agi_of(on.facts, trail, person);
        }
    }
    let educators = educators::reckon(on, trail);
    let adjustments = trail.line(ADJUSTMENTS, on.scope, educators + penalty, |i| {
        i.line(educators::L11, on.scope, educators).line(PENALTY, on.scope, penalty);
    });
    let agi = trail.line(AGI, on.scope, total - adjustments, |i| {
        i.line(TOTAL, on.scope, total).line(ADJUSTMENTS, on.scope, adjustments);
    });
    Income { wages, exempt_interest, interest, penalty, agi }
}

/// Adjusted gross income of a person alone.
pub fn agi_alone(facts: &Facts, person: usize) -> Money {
    let [(_, wages), (_, excess), (_, interest), (_, educator), (_, penalty)] = parts(facts, person);
    wages + excess + interest - educator - penalty
}

/// What a person alone brings to adjusted gross income, line by line; the last two are taken off.
fn parts(facts: &Facts, person: usize) -> [(LineId, Money); 5] {
    let own = &facts.people[person].own;
    [
        (WAGES, sum(own.of(&w2::brings::WAGES))),
        (EXCESS, excess_deferrals::excess_of(facts, person)),
        (INTEREST, sum(own.of(&interest::brings::INTEREST))),
        (educators::L11, educators::allowed_for(facts, person)),
        (PENALTY, sum(own.of(&interest::brings::PENALTY))),
    ]
}

/// A spouse's part of the joint income.
fn agi_of(facts: &Facts, trail: &mut impl Trail, person: usize) {
    let scope = Scope::Person(person);
    trail.line(AGI, scope, agi_alone(facts, person), |i| {
        for (line, amount) in parts(facts, person).into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, scope, amount);
        }
    });
}

/// Schedule 1: where there are adjustments.
pub fn schedule_1(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(ADJUSTMENTS), "no adjustments")
}

/// Schedule B: interest above the figure, interest lowered by a premium, or an account abroad.
pub fn schedule_b(filed: Filed<'_>) -> Required {
    let most = filed.on.facts.figures.interest.schedule_b_above;
    let adjusted = filed.on.items(&interest::brings::INTEREST).any(|item| item.amount.is_negative());
    let abroad = filed.on.unit.main && filed.on.facts.foreign_account == Some(true);
    let needed = filed.amount(INTEREST) > most || adjusted || abroad;
    Required::if_so(needed, format!("interest not above {most:#}"))
}

/// The questions of page 1 and of Schedule B.
pub fn points(points: &mut Points<'_>) {
    let most = points.facts.figures.interest.schedule_b_above;
    let needs = points.amounts(INTEREST).any(|(_, interest)| interest > most);
    match points.answered(ask::DIGITAL_ASSETS).and_then(Entry::flag) {
        None => {
            let place = Place::household(ask::DIGITAL_ASSETS);
            points.raise(&DIGITAL_ASSETS_ASKED, place, "Digital assets: yes or no?");
        }
        Some(true) => {
            let place = Place::household(ask::DIGITAL_ASSETS);
            points.raise(&DIGITAL_ASSETS, place, "Digital assets are not computed yet.");
        }
        Some(false) => {}
    }
    if needs && points.answered(ask::FOREIGN_ACCOUNT).is_none() {
        let place = Place::household(ask::FOREIGN_ACCOUNT);
        let message = "So much interest needs Schedule B: was there a financial account abroad?";
        points.raise(&FOREIGN_ACCOUNT, place, message);
    }
}
