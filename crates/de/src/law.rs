//! The provisions of the law, in its order: a new one has its line here.

use crate::{
    asked, assessment, benefits, beside, bringing::Bringing, burdens, capital, certificate_checks, charges,
    children, credits, disability, employment, equipment, facts::Facts, filing, foreign_tax, funds, letting,
    losses, not_computed, other_income, payments, pensions, people, people_checks, points::Points, provision,
    riester, special, tax_classes, wage, work, work_checks,
};
use hembo_core::{
    choice::Open,
    provision::{self as declared, Declared},
};
use std::sync::LazyLock;

/// A provision at work.
type Rule = declared::Rule<fn(&mut Bringing<'_>), fn(&mut Points<'_>)>;

/// Every provision.
static LAW: &[Rule] = &[
    Rule::new(&people::PROVISION),
    Rule::new(&people_checks::PROVISION).finds(people_checks::points),
    Rule::new(&disability::PROVISION),
    Rule::new(&asked::PROVISION).finds(asked::points),
    Rule::new(&not_computed::PROVISION).finds(not_computed::points),
    Rule::new(&tax_classes::PROVISION),
    Rule::new(&employment::PROVISION),
    Rule::new(&wage::PROVISION).reads(wage::read),
    Rule::new(&certificate_checks::PROVISION).finds(certificate_checks::points),
    Rule::new(&equipment::PROVISION).reads(equipment::read).finds(equipment::points),
    Rule::new(&work::PROVISION).reads(work::read),
    Rule::new(&work_checks::PROVISION).finds(work_checks::points),
    Rule::new(&other_income::PROVISION).reads(other_income::read).finds(other_income::points),
    Rule::new(&letting::PROVISION).reads(letting::read).finds(letting::points),
    Rule::new(&pensions::PROVISION).reads(pensions::read).finds(pensions::points),
    Rule::new(&capital::PROVISION).reads(capital::read).finds(capital::points),
    Rule::new(&funds::PROVISION).reads(funds::read).finds(funds::points),
    Rule::new(&benefits::PROVISION).reads(benefits::read).finds(benefits::points),
    Rule::new(&provision::PROVISION).reads(provision::read),
    Rule::new(&special::PROVISION).reads(special::read).finds(special::points),
    Rule::new(&riester::PROVISION).reads(riester::read).finds(riester::points),
    Rule::new(&burdens::PROVISION).reads(burdens::read).finds(burdens::points),
    Rule::new(&children::PROVISION).reads(children::read).finds(children::points),
    Rule::new(&foreign_tax::PROVISION).reads(foreign_tax::read).finds(foreign_tax::points),
    Rule::new(&credits::PROVISION).reads(credits::read).finds(credits::points),
    Rule::new(&losses::PROVISION).reads(losses::read),
    Rule::new(&assessment::PROVISION).finds(assessment::points),
    Rule::new(&charges::PROVISION),
    Rule::new(&beside::PROVISION).reads(beside::read),
    Rule::new(&payments::PROVISION).reads(payments::read).finds(payments::points),
];

/// What the law leaves open, in an order in which each depends on earlier ones only.
pub static CHOICES: &[&Open<Facts>] = &[
    &filing::FILING,
    &filing::ALLOCATION,
    &capital::CAPITAL,
    &work::ROOM,
    &work::TRIPS_HOME,
    &letting::SPREAD,
    &foreign_tax::DEDUCTED,
    &burdens::DISABILITY,
    &burdens::AS_SERVICES,
    &credits::AS_ENERGY,
    &children::OTHER_HALF,
    &children::LUMP_TO,
    &children::TRAINING_TO,
];

/// What they declare.
pub static DECLARED: LazyLock<Declared> =
    LazyLock::new(|| Declared::of(LAW.iter().map(|rule| rule.declares)));

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
