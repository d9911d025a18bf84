//! The deduction for qualified business income (§199A), Forms 8995 and 8995-A: a fifth of what businesses and real estate trusts
//! bring, above a threshold of income limited by wages and property, and not for specified services.

use crate::{
    bringing::Bringing,
    business::{self, Business},
    figures::BusinessIncome,
    income::{self, Income},
    papers::dividends,
    pass_through::{self, Share},
    points::Points,
    rentals, self_employment,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Field, Years},
    forms::Required,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Silent, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[LOSSES],
    points: POINTS,
    figures: &["business_income"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] =
    &[Carry { line: CARRIED, paper: "Business losses carried", into: CarriedTo::Box("3") }];

lines! {
    pub BUSINESSES = "us.8995.2", "Qualified business income", "IRC §199A(c)",
        "Profit of each business less half of the tax, plan and health premiums that belong to it; losses, those carried here too.";
    FROM_BUSINESSES = "us.8995.5", "Its component", "IRC §199A(b)(2)",
        "A part of it; above the threshold no more than wages and property allow, nothing of a specified service at the end.";
    TRUSTS = "us.8995.6", "Section 199A dividends", "IRC §199A(b)(1)(B), (e)(3)",
        "Box 5 of every Form 1099-DIV.";
    COMPONENT = "us.8995.9", "Their component", "IRC §199A(b)(1)(B)",
        "A part of the dividends.";
    BEFORE = "us.8995.11", "Taxable income before it", "IRC §199A(a)(1)(B)",
        "Adjusted gross income less lines 12e and 13b.";
    NET_GAIN = "us.8995.12", "Net capital gain", "IRC §199A(a)(2)(B)",
        "Qualified dividends and the net capital gain.";
    pub L13A = "us.13a", "Qualified business income deduction", "IRC §199A(a)",
        "The components, up to the same part of taxable income without the net capital gain; from 2026 a least amount where one works in it.";
    CARRIED = "us.carryover.business_loss", "Business loss carried on", "IRC §199A(c)(2)",
        "What losses leave below zero counts next year.";
}

limits! {
    BY_WAGES = "us.limit.business_wages" on FROM_BUSINESSES, "Qualified business income",
        "above the threshold: wages and property, specified service", "IRC §199A(b)(2), (3), (d)(3)";
    BY_INCOME = "us.limit.business_income" on L13A, "Qualified business income", "over 20 % of ordinary taxable income",
        "IRC §199A(a)(1)(B)";
}

open_points! {
    SERVICE = blocks "K-120", "IRC §199A(d)(2)",
        "Above the threshold it decides: answer whether this is a specified service.";
    GROUPS = not_weighed "C-77", "Reg. §1.199A-4",
        "Businesses may be aggregated above the threshold: not weighed here.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Business losses of earlier years, Form 8995 line 3.
    pub static CARRIED: Brought = Brought::new();
}

const LOSSES: PaperKind = PaperKind {
    id: "Business losses carried",
    subject: subject::OWN_WORK,
    name: "Qualified business loss of earlier years",
    words: "qbi loss carryforward 8995 business",
    title: "From",
    shared: false,
    headline: "3",
    boxes: &[Field::amount("3", "3", "Loss carried here").help("Form 8995 line 16 of last year.")],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the loss to its owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("3", &brings::CARRIED);
}

/// A business with its qualified income.
struct Qualified {
    income: Money,
    /// The owner works in it (§199A(i)(3)).
    active: bool,
    service: bool,
    wages: Money,
    property: Money,
}

/// Every business of a return: its profit less its share of the deductions of its owner, by gross income (Reg. §1.199A-3(b)(1)(vi));
/// what is let as a trade or business, as far as its losses are allowed.
fn qualified(on: On<'_>, income: &Income) -> Vec<Qualified> {
    let let_out =
        rentals::businesses(on, &income.rents, income.property).into_iter().map(|rental| Qualified {
            income: rental.income,
            active: false,
            service: false,
            wages: Money::ZERO,
            property: rental.property,
        });
    let mut all: Vec<Qualified> = let_out.collect();
    for &person in &on.unit.people {
        let own = self_employment::silent(on, person);
        let businesses = business::of(on.facts, person);
        let with_profit = |b: &&Business| b.profit(on, &mut Silent) > Money::ZERO;
        let through = pass_through::of(on.facts, person);
        // What belongs to a business is deducted by who runs it; of a partner's share only the earnings are known, and where there is
        // one, so are those of the businesses beside it taken.
        let partner = !pass_through::earnings(on.facts, person).is_zero();
        let weight = |b: &Business| if partner { b.profit(on, &mut Silent) } else { b.gross };
        let of_own = businesses
            .iter()
            .map(|b| if b.runs && with_profit(&b) { settled::greater(weight(b).cents(), 0) } else { 0 });
        let of_shares = through.iter().map(|share| settled::greater(share.earned().cents(), 0));
        let less = own.half + own.plan + own.health - own.corporate;
        let shares = less.split(&of_own.chain(of_shares).collect::<Vec<_>>());
        let (of_businesses, of_partner) = shares.split_at(businesses.len());
        // A shareholder's premiums belong to the corporation whose wages limit them.
        let weight =
            |share: &Share| if share.corporation { settled::greater(share.qualified.cents(), 0) } else { 0 };
        let of_corporations = own.corporate.split(&through.iter().map(weight).collect::<Vec<_>>());
        let through = through.iter().zip(of_partner).zip(of_corporations);
        for ((share, less), premiums) in through.filter(|((share, _), _)| !share.qualified.is_zero()) {
            all.push(Qualified {
                income: (share.qualified - *less - premiums).to_whole(),
                active: share.works,
                service: share.service,
                wages: share.wages,
                property: share.property,
            });
        }
        for (business, &share) in businesses.iter().zip(of_businesses) {
            all.push(Qualified {
                income: (business.part_of(business.profit(on, &mut Silent)) - share).to_whole(),
                active: business.active,
                service: business.service,
                wages: business.part_of(business.wages),
                property: business.part_of(business.property),
            });
        }
    }
    all
}

/// How far taxable income is into the range above the threshold: none up to it, one at its end.
fn into_range(on: On<'_>, trail: &mut impl Trail, before: Money) -> Rate {
    let figures = &on.facts.figures.business_income;
    figures.range.of(on.unit.status).taken(trail, before, figures.places)
}

/// The component of a business (§199A(b)(2), (3), (d)(3)); `income` is its qualified income after losses.
fn component(figures: &BusinessIncome, one: &Qualified, income: Money, into: Rate) -> Money {
    let by = |amount: Money, rate| amount.times(rate, Money::WHOLE, Rounding::HalfUp);
    let left = Rate::from_billionths(Rate::ONE.billionths() - into.billionths());
    let applies = if one.service { left } else { Rate::ONE };
    let (income, wages, property) = (by(income, applies), by(one.wages, applies), by(one.property, applies));
    let full = by(income, figures.rate);
    let by_wages = by(wages, figures.wages);
    let by_both = by(wages, figures.wages_with_property) + by(property, figures.property);
    let most = settled::greater(by_wages, by_both);
    settled::or_zero(full - by(settled::or_zero(full - most), into))
}

/// What businesses in which an owner works bring together.
fn sum_active(on: On<'_>, income: &Income) -> Money {
    qualified(on, income).iter().filter(|one| one.active).map(|one| one.income).sum()
}

/// The least deduction where such businesses bring enough (§199A(i)).
fn least(on: On<'_>, income: &Income) -> Money {
    let figures = &on.facts.figures.business_income;
    match (figures.least, figures.least_from) {
        (Some(least), Some(from)) if sum_active(on, income) >= from => least,
        _ => Money::ZERO,
    }
}

/// The component of all businesses, with what is carried on.
fn businesses(on: On<'_>, trail: &mut impl Trail, income: &Income, before: Money) -> Money {
    let all = qualified(on, income);
    let carried = sum(on.items(&brings::CARRIED)).to_whole();
    if all.is_empty() && carried.is_zero() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.business_income;
    let gains: Money = all.iter().map(|q| settled::or_zero(q.income)).sum();
    let losses: Money = all.iter().map(|q| settled::or_zero(-q.income)).sum::<Money>() + carried;
    let let_out: Money =
        rentals::businesses(on, &income.rents, income.property).iter().map(|rental| rental.income).sum();
    let together = trail.line(BUSINESSES, on.scope, gains - losses, |i| {
        for &person in &on.unit.people {
            i.items(pass_through::qualified_items(on.facts, person));
            if !business::of(on.facts, person).is_empty() {
                let scope = Scope::Person(person);
                i.line(business::PROFIT, scope, self_employment::silent(on, person).profit);
            }
        }
        i.items(on.items(&brings::CARRIED));
        if !let_out.is_zero() {
            i.figure("Rents of a trade or business", let_out);
        }
    });
    trail.line(CARRIED, on.scope, settled::or_zero(-together), |i| {
        i.line(BUSINESSES, on.scope, together);
    });
    let into = into_range(on, trail, before);
    let net = limit::or_zero(trail, together);
    let full = net.times(figures.rate, Money::WHOLE, Rounding::HalfUp);
    let allowed = if into == Rate::ZERO {
        full
    } else {
        let after_losses = |q: &Qualified| {
            let income = settled::or_zero(q.income);
            income.in_proportion(net, gains, Money::WHOLE, Rounding::HalfUp)
        };
        all.iter().map(|q| component(figures, q, after_losses(q), into)).sum()
    };
    let allowed = limit::given(
        trail,
        BY_WAGES.at(on.scope),
        limit::Shape::PhaseOut,
        full,
        settled::lesser(allowed, full),
    );
    trail.line(FROM_BUSINESSES, on.scope, allowed, |i| {
        i.line(BUSINESSES, on.scope, together).figure("Part", figures.rate).figure("Into the range", into);
    })
}

/// The deduction. `before` is taxable income before it, not below zero.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income, before: Money) -> Money {
    let trusts = on.gather(trail, TRUSTS, &dividends::brings::SECTION_199A);
    let any = |&p: &usize| {
        !business::of(on.facts, p).is_empty()
            || rentals::any_business(on.facts, p)
            || pass_through::any_qualified(on.facts, p)
    };
    if !trusts.is_zero() || on.unit.people.iter().any(any) {
        trail.line(BEFORE, on.scope, before, |i| {
            i.line(income::AGI, on.scope, income.agi);
        });
    }
    let from_businesses = businesses(on, trail, income, before);
    if trusts.is_zero() && from_businesses.is_zero() {
        let least = least(on, income);
        return trail.line(L13A, on.scope, least, |i| {
            if !least.is_zero() {
                i.line(BUSINESSES, on.scope, sum_active(on, income));
            }
        });
    }
    let rate = on.facts.figures.business_income.rate;
    let component =
        trail.line(COMPONENT, on.scope, trusts.times(rate, Money::WHOLE, Rounding::HalfUp), |i| {
            i.line(TRUSTS, on.scope, trusts).figure("Rate", rate);
        });
    let net_gain = trail.line(NET_GAIN, on.scope, income.preferred_qualified + income.preferred.net, |i| {
        i.figure("Qualified dividends", income.preferred_qualified)
            .figure("Net capital gain", income.preferred.net);
    });
    let ordinary = limit::or_zero(trail, before - net_gain);
    let most = ordinary.times(rate, Money::WHOLE, Rounding::HalfUp);
    let allowed = limit::cap(trail, BY_INCOME.at(on.scope), from_businesses + component, most);
    let allowed = limit::greater(trail, allowed, least(on, income));
    trail.line(L13A, on.scope, allowed, |i| {
        if !from_businesses.is_zero() {
            i.line(FROM_BUSINESSES, on.scope, from_businesses);
        }
        i.line(COMPONENT, on.scope, component)
            .line(BEFORE, on.scope, before)
            .line(NET_GAIN, on.scope, net_gain);
    })
}

/// Whether taxable income before the deduction is above the threshold, as the trail has it.
fn above_threshold(filed: Filed<'_>) -> bool {
    filed.amount(BEFORE) > filed.on.facts.figures.business_income.range.of(filed.on.unit.status).from
}

/// Form 8995: up to the threshold.
pub fn form_8995(filed: Filed<'_>) -> Required {
    let any = filed.has(TRUSTS) || filed.has(BUSINESSES);
    let why = if any { "above the threshold: Form 8995-A" } else { "no qualified business income" };
    Required::if_so(any && !above_threshold(filed), why)
}

/// Form 8995-A: above the threshold.
pub fn form_8995_a(filed: Filed<'_>) -> Required {
    let any = filed.has(TRUSTS) || filed.has(BUSINESSES);
    let why = if any { "not above the threshold: Form 8995" } else { "no qualified business income" };
    Required::if_so(any && above_threshold(filed), why)
}

/// What decides above the threshold.
pub fn points(points: &mut Points<'_>) {
    for (place, unit) in points.units.iter().enumerate() {
        let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
        if !above_threshold(Filed { on, trail: points.trail }) {
            continue;
        }
        let own = unit.people.iter().flat_map(|&p| business::of(points.facts, p)).map(|b| b.paper);
        let shares = unit.people.iter().flat_map(|&p| pass_through::of(points.facts, p));
        let shares = shares.filter(|share| !share.qualified.is_zero()).map(|share| share.paper);
        let all: Vec<usize> = own.chain(shares).collect();
        for &index in &all {
            let paper = &points.household.papers[index];
            if !paper.boxes.contains_key("service") {
                points.raise(
                    &SERVICE,
                    Place::paper(&paper.id, "service"),
                    "Is this business a specified service?",
                );
            }
        }
        if let Some(&index) = all.first().filter(|_| all.len() > 1) {
            let place = Place::paper(&points.household.papers[index].id, "1");
            points.raise(&GROUPS, place, "Several businesses above the threshold.");
        }
    }
}
