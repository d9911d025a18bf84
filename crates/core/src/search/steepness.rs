//! How low a total can be within a cell, however the rules bend there.

use super::corner::{Cell, Corner};
use hembo_money::{Money, Rate, Rounding};
use std::rc::Rc;

/// By how much the margin of a step moves with a unit of any amount, at the very most.
const STEP_SLOPE: i64 = 2;

/// How far a total can fall between two points.
#[derive(Debug, Clone)]
pub(super) struct Steepness {
    /// By a unit of each amount.
    pub(super) steepest: Vec<Rate>,
    /// By all steps together.
    pub(super) jump: Money,
}

impl Steepness {
    /// A total that no point of a cell is below.
    pub(super) fn least_on(&self, cell: &Cell) -> Money {
        let bounds = cell.bounds(|corner| &corner.at);
        let from = |corner: &Rc<Corner>| {
            let reach = |axis| Money::from_cents(reach(&bounds, corner, axis));
            let fall = self.steepest.iter().enumerate().map(|(axis, &rate)| (reach(axis), rate));
            corner.total - Money::sum_of_products(fall, Money::CENT, Rounding::Up)
        };
        let least = cell.corners.iter().map(from).max().unwrap_or_default();
        if !self.jump.is_zero() && may_jump(cell, &bounds) { least - self.jump } else { least }
    }
}

/// How far along an axis a cell reaches from one of its corners.
fn reach((low, high): &(Vec<i64>, Vec<i64>), corner: &Corner, axis: usize) -> i64 {
    (high[axis] - corner.at[axis]).max(corner.at[axis] - low[axis])
}

/// Whether a step can lie in a cell: not where its margin at some corner is more than the way to any point.
fn may_jump(cell: &Cell, bounds: &(Vec<i64>, Vec<i64>)) -> bool {
    let near = |corner: &Rc<Corner>, edge: usize| {
        let way: i64 = (0..corner.at.len()).map(|axis| reach(bounds, corner, axis)).sum();
        corner.told.edge(edge).margin.abs() <= way * STEP_SLOPE
    };
    let told = cell.corners.iter().map(|c| c.told.edges.told.len()).min().unwrap_or(0);
    let steps = (0..told).filter(|&edge| cell.corners[0].told.edge(edge).step);
    steps.into_iter().any(|edge| cell.corners.iter().all(|corner| near(corner, edge)))
}
