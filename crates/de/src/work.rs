//! Work expenses against the lump sum (§§9, 9a S.1 Nr.1a EStG; Anlage N): the way to work, the home, equipment, moves, travel, a second
//! household.

use crate::{
    bringing::{Bringing, count, money},
    disability::drives_as_disabled,
    equipment,
    facts::Facts,
    figures::Figures,
    plan::{On, Plan},
    rounding::euros_up,
    wage,
};
use hembo_core::{
    Decision,
    choice::{Chosen, Open},
    decision::Opt,
    field::{Choice, Field, Years},
    household::{Answers, Entry},
    limit, limits,
    line::LineId,
    lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Trail},
};
use hembo_money::{Money, Rate};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Work expenses",
    lines: LINES,
    limits: LIMITS,
    papers: &[COMMUTE, HOME, MOVE, TRIPS, SECOND_HOME, OTHER],
    figures: &["wages", "commute", "home_office", "equipment", "moves", "travel", "second_household"],
    ..Provision::NONE
};

lines! {
    WAY = "de.commute", "Way to work (Entfernungspauschale)", "§9(1) S.3 Nr.4, (2)",
        "Each day's distance in full kilometres, or the tickets of the year where they are more; less what the employer paid.";
    AT_HOME = "de.home_office", "Work at home (Tagespauschale, Arbeitszimmer)", "§4(5) Nr.6b, 6c",
        "Days at home, or a room that is the centre of all work.";
    THINGS = "de.equipment", "Equipment (Arbeitsmittel)", "§9(1) S.3 Nr.6, 7; §6(2)",
        "At once where it is small or digital, else by months of its life.";
    ACCOUNT = "de.account_fee", "Account fee", "practice",
        "Without proof.";
    MOVES = "de.moving", "Moves for work", "§9(1); §10 BUKG",
        "Costs with the flat sums of the day.";
    TRAINING = "de.training", "Training (Fortbildung)", "§9(1)",
        "Courses beside or after a first training.";
    TRAVEL = "de.work_trips", "Travel for work", "§9(1) S.3 Nr.4a, 5a, (4a)",
        "Days away less meals that were given, kilometres, costs; less what was refunded.";
    SECOND = "de.double_household", "Second household (doppelte Haushaltsführung)", "§9(1) S.3 Nr.5",
        "The home at the place of work up to a most a month, trips home, other costs.";
    FURTHER = "de.other_work", "Other work expenses", "§9(1)",
        "Dues, applications, clothes, advice.";
    ACTUAL = "de.work_expenses_actual", "Work expenses, actual", "§9",
        "All of them together.";
    pub TAKEN = "de.work_expenses", "Work expenses taken (Werbungskosten)", "§§9, 9a S.1 Nr.1a",
        "The lump sum, at most the wage, or the actual ones where they are more.";
}

limits! {
    WITHOUT_CAR = "de.limit.commute" on WAY, "Way to work without an own car", "over the most of a year", "§9(1) S.3 Nr.4 S.2";
    DAYS_AT_HOME = "de.limit.home" on AT_HOME, "Days at home", "over the most of a year", "§4(5) Nr.6c";
    LODGING = "de.limit.lodging" on SECOND, "Home at the place of work", "over the most a month", "§9(1) S.3 Nr.5 S.4";
}

/// What its papers bring.
pub mod brings {
    use super::{Home, Way};
    use hembo_core::brought::Brought;

    /// The way to work.
    pub static WAYS: Brought<Way> = Brought::new();
    /// Work at home.
    pub static HOMES: Brought<Home> = Brought::new();
    /// Moves.
    pub static MOVES: Brought = Brought::new();
    /// Travel, less meals and refunds.
    pub static TRIPS: Brought = Brought::new();
    /// The home at the place of work: what was paid, and the most of its months.
    pub static LODGING: Brought<[Item; 2]> = Brought::new();
    /// The rest of a second household.
    pub static SECOND_HOME: Brought = Brought::new();
    /// Of its trips what is of the far kilometres.
    pub static FAR_HOME: Brought = Brought::new();
    /// All trips home as way to work, which may stand instead of it.
    pub static ALL_TRIPS: Brought<Way> = Brought::new();
    /// Training.
    pub static TRAINING: Brought = Brought::new();
    /// Other costs.
    pub static OTHER: Brought = Brought::new();

    use hembo_core::trail::Item;
}

/// A way to work of the year.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Way {
    pub by_car: Item,
    pub otherwise: Item,
    pub tickets: Item,
    /// Of the allowance what is of the far kilometres.
    pub far: Item,
}

/// Work at home.
#[derive(Debug, Clone, Copy)]
#[allow(missing_docs)]
pub struct Home {
    pub days: Item,
    /// Of the days those in months without the room, which count beside it.
    pub outside: Item,
    /// Of a room that is the centre of all work.
    pub room: Option<Item>,
}

const MEANS: &[Choice] = &[
    Choice::new("car", "Own car"),
    Choice::new("transit", "Bus and train"),
    Choice::new("mixed", "Car, then bus or train"),
    Choice::new("other", "Bicycle, passenger, on foot"),
];

pub(crate) const COMMUTE: PaperKind = PaperKind {
    id: "Way to work",
    subject: subject::DEDUCTIONS,
    name: "Way to work, Entfernungspauschale",
    words: "commute pendler fahrt days kilometres ticket",
    title: "Work place",
    shared: false,
    headline: "ticket",
    boxes: &[],
    columns: &[
        Field::count("days", "", "Days", 366),
        Field::decimal("km", "", "Kilometres one way", 1).lasts(),
        Field::choice("by", "", "By", MEANS).lasts(),
        Field::amount("ticket", "", "Tickets of the year"),
        Field::decimal("car_km", "", "Of them by car", 1).lasts(),
        Field::amount("actual", "", "Actual costs of both ways, where disabled"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

pub(crate) const HOME: PaperKind = PaperKind {
    id: "Work at home",
    subject: subject::DEDUCTIONS,
    name: "Work at home, Tagespauschale or room",
    words: "home office homeoffice arbeitszimmer",
    title: "About",
    shared: false,
    headline: "cost",
    boxes: &[
        Field::count("days", "", "Days at home", 366),
        Field::yes_no("centre", "", "A room that is the centre of all work"),
        Field::amount("cost", "", "Costs of the room").help("Blank: the flat sum of the year."),
        Field::count("months", "", "Months with the room", 12).blank_is("12"),
        Field::count("days_outside", "", "Of the days, in months without the room", 366),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

pub(crate) const MOVE: PaperKind = PaperKind {
    id: "Move",
    subject: subject::DEDUCTIONS,
    name: "Move for work, Umzug",
    words: "umzug removal",
    title: "To",
    shared: false,
    headline: "costs",
    boxes: &[
        Field::date("loaded", "", "Day of loading"),
        Field::amount("costs", "", "Transport, double rent, broker"),
        Field::yes_no("home_before", "", "Own home before").blank_is("true"),
        Field::yes_no("home_after", "", "Own home after").blank_is("true"),
        Field::count("others", "", "Others who moved along", 20),
        Field::amount("lessons", "", "Lessons of children"),
        Field::count("pupils", "", "Children with lessons", 20),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

pub(crate) const TRIPS: PaperKind = PaperKind {
    id: "Travel",
    subject: subject::DEDUCTIONS,
    name: "Travel for work, Reisekosten",
    words: "trips meals verpflegung hotel",
    title: "About",
    shared: false,
    headline: "costs",
    boxes: &[],
    columns: &[
        Field::text("what", "", "Where to", 80),
        Field::count("full_days", "", "Whole days", 366),
        Field::count("part_days", "", "Days above 8 hours", 366),
        Field::count("breakfasts", "", "Breakfasts given", 366),
        Field::count("main_meals", "", "Main meals given", 732),
        Field::count("car_km", "", "Kilometres by car", 500_000),
        Field::count("other_km", "", "By motorcycle", 500_000),
        Field::amount("costs", "", "Hotel, tickets").help("Also meals abroad, by the rates of the country."),
        Field::amount("refunded", "", "Paid back"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

pub(crate) const SECOND_HOME: PaperKind = PaperKind {
    id: "Second household",
    subject: subject::DEDUCTIONS,
    name: "Second household, doppelte Haushaltsführung",
    words: "doppelte haushaltsfuehrung lodging",
    title: "Place of work",
    shared: false,
    headline: "lodging",
    boxes: &[
        Field::count("months", "", "Months", 12),
        Field::amount("lodging", "", "Home at the place of work, all months"),
        Field::count("trips", "", "Trips home", 60),
        Field::decimal("km", "", "Kilometres one way", 1),
        Field::amount("other", "", "Furniture, meals of three months, moves"),
        Field::count("all_trips", "", "All trips home, where more than one a week", 366)
            .help("They may all count as way to work instead of the second household: both are weighed."),
        Field::yes_no("car", "", "By own car"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const KINDS: &[Choice] =
    &[Choice::new("training", "Training"), Choice::new("other", "Dues, applications, advice, other")];

pub(crate) const OTHER: PaperKind = PaperKind {
    id: "Work costs",
    subject: subject::DEDUCTIONS,
    name: "Other work expenses",
    words: "courses training union dues applications advice",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::choice("kind", "", "Kind", KINDS),
        Field::text("what", "", "What", 80),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Full units of a number with decimals.
fn full(entry: Option<&Entry>) -> i64 {
    entry.and_then(Entry::decimal).map_or(0, |rate| rate.billionths() / Rate::ONE.billionths())
}

/// Gives a paper about work expenses to whose they are.
pub fn read(paper: &mut Bringing<'_>) {
    match paper.paper.paper.kind.as_str() {
        "Way to work" => ways(paper),
        "Work at home" => home(paper),
        "Move" => moved(paper),
        "Travel" => trips(paper),
        "Second household" => second_home(paper),
        _ => others(paper),
    }
}

/// A distance by its rates near and far, from the kilometre `from` on.
fn distance(figures: &Figures, from: i64, to: i64) -> Money {
    let rates = &figures.commute;
    let near =
        settled::greater(settled::lesser(to, rates.far_from) - settled::lesser(from, rates.far_from), 0);
    rates.near * near + rates.far * (to - from - near)
}

fn ways(paper: &mut Bringing<'_>) {
    for (row, cells) in paper.paper.paper.rows.iter().enumerate() {
        let (days, km) = (count(cells, "days"), full(cells.get("km")));
        let car_km = match cells.get("by").and_then(Entry::text) {
            Some("car") => km,
            Some("mixed") => settled::lesser(full(cells.get("car_km")), km),
            _ => 0,
        };
        let item = |column, amount| paper.paper.item(column, Some(row), amount);
        let tickets = item("ticket", money(cells, "ticket"));
        for person in paper.owners() {
            let figures = &paper.facts.figures;
            let by_car = if drives_as_disabled(figures, paper.facts.people[person].disability) {
                figures.commute.disabled * car_km
            } else {
                distance(figures, 0, car_km)
            };
            let actual = money(cells, "actual");
            let otherwise = item("km", distance(figures, car_km, km) * days);
            let far_km = settled::greater(km - figures.commute.far_from, 0);
            let far = item("km", figures.commute.far * far_km * days);
            let by_car = if drives_as_disabled(figures, paper.facts.people[person].disability) {
                settled::greater(by_car * days, actual)
            } else {
                by_car * days
            };
            let way = Way { by_car: item("km", by_car), otherwise, tickets, far };
            paper.facts.people[person].own.add(&brings::WAYS, way);
        }
    }
}

fn home(paper: &mut Bringing<'_>) {
    let figures = &paper.facts.figures.home_office;
    let months = if paper.has("months") { paper.count("months") } else { 12 };
    let flat = figures.most - figures.month * (12 - months);
    let cost = settled::greater(paper.amount("cost"), flat);
    let home = Home {
        days: paper.item("days", figures.day * paper.count("days")),
        outside: paper.item("days_outside", figures.day * paper.count("days_outside")),
        room: paper.flag("centre").then(|| paper.item("cost", cost)),
    };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::HOMES, home);
    }
}

fn moved(paper: &mut Bringing<'_>) {
    let figures = &paper.facts.figures.moves;
    let loaded = paper.paper.paper.boxes.get("loaded").and_then(Entry::date);
    // The day before loading decides.
    let in_force = loaded
        .and_then(Date::previous_day)
        .and_then(|day| figures.from.iter().rposition(|from| from.0 <= day));
    let mut amount = paper.amount("costs");
    if let Some(at) = in_force {
        let own_home = |field: &str| paper.paper.paper.boxes.get(field).and_then(Entry::flag) != Some(false);
        amount += if own_home("home_before") && own_home("home_after") {
            figures.entitled[at] + figures.further[at] * paper.count("others")
        } else {
            figures.without_home[at]
        };
        amount += settled::lesser(paper.amount("lessons"), figures.lessons[at] * paper.count("pupils"));
    }
    paper.put("costs", None, amount, &brings::MOVES);
}

fn trips(paper: &mut Bringing<'_>) {
    let figures = &paper.facts.figures.travel;
    let of = |cells: &Answers, costs: Money| {
        let days =
            figures.full_day * count(cells, "full_days") + figures.part_day * count(cells, "part_days");
        let given =
            figures.breakfast * count(cells, "breakfasts") + figures.main_meal * count(cells, "main_meals");
        let ways = figures.car * count(cells, "car_km") + figures.other * count(cells, "other_km");
        settled::or_zero(days - given) + ways + costs - money(cells, "refunded")
    };
    let rows: Vec<(usize, Money)> =
        paper.paper.lines("costs").map(|(row, cells, costs)| (row, of(cells, costs))).collect();
    for (row, amount) in rows {
        paper.put("costs", Some(row), amount, &brings::TRIPS);
    }
}

fn second_home(paper: &mut Bringing<'_>) {
    let km = full(paper.paper.paper.boxes.get("km"));
    let figures = &paper.facts.figures;
    let trips = distance(figures, 0, km) * paper.count("trips");
    let far_km = settled::greater(km - figures.commute.far_from, 0);
    let far = paper.item("trips", figures.commute.far * far_km * paper.count("trips"));
    let most = figures.second_household.month * paper.count("months");
    let lodging = [paper.item("lodging", paper.amount("lodging")), paper.item("months", most)];
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::LODGING, lodging);
        paper.facts.people[person].own.add(&brings::FAR_HOME, far);
    }
    if paper.count("all_trips") > paper.count("trips") {
        all_trips(paper, km);
    }
    paper.put("trips", None, trips, &brings::SECOND_HOME);
    paper.put("other", None, paper.amount("other"), &brings::SECOND_HOME);
}

/// All trips home as a way to work, so long one way.
fn all_trips(paper: &mut Bringing<'_>, km: i64) {
    let figures = &paper.facts.figures;
    let (trips, far_km) = (paper.count("all_trips"), settled::greater(km - figures.commute.far_from, 0));
    let item = |amount| paper.item("all_trips", amount);
    let (all, far) = (item(distance(figures, 0, km) * trips), item(figures.commute.far * far_km * trips));
    let none = item(Money::ZERO);
    let (by_car, otherwise) = if paper.flag("car") { (all, none) } else { (none, all) };
    for person in paper.owners() {
        let way = Way { by_car, otherwise, tickets: none, far };
        paper.facts.people[person].own.add(&brings::ALL_TRIPS, way);
    }
}

fn others(paper: &mut Bringing<'_>) {
    paper.give_lines(&[("training", &brings::TRAINING), ("other", &brings::OTHER)]);
}

/// Work expenses of a person.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Taken {
    pub taken: Money,
    /// By how much the actual ones are above the lump sum; below zero by how much under it.
    pub above_lump: Money,
    pub lump_left: Money,
}

/// The actual expenses, each line up to euros, against the lump sum; `wage` is that without pensions.
pub fn reckon(facts: &Facts, plan: &Plan, trail: &mut impl Trail, person: usize, wage: Money) -> Taken {
    let own = &facts.people[person].own;
    let (takes_room, trips) = (plan.rooms.contains(&person), plan.trips.contains(&person));
    let scope = Scope::Person(person);
    let figures = &facts.figures;
    let fee = if wage > Money::ZERO { figures.equipment.account_fee } else { Money::ZERO };
    let mut all: Vec<(LineId, Money)> = vec![
        (WAY, way(facts, trail, person, trips)),
        (AT_HOME, at_home(facts, trail, person, takes_room)),
        (ACCOUNT, trail.line(ACCOUNT, scope, fee, |i| _ = i.figure("Without proof", fee))),
        (SECOND, second(facts, trail, person, trips)),
    ];
    let meals = sum(own.of(&wage::brings::MEALS_PAID));
    for (line, kind, paid) in [
        (THINGS, &equipment::brings::EQUIPMENT, Money::ZERO),
        (MOVES, &brings::MOVES, Money::ZERO),
        (TRAINING, &brings::TRAINING, Money::ZERO),
        (TRAVEL, &brings::TRIPS, meals),
        (FURTHER, &brings::OTHER, Money::ZERO),
    ] {
        let items = own.of(kind);
        let amount = euros_up(settled::or_zero(sum(items) - paid));
        all.push((
            line,
            trail.line(line, scope, amount, |i| _ = i.items(items).figure("Paid by the employer", paid)),
        ));
    }
    let actual = hembo_core::trail::add(trail, ACTUAL, scope, &all);
    let lump = settled::lesser(figures.wages.lump, settled::or_zero(wage));
    let taken = limit::greater(trail, lump, actual);
    trail.line(TAKEN, scope, taken, |i| {
        i.line(ACTUAL, scope, actual).figure("Lump sum", lump);
    });
    let left = settled::or_zero(figures.wages.lump - taken);
    Taken { taken, above_lump: actual - figures.wages.lump, lump_left: left }
}

/// The way to work, `with_trips` home instead of a second household.
fn way(facts: &Facts, trail: &mut impl Trail, person: usize, with_trips: bool) -> Money {
    let own = &facts.people[person].own;
    let scope = Scope::Person(person);
    let home = if with_trips { own.of(&brings::ALL_TRIPS) } else { &[] };
    let ways = own.of(&brings::WAYS).iter().chain(home);
    let all = |of: fn(&Way) -> Item| ways.clone().map(|way| of(way).amount).sum::<Money>();
    let otherwise =
        limit::cap(trail, WITHOUT_CAR.at(scope), all(|way| way.otherwise), facts.figures.commute.most);
    let allowance = all(|way| way.by_car) + otherwise;
    let more = limit::greater(trail, allowance, all(|way| way.tickets));
    let paid = own.of(&wage::brings::COMMUTE_PAID);
    let amount = euros_up(settled::or_zero(more - sum(paid)));
    trail.line(WAY, scope, amount, |i| {
        i.items(ways.clone().flat_map(|way| [&way.by_car, &way.otherwise, &way.tickets])).items(paid);
    })
}

/// What of a person's ways to work and trips home is of the far kilometres (§101 S.2).
pub fn far(on: On<'_>, person: usize) -> impl Iterator<Item = &Item> + Clone {
    let own = on.own(person);
    let trips = on.plan.trips.contains(&person);
    let (home, all) =
        if trips { (&[][..], own.of(&brings::ALL_TRIPS)) } else { (own.of(&brings::FAR_HOME), &[][..]) };
    own.of(&brings::WAYS).iter().chain(all).map(|way| &way.far).chain(home)
}

fn at_home(facts: &Facts, trail: &mut impl Trail, person: usize, takes_room: bool) -> Money {
    let homes = facts.people[person].own.of(&brings::HOMES);
    let scope = Scope::Person(person);
    let days = homes.iter().map(|home| if takes_room { home.outside.amount } else { home.days.amount }).sum();
    let days = limit::cap(trail, DAYS_AT_HOME.at(scope), days, facts.figures.home_office.most);
    let rooms = || homes.iter().filter_map(|home| home.room.as_ref());
    let amount = if takes_room { sum(rooms()) + days } else { days };
    trail.line(AT_HOME, scope, euros_up(amount), |i| {
        i.items(homes.iter().flat_map(|home| [&home.days, &home.outside])).items(rooms());
    })
}

/// A second household, unless all its trips home count as a way to work.
fn second(facts: &Facts, trail: &mut impl Trail, person: usize, as_way: bool) -> Money {
    let own = &facts.people[person].own;
    let scope = Scope::Person(person);
    let lodgings = own.of(&brings::LODGING);
    let paid = lodgings.iter().map(|[paid, _]| paid.amount).sum();
    let most = lodgings.iter().map(|[_, most]| most.amount).sum();
    let lodging = limit::cap(trail, LODGING.at(scope), paid, most);
    let rest = own.of(&brings::SECOND_HOME);
    let by_employer = own.of(&wage::brings::SECOND_HOME_PAID);
    let amount = euros_up(settled::or_zero(lodging + sum(rest) - sum(by_employer)));
    let amount = if as_way { Money::ZERO } else { amount };
    trail.line(SECOND, scope, amount, |i| {
        i.items(lodgings.iter().map(|[paid, _]| paid)).items(rest).items(by_employer);
    })
}

/// Whether a person with a room and days at home takes the room (§4(5) Nr.6b, 6c).
pub static ROOM: Open<Facts> = Open::new(
    |facts| {
        let both = |&p: &usize| {
            let homes = facts.people[p].own.of(&brings::HOMES);
            homes.iter().any(|home| home.room.is_some())
                && homes.iter().any(|home| !home.days.amount.is_zero())
        };
        facts.filers.iter().copied().filter(both).collect()
    },
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("days", "The days at home", ""),
            Opt::new("room", "The room", format!("room of {name}")),
        ];
        let id = format!("de.room.{}", facts.people[person].id);
        Decision::between(id, format!("Work of {name} at home"), "§4(5) Nr.6b, 6c", options)
    },
);

/// Whether all trips home of a person count as way to work instead of a second household (§9(1) S.3 Nr.4, 5).
pub static TRIPS_HOME: Open<Facts> = Open::new(
    |facts| facts.filers.iter().copied().filter(|&p| facts.people[p].own.has(&brings::ALL_TRIPS)).collect(),
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("second", "As a second household", ""),
            Opt::new("way", "All trips as way to work", format!("trips home of {name} as way to work")),
        ];
        let id = format!("de.trips.{}", facts.people[person].id);
        Decision::between(id, format!("Second household of {name}"), "§9(1) S.3 Nr.4, 5", options)
    },
);

/// Whose trips home count so in a way.
pub fn trips_as_way(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    facts.filers.iter().copied().filter(|&p| way.taken(&TRIPS_HOME, p) == Some(1)).collect()
}

/// Who takes the room in a way; who has no days always does.
pub fn rooms(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    let takes = |&p: &usize| {
        let homes = facts.people[p].own.of(&brings::HOMES);
        let only = homes.iter().all(|home| home.days.amount.is_zero());
        homes.iter().any(|home| home.room.is_some()) && (only || way.taken(&ROOM, p) == Some(1))
    };
    facts.filers.iter().copied().filter(takes).collect()
}
