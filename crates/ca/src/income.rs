//! Income, deductions, net and taxable income: steps 2 to 4 of the T1, lines 10100 to 26000.

use crate::{
    bringing, business, capital_gains,
    child_care::{self, Means},
    contributions,
    cpp_ei::{self, Contributions},
    disability_supports,
    dividends::{self, Dividends},
    employment_expenses,
    facts::PersonFacts,
    first_home, foreign_income, gains_exemption,
    non_capital::{self, Sources},
    northern, other_deductions,
    papers::{benefits, insurance, savings, t4, t4a, t5},
    pension_split,
    plan::{Filed, On},
    points::Points,
    rental,
    rounding::cents,
    split_income, volunteers,
};
use hembo_core::{
    forms::Required,
    limit::{self, PhaseOut},
    limits,
    line::LineId,
    lines,
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail, Unseen},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, figures: &["pension", "oas", "ei"], ..Provision::NONE };

lines! {
    pub EMPLOYMENT = "ca.10100", "Employment income", "ITA 5, 6",
        "Box 14 of every T4.";
    pub OAS = "ca.11300", "Old age security", "ITA 56(1)(a)(i)",
        "Box 18 of the T4A(OAS).";
    pub BENEFITS = "ca.11400", "CPP benefits", "ITA 56(1)(a)(i)(B)",
        "Box 20 of every T4A(P).";
    pub INTEREST = "ca.12100", "Interest and other investment income", "ITA 12(1)(c)",
        "Boxes 13, 14, 15, 17 and 19 of every T5.";
    pub INSURANCE = "ca.11900", "Employment insurance", "ITA 56(1)(a)(iv)",
        "Box 14 of every T4E.";
    pub PLANS = "ca.12900", "Retirement savings plans", "ITA 146(8)",
        "Boxes 18, 20, 22, 26, 28 and 34 of every T4RSP, annuities before 65, and repayments of plans that were missed.";
    pub OTHER = "ca.13000", "Other income", "ITA 56(1)",
        "Boxes 018, 028 and 042 of every T4A, retiring allowances, and what is no pension yet.";
    pub SCHOLARSHIPS = "ca.13010", "Taxable scholarships", "ITA 56(1)(n), (3)",
        "Box 105 of every T4A, less what is exempt.";
    pub COMPENSATION = "ca.14400", "Workers' compensation", "ITA 56(1)(v)",
        "Box 10 of every T5007; taken off again at line 25000.";
    pub ASSISTANCE = "ca.14500", "Social assistance", "ITA 56(1)(u)",
        "Box 11 of every T5007; taken off again at line 25000.";
    pub SUPPLEMENTS = "ca.14600", "Net federal supplements", "ITA 56(1)(v)",
        "Box 21 of the T4A(OAS).";
    pub TOTAL = "ca.15000", "Total income", "ITA 3",
        "All income lines.";
    pub RPP = "ca.20700", "Registered pension plan", "ITA 8(1)(m), 147.2",
        "Box 20 of every T4 and box 032 of every T4A.";
    pub DUES = "ca.21200", "Union dues", "ITA 8(1)(i)",
        "Box 44 of every T4, and dues of a profession.";
    COMPENSATION_REPAID = "ca.22900.repaid", "Compensation repaid", "ITA 8(1)(n)",
        "Box 77 of every T4.";
    pub EXPENSES = "ca.22900", "Employment expenses", "ITA 8(1)",
        "Those of form T777, and compensation repaid.";
    BENEFITS_REPAID = "ca.23200.repaid", "Benefits repaid, contributions taken out again", "ITA 60(n), 146(8.2)",
        "Box 20 of the T4A(OAS), box 30 of every T4E, box 20 of a T4RSP with form T746.";
    pub REPAID = "ca.23200", "Other deductions", "ITA 20(11), (12), 60(n)",
        "Benefits repaid, and foreign tax that is deducted.";
    DEDUCTIONS = "ca.23300", "Deductions", "ITA 60",
        "All deductions before the benefits repayment.";
    BEFORE = "ca.23400", "Net income before adjustments", "ITA 180.2(1)",
        "Total income less the deductions.";
    pub RECOVERY = "ca.23500", "Social benefits repayment", "ITA 60(w), 180.2",
        "Employment insurance and old age security to repay.";
    pub NET = "ca.23600", "Net income", "ITA 3",
        "Net income before adjustments less the repayment; never below zero.";
    pub FORCES = "ca.24400", "Forces and police", "ITA 110(1)(f)(v)",
        "Box 43 of every T4.";
    pub OPTIONS = "ca.24900", "Security options", "ITA 110(1)(d), (d.1)",
        "Box 39 of every T4.";
    pub EXEMPT = "ca.25000", "Other payments deducted", "ITA 110(1)(f)",
        "Compensation, assistance and supplements, as far as they are not repaid.";
    EI_REPAID = "ca.recovery.ei", "Employment insurance to repay", "Employment Insurance Act 145",
        "A part of regular benefits, or of income above the threshold if less.";
    OAS_REPAID = "ca.recovery.oas", "Old age security to repay", "ITA 180.2(2)",
        "A part of income above the threshold, at most what was paid.";
    pub TAXABLE = "ca.26000", "Taxable income", "ITA 2(2)",
        "Net income less the deductions after it.";
}

limits! {
    EI_RECOVERY = "ca.limit.ei" on EI_REPAID, "Employment insurance", "shrinks with income above the threshold",
        "Employment Insurance Act 145";
    OAS_RECOVERY = "ca.limit.oas" on OAS_REPAID, "Old age security", "shrinks with income above the threshold",
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
    /// Line 13500 where it is above zero, as earned income.
    pub business: Money,
    /// What of contributions to the pension plan and premiums counts.
    pub contributed: Contributions,
    /// Lines 22200 and 22215, of which the minimum tax adds back a half.
    pub enhanced_cpp: Money,
    /// Line 12700.
    pub taxable_gains: Money,
    /// Moving, carrying and employment expenses, disability supports and the northern deduction, of which the minimum tax adds back a half.
    pub halved: Money,
    /// Line 21500.
    pub supports: Money,
    /// Line 24900.
    pub options: Money,
    /// Lines 25200 and 25300.
    pub losses_used: Money,
    /// Line 25400.
    pub exempt_gains: Money,
    /// Line 21400.
    pub child_care: Money,
    /// Line 23500.
    pub recovered: Money,
    /// Line 23600.
    pub net: Money,
    /// Line 26000.
    pub taxable: Money,
    /// Of which foreign income is a part (ITA 126(1)(b)): taxable income before non-capital losses and the northern deduction.
    pub of_all_countries: Money,
}

/// The incomes of everyone, by person.
pub type Incomes = [Income];

/// Net income of both of a couple, or of one who is alone at the end of the own year.
pub fn family_net(on: On<'_>, incomes: &Incomes) -> Money {
    let partner = on.facts.partner_at_end(on.person).map_or(Money::ZERO, |p| incomes[p].net);
    incomes[on.person].net + partner
}

/// What of the deductions that a way takes falls on the capital cost of lets: what first home savings and contributions leave.
fn rental_part(on: On<'_>, wanted: Money) -> Money {
    let before = first_home::most(on.facts, on.person) + contributions::most(on.facts, on.person);
    settled::or_zero(wanted - before)
}

/// Income and deductions before child care and the repayment of benefits.
#[derive(Debug)]
struct Before {
    income: Income,
    total: Money,
    deductions: Vec<(LineId, Money)>,
    /// The kinds of income, for a loss of the year; without child care.
    sources: Sources,
    oas: Money,
    /// Compensation and assistance, which are taken off again.
    offset: Money,
    supplements: Money,
    oas_repaid: Money,
}

impl Before {
    /// What child care asks for.
    fn means(&self) -> Means {
        let net = self.total - self.deductions.iter().map(|(_, amount)| *amount).sum::<Money>();
        Means { net, business: self.income.business }
    }
}

/// Lines 10100 to 23200 but line 21400.
fn before_care(on: On<'_>, trail: &mut impl Trail) -> Before {
    let own = on.own();
    let figures = &on.facts.figures;
    let aged = on.reached(figures.pension.age);
    let employment = own.of(&t4::brings::EMPLOYMENT).iter().chain(volunteers::pay(on));
    let employment = on.gather(trail, EMPLOYMENT, employment);
    let oas = on.gather(trail, OAS, own.of(&benefits::brings::OAS));
    let benefits = on.gather(trail, BENEFITS, own.of(&benefits::brings::CPP));
    let pension = on.gather(trail, pension_split::PENSIONS, pension_split::pensions(own, aged));
    let split = pension_split::reckon(on, trail);
    let Dividends { eligible: eligible_dividends, other: other_dividends } = dividends::reported(on, trail);
    let dividends = eligible_dividends + other_dividends;
    // Annuities before 65 are income of another line: box 024 of a T4A beside interest, those of a plan with what is withdrawn, the
    // others with other income.
    let young = |kind| if aged { &[][..] } else { own.of(kind) };
    let (annuities, others): (Vec<&Item>, Vec<&Item>) =
        young(&t4a::brings::AGE_PENSIONS).iter().partition(|item| item.field == "024");
    let interest = on.gather(trail, INTEREST, own.of(&t5::brings::INTEREST).iter().chain(annuities));
    let withdrawn = own.of(&savings::brings::WITHDRAWN).iter().chain(young(&savings::brings::ANNUITIES));
    let missed = contributions::missed(on, trail);
    let plans = trail.line(PLANS, on.scope, sum(withdrawn.clone()) + missed, |i| {
        i.items(withdrawn).line(contributions::MISSED, on.scope, missed);
    });
    let other = own.of(&t4a::brings::OTHER).iter().chain(others).chain(young(&savings::brings::FUNDS));
    let other = on.gather(trail, OTHER, other);
    let insurance = on.gather(trail, INSURANCE, own.of(&insurance::brings::INSURANCE));
    let gains = capital_gains::reckon(on, trail);
    let support = on.gather(
        trail,
        other_deductions::SUPPORT_RECEIVED,
        own.of(&other_deductions::brings::SUPPORT_RECEIVED),
    );
    let business = business::reckon(on, trail);
    let wanted = on.plan.contributions[on.person].unwrap_or(Money::LARGEST);
    let rents = rental::reckon(on, trail, rental_part(on, wanted));
    let scholarships = on.gather(trail, SCHOLARSHIPS, own.of(&t4a::brings::SCHOLARSHIPS));
    let compensation = on.gather(trail, COMPENSATION, own.of(&insurance::brings::COMPENSATION));
    let assistance = on.gather(trail, ASSISTANCE, own.of(&insurance::brings::ASSISTANCE));
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
            (INSURANCE, insurance),
            (INTEREST, interest),
            (capital_gains::TAXABLE, gains),
            (other_deductions::SUPPORT_RECEIVED, support),
            (PLANS, plans),
            (OTHER, other),
            (SCHOLARSHIPS, scholarships),
            (business::NET, business),
            (rental::NET, rents),
            (COMPENSATION, compensation),
            (ASSISTANCE, assistance),
            (SUPPLEMENTS, supplements),
        ],
    );

    let rpp = on.gather(trail, RPP, own.of(&bringing::brings::RPP));
    let first_home = first_home::reckon(on, trail, wanted);
    let contributed = contributions::reckon(on, trail, wanted - first_home);
    let all_dues = own.of(&t4::brings::DUES).iter().chain(own.of(&other_deductions::brings::DUES));
    let dues = on.gather(trail, DUES, all_dues);
    let of_own_business = limit::or_zero(trail, business);
    let contributed_to_plan = cpp_ei::counted(on, trail, of_own_business);
    let of_business = cpp_ei::of_business_deducted(on, trail, contributed_to_plan);
    let enhanced = cpp_ei::enhanced(on, trail, contributed_to_plan);
    let compensation_repaid = on.gather(trail, COMPENSATION_REPAID, own.of(&t4::brings::COMPENSATION_REPAID));
    let oas_repaid = sum(own.of(&benefits::brings::OAS_RECOVERED));
    let all_repaid =
        own.of(&benefits::brings::OAS_RECOVERED).iter().chain(own.of(&insurance::brings::REPAID));
    let all_repaid = all_repaid.chain(own.of(&savings::brings::UNDEDUCTED));
    let repaid = on.gather(trail, BENEFITS_REPAID, all_repaid);
    let foreign = foreign_income::deducted(on, trail);
    let split_income = split_income::deducted(on, trail);
    let all_repaid = [
        (BENEFITS_REPAID, repaid),
        (foreign_income::DEDUCTED, foreign),
        (split_income::DEDUCTED, split_income),
    ];
    let repaid_together = on.add(trail, REPAID, &all_repaid);
    let expenses = employment_expenses::reckon(on, trail, employment, rpp + dues);
    let together = [(employment_expenses::TOTAL, expenses.total), (COMPENSATION_REPAID, compensation_repaid)];
    let all_expenses = on.add(trail, EXPENSES, &together);
    let mut deductions = vec![
        (RPP, rpp),
        (contributions::DEDUCTED, contributed),
        (first_home::DEDUCTED, first_home),
        (pension_split::GIVEN, split.given),
        (DUES, dues),
        (cpp_ei::OF_BUSINESS_DEDUCTED, of_business),
        (cpp_ei::ENHANCED, enhanced),
        (EXPENSES, all_expenses),
        (REPAID, repaid_together),
    ];
    let others = other_deductions::reckon(on, trail);
    deductions.extend(others.lines());
    let earned = employment + of_own_business + scholarships;
    let so_far: Money = deductions.iter().map(|(_, amount)| *amount).sum();
    let supports = disability_supports::reckon(on, trail, earned, total - so_far - earned);
    deductions.push((disability_supports::DEDUCTED, supports));
    let of_work = rpp + dues + all_expenses;
    let of_property = others.carrying + foreign;
    let sources = Sources {
        work: employment - of_work,
        business,
        property: interest + dividends + rents - of_property,
        all: total - of_work - of_property - split_income,
        deductions: so_far + supports - of_work - of_property - split_income,
    };
    let income = Income {
        employment,
        pension: split.left,
        eligible_dividends,
        other_dividends,
        business: of_own_business,
        contributed: contributed_to_plan,
        enhanced_cpp: enhanced + of_business,
        taxable_gains: gains,
        supports,
        halved: expenses.total - expenses.on_commission + others.moving + others.carrying + supports,
        ..Income::default()
    };
    let offset = compensation + assistance;
    Before { income, total, deductions, sources, oas, offset, supplements, oas_repaid }
}

/// A return down to net income.
struct Netted {
    before: Before,
    /// Line 23500, and what of it is old age security.
    recovered: Money,
    security: Money,
    net: Money,
}

/// Lines 10100 to 23600.
fn netted(on: On<'_>, trail: &mut impl Trail) -> Netted {
    let mut from = before_care(on, trail);
    if child_care::any(on.facts) {
        let partner = on.partner().map(|partner| means_before_care(partner, &mut Unseen(trail)));
        let care = child_care::reckon(on, trail, from.means(), partner);
        from.deductions.push((child_care::DEDUCTED, care));
        from.income.child_care = care;
        from.sources.deductions += care;
    }
    let total = from.total;
    let deductions = on.add(trail, DEDUCTIONS, &from.deductions);
    let before = on.made(trail, BEFORE, total - deductions, &[(TOTAL, total), (DEDUCTIONS, deductions)], &[]);
    let insurance = insurance_to_repay(on, trail, before);
    let received = from.oas + from.supplements - from.oas_repaid;
    let security = security_to_repay(on, trail, before - insurance, received);
    let recovered = on.add(trail, RECOVERY, &[(EI_REPAID, insurance), (OAS_REPAID, security)]);
    let net = limit::or_zero(trail, before - recovered);
    on.made(trail, NET, net, &[(BEFORE, before), (RECOVERY, recovered)], &[]);
    Netted { before: from, recovered, security, net }
}

/// Line 23600 alone.
pub fn net(on: On<'_>, trail: &mut impl Trail) -> Money {
    if on.facts.elsewhere == Some(on.person) { told(on.who()).net } else { netted(on, trail).net }
}

/// Lines 10100 to 26000.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Income {
    if on.facts.elsewhere == Some(on.person) {
        return told(on.who());
    }
    let Netted { before, recovered, security, net } = netted(on, trail);
    let Before { income, sources, oas, offset, supplements, .. } = before;
    // A supplement that is repaid is not deducted a second time.
    let supplement_repaid = limit::or_zero(trail, security - oas);
    let exempt = offset + limit::or_zero(trail, supplements - supplement_repaid);
    on.made(
        trail,
        EXEMPT,
        exempt,
        &[(SUPPLEMENTS, supplements)],
        &[("Compensation and assistance", &offset)],
    );
    let forces = on.gather(trail, FORCES, on.own().of(&t4::brings::FORCES));
    let options = on.gather(trail, OPTIONS, on.own().of(&t4::brings::OPTIONS));
    let losses = capital_gains::losses(on, trail, income.taxable_gains, net);
    let exemption = gains_exemption::reckon(on, trail, income.taxable_gains, losses);
    let northern = northern::reckon(on, trail, net);
    let loss_of_year = non_capital::of_year(on, trail, sources);
    let left = limit::or_zero(trail, net - forces - options - exempt - losses - exemption - northern);
    let other_losses = non_capital::reckon(on, trail, left, loss_of_year);
    let taxable = left - other_losses;
    let made = [
        (NET, net),
        (FORCES, forces),
        (OPTIONS, options),
        (EXEMPT, exempt),
        (non_capital::USED, other_losses),
        (capital_gains::LOSSES_USED, losses),
        (gains_exemption::DEDUCTED, exemption),
        (northern::DEDUCTED, northern),
    ];
    on.made(trail, TAXABLE, taxable, &made, &[]);
    let halved = income.halved + northern;
    let losses_used = losses + other_losses;
    let of_all_countries = limit::or_zero(trail, net - forces - options - exempt - losses - exemption);
    Income {
        recovered,
        net,
        taxable,
        of_all_countries,
        options,
        halved,
        losses_used,
        exempt_gains: exemption,
        ..income
    }
}

/// Net income as child care asks for it (63(2)): without line 21400 and the repayment of benefits.
pub fn net_before_care(on: On<'_>, trail: &mut impl Trail) -> Money {
    means_before_care(on, trail).net
}

fn means_before_care(on: On<'_>, trail: &mut impl Trail) -> Means {
    if on.facts.elsewhere == Some(on.person) {
        return Means { net: told(on.who()).net, business: Money::ZERO };
    }
    before_care(on, trail).means()
}

/// The net income of someone in the chosen way, told where there is no return.
pub fn net_shown(points: &Points<'_>, person: usize) -> Money {
    let place = points.facts.returns.iter().position(|&r| r == person);
    place.map_or(points.facts.people[person].other_net_income, |place| points.amount(NET, place))
}

/// The same with that of the partner at the end of the own year.
pub fn family_shown(points: &Points<'_>, person: usize) -> Money {
    let partner = points.facts.partner_at_end(person);
    net_shown(points, person) + partner.map_or(Money::ZERO, |partner| net_shown(points, partner))
}

/// Of someone without a return here: only the net income that was told, less what of it is not taxed.
pub fn told(who: &PersonFacts) -> Income {
    let taxable = settled::or_zero(who.other_net_income - who.not_taxed);
    Income { net: who.other_net_income, taxable, ..Income::default() }
}

/// Employment insurance to repay (EIA 145): a part of regular benefits, or of income above the threshold if less.
fn insurance_to_repay(on: On<'_>, trail: &mut impl Trail, before: Money) -> Money {
    let regular = on.own().of(&insurance::brings::REGULAR);
    if regular.is_empty() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.ei;
    // The rate of what lies above the threshold, never more than that of the benefits.
    let paid = cents(settled::or_zero(sum(regular)), figures.repaid_rate);
    let rule = PhaseOut::continuous(figures.repaid_above, figures.repaid_rate, Money::CENT);
    let kept = limit::phase_out(trail, EI_RECOVERY.at(on.scope), paid, before, rule);
    let repaid = paid - kept;
    trail.line(EI_REPAID, on.scope, repaid, |i| {
        i.items(regular).line(BEFORE, on.scope, before).figure("Income above", figures.repaid_above);
    })
}

/// Old age security to repay (ITA 180.2(2)): a part of income above the threshold, at most what was paid.
fn security_to_repay(on: On<'_>, trail: &mut impl Trail, before: Money, paid: Money) -> Money {
    let figures = &on.facts.figures.oas;
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    let paid = limit::or_zero(trail, paid);
    let kept = limit::phase_out(trail, OAS_RECOVERY.at(on.scope), paid, before, rule);
    on.made(
        trail,
        OAS_REPAID,
        paid - kept,
        &[],
        &[
            ("Income", &before),
            ("Income above", &figures.from),
            ("Rate", &figures.rate),
            ("At most what was paid", &paid),
        ],
    )
}

/// What stands on line 23200.
pub fn statement_23200(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(REPAID), "nothing on line 23200")
}
