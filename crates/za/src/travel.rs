//! Travel for work against an allowance (s8(1)(b)): by deemed cost or actual cost, up to the allowance, with a logbook.

use crate::{
    bringing::Bringing,
    facts::Facts,
    plan::{On, TravelMethod},
    points::Points,
    rounding::portion,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Bar, Decision, Opt},
    field::{Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Travel for work",
    lines: LINES,
    limits: LIMITS,
    papers: &[LOGBOOK],
    points: POINTS,
    figures: &["travel"],
    ..Provision::NONE
};

lines! {
    DEEMED = "za.travel_deemed", "Travel by deemed cost", "s8(1)(b)(ii); notice on rates per kilometre",
        "Fixed cost by the kilometre with fuel and maintenance, for the kilometres driven for work.";
    ACTUAL = "za.travel_actual", "Travel by actual cost", "s8(1)(b)(ii)",
        "The year's costs, the part driven for work.";
    pub CLAIM = "za.travel_claim", "Travel deduction", "s8(1)(b); code 4014",
        "By the method of the way, at most the allowance.";
}

limits! {
    ALLOWANCE = "za.limit.travel" on CLAIM, "Travel for work", "over the allowance", "s8(1)(b)";
}

open_points! {
    NO_LOGBOOK = blocks "C14", "s8(1)(b)", "Without a logbook nothing is deducted: keep one, or take the claim out.";
    IMPOSSIBLE = blocks "C15", "s8(1)(b)", "A part cannot be larger than the whole.";
    ODOMETER = blocks "C16", "s8(1)(b)", "Compare the kilometres with the odometer.";
    NO_TABLE = look "C61", "s8(1)(b)(ii)", "The notice of this year is not among the figures: only actual costs are open until a practice enters it.";
    CAPPED = look "C19", "s8(1)(b)(ii)", "Wear and finance of dearer vehicles are capped: enter what is left.";
}

/// What its papers bring.
pub mod brings {
    use super::Vehicle;
    use hembo_core::brought::Brought;

    /// Vehicles driven for work.
    pub static VEHICLES: Brought<Vehicle> = Brought::new();
}

/// A vehicle: what its travel for work comes to.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Vehicle {
    pub deemed: Item,
    pub actual: Item,
}

const LOGBOOK: PaperKind = PaperKind {
    id: "Logbook",
    subject: subject::DEDUCTIONS,
    name: "Travel for work",
    words: "car vehicle kilometres travel allowance logbook",
    title: "Vehicle",
    shared: false,
    headline: "costs",
    boxes: &[
        Field::amount("value", "", "Value with VAT, without finance").lasts(),
        Field::count("opening", "", "Odometer on 1 March", 10_000_000),
        Field::count("closing", "", "Odometer at the end of February", 10_000_000),
        Field::count("total_km", "", "Kilometres in the year", 1_000_000),
        Field::count("business_km", "4014", "Of them for work", 1_000_000),
        Field::count("days", "", "Days in use", 366).help("Blank: all of the year."),
        Field::yes_no("logbook", "", "Logbook kept").help("Without one nothing is deducted."),
        Field::yes_no("fuel", "", "Paid all fuel").blank_is("true").lasts(),
        Field::yes_no("maintenance", "", "Paid all maintenance").blank_is("true").lasts(),
        Field::amount("costs", "", "Actual costs of the year")
            .help("Fuel, insurance, licence, repairs, finance, a seventh of the value as wear."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Deemed cost: fixed cost by the kilometre to a hundredth of a cent, with fuel and maintenance where they were paid.
fn deemed(paper: &Bringing<'_>, total: i64, business: i64) -> Money {
    let figures = &paper.facts.figures.travel;
    let row = figures.costs.iter().find(|row| paper.amount("value") <= row.to);
    let Some(row) = row.filter(|_| paper.has("value")) else { return Money::ZERO };
    let days = if paper.has("days") { paper.count("days") } else { figures.days };
    // From here on an amount counts hundredths of a cent.
    let fixed = portion(row.fixed * 100 * days, 1, figures.days * total);
    let paid = |field: &str, rate: Rate| {
        let paid = paper.paper.paper.boxes.get(field).and_then(Entry::flag).unwrap_or(true);
        if paid { Money::whole(1).times(rate, Money::CENT, Rounding::HalfUp) } else { Money::ZERO }
    };
    let kilometre = fixed + paid("fuel", row.fuel) + paid("maintenance", row.maintenance);
    portion(kilometre * business, 1, 100)
}

/// Gives a vehicle to who drove it; without a logbook nothing.
pub fn read(paper: &mut Bringing<'_>) {
    let (total, business) = (paper.count("total_km"), paper.count("business_km"));
    if total == 0 || !paper.flag("logbook") {
        return;
    }
    let actual = portion(paper.amount("costs"), business, total);
    let vehicle = Vehicle {
        deemed: paper.item("business_km", deemed(paper, total, business)),
        actual: paper.item("costs", actual),
    };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::VEHICLES, vehicle);
    }
}

/// The deduction of the way.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, allowance: Money) -> Money {
    let vehicles = on.own().of(&brings::VEHICLES);
    if vehicles.is_empty() {
        return Money::ZERO;
    }
    let deemed = on.gather(trail, DEEMED, vehicles.iter().map(|vehicle| &vehicle.deemed));
    let actual = on.gather(trail, ACTUAL, vehicles.iter().map(|vehicle| &vehicle.actual));
    let (line, wanted) = match on.plan.travel.get(on.person) {
        Some(TravelMethod::Deemed) => (DEEMED, deemed),
        Some(TravelMethod::Actual) => (ACTUAL, actual),
        _ => return Money::ZERO,
    };
    let claim = limit::cap(trail, ALLOWANCE.at(on.scope), wanted, allowance);
    on.made(trail, CLAIM, claim, &[(line, wanted)], &[("Allowance", &allowance)])
}

/// How travel is deducted, by the person's place.
pub static METHOD: Open<Facts> = Open::new(
    |facts: &Facts| {
        let has = |&p: &usize| facts.people[p].own.has(&brings::VEHICLES);
        facts.returns.iter().copied().filter(has).collect()
    },
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("deemed", "By deemed cost", format!("travel of {name} by deemed cost")),
            Opt::new("actual", "By actual cost", format!("travel of {name} by actual cost")),
            Opt::new("none", "Not claimed", format!("travel of {name} not claimed")),
        ];
        let id = format!("za.travel.{}", facts.people[person].id);
        Decision::between(id, format!("Travel of {name}"), "s8(1)(b)(ii)", options)
    },
)
.bars(|facts, person, option, _| {
    let vehicles = facts.people[person].own.of(&brings::VEHICLES);
    let nothing = |item: fn(&Vehicle) -> Money| vehicles.iter().all(|vehicle| item(vehicle).is_zero());
    match option {
        0 if facts.figures.travel.costs.is_empty() => {
            Some(Bar::Borrowed("the notice of this year is not known"))
        }
        0 if nothing(|vehicle| vehicle.deemed.amount) => {
            Some(Bar::Borrowed("the value of the vehicle is not known"))
        }
        1 if nothing(|vehicle| vehicle.actual.amount) => Some(Bar::Borrowed("no actual costs")),
        _ => None,
    }
});

/// The methods of a way, by person.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<TravelMethod> {
    let of = |person| match way.taken(&METHOD, person) {
        Some(0) => TravelMethod::Deemed,
        Some(1) => TravelMethod::Actual,
        _ => TravelMethod::Nothing,
    };
    (0..facts.people.len()).map(of).collect()
}

/// Claims without a logbook, kilometres that cannot be, a notice that is missing.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(LOGBOOK.id) {
        let count = |field: &str| paper.boxes.get(field).and_then(Entry::count).unwrap_or(0);
        let at = |field: &str| Place::paper(&paper.id, field);
        let (total, business) = (count("total_km"), count("business_km"));
        if business > 0 && !paper.flag("logbook") {
            points.raise(&NO_LOGBOOK, at("logbook"), "Was a logbook kept?");
        }
        if business > total {
            points.raise(&IMPOSSIBLE, at("business_km"), "More than the whole.");
        }
        let driven = count("closing") - count("opening");
        if paper.boxes.contains_key("closing") && total > driven {
            points.raise(&ODOMETER, at("total_km"), format!("The odometer tells {driven} km."));
        }
        if points.facts.figures.travel.costs.is_empty() {
            points.raise(&NO_TABLE, at("value"), "Deemed cost of this year is not known.");
        }
        if paper.amount("value") > Money::whole(800_000) && !paper.amount("costs").is_zero() {
            points.raise(&CAPPED, at("costs"), "The value is above 800,000.");
        }
    }
}
