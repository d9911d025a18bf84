//! What the year leaves to the next: unused credits, losses, gifts, room and basis, with the paper that takes each.

use super::{Source, plain};
use crate::document::{Block, Column, Row, Table};
use hembo_money::Money;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let declared = of.rules.declared();
    let mut rows: Vec<Row> = Vec::new();
    for carry in &declared.carries {
        let label = declared.line(carry.line).map_or(carry.line, |line| line.label);
        let lines = of.outcome.lines.iter().filter(|line| line.id == carry.line && line.amount > Money::ZERO);
        for line in lines {
            let row = Row::of([label.into(), line.whose.clone(), plain(line.amount), carry.paper.into()]);
            if !rows.contains(&row) {
                rows.push(row);
            }
        }
    }
    if rows.is_empty() {
        return vec![Block::text("Nothing is carried over into the next year.")];
    }
    let columns = vec![
        Column::words("What", 3.4),
        Column::words("Whose", 2.4),
        Column::amounts("Amount", 1.2),
        Column::words("Goes into", 1.6),
    ];
    vec![Block::Table(Table { columns, rows })]
}
