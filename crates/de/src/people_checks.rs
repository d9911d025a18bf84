//! Whether people, their numbers and days are there and fit: marriage, arrival, church, the Land.

use crate::{
    benefits, charges, facts::Facts, identification::is_number, people::ask, points::Points,
    rounding::cents_down, tax_number,
};
use hembo_core::{
    household::Entry,
    open_points,
    point::{Gather, Place},
    provision::Provision,
};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Church tax of high incomes",
    points: POINTS,
    figures: &["church"],
    ..Provision::NONE
};

open_points! {
    BORN = blocks "DE-C02", "§§24a, 32", "Ages decide allowances and reliefs.";
    NUMBER = blocks "DE-C01", "§139b AO", "Compare the number with a letter of the finance office.";
    LAND_ASKED = not_known "land", "§51a; church tax laws", "Say in which Land the household lives: church tax goes by it.";
    MONTHS_ASKED = blocks "months-before", "church tax laws", "Church tax goes by months: enter them.";
    PART_ASKED = blocks "land-moved", "church tax laws", "After a move each Land has its rate for its months: say which months.";
    MARITAL_ASKED = not_known "marital", "§26(1)", "Say whether they are married: it decides the table.";
    SPOUSE = not_covered "DE-C04", "§§1, 1a, 26";
    APART_BEFORE = blocks "DE-C03", "§26(1) S.1", "Who lived apart for good all year is assessed alone: compare the day, or say so.";
    MARRIED_LATER = blocks "DE-C05", "§26(1)", "Who marries after the year is assessed alone: compare the day.";
    TAX_NUMBER_ODD = blocks "DE-C06", "§20 AO", "Compare the number with a letter of the finance office of this Land.";
    ARRIVED_LATER = blocks "DE-C56", "§§1(1), 26(1)", "Home or abode must begin within the year: compare the day.";
    INCOME_ASKED = blocks "DE-C57", "§32b(1) S.1 Nr.2", "Say yes or no, and give the amounts: they raise the rate.";
    GONE = not_covered "left", "§§1(4), 2(7) S.3, 49";
    LIMITED_ASKED = blocks "left-asked", "§2(7) S.3", "Say yes or no: German income of the rest of the year is assessed together with the rest.";
    CHURCH_PART = look "DE-C75", "church tax laws; §51a", "Church tax goes by months: compare them with the notice of joining or leaving.";
    CHURCH_CAP = not_covered "church-cap", "church tax laws";
    FEE_ASKED = blocks "DE-C50", "church tax laws", "Say whether the church raises the special fee: alone it is not raised.";
}

/// What is missing of the household and its people.
pub fn points(points: &mut Points<'_>) {
    if points.answered(ask::LAND).is_none() {
        points.raise(&LAND_ASKED, Place::household(ask::LAND), "In which Land?");
    }
    marriage(points);
    numbers(points);
    for person in 0..points.facts.people.len() {
        one(points, person);
    }
    church(points);
}

fn marriage(points: &mut Points<'_>) {
    let place = Place::household(ask::MARITAL);
    match (points.answered(ask::MARITAL).and_then(Entry::text), points.facts.filers.len()) {
        (None, _) => points.raise(&MARITAL_ASKED, place, "Married?"),
        (Some("married"), 1) => {
            points.raise(&SPOUSE, place, "Who is married and whose spouse is not here is not computed.")
        }
        (Some("single" | "widowed"), 2) => {
            points.raise(&MARITAL_ASKED, place, "Two filers who are not married?")
        }
        _ => {}
    }
    let married = points.answered(ask::MARRIED_ON).and_then(Entry::date);
    let apart = points.answered(ask::SEPARATED_ON).and_then(Entry::date);
    if points.facts.couple() && apart.is_some_and(|day| day.year() < points.facts.figures.year) {
        points.raise(&APART_BEFORE, Place::household(ask::SEPARATED_ON), "They lived apart all year.");
    }
    if points.facts.couple() && married.is_some_and(|day| day.year() > points.facts.figures.year) {
        points.raise(&MARRIED_LATER, Place::household(ask::MARRIED_ON), "Married after the end of the year.");
    }
}

fn numbers(points: &mut Points<'_>) {
    let number = points.answered(ask::TAX_NUMBER).and_then(Entry::text);
    if number.is_some_and(|number| !tax_number::fits(number, &points.facts.land)) {
        points.raise(
            &TAX_NUMBER_ODD,
            Place::household(ask::TAX_NUMBER),
            "The tax number has another shape than those of this Land.",
        );
    }
}

fn one(points: &mut Points<'_>, person: usize) {
    let who = &points.household.people[person];
    let at = |field: &str| Place::person(&who.id, field);
    if who.born.is_none() {
        points.raise(&BORN, at("born"), format!("Date of birth of {}?", who.name));
    }
    if who.id_number.as_deref().is_some_and(|number| !is_number(number)) {
        points.raise(&NUMBER, at("id_number"), format!("The number of {}.", who.name));
    }
    let day = |field: &str| who.answers.get(field).and_then(Entry::date);
    let year = points.facts.figures.year;
    let moved =
        [ask::LEFT, ask::ARRIVED].into_iter().find(|ask| day(ask).is_some_and(|day| day.year() == year));
    let left = moved == Some(ask::LEFT);
    match who.answers.get(ask::LIMITED).and_then(Entry::flag) {
        Some(true) if moved.is_some() => {
            let words = format!("German income of {} without a home here is not computed.", who.name);
            points.raise(&GONE, at(ask::LIMITED), words);
        }
        None if moved.is_some() => {
            let when = if left { "after leaving" } else { "before the arrival" };
            let words = format!("German income of {} {when}?", who.name);
            points.raise(&LIMITED_ASKED, at(ask::LIMITED), words);
        }
        _ => {}
    }
    if left {
        income_elsewhere(points, person, ask::LEFT);
    }
    let Some(arrived) = day(ask::ARRIVED) else { return };
    if arrived.year() > year {
        points.raise(&ARRIVED_LATER, at(ask::ARRIVED), format!("{} arrived after the year.", who.name));
    }
    if arrived.year() == year {
        income_elsewhere(points, person, ask::ARRIVED);
    }
}

/// Whether income of the part of the year without a home here is told: it raises the rate.
fn income_elsewhere(points: &mut Points<'_>, person: usize, moved: &'static str) {
    let who = &points.household.people[person];
    let own = &points.facts.people[person].own;
    let told = own.has(&benefits::brings::WAGES) || own.has(&benefits::brings::OTHER);
    let said = who.answers.get(ask::INCOME_BEFORE).and_then(Entry::flag);
    if !told && said != Some(false) {
        let when = if moved == ask::LEFT { "after leaving" } else { "before the arrival" };
        let words = format!("Income of {} in the year {when}?", who.name);
        points.raise(&INCOME_ASKED, Place::person(&who.id, ask::INCOME_BEFORE), words);
    }
}

/// Church tax that goes by months or by another Land's rate, its special fee and its cap.
fn church(points: &mut Points<'_>) {
    let facts: &Facts = points.facts;
    let members: Vec<usize> =
        facts.filers.iter().copied().filter(|&p| facts.people[p].church_months > 0).collect();
    if members.is_empty() {
        return;
    }
    if points.answered(ask::LAND_BEFORE).is_some() && facts.land_before.is_none() {
        let words = "For how many months in the Land before the move?";
        points.raise(&MONTHS_ASKED, Place::household(ask::MONTHS_BEFORE), words);
    }
    let part = |&&p: &&usize| (1..12).contains(&facts.people[p].church_months);
    for &person in members.iter().filter(part).filter(|_| facts.land_before.is_some()) {
        let who = &points.household.people[person];
        if !who.answers.contains_key(ask::CHURCH_PART) {
            let words = format!("The first or the last months of {} in the church?", who.name);
            points.raise(&PART_ASKED, Place::person(&who.id, ask::CHURCH_PART), words);
        }
    }
    for &person in members.iter().filter(|&&p| facts.people[p].church_months < 12) {
        let who = &facts.people[person];
        let place = Place::person(&who.id, ask::CHURCH_MONTHS);
        let words = format!("Church tax of {} for {} months.", who.name, who.church_months);
        points.raise(&CHURCH_PART, place, words);
    }
    if facts.couple() && members.len() == 1 && points.answered(ask::SPECIAL_FEE).is_none() {
        let words = "One spouse alone is in a church: does it raise the special fee?";
        points.raise(&FEE_ASKED, Place::household(ask::SPECIAL_FEE), words);
    }
    let figures = &facts.figures.church;
    for place in 0..points.returns {
        let (base, of) =
            (points.amount(charges::CHURCH_BASE, place), points.amount(charges::NOTIONAL, place));
        let due = cents_down(base, charges::rate(facts));
        let told = points.answered(ask::CHURCH_CAP).is_some();
        let capped =
            !told && !figures.uncapped_in.contains(&facts.land) && due > cents_down(of, figures.least_cap);
        if capped {
            let words = "Church tax may be above a cap of the church: which part of taxable income? 0 where there is none.";
            points.raise(&CHURCH_CAP, Place::household(ask::CHURCH_CAP), words);
        }
    }
}
