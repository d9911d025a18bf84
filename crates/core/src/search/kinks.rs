//! The lowest of a piecewise-linear function, exactly.
//!
//! While a rule computes, it tells every edge it meets: by how much it is on one side of it ([`Edges`]). The first
//! edge's margin is linear in the amounts; each later one is linear wherever no earlier one changes its sign. So where
//! the corners of a simplex agree in the signs of all margins, total tax is linear on it, and its lowest stands at a
//! corner. Where they disagree, the first margin that does is linear between two such corners: the simplex is cut
//! exactly where that margin is zero, and both halves are looked at again. Nothing is sampled, nothing guessed. A
//! simplex whose corners are so dear that nothing on it can be the lowest, however steep the law, is left as it is.

use super::edges::{Differ, Edges, Told, differ};
use hembo_money::{Money, Rate, Rounding};
use std::{
    cmp::Ordering,
    collections::{BinaryHeap, HashMap},
    rc::{Rc, Weak},
};

/// Corners nearer than this to each other are not cut apart: a kink is met exactly from farther off, and what is left
/// between them is the rounding of lines.
const NEAR: i64 = 100;

/// By how much the margin of a step moves with a unit of any amount, at the very most.
const STEP_SLOPE: i64 = 2;

/// A point in the space of the amounts with what was found there.
#[derive(Debug)]
struct Corner {
    at: Vec<i64>,
    total: Money,
    told: Told,
}

/// Where corners of a simplex first differ from a place on.
fn first_differing(simplex: &[Rc<Corner>], from: usize) -> Option<Differ> {
    differ(simplex, |corner| &corner.told, from)
}

/// How far a total can fall between two points.
#[derive(Debug, Clone)]
pub(super) struct Steepness {
    /// By a unit of each amount.
    pub(super) steepest: Vec<Rate>,
    /// By all steps together.
    pub(super) jump: Money,
}

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
    /// The corners of open simplices: neighbours share them.
    corners: HashMap<Vec<i64>, Weak<Corner>>,
    /// Corners at a step, each with the one across it.
    across: HashMap<Vec<i64>, Vec<i64>>,
    lowest: Money,
    /// How many edges a point told at the most, to have room for as many.
    told: usize,
}

/// A simplex on which the total is linear: its corners, and the lowest total at them.
#[derive(Debug)]
pub(super) struct Piece {
    corners: Vec<Vec<i64>>,
    pub(super) least: Money,
}

/// A simplex that is still to be looked at; those with the lowest corner first.
struct Open {
    lowest: Money,
    simplex: Vec<Rc<Corner>>,
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

impl<F: FnMut(&[Money], &mut Edges) -> At> Explorer<F> {
    /// An explorer of a function that tells its edges; nothing that is not below `lowest` is wanted.
    pub(super) fn new(at: F, lowest: Money) -> Explorer<F> {
        let (corners, across) = (HashMap::new(), HashMap::new());
        Explorer { at, corners, across, lowest, told: 0 }
    }

    /// Cuts the space from zero to a most each into pieces on which the total is linear: all of it, or with a steepness
    /// where the lowest can be. `enough` is asked before every simplex, and may end it. Returns the pieces that are below
    /// what the law gives anywhere.
    pub(super) fn explore(
        mut self,
        most: &[Money],
        steepness: Option<&Steepness>,
        enough: impl FnMut() -> bool,
    ) -> Vec<Piece> {
        let simplices = self.simplices_of_box(most);
        self.explore_from(simplices, steepness, enough)
    }

    /// The same over every point of a simplex together with further amounts from zero to a most each.
    pub(super) fn explore_prism(
        mut self,
        base: &Piece,
        most: &[Money],
        steepness: Option<&Steepness>,
        enough: impl FnMut() -> bool,
    ) -> Vec<Piece> {
        let simplices = prisms(base.corners.clone(), most);
        let simplices = simplices.into_iter().map(|s| s.into_iter().map(|at| self.corner(at)).collect());
        let simplices = simplices.collect();
        self.explore_from(simplices, steepness, enough)
    }

    fn explore_from(
        mut self,
        simplices: Vec<Vec<Rc<Corner>>>,
        steepness: Option<&Steepness>,
        mut enough: impl FnMut() -> bool,
    ) -> Vec<Piece> {
        let mut open: BinaryHeap<Open> = simplices.into_iter().map(Open::new).collect();
        let mut pieces = Vec::new();
        while let Some(Open { mut simplex, .. }) = open.pop() {
            if enough() {
                break;
            }
            if outside(&simplex) || steepness.is_some_and(|s| s.least_on(&simplex) >= self.lowest) {
                continue;
            }
            if let Some((i, j, near_i, near_j)) = self.cut(&mut simplex) {
                let mut half = simplex.clone();
                half[j] = near_i;
                open.push(Open::new(half));
                let mut other = simplex;
                other[i] = near_j;
                open.push(Open::new(other));
            } else if lowest_corner(&simplex) < self.lowest {
                let least = lowest_corner(&simplex);
                pieces.push(Piece { corners: simplex.iter().map(|c| c.at.clone()).collect(), least });
            }
        }
        pieces.retain(|piece| piece.least < self.lowest);
        pieces
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

    /// The box from zero to `most`, cut along its diagonals: for each order of the amounts, the corners that are
    /// reached by raising them to their most in that order.
    fn simplices_of_box(&mut self, most: &[Money]) -> Vec<Vec<Rc<Corner>>> {
        let mut simplices = Vec::new();
        for order in orders(most.len()) {
            let mut at = vec![0; most.len()];
            let mut simplex = vec![self.corner(at.clone())];
            for axis in order {
                at[axis] = most[axis].cents();
                simplex.push(self.corner(at.clone()));
            }
            simplices.push(simplex);
        }
        simplices
    }

    /// Where to cut a simplex, if it must be: two of its corners and the points between them on either side.
    fn cut(&mut self, simplex: &mut [Rc<Corner>]) -> Option<(usize, usize, Rc<Corner>, Rc<Corner>)> {
        let mut from = 0;
        let mut pairs = None;
        while let Some(differ) = first_differing(simplex, from) {
            let pairs = pairs.get_or_insert_with(|| longest_first(simplex));
            let Differ::Side(edge) = differ else { return self.in_the_middle(simplex, pairs) };
            from = edge + 1;
            if simplex[0].told.edge(edge).step {
                self.onto_one_side(simplex, edge);
            }
            let side = |c: &Rc<Corner>| c.told.edge(edge).side();
            for &(i, j) in pairs.iter() {
                let (Some(one), Some(other)) = (side(&simplex[i]), side(&simplex[j])) else { continue };
                if one == other {
                    continue;
                }
                if let Some((near_i, near_j)) = self.crossing(&simplex[i], &simplex[j], edge) {
                    return Some((i, j, near_i, near_j));
                }
            }
        }
        None
    }

    /// Where corners tell different edges and on no side of a common one, halves are looked at on their own.
    fn in_the_middle(
        &mut self,
        simplex: &[Rc<Corner>],
        pairs: &[(usize, usize)],
    ) -> Option<(usize, usize, Rc<Corner>, Rc<Corner>)> {
        let &(i, j) = pairs.first()?;
        let middle = self.corner(between(&simplex[i].at, &simplex[j].at, 1, 2)?);
        Some((i, j, Rc::clone(&middle), middle))
    }

    /// The points between two corners on either side of an edge; none where there is no room between.
    fn crossing(&mut self, i: &Rc<Corner>, j: &Rc<Corner>, edge: usize) -> Option<(Rc<Corner>, Rc<Corner>)> {
        if i.told.edge(edge).step {
            return self.step_between(Rc::clone(i), Rc::clone(j), edge);
        }
        let (from, to) = (i128::from(i.told.edge(edge).margin), i128::from(j.told.edge(edge).margin));
        let at = between(&i.at, &j.at, from, from - to)?;
        let cut = self.corner(at);
        Some((Rc::clone(&cut), cut))
    }

    /// Where all corners away from a step are on one side, those at it are taken from that side too.
    fn onto_one_side(&mut self, simplex: &mut [Rc<Corner>], edge: usize) {
        let mut sides = simplex.iter().filter_map(|c| c.told.edge(edge).side());
        let Some(side) = sides.next().filter(|first| sides.all(|other| other == *first)) else { return };
        let away = simplex.iter().find(|c| c.told.edge(edge).side().is_some()).map(Rc::clone);
        for corner in simplex.iter_mut().filter(|c| c.told.edge(edge).upper() != side) {
            if let Some(at) = self.across.get(&corner.at).cloned() {
                *corner = self.corner(at);
            } else if let Some(away) = &away {
                let found = self.step_between(Rc::clone(corner), Rc::clone(away), edge);
                let Some((_, across)) = found else { continue };
                self.across.insert(corner.at.clone(), across.at.clone());
                *corner = across;
            }
        }
    }

    /// Closes in on a jump until its two sides are a cent apart.
    fn step_between(
        &mut self,
        mut i: Rc<Corner>,
        mut j: Rc<Corner>,
        edge: usize,
    ) -> Option<(Rc<Corner>, Rc<Corner>)> {
        let mut moved = false;
        while let Some(at) = between(&i.at, &j.at, 1, 2) {
            let middle = self.corner(at);
            moved = true;
            if middle.told.edge(edge).upper() == i.told.edge(edge).upper() {
                i = middle;
            } else {
                j = middle;
            }
        }
        self.across.insert(i.at.clone(), j.at.clone());
        self.across.insert(j.at.clone(), i.at.clone());
        moved.then_some((i, j))
    }
}

impl Open {
    fn new(simplex: Vec<Rc<Corner>>) -> Open {
        Open { lowest: lowest_corner(&simplex), simplex }
    }
}

impl Steepness {
    /// A total that no point of a simplex is below.
    fn least_on(&self, simplex: &[Rc<Corner>]) -> Money {
        let from = |corner: &Rc<Corner>| {
            let fall = self
                .steepest
                .iter()
                .enumerate()
                .map(|(axis, &rate)| (Money::from_cents(reach(simplex, corner, axis)), rate));
            corner.total - Money::sum_of_products(fall, Money::CENT, Rounding::Up)
        };
        let least = simplex.iter().map(from).max().unwrap_or_default();
        if !self.jump.is_zero() && may_jump(simplex) { least - self.jump } else { least }
    }
}

fn lowest_corner(simplex: &[Rc<Corner>]) -> Money {
    simplex.iter().map(|c| c.total).min().unwrap_or_default()
}

/// Whether no way is on a whole simplex: at no corner, and the step that makes it so is linear there, as the corners
/// agree in every edge before it.
fn outside(simplex: &[Rc<Corner>]) -> bool {
    simplex.iter().all(|corner| corner.told.edges.outside) && {
        let step = simplex[0].told.edges.told.iter().position(|edge| edge.step);
        step.is_some_and(|step| match first_differing(simplex, 0) {
            Some(Differ::Side(edge)) => edge > step,
            Some(Differ::Edges) => false,
            None => true,
        })
    }
}

/// How far along an axis a simplex reaches from one of its corners.
fn reach(simplex: &[Rc<Corner>], corner: &Corner, axis: usize) -> i64 {
    simplex.iter().map(|c| (c.at[axis] - corner.at[axis]).abs()).max().unwrap_or(0)
}

/// Whether a step can lie in a simplex: not where its margin at some corner is more than the way to any point.
fn may_jump(simplex: &[Rc<Corner>]) -> bool {
    let near = |corner: &Rc<Corner>, edge: usize| {
        let way: i64 = (0..corner.at.len()).map(|axis| reach(simplex, corner, axis)).sum();
        corner.told.edge(edge).margin.abs() <= way * STEP_SLOPE
    };
    let told = simplex.iter().map(|c| c.told.edges.told.len()).min().unwrap_or(0);
    let steps = (0..told).filter(|&edge| simplex[0].told.edge(edge).step);
    steps.into_iter().any(|edge| simplex.iter().all(|corner| near(corner, edge)))
}

/// The point `part/whole` of the way from one to another, in whole cents; none where that is one of the two.
fn between(from: &[i64], to: &[i64], part: i128, whole: i128) -> Option<Vec<i64>> {
    let step = |(&a, &b): (&i64, &i64)| {
        let away = i128::from(b - a) * part;
        a + Rounding::HalfUp.divide(away * whole.signum(), whole.abs()) as i64
    };
    let at: Vec<i64> = from.iter().zip(to).map(step).collect();
    (at != from && at != to).then_some(at)
}

/// The pairs of a simplex's corners that are not near each other, those farthest apart first.
fn longest_first(simplex: &[Rc<Corner>]) -> Vec<(usize, usize)> {
    let mut pairs: Vec<_> = (0..simplex.len()).flat_map(|j| (0..j).map(move |i| (i, j))).collect();
    let apart = |&(i, j): &(usize, usize)| -> i64 {
        let (a, b) = (&simplex[i].at, &simplex[j].at);
        a.iter().zip(b).map(|(x, y)| (x - y).abs()).max().unwrap_or(0)
    };
    pairs.retain(|pair| apart(pair) >= NEAR);
    pairs.sort_by_key(|pair| std::cmp::Reverse(apart(pair)));
    pairs
}

/// The simplices of all points of a simplex, each with further amounts from zero to a most: a prism is cut along the
/// order of its corners, amount by amount.
fn prisms(base: Vec<Vec<i64>>, most: &[Money]) -> Vec<Vec<Vec<i64>>> {
    let with = |at: &Vec<i64>, amount: i64| at.iter().copied().chain([amount]).collect::<Vec<_>>();
    let Some((first, rest)) = most.split_first() else { return vec![base] };
    let cut = |turn: usize| {
        let low = base[..=turn].iter().map(|at| with(at, 0));
        low.chain(base[turn..].iter().map(|at| with(at, first.cents()))).collect::<Vec<_>>()
    };
    (0..base.len()).flat_map(|turn| prisms(cut(turn), rest)).collect()
}

/// Every order of so many axes.
fn orders(axes: usize) -> Vec<Vec<usize>> {
    let Some(last) = axes.checked_sub(1) else { return vec![Vec::new()] };
    let shorter = orders(last);
    let insert = |order: &Vec<usize>, place: usize| {
        let mut longer = order.clone();
        longer.insert(place, last);
        longer
    };
    shorter.iter().flat_map(|order| (0..=last).map(move |place| insert(order, place))).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{limit, trail::Trail};

    fn lowest(most: &[i64], mut total: impl FnMut(&[Money], &mut Edges) -> Money) -> (Vec<i64>, i64, usize) {
        let most: Vec<_> = most.iter().map(|&m| Money::whole(m)).collect();
        let mut corners: Vec<(i64, Vec<i64>)> = Vec::new();
        let at = |a: &[Money], e: &mut Edges| {
            let total = total(a, e);
            corners.push((total.cents(), a.iter().map(|m| m.cents()).collect()));
            At { total, lawful: total }
        };
        Explorer::new(at, Money::LARGEST).explore(&most, None, || false);
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

    #[test]
    fn a_prism_is_cut_into_simplices_that_fill_it() {
        // A segment with two more amounts: 2 × 3 tetrahedra of a sixth of the box each.
        let cut = prisms(vec![vec![0], vec![6]], &[Money::from_cents(6), Money::from_cents(6)]);
        let volume = |s: &Vec<Vec<i64>>| {
            let side = |i: usize, axis: usize| s[i][axis] - s[0][axis];
            let minor = |a: usize, b: usize| side(2, a) * side(3, b) - side(2, b) * side(3, a);
            (side(1, 0) * minor(1, 2) - side(1, 1) * minor(0, 2) + side(1, 2) * minor(0, 1)).abs()
        };
        assert_eq!(cut.len(), 6);
        assert!(cut.iter().all(|s| s.len() == 4 && volume(s) == 216), "{cut:?}");
    }

    #[test]
    fn orders_are_all_there() {
        assert_eq!(orders(0), vec![Vec::<usize>::new()]);
        assert_eq!((orders(2).len(), orders(4).len()), (2, 24));
    }
}
