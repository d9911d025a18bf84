//! A household as it is weighed: what a way takes, and what all its returns come to together.

use crate::{
    adoption, capital_cost, capital_gains, child_care, cpp_ei, deducting, dependants, dividend_election,
    facts::Facts,
    foreign_income, gains_exemption, gifts, home_credits, law, loan_interest, medical, medical_division,
    non_capital, northern, others_medical, pension_split,
    plan::{Plan, World},
    province, provincial_adoption, provincial_credits, provincial_tuition, saskatchewan, separation, t1,
    tuition, volunteers,
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
    /// The worlds of its amounts: they hang on the facts alone, and every point of a search asks for one.
    worlds: Vec<World>,
}

impl<'h> CanadianCase<'h> {
    /// A household from its facts.
    pub fn new(facts: Facts, household: &'h Household) -> CanadianCase<'h> {
        let worlds = deducting::worlds(&facts);
        CanadianCase { choices: Choices::of(law::CHOICES, &facts), facts, household, worlds }
    }

    /// What a way takes of that by which net incomes go, and who claims the amount for a partner.
    fn plan_of_net_income(&self, view: &View<'_>) -> Plan {
        let (facts, way) = (&self.facts, self.choices.chosen(view));
        Plan {
            split: pension_split::chosen(facts, way),
            contributions: deducting::chosen(facts, way),
            capital_cost: capital_cost::chosen(facts, way),
            volunteers_exempt: volunteers::chosen(facts, way),
            care_by: child_care::chosen_by(facts, way),
            care_of_higher: child_care::chosen_of_higher(way),
            dividends: dividend_election::chosen(facts, way),
            former: separation::chosen(way),
            spouse_with: dependants::spouse_with(facts, way),
            deducts_foreign_tax: foreign_income::chosen(facts, way),
            ..Plan::default()
        }
    }

    /// What a way takes, as the rules read it.
    pub(crate) fn plan(&self, view: &View<'_>) -> Plan {
        let (facts, way) = (&self.facts, self.choices.chosen(view));
        let of_net_income = self.plan_of_net_income(view);
        Plan {
            losses: capital_gains::chosen(facts, way),
            exemption: gains_exemption::chosen(facts, way),
            non_capital: non_capital::chosen(facts, way),
            northern: northern::chosen(facts, way),
            medical: medical_division::chosen(facts, way),
            medical_of_others: others_medical::chosen(facts, way),
            dependant: dependants::chosen(facts, way).filter(|_| !of_net_income.former),
            claims: dependants::claims(facts, way),
            children_by: saskatchewan::children_by(facts, way),
            home_credits: home_credits::chosen(way),
            adoption: adoption::chosen(way),
            adoption_provincial: provincial_adoption::chosen(way),
            loan_interest: loan_interest::chosen(facts, way),
            training: tuition::chosen_training(facts, way),
            gifts: gifts::chosen(facts, way),
            tuition: provincial_tuition::chosen(facts, way),
            ..of_net_income
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

    /// Where the partners change places in net income, a province may count the children with the other; it may have a credit
    /// that ends at an income; amounts may make an election of dividends unlawful; and what a business brings after its capital cost
    /// opens the medical supplement, and decides how contributions to the pension plan are compared.
    fn jump(&self) -> Money {
        let facts = &self.facts;
        let elected = if dividend_election::possible(facts) { UNLAWFUL } else { Money::ZERO };
        elected + deducting::jump_of_children(facts) + deducting::jump_of_care(facts) + self.jump_in_worlds()
    }

    /// Without the first three.
    fn jump_in_worlds(&self) -> Money {
        let facts = &self.facts;
        province::jump(facts) + provincial_credits::jump(facts) + medical::jump(facts) + cpp_ei::jump(facts)
    }

    /// Claims move between all returns: the household is one part.
    fn parts(&self) -> usize {
        1
    }

    fn total(&self, _: usize, view: &View<'_>) -> Money {
        self.reckon(view, &mut Silent)
    }

    fn worlds(&self) -> usize {
        self.worlds.len()
    }

    fn total_in_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let plan = Plan { world: Some(self.worlds[world]), ..self.plan(view) };
        t1::reckon(&self.facts, &plan, edges).unwrap_or(UNLAWFUL)
    }

    fn inside_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let (world, plan) = (self.worlds[world], self.plan_of_net_income(view));
        let inside = deducting::inside_world(&self.facts, world, &plan, edges);
        debug_assert_eq!(
            inside,
            deducting::inside_world(&self.facts, world, &self.plan(view), &mut Edges::default())
        );
        inside
    }

    fn leads_out_of_world(&self, world: usize, view: &View<'_>, decision: usize) -> bool {
        let out = deducting::leads_out_of_world(&self.facts, self.worlds[world], &self.plan(view));
        out.is_some_and(|person| {
            let is_of_business = |place: usize| {
                self.facts.businesses[place].owner == person
                    && self.choices.is(decision, &capital_cost::NOW, place)
            };
            self.choices.is(decision, &deducting::NOW, person)
                || (0..self.facts.businesses.len()).any(is_of_business)
        })
    }

    /// Those that move a net income.
    fn moves_inside(&self, decision: usize) -> bool {
        let moving = [&pension_split::AMOUNT, &child_care::OF_HIGHER];
        moving.iter().any(|choice| self.choices.each(choice).any(|(_, of)| of == decision))
    }

    fn total_with_edges(&self, _: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.reckon(view, edges)
    }
}
