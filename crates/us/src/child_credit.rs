//! The child tax credit, the credit for other dependents and the refundable part (§24), Schedule 8812.

use crate::{
    dependents::Household,
    facts::Residency,
    lines::{CHILD_CREDIT, CHILD_CREDIT_TAX, CHILD_REFUND_EACH, CHILD_REFUND_EARNED},
    unit::On,
};
use hembo_core::{
    limit::{self, PhaseIn, PhaseOut, Shape},
    reading::sum,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What the credit is computed from.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct From {
    pub agi: Money,
    pub earned: Money,
    /// Line 18: the tax that the credit may use up.
    pub before_credits: Money,
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
        full += trail.line("us.child_credit", Scope::Person(dependent.person), amount, |i| {
            i.figure(if amount == figures.child { "Child" } else { "Other dependent" }, amount);
        });
    }
    trail.line("us.8812.8", on.scope, full, |i| {
        for dependent in &on.unit.dependents {
            let scope = Scope::Person(dependent.person);
            match brings(on, dependent.person, dependent.as_a) {
                Brings::Child => i.line("us.child_credit", scope, figures.child),
                Brings::Other => i.line("us.child_credit", scope, figures.other),
                Brings::Nothing => i,
            };
        }
    });
    let rule = PhaseOut {
        start: *figures.from.of(on.unit.status),
        step: Some((figures.step, Rounding::Up)),
        rate: figures.rate,
        least: Money::ZERO,
        unit: Money::WHOLE,
    };
    let credit = limit::phase_out(trail, CHILD_CREDIT.at(on.scope), full, from.agi, rule);
    trail.line("us.8812.12", on.scope, credit, |i| {
        i.line("us.8812.8", on.scope, full)
            .line("us.agi", on.scope, from.agi)
            .figure("Shrinks above", rule.start);
    });
    let used = limit::cap(trail, CHILD_CREDIT_TAX.at(on.scope), credit, from.before_credits);
    trail.line("us.19", on.scope, used, |i| {
        i.line("us.8812.12", on.scope, credit).line("us.18", on.scope, from.before_credits);
    });
    let refundable = refundable(on, trail, credit - used, children, from);
    Credit { used, refundable }
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
    let most = figures.refundable * children;
    let open = limit::cap(trail, CHILD_REFUND_EACH.at(on.scope), unused, most);
    trail.line("us.8812.17", on.scope, open, |i| {
        i.figure("Left after the tax", unused)
            .figure("Children", children)
            .figure("Each, at most", figures.refundable);
    });
    let at = CHILD_REFUND_EARNED.at(on.scope);
    let by_earnings = (from.earned - figures.earned_above).or_zero().times(
        figures.earned_rate,
        Money::WHOLE,
        Rounding::HalfUp,
    );
    let by_payroll = payroll(on, from);
    let allowed = if children < figures.three_children || by_payroll <= by_earnings {
        let rule = PhaseIn { start: figures.earned_above, rate: figures.earned_rate, unit: Money::WHOLE };
        limit::phase_in(trail, at, open, from.earned, rule)
    } else {
        let allowed = open.min(by_payroll);
        limit::given(trail, at, Shape::PhaseIn, open, allowed)
    };
    trail.line("us.28", on.scope, allowed, |i| {
        i.line("us.8812.17", on.scope, open)
            .figure("Earnings above", figures.earned_above)
            .figure("Rate", figures.earned_rate)
            .figure("By earnings, at most", by_earnings);
        if children >= figures.three_children {
            i.figure("Payroll taxes above the earned income credit", by_payroll);
        }
    })
}

/// Lines 21 to 25: social security and Medicare tax withheld and uncollected, less the earned income credit and
/// excess social security tax.
fn payroll(on: On<'_>, from: From) -> Money {
    let paid = on
        .owns()
        .map(|(_, own)| sum(&own.social_security_tax) + sum(&own.medicare_tax) + sum(&own.uncollected));
    (paid.sum::<Money>().to_whole() - from.eic - from.excess).or_zero()
}
