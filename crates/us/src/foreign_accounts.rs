//! Financial accounts abroad: the questions of Schedule B, Part III, the report to FinCEN (31 U.S.C. §5314; 31 CFR §1010.306(c)) and
//! Form 8938 (§6038D), which go beside the return.

use crate::{income, points::Points, unit::Unit};
use hembo_core::{
    Paper,
    field::{Field, Years},
    household::Entry,
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Accounts abroad",
    papers: &[ACCOUNTS],
    household_questions: QUESTIONS,
    points: POINTS,
    figures: &["foreign_accounts", "interest"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const FOREIGN_ACCOUNT: &str = "foreign_account";
}

const QUESTIONS: &[Field] = &[Field::yes_no(ask::FOREIGN_ACCOUNT, "", "Held a financial account abroad")
    .lasts()
    .opens(&[ACCOUNTS.id])];

open_points! {
    ASKED = blocks "K-026", "31 U.S.C. §5314; Schedule B, Part III",
        "Part III of Schedule B asks it.";
    VALUES = look "K-027-values", "31 U.S.C. §5314; IRC §6038D",
        "Add the list of accounts: it tells what has to be reported.";
    FINCEN = beside "K-026-report", "31 U.S.C. §5314; 31 CFR §1010.306(c)",
        "File FinCEN Form 114 by April 15, with an automatic extension to October 15.";
    FORM_8938 = beside "K-027", "IRC §6038D; Reg. §1.6038D-2(a)",
        "Attach Form 8938; for those who live abroad it begins higher.";
}

const ACCOUNTS: PaperKind = PaperKind {
    id: "8938",
    subject: subject::INVESTMENTS,
    name: "Accounts abroad",
    words: "foreign bank account fbar fincen 114 8938 abroad overseas",
    title: "About",
    shared: true,
    headline: "highest",
    boxes: &[],
    columns: &[
        Field::text("bank", "", "Bank or broker", 80).lasts().payer_name(),
        Field::text("country", "", "Country", 40).lasts(),
        Field::text("number", "", "Account number", 40).lasts().secret(),
        Field::amount("highest", "", "Highest value in the year")
            .help("In US dollars, at the rate of the year's last day."),
        Field::amount("year_end", "", "Value at the end of the year"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The questions of Schedule B, and what goes beside the return.
pub fn points(points: &mut Points<'_>) {
    let most = points.facts.figures.interest.schedule_b_above;
    let above = |line| points.amounts(line).any(|(_, amount)| amount > most);
    let needs = above(income::INTEREST) || above(income::DIVIDENDS);
    let place = || Place::household(ask::FOREIGN_ACCOUNT);
    match points.answered(ask::FOREIGN_ACCOUNT).and_then(Entry::flag) {
        None if needs => {
            let message =
                "So much interest or dividends need Schedule B: was there a financial account abroad?";
            points.raise(&ASKED, place(), message);
        }
        Some(true) if points.papers(ACCOUNTS.id).next().is_none() => {
            points.raise(&VALUES, place(), "How much was in the accounts abroad?");
        }
        _ => {}
    }
    for person in 0..points.facts.people.len() {
        report(points, person);
    }
    for unit in points.units {
        statement(points, unit);
    }
}

/// A column of the accounts of some people, each account once and in full; and the first paper.
fn of<'a>(points: &Points<'a>, people: &[usize], column: &str) -> (Money, Option<&'a Paper>) {
    let papers: Vec<&Paper> =
        points.papers(ACCOUNTS.id).filter(|paper| points.is_of(paper, people)).collect();
    let rows = papers.iter().flat_map(|paper| &paper.rows);
    let all = rows.filter_map(|row| row.get(column).and_then(Entry::money)).sum();
    (all, papers.first().copied())
}

/// Each person reports by what their accounts held together at most.
fn report(points: &mut Points<'_>, person: usize) {
    let (highest, paper) = of(points, &[person], "highest");
    if let Some(paper) = paper.filter(|_| highest > points.facts.figures.foreign_accounts.report_above) {
        let name = &points.facts.people[person].name;
        let message = format!("The accounts of {name} abroad held up to {highest:#}.");
        points.raise(&FINCEN, whole(paper, person, points), message);
    }
}

/// A return goes by the end of the year or by the highest value.
fn statement(points: &mut Points<'_>, unit: &Unit) {
    let figures = &points.facts.figures.foreign_accounts;
    let (end, paper) = of(points, &unit.people, "year_end");
    let (highest, _) = of(points, &unit.people, "highest");
    let above =
        end > *figures.year_end_above.of(unit.status) || highest > *figures.any_time_above.of(unit.status);
    if let Some(paper) = paper.filter(|_| above) {
        let message =
            format!("The accounts abroad of this return held up to {highest:#}, {end:#} at the end.");
        points.raise(&FORM_8938, whole(paper, unit.people[0], points), message);
    }
}

/// A paper, as it concerns a person.
fn whole(paper: &Paper, person: usize, points: &Points<'_>) -> Place {
    let person = Some(points.facts.people[person].id.clone());
    Place { person, paper: Some(paper.id.clone()), ..Place::default() }
}
