//! What caps, floors and phase-outs took.

use super::Source;
use crate::document::{Block, Column, Row, Table};

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let took = of.outcome.limits.iter().filter(|limit| !limit.lost.is_zero());
    let rows: Vec<Row> = took
        .map(|limit| {
            let what = format!("{} ({}): {}", limit.label, limit.whose, limit.how);
            let amounts = [of.plain(limit.entered), of.plain(limit.allowed), of.plain(limit.lost)];
            let cells = [what].into_iter().chain(amounts).chain([limit.cite.clone()]).collect();
            Row { cells, strong: false }
        })
        .collect();
    if rows.is_empty() {
        return vec![Block::text("No limit took anything.")];
    }
    let columns = vec![
        Column::words("What", 3.6),
        Column::amounts("Entered", 1.2),
        Column::amounts("Allowed", 1.2),
        Column::amounts("Lost", 1.2),
        Column::words("Rule", 1.8),
    ];
    vec![Block::Table(Table { columns, rows })]
}
