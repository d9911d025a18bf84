//! Contributions to a subsidised contract (Riester; §§10a, 79 to 86 EStG; Anlage AV): the allowances, or the deduction where it saves more
//! than they are. The office weighs it by itself.

use crate::{
    bringing::Bringing,
    facts::Facts,
    figures,
    plan::On,
    points::Points,
    rounding::{euros_down, euros_up},
};
use hembo_core::{
    field::{Choice, Field, Years},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Subsidised contracts",
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    papers: &[CONTRACT],
    figures: &["riester"],
    ..Provision::NONE
};

lines! {
    pub ALLOWANCES = "de.riester_allowances", "Allowances of subsidised contracts (Altersvorsorgezulage)", "§§83 to 86",
        "The basic one and those of children, in the part in which the least was paid in.";
    OPEN = "de.riester_open", "Deduction for subsidised contracts, at most", "§10a(1), (3)",
        "Contributions and allowances of who is entitled, up to a most.";
    pub DEDUCTED = "de.riester", "Subsidised contracts deducted", "§10a(2)",
        "Where it saves more income tax than the allowances are.";
    pub ADDED = "de.riester_added", "Allowances added to the tax", "§§2(6) S.2, 10a(2)", "Where the deduction is used.";
}

limits! {
    MOST = "de.limit.riester" on OPEN, "Subsidised contracts", "over the most of a person", "§10a(1)";
}

open_points! {
    WAGE_ASKED = blocks "riester-wage", "§86(1)", "Enter the pension-liable income of the year before: the least to be paid in goes by it.";
    NOT_ENOUGH = look "riester-least", "§86(1)", "Less than the least was paid in: the allowances are cut in that part.";
    NOT_ENTITLED = blocks "riester-indirect", "§79 S.2", "Through the spouse only whose spouse is entitled and has a contract is entitled: compare both.";
}

/// What its papers bring.
pub mod brings {
    use super::Contract;
    use hembo_core::brought::Brought;

    /// Contracts.
    pub static CONTRACTS: Brought<Contract> = Brought::new();
}

/// A contract of the year.
#[derive(Debug, Clone, Copy)]
pub struct Contract {
    /// What was paid in without allowances.
    pub paid: Item,
    /// Allowances of children and the bonus of the first year, where enough was paid in.
    pub extras: Money,
    /// Pension-liable income of the year before.
    pub wage_before: Money,
    /// Entitled through the spouse (§79 S.2).
    pub through_spouse: bool,
}

const ENTITLED: &[Choice] = &[
    Choice::new("self", "By own pension insurance or office"),
    Choice::new("spouse", "Through the spouse (mittelbar)"),
];

const CONTRACT: PaperKind = PaperKind {
    id: "Riester",
    subject: subject::RETIREMENT,
    name: "Subsidised contract, Anlage AV",
    words: "riester altersvorsorge zulage av",
    title: "Provider",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::choice("entitled", "", "Entitled", ENTITLED).blank_is("self").lasts(),
        Field::amount("paid", "", "Own contributions of the year, without allowances"),
        Field::amount("wage_before", "", "Pension-liable income of the year before"),
        Field::count("children_before", "", "Allowances of children born before 2008", 20).lasts(),
        Field::count("children", "", "Allowances of children born from 2008 on", 20).lasts(),
        Field::yes_no("bonus", "", "First year of a contract, below 25"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives a contract to whose it is.
pub fn read(paper: &mut Bringing<'_>) {
    let figures = &paper.facts.figures.riester;
    let children =
        figures.child_before * paper.count("children_before") + figures.child * paper.count("children");
    let bonus = if paper.flag("bonus") { figures.bonus } else { Money::ZERO };
    let contract = Contract {
        paid: paper.item("paid", paper.amount("paid")),
        extras: children + bonus,
        wage_before: paper.amount("wage_before"),
        through_spouse: paper.text("entitled") == "spouse",
    };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::CONTRACTS, contract);
    }
}

/// A person's contracts, added up; the basic allowance is one (§§84, 87).
#[derive(Debug, Clone, Copy)]
struct Together {
    paid: Money,
    whole: Money,
    wage_before: Money,
    through_spouse: bool,
}

fn contract_of(facts: &Facts, person: usize) -> Option<Together> {
    let all = facts.people[person].own.of(&brings::CONTRACTS);
    let first = all.first()?;
    let extras: Money = all.iter().map(|one| one.extras).sum();
    Some(Together {
        paid: all.iter().map(|one| one.paid.amount).sum(),
        whole: facts.figures.riester.basic + extras,
        wage_before: first.wage_before,
        through_spouse: first.through_spouse,
    })
}

/// Who of the filers is entitled through the other one.
fn through(on: On<'_>, person: usize) -> Option<usize> {
    if !on.facts.couple() {
        return None;
    }
    let other = on.facts.filers.iter().copied().find(|&other| other != person)?;
    contract_of(on.facts, other).filter(|contract| contract.through_spouse).map(|_| other)
}

/// What a person who is entitled has for a deduction and in allowances, with those of a spouse who is entitled through it.
#[derive(Debug, Clone, Copy, Default)]
struct Entitled {
    paid: Money,
    allowances: Money,
    least: Money,
    most: Money,
}

fn entitled(on: On<'_>, person: usize) -> Entitled {
    let figures = &on.facts.figures.riester;
    let Some(own) = contract_of(on.facts, person).filter(|own| !own.through_spouse) else {
        return Entitled::default();
    };
    let paid = own.paid;
    // Who is entitled through the spouse pays in the smallest amount, and shares the spouse's part (§§79 S.2, 86(2)).
    let other = through(on, person).and_then(|other| contract_of(on.facts, other));
    let other = other.filter(|other| other.paid >= figures.least);
    let whole = own.whole + other.map_or(Money::ZERO, |other| other.whole);
    let least = least_of(figures, own.wage_before, whole);
    let cut = |amount: Money| {
        if paid >= least { amount } else { amount.in_proportion(paid, least, Money::CENT, Rounding::HalfUp) }
    };
    let further = if other.is_some() { figures.through_spouse } else { Money::ZERO };
    Entitled {
        paid: paid + other.map_or(Money::ZERO, |other| other.paid),
        allowances: cut(own.whole) + other.map_or(Money::ZERO, |other| cut(other.whole)),
        least,
        most: figures.most + further,
    }
}

/// §86(1): a part of income up to the most, less the allowances; the smallest amount at least.
fn least_of(figures: &figures::Riester, wage_before: Money, allowances: Money) -> Money {
    let part = settled::lesser(wage_before.times(figures.rate, Money::CENT, Rounding::Down), figures.most);
    settled::greater(part - allowances, figures.least)
}

/// The deduction that is open to an assessment, and its allowances.
pub fn open(on: On<'_>, trail: &mut impl Trail) -> [Money; 2] {
    let all: Vec<Entitled> = on.people.iter().map(|&person| entitled(on, person)).collect();
    let paid =
        || on.people.iter().flat_map(|&person| on.own(person).of(&brings::CONTRACTS)).map(|one| &one.paid);
    let least: Money = all.iter().map(|one| one.least).sum();
    let allowances = trail.line(ALLOWANCES, on.scope, all.iter().map(|one| one.allowances).sum(), |i| {
        _ = i.items(paid()).figure("Least to pay in", least)
    });
    let of =
        |one: &Entitled| limit::cap(trail, MOST.at(on.scope), euros_up(one.paid + one.allowances), one.most);
    let open = all.iter().map(of).sum();
    [
        trail.line(OPEN, on.scope, open, |i| _ = i.items(paid()).line(ALLOWANCES, on.scope, allowances)),
        allowances,
    ]
}

/// The deduction and what is added to the tax where it is used, or nothing: used where `saves`, the income tax with less income, is more than the
/// allowances. Of spouses together both count together (§10a(3) S.5).
pub fn weigh(on: On<'_>, trail: &mut impl Trail, saves: impl Fn(Money) -> Money) -> [Money; 2] {
    if on.people.iter().all(|&person| !on.own(person).has(&brings::CONTRACTS)) {
        return [Money::ZERO; 2];
    }
    let [open, allowances] = open(on, trail);
    let better = limit::or_zero(trail, saves(open) - allowances) > Money::ZERO;
    let [used, added] = if better { [open, euros_down(allowances)] } else { [Money::ZERO; 2] };
    on.made(trail, DEDUCTED, used, &[(OPEN, open), (ALLOWANCES, allowances)], &[]);
    on.made(trail, ADDED, added, &[(DEDUCTED, used), (ALLOWANCES, allowances)], &[]);
    [used, added]
}

/// What is missing of contracts.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CONTRACT.id) {
        let place = |field: &str| Place::paper(&paper.id, field);
        let through_spouse = paper.text("entitled") == Some("spouse");
        if !through_spouse && !paper.boxes.contains_key("wage_before") {
            points.raise(
                &WAGE_ASKED,
                place("wage_before"),
                format!("{}: income of the year before?", paper.title),
            );
        }
        let entitled = |&p: &usize| {
            points.facts.people[p].own.of(&brings::CONTRACTS).iter().any(|contract| !contract.through_spouse)
        };
        if through_spouse && !(points.facts.couple() && points.facts.filers.iter().any(entitled)) {
            points.raise(&NOT_ENTITLED, place("entitled"), format!("{}: through which spouse?", paper.title));
        }
    }
    for &person in &points.facts.filers {
        let who = &points.facts.people[person];
        let own = contract_of(points.facts, person).filter(|own| !own.through_spouse);
        let Some(own) = own else { continue };
        if own.paid < least_of(&points.facts.figures.riester, own.wage_before, own.whole) {
            points.raise(
                &NOT_ENOUGH,
                Place::person(&who.id, "answers"),
                format!("{} paid in less than the least.", who.name),
            );
        }
    }
}
