//! The provisions of the law, in its order: a new one has its line here.

use crate::{
    adoption, alberta,
    bringing::Bringing,
    british_columbia, business, capital_cost, capital_gains, caregivers, child_care, contributions, cpp_ei,
    credits, deducting, dependants, disability, disability_supports, discount_note, dividend_election,
    dividends, employment_expenses,
    facts::Facts,
    family_benefits, federal, first_home, foreign_income, foreign_property, foreign_tax, form_428,
    gains_exemption, gifts, home_credits, homes, income, loan_interest, lump_sums, manitoba, medical,
    medical_division, medical_months, minimum_tax, new_brunswick, newfoundland, non_capital, northern,
    northwest, not_computed, nova_scotia, nunavut, ontario, other_deductions, others_medical, papers,
    part_year, partner_elsewhere, payments, pension_split, people, personal,
    points::{self, Points},
    prince_edward, province, provincial, provincial_adoption, provincial_credits, provincial_tuition, rental,
    residence, saskatchewan, separation, shares, small_credits, special_foreign_credit, split_income,
    transfers, tuition, volunteers, widowed, workers_benefit, year_of_death, young_children, yukon,
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
    Rule::new(&residence::PROVISION).finds(residence::points),
    Rule::new(&people::PROVISION).finds(people::points),
    Rule::new(&separation::PROVISION),
    Rule::new(&part_year::PROVISION).finds(part_year::points),
    Rule::new(&year_of_death::PROVISION).finds(year_of_death::points),
    Rule::new(&widowed::PROVISION),
    Rule::new(&partner_elsewhere::PROVISION).finds(partner_elsewhere::points),
    Rule::new(&points::PROVISION),
    Rule::new(&papers::PROVISION),
    Rule::new(&papers::t4::PROVISION).reads(papers::t4::read).finds(papers::t4::points),
    Rule::new(&papers::t4a::PROVISION).reads(papers::t4a::read).finds(papers::t4a::points),
    Rule::new(&papers::benefits::PROVISION).reads(papers::benefits::read).finds(papers::benefits::points),
    Rule::new(&papers::insurance::PROVISION).reads(papers::insurance::read).finds(papers::insurance::points),
    Rule::new(&papers::savings::PROVISION).reads(papers::savings::read).finds(papers::savings::points),
    Rule::new(&papers::t3::PROVISION).reads(foreign_income::read_t3).finds(foreign_income::points_t3),
    Rule::new(&papers::t5::PROVISION).reads(foreign_income::read_t5).finds(foreign_income::points_t5),
    Rule::new(&pension_split::PROVISION),
    Rule::new(&dividends::PROVISION),
    Rule::new(&contributions::PROVISION).reads(contributions::read).finds(contributions::points),
    Rule::new(&business::PROVISION).reads(business::read).finds(business::points),
    Rule::new(&rental::PROVISION).reads(rental::read).finds(rental::points),
    Rule::new(&home_credits::PROVISION).reads(home_credits::read).finds(home_credits::points),
    Rule::new(&adoption::PROVISION).reads(adoption::read).finds(adoption::points),
    Rule::new(&volunteers::PROVISION).finds(volunteers::points),
    Rule::new(&small_credits::PROVISION).reads(small_credits::read),
    Rule::new(&first_home::PROVISION).reads(first_home::read).finds(first_home::points),
    Rule::new(&other_deductions::PROVISION).reads(other_deductions::read).finds(other_deductions::points),
    Rule::new(&employment_expenses::PROVISION)
        .reads(employment_expenses::read)
        .finds(employment_expenses::points),
    Rule::new(&disability_supports::PROVISION)
        .reads(disability_supports::read)
        .finds(disability_supports::points),
    Rule::new(&split_income::PROVISION).reads(split_income::read),
    Rule::new(&non_capital::PROVISION).reads(non_capital::read).finds(non_capital::points),
    Rule::new(&northern::PROVISION).reads(northern::read).finds(northern::points),
    Rule::new(&foreign_property::PROVISION).reads(foreign_property::read).finds(foreign_property::points),
    Rule::new(&foreign_income::PROVISION).reads(foreign_income::read).finds(foreign_income::points),
    Rule::new(&foreign_tax::PROVISION),
    Rule::new(&gains_exemption::PROVISION).reads(gains_exemption::read).finds(gains_exemption::points),
    Rule::new(&capital_gains::PROVISION).reads(capital_gains::read).finds(capital_gains::points),
    Rule::new(&discount_note::PROVISION).reads(discount_note::read).finds(discount_note::points),
    Rule::new(&shares::PROVISION).reads(shares::read).finds(shares::points),
    Rule::new(&child_care::PROVISION).reads(child_care::read).finds(child_care::points),
    Rule::new(&cpp_ei::PROVISION).finds(cpp_ei::points),
    Rule::new(&income::PROVISION),
    Rule::new(&personal::PROVISION),
    Rule::new(&dependants::PROVISION).finds(dependants::points),
    Rule::new(&caregivers::PROVISION).finds(caregivers::points),
    Rule::new(&disability::PROVISION).finds(disability::points),
    Rule::new(&homes::PROVISION).finds(homes::points),
    Rule::new(&tuition::PROVISION).reads(tuition::read).finds(tuition::points),
    Rule::new(&loan_interest::PROVISION).reads(loan_interest::read).finds(loan_interest::points),
    Rule::new(&transfers::PROVISION),
    Rule::new(&medical::PROVISION).reads(medical::read).finds(medical::points),
    Rule::new(&medical_months::PROVISION),
    Rule::new(&others_medical::PROVISION).finds(others_medical::points),
    Rule::new(&gifts::PROVISION).reads(gifts::read).finds(gifts::points),
    Rule::new(&credits::PROVISION),
    Rule::new(&federal::PROVISION),
    Rule::new(&medical_division::PROVISION).finds(medical_division::points),
    Rule::new(&minimum_tax::PROVISION).reads(minimum_tax::read).finds(minimum_tax::points),
    Rule::new(&special_foreign_credit::PROVISION),
    Rule::new(&provincial::PROVISION),
    Rule::new(&form_428::PROVISION).finds(province::points),
    Rule::new(&provincial_tuition::PROVISION),
    Rule::new(&provincial_adoption::PROVISION),
    Rule::new(&provincial_credits::PROVISION)
        .reads(provincial_credits::read)
        .finds(provincial_credits::points),
    Rule::new(&young_children::PROVISION),
    Rule::new(&ontario::PROVISION),
    Rule::new(&british_columbia::PROVISION),
    Rule::new(&alberta::PROVISION),
    Rule::new(&saskatchewan::PROVISION),
    Rule::new(&manitoba::PROVISION),
    Rule::new(&new_brunswick::PROVISION),
    Rule::new(&nova_scotia::PROVISION),
    Rule::new(&newfoundland::PROVISION),
    Rule::new(&prince_edward::PROVISION),
    Rule::new(&yukon::PROVISION),
    Rule::new(&northwest::PROVISION),
    Rule::new(&nunavut::PROVISION),
    Rule::new(&workers_benefit::PROVISION).reads(workers_benefit::read).finds(workers_benefit::points),
    Rule::new(&family_benefits::PROVISION).finds(family_benefits::points),
    Rule::new(&payments::PROVISION).reads(payments::read),
    Rule::new(&lump_sums::PROVISION).finds(lump_sums::points),
    Rule::new(&not_computed::PROVISION).finds(not_computed::points),
];

/// What the law leaves open, in an order in which each depends on earlier ones only.
pub static CHOICES: &[&Open<Facts>] = &[
    &pension_split::FROM,
    &pension_split::AMOUNT,
    &dividend_election::REPORTED_BY,
    &foreign_income::DEDUCT,
    &separation::CLAIM,
    &volunteers::EXEMPT,
    &northern::FOR_HOME,
    &capital_cost::NOW,
    &deducting::NOW,
    &child_care::BY,
    &child_care::OF_HIGHER,
    &medical_division::BY,
    &medical_division::WINDOW,
    &medical_division::MONTHS,
    &medical_division::AMOUNT,
    &others_medical::BY,
    &others_medical::AMOUNT,
    &dependants::SPOUSE,
    &dependants::ELIGIBLE,
    &dependants::CLAIMED_BY,
    &saskatchewan::CHILDREN_BY,
    &capital_gains::USED,
    &gains_exemption::CLAIM,
    &non_capital::NOW,
    &home_credits::OF_FIRST,
    &adoption::OF_FIRST,
    &provincial_adoption::OF_FIRST,
    &loan_interest::NOW,
    &tuition::TRAINED,
    &gifts::CLAIM,
    &tuition::TO,
    &tuition::AMOUNT,
    &provincial_tuition::AMOUNT,
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
