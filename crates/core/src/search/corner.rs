//! The corners of a cell, with what was found at them, and what is told of a cell by its corners.

use super::{
    cells,
    edges::{Differ, Told, differ},
};
use hembo_money::{Money, Rounding};
use std::rc::Rc;

/// A point in the space of the amounts with what was found there.
#[derive(Debug)]
pub(super) struct Corner {
    pub(super) at: Vec<i64>,
    pub(super) total: Money,
    pub(super) told: Told,
}

/// A cell with what was found at its corners.
pub(super) type Cell = cells::Cell<Rc<Corner>>;

impl PartialEq for Corner {
    fn eq(&self, other: &Corner) -> bool {
        self.at == other.at
    }
}

/// Where corners of a cell first differ from a place on.
pub(super) fn first_differing(cell: &Cell, from: usize) -> Option<Differ> {
    differ(&cell.corners, |corner| &corner.told, from)
}

/// The lowest total at the corners of a cell.
pub(super) fn lowest_corner(cell: &Cell) -> Money {
    cell.corners.iter().map(|c| c.total).min().unwrap_or(Money::LARGEST)
}

/// Whether no way is on a whole cell: at no corner, and the step that makes it so is linear there, as the corners
/// agree in every edge before it.
pub(super) fn outside(cell: &Cell) -> bool {
    cell.corners.iter().all(|corner| corner.told.edges.outside) && {
        let step = cell.corners[0].told.edges.told.iter().position(|edge| edge.step);
        step.is_some_and(|step| match first_differing(cell, 0) {
            Some(Differ::Side(edge)) => edge > step,
            Some(Differ::Edges) => false,
            None => true,
        })
    }
}

/// The point `part/whole` of the way from one to another, in whole cents; none where that is one of the two.
pub(super) fn between(from: &[i64], to: &[i64], part: i128, whole: i128) -> Option<Vec<i64>> {
    let step = |(&a, &b): (&i64, &i64)| {
        let away = i128::from(b - a) * part;
        a + Rounding::HalfUp.divide(away * whole.signum(), whole.abs()) as i64
    };
    let at: Vec<i64> = from.iter().zip(to).map(step).collect();
    (at != from && at != to).then_some(at)
}
