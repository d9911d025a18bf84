//! The edges that a computation met, each with its identity and the side it was on, and how points differ in them.
//!
//! Lines are rounded to cents, so that margins are known to a few cents; within [`WITHIN`] a point stands on the edge.

use crate::{
    limit::{LimitAt, LimitTaken},
    line::LineId,
    trail::{Inputs, Scope, Trail},
};
use hembo_money::Money;
use std::panic::Location;

/// As near as this to an edge counts as on it: the cents that rounded lines add up to.
const WITHIN: i64 = 5;

/// Spreads the bits of what is mixed with it.
const MIX: u64 = 0x9E37_79B9_7F4A_7C15;

/// A trail that notes on which side of every edge a computation is, and nothing else.
#[derive(Debug, Default, Clone)]
pub struct Edges {
    pub(super) told: Vec<Edge>,
    /// Where the total is not linear between them.
    pub(super) curves: Vec<Curve>,
    /// No way is here: the total only goes on evenly from where one is.
    pub(super) outside: bool,
}

impl Edges {
    /// None yet, with room for so many.
    pub(super) fn with_room(edges: usize) -> Edges {
        Edges { told: Vec::with_capacity(edges), ..Edges::default() }
    }

    /// The places in the rules that told them, in their order.
    pub fn places(&self) -> impl Iterator<Item = &'static Location<'static>> + '_ {
        self.told.iter().map(|edge| edge.place)
    }

    /// Leaves out those that a place told: what a search would come to that does not know them.
    pub fn forget(&mut self, place: &'static Location<'static>) {
        self.told.retain(|edge| edge.place != place);
    }

    /// Marks the point as one at which no way is.
    pub(super) fn outside(&mut self) {
        self.outside = true;
    }
}

#[derive(Debug, Clone, Copy)]
pub(super) struct Edge {
    pub(super) margin: i64,
    pub(super) step: bool,
    matters: bool,
    /// The place in the rules that tells it: which edge it is.
    place: &'static Location<'static>,
}

/// A part in the proportion that something bears to `over`.
#[derive(Debug, Clone, Copy)]
pub(super) struct Curve {
    pub(super) part: Money,
    pub(super) over: Money,
}

impl Edge {
    /// The side, or none for an edge that this point stands on.
    pub(super) fn side(self) -> Option<bool> {
        (self.margin.abs() > WITHIN).then_some(self.upper())
    }

    /// The side that the rule took.
    pub(super) fn upper(self) -> bool {
        self.margin >= 0
    }
}

impl Trail for Edges {
    #[inline(always)]
    fn line(&mut self, _: LineId, _: Scope, amount: Money, _: impl FnOnce(&mut Inputs)) -> Money {
        amount
    }

    #[inline(always)]
    fn limit(&mut self, _: LimitAt, _: impl FnOnce() -> LimitTaken) {}

    #[inline(always)]
    #[track_caller]
    fn edge(&mut self, margin: Money, matters: bool) {
        self.told.push(Edge { margin: margin.cents(), step: false, matters, place: Location::caller() });
    }

    #[inline(always)]
    #[track_caller]
    fn step(&mut self, margin: Money, matters: bool) {
        self.told.push(Edge { margin: margin.cents(), step: true, matters, place: Location::caller() });
    }

    #[inline(always)]
    fn curve(&mut self, part: Money, over: Money) {
        self.curves.push(Curve { part, over });
    }
}

/// The edges that were told at a point, and on which sides of them it is.
#[derive(Debug)]
pub(super) struct Told {
    pub(super) edges: Edges,
    sides: Vec<Sides>,
}

impl Told {
    pub(super) fn of(edges: Edges) -> Told {
        Told { sides: Sides::of(&edges), edges }
    }

    /// An edge by its place among those told.
    pub(super) fn edge(&self, place: usize) -> Edge {
        self.edges.told[place]
    }
}

/// On which side of 64 edges a point is, a bit an edge: so that the edges of several points are compared 64 at once.
#[derive(Debug, Default, Clone, Copy)]
struct Sides {
    /// Clearly above, clearly below, and above by the rule that was taken.
    above: u64,
    below: u64,
    upper: u64,
    step: u64,
    matters: u64,
    /// Which edges they are and how many, in one number.
    which: u64,
}

impl Sides {
    /// Those of all edges.
    fn of(edges: &Edges) -> Vec<Sides> {
        edges.told.chunks(64).map(Sides::of_word).collect()
    }

    fn of_word(edges: &[Edge]) -> Sides {
        let mut sides = Sides::default();
        for (place, edge) in edges.iter().enumerate() {
            let bit = |is: bool| u64::from(is) << place;
            sides.above |= bit(edge.margin > WITHIN);
            sides.below |= bit(edge.margin < -WITHIN);
            sides.upper |= bit(edge.upper());
            sides.step |= bit(edge.step);
            sides.matters |= bit(edge.matters);
            let which = sides.which ^ std::ptr::from_ref(edge.place).addr() as u64;
            sides.which = which.rotate_left(5).wrapping_mul(MIX);
        }
        sides
    }
}

/// Where points differ.
pub(super) enum Differ {
    /// They are on two sides of an edge that matters.
    Side(usize),
    /// From this one on they tell other edges: a rule went another way.
    Edges,
}

/// Where points first differ from a place on; `told` is what was told at one.
pub(super) fn differ<P>(points: &[P], told: fn(&P) -> &Told, from: usize) -> Option<Differ> {
    let words = points.iter().map(|p| told(p).sides.len());
    let (least, most) = (words.clone().min().unwrap_or(0), words.max().unwrap_or(0));
    for word in from / 64..least {
        let side = |point: &P| told(point).sides[word];
        let any = |pick: fn(Sides) -> u64| points.iter().fold(0, |all, p| all | pick(side(p)));
        let apart = any(|s| s.above) & any(|s| s.below);
        let stepped = side(&points[0]).step & any(|s| s.upper) & any(|s| !s.upper);
        let mut found = any(|s| s.matters) & (apart | stepped);
        if word == from / 64 {
            found &= u64::MAX << (from % 64);
        }
        let same = points.iter().all(|p| side(p).which == side(&points[0]).which);
        let edge = word * 64 + found.trailing_zeros() as usize;
        if !same && (found == 0 || edge >= same_up_to(points, told, word * 64)) {
            return Some(Differ::Edges);
        }
        if found != 0 {
            return Some(Differ::Side(edge));
        }
    }
    (least < most).then_some(Differ::Edges)
}

/// Up to where all points tell the same edges, from a place on.
fn same_up_to<P>(points: &[P], told: fn(&P) -> &Told, from: usize) -> usize {
    let place = |point: &P, edge: usize| told(point).edges.told.get(edge).map(|e| e.place);
    let other = |edge: &usize| points.iter().any(|p| place(p, *edge) != place(&points[0], *edge));
    (from..).find(other).unwrap_or(from)
}
