//! What was paid to California and the final arithmetic (Form 540 lines 71 to 115).

use super::{
    add,
    cover::L92,
    credits::L48,
    earned_income::{L75, L76, L77, PaidOut},
    made,
    minimum_tax::L61,
    papers::brings,
    tax::L62,
    underpayment::{self, L113},
    use_tax,
};
use crate::{bringing, early_distributions, states::STATES, unit::On};
use hembo_core::{Trail, limit, lines, provision::Provision, reading::sum, trail::Item};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    figures: &["california_early_distributions", "california_payments"],
    ..Provision::NONE
};

lines! {
    pub L63 = "us.ca.540.63", "Other taxes of California", "R&TC 17085; FTB 3805P", "A part of early distributions of retirement and education plans.";
    pub L64 = "us.ca.540.64", "Total tax of the form", "Form 540, line 64", "Lines 48 and 61 to 63.";
    pub TAX = "us.ca.net_tax", "Total tax of California", "R&TC 17041", "Line 64 with the penalty of line 92, less what is paid out: what the household pays for good.";
    pub L71 = "us.ca.540.71", "California tax withheld", "R&TC 18551", "Box 17 of Forms W-2, and of other papers, of this state.";
    pub L72 = "us.ca.540.72", "Estimated and other payments", "R&TC 19136", "Of the paper 540-ES.";
    pub PAID = "us.ca.paid", "Paid to California", "Form 540, lines 71 and 72", "Withheld and paid.";
    L78 = "us.ca.540.78", "Total payments", "Form 540, line 78", "With what is paid out.";
    L93 = "us.ca.540.93", "Payments after use tax", "Form 540, line 93", "Not below zero.";
    L94 = "us.ca.540.94", "Use tax balance", "Form 540, line 94", "What the payments do not cover.";
    L95 = "us.ca.540.95", "Payments after the penalty", "Form 540, line 95", "Not below zero.";
    L96 = "us.ca.540.96", "Penalty balance", "Form 540, line 96", "What the payments do not cover.";
    L97 = "us.ca.540.97", "Overpaid", "Form 540, line 97", "Payments above the tax.";
    L100 = "us.ca.540.100", "Tax due", "Form 540, line 100", "The tax above the payments.";
    L111 = "us.ca.540.111", "Amount owed", "Form 540, line 111", "Lines 94, 96 and 100.";
    L114 = "us.ca.540.114", "Amount due with the penalty", "Form 540, line 114", "Line 111 with the penalty for underpayment, as far as no overpayment bears it.";
    L115 = "us.ca.540.115", "Refund", "Form 540, line 115", "The overpayment less the penalty.";
    pub BALANCE = "us.ca.balance", "Balance with California", "Form 540, lines 114 and 115", "Owed, or back where below zero.";
}

/// What a return comes to.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Line 17.
    pub agi: Money,
    /// Line 48.
    pub tax: Money,
    /// Line 61.
    pub minimum: Money,
    /// Line 62.
    pub services: Money,
    /// Line 92.
    pub penalty: Money,
    /// Lines 75 to 77.
    pub paid_out: PaidOut,
}

/// From the tax to the balance; the result is what the household pays for good.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let other = other_taxes(on, trail);
    let total =
        add(on, trail, L64, &[(L48, from.tax), (L61, from.minimum), (L62, from.services), (L63, other)]);
    let out = [(L75, from.paid_out.earned), (L76, from.paid_out.young), (L77, from.paid_out.foster)];
    let back: Money = out.iter().map(|(_, amount)| *amount).sum();
    let lines: Vec<_> = [(L64, total), (L92, from.penalty)].into_iter().chain(out).collect();
    let net = made(on, trail, TAX, total + from.penalty - back, &lines, &[]);
    let withheld = withheld(on, trail);
    let paid = sum(on.items(&brings::PAID)).to_whole();
    trail.line(L72, on.scope, paid, |i| _ = i.items(on.items(&brings::PAID)));
    let of_year = add(on, trail, PAID, &[(L71, withheld), (L72, paid)]);
    let payments = add(on, trail, L78, &[&[(PAID, of_year)][..], &out].concat());
    let use_tax = use_tax::reckon(on, trail);
    let mut step =
        |line, short, due: (hembo_core::line::LineId, Money), left: (hembo_core::line::LineId, Money)| {
            let over = limit::or_zero(trail, left.1 - due.1);
            let under = limit::or_zero(trail, due.1 - left.1);
            made(on, trail, line, over, &[left, due], &[]);
            made(on, trail, short, under, &[left, due], &[]);
            [over, under]
        };
    let [left, use_due] = step(L93, L94, (use_tax::L91, use_tax), (L78, payments));
    let [left, penalty_due] = step(L95, L96, (L92, from.penalty), (L93, left));
    let [overpaid, tax_due] = step(L97, L100, (L64, total), (L95, left));
    let owed = add(on, trail, L111, &[(L94, use_due), (L96, penalty_due), (L100, tax_due)]);
    let late = underpayment::reckon(
        on,
        trail,
        underpayment::From { tax: total, paid_out: back, withheld, agi: from.agi },
    );
    let due = owed + limit::or_zero(trail, late - overpaid);
    made(on, trail, L114, due, &[(L111, owed), (L113, late), (L97, overpaid)], &[]);
    let refund = limit::or_zero(trail, overpaid - late);
    made(on, trail, L115, refund, &[(L97, overpaid), (L113, late)], &[]);
    made(on, trail, BALANCE, due - refund, &[(L114, due), (L115, refund)], &[]);
    net
}

/// Line 63: parts of what the federal additional taxes are on.
fn other_taxes(on: On<'_>, trail: &mut impl Trail) -> Money {
    let Some(figures) = &on.facts.figures.california_early_distributions else { return Money::ZERO };
    let subject = |&p: &usize| early_distributions::subject_of(on, p);
    let [plain, simple, education] = on
        .unit
        .people
        .iter()
        .map(subject)
        .fold([Money::ZERO; 3], |all, one| std::array::from_fn(|at| all[at] + one[at]));
    let part = |amount: Money, rate| amount.times(rate, Money::WHOLE, Rounding::HalfUp);
    let tax = part(plain, figures.rate)
        + part(simple, figures.simple_rate)
        + part(education, figures.education_rate);
    made(
        on,
        trail,
        L63,
        tax,
        &[],
        &[
            ("Early distributions", &plain),
            ("Out of a SIMPLE IRA", &simple),
            ("Of education plans", &education),
        ],
    )
}

/// Line 71.
fn withheld(on: On<'_>, trail: &mut impl Trail) -> Money {
    let here = on
        .owns()
        .flat_map(|(_, own)| own.of(&bringing::brings::OF_STATES))
        .filter(|of| STATES[of.state].id == "CA");
    let items: Vec<&Item> = here.map(|of| &of.withheld).filter(|item| !item.amount.is_zero()).collect();
    let amount = sum(items.iter().copied()).to_whole();
    trail.line(L71, on.scope, amount, |i| _ = i.items(items))
}
