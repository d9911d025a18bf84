//! What filing brings beside the tax, as an estimate for the benefit year from July on: the Canada child benefit (ITA 122.6, 122.61),
//! the credit for goods and services tax (ITA 122.5), and what some provinces pay with them. They count in what is minimised where the
//! household says so; else they are reckoned of the chosen way only.

use crate::{
    facts::Facts,
    figures::{ChildBenefit, ProvincialBenefit},
    income::{self, Incomes},
    plan::Filed,
    points::Points,
    province,
};
use hembo_core::{
    Recorder, Scope,
    field::Field,
    forms::Required,
    limit, lines, open_points,
    outcome::age_on,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rate, Rounding};
use time::{Date, Duration, Month};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    household_questions: &[Field::yes_no(ask::COUNTED, "", "Count benefits in what is minimised")
        .lasts()
        .help("Estimated child benefit and credits from July on: less income brings more of them.")],
    lines: LINES,
    points: POINTS,
    figures: &[
        "child_benefit",
        "sales_tax_benefit",
        "ontario_benefits",
        "new_brunswick_benefits",
        "nova_scotia_benefits",
    ],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const COUNTED: &str = "count_benefits";
}

lines! {
    INCOME = "ca.benefits.income", "Net income of the family for benefits", "ITA 122.6 'adjusted income'",
        "Line 23600 of both.";
    CHILD = "ca.benefits.child", "Child benefit, July to June, an estimate", "ITA 122.61(1)",
        "For each child and month, less parts of family income above two thresholds.";
    SALES = "ca.benefits.sales", "Credit for goods and services tax, July to June, an estimate", "ITA 122.5(3)",
        "For adults and children, less a part of family income above a threshold.";
    OF_PROVINCE = "ca.benefits.province", "Benefits of the province, July to June, an estimate", "Income tax acts of the provinces",
        "Credits for sales tax, and in Ontario for children; what asks for rent or property tax is not estimated.";
    pub TOGETHER = "ca.benefits.all", "Benefits, an estimate", "ITA 122.5, 122.61",
        "All that is estimated.";
    pub COUNTED = "ca.benefits.counted", "Benefits counted", "ITA 122.5, 122.61",
        "Counted in what is minimised, as the household says; they are paid beside the return.";
}

open_points! {
    NOT_ESTIMATED = not_weighed "benefits-counted", "ITA 122.5, 122.6",
        "Only tax counts in what is minimised here: what lowers a family's income may bring more benefits than are shown.";
}

/// Whether anything is estimated: not of who died, came or left in the year, as the year after is another matter.
fn estimated(facts: &Facts) -> bool {
    let whole_year =
        facts.adults().all(|person| !facts.died(person) && facts.people[person].part_year.days.is_none());
    facts.province.is_some() && !facts.returns.is_empty() && whole_year
}

/// Benefits that are to be counted and are not estimated.
pub fn points(points: &mut Points<'_>) {
    if points.facts.counts_benefits && !estimated(points.facts) {
        let message =
            "Benefits are not estimated where someone died, came or left in the year: they do not count.";
        points.raise(&NOT_ESTIMATED, Place::household(ask::COUNTED), message);
    }
}

/// What counts in what is minimised, where the household says that benefits do.
pub fn counted(facts: &Facts, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    if !facts.counts_benefits || !estimated(facts) {
        return Money::ZERO;
    }
    let nets: Vec<(usize, Money)> = facts.adults().map(|person| (person, incomes[person].net)).collect();
    let all = reckon(facts, trail, &nets);
    trail.line(COUNTED, Scope::Return(0), all, |i| {
        i.line(TOGETHER, Scope::Return(0), all);
    })
}

/// Recorded of the chosen way, on the first return: who of a couple receives them is left to the family.
pub fn record(facts: &Facts, trail: &mut Recorder) {
    if facts.counts_benefits || !estimated(facts) {
        return;
    }
    let net = |person: usize| {
        let place = facts.returns.iter().position(|&r| r == person);
        let of_return = place.and_then(|place| trail.amount(income::NET, Scope::Return(place)));
        of_return.unwrap_or(facts.people[person].other_net_income)
    };
    let nets: Vec<(usize, Money)> = facts.adults().map(|person| (person, net(person))).collect();
    reckon(facts, trail, &nets);
}

/// All of them, from the net income of each of the adults.
fn reckon(facts: &Facts, trail: &mut impl Trail, nets: &[(usize, Money)]) -> Money {
    let family: Money = nets.iter().map(|(_, net)| *net).sum();
    let scope = Scope::Return(0);
    trail.line(INCOME, scope, family, |i| {
        for &(person, net) in nets {
            if let Some(place) = facts.returns.iter().position(|&r| r == person) {
                i.line(income::NET, Scope::Return(place), net);
            }
        }
    });
    let child = shared(facts, |all| child_benefit(facts, trail, family, all));
    let sales = shared(facts, |all| sales_tax(facts, trail, family, all));
    let of_province = match province::benefits(facts) {
        Some(figures) => shared(facts, |all| provincial(facts, trail, figures, family, all)),
        None => Money::ZERO,
    };
    let made = [(CHILD, child), (SALES, sales), (OF_PROVINCE, of_province)];
    for (line, amount) in made {
        trail.line(line, scope, amount, |i| {
            i.line(INCOME, scope, family);
        });
    }
    trail.line(TOGETHER, scope, child + sales + of_province, |i| {
        for (line, amount) in made {
            i.line(line, scope, amount);
        }
    })
}

/// The first days of the months of the benefit year.
fn months(facts: &Facts) -> impl Iterator<Item = Date> {
    let year = facts.figures.year + 1;
    (0..12_u8).filter_map(move |month| {
        let (year, month) = if month < 6 { (year, month + 7) } else { (year + 1, month - 5) };
        Date::from_calendar_date(year, Month::try_from(month).ok()?, 1).ok()
    })
}

/// With children in shared custody a half of what there would be with them and of what without (122.61(1.1), 122.5(3.01)).
fn shared(facts: &Facts, mut benefit: impl FnMut(bool) -> Money) -> Money {
    let any = facts.people.iter().any(|person| person.shared_custody);
    if !any {
        return benefit(true);
    }
    let both = benefit(true) + benefit(false);
    both.in_proportion(Money::whole(1), Money::whole(2), Money::CENT, Rounding::HalfUp)
}

/// Children in the home who have not reached an age before a day, with those in shared custody or without.
fn children(facts: &Facts, under: i32, day: Date, all: bool) -> Vec<usize> {
    let counts = |&p: &usize| {
        let who = &facts.people[p];
        let before = day - Duration::DAY;
        let young = who.born.is_some_and(|born| born <= day && age_on(born, before) < under);
        !who.filer
            && who.child
            && who.lives_here
            && who.died.is_none()
            && young
            && (all || !who.shared_custody)
    };
    (0..facts.people.len()).filter(counts).collect()
}

fn child_benefit(facts: &Facts, trail: &mut impl Trail, family: Money, all: bool) -> Money {
    let figures = &facts.figures.child_benefit;
    months(facts).map(|day| of_month(facts, trail, figures, family, day, all)).sum()
}

/// One month: a twelfth of the amounts of the children of then less the parts of income, which go by how many they are; the
/// same for those with a certificate.
fn of_month(
    facts: &Facts,
    trail: &mut impl Trail,
    figures: &ChildBenefit,
    family: Money,
    day: Date,
    all: bool,
) -> Money {
    let young = children(facts, figures.young_under, day, all).len() as i64;
    let all = children(facts, figures.under, day, all);
    let Some(place) = all.len().checked_sub(1) else { return Money::ZERO };
    let rate = |rates: &[Rate]| rates.get(place).or(rates.last()).copied().unwrap_or(Rate::ZERO);
    let full = figures.young * young + figures.older * (all.len() as i64 - young);
    let over_second = limit::or_zero(trail, family - figures.second);
    let over_first = limit::or_zero(trail, family - figures.first) - over_second;
    let lost = part(settled::lesser(over_first, figures.second - figures.first), rate(&figures.first_rates))
        + part(over_second, rate(&figures.second_rates));
    let disabled = all.iter().filter(|&&p| facts.people[p].disabled).count() as i64;
    let of_disabled = figures.disabled * disabled;
    let of_one_or_more = if disabled > 1 { 1 } else { 0 };
    let rate_of_disabled = figures.second_rates.get(of_one_or_more).copied().unwrap_or(Rate::ZERO);
    let lost_of_disabled = part(over_second, rate_of_disabled);
    let year = limit::or_zero(trail, full - lost) + limit::or_zero(trail, of_disabled - lost_of_disabled);
    year.in_proportion(Money::whole(1), Money::whole(12), Money::CENT, Rounding::HalfUp)
}

fn part(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::HalfUp)
}

/// A couple or a parent has the second amount for an adult; who is alone a supplement that grows with income, a parent alone all of
/// it.
fn sales_tax(facts: &Facts, trail: &mut impl Trail, family: Money, all: bool) -> Money {
    let figures = &facts.figures.sales_tax_benefit;
    let Some(first) = months(facts).next() else { return Money::ZERO };
    let children = children(facts, figures.child_under, first, all).len() as i64;
    let couple = facts.pair().is_some();
    let of_age = facts
        .adults()
        .any(|person| facts.people[person].age_on(first).is_some_and(|age| age >= figures.from_age));
    if !(couple || children > 0 || of_age) {
        return Money::ZERO;
    }
    let grown = part(limit::or_zero(trail, family - figures.supplement_from), figures.supplement_rate);
    let full = match (couple, children) {
        (true, n) => figures.adult * 2 + figures.child * n,
        (false, 0) => figures.adult + limit::lesser(trail, figures.supplement, grown),
        (false, n) => figures.adult * 2 + figures.child * (n - 1) + figures.supplement,
    };
    let lost = part(limit::or_zero(trail, family - figures.from), figures.rate);
    limit::or_zero(trail, full - lost)
}

/// What a province pays: for adults and children, less a part of family income; and for children, less a part of its own.
fn provincial(
    facts: &Facts,
    trail: &mut impl Trail,
    figures: &ProvincialBenefit,
    family: Money,
    all: bool,
) -> Money {
    let Some(first) = months(facts).next() else { return Money::ZERO };
    let young = children(facts, figures.child_under, first, all).len() as i64;
    let couple = facts.pair().is_some();
    let adults = if couple { figures.adult + figures.partner } else { figures.adult };
    let from = if couple || young > 0 { figures.from_family } else { figures.from_alone };
    let lost = part(limit::or_zero(trail, family - from), figures.rate);
    let credit = limit::or_zero(trail, adults + figures.child * young - lost);
    let minors = children(facts, facts.figures.child_benefit.under, first, all).len() as i64;
    let lost = part(limit::or_zero(trail, family - figures.children_from), figures.children_rate);
    credit + limit::or_zero(trail, figures.of_children * minors - lost)
}

/// The worksheet of estimates: kept where there is any.
pub fn worksheet(filed: Filed<'_>) -> Required {
    filed.when(TOGETHER, "no such benefit is estimated")
}
