//! A household as it is weighed: what a way takes, and what all its assessments come to together.

use crate::{
    assessment, burdens, capital, children, credits,
    facts::Facts,
    filing, foreign_tax, law, letting,
    plan::{On, Plan},
    work,
};
use hembo_core::{
    Decision, Household, Scope, Silent, Trail,
    choice::Choices,
    search::{Edges, Law, View, Weighable},
};
use hembo_money::Money;

/// A household under the law.
pub struct GermanCase<'h> {
    pub(crate) facts: Facts,
    pub(crate) household: &'h Household,
    choices: Choices<Facts>,
}

impl<'h> GermanCase<'h> {
    /// A household from its facts.
    pub fn new(facts: Facts, household: &'h Household) -> GermanCase<'h> {
        GermanCase { choices: Choices::of(law::CHOICES, &facts), facts, household }
    }

    /// What a way takes, as the rules read it.
    pub(crate) fn plan(&self, view: &View<'_>) -> Plan {
        let (facts, way) = (&self.facts, self.choices.chosen(view));
        Plan {
            alone: filing::alone(facts, way),
            halves: filing::halves(way),
            capital: capital::chosen(facts, way),
            rooms: work::rooms(facts, way),
            trips: work::trips_as_way(facts, way),
            repairs: letting::chosen(facts, way),
            deducted: foreign_tax::chosen(facts, way),
            as_services: burdens::services(facts, way),
            taken_over: children::taken_over(facts, way),
            actual_costs: burdens::chosen(facts, way),
            energy: credits::chosen(facts, way),
            lump_to: children::chosen(facts, way, &children::LUMP_TO),
            training_to: children::chosen(facts, way, &children::TRAINING_TO),
        }
    }

    /// Who is assessed together in a way.
    pub(crate) fn assessed(&self, plan: &Plan) -> Vec<Vec<usize>> {
        if plan.alone {
            return self.facts.filers.iter().map(|&person| vec![person]).collect();
        }
        vec![self.facts.filers.clone()]
    }

    /// All assessments.
    pub(crate) fn reckon(&self, plan: &Plan, trail: &mut impl Trail) -> Money {
        let all = self.assessed(plan);
        let of = |(place, people): (usize, &Vec<usize>)| {
            assessment::reckon(On { facts: &self.facts, plan, people, scope: Scope::Return(place) }, trail)
        };
        all.iter().enumerate().map(of).sum()
    }
}

impl Weighable for GermanCase<'_> {
    fn decisions(&self) -> &[Decision] {
        self.choices.decisions()
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        self.choices.law(decision, &self.facts, view)
    }

    fn most(&self, decision: usize, view: &View<'_>) -> Money {
        self.choices.most(decision, &self.facts, view)
    }

    /// No amount is left open.
    fn jump(&self) -> Money {
        Money::ZERO
    }

    /// Spouses are assessed together or share what they paid: the household is one part.
    fn parts(&self) -> usize {
        1
    }

    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.reckon(&self.plan(view), &mut Silent)
    }

    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.reckon(&self.plan(view), edges)
    }
}
