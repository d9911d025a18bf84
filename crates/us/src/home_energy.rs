//! Home energy (§§25C, 25D), Form 5695: improvements of a home, each sort up to its amount; and clean energy for it, what is over the
//! tax carried on.

use crate::{
    bringing::Bringing,
    figures,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[HOME],
    points: POINTS,
    figures: &["home_energy"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRY, paper: "5695", into: CarriedTo::Box("12") }];

lines! {
    COSTS = "us.5695.6a", "Clean energy", "IRC §25D(a), (d)",
        "Solar, wind, geothermal, batteries, fuel cells: a part of the cost.";
    CARRIED = "us.5695.12", "Clean energy credit carried here", "IRC §25D(c)",
        "What was over the tax of last year.";
    pub CLEAN = "us.sched_3.5a", "Clean energy credit", "IRC §25D",
        "Up to the tax that all other credits leave.";
    CARRY = "us.carryover.clean_energy", "Clean energy credit carried on", "IRC §25D(c)",
        "What is over the tax.";
    PARTS = "us.5695.27", "Insulation, doors, windows, equipment", "IRC §25C(b)(1), (2)",
        "A part of the cost, each sort and all together up to an amount.";
    PUMPS = "us.5695.29h", "Heat pumps and biomass", "IRC §25C(b)(5)",
        "A part of the cost, up to an amount of their own.";
    pub IMPROVEMENTS = "us.sched_3.5b", "Home improvement credit", "IRC §25C",
        "Up to the tax.";
}

limits! {
    PARTS_MOST = "us.limit.home_parts" on PARTS, "Home improvements", "over the amounts of the year", "IRC §25C(b)(1), (2)";
    PUMPS_MOST = "us.limit.heat_pumps" on PUMPS, "Heat pumps and biomass", "over the amount of the year", "IRC §25C(b)(5)";
    TAX = "us.limit.home_improvement_tax" on IMPROVEMENTS, "Home improvement credit", "over the tax, and lost", "IRC §26(a)";
    CLEAN_TAX = "us.limit.clean_energy_tax" on CLEAN, "Clean energy credit", "over the tax, and carried on", "IRC §25D(c)";
}

open_points! {
    SORT = blocks "5695-sort", "Form 5695",
        "Choose what it is.";
    DATE = blocks "K-132", "IRC §§25C(h), 25D(h)",
        "It counts in the year in which it was installed, to 31 December 2025 at the latest: correct the day, or leave it out.";
    CODE = blocks "K-132-code", "IRC §25C(h)",
        "Enter the manufacturer's number: from 2025 the form asks for it.";
    HALVES = blocks "5695-fuel-cell", "IRC §25D(b)(1)",
        "Enter the half kilowatts: the credit of a fuel cell goes by them.";
    SUBSIDY = look "5695-subsidy", "IRC §136; Form 5695",
        "What a utility paid is off the cost, and the credit is off the basis of the home.";
}

/// What may be put into a home.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Sort {
    Insulation,
    Doors,
    Windows,
    Cooling,
    Water,
    Furnace,
    Panel,
    Audit,
    Pumps,
    Clean,
    FuelCell,
}

impl Sort {
    fn of(id: &str) -> Option<Sort> {
        Some(match id {
            "insulation" => Sort::Insulation,
            "door" => Sort::Doors,
            "windows" => Sort::Windows,
            "cooling" => Sort::Cooling,
            "water" => Sort::Water,
            "furnace" => Sort::Furnace,
            "panel" => Sort::Panel,
            "audit" => Sort::Audit,
            "pump" | "biomass" => Sort::Pumps,
            "solar" | "solar_water" | "wind" | "geothermal" | "battery" => Sort::Clean,
            "fuel_cell" => Sort::FuelCell,
            _ => return None,
        })
    }

    fn is_clean(self) -> bool {
        matches!(self, Sort::Clean | Sort::FuelCell)
    }

    /// Parts of a maker that the form asks a number of.
    fn has_code(self) -> bool {
        !self.is_clean() && !matches!(self, Sort::Insulation | Sort::Audit)
    }
}

/// Something that was put into a home.
#[derive(Debug, Clone)]
pub struct Installed {
    sort: Sort,
    cost: Item,
    halves: i64,
}

/// What its papers bring.
pub mod brings {
    use super::Installed;
    use hembo_core::brought::Brought;

    /// What was put into a home.
    pub static INSTALLED: Brought<Installed> = Brought::new();

    /// The clean energy credit of last year that was over the tax.
    pub static CARRIED: Brought = Brought::new();
}

const SORTS: &[Choice] = &[
    Choice::new("insulation", "Insulation, air sealing"),
    Choice::new("door", "Exterior door"),
    Choice::new("windows", "Windows, skylights"),
    Choice::new("cooling", "Central air conditioner"),
    Choice::new("water", "Water heater, gas or oil"),
    Choice::new("furnace", "Furnace, hot water boiler"),
    Choice::new("panel", "Electric panel and wiring"),
    Choice::new("audit", "Home energy audit"),
    Choice::new("pump", "Heat pump, heat pump water heater"),
    Choice::new("biomass", "Biomass stove or boiler"),
    Choice::new("solar", "Solar electricity"),
    Choice::new("solar_water", "Solar water heating"),
    Choice::new("wind", "Small wind"),
    Choice::new("geothermal", "Geothermal heat pump"),
    Choice::new("battery", "Battery of 3 kWh or more"),
    Choice::new("fuel_cell", "Fuel cell, main home"),
];

const HOME: PaperKind = PaperKind {
    id: "5695",
    subject: subject::CREDITS,
    name: "Home energy",
    words: "solar panels heat pump insulation windows doors battery energy credit 5695 residential clean",
    title: "Home",
    shared: true,
    headline: "amount",
    boxes: &[
        Field::amount("12", "12", "Clean energy credit carried here").help("Form 5695 line 16 of last year.")
    ],
    columns: &[
        Field::choice("sort", "", "What", SORTS),
        Field::date("date", "", "Installed on"),
        Field::amount("amount", "", "Cost").help("With labor where the form counts it, less subsidies."),
        Field::text("code", "", "Manufacturer's number", 20).since(2025),
        Field::count("halves", "", "Half kilowatts", 1_000).help("Of a fuel cell only."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives what was installed in the year to its owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("12", &brings::CARRIED);
    let (year, last) = (paper.facts.figures.year, paper.facts.figures.home_energy.installed_by.0);
    for (r, row, amount) in paper.paper.lines("amount") {
        let in_year =
            row.get("date").and_then(Entry::date).is_some_and(|date| date.year() == year && date <= last);
        let sort = row.get("sort").and_then(Entry::text).and_then(Sort::of);
        if let Some(sort) = sort.filter(|_| in_year) {
            let halves = row.get("halves").and_then(Entry::count).unwrap_or(0);
            paper.put_as("amount", Some(r), amount, &brings::INSTALLED, |cost| Installed {
                sort,
                cost,
                halves,
            });
        }
    }
}

fn installed(on: On<'_>) -> impl Iterator<Item = &Installed> {
    on.owns().flat_map(|(_, own)| own.of(&brings::INSTALLED))
}

fn share(on: On<'_>, cost: Money) -> Money {
    cost.to_whole().times(on.facts.figures.home_energy.rate, Money::WHOLE, Rounding::HalfUp)
}

/// The part of the cost of a sort.
fn of_sort(on: On<'_>, sort: Sort) -> Money {
    share(on, sum(installed(on).filter(|one| one.sort == sort).map(|one| &one.cost)))
}

/// Schedule 3 line 5b; `left` is the tax that earlier credits leave.
pub fn improvements(on: On<'_>, trail: &mut impl Trail, left: Money) -> Money {
    if installed(on).all(|one| one.sort.is_clean()) {
        return trail.line(IMPROVEMENTS, on.scope, Money::ZERO, |_| {});
    }
    let figures = &on.facts.figures.home_energy;
    let (wanted, most) = (parts(on), figures.parts_most);
    let parts = limit::cap(trail, PARTS_MOST.at(on.scope), wanted, most);
    trail.line(PARTS, on.scope, parts, |i| {
        i.items(
            installed(on).filter(|one| !one.sort.is_clean() && one.sort != Sort::Pumps).map(|one| &one.cost),
        );
        i.figure("Rate", figures.rate).figure("At most", most);
    });
    let pumps = limit::cap(trail, PUMPS_MOST.at(on.scope), of_sort(on, Sort::Pumps), figures.pumps_most);
    trail.line(PUMPS, on.scope, pumps, |i| {
        i.items(installed(on).filter(|one| one.sort == Sort::Pumps).map(|one| &one.cost));
        i.figure("Rate", figures.rate).figure("At most", figures.pumps_most);
    });
    let credit = limit::cap(trail, TAX.at(on.scope), parts + pumps, left);
    trail.line(IMPROVEMENTS, on.scope, credit, |i| {
        i.line(PARTS, on.scope, parts).line(PUMPS, on.scope, pumps).figure("Tax left", left);
    })
}

/// Lines 18 to 26c: each sort within its amount.
fn parts(on: On<'_>) -> Money {
    let figures: &figures::HomeEnergy = &on.facts.figures.home_energy;
    let within = |sort: Sort, most: Money| settled::lesser(of_sort(on, sort), most);
    let doors = installed(on).filter(|one| one.sort == Sort::Doors);
    let doors: Money = doors.map(|one| settled::lesser(share(on, one.cost.amount), figures.door_each)).sum();
    [
        of_sort(on, Sort::Insulation),
        settled::lesser(doors, figures.doors_most),
        within(Sort::Windows, figures.item_most),
        within(Sort::Cooling, figures.item_most),
        within(Sort::Water, figures.item_most),
        within(Sort::Furnace, figures.item_most),
        within(Sort::Panel, figures.item_most),
        within(Sort::Audit, figures.audit_most),
    ]
    .into_iter()
    .sum()
}

/// Whether there is any clean energy credit to take or to carry on.
pub fn any_clean(on: On<'_>) -> bool {
    installed(on).any(|one| one.sort.is_clean()) || on.items(&brings::CARRIED).next().is_some()
}

/// Schedule 3 line 5a; `left` is the tax that all other credits leave.
pub fn clean(on: On<'_>, trail: &mut impl Trail, left: Money) -> Money {
    let figures = &on.facts.figures.home_energy;
    let clean = installed(on).filter(|one| one.sort == Sort::Clean);
    let cells = installed(on).filter(|one| one.sort == Sort::FuelCell);
    let cells = cells
        .map(|one| settled::lesser(share(on, one.cost.amount), figures.fuel_cell_half_kilowatt * one.halves));
    let costs = share(on, sum(clean.map(|one| &one.cost))) + cells.sum();
    trail.line(COSTS, on.scope, costs, |i| {
        i.items(installed(on).filter(|one| one.sort.is_clean()).map(|one| &one.cost));
        i.figure("Rate", figures.rate);
    });
    let carried = on.gather(trail, CARRIED, &brings::CARRIED);
    let credit = limit::cap(trail, CLEAN_TAX.at(on.scope), costs + carried, left);
    trail.line(CARRY, on.scope, costs + carried - credit, |i| {
        i.line(COSTS, on.scope, costs).line(CARRIED, on.scope, carried);
    });
    trail.line(CLEAN, on.scope, credit, |i| {
        i.line(COSTS, on.scope, costs).line(CARRIED, on.scope, carried).figure("Tax left", left);
    })
}

/// Form 5695: where there is a credit to take or to carry on.
pub fn form_5695(filed: Filed<'_>) -> Required {
    let any = filed.has(IMPROVEMENTS) || filed.has(CLEAN) || filed.has(CARRY);
    Required::if_so(any, "no home energy credit")
}

/// What was put in, when and by whom it was made.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(HOME.id) {
        for row in &paper.rows {
            let at = |field: &str| Place::row(&paper.id, row, field);
            let Some(sort) = row.get("sort").and_then(Entry::text).and_then(Sort::of) else {
                points.raise(&SORT, at("sort"), "What was put into the home?");
                continue;
            };
            let date = row.get("date").and_then(Entry::date);
            let (year, last) = (points.facts.figures.year, points.facts.figures.home_energy.installed_by.0);
            if date.is_none_or(|date| date.year() != year || date > last) {
                points.raise(&DATE, at("date"), "It was not installed in this year, and in time.");
            }
            let since = HOME.column("code").is_some_and(|column| column.years.hold(points.household.year));
            if since && sort.has_code() && row.get("code").is_none() {
                points.raise(&CODE, at("code"), "The manufacturer's number is missing.");
            }
            if sort == Sort::FuelCell && row.get("halves").is_none() {
                points.raise(&HALVES, at("halves"), "How many half kilowatts has the fuel cell?");
            }
        }
        if !paper.rows.is_empty() {
            points.raise(&SUBSIDY, Place::paper(&paper.id, "12"), "Did a utility pay a part?");
        }
    }
}
