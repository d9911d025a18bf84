//! Clean vehicles (§§25E, 30D), Form 8936: the credit for a new or a used one, up to incomes of this year or of last year; passed on to the
//! dealer, it is paid back where income is too high.

use crate::{
    bringing::Bringing,
    income,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    limit, limits,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Trail},
};
use hembo_money::{Money, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[VEHICLE],
    points: POINTS,
    figures: &["clean_vehicles"],
    ..Provision::NONE
};

lines! {
    pub NEW = "us.sched_3.6f", "New clean vehicle", "IRC §30D",
        "As the seller reported it, up to the tax.";
    pub USED = "us.sched_3.6m", "Used clean vehicle", "IRC §25E",
        "A part of the price up to an amount, up to the tax.";
    pub NEW_REPAID = "us.sched_2.1b", "New clean vehicle credit paid back", "IRC §30D(g)(10)",
        "Passed on to the dealer at an income above the limit.";
    pub USED_REPAID = "us.sched_2.1c", "Used clean vehicle credit paid back", "IRC §25E(f)",
        "Passed on to the dealer at an income above the limit.";
}

limits! {
    NEW_TAX = "us.limit.new_vehicle_tax" on NEW, "New clean vehicle", "over the tax, and lost", "IRC §30D(c)(2)";
    USED_TAX = "us.limit.used_vehicle_tax" on USED, "Used clean vehicle", "over the tax, and lost", "IRC §26(a)";
}

open_points! {
    SORT = blocks "8936-sort", "IRC §§25E, 30D",
        "Choose new or used.";
    DATE = blocks "K-133", "IRC §§25E(g), 30D(h)",
        "It must be acquired by 30 September 2025, and counts in the year in which it came into use: correct the days, or leave it out.";
    REPORT = blocks "8936-report", "IRC §30D(d)(1)(H)",
        "Enter the VIN and the credit as the seller's report has them.";
    LAST_YEAR = blocks "K-133-income", "IRC §§25E(b)(3), 30D(f)(10)",
        "Income is over the limit this year; last year's would do: answer the question.";
    PRICE = blocks "8936-price", "IRC §25E(c)(2)",
        "A used one costs 25,000 at most: correct the price, or leave it out.";
    BUSINESS = not_covered "8936-business", "IRC §§30D(c)(1), 45W";
    ONCE = look "8936-once", "IRC §25E(c)(3)",
        "Not within three years of another such credit, and not for who is claimed.";
}

/// A vehicle.
#[derive(Debug, Clone)]
pub struct Vehicle {
    item: Item,
    new: bool,
    passed_on: bool,
    last_year: bool,
}

/// What its papers bring.
pub mod brings {
    use super::Vehicle;
    use hembo_core::brought::Brought;

    /// Vehicles of the year.
    pub static VEHICLES: Brought<Vehicle> = Brought::new();
}

const SORTS: &[Choice] = &[Choice::new("new", "New"), Choice::new("used", "Used")];

const VEHICLE: PaperKind = PaperKind {
    id: "8936",
    subject: subject::CREDITS,
    name: "Clean vehicle",
    words: "electric car ev plug-in hybrid clean vehicle 8936 fuel cell dealer",
    title: "Make and model",
    shared: false,
    headline: "credit",
    boxes: &[
        Field::choice("sort", "", "New or used", SORTS),
        Field::text("vin", "2", "VIN", 17),
        Field::date("acquired", "", "Acquired on").help("Contract with a payment, by 30 September 2025."),
        Field::date("service", "3", "In use since"),
        Field::amount("credit", "", "Credit of the seller's report"),
        Field::amount("price", "", "Price of a used one"),
        Field::yes_no("passed_on", "", "Passed on to the dealer").help("It lowered the price at the sale."),
        Field::yes_no("last_year", "", "Last year's income was within the limit"),
        Field::yes_no("business", "", "Used for business, too"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years { since: None, until: Some(2026) },
    next_year: NextYear::Once,
};

fn is_in_time(paper: &Paper, year: i32, last: Date) -> bool {
    let date = |id: &str| paper.boxes.get(id).and_then(Entry::date);
    date("acquired").is_some_and(|day| day <= last) && date("service").is_some_and(|day| day.year() == year)
}

/// Gives the vehicle to its owner.
pub fn read(paper: &mut Bringing<'_>) {
    let (of, figures) = (paper.paper.paper, &paper.facts.figures.clean_vehicles);
    let new = match of.text("sort") {
        Some(sort) => sort == "new",
        None => return,
    };
    if !is_in_time(of, paper.facts.figures.year, figures.acquired_by.0) {
        return;
    }
    let part = of.amount("price").times(figures.used_rate, Money::WHOLE, Rounding::HalfUp);
    let most = if new { figures.new_most } else { settled::lesser(figures.used_most, part) };
    let (passed_on, last_year) = (of.flag("passed_on"), of.flag("last_year"));
    paper.put_as("credit", None, settled::lesser(of.amount("credit"), most), &brings::VEHICLES, |item| {
        Vehicle { item, new, passed_on, last_year }
    });
}

/// What of the vehicles a return takes, or pays back.
fn vehicles(on: On<'_>, new: bool) -> impl Iterator<Item = &Vehicle> {
    on.owns().flat_map(|(_, own)| own.of(&brings::VEHICLES)).filter(move |vehicle| vehicle.new == new)
}

fn most_income(on: On<'_>, new: bool) -> Money {
    let figures = &on.facts.figures.clean_vehicles;
    *if new { &figures.new_income } else { &figures.used_income }.of(on.unit.status)
}

fn is_within(on: On<'_>, trail: &mut impl Trail, vehicle: &Vehicle, agi: Money) -> bool {
    let over = agi - most_income(on, vehicle.new);
    trail.step(over - Money::CENT, !vehicle.last_year);
    over <= Money::ZERO || vehicle.last_year
}

/// Schedule 3 line 6f or 6m; `left` is the tax that earlier credits leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, new: bool, agi: Money, left: Money) -> Money {
    let (line, tax): (LineId, _) = if new { (NEW, &NEW_TAX) } else { (USED, &USED_TAX) };
    let taken: Vec<_> = vehicles(on, new).filter(|vehicle| !vehicle.passed_on).collect();
    if taken.is_empty() {
        return trail.line(line, on.scope, Money::ZERO, |_| {});
    }
    let within: Vec<_> = taken.into_iter().filter(|vehicle| is_within(on, trail, vehicle, agi)).collect();
    let full = sum(within.iter().map(|vehicle| &vehicle.item)).to_whole();
    let credit = limit::cap(trail, tax.at(on.scope), full, left);
    trail.line(line, on.scope, credit, |i| {
        i.items(within.iter().map(|vehicle| &vehicle.item))
            .line(income::AGI, on.scope, agi)
            .figure("Income up to", most_income(on, new))
            .figure("Tax left", left);
    })
}

/// Schedule 2 lines 1b and 1c.
pub fn repaid(on: On<'_>, trail: &mut impl Trail, agi: Money) -> [Money; 2] {
    [(NEW_REPAID, true), (USED_REPAID, false)].map(|(line, new)| {
        let passed: Vec<_> = vehicles(on, new).filter(|vehicle| vehicle.passed_on).collect();
        if passed.is_empty() {
            return Money::ZERO;
        }
        let over: Vec<_> = passed.into_iter().filter(|vehicle| !is_within(on, trail, vehicle, agi)).collect();
        trail.line(line, on.scope, sum(over.iter().map(|vehicle| &vehicle.item)).to_whole(), |i| {
            i.items(over.iter().map(|vehicle| &vehicle.item)).line(income::AGI, on.scope, agi);
        })
    })
}

/// Form 8936: with a vehicle.
pub fn form_8936(filed: Filed<'_>) -> Required {
    let any = [true, false].into_iter().any(|new| vehicles(filed.on, new).next().is_some());
    Required::if_so(any, "no clean vehicle")
}

/// What a vehicle must show.
pub fn points(points: &mut Points<'_>) {
    let figures = &points.facts.figures.clean_vehicles;
    for paper in points.papers(VEHICLE.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let Some(sort) = paper.text("sort") else {
            points.raise(&SORT, at("sort"), "Is the vehicle new or used?");
            continue;
        };
        if !is_in_time(paper, points.facts.figures.year, figures.acquired_by.0) {
            points.raise(&DATE, at("acquired"), "Acquired too late, or not in use in this year.");
        }
        if paper.text("vin").is_none_or(|vin| vin.len() != 17) || paper.amount("credit").is_zero() {
            points.raise(&REPORT, at("vin"), "The VIN or the credit of the seller's report is missing.");
        }
        if sort == "used" && (paper.amount("price").is_zero() || paper.amount("price") > figures.used_price) {
            points.raise(&PRICE, at("price"), "The price of a used one.");
        }
        if sort == "used" {
            points.raise(&ONCE, at("sort"), "A used one.");
        }
        if paper.flag("business") {
            points.raise(&BUSINESS, at("business"), "A vehicle used for business is not computed yet.");
        }
        last_year(points, paper, sort == "new");
    }
}

/// Whether last year's income would do, where this year's is too high.
fn last_year(points: &mut Points<'_>, paper: &Paper, new: bool) {
    let owner = points.owner(paper);
    let place = points.units.iter().position(|unit| owner.is_some_and(|p| unit.people.contains(&p)));
    let Some(place) = place else { return };
    let unit = &points.units[place];
    let on = On { facts: points.facts, unit, scope: Scope::Return(place) };
    if points.amount(income::AGI, place) > most_income(on, new) && !paper.boxes.contains_key("last_year") {
        points.raise(&LAST_YEAR, Place::paper(&paper.id, "last_year"), "Income is over the limit.");
    }
}
