//! The lowest of a piecewise-linear function, exactly.
//!
//! While a rule computes, it tells every edge it meets: by how much it is on one side of it ([`Edges`]). The first
//! edge's margin is linear in the amounts; each later one is linear wherever no earlier one changes its sign. So where
//! the corners of a convex cell agree in the signs of all margins, total tax is linear on it, and its lowest stands at a
//! corner. Where they disagree, the first margin that does is linear on the cell: it is cut exactly where that margin is
//! zero, and both halves are looked at again. Nothing is sampled, nothing guessed. A cell whose corners are so dear that
//! nothing on it can be the lowest, however steep the law, is left as it is. Where a rule takes a proportion the total is curved
//! between agreeing corners: such a cell is cut until it is linear to the cent, where it may be below the lowest.

use super::{
    cells::{self, Crossing},
    corner::{Cell, Corner, between, first_differing, lowest_corner, outside},
    crossing::crossing,
    curves::Curved,
    edges::{Differ, Edges, Told},
    steepness::Steepness,
};
use hembo_money::Money;
use std::{
    cmp::Ordering,
    collections::{BinaryHeap, HashMap},
    rc::{Rc, Weak},
};

/// Corners nearer than this to each other are not cut apart: a kink is met exactly from farther off, and what is left
/// between them is the rounding of lines.
const NEAR: i64 = 100;

/// What is found at a point.
#[derive(Debug, Clone, Copy)]
pub(super) struct At {
    /// The total that is explored.
    pub(super) total: Money,
    /// What the law gives there: nothing that is not below it is looked for any more.
    pub(super) lawful: Money,
}

/// Looks for the lowest total over amounts from zero to a most each.
pub(super) struct Explorer<F> {
    at: F,
    /// The corners of open cells: neighbours share them.
    corners: HashMap<Vec<i64>, Weak<Corner>>,
    lowest: Money,
    /// How many edges a point told at the most, to have room for as many.
    told: usize,
}

/// A cell on which the total is linear, and the lowest total at its corners.
#[derive(Debug)]
pub(super) struct Piece {
    cell: cells::Cell<Vec<i64>>,
    pub(super) least: Money,
}

/// Which of two corners is nearer to a plane between them that leaves no room for a third.
enum Nearer {
    Upper,
    Lower,
}

/// A cell that is still to be looked at; those with the lowest corner first.
struct Open {
    lowest: Money,
    cell: Cell,
}

impl PartialEq for Open {
    fn eq(&self, other: &Open) -> bool {
        self.lowest == other.lowest
    }
}

impl Eq for Open {}

impl PartialOrd for Open {
    fn partial_cmp(&self, other: &Open) -> Option<Ordering> {
        Some(self.cmp(other))
    }
}

impl Ord for Open {
    fn cmp(&self, other: &Open) -> Ordering {
        other.lowest.cmp(&self.lowest)
    }
}

impl Open {
    fn new(cell: Cell) -> Open {
        Open { lowest: lowest_corner(&cell), cell }
    }
}

impl<F: FnMut(&[Money], &mut Edges) -> At> Explorer<F> {
    /// An explorer of a function that tells its edges; nothing that is not below `lowest` is wanted.
    pub(super) fn new(at: F, lowest: Money) -> Explorer<F> {
        Explorer { at, corners: HashMap::new(), lowest, told: 0 }
    }

    /// Cuts the space from zero to a most each into pieces on which the total is linear: all of it, or with a steepness
    /// where the lowest can be. `enough` is asked before every cell, with the number of its corners, and may end it. Returns the
    /// pieces that are below what the law gives anywhere.
    pub(super) fn explore(
        self,
        most: &[Money],
        steepness: Option<&Steepness>,
        enough: impl FnMut(usize) -> bool,
    ) -> Vec<Piece> {
        let most: Vec<_> = most.iter().map(|most| most.cents()).collect();
        self.explore_from(&cells::Cell::of_box(&vec![0; most.len()], &most), steepness, enough)
    }

    /// The same over every point of a piece together with further amounts from zero to a most each.
    pub(super) fn explore_prism(
        self,
        base: &Piece,
        most: &[Money],
        steepness: Option<&Steepness>,
        enough: impl FnMut(usize) -> bool,
    ) -> Vec<Piece> {
        self.explore_from(&base.cell.along(most), steepness, enough)
    }

    fn explore_from(
        mut self,
        from: &cells::Cell<Vec<i64>>,
        steepness: Option<&Steepness>,
        mut enough: impl FnMut(usize) -> bool,
    ) -> Vec<Piece> {
        let mut open = BinaryHeap::from([Open::new(self.cell(from))]);
        let mut pieces = Vec::new();
        while let Some(Open { cell, .. }) = open.pop() {
            if enough(cell.corners.len()) {
                break;
            }
            if outside(&cell) || steepness.is_some_and(|s| s.least_on(&cell) >= self.lowest) {
                continue;
            }
            if !cell.has_room() {
                open.push(Open::new(self.around(&cell)));
            } else if let Some(halves) = self.cut(&cell) {
                open.extend(halves.map(Open::new));
            } else if lowest_corner(&cell) < self.lowest {
                pieces.push(Piece { cell: cell.map(|c| c.at.clone()), least: lowest_corner(&cell) });
            }
        }
        pieces.retain(|piece| piece.least < self.lowest);
        pieces
    }

    fn cell(&mut self, of: &cells::Cell<Vec<i64>>) -> Cell {
        of.map(|at| self.corner(at.clone()))
    }

    /// The box around a cell that has more facets than are counted.
    fn around(&mut self, cell: &Cell) -> Cell {
        let (low, high) = cell.bounds(|corner| &corner.at);
        self.cell(&cells::Cell::of_box(&low, &high))
    }

    fn corner(&mut self, at: Vec<i64>) -> Rc<Corner> {
        if let Some(found) = self.corners.get(&at).and_then(Weak::upgrade) {
            return found;
        }
        let amounts: Vec<_> = at.iter().map(|&cents| Money::from_cents(cents)).collect();
        let mut edges = Edges::with_room(self.told);
        let At { total, lawful } = (self.at)(&amounts, &mut edges);
        self.told = self.told.max(edges.told.len());
        self.lowest = self.lowest.min(lawful);
        let corner = Rc::new(Corner { at: at.clone(), total, told: Told::of(edges) });
        self.corners.insert(at, Rc::downgrade(&corner));
        corner
    }

    /// The two halves of a cell, if it must be cut.
    fn cut(&mut self, cell: &Cell) -> Option<[Cell; 2]> {
        let mut from = 0;
        while let Some(differ) = first_differing(cell, from) {
            let Differ::Side(edge) = differ else { return self.in_the_middle(cell) };
            from = edge + 1;
            if let Some(halves) = self.cut_at(cell, edge) {
                return Some(halves);
            }
        }
        let curved = Curved::of(cell).filter(|curved| lowest_corner(cell) - curved.sag < self.lowest)?;
        self.halves_by(cell, curved.beyond_middle(cell))
    }

    /// The halves on either side of an edge that the rules told; none where corners of both sides are too near each other.
    fn cut_at(&mut self, cell: &Cell, edge: usize) -> Option<[Cell; 2]> {
        let told = |corner: &Rc<Corner>| corner.told.edge(edge);
        if told(&cell.corners[0]).step {
            let sides = cell.corners.iter().map(|c| Some(told(c).upper())).collect();
            return self.halves(cell, sides, |explorer, i, j| Ok(explorer.step_between(i, j, edge)));
        }
        let sides = cell.corners.iter().map(|c| told(c).side()).collect();
        self.halves(cell, sides, |explorer, i, j| {
            let (from, to) = (i128::from(told(&i).margin), i128::from(told(&j).margin));
            explorer.between(&i, &j, from, from - to)
        })
    }

    /// Where corners tell different edges and are on no side of a common one, halves are looked at on their own.
    fn in_the_middle(&mut self, cell: &Cell) -> Option<[Cell; 2]> {
        let (low, high) = cell.bounds(|corner| &corner.at);
        let axis = (0..low.len()).max_by_key(|&axis| high[axis] - low[axis])?;
        let middle = low[axis] + (high[axis] - low[axis]) / 2;
        self.halves_by(cell, |corner| corner.at[axis] - middle)
    }

    /// The halves on either side of a plane, from which a corner is so far away.
    fn halves_by(&mut self, cell: &Cell, away: impl Fn(&Rc<Corner>) -> i64) -> Option<[Cell; 2]> {
        let side = |corner| Some(away(corner)).filter(|away| *away != 0).map(|away| away > 0);
        let sides = cell.corners.iter().map(side).collect();
        self.halves(cell, sides, |explorer, i, j| {
            let (from, to) = (i128::from(away(&i)), i128::from(away(&j)));
            explorer.between(&i, &j, from, from - to)
        })
    }

    /// The halves of a cell, with the new corners that `cross` gives where the plane crosses an edge, as seen from either side.
    /// Where there is no room for one, the corner nearer to the plane counts as on it; there may be no halves then.
    fn halves(
        &mut self,
        cell: &Cell,
        mut sides: Vec<Option<bool>>,
        mut cross: impl FnMut(&mut Self, Rc<Corner>, Rc<Corner>) -> Result<(Rc<Corner>, Rc<Corner>), Nearer>,
    ) -> Option<[Cell; 2]> {
        let (mut new, mut on) = (Vec::new(), Vec::new());
        for edge in cell.crossed(&sides, cell.corners[0].at.len()) {
            let [i, j] = [edge.0, edge.1].map(|corner| Rc::clone(&cell.corners[corner]));
            match cross(self, i, j) {
                Ok(sides) => new.push(Crossing { edge, sides }),
                Err(Nearer::Upper) => on.push(edge.0),
                Err(Nearer::Lower) => on.push(edge.1),
            }
        }
        on.into_iter().for_each(|corner| sides[corner] = None);
        let both = [true, false].iter().all(|side| sides.contains(&Some(*side)));
        (both || !new.is_empty()).then(|| cell.halves(&sides, &new))
    }

    /// The corner at `part/whole` of the way between two, the same from either side, where they are not near each other.
    fn between(
        &mut self,
        i: &Corner,
        j: &Corner,
        part: i128,
        whole: i128,
    ) -> Result<(Rc<Corner>, Rc<Corner>), Nearer> {
        let near = i.at.iter().zip(&j.at).all(|(one, other)| (one - other).abs() < NEAR);
        let Some(at) = between(&i.at, &j.at, part, whole).filter(|_| !near) else {
            return Err(if 2 * part.abs() < whole.abs() { Nearer::Upper } else { Nearer::Lower });
        };
        let corner = self.corner(at);
        Ok((Rc::clone(&corner), corner))
    }

    /// The two sides of a jump between two corners, a cent apart; the first is on the upper side.
    fn step_between(
        &mut self,
        upper: Rc<Corner>,
        lower: Rc<Corner>,
        edge: usize,
    ) -> (Rc<Corner>, Rc<Corner>) {
        let margin = |corner: &Rc<Corner>| corner.told.edge(edge).margin;
        let away = |(one, other): (&i64, &i64)| (one - other).abs();
        let cents = upper.at.iter().zip(&lower.at).map(away).max().unwrap_or_default();
        let mut sides = (Rc::clone(&upper), Rc::clone(&lower));
        crossing((0, margin(&upper)), (cents, margin(&lower)), |place| {
            let Some(at) = between(&upper.at, &lower.at, place.into(), cents.into()) else { return 0 };
            let found = self.corner(at);
            let side = if found.told.edge(edge).upper() { &mut sides.0 } else { &mut sides.1 };
            *side = Rc::clone(&found);
            margin(&found)
        });
        sides
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{limit, trail::Trail};
    use hembo_money::Rounding;
    use proptest::prelude::*;

    fn lowest(most: &[i64], mut total: impl FnMut(&[Money], &mut Edges) -> Money) -> (Vec<i64>, i64, usize) {
        let most: Vec<_> = most.iter().map(|&m| Money::whole(m)).collect();
        let mut corners: Vec<(i64, Vec<i64>)> = Vec::new();
        let at = |a: &[Money], e: &mut Edges| {
            let total = total(a, e);
            corners.push((total.cents(), a.iter().map(|m| m.cents()).collect()));
            At { total, lawful: total }
        };
        Explorer::new(at, Money::LARGEST).explore(&most, None, |_| false);
        let (total, at) = corners.iter().min().expect("the box has corners");
        (at.clone(), *total, corners.len())
    }

    #[test]
    fn a_narrow_dip_is_found() {
        // |x − 700.00| with a dip of 30 that is 20 wide around 123.45: neither end nor middle tells of it.
        let (at, total, corners) = lowest(&[1_000_000], |a, e| {
            let away = |x: i64, e: &mut Edges| {
                let off = a[0] - Money::from_cents(x);
                limit::greater(e, off, -off)
            };
            let dip = away(12_345, e);
            let dip = limit::or_zero(e, Money::whole(10) - dip) * 3_000;
            let far = away(70_000, e);
            far - dip
        });
        assert_eq!((at, total), (vec![12_345], 70_000 - 12_345 - 3_000_000));
        assert!(corners < 12, "{corners} corners");
    }

    #[test]
    fn where_other_edges_are_told_it_is_looked_at_more_closely() {
        // A rule goes another way from 333.33 on and does not tell; only what it tells there is another edge.
        let (at, total, corners) = lowest(&[1_000], |a, e| {
            let bend = Money::from_cents(33_333);
            if a[0] < bend {
                return limit::or_zero(e, bend - a[0]);
            }
            limit::or_zero(e, a[0] - bend) * 2
        });
        assert!((at[0] - 33_333).abs() <= NEAR && total <= NEAR && corners < 30, "{at:?} {total} {corners}");
    }

    #[test]
    fn the_lowest_of_a_curve_is_found() {
        // x + 9,000,000 / (1,000 + x): lowest where 1,000 + x is 3,000, with 5,000; both ends are dearer.
        let (at, total, corners) = lowest(&[9_000], |a, e| {
            let over = Money::whole(1_000) + a[0];
            let part =
                Money::whole(9_000).in_proportion(Money::whole(1_000), over, Money::CENT, Rounding::HalfUp);
            e.curve(part, over);
            a[0] + part
        });
        assert!(
            (at[0] - 200_000).abs() <= 2 * NEAR && total == 500_000 && corners < 40,
            "{at:?} {total} {corners}"
        );
    }

    #[test]
    fn the_side_of_a_jump_is_found() {
        let (at, total, _) = lowest(&[1_000], |a, e| {
            let over = a[0] - Money::from_cents(33_333);
            e.step(over, true);
            a[0] * -1 + if over.is_negative() { Money::ZERO } else { Money::whole(5_000) }
        });
        assert_eq!((at, total), (vec![33_332], -33_332));
    }

    #[test]
    fn two_amounts_meet_in_the_middle() {
        // Lowest where x + y = 300 and x = y, away from every border.
        let (at, total, _) = lowest(&[1_000, 800], |a, e| {
            let sum = a[0] + a[1] - Money::whole(300);
            let apart = a[0] - a[1];
            limit::greater(e, sum, -sum) * 2 + limit::greater(e, apart, -apart)
        });
        assert!(at.iter().all(|a| (a - 15_000).abs() <= 1) && total <= 4, "{at:?} {total}");
    }

    #[test]
    fn a_jump_along_a_line_is_followed() {
        // On one side of x = y there is 500 less to pay, the more the farther up; the other side only rises.
        let (at, total, corners) = lowest(&[2_000, 2_000], |a, e| {
            let apart = a[0] - a[1];
            e.step(apart, true);
            let bonus = if apart.is_negative() { Money::ZERO } else { Money::whole(500) };
            let over = limit::or_zero(e, a[0] + a[1] - Money::whole(700));
            over * 2 - (a[0] + a[1]) - bonus
        });
        assert_eq!(total, -70_000 - 50_000, "{at:?}");
        assert!(at[0] >= at[1] && corners < 100, "{at:?} {corners}");
    }

    /// A plane: so many times each amount, less a number of [`GRID`]s.
    type Plane = (Vec<i64>, i64);

    /// Every number up to 16 divides it, so that planes of such slopes meet in whole cents.
    const GRID: i64 = 720_720;

    fn margin((slopes, off): &Plane, at: &[i64]) -> i64 {
        slopes.iter().zip(at).map(|(slope, amount)| slope * amount).sum::<i64>() - off * GRID
    }

    fn determinant(rows: &[Vec<i64>]) -> i64 {
        let Some(first) = rows.first() else { return 1 };
        let minor = |column: usize| {
            let without = |row: &Vec<i64>| [&row[..column], &row[column + 1..]].concat();
            determinant(&rows[1..].iter().map(without).collect::<Vec<_>>())
        };
        let sign = |column: usize| if column.is_multiple_of(2) { 1 } else { -1 };
        (0..first.len()).map(|column| first[column] * sign(column) * minor(column)).sum()
    }

    /// Where as many planes as there are amounts meet, if they do in one point.
    fn meeting(planes: &[&Plane]) -> Option<Vec<i64>> {
        let slopes: Vec<_> = planes.iter().map(|(slopes, _)| slopes.clone()).collect();
        let all = determinant(&slopes);
        let along = |axis: usize| {
            let mut rows = slopes.clone();
            rows.iter_mut().zip(planes).for_each(|(row, (_, off))| row[axis] = *off);
            determinant(&rows) * GRID / all
        };
        (all != 0).then(|| (0..planes.len()).map(along).collect())
    }

    /// Every choice of so many of them.
    fn choices(planes: &[Plane], many: usize) -> Vec<Vec<&Plane>> {
        let (Some((first, rest)), true) = (planes.split_first(), many > 0) else {
            return if many == 0 { vec![Vec::new()] } else { Vec::new() };
        };
        let with = choices(rest, many - 1).into_iter().map(|mut choice| {
            choice.push(first);
            choice
        });
        with.chain(choices(rest, many)).collect()
    }

    /// What bends at the planes, each time by so much; the last plane lies otherwise where the first margin is above zero.
    fn bent(planes: &[Plane], weights: &[i64], at: &[i64], edges: &mut Edges) -> Money {
        let mut first = Money::ZERO;
        let mut total = Money::ZERO;
        for (place, (plane, weight)) in planes.iter().zip(weights).enumerate() {
            let more = if place + 1 == planes.len() { first } else { Money::ZERO };
            let above = limit::or_zero(edges, Money::from_cents(margin(plane, at)) + more);
            first = if place == 0 { above } else { first };
            total += above * *weight;
        }
        total
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(40))]

        /// Two proportions, whose sides both amounts move, beside a plane that bends: held against a grid.
        #[test]
        fn no_point_of_curves_is_lower(
            slopes in prop::array::uniform2(-6_i64..6),
            bend in 0_i64..120,
            curves in prop::array::uniform2(prop::array::uniform6(0_i64..6)),
        ) {
            let curved = |a: &[Money], e: &mut Edges| {
                let part = |[over, of, c, d, f, g]: [i64; 6], e: &mut Edges| {
                    let over = Money::whole(100 * (over + 10)) + a[0] * c + a[1] * d;
                    let of = Money::whole(100 * of) + a[0] * f + a[1] * g;
                    let part = Money::whole(70).in_proportion(of, over, Money::CENT, Rounding::HalfUp);
                    e.curve(part, over);
                    part
                };
                let bent = limit::or_zero(e, a[0] + a[1] - Money::whole(bend));
                a[0] * slopes[0] + a[1] * slopes[1] + bent * 3 + part(curves[0], e) - part(curves[1], e)
            };
            let (_, found, _) = lowest(&[90, 60], curved);
            let grid = (0..=90).flat_map(|x| (0..=60).map(move |y| [Money::whole(x), Money::whole(y)]));
            let least = grid.map(|at| curved(&at, &mut Edges::default()).cents()).min();
            prop_assert!(found <= least.unwrap_or_default() + 4, "{found} {least:?}");
        }
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(150))]

        /// The lowest stands where planes meet, those of the bends and those of the box: all such points are reckoned.
        #[test]
        fn the_lowest_of_planes_is_found(
            dims in 2_usize..5,
            slopes in prop::collection::vec(prop::array::uniform4(-1_i64..2), 2..6),
            offs in prop::array::uniform5(-8_i64..20),
            weights in prop::array::uniform5(-3_i64..4),
        ) {
            const MOST: i64 = 10;
            let planes: Vec<Plane> =
                slopes.iter().zip(offs).map(|(slopes, off)| (slopes[..dims].to_vec(), off)).collect();
            let most = vec![MOST * GRID / 100; dims];
            let cents = |at: &[Money]| at.iter().map(|amount| amount.cents()).collect::<Vec<_>>();
            let (_, found, _) = lowest(&most, |at, edges| bent(&planes, &weights, &cents(at), edges));

            let mut all = planes.clone();
            let (first, last) = (&planes[0], &planes[planes.len() - 1]);
            all.push((first.0.iter().zip(&last.0).map(|(a, b)| a + b).collect(), first.1 + last.1));
            let side = |axis: usize| (0..dims).map(|other| i64::from(other == axis)).collect::<Vec<_>>();
            all.extend((0..dims).flat_map(|axis| [(side(axis), 0), (side(axis), MOST)]));
            let points = choices(&all, dims).into_iter().filter_map(|choice| meeting(&choice));
            let inside = points.filter(|at| at.iter().all(|amount| (0..=MOST * GRID).contains(amount)));
            let least = inside.map(|at| bent(&planes, &weights, &at, &mut Edges::default()).cents()).min();
            prop_assert!((found - least.unwrap_or_default()).abs() <= 200, "{found} {least:?}");
        }
    }
}
