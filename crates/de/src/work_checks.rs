//! Whether work expenses are likely and whole: days, tickets, homes, moves, meals, courses.

use crate::{
    bringing::count,
    points::Points,
    wage,
    work::{COMMUTE, HOME, MOVE, OTHER, SECOND_HOME, TRIPS, Way, brings},
};
use hembo_core::{
    Paper,
    household::{Entry, Row},
    open_points,
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Item,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Checks of work expenses",
    points: POINTS,
    figures: &["commute", "home_office", "travel"],
    ..Provision::NONE
};

open_points! {
    DAYS_MANY = look "DE-C16", "§§9(1) Nr.4, 4(5) Nr.6c", "A year of work has about 230 days, of six a week 280: compare them.";
    DAYS_OVER = blocks "DE-C16-year", "§§9(1) Nr.4, 4(5) Nr.6c", "A year has 366 days at most: compare them.";
    HOME_DAYS = look "DE-C17", "§4(5) Nr.6c", "No more than the most of the year counts.";
    WITHOUT_CAR_MOST = look "DE-C19", "§9(1) S.3 Nr.4 S.2", "Tickets count above it: add what was paid for them.";
    TICKETS_LESS = look "DE-C68", "§9(2) S.2", "The allowance counts; nothing is to be done.";
    LODGING_MOST = look "DE-C22", "§9(1) S.3 Nr.5 S.4", "No more than the most a month counts.";
    MEALS_LONG = look "DE-C21", "§9(4a) S.6", "At one place meals count for three months only: compare the days.";
    NOT_LOADED = blocks "DE-C63", "§10 BUKG", "Enter the day of loading: the day before it decides the flat sums.";
    MORE_THAN_EMPLOYED = look "DE-C66", "§§9(1) Nr.4, 4(5) Nr.6c", "Of the days of employment five of seven are worked: compare the days.";
    FIRST_DEGREE = look "DE-C67", "§9(6)", "A first degree is no work expense: it goes to the special expenses, up to their most.";
    ROOM_AND_DAYS = not_weighed "room-and-days", "§4(5) Nr.6b, 6c", "In months without the room days may count beside it: only one of the two is weighed for the year.";
    NO_GERMAN = look "DE-C62", "§12 Nr.1", "A course of the country's own language is private: only what the job needs in another language counts.";
}

/// What is unlikely or missing about work expenses.
pub fn points(points: &mut Points<'_>) {
    for &person in &points.facts.filers {
        days(points, person);
        tickets(points, person);
        lodging(points, person);
    }
    for paper in points.papers(MOVE.id).filter(|paper| !paper.boxes.contains_key("loaded")) {
        points.raise(&NOT_LOADED, Place::paper(&paper.id, "loaded"), "When was the move loaded?");
    }
    for paper in points.papers(TRIPS.id) {
        let long = |row: &&Row| {
            count(row, "full_days") + count(row, "part_days") > points.facts.figures.travel.meal_days
        };
        for row in paper.rows.iter().filter(long) {
            let words = "More than three months of meals on one line.";
            points.raise(&MEALS_LONG, Place::row(&paper.id, row, "full_days"), words);
        }
    }
    for paper in points.papers(HOME.id) {
        let months = paper.boxes.get("months").and_then(Entry::count).unwrap_or(12);
        if paper.flag("centre") && months < 12 && count(&paper.boxes, "days") > 0 {
            let words = "A room for a part of the year, and days at home.";
            points.raise(&ROOM_AND_DAYS, Place::paper(&paper.id, "months"), words);
        }
    }
    for paper in points.papers(OTHER.id) {
        let german = |row: &&Row| {
            let what = row.get("what").and_then(Entry::text).unwrap_or_default().to_lowercase();
            what.contains("german") || what.contains("deutsch")
        };
        for row in paper.rows.iter().filter(german) {
            points.raise(&NO_GERMAN, Place::row(&paper.id, row, "what"), "A course in German?");
        }
        let degree = |row: &&Row| {
            let what = row.get("what").and_then(Entry::text).unwrap_or_default().to_lowercase();
            what.contains("semester") || what.contains("bachelor")
        };
        for row in paper.rows.iter().filter(degree) {
            points.raise(&FIRST_DEGREE, Place::row(&paper.id, row, "what"), "A fee of a first degree?");
        }
    }
}

fn days(points: &mut Points<'_>, person: usize) {
    let id = points.facts.people[person].id.clone();
    let own = |paper: &&Paper| paper.owners.iter().any(|owner| owner.person == id);
    let ways: Vec<&Paper> = points.papers(COMMUTE.id).filter(own).collect();
    let homes: Vec<&Paper> = points.papers(HOME.id).filter(own).collect();
    let trips: Vec<&Paper> = points.papers(TRIPS.id).filter(own).collect();
    let of_rows = |papers: &[&Paper], column: &str| -> i64 {
        papers.iter().flat_map(|paper| &paper.rows).map(|row| count(row, column)).sum()
    };
    let at_home: i64 = homes.iter().map(|paper| count(&paper.boxes, "days")).sum();
    let all = of_rows(&ways, "days") + at_home + of_rows(&trips, "full_days") + of_rows(&trips, "part_days");
    let on_the_way = of_rows(&ways, "days") + at_home;
    let employed = employed_days(points, &id);
    let likely = points.facts.figures.commute.days_likely;
    let Some(paper) = ways.first().or(homes.first()).or(trips.first()) else { return };
    let place = Place::paper(&paper.id, if ways.is_empty() { "days" } else { "rows" });
    let name = &points.facts.people[person].name;
    if all > 366 {
        points.raise(&DAYS_OVER, place, format!("{name}: {all} days of work in the year."));
    } else if all > likely {
        points.raise(&DAYS_MANY, place, format!("{name}: {all} days of work in the year."));
    } else if employed.is_some_and(|days| on_the_way * 7 > days * 5 + 7) {
        points.raise(
            &MORE_THAN_EMPLOYED,
            place,
            format!("{name}: {on_the_way} days of work in this employment."),
        );
    }
    let figures = &points.facts.figures.home_office;
    if let Some(paper) = homes.first().filter(|_| figures.day * at_home > figures.most) {
        points.raise(&HOME_DAYS, Place::paper(&paper.id, "days"), format!("{name}: {at_home} days at home."));
    }
}

/// The days of a person's employment by the certificates, where each tells them.
fn employed_days(points: &Points<'_>, person: &str) -> Option<i64> {
    let own = |paper: &&Paper| paper.owners.iter().any(|owner| owner.person == person);
    let papers: Vec<&Paper> = points.papers(wage::CERTIFICATE.id).filter(own).collect();
    let day = |paper: &Paper, field: &str| paper.boxes.get(field).and_then(Entry::date);
    let days = |paper: &&Paper| Some((day(paper, "to")? - day(paper, "from")?).whole_days() + 1);
    let all: Option<Vec<i64>> = papers.iter().map(days).collect();
    all.filter(|days| !days.is_empty()).map(|days| days.into_iter().sum())
}

fn tickets(points: &mut Points<'_>, person: usize) {
    let who = &points.facts.people[person];
    let ways = who.own.of(&brings::WAYS);
    let all = |of: fn(&Way) -> Item| ways.iter().map(|way| of(way).amount).sum::<Money>();
    let (by_car, otherwise, tickets) =
        (all(|way| way.by_car), all(|way| way.otherwise), all(|way| way.tickets));
    let most = points.facts.figures.commute.most;
    let Some(paper) =
        points.papers(COMMUTE.id).find(|paper| paper.owners.iter().any(|owner| owner.person == who.id))
    else {
        return;
    };
    let place = Place::paper(&paper.id, "rows");
    if otherwise > most && tickets.is_zero() {
        let words = format!("{}: the way without an own car is above {most:#}.", who.name);
        points.raise(&WITHOUT_CAR_MOST, place, words);
    } else if !tickets.is_zero() && tickets < by_car + settled::lesser(otherwise, most) {
        points.raise(&TICKETS_LESS, place, format!("{}: the tickets are below the allowance.", who.name));
    }
}

/// A home at the place of work that costs more than counts.
fn lodging(points: &mut Points<'_>, person: usize) {
    let lodgings = points.facts.people[person].own.of(&brings::LODGING);
    let over = lodgings.iter().any(|[paid, most]| paid.amount > most.amount);
    if let Some(paper) = points.papers(SECOND_HOME.id).find(|_| over) {
        points.raise(
            &LODGING_MOST,
            Place::paper(&paper.id, "lodging"),
            "The home costs more than the most a month.",
        );
    }
}
