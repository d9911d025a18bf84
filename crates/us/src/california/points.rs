//! What is unsettled about the return of California.

use super::{
    adoption_costs, asked::ask, cover, cover_months, other_state_tax, residence, return_points, underpayment,
    use_tax,
};
use crate::{
    bringing,
    points::Points,
    signing,
    state_facts::OfState,
    states::{self, STATES},
};
use hembo_core::{
    household::Entry,
    open_points,
    point::{Gather, Place},
    provision::Provision,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "California, open points",
    points: POINTS,
    figures: &["california_rates", "california_disability"],
    ..Provision::NONE
};

open_points! {
    PREPARED = look "ca-return", "R&TC 18501", "Say whether the return of California is prepared here: it is weighed together with the federal one.";
    NO_FIGURES = look "ca-year", "R&TC 17041", "The figures of California for this year are not here: only the federal return is planned.";
    ALL_YEAR_ASKED = blocks "ca-all-year", "R&TC 17014, 17015", "Say whether everyone who files lived there all year.";
    NEVER_LEFT = blocks "ca-540nr-days", "R&TC 17014; Form 540NR", "Say when who files moved to California, left it, or that someone lived elsewhere all year.";
    ELSEWHERE = blocks "ca-540nr-state", "R&TC 17014", "Correct the state of residence, or the answer about the year.";
    OTHER_ASKED = blocks "ca-other", "R&TC 17041", "Say yes or no: such rules change the tax of California.";
    OTHER = not_covered "ca-other-rules", "R&TC 17041";
    OTHER_STATE = blocks "ca-other-state", "R&TC 18001; Schedule S", "Add the paper 'Schedule S' with this state and its tax, 0 where it asks none: the return there is prepared elsewhere.";
    OTHER_RETURN = look "ca-other-return", "R&TC 18001", "The return of the other state is prepared elsewhere.";
    NO_CREDIT = look "ca-s-state", "R&TC 18001, 18002; Schedule S", "A resident of California is credited by Arizona, Oregon and Virginia themselves, who lives elsewhere all year by the own state: claim the credit there.";
    NO_INCOME = blocks "ca-s-income", "Schedule S, Part II", "Enter the income by the other state's rules, and the part of it that both tax.";
    ADOPTION = look "ca-197", "R&TC 17052.25", "Of a child out of the custody of a public agency of California costs give a credit here: add the paper 'Code 197'.";
    TWO_LINES = blocks "ca-cover-twice", "FTB 3853 Part III", "Keep one line for each person.";
    COVER_ASKED = blocks "ca-cover", "R&TC 61010; Form 540, line 92", "Say whether everyone had cover in every month; else enter the months.";
    NO_MONTHS = blocks "ca-cover-months", "FTB 3853", "Add the paper 'Health cover' with a line for each person without cover in some month.";
    NO_LINE = blocks "ca-cover-line", "FTB 3853 Part I", "Add a line for this person, Z in each month with cover.";
    BOND_STATE = blocks "ca-bond-state", "R&TC 17133", "Say how much is of other states' bonds, 0 where there is none: it is taxed here.";
    NOT_WITHHELD = look "ca-w2-17", "R&TC 18662", "State wages without state tax withheld: compare box 17.";
    DISABILITY = look "ca-w2-14", "UIC 984, 985", "More than the rate of state disability insurance: compare the label of box 14.";
    DEPENDENT = not_covered "ca-dependent", "R&TC 18501";
    SIGNED = blocks "ca-8879", "R&TC 18621.5; FTB 8879", "Enter the day on which the return of California was signed, after the year ended.";
    MARKETPLACE = look "ca-cover-1095a", "FTB 3853 Part III", "Add the paper 'Months of cover': who was covered by this policy, from which month to which.";
    BUSINESS = look "ca-depreciation", "R&TC 17250, 17255; FTB 3885A", "California depreciates otherwise: enter the difference on the paper 'Schedule CA'.";
}

/// Everything unsettled about it.
pub fn points(points: &mut Points<'_>) {
    let lives_here = points.answered(states::ask::STATE).and_then(Entry::text) == Some("CA");
    let at = Place::household;
    let said = |points: &Points<'_>, id: &str| points.answered(id).and_then(Entry::flag);
    match said(points, ask::PREPARED) {
        None if !lives_here && !has_state_wages(points) => return,
        None => return points.raise(&PREPARED, at(ask::PREPARED), "Prepare the return of California?"),
        Some(false) => return,
        Some(true) if points.facts.figures.california_rates.is_none() => {
            return points.raise(
                &NO_FIGURES,
                at(ask::PREPARED),
                "California has no figures for this year here.",
            );
        }
        Some(true) => {}
    }
    match said(points, ask::ALL_YEAR) {
        None => points.raise(
            &ALL_YEAR_ASKED,
            at(ask::ALL_YEAR),
            "Did everyone who files live in California all year?",
        ),
        Some(false) => part_year(points),
        Some(true) if !lives_here => {
            points.raise(&ELSEWHERE, at(ask::ALL_YEAR), "All year in California, yet living elsewhere?")
        }
        Some(true) => {}
    }
    match said(points, ask::OTHER) {
        None => {
            points.raise(&OTHER_ASKED, at(ask::OTHER), "Any California rules that are not computed here?")
        }
        Some(true) => points.raise(&OTHER, at(ask::OTHER), "These rules of California are not computed."),
        Some(false) => {}
    }
    use_tax::points(points);
    other_states(points);
    of_papers(points);
    signed(points);
    of_dependents(points);
    of_cover(points);
    return_points::points(points);
    underpayment::points(points);
    for paper in points.papers("Schedule C").chain(points.papers("Schedule E")).collect::<Vec<_>>() {
        points.raise(
            &BUSINESS,
            Place::paper(&paper.id, "title"),
            format!("{}: depreciation of California?", paper.title),
        );
    }
}

/// Whether a paper tells of wages of California.
fn has_state_wages(points: &Points<'_>) -> bool {
    let people = &points.facts.people;
    people.iter().flat_map(|of| of.own.of(&bringing::brings::OF_STATES)).any(|of| STATES[of.state].id == "CA")
}

/// What Form 540NR needs: when each lived there, and column E for every line of income.
fn part_year(points: &mut Points<'_>) {
    let facts = points.facts;
    if !facts.filers.iter().any(|&filer| residence::is_said(&points.household.people[filer])) {
        let place = points.at(facts.filers[0], ask::FROM);
        points.raise(&NEVER_LEFT, place, "When did who files live in California?");
    }
}

/// Wages or tax of another state.
fn other_states(points: &mut Points<'_>) {
    let facts = points.facts;
    let other =
        |of: &OfState| STATES[of.state].id != "CA" && !(of.wages.is_zero() && of.withheld.amount.is_zero());
    let part_year = facts.of_state.as_ref().is_some_and(|of| of.part_year);
    let people = facts.filers.iter().chain(&facts.own_returns);
    let all = people
        .flat_map(|&p| facts.people[p].own.of(&bringing::brings::OF_STATES).iter().map(move |of| (p, of)));
    for (person, of) in all.filter(|(_, of)| other(of)).collect::<Vec<_>>() {
        let state = &STATES[of.state];
        let paper = &points.household.papers[of.withheld.paper];
        let credited =
            points.papers(other_state_tax::PAPER.id).any(|paper| paper.text("state") == Some(state.id));
        let told = credited
            || !other_state_tax::is_credited(facts, person, state.id)
            || part_year && !is_taxed_twice(points, of.withheld.paper);
        let def = if told { &OTHER_RETURN } else { &OTHER_STATE };
        let words = format!("{} of {}: income that two states may tax.", paper.title, state.label);
        points.raise(def, Place::paper(&paper.id, of.withheld.field), words);
    }
    of_credits(points);
}

/// Whether the states of a statement have more of its wages than there are.
fn is_taxed_twice(points: &Points<'_>, place: usize) -> bool {
    let paper = &points.household.papers[place];
    // Of everyone: spouses who file apart may each have a part of it.
    let people = points.facts.people.iter();
    let all = people.flat_map(|of| of.own.of(&bringing::brings::OF_STATES));
    let of_states: Money = all.filter(|of| of.withheld.paper == place).map(|of| of.wages).sum();
    paper.kind == "W-2" && of_states > paper.amount("1")
}

/// What Schedule S and a federal adoption leave open.
fn of_credits(points: &mut Points<'_>) {
    for paper in points.papers(other_state_tax::PAPER.id).collect::<Vec<_>>() {
        let credited = |state: &str| {
            let mut owners = points.facts.people.iter().enumerate();
            owners.any(|(person, _)| {
                points.is_of(paper, &[person]) && other_state_tax::is_credited(points.facts, person, state)
            })
        };
        let is_in_vain = paper.text("state").is_some_and(|state| !credited(state));
        let taxed = !paper.amount("tax").is_zero();
        let lacks =
            ["state", "here", "there", "income"].into_iter().find(|id| !paper.boxes.contains_key(*id));
        if is_in_vain {
            points.raise(&NO_CREDIT, Place::paper(&paper.id, "state"), "No credit for this state's tax.");
        } else if let Some(field) = lacks.filter(|_| taxed) {
            let words = format!("{}: what of the income do both states tax?", paper.title);
            points.raise(&NO_INCOME, Place::paper(&paper.id, field), words);
        }
    }
    let adopted =
        points.papers("8839").next().filter(|_| points.papers(adoption_costs::PAPER.id).next().is_none());
    if let Some(paper) = adopted {
        points.raise(&ADOPTION, Place::paper(&paper.id, "5"), "Was the child in the custody of California?");
    }
}

/// What papers leave open for this state.
fn of_papers(points: &mut Points<'_>) {
    let mut found = Vec::new();
    for (kind, exempt, elsewhere) in [("1099-INT", "8", "8.elsewhere"), ("1099-DIV", "12", "12.elsewhere")] {
        for paper in points.papers(kind).filter(|paper| !paper.amount(exempt).is_zero()) {
            if !paper.boxes.contains_key(elsewhere) {
                let words = format!("{}: how much of it is of other states' bonds?", paper.title);
                found.push((&BOND_STATE, Place::paper(&paper.id, elsewhere), words));
            }
        }
    }
    let Some(disability) = &points.facts.figures.california_disability else { return };
    for paper in points.papers("W-2").filter(|paper| paper.text("15") == Some("CA")) {
        let [wages, tax, insured] = ["16", "17", "14"].map(|field| paper.amount(field));
        let most = wages.times(disability.rate, Money::CENT, Rounding::HalfUp) + Money::whole(1);
        if !wages.is_zero() && tax.is_zero() {
            let words = format!("{}: no California tax was withheld.", paper.title);
            found.push((&NOT_WITHHELD, Place::paper(&paper.id, "17"), words));
        }
        if insured > most {
            let words = format!("{}: box 14 is above state disability insurance.", paper.title);
            found.push((&DISABILITY, Place::paper(&paper.id, "14"), words));
        }
    }
    for (def, place, words) in found {
        points.raise(def, place, words);
    }
}

/// An electronic return of the state is signed for itself.
fn signed(points: &mut Points<'_>) {
    let year = points.facts.figures.year;
    let electronic = |paper: &&hembo_core::Paper| paper.text("how").is_some_and(|how| how != "paper");
    for paper in points.papers(signing::SIGNATURES.id).filter(electronic).collect::<Vec<_>>() {
        let day = paper.boxes.get("signed.state").and_then(Entry::date);
        if day.is_none_or(|day| day.year() <= year) {
            let place = Place::paper(&paper.id, "signed.state");
            points.raise(&SIGNED, place, "When was the return of California signed?");
        }
    }
}

/// Dependents whose own return would have a tax, in a year in which somebody lived elsewhere.
fn of_dependents(points: &mut Points<'_>) {
    let facts = points.facts;
    let part_year = facts.of_state.as_ref().is_some_and(|of| of.part_year);
    for &person in facts.own_returns.iter().filter(|_| part_year) {
        let about = &facts.people[person];
        if about.gross_income > cover::free_of_dependent(facts, person, Money::ZERO) {
            let words = format!("The return of {} on Form 540NR is not computed.", about.name);
            points.raise(&DEPENDENT, Place::person(&about.id, "name"), words);
        }
    }
}

/// Months of health cover that are missing.
fn of_cover(points: &mut Points<'_>) {
    let Some(facts) = points.facts.of_state.clone() else { return };
    let place = Place::household(ask::COVERED);
    match facts.covered {
        None if facts.cover.is_empty() => {
            points.raise(&COVER_ASKED, place, "Health cover of everyone in every month?")
        }
        Some(false) if facts.cover.is_empty() => {
            points.raise(&NO_MONTHS, place, "Which months were without cover?")
        }
        _ => {}
    }
    for (at, of) in facts.cover.iter().enumerate() {
        if facts.cover[..at].iter().any(|earlier| earlier.person == of.person) {
            let paper = &points.household.papers[of.item.paper];
            let row = &paper.rows[of.item.row.unwrap_or_default()];
            let words = format!("{} has two lines of health cover.", points.facts.people[of.person].name);
            points.raise(&TWO_LINES, Place::row(&paper.id, row, "person"), words);
        }
    }
    let stated = points.papers(cover_months::STATEMENTS.id).next().is_some();
    let policy = points.papers("1095-A").find(|_| facts.covered != Some(true) && !stated);
    if let Some(paper) = policy {
        let words = format!("{}: who was covered in which months?", paper.title);
        points.raise(&MARKETPLACE, Place::paper(&paper.id, "title"), words);
    }
    if !facts.cover.is_empty() {
        let here = points.units.iter().flat_map(|unit| {
            unit.people
                .iter()
                .copied()
                .filter(|_| unit.main)
                .chain(unit.dependents.iter().map(|of| of.person))
        });
        let missing: Vec<usize> =
            here.filter(|person| !facts.cover.iter().any(|of| of.person == *person)).collect();
        for person in missing {
            let about = &points.facts.people[person];
            points.raise(
                &NO_LINE,
                Place::person(&about.id, "cover"),
                format!("{} has no line of health cover.", about.name),
            );
        }
    }
    let (units, trail) = (points.units, points.trail);
    let all = points.facts;
    cover_months::points(points, &facts, |person| cover::found_of(all, units, trail, person));
}
