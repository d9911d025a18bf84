//! Amounts that never cost in a world without a limit, or without a jump: against every whole unit.

use hembo_core::{
    Decision, Silent, Trail,
    decision::{Amount, More},
    limit,
    search::{Edges, Law, Stop, View, Weighable, search_with_ends},
};
use hembo_money::{Money, Rate};
use proptest::prelude::*;
use std::collections::BTreeMap;

const MOST: i64 = 30;

fn amount(id: &str, more: More) -> Decision {
    let amount =
        Amount { most: Money::whole(MOST), short: String::new(), more, steepest: Rate::percent(2_000) };
    Decision::amount(id, id, "Act §9", amount)
}

/// Two partners on an island. The first gives `moved` of the first income to the second, and each may put a part of their
/// own aside, which always saves a half of it, unless it lets the gift of the first, worth twice itself, be cut: no more
/// may be given than what is left of the income.
struct Givers {
    decisions: Vec<Decision>,
    incomes: [i64; 2],
    gift: i64,
    free_to: i64,
}

impl Givers {
    fn of(incomes: [i64; 2], gift: i64, free_to: i64) -> Givers {
        let decisions = vec![amount("moved", More::MayCost), amount("aside", More::NeverCostsInWorlds)];
        Givers { decisions, incomes, gift, free_to }
    }

    fn left(&self, view: &View<'_>, trail: &mut impl Trail) -> (Money, Money) {
        let (moved, aside) = (view.amount(0).unwrap(), view.amount(1).unwrap());
        let first = limit::or_zero(trail, Money::whole(self.incomes[0]) - moved - aside);
        (first, Money::whole(self.incomes[1]) + moved)
    }

    fn reckon(&self, view: &View<'_>, limited: bool, trail: &mut impl Trail) -> Money {
        let (first, second) = self.left(view, trail);
        let gift = Money::whole(self.gift);
        let given = if limited { limit::lesser(trail, gift, first) } else { gift };
        let taxed = |income: Money, trail: &mut _| limit::or_zero(trail, income - Money::whole(self.free_to));
        let (one, other) = (taxed(first, trail), taxed(second, trail));
        first + one * 2 + other * 3 - given * 4
    }
}

impl Weighable for Givers {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }
    fn law(&self, _: usize, _: &View<'_>) -> Law {
        Law::Open(Vec::new())
    }
    fn most(&self, _: usize, _: &View<'_>) -> Money {
        Money::whole(MOST)
    }
    fn parts(&self) -> usize {
        1
    }
    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.reckon(view, true, &mut Silent)
    }
    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.reckon(view, true, edges)
    }
    fn total_in_world(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.reckon(view, false, edges)
    }
}

/// The same two; whoever has more counts the children, which is worth `bonus` up to the own tax; putting aside never
/// costs as long as that does not change.
struct Parents {
    decisions: Vec<Decision>,
    incomes: [i64; 2],
    bonus: i64,
}

impl Parents {
    fn of(incomes: [i64; 2], bonus: i64) -> Parents {
        let decisions = vec![
            amount("moved", More::MayCost),
            amount("aside.0", More::NeverCostsInWorlds),
            amount("aside.1", More::NeverCostsInWorlds),
        ];
        Parents { decisions, incomes, bonus }
    }

    fn nets(&self, view: &View<'_>, trail: &mut impl Trail) -> [Money; 2] {
        let at = |decision: usize| view.amount(decision).unwrap();
        let [first, second] = self.incomes.map(Money::whole);
        [limit::or_zero(trail, first - at(0) - at(1)), limit::or_zero(trail, second + at(0) - at(2))]
    }

    fn with(&self, nets: [Money; 2], counts: usize, trail: &mut impl Trail) -> Money {
        let taxes = [nets[0] * 2, limit::or_zero(trail, nets[1] - Money::whole(20)) * 5];
        let bonus = limit::lesser(trail, taxes[counts], Money::whole(self.bonus));
        taxes[0] + taxes[1] - bonus
    }
}

impl Weighable for Parents {
    fn decisions(&self) -> &[Decision] {
        &self.decisions
    }
    fn law(&self, _: usize, _: &View<'_>) -> Law {
        Law::Open(Vec::new())
    }
    fn most(&self, _: usize, _: &View<'_>) -> Money {
        Money::whole(MOST)
    }
    fn parts(&self) -> usize {
        1
    }
    fn jump(&self) -> Money {
        Money::whole(self.bonus)
    }
    fn total(&self, _: usize, view: &View<'_>) -> Money {
        let nets = self.nets(view, &mut Silent);
        self.with(nets, usize::from(nets[1] > nets[0]), &mut Silent)
    }
    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let nets = self.nets(view, edges);
        edges.step(nets[0] - nets[1], true);
        self.with(nets, usize::from(nets[1] > nets[0]), edges)
    }
    fn worlds(&self) -> usize {
        2
    }
    fn total_in_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let nets = self.nets(view, edges);
        self.with(nets, world, edges)
    }
    fn inside_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let [first, second] = self.nets(view, edges);
        if world == 0 { first - second } else { second - first - Money::CENT }
    }
    fn leads_out_of_world(&self, world: usize, _: &View<'_>, decision: usize) -> bool {
        decision == world + 1
    }
}

/// The lowest total over every whole unit of every amount, some of them held.
fn by_units(case: &dyn Weighable, held: &BTreeMap<usize, i64>) -> Money {
    use hembo_core::{Way, decision::Taken};
    let amounts = case.decisions().len();
    let mut lowest = Money::LARGEST;
    let mut at = vec![0; amounts];
    loop {
        if held.iter().all(|(d, units)| at[*d] == *units) {
            let taken = at.iter().map(|units| Some(Taken::Amount(Money::whole(*units)))).collect();
            lowest = lowest.min(case.total(0, &View::of(&Way(taken))));
        }
        let Some(next) = at.iter().position(|units| *units < MOST) else { return lowest };
        at[next] += 1;
        at[..next].fill(0);
    }
}

/// What a search finds is never above any whole unit, and by no more than what lies between two of them below.
fn holds(case: &dyn Weighable, between: i64) -> Result<(), TestCaseError> {
    let found = search_with_ends(case, &BTreeMap::new(), 24, &Stop::default()).unwrap();
    prop_assert!(found.complete);
    let (lowest, least) = (found.lowest.unwrap().total, by_units(case, &BTreeMap::new()));
    prop_assert!(lowest <= least && lowest + Money::whole(between) >= least, "{lowest} {least}");
    for (decision, ends) in found.ends.iter().enumerate() {
        for (told, units) in [(ends.none.unwrap(), 0), (ends.all.unwrap(), MOST)] {
            let least = by_units(case, &BTreeMap::from([(decision, units)]));
            prop_assert!(
                told <= least && told + Money::whole(between) >= least,
                "{decision}: {told} {least}"
            );
        }
    }
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(120))]

    #[test]
    fn an_amount_that_never_costs_in_a_world_is_chosen_as_if_it_were_explored(
        incomes in prop::array::uniform2(0_i64..70), gift in 0_i64..50, free_to in 0_i64..40,
    ) {
        // Every bend is at a whole unit: so is the lowest.
        holds(&Givers::of(incomes, gift, free_to), 0)?;
    }

    #[test]
    fn both_worlds_together_are_the_law(incomes in prop::array::uniform2(0_i64..60), bonus in 0_i64..60) {
        // Where the children change sides the lowest may stand a cent beside a whole unit, at seven a unit, or at a half.
        holds(&Parents::of(incomes, bonus), 8)?;
    }
}
