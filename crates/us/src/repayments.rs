//! Income of an earlier year that was repaid in this one under a claim of right (§1341): above an amount it is deducted, or this year's
//! tax falls by what the earlier year's would have been less, whichever is better.

use crate::{bringing::Bringing, facts::Facts, points::Points, unit::On};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Field, Years},
    household::Entry,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::{Item, Trail},
    words::first_name,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Income of earlier years repaid",
    lines: LINES,
    papers: &[REPAID],
    points: POINTS,
    figures: &["repayments"],
    ..Provision::NONE
};

lines! {
    pub DEDUCTED = "us.sched_a.16.repaid", "Income repaid, deducted", "IRC §1341(a)(4)",
        "What was income in an earlier year and had to be repaid.";
    pub CREDIT = "us.sched_3.13b", "Income repaid, credited", "IRC §1341(a)(5), (b)(1)",
        "What the tax of the earlier years would have been less without it.";
}

open_points! {
    SMALL = look "1341-small", "IRC §§67(g), 1341(a)(3)",
        "Wages, unemployment or benefits repaid up to this amount are not deducted; those of a business are its expense.";
    DEPENDENT = not_covered "1341-dependent", "IRC §1341(a)";
    TAX = blocks "1341-tax", "IRC §1341(a)(5)(B)",
        "Reckon the earlier year's tax without that income, and enter by how much it falls; 0 if by nothing.";
}

/// What of income was repaid.
#[derive(Debug, Clone, Copy)]
pub struct Repaid {
    item: Item,
    /// By what the earlier year's tax falls without it.
    tax: Money,
}

/// What its papers bring.
pub mod brings {
    use super::Repaid;
    use hembo_core::brought::Brought;

    /// Income repaid, above the amount from which it counts.
    pub static REPAID: Brought<Repaid> = Brought::new();
}

const REPAID: PaperKind = PaperKind {
    id: "1341",
    subject: subject::OTHER_INCOME,
    name: "Income of earlier years repaid",
    words: "repayment repaid clawback bonus unemployment overpaid claim of right 1341",
    title: "Paid back to",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Repaid on"),
        Field::text("what", "", "What it was", 80),
        Field::count("year", "", "Income of the year", 2100),
        Field::amount("amount", "", "Amount"),
        Field::amount("tax", "", "Earlier year's tax without it, less by"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives each repayment that counts to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    let above = paper.facts.figures.repayments.above;
    for (r, row, amount) in paper.paper.lines("amount") {
        let tax = row.get("tax").and_then(Entry::money).unwrap_or_default();
        if amount > above {
            paper.put_as("amount", Some(r), amount, &brings::REPAID, |item| Repaid { item, tax });
        }
    }
}

fn of(facts: &Facts, person: usize) -> &[Repaid] {
    facts.people[person].own.of(&brings::REPAID)
}

/// Whether each filer who repaid deducts it or takes it off the tax.
pub static METHOD: Open<Facts> = Open::new(
    |facts: &Facts| facts.filers.iter().copied().filter(|&p| !of(facts, p).is_empty()).collect(),
    |facts, person| {
        let about = &facts.people[person];
        let short = format!("income that {} repaid credited", first_name(&about.name));
        let options = vec![Opt::new("deduct", "Deducted", ""), Opt::new("credit", "Off the tax", short)];
        Decision::between(
            format!("us.repaid.{}", about.id),
            format!("Income that {} repaid", about.name),
            "IRC §1341(a)",
            options,
        )
    },
);

/// The filers of a return who take it off the tax in a way.
pub fn credited(way: Chosen<'_, '_, Facts>, people: &[usize]) -> Vec<usize> {
    people.iter().copied().filter(|&p| way.taken(&METHOD, p) == Some(1)).collect()
}

fn those(on: On<'_>, credited: bool) -> impl Iterator<Item = &Repaid> {
    let people = on.unit.people.iter().filter(move |p| on.unit.repaid_credited.contains(p) == credited);
    people.flat_map(move |&p| of(on.facts, p))
}

/// What a return deducts, and its line on Schedule A.
pub fn deducted(on: On<'_>, trail: &mut impl Trail) -> Money {
    if those(on, false).next().is_none() {
        return Money::ZERO;
    }
    let all = those(on, false).map(|repaid| repaid.item.amount).sum::<Money>().to_whole();
    trail.line(DEDUCTED, on.scope, all, |i| {
        i.items(those(on, false).map(|repaid| &repaid.item));
    })
}

/// Schedule 3 line 13b.
pub fn credit(on: On<'_>, trail: &mut impl Trail) -> Money {
    let all = those(on, true).map(|repaid| repaid.tax).sum::<Money>().to_whole();
    trail.line(CREDIT, on.scope, all, |i| {
        i.items(those(on, true).map(|repaid| &repaid.item));
    })
}

/// A small repayment, and one of which the earlier tax is not known.
pub fn points(points: &mut Points<'_>) {
    let above = points.facts.figures.repayments.above;
    for paper in points.papers(REPAID.id) {
        let counts = |p: usize| !of(points.facts, p).is_empty() && !points.facts.people[p].filer;
        if points.owner(paper).is_some_and(counts) {
            let place = Place { paper: Some(paper.id.clone()), ..Place::default() };
            points.raise(
                &DEPENDENT,
                place,
                "What a dependent repaid is deducted: the credit instead is not weighed yet.",
            );
        }
        for row in &paper.rows {
            let at = |field: &str| Place::row(&paper.id, row, field);
            let amount = row.get("amount").and_then(Entry::money).unwrap_or_default();
            if amount > above && !row.contains_key("tax") {
                points.raise(&TAX, at("tax"), "What would the earlier year's tax have been without it?");
            } else if amount <= above && !amount.is_zero() {
                points.raise(&SMALL, at("amount"), format!("{amount:#} is not more than {above:#}."));
            }
        }
    }
}
