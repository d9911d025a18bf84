//! The lowest over the amounts that one combination of options leaves open.
//!
//! Most amounts are *explored*: their space is cut where the law bends ([`Explorer`]). An amount that costs only past a
//! guard is not: where no guard changes its side between none and all of it, all of it is taken. At a point where one
//! does, such amounts are looked for there, so that every corner has its lowest total; and a piece on which that may
//! come out differently from point to point is explored once more, together with them.

use super::{
    Edges, Ranked, Stop, UNLAWFUL, View, Weighable,
    kinks::{Coupled, Explored, Explorer, Steepness},
    walk::Held,
};
use crate::decision::{More, Taken, Way};
use hembo_money::{Money, Rate};

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
    /// How many points were reckoned.
    pub(super) reckoned: u64,
    /// How many of them are lawful.
    pub(super) lawful: u64,
    /// Whether all was looked at within the budget.
    pub(super) complete: bool,
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
        Looking { case, amounts, stop, budget, way, reckoned: 0, lawful: 0, complete: true, best: None }
    }

    /// Looks.
    pub(super) fn look(&mut self) {
        let most: Vec<Money> = self.amounts.explored.iter().map(|(_, most)| *most).collect();
        let steepness = self.steepness(&self.amounts.explored);
        let (stop, left) = (self.stop, self.budget);
        let mut ended = false;
        let explorer =
            Explorer::new(|at: &[Money], edges: &mut Edges| self.at_explored(at, edges), Money::LARGEST);
        let Explored { coupled, .. } = explorer.explore(&most, Some(&steepness), |points| {
            ended = points >= left;
            ended || stop.is_stopped()
        });
        self.complete &= !ended;
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
        if guarded.is_empty() || !self.guarded_apart(edges) {
            return total;
        }
        // Where it cannot become the lowest it need not be known to the cent.
        if let Some(gain) = self.case.most_gained_at_guards().filter(|gain| total - *gain >= self.lowest()) {
            edges.couple(gain);
            return total;
        }
        edges.couple(Money::ZERO);
        let found = self.explore_guarded(total);
        place(&mut self.way, guarded, &all);
        found
    }

    /// Whether a guard changes its side between none and all of the guarded amounts; tells the guards of every corner.
    fn guarded_apart(&mut self, edges: &mut Edges) -> bool {
        let guarded = &self.amounts.guarded;
        let mut seen: Vec<Vec<Option<bool>>> = Vec::new();
        for corner in 0..1_u32 << guarded.len() {
            let at: Vec<Money> = guarded
                .iter()
                .enumerate()
                .map(|(axis, (_, most))| if corner >> axis & 1 == 1 { *most } else { Money::ZERO })
                .collect();
            place(&mut self.way, guarded, &at);
            let mut told = Edges::default();
            self.case.guards(&View::of(&self.way), &mut told);
            seen.push(told.guards().collect());
            edges.extend(told);
        }
        seen.iter().any(|sides| *sides != seen[0])
    }

    /// The lowest over the guarded amounts at a point of the others; `total` is that with all of them.
    fn explore_guarded(&mut self, total: Money) -> Money {
        let guarded = &self.amounts.guarded;
        let most: Vec<Money> = guarded.iter().map(|(_, most)| *most).collect();
        let steepness = self.steepness(guarded);
        let (stop, left) = (self.stop, self.budget.saturating_sub(self.reckoned));
        let mut ended = false;
        let explorer = Explorer::new(
            |at: &[Money], edges: &mut Edges| {
                place(&mut self.way, guarded, at);
                self.reckon(edges)
            },
            Money::LARGEST,
        );
        let explored = explorer.explore(&most, Some(&steepness), |points| {
            ended = points >= left;
            ended || stop.is_stopped()
        });
        self.complete &= !ended;
        explored.corners.into_iter().map(|(_, total)| total).min().unwrap_or(total)
    }

    /// Explores a piece on which guarded amounts may be chosen in more than one way, together with them.
    fn look_at_coupled(&mut self, simplex: &Coupled) {
        let both: Vec<(usize, Money)> = self.amounts.all().collect();
        let most: Vec<Money> = self.amounts.guarded.iter().map(|(_, most)| *most).collect();
        let steepness = self.steepness(&both);
        let lowest = self.lowest();
        let (stop, left) = (self.stop, self.budget.saturating_sub(self.reckoned));
        let mut ended = false;
        let explorer = Explorer::new(
            |at: &[Money], edges: &mut Edges| {
                place(&mut self.way, &both, at);
                self.reckon(edges)
            },
            lowest,
        );
        explorer.explore_prism(simplex, &most, Some(&steepness), |points| {
            ended = points >= left;
            ended || stop.is_stopped()
        });
        self.complete &= !ended;
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
        self.reckoned += 1;
        self.lawful += u64::from(total < UNLAWFUL);
        let lower = |best: &Ranked| (total, &self.way) < (best.total, &best.way);
        if total < UNLAWFUL && self.best.as_ref().is_none_or(lower) {
            self.best = Some(Ranked { total, way: self.way.clone() });
        }
        total
    }
}

fn place(way: &mut Way, amounts: &[(usize, Money)], at: &[Money]) {
    for (&(decision, _), &amount) in amounts.iter().zip(at) {
        way.0[decision] = Some(Taken::Amount(amount));
    }
}
