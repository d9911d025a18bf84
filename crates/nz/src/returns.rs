//! A household as it is weighed: what a way takes, and what all its returns come to together.

use crate::{
    donations,
    facts::Facts,
    families, family_boost, foreign_funds,
    income::{self, Income},
    investments, law, managed_funds, other, overseas, payments,
    payments::Payable,
    plan::{On, Plan},
    rental, student_loan, tax, trade,
};
use hembo_core::{
    Decision, Household, Silent, Trail,
    choice::Choices,
    search::{Edges, Law, View, Weighable},
};
use hembo_money::Money;

/// A household under the law.
pub struct NewZealandCase<'h> {
    pub(crate) facts: Facts,
    pub(crate) household: &'h Household,
    choices: Choices<Facts>,
}

impl<'h> NewZealandCase<'h> {
    /// A household from its facts.
    pub fn new(facts: Facts, household: &'h Household) -> NewZealandCase<'h> {
        NewZealandCase { choices: Choices::of(law::CHOICES, &facts), facts, household }
    }

    /// What a way takes, as the rules read it.
    pub(crate) fn plan(&self, view: &View<'_>) -> Plan {
        let (facts, way) = (&self.facts, self.choices.chosen(view));
        Plan {
            claims_family: families::chosen(way),
            funds: foreign_funds::chosen(facts, way),
            by_formula: overseas::chosen(facts, way),
            listed: investments::chosen(facts, way),
            lets_apart: rental::chosen(facts, way),
            vehicles: trade::chosen_vehicles(way),
            rooms: trade::chosen_rooms(way),
            left_alone: other::chosen(facts, way),
            handed: donations::chosen(facts, way),
        }
    }

    /// All returns: first everyone's income, then tax and what is settled beside it.
    pub(crate) fn reckon(&self, view: &View<'_>, trail: &mut impl Trail) -> Money {
        let (facts, plan) = (&self.facts, self.plan(view));
        let on = |person: usize| On::of(facts, &plan, person);
        let incomes: Vec<(usize, Income)> =
            facts.returns.iter().map(|&person| (person, income::reckon(on(person), trail))).collect();
        let of_family: Vec<(usize, Income)> =
            incomes.iter().filter(|(person, _)| facts.people[*person].filer).cloned().collect();
        let mut total = Money::ZERO;
        for (place, (person, income)) in incomes.iter().enumerate() {
            let on = on(*person);
            let tax = tax::reckon(on, trail, income);
            let funds = managed_funds::reckon(on, trail);
            let donations = donations::reckon(on, trail, income.taxable);
            student_loan::reckon(on, trail, income);
            let family = match place {
                0 => payments::family_lines(
                    families::reckon(facts, on, trail, &of_family),
                    family_boost::reckon(facts, trail),
                ),
                _ => payments::family_lines(Money::ZERO, Money::ZERO),
            };
            let payable = Payable {
                after_credits: tax.after_credits,
                funds,
                donations,
                family,
                counted: facts.counts_family,
            };
            total += payments::reckon(on, trail, payable);
        }
        total
    }
}

impl Weighable for NewZealandCase<'_> {
    fn decisions(&self) -> &[Decision] {
        self.choices.decisions()
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        self.choices.law(decision, &self.facts, view)
    }

    fn most(&self, decision: usize, view: &View<'_>) -> Money {
        self.choices.most(decision, &self.facts, view)
    }

    /// No rule jumps with the gifts that are handed over, the one amount.
    fn jump(&self) -> Money {
        Money::ZERO
    }

    /// The family's credits go by the incomes of both: the household is one part.
    fn parts(&self) -> usize {
        1
    }

    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.reckon(view, &mut Silent)
    }

    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.reckon(view, edges)
    }
}
