//! Convex cells in the space of the amounts: the corners of each, and which facets each corner lies on.
//!
//! A plane cuts a cell in two. New corners stand only where it crosses an edge of the cell; which corners an edge joins is
//! told by the facets: two corners are joined where no third lies on all facets that both lie on. So a cell has no more
//! corners than its shape asks for, however many amounts there are.

use hembo_money::Money;

/// The facets that a corner lies on, a bit each.
type Facets = u128;

/// A convex cell; `C` tells what is kept of a corner.
#[derive(Debug, Clone)]
pub(super) struct Cell<C> {
    pub(super) corners: Vec<C>,
    facets: Vec<Facets>,
}

/// Where a plane crosses an edge of a cell.
pub(super) struct Crossing<C> {
    /// The two corners that the edge joins, the one on the upper side first.
    pub(super) edge: (usize, usize),
    /// The new corners there, as they are seen from the upper side and from the lower one.
    pub(super) sides: (C, C),
}

impl Cell<Vec<i64>> {
    /// All points from one to another amount each.
    pub(super) fn of_box(low: &[i64], high: &[i64]) -> Cell<Vec<i64>> {
        let point = Cell { corners: vec![Vec::new()], facets: vec![0] };
        let ends = low.iter().copied().zip(high.iter().copied());
        ends.enumerate().fold(point, |cell, (axis, ends)| cell.times(2 * axis, ends))
    }

    /// Every point of this cell together with further amounts from zero to a most each. Where a cell has more facets than are
    /// counted, it is the box around it.
    pub(super) fn along(&self, most: &[Money]) -> Cell<Vec<i64>> {
        let ends = most.iter().map(|most| (0, most.cents()));
        let (cell, used) = self.renumbered();
        if used + 2 * most.len() <= Facets::BITS as usize {
            return ends.enumerate().fold(cell, |cell, (place, ends)| cell.times(used + 2 * place, ends));
        }
        let (mut low, mut high) = self.bounds(|at| at);
        low.extend(ends.clone().map(|(none, _)| none));
        high.extend(ends.map(|(_, most)| most));
        Cell::of_box(&low, &high)
    }

    /// The cell times a line from one end to the other, whose facets have the next two bits.
    fn times(self, bit: usize, (low, high): (i64, i64)) -> Cell<Vec<i64>> {
        let with = |at: &Vec<i64>, amount: i64| at.iter().copied().chain([amount]).collect::<Vec<_>>();
        let of = |amount: i64, bit: usize| {
            let corners = self.corners.iter().map(move |at| with(at, amount));
            corners.zip(self.facets.iter().map(move |facets| facets | 1 << bit))
        };
        let (corners, facets) = of(low, bit).chain(of(high, bit + 1)).unzip();
        Cell { corners, facets }
    }

    /// The same cell with its facets numbered from zero on, and how many there are.
    fn renumbered(&self) -> (Cell<Vec<i64>>, usize) {
        let used = self.used();
        let bits: Vec<u32> = (0..Facets::BITS).filter(|bit| used >> bit & 1 == 1).collect();
        let renumber = |facets: &Facets| {
            bits.iter()
                .enumerate()
                .map(|(place, bit)| (facets >> bit & 1) << place)
                .fold(0, |all, bit| all | bit)
        };
        let facets = self.facets.iter().map(renumber).collect();
        (Cell { corners: self.corners.clone(), facets }, bits.len())
    }
}

impl<C> Cell<C> {
    /// The same shape with something else kept of its corners.
    pub(super) fn map<D>(&self, keep: impl FnMut(&C) -> D) -> Cell<D> {
        Cell { corners: self.corners.iter().map(keep).collect(), facets: self.facets.clone() }
    }

    /// The least and the most of each amount.
    pub(super) fn bounds<'c>(&'c self, at: impl Fn(&'c C) -> &'c Vec<i64>) -> (Vec<i64>, Vec<i64>) {
        let mut corners = self.corners.iter().map(at);
        let (mut low, mut high) = corners.next().map(|at| (at.clone(), at.clone())).unwrap_or_default();
        for at in corners {
            for (axis, &amount) in at.iter().enumerate() {
                low[axis] = low[axis].min(amount);
                high[axis] = high[axis].max(amount);
            }
        }
        (low, high)
    }

    /// Whether there is a bit left for one more facet.
    pub(super) fn has_room(&self) -> bool {
        self.used() != Facets::MAX
    }

    fn used(&self) -> Facets {
        self.facets.iter().fold(0, |all, facets| all | facets)
    }

    /// The edges that join a corner on the upper side with one on the lower, `sides` telling for each corner where it is, if it is
    /// not on the plane.
    pub(super) fn crossed(&self, sides: &[Option<bool>], dims: usize) -> Vec<(usize, usize)> {
        let on = |side: bool| (0..sides.len()).filter(move |&corner| sides[corner] == Some(side));
        on(true)
            .flat_map(|upper| on(false).map(move |lower| (upper, lower)))
            .filter(|&edge| self.joined(edge, dims))
            .collect()
    }

    fn joined(&self, (one, other): (usize, usize), dims: usize) -> bool {
        let common = self.facets[one] & self.facets[other];
        let others = self.facets.iter().enumerate().filter(|&(corner, _)| corner != one && corner != other);
        common.count_ones() as usize + 1 >= dims
            && others.map(|(_, facets)| facets & common).all(|shared| shared != common)
    }
}

impl<C: Clone + PartialEq> Cell<C> {
    /// The two cells on either side of a plane, the upper one first: each with the corners of its side, those on the plane, and
    /// the new ones. There must be room for the facet between them.
    pub(super) fn halves(&self, sides: &[Option<bool>], new: &[Crossing<C>]) -> [Cell<C>; 2] {
        let facet: Facets = 1 << (!self.used()).trailing_zeros();
        [true, false].map(|upper| {
            let mut half = Cell { corners: Vec::new(), facets: Vec::new() };
            for (corner, side) in sides.iter().enumerate().filter(|(_, side)| **side != Some(!upper)) {
                let on = if side.is_none() { facet } else { 0 };
                half.add(self.corners[corner].clone(), self.facets[corner] | on);
            }
            for Crossing { edge: (one, other), sides } in new {
                let corner = if upper { &sides.0 } else { &sides.1 };
                half.add(corner.clone(), self.facets[*one] & self.facets[*other] | facet);
            }
            half
        })
    }

    /// Adds a corner; where it is already there it lies on these facets, too.
    fn add(&mut self, corner: C, facets: Facets) {
        match self.corners.iter().position(|there| *there == corner) {
            Some(place) => self.facets[place] |= facets,
            None => {
                self.corners.push(corner);
                self.facets.push(facets);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::rc::Rc;

    /// A point halfway between two, on both sides of a plane.
    fn halfway(cell: &Cell<Rc<Vec<i64>>>, edge: (usize, usize)) -> Crossing<Rc<Vec<i64>>> {
        let (one, other) = (&cell.corners[edge.0], &cell.corners[edge.1]);
        let at = Rc::new(one.iter().zip(&**other).map(|(a, b)| (a + b) / 2).collect());
        Crossing { edge, sides: (Rc::clone(&at), at) }
    }

    fn corners(cell: &Cell<Rc<Vec<i64>>>) -> Vec<Vec<i64>> {
        let mut corners: Vec<_> = cell.corners.iter().map(|at| at.to_vec()).collect();
        corners.sort();
        corners
    }

    #[test]
    fn a_corner_is_cut_off_a_cube() {
        let cube = Cell::of_box(&[0; 3], &[4; 3]).map(|at| Rc::new(at.clone()));
        let sides: Vec<_> = cube.corners.iter().map(|at| Some(at.iter().sum::<i64>() > 2)).collect();
        let crossed = cube.crossed(&sides, 3);
        assert_eq!(crossed.len(), 3);
        let new: Vec<_> = crossed.into_iter().map(|edge| halfway(&cube, edge)).collect();
        let [rest, corner] = cube.halves(&sides, &new);
        assert_eq!(corners(&corner), [[0, 0, 0], [0, 0, 2], [0, 2, 0], [2, 0, 0]]);
        assert_eq!(rest.corners.len(), 10);
        // Every edge of the rest: 9 of the cube are there, whole or a half, and 3 of the cut.
        let joined = |one: usize| (0..one).filter(|&other| rest.joined((one, other), 3)).count();
        assert_eq!((0..10).map(joined).sum::<usize>(), 15);
    }

    #[test]
    fn a_square_is_cut_along_its_diagonal() {
        let square = Cell::of_box(&[0, 0], &[4, 4]).map(|at| Rc::new(at.clone()));
        let sides: Vec<_> =
            square.corners.iter().map(|at| (at[0] != at[1]).then_some(at[0] > at[1])).collect();
        assert!(square.crossed(&sides, 2).is_empty());
        let [upper, lower] = square.halves(&sides, &[]);
        assert_eq!(corners(&upper), [[0, 0], [4, 0], [4, 4]]);
        assert_eq!(corners(&lower), [[0, 0], [0, 4], [4, 4]]);
    }

    #[test]
    fn a_prism_has_every_point_of_its_base_with_every_amount() {
        let base = Cell::of_box(&[1], &[6]);
        let prism = base.along(&[Money::from_cents(6), Money::from_cents(3)]);
        let mut told: Vec<_> = prism.corners.iter().map(|at| (at[0], at[1], at[2])).collect();
        told.sort_unstable();
        assert_eq!(told.len(), 8);
        assert_eq!((told[0], told[7]), ((1, 0, 0), (6, 6, 3)));
        assert!(prism.facets.iter().all(|facets| facets.count_ones() == 3));
    }

    #[test]
    fn a_cell_with_too_many_facets_is_told_and_its_prism_is_a_box() {
        let mut cell = Cell::of_box(&[2, 3], &[5, 7]);
        assert!(cell.has_room());
        cell.facets[0] = Facets::MAX;
        assert!(!cell.has_room());
        cell.corners.truncate(3);
        cell.facets.truncate(3);
        assert_eq!(cell.along(&[Money::from_cents(9)]).corners, Cell::of_box(&[2, 3, 0], &[5, 7, 9]).corners);
    }
}
