//! The paper of a property that is let: its boxes, how §469 looks at it, and what it brings.

use super::{Class, Rental, brings};
use crate::{
    bringing::Bringing,
    business_property::{self, Sale},
    figures, rental_depreciation, states,
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    household::{Answers, Entry},
    paper::{Back, NextYear, PaperKind, subject},
    reading::sum,
};
use hembo_money::Money;
use std::sync::Arc;

const KINDS: &[Choice] = &[
    Choice::new("single", "1 Single family"),
    Choice::new("multi", "2 Multi-family"),
    Choice::new("short", "3 Vacation, short-term"),
    Choice::new("commercial", "4 Commercial"),
    Choice::new("land", "5 Land"),
    Choice::new("royalties", "6 Royalties"),
    Choice::new("self", "7 Let to own business"),
    Choice::new("other", "8 Other"),
];

/// The lines of expenses, without depreciation.
const SPENT: [&str; 14] = ["5", "6", "7", "8", "9", "10", "11", "12", "13", "14", "15", "16", "17", "19"];

const SOLD: [Field; 7] = business_property::BOXES;

pub(super) const RENTAL: PaperKind = PaperKind {
    id: "Schedule E",
    subject: subject::OWN_WORK,
    name: "Rented property, royalties",
    words: "rent rental landlord house apartment flat lease tenant royalties schedule e vacation 8582",
    title: "Property",
    shared: true,
    headline: "3",
    boxes: &[
        Field::choice("kind", "1b", "Type of property", KINDS).lasts(),
        Field::count("days", "2", "Days at a fair rent", 366),
        Field::count("own_days", "2", "Days of own use", 366)
            .help("The family's, too, and below a fair rent."),
        Field::yes_no("active", "", "Takes part in decisions")
            .lasts()
            .help("And owns a tenth or more: for the allowance of losses."),
        Field::yes_no("short_stay", "", "Guests stay 7 days or less")
            .help("On average. With substantial services it is a business of one's own, Schedule C."),
        Field::yes_no("professional", "", "Real estate professional")
            .lasts()
            .help("Over 750 hours, and over half of all work, in real property trades."),
        Field::yes_no("participates", "", "Materially participates")
            .lasts()
            .help("Of a professional, or where guests stay 7 days or less."),
        Field::yes_no("not_at_risk", "", "Not at risk for all of it").help("Form 6198."),
        Field::amount("3", "3", "Rents received"),
        Field::amount("4", "4", "Royalties received"),
        Field::amount("5", "5", "Advertising").help("Of all expenses the part that belongs to the renting."),
        Field::amount("6", "6", "Auto and travel"),
        Field::amount("7", "7", "Cleaning and maintenance"),
        Field::amount("8", "8", "Commissions"),
        Field::amount("9", "9", "Insurance"),
        Field::amount("10", "10", "Legal and professional"),
        Field::amount("11", "11", "Management fees"),
        Field::amount("12", "12", "Mortgage interest, banks"),
        Field::amount("13", "13", "Other interest"),
        Field::amount("14", "14", "Repairs"),
        Field::amount("15", "15", "Supplies"),
        Field::amount("16", "16", "Taxes"),
        Field::amount("17", "17", "Utilities"),
        Field::amount("18", "18", "Depreciation, depletion")
            .help("From Form 4562; left empty, it is reckoned from the two boxes below."),
        Field::amount("cost", "", "Cost of the building").lasts().help("Without the land."),
        Field::date("since", "", "First let on").lasts(),
        Field::amount("19", "19", "Other expenses"),
        Field::amount("carried", "", "Loss not allowed in earlier years").help("Form 8582 of last year."),
        Field::yes_no("business", "", "A trade or business")
            .lasts()
            .help("For the qualified business income: 250 hours a year, with records."),
        Field::amount("property", "", "Basis of qualified property")
            .help("Unadjusted; only above the income threshold."),
        SOLD[0],
        SOLD[1],
        SOLD[2],
        SOLD[3],
        SOLD[4],
        SOLD[5],
        SOLD[6],
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

pub(super) fn count(boxes: &Answers, id: &str) -> i64 {
    boxes.get(id).and_then(Entry::count).unwrap_or(0)
}

/// Used as a home as well: own days over 14 and over a tenth of the rented ones (§280A(d)(1)).
fn is_home(boxes: &Answers, figures: &figures::Rental) -> bool {
    let (own, rented) = (count(boxes, "own_days"), count(boxes, "days"));
    own > figures.home_days && own * figures.home_share > rented
}

/// Let for so few days that it is left out (§280A(g)).
pub(super) fn is_left_out(boxes: &Answers, figures: &figures::Rental) -> bool {
    is_home(boxes, figures) && count(boxes, "days") < figures.few_days
}

/// The class of a property, with what it brought.
fn class(paper: &Paper, figures: &figures::Rental, income: bool) -> Class {
    match paper.text("kind") {
        Some("royalties") => return Class::Royalty,
        _ if is_home(&paper.boxes, figures) => return Class::Home,
        _ if works_in(paper) => return Class::Working,
        Some("self") if income => return Class::OwnBusiness,
        Some("land") if income => return Class::Land,
        _ => {}
    }
    if paper.flag("active") && !paper.flag("short_stay") { Class::Active } else { Class::Passive }
}

/// Material participation of a professional, or in what is no rental activity.
fn works_in(paper: &Paper) -> bool {
    paper.flag("participates") && (paper.flag("professional") || paper.flag("short_stay"))
}

/// Gives each owner a part of the property.
pub fn read(paper: &mut Bringing<'_>) {
    let (reading, of_year) = (paper.paper, Arc::clone(&paper.facts.figures));
    let (of, figures) = (reading.paper, &of_year.rental);
    if is_left_out(&of.boxes, figures) {
        return;
    }
    paper.earns();
    let (field, written_off) = rental_depreciation::of(of, figures, of_year.year);
    let spent = SPENT.into_iter().map(|id| (id, of.amount(id))).chain([(field, written_off)]);
    let spent: Vec<_> = spent.filter(|(_, amount)| !amount.is_zero()).collect();
    let total: Money = spent.iter().map(|(_, amount)| *amount).sum();
    let sold = business_property::sold_on(of).map(|_| business_property::amounts(of));
    let gain: Money = sold.into_iter().flatten().map(|(_, amount)| amount).sum();
    let class = class(of, figures, of.amount("3") + of.amount("4") + gain > total);
    let parts = |person: usize, field: &'static str, amount: Money| {
        let all = reading.parts(field, None, amount).into_iter();
        all.filter(|(owner, _)| *owner == person).map(|(_, item)| item).collect::<Vec<_>>()
    };
    let shares = reading.shares(Money::whole(100)).into_iter();
    let invested = !matches!(class, Class::Working | Class::OwnBusiness);
    let long = business_property::is_long(of);
    for ((person, property), (_, share)) in reading.shares(of.amount("property")).into_iter().zip(shares) {
        let rental = Rental {
            paper: reading.index,
            received: ["3", "4"].into_iter().flat_map(|id| parts(person, id, of.amount(id))).collect(),
            spent: spent.iter().flat_map(|&(id, amount)| parts(person, id, amount)).collect(),
            carried: parts(person, "carried", of.amount("carried")),
            class,
            share,
            business: of.flag("business") && class != Class::Royalty,
            property,
            sold: None,
        };
        let sale = sold.map(|amounts| {
            let items = amounts.into_iter().flat_map(|(id, amount)| parts(person, id, amount)).collect();
            let depreciation = sum(&parts(person, "written_off", of.amount("written_off")));
            Sale { items, long, depreciation, invested }
        });
        let rental = Rental { sold: sale.as_ref().map(|sale| (sale.gain(), long)), ..rental };
        if let Some(sale) = sale {
            paper.facts.people[person].own.add(&business_property::brings::SALES, sale);
        }
        paper.facts.people[person].own.add(&brings::RENTALS, rental);
    }
}
