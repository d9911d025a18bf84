//! The lowest over the amounts that one combination of options leaves open.
//!
//! Where one more of some amounts may cost, they are looked for in *worlds*. A world is the law with what makes such an
//! amount cost taken away: nothing lawful is below it there, and as all of those amounts is best in it they need not be
//! explored. Its space over the other amounts is cut where it bends ([`Explorer`]), and at every corner the law itself is
//! reckoned too. Only a piece on which the world is below the lowest that the law was found to give is explored once more,
//! by the law and with all amounts.

use super::{
    Edges, Ranked, Stop, UNLAWFUL, View, Weighable,
    crossing::crossing,
    kinks::{At, Explorer, Piece},
    steepness::Steepness,
    walk::Held,
};
use crate::{
    decision::{More, Taken, Way},
    trail::Trail,
};
use hembo_money::{Money, Rate};
use std::{cell::Cell, rc::Rc};

/// To reckon one point is so much work; all else is counted by it.
const A_POINT: u64 = 640;

/// To ask whether a way is inside a world reckons net incomes only.
const TO_BE_INSIDE: u64 = A_POINT / 4;

/// What it is to look at a cell: its corners are compared, and where it is cut each with each.
fn of_a_cell(corners: usize) -> u64 {
    (corners * (corners + 16)) as u64
}

/// A world lower than the law by no more than this is no reason to look: the cents that rounded lines add up to.
const ROUNDING: Money = Money::from_cents(5);

/// The amounts that are open and not held, each with its decision and its most.
pub(super) struct Amounts {
    explored: Vec<(usize, Money)>,
    following: Vec<(usize, Money)>,
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
        Amounts { explored: with(More::MayCost), following: with(More::NeverCostsInWorlds) }
    }

    pub(super) fn is_empty(&self) -> bool {
        self.explored.is_empty() && self.following.is_empty()
    }

    /// All of them.
    pub(super) fn all(&self) -> impl Iterator<Item = (usize, Money)> + '_ {
        self.explored.iter().chain(&self.following).copied()
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
    /// How much work it was so far.
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
        self.work.get().div_ceil(A_POINT)
    }

    /// Whether all was looked at within the budget.
    pub(super) fn complete(&self) -> bool {
        self.work() < self.budget
    }

    /// Asked before every cell of so many corners: whether the budget is used up, or the search was stopped.
    fn enough(&self) -> impl FnMut(usize) -> bool + use<> {
        let (work, stop) = (Rc::clone(&self.work), self.stop.clone());
        let budget = self.budget.saturating_mul(A_POINT);
        move |corners| {
            work.set(work.get() + of_a_cell(corners));
            work.get() >= budget || stop.is_stopped()
        }
    }

    fn worked(&self, work: u64) {
        self.work.set(self.work.get() + work);
    }

    /// Looks.
    pub(super) fn look(&mut self) {
        if self.amounts.following.is_empty() {
            self.look_by_the_law(None);
            return;
        }
        let mut below: Vec<Piece> = Vec::new();
        for world in 0..self.case.worlds() {
            below.extend(self.look_in_world(world));
        }
        below.sort_by_key(|piece| piece.least);
        for piece in below {
            if piece.least + ROUNDING < self.lowest() {
                self.look_by_the_law(Some(&piece));
            }
        }
    }

    /// Looks in one world; the pieces on which it is below the lowest that the law was found to give.
    fn look_in_world(&mut self, world: usize) -> Vec<Piece> {
        let most = most_of(&self.amounts.explored);
        let view = View::of(&self.way);
        let leads_out = |(d, _): &(usize, Money)| self.case.leads_out_of_world(world, &view, *d);
        let out: Vec<_> = self.amounts.following.iter().copied().filter(leads_out).rev().collect();
        let mut steepness = self.steepness(&self.amounts.explored);
        steepness.jump = self.case.jump_in_worlds();
        // What is taken of them follows what moves the way inside, at most by two and a half units with one.
        let followers = self.steepness(&out).steepest;
        let follower = followers.iter().map(|rate| rate.billionths()).max().unwrap_or_default();
        for (rate, &(decision, _)) in steepness.steepest.iter_mut().zip(&self.amounts.explored) {
            if self.case.moves_inside(decision) {
                *rate = Rate::from_billionths(rate.billionths() + follower * 5 / 2);
            }
        }
        let lowest = self.lowest();
        let enough = self.enough();
        let explorer =
            Explorer::new(|at: &[Money], edges: &mut Edges| self.at_in_world(world, &out, at, edges), lowest);
        explorer.explore(&most, Some(&steepness), enough)
    }

    /// A point of the explored amounts in a world: with all of the following ones, but of those which lead `out` only as
    /// much as stays inside; the first of them gives way first.
    fn at_in_world(&mut self, world: usize, out: &[(usize, Money)], at: &[Money], edges: &mut Edges) -> At {
        place(&mut self.way, &self.amounts.explored, at);
        place(&mut self.way, &self.amounts.following, &most_of(&self.amounts.following));
        let mut margins = vec![self.inside(world, edges)];
        for &(decision, _) in out {
            // Each is told on either side, so that neighbours tell the same edges.
            edges.edge(margins[margins.len() - 1], true);
            self.way.0[decision] = Some(Taken::Amount(Money::ZERO));
            margins.push(self.inside(world, edges));
        }
        if let Some(none_of) = margins.iter().position(|margin| !margin.is_negative()) {
            place(&mut self.way, &out[none_of..], &most_of(&out[none_of..]));
            if let Some(last) = none_of.checked_sub(1) {
                self.stay_inside(world, out[last], [margins[none_of], margins[last]]);
            }
        }
        let inside = margins[margins.len() - 1];
        edges.step(inside, true);
        let total = self.case.total_in_world(world, &View::of(&self.way), edges);
        self.worked(A_POINT);
        if inside.is_negative() {
            edges.outside();
        }
        At { total, lawful: if total <= self.lowest() { self.total() } else { UNLAWFUL } }
    }

    fn inside(&self, world: usize, edges: &mut Edges) -> Money {
        self.worked(TO_BE_INSIDE);
        self.case.inside_world(world, &View::of(&self.way), edges)
    }

    /// Takes as much of an amount as stays inside a world, to the cent: with none of it the way is inside, with all of it
    /// outside, by so much.
    fn stay_inside(&mut self, world: usize, (decision, most): (usize, Money), by: [Money; 2]) {
        let [inside, outside] = by.map(|margin| margin.cents());
        let (within, _) = crossing((0, inside), (most.cents(), outside), |cents| {
            self.way.0[decision] = Some(Taken::Amount(Money::from_cents(cents)));
            self.inside(world, &mut Edges::default()).cents()
        });
        self.way.0[decision] = Some(Taken::Amount(Money::from_cents(within)));
    }

    /// Looks over all amounts by the law itself: everywhere, or where the explored ones are in a piece.
    fn look_by_the_law(&mut self, piece: Option<&Piece>) {
        let amounts: Vec<(usize, Money)> = self.amounts.all().collect();
        let (explored, following) = (most_of(&self.amounts.explored), most_of(&self.amounts.following));
        let (steepness, lowest, enough) = (self.steepness(&amounts), self.lowest(), self.enough());
        let explorer = Explorer::new(
            |at: &[Money], edges: &mut Edges| {
                place(&mut self.way, &amounts, at);
                self.reckon(edges)
            },
            lowest,
        );
        match piece {
            None => explorer.explore(&explored, Some(&steepness), enough),
            Some(piece) => explorer.explore_prism(piece, &following, Some(&steepness), enough),
        };
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
    fn reckon(&mut self, edges: &mut Edges) -> At {
        let view = View::of(&self.way);
        let total = (0..self.case.parts()).map(|part| self.case.total_with_edges(part, &view, edges)).sum();
        self.keep(total);
        At { total, lawful: total }
    }

    /// The same without its edges.
    fn total(&mut self) -> Money {
        let view = View::of(&self.way);
        let total = (0..self.case.parts()).map(|part| self.case.total(part, &view)).sum();
        self.keep(total);
        total
    }

    /// Keeps the way as it stands if it is the lowest lawful one so far.
    fn keep(&mut self, total: Money) {
        self.worked(A_POINT);
        self.lawful += u64::from(total < UNLAWFUL);
        let lower = |best: &Ranked| (total, &self.way) < (best.total, &best.way);
        if total < UNLAWFUL && self.best.as_ref().is_none_or(lower) {
            self.best = Some(Ranked { total, way: self.way.clone() });
        }
    }
}

fn most_of(amounts: &[(usize, Money)]) -> Vec<Money> {
    amounts.iter().map(|(_, most)| *most).collect()
}

fn place(way: &mut Way, amounts: &[(usize, Money)], at: &[Money]) {
    for (&(decision, _), &amount) in amounts.iter().zip(at) {
        way.0[decision] = Some(Taken::Amount(amount));
    }
}
