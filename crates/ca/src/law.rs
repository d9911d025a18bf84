//! The provisions of the law, in its order: a new one has its line here.

use crate::{
    alberta,
    bringing::Bringing,
    contributions, cpp_ei, deducting, dividend_election, dividends,
    facts::Facts,
    federal, form_428, gifts, homes, income, medical, medical_division, minimum_tax, not_computed, ontario,
    papers, payments, pension_split, people, personal,
    points::{self, Points},
    provincial, residence, transfers, tuition, workers_benefit,
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
    Rule::new(&points::PROVISION),
    Rule::new(&papers::PROVISION),
    Rule::new(&papers::t4::PROVISION).reads(papers::t4::read).finds(papers::t4::points),
    Rule::new(&papers::t4a::PROVISION).reads(papers::t4a::read).finds(papers::t4a::points),
    Rule::new(&papers::benefits::PROVISION).reads(papers::benefits::read).finds(papers::benefits::points),
    Rule::new(&papers::t5::PROVISION).reads(papers::t5::read).finds(papers::t5::points),
    Rule::new(&pension_split::PROVISION),
    Rule::new(&dividends::PROVISION),
    Rule::new(&contributions::PROVISION).reads(contributions::read).finds(contributions::points),
    Rule::new(&cpp_ei::PROVISION).finds(cpp_ei::points),
    Rule::new(&income::PROVISION),
    Rule::new(&personal::PROVISION),
    Rule::new(&homes::PROVISION).finds(homes::points),
    Rule::new(&tuition::PROVISION).reads(tuition::read).finds(tuition::points),
    Rule::new(&transfers::PROVISION),
    Rule::new(&medical::PROVISION).reads(medical::read).finds(medical::points),
    Rule::new(&gifts::PROVISION).reads(gifts::read).finds(gifts::points),
    Rule::new(&federal::PROVISION),
    Rule::new(&medical_division::PROVISION).finds(medical_division::points),
    Rule::new(&minimum_tax::PROVISION).finds(minimum_tax::points),
    Rule::new(&provincial::PROVISION),
    Rule::new(&form_428::PROVISION),
    Rule::new(&ontario::PROVISION),
    Rule::new(&alberta::PROVISION),
    Rule::new(&workers_benefit::PROVISION).finds(workers_benefit::points),
    Rule::new(&payments::PROVISION).reads(payments::read),
    Rule::new(&not_computed::PROVISION).finds(not_computed::points),
];

/// What the law leaves open, in an order in which each depends on earlier ones only.
pub static CHOICES: &[&Open<Facts>] = &[
    &pension_split::FROM,
    &pension_split::AMOUNT,
    &dividend_election::REPORTED_BY,
    &deducting::NOW,
    &medical_division::BY,
    &medical::WINDOW,
    &medical_division::AMOUNT,
    &alberta::CLAIMED_BY,
    &gifts::CLAIM,
    &tuition::TO,
    &tuition::AMOUNT,
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
