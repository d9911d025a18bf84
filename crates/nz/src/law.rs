//! The provisions of the law, in its order: a new one has its line here.

use crate::{
    asked, bringing::Bringing, donations, facts::Facts, families, family_boost, foreign_funds, income,
    investments, land, last_assessment, managed_funds, not_computed, other, overseas, pay, payments, people,
    points::Points, provisional, rental, residence, student_loan, tax, trade, trusts,
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
    Rule::new(&asked::PROVISION).finds(asked::points),
    Rule::new(&pay::PROVISION).reads(pay::read).finds(pay::points),
    Rule::new(&investments::PROVISION).reads(investments::read).finds(investments::points),
    Rule::new(&trusts::PROVISION).reads(trusts::read),
    Rule::new(&overseas::PROVISION).reads(overseas::read).finds(overseas::points),
    Rule::new(&foreign_funds::PROVISION).reads(foreign_funds::read).finds(foreign_funds::points),
    Rule::new(&managed_funds::PROVISION).reads(managed_funds::read).finds(managed_funds::points),
    Rule::new(&rental::PROVISION).reads(rental::read).finds(rental::points),
    Rule::new(&land::PROVISION).reads(land::read).finds(land::points),
    Rule::new(&trade::PROVISION).reads(trade::read).finds(trade::points),
    Rule::new(&other::PROVISION).reads(other::read).finds(other::points),
    Rule::new(&income::PROVISION),
    Rule::new(&tax::PROVISION).finds(tax::points),
    Rule::new(&donations::PROVISION).reads(donations::read).finds(donations::points),
    Rule::new(&families::PROVISION).finds(families::points),
    Rule::new(&family_boost::PROVISION).reads(family_boost::read).finds(family_boost::points),
    Rule::new(&student_loan::PROVISION).finds(student_loan::points),
    Rule::new(&last_assessment::PROVISION).reads(last_assessment::read),
    Rule::new(&payments::PROVISION).reads(payments::read).finds(payments::points),
    Rule::new(&provisional::PROVISION).finds(provisional::points),
    Rule::new(&not_computed::PROVISION).finds(not_computed::points),
];

/// What the law leaves open, in an order in which each depends on earlier ones only.
pub static CHOICES: &[&Open<Facts>] = &[
    &families::CLAIM,
    &foreign_funds::METHOD,
    &overseas::METHOD,
    &investments::RETURNED,
    &rental::RINGS,
    &trade::VEHICLE_BY,
    &trade::ROOM_BY,
    &other::ASSESSMENT,
    &donations::HANDED_TO_PARTNER,
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
