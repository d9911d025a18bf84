//! Own work (ITA CB 1, DA 1, DE 1 to DE 12, DB 18AA; question 24 of the IR3) with a vehicle and a room at home, and the summary of
//! accounts beside it (form IR10).

use crate::{
    bringing::Bringing,
    facts::Facts,
    plan::{Filed, On, RoomMethod, Rooms, VehicleMethod, Vehicles},
    points::Points,
};
use hembo_core::{
    Paper,
    brought::Records,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Input, Item, Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Own work",
    lines: LINES,
    papers: &[TRADE, SUMMARY],
    points: POINTS,
    figures: &["trade"],
    ..Provision::NONE
};

lines! {
    VEHICLE = "nz.vehicle", "Vehicle deduction", "ITA DE 12, DE 4",
        "By the kilometre, or costs by the part driven for work, as the way takes it.";
    ROOM = "nz.home_office", "Home office deduction", "ITA DB 18AA, DA 1",
        "By the square metre with premises by area, or all costs by area, as the way takes it.";
    pub NET = "nz.self_employment", "Net self-employment income", "ITA CB 1, DA 1; IR3 question 24",
        "Turnover less expenses, vehicle and room; below zero a loss.";
    SUMMARY_PROFIT = "nz.ir10.profit", "Taxable profit of the summary", "TAA 33A; form IR10",
        "As the summary of accounts has it.";
}

open_points! {
    SUMMARY_APART = blocks "C34", "TAA 33A; form IR10", "The profit of the summary and that of the trade must agree.";
    NO_SUMMARY = look "C35", "TAA 33A; form IR10", "Attach a summary of accounts.";
    NEW_METHOD = look "C72", "ITA DE 2B, DB 18AA; EE 49", "Another method than last year's: look whether depreciation or its recovery changes with it.";
    LOGBOOK = blocks "C36", "ITA DE 4, DE 6", "Keep a logbook, or claim at most 25 % of the vehicle.";
    IMPOSSIBLE = blocks "C71", "ITA DE 2, DB 18AA", "A part cannot be larger than the whole.";
    RATE_OF_YEAR = look "kilometre-rate", "ITA DE 12(4)", "Compare the rates with those that the Commissioner published for the year.";
    FUEL = blocks "vehicle-fuel", "ITA DE 12", "Say what it runs on: the rate depends on it.";
}

/// What its papers bring.
pub mod brings {
    use super::Trade;
    use hembo_core::brought::Brought;

    /// Trades.
    pub static TRADES: Brought<Trade> = Brought::new();
    /// Profits of summaries of accounts.
    pub static SUMMARIES: Brought = Brought::new();
}

/// A trade's year.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Trade {
    /// The paper's id.
    pub id: String,
    /// What it is.
    pub title: String,
    /// Turnover.
    pub turnover: Item,
    /// Expenses without vehicle and room.
    pub expenses: Vec<Item>,
    /// The deduction by the kilometre and by costs, where there is a vehicle.
    pub vehicle: Option<[Item; 2]>,
    /// The deduction by the square metre and by costs, where there is a room.
    pub room: Option<[Item; 2]>,
}

const FUELS: &[Choice] = &[
    Choice::new("petrol", "Petrol"),
    Choice::new("diesel", "Diesel"),
    Choice::new("hybrid", "Petrol hybrid"),
    Choice::new("electric", "Electric"),
];

/// A trade.
pub const TRADE: PaperKind = PaperKind {
    id: "Own trade",
    subject: subject::OWN_WORK,
    name: "Trade or profession",
    words: "business self-employed sole trader car vehicle home office",
    title: "Trade",
    shared: false,
    headline: "turnover",
    boxes: &[
        Field::amount("turnover", "24", "Turnover without GST"),
        Field::choice("fuel", "", "Vehicle runs on", FUELS).lasts(),
        Field::count("total_km", "", "Kilometres in the year", 1_000_000),
        Field::count("business_km", "", "Of them for work", 1_000_000),
        Field::amount("vehicle_costs", "", "Vehicle costs with depreciation"),
        Field::choice("vehicle_before", "", "Vehicle by which method last year", VEHICLE_METHODS),
        Field::yes_no("logbook", "", "Logbook of 90 days, not older than three years").blank_is("true"),
        Field::count("area", "", "Room at home in m²", 10_000).lasts(),
        Field::count("total_area", "", "Home in m²", 100_000).lasts(),
        Field::choice("room_before", "", "Room by which method last year", ROOM_METHODS),
        Field::amount("premises", "", "Premises: rates, rent or interest, insurance"),
        Field::amount("utilities", "", "Power, phone, internet"),
    ],
    columns: &[
        Field::text("what", "", "What", 80),
        Field::amount("amount", "", "Expense").help("Without vehicle and home; depreciation is among them."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// By which a vehicle was claimed: the boxes that each takes.
const VEHICLE_METHODS: &[Choice] =
    &[Choice::new("business_km", "By kilometres"), Choice::new("vehicle_costs", "By costs")];

/// By which a room was claimed: the boxes that each takes.
const ROOM_METHODS: &[Choice] =
    &[Choice::new("area", "By square metres"), Choice::new("premises", "By costs")];

const SUMMARY: PaperKind = PaperKind {
    id: "IR10",
    subject: subject::OWN_WORK,
    name: "Summary of accounts",
    words: "financial statements balance accounts ir10",
    title: "Trade",
    shared: false,
    headline: "profit",
    boxes: &[
        Field::amount("sales", "", "Sales"),
        Field::amount("opening", "", "Opening stock"),
        Field::amount("purchases", "", "Purchases"),
        Field::amount("closing", "", "Closing stock"),
        Field::amount("wages", "", "Wages"),
        Field::amount("depreciation", "", "Depreciation"),
        Field::amount("expenses", "", "All other expenses"),
        Field::signed("adjustments", "", "Adjustments for tax"),
        Field::signed("profit", "", "Taxable profit of this year"),
        Field::amount("assets", "", "Total assets"),
        Field::amount("liabilities", "", "Total liabilities"),
        Field::amount("drawings", "", "Drawings"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives a trade or a summary to its owner.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == SUMMARY.id {
        return paper.give(&[("profit", &brings::SUMMARIES)]);
    }
    let expenses =
        paper.paper.lines("amount").map(|(row, _, amount)| paper.paper.item("amount", Some(row), amount));
    let trade = Trade {
        id: paper.paper.paper.id.clone(),
        title: paper.paper.paper.title.clone(),
        turnover: paper.item("turnover", paper.amount("turnover")),
        expenses: expenses.collect(),
        vehicle: vehicle(paper),
        room: room(paper),
    };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::TRADES, trade.clone());
    }
    paper.needs_return();
}

/// The vehicle: a part of the year's kilometres at their rates, or that part of its costs.
fn vehicle(paper: &Bringing<'_>) -> Option<[Item; 2]> {
    let (total, business) = (paper.count("total_km"), paper.count("business_km"));
    if total == 0 {
        return None;
    }
    let figures = &paper.facts.figures.trade;
    let rates = figures.kilometre.iter().find(|rate| rate.fuel == paper.text("fuel"));
    let first = settled::lesser(total, figures.first_kilometres);
    let year = rates.map_or(Money::ZERO, |rate| rate.first * first + rate.rest * (total - first));
    let part = |amount: Money| crate::rounding::portion(amount, business, total);
    let costs = part(paper.amount("vehicle_costs"));
    Some([paper.item("business_km", part(year)), paper.item("vehicle_costs", costs)])
}

/// The room: a rate for each square metre with premises by area, or all costs by area; each rounded once.
fn room(paper: &Bringing<'_>) -> Option<[Item; 2]> {
    let (area, whole) = (paper.count("area"), paper.count("total_area"));
    if area == 0 || whole == 0 {
        return None;
    }
    let (premises, utilities) = (paper.amount("premises"), paper.amount("utilities"));
    let rate = paper.facts.figures.trade.square_metre;
    let by_area = |amount: Money| crate::rounding::portion(amount, area, whole);
    Some([
        paper.item("area", rate * area + by_area(premises)),
        paper.item("premises", by_area(premises + utilities)),
    ])
}

/// What a trade leaves in a way, and what of it was taken off for the vehicle and the room.
struct Left {
    net: Money,
    vehicle: Option<Item>,
    room: Option<Item>,
}

fn left(on: On<'_>, trade: &Trade) -> Left {
    let paper = trade.turnover.paper;
    let vehicle = trade.vehicle.and_then(|[kilometres, costs]| match of(&on.plan.vehicles, paper) {
        None | Some(VehicleMethod::Kilometres) => Some(kilometres),
        Some(VehicleMethod::Costs) => Some(costs),
        Some(VehicleMethod::Nothing) => None,
    });
    let room = trade.room.and_then(|[metres, costs]| match of(&on.plan.rooms, paper) {
        None | Some(RoomMethod::SquareMetres) => Some(metres),
        Some(RoomMethod::Costs) => Some(costs),
        Some(RoomMethod::Nothing) => None,
    });
    let off = |item: Option<Item>| item.map_or(Money::ZERO, |item| item.amount);
    let net = trade.turnover.amount - sum(&trade.expenses) - off(vehicle) - off(room);
    Left { net, vehicle, room }
}

fn of<M: Copy>(methods: &[(usize, M)], paper: usize) -> Option<M> {
    methods.iter().find(|(of, _)| *of == paper).map(|(_, method)| *method)
}

/// Question 24; with it what losses of single trades come to.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> (Money, Money) {
    let trades = on.own().of(&brings::TRADES);
    if trades.is_empty() {
        return (Money::ZERO, Money::ZERO);
    }
    let all: Vec<Left> = trades.iter().map(|trade| left(on, trade)).collect();
    let vehicles: Vec<Item> = all.iter().filter_map(|left| left.vehicle).collect();
    let rooms: Vec<Item> = all.iter().filter_map(|left| left.room).collect();
    let vehicle = on.gather(trail, VEHICLE, &vehicles);
    let room = on.gather(trail, ROOM, &rooms);
    let summaries = on.own().of(&brings::SUMMARIES);
    if !summaries.is_empty() {
        on.gather(trail, SUMMARY_PROFIT, summaries);
    }
    let net = trail.line(NET, on.scope, all.iter().map(|left| left.net).sum(), |i| {
        i.items(trades.iter().flat_map(|trade| [&trade.turnover].into_iter().chain(&trade.expenses)));
        i.line(VEHICLE, on.scope, vehicle).line(ROOM, on.scope, room);
    });
    (net, all.iter().map(|left| settled::or_zero(-left.net)).sum())
}

/// By how much most trades can lower a person's income: the largest of every deduction.
pub fn lowest_plan(own: &Records) -> (Vehicles, Rooms) {
    let trades = own.of(&brings::TRADES);
    let larger = |[first, second]: [Item; 2]| first.amount >= second.amount;
    let vehicle = |trade: &Trade| {
        let by_kilometre = trade.vehicle.is_some_and(larger);
        (trade.turnover.paper, if by_kilometre { VehicleMethod::Kilometres } else { VehicleMethod::Costs })
    };
    let room = |trade: &Trade| {
        let by_metre = trade.room.is_some_and(larger);
        (trade.turnover.paper, if by_metre { RoomMethod::SquareMetres } else { RoomMethod::Costs })
    };
    (trades.iter().map(vehicle).collect(), trades.iter().map(room).collect())
}

fn trades(facts: &Facts) -> impl Iterator<Item = &Trade> {
    facts.returns.iter().flat_map(|&person| facts.people[person].own.of(&brings::TRADES))
}

fn trade_at(facts: &Facts, paper: usize) -> (&str, &str) {
    let found = trades(facts).find(|trade| trade.turnover.paper == paper);
    let (id, title) = found.map_or(("", ""), |trade| (trade.id.as_str(), trade.title.as_str()));
    (id, if title.is_empty() { "the trade" } else { title })
}

/// How a vehicle is deducted, by the trade's paper.
pub static VEHICLE_BY: Open<Facts> = Open::new(
    |facts| trades(facts).filter(|trade| trade.vehicle.is_some()).map(|trade| trade.turnover.paper).collect(),
    |facts, paper| {
        let (id, title) = trade_at(facts, paper);
        let options = vec![
            Opt::new("km", "By the kilometre", format!("vehicle of {title} by the kilometre")),
            Opt::new("actual", "By its costs", format!("vehicle of {title} by costs")),
            Opt::new("none", "Not claimed", format!("vehicle of {title} not claimed")),
        ];
        Decision::between(
            format!("nz.vehicle.{id}"),
            format!("Vehicle of {title}"),
            "ITA DE 2, DE 12",
            options,
        )
    },
);

/// How a room at home is deducted, by the trade's paper.
pub static ROOM_BY: Open<Facts> = Open::new(
    |facts| trades(facts).filter(|trade| trade.room.is_some()).map(|trade| trade.turnover.paper).collect(),
    |facts, paper| {
        let (id, title) = trade_at(facts, paper);
        let options = vec![
            Opt::new("sqm", "By the square metre", format!("room of {title} by the square metre")),
            Opt::new("actual", "By costs", format!("room of {title} by costs")),
            Opt::new("none", "Not claimed", format!("room of {title} not claimed")),
        ];
        Decision::between(format!("nz.room.{id}"), format!("Room of {title}"), "ITA DB 18AA", options)
    },
);

/// How vehicles are deducted in a way, by paper.
pub fn chosen_vehicles(way: Chosen<'_, '_, Facts>) -> Vehicles {
    let method = |taken| match taken {
        Some(1) => VehicleMethod::Costs,
        Some(2) => VehicleMethod::Nothing,
        _ => VehicleMethod::Kilometres,
    };
    way.each(&VEHICLE_BY).map(|(paper, taken)| (paper, method(taken))).collect()
}

/// How rooms are deducted in a way, by paper.
pub fn chosen_rooms(way: Chosen<'_, '_, Facts>) -> Rooms {
    let method = |taken| match taken {
        Some(1) => RoomMethod::Costs,
        Some(2) => RoomMethod::Nothing,
        _ => RoomMethod::SquareMetres,
    };
    way.each(&ROOM_BY).map(|(paper, taken)| (paper, method(taken))).collect()
}

/// Form IR10: where a summary is attached.
pub fn form_ir10(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.own().has(&brings::SUMMARIES), "no summary of accounts attached")
}

/// A summary that is not the trade's, a vehicle without a logbook, parts that are larger than the whole.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(TRADE.id) {
        vehicle_points(points, paper);
        let count = |field: &str| paper.boxes.get(field).and_then(Entry::count).unwrap_or(0);
        for (part, whole) in [("business_km", "total_km"), ("area", "total_area")] {
            if count(part) > count(whole) {
                points.raise(&IMPOSSIBLE, Place::paper(&paper.id, part), "More than the whole.");
            }
        }
    }
    for (place, person) in points.returns() {
        summary(points, place, person);
        for (line, before, methods) in
            [(VEHICLE, "vehicle_before", VEHICLE_METHODS), (ROOM, "room_before", ROOM_METHODS)]
        {
            new_method(points, (line, place), before, methods);
        }
    }
}

/// A method of the chosen way that is not last year's: a method is named after the box whose amount it takes.
fn new_method(points: &mut Points<'_>, (line, place): (LineId, usize), before: &str, methods: &[Choice]) {
    let taken: Vec<Item> = points
        .trail
        .lines
        .iter()
        .filter(|of| of.id == line && of.scope == Scope::Return(place))
        .flat_map(|of| &of.inputs.0)
        .filter_map(|input| if let Input::Box(item) = input { Some(*item) } else { None })
        .collect();
    for item in taken.into_iter().filter(|item| !item.amount.is_zero()) {
        let paper = &points.household.papers[item.paper];
        let last = paper.text(before);
        let known = methods.iter().any(|method| method.id == item.field);
        if known && last.is_some_and(|last| last != item.field) {
            let message = format!("{}: another method than last year.", paper.title);
            points.raise(&NEW_METHOD, Place::paper(&paper.id, before), message);
        }
    }
}

fn vehicle_points(points: &mut Points<'_>, paper: &Paper) {
    let count = |field: &str| paper.boxes.get(field).and_then(Entry::count).unwrap_or(0);
    let (total, business) = (count("total_km"), count("business_km"));
    if total == 0 {
        return;
    }
    let figures = &points.facts.figures.trade;
    let most = Money::whole(total).times(figures.without_logbook_to, Money::CENT, Rounding::HalfUp);
    let kept = paper.boxes.get("logbook").and_then(Entry::flag) != Some(false);
    if !kept && Money::whole(business) > most {
        let message = "Without a logbook at most 25 % of the vehicle counts.";
        points.raise(&LOGBOOK, Place::paper(&paper.id, "business_km"), message);
    }
    if paper.text("fuel").is_none() {
        points.raise(&FUEL, Place::paper(&paper.id, "fuel"), "What does the vehicle run on?");
    } else {
        let message = "The rates a kilometre and a square metre are to be confirmed.";
        points.raise(&RATE_OF_YEAR, Place::paper(&paper.id, "fuel"), message);
    }
}

fn summary(points: &mut Points<'_>, place: usize, person: usize) {
    let own = &points.facts.people[person].own;
    let trades = own.of(&brings::TRADES);
    let summaries = own.of(&brings::SUMMARIES);
    if trades.is_empty() && summaries.is_empty() {
        return;
    }
    let net = points.amount(NET, place);
    match summaries.first() {
        None => {
            let paper = &points.household.papers[trades[0].turnover.paper];
            let message = format!("{}: no summary of accounts is attached.", points.name(person));
            points.raise(&NO_SUMMARY, Place::paper(&paper.id, "turnover"), message);
        }
        Some(first) if sum(summaries) != net => {
            let paper = &points.household.papers[first.paper];
            let told = sum(summaries);
            let message = format!("The summary says {told:#}, the trade makes {net:#}.");
            points.suggest(&SUMMARY_APART, Place::paper(&paper.id, "profit"), message, net);
        }
        Some(_) => {}
    }
}
