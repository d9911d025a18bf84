//! What the year leaves to the next: unused credits, losses, gifts, room and basis, with the paper that takes each.

use super::{Source, plain};
use crate::document::{Block, Column, Row, Table};
use hembo_core::outcome::CarriedOver;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let row = |carried: &CarriedOver| {
        let CarriedOver { label, whose, amount, paper } = carried;
        Row::of([label.clone(), whose.clone(), plain(*amount), paper.clone()])
    };
    let rows: Vec<Row> = of.outcome.carried.iter().map(row).collect();
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
