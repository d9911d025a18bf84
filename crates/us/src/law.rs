//! The provisions of the federal law, in its order: a new one has its line here.

use crate::{
    additional_deductions, additional_taxes, adoption, asked, bringing::Bringing, business,
    business_deduction, business_property, california, capital_gains, care, child_credit, claims,
    clean_vehicles, community, credits, deduction, dependents, due_diligence, earlier_minimum_tax,
    early_distributions, earned_income_credit, education, education_bonds, education_plans, educators,
    elderly, every_paper, excess_contributions, excess_deferrals, facts::Facts, filing_duty,
    foreign_accounts, foreign_tax, gains_tax, government_payments, health_savings, home_energy, home_office,
    home_sale, homebuyer_credit, household_employees, incentive_options, income, ira_basis, ira_deduction,
    itemized_limit, kiddie, long_term_care, minimum_tax, minimum_tax_items, misclassified_pay,
    mortgage_credit, moving, multiple_support, nonresident, not_computed, operating_loss, optional_earnings,
    other_adjustments, other_income, papers, parents_election, pass_through, passive_losses, payments,
    people, points::Points, premium_tax_credit, refund, refunded_taxes, release, rentals, repayments,
    retirement, saver, schedule_1, schedule_a, scholarships, self_employed_cover, self_employment, signing,
    social_security, standard_deduction, states, status, student_loan, tax, taxable_income, taxed_later,
    tie_breaker, total_tax, underpayment, union_plan, unitemized_gifts, unreported_tips, untaxed_pay,
};
use hembo_core::{
    choice::Open,
    provision::{self, Declared},
};
use std::sync::LazyLock;

/// A provision at work.
type Rule = provision::Rule<fn(&mut Bringing<'_>), fn(&mut Points<'_>)>;

/// Every provision.
static LAW: &[Rule] = &[
    Rule::new(&dependents::PROVISION).finds(dependents::points),
    Rule::new(&tie_breaker::PROVISION).finds(tie_breaker::points),
    Rule::new(&multiple_support::PROVISION).finds(multiple_support::points),
    Rule::new(&release::PROVISION).finds(release::points),
    Rule::new(&status::PROVISION).finds(status::points),
    Rule::new(&filing_duty::PROVISION).finds(filing_duty::points),
    Rule::new(&people::PROVISION).finds(people::points),
    Rule::new(&nonresident::PROVISION).finds(nonresident::points),
    Rule::new(&states::PROVISION).finds(states::points),
    Rule::new(&community::PROVISION).finds(community::points),
    Rule::new(&papers::w2::PROVISION).reads(papers::w2::read).finds(papers::w2::points),
    Rule::new(&papers::interest::PROVISION).reads(papers::interest::read).finds(papers::interest::points),
    Rule::new(&papers::original_discount::PROVISION).reads(papers::original_discount::read),
    Rule::new(&papers::discount_note::PROVISION)
        .reads(papers::discount_note::read)
        .finds(papers::discount_note::points),
    Rule::new(&papers::dividends::PROVISION).reads(papers::dividends::read).finds(papers::dividends::points),
    Rule::new(&papers::broker::PROVISION),
    Rule::new(&papers::sales::PROVISION).reads(papers::sales::read).finds(papers::sales::points),
    Rule::new(&home_sale::PROVISION).reads(home_sale::read).finds(home_sale::points),
    Rule::new(&capital_gains::PROVISION).reads(capital_gains::read).finds(capital_gains::points),
    Rule::new(&papers::retirement::PROVISION)
        .reads(papers::retirement::read)
        .finds(papers::retirement::points),
    Rule::new(&ira_basis::PROVISION).reads(ira_basis::read).finds(ira_basis::points),
    Rule::new(&taxed_later::PROVISION).reads(taxed_later::read).finds(taxed_later::points),
    Rule::new(&retirement::PROVISION),
    Rule::new(&social_security::PROVISION).reads(social_security::read).finds(social_security::points),
    Rule::new(&government_payments::PROVISION)
        .reads(government_payments::read)
        .finds(government_payments::points),
    Rule::new(&education_plans::PROVISION).reads(education_plans::read).finds(education_plans::points),
    Rule::new(&other_income::PROVISION).reads(other_income::read).finds(other_income::points),
    Rule::new(&repayments::PROVISION).reads(repayments::read).finds(repayments::points),
    Rule::new(&long_term_care::PROVISION).reads(long_term_care::read).finds(long_term_care::points),
    Rule::new(&excess_deferrals::PROVISION).finds(excess_deferrals::points),
    Rule::new(&educators::PROVISION).reads(educators::read),
    Rule::new(&home_office::PROVISION).reads(home_office::read).finds(home_office::points),
    Rule::new(&business::PROVISION).reads(business::read).finds(business::points),
    Rule::new(&pass_through::PROVISION).reads(pass_through::read).finds(pass_through::points),
    Rule::new(&operating_loss::PROVISION).reads(operating_loss::read).finds(operating_loss::points),
    Rule::new(&business_property::PROVISION).reads(business_property::read),
    Rule::new(&rentals::PROVISION).reads(rentals::read).finds(rentals::points),
    Rule::new(&passive_losses::PROVISION).finds(passive_losses::points),
    Rule::new(&optional_earnings::PROVISION).finds(optional_earnings::points),
    Rule::new(&self_employment::PROVISION).reads(self_employment::read).finds(self_employment::points),
    Rule::new(&health_savings::PROVISION).reads(health_savings::read).finds(health_savings::points),
    Rule::new(&ira_deduction::PROVISION).reads(ira_deduction::read).finds(ira_deduction::points),
    Rule::new(&education_bonds::PROVISION).reads(education_bonds::read).finds(education_bonds::points),
    Rule::new(&student_loan::PROVISION).reads(student_loan::read).finds(student_loan::points),
    Rule::new(&union_plan::PROVISION),
    Rule::new(&unreported_tips::PROVISION),
    Rule::new(&misclassified_pay::PROVISION).reads(misclassified_pay::read).finds(misclassified_pay::points),
    Rule::new(&untaxed_pay::PROVISION),
    Rule::new(&other_adjustments::PROVISION).reads(other_adjustments::read).finds(other_adjustments::points),
    Rule::new(&moving::PROVISION).reads(moving::read).finds(moving::points),
    Rule::new(&schedule_1::PROVISION),
    Rule::new(&foreign_accounts::PROVISION).finds(foreign_accounts::points),
    Rule::new(&income::PROVISION).finds(income::points),
    Rule::new(&schedule_a::medical::PROVISION)
        .reads(schedule_a::medical::read)
        .finds(schedule_a::medical::points),
    Rule::new(&schedule_a::taxes::PROVISION).reads(schedule_a::taxes::read).finds(schedule_a::taxes::points),
    Rule::new(&schedule_a::home_loan::PROVISION)
        .reads(schedule_a::home_loan::read)
        .finds(schedule_a::home_loan::points),
    Rule::new(&schedule_a::investment_interest::PROVISION)
        .reads(schedule_a::investment_interest::read)
        .finds(schedule_a::investment_interest::points),
    Rule::new(&schedule_a::casualty::PROVISION)
        .reads(schedule_a::casualty::read)
        .finds(schedule_a::casualty::points),
    Rule::new(&schedule_a::gifts::PROVISION).reads(schedule_a::gifts::read).finds(schedule_a::gifts::points),
    Rule::new(&schedule_a::other::PROVISION).reads(schedule_a::other::read).finds(schedule_a::other::points),
    Rule::new(&deduction::PROVISION),
    Rule::new(&standard_deduction::PROVISION),
    Rule::new(&additional_deductions::PROVISION)
        .reads(additional_deductions::read)
        .finds(additional_deductions::points),
    Rule::new(&unitemized_gifts::PROVISION),
    Rule::new(&business_deduction::PROVISION)
        .reads(business_deduction::read)
        .finds(business_deduction::points),
    Rule::new(&itemized_limit::PROVISION),
    Rule::new(&taxable_income::PROVISION),
    Rule::new(&gains_tax::PROVISION),
    Rule::new(&tax::PROVISION),
    Rule::new(&parents_election::PROVISION),
    Rule::new(&kiddie::PROVISION).finds(kiddie::points),
    Rule::new(&incentive_options::PROVISION).reads(incentive_options::read).finds(incentive_options::points),
    Rule::new(&minimum_tax_items::PROVISION).reads(minimum_tax_items::read),
    Rule::new(&minimum_tax::PROVISION).finds(minimum_tax::points),
    Rule::new(&refunded_taxes::PROVISION).reads(refunded_taxes::read).finds(refunded_taxes::points),
    Rule::new(&foreign_tax::PROVISION).reads(foreign_tax::read).finds(foreign_tax::points),
    Rule::new(&care::PROVISION).reads(care::read).finds(care::points),
    Rule::new(&elderly::PROVISION).finds(elderly::points),
    Rule::new(&papers::tuition::PROVISION).reads(papers::tuition::read),
    Rule::new(&education::PROVISION).finds(education::points),
    Rule::new(&scholarships::PROVISION).finds(scholarships::points),
    Rule::new(&premium_tax_credit::PROVISION)
        .reads(premium_tax_credit::read)
        .finds(premium_tax_credit::points),
    Rule::new(&self_employed_cover::PROVISION).finds(self_employed_cover::points),
    Rule::new(&credits::PROVISION),
    Rule::new(&child_credit::PROVISION),
    Rule::new(&saver::PROVISION).finds(saver::points),
    Rule::new(&home_energy::PROVISION).reads(home_energy::read).finds(home_energy::points),
    Rule::new(&clean_vehicles::PROVISION).reads(clean_vehicles::read).finds(clean_vehicles::points),
    Rule::new(&mortgage_credit::PROVISION).reads(mortgage_credit::read).finds(mortgage_credit::points),
    Rule::new(&adoption::PROVISION).reads(adoption::read).finds(adoption::points),
    Rule::new(&earlier_minimum_tax::PROVISION)
        .reads(earlier_minimum_tax::read)
        .finds(earlier_minimum_tax::points),
    Rule::new(&household_employees::PROVISION)
        .reads(household_employees::read)
        .finds(household_employees::points),
    Rule::new(&homebuyer_credit::PROVISION).reads(homebuyer_credit::read).finds(homebuyer_credit::points),
    Rule::new(&excess_contributions::PROVISION)
        .reads(excess_contributions::read)
        .finds(excess_contributions::points),
    Rule::new(&early_distributions::PROVISION).finds(early_distributions::points),
    Rule::new(&additional_taxes::PROVISION).finds(additional_taxes::points),
    Rule::new(&earned_income_credit::PROVISION).finds(earned_income_credit::points),
    Rule::new(&total_tax::PROVISION).finds(total_tax::points),
    Rule::new(&payments::PROVISION).reads(payments::read).finds(payments::points),
    Rule::new(&signing::PROVISION).finds(signing::points),
    Rule::new(&refund::PROVISION).finds(refund::points),
    Rule::new(&underpayment::PROVISION).reads(underpayment::read).finds(underpayment::points),
    Rule::new(&due_diligence::PROVISION).finds(due_diligence::points),
    Rule::new(&every_paper::PROVISION).finds(every_paper::points),
    Rule::new(&asked::PROVISION).finds(asked::points),
    Rule::new(&not_computed::PROVISION).finds(not_computed::points),
    Rule::new(&california::asked::PROVISION),
    Rule::new(&california::papers::PROVISION).reads(california::papers::read),
    Rule::new(&california::cover_months::PROVISION),
    Rule::new(&california::affordability::PROVISION),
    Rule::new(&california::thresholds::PROVISION),
    Rule::new(&california::parents_election::PROVISION),
    Rule::new(&california::adjustments::PROVISION),
    Rule::new(&california::itemized::PROVISION),
    Rule::new(&california::kiddie::PROVISION),
    Rule::new(&california::exemptions::PROVISION),
    Rule::new(&california::tax::PROVISION),
    Rule::new(&california::minimum_tax::PROVISION),
    Rule::new(&california::code_credits::PROVISION),
    Rule::new(&california::other_state_tax::PROVISION).reads(california::other_state_tax::read),
    Rule::new(&california::earlier_minimum_tax::PROVISION)
        .reads(california::earlier_minimum_tax::read)
        .finds(california::earlier_minimum_tax::points),
    Rule::new(&california::college_access::PROVISION).reads(california::college_access::read),
    Rule::new(&california::adoption_costs::PROVISION).reads(california::adoption_costs::read),
    Rule::new(&california::credits::PROVISION),
    Rule::new(&california::counted_pay::PROVISION),
    Rule::new(&california::earned_income::PROVISION),
    Rule::new(&california::cover::PROVISION),
    Rule::new(&california::use_tax::PROVISION).reads(california::use_tax::read),
    Rule::new(&california::payments::PROVISION),
    Rule::new(&california::underpayment::PROVISION).reads(california::underpayment::read),
    Rule::new(&california::form_540::PROVISION),
    Rule::new(&california::form_540nr::PROVISION).reads(california::form_540nr::read),
    Rule::new(&california::return_points::PROVISION),
    Rule::new(&california::points::PROVISION).finds(california::points::points),
];

/// What the law leaves open, in an order in which each depends on earlier ones only.
pub static CHOICES: &[&Open<Facts>] = &[
    &status::FILING,
    &business::OFFICE_METHOD,
    &deduction::DEDUCTION,
    &deduction::DEDUCTION_APART,
    &deduction::DEDUCTION_OWN,
    &schedule_a::taxes::DEDUCTED,
    &schedule_a::taxes::DEDUCTED_APART,
    &schedule_a::investment_interest::ELECTION,
    &schedule_a::investment_interest::ELECTION_APART,
    &schedule_a::gifts::AT_BASIS,
    &schedule_a::gifts::AT_BASIS_APART,
    &social_security::ELECTION,
    &social_security::ELECTION_APART,
    &optional_earnings::METHOD,
    &repayments::METHOD,
    &self_employed_cover::METHOD,
    &taxed_later::DISASTER,
    &taxed_later::APPRECIATION,
    &untaxed_pay::COMBAT,
    &untaxed_pay::WAIVER,
    &foreign_tax::CHOSEN,
    &foreign_tax::CHOSEN_APART,
    &claims::CLAIM,
    &papers::tuition::TAKEN,
    &parents_election::ELECTION,
    &education::CHOSEN,
    &education::FORGONE,
    &payments::DIVIDED,
    &california::choices::DEDUCTION,
    &california::choices::DEDUCTION_APART,
    &california::choices::DEDUCTION_OWN,
    &california::parents_election::ELECTION,
    &california::counted_pay::COMBAT,
    &california::counted_pay::WAIVER,
    &california::choices::RENTER,
];

/// What they declare.
pub static DECLARED: LazyLock<Declared> = LazyLock::new(|| Declared::of(LAW.iter().map(|r| r.declares)));

/// Makes facts of a paper.
pub fn read(paper: &mut Bringing<'_>) {
    if let Some(read) = Rule::reader(LAW, &paper.paper.paper.kind) {
        read(paper);
    }
}

/// Everything that is unsettled.
pub fn find(points: &mut Points<'_>) {
    for finds in LAW.iter().filter_map(|rule| rule.finds) {
        finds(points);
    }
}
