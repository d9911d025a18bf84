//! Canada caregiver amounts (ITA 118(1)B(a), (b), (b.1), (d), (e)): lines 30425, 30450 and 30500, and in the same form lines
//! 58185, or 58400 and 58200, of a province.

use crate::{
    facts::Facts,
    figures::Shrinking,
    form_428,
    income::{self, Incomes},
    plan::On,
    points::Points,
    province::{self, Cares},
};
use hembo_core::{
    limit::{self, LimitAt, PhaseOut},
    limits, lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::{Money, Rate};

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, limits: LIMITS, points: POINTS, figures: &["caregiver"], ..Provision::NONE };

lines! {
    pub TOPPED_UP = "ca.30425", "Caregiver, partner or eligible dependant", "ITA 118(1)B(e)",
        "What the amount for an infirm adult is more than that of line 30300 or 30400.";
    pub CAREGIVER = "ca.30450", "Caregiver, other infirm adults", "ITA 118(1)B(d)",
        "An amount for each, less net income above a threshold.";
    pub CHILDREN = "ca.30500", "Caregiver, infirm children under 18", "ITA 118(1)B(b.1)",
        "An amount for each.";
}

open_points! {
    NOT_HELD = not_covered "province-caregiver", "Form 428 of the province, lines 58200 and 58400";
}

limits! {
    FOR_PARTNER = "ca.limit.caregiver_partner" on TOPPED_UP, "Caregiver, partner or eligible dependant", "shrinks with the other's net income",
        "ITA 118(1)B(e)";
    FOR_OTHERS = "ca.limit.caregiver_others" on CAREGIVER, "Caregiver, other infirm adults", "shrinks with the other's net income",
        "ITA 118(1)B(d)";
    PROVINCIAL = "ca.limit.caregiver" on form_428::CAREGIVER, "Caregiver, province", "shrinks with the relative's net income",
        "Income tax acts of the provinces; form 428";
}

/// What an infirm partner or eligible dependant adds to lines 30300 and 30400: a child of one's own under 18 has line 30500
/// instead.
pub fn addition(facts: &Facts, person: usize) -> Money {
    let who = &facts.people[person];
    let caregiver = &facts.figures.caregiver;
    let counts = who.infirm && (facts.reached(person, caregiver.age) || !who.child);
    if counts { caregiver.addition } else { Money::ZERO }
}

/// The amount for one person at a net income.
fn shrunk(trail: &mut impl Trail, at: LimitAt, most: Money, from: Money, net: Money) -> Money {
    limit::phase_out(trail, at, most, net, PhaseOut::continuous(from, Rate::ONE, Money::CENT))
}

/// Line 30425: for an infirm partner, or an infirm eligible dependant of 18 or over, for whom `claimed` stands on line
/// 30300 or 30400.
pub fn topped_up(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &Incomes,
    who: Option<usize>,
    claimed: Money,
) -> Money {
    let caregiver = &on.facts.figures.caregiver;
    let Some(who) = who.filter(|&p| on.facts.people[p].infirm && on.facts.reached(p, caregiver.age)) else {
        return Money::ZERO;
    };
    let full = shrunk(trail, FOR_PARTNER.at(on.scope), caregiver.most, caregiver.from, incomes[who].net);
    let full = on.by_days(full);
    let more = limit::or_zero(trail, full - claimed);
    on.made(
        trail,
        TOPPED_UP,
        more,
        &[],
        &[("Amount for an infirm adult", &full), ("Less what is claimed", &claimed)],
    )
}

/// Lines 30450 and 30500: for the infirm dependants for whom this return claims, but none who is the eligible dependant.
pub fn federal(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> (Money, Money) {
    let caregiver = &on.facts.figures.caregiver;
    let infirm = |p: &usize| on.facts.people[*p].infirm;
    let (mut adults, mut children) = (Money::ZERO, Money::ZERO);
    for person in on.claimed().filter(infirm) {
        let who = &on.facts.people[person];
        if on.facts.reached(person, caregiver.age) {
            if on.plan.dependant != Some(person) {
                adults += shrunk(
                    trail,
                    FOR_OTHERS.at(on.scope),
                    caregiver.most,
                    caregiver.from,
                    incomes[person].net,
                );
            }
        } else if who.child && who.lives_here {
            children += caregiver.addition;
        }
    }
    let adults = on.made_by_days(
        trail,
        CAREGIVER,
        adults,
        &[],
        &[("Each, at most", &caregiver.most), ("Shrinks from", &caregiver.from)],
    );
    let children = on.made_by_days(trail, CHILDREN, children, &[], &[("Each", &caregiver.addition)]);
    (adults, children)
}

/// The line of a province for relatives cared for, less what is claimed for the same person as its eligible dependant.
pub fn provincial(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, dependant: Money) -> Money {
    let mut total = Money::ZERO;
    let cared: Vec<(usize, &Shrinking)> = on.claimed().filter_map(|p| Some((p, for_one(on, p)?))).collect();
    for &(person, figures) in &cared {
        let net = incomes[person].net;
        let full = shrunk(trail, PROVINCIAL.at(on.scope), figures.most, figures.from, net);
        let claimed = if on.plan.dependant == Some(person) { dependant } else { Money::ZERO };
        total += limit::or_zero(trail, on.by_days(full) - claimed);
    }
    trail.line(form_428::CAREGIVER, on.scope, total, |i| {
        for &(person, figures) in &cared {
            if on.facts.returns.contains(&person) {
                i.line(income::NET, on.of(person).scope, incomes[person].net);
            }
            i.figure("At most", figures.most).figure("Shrinks from", figures.from);
        }
    })
}

/// The figures of the province for one person; nothing where it has no amount.
fn for_one(on: On<'_>, person: usize) -> Option<&Shrinking> {
    let relatives = province::relatives(on.facts)?;
    match province::cares(on.facts, person)? {
        Cares::AtHome if on.who().maintains_home || on.facts.people[person].infirm => {
            relatives.caregiver.as_ref()
        }
        Cares::AtHome => None,
        Cares::Elsewhere => relatives.infirm.as_ref(),
    }
}

/// Amounts of the province for relatives cared for whose figures are not held.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let Some(figures) = province::relatives(facts) else { return };
    for person in 0..facts.people.len() {
        let held = match province::cares(facts, person) {
            None => true,
            Some(Cares::AtHome) => figures.caregiver.is_some(),
            Some(Cares::Elsewhere) => figures.infirm.is_some(),
        };
        if !held {
            let who = &facts.people[person];
            let message = format!("The province's caregiver amount for {} is not held.", who.name);
            points.raise(&NOT_HELD, Place::person(&who.id, "name"), message);
        }
    }
}
