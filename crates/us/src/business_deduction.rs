//! The deduction for qualified business income (§199A), Form 8995, as far as it is for dividends of real estate trusts.

use crate::{
    income::{self, Income},
    papers::dividends,
    unit::{Filed, On},
};
use hembo_core::{forms::Required, limit, limits, lines, provision::Provision, trail::Trail};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, limits: LIMITS, ..Provision::NONE };

lines! {
    TRUSTS = "us.8995.6", "Section 199A dividends", "IRC §199A(b)(1)(B), (e)(3)",
        "Box 5 of every Form 1099-DIV.";
    COMPONENT = "us.8995.9", "Their component", "IRC §199A(b)(1)(B)",
        "A part of the dividends.";
    NET_GAIN = "us.8995.12", "Net capital gain", "IRC §199A(a)(2)(B)",
        "Qualified dividends and the net capital gain.";
    pub L13A = "us.13a", "Qualified business income", "IRC §199A(a)",
        "The component, up to the same part of taxable income without the net capital gain.";
}

limits! {
    BY_INCOME = "us.limit.business_income" on L13A, "Qualified business income", "over 20 % of ordinary taxable income",
        "IRC §199A(a)(1)(B)";
}

/// The deduction. `before` is taxable income before it, not below zero.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income, before: Money) -> Money {
    let trusts = on.gather(trail, TRUSTS, &dividends::brings::SECTION_199A);
    if trusts.is_zero() {
        return trail.line(L13A, on.scope, Money::ZERO, |_| {});
    }
    let rate = on.facts.figures.business_income.rate;
    let component =
        trail.line(COMPONENT, on.scope, trusts.times(rate, Money::WHOLE, Rounding::HalfUp), |i| {
            i.line(TRUSTS, on.scope, trusts).figure("Rate", rate);
        });
    let net_gain = trail.line(NET_GAIN, on.scope, income.qualified + income.gains.net, |i| {
        i.line(income::QUALIFIED, on.scope, income.qualified).figure("Net capital gain", income.gains.net);
    });
    let ordinary = limit::or_zero(trail, before - net_gain);
    let most = ordinary.times(rate, Money::WHOLE, Rounding::HalfUp);
    let allowed = limit::cap(trail, BY_INCOME.at(on.scope), component, most);
    trail.line(L13A, on.scope, allowed, |i| {
        i.line(COMPONENT, on.scope, component)
            .figure("Taxable income before it", before)
            .line(NET_GAIN, on.scope, net_gain);
    })
}

/// Form 8995: where there is qualified business income.
pub fn form_8995(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(TRUSTS), "no qualified business income")
}
