//! Ontario (Taxation Act, 2007; ON428): surtax, tax reduction, the credit for low-income workers, health premium.

use crate::{
    facts::Facts,
    figures::{Figures, Provincial},
    form_428, income,
    medical::{self, family_net},
    personal::Incomes,
    plan::{Filed, FormRule, On},
    provincial_law::ProvincialLaw,
    rounding::cents,
    transfers, tuition,
};
use hembo_core::{
    forms::Required,
    limit::{self, PhaseOut},
    limits,
    line::LineId,
    lines,
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &[
        "ontario",
        "ontario_reduction",
        "ontario_surtax",
        "ontario_health",
        "basic",
        "ontario_lift",
        "ontario_care",
        "age",
    ],
    ..Provision::NONE
};

lines! {
    pub SURTAX = "ca.ontario.surtax", "Ontario surtax", "Taxation Act, 2007, s. 16",
        "A part of basic Ontario tax above two thresholds.";
    BEFORE = "ca.ontario.before", "Ontario tax before the reduction", "Taxation Act, 2007",
        "Basic tax and surtax less the dividend credit.";
    pub REDUCTION = "ca.ontario.reduction", "Ontario tax reduction", "Taxation Act, 2007, s. 21",
        "Twice the basic amounts less the tax; children count with the higher net income.";
    pub LIFTED = "ca.ontario.lift", "Low-income workers' credit", "Taxation Act, 2007, s. 21.1",
        "A part of employment income, less a part of income above thresholds.";
    pub HEALTH = "ca.ontario.health", "Ontario health premium", "Taxation Act, 2007, s. 24.1",
        "By ramps of taxable income; no credit takes from it.";
    pub CARE = "ca.47900", "Seniors' care at home", "Taxation Act, 2007; ON479",
        "A part of the medical expenses claimed, less a part of family income; refundable.";
}

limits! {
    LIFT = "ca.limit.lift" on LIFTED, "Low-income workers' credit", "shrinks with income",
        "Taxation Act, 2007, s. 21.1";
    SENIORS_CARE = "ca.limit.seniors_care" on CARE, "Seniors' care at home", "shrinks with family income",
        "Taxation Act, 2007; ON479";
}

/// The law of Ontario.
#[derive(Debug)]
pub struct Ontario;

impl ProvincialLaw for Ontario {
    const CODE: &'static str = "ON";
    const FORMS: &'static [(&'static str, FormRule)] = &[
        ("on428", |_| Required::Yes),
        ("on428-a", form_on428_a),
        ("on479", form_on479),
        ("on-s2", transfers::provincial_schedule_2),
        ("on-s11", tuition::provincial_schedule_11),
    ];

    fn figures(figures: &Figures) -> &Provincial {
        &figures.ontario
    }

    fn tax(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, basic: Money, dividends: Money) -> Money {
        reckon(on, trail, incomes, basic, dividends)
    }

    fn paid_out(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Option<(LineId, Money)> {
        Some((CARE, seniors_care(on, trail, incomes)))
    }

    fn jump_of_children(facts: &Facts) -> Money {
        facts.figures.ontario_reduction.child * (2 * children(facts))
    }
}

/// Line 42800 from basic Ontario tax and the dividend credit, which comes after the surtax.
fn reckon(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, basic: Money, dividends: Money) -> Money {
    let figures = &on.facts.figures;
    let income = &incomes[on.person];
    let mut surtax = Money::ZERO;
    for step in &figures.ontario_surtax.steps {
        surtax += cents(limit::or_zero(trail, basic - step.above), step.rate);
    }
    on.made(trail, SURTAX, surtax, &[(form_428::BASIC_TAX, basic)], &[]);
    let before = limit::or_zero(trail, basic + surtax - dividends);
    on.made(
        trail,
        BEFORE,
        before,
        &[(form_428::BASIC_TAX, basic), (SURTAX, surtax), (form_428::DIVIDENDS, dividends)],
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
    on.made(trail, HEALTH, premium, &[(income::TAXABLE, income.taxable)], &[]);
    on.made(
        trail,
        form_428::PROVINCIAL_TAX,
        before - reduction - lift + premium,
        &[(BEFORE, before), (REDUCTION, reduction), (LIFTED, lift), (HEALTH, premium)],
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
        let counted = match on.plan.world.and_then(|world| world.children_with) {
            Some(with) => with == on.person,
            None => counts_children(on, trail, incomes, partner, tax < basic * 2),
        };
        trail.edge(tax - basic * 2, true);
        if !counted {
            basic = figures.basic;
        }
    }
    let left = limit::or_zero(trail, basic * 2 - tax);
    let reduction = limit::lesser(trail, left, tax);
    on.made(trail, REDUCTION, reduction, &[(BEFORE, tax)], &[("Basic amounts", &basic)])
}

/// Whether the children count on this return of a couple: with the higher net income, of equals with the first.
fn counts_children(
    on: On<'_>,
    trail: &mut impl Trail,
    incomes: &Incomes,
    partner: usize,
    matters: bool,
) -> bool {
    let first = on.facts.filers[0] == on.person;
    let (one, other) = if first { (on.person, partner) } else { (partner, on.person) };
    let more = incomes[one].net - incomes[other].net;
    trail.step(more, matters);
    first != more.is_negative()
}

/// Children of 18 or younger on the last day of the year, and other dependants with an impairment.
fn children(facts: &Facts) -> i64 {
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
        LIFTED,
        taken,
        &[(income::EMPLOYMENT, income.employment), (income::NET, income.net)],
        &[("Income above the thresholds", &above)],
    )
}

/// Line 47900, the seniors' care at home credit (ON479): a part of the medical expenses that a couple claims together, up
/// to a most, less a part of family income above a threshold; from 70 on, own age or the partner's. Of a couple the first
/// has it on the return.
fn seniors_care(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
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
    trail.line(CARE, on.scope, allowed, |i| {
        for &(person, amount) in &medical.claimed {
            i.line(medical::CLAIMED, on.of(person).scope, amount);
        }
        i.figure("Net income of the family", family).figure("Shrinks from", figures.from);
    })
}

/// ON428-A: where the credit for low-income workers is claimed.
fn form_on428_a(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(LIFTED), "no such credit")
}

/// ON479: where a credit is paid out.
fn form_on479(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CARE), "no such credit")
}
