//! How much of retirement contributions, first home savings and the capital cost of lets is deducted now, and how much kept for a later
//! year (ITA 20(1)(a), 146(5), (5.1), 146.6(5)).

use crate::{
    caregivers, child_care, contributions, disability_supports, dividend_election, earlier_minimum_tax,
    facts::Facts,
    first_home, gifts, income, medical,
    net_income::{self, care_may_change},
    papers::benefits,
    plan::{On, Plan, World},
    province, rental,
    rounding::{STEEPEST, cents},
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
    |facts| facts.returns.iter().copied().filter(|&p| !most(facts, p).is_zero()).collect(),
    |facts, person| {
        let first = facts.first_name(person);
        let amount = Amount {
            most: most(facts, person),
            short: format!("deduction of {first}"),
            more: more(facts, person),
            steepest: STEEPEST,
        };
        let id = format!("ca.rrsp.{}", facts.people[person].id);
        let lets = !rental::most(&facts.people[person].own).is_zero();
        let what = if lets { "Contributions and capital cost" } else { "Contributions" };
        let label = format!("{what} that {first} deducts now");
        Decision::amount(id, label, "ITA 20(1)(a), 146(5), (5.1), 146.6(5); Schedules 7 and 15", amount)
    },
);

/// Retirement contributions, first home savings and capital cost of lets: all lower net income alike, and of all the rest is kept
/// without an end.
fn most(facts: &Facts, person: usize) -> Money {
    contributions::most(facts, person)
        + first_home::most(facts, person)
        + rental::most(&facts.people[person].own)
}

/// What each person deducts in a way; all where nothing is said.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.people.len()).map(|person| way.amount(&NOW, person)).collect()
}

/// Whether more of what lowers a person's net income may cost.
pub fn more(facts: &Facts, person: usize) -> More {
    match facts.people[person].filer {
        true if two_orders(facts) => More::MayCost,
        _ if earlier_minimum_tax::may_be_taken(facts, person) => More::MayCost,
        _ if supports_may_fall(facts, person) => More::MayCost,
        true if may_cost(facts) => More::NeverCostsInWorlds,
        _ => More::NeverCosts,
    }
}

/// A larger deduction lowers net income. That never costs, but where gifts may come to the part of net income that
/// limits them, where it may decide with whom the province counts the children or who claims child care, and where an election of
/// dividends hangs on it; a [`World`] is without these.
fn may_cost(facts: &Facts) -> bool {
    gifts_may_be_limited(facts) || partners_may_change(facts) || dividend_election::possible(facts)
}

/// Whether a larger deduction may lower disability supports, which for studies are limited by income after it (64(b)(ii)), and with them the
/// medical supplement.
fn supports_may_fall(facts: &Facts, person: usize) -> bool {
    disability_supports::of_studies(facts, person) && medical::may_be_supplemented(facts, person)
}

/// Whether the order of the partners before child care may be another than that of their net incomes, as a repayment of benefits
/// lies between: then no two worlds hold all ways.
fn two_orders(facts: &Facts) -> bool {
    let repays = |&f: &usize| facts.people[f].own.has(&benefits::brings::OAS);
    care_may_change(facts) && children_may_change(facts) && facts.filers.iter().any(repays)
}

fn partners_may_change(facts: &Facts) -> bool {
    children_may_change(facts) || care_may_change(facts)
}

fn gifts_may_be_limited(facts: &Facts) -> bool {
    let limited = |&f: &usize| gifts::most(facts, f, net_income::widest(facts, f).0) < sum(&facts.gifts);
    facts.filers.iter().any(limited)
}

/// The worlds into which the amounts fall: two where either partner may have the higher net income and something hangs on it. In none of
/// them are gifts limited or is an election of dividends tested.
pub fn worlds(facts: &Facts) -> Vec<World> {
    let pair = facts.pair().filter(|_| partners_may_change(facts));
    pair.map_or(vec![World::default()], |pair| pair.map(|higher| world_of(facts, higher)).to_vec())
}

/// That in which a partner has the higher net income.
fn world_of(facts: &Facts, higher: usize) -> World {
    World {
        children_with: Some(higher).filter(|_| children_may_change(facts)),
        care_by: facts.partner(higher).filter(|_| care_may_change(facts)),
    }
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
    if let Some(lower) = world.care_by {
        let margin = lower_before_care(facts, plan, lower, edges);
        inside = limit::lesser(edges, inside, margin);
    }
    if let Some(election) = plan.dividends {
        let base = facts.figures.basic.most + caregivers::addition(facts, election.from);
        let below = base - net(facts, plan, election.from, edges) - Money::CENT;
        inside = limit::lesser(edges, inside, below);
        if let (None, Some(margin)) = (plan.spouse_with, more(election.to, edges)) {
            inside = limit::lesser(edges, inside, margin);
        }
    }
    inside
}

/// By how much a partner's net income before child care is the lower one; of equals the first's is.
fn lower_before_care(facts: &Facts, plan: &Plan, lower: usize, edges: &mut Edges) -> Money {
    let before = |person: usize, edges: &mut Edges| {
        income::net_before_care(On { facts, plan, person, scope: Scope::Person(person) }, edges)
    };
    let other = facts.partner(lower).unwrap_or(lower);
    let first = facts.filers[0] == lower;
    before(other, edges) - before(lower, edges) - if first { Money::ZERO } else { Money::CENT }
}

fn net(facts: &Facts, plan: &Plan, person: usize, edges: &mut Edges) -> Money {
    income::net(On { facts, plan, person, scope: Scope::Person(person) }, edges)
}

/// Whose deduction leads out of a world: it lowers the income that is to be the higher one.
pub fn leads_out_of_world(facts: &Facts, world: World, plan: &Plan) -> Option<usize> {
    let of_care = world.care_by.and_then(|lower| facts.partner(lower));
    world.children_with.or(of_care).or(plan.dividends.map(|election| election.to))
}

/// By how much the tax of a couple jumps at the most where child care moves to the other partner.
pub fn jump_of_care(facts: &Facts) -> Money {
    if care_may_change(facts) { cents(child_care::most_claimed(facts), STEEPEST) } else { Money::ZERO }
}

/// By how much the tax of a couple jumps at the most where the province counts the children with the other partner.
pub fn jump_of_children(facts: &Facts) -> Money {
    if children_may_change(facts) { province::jump_of_children(facts) } else { Money::ZERO }
}

/// Whether partners may change places in net income, and the province count the children with the other.
fn children_may_change(facts: &Facts) -> bool {
    let counted = !province::jump_of_children(facts).is_zero();
    let Some(pair) = facts.pair().filter(|_| counted) else { return false };
    let [one, other] = pair.map(|person| net_income::widest(facts, person));
    one.0 <= other.1 && other.0 <= one.1
}
