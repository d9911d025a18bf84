//! Form 1040 from wages to the balance, in the order of its lines.

use crate::{
    additional_deductions, additional_taxes, child_credit, earned_income_credit, income, minimum_tax,
    papers::w2, payments, schedule_a, standard_deduction, tax, taxable_income, total_tax, unit::On,
};
use hembo_core::{reading::sum, settled, trail::Trail};
use hembo_money::Money;

/// Computes one return; its result is line 24 less the refundable credits, what the household pays for good.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let income = income::reckon(on, trail);
    let itemized = schedule_a::reckon(on, trail, income.agi);
    let standard = standard_deduction::reckon(on, trail, income.wages);
    let taken = taxable_income::taken(on, trail, standard, itemized.total);
    let additional = additional_deductions::reckon(on, trail, income.agi);
    let taxable = taxable_income::reckon(on, trail, income.agi, taken, additional);
    let regular = tax::reckon(on, trail, taxable);
    let added_back = if on.unit.itemizes { itemized.taxes } else { standard };
    let minimum =
        minimum_tax::reckon(on, trail, minimum_tax::From { agi: income.agi, taken, added_back, regular });
    let before_credits = minimum_tax::before_credits(on, trail, regular, minimum);
    let earned = earned_income(on, income.wages);
    let eic = earned_income_credit::reckon(on, trail, earned, &income);
    let excess = payments::excess_social_security(on, trail);
    let child = child_credit::reckon(
        on,
        trail,
        child_credit::From { agi: income.agi, earned, before_credits, eic, excess },
    );
    let other = additional_taxes::reckon(on, trail, &income);
    let due = total_tax::reckon(on, trail, total_tax::From { before_credits, child, other, eic });
    payments::balance(on, trail, payments::From { due, eic, refundable: child.refundable, excess });
    due.net
}

/// Earned income for the credits: wages without pensions of nonqualified plans (§32(c)(2), §24(d)).
fn earned_income(on: On<'_>, wages: Money) -> Money {
    let pensions: Money = on.owns().map(|(_, own)| sum(own.of(&w2::brings::NONQUALIFIED))).sum();
    settled::or_zero(wages - pensions.to_whole())
}
