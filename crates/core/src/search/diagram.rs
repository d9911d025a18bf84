//! Decision diagrams: a function of the decisions that a part or a law reads, in their order, with equal functions
//! kept once.

use super::{
    Weighable,
    view::{Leaf, Sums, Tally, Value, plus},
};
use hembo_money::Money;
use std::collections::{BTreeMap, HashMap};

/// A node of the diagrams.
pub(super) type NodeId = usize;

/// No lawful way comes here.
pub(super) const DEAD: NodeId = 0;

/// A node: a total, or a decision with a child for each value.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub(super) enum Node {
    Dead,
    Total(Money),
    Reads { decision: usize, children: Vec<NodeId>, support: Support },
}

/// The decisions below a node. Those from the 128th on share a bit, which connects more than need be and nothing less.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Default)]
pub(super) struct Support(u128);

impl Support {
    fn with(self, decision: usize) -> Support {
        Support(self.0 | 1 << decision.min(127))
    }

    pub(super) fn and(self, other: Support) -> Support {
        Support(self.0 | other.0)
    }

    pub(super) fn meets(self, other: Support) -> bool {
        self.0 & other.0 != 0
    }
}

/// All nodes, each once.
#[derive(Debug)]
pub(super) struct Diagrams {
    nodes: Vec<Node>,
    known: HashMap<Node, NodeId>,
}

/// Leaves that read the same values, with a total for each sum of a tally if they read one.
struct Cube {
    values: Vec<(usize, Value)>,
    tally: Option<Tally>,
    totals: BTreeMap<Sums, Money>,
}

/// How far a cube has been followed.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
struct Followed {
    cube: usize,
    value: usize,
    claim: usize,
    sum: Sums,
}

impl Diagrams {
    pub(super) fn new() -> Diagrams {
        Diagrams { nodes: vec![Node::Dead], known: HashMap::from([(Node::Dead, DEAD)]) }
    }

    pub(super) fn node(&self, id: NodeId) -> &Node {
        &self.nodes[id]
    }

    pub(super) fn support(&self, id: NodeId) -> Support {
        match &self.nodes[id] {
            Node::Reads { support, .. } => *support,
            _ => Support::default(),
        }
    }

    fn keep(&mut self, node: Node) -> NodeId {
        if let Some(&id) = self.known.get(&node) {
            return id;
        }
        self.nodes.push(node.clone());
        self.known.insert(node, self.nodes.len() - 1);
        self.nodes.len() - 1
    }

    /// The diagram of a function from its leaves.
    pub(super) fn of(&mut self, case: &dyn Weighable, leaves: Vec<Leaf>) -> NodeId {
        let cubes = cubes(case, leaves);
        let followed = |cube: usize| {
            let width = cubes[cube].totals.keys().next().map_or(0, Vec::len);
            Followed { cube, value: 0, claim: 0, sum: vec![0; width] }
        };
        let all = (0..cubes.len()).map(followed).collect();
        Building { case, cubes: &cubes, diagrams: self, done: HashMap::new() }.from(all)
    }
}

/// What the leaves of a cube have in common: the values read, by decision, and the tally read.
type Reads = (Vec<(usize, Value)>, Option<usize>);

fn cubes(case: &dyn Weighable, leaves: Vec<Leaf>) -> Vec<Cube> {
    let mut found: BTreeMap<Reads, BTreeMap<Sums, Money>> = BTreeMap::new();
    for Leaf { mut values, tally, result } in leaves {
        values.sort_unstable();
        let (tally, sum) = tally.map_or((None, Vec::new()), |(tally, sum)| (Some(tally), sum));
        found.entry((values, tally)).or_default().insert(sum, result);
    }
    let cube =
        |((values, tally), totals): (Reads, _)| Cube { values, tally: tally.map(|t| case.tally(t)), totals };
    found.into_iter().map(cube).collect()
}

struct Building<'a> {
    case: &'a dyn Weighable,
    cubes: &'a [Cube],
    diagrams: &'a mut Diagrams,
    done: HashMap<Vec<Followed>, NodeId>,
}

impl Building<'_> {
    fn from(&mut self, at: Vec<Followed>) -> NodeId {
        if let Some(&id) = self.done.get(&at) {
            return id;
        }
        let id = match at.iter().filter_map(|f| self.next(f)).min() {
            None => self.end(&at),
            Some(decision) => self.branch(&at, decision),
        };
        self.done.insert(at, id);
        id
    }

    /// The next decision that a cube names.
    fn next(&self, followed: &Followed) -> Option<usize> {
        let cube = &self.cubes[followed.cube];
        let value = cube.values.get(followed.value).map(|(decision, _)| *decision);
        let claim = cube.tally.as_ref().and_then(|t| t.claims.get(followed.claim)).copied();
        value.into_iter().chain(claim).min()
    }

    /// Leaves are disjoint: at most one is left.
    fn end(&mut self, at: &[Followed]) -> NodeId {
        let total = at.first().and_then(|f| self.cubes[f.cube].totals.get(&f.sum));
        total.map_or(DEAD, |&total| self.diagrams.keep(Node::Total(total)))
    }

    fn branch(&mut self, at: &[Followed], decision: usize) -> NodeId {
        let options = self.case.decisions()[decision].options.len() as Value;
        let children: Vec<NodeId> = (0..=options)
            .map(|value| {
                let along = at.iter().filter_map(|f| self.follow(f, decision, value)).collect();
                self.from(along)
            })
            .collect();
        if children.iter().all(|child| *child == children[0]) {
            return children[0];
        }
        let below = children.iter().map(|&child| self.diagrams.support(child));
        let support = below.fold(Support::default(), Support::and).with(decision);
        self.diagrams.keep(Node::Reads { decision, children, support })
    }

    /// A cube with a decision at a value; nothing where it names another one.
    fn follow(&self, followed: &Followed, decision: usize, value: Value) -> Option<Followed> {
        let cube = &self.cubes[followed.cube];
        if let Some((_, named)) = cube.values.get(followed.value).filter(|(d, _)| *d == decision) {
            let next = Followed { value: followed.value + 1, ..followed.clone() };
            return (*named == value).then_some(next);
        }
        let claim = cube.tally.as_ref().filter(|t| t.claims.get(followed.claim) == Some(&decision));
        let Some(tally) = claim else { return Some(followed.clone()) };
        let weights = value.checked_sub(1).and_then(|o| tally.weights[followed.claim].get(usize::from(o)));
        let sum = plus(&followed.sum, weights);
        Some(Followed { claim: followed.claim + 1, sum, ..followed.clone() })
    }
}
