//! Expenses of educators (§62(a)(2)(D)), Schedule 1 line 11: up to so much for each teacher, none of it for the spouse.

use crate::{bringing::Bringing, facts::Facts, unit::On};
use hembo_core::{
    field::{Field, Years},
    limit, limits, lines,
    paper::{Back, NextYear, PaperKind, subject},
    provision::Provision,
    reading::sum,
    trail::{Scope, Silent, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[EXPENSES],
    figures: &["educator"],
    ..Provision::NONE
};

lines! {
    pub L11 = "us.sched_1.11", "Educator expenses", "IRC §62(a)(2)(D)",
        "What each educator spent, up to the amount of the year.";
}

limits! {
    MOST = "us.limit.educator" on L11, "Educator expenses", "over the amount for each educator",
        "IRC §62(a)(2)(D), (d)(3)";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// What an educator spent.
    pub static EXPENSES: Brought = Brought::new();
}

const EXPENSES: PaperKind = PaperKind {
    id: "Educator",
    subject: subject::ADJUSTMENTS,
    name: "Educator expenses",
    words: "teacher classroom school books supplies",
    title: "School",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "What", 80).help(
            "Kindergarten to grade 12, 900 hours of work in the school year; not what a 529 plan or bonds paid tax-free.",
        ),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the receipts to the educator.
pub fn read(paper: &mut Bringing<'_>) {
    paper.rows(&brings::EXPENSES);
}

/// What a person may deduct.
pub fn allowed_for(facts: &Facts, person: usize) -> Money {
    allowed(facts, &mut Silent, Scope::Person(person), person)
}

fn allowed(facts: &Facts, trail: &mut impl Trail, scope: Scope, person: usize) -> Money {
    let spent = sum(facts.people[person].own.of(&brings::EXPENSES));
    limit::cap(trail, MOST.at(scope), spent, facts.figures.educator.most)
}

/// What is left of a return's expenses, where the year lets it be itemized (§67(g)).
pub fn rest(on: On<'_>) -> Money {
    if on.facts.figures.educator.rest_itemized != Some(true) {
        return Money::ZERO;
    }
    on.owns()
        .map(|(person, own)| sum(own.of(&brings::EXPENSES)) - allowed_for(on.facts, person))
        .sum::<Money>()
        .to_whole()
}

/// Whether papers bring any that may be left to itemize.
pub fn any_rest(facts: &Facts, person: usize) -> bool {
    facts.figures.educator.rest_itemized == Some(true)
        && sum(facts.people[person].own.of(&brings::EXPENSES)) > facts.figures.educator.most
}

/// Line 11.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    if let [person] = on.unit.people[..] {
        return of_person(on, trail, on.scope, person).to_whole();
    }
    let mut total = Money::ZERO;
    for (person, own) in on.owns() {
        if own.has(&brings::EXPENSES) {
            total += of_person(on, trail, Scope::Person(person), person);
        }
    }
    trail.line(L11, on.scope, total.to_whole(), |i| {
        for (person, _) in on.owns().filter(|(_, own)| own.has(&brings::EXPENSES)) {
            i.line(L11, Scope::Person(person), allowed_for(on.facts, person));
        }
    })
}

fn of_person(on: On<'_>, trail: &mut impl Trail, scope: Scope, person: usize) -> Money {
    let own = &on.facts.people[person].own;
    let allowed = allowed(on.facts, trail, scope, person);
    let shown = if scope == on.scope { allowed.to_whole() } else { allowed };
    trail.line(L11, scope, shown, |i| {
        i.items(own.of(&brings::EXPENSES)).figure("At most", on.facts.figures.educator.most);
    })
}
