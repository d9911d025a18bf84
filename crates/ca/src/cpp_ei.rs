//! Contributions to the Canada Pension Plan and premiums of employment insurance (ITA 118.7, 60(e.1); Schedule 8):
//! the base as a credit, the enhancement as a deduction, what was paid too much back.

use crate::{
    business,
    facts::Facts,
    figures::Cpp,
    papers::t4,
    plan::{Filed, On},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Silent,
    forms::Required,
    limit, lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, points: POINTS, figures: &["cpp", "cpp_overpaid", "ei"], ..Provision::NONE };

lines! {
    pub ENHANCED = "ca.22215", "Enhanced CPP contributions", "ITA 60(e.1)",
        "The enhanced part of box 16 and all of box 16A, as far as the plan asks for them.";
    pub CPP = "ca.30800", "CPP contributions", "ITA 118.7",
        "The base part of box 16.";
    pub EI = "ca.31200", "EI premiums", "ITA 118.7",
        "Box 18, as far as the law asks for it.";
    pub CPP_BACK = "ca.44800", "CPP overpaid", "CPP s. 38",
        "Contributions above what the plan asks for.";
    pub EI_BACK = "ca.45000", "EI overpaid", "EIA s. 96",
        "Premiums above what the law asks for.";
    pub OF_BUSINESS_DEDUCTED = "ca.22200", "CPP of a business, deducted", "ITA 60(e), (e.1)",
        "The employer's half of the base contributions, and all enhanced ones.";
    pub OF_BUSINESS_CREDITED = "ca.31000", "CPP of a business", "ITA 118.7",
        "The half of the base contributions that makes a credit.";
    pub OF_BUSINESS = "ca.42100", "CPP contributions payable", "Canada Pension Plan 10, 10.1",
        "Both halves on earnings that the contributions of employment leave open.";
}

open_points! {
    OVERPAID = look "C-24", "Canada Pension Plan 38; Employment Insurance Act 96",
        "Compare with the T4 slips.";
    OR_BUSINESS = not_weighed "C-24-business", "Canada Pension Plan 13, 38",
        "Compare by pinning capital cost: what line 44800 gives back is no tax, and falls with what a business brings.";
}

/// What a person paid to the pension plan and for employment insurance, and what of it counts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub struct Contributions {
    /// Line 30800.
    base: Money,
    /// Line 22215.
    enhanced: Money,
    /// Line 44800.
    cpp_back: Money,
    /// Line 31200.
    ei: Money,
    /// Line 45000.
    ei_back: Money,
    /// Those of a business.
    of_business: OfBusiness,
}

/// What the pension plan asks of a business.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
struct OfBusiness {
    /// Line 42100.
    payable: Money,
    /// Line 31000.
    credited: Money,
}

impl OfBusiness {
    /// Line 22200.
    fn deducted(self) -> Money {
        self.payable - self.credited
    }
}

/// A person's contributions of the year; `of_business` is what a business brings, nothing where it makes a loss. Without capital cost
/// to claim all are facts: nothing that the law leaves open moves them.
pub fn counted(on: On<'_>, trail: &mut impl Trail, of_business: Money) -> Contributions {
    match business::any_capital_cost(on.facts, on.person) {
        true => compared(on, trail, of_business),
        false => compared(on, &mut Silent, of_business),
    }
}

/// What was paid compared with what the law asks for.
fn compared(on: On<'_>, trail: &mut impl Trail, of_business: Money) -> Contributions {
    let (facts, person, own) = (on.facts, on.person, on.own());
    let cpp = &facts.figures.cpp;
    let (first, second) = (sum(own.of(&t4::brings::CPP)), sum(own.of(&t4::brings::CPP_SECOND)));
    // What employment paid too much counts for a business before it comes back.
    let limits = prorated(facts, person);
    let earnings = pensionable(facts, person) + of_business;
    let over = [
        first - required_first(cpp, trail, limits, earnings),
        second - required_second(cpp, trail, limits, earnings),
    ];
    let together = facts.figures.cpp_overpaid.both_together;
    trail.step(of_business - Money::CENT, together);
    let back = if together && of_business.is_zero() {
        limit::or_zero(trail, over[0] + over[1])
    } else {
        limit::or_zero(trail, over[0]) + limit::or_zero(trail, over[1])
    };
    let base = (first - limit::or_zero(trail, over[0])).in_proportion(
        Money::from_cents(cpp.base_rate.billionths()),
        Money::from_cents(cpp.rate.billionths()),
        Money::CENT,
        Rounding::HalfUp,
    );
    let premiums = sum(own.of(&t4::brings::EI));
    let asked = required_premiums(facts, own.of(&t4::brings::INSURABLE).iter().copied().sum());
    let ei = settled::lesser(premiums, asked);
    Contributions {
        base,
        enhanced: first + second - back - base,
        cpp_back: back,
        ei,
        ei_back: premiums - ei,
        of_business: asked_of_business(on, trail, of_business, [first, second]),
    }
}

/// What the pension plan asks of a business beside the first and second contributions of employment, `paid` (Canada Pension Plan 10,
/// 10.1, 13).
fn asked_of_business(on: On<'_>, trail: &mut impl Trail, of_business: Money, paid: [Money; 2]) -> OfBusiness {
    let [exemption, first, second] = prorated(on.facts, on.person);
    if of_business.is_zero() || first.is_zero() {
        return OfBusiness::default();
    }
    let cpp = &on.facts.figures.cpp;
    let all = pensionable(on.facts, on.person) + of_business;
    let covered = |amount: Money, rate| amount.divided_by(rate, Money::CENT, Rounding::HalfUp);
    let mut open = |ceiling: Money, from: Money, covered: Money| {
        let asked = limit::lesser(trail, all, ceiling) - from;
        let asked = limit::or_zero(trail, asked);
        let left = limit::or_zero(trail, asked - covered);
        limit::lesser(trail, left, of_business)
    };
    let base = open(first, exemption, covered(paid[0], cpp.rate));
    let above = open(second, first, covered(paid[1], cpp.second_rate));
    OfBusiness {
        payable: cents(base * 2, cpp.rate) + cents(above * 2, cpp.second_rate),
        credited: cents(base, cpp.base_rate),
    }
}

/// By how much the total jumps at the most where capital cost leaves nothing of a business: too much of the first contributions of
/// employment then fills what is missing of the second, and is not deducted in its place.
pub fn jump(facts: &Facts) -> Money {
    let cpp = &facts.figures.cpp;
    let jumps = |p: &usize| business::any_capital_cost(facts, *p) && overpaid_alone(facts, *p);
    let most = cents(cpp.second_ceiling - cpp.first_ceiling, cpp.second_rate);
    most * facts.returns.iter().filter(|p| jumps(p)).count() as i64
}

/// Earnings that the pension plan counts.
fn pensionable(facts: &Facts, person: usize) -> Money {
    facts.people[person].own.of(&t4::brings::PENSIONABLE).iter().copied().sum()
}

/// What the law asks of earnings up to the first ceiling, for the months in which the plan applies.
fn required_first(cpp: &Cpp, trail: &mut impl Trail, limits: [Money; 3], earnings: Money) -> Money {
    let [exemption, ceiling, _] = limits;
    let earnings = limit::lesser(trail, earnings, ceiling);
    let above = limit::or_zero(trail, earnings - exemption);
    cents(above, cpp.rate)
}

/// The same between the first and the second ceiling.
fn required_second(cpp: &Cpp, trail: &mut impl Trail, limits: [Money; 3], earnings: Money) -> Money {
    let [_, first, second] = limits;
    let earnings = limit::lesser(trail, earnings, second);
    let above = limit::or_zero(trail, earnings - first);
    cents(above, cpp.second_rate)
}

/// The exemption and the two ceilings for the months from the one after the 18th birthday to that of the 70th, or of a death (CPP
/// s. 17, 19).
fn prorated(facts: &Facts, person: usize) -> [Money; 3] {
    let cpp = &facts.figures.cpp;
    let months = Money::whole(months(facts, person));
    [cpp.exemption, cpp.first_ceiling, cpp.second_ceiling]
        .map(|figure| figure.in_proportion(months, Money::whole(12), Money::CENT, Rounding::HalfUp))
}

fn months(facts: &Facts, person: usize) -> i64 {
    let last = facts.last_month(person);
    let Some(born) = facts.people[person].born else { return last };
    let cpp = &facts.figures.cpp;
    let birthday = i64::from(u8::from(born.month()));
    let turns = facts.figures.year - born.year();
    let begin = match turns {
        t if t < cpp.from_age => 12,
        t if t == cpp.from_age => birthday,
        _ => 0,
    };
    let end = match turns {
        t if t > cpp.to_age => 0,
        t if t == cpp.to_age => settled::lesser(birthday, last),
        _ => last,
    };
    settled::greater(end - begin, 0)
}

/// Premiums that the law asks of insurable earnings (EIA 96(4), (5)): none up to the least, never more than what is
/// above it.
pub fn required_premiums(facts: &Facts, insurable: Money) -> Money {
    let ei = &facts.figures.ei;
    let full = settled::lesser(insurable, ei.most_earnings).times(ei.rate, Money::CENT, Rounding::HalfUp);
    settled::lesser(full, settled::or_zero(insurable - ei.nothing_to))
}

/// Line 22215.
pub fn enhanced(on: On<'_>, trail: &mut impl Trail, counted: Contributions) -> Money {
    let own = on.own();
    trail.line(ENHANCED, on.scope, counted.enhanced, |i| {
        i.items(own.of(&t4::brings::CPP)).items(own.of(&t4::brings::CPP_SECOND));
    })
}

/// Lines 30800 and 31200.
pub fn credits(on: On<'_>, trail: &mut impl Trail, counted: Contributions) -> (Money, Money) {
    let own = on.own();
    trail.line(CPP, on.scope, counted.base, |i| {
        i.items(own.of(&t4::brings::CPP));
    });
    trail.line(EI, on.scope, counted.ei, |i| {
        i.items(own.of(&t4::brings::EI));
    });
    (counted.base, counted.ei)
}

/// Lines 44800 and 45000.
pub fn back(on: On<'_>, trail: &mut impl Trail, counted: Contributions) -> (Money, Money) {
    let own = on.own();
    trail.line(CPP_BACK, on.scope, counted.cpp_back, |i| {
        if !counted.cpp_back.is_zero() {
            i.items(own.of(&t4::brings::CPP)).items(own.of(&t4::brings::CPP_SECOND));
        }
    });
    trail.line(EI_BACK, on.scope, counted.ei_back, |i| {
        if !counted.ei_back.is_zero() {
            i.items(own.of(&t4::brings::EI));
        }
    });
    (counted.cpp_back, counted.ei_back)
}

/// Line 22200.
pub fn of_business_deducted(on: On<'_>, trail: &mut impl Trail, counted: Contributions) -> Money {
    let asked = counted.of_business;
    trail.line(OF_BUSINESS_DEDUCTED, on.scope, asked.deducted(), |i| {
        if !asked.deducted().is_zero() {
            i.figure("Contributions", asked.payable).figure("Less what makes a credit", asked.credited);
        }
    })
}

/// Line 31000.
pub fn of_business_credited(on: On<'_>, trail: &mut impl Trail, counted: Contributions) -> Money {
    let rate = on.facts.figures.cpp.base_rate;
    on.made(trail, OF_BUSINESS_CREDITED, counted.of_business.credited, &[], &[("Rate of the base", &rate)])
}

/// Line 42100.
pub fn of_business(on: On<'_>, trail: &mut impl Trail, income: Money, counted: Contributions) -> Money {
    let payable = counted.of_business.payable;
    trail.line(OF_BUSINESS, on.scope, payable, |i| {
        if !payable.is_zero() {
            i.line(business::NET, on.scope, income);
        }
    })
}

/// Schedule 8: where there are contributions.
pub fn schedule_8(filed: Filed<'_>) -> Required {
    let any = filed.has(CPP) || filed.has(ENHANCED) || filed.has(CPP_BACK) || filed.has(OF_BUSINESS);
    Required::if_so(any, "no contributions")
}

/// What was paid too much.
pub fn points(points: &mut Points<'_>) {
    for (place, &person) in points.facts.returns.iter().enumerate() {
        let who = &points.household.people[person];
        for (back, line, what) in [(CPP_BACK, "44800", "CPP"), (EI_BACK, "45000", "EI")] {
            let back = points.amount(back, place);
            if !back.is_zero() {
                let message = format!("{} overpaid {back:#} of {what}; line {line} gives it back.", who.name);
                points.raise(&OVERPAID, Place::person(&who.id, "born"), message);
            }
        }
        if business::any_capital_cost(points.facts, person) && overpaid_alone(points.facts, person) {
            let message = format!(
                "{} overpaid CPP: how much comes back hangs on capital cost, and is not weighed.",
                who.name
            );
            points.raise(&OR_BUSINESS, Place::person(&who.id, "born"), message);
        }
    }
}

/// Whether employment paid more than the plan asks of it alone.
pub fn overpaid_alone(facts: &Facts, person: usize) -> bool {
    let (cpp, own, limits) = (&facts.figures.cpp, &facts.people[person].own, prorated(facts, person));
    let earnings = pensionable(facts, person);
    sum(own.of(&t4::brings::CPP)) > required_first(cpp, &mut Silent, limits, earnings)
        || sum(own.of(&t4::brings::CPP_SECOND)) > required_second(cpp, &mut Silent, limits, earnings)
}
