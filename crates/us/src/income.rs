//! Income and adjusted gross income (§§61, 62): Form 1040 lines 1a to 11a.

use crate::{
    capital_gains::{self, Gains},
    educators,
    excess_deferrals::{self, EXCESS},
    facts::{Facts, Marital},
    filing_status::Status,
    papers::{dividends, interest, w2},
    points::Points,
    unit::{Filed, On, Unit},
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
    trail::{Scope, Silent, Trail},
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
        "Box 8 of every Form 1099-INT less the premium in box 13, and box 12 of every Form 1099-DIV.";
    pub INTEREST = "us.2b", "Taxable interest", "IRC §61(a)(4)",
        "Forms 1099-INT and 1099-OID, less premiums and what belongs to others; discount of notes and bonds that were sold.";
    pub QUALIFIED = "us.3a", "Qualified dividends", "IRC §1(h)(11)",
        "Box 1b of every Form 1099-DIV.";
    pub DIVIDENDS = "us.3b", "Dividends", "IRC §§61(a)(7), 301",
        "Box 1a of every Form 1099-DIV.";
    pub EARNED = "us.1z", "Wages and other earned income", "IRC §61(a)(1)",
        "Lines 1a to 1h.";
    pub TOTAL = "us.9", "Total income", "IRC §61",
        "Wages, other earned income, interest, dividends and gains.";
    pub PENALTY = "us.penalty", "Early withdrawal penalty", "IRC §62(a)(9)",
        "Box 2 of every Form 1099-INT and box 3 of every Form 1099-OID, in full.";
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
    /// Line 3a.
    pub qualified: Money,
    /// Line 3b.
    pub dividends: Money,
    /// Line 7 and Schedule D.
    pub gains: Gains,
    /// Schedule 1 line 18.
    pub penalty: Money,
    /// Line 11a.
    pub agi: Money,
    /// Gross income from all sources, losses not taken off.
    pub gross: Money,
}

impl Income {
    /// Interest, dividends and gains less the early withdrawal penalty: what the net investment income tax and the tax on a
    /// child's unearned income start from.
    pub fn investment(&self) -> Money {
        self.interest + self.dividends + self.gains.line_7 - self.penalty
    }
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
    let qualified = on.gather(trail, QUALIFIED, &dividends::brings::QUALIFIED);
    let dividends = on.gather(trail, DIVIDENDS, &dividends::brings::ORDINARY);
    let gains = capital_gains::reckon(on, trail);
    let parts =
        [(EARNED, wages), (INTEREST, interest), (DIVIDENDS, dividends), (capital_gains::L7, gains.line_7)];
    let total = trail.line(TOTAL, on.scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for (line, amount) in parts {
            i.line(line, on.scope, amount);
        }
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
    let gross = wages + interest + dividends + gains.gross;
    Income { wages, exempt_interest, interest, qualified, dividends, gains, penalty, agi, gross }
}

/// Adjusted gross income of a filer on a return of one's own.
pub fn agi_alone(facts: &Facts, person: usize) -> Money {
    let married = facts.marital == Marital::Married;
    let status = if married { Status::Separate } else { Status::Single };
    let unit = Unit::of_one(person, status);
    reckon(On { facts, unit: &unit, scope: Scope::Return(0) }, &mut Silent).agi
}

/// What a person alone brings to adjusted gross income, line by line; the last two are taken off.
fn parts(facts: &Facts, person: usize) -> [(LineId, Money); 7] {
    let own = &facts.people[person].own;
    [
        (WAGES, sum(own.of(&w2::brings::WAGES))),
        (EXCESS, excess_deferrals::excess_of(facts, person)),
        (INTEREST, sum(own.of(&interest::brings::INTEREST))),
        (DIVIDENDS, sum(own.of(&dividends::brings::ORDINARY))),
        (capital_gains::L7, capital_gains::of_person(own)),
        (educators::L11, -educators::allowed_for(facts, person)),
        (PENALTY, -sum(own.of(&interest::brings::PENALTY))),
    ]
}

/// A spouse's part of the joint income, losses without the limit of the return.
fn agi_of(facts: &Facts, trail: &mut impl Trail, person: usize) {
    let scope = Scope::Person(person);
    let parts = parts(facts, person);
    trail.line(AGI, scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for (line, amount) in parts.into_iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, scope, amount);
        }
    });
}

/// Schedule 1: where there are adjustments.
pub fn schedule_1(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(ADJUSTMENTS), "no adjustments")
}

/// Schedule B: interest or dividends above the figure, interest lowered by a premium, or an account abroad.
pub fn schedule_b(filed: Filed<'_>) -> Required {
    let most = filed.on.facts.figures.interest.schedule_b_above;
    let adjusted = filed.on.items(&interest::brings::INTEREST).any(|item| item.amount.is_negative());
    let abroad = filed.on.unit.main && filed.on.facts.foreign_account == Some(true);
    let above = filed.amount(INTEREST) > most || filed.amount(DIVIDENDS) > most;
    Required::if_so(above || adjusted || abroad, format!("neither interest nor dividends above {most:#}"))
}

/// The questions of page 1 and of Schedule B.
pub fn points(points: &mut Points<'_>) {
    let most = points.facts.figures.interest.schedule_b_above;
    let above = |line| points.amounts(line).any(|(_, amount)| amount > most);
    let needs = above(INTEREST) || above(DIVIDENDS);
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
        let message = "So much interest or dividends need Schedule B: was there a financial account abroad?";
        points.raise(&FOREIGN_ACCOUNT, place, message);
    }
}
