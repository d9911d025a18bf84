//! Parts in a proportion: between the corners of a cell that agree in every edge, they are not linear.
//!
//! A part `f` is a quotient of two linear amounts, of which `n` is the lower one. At a point of the cell that weighs the corners
//! by `λ`, it is the mean of the corners' parts with the weights `λn`, which differs from their plain mean by the covariance of
//! `f` and `n`, divided by the mean of `n`. That is no more than the range of `f` times that of `n`, divided by four times the
//! least of `n`; nor is it more than the range of `f`. So it falls to a quarter where the range of `n` is halved, and a cell is
//! cut until it does not matter.

use super::corner::{Cell, Corner};
use hembo_money::{Money, Rounding};
use std::rc::Rc;

/// As near as this to linear is the same as linear: the totals of points are rounded to it.
const NEARLY_LINEAR: Money = Money::CENT;

/// How a cell is curved.
pub(super) struct Curved {
    /// By how much the total can be below its corners.
    pub(super) sag: Money,
    /// Which of the curves does most.
    most: usize,
}

impl Curved {
    /// How a cell is whose corners agree in every edge; nothing where it is as good as linear.
    pub(super) fn of(cell: &Cell) -> Option<Curved> {
        let curves = cell.corners.iter().map(|corner| corner.told.edges.curves.len()).min().unwrap_or(0);
        let sags: Vec<Money> = (0..curves).map(|curve| sag(cell, curve)).collect();
        // A bend behind a curve may lie a little off its place: as much again.
        let sag = sags.iter().copied().sum::<Money>() * 2;
        let most = (0..curves).max_by_key(|&curve| sags[curve])?;
        (sag > NEARLY_LINEAR).then_some(Curved { sag, most })
    }

    /// How far a corner is from the middle of what the worst curve is over.
    pub(super) fn beyond_middle(&self, cell: &Cell) -> impl Fn(&Rc<Corner>) -> i64 + use<> {
        let (curve, (least, most)) = (self.most, range(cell, |corner| over(corner, self.most)));
        let middle = least.cents() + (most - least).cents() / 2;
        move |corner| over(corner, curve).cents() - middle
    }
}

/// By how much one curve differs from linear at the most.
fn sag(cell: &Cell, curve: usize) -> Money {
    let (low, high) = range(cell, |corner| corner.told.edges.curves[curve].part);
    let (least, most) = range(cell, |corner| over(corner, curve));
    let (width, four) = (most - least, least * 4);
    if width >= four {
        high - low
    } else {
        (high - low).in_proportion(width, four, Money::CENT, Rounding::HalfUp)
    }
}

fn over(corner: &Corner, curve: usize) -> Money {
    corner.told.edges.curves[curve].over
}

fn range(cell: &Cell, of: impl Fn(&Corner) -> Money) -> (Money, Money) {
    let all = || cell.corners.iter().map(|corner| of(corner));
    (all().min().unwrap_or_default(), all().max().unwrap_or_default())
}
