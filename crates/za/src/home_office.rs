//! A room at home (s11(a), (d), s23(b), s23(m); code 4028): the share of premises by area.

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points, rounding::portion};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Field, Years},
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { about: "Home office", lines: LINES, papers: &[ROOM], points: POINTS, ..Provision::NONE };

lines! {
    pub DEDUCTED = "za.home_office", "Home office", "s11(a), (d), s23(b), s23(m); code 4028",
        "Premises and upkeep by the area of the room.";
}

open_points! {
    HALF = blocks "C49", "s23(b), s23(m)", "Say whether more than half of the duties are done there and the room serves nothing else; else take the claim out.";
    IMPOSSIBLE = blocks "room-area", "s23(b)", "A part cannot be larger than the whole.";
    HOME_SOLD = look "room-home", "Eighth Schedule para 49", "The part used as an office is not free when the home is sold.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// The share of the room.
    pub static ROOMS: Brought = Brought::new();
}

const ROOM: PaperKind = PaperKind {
    id: "Home office",
    subject: subject::DEDUCTIONS,
    name: "Room at home used for work",
    words: "office home work area",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::count("area", "", "Room in m²", 10_000).lasts(),
        Field::count("total_area", "", "Home in m²", 100_000).lasts(),
        Field::yes_no("qualifies", "", "Only for work, and more than half of the duties there").lasts(),
    ],
    columns: &[
        Field::text("what", "", "What", 80),
        Field::amount("amount", "", "Cost of the home")
            .help("Rent, rates, electricity, repairs, cleaning; of who is salaried no phone or internet."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the share of the room to who works there.
pub fn read(paper: &mut Bringing<'_>) {
    let (area, whole) = (paper.count("area"), paper.count("total_area"));
    if !paper.flag("qualifies") || whole == 0 {
        return;
    }
    let costs: Money = paper.paper.lines("amount").map(|(_, _, amount)| amount).sum();
    let share = portion(costs, area, whole);
    paper.put("amount", None, share, &brings::ROOMS);
}

/// The deduction of the way.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let claimed = !on.plan.without_room.contains(&on.person);
    let rooms = on.own().of(&brings::ROOMS);
    on.gather(trail, DEDUCTED, rooms.iter().filter(move |_: &&Item| claimed))
}

/// Whether the room is claimed, by the person's place.
pub static CLAIM: Open<Facts> = Open::new(
    |facts| {
        let has = |&p: &usize| !sum(facts.people[p].own.of(&brings::ROOMS)).is_zero();
        facts.returns.iter().copied().filter(has).collect()
    },
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("claim", "Claimed", format!("home office of {name}")),
            Opt::new("none", "Not claimed", format!("no home office of {name}")),
        ];
        let id = format!("za.room.{}", facts.people[person].id);
        Decision::between(id, format!("Home office of {name}"), "s23(b), s23(m)", options)
    },
);

/// Who does not claim it in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    facts.returns.iter().copied().filter(|&p| way.taken(&CLAIM, p) == Some(1)).collect()
}

/// Rooms that are not said to qualify.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(ROOM.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let count = |field: &str| paper.boxes.get(field).and_then(Entry::count).unwrap_or(0);
        if !paper.flag("qualifies") && !paper.rows.is_empty() {
            points.raise(&HALF, at("qualifies"), "Does the room qualify?");
        }
        if count("area") > count("total_area") {
            points.raise(&IMPOSSIBLE, at("area"), "More than the whole.");
        }
        if paper.flag("qualifies") && points.papers("Assets sold").next().is_some() {
            points.raise(&HOME_SOLD, at("area"), "A room at home, and assets sold.");
        }
    }
}
