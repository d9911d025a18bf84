//! A household as it is weighed: what a way takes, and what all its returns come to together.

use crate::{
    deducting, dividend_election, facts::Facts, gifts, law, medical_division, pension_split, plan::Plan,
    province, t1, tuition,
};
use hembo_core::{
    Decision, Household, Silent, Trail,
    choice::Choices,
    search::{Edges, Law, UNLAWFUL, View, Weighable},
};
use hembo_money::Money;

/// A household under the federal and provincial law.
pub struct CanadianCase<'h> {
    pub(crate) facts: Facts,
    pub(crate) household: &'h Household,
    choices: Choices<Facts>,
}

impl<'h> CanadianCase<'h> {
    /// A household from its facts.
    pub fn new(facts: Facts, household: &'h Household) -> CanadianCase<'h> {
        CanadianCase { choices: Choices::of(law::CHOICES, &facts), facts, household }
    }

    /// What a way takes, as the rules read it.
    pub(crate) fn plan(&self, view: &View<'_>) -> Plan {
        let (facts, way) = (&self.facts, self.choices.chosen(view));
        Plan {
            split: pension_split::chosen(facts, way),
            contributions: deducting::chosen(facts, way),
            dividends: dividend_election::chosen(facts, way),
            medical: medical_division::chosen(facts, way),
            caregivers: province::caring(facts, way),
            gifts: gifts::chosen(facts, way),
            tuition: tuition::chosen(facts, way),
            world: None,
        }
    }

    pub(crate) fn reckon(&self, way: &View<'_>, trail: &mut impl Trail) -> Money {
        t1::reckon(&self.facts, &self.plan(way), trail).unwrap_or(UNLAWFUL)
    }
}

impl Weighable for CanadianCase<'_> {
    fn decisions(&self) -> &[Decision] {
        self.choices.decisions()
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        self.choices.law(decision, &self.facts, view)
    }

    fn most(&self, decision: usize, view: &View<'_>) -> Money {
        self.choices.most(decision, &self.facts, view)
    }

    /// Where the partners change places in net income, Ontario counts the children with the other; and amounts may make
    /// an election of dividends unlawful.
    fn jump(&self) -> Money {
        let facts = &self.facts;
        let elected = if dividend_election::possible(facts) { UNLAWFUL } else { Money::ZERO };
        elected + deducting::jump_of_children(facts)
    }

    /// Claims move between all returns: the household is one part.
    fn parts(&self) -> usize {
        1
    }

    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.reckon(view, &mut Silent)
    }

    fn worlds(&self) -> usize {
        deducting::worlds(&self.facts)
    }

    fn total_in_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let plan = Plan { world: Some(deducting::world(&self.facts, world)), ..self.plan(view) };
        t1::reckon(&self.facts, &plan, edges).unwrap_or(UNLAWFUL)
    }

    fn inside_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let world = deducting::world(&self.facts, world);
        deducting::inside_world(&self.facts, world, &self.plan(view), edges)
    }

    fn leads_out_of_world(&self, world: usize, view: &View<'_>, decision: usize) -> bool {
        let out = deducting::leads_out_of_world(deducting::world(&self.facts, world), &self.plan(view));
        out.is_some_and(|person| self.choices.is(decision, &deducting::NOW, person))
    }

    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.reckon(view, edges)
    }
}
