//! The certificate: what was weighed, why nothing is lower, what is barred and what is no way, and the digest.

use super::Source;
use crate::document::{Block, Column, Row, Table};

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    let certificate = of.certificate;
    let mut blocks = Vec::new();
    for statement in &certificate.statements {
        blocks.extend([Block::Heading(statement.about.clone()), Block::text(statement.words.clone())]);
    }
    let barred = certificate.barred.iter().map(|one| {
        let option = format!("{}: {}", one.decision, one.option);
        Row::of([option, one.why.clone(), one.cite.clone()])
    });
    blocks.extend(table("Options that are not lawful here", "Option", barred.collect()));
    let beside =
        certificate.beside.iter().map(|one| Row::of([one.what.clone(), one.why.clone(), one.cite.clone()]));
    blocks.extend(table("Chosen beside the return: no way", "What", beside.collect()));
    blocks.push(Block::Heading("Digest of facts, rules and result".into()));
    // In groups, so that it can be read out and breaks over lines.
    let digits: Vec<char> = certificate.digest.chars().collect();
    let groups: Vec<String> = digits.chunks(8).map(|group| group.iter().collect()).collect();
    blocks.push(Block::text(groups.join(" ")));
    blocks
}

fn table(title: &str, what: &str, rows: Vec<Row>) -> Vec<Block> {
    if rows.is_empty() {
        return Vec::new();
    }
    let columns = vec![Column::words(what, 3.0), Column::words("Why", 3.0), Column::words("Rule", 1.6)];
    vec![Block::Heading(title.into()), Block::Table(Table { columns, rows })]
}
