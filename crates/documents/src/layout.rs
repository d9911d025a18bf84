//! Breaks a document into lines and pages: where each word and rule stands, and what it belongs to for a screen reader.

use crate::{
    document::{Bar, Block, Column, Document, Part, Row, Run, Table},
    fonts::{Face, Fonts},
};
use serde::Serialize;
use utoipa::ToSchema;

/// The size of pages.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub enum Sheet {
    /// 8½ × 11 inches.
    Letter,
    /// 210 × 297 mm.
    A4,
}

impl Sheet {
    /// Width and height in points.
    pub fn size(self) -> (f32, f32) {
        match self {
            Sheet::Letter => (612.0, 792.0),
            Sheet::A4 => (595.0, 842.0),
        }
    }
}

/// What is drawn on a page.
#[derive(Debug, Clone, PartialEq)]
pub enum Mark {
    /// Words: the left end and the base line.
    Words { x: f32, y: f32, face: Face, size: f32, ink: Ink, words: String },
    /// A rule.
    Rule { y: f32, from: f32, to: f32, heavy: bool },
    /// A bar: its upper left corner.
    Bar { x: f32, y: f32, width: f32, height: f32, ink: Ink },
}

/// A colour.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Ink {
    Dark,
    Soft,
    Plum,
    Petrol,
}

/// A mark, and the leaf of the structure that it belongs to; none for rules and what is repeated.
#[derive(Debug, Clone, PartialEq)]
pub struct Placed {
    pub mark: Mark,
    pub leaf: Option<usize>,
}

/// What a screen reader is told: groups, and in them the words by the number of their leaf.
#[derive(Debug, Clone, PartialEq)]
pub enum Node {
    Group(Kind, Vec<Node>),
    Leaf(usize),
}

/// What a group is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Kind {
    Section,
    /// A heading of a level, with its words.
    Heading(u16, String),
    Paragraph,
    List,
    Item,
    Contents,
    ContentsLine,
    Table,
    Row,
    HeadCell,
    Cell,
}

/// A part as the contents have it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Entry {
    pub title: String,
    /// The page on which it begins, from 0.
    pub page: usize,
}

/// A document on its pages.
#[derive(Debug)]
pub struct Laid {
    pub pages: Vec<Vec<Placed>>,
    pub entries: Vec<Entry>,
    pub tree: Vec<Node>,
    pub leaves: usize,
}

const MARGIN: f32 = 54.0;
/// Where the text begins, and how far above the lower edge it ends.
const TOP: f32 = 64.0;
const BOTTOM: f32 = 64.0;
const SIZE: f32 = 9.5;
const LEADING: f32 = 13.0;
const TITLE: f32 = 17.0;
const HEADING: f32 = 11.5;
const CELL: f32 = 3.0;
const GAP: f32 = 10.0;
const BAR: f32 = 12.0;
const CONTENTS: f32 = 10.5;
/// How much of a line of the contents is left for the number of the page.
const PAGE_NUMBER: f32 = 40.0;

/// Lays a document out.
pub fn lay(document: &Document, fonts: &Fonts) -> Laid {
    let mut layout = Layout::new(document.sheet, fonts);
    let mut entries = Vec::new();
    let mut sections = Vec::new();
    let head = (!document.contents).then(|| layout.letterhead(document));
    for part in &document.parts {
        // The page of the contents is filled in when the pages of the parts are known.
        if document.contents || !entries.is_empty() {
            layout.new_page();
        }
        let title = if part.title.is_empty() { &document.title } else { &part.title };
        entries.push(Entry { title: title.clone(), page: layout.pages.len() - 1 });
        sections.push(layout.part(part));
    }
    let first = head.unwrap_or_else(|| layout.first_page(document, &entries));
    let tree = std::iter::once(first).chain(sections).collect();
    let mut laid = Laid { pages: layout.pages, entries, tree, leaves: layout.leaves };
    layout_feet(document, fonts, &mut laid);
    laid
}

/// The foot of every page with its number.
fn layout_feet(document: &Document, fonts: &Fonts, laid: &mut Laid) {
    let (width, height) = document.sheet.size();
    let count = laid.pages.len();
    for (at, page) in laid.pages.iter_mut().enumerate() {
        let y = height - 36.0;
        if count == 1 && document.foot.is_empty() {
            continue;
        }
        let number = format!("page {} of {count}", at + 1);
        let from = width - MARGIN - fonts.width(&number, Face::Plain, 8.0);
        let words =
            |x: f32, words: String| Mark::Words { x, y, face: Face::Plain, size: 8.0, ink: Ink::Soft, words };
        let rule = Mark::Rule { y: y - 12.0, from: MARGIN, to: width - MARGIN, heavy: false };
        let marks = [rule, words(MARGIN, fonts.drawable(&document.foot)), words(from, number)];
        page.extend(marks.map(|mark| Placed { mark, leaf: None }));
    }
}

/// A word with its face and width, and whether a space stands before it.
struct Word {
    words: String,
    face: Face,
    width: f32,
    spaced: bool,
}

struct Layout<'f> {
    fonts: &'f Fonts,
    width: f32,
    height: f32,
    pages: Vec<Vec<Placed>>,
    /// The upper edge of what comes next.
    y: f32,
    leaves: usize,
}

impl Layout<'_> {
    fn new(sheet: Sheet, fonts: &Fonts) -> Layout<'_> {
        let (width, height) = sheet.size();
        Layout { fonts, width, height, pages: vec![Vec::new()], y: TOP, leaves: 0 }
    }

    fn inner(&self) -> f32 {
        self.width - 2.0 * MARGIN
    }

    fn new_page(&mut self) {
        self.pages.push(Vec::new());
        self.y = TOP;
    }

    /// Goes to a new page where so much has no room.
    fn room(&mut self, height: f32) -> bool {
        let full = self.y + height > self.height - BOTTOM;
        if full && self.y > TOP {
            self.new_page();
            return true;
        }
        false
    }

    fn leaf(&mut self) -> usize {
        self.leaves += 1;
        self.leaves - 1
    }

    fn put(&mut self, mark: Mark, leaf: Option<usize>) {
        if let Some(page) = self.pages.last_mut() {
            page.push(Placed { mark, leaf });
        }
    }

    fn part(&mut self, part: &Part) -> Node {
        let titled = !part.title.is_empty();
        let mut nodes = Vec::new();
        nodes.extend(titled.then(|| self.heading(&part.title, 1, Face::Wide, TITLE)));
        for block in &part.blocks {
            match block {
                Block::Heading(title) => nodes.push(self.heading(title, 2, Face::Bold, HEADING)),
                Block::Text(runs) => nodes.push(self.paragraph(runs)),
                Block::List(items) => nodes.push(self.list(items)),
                Block::Table(table) => nodes.push(self.table(table)),
                Block::Bars(bars) => nodes.push(self.bars(bars)),
            }
        }
        Node::Group(Kind::Section, nodes)
    }

    fn heading(&mut self, title: &str, level: u16, face: Face, size: f32) -> Node {
        let title = self.fonts.drawable(title);
        let before = if level == 1 { 0.0 } else { GAP };
        // A heading does not stand alone at the foot of a page.
        self.room(before + size * 1.4 + 5.0 * LEADING);
        if self.y > TOP {
            self.y += before;
        }
        let leaf = self.leaf();
        let runs = [Run { words: title.clone(), bold: false }];
        for line in self.lines(&runs, self.inner(), size, |_| face) {
            self.y += size * 1.2;
            self.line(line, MARGIN, size, Ink::Dark, Some(leaf));
        }
        self.y += size * 0.5;
        Node::Group(Kind::Heading(level, title), vec![Node::Leaf(leaf)])
    }

    fn paragraph(&mut self, runs: &[Run]) -> Node {
        let leaf = self.leaf();
        for line in self.lines(runs, self.inner(), SIZE, face_of) {
            self.room(LEADING);
            self.y += LEADING;
            self.line(line, MARGIN, SIZE, Ink::Dark, Some(leaf));
        }
        self.y += 6.0;
        Node::Group(Kind::Paragraph, vec![Node::Leaf(leaf)])
    }

    fn list(&mut self, items: &[Vec<Run>]) -> Node {
        const INDENT: f32 = 14.0;
        let mut nodes = Vec::new();
        for runs in items {
            let leaf = self.leaf();
            for (at, line) in self.lines(runs, self.inner() - INDENT, SIZE, face_of).into_iter().enumerate() {
                self.room(LEADING);
                self.y += LEADING;
                if at == 0 {
                    let edge = (MARGIN, MARGIN + INDENT);
                    self.cell_line("•", false, edge, Face::Plain, (SIZE, Ink::Dark), Some(leaf));
                }
                self.line(line, MARGIN + INDENT, SIZE, Ink::Dark, Some(leaf));
            }
            self.y += 2.0;
            nodes.push(Node::Group(Kind::Item, vec![Node::Leaf(leaf)]));
        }
        self.y += 4.0;
        Node::Group(Kind::List, nodes)
    }

    /// Words broken into lines; a word that is wider than a line is broken within.
    fn lines(&self, runs: &[Run], width: f32, size: f32, face: impl Fn(&Run) -> Face) -> Vec<Vec<Word>> {
        let mut lines: Vec<Vec<Word>> = vec![Vec::new()];
        let mut used = 0.0;
        for word in self.all_words(runs, width, size, face) {
            let space = if word.spaced { self.fonts.width(" ", word.face, size) } else { 0.0 };
            let begun = lines.last().is_some_and(|line| !line.is_empty());
            if begun && used + space + word.width > width {
                lines.push(Vec::new());
                used = 0.0;
            } else if begun {
                used += space;
            }
            used += word.width;
            if let Some(line) = lines.last_mut() {
                line.push(word);
            }
        }
        lines.retain(|line| !line.is_empty());
        lines
    }

    fn all_words(&self, runs: &[Run], most: f32, size: f32, face: impl Fn(&Run) -> Face) -> Vec<Word> {
        let mut found = Vec::new();
        let mut spaced = false;
        for run in runs {
            let text = self.fonts.drawable(&run.words);
            found.extend(self.words(&text, face(run), (size, most), spaced || text.starts_with(' ')));
            spaced = text.ends_with(' ');
        }
        found
    }

    fn words(&self, text: &str, face: Face, (size, most): (f32, f32), spaced: bool) -> Vec<Word> {
        let mut found = Vec::new();
        let mut spaced = spaced;
        for word in text.split(' ').filter(|word| !word.is_empty()) {
            let mut piece = String::new();
            for sign in word.chars() {
                let longer = format!("{piece}{sign}");
                if !piece.is_empty() && self.fonts.width(&longer, face, size) > most {
                    found.push(self.word(std::mem::take(&mut piece), face, size, spaced));
                    spaced = false;
                }
                piece.push(sign);
            }
            found.push(self.word(piece, face, size, spaced));
            spaced = true;
        }
        found
    }

    fn word(&self, words: String, face: Face, size: f32, spaced: bool) -> Word {
        let width = self.fonts.width(&words, face, size);
        Word { words, face, width, spaced }
    }

    /// Draws a line at the base line `y`: neighbours in one face together, with a space at the end.
    fn line(&mut self, line: Vec<Word>, x: f32, size: f32, ink: Ink, leaf: Option<usize>) {
        let mut x = x;
        let mut runs: Vec<(Face, String)> = Vec::new();
        for word in line {
            match runs.last_mut() {
                Some((face, words)) if *face == word.face => {
                    words.push_str(if word.spaced { " " } else { "" });
                    words.push_str(&word.words);
                }
                Some((_, words)) => {
                    words.push_str(if word.spaced { " " } else { "" });
                    runs.push((word.face, word.words));
                }
                None => runs.push((word.face, word.words)),
            }
        }
        if let Some((_, words)) = runs.last_mut() {
            words.push(' ');
        }
        for (face, words) in runs {
            let width = self.fonts.width(&words, face, size);
            self.put(Mark::Words { x, y: self.y, face, size, ink, words }, leaf);
            x += width;
        }
    }

    fn table(&mut self, table: &Table) -> Node {
        let edges = self.edges(&table.columns);
        let mut rows = Vec::new();
        let headed = table.columns.iter().any(|column| !column.title.is_empty());
        if headed {
            self.room(4.0 * LEADING);
            rows.push(self.head(table, &edges, true));
        }
        for row in &table.rows {
            let height = self.row_height(row, &edges);
            if self.room(height) && headed {
                self.head(table, &edges, false);
            }
            rows.push(self.row(table, row, &edges, height));
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

    fn cell_lines(&self, row: &Row, cell: &str, edge: (f32, f32)) -> Vec<Vec<Word>> {
        let runs = [Run { words: cell.into(), bold: row.strong }];
        self.lines(&runs, edge.1 - inset(edge) - 2.0 * CELL, SIZE, face_of)
    }

    fn row_height(&self, row: &Row, edges: &[(f32, f32)]) -> f32 {
        let lines = row.cells.iter().zip(edges).map(|(cell, edge)| self.cell_lines(row, cell, *edge).len());
        let most = lines.max().unwrap_or(1).max(1);
        most as f32 * LEADING + CELL
    }

    fn row(&mut self, table: &Table, row: &Row, edges: &[(f32, f32)], height: f32) -> Node {
        let top = self.y;
        let mut cells = Vec::new();
        for ((cell, edge), column) in row.cells.iter().zip(edges).zip(&table.columns) {
            self.y = top;
            let lines = self.cell_lines(row, cell, *edge);
            let leaf = (!lines.is_empty()).then(|| self.leaf());
            for line in lines {
                self.y += LEADING;
                let width: f32 = line.iter().map(|w| w.width).sum::<f32>() + self.spaces(&line);
                let x = if column.right { edge.1 - CELL - width } else { inset(*edge) };
                self.line(line, x, SIZE, Ink::Dark, leaf);
            }
            cells.push(Node::Group(Kind::Cell, leaf.map(Node::Leaf).into_iter().collect()));
        }
        self.y = top + height;
        let rule = Mark::Rule { y: self.y, from: MARGIN, to: self.width - MARGIN, heavy: row.strong };
        self.put(rule, None);
        Node::Group(Kind::Row, cells)
    }

    fn spaces(&self, line: &[Word]) -> f32 {
        line.iter().skip(1).filter(|w| w.spaced).map(|w| self.fonts.width(" ", w.face, SIZE)).sum()
    }

    /// One line of words within the edges of a column.
    fn cell_line(
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

    /// Bars, each with its words beside it: a table of one column for a screen reader.
    fn bars(&mut self, bars: &[Bar]) -> Node {
        let mut rows = Vec::new();
        let most = self.inner() * 0.5;
        for (at, bar) in bars.iter().enumerate() {
            self.room(BAR + 8.0);
            let ink = if at == 0 { Ink::Petrol } else { Ink::Plum };
            let width = most * bar.part.clamp(0.0, 1.0);
            self.put(Mark::Bar { x: MARGIN, y: self.y + 2.0, width, height: BAR, ink }, None);
            let leaf = self.leaf();
            let words = self.fonts.drawable(&bar.label);
            let words = Mark::Words {
                x: MARGIN + width + 8.0,
                y: self.y + BAR,
                face: Face::Plain,
                size: SIZE,
                ink: Ink::Dark,
                words,
            };
            self.put(words, Some(leaf));
            let cell = Node::Group(Kind::Cell, vec![Node::Leaf(leaf)]);
            rows.push(Node::Group(Kind::Row, vec![cell]));
            self.y += BAR + 6.0;
        }
        self.y += GAP;
        Node::Group(Kind::Table, rows)
    }

    /// Who writes, above a document without contents.
    fn letterhead(&mut self, document: &Document) -> Node {
        let mut nodes = Vec::new();
        if !document.author.is_empty() {
            nodes.push(self.line_of(&document.author, Face::Wide, 12.0, Ink::Plum));
            self.y += 24.0;
        }
        Node::Group(Kind::Section, nodes)
    }

    /// The title, what the document is about, and the contents with their pages.
    fn first_page(&mut self, document: &Document, entries: &[Entry]) -> Node {
        let rest = self.pages.split_off(1);
        self.y = TOP;
        let mut nodes = vec![self.letterhead(document)];
        nodes.push(self.heading(&document.title, 1, Face::Wide, 24.0));
        self.y += 4.0;
        for about in &document.about {
            nodes.push(self.line_of(about, Face::Plain, 10.5, Ink::Soft));
        }
        self.y += 28.0;
        nodes.push(self.heading("Contents", 2, Face::Bold, HEADING));
        let lines = entries.iter().map(|entry| self.contents_line(entry)).collect();
        nodes.push(Node::Group(Kind::Contents, lines));
        self.pages.extend(rest);
        Node::Group(Kind::Section, nodes)
    }

    fn line_of(&mut self, words: &str, face: Face, size: f32, ink: Ink) -> Node {
        let leaf = self.leaf();
        let runs = [Run { words: words.into(), bold: false }];
        for line in self.lines(&runs, self.inner(), size, |_| face) {
            self.y += size * 1.4;
            self.line(line, MARGIN, size, ink, Some(leaf));
        }
        Node::Group(Kind::Paragraph, vec![Node::Leaf(leaf)])
    }

    fn contents_line(&mut self, entry: &Entry) -> Node {
        let leaf = self.leaf();
        let runs = [Run { words: entry.title.clone(), bold: false }];
        self.y += 3.0;
        for line in self.lines(&runs, self.inner() - PAGE_NUMBER, CONTENTS, face_of) {
            self.y += LEADING;
            self.line(line, MARGIN, CONTENTS, Ink::Dark, Some(leaf));
        }
        let edge = (MARGIN, self.width - MARGIN + CELL);
        self.cell_line(
            &(entry.page + 1).to_string(),
            true,
            edge,
            Face::Plain,
            (CONTENTS, Ink::Dark),
            Some(leaf),
        );
        self.y += 5.0;
        self.put(Mark::Rule { y: self.y, from: MARGIN, to: self.width - MARGIN, heavy: false }, None);
        Node::Group(Kind::ContentsLine, vec![Node::Leaf(leaf)])
    }
}

/// Where words begin in a column: a little away from the amounts of the one before.
fn inset((from, _): (f32, f32)) -> f32 {
    if from > MARGIN { from + 2.0 * CELL } else { from }
}

fn face_of(run: &Run) -> Face {
    if run.bold { Face::Bold } else { Face::Plain }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn document(parts: Vec<Part>) -> Document {
        Document {
            title: "A return".into(),
            author: "Practice".into(),
            about: vec!["of 2025".into()],
            foot: "foot".into(),
            watermark: None,
            contents: true,
            sheet: Sheet::Letter,
            parts,
        }
    }

    /// The words of a page, a piece each.
    fn words(page: &[Placed]) -> Vec<String> {
        let words = page.iter().filter_map(|placed| match &placed.mark {
            Mark::Words { words, .. } => Some(words.trim().to_owned()),
            _ => None,
        });
        words.collect()
    }

    #[test]
    fn a_long_table_goes_on_under_its_headings_on_the_next_page() {
        let rows = (1..=100).map(|i| Row::of([format!("Line {i}"), i.to_string()])).collect();
        let columns = vec![Column::words("What", 3.0), Column::amounts("Amount", 1.0)];
        let part = Part { title: "Long".into(), blocks: vec![Block::Table(Table { columns, rows })] };
        let last = Part { title: "Last".into(), blocks: vec![] };
        let laid = lay(&document(vec![part, last]), &Fonts::read());
        assert!(laid.pages.len() >= 4, "{}", laid.pages.len());
        let found: Vec<Vec<String>> = laid.pages.iter().map(|page| words(page)).collect();
        for page in &found[1..found.len() - 1] {
            assert!(page.contains(&"What".into()) && page.contains(&"Amount".into()), "{page:?}");
        }
        let all: Vec<&String> = found.iter().flatten().collect();
        for line in 1..=100 {
            assert_eq!(all.iter().filter(|words| ***words == format!("Line {line}")).count(), 1);
        }
        // The contents name the pages on which the parts begin.
        assert_eq!(laid.entries[1].page + 1, laid.pages.len());
        assert!(found[0].contains(&laid.pages.len().to_string()), "{:?}", found[0]);
        assert!(found[1].contains(&format!("page 2 of {}", laid.pages.len())));
    }

    #[test]
    fn nothing_stands_outside_the_margins() {
        let long = "Haulage-and-ferry-pilots'-provident-association-of-the-outer-islands".repeat(3);
        let rows = vec![Row::of([long.clone(), "1,234,567.89".into()])];
        let columns = vec![Column::words("What", 1.0), Column::amounts("Amount", 1.0)];
        let blocks = vec![
            Block::text(format!("{long} and some more words {long}")),
            Block::Table(Table { columns, rows }),
        ];
        let fonts = Fonts::read();
        let laid = lay(&document(vec![Part { title: long, blocks }]), &fonts);
        for Placed { mark, .. } in laid.pages.iter().flatten() {
            if let Mark::Words { x, y, face, size, words, .. } = mark {
                let right = x + fonts.width(words.trim_end(), *face, *size);
                assert!(*x >= MARGIN - 0.01 && right <= 612.0 - MARGIN + 1.0, "{words}: {x} to {right}");
                assert!(*y > 36.0 && *y < 792.0 - 30.0);
            }
        }
    }

    #[test]
    fn a_bold_word_stands_apart_from_those_around_it() {
        let laid = lay(
            &document(vec![Part { title: "One".into(), blocks: vec![Block::marked("It is *312* due.")] }]),
            &Fonts::read(),
        );
        let pieces: Vec<String> = laid.pages[1]
            .iter()
            .filter_map(|placed| match &placed.mark {
                Mark::Words { words, .. } => Some(words.clone()),
                _ => None,
            })
            .collect();
        assert_eq!(pieces[1..4].concat(), "It is 312 due. ");
    }

    #[test]
    fn signs_that_the_faces_lack_are_told_as_such() {
        assert_eq!(Fonts::read().drawable("Ōkubo → 東 −5 €"), "Ōkubo › ? −5 €");
    }
}
