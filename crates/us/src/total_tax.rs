//! Total tax, Form 1040 lines 22 to 24, and what the household pays of it for good.

use crate::{
    additional_taxes, adoption,
    child_credit::{self, Credit},
    credits, earned_income_credit, education, income, minimum_tax,
    points::Points,
    premium_tax_credit, repayments, taxable_income,
    unit::On,
};
use hembo_core::{line::LineId, lines, open_points, point::Gather, provision::Provision, trail::Trail};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, points: POINTS, ..Provision::NONE };

lines! {
    L22 = "us.22", "Tax after these credits", "IRC §26",
        "Never less than zero.";
    pub L24 = "us.24", "Total tax of the form", "IRC §26",
        "Tax after credits, and other taxes.";
    pub NET_TAX = "us.net_tax", "Total tax", "IRC §6401(b)",
        "What the household pays for good; below zero it is paid out.";
}

open_points! {
    PROPORTION = look "K-150", "IRC §§1, 26",
        "Look for an amount keyed twice or not at all.";
}

/// What total tax is made of.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct From {
    /// Line 18.
    pub before_credits: Money,
    /// Line 20.
    pub earlier: Money,
    pub child: Credit,
    /// Line 23.
    pub other: Money,
    /// Line 27a.
    pub eic: Money,
    /// Line 29.
    pub education: Money,
    /// Line 30.
    pub adoption: Money,
    /// Schedule 3 line 9.
    pub premium: Money,
    /// Schedule 3 line 13b.
    pub repaid: Money,
    /// Schedule 3 lines 12 and 13a.
    pub taxes_back: [(LineId, Money); 2],
}

/// What total tax comes to.
#[derive(Debug, Clone, Copy)]
pub struct TotalTax {
    /// Line 24.
    pub total: Money,
    /// Line 24 less the refundable credits: what the household pays for good.
    pub net: Money,
}

/// Lines 22 and 24, and line 24 less the refundable credits.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> TotalTax {
    let From { before_credits, earlier, child, other, eic, education, adoption, premium, repaid, taxes_back } =
        from;
    let after_credits = trail.line(L22, on.scope, before_credits - earlier - child.used, |i| {
        i.line(minimum_tax::L18, on.scope, before_credits)
            .line(child_credit::L19, on.scope, child.used)
            .line(credits::L20, on.scope, earlier);
    });
    let total = trail.line(L24, on.scope, after_credits + other, |i| {
        i.line(L22, on.scope, after_credits).line(additional_taxes::L23, on.scope, other);
    });
    let paid_out = [
        (earned_income_credit::L27A, eic),
        (child_credit::L28, child.refundable),
        (education::L29, education),
        (adoption::L30, adoption),
        (premium_tax_credit::NET, premium),
        (repayments::CREDIT, repaid),
    ];
    let paid_out = || paid_out.into_iter().chain(taxes_back);
    let back: Money = paid_out().map(|(_, amount)| amount).sum();
    let net = trail.line(NET_TAX, on.scope, total - back, |i| {
        i.line(L24, on.scope, total);
        for (line, amount) in paid_out().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    });
    TotalTax { total, net }
}

/// Income above which no tax at all is worth a look.
const UNTAXED_ABOVE: i64 = 50_000;

/// The part of taxable income above which a tax is worth a look.
const LARGEST_PART: i64 = 45;

/// A tax out of proportion to the income.
pub fn points(points: &mut Points<'_>) {
    for place in 0..points.units.len() {
        let [tax, taxable, agi] =
            [L24, taxable_income::L15, income::AGI].map(|line| points.amount(line, place));
        let part = taxable.times(Rate::percent(LARGEST_PART), Money::CENT, Rounding::HalfUp);
        let untaxed = tax.is_zero() && agi > Money::whole(UNTAXED_ABOVE);
        if untaxed || (tax > part && tax > Money::whole(UNTAXED_ABOVE)) {
            let message = format!("A tax of {tax:#} on taxable income of {taxable:#} is out of proportion.");
            points.raise(&PROPORTION, points.whose(&points.units[place]), message);
        }
    }
}
