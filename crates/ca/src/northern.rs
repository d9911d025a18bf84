//! Northern residents (ITA 110.7; form T2222): line 25500, for the days in a prescribed zone and for travel from there.

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points, rounding::cents};
use hembo_core::{
    Paper,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    household::{Answers, Entry},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::Money;
use std::collections::BTreeMap;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[LIVED],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["northern"],
    ..Provision::NONE
};

lines! {
    RESIDENCY = "ca.northern.residency", "Residency, northern", "ITA 110.7(1)(b)",
        "So much for each day, twice for who alone claims for the home, at most a part of net income.";
    TRAVEL = "ca.northern.travel", "Travel from the north", "ITA 110.7(1)(a), (3)",
        "Of each trip the least of what is set against it, what it cost and the lowest fare; two holidays a person.";
    pub DEDUCTED = "ca.25500", "Northern residents", "ITA 110.7; form T2222",
        "For the days there, and for travel.";
}

limits! {
    PART_OF_INCOME = "ca.limit.northern" on RESIDENCY, "Northern residency", "over a part of net lost",
        "ITA 110.7(1)(b)(i)";
}

open_points! {
    HALF_YEAR = blocks "northern-months", "ITA 110.7(1)", "Answer whether it was six months in a row.";
    ALLOTTED = blocks "northern-allotted", "ITA 110.7(3)", "Set less against the trips of this person.";
    TOO_MANY_DAYS = blocks "northern-days", "ITA 110.7(1)(b)", "Correct the days.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// For the days, before what an employer bore.
    pub static DAYS: Brought = Brought::new();

    /// Board and lodging at a special work site.
    pub static SITE: Brought = Brought::new();

    /// Keeps a home there for which nobody outside the household claims.
    pub static KEEPS_HOME: Brought<()> = Brought::new();

    /// Trips.
    pub static TRIPS: Brought = Brought::new();
}

const ZONES: &[Choice] =
    &[Choice::new("northern", "Northern zone (A)"), Choice::new("intermediate", "Intermediate zone (B)")];

/// What a trip was for, and what is set against it: a benefit in the pay, or a part of what is allotted to each person.
const TRIPS: &[Choice] = &[
    Choice::new("holiday", "Holiday, benefit in the pay"),
    Choice::new("holiday_allotted", "Holiday, allotted"),
    Choice::new("medical", "Medical, benefit in the pay"),
    Choice::new("medical_allotted", "Medical, allotted"),
];

const LIVED: PaperKind = PaperKind {
    id: "Northern",
    subject: subject::ADJUSTMENTS,
    name: "Residence in the north, and travel from there",
    words: "t2222 northern residents zone yukon nunavut isolated trips",
    title: "Place",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::yes_no("half_year", "", "Six months in a row")
            .help("Beginning or ending in this year, in either zone."),
        Field::count("days_a", "", "Days in the northern zone (A)", 366),
        Field::count("days_b", "", "Days in the intermediate zone (B)", 366),
        Field::yes_no("keeps_home", "", "Keeps the home, for which nobody outside the household claims"),
        Field::amount("site", "", "Board and lodging at a special work site").help("T4 box 31."),
        Field::choice("zone", "", "Trips from", ZONES).blank_is("northern").help("From both: a paper each."),
    ],
    columns: &[
        Field::person("who", "", "Who travelled"),
        Field::text("what", "", "Where to", 40),
        Field::choice("purpose", "", "For", TRIPS),
        Field::amount("amount", "", "Set against"),
        Field::amount("cost", "", "Cost"),
        Field::amount("fare", "", "Lowest fare"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What counts of a trip: the least of three, half of it from the intermediate zone.
fn trip(facts: &Facts, paper: &Paper, cells: &Answers) -> Money {
    let amount = |field: &str| cells.get(field).and_then(Entry::money).unwrap_or_default();
    let least = settled::lesser(settled::lesser(amount("amount"), amount("cost")), amount("fare"));
    match paper.text("zone") {
        Some("intermediate") => cents(least, facts.figures.northern.intermediate),
        _ => least,
    }
}

/// The rows of the trips that count: every medical one, and of the holidays of each person the dearest.
fn trips(facts: &Facts, paper: &Paper) -> Vec<(usize, Money)> {
    let text = |cells: &Answers, field: &str| cells.get(field).and_then(Entry::text).map(str::to_owned);
    let mut holidays: BTreeMap<Option<String>, Vec<(usize, Money)>> = BTreeMap::new();
    let mut counted = Vec::new();
    for (row, cells) in paper.rows.iter().enumerate() {
        let worth = trip(facts, paper, cells);
        match text(cells, "purpose").as_deref() {
            Some("medical" | "medical_allotted") => counted.push((row, worth)),
            _ => holidays.entry(text(cells, "who")).or_default().push((row, worth)),
        }
    }
    for mut of_person in holidays.into_values() {
        of_person.sort_by_key(|&(_, worth)| std::cmp::Reverse(worth));
        counted.extend(of_person.into_iter().take(facts.figures.northern.holidays));
    }
    counted.sort_by_key(|&(row, _)| row);
    counted
}

/// Days and trips of who lived there for six months in a row.
pub fn read(paper: &mut Bringing<'_>) {
    if !paper.paper.paper.flag("half_year") {
        return;
    }
    let figures = &paper.facts.figures.northern;
    let (day, part) = (figures.day, figures.intermediate);
    let northern = day * paper.count("days_a");
    let intermediate = cents(day * paper.count("days_b"), part);
    paper.put("days_a", None, northern, &brings::DAYS);
    paper.put("days_b", None, intermediate, &brings::DAYS);
    paper.give_all(&[("site", &brings::SITE)]);
    for (row, worth) in trips(paper.facts, paper.paper.paper) {
        paper.put("amount", Some(row), worth, &brings::TRIPS);
    }
    if paper.paper.paper.flag("keeps_home") {
        for (person, _) in paper.paper.shares(Money::ZERO) {
            paper.facts.people[person].own.add(&brings::KEEPS_HOME, ());
        }
    }
}

/// Those who lived there, in the order of the returns.
fn residents(facts: &Facts) -> Vec<usize> {
    facts.returns.iter().copied().filter(|&p| facts.people[p].own.has(&brings::DAYS)).collect()
}

/// Those of them who may claim for the whole home.
fn keepers(facts: &Facts) -> Vec<usize> {
    residents(facts).into_iter().filter(|&p| facts.people[p].own.has(&brings::KEEPS_HOME)).collect()
}

/// Who claims for the home: each for oneself, or one alone, who then has twice as much (ITA 110.7(1)(b)(ii)).
pub static FOR_HOME: Open<Facts> = Open::new(
    |facts| {
        let open = residents(facts).len() > 1 && !keepers(facts).is_empty();
        if open { vec![0] } else { Vec::new() }
    },
    |facts, _| {
        let each = Opt::new("each", "Each for oneself", "");
        let alone = facts.options(&keepers(facts), |name| format!("northern home with {name}"));
        let options = std::iter::once(each).chain(alone).collect();
        Decision::between("ca.northern", "Who claims for the northern home", "ITA 110.7(1)(b)(ii)", options)
    },
);

/// Who claims for the whole home in a way: nobody where each claims for oneself.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Option<usize> {
    let keepers = keepers(facts);
    match way.taken(&FOR_HOME, 0) {
        Some(place) => place.checked_sub(1).and_then(|place| keepers.get(place)).copied(),
        None => keepers.first().copied().filter(|_| residents(facts).len() == 1),
    }
}

/// Line 25500. `net` is net income.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, net: Money) -> Money {
    let own = on.own();
    if !own.has(&brings::DAYS) && !own.has(&brings::TRIPS) {
        return Money::ZERO;
    }
    let times = match on.plan.northern {
        Some(keeper) if keeper == on.person => 2,
        Some(_) => 0,
        None => 1,
    };
    let days = settled::or_zero(sum(own.of(&brings::DAYS)) * times - sum(own.of(&brings::SITE)));
    let part = on.facts.figures.northern.part_of_income;
    let most = limit::share(trail, net, part, Money::CENT);
    let allowed = limit::cap(trail, PART_OF_INCOME.at(on.scope), days, most);
    trail.line(RESIDENCY, on.scope, allowed, |i| {
        i.items(own.of(&brings::DAYS)).items(own.of(&brings::SITE));
        i.figure("Times", times).figure("Net income", net).figure("At most of net income", part);
    });
    let travel = on.gather(trail, TRAVEL, own.of(&brings::TRIPS));
    on.add(trail, DEDUCTED, &[(RESIDENCY, allowed), (TRAVEL, travel)])
}

/// Months that were not asked about, too many days, and too much set against trips.
pub fn points(points: &mut Points<'_>) {
    let figures = &points.facts.figures.northern;
    for paper in points.papers(LIVED.id) {
        let days: i64 = ["days_a", "days_b"]
            .into_iter()
            .filter_map(|field| paper.boxes.get(field).and_then(Entry::count))
            .sum();
        if !paper.boxes.contains_key("half_year") && (days > 0 || !paper.rows.is_empty()) {
            let place = Place::paper(&paper.id, "half_year");
            points.raise(&HALF_YEAR, place, "Was it for six months in a row?");
        }
        let year = (points.facts.year_end - points.facts.year_begin).whole_days() + 1;
        if days > year {
            let message = format!("{days} days are more than the year has.");
            points.raise(&TOO_MANY_DAYS, Place::paper(&paper.id, "days_b"), message);
        }
        let mut allotted: BTreeMap<&str, Money> = BTreeMap::new();
        for cells in &paper.rows {
            let purpose = cells.get("purpose").and_then(Entry::text);
            if !purpose.is_some_and(|purpose| purpose.ends_with("allotted")) {
                continue;
            }
            let who = cells.get("who").and_then(Entry::text).unwrap_or_default();
            let so_far = allotted.entry(who).or_default();
            *so_far += cells.get("amount").and_then(Entry::money).unwrap_or_default();
            if *so_far > figures.allotted {
                let message = format!("More than {:#} is allotted to one person.", figures.allotted);
                points.raise(&ALLOTTED, Place::row(&paper.id, cells, "amount"), message);
            }
        }
    }
}
