//! The lowest over the amounts that one combination of options leaves open.
//!
//! Most amounts are *explored*: their space is cut where the law bends ([`Explorer`]). An amount that costs only past a
//! guard is not: where no guard is passed between none and all of it, all of it is taken. At a point where one is, such
//! amounts are looked for there, so that every corner has its lowest total; and a piece on which that may
//! come out differently from point to point is explored once more, together with them.

use super::{
    Edges, Ranked, Stop, UNLAWFUL, View, Weighable,
    kinks::{Coupled, Explored, Explorer, Steepness},
    walk::Held,
};
use crate::{
    decision::{More, Taken, Way},
    trail::Trail,
};
use hembo_money::{Money, Rate};
use std::{cell::Cell, rc::Rc};

/// To look at so many simplices is as much work as to reckon one point.
const SIMPLICES_A_POINT: u64 = 8;

/// The amounts that are open and not held, each with its decision and its most.
pub(super) struct Amounts {
    explored: Vec<(usize, Money)>,
    guarded: Vec<(usize, Money)>,
}

impl Amounts {
    /// Those of a way whose amounts stand at their most.
    pub(super) fn of(case: &dyn Weighable, way: &Way, held: &Held) -> Amounts {
        let with = |wanted: More| {
            let open = case.decisions().iter().enumerate().filter(|(d, about)| {
                !held.contains_key(d) && about.amount.as_ref().is_some_and(|a| a.more == wanted)
            });
            open.filter_map(|(d, _)| Some((d, way.amount(d)?))).collect()
        };
        Amounts { explored: with(More::MayCost), guarded: with(More::CostsPastGuards) }
    }

    pub(super) fn is_empty(&self) -> bool {
        self.explored.is_empty() && self.guarded.is_empty()
    }

    /// All of them.
    pub(super) fn all(&self) -> impl Iterator<Item = (usize, Money)> + '_ {
        self.explored.iter().chain(&self.guarded).copied()
    }
}

/// The look for the lowest over some amounts.
pub(super) struct Looking<'a> {
    case: &'a dyn Weighable,
    amounts: &'a Amounts,
    stop: &'a Stop,
    budget: u64,
    /// The way, whose amounts are moved about.
    pub(super) way: Way,
    /// How much work it was so far, in points that were reckoned.
    work: Rc<Cell<u64>>,
    /// How many of them are lawful.
    pub(super) lawful: u64,
    /// The lowest lawful way.
    pub(super) best: Option<Ranked>,
}

impl<'a> Looking<'a> {
    /// Over the amounts of a way in which they stand at their most, reckoning so many points.
    pub(super) fn new(
        case: &'a dyn Weighable,
        amounts: &'a Amounts,
        way: Way,
        stop: &'a Stop,
        budget: u64,
    ) -> Looking<'a> {
        Looking { case, amounts, stop, budget, way, work: Rc::default(), lawful: 0, best: None }
    }

    /// How much work it was, in points that were reckoned.
    pub(super) fn work(&self) -> u64 {
        self.work.get()
    }

    /// Whether all was looked at within the budget.
    pub(super) fn complete(&self) -> bool {
        self.work.get() < self.budget
    }

    /// Asked before every simplex: whether the budget is used up, or the search was stopped.
    fn enough(&self) -> impl FnMut() -> bool + use<> {
        let (work, budget, stop) = (Rc::clone(&self.work), self.budget, self.stop.clone());
        let mut simplices = 0;
        move || {
            simplices += 1;
            if simplices % SIMPLICES_A_POINT == 0 {
                work.set(work.get() + 1);
            }
            work.get() >= budget || stop.is_stopped()
        }
    }

    /// Looks.
    pub(super) fn look(&mut self) {
        match self.case.worlds() {
            0 | 1 => self.look_everywhere(),
            worlds => (0..worlds).for_each(|world| self.look_in_world(world)),
        }
    }

    /// Looks in one world, where amounts with guards never cost but lead out of it.
    fn look_in_world(&mut self, world: usize) {
        let most: Vec<Money> = self.amounts.explored.iter().map(|(_, most)| *most).collect();
        let out = self.amounts.guarded.iter().copied().find(|(d, _)| self.case.leads_out_of_world(world, *d));
        let mut steepness = self.steepness(&self.amounts.explored);
        steepness.jump = Money::ZERO;
        if out.is_some() {
            // What is taken of it follows the others, at most by two units with one of theirs.
            steepness.steepest.iter_mut().for_each(|rate| *rate = *rate * 3);
        }
        let lowest = self.lowest();
        let enough = self.enough();
        let explorer =
            Explorer::new(|at: &[Money], edges: &mut Edges| self.at_in_world(world, out, at, edges), lowest);
        explorer.explore(&most, Some(&steepness), enough);
    }

    /// The total in a world at a point of the explored amounts: with all of the guarded ones, but of that which leads out
    /// only as much as stays inside.
    fn at_in_world(
        &mut self,
        world: usize,
        out: Option<(usize, Money)>,
        at: &[Money],
        edges: &mut Edges,
    ) -> Money {
        place(&mut self.way, &self.amounts.explored, at);
        let all: Vec<Money> = self.amounts.guarded.iter().map(|(_, most)| *most).collect();
        place(&mut self.way, &self.amounts.guarded, &all);
        let with_all = self.inside(world, edges);
        let inside = match out {
            None => with_all,
            Some((decision, most)) => {
                // Both are told on either side, so that neighbours tell the same edges.
                edges.edge(with_all, true);
                self.way.0[decision] = Some(Taken::Amount(Money::ZERO));
                let with_none = self.inside(world, edges);
                if !with_all.is_negative() {
                    self.way.0[decision] = Some(Taken::Amount(most));
                } else if !with_none.is_negative() {
                    self.stay_inside(world, decision, most);
                }
                with_none
            }
        };
        edges.step(inside, true);
        let total = self.case.total_in_world(world, &View::of(&self.way), edges);
        self.work.set(self.work.get() + 1);
        if inside.is_negative() {
            edges.nowhere_lawful();
        } else {
            self.keep(total);
        }
        total
    }

    fn inside(&self, world: usize, edges: &mut Edges) -> Money {
        self.case.inside_world(world, &View::of(&self.way), edges)
    }

    /// Takes as much of an amount as stays inside a world, to the cent; none of it does, all of it does not.
    fn stay_inside(&mut self, world: usize, decision: usize, most: Money) {
        let (mut inside, mut outside) = (0, most.cents());
        let mut next = outside / 2;
        while outside - inside > 1 {
            self.way.0[decision] = Some(Taken::Amount(Money::from_cents(next)));
            let margin = self.inside(world, &mut Edges::default()).cents();
            if margin < 0 {
                outside = next;
            } else {
                inside = next;
            }
            // Where a unit of it moves the margin by one, this is the end at once; else halves close in.
            let straight = next + margin;
            next = match straight {
                _ if straight > inside && straight < outside && straight != next => straight,
                _ if margin >= 0 && inside + 1 < outside && straight == next => inside + 1,
                _ => inside + (outside - inside) / 2,
            };
        }
        self.way.0[decision] = Some(Taken::Amount(Money::from_cents(inside)));
    }

    /// Looks over all amounts, the guarded ones where a guard is near.
    fn look_everywhere(&mut self) {
        let most: Vec<Money> = self.amounts.explored.iter().map(|(_, most)| *most).collect();
        let steepness = self.steepness(&self.amounts.explored);
        let enough = self.enough();
        let explorer =
            Explorer::new(|at: &[Money], edges: &mut Edges| self.at_explored(at, edges), Money::LARGEST);
        let Explored { coupled, .. } = explorer.explore(&most, Some(&steepness), enough);
        let mut coupled = coupled;
        coupled.sort_by_key(|simplex| simplex.least);
        for simplex in coupled {
            if self.lowest() > simplex.least {
                self.look_at_coupled(&simplex);
            }
        }
    }

    /// The total at a point of the explored amounts, with the guarded ones chosen best there.
    fn at_explored(&mut self, at: &[Money], edges: &mut Edges) -> Money {
        let (explored, guarded) = (&self.amounts.explored, &self.amounts.guarded);
        place(&mut self.way, explored, at);
        let all: Vec<Money> = guarded.iter().map(|(_, most)| *most).collect();
        place(&mut self.way, guarded, &all);
        let total = self.reckon(edges);
        if guarded.is_empty() || !self.may_cost(edges) {
            return total;
        }
        edges.couple();
        let found = self.explore_guarded(total);
        place(&mut self.way, guarded, &all);
        found
    }

    /// Whether more of the guarded amounts may cost somewhere between none and all of them; tells the guards of every corner.
    fn may_cost(&mut self, edges: &mut Edges) -> bool {
        let guarded = &self.amounts.guarded;
        let mut corners: Vec<Edges> = Vec::new();
        for corner in 0..1_u32 << guarded.len() {
            let at: Vec<Money> = guarded
                .iter()
                .enumerate()
                .map(|(axis, (_, most))| if corner >> axis & 1 == 1 { *most } else { Money::ZERO })
                .collect();
            place(&mut self.way, guarded, &at);
            let mut told = Edges::default();
            self.case.guards(&View::of(&self.way), &mut told);
            corners.push(told);
        }
        let may_cost = Edges::may_cost(&corners);
        corners.into_iter().for_each(|told| edges.extend(told));
        may_cost
    }

    /// The lowest over the guarded amounts at a point of the others; `total` is that with all of them.
    fn explore_guarded(&mut self, total: Money) -> Money {
        let guarded = &self.amounts.guarded;
        let most: Vec<Money> = guarded.iter().map(|(_, most)| *most).collect();
        let steepness = self.steepness(guarded);
        let enough = self.enough();
        let explorer = Explorer::new(
            |at: &[Money], edges: &mut Edges| {
                place(&mut self.way, guarded, at);
                self.reckon(edges)
            },
            Money::LARGEST,
        );
        let explored = explorer.explore(&most, Some(&steepness), enough);
        explored.corners.into_iter().map(|(_, total)| total).min().unwrap_or(total)
    }

    /// Explores a piece on which guarded amounts may be chosen in more than one way, together with them.
    fn look_at_coupled(&mut self, simplex: &Coupled) {
        let both: Vec<(usize, Money)> = self.amounts.all().collect();
        let most: Vec<Money> = self.amounts.guarded.iter().map(|(_, most)| *most).collect();
        let steepness = self.steepness(&both);
        let lowest = self.lowest();
        let enough = self.enough();
        let explorer = Explorer::new(
            |at: &[Money], edges: &mut Edges| {
                place(&mut self.way, &both, at);
                self.reckon(edges)
            },
            lowest,
        );
        explorer.explore_prism(simplex, &most, Some(&steepness), enough);
    }

    fn lowest(&self) -> Money {
        self.best.as_ref().map_or(Money::LARGEST, |best| best.total)
    }

    fn steepness(&self, amounts: &[(usize, Money)]) -> Steepness {
        let steepest = |(d, _): &(usize, Money)| {
            self.case.decisions()[*d].amount.as_ref().map_or(Rate::ZERO, |amount| amount.steepest)
        };
        Steepness { steepest: amounts.iter().map(steepest).collect(), jump: self.case.jump() }
    }

    /// The household's total where the amounts stand, kept if it is the lowest so far.
    fn reckon(&mut self, edges: &mut Edges) -> Money {
        let view = View::of(&self.way);
        let total = (0..self.case.parts()).map(|part| self.case.total_with_edges(part, &view, edges)).sum();
        self.work.set(self.work.get() + 1);
        self.keep(total);
        total
    }

    /// Keeps the way as it stands if it is the lowest lawful one so far.
    fn keep(&mut self, total: Money) {
        self.lawful += u64::from(total < UNLAWFUL);
        let lower = |best: &Ranked| (total, &self.way) < (best.total, &best.way);
        if total < UNLAWFUL && self.best.as_ref().is_none_or(lower) {
            self.best = Some(Ranked { total, way: self.way.clone() });
        }
    }
}

fn place(way: &mut Way, amounts: &[(usize, Money)], at: &[Money]) {
    for (&(decision, _), &amount) in amounts.iter().zip(at) {
        way.0[decision] = Some(Taken::Amount(amount));
    }
}
