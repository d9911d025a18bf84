//! Breaks a document into lines and pages: where each word and rule stands, and what it belongs to for a screen reader.

mod first;
mod lines;
mod table;

use crate::{
    document::{Bar, Block, Document, Part, Picture, Run},
    fonts::{Face, Fonts},
};
use serde::Serialize;
use std::sync::Arc;
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
    /// A picture as PNG: its upper left corner.
    Picture { x: f32, y: f32, width: f32, height: f32, png: Arc<Vec<u8>> },
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
    /// A picture with what it shows.
    Figure(String),
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
/// How far the words of a bar stand from it.
const BESIDE: f32 = 8.0;

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
    first::feet(document, fonts, &mut laid);
    laid
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
                Block::Picture(picture) => nodes.extend(self.picture(picture)),
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

    /// A picture with its words above, as large as the page allows.
    fn picture(&mut self, picture: &Picture) -> Option<Node> {
        let (wide, tall) = picture.size()?;
        let below = LEADING + 6.0;
        let most = self.height - BOTTOM - TOP - below - TITLE * 2.0;
        let scale = (self.inner() / wide as f32).min(most / tall as f32);
        let (width, height) = (wide as f32 * scale, tall as f32 * scale);
        self.room(below + height);
        let words = self.paragraph(&[Run { words: picture.words.clone(), bold: false }]);
        let leaf = self.leaf();
        let png = Arc::clone(&picture.png);
        self.put(Mark::Picture { x: MARGIN, y: self.y, width, height, png }, Some(leaf));
        self.y += height + GAP;
        let figure = Node::Group(Kind::Figure(picture.words.clone()), vec![Node::Leaf(leaf)]);
        Some(Node::Group(Kind::Section, vec![words, figure]))
    }

    /// Bars, each with its words beside it: a table of one column for a screen reader.
    fn bars(&mut self, bars: &[Bar]) -> Node {
        let mut rows = Vec::new();
        let most = self.inner() * 0.5;
        for (at, bar) in bars.iter().enumerate() {
            let width = most * bar.part.clamp(0.0, 1.0);
            let beside = width + BESIDE;
            let runs = [Run { words: bar.label.clone(), bold: false }];
            let lines = self.lines(&runs, self.inner() - beside, SIZE, face_of);
            self.room(lines.len() as f32 * LEADING + 8.0);
            let ink = if at == 0 { Ink::Petrol } else { Ink::Plum };
            self.put(Mark::Bar { x: MARGIN, y: self.y + 2.0, width, height: BAR, ink }, None);
            let leaf = self.leaf();
            for line in lines {
                self.y += LEADING;
                self.line(line, MARGIN + beside, SIZE, Ink::Dark, Some(leaf));
            }
            let cell = Node::Group(Kind::Cell, vec![Node::Leaf(leaf)]);
            rows.push(Node::Group(Kind::Row, vec![cell]));
            self.y += 5.0;
        }
        self.y += GAP;
        Node::Group(Kind::Table, rows)
    }
}

fn face_of(run: &Run) -> Face {
    if run.bold { Face::Bold } else { Face::Plain }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::{Column, Row, Table};

    fn document(parts: Vec<Part>) -> Document {
        Document {
            title: "A return".into(),
            author: "Practice".into(),
            about: vec!["of 2025".into()],
            foot: "foot".into(),
            watermark: None,
            language: "en",
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
    fn a_row_that_is_longer_than_a_page_goes_on_on_the_next() {
        let long: Vec<String> = (1..=900).map(|i| format!("word{i}")).collect();
        let rows = vec![Row::of([long.join(" "), "x".into()])];
        let columns = vec![Column::words("Note", 1.0), Column::words("By", 3.0)];
        let part = Part { title: "Notes".into(), blocks: vec![Block::Table(Table { columns, rows })] };
        let laid = lay(&document(vec![part]), &Fonts::read());
        let all: Vec<String> = laid.pages.iter().flat_map(|page| words(page)).collect();
        let all = all.join(" ");
        assert!(laid.pages.len() > 3, "{} pages", laid.pages.len());
        for word in &long {
            assert!(all.split(' ').any(|one| one == word), "{word}");
        }
        for Placed { mark, .. } in laid.pages.iter().flatten() {
            if let Mark::Words { y, size, .. } = mark {
                assert!(*y <= 792.0 - BOTTOM || *size == 8.0, "{mark:?}");
            }
        }
    }

    #[test]
    fn lines_end_where_they_were_ended_and_long_words_beside_a_bar_are_broken() {
        let label =
            "but separate, Tamsin sales tax by the table, Teasel with Osric, Wren with Osric, 2,253 more";
        let bars = Block::Bars(vec![Bar { part: 1.0, label: label.into() }]);
        let part = Part { title: "One".into(), blocks: vec![Block::text("Quay Street 12\nHarbour"), bars] };
        let fonts = Fonts::read();
        let laid = lay(&document(vec![part]), &fonts);
        assert_eq!(words(&laid.pages[1])[1..3], ["Quay Street 12", "Harbour"]);
        for Placed { mark, .. } in &laid.pages[1] {
            if let Mark::Words { x, face, size, words, .. } = mark {
                assert!(x + fonts.width(words.trim_end(), *face, *size) <= 612.0 - MARGIN + 1.0, "{words}");
            }
        }
    }

    #[test]
    fn signs_that_the_faces_lack_are_told_as_such() {
        assert_eq!(Fonts::read().drawable("Ōkubo → 東 −5 €"), "Ōkubo › ? −5 €");
    }
}
