//! The papers that the return was made from.

use super::Source;
use crate::document::{Block, Column, Row, Table};
use hembo_core::household::Paper;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let papers = &of.household.papers;
    if papers.is_empty() {
        return vec![Block::text("No paper was keyed.")];
    }
    let checked = papers.iter().filter(|paper| paper.is_checked()).count();
    let columns = vec![
        Column::words("Paper", 2.0),
        Column::words("From, or about", 2.6),
        Column::words("Whose", 2.0),
        Column::amounts("Amount", 1.3),
        Column::words("", 1.3),
    ];
    let rows = papers.iter().map(|paper| one(of, paper)).collect();
    let told = format!("{checked} of {} papers were checked against the original.", papers.len());
    vec![Block::text(told), Block::Table(Table { columns, rows })]
}

fn one(of: Source<'_>, paper: &Paper) -> Row {
    let owners = paper.owners.iter().filter_map(|owner| of.household.person(&owner.person));
    let owners: Vec<&str> = owners.map(|person| person.name.as_str()).collect();
    let brings = of.outcome.papers.iter().find(|brings| brings.paper == paper.id);
    let amount = brings.map(|brings| brings.amount).filter(|amount| !amount.is_zero());
    let checked = if paper.is_checked() { "checked" } else { "" };
    Row::of([paper.kind.clone(), paper.title.clone(), owners.join(", "), of.any(amount), checked.into()])
}
