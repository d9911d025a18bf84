//! The child tax credit, the credit for other dependents and the refundable part (§24), Schedule 8812.

use crate::{
    facts::Residency,
    income, minimum_tax, misclassified_pay,
    papers::w2,
    self_employment,
    unit::{Filed, Household, On},
    unreported_tips, untaxed_pay,
};
use hembo_core::{
    forms::Required,
    limit::{self, PhaseIn, PhaseOut, Shape},
    limits, lines,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Trail, Unseen},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["child_credit"], ..Provision::NONE };

lines! {
    pub EACH = "us.child_credit", "Credit for this dependent", "IRC §24(a), (h)",
        "One amount for a young child, another for any other dependent.";
    FULL = "us.8812.8", "Child and dependent credits, full", "IRC §24(a), (h)",
        "The credit of every dependent.";
    REDUCED = "us.8812.12", "Credits after the phase-out", "IRC §24(b)",
        "Less an amount for each step of income, or part of one, above the threshold.";
    pub L19 = "us.19", "Child and dependent credits", "IRC §§24, 26(a)",
        "Up to the tax.";
    OPEN = "us.8812.17", "Open for the refundable part", "IRC §24(h)(5)",
        "What the tax did not use, up to an amount a child.";
    pub L28 = "us.28", "Child credit paid out", "IRC §24(d)",
        "A part of earnings above a floor, up to what is open.";
}

limits! {
    CHILD_CREDIT = "us.limit.child_credit" on REDUCED, "Child and dependent credits", "shrinks step by step above the threshold",
        "IRC §24(b)";
    CHILD_CREDIT_TAX = "us.limit.child_credit_tax" on L19, "Child and dependent credits", "beyond the tax; a child's part may be paid out",
        "IRC §26(a)";
    CHILD_REFUND_EACH = "us.limit.child_refund_each" on OPEN, "Child credit paid out", "over the amount a child",
        "IRC §24(h)(5)";
    CHILD_REFUND_EARNED = "us.limit.child_refund_earned" on L28, "Child credit paid out", "grows with earnings",
        "IRC §24(d)(1)(B)";
}

/// What the credit is computed from.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct From {
    pub agi: Money,
    /// Earned income with combat pay.
    pub earned: Money,
    /// Line 18b.
    pub combat: Money,
    /// Line 18: the tax that the credit may use up.
    pub before_credits: Money,
    /// Line 20: credits that use it up before.
    pub earlier: Money,
    pub eic: Money,
    /// Excess social security tax.
    pub excess: Money,
}

/// What the credit comes to.
#[derive(Debug, Clone, Copy)]
pub struct Credit {
    /// Line 19 of Form 1040.
    pub used: Money,
    /// Line 28 of Form 1040.
    pub refundable: Money,
}

/// Which credit a dependent brings (§24(c), (h)(4), (h)(7)).
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Brings {
    Child,
    Other,
    Nothing,
}

/// Schedule 8812 as a whole.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Credit {
    let figures = &on.facts.figures.child_credit;
    let mut children = 0;
    let mut full = Money::ZERO;
    for dependent in &on.unit.dependents {
        let amount = match brings(on, dependent.person, dependent.as_a) {
            Brings::Child => figures.child,
            Brings::Other => figures.other,
            Brings::Nothing => continue,
        };
        children += i64::from(amount == figures.child);
        full += trail.line(EACH, Scope::Person(dependent.person), amount, |i| {
            i.figure(if amount == figures.child { "Child" } else { "Other dependent" }, amount);
        });
    }
    trail.line(FULL, on.scope, full, |i| {
        for dependent in &on.unit.dependents {
            let scope = Scope::Person(dependent.person);
            match brings(on, dependent.person, dependent.as_a) {
                Brings::Child => i.line(EACH, scope, figures.child),
                Brings::Other => i.line(EACH, scope, figures.other),
                Brings::Nothing => i,
            };
        }
    });
    let credit = after_phase_out(on, trail, full, from.agi);
    trail.line(REDUCED, on.scope, credit, |i| {
        i.line(FULL, on.scope, full)
            .line(income::AGI, on.scope, from.agi)
            .figure("Shrinks above", figures.from.of(on.unit.status));
    });
    let left = from.before_credits - from.earlier;
    let used = limit::cap(trail, CHILD_CREDIT_TAX.at(on.scope), credit, left);
    trail.line(L19, on.scope, used, |i| {
        i.line(REDUCED, on.scope, credit).line(minimum_tax::L18, on.scope, from.before_credits);
        if !from.earlier.is_zero() {
            i.figure("Credits that come before it", from.earlier);
        }
    });
    let refundable = refundable(on, trail, credit - used, children, from);
    Credit { used, refundable }
}

fn after_phase_out(on: On<'_>, trail: &mut impl Trail, full: Money, agi: Money) -> Money {
    let figures = &on.facts.figures.child_credit;
    let rule = PhaseOut {
        start: *figures.from.of(on.unit.status),
        step: Some((figures.step, Rounding::Up)),
        rate: figures.rate,
        least: Money::ZERO,
        unit: Money::WHOLE,
    };
    limit::phase_out(trail, CHILD_CREDIT.at(on.scope), full, agi, rule)
}

/// The part of the credits that could not be paid out in any case: only so much stands before the credits that are carried on
/// (Schedule 8812, Credit Limit Worksheet B).
pub fn not_paid_out(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let figures = &on.facts.figures.child_credit;
    let counts = on.unit.dependents.iter().map(|d| counted(on, d.person));
    let (children, others) = counts.fold((0, 0), |all, one| (all.0 + one.0, all.1 + one.1));
    let full = figures.child * children + figures.other * others;
    let credit = after_phase_out(on, &mut Unseen(trail), full, from.agi);
    let refunded = if on.unit.only_for_refund { 0 } else { children };
    let mut most = by_earnings(on, from.earned);
    if children >= figures.three_children {
        let by_payroll = payroll(on, trail, from);
        most = limit::greater(trail, most, by_payroll);
    }
    let paid_out = limit::lesser(trail, figures.refundable * refunded, most);
    limit::or_zero(trail, credit - paid_out)
}

/// Line 20.
fn by_earnings(on: On<'_>, earned: Money) -> Money {
    let figures = &on.facts.figures.child_credit;
    settled::or_zero(earned - figures.earned_above).times(figures.earned_rate, Money::WHOLE, Rounding::HalfUp)
}

/// How many children and how many other dependents a person is to the credits of a return: none or one of either.
pub fn counted(on: On<'_>, person: usize) -> (i64, i64) {
    let dependent = on.unit.dependents.iter().find(|d| d.person == person);
    match dependent.map(|d| brings(on, person, d.as_a)) {
        Some(Brings::Child) => (1, 0),
        Some(Brings::Other) => (0, 1),
        _ => (0, 0),
    }
}

/// A child under 17 with a number valid for work, from 2025 on only of a filer (one of the two on a joint return) who
/// has one too; else a citizen or resident of the US counts as another dependent.
fn brings(on: On<'_>, person: usize, as_a: Household) -> Brings {
    let about = &on.facts.people[person];
    let figures = &on.facts.figures.child_credit;
    let young = about.age(on.facts.year_end).is_some_and(|age| age < figures.child_under);
    let filers = !figures.filer_number || on.unit.people.iter().any(|&p| on.facts.people[p].work_ssn);
    let numbers = about.work_ssn && filers;
    if about.residency != Residency::UnitedStates {
        Brings::Nothing
    } else if as_a == Household::QualifyingChild && young && numbers {
        Brings::Child
    } else {
        Brings::Other
    }
}

/// Part II: what the tax did not use, up to an amount a child, and to 15 % of earnings above 2,500; with three
/// children or more also to payroll taxes above the earned income credit.
fn refundable(on: On<'_>, trail: &mut impl Trail, unused: Money, children: i64, from: From) -> Money {
    let figures = &on.facts.figures.child_credit;
    let refunded = if on.unit.only_for_refund { 0 } else { children };
    let most = figures.refundable * refunded;
    let open = limit::cap(trail, CHILD_REFUND_EACH.at(on.scope), unused, most);
    trail.line(OPEN, on.scope, open, |i| {
        i.figure("Left after the tax", unused)
            .figure("Children", refunded)
            .figure("Each, at most", figures.refundable);
    });
    let at = CHILD_REFUND_EARNED.at(on.scope);
    let by_earnings = by_earnings(on, from.earned);
    let by_payroll = payroll(on, trail, from);
    let allowed = if children < figures.three_children || by_payroll <= by_earnings {
        let rule = PhaseIn { start: figures.earned_above, rate: figures.earned_rate, unit: Money::WHOLE };
        limit::phase_in(trail, at, open, from.earned, rule)
    } else {
        let allowed = limit::lesser(trail, open, by_payroll);
        limit::given(trail, at, Shape::PhaseIn, open, allowed)
    };
    trail.line(L28, on.scope, allowed, |i| {
        i.line(OPEN, on.scope, open)
            .figure("Earned income", from.earned)
            .figure("Earnings above", figures.earned_above)
            .figure("Rate", figures.earned_rate)
            .figure("By earnings, at most", by_earnings);
        if !from.combat.is_zero() {
            i.line(untaxed_pay::L18B, on.scope, from.combat);
        }
        if children >= figures.three_children {
            i.figure("Payroll taxes above the earned income credit", by_payroll);
        }
    })
}

/// Lines 21 to 25: social security and Medicare tax withheld and uncollected, and half of the self-employment tax (§24(d)(2)), less the earned income credit and
/// excess social security tax.
fn payroll(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let paid = on.owns().map(|(_, own)| {
        sum(own.of(&w2::brings::SOCIAL_SECURITY_TAX))
            + sum(own.of(&w2::brings::MEDICARE_TAX))
            + sum(own.of(&w2::brings::UNCOLLECTED))
    });
    let half: Money = on.unit.people.iter().map(|&p| self_employment::silent(on, p).half).sum();
    let uncollected =
        unreported_tips::tax(on, &mut Unseen(trail)) + misclassified_pay::tax(on, &mut Unseen(trail));
    let paid = paid.sum::<Money>().to_whole() + half + uncollected;
    limit::or_zero(trail, paid - from.eic - from.excess)
}

/// Schedule 8812: where a dependent brings a credit.
pub fn schedule_8812(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(FULL), "nobody claimed brings a credit")
}
