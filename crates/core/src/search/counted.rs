//! A household of which it is counted how often one of its parts is computed.

use super::{Edges, Law, Tally, View, Weighable};
use crate::decision::Decision;
use hembo_money::Money;
use std::cell::Cell;

/// It is weighed as the household itself.
pub struct Counted<'a> {
    case: &'a dyn Weighable,
    parts: Cell<u64>,
}

impl<'a> Counted<'a> {
    /// Nothing was computed so far.
    pub fn of(case: &'a dyn Weighable) -> Counted<'a> {
        Counted { case, parts: Cell::new(0) }
    }

    /// How often a part was computed so far.
    pub fn times(&self) -> u64 {
        self.parts.get()
    }

    fn count(&self, parts: usize) {
        self.parts.set(self.parts.get().saturating_add(parts as u64));
    }
}

impl Weighable for Counted<'_> {
    fn decisions(&self) -> &[Decision] {
        self.case.decisions()
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        self.case.law(decision, view)
    }

    fn most(&self, decision: usize, view: &View<'_>) -> Money {
        self.case.most(decision, view)
    }

    fn jump(&self) -> Money {
        self.case.jump()
    }

    fn parts(&self) -> usize {
        self.case.parts()
    }

    fn total(&self, part: usize, view: &View<'_>) -> Money {
        self.count(1);
        self.case.total(part, view)
    }

    fn total_with_edges(&self, part: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.count(1);
        self.case.total_with_edges(part, view, edges)
    }

    fn worlds(&self) -> usize {
        self.case.worlds()
    }

    fn total_in_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.count(self.case.parts());
        self.case.total_in_world(world, view, edges)
    }

    fn inside_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.case.inside_world(world, view, edges)
    }

    fn leads_out_of_world(&self, world: usize, view: &View<'_>, decision: usize) -> bool {
        self.case.leads_out_of_world(world, view, decision)
    }

    fn moves_inside(&self, decision: usize) -> bool {
        self.case.moves_inside(decision)
    }

    fn tally(&self, tally: usize) -> Tally {
        self.case.tally(tally)
    }
}
