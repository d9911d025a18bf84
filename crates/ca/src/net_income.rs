//! Within what a person's net income can lie, whatever a household decides.

use crate::{
    child_care,
    dividends::{self},
    facts::Facts,
    income, pension_split,
    plan::{Election, On, Plan, Split, World},
    volunteers,
};
use hembo_core::{Scope, Silent};
use hembo_money::Money;

/// The least and the most net income that any way gives a person, whoever reports dividends.
pub fn widest(facts: &Facts, person: usize) -> (Money, Money) {
    of_all_elections(|election| range(facts, person, election), facts)
}

/// The least net income that any way gives a person's family at the end of the year; after a death that is one's own.
pub fn least_of_family(facts: &Facts, person: usize) -> Money {
    let partner = facts.partner_at_end(person).map(|partner| widest(facts, partner).0);
    widest(facts, person).0 + partner.unwrap_or_default()
}

/// The least and the most net income before child care and the repayment of benefits.
pub fn widest_before_care(facts: &Facts, person: usize) -> (Money, Money) {
    of_all_elections(
        |election| range_of(facts, person, election, |on| income::net_before_care(on, &mut Silent)),
        facts,
    )
}

/// The most that any way gives a person of something that rises with net income.
pub fn most_of(facts: &Facts, person: usize, what: impl Fn(On<'_>) -> Money) -> Money {
    of_all_elections(|election| range_of(facts, person, election, &what), facts).1
}

fn of_all_elections(range: impl Fn(Option<Election>) -> (Money, Money), facts: &Facts) -> (Money, Money) {
    let ranges: Vec<_> = (0..3).map(|option| range(dividends::election(facts, option))).collect();
    let least = ranges.iter().map(|r| r.0).min().unwrap_or_default();
    (least, ranges.iter().map(|r| r.1).max().unwrap_or_default())
}

/// The least and the most net income that any way with an election of dividends gives a person.
pub fn range(facts: &Facts, person: usize, dividends: Option<Election>) -> (Money, Money) {
    range_of(facts, person, dividends, |on| income::net(on, &mut Silent))
}

fn range_of(
    facts: &Facts,
    person: usize,
    dividends: Option<Election>,
    net: impl Fn(On<'_>) -> Money,
) -> (Money, Money) {
    let net = |split: Option<Split>, deducted: Money, care_by: Option<usize>, most: bool| {
        let former = most && facts.former.is_some();
        let volunteers_exempt = if most { Vec::new() } else { volunteers::all_exempt(facts) };
        let contributions = vec![Some(deducted); facts.people.len()];
        let capital_cost = vec![Some(deducted); facts.businesses.len()];
        let world = care_by.map(|by| World { children_with: None, care_by: Some(by) });
        let plan = Plan {
            split,
            contributions,
            capital_cost,
            dividends,
            world,
            former,
            volunteers_exempt,
            ..Plan::default()
        };
        net(On { facts, plan: &plan, person, scope: Scope::Person(person) })
    };
    let split = |from: usize, to: usize| Split { from, to, amount: pension_split::most(facts, from) };
    // A split with a return that is not here stands.
    let partner = facts.partner(person);
    let here = partner.filter(|&partner| facts.files(partner));
    let least = net(here.map(|p| split(person, p)), Money::LARGEST, partner.map(|_| person), false);
    (least, net(here.map(|p| split(p, person)), Money::ZERO, partner, true))
}

/// Whether the partners may change places in net income before child care, which moves to the other.
pub fn care_may_change(facts: &Facts) -> bool {
    let Some(pair) = facts.pair().filter(|_| child_care::any(facts)) else { return false };
    let [one, other] = pair.map(|person| widest_before_care(facts, person));
    one.0 <= other.1 && other.0 <= one.1 && !facts.care_by_agreement
}

/// Whether nothing moves the net incomes of a couple before child care, and they are the same.
pub fn same_before_care(facts: &Facts) -> bool {
    let Some(pair) = facts.pair().filter(|_| child_care::any(facts)) else { return false };
    let [one, other] = pair.map(|person| widest_before_care(facts, person));
    one == other && one.0 == one.1
}
