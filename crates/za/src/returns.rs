//! A household as it is weighed: what a way takes, and what all its returns come to together.

use crate::{
    facts::Facts,
    gains, home_office,
    income::{self, Income},
    law, medical, payments,
    plan::{On, Plan},
    tax, trade, travel,
};
use hembo_core::{
    Decision, Household, Silent, Trail,
    choice::Choices,
    search::{Edges, Law, View, Weighable},
};
use hembo_money::Money;

/// A household under the law.
pub struct SouthAfricanCase<'h> {
    pub(crate) facts: Facts,
    pub(crate) household: &'h Household,
    choices: Choices<Facts>,
}

impl<'h> SouthAfricanCase<'h> {
    /// A household from its facts.
    pub fn new(facts: Facts, household: &'h Household) -> SouthAfricanCase<'h> {
        SouthAfricanCase { choices: Choices::of(law::CHOICES, &facts), facts, household }
    }

    /// What a way takes, as the rules read it.
    pub(crate) fn plan(&self, view: &View<'_>) -> Plan {
        let (facts, way) = (&self.facts, self.choices.chosen(view));
        Plan {
            joint_trades: trade::chosen(facts, way),
            travel: travel::chosen(facts, way),
            without_room: home_office::chosen(facts, way),
            base_costs: gains::chosen(facts, way),
            of_either: medical::chosen(way),
        }
    }

    /// All returns, each alone; with the income of each.
    pub(crate) fn reckon(&self, plan: &Plan, trail: &mut impl Trail) -> (Money, Vec<Income>) {
        let mut incomes = Vec::new();
        let mut total = Money::ZERO;
        for &person in &self.facts.returns {
            let on = On::of(&self.facts, plan, person);
            let income = income::reckon(on, trail);
            let normal = tax::reckon(on, trail, &income);
            total += payments::reckon(on, trail, normal);
            incomes.push(income);
        }
        (total, incomes)
    }
}

impl Weighable for SouthAfricanCase<'_> {
    fn decisions(&self) -> &[Decision] {
        self.choices.decisions()
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        self.choices.law(decision, &self.facts, view)
    }

    fn most(&self, decision: usize, view: &View<'_>) -> Money {
        self.choices.most(decision, &self.facts, view)
    }

    /// No rule jumps with the bills that are claimed, the one amount.
    fn jump(&self) -> Money {
        Money::ZERO
    }

    /// Joint trades and bills move between the spouses: the household is one part.
    fn parts(&self) -> usize {
        1
    }

    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.reckon(&self.plan(view), &mut Silent).0
    }

    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.reckon(&self.plan(view), edges).0
    }
}
