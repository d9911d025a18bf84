//! The first page with the contents, the letterhead, and the foot of every page.

use super::{
    CELL, Entry, HEADING, Ink, Kind, LEADING, Laid, Layout, MARGIN, Mark, Node, Placed, TOP, face_of,
};
use crate::{
    document::{Document, Run},
    fonts::{Face, Fonts},
};

const CONTENTS: f32 = 10.5;
/// How much of a line of the contents is left for the number of the page.
const PAGE_NUMBER: f32 = 40.0;
const FOOT: f32 = 8.0;

/// The foot of every page with its number.
pub(super) fn feet(document: &Document, fonts: &Fonts, laid: &mut Laid) {
    let (width, height) = document.sheet.size();
    let count = laid.pages.len();
    for (at, page) in laid.pages.iter_mut().enumerate() {
        let y = height - 36.0;
        if count == 1 && document.foot.is_empty() {
            continue;
        }
        let number = format!("page {} of {count}", at + 1);
        let from = width - MARGIN - fonts.width(&number, Face::Plain, FOOT);
        let words = |x: f32, words: String| Mark::Words {
            x,
            y,
            face: Face::Plain,
            size: FOOT,
            ink: Ink::Soft,
            words,
        };
        let rule = Mark::Rule { y: y - 12.0, from: MARGIN, to: width - MARGIN, heavy: false };
        let marks = [rule, words(MARGIN, fonts.drawable(&document.foot)), words(from, number)];
        page.extend(marks.map(|mark| Placed { mark, leaf: None }));
    }
}

impl Layout<'_> {
    /// Who writes, above a document without contents.
    pub(super) fn letterhead(&mut self, document: &Document) -> Node {
        let mut nodes = Vec::new();
        if !document.author.is_empty() {
            nodes.push(self.line_of(&document.author, Face::Wide, 12.0, Ink::Plum));
            self.y += 24.0;
        }
        Node::Group(Kind::Section, nodes)
    }

    /// The title, what the document is about, and the contents with their pages.
    pub(super) fn first_page(&mut self, document: &Document, entries: &[Entry]) -> Node {
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
