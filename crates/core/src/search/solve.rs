//! Sums and minima over diagrams: counts, the lowest total, the price of every value, and the lowest ways in order.
//!
//! A set of nodes is solved by its lowest decision: for each value the nodes that read it give way to their children, and
//! what is left falls into components that share no decision. Those never meet: they multiply in the count and add in
//! the minimum. *Why that is exact:* a node is its future, so equal sets of nodes have equal futures and are solved once.

use super::{
    Stop, Weighable,
    diagram::{DEAD, Diagrams, Node, NodeId, Support},
    view::{CLOSED, TooMany, Value},
};
use crate::decision::Taken;
use hembo_money::Money;
use std::{
    cmp::Reverse,
    collections::{BTreeMap, BinaryHeap, HashMap, HashSet},
};

/// A set of nodes that were solved.
type RecordId = usize;

/// What a way takes of each decision, closed or an option plus one: ways compare as they are listed.
pub(super) type Packed = Vec<Value>;

/// All values of the decisions that a record decides on, and their total.
type Item = (Money, Packed);

/// A solved set of nodes.
struct Record {
    decision: usize,
    branches: Vec<Branch>,
    lowest: Money,
    count: u128,
    /// The lowest items in order, as far as anyone asked.
    listed: Vec<Item>,
    /// What may come next; none until the first is asked for.
    ahead: Option<Ahead>,
}

struct Branch {
    value: Value,
    cost: Money,
    components: Vec<RecordId>,
}

/// Candidates for the next item: a branch, and an index into the list of each of its components.
#[derive(Default)]
struct Ahead {
    heap: BinaryHeap<Reverse<(Item, usize, Vec<usize>)>>,
    seen: HashSet<(usize, Vec<usize>)>,
}

/// The whole problem: components that share no decision, and what is the same in every way.
#[derive(Default)]
struct Whole {
    cost: Money,
    components: Vec<RecordId>,
    alive: bool,
}

/// Diagrams solved under evidence.
pub(super) struct Solved<'a> {
    diagrams: &'a Diagrams,
    sizes: Vec<usize>,
    /// A decision that is held is closed or takes this option.
    held: &'a BTreeMap<usize, Taken>,
    /// So many sets of nodes are solved at the most.
    most: usize,
    stop: &'a Stop,
    records: Vec<Record>,
    known: HashMap<Vec<NodeId>, Option<RecordId>>,
    root: Whole,
}

impl<'a> Solved<'a> {
    /// Solves the sum of all factors.
    ///
    /// # Errors
    /// Where too many sets of nodes came of them.
    pub(super) fn of(
        case: &dyn Weighable,
        diagrams: &'a Diagrams,
        factors: &[NodeId],
        held: &'a BTreeMap<usize, Taken>,
        most: usize,
        stop: &'a Stop,
    ) -> Result<Solved<'a>, TooMany> {
        let sizes = case.decisions().iter().map(|d| d.options.len()).collect();
        let (records, known) = (Vec::new(), HashMap::new());
        let mut solved = Solved { diagrams, sizes, held, most, stop, records, known, root: Whole::default() };
        let found = solved.split(factors);
        if solved.known.len() > most {
            return Err(TooMany((0..case.decisions().len()).collect()));
        }
        solved.root =
            found.map_or(Whole::default(), |(cost, components)| Whole { cost, components, alive: true });
        Ok(solved)
    }

    /// How many ways there are; at the largest number it stands for that many or more.
    pub(super) fn count(&self) -> u128 {
        if self.root.alive { self.count_of(&self.root.components) } else { 0 }
    }

    fn count_of(&self, components: &[RecordId]) -> u128 {
        components.iter().fold(1, |count: u128, &c| count.saturating_mul(self.records[c].count))
    }

    fn lowest_of(&self, components: &[RecordId]) -> Money {
        components.iter().map(|&c| self.records[c].lowest).sum()
    }

    /// The costs that are settled among these nodes, and the components of the rest; nothing where one is dead.
    fn split(&mut self, nodes: &[NodeId]) -> Option<(Money, Vec<RecordId>)> {
        let (mut cost, mut open) = (Money::ZERO, Vec::new());
        for &node in nodes {
            match self.diagrams.node(node) {
                Node::Dead => return None,
                Node::Total(total) => cost += *total,
                Node::Reads { .. } => open.push(node),
            }
        }
        let mut components = Vec::new();
        for mut component in self.connected(open) {
            component.sort_unstable();
            components.push(self.solve(component)?);
        }
        Some((cost, components))
    }

    /// Nodes in groups that share no decision.
    fn connected(&self, nodes: Vec<NodeId>) -> Vec<Vec<NodeId>> {
        let mut groups: Vec<(Support, Vec<NodeId>)> = Vec::new();
        for node in nodes {
            let support = self.diagrams.support(node);
            let (meeting, apart): (Vec<_>, Vec<_>) = groups.into_iter().partition(|g| g.0.meets(support));
            let mut joined = (support, vec![node]);
            for (support, nodes) in meeting {
                joined.0 = joined.0.and(support);
                joined.1.extend(nodes);
            }
            groups = apart;
            groups.push(joined);
        }
        groups.into_iter().map(|(_, nodes)| nodes).collect()
    }

    fn solve(&mut self, component: Vec<NodeId>) -> Option<RecordId> {
        if let Some(known) = self.known.get(&component) {
            return *known;
        }
        if self.stop.is_stopped() || self.known.len() > self.most {
            return None;
        }
        let reads = |node: &NodeId| match self.diagrams.node(*node) {
            Node::Reads { decision, .. } => Some(*decision),
            _ => None,
        };
        let decision = component.iter().filter_map(reads).min()?;
        let values = self.allowed(decision);
        let branches: Vec<Branch> = values
            .into_iter()
            .filter_map(|value| {
                let next: Vec<NodeId> =
                    component.iter().map(|&node| self.child(node, decision, value)).collect();
                let (cost, components) = self.split(&next)?;
                Some(Branch { value, cost, components })
            })
            .collect();
        let lowest = branches.iter().map(|b| b.cost + self.lowest_of(&b.components)).min();
        let count = branches.iter().map(|b| self.count_of(&b.components)).fold(0, u128::saturating_add);
        let record = lowest.map(|lowest| {
            let record = Record { decision, branches, lowest, count, listed: Vec::new(), ahead: None };
            self.records.push(record);
            self.records.len() - 1
        });
        self.known.insert(component, record);
        record
    }

    /// The values of a decision that the evidence allows.
    fn allowed(&self, decision: usize) -> Vec<Value> {
        match self.held.get(&decision) {
            Some(Taken::Option(option)) => vec![CLOSED, option + 1],
            _ => (0..=self.sizes[decision] as Value).collect(),
        }
    }

    fn child(&self, node: NodeId, decision: usize, value: Value) -> NodeId {
        match self.diagrams.node(node) {
            Node::Reads { decision: d, children, .. } if *d == decision => {
                children.get(usize::from(value)).copied().unwrap_or(DEAD)
            }
            _ => node,
        }
    }

    /// For each decision and value the lowest total of all ways that take it.
    pub(super) fn prices(&self) -> Vec<Vec<Option<Money>>> {
        let mut prices: Vec<_> = self.sizes.iter().map(|&n| vec![None; n + 1]).collect();
        if !self.root.alive {
            return prices;
        }
        // What everything else comes to at least; a record is made after those it leads to.
        let mut outside: Vec<Option<Money>> = vec![None; self.records.len()];
        let total = self.root.cost + self.lowest_of(&self.root.components);
        for &c in &self.root.components {
            outside[c] = Some(total - self.records[c].lowest);
        }
        for (id, record) in self.records.iter().enumerate().rev() {
            let Some(others) = outside[id] else { continue };
            for branch in &record.branches {
                let through = others + branch.cost + self.lowest_of(&branch.components);
                lower(&mut prices[record.decision][usize::from(branch.value)], through);
                for &c in &branch.components {
                    lower(&mut outside[c], through - self.records[c].lowest);
                }
            }
        }
        prices
    }

    /// The lowest ways in their order, as many as are wanted.
    pub(super) fn ranking(&mut self, most: usize) -> Vec<Item> {
        let root = std::mem::take(&mut self.root);
        let mut ahead = Ahead::default();
        if root.alive {
            self.offer(&mut ahead, 0, root.cost, None, &root.components, vec![0; root.components.len()]);
        }
        let mut found = Vec::new();
        while found.len() < most {
            let Some(Reverse((item, _, indexes))) = ahead.heap.pop() else { break };
            self.offer_after(&mut ahead, 0, root.cost, None, &root.components, &indexes);
            found.push(item);
        }
        self.root = root;
        found
    }

    /// The item of a record at an index, if it has so many.
    fn item(&mut self, record: RecordId, index: usize) -> Option<Item> {
        while self.records[record].listed.len() <= index {
            let mut ahead = match self.records[record].ahead.take() {
                Some(ahead) => ahead,
                None => self.first_of(record),
            };
            let next = ahead.heap.pop();
            if let Some(Reverse((item, branch, indexes))) = next {
                let Branch { value, cost, components } = &self.records[record].branches[branch];
                let decided = (self.records[record].decision, *value);
                let (cost, components) = (*cost, components.clone());
                self.offer_after(&mut ahead, branch, cost, Some(decided), &components, &indexes);
                self.records[record].listed.push(item);
                self.records[record].ahead = Some(ahead);
            } else {
                self.records[record].ahead = Some(ahead);
                return None;
            }
        }
        self.records[record].listed.get(index).cloned()
    }

    fn first_of(&mut self, record: RecordId) -> Ahead {
        let mut ahead = Ahead::default();
        for branch in 0..self.records[record].branches.len() {
            let Branch { value, cost, components } = &self.records[record].branches[branch];
            let decided = (self.records[record].decision, *value);
            let (cost, components) = (*cost, components.clone());
            self.offer(&mut ahead, branch, cost, Some(decided), &components, vec![0; components.len()]);
        }
        ahead
    }

    /// Offers what comes after a combination: each index raised in turn. Total and way grow with every index.
    fn offer_after(
        &mut self,
        ahead: &mut Ahead,
        branch: usize,
        cost: Money,
        decided: Option<(usize, Value)>,
        components: &[RecordId],
        indexes: &[usize],
    ) {
        for raised in 0..indexes.len() {
            let mut next = indexes.to_vec();
            next[raised] += 1;
            self.offer(ahead, branch, cost, decided, components, next);
        }
    }

    fn offer(
        &mut self,
        ahead: &mut Ahead,
        branch: usize,
        cost: Money,
        decided: Option<(usize, Value)>,
        components: &[RecordId],
        indexes: Vec<usize>,
    ) {
        if !ahead.seen.insert((branch, indexes.clone())) {
            return;
        }
        let (mut total, mut way) = (cost, vec![CLOSED; self.sizes.len()]);
        if let Some((decision, value)) = decided {
            way[decision] = value;
        }
        for (&component, &index) in components.iter().zip(&indexes) {
            let Some((more, values)) = self.item(component, index) else { return };
            total += more;
            // Components decide on different decisions: what one leaves closed another may take.
            way.iter_mut().zip(values).for_each(|(here, there)| *here = (*here).max(there));
        }
        ahead.heap.push(Reverse(((total, way), branch, indexes)));
    }
}

fn lower(price: &mut Option<Money>, total: Money) {
    *price = Some(price.map_or(total, |best| best.min(total)));
}
