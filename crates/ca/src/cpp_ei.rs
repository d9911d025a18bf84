//! Contributions to the Canada Pension Plan and premiums of employment insurance (ITA 118.7, 60(e.1); Schedule 8):
//! the base as a credit, the enhancement as a deduction, what was paid too much back.

use crate::{
    business,
    facts::{Contributions, Facts},
    papers::t4,
    plan::{Filed, On},
    points::Points,
};
use hembo_core::{
    forms::Required,
    lines, open_points,
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
}

open_points! {
    OVERPAID = look "C-24", "Canada Pension Plan 38; Employment Insurance Act 96",
        "Compare with the T4 slips.";
}

/// A person's contributions of the year, once the papers are read. All are facts: nothing that the law leaves open
/// moves them.
pub fn read(facts: &Facts, person: usize) -> Contributions {
    let own = &facts.people[person].own;
    let cpp = &facts.figures.cpp;
    let (first, second) = (sum(own.of(&t4::brings::CPP)), sum(own.of(&t4::brings::CPP_SECOND)));
    // What employment paid too much counts for a business before it comes back.
    let of_business = business::earned(facts, person);
    let earnings = pensionable(facts, person) + of_business;
    let over =
        [first - required_first(facts, person, earnings), second - required_second(facts, person, earnings)];
    let back = if facts.figures.cpp_overpaid.both_together && of_business.is_zero() {
        settled::or_zero(over[0] + over[1])
    } else {
        settled::or_zero(over[0]) + settled::or_zero(over[1])
    };
    let base = (first - settled::or_zero(over[0])).in_proportion(
        Money::from_cents(cpp.base_rate.billionths()),
        Money::from_cents(cpp.rate.billionths()),
        Money::CENT,
        Rounding::HalfUp,
    );
    let premiums = sum(own.of(&t4::brings::EI));
    let counted = settled::lesser(
        premiums,
        required_premiums(facts, own.of(&t4::brings::INSURABLE).iter().copied().sum()),
    );
    Contributions {
        base,
        enhanced: first + second - back - base,
        cpp_back: back,
        ei: counted,
        ei_back: premiums - counted,
        ..business::contributions(
            facts,
            person,
            pensionable(facts, person),
            [first, second],
            prorated(facts, person),
        )
    }
}

/// Earnings that the pension plan counts.
fn pensionable(facts: &Facts, person: usize) -> Money {
    facts.people[person].own.of(&t4::brings::PENSIONABLE).iter().copied().sum()
}

/// What the law asks of earnings up to the first ceiling, for the months in which the plan applies.
pub fn required_first(facts: &Facts, person: usize, earnings: Money) -> Money {
    let cpp = &facts.figures.cpp;
    let [exemption, ceiling, _] = prorated(facts, person);
    let earnings = settled::lesser(earnings, ceiling);
    settled::or_zero(earnings - exemption).times(cpp.rate, Money::CENT, Rounding::HalfUp)
}

/// The same between the first and the second ceiling.
pub fn required_second(facts: &Facts, person: usize, earnings: Money) -> Money {
    let [_, first, second] = prorated(facts, person);
    let earnings = settled::lesser(earnings, second);
    settled::or_zero(earnings - first).times(facts.figures.cpp.second_rate, Money::CENT, Rounding::HalfUp)
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
pub fn enhanced(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = on.own();
    let amount = on.who().contributed.enhanced;
    trail.line(ENHANCED, on.scope, amount, |i| {
        i.items(own.of(&t4::brings::CPP)).items(own.of(&t4::brings::CPP_SECOND));
    })
}

/// Lines 30800 and 31200.
pub fn credits(on: On<'_>, trail: &mut impl Trail) -> (Money, Money) {
    let own = on.own();
    let counted = on.who().contributed;
    trail.line(CPP, on.scope, counted.base, |i| {
        i.items(own.of(&t4::brings::CPP));
    });
    trail.line(EI, on.scope, counted.ei, |i| {
        i.items(own.of(&t4::brings::EI));
    });
    (counted.base, counted.ei)
}

/// Schedule 8: where there are contributions.
pub fn schedule_8(filed: Filed<'_>) -> Required {
    let any = filed.has(CPP) || filed.has(ENHANCED) || filed.has(CPP_BACK) || filed.has(business::PAYABLE);
    Required::if_so(any, "no contributions")
}

/// What was paid too much.
pub fn points(points: &mut Points<'_>) {
    for person in (0..points.facts.people.len()).filter(|&p| points.facts.files(p)) {
        overpaid(points, person);
    }
}

fn overpaid(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let counted = points.facts.people[person].contributed;
    for (back, line, what) in [(counted.cpp_back, "44800", "CPP"), (counted.ei_back, "45000", "EI")] {
        if !back.is_zero() {
            let message = format!("{} overpaid {back:#} of {what}; line {line} gives it back.", who.name);
            points.raise(&OVERPAID, Place::person(&who.id, "born"), message);
        }
    }
}
