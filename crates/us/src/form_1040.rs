//! Form 1040 from wages to the balance, in the order of its lines.

use crate::{
    additional_deductions, additional_taxes, child_credit, earned_income_credit, income, minimum_tax,
    payments, schedule_a, standard_deduction, tax, unit::On,
};
use hembo_core::{reading::sum, trail::Trail};
use hembo_money::Money;

/// Computes one return; its result is line 24 less the refundable credits, what the household pays for good.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let income = income::reckon(on, trail);
    let itemized = schedule_a::reckon(on, trail, income.agi);
    let standard = standard_deduction::reckon(on, trail, income.wages);
    let taken = if on.unit.itemizes { itemized.total } else { standard };
    trail.line("us.12e", on.scope, taken, |i| {
        if on.unit.itemizes {
            i.line("us.sched_a.17", on.scope, taken);
        } else {
            i.line("us.standard", on.scope, taken);
        }
    });
    let additional = additional_deductions::reckon(on, trail, income.agi);
    let deductions = trail.line("us.14", on.scope, taken + additional, |i| {
        i.line("us.12e", on.scope, taken).line("us.13b", on.scope, additional);
    });
    let taxable = trail.line("us.15", on.scope, (income.agi - deductions).or_zero(), |i| {
        i.line("us.agi", on.scope, income.agi).line("us.14", on.scope, deductions);
    });
    let regular = tax::reckon(on, trail, taxable);
    let added_back = if on.unit.itemizes { itemized.taxes } else { standard };
    let minimum =
        minimum_tax::reckon(on, trail, minimum_tax::From { agi: income.agi, taken, added_back, regular });
    let before_credits = trail.line("us.18", on.scope, regular + minimum, |i| {
        i.line("us.16", on.scope, regular).line("us.amt", on.scope, minimum);
    });
    let earned = earned_income(on, income.wages);
    let eic = earned_income_credit::reckon(on, trail, earned, &income);
    let excess = payments::excess_social_security(on, trail);
    let child = child_credit::reckon(
        on,
        trail,
        child_credit::From { agi: income.agi, earned, before_credits, eic, excess },
    );
    let after_credits = trail.line("us.22", on.scope, before_credits - child.used, |i| {
        i.line("us.18", on.scope, before_credits).line("us.19", on.scope, child.used);
    });
    let other = additional_taxes::reckon(on, trail, &income);
    let total = trail.line("us.24", on.scope, after_credits + other, |i| {
        i.line("us.22", on.scope, after_credits).line("us.23", on.scope, other);
    });
    let net = trail.line("us.net_tax", on.scope, total - eic - child.refundable, |i| {
        i.line("us.24", on.scope, total).line("us.27a", on.scope, eic).line(
            "us.28",
            on.scope,
            child.refundable,
        );
    });
    payments::balance(on, trail, net, excess);
    net
}

/// Earned income for the credits: wages without pensions of nonqualified plans (§32(c)(2), §24(d)).
fn earned_income(on: On<'_>, wages: Money) -> Money {
    let pensions: Money = on.owns().map(|(_, own)| sum(&own.nonqualified)).sum();
    (wages - pensions.to_whole()).or_zero()
}
