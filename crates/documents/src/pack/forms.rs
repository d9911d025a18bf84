//! The official forms of every return, line by line; worksheets apart.

use super::Source;
use crate::document::{Block, Column, Row, Table};
use hembo_core::outcome::FormOutcome;

/// The forms that are filed, or the worksheets that are kept.
pub(super) fn blocks(of: Source<'_>, kept: bool) -> Vec<Block> {
    let returns = of.outcome.schedules.iter();
    let forms = returns.flat_map(|one| one.forms.iter().map(move |form| (one.whose.as_str(), form)));
    let shown = forms.filter(|(_, form)| form.required && form.kept == kept && !form.rows.is_empty());
    let blocks: Vec<Block> = shown.flat_map(|(whose, form)| one(of, whose, form)).collect();
    if blocks.is_empty() {
        return vec![Block::text(if kept { "No worksheet is kept with it." } else { "No form is filed." })];
    }
    blocks
}

fn one(of: Source<'_>, whose: &str, form: &FormOutcome) -> [Block; 3] {
    let columns =
        vec![Column::words("Line", 0.9), Column::words("What it is", 5.0), Column::amounts("Amount", 1.5)];
    let rows =
        form.rows.iter().filter(|row| row.amount.is_some_and(|amount| !amount.is_zero()) || row.result);
    let rows = rows.map(|row| Row {
        cells: vec![row.number.clone(), row.title.clone(), of.any(row.amount)],
        strong: row.result,
    });
    let table = Table { columns, rows: rows.collect() };
    let heading = Block::Heading(format!("{} · {}", form.name, form.title));
    [heading, Block::text(whose), Block::Table(table)]
}
