//! Sales of property used in a business or let (§§1231, 1250), Form 4797: what was held over a year is a capital gain where the year comes
//! out ahead, after losses of five years before, and an ordinary loss where it does not.

use crate::{
    bringing::Bringing,
    gains::held_over_a_year,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    brought::Records,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Trail},
};
use hembo_money::Money;
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[LOSSES], points: POINTS, carries: CARRIES, ..Provision::NONE };

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRY, paper: "4797", into: CarriedTo::Box("8") }];

lines! {
    SHORT = "us.4797.10", "Property held a year or less", "IRC §1231(b)(1)",
        "Price less costs and adjusted basis: ordinary.";
    NET = "us.4797.7", "Property held over a year", "IRC §1231(a)",
        "Gains less losses of what was sold, and of every Schedule K-1.";
    PRIOR = "us.4797.8", "Losses of five years before", "IRC §1231(c)",
        "Net section 1231 losses that no gain has made up for.";
    pub GAIN = "us.sched_d.11", "Gain of property used in business", "IRC §1231(a)(1)",
        "A net gain above the losses of five years before.";
    pub ORDINARY = "us.sched_1.4", "Other gains or losses", "IRC §1231(a)(2), (c)",
        "Form 4797, line 18b: what was held a year or less, a net loss, and a net gain up to the losses of five years before.";
    CARRY = "us.carryover.section_1231", "Net section 1231 losses not made up for", "IRC §1231(c)",
        "This year's loss, and what this year's gain left of the earlier ones; each counts for five years.";
}

open_points! {
    PLAIN = not_known "4797-plain", "IRC §§121, 453, 1031, 1239, 1245, 469(g)",
        "Answer whether all of it went for cash to someone unrelated, and none of it is equipment or was a home of one's own.";
    OTHER_SALE = not_covered "4797-other", "IRC §§121, 453, 1031, 1239, 1245, 469(g)";
    BASIS = blocks "4797-basis", "IRC §§1001, 1011, 1016(a)(2)",
        "Enter the price, the day it was bought, the cost with the land, and the depreciation until the sale, zero too.";
    ORDER = blocks "4797-dates", "IRC §1222",
        "The day of the sale lies in the year, after the day it was bought.";
}

/// A sale, or what a Schedule K-1 tells of one.
#[derive(Debug, Clone)]
pub struct Sale {
    /// Price less costs and cost, with depreciation added back: each box with its sign.
    pub items: Vec<Item>,
    /// Held over a year.
    pub long: bool,
    /// Depreciation allowed or allowable.
    pub depreciation: Money,
    /// Counts for the net investment income tax.
    pub invested: bool,
}

impl Sale {
    /// Gain or loss, to the cent.
    pub fn gain(&self) -> Money {
        sum(&self.items)
    }

    /// What of a gain is taxed at 25 % (§1(h)(6)).
    fn section_1250(&self) -> Money {
        if self.long {
            settled::lesser(settled::or_zero(self.gain()), self.depreciation)
        } else {
            Money::ZERO
        }
    }
}

/// What its papers bring.
pub mod brings {
    use super::Sale;
    use hembo_core::brought::Brought;

    /// Sales.
    pub static SALES: Brought<Sale> = Brought::new();

    /// Net section 1231 losses of five years before.
    pub static LOSSES: Brought = Brought::new();
}

const LOSSES: PaperKind = PaperKind {
    id: "4797",
    subject: subject::OWN_WORK,
    name: "Losses of business property of earlier years",
    words: "section 1231 losses recapture 4797 five years",
    title: "From",
    shared: false,
    headline: "8",
    boxes: &[Field::amount("8", "8", "Net losses not made up for")
        .help("Of the five years before, less what gains since have made up for.")],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives losses of earlier years to their owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("8", &brings::LOSSES);
}

/// The boxes of a sale on the paper of what was let.
pub const BOXES: [Field; 7] = [
    Field::date("sold", "", "Sold on").help("Only where it was sold this year: Form 4797."),
    Field::date("bought", "", "Bought on"),
    Field::amount("price", "", "Sale price"),
    Field::amount("sale_costs", "", "Costs of the sale"),
    Field::amount("basis", "", "Cost with land and improvements"),
    Field::amount("written_off", "", "Depreciation until the sale")
        .help("Allowed or allowable, this year's too."),
    Field::yes_no("plain_sale", "", "All of it, for cash, to a stranger")
        .help("No instalments, exchange or relative; no equipment; never a home of one's own."),
];

/// The day a paper tells it was sold on.
pub fn sold_on(paper: &Paper) -> Option<Date> {
    paper.boxes.get("sold").and_then(Entry::date)
}

/// The signed boxes of a sale.
pub fn amounts(paper: &Paper) -> [(&'static str, Money); 4] {
    let of = |field: &str| paper.amount(field);
    [
        ("price", of("price")),
        ("sale_costs", -of("sale_costs")),
        ("basis", -of("basis")),
        ("written_off", of("written_off")),
    ]
}

/// Whether it was held over a year; so it stands, and blocks, where a day is missing.
pub fn is_long(paper: &Paper) -> bool {
    let bought = paper.boxes.get("bought").and_then(Entry::date);
    bought.zip(sold_on(paper)).and_then(|(bought, sold)| held_over_a_year(bought, sold)).unwrap_or(true)
}

/// What Form 4797 comes to.
#[derive(Debug, Clone, Copy, Default)]
pub struct Property {
    /// Line 7.
    pub net: Money,
    /// Schedule D line 11.
    pub gain: Money,
    /// Schedule 1 line 4.
    pub ordinary: Money,
    /// Of the gain on Schedule D what is taxed at 25 %.
    pub section_1250: Money,
    /// Of gain and ordinary amount together what is no investment (§1411(c)(2)).
    pub not_invested: Money,
    /// Gains without losses (§61(a)(3)).
    pub gross: Money,
}

impl Property {
    /// Gain and ordinary amount together.
    pub fn sum(self) -> Money {
        self.gain + self.ordinary
    }
}

fn sales(on: On<'_>) -> impl Iterator<Item = &Sale> {
    on.owns().flat_map(|(_, own)| own.of(&brings::SALES))
}

fn of_term(on: On<'_>, long: bool) -> impl Iterator<Item = &Item> {
    sales(on).filter(move |sale| sale.long == long).flat_map(|sale| &sale.items)
}

/// Form 4797.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Property {
    if sales(on).next().is_none() && !on.owns().any(|(_, own)| own.has(&brings::LOSSES)) {
        return Property::default();
    }
    let short = trail.line(SHORT, on.scope, sum(of_term(on, false)).to_whole(), |i| {
        i.items(of_term(on, false));
    });
    let net = trail.line(NET, on.scope, sum(of_term(on, true)).to_whole(), |i| {
        i.items(of_term(on, true));
    });
    let prior = on.gather(trail, PRIOR, &brings::LOSSES);
    let gain = limit::or_zero(trail, net - prior);
    trail.line(GAIN, on.scope, gain, |i| {
        i.line(NET, on.scope, net).line(PRIOR, on.scope, prior);
    });
    let ordinary = short + net - gain;
    trail.line(ORDINARY, on.scope, ordinary, |i| {
        i.line(SHORT, on.scope, short).line(NET, on.scope, net).line(PRIOR, on.scope, prior);
    });
    trail.line(CARRY, on.scope, prior - settled::lesser(net, prior), |i| {
        i.line(NET, on.scope, net).line(PRIOR, on.scope, prior);
    });
    if on.unit.people.len() > 1 && gain.is_zero() {
        of_each(on, trail);
    }
    let depreciation = sales(on).map(Sale::section_1250).sum::<Money>().to_whole();
    let section_1250 = settled::or_zero(settled::lesser(depreciation, net) - prior);
    let not_invested = sales(on).filter(|sale| !sale.invested).map(Sale::gain).sum::<Money>().to_whole();
    let gross = sales(on).map(|sale| settled::or_zero(sale.gain())).sum::<Money>().to_whole();
    Property { net, gain, ordinary, section_1250, not_invested, gross }
}

/// What both lines would be with another net amount of what was held over a year.
pub fn with_net(on: On<'_>, property: Property, net: Money) -> Property {
    let prior = sum(on.items(&brings::LOSSES)).to_whole();
    let gain = settled::or_zero(net - prior);
    let short = property.sum() - property.net;
    Property { net, gain, ordinary: short + net - gain, ..property }
}

/// Each spouse's sales on a joint return, where they are ordinary.
fn of_each(on: On<'_>, trail: &mut impl Trail) {
    for (person, own) in on.owns().filter(|(_, own)| own.has(&brings::SALES)) {
        trail.line(ORDINARY, Scope::Person(person), of_person(own), |i| {
            i.items(items(own));
        });
    }
}

/// What a person's sales are made of.
pub fn items(own: &Records) -> impl Iterator<Item = &Item> {
    own.of(&brings::SALES).iter().flat_map(|sale| &sale.items)
}

/// What a person's sales come to, to the cent.
pub fn of_person(own: &Records) -> Money {
    sum(items(own))
}

/// Form 4797: sales.
pub fn form_4797(filed: Filed<'_>) -> Required {
    Required::if_so(sales(filed.on).next().is_some(), "no business property sold")
}

/// What the paper of a sale must tell.
pub fn of_paper(points: &mut Points<'_>, paper: &Paper) {
    let Some(sold) = sold_on(paper) else { return };
    let at = |field: &str| Place::paper(&paper.id, field);
    match paper.boxes.get("plain_sale").and_then(Entry::flag) {
        None => points.raise(&PLAIN, at("plain_sale"), "How was it sold?"),
        Some(false) => points.raise(&OTHER_SALE, at("plain_sale"), "Such a sale is not computed yet."),
        Some(true) => {}
    }
    let missing =
        ["price", "bought", "basis", "written_off"].into_iter().find(|&id| !paper.boxes.contains_key(id));
    if let Some(missing) = missing {
        points.raise(&BASIS, at(missing), "What the gain is made of is missing.");
    }
    let bought = paper.boxes.get("bought").and_then(Entry::date);
    if sold.year() != points.facts.figures.year || bought.is_some_and(|bought| bought > sold) {
        points.raise(&ORDER, at("sold"), "These dates do not fit together.");
    }
}
