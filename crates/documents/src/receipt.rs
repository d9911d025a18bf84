//! The receipt of a return that was filed: what was sent, when, under which number and with which checksum.

use crate::{
    Sheet,
    document::{Block, Column, Document, Part, Row, Table},
};

/// A return that was filed, in words.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Receipt {
    /// The household and the year.
    pub about: String,
    /// Whose return.
    pub whose: String,
    /// What is known of it: what it is, and what it says.
    pub rows: Vec<(String, String)>,
    /// Why it was refused, where it was.
    pub refusals: Vec<String>,
}

/// The receipt on a page.
pub fn document(receipt: &Receipt, practice: &str, sheet: Sheet) -> Document {
    let columns = vec![Column::words("", 2.0), Column::words("", 4.0)];
    let row = |(what, words): &(String, String)| Row::of([what.clone(), words.clone()]);
    let rows = receipt.rows.iter().map(row).collect();
    let mut blocks = vec![Block::text(&receipt.whose), Block::Table(Table { columns, rows })];
    if !receipt.refusals.is_empty() {
        blocks.push(Block::Heading("Why it was refused".into()));
        let one = |words: &String| match Block::text(words) {
            Block::Text(runs) => runs,
            _ => Vec::new(),
        };
        blocks.push(Block::List(receipt.refusals.iter().map(one).collect()));
    }
    Document {
        title: "Receipt".into(),
        author: practice.into(),
        about: vec![receipt.about.clone()],
        foot: receipt.about.clone(),
        watermark: None,
        sheet,
        language: "en",
        contents: false,
        parts: vec![Part { title: "Receipt".into(), blocks }],
    }
}
