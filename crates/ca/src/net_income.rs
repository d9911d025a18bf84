//! Within what a person's net income can lie, whatever a household decides.

use crate::{
    dividends::{self},
    facts::Facts,
    income, pension_split,
    plan::{Election, On, Plan, Split},
};
use hembo_core::{Scope, Silent};
use hembo_money::Money;

/// The least and the most net income that any way gives a person, whoever reports dividends.
pub fn widest(facts: &Facts, person: usize) -> (Money, Money) {
    let elected = (0..3).map(|option| dividends::election(facts, option));
    let ranges: Vec<_> = elected.map(|election| range(facts, person, election)).collect();
    let least = ranges.iter().map(|r| r.0).min().unwrap_or_default();
    (least, ranges.iter().map(|r| r.1).max().unwrap_or_default())
}

/// The least and the most net income that any way with an election of dividends gives a person.
pub fn range(facts: &Facts, person: usize, dividends: Option<Election>) -> (Money, Money) {
    let net = |split: Option<Split>, deducted: Money| {
        let contributions = vec![Some(deducted); facts.people.len()];
        let plan = Plan { split, contributions, dividends, ..Plan::default() };
        let on = On { facts, plan: &plan, person, scope: Scope::Person(person) };
        income::reckon(on, &mut Silent).net
    };
    let split = |from: usize, to: usize| Split { from, to, amount: pension_split::most(facts, from) };
    let partner = facts.partner(person);
    let least = net(partner.map(|p| split(person, p)), Money::LARGEST);
    (least, net(partner.map(|p| split(p, person)), Money::ZERO))
}
