//! Income, deductions, net and taxable income: steps 2 to 4 of the T1, lines 10100 to 26000.

use crate::{
    contributions,
    dividends::{self, Dividends},
    limits::OAS_RECOVERY,
    pension_split,
    plan::On,
};
use hembo_core::{
    limit::{self, PhaseOut},
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What the rest of a return asks of its income.
#[derive(Debug, Clone, Copy, Default)]
pub struct Income {
    /// Line 10100.
    pub employment: Money,
    /// Pension income that the pension amount takes, after the split.
    pub pension: Money,
    /// Taxable eligible dividends.
    pub eligible_dividends: Money,
    /// Line 12010.
    pub other_dividends: Money,
    /// Line 22215, of which the minimum tax adds back a half.
    pub enhanced_cpp: Money,
    /// Line 23500.
    pub recovered: Money,
    /// Line 23600.
    pub net: Money,
    /// Line 26000.
    pub taxable: Money,
}

/// Lines 10100 to 26000.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Income {
    let own = on.own();
    let figures = &on.facts.figures;
    let aged = on.reached(figures.pension.age);
    let employment = on.gather(trail, "ca.10100", &own.employment);
    let oas = on.gather(trail, "ca.11300", &own.oas);
    let benefits = on.gather(trail, "ca.11400", &own.cpp_benefits);
    let pensions: Vec<&Item> = on.who().eligible_pensions(aged).collect();
    let pension = on.gather(trail, "ca.11500", pensions);
    let split = pension_split::reckon(on, trail);
    let Dividends { eligible: eligible_dividends, other: other_dividends } = dividends::reported(on, trail);
    let dividends = eligible_dividends + other_dividends;
    // Annuities before 65 are income of another line: box 024 beside interest, the others with other income.
    let young: &[Item] = if aged { &[] } else { &own.age_pensions };
    let (annuities, others): (Vec<&Item>, Vec<&Item>) = young.iter().partition(|item| item.field == "024");
    let interest = on.gather(trail, "ca.12100", own.interest.iter().chain(annuities));
    let other = on.gather(trail, "ca.13000", own.other.iter().chain(others));
    let supplements = on.gather(trail, "ca.14600", &own.supplements);
    let total = on.add(
        trail,
        "ca.15000",
        &[
            ("ca.10100", employment),
            ("ca.11300", oas),
            ("ca.11400", benefits),
            ("ca.11500", pension),
            ("ca.11600", split.received),
            ("ca.12000", dividends),
            ("ca.12100", interest),
            ("ca.13000", other),
            ("ca.14600", supplements),
        ],
    );

    let rpp = on.gather(trail, "ca.20700", &own.rpp);
    let contributed = contributions::reckon(on, trail);
    let dues = on.gather(trail, "ca.21200", &own.dues);
    let enhanced = crate::cpp_ei::enhanced(on, trail);
    let repaid = on.gather(trail, "ca.23200", &own.oas_recovered);
    let deductions = on.add(
        trail,
        "ca.23300",
        &[
            ("ca.20700", rpp),
            ("ca.20800", contributed),
            ("ca.21000", split.given),
            ("ca.21200", dues),
            ("ca.22215", enhanced),
            ("ca.23200", repaid),
        ],
    );
    let before =
        on.made(trail, "ca.23400", total - deductions, &[("ca.15000", total), ("ca.23300", deductions)], &[]);
    let recovered = recovery(on, trail, before, oas + supplements - repaid);
    let net = limit::or_zero(trail, before - recovered);
    on.made(trail, "ca.23600", net, &[("ca.23400", before), ("ca.23500", recovered)], &[]);
    // A supplement that is repaid is not deducted a second time.
    let supplement_repaid = limit::or_zero(trail, recovered - oas);
    let exempt = limit::or_zero(trail, supplements - supplement_repaid);
    on.made(trail, "ca.25000", exempt, &[("ca.14600", supplements)], &[]);
    let taxable = limit::or_zero(trail, net - exempt);
    on.made(trail, "ca.26000", taxable, &[("ca.23600", net), ("ca.25000", exempt)], &[]);
    Income {
        employment,
        pension: split.left,
        eligible_dividends,
        other_dividends,
        enhanced_cpp: enhanced,
        recovered,
        net,
        taxable,
    }
}

/// Line 23500, social benefits repayment (ITA 180.2): a part of income above the threshold, at most what was paid.
fn recovery(on: On<'_>, trail: &mut impl Trail, before: Money, paid: Money) -> Money {
    let figures = &on.facts.figures.oas;
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    let paid = limit::or_zero(trail, paid);
    let kept = limit::phase_out(trail, OAS_RECOVERY.at(on.scope), paid, before, rule);
    on.made(
        trail,
        "ca.23500",
        paid - kept,
        &[("ca.23400", before)],
        &[("Income above", &figures.from), ("Rate", &figures.rate), ("At most what was paid", &paid)],
    )
}

/// An amount × a rate, to the cent.
pub fn cents(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::HalfUp)
}
