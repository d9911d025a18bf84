//! Income, deductions, net and taxable income: steps 2 to 4 of the T1, lines 10100 to 26000.

use crate::{
    bringing, contributions, cpp_ei,
    dividends::{self, Dividends},
    papers::{benefits, t4, t4a, t5},
    pension_split,
    plan::On,
};
use hembo_core::{
    limit::{self, PhaseOut},
    limits, lines,
    provision::Provision,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["pension", "oas"], ..Provision::NONE };

lines! {
    pub EMPLOYMENT = "ca.10100", "Employment income", "ITA 5, 6",
        "Box 14 of every T4.";
    pub OAS = "ca.11300", "Old age security", "ITA 56(1)(a)(i)",
        "Box 18 of the T4A(OAS).";
    pub BENEFITS = "ca.11400", "CPP benefits", "ITA 56(1)(a)(i)(B)",
        "Box 20 of every T4A(P).";
    pub INTEREST = "ca.12100", "Interest and other investment income", "ITA 12(1)(c)",
        "Boxes 13, 14, 15 and 19 of every T5.";
    pub OTHER = "ca.13000", "Other income", "ITA 56(1)",
        "Boxes 018 and 028 of every T4A, and annuities that are no pension yet.";
    pub SUPPLEMENTS = "ca.14600", "Net federal supplements", "ITA 56(1)(v)",
        "Box 21 of the T4A(OAS).";
    pub TOTAL = "ca.15000", "Total income", "ITA 3",
        "All income lines.";
    pub RPP = "ca.20700", "Registered pension plan", "ITA 8(1)(m), 147.2",
        "Box 20 of every T4 and box 032 of every T4A.";
    pub DUES = "ca.21200", "Union dues", "ITA 8(1)(i)",
        "Box 44 of every T4.";
    pub REPAID = "ca.23200", "Benefits repaid", "ITA 60(n)",
        "Box 20 of the T4A(OAS).";
    DEDUCTIONS = "ca.23300", "Deductions", "ITA 60",
        "All deductions before the benefits repayment.";
    BEFORE = "ca.23400", "Net income before adjustments", "ITA 180.2(1)",
        "Total income less the deductions.";
    pub RECOVERY = "ca.23500", "Social benefits repayment", "ITA 60(w), 180.2",
        "A part of income above the threshold, at most the old age security paid.";
    pub NET = "ca.23600", "Net income", "ITA 3",
        "Net income before adjustments less the repayment; never below zero.";
    pub EXEMPT = "ca.25000", "Other payments deducted", "ITA 110(1)(f)",
        "Supplements, as far as they are not repaid.";
    pub TAXABLE = "ca.26000", "Taxable income", "ITA 2(2)",
        "Net income less the deductions after it.";
}

limits! {
    OAS_RECOVERY = "ca.limit.oas" on RECOVERY, "Old age security", "shrinks with income above the threshold",
        "ITA 180.2(2)";
}

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
    let employment = on.gather(trail, EMPLOYMENT, own.of(&t4::brings::EMPLOYMENT));
    let oas = on.gather(trail, OAS, own.of(&benefits::brings::OAS));
    let benefits = on.gather(trail, BENEFITS, own.of(&benefits::brings::CPP));
    let pension = on.gather(trail, pension_split::PENSIONS, pension_split::pensions(own, aged));
    let split = pension_split::reckon(on, trail);
    let Dividends { eligible: eligible_dividends, other: other_dividends } = dividends::reported(on, trail);
    let dividends = eligible_dividends + other_dividends;
    // Annuities before 65 are income of another line: box 024 beside interest, the others with other income.
    let young: &[Item] = if aged { &[] } else { own.of(&t4a::brings::AGE_PENSIONS) };
    let (annuities, others): (Vec<&Item>, Vec<&Item>) = young.iter().partition(|item| item.field == "024");
    let interest = on.gather(trail, INTEREST, own.of(&t5::brings::INTEREST).iter().chain(annuities));
    let other = on.gather(trail, OTHER, own.of(&t4a::brings::OTHER).iter().chain(others));
    let supplements = on.gather(trail, SUPPLEMENTS, own.of(&benefits::brings::SUPPLEMENTS));
    let total = on.add(
        trail,
        TOTAL,
        &[
            (EMPLOYMENT, employment),
            (OAS, oas),
            (BENEFITS, benefits),
            (pension_split::PENSIONS, pension),
            (pension_split::RECEIVED, split.received),
            (dividends::ALL, dividends),
            (INTEREST, interest),
            (OTHER, other),
            (SUPPLEMENTS, supplements),
        ],
    );

    let rpp = on.gather(trail, RPP, own.of(&bringing::brings::RPP));
    let contributed = contributions::reckon(on, trail);
    let dues = on.gather(trail, DUES, own.of(&t4::brings::DUES));
    let enhanced = crate::cpp_ei::enhanced(on, trail);
    let repaid = on.gather(trail, REPAID, own.of(&benefits::brings::OAS_RECOVERED));
    let deductions = on.add(
        trail,
        DEDUCTIONS,
        &[
            (RPP, rpp),
            (contributions::DEDUCTED, contributed),
            (pension_split::GIVEN, split.given),
            (DUES, dues),
            (cpp_ei::ENHANCED, enhanced),
            (REPAID, repaid),
        ],
    );
    let before = on.made(trail, BEFORE, total - deductions, &[(TOTAL, total), (DEDUCTIONS, deductions)], &[]);
    let recovered = recovery(on, trail, before, oas + supplements - repaid);
    let net = limit::or_zero(trail, before - recovered);
    on.made(trail, NET, net, &[(BEFORE, before), (RECOVERY, recovered)], &[]);
    // A supplement that is repaid is not deducted a second time.
    let supplement_repaid = limit::or_zero(trail, recovered - oas);
    let exempt = limit::or_zero(trail, supplements - supplement_repaid);
    on.made(trail, EXEMPT, exempt, &[(SUPPLEMENTS, supplements)], &[]);
    let taxable = limit::or_zero(trail, net - exempt);
    on.made(trail, TAXABLE, taxable, &[(NET, net), (EXEMPT, exempt)], &[]);
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
        RECOVERY,
        paid - kept,
        &[(BEFORE, before)],
        &[("Income above", &figures.from), ("Rate", &figures.rate), ("At most what was paid", &paid)],
    )
}
