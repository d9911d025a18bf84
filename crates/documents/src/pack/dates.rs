//! What is due when: the return with its balance, and the instalments of the year after.

use super::Source;
use crate::document::{Block, Column, Row, Table};
use hembo_core::dates::DueDate;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let dates = of.rules.dates(of.outcome);
    if dates.is_empty() {
        return vec![Block::text("No day of the year after is known yet.")];
    }
    let row = |due: &DueDate| {
        let amount = due.amount.map(|amount| of.money(amount)).unwrap_or_default();
        Row::of([crate::words_of_day(due.day), due.what.clone(), due.whose.clone(), amount])
    };
    let columns = vec![
        Column::words("Day", 1.2),
        Column::words("What", 2.4),
        Column::words("Whose", 2.4),
        Column::amounts("Amount", 1.3),
    ];
    let table = Table { columns, rows: dates.iter().map(row).collect() };
    let mut told: Vec<&str> = Vec::new();
    for due in &dates {
        if !told.contains(&due.words.as_str()) {
            told.push(&due.words);
        }
    }
    let mut blocks = vec![Block::Table(table)];
    blocks.extend(told.into_iter().map(Block::text));
    blocks
}
