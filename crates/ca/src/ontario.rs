//! Ontario (Taxation Act, 2007; ON428): surtax, tax reduction, the credit for low-income workers, health premium.

use crate::{
    child_care,
    facts::Facts,
    figures::{Figures, OntarioCare, OntarioChildCare, ProvincialBenefit},
    form_428,
    income::{self, Incomes, family_net},
    medical, net_income,
    plan::{Filed, On},
    points::Points,
    provincial_law::{Caring, ProvincialLaw, Shared, Taxed, common},
    rounding::cents,
    widowed,
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
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &[
        "ontario",
        "ontario_relatives",
        "ontario_benefits",
        "ontario_reduction",
        "ontario_surtax",
        "ontario_health",
        "basic",
        "ontario_lift",
        "ontario_care",
        "ontario_child_care",
        "minimum_tax",
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
    CHILD_CARE = "ca.ontario.child_care", "Ontario child care credit", "Taxation Act, 2007; ON479-A",
        "A part of child care deducted, which falls in steps of family income; refundable.";
    CARE = "ca.ontario.care", "Seniors' care at home", "Taxation Act, 2007; ON479",
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
    common!("ON", "on", ontario, ontario_relatives, ontario_credits, "on428-a" => form_on428_a, "on479" => form_428::form_479);

    fn benefits(figures: &Figures) -> Option<&ProvincialBenefit> {
        Some(&figures.ontario_benefits)
    }
    const CARING: Caring = Caring::OneLine;

    fn tax(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, taxed: Taxed<'_>, _: &mut Shared) -> Money {
        reckon(on, trail, incomes, taxed)
    }

    fn paid_out(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Vec<(LineId, Money)> {
        let care = seniors_care(on, trail, incomes);
        let child_care = child_care_credit(on, trail, incomes);
        vec![(CARE, care), (CHILD_CARE, child_care)]
    }

    fn points(points: &mut Points<'_>) {
        family_of_death(points);
    }

    fn jump(facts: &Facts) -> Money {
        cents(child_care::most_claimed(facts), facts.figures.ontario_child_care.rate)
            + jump_of_minimum_tax(facts)
    }

    fn jump_of_children(facts: &Facts) -> Money {
        facts.figures.ontario_reduction.child * (2 * children(facts))
    }
}

/// Line 42800 from basic Ontario tax and the dividend credit, which comes after the surtax.
fn reckon(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, taxed: Taxed<'_>) -> Money {
    let Taxed { basic, dividends, minimum, .. } = taxed;
    let figures = &on.facts.figures;
    let income = &incomes[on.person];
    let mut surtax = Money::ZERO;
    for step in &figures.ontario_surtax.steps {
        surtax += cents(limit::or_zero(trail, basic - step.above), step.rate);
    }
    on.made(trail, SURTAX, surtax, &[(form_428::BASIC_TAX, basic)], &[]);
    let before = limit::or_zero(trail, basic + surtax - dividends) + minimum;
    on.made(
        trail,
        BEFORE,
        before,
        &[
            (form_428::BASIC_TAX, basic),
            (SURTAX, surtax),
            (form_428::DIVIDENDS, dividends),
            (form_428::MINIMUM, minimum),
        ],
        &[],
    );
    // Neither is for who pays the minimum tax.
    trail.step(minimum - Money::CENT, !before.is_zero());
    let (mut reduction, mut lift) = (Money::ZERO, Money::ZERO);
    if minimum.is_zero() {
        reduction = self::reduction(on, trail, incomes, before);
    }
    let foreign = taxed.foreign_credit(on, trail, before - reduction);
    if minimum.is_zero() {
        lift = self::lift(on, trail, incomes, before - reduction - foreign);
    }
    let premium = limit::by_brackets(
        trail,
        income.taxable,
        &figures.ontario_health.tops,
        figures.ontario_health.rates.iter().copied(),
    );
    let premium = on.who().part_year.days.map_or(premium, |days| days.part(premium));
    on.made(trail, HEALTH, premium, &[(income::TAXABLE, income.taxable)], &[]);
    on.made(
        trail,
        form_428::LEFT,
        before - reduction - foreign - lift + premium,
        &[
            (BEFORE, before),
            (REDUCTION, reduction),
            (form_428::FOREIGN, foreign),
            (LIFTED, lift),
            (HEALTH, premium),
        ],
        &[],
    )
}

/// What who comes to pay the minimum tax loses at the most: nobody comes to it below its exemption.
fn jump_of_minimum_tax(facts: &Facts) -> Money {
    let exemption = facts.figures.minimum_tax.exemption;
    let may = |&&f: &&usize| net_income::widest(facts, f).1 > exemption;
    let reduction = &facts.figures.ontario_reduction;
    let of_one = (reduction.basic + reduction.child * children(facts)) * 2 + facts.figures.ontario_lift.most;
    of_one * facts.filers.iter().filter(may).count() as i64
}

/// The tax reduction (s. 21): twice the basic amounts less the tax, at most the tax. The adult with the higher net
/// income counts the children; of equals the first.
fn reduction(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, tax: Money) -> Money {
    let figures = &on.facts.figures.ontario_reduction;
    // Of a couple of whom one died the other is alone at the end of the year, and counts them.
    let may_count = on.who().filer && on.facts.deceased() != Some(on.person);
    let of_children = if may_count { figures.child * children(on.facts) } else { Money::ZERO };
    let mut basic = figures.basic + of_children;
    if let (Some(partner), false) = (on.facts.partner_at_end(on.person), of_children.is_zero()) {
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

/// What is not known of a couple of whom one died: whether that one counts the children as well, and who has the seniors' care.
fn family_of_death(points: &mut Points<'_>) {
    let facts = points.facts;
    let Some(deceased) = facts.deceased() else { return };
    let (reduction, care) = (&facts.figures.ontario_reduction, &facts.figures.ontario_care);
    let before = facts.returns.iter().position(|&r| r == deceased).map(|place| points.amount(BEFORE, place));
    let with_children = (reduction.basic + reduction.child * children(facts)) * 2;
    let counts = children(facts) > 0 && before.is_some_and(|tax| !tax.is_zero() && tax < with_children);
    let aged = facts.adults().any(|person| facts.reached(person, care.age));
    let least = facts.filers.iter().map(|&filer| income::net_shown(points, filer)).min();
    let cares = aged && !facts.windows.is_empty() && least.is_some_and(|net| net < care_gone(care));
    if counts || cares {
        widowed::told(points);
    }
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
    if income.employment.is_zero() || on.who().part_year.days.is_some() {
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

/// The surtax on a dollar more of basic tax at the most; nothing elsewhere.
pub fn most_surtax(facts: &Facts) -> Rate {
    let here = facts.province == Some(Ontario::CODE);
    let steps = facts.figures.ontario_surtax.steps.iter().filter(|_| here);
    Rate::from_billionths(steps.map(|step| step.rate.billionths()).sum())
}

/// The income of a family from which nothing of the seniors' care at home credit is left.
fn care_gone(care: &OntarioCare) -> Money {
    care.from + cents(care.expenses, care.part).divided_by(care.rate, Money::WHOLE, Rounding::Up)
}

/// Whether the medical expenses of a couple may bring the seniors' care at home credit.
pub fn may_care_for_seniors(facts: &Facts) -> bool {
    let care = &facts.figures.ontario_care;
    let aged = |&filer: &usize| facts.reached(filer, care.age);
    let left = |&filer: &usize| net_income::least_of_family(facts, filer) < care_gone(care);
    facts.province == Some(Ontario::CODE) && facts.filers.iter().any(aged) && facts.filers.iter().any(left)
}

/// The seniors' care at home credit (ON479): a part of the medical expenses that a couple claims together, up
/// to a most, less a part of family income above a threshold; from 70 on, own age or the partner's. Of a couple the first
/// has it on the return.
fn seniors_care(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let figures = &on.facts.figures.ontario_care;
    let partner = on.facts.partner_at_end(on.person);
    let aged = on.reached(figures.age) || partner.is_some_and(|p| on.facts.reached(p, figures.age));
    let Some(medical) = on.plan.medical.as_ref().filter(|_| aged && on.facts.filers[0] == on.person) else {
        return Money::ZERO;
    };
    let mut claims = Vec::new();
    for claim in &medical.claims {
        let claimed = medical::claimed(on.of(claim.person), trail);
        claims.extend(claimed.map(|(_, amount)| (claim.person, amount)));
    }
    let claimed: Money = claims.iter().map(|(_, amount)| *amount).sum();
    let part = cents(limit::lesser(trail, claimed, figures.expenses), figures.part);
    let family = family_net(on, incomes);
    let rule = PhaseOut::continuous(figures.from, figures.rate, Money::CENT);
    let allowed = limit::phase_out(trail, SENIORS_CARE.at(on.scope), part, family, rule);
    trail.line(CARE, on.scope, allowed, |i| {
        for &(person, amount) in &claims {
            i.line(medical::CLAIMED, on.of(person).scope, amount);
        }
        i.figure("Net income of the family", family).figure("Shrinks from", figures.from);
    })
}

/// The child care credit (ON479-A): of what is deducted a part, which loses a step with each started slice of family income.
fn child_care_credit(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    if !child_care::any(on.facts) {
        return Money::ZERO;
    }
    let deducted = incomes[on.person].child_care;
    let family = family_net(on, incomes);
    let rate = child_care_rate(&on.facts.figures.ontario_child_care, trail, family);
    if deducted.is_zero() {
        return Money::ZERO;
    }
    let credit = cents(deducted, rate);
    let made = [(child_care::DEDUCTED, deducted)];
    on.made(trail, CHILD_CARE, credit, &made, &[("Net income of the family", &family), ("Rate", &rate)])
}

/// Its rate: every slice tells where it starts.
fn child_care_rate(figures: &OntarioChildCare, trail: &mut impl Trail, family: Money) -> Rate {
    let mut is_above = |amount: Money| {
        let above = family - amount - Money::CENT;
        trail.step(above, true);
        !above.is_negative()
    };
    let mut steps = 0;
    for (place, (&from, &each)) in figures.from.iter().zip(&figures.each).enumerate() {
        let to = figures.from.get(place + 1).copied().unwrap_or(figures.to);
        let starts = (0..).map(|slice| from + each * slice).take_while(|start| *start < to);
        steps += starts.map(|start| i64::from(is_above(start))).sum::<i64>();
    }
    if is_above(figures.to) {
        return Rate::from_billionths(0);
    }
    Rate::from_billionths(figures.rate.billionths() - figures.step.billionths() * steps)
}

/// ON428-A: where the credit for low-income workers is claimed.
fn form_on428_a(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(LIFTED), "no such credit")
}
