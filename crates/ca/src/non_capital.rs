//! Non-capital losses (ITA 111(1)(a), (8)): those of other years that a way uses, line 25200, and that of this year.

use crate::{
    bringing::{Bringing, of_years_before},
    earlier_minimum_tax,
    facts::Facts,
    plan::On,
    points::Points,
    rounding::STEEPEST,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision},
    field::{Field, Years},
    household::Answers,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[BROUGHT_IN],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["non_capital_losses"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left, and the loss of the year, go into the next year.
const CARRIES: &[Carry] = &[Carry {
    line: CARRIED,
    paper: "Non-capital losses",
    into: CarriedTo::Rows { column: "amount", says: None },
}];

lines! {
    pub USED = "ca.25200", "Non-capital losses of other years", "ITA 111(1)(a)",
        "As much as the way uses, at most the income that is left.";
    OF_YEAR = "ca.noncapital.year", "Non-capital loss of this year", "ITA 111(8) 'non-capital loss'",
        "Losses of work, business and property above all other income less its deductions.";
    pub CARRIED = "ca.noncapital.carried", "Non-capital losses kept for later", "ITA 111(1)(a)",
        "What is not used, with the loss of this year.";
}

limits! {
    INCOME = "ca.limit.noncapital" on USED, "Non-capital losses", "over the income that is left, kept for later",
        "ITA 111(1)(a)";
}

open_points! {
    BACK = not_weighed "T1A-noncapital", "ITA 111(1)(a); form T1A",
        "The loss may be carried back to the three years before: weigh it with their returns.";
    TOO_OLD = blocks "noncapital-year", "ITA 111(1)(a)", "Correct the year, or remove it.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Losses of earlier years.
    pub static LOSSES: Brought = Brought::new();
}

const BROUGHT_IN: PaperKind = PaperKind {
    id: "Non-capital losses",
    subject: subject::ADJUSTMENTS,
    name: "Non-capital losses of earlier years",
    words: "business loss carried forward",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::count("year", "", "Loss of", 2100),
        Field::amount("amount", "", "Left to use").help("From the notice of assessment."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Whether a loss of a year may still be used; also where the year is not told.
fn counts(facts: &Facts, cells: &Answers) -> bool {
    of_years_before(facts, facts.figures.non_capital_losses.carried_years, cells)
}

/// Losses of years that count.
pub fn read(paper: &mut Bringing<'_>) {
    for (row, cells, amount) in paper.paper.lines("amount") {
        if counts(paper.facts, cells) {
            paper.put("amount", Some(row), amount, &brings::LOSSES);
        }
    }
    paper.files();
}

/// What each kind of income comes to, below zero a loss, and all other deductions.
#[derive(Debug, Clone, Copy, Default)]
pub struct Sources {
    /// Pay less the expenses of work.
    pub work: Money,
    /// Businesses.
    pub business: Money,
    /// Rents, interest and dividends less carrying charges.
    pub property: Money,
    /// All income less the deductions that belong to these.
    pub all: Money,
    /// Deductions from all income together (subdivision e).
    pub deductions: Money,
}

/// The loss of this year: losses above what all other income is above its deductions. Deductions from all income together make none.
pub fn of_year(on: On<'_>, trail: &mut impl Trail, from: Sources) -> Money {
    let mut losses = Money::ZERO;
    for source in [from.work, from.business, from.property] {
        losses += limit::or_zero(trail, -source);
    }
    // Told without a loss, too: what tells other edges on an edge is cut there again and again.
    let others = limit::or_zero(trail, from.all + losses - from.deductions);
    let loss = limit::or_zero(trail, losses - others);
    if losses.is_zero() {
        return losses;
    }
    let told: [(&'static str, &dyn ToString); 2] = [("Losses", &losses), ("Other income, net", &others)];
    on.made(trail, OF_YEAR, loss, &[], &told)
}

/// Line 25200. `left` is what other deductions leave of net income, `of_year` the loss of this year.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, left: Money, of_year: Money) -> Money {
    let brought_in = on.own().of(&brings::LOSSES);
    let all = sum(brought_in);
    let used = if all.is_zero() { Money::ZERO } else { used(on, trail, all, left) };
    if all.is_zero() && of_year.is_zero() {
        return Money::ZERO;
    }
    trail.line(USED, on.scope, used, |i| {
        i.items(brought_in).figure("Income that is left", left);
    });
    let told: [(&'static str, &dyn ToString); 2] = [("Brought in", &all), ("Of this year", &of_year)];
    on.made(trail, CARRIED, all + of_year - used, &[(USED, used)], &told);
    used
}

/// What of earlier years' losses is used.
fn used(on: On<'_>, trail: &mut impl Trail, all: Money, left: Money) -> Money {
    let wanted = on.plan.non_capital.get(on.person).copied().flatten().unwrap_or(Money::LARGEST);
    let most = limit::cap(trail, INCOME.at(on.scope), all, left);
    limit::lesser(trail, wanted, most)
}

fn most(facts: &Facts, person: usize) -> Money {
    sum(facts.people[person].own.of(&brings::LOSSES))
}

/// How much of earlier years' losses a person uses now, by the person's place.
pub static NOW: Open<Facts> = Open::new(
    |facts| facts.returns.iter().copied().filter(|&p| !most(facts, p).is_zero()).collect(),
    |facts, person| {
        let name = facts.first_name(person);
        let amount = Amount {
            most: most(facts, person),
            short: format!("non-capital losses of {name}"),
            more: earlier_minimum_tax::more(facts, person),
            steepest: STEEPEST,
        };
        let id = format!("ca.noncapital.{}", facts.people[person].id);
        let label = format!("Non-capital losses that {name} uses now");
        Decision::amount(id, label, "ITA 111(1)(a)", amount)
    },
);

/// What each person uses in a way; all where nothing is said.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.people.len()).map(|person| way.amount(&NOW, person)).collect()
}

/// A loss of this year, and losses that are too old.
pub fn points(points: &mut Points<'_>) {
    for (place, &person) in points.facts.returns.iter().enumerate() {
        let loss = points.amount(OF_YEAR, place);
        if !loss.is_zero() {
            let message = format!("{} has a loss of {loss:#} this year.", points.facts.people[person].name);
            points.raise(&BACK, points.at(person, "name"), message);
        }
    }
    for paper in points.papers(BROUGHT_IN.id) {
        for cells in paper.rows.iter().filter(|cells| !counts(points.facts, cells)) {
            let years = points.facts.figures.non_capital_losses.carried_years;
            let message = format!("A loss may be used in the {years} years after it.");
            points.raise(&TOO_OLD, Place::row(&paper.id, cells, "year"), message);
        }
    }
}
