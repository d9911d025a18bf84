//! How much of retirement contributions is deducted now, and how much kept for a later year (ITA 146(5), (5.1)).

use crate::{
    contributions, dividend_election,
    facts::Facts,
    gifts, income, net_income, ontario,
    personal::{self, Raised},
    plan::{On, Plan},
    provinces::Province,
    rounding::STEEPEST,
};
use hembo_core::{
    Scope,
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    limit,
    reading::sum,
    search::Edges,
};
use hembo_money::Money;

/// Contributions that a person deducts now, by the person's place.
pub static NOW: Open<Facts> = Open::new(
    |facts| facts.returns.iter().copied().filter(|&p| !contributions::most(facts, p).is_zero()).collect(),
    |facts, person| {
        let first = facts.first_name(person);
        let amount = Amount {
            most: contributions::most(facts, person),
            short: format!("deduction of {first}"),
            more: if facts.people[person].filer && may_cost(facts) {
                More::CostsPastGuards
            } else {
                More::NeverCosts
            },
            steepest: STEEPEST,
        };
        let id = format!("ca.rrsp.{}", facts.people[person].id);
        let label = format!("Contributions that {first} deducts now");
        Decision::amount(id, label, "ITA 146(5), (5.1); Schedule 7", amount)
    },
);

/// What each person deducts in a way; all where nothing is said.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.people.len()).map(|person| way.amount(&NOW, person)).collect()
}

/// A larger deduction lowers net income. That never costs, but where gifts may come to the part of net income that
/// limits them, where it may decide with whom Ontario counts the children, and where an election of dividends hangs on it.
fn may_cost(facts: &Facts) -> bool {
    gifts_may_be_limited(facts) || ontario_children_may_change(facts) || dividend_election::possible(facts)
}

fn gifts_may_be_limited(facts: &Facts) -> bool {
    let limited = |&f: &usize| gifts::most(facts, net_income::widest(facts, f).0) < sum(&facts.gifts);
    facts.filers.iter().any(limited)
}

/// Whether the amounts fall into two worlds, by the partner with whom Ontario counts the children, in each of which no
/// deduction costs.
pub fn in_two_worlds(facts: &Facts) -> bool {
    ontario_children_may_change(facts) && !gifts_may_be_limited(facts) && !dividend_election::possible(facts)
}

/// How far inside such a world a way is, by the place of the partner among the filers: that one has the higher net income,
/// of equals the first.
pub fn inside_world(facts: &Facts, world: usize, plan: &Plan, edges: &mut Edges) -> Money {
    let mut net = |place: usize| {
        let person = facts.filers[place];
        income::reckon(On { facts, plan, person, scope: Scope::Person(person) }, edges).net
    };
    let more = net(0) - net(1);
    if world == 0 { more } else { -more - Money::CENT }
}

/// By how much the tax of a couple jumps at the most where Ontario counts the children with the other partner.
pub fn jump_of_children(facts: &Facts) -> Money {
    let child = facts.figures.ontario_reduction.child * (2 * ontario::children(facts));
    if ontario_children_may_change(facts) { child } else { Money::ZERO }
}

/// Whether Ontario counts children for its reduction.
fn counts_children(facts: &Facts) -> bool {
    facts.province == Some(Province::Ontario) && ontario::children(facts) > 0
}

/// Whether partners may change places in net income, and Ontario count the children with the other.
fn ontario_children_may_change(facts: &Facts) -> bool {
    if !facts.couple || !counts_children(facts) {
        return false;
    }
    let [one, other] = [0, 1].map(|place| net_income::widest(facts, facts.filers[place]));
    one.0 <= other.1 && other.0 <= one.1
}

/// Tells where a larger deduction may begin to cost: where gifts come to the part of net income that limits them, where
/// the partners change places in net income and Ontario counts the children with the other, and where an election of
/// dividends would no longer be lawful. With every dollar deducted net income falls or stays, so that each margin moves
/// one way only.
pub fn guards(facts: &Facts, plan: &Plan, edges: &mut Edges) {
    let on = |person: usize| On { facts, plan, person, scope: Scope::Person(person) };
    let nets: Vec<(usize, Money)> =
        facts.filers.iter().map(|&f| (f, income::reckon(on(f), edges).net)).collect();
    let mut left = sum(&facts.gifts);
    for &(filer, net) in nets.iter().filter(|_| !facts.gifts.is_empty()) {
        let wanted = limit::lesser(edges, plan.gifts[filer].unwrap_or(left), left);
        edges.guard(wanted - gifts::most(facts, net));
        left -= gifts::claimed(on(filer), edges, left, net);
    }
    if let [(_, first), (_, second)] = nets[..]
        && counts_children(facts)
    {
        edges.guard_between(first - second);
    }
    if let Some(election) = plan.dividends {
        let Raised { below, more } = personal::raised(on(election.to), edges, election);
        edges.guard_between(below);
        edges.guard_between(more);
    }
}
