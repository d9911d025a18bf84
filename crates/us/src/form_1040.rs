//! Form 1040 from wages to the balance, in the order of its lines.

use crate::{
    additional_deductions, additional_taxes, business_deduction, capital_gains, child_credit, credits,
    earned_income_credit, foreign_tax, gains_tax,
    income::{self, Income},
    minimum_tax, other_income,
    papers::w2,
    payments, schedule_a, self_employment, standard_deduction,
    taxable_income::{self, Deductions},
    total_tax,
    unit::On,
};
use hembo_core::{limit, reading::sum, settled, trail::Trail};
use hembo_money::Money;

/// Computes one return; its result is line 24 less the refundable credits, what the household pays for good.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let income = income::reckon(on, trail);
    let itemized = schedule_a::reckon(on, trail, income.agi);
    let standard = standard_deduction::reckon(
        on,
        trail,
        earned_income(on, income.wages) + other_income::scholarships(on),
    );
    let off = deductions(on, trail, &income, standard, itemized.total);
    let taxable = taxable_income::reckon(on, trail, income.agi, off);
    capital_gains::carry(on, trail, income.gains, income.agi - off.sum());
    let (regular, worksheet) = gains_tax::reckon(on, trail, taxable, income.qualified, income.gains);
    let standard_taken = if on.unit.itemizes { Money::ZERO } else { standard };
    let from =
        foreign_tax::From { standard: standard_taken, taxable, regular, ..itemized.foreign(income.gross) };
    let foreign = foreign_tax::reckon(on, trail, from);
    let added_back = if on.unit.itemizes { itemized.taxes } else { standard };
    let from = minimum_tax::From {
        agi: income.agi,
        taken: off.taken,
        other: off.business + off.additional - off.seniors,
        added_back,
        regular,
        worksheet,
        refund: income.refund,
        foreign,
    };
    let minimum = minimum_tax::reckon(on, trail, from);
    let before_credits = minimum_tax::before_credits(on, trail, regular, minimum);
    let schedule_3 =
        credits::schedule_3(on, trail, credits::From { agi: income.agi, before_credits, foreign });
    let earned = earned_income(on, income.wages);
    let eic = earned_income_credit::reckon(on, trail, earned, &income);
    let excess = payments::excess_social_security(on, trail);
    let child = child_credit::reckon(
        on,
        trail,
        child_credit::From { agi: income.agi, earned, before_credits, earlier: schedule_3.used, eic, excess },
    );
    let other = additional_taxes::reckon(on, trail, &income);
    let due = total_tax::reckon(
        on,
        trail,
        total_tax::From {
            before_credits,
            earlier: schedule_3.used,
            child,
            other,
            eic,
            education: schedule_3.education,
        },
    );
    payments::balance(
        on,
        trail,
        payments::From { due, eic, refundable: child.refundable, education: schedule_3.education, excess },
    );
    due.net
}

/// Lines 12e to 13b.
fn deductions(
    on: On<'_>,
    trail: &mut impl Trail,
    income: &Income,
    standard: Money,
    itemized: Money,
) -> Deductions {
    let taken = taxable_income::taken(on, trail, standard, itemized);
    let additional = additional_deductions::reckon(on, trail, income.agi);
    let before = limit::or_zero(trail, income.agi - taken - additional.sum);
    let business = business_deduction::reckon(on, trail, income, before);
    Deductions { taken, business, additional: additional.sum, seniors: additional.seniors }
}

/// Earned income for the credits: wages without pensions of nonqualified plans, and what a business earned less half of the tax
/// (§§24(d), 32(c)(2)).
fn earned_income(on: On<'_>, wages: Money) -> Money {
    let pensions: Money = on.owns().map(|(_, own)| sum(own.of(&w2::brings::NONQUALIFIED))).sum();
    let own: Money = on.unit.people.iter().map(|&p| self_employment::silent(on, p).earned()).sum();
    settled::or_zero(wages - pensions.to_whole() + own)
}
