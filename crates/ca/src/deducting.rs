//! How much of retirement contributions is deducted now, and how much kept for a later year (ITA 146(5), (5.1)).

use crate::{
    contributions, dividend_election,
    facts::Facts,
    gifts, income, net_income,
    plan::{On, Plan, World},
    province,
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
                More::NeverCostsInWorlds
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
/// limits them, where it may decide with whom the province counts the children, and where an election of dividends hangs on
/// it; a [`World`] is without these.
fn may_cost(facts: &Facts) -> bool {
    gifts_may_be_limited(facts) || children_may_change(facts) || dividend_election::possible(facts)
}

fn gifts_may_be_limited(facts: &Facts) -> bool {
    let limited = |&f: &usize| gifts::most(facts, net_income::widest(facts, f).0) < sum(&facts.gifts);
    facts.filers.iter().any(limited)
}

/// Into how many worlds the amounts fall: two where the province may count the children with either partner. In none of them
/// are gifts limited or is an election of dividends tested.
pub fn worlds(facts: &Facts) -> usize {
    if children_may_change(facts) { 2 } else { 1 }
}

/// One of them.
pub fn world(facts: &Facts, world: usize) -> World {
    World { children_with: children_may_change(facts).then(|| facts.filers[world]) }
}

/// How far inside a world a way is. Where the province counts the children with a partner, that one has the higher net income, of
/// equals the first. Where an election of dividends is made it may be lawful: the highest basic amount is taken for it.
pub fn inside_world(facts: &Facts, world: World, plan: &Plan, edges: &mut Edges) -> Money {
    let more = |person: usize, edges: &mut Edges| {
        let other = facts.partner(person)?;
        let [mine, theirs] = [person, other].map(|p| net(facts, plan, p, edges));
        let first = facts.filers[0] == person;
        Some(mine - theirs - if first { Money::ZERO } else { Money::CENT })
    };
    let mut inside = Money::LARGEST;
    if let Some(margin) = world.children_with.and_then(|person| more(person, edges)) {
        inside = margin;
    }
    if let Some(election) = plan.dividends {
        let below = facts.figures.basic.most - net(facts, plan, election.from, edges) - Money::CENT;
        inside = limit::lesser(edges, inside, below);
        if let Some(margin) = more(election.to, edges) {
            inside = limit::lesser(edges, inside, margin);
        }
    }
    inside
}

fn net(facts: &Facts, plan: &Plan, person: usize, edges: &mut Edges) -> Money {
    income::reckon(On { facts, plan, person, scope: Scope::Person(person) }, edges).net
}

/// Whose deduction leads out of a world: it lowers the income that is to be the higher one.
pub fn leads_out_of_world(world: World, plan: &Plan) -> Option<usize> {
    world.children_with.or(plan.dividends.map(|election| election.to))
}

/// By how much the tax of a couple jumps at the most where the province counts the children with the other partner.
pub fn jump_of_children(facts: &Facts) -> Money {
    if children_may_change(facts) { province::jump_of_children(facts) } else { Money::ZERO }
}

/// Whether partners may change places in net income, and the province count the children with the other.
fn children_may_change(facts: &Facts) -> bool {
    if !facts.couple || province::jump_of_children(facts).is_zero() {
        return false;
    }
    let [one, other] = [0, 1].map(|place| net_income::widest(facts, facts.filers[place]));
    one.0 <= other.1 && other.0 <= one.1
}
