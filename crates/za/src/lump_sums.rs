//! Lump sums of retirement, severance and withdrawal (Second Schedule, s7(5); directives): by their own tables, with all earlier ones.

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points};
use hembo_core::{
    Paper,
    field::{Choice, Field, Years},
    household::Entry,
    limit, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Lump sums",
    lines: LINES,
    papers: &[DIRECTIVE],
    points: POINTS,
    figures: &["lump_sums"],
    ..Provision::NONE
};

lines! {
    EARLIER = "za.lump_sums.earlier", "Earlier lump sums", "s5(2); Second Schedule",
        "All taxable ones since the tables began.";
    RETIREMENT = "za.lump_sums.retirement", "Lump sums of retirement and severance", "s5(2); Second Schedule",
        "Of this year, less contributions that were never deducted.";
    WITHDRAWAL = "za.lump_sums.withdrawal", "Lump sums of withdrawal", "s5(2); Second Schedule",
        "Of this year, less contributions that were never deducted.";
    pub TAX = "za.lump_sum_tax", "Tax on lump sums", "s5(2); Second Schedule",
        "The table on all lump sums less that on the earlier ones; no credit touches it.";
}

open_points! {
    DIRECTIVE_ASKED = blocks "C42-number", "Fourth Schedule para 9(3)", "Enter the number of the directive.";
    EARLIER_ASKED = blocks "C70", "s5(2)", "Say what earlier lump sums were taxable: all count, also those of long ago; none is 0.";
    BOTH = not_covered "lump-both", "s5(2)";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// By the table of retirement and severance.
    pub static RETIREMENT: Brought = Brought::new();
    /// By the table of withdrawal.
    pub static WITHDRAWAL: Brought = Brought::new();
    /// Earlier ones.
    pub static EARLIER: Brought = Brought::new();
    /// Tax withheld by directive.
    pub static PAYE: Brought = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("retirement", "Retirement, death"),
    Choice::new("severance", "Severance"),
    Choice::new("withdrawal", "Withdrawal"),
];

/// A lump sum by its directive.
pub const DIRECTIVE: PaperKind = PaperKind {
    id: "Lump sum",
    subject: subject::RETIREMENT,
    name: "Lump sum by directive",
    words: "retirement severance withdrawal directive pension",
    title: "Fund or employer",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::text("directive", "", "Directive number", 30),
        Field::choice("kind", "", "Of what", KINDS),
        Field::amount("amount", "", "Lump sum"),
        Field::amount("untaxed", "", "Of it contributions never deducted, transfers"),
        Field::amount("earlier", "", "Taxable lump sums before it")
            .help("All of them since October 2007, March 2009 and March 2011; none: 0."),
        Field::amount("paye", "4115", "Tax withheld, where no certificate has it"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives a lump sum to who received it.
pub fn read(paper: &mut Bringing<'_>) {
    let kind = if paper.text("kind") == "withdrawal" { &brings::WITHDRAWAL } else { &brings::RETIREMENT };
    let taxable = paper.amount("amount") - paper.amount("untaxed");
    paper.put("amount", None, taxable, kind);
    paper.give(&[("earlier", &brings::EARLIER), ("paye", &brings::PAYE)]);
}

/// The table of retirement or of withdrawal on an amount.
fn by_table(facts: &Facts, trail: &mut impl Trail, withdrawal: bool, amount: Money) -> Money {
    let figures = &facts.figures.lump_sums;
    let (tops, rates) = match withdrawal {
        true => (&figures.withdrawal_tops, &figures.withdrawal_rates),
        false => (&figures.retirement_tops, &figures.retirement_rates),
    };
    limit::by_brackets(trail, amount, tops, rates.iter().copied())
}

/// Tax on lump sums: each table on all of them less on the earlier ones.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = on.own();
    let (retirement, withdrawal) = (own.of(&brings::RETIREMENT), own.of(&brings::WITHDRAWAL));
    if retirement.is_empty() && withdrawal.is_empty() {
        return Money::ZERO;
    }
    let earlier = on.gather(trail, EARLIER, own.of(&brings::EARLIER));
    let mut tax = Money::ZERO;
    let lines = [(RETIREMENT, retirement, false), (WITHDRAWAL, withdrawal, true)];
    let mut before = earlier;
    for (line, items, is_withdrawal) in lines {
        let amount = on.gather(trail, line, items);
        if amount.is_zero() {
            continue;
        }
        let below = by_table(on.facts, &mut hembo_core::Silent, is_withdrawal, before);
        tax += by_table(on.facts, trail, is_withdrawal, before + amount) - below;
        before += amount;
    }
    let of = [(EARLIER, earlier), (RETIREMENT, sum(retirement)), (WITHDRAWAL, sum(withdrawal))];
    on.made(trail, TAX, tax, &of, &[])
}

/// What directives withheld.
pub fn withheld(on: On<'_>) -> &[Item] {
    on.own().of(&brings::PAYE)
}

/// Directives that are not whole.
pub fn points(points: &mut Points<'_>) {
    let papers: Vec<&Paper> = points.papers(DIRECTIVE.id).collect();
    for paper in &papers {
        let at = |field: &str| Place::paper(&paper.id, field);
        if paper.text("directive").is_none_or(str::is_empty) {
            points.raise(&DIRECTIVE_ASKED, at("directive"), "The number of the directive?");
        }
        if paper.boxes.get("earlier").and_then(Entry::money).is_none() {
            points.raise(&EARLIER_ASKED, at("earlier"), "Which lump sums came before?");
        }
    }
    for (_, person) in points.returns() {
        let own = &points.facts.people[person].own;
        if own.has(&brings::RETIREMENT) && own.has(&brings::WITHDRAWAL) {
            let message =
                format!("{}: lump sums of both kinds in one year, whose order decides.", points.name(person));
            points.raise(&BOTH, points.at(person, "name"), message);
        }
    }
}
