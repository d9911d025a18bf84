//! Community property (§66; Pub. 555): spouses who file apart in some states each report half of what belongs to both. What the federal
//! law leaves with the one who earned it stays there: payroll taxes, earned income for credits, social security, IRAs.

use crate::{
    bringing, excess_deferrals,
    facts::Marital,
    papers::{dividends, interest, retirement, w2},
    points::Points,
    states, status,
    unit::{Filed, On},
};
use hembo_core::{
    Household, Paper,
    brought::Brought,
    field::Field,
    forms::Required,
    household::{Entry, Role, Share},
    line::LineId,
    lines, open_points,
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Rate;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    points: POINTS,
    household_questions: &[
        Field::yes_no(ask::ALL_YEAR, "", "Married and at home in this state all year")
            .help("Then the property laws of one state hold for both spouses.")
            .only_for(states::ask::STATE, states::COMMUNITY_PROPERTY),
        Field::yes_no(ask::TRANSFERRED, "", "Earnings went from one spouse to the other")
            .help("Matters where the spouses lived apart all year (§66(a)).")
            .only_for(states::ask::STATE, states::COMMUNITY_PROPERTY),
        Field::yes_no(ask::PARTNERS, "", "Registered domestic partners")
            .help("Of two who are not married; they divide what they earn.")
            .only_for(states::ask::STATE, PARTNERSHIPS),
    ],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const ALL_YEAR: &str = "community_all_year";
    pub const TRANSFERRED: &str = "earnings_transferred";
    pub const PARTNERS: &str = "registered_partners";
}

lines! {
    WAGES = "us.8958.1", "Wages of both spouses", "IRC §66; Form 8958",
        "Of which each reports half, but for what was earned apart.";
    INTEREST = "us.8958.2", "Interest of both spouses", "IRC §66; Form 8958",
        "Community interest by half, separate interest by owner.";
    DIVIDENDS = "us.8958.3", "Dividends of both spouses", "IRC §66; Form 8958",
        "Community dividends by half, separate ones by owner.";
    WITHHELD = "us.8958.12", "Tax withheld from both spouses", "IRC §66; Form 8958",
        "With the income from which it was withheld.";
}

open_points! {
    ALL_YEAR = not_known "K-030", "IRC §66",
        "Answer the question; if not all year, compare separate returns by hand (Form 8958): the joint figures hold.";
    TRANSFERRED = not_known "K-030-transferred", "IRC §66(a)(3)",
        "Where the spouses lived apart all year and nothing was transferred, each reports the own earnings: answer the question.";
    ENDED = not_known "K-030-apart", "IRC §66",
        "Living apart for good ends the community in some states: compare separate returns by hand; the joint figures hold.";
    ONE_SPOUSE = not_covered "K-030-separate", "IRC §66";
    RARE = not_covered "K-030-wages", "IRC §66";
    PARTNERS_ASKED = not_known "K-030-partners", "Pub. 555",
        "Registered partners divide what they earn: answer the question.";
    PARTNERS = not_covered "K-030-registered", "Pub. 555";
    DIVIDED = look "K-033", "IRC §66; Form 8958",
        "What was earned, and what was paid, counts as of both by half: tick what is the separate property of one.";
}

/// States whose registered partners divide what they earn (Pub. 555).
const PARTNERSHIPS: &[&str] = &["CA", "NV", "WA"];

/// What a spouse earns: it stays with the earner where the spouses lived apart all year (§66(a)).
const EARNED: [&str; 3] = ["W-2", "Schedule C", "1099-NEC"];

/// What belongs to both unless it is separate property.
const OWNED: [&str; 16] = [
    "1099-R",
    "1099-B",
    "1099-S",
    "1099-G",
    "W-2G",
    "Other income",
    "Discount note",
    "3921",
    "Medical",
    "Property tax",
    "State tax paid",
    "1098",
    "Gifts",
    "Other deductions",
    "4952",
    "Car loan",
];

/// What property brings: in some states it belongs to both even where the property does not.
const FRUITS: [&str; 4] = ["1099-INT", "1099-OID", "1099-DIV", "Schedule E"];

/// Texas, Idaho, Louisiana and Wisconsin: what separate property brings belongs to both.
const FRUITS_SHARED: [&str; 4] = ["ID", "LA", "TX", "WI"];

fn text<'h>(household: &'h Household, question: &str) -> Option<&'h str> {
    household.answers.get(question).and_then(Entry::text)
}

fn flag(household: &Household, question: &str) -> Option<bool> {
    household.answers.get(question).and_then(Entry::flag)
}

/// Two spouses who are prepared together, and the community property state in which they live.
fn spouses(household: &Household) -> Option<&str> {
    let married = text(household, status::ask::MARITAL).is_none_or(|said| said == "married");
    let two = household.people.iter().filter(|person| person.role == Role::Filer).count() == 2;
    text(household, states::ask::STATE).filter(|state| married && two && states::community_property(state))
}

/// Spouses who lived apart all year without passing on what they earned (§66(a)).
fn earns_alone(household: &Household) -> bool {
    flag(household, status::ask::APART_ALL_YEAR) == Some(true)
        && flag(household, ask::TRANSFERRED) == Some(false)
}

fn is_divided(household: &Household, paper: &Paper, state: &str) -> bool {
    let separate = paper.flag(states::SEPARATE.id);
    match paper.kind.as_str() {
        kind if EARNED.contains(&kind) => !earns_alone(household),
        "1099-R" if retirement::is_of_ira(paper) => false,
        kind if OWNED.contains(&kind) => !separate,
        kind if FRUITS.contains(&kind) => !separate || FRUITS_SHARED.contains(&state),
        _ => false,
    }
}

/// The household as separate returns see it: what belongs to both spouses is owned by half. None where that is not so, or not
/// known.
pub fn divided(household: &Household) -> Option<Household> {
    let state = spouses(household)?;
    if flag(household, ask::ALL_YEAR) != Some(true) {
        return None;
    }
    let filers: Vec<&str> = household.filers().map(|(_, person)| person.id.as_str()).collect();
    let halves: Vec<Share> =
        filers.iter().map(|id| Share { person: (*id).into(), percent: Rate::percent(50) }).collect();
    let mut divided = household.clone();
    for paper in &mut divided.papers {
        let of_spouses = paper.owners.iter().all(|owner| filers.contains(&owner.person.as_str()));
        if of_spouses && is_divided(household, paper, state) {
            paper.owners = halves.clone();
        }
    }
    Some(divided)
}

/// What each line of the statement is made of.
const STATEMENT: [(LineId, &[&Brought]); 4] = [
    (WAGES, &[&w2::brings::WAGES]),
    (INTEREST, &[&interest::brings::INTEREST]),
    (DIVIDENDS, &[&dividends::brings::ORDINARY]),
    (WITHHELD, &[&w2::brings::WITHHELD, &bringing::brings::WITHHELD]),
];

/// Form 8958: what both spouses have together, beside which the return shows its part.
pub fn statement(on: On<'_>, trail: &mut impl Trail) {
    if !files_statement(on) {
        return;
    }
    for (line, kinds) in STATEMENT {
        let items = || {
            let of = move |&p: &usize| kinds.iter().flat_map(move |kind| on.facts.people[p].own.of(kind));
            on.facts.filers.iter().flat_map(of)
        };
        trail.line(line, on.scope, sum(items()).to_whole(), |i| {
            i.items(items());
        });
    }
}

fn files_statement(on: On<'_>) -> bool {
    on.facts.divided && on.unit.main && on.unit.people.len() == 1
}

/// Form 8958: with separate returns in a community property state.
pub fn form_8958(filed: Filed<'_>) -> Required {
    Required::if_so(files_statement(filed.on), "no separate return in a community property state")
}

/// What decides how separate returns divide, and what is not divided here.
pub fn points(points: &mut Points<'_>) {
    let household = points.household;
    let state = text(household, states::ask::STATE).filter(|state| states::community_property(state));
    let Some(state) = state else { return };
    if points.facts.couple() {
        return couple(points);
    }
    if points.facts.marital == Marital::Married {
        let message = "A separate return divides income by community property here: not computed yet.";
        points.raise(&ONE_SPOUSE, Place::household(states::ask::STATE), message);
    } else if points.facts.unmarried_pair() && PARTNERSHIPS.contains(&state) {
        match flag(household, ask::PARTNERS) {
            None => {
                points.raise(
                    &PARTNERS_ASKED,
                    Place::household(ask::PARTNERS),
                    "Are the two registered partners?",
                );
            }
            Some(true) => {
                let message = "Registered partners divide what they earn: not computed yet.";
                points.raise(&PARTNERS, Place::household(ask::PARTNERS), message);
            }
            Some(false) => {}
        }
    }
}

fn couple(points: &mut Points<'_>) {
    let household = points.household;
    if flag(household, ask::ALL_YEAR) != Some(true) {
        let message = "Only the joint return is weighed: separate ones divide income by community property.";
        return points.raise(&ALL_YEAR, Place::household(ask::ALL_YEAR), message);
    }
    let apart_all_year = flag(household, status::ask::APART_ALL_YEAR) == Some(true);
    if apart_all_year && flag(household, ask::TRANSFERRED).is_none() {
        points.raise(
            &TRANSFERRED,
            Place::household(ask::TRANSFERRED),
            "Did earnings go from one spouse to the other?",
        );
    } else if points.facts.apart == Some(true) && !apart_all_year {
        let place = Place::household(status::ask::APART);
        points.raise(&ENDED, place, "The spouses lived apart for a part of the year.");
    }
    if points.units.iter().any(|unit| unit.main && unit.people.len() == 1) {
        let place = Place::household(states::ask::STATE);
        points.raise(&DIVIDED, place, "The separate returns divide what belongs to both by half.");
    }
    for person in 0..points.facts.people.len() {
        if !excess_deferrals::excess_of(points.facts, person).is_zero() {
            let message =
                "Excess deferrals are not divided by community property yet; the joint figures hold.";
            let place = Place { person: Some(points.facts.people[person].id.clone()), ..Place::default() };
            points.raise(&RARE, place, message);
        }
    }
    for kind in ["K-1 1065", "K-1 1120-S", "K-1 1041"] {
        for paper in points.papers(kind) {
            let message = "A Schedule K-1 is not divided by community property yet; the joint figures hold.";
            points.raise(&RARE, Place { paper: Some(paper.id.clone()), ..Place::default() }, message);
        }
    }
    for paper in points.papers("1099-R").filter(|paper| paper.flag("working_age")) {
        let message = "A pension that counts as wages is not divided by community property yet; the joint figures hold.";
        points.raise(&RARE, Place::paper(&paper.id, "working_age"), message);
    }
}
