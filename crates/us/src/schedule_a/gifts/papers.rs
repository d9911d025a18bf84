//! Receipts of gifts, and what of earlier years is carried over.

use super::{Carried, Class, L11, L12, brings};
use crate::{
    bringing::{Bringing, miles},
    income,
    points::Points,
    states,
};
use hembo_core::{
    field::{Choice, Field, Years},
    figures::Status as Certainty,
    household::Entry,
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place, PointDef},
    settled,
    trail::Item,
};
use hembo_money::{Money, Rate, Rounding};

open_points! {
    ACKNOWLEDGMENT = look "K-112", "IRC §170(f)(8)",
        "Have it before filing.";
    MANY = look "K-113", "IRC §170(f)",
        "So much is looked at: have receipts and appraisals at hand.";
    FORM_8283 = beside "K-111", "IRC §170(f)(11)",
        "Enter on it when and how each was acquired; above 5,000 an appraiser and the charity sign it, but for listed shares.";
    OTHER_YEAR = look "gift-year", "IRC §170(d)(1)",
        "Correct the year, or remove the line.";
    BASIS = look "C-27", "IRC §170(b)(1)(C)(iii)",
        "All such gifts may be taken at their basis instead, to the 50 % limit: enter it here, and of what is carried over, to weigh it.";
    FOUNDATION = look "gift-foundation", "IRC §170(e)(1)(B)(ii), (e)(5)",
        "To a private foundation only listed shares count at their market value; else enter the basis as the amount.";
    CONSERVATION = not_covered "gift-conservation", "IRC §170(b)(1)(E), (h)";
    ORDER = look "K-177", "IRC §170(b)(1)(G), (d)(1)",
        "Matters only where the 50 % limit bites.";
}

/// What they raise.
pub static RAISED: &[&PointDef] = POINTS;

const SORTS: &[Choice] = &[
    Choice::new("cash", "Cash"),
    Choice::new("goods", "Used goods"),
    Choice::new("property", "Held long"),
    Choice::new("travel", "Miles"),
    Choice::new("others", "Cash, other"),
    Choice::new("other_property", "Held long, other"),
    Choice::new("conservation", "Conservation"),
];

const CLASSES: &[Choice] = &[
    Choice::new("cash", "Cash, 60 %"),
    Choice::new("goods", "Goods, 50 %"),
    Choice::new("property", "Property, 30 %"),
    Choice::new("others", "To no public charity, 30 %"),
    Choice::new("other_property", "Property to no public charity, 20 %"),
];

/// Receipts of the year.
pub const GIFTS: PaperKind = PaperKind {
    id: "Gifts",
    subject: subject::DEDUCTIONS,
    name: "Gifts to charity",
    words: "charity donation church giving",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[states::SEPARATE],
    columns: &[
        Field::date("date", "", "Given on"),
        Field::text("what", "", "To whom", 80).payer_name(),
        Field::choice("sort", "", "Sort", SORTS).help(
            "Held long: shares and other property that would bring a long-term gain. Other: to organizations that are no public charities.",
        ),
        Field::count("miles", "", "Miles", 1_000_000),
        Field::amount("basis", "", "Basis").help("Of property held long: what it cost."),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What was not used in earlier years.
pub const CARRYOVER: PaperKind = PaperKind {
    id: "Gift carryover",
    subject: subject::DEDUCTIONS,
    name: "Gifts carried over from earlier years",
    words: "charity donation carried left over",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::count("year", "", "Given in", 2100),
        Field::choice("class", "", "Class", CLASSES),
        Field::amount("basis", "", "Left at its basis").help("Of property: as if it had been taken so."),
        Field::amount("amount", "", "Left to use"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gifts of the year, and those carried over.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == CARRYOVER.id {
        for (r, row, amount) in paper.paper.lines("amount") {
            let year = row.get("year").and_then(Entry::count).unwrap_or(0);
            let class = match row.get("class").and_then(Entry::text) {
                Some("goods") => Class::Goods,
                Some("property") => Class::Property,
                Some("others") => Class::Others,
                Some("other_property") => Class::OtherProperty,
                _ => Class::Cash,
            };
            let basis = row.get("basis").and_then(Entry::money).unwrap_or_default();
            let carried = |item: Item| {
                let at_basis = basis.in_proportion(item.amount, amount, Money::CENT, Rounding::HalfUp);
                Carried { year, class, item, at_basis }
            };
            paper.put_as("amount", Some(r), amount, &brings::CARRIED, carried);
        }
        return;
    }
    let mile = paper.facts.figures.gifts.mile;
    for (r, row, given) in paper.paper.lines("amount") {
        let sort = row.get("sort").and_then(Entry::text).unwrap_or("cash");
        let travel = if sort == "travel" {
            miles(row).times(mile, Money::CENT, Rounding::HalfUp)
        } else {
            Money::ZERO
        };
        if sort == "conservation" {
            continue;
        }
        let kind = match sort {
            "goods" => &brings::GOODS,
            "property" => &brings::PROPERTY,
            "others" => &brings::OTHERS,
            "other_property" => &brings::OTHER_PROPERTY,
            _ => &brings::CASH,
        };
        if sort == "property" {
            let basis = row.get("basis").and_then(Entry::money).unwrap_or_default();
            paper.put("basis", Some(r), basis, &brings::PROPERTY_BASIS);
        }
        paper.put("amount", Some(r), given + travel, kind);
    }
}

/// Gifts of more than a fifth of income.
fn many(points: &mut Points<'_>) {
    let Some(first) = points.papers(GIFTS.id).next() else { return };
    for place in 0..points.units.len() {
        let [given, other, income] = [L11, L12, income::AGI].map(|line| points.amount(line, place));
        let fifth = settled::or_zero(income).times(Rate::percent(20), Money::CENT, Rounding::HalfUp);
        if given + other > fifth && income > Money::ZERO {
            let message = format!("Gifts of {:#} are more than a fifth of the income.", given + other);
            points.raise(&MANY, Place { paper: Some(first.id.clone()), ..Place::default() }, message);
        }
    }
}

/// What a gift needs beside it, and how long one is carried.
pub fn points(points: &mut Points<'_>) {
    many(points);
    for paper in points.papers(GIFTS.id) {
        let figures = &points.facts.figures.gifts;
        let mut goods = Money::ZERO;
        for row in &paper.rows {
            let amount = row.get("amount").and_then(Entry::money).unwrap_or_default();
            let sort = row.get("sort").and_then(Entry::text);
            if matches!(sort, Some("goods" | "property" | "other_property")) {
                goods += amount;
            }
            if sort == Some("property") && !row.contains_key("basis") {
                let message = "Property held long counts at its market value, up to 30 % of income.";
                points.raise(&BASIS, Place::row(&paper.id, row, "basis"), message);
            }
            if sort == Some("conservation") {
                let message =
                    "A conservation gift has limits and fifteen years of its own: not computed yet.";
                points.raise(&CONSERVATION, Place::row(&paper.id, row, "sort"), message);
            }
            if sort == Some("other_property") {
                let message = "Is this a private foundation, and are these listed shares?";
                points.raise(&FOUNDATION, Place::row(&paper.id, row, "sort"), message);
            }
            if amount >= figures.acknowledgment_from {
                let place = Place::row(&paper.id, row, "amount");
                points.raise(
                    &ACKNOWLEDGMENT,
                    place,
                    format!("A gift of {amount:#}: is the written acknowledgment on hand?"),
                );
            }
        }
        if goods > figures.form_8283_above && points.units.iter().any(|unit| unit.itemizes) {
            let place = Place::paper(&paper.id, "amount");
            points.raise(&FORM_8283, place, format!("Goods worth {goods:#} need Form 8283."));
        }
    }
    for paper in points.papers(CARRYOVER.id) {
        let year = i64::from(points.facts.figures.year);
        let oldest = year - points.facts.figures.gifts.carried_years;
        for row in &paper.rows {
            let given = row.get("year").and_then(Entry::count).unwrap_or(0);
            let property = row.get("class").and_then(Entry::text) == Some("property");
            if property && !row.contains_key("basis") {
                let message = "What would be left of this property, had it been taken at its basis?";
                points.raise(&BASIS, Place::row(&paper.id, row, "basis"), message);
            }
            if !(oldest..year).contains(&given) {
                let message = format!(
                    "A gift of {given} is not carried into {year}: only of {oldest} to {}.",
                    year - 1
                );
                points.raise(&OTHER_YEAR, Place::row(&paper.id, row, "year"), message);
            }
        }
        if points.facts.figures.gift_carryover_order.status == Certainty::ToBeConfirmed {
            let place = Place::paper(&paper.id, "amount");
            points.raise(
                &ORDER,
                place,
                "That cash carried over stands before goods of this year is to be confirmed.",
            );
        }
    }
}
