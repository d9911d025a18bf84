//! How much of retirement contributions is deducted now, and how much kept for a later year (ITA 146(5), (5.1)).

use crate::{
    contributions, dividend_election,
    facts::Facts,
    medical_division, net_income, ontario, pension_split,
    points::Points,
    rounding::{STEEPEST, cents},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision},
    point::{Gather, Place},
    reading::sum,
};
use hembo_money::Money;

/// How many amounts are looked for together. With more, contributions are deducted as far as that helps, and a point
/// says so where a smaller deduction might do better.
const SEARCHED_TOGETHER: usize = 3;

/// Contributions that a person deducts now, by the person's place.
pub static NOW: Open<Facts> = Open::new(
    |facts| facts.returns.iter().copied().filter(|&p| !contributions::most(facts, p).is_zero()).collect(),
    |facts, person| {
        let first = facts.first_name(person);
        let amount = Amount {
            most: contributions::most(facts, person),
            short: format!("deduction of {first}"),
            never_costs: !may_cost(facts) || amounts_together(facts) > SEARCHED_TOGETHER,
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
    let part = facts.figures.gifts.part;
    let limits_gifts = |&f: &usize| cents(net_income::widest(facts, f).0, part) < sum(&facts.gifts);
    facts.filers.iter().any(limits_gifts)
        || ontario_children_may_change(facts)
        || dividend_election::possible(facts)
}

/// Whether partners may change places in net income, and Ontario count the children with the other.
pub fn ontario_children_may_change(facts: &Facts) -> bool {
    if !facts.couple || ontario::children(facts) == 0 {
        return false;
    }
    let [one, other] = [0, 1].map(|place| net_income::widest(facts, facts.filers[place]));
    one.0 <= other.1 && other.0 <= one.1
}

/// How many amounts would be looked for together: the split, the first partner's gifts, each deduction.
fn amounts_together(facts: &Facts) -> usize {
    let deducting = facts.returns.iter().filter(|&&p| !contributions::most(facts, p).is_zero()).count();
    let split = facts.filers.iter().any(|&f| !pension_split::most(facts, f).is_zero());
    let medical =
        facts.couple && !facts.windows.is_empty() && medical_division::both_may_be_supplemented(facts);
    deducting
        + usize::from(medical)
        + usize::from(facts.couple && split)
        + usize::from(facts.couple && !facts.gifts.is_empty())
}

/// Contributions are deducted as far as that helps, where there are too many amounts to look for them together.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    let deducts = facts.people.iter().any(|p| !p.own.rrsp_limit.is_empty());
    if deducts && may_cost(facts) && amounts_together(facts) > SEARCHED_TOGETHER {
        let message = "A smaller deduction of contributions might do better here: not every one is weighed.";
        let remedy = "Hold smaller amounts on Ways: gifts come to their limit, or the children change sides.";
        points.look("deduct-less", Place::default(), message, remedy);
    }
}
