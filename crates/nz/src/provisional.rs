//! Provisional tax of the year after (ITA RC 3 to RC 9), and what is due when.

use crate::{
    facts::Facts,
    figures::Figures,
    other, payments,
    plan::{Filed, On},
    points::Points,
};
use hembo_core::{
    Outcome, Paper,
    dates::DueDate,
    forms::Required,
    lines, open_points,
    outcome::Line,
    point::{Gather, Place},
    provision::Provision,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Provisional tax of the next year",
    lines: LINES,
    points: POINTS,
    figures: &["provisional", "dates"],
    ..Provision::NONE
};

lines! {
    STANDARD = "nz.provisional_standard_next", "Standard provisional tax of the next year", "ITA RC 5(2)",
        "This year's residual tax with an uplift, where it is above 5,000.";
    FOLLOWING = "nz.provisional_110_following", "The year after, until the next return is filed", "ITA RC 5(3)",
        "This year's residual tax with the uplift of two years.";
    ESTIMATE = "nz.provisional_estimate_next", "Estimated residual tax of the next year", "ITA RC 7",
        "As it was estimated.";
    NEXT = "nz.provisional_next", "Provisional tax of the next year", "ITA RC 5",
        "By the method that is chosen: the standard until another is.";
    RATIO = "nz.provisional_ratio", "On each 1,000 of taxable supplies", "ITA RC 8, RC 15",
        "This year's residual tax in a thousand of its taxable supplies, to one decimal of a per cent.";
    FIRST = "nz.provisional_instalment_1", "First instalment", "ITA RC 9",
        "A third, the fraction of a cent dropped.";
    SECOND = "nz.provisional_instalment_2", "Second instalment", "ITA RC 9",
        "As the first.";
    THIRD = "nz.provisional_instalment_3", "Third instalment", "ITA RC 9",
        "What is left.";
}

open_points! {
    PAYER = look "C52", "ITA RC 3", "Provisional tax is due next year: look at the instalments.";
    BELOW = look "provisional-estimate", "ITA RC 7; TAA 120KBB", "An estimate below what comes out costs interest from each instalment on; the standard is safe.";
    BY_RATIO = look "provisional-ratio", "ITA RC 8, RC 15 to RC 18", "It is open to who was registered for GST all year and elected it before the year begins; six instalments go by the supplies of two months each.";
    NO_RATIO = blocks "provisional-ratio-closed", "ITA RC 16", "Choose another method.";
    NO_SUPPLIES = blocks "provisional-no-supplies", "ITA RC 8", "Enter the taxable supplies of this year: the ratio is taken of them.";
    NO_ESTIMATE = blocks "provisional-no-estimate", "ITA RC 7", "Enter the estimate.";
}

/// A rate on an amount, half up.
fn uplifted(amount: Money, rate: Rate) -> Money {
    amount.times(rate, Money::CENT, Rounding::HalfUp)
}

/// What was entered about the next year's method.
fn entered<'h>(facts: &Facts, household: &'h hembo_core::Household, person: usize) -> Option<&'h Paper> {
    let id = &facts.people[person].id;
    let of = |paper: &&Paper| {
        paper.kind == payments::PAID_IN_ADVANCE.id && paper.owners.iter().any(|owner| owner.person == *id)
    };
    household.papers.iter().find(of)
}

/// Provisional tax of the next year, of the chosen way only.
pub fn record(on: On<'_>, trail: &mut impl Trail, household: &hembo_core::Household, residual: Money) {
    let figures = &on.facts.figures.provisional;
    if residual <= figures.above {
        return;
    }
    let of = [(payments::RESIDUAL, residual)];
    let standard = uplifted(residual, figures.uplift);
    on.made(trail, STANDARD, standard, &of, &[("Uplift", &figures.uplift)]);
    let following = uplifted(residual, figures.uplift_of_two_years);
    on.made(trail, FOLLOWING, following, &of, &[("Uplift", &figures.uplift_of_two_years)]);
    let paper = entered(on.facts, household, on.person);
    let method = paper.and_then(|paper| paper.text("method"));
    let box_of = |field: &'static str| entry(household, paper, field);
    let (line, next) = match method {
        Some("estimate") => {
            let item = box_of("estimate");
            (ESTIMATE, trail.line(ESTIMATE, on.scope, item.amount, |i| _ = i.items([&item])))
        }
        Some("ratio") => return by_ratio(on, trail, residual, [box_of("supplies"), box_of("expected")]),
        _ => (STANDARD, standard),
    };
    on.made(trail, NEXT, next, &[(line, next)], &[]);
    let third = next.in_proportion(Money::whole(1), Money::whole(3), Money::CENT, Rounding::Down);
    for (line, amount) in [(FIRST, third), (SECOND, third), (THIRD, next - third - third)] {
        on.made(trail, line, amount, &[(NEXT, next)], &[]);
    }
}

/// A box of the paper about the next year's method.
fn entry(household: &hembo_core::Household, paper: Option<&Paper>, field: &'static str) -> Item {
    let place = household.papers.iter().position(|other| Some(&other.id) == paper.map(|paper| &paper.id));
    let amount = paper.map_or(Money::ZERO, |paper| paper.amount(field));
    Item { amount, paper: place.unwrap_or(0), field, row: None }
}

/// RC 8: the ratio of residual tax to the supplies of the year, in a thousand of supplies, and what it asks of those that are expected.
fn by_ratio(on: On<'_>, trail: &mut impl Trail, residual: Money, [supplies, expected]: [Item; 2]) {
    if supplies.amount.is_zero() {
        return;
    }
    // One decimal of a per cent is a whole unit in a thousand.
    let thousand = Money::whole(1000);
    let ratio = residual.in_proportion(thousand, supplies.amount, Money::WHOLE, Rounding::HalfUp);
    trail.line(RATIO, on.scope, ratio, |i| {
        i.line(payments::RESIDUAL, on.scope, residual).items([&supplies]);
    });
    if !expected.amount.is_zero() {
        let next = expected.amount.in_proportion(ratio, thousand, Money::CENT, Rounding::HalfUp);
        trail.line(NEXT, on.scope, next, |i| {
            i.line(RATIO, on.scope, ratio).items([&expected]);
        });
    }
}

/// The worksheet: where provisional tax is due.
pub fn worksheet(filed: Filed<'_>) -> Required {
    filed.when(STANDARD, "residual income tax is not above 5,000")
}

/// Provisional taxpayers, and what a method risks.
pub fn points(points: &mut Points<'_>) {
    for (place, person) in points.returns() {
        let standard = points.amount(STANDARD, place);
        if standard.is_zero() {
            continue;
        }
        let name = points.name(person);
        points.raise(&PAYER, points.at(person, "name"), format!("{name}: provisional tax of {standard:#}."));
        let Some(paper) = entered(points.facts, points.household, person) else { continue };
        of_method(points, paper, place);
    }
}

fn of_method(points: &mut Points<'_>, paper: &Paper, place: usize) {
    let [standard, residual, ratio, next] =
        [STANDARD, payments::RESIDUAL, RATIO, NEXT].map(|line| points.amount(line, place));
    let at = |field: &str| Place::paper(&paper.id, field);
    match paper.text("method") {
        Some("estimate") if !paper.boxes.contains_key("estimate") => {
            points.raise(&NO_ESTIMATE, at("estimate"), "How much is estimated?");
        }
        Some("estimate") => {
            let saved = standard - paper.amount("estimate");
            let message = format!("The estimate asks for {saved:#} less than the standard.");
            points.raise(&BELOW, at("estimate"), message);
        }
        Some("ratio") if residual > points.facts.figures.provisional.ratio_to => {
            let message = format!("A residual tax of {residual:#} is too high for the ratio.");
            points.raise(&NO_RATIO, at("method"), message);
        }
        Some("ratio") if ratio > Money::whole(1000) => {
            points.raise(&NO_RATIO, at("supplies"), "The ratio is above 100 %.");
        }
        Some("ratio") if paper.amount("supplies").is_zero() => {
            points.raise(&NO_SUPPLIES, at("supplies"), "Of which supplies?");
        }
        Some("ratio") if next.is_zero() => {
            let message = format!("{ratio:#} are paid on each 1,000 of supplies.");
            points.raise(&BY_RATIO, at("method"), message);
        }
        Some("ratio") => {
            let message = format!("The ratio asks for {next:#}, the standard for {standard:#}.");
            points.raise(&BY_RATIO, at("method"), message);
        }
        _ => {}
    }
}

/// What is due when, of every return.
pub fn dates(outcome: &Outcome, figures: &Figures) -> Vec<DueDate> {
    let balances = outcome.lines.iter().filter(|line| line.id == payments::BALANCE);
    let mut all: Vec<DueDate> = balances.flat_map(|balance| of_return(outcome, balance, figures)).collect();
    all.sort_by_key(|due| due.day);
    all
}

fn of_return(outcome: &Outcome, balance: &Line, figures: &Figures) -> Vec<DueDate> {
    let rules = &figures.dates;
    let due = |day: Date, what: &str, amount: Option<Money>, words: &str, cite: &str| DueDate {
        day,
        what: what.into(),
        whose: balance.whose.clone(),
        amount,
        words: words.into(),
        cite: cite.into(),
    };
    let mut all = vec![due(
        rules.due.0,
        "Return",
        None,
        "Filed by this day, where one is asked for; an automatic assessment is final then.",
        "TAA 37",
    )];
    if balance.amount > Money::ZERO {
        let words = "Terminal tax; through an agent two months later.";
        all.push(due(rules.terminal.0, "Balance", Some(balance.amount), words, "ITA RB 1"));
    }
    all.extend(by_supplies(outcome, balance, figures).into_iter().map(|(day, words)| {
        let what = format!("Instalment for {}", outcome.year + 1);
        due(day, &what, None, &words, "ITA RC 9(7)")
    }));
    for (line, day) in [FIRST, SECOND, THIRD].into_iter().zip(&figures.provisional.instalments) {
        let amount = outcome.amount(line, &balance.scope);
        if !amount.is_zero() {
            let what = format!("Instalment for {}", outcome.year + 1);
            let words = "Provisional tax of the next year by the method that is chosen.";
            all.push(due(day.0, &what, Some(amount), words, "ITA RC 9"));
        }
    }
    all
}

/// The six days of the ratio, with what is paid on each; none where another method was chosen.
fn by_supplies(outcome: &Outcome, balance: &Line, figures: &Figures) -> Vec<(Date, String)> {
    let ratio = outcome.amount(RATIO, &balance.scope);
    if ratio.is_zero() {
        return Vec::new();
    }
    let words = format!("{ratio:#} on each 1,000 of the taxable supplies of the two months before.");
    figures.provisional.ratio_days.iter().map(|day| (day.0, words.clone())).collect()
}

/// Whether the law asks for a return, or assesses by itself: as it is told on the form.
pub fn route(filed: Filed<'_>) -> Required {
    let needed = other::needs_return(filed.on.facts, filed.on.person);
    Required::if_so(needed, "the authority assesses by itself")
}
