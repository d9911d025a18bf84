//! Lines of a list as they are held, beside those that were keyed. Lists of codes are compared like boxes instead.

use super::same;
use crate::{
    command::Command,
    field::Field,
    household::{Answers, Paper, Row},
    paper::PaperKind,
};
use serde::Serialize;
use utoipa::ToSchema;

/// A line as it is held and as it was keyed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BesideLine {
    /// What is held; nothing where it was only keyed.
    pub held: Option<Answers>,
    /// What was keyed.
    pub keyed: Option<Answers>,
    /// The keyed line, by its id.
    pub row: Option<String>,
    /// Whether both say the same; of a line that is not held nothing is said.
    pub agrees: bool,
}

/// Every held line with the keyed one that says the same, else with one that says the same in all cells but one; then
/// those that were only keyed. No line is two lines'.
pub fn lines(kind: &PaperKind, held: &[Answers], keyed: Option<&Paper>) -> Vec<BesideLine> {
    let mut left: Vec<&Row> = keyed.map(|paper| paper.rows.iter().collect()).unwrap_or_default();
    let mut pairs: Vec<Option<&Row>> = vec![None; held.len()];
    for most_apart in 0..=1 {
        for (line, pair) in held.iter().zip(&mut pairs).filter(|(_, pair)| pair.is_none()) {
            let near = |row: &&Row| {
                let apart = apart(kind, line, row).count();
                apart == 0 || (apart <= most_apart && line.len() > 1)
            };
            *pair = left.iter().position(near).map(|at| left.remove(at));
        }
    }
    let beside = held.iter().zip(pairs).map(|(line, pair)| BesideLine {
        held: Some(line.clone()),
        keyed: pair.map(|row| row.cells.clone()),
        row: pair.map(|row| row.id.clone()),
        agrees: pair.is_some_and(|row| apart(kind, line, row).next().is_none()),
    });
    let only_keyed = left.iter().map(|row| BesideLine {
        held: None,
        keyed: Some(row.cells.clone()),
        row: Some(row.id.clone()),
        agrees: true,
    });
    // Nothing is held of the list at all: what was keyed in it is not compared.
    let only_keyed = only_keyed.filter(|_| !held.is_empty());
    beside.chain(only_keyed).collect()
}

/// The cells of a held line that say otherwise than a keyed one.
fn apart<'l>(kind: &'l PaperKind, held: &'l Answers, keyed: &'l Answers) -> impl Iterator<Item = &'l Field> {
    let differs = |column: &&Field| !same(column, held.get(column.id), keyed.get(column.id));
    kind.columns.iter().filter(differs)
}

/// The commands that put a held line into a paper that was keyed: into the cells of its line, or as a line of its own.
pub fn taking_line(kind: &PaperKind, paper: &Paper, line: &BesideLine) -> Vec<Command> {
    let Some(held) = line.held.as_ref().filter(|_| !line.agrees) else { return Vec::new() };
    let (Some(keyed), Some(row)) = (&line.keyed, &line.row) else {
        return vec![Command::AddRow { paper: paper.id.clone(), id: None, row: held.clone() }];
    };
    let set = |column: &Field| Command::SetCell {
        paper: paper.id.clone(),
        row: row.clone(),
        field: column.id.into(),
        value: held.get(column.id).cloned(),
    };
    apart(kind, held, keyed).map(set).collect()
}
