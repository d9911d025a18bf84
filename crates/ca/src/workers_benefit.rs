//! The Canada workers benefit (ITA 122.7; Schedule 6): line 45300.

use crate::{
    facts::Facts,
    figures::BenefitClass,
    income::cents,
    medical::family_net,
    personal::Incomes,
    plan::{Filed, On},
};
use hembo_core::{
    forms::Required,
    limit::{self, PhaseOut},
    limits, lines,
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision { lines: LINES, limits: LIMITS, ..Provision::NONE };

lines! {
    pub BENEFIT = "ca.45300", "Canada workers benefit", "ITA 122.7",
        "A part of working income, less a part of family income; refundable.";
}

limits! {
    WORKERS_BENEFIT = "ca.limit.workers_benefit" on BENEFIT, "Workers benefit", "shrinks with family income",
        "ITA 122.7";
}

/// How a person stands to the benefit.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Standing {
    /// Nobody to have it here: too young, a student, or the partner's return has it.
    None,
    /// By oneself.
    Alone,
    /// With a partner or a child.
    Family,
    /// One of a couple is excluded: not computed.
    Unclear,
}

/// A person's standing (122.7(1)): 19 or with a partner or child; no full-time student without a child. Of a couple the
/// first has the benefit of both on the return; which of them is left to their agreement.
pub fn standing(facts: &Facts, person: usize) -> Standing {
    let who = &facts.people[person];
    let parent = who.filer && has_child(facts);
    let excluded = |p: usize| facts.people[p].full_time_student == Some(true) && !has_child(facts);
    match facts.partner(person) {
        Some(partner) if facts.filers[0] == person => match (excluded(person), excluded(partner)) {
            (false, false) => Standing::Family,
            (true, true) => Standing::None,
            _ => Standing::Unclear,
        },
        Some(_) => Standing::None,
        None if parent => Standing::Family,
        None if excluded(person) || who.full_time_student == Some(true) => Standing::None,
        None if !facts.reached(person, facts.figures.workers_benefit.age) => Standing::None,
        None => Standing::Alone,
    }
}

/// An eligible dependant: a child under 19 in the home at the end of the year.
fn has_child(facts: &Facts) -> bool {
    let age = facts.figures.workers_benefit.age;
    (0..facts.people.len()).any(|p| {
        let who = &facts.people[p];
        !who.filer && who.child && who.lives_here && !facts.reached(p, age)
    })
}

/// Working income of a person, and of the partner.
pub fn working(facts: &Facts, person: usize) -> (Money, Money) {
    let of = |p: usize| sum(&facts.people[p].own.employment);
    (of(person), facts.partner(person).map_or(Money::ZERO, of))
}

/// Whether the figures of the household's province are here.
pub fn held(facts: &Facts) -> bool {
    let province = facts.province_code.as_deref();
    !facts.figures.workers_benefit.not_held.iter().any(|code| Some(code.as_str()) == province)
}

/// Net income of the family less the exemption of the secondary earner.
pub fn adjusted(facts: &Facts, person: usize, family: Money) -> Money {
    let (own, partner) = working(facts, person);
    family - own.min(partner).min(facts.figures.workers_benefit.second_earner)
}

/// The amounts of a standing.
pub fn class(facts: &Facts, standing: Standing) -> &BenefitClass {
    let figures = &facts.figures.workers_benefit;
    if standing == Standing::Alone { &figures.single } else { &figures.family }
}

/// Line 45300: a part of working income above a start, up to a most, less a part of family income above a threshold.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let standing = standing(on.facts, on.person);
    if !matches!(standing, Standing::Alone | Standing::Family) || !held(on.facts) {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.workers_benefit;
    let (own, partner) = working(on.facts, on.person);
    let working = own + partner;
    let class = class(on.facts, standing);
    let grown = cents((working - figures.above).or_zero(), figures.rate_in).min(class.most);
    let income = limit::or_zero(trail, adjusted(on.facts, on.person, family_net(on, incomes)));
    let rule = PhaseOut::continuous(class.from, figures.rate_out, Money::CENT);
    let allowed = limit::phase_out(trail, WORKERS_BENEFIT.at(on.scope), grown, income, rule);
    trail.line(BENEFIT, on.scope, allowed, |i| {
        if grown.is_zero() {
            return;
        }
        i.figure("Working income", working).figure("At most", class.most);
        i.figure("Income that counts", income).figure("Shrinks from", class.from);
    })
}

/// Schedule 6: where the benefit is paid out.
pub fn schedule_6(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(BENEFIT), "no workers benefit")
}
