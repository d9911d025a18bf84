//! How much of the capital cost of each business is claimed (ITA 20(1)(a)).

use crate::{
    business, child_care, cpp_ei, deducting, disability_supports, facts::Facts, medical, net_income,
    workers_benefit,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    settled,
};
use hembo_money::{Money, Rate};

/// By how much a dollar of capital cost moves a household's tax at the very most: beside what net income moves ([`STEEPEST`](crate::rounding::STEEPEST)) it moves
/// contributions to the pension plan, the workers benefit as it grows, and the part of earned income that child care may take.
const STEEPEST_OF_EARNINGS: Rate = Rate::percent(300);

/// How much of the capital cost of a business is claimed, by the place of the business.
pub static NOW: Open<Facts> = Open::new(
    |facts| {
        let open = |place: &usize| !facts.businesses[*place].capital_cost.amount.is_zero();
        (0..facts.businesses.len()).filter(open).collect()
    },
    |facts, place| {
        let business = &facts.businesses[place];
        let (first, id) = (facts.first_name(business.owner), &facts.people[business.owner].id);
        let number = business::number(facts, place);
        let which = if number > 1 { format!(" {number}") } else { String::new() };
        let amount = Amount {
            most: business.capital_cost.amount,
            short: format!("capital cost of {first}{which}"),
            more: more(facts, business.owner),
            steepest: STEEPEST_OF_EARNINGS,
        };
        let label = format!("Capital cost of business{which} that {first} claims");
        let number = if number > 1 { format!("{number}.") } else { String::new() };
        Decision::amount(
            format!("ca.t2125.cca.{number}{id}"),
            label,
            "ITA 20(1)(a); Regulations 1100(1)",
            amount,
        )
    },
);

/// What of each business's capital cost a way claims; all where nothing is said.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.businesses.len()).map(|place| way.amount(&NOW, place)).collect()
}

/// More of it lowers net income as a deduction does, and contributions to the pension plan with it. Beyond that it costs where what was
/// earned counts by itself.
fn more(facts: &Facts, owner: usize) -> More {
    if earnings_may_count(facts, owner) { More::MayCost } else { deducting::more(facts, owner) }
}

/// Whether more of what a business brings may lower the tax in some way: contributions that employment overpaid count for it, child care
/// takes a part of earnings, disability supports are limited by them, the medical supplement and the workers benefit ask for them.
fn earnings_may_count(facts: &Facts, owner: usize) -> bool {
    cpp_ei::overpaid_alone(facts, owner)
        || child_care::any(facts)
        || facts.people[owner].own.has(&disability_supports::brings::PAID)
        || !medical::jump_of(facts, owner).is_zero()
        || workers_benefit::counts_until(facts, owner).is_some_and(|end| least_of_family(facts, owner) < end)
}

/// The least that any way leaves of the net income of a person and the partner.
fn least_of_family(facts: &Facts, person: usize) -> Money {
    let partner = facts.partner_at_end(person).filter(|&partner| facts.files(partner));
    let least = |p: usize| settled::or_zero(net_income::widest(facts, p).0);
    least(person) + partner.map_or(Money::ZERO, least)
}
