//! What the year leaves to the next: unused credits, losses, gifts, room and basis, with the paper that takes each.

use super::Source;
use crate::document::{Block, Column, Row, Table};
use hembo_core::outcome::CarriedOver;
use hembo_money::Money;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let row = |carried: &CarriedOver| {
        let CarriedOver { label, whose, amount, came, paper, .. } = carried;
        let used = (*came - *amount).max(Money::ZERO);
        let shown = |amount: Money| if amount.is_zero() { String::new() } else { of.plain(amount) };
        Row::of([label.clone(), whose.clone(), shown(*came), shown(used), of.plain(*amount), paper.clone()])
    };
    let rows: Vec<Row> = of.outcome.carried.iter().map(row).collect();
    if rows.is_empty() {
        return vec![Block::text("Nothing is carried over into the next year.")];
    }
    let columns = vec![
        Column::words("What", 3.0),
        Column::words("Whose", 2.0),
        Column::amounts("Came in", 1.1),
        Column::amounts("Used", 1.1),
        Column::amounts("Left", 1.1),
        Column::words("Goes into", 1.6),
    ];
    vec![Block::Table(Table { columns, rows })]
}
