//! Standard or itemized deductions of California: Schedule CA (540) Part II with the limit of high incomes (R&TC 17073.5, 17077).

use super::{add, college_access, made, mortgage, papers::brings};
use crate::{
    income,
    schedule_a::{casualty, gifts, investment_interest, medical, other, taxes},
    unit::On,
};
use hembo_core::{Silent, Trail, limit, limits, lines, provision::Provision, reading::sum, settled};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["california_deductions"], ..Provision::NONE };

lines! {
    MEDICAL = "us.ca.sca2.4", "Medical above the floor", "R&TC 17241", "As on the federal Schedule A.";
    TAXES = "us.ca.sca2.7", "Property taxes", "R&TC 17220", "Real estate and personal property tax in full; neither income nor sales tax.";
    LOANS = "us.ca.sca2.8", "Home-loan interest", "R&TC 17225", "By the older limits of debt for the home, and of other debt.";
    INVESTMENT = "us.ca.sca2.9", "Investment interest", "FTB 3526", "As on the federal Schedule A.";
    GIFTS = "us.ca.sca2.14", "Gifts to charity", "R&TC 17201", "As on the federal Schedule A, cash up to the part of income of California.";
    CASUALTY = "us.ca.sca2.15", "Casualty and theft", "R&TC 17201", "As on the federal Schedule A.";
    OTHER = "us.ca.sca2.16", "Other deductions", "Schedule CA (540), line 16", "As on the federal Schedule A, gambling losses without the California lottery.";
    FLOOR = "us.ca.sca2.24", "The floor of job expenses", "R&TC 17076", "A part of federal adjusted gross income.";
    JOB = "us.ca.sca2.25", "Job and other expenses above it", "R&TC 17076", "Unreimbursed, tax preparation, investments.";
    ALL = "us.ca.sca2.28", "Itemized deductions before the limit", "Schedule CA (540), line 28", "All of them.";
    CUT = "us.ca.sca2.cut", "What the limit of high incomes takes", "R&TC 17077", "A part of income above the threshold, at most a part of what is not protected.";
    pub L29 = "us.ca.sca2.29", "Itemized deductions", "Schedule CA (540), line 29", "After the limit.";
    pub STANDARD = "us.ca.standard", "Standard deduction of California", "R&TC 17073.5", "By status; of who can be claimed, by what was earned.";
    pub L18 = "us.ca.540.18", "Deduction of California", "Form 540, line 18", "Standard or itemized, as the way takes it.";
}

limits! {
    CASH = "us.ca.limit.cash" on GIFTS, "Gifts of cash", "over the part of income of California", "R&TC 17201";
    LOAN_LIMIT = "us.ca.limit.loans" on LOANS, "Home-loan interest", "only on loans up to the limits of California", "R&TC 17225";
    DEPENDENT = "us.ca.limit.standard" on STANDARD, "Standard deduction of California", "someone can claim the filer", "R&TC 17073.5";
    JOB_FLOOR = "us.ca.limit.job" on JOB, "Job and other expenses", "below the floor", "R&TC 17076";
    HIGH = "us.ca.limit.high" on L29, "Itemized deductions", "cut above the threshold of income", "R&TC 17077";
}

/// The deduction that a return takes, with what the minimum tax adds back.
#[derive(Debug, Clone, Copy)]
pub struct Deducted {
    /// Line 18.
    pub taken: Money,
    /// Medical.
    pub medical: Money,
    /// Property taxes.
    pub taxes: Money,
    /// Interest of loans that were not for the home.
    pub other_loans: Money,
    /// Job and other expenses.
    pub job: Money,
    /// What the limit took.
    pub cut: Money,
}

/// Line 18; `agi` is federal, `earned` what was earned for the deduction of who can be claimed.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &income::Income, earned: Money) -> Deducted {
    let agi = income.agi;
    let Some(figures) = &on.facts.figures.california_deductions else {
        unreachable!("prepared with its figures")
    };
    let status = on.unit.status;
    let medical = medical::reckon(on, &mut Silent, agi);
    made(on, trail, MEDICAL, medical, &[(medical::L4, medical)], &[]);
    let property = taxes::of_property(on);
    made(
        on,
        trail,
        TAXES,
        property,
        &[(taxes::L5B, taxes::real_estate(on, &mut Silent)), (taxes::L5C, taxes::personal(on))],
        &[],
    );
    let limits = [*figures.loans.of(status), *figures.other_loans.of(status)];
    let interest = mortgage::interest(on, limits, figures.ratio_places);
    let loans = limit::part(trail, LOAN_LIMIT.at(on.scope), interest.paid, interest.ratio, Money::WHOLE);
    let other_loans = interest.of_other(loans);
    let items = || on.owns().flat_map(|(_, own)| own.of(&crate::schedule_a::home_loan::brings::LOANS));
    trail.line(LOANS, on.scope, loans, |i| {
        _ = i.items(items().map(|loan| &loan.interest)).figure("Limit", limits[0])
    });
    let invested = investment_interest::reckon(on, &mut Silent, income).amount;
    made(on, trail, INVESTMENT, invested, &[(investment_interest::L9, invested)], &[]);
    let gifts = gifts_here(on, trail, agi);
    let lost = casualty::reckon(on, &mut Silent, agi);
    let lost = lost.declared + lost.qualified;
    made(on, trail, CASUALTY, lost, &[(casualty::L15, lost)], &[]);
    // Losses count up to winnings that are taxed here: not those of the California lottery.
    let lottery = sum(on.items(&brings::LOTTERY)).to_whole();
    let gambling = other::gambling(on, lottery);
    let others = other::reckon(on, &mut Silent) - other::gambling(on, Money::ZERO) + gambling;
    made(on, trail, OTHER, others, &[(other::L16, others)], &[]);
    let job = job(on, trail, agi);
    let all = add(
        on,
        trail,
        ALL,
        &[
            (MEDICAL, medical),
            (TAXES, property),
            (LOANS, loans),
            (INVESTMENT, invested),
            (GIFTS, gifts),
            (CASUALTY, lost),
            (OTHER, others),
            (JOB, job),
        ],
    );
    let protected = medical + invested + lost + gambling;
    let cut = cut(on, trail, agi, all, protected);
    let itemized = made(on, trail, L29, all - cut, &[(ALL, all), (CUT, cut)], &[]);
    let standard = standard(on, trail, earned);
    let taken = if on.unit.of_state.itemizes { itemized } else { standard };
    let line = if on.unit.of_state.itemizes { L29 } else { STANDARD };
    made(on, trail, L18, taken, &[(line, taken)], &[]);
    Deducted { taken, medical, taxes: property, other_loans, job, cut }
}

/// Line 14: cash at most a part of federal income; where it comes to that, nothing else has room.
fn gifts_here(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_deductions else { return Money::ZERO };
    let federal = gifts::reckon(on, &mut Silent, agi);
    let most = settled::or_zero(agi).times(figures.cash_part, Money::WHOLE, Rounding::HalfUp);
    let cash = gifts::cash(on);
    let allowed = if cash > most { limit::cap(trail, CASH.at(on.scope), federal, most) } else { federal };
    let elsewhere = college_access::gift(on, trail, allowed);
    let lines = [(gifts::L14, federal), (college_access::GIFT, elsewhere)];
    made(on, trail, GIFTS, allowed - elsewhere, &lines, &[("Cash, at most", &most)])
}

/// Line 25.
fn job(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_deductions else { return Money::ZERO };
    let floor = settled::or_zero(agi).times(figures.miscellaneous_floor, Money::WHOLE, Rounding::HalfUp);
    made(on, trail, FLOOR, floor, &[(income::AGI, agi)], &[]);
    let paid = sum(on.items(&brings::MISCELLANEOUS)).to_whole();
    let above = limit::above(trail, JOB_FLOOR.at(on.scope), paid, floor);
    trail.line(JOB, on.scope, above, |i| {
        _ = i.items(on.items(&brings::MISCELLANEOUS)).line(FLOOR, on.scope, floor)
    })
}

/// The worksheet of line 29: six per cent of income above the threshold, at most eighty of what is not protected.
fn cut(on: On<'_>, trail: &mut impl Trail, agi: Money, all: Money, protected: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_deductions else { return Money::ZERO };
    let open = settled::or_zero(all - protected).times(figures.limited_most, Money::WHOLE, Rounding::HalfUp);
    let start = *figures.high_income.of(on.unit.status);
    let over = limit::share_above(trail, agi, start, figures.limited_rate, Money::WHOLE);
    let cut = limit::lesser(trail, open, over);
    limit::given(trail, HIGH.at(on.scope), limit::Shape::PhaseOut, all, all - cut);
    made(
        on,
        trail,
        CUT,
        cut,
        &[(ALL, all), (income::AGI, agi)],
        &[("Threshold", &start), ("Protected", &protected)],
    )
}

/// R&TC 17073.5: by status; of who can be claimed what was earned and a little more, at least a minimum.
fn standard(on: On<'_>, trail: &mut impl Trail, earned: Money) -> Money {
    let Some(figures) = &on.facts.figures.california_deductions else { return Money::ZERO };
    let full = *figures.standard.of(on.unit.status);
    let own = limit::greater(trail, earned + figures.dependent_plus, figures.dependent_least);
    let amount = if on.unit.claimable { limit::lesser(trail, own, full) } else { full };
    limit::given(trail, DEPENDENT.at(on.scope), limit::Shape::Cap, full, amount);
    made(on, trail, STANDARD, amount, &[], &[("Of the status", &full)])
}
