//! Ontario (Taxation Act, 2007; ON428): surtax, tax reduction, the credit for low-income workers, health premium.

use crate::{
    facts::Facts,
    income::cents,
    limits::{LIFT, SENIORS_CARE},
    medical::family_net,
    personal::Incomes,
    plan::On,
};
use hembo_core::{
    limit::{self, PhaseOut},
    trail::Trail,
};
use hembo_money::Money;

/// Line 42800 from basic Ontario tax and the dividend credit, which comes after the surtax.
pub fn reckon(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &Incomes,
    basic: Money,
    dividends: Money,
) -> Money {
    let figures = on.facts.figures;
    let income = &incomes[on.person];
    let mut surtax = Money::ZERO;
    for step in &figures.ontario_surtax.steps {
        surtax += cents(limit::or_zero(trail, basic - step.above), step.rate);
    }
    on.made(trail, "ca.ontario.surtax", surtax, &[("ca.428.basic", basic)], &[]);
    let before = limit::or_zero(trail, basic + surtax - dividends);
    on.made(
        trail,
        "ca.ontario.before",
        before,
        &[("ca.428.basic", basic), ("ca.ontario.surtax", surtax), ("ca.61520", dividends)],
        &[],
    );
    let reduction = reduction(on, trail, incomes, before);
    let lift = lift(on, trail, incomes, before - reduction);
    let premium = limit::by_brackets(
        trail,
        income.taxable,
        &figures.ontario_health.tops,
        figures.ontario_health.rates.iter().copied(),
    );
    on.made(trail, "ca.ontario.health", premium, &[("ca.26000", income.taxable)], &[]);
    on.made(
        trail,
        "ca.42800",
        before - reduction - lift + premium,
        &[
            ("ca.ontario.before", before),
            ("ca.ontario.reduction", reduction),
            ("ca.ontario.lift", lift),
            ("ca.ontario.health", premium),
        ],
        &[],
    )
}

/// The tax reduction (s. 21): twice the basic amounts less the tax, at most the tax. The adult with the higher net
/// income counts the children; of equals the first.
fn reduction(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, tax: Money) -> Money {
    let figures = &on.facts.figures.ontario_reduction;
    let of_children = if on.who().filer { figures.child * children(on.facts) } else { Money::ZERO };
    let mut basic = figures.basic + of_children;
    if let (Some(partner), false) = (on.facts.partner(on.person), of_children.is_zero()) {
        let first = on.facts.filers[0] == on.person;
        let (one, other) = if first { (on.person, partner) } else { (partner, on.person) };
        let more = incomes[one].net - incomes[other].net;
        trail.edge(tax - basic * 2, true);
        trail.step(more, tax < basic * 2);
        if first == more.is_negative() {
            basic = figures.basic;
        }
    }
    let left = limit::or_zero(trail, basic * 2 - tax);
    let reduction = limit::lesser(trail, left, tax);
    on.made(
        trail,
        "ca.ontario.reduction",
        reduction,
        &[("ca.ontario.before", tax)],
        &[("Basic amounts", &basic)],
    )
}

/// Children of 18 or younger on the last day of the year, and other dependants with an impairment.
pub fn children(facts: &Facts) -> i64 {
    let to_age = facts.figures.ontario_reduction.child_to_age;
    let young = |p: usize| facts.people[p].child && !facts.reached(p, to_age + 1);
    let counts = |&p: &usize| !facts.people[p].filer && (young(p) || facts.people[p].infirm);
    (0..facts.people.len()).filter(counts).count() as i64
}

/// Low-income individuals and families tax credit (s. 21.1; ON428-A): a part of employment income, less a part of
/// the larger of what is above the own and the family threshold, at most the tax left.
fn lift(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, tax: Money) -> Money {
    let figures = &on.facts.figures.ontario_lift;
    let income = &incomes[on.person];
    if income.employment.is_zero() {
        return Money::ZERO;
    }
    let earned = limit::lesser(trail, cents(income.employment, figures.earned_rate), figures.most);
    let own = limit::or_zero(trail, income.net - figures.own_from);
    let family = limit::or_zero(trail, family_net(on, incomes) - figures.family_from);
    let above = limit::greater(trail, own, family);
    let rule = PhaseOut::continuous(Money::ZERO, figures.rate, Money::CENT);
    let allowed = limit::phase_out(trail, LIFT.at(on.scope), earned, above, rule);
    let taken = limit::lesser(trail, allowed, tax);
    on.made(
        trail,
        "ca.ontario.lift",
        taken,
        &[("ca.10100", income.employment), ("ca.23600", income.net)],
        &[("Income above the thresholds", &above)],
    )
}

/// Line 47900, the seniors' care at home credit (ON479): a part of the medical expenses that a couple claims together, up
/// to a most, less a part of family income above a threshold; from 70 on, own age or the partner's. Of a couple the first
/// has it on the return.
pub fn seniors_care(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let figures = &on.facts.figures.ontario_care;
    let aged = on.facts.filers.iter().any(|&f| on.facts.reached(f, figures.age));
    let Some(medical) = on.plan.medical.as_ref().filter(|_| aged && on.facts.filers[0] == on.person) else {
        return Money::ZERO;
    };
    let claimed: Money = medical.claimed.iter().map(|(_, amount)| *amount).sum();
    let part = cents(limit::lesser(trail, claimed, figures.expenses), figures.part);
    let family = family_net(on, incomes);
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    let allowed = limit::phase_out(trail, SENIORS_CARE.at(on.scope), part, family, rule);
    trail.line("ca.47900", on.scope, allowed, |i| {
        for &(person, amount) in &medical.claimed {
            i.line("ca.33099", on.of(person).scope, amount);
        }
        i.figure("Net income of the family", family).figure("Shrinks from", figures.from);
    })
}
