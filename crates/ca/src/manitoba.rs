//! Manitoba (The Income Tax Act; MB428, MB428-A): the basic amount of large incomes, the family tax benefit.

use crate::{
    facts::Facts,
    income::{self, Incomes},
    plan::{Filed, On},
    points::Points,
    provincial_law::{Changed, ProvincialLaw, common},
    rounding::cents,
    widowed,
};
use hembo_core::{
    forms::Required,
    limit::{self, Shape},
    limits,
    line::LineId,
    lines,
    provision::Provision,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    figures: &["manitoba", "manitoba_relatives", "manitoba_basic", "manitoba_family"],
    ..Provision::NONE
};

lines! {
    FAMILY = "ca.61470", "Family tax benefit", "The Income Tax Act (Manitoba); MB428-A",
        "Amounts for the family, less a part of net income; of a couple the one with the higher net income has it.";
}

limits! {
    BENEFIT = "ca.limit.mb_family" on FAMILY, "Family tax benefit", "shrinks with net income",
        "The Income Tax Act (Manitoba); MB428-A";
}

/// The law of Manitoba.
#[derive(Debug)]
pub struct Manitoba;

impl ProvincialLaw for Manitoba {
    common!("MB", "mb", manitoba, manitoba_relatives, manitoba_credits, "mb428-a" => form_mb428_a, "mb479" => crate::form_428::form_479);

    fn changed(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Changed {
        Changed {
            basic: basic(on, trail, incomes[on.person].net),
            ..Changed::nothing(Self::figures(&on.facts.figures))
        }
    }

    fn further_amounts(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Vec<(LineId, Money)> {
        vec![(FAMILY, family(on, trail, incomes))]
    }

    fn jump_of_children(facts: &Facts) -> Money {
        // The benefit is an amount: nothing that it saves is above this.
        let partners = facts.adults().map(|person| parts_of(facts, person)).sum::<i64>();
        let family = &facts.figures.manitoba_family;
        let whole = family.each * partners + family.more * impaired_and_young(facts, None);
        cents(whole, facts.figures.manitoba.credit_rate)
    }

    fn points(points: &mut Points<'_>) {
        widowed::told(points);
    }
}

/// Line 58040: nothing is left of it where net income comes to the upper end.
fn basic(on: On<'_>, trail: &mut impl Trail, net: Money) -> Money {
    let most = on.facts.figures.manitoba.basic;
    let Some(figures) = &on.facts.figures.manitoba_basic else { return most };
    let width = figures.to - figures.from;
    let above = limit::or_zero(trail, net - figures.from);
    let over = limit::lesser(trail, above, width);
    most - most.in_proportion(over, width, Money::CENT, Rounding::HalfUp)
}

/// The parts of the benefit that a person makes: one, and one more from 65 on.
fn parts_of(facts: &Facts, person: usize) -> i64 {
    1 + i64::from(facts.reached(person, facts.figures.manitoba_family.aged))
}

/// Impairments of the filers and of each dependant, and children of 18 or younger who are not the eligible dependant.
fn impaired_and_young(facts: &Facts, dependant: Option<usize>) -> i64 {
    let to_age = facts.figures.manitoba_family.child_to_age;
    let impaired = (0..facts.people.len()).filter(|&p| facts.people[p].disabled).count();
    let young = |&p: &usize| facts.is_child_under(p, to_age + 1) && dependant != Some(p);
    let children = (0..facts.people.len()).filter(young).count();
    (impaired + children) as i64
}

/// Line 61470.
fn family(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes) -> Money {
    let (facts, figures) = (on.facts, &on.facts.figures.manitoba_family);
    let net = incomes[on.person].net;
    let full = match (on.who().filer, facts.partner_at_end(on.person)) {
        (false, _) => figures.each * parts_of(facts, on.person),
        (true, Some(partner)) if !claims(on, trail, incomes, partner) => Money::ZERO,
        (true, partner) => {
            let second =
                partner.map(|p| parts_of(facts, p)).or(on.eligible_dependant().map(|_| 1)).unwrap_or(0);
            figures.each * (parts_of(facts, on.person) + second)
                + figures.more * impaired_and_young(facts, on.plan.dependant)
        }
    };
    let left = limit::or_zero(trail, full - cents(net, figures.rate));
    let allowed = limit::given(trail, BENEFIT.at(on.scope), Shape::PhaseOut, full, left);
    on.made(
        trail,
        FAMILY,
        allowed,
        &[(income::NET, net)],
        &[("Amounts together", &full), ("Rate", &figures.rate)],
    )
}

/// Whether this return of a couple has the benefit: that of the higher net income, of equals the first's.
fn claims(on: On<'_>, trail: &mut impl Trail, incomes: &Incomes, partner: usize) -> bool {
    if let Some(with) = on.plan.world.and_then(|world| world.children_with) {
        return with == on.person;
    }
    let first = on.facts.filers[0] == on.person;
    let (one, other) = if first { (on.person, partner) } else { (partner, on.person) };
    let more = incomes[one].net - incomes[other].net;
    trail.step(more, true);
    first != more.is_negative()
}

/// MB428-A: where the benefit is claimed.
fn form_mb428_a(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(FAMILY), "no family tax benefit")
}
