//! The ways that were weighed, what each choice is worth, what is barred and by which rule, and what was not weighed.

use super::{Source, summary::weighed};
use crate::document::{Block, Column, Row, Table};
use hembo_core::outcome::{DecisionOutcome, OptionOutcome};

/// How many ways are listed.
const WAYS: usize = 20;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let why = of.outcome.compared.why.join(" ");
    let mut blocks = vec![Block::text(weighed(of))];
    blocks.extend((!why.is_empty()).then(|| Block::text(why)));
    blocks.push(listed(of));
    for decision in of.outcome.decisions.iter().filter(|decision| decision.arises) {
        blocks.extend(one(of, decision));
    }
    blocks.extend(unweighed(of));
    blocks
}

fn listed(of: Source<'_>) -> Block {
    let columns = vec![Column::words("Way", 5.0), Column::amounts("Tax", 1.0), Column::amounts("More", 1.0)];
    let rows = of.ways().into_iter().take(WAYS).map(|way| {
        let name = if way.but.is_empty() { &way.name } else { &way.but };
        Row { cells: vec![name.clone(), of.plain(way.total), of.plain(way.more)], strong: way.more.is_zero() }
    });
    Block::Table(Table { columns, rows: rows.collect() })
}

fn one(of: Source<'_>, decision: &DecisionOutcome) -> Vec<Block> {
    let held = if decision.pinned.is_some() { ", held by choice" } else { "" };
    let heading = Block::Heading(format!("{}{held}", decision.label));
    let columns = vec![
        Column::words(&decision.cite, 3.0),
        Column::amounts("Best total", 1.1),
        Column::amounts("More", 1.0),
        Column::words("", 3.0),
    ];
    let rows = match &decision.amount {
        Some(amount) => {
            let row = |what: String, total| Row::of([what, total, String::new(), String::new()]);
            vec![
                Row { strong: true, ..row(format!("{} taken", of.plain(amount.taken)), of.any(amount.free)) },
                row("None of it".into(), of.any(amount.none)),
                row(format!("All of it: {}", of.plain(amount.most)), of.any(amount.all)),
            ]
        }
        None => decision.options.iter().map(|one| option(of, one)).collect(),
    };
    let why = decision.reason.as_ref().map(|reason| Block::text(format!("Held because: {reason}")));
    [heading].into_iter().chain(why).chain([Block::Table(Table { columns, rows })]).collect()
}

fn option(of: Source<'_>, option: &OptionOutcome) -> Row {
    let barred = option.barred.as_ref().map(|why| format!("barred: {why}"));
    let cells =
        vec![option.label.clone(), of.any(option.best), of.any(option.more), barred.unwrap_or_default()];
    Row { cells, strong: option.chosen }
}

/// What the law leaves open and is not weighed: of this household, and beside any return.
fn unweighed(of: Source<'_>) -> Vec<Block> {
    let points = of.outcome.points.iter().filter(|p| p.unweighed && p.dismissed.is_none());
    let of_household = points.map(|p| Row::of([p.message.clone(), p.cite.clone()]));
    let beside = of.rules.elections().iter().map(|e| Row::of([e.what.into(), e.cite.into()]));
    let rows: Vec<Row> = of_household.chain(beside).collect();
    if rows.is_empty() {
        return Vec::new();
    }
    let columns = vec![Column::words("What", 5.0), Column::words("Rule", 2.0)];
    vec![Block::Heading("Left open by the law and not weighed".into()), Block::Table(Table { columns, rows })]
}
