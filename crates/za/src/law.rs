//! The provisions of the law, in its order: a new one has its line here.

use crate::{
    asked, bringing::Bringing, carried, certificates, donations, facts::Facts, foreign_pay, foreign_tax,
    gains, home_office, income, investments, lump_sums, medical, not_computed, other, payments, people,
    points::Points, provisional, rental, retirement, tax, tax_free, trade, travel, turnover_tax,
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
    Rule::new(&people::PROVISION).finds(people::points),
    Rule::new(&asked::PROVISION).finds(asked::points),
    Rule::new(&certificates::PROVISION).reads(certificates::read).finds(certificates::points),
    Rule::new(&foreign_pay::PROVISION).reads(foreign_pay::read).finds(foreign_pay::points),
    Rule::new(&investments::PROVISION).reads(investments::read).finds(investments::points),
    Rule::new(&rental::PROVISION).reads(rental::read),
    Rule::new(&trade::PROVISION).reads(trade::read).finds(trade::points),
    Rule::new(&other::PROVISION).reads(other::read),
    Rule::new(&travel::PROVISION).reads(travel::read).finds(travel::points),
    Rule::new(&home_office::PROVISION).reads(home_office::read).finds(home_office::points),
    Rule::new(&gains::PROVISION).reads(gains::read).finds(gains::points),
    Rule::new(&income::PROVISION).finds(income::points),
    Rule::new(&retirement::PROVISION).reads(retirement::read).finds(retirement::points),
    Rule::new(&donations::PROVISION).reads(donations::read).finds(donations::points),
    Rule::new(&tax::PROVISION).reads(tax::read).finds(tax::points),
    Rule::new(&medical::PROVISION).reads(medical::read).finds(medical::points),
    Rule::new(&foreign_tax::PROVISION).reads(foreign_tax::read).finds(foreign_tax::points),
    Rule::new(&tax_free::PROVISION).reads(tax_free::read).finds(tax_free::points),
    Rule::new(&lump_sums::PROVISION).reads(lump_sums::read).finds(lump_sums::points),
    Rule::new(&turnover_tax::PROVISION).finds(turnover_tax::points),
    Rule::new(&carried::PROVISION).reads(carried::read),
    Rule::new(&payments::PROVISION).reads(payments::read).finds(payments::points),
    Rule::new(&provisional::PROVISION).finds(provisional::points),
    Rule::new(&not_computed::PROVISION).finds(not_computed::points),
];

/// What the law leaves open, in an order in which each depends on earlier ones only.
pub static CHOICES: &[&Open<Facts>] =
    &[&trade::JOINT_TRADE, &travel::METHOD, &home_office::CLAIM, &gains::BASE_COST, &medical::OF_FIRST];

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
