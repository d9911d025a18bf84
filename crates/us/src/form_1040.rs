//! Form 1040 from wages to the balance, in the order of its lines.

use crate::{
    additional_deductions::{self, Additional},
    additional_taxes, business_deduction, california, capital_gains, child_credit, clean_vehicles, community,
    credits, earlier_minimum_tax, earned_income_credit, foreign_tax,
    gains_tax::{self, Worksheet},
    income::{self, Income},
    itemized_limit,
    kiddie::{self, Child},
    minimum_tax::{self, Repaid},
    operating_loss, other_income,
    papers::w2,
    parents_election,
    payments::{self, TotalPaid},
    premium_tax_credit, refunded_taxes, repayments,
    schedule_a::{self, Itemized, casualty},
    self_employed_cover, self_employment, standard_deduction,
    state_facts::ParentsHere,
    tax,
    taxable_income::{self, Deductions},
    total_tax, underpayment,
    unit::{On, Parents},
    unitemized_gifts, untaxed_pay,
};
use hembo_core::{
    limit,
    reading::sum,
    settled,
    trail::{Silent, Trail},
};
use hembo_money::Money;

/// A return down to line 16.
struct Front {
    income: Income,
    itemized: Itemized,
    standard: Money,
    off: Deductions,
    taxable: Money,
    regular: Money,
    worksheet: Option<Worksheet>,
}

/// Lines 1a to 11, and Schedule A.
fn income_and_itemized(on: On<'_>, trail: &mut impl Trail) -> (Income, Itemized) {
    self_employed_cover::reckon(on, trail);
    let income = income::reckon(on, trail);
    community::statement(on, trail);
    let itemized = schedule_a::reckon(on, trail, &income);
    let invested = itemized.invested;
    let deducted = if on.unit.itemizes { invested.amount } else { Money::ZERO };
    (income.with_elected(invested.gain, invested.qualified, deducted), itemized)
}

/// Lines 1a to 16.
fn front(on: On<'_>, trail: &mut impl Trail) -> Front {
    let (income, itemized) = income_and_itemized(on, trail);
    let earned = earned_income(on, income.wages) + other_income::scholarships(on);
    let standard = standard_deduction::reckon(on, trail, earned);
    let off = deductions(on, trail, &income, standard, &itemized);
    let taxable = taxable_income::reckon(on, trail, income.agi, off, unitemized_gifts::GIFTS);
    capital_gains::carry(on, trail, income.gains, income.agi - off.sum());
    let (own, worksheet) =
        gains_tax::reckon(on, trail, taxable, income.preferred_qualified, income.preferred);
    let child = child(&income, taxable);
    let regular = kiddie::reckon(on, trail, child, own);
    let by = match worksheet {
        _ if on.unit.parents.is_some() && child.is_taxed(on) => Some(kiddie::L18),
        Some(_) => Some(gains_tax::BY_WORKSHEET),
        None => None,
    };
    let of_children = (parents_election::TAX, income.children.tax);
    tax::line_16(on, trail, tax::Line16 { taxable, tax: regular, by, of_children });
    Front { income, itemized, standard, off, taxable, regular, worksheet }
}

fn child(income: &Income, taxable: Money) -> Child {
    let (qualified, gains) = (income.preferred_qualified, income.preferred);
    Child { unearned: income.unearned, taxable, qualified, gains }
}

/// What a return is without operating losses of earlier years.
pub fn without_operating_loss(on: On<'_>) -> operating_loss::Without {
    let front = front(on, &mut Silent);
    operating_loss::Without {
        taxable: front.income.agi - front.off.sum() + front.off.business,
        capital_loss: settled::or_zero(-front.income.gains.line_7),
    }
}

/// What a parent's return has for Form 8615 of a child; `siblings` is line 5 of the other children's forms.
pub fn as_parents(on: On<'_>, siblings: Money) -> Parents {
    let front = front(on, &mut Silent);
    let (qualified, gains) = (front.income.preferred_qualified, front.income.preferred);
    Parents { status: on.unit.status, taxable: front.taxable, tax: front.regular, qualified, gains, siblings }
}

/// Line 5 of Form 8615 of a child, as the form of a brother or sister asks for it.
pub fn taxed_at_parents(on: On<'_>) -> Money {
    let front = front(on, &mut Silent);
    let child = child(&front.income, front.taxable);
    if child.is_taxed(on) { child.taxed_at_parents(on) } else { Money::ZERO }
}

/// What a parent's return of the state has for the same form of a child there.
pub fn as_parents_here(on: On<'_>, siblings: Money) -> Option<ParentsHere> {
    let (income, earned) = of_state(on, &mut Silent);
    california::form_540::as_parents(on, &income, earned, siblings)
}

/// What of a child's income the state taxes at the parents' rates.
pub fn taxed_at_parents_here(on: On<'_>) -> Money {
    let (income, earned) = of_state(on, &mut Silent);
    california::form_540::taxed_at_parents(on, &income, earned)
}

/// What the return of a state starts from.
fn of_state(on: On<'_>, trail: &mut impl Trail) -> (Income, Money) {
    let (income, _) = income_and_itemized(on, trail);
    let earned = earned_income(on, income.wages) + other_income::scholarships(on);
    (income, earned)
}

/// Computes one return, with that of the state on top of it; its result is line 24 less the refundable credits with the same of the state, what
/// the household pays for good. Of a child whose income is on the parents' federal return alone the state's starts from what a federal one would
/// have.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    if on.unit.of_state.alone {
        let (income, earned) = of_state(on, trail);
        return california::form_540::reckon(on, trail, &income, earned);
    }
    let Front { income, itemized, standard, off, taxable, regular, worksheet } = front(on, trail);
    let regular = regular + income.children.tax;
    let standard_taken = if on.unit.itemizes { Money::ZERO } else { off.taken };
    let cover = premium_tax_credit::reckon(on, trail, &income);
    let [new_vehicle, used_vehicle] = clean_vehicles::repaid(on, trail, income.agi);
    let repaid = Repaid { cover: cover.excess, new_vehicle, used_vehicle };
    let from = foreign_tax::From {
        standard: standard_taken,
        taxable,
        regular,
        repaid: repaid.sum(),
        worksheet,
        ..itemized.foreign(income.gross)
    };
    let credited = foreign_tax::reckon(on, trail, from);
    let added_back = if on.unit.itemizes { itemized.taxes } else { standard };
    let from = minimum_tax::From {
        agi: income.agi,
        taken: off.taken,
        other: off.business + off.additional + off.gifts - off.seniors,
        added_back,
        regular,
        repaid: repaid.sum(),
        worksheet,
        refund: income.refund,
        gains: income.gains,
        operating_loss: on.unit.operating_loss.map_or(Money::ZERO, |loss| loss.deducted),
        child_earned: child(&income, taxable).is_taxed(on).then(|| earned_income(on, income.wages)),
        foreign: credited,
    };
    let foreign = credited.credit;
    let minimum = minimum_tax::reckon(on, trail, from);
    let before_credits = minimum_tax::before_credits(on, trail, regular, minimum.tax, repaid);
    let untaxed_benefits = income.untaxed_benefits;
    let start = credits::From { agi: income.agi, before_credits, foreign, untaxed_benefits };
    let first = credits::before_child(on, trail, start);
    let earned = earned_income(on, income.wages);
    let eic = earned_income_credit::reckon(on, trail, earned, &income);
    let excess = payments::excess_social_security(on, trail);
    let combat = untaxed_pay::combat(on, trail);
    let from = child_credit::From {
        agi: income.agi,
        earned: earned + combat,
        combat,
        before_credits,
        earlier: first.used(),
        eic,
        excess,
    };
    let before_later = match credits::any_after_child(on) {
        true => child_credit::not_paid_out(on, trail, from),
        false => Money::ZERO,
    };
    let schedule_3 = credits::schedule_3(on, trail, start, &first, before_later);
    let child = child_credit::reckon(on, trail, child_credit::From { earlier: schedule_3.used, ..from });
    let adoption = schedule_3.adoption;
    let from = earlier_minimum_tax::From {
        regular: regular + repaid.sum(),
        tentative: minimum.tentative,
        others: schedule_3.used + child.used,
    };
    let earlier = earlier_minimum_tax::reckon(on, trail, from);
    let earlier = credits::line_20(on, trail, schedule_3, earlier);
    let other = additional_taxes::reckon(on, trail, &income);
    let repaid = repayments::credit(on, trail);
    let taxes_back = refunded_taxes::reckon(on, trail);
    let due = total_tax::reckon(
        on,
        trail,
        total_tax::From {
            before_credits,
            earlier,
            child,
            other,
            eic,
            education: first.education,
            adoption,
            premium: cover.net,
            repaid,
            taxes_back,
        },
    );
    let from = payments::From {
        eic,
        refundable: child.refundable,
        education: first.education,
        adoption,
        premium: cover.net,
        excess,
        repaid,
        taxes_back,
    };
    let paid = payments::reckon(on, trail, from);
    let start = TotalPaid { tax_of_form: due.total, withheld: paid.withheld, for_ira: income.for_ira };
    let addition = underpayment::reckon(on, trail, due.total - from.refunded(), start);
    payments::balance(on, trail, due, paid, (underpayment::PENALTY, addition));
    let earned = earned + other_income::scholarships(on);
    due.net + california::form_540::reckon(on, trail, &income, earned)
}

/// Lines 12e to 13b.
fn deductions(
    on: On<'_>,
    trail: &mut impl Trail,
    income: &Income,
    standard: Money,
    itemized: &Itemized,
) -> Deductions {
    let Additional { sum: additional, seniors } = additional_deductions::reckon(on, trail, income.agi);
    let gifts = unitemized_gifts::reckon(on, trail);
    let full = if on.unit.itemizes { itemized.total } else { standard + itemized.disaster };
    let left = income.agi - full - additional - gifts;
    let before = limit::or_zero(trail, left);
    let business = business_deduction::reckon(on, trail, income, before);
    let over = itemized_limit::reckon(on, trail, itemized.total, left - business);
    let disaster = (casualty::QUALIFIED, itemized.disaster);
    let taken = taxable_income::taken(on, trail, standard, (itemized.total, over), disaster);
    Deductions { taken, business, additional, gifts, seniors }
}

/// Earned income for the credits: wages without pensions of nonqualified plans, and what a business earned less half of the tax
/// (§§24(d), 32(c)(2)).
fn earned_income(on: On<'_>, wages: Money) -> Money {
    let pensions: Money = on.owns().map(|(_, own)| sum(own.of(&w2::brings::NONQUALIFIED))).sum();
    let own: Money = on.unit.people.iter().map(|&p| self_employment::silent(on, p).earned()).sum();
    // Of community wages each reports half, and each earned the own ones.
    let reported = [&w2::brings::WAGES, &w2::brings::TIPS_NOT_REPORTED, &w2::brings::UNWITHHELD];
    let reported = sum(reported.into_iter().flat_map(|kind| on.items(kind))).to_whole();
    let earned = on.owns().map(|(_, own)| w2::earned(own)).sum::<Money>().to_whole();
    let waiver: Money = on.unit.people.iter().map(|&p| untaxed_pay::waiver_counted(on, p)).sum();
    let wages = wages - untaxed_pay::on_wages(on, &mut Silent) - reported;
    settled::or_zero(wages + earned + waiver.to_whole() - pensions.to_whole() + own)
}
