//! Tables: headings that come again on every page, and rows that may be longer than a page.

use super::{
    BOTTOM, CELL, GAP, Ink, Kind, LEADING, Layout, MARGIN, Mark, Node, SIZE, TOP, face_of, lines::Word,
};
use crate::{
    document::{Column, Row, Run, Table},
    fonts::Face,
};

/// A cell as it is drawn: its lines, and the leaf that they belong to.
struct Cell {
    lines: std::vec::IntoIter<Vec<Word>>,
    leaf: Option<usize>,
}

impl Layout<'_> {
    pub(super) fn table(&mut self, table: &Table) -> Node {
        let edges = self.edges(&table.columns);
        let mut rows = Vec::new();
        if is_headed(table) {
            self.room(4.0 * LEADING);
            rows.push(self.head(table, &edges, true));
        }
        for row in &table.rows {
            rows.push(self.row(table, row, &edges));
        }
        self.y += GAP;
        Node::Group(Kind::Table, rows)
    }

    /// The left and right edge of each column.
    fn edges(&self, columns: &[Column]) -> Vec<(f32, f32)> {
        let whole: f32 = columns.iter().map(|column| column.share).sum();
        let mut left = MARGIN;
        let edge = |column: &Column| {
            let from = left;
            left += self.inner() * column.share / whole;
            (from, left)
        };
        columns.iter().map(edge).collect()
    }

    /// The headings of a table; where the table goes on on a new page they are no part of it for a screen reader.
    fn head(&mut self, table: &Table, edges: &[(f32, f32)], first: bool) -> Node {
        let mut cells = Vec::new();
        self.y += LEADING;
        for (column, edge) in table.columns.iter().zip(edges) {
            let leaf = first.then(|| self.leaf());
            let title = self.fonts.drawable(&column.title);
            self.cell_line(&title, column.right, *edge, Face::Plain, (8.0, Ink::Soft), leaf);
            let leaf = leaf.filter(|_| !title.is_empty());
            cells.push(Node::Group(Kind::HeadCell, leaf.map(Node::Leaf).into_iter().collect()));
        }
        self.y += CELL;
        let rule = Mark::Rule { y: self.y, from: MARGIN, to: self.width - MARGIN, heavy: true };
        self.put(rule, None);
        Node::Group(Kind::Row, cells)
    }

    fn row(&mut self, table: &Table, row: &Row, edges: &[(f32, f32)]) -> Node {
        let lines: Vec<Vec<Vec<Word>>> =
            row.cells.iter().zip(edges).map(|(cell, edge)| self.cell_lines(row, cell, *edge)).collect();
        let most = lines.iter().map(Vec::len).max().unwrap_or(0).max(1);
        let height = most as f32 * LEADING + CELL;
        // A row stays together, but for one that is longer than a page.
        let whole = self.height - TOP - BOTTOM - 2.0 * LEADING;
        self.go_on(table, edges, if height <= whole { height } else { LEADING + CELL });
        let cell = |lines: Vec<Vec<Word>>| Cell {
            leaf: (!lines.is_empty()).then(|| self.leaf()),
            lines: lines.into_iter(),
        };
        let mut cells: Vec<Cell> = lines.into_iter().map(cell).collect();
        for _ in 0..most {
            self.go_on(table, edges, LEADING);
            self.y += LEADING;
            for ((cell, edge), column) in cells.iter_mut().zip(edges).zip(&table.columns) {
                let Some(line) = cell.lines.next() else { continue };
                let width = line.iter().map(|word| word.width).sum::<f32>() + self.spaces(&line);
                let x = if column.right { edge.1 - CELL - width } else { inset(*edge) };
                self.line(line, x, SIZE, Ink::Dark, cell.leaf);
            }
        }
        self.y += CELL;
        let rule = Mark::Rule { y: self.y, from: MARGIN, to: self.width - MARGIN, heavy: row.strong };
        self.put(rule, None);
        let cell = |cell: Cell| Node::Group(Kind::Cell, cell.leaf.map(Node::Leaf).into_iter().collect());
        Node::Group(Kind::Row, cells.into_iter().map(cell).collect())
    }

    /// On the next page, where so much has no room on this one, a table goes on under its headings.
    fn go_on(&mut self, table: &Table, edges: &[(f32, f32)], height: f32) {
        if self.room(height) && is_headed(table) {
            self.head(table, edges, false);
        }
    }

    fn cell_lines(&self, row: &Row, cell: &str, edge: (f32, f32)) -> Vec<Vec<Word>> {
        let runs = [Run { words: cell.into(), bold: row.strong }];
        self.lines(&runs, edge.1 - inset(edge) - 2.0 * CELL, SIZE, face_of)
    }

    fn spaces(&self, line: &[Word]) -> f32 {
        line.iter().skip(1).filter(|w| w.spaced).map(|w| self.fonts.width(" ", w.face, SIZE)).sum()
    }

    /// One line of words within the edges of a column.
    pub(super) fn cell_line(
        &mut self,
        words: &str,
        right: bool,
        edge: (f32, f32),
        face: Face,
        (size, ink): (f32, Ink),
        leaf: Option<usize>,
    ) {
        if words.is_empty() {
            return;
        }
        let width = self.fonts.width(words, face, size);
        let x = if right { edge.1 - CELL - width } else { inset(edge) };
        self.put(Mark::Words { x, y: self.y, face, size, ink, words: words.into() }, leaf);
    }
}

fn is_headed(table: &Table) -> bool {
    table.columns.iter().any(|column| !column.title.is_empty())
}

/// Where words begin in a column: a little away from the amounts of the one before.
fn inset((from, _): (f32, f32)) -> f32 {
    if from > MARGIN { from + 2.0 * CELL } else { from }
}
