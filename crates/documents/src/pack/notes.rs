//! Notes of the practice.

use super::Source;
use crate::document::{Block, Column, Row, Table};

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    if of.notes.is_empty() {
        return vec![Block::text("There is no note.")];
    }
    let row = |note: &super::Note| {
        let settled = if note.settled { "settled" } else { "" };
        Row::of([note.about.clone(), note.words.clone(), note.by.clone(), settled.into()])
    };
    let columns = vec![
        Column::words("About", 2.0),
        Column::words("Note", 4.0),
        Column::words("By", 1.8),
        Column::words("", 0.9),
    ];
    vec![Block::Table(Table { columns, rows: of.notes.iter().map(row).collect() })]
}
