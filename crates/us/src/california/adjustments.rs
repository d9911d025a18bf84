//! Schedule CA (540), Part I: what California takes off federal adjusted gross income and adds to it (R&TC 17071 and following).

use super::{
    made,
    papers::brings,
    parents_election::{self, Elected},
};
use crate::{
    bringing, educators,
    facts::{Facts, Marital},
    filing_status::Status,
    government_payments, health_savings,
    income::{self, Income},
    papers::w2,
    social_security,
    unit::{On, Unit},
};
use hembo_core::{
    Scope, Silent, Trail, limit, limits, line::LineId, lines, provision::Provision, reading::sum, trail::Item,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["california_military_pensions"], ..Provision::NONE };

lines! {
    SECURITY = "us.ca.sca.6b", "Social security, not taxed here", "R&TC 17087", "What federal income has of it.";
    pub TREASURY = "us.ca.sca.2b.b", "Interest of the United States", "31 U.S.C. 3124", "Of papers, and of funds.";
    REFUND = "us.ca.sca.refund", "State refund, not taxed here", "R&TC 17142", "What federal income has of it.";
    UNEMPLOYMENT = "us.ca.sca.unemployment", "Unemployment and family leave, not taxed here", "R&TC 17083", "What federal income has of it.";
    MILITARY = "us.ca.sca.military", "Military pensions", "R&TC 17132.9, 17132.10", "Retirement pay and survivors' annuities, from 2025 up to a most, where income is not above its limit.";
    SAVINGS_TAKEN = "us.ca.sca.8f", "Health savings, taxed federally", "R&TC 17215.4", "Distributions were taxed here when they were paid in.";
    LOTTERY = "us.ca.sca.8b", "California lottery", "Gov. C. 8880.68", "Its winnings are not taxed here.";
    pub SUBTRACTED = "us.ca.sca.other.b", "Other subtractions", "R&TC 17071", "As they were entered.";
    SAVINGS_PAID = "us.ca.sca.1a", "Health savings of an employer", "R&TC 17131.4", "Box 12 code W of every Form W-2.";
    pub OTHER_STATES = "us.ca.sca.2b.c", "Interest of other states' bonds", "R&TC 17133", "Of papers: exempt federally, taxed here.";
    pub SAVINGS_EARNED = "us.ca.sca.hsa", "Earnings in a health savings account", "R&TC 17215.4", "Taxed every year.";
    pub ALIMONY = "us.ca.sca.2a", "Alimony received", "R&TC 17081", "Of instruments after 2018.";
    pub ADDED = "us.ca.sca.other.c", "Other additions", "R&TC 17071", "As they were entered.";
    SAVINGS_DEDUCTED = "us.ca.sca.13", "Health savings deducted federally", "R&TC 17215.4", "Not deducted here.";
    EDUCATORS = "us.ca.sca.11", "Educator expenses deducted federally", "R&TC 17072(b)", "Not deducted here.";
    pub MOVING = "us.ca.sca.14", "Moving expenses", "R&TC 17076; FTB 3913", "Deducted here.";
    pub ALIMONY_PAID = "us.ca.sca.19a", "Alimony paid", "R&TC 17081", "Of instruments after 2018.";
    COLUMN_B = "us.ca.sca.27b", "Subtractions, column B", "Schedule CA (540), line 27", "What is not taxed here, less federal deductions that do not count here.";
    COLUMN_C = "us.ca.sca.27c", "Additions, column C", "Schedule CA (540), line 27", "What is taxed here, less deductions that count here alone.";
    pub L14 = "us.ca.540.14", "California subtractions", "Form 540, line 14", "Column B, or column C where it is below zero.";
    pub L16 = "us.ca.540.16", "California additions", "Form 540, line 16", "Column C, and column B where it is below zero.";
    pub L17 = "us.ca.540.17", "California adjusted gross income", "R&TC 17072", "Federal adjusted gross income less the subtractions, with the additions.";
}

limits! {
    MILITARY_MOST = "us.ca.limit.military" on MILITARY, "Military retirement pay", "over the most, or income above the limit", "R&TC 17132.9";
    SURVIVORS_MOST = "us.ca.limit.survivors" on MILITARY, "Survivors' annuities", "over the most, or income above the limit", "R&TC 17132.10";
}

/// California income and what of it other rules ask for.
#[derive(Debug, Clone, Copy)]
pub struct Adjusted {
    /// Line 17.
    pub agi: Money,
    /// Gross income here: federal gross income without what is not taxed, with what is.
    pub gross: Money,
    /// Exempt interest that is not within line 17.
    pub exempt_interest: Money,
    /// What children's income on this return makes otherwise than on the federal one.
    pub children: Elected,
}

impl Adjusted {
    /// Household income (R&TC 61000): with exempt interest.
    pub fn income(&self) -> Money {
        self.agi + self.exempt_interest
    }
}

/// Lines 14, 16 and 17.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Adjusted {
    let received = sum(on.items(&social_security::brings::BENEFITS)).to_whole();
    let benefits = received - income.untaxed_benefits;
    let (_, unemployment) = government_payments::reckon(on, &mut Silent);
    let from = |line: LineId, amount: Money| (line, amount);
    let children = parents_election::reckon(on, trail);
    let off = [
        of_line(on, trail, SECURITY, social_security::L6B, benefits),
        of_items(on, trail, TREASURY, &[&bringing::brings::TREASURY_INTEREST, &brings::TREASURY]),
        of_line(on, trail, REFUND, government_payments::REFUND, income.refund),
        of_line(on, trail, UNEMPLOYMENT, government_payments::UNEMPLOYMENT, unemployment),
        from(MILITARY, military(on, trail, income.agi)),
        of_line(on, trail, SAVINGS_TAKEN, health_savings::INCOME, health_savings::income(on, &mut Silent)),
        of_items(on, trail, LOTTERY, &[&brings::LOTTERY]),
        of_items(on, trail, SUBTRACTED, &[&brings::SUBTRACTED]),
        from(parents_election::OFF, children.off),
    ];
    let onto = [
        of_items(on, trail, SAVINGS_PAID, &[&w2::brings::HEALTH_SAVINGS]),
        of_items(on, trail, OTHER_STATES, &[&bringing::brings::OTHER_STATES_INTEREST]),
        of_items(on, trail, SAVINGS_EARNED, &[&brings::SAVINGS_EARNINGS]),
        of_items(on, trail, ALIMONY, &[&brings::ALIMONY_RECEIVED]),
        of_items(on, trail, ADDED, &[&brings::ADDED]),
        from(parents_election::ONTO, children.onto),
    ];
    let back = [
        of_line(
            on,
            trail,
            SAVINGS_DEDUCTED,
            health_savings::DEDUCTION,
            health_savings::reckon(on, &mut Silent),
        ),
        of_line(on, trail, EDUCATORS, educators::L11, educators::reckon(on, &mut Silent)),
    ];
    let further = [
        of_items(on, trail, MOVING, &[&brings::MOVING]),
        of_items(on, trail, ALIMONY_PAID, &[&brings::ALIMONY_PAID]),
    ];
    let less =
        |parts: &[(LineId, Money)]| parts.iter().map(|&(line, amount)| (line, -amount)).collect::<Vec<_>>();
    let column_b = super::add(on, trail, COLUMN_B, &[&off[..], &less(&back)].concat());
    let column_c = super::add(on, trail, COLUMN_C, &[&onto[..], &less(&further)].concat());
    let (b, c) = (limit::or_zero(trail, column_b), limit::or_zero(trail, column_c));
    let columns = [(COLUMN_B, column_b), (COLUMN_C, column_c)];
    let subtracted = made(on, trail, L14, b - (column_c - c), &columns, &[]);
    let added = made(on, trail, L16, c - (column_b - b), &columns, &[]);
    let agi = made(
        on,
        trail,
        L17,
        income.agi - subtracted + added,
        &[(income::AGI, income.agi), (L14, subtracted), (L16, added)],
        &[],
    );
    let total = |parts: &[(LineId, Money)]| parts.iter().map(|(_, amount)| *amount).sum::<Money>();
    let other_states = sum(on.items(&bringing::brings::OTHER_STATES_INTEREST)).to_whole();
    Adjusted {
        agi,
        gross: income.gross - total(&off) + total(&onto),
        exempt_interest: income.exempt_interest - other_states,
        children,
    }
}

/// A line that takes over what a federal line has.
fn of_line(on: On<'_>, trail: &mut impl Trail, id: LineId, line: LineId, amount: Money) -> (LineId, Money) {
    (id, made(on, trail, id, amount, &[(line, amount)], &[]))
}

/// A line that adds up items of papers.
fn of_items(
    on: On<'_>,
    trail: &mut impl Trail,
    id: LineId,
    kinds: &[&'static hembo_core::brought::Brought],
) -> (LineId, Money) {
    let items: Vec<&Item> = kinds.iter().flat_map(|kind| on.items(kind)).collect();
    let amount = sum(items.iter().copied()).to_whole();
    (id, trail.line(id, on.scope, amount, |i| _ = i.items(items)))
}

/// Line 5b column B: each kind up to a most, where federal income is not above a limit.
fn military(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_military_pensions else { return Money::ZERO };
    let most = if agi <= *figures.income.of(on.unit.status) { figures.most } else { Money::ZERO };
    let kinds = [(&brings::MILITARY, &MILITARY_MOST), (&brings::SURVIVORS, &SURVIVORS_MOST)];
    let off = kinds
        .map(|(kind, limit)| limit::cap(trail, limit.at(on.scope), sum(on.items(kind)).to_whole(), most));
    let items: Vec<&Item> = kinds.iter().flat_map(|(kind, _)| on.items(kind)).collect();
    trail.line(MILITARY, on.scope, off.into_iter().sum(), |i| {
        _ = i.items(items).figure("Each kind up to", most)
    })
}

/// What someone brings to these lines on a separate return, or one alone: for the thresholds that look at others.
pub fn of_person(facts: &Facts, person: usize) -> Adjusted {
    let married = facts.marital == Marital::Married && facts.people[person].filer;
    let status = if married { Status::Separate } else { Status::Single };
    let unit = Unit::of_one(person, status);
    let on = On { facts, unit: &unit, scope: Scope::Return(0) };
    reckon(on, &mut Silent, &income::reckon(on, &mut Silent))
}
