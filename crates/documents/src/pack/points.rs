//! What is still open, and what was put aside with which reason.

use super::Source;
use crate::document::{Block, Column, Row, Table};
use hembo_core::point::Weight;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let open = [Weight::Blocks, Weight::Look].into_iter().flat_map(|weight| of.open(weight));
    let open: Vec<Row> = open
        .map(|point| {
            let weight = if point.weight == Weight::Blocks { "blocks" } else { "worth a look" };
            Row::of([weight.into(), point.message.clone(), point.remedy.clone()])
        })
        .collect();
    let aside =
        of.outcome.points.iter().filter_map(|p| Some(Row::of([p.message.clone(), p.dismissed.clone()?])));
    let aside: Vec<Row> = aside.collect();
    let mut blocks = Vec::new();
    if open.is_empty() {
        blocks.push(Block::text("Nothing is open."));
    } else {
        let columns =
            vec![Column::words("", 1.0), Column::words("What", 3.0), Column::words("What to do", 2.6)];
        blocks.push(Block::Table(Table { columns, rows: open }));
    }
    if !aside.is_empty() {
        let columns = vec![Column::words("What", 3.0), Column::words("Why it was put aside", 2.6)];
        blocks.push(Block::Heading("Put aside".into()));
        blocks.push(Block::Table(Table { columns, rows: aside }));
    }
    blocks
}
