//! A document as plain data: parts, and in them headings, paragraphs, tables and bars.

use crate::layout::Sheet;
use serde::Serialize;
use std::sync::Arc;
use utoipa::ToSchema;

/// A document.
#[derive(Debug, Clone, PartialEq)]
pub struct Document {
    /// Its title.
    pub title: String,
    /// Who hands it over.
    pub author: String,
    /// What stands below the title on the first page, a line each.
    pub about: Vec<String>,
    /// What stands at the foot of every page, before the page's number.
    pub foot: String,
    /// What stands across every page, where it must not be taken for the last word.
    pub watermark: Option<String>,
    /// The size of its pages.
    pub sheet: Sheet,
    /// Its language, by its code.
    pub language: &'static str,
    /// It begins with a page of its own that has the title and the contents.
    pub contents: bool,
    /// Its parts, each from a new page on.
    pub parts: Vec<Part>,
}

/// A part of a document.
#[derive(Debug, Clone, PartialEq)]
pub struct Part {
    /// Its title, as the contents have it.
    pub title: String,
    /// What stands in it.
    pub blocks: Vec<Block>,
}

/// One thing below the other.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(tag = "is", content = "of", rename_all = "snake_case")]
#[schema(as = DocumentBlock)]
pub enum Block {
    /// A heading within a part.
    Heading(String),
    /// A paragraph.
    Text(Vec<Run>),
    /// A list.
    List(Vec<Vec<Run>>),
    /// Lines that belong together.
    Table(Table),
    /// Amounts as bars, the first one the reference.
    Bars(Vec<Bar>),
    /// A picture that fills a page, or as much of it as it needs.
    Picture(Picture),
}

/// A picture.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = DocumentPicture)]
pub struct Picture {
    /// It, as PNG.
    #[serde(skip)]
    pub png: Arc<Vec<u8>>,
    /// What it shows, in words.
    pub words: String,
    /// Which page of which file it is.
    pub file: String,
    /// The page, from 0.
    pub page: i32,
}

impl Picture {
    /// Its width and height, as its first chunk tells them; nothing of what is no PNG.
    pub fn size(&self) -> Option<(u32, u32)> {
        let number = |at: usize| {
            let bytes: [u8; 4] = self.png.get(at..at + 4)?.try_into().ok()?;
            Some(u32::from_be_bytes(bytes)).filter(|&length| length > 0)
        };
        // The signature, and the length and name of the header, take sixteen bytes.
        Some((number(16)?, number(20)?))
    }
}

/// A run of words in one face.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = DocumentRun)]
pub struct Run {
    /// The words.
    pub words: String,
    /// In bold.
    pub bold: bool,
}

/// A table.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = DocumentTable)]
pub struct Table {
    /// Its columns.
    pub columns: Vec<Column>,
    /// Its rows, a cell each column.
    pub rows: Vec<Row>,
}

/// A column of a table.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = DocumentColumn)]
pub struct Column {
    /// Its heading; a table whose headings are all empty has none.
    pub title: String,
    /// Its part of the width.
    pub share: f32,
    /// Amounts stand below each other at the right.
    pub right: bool,
}

/// A row of a table.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = DocumentRow)]
pub struct Row {
    /// The cells.
    pub cells: Vec<String>,
    /// A result: in bold, ruled off.
    pub strong: bool,
}

/// A bar.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = DocumentBar)]
pub struct Bar {
    /// How long it is, as a part of the longest.
    pub part: f32,
    /// What it stands for.
    pub label: String,
}

impl Block {
    /// A paragraph in the plain face.
    pub fn text(words: impl Into<String>) -> Block {
        Block::Text(vec![Run { words: words.into(), bold: false }])
    }

    /// A paragraph in which what stands between asterisks is bold.
    ///
    /// ```
    /// use hembo_documents::document::Block;
    /// let Block::Text(runs) = Block::marked("It is *312* due.") else { unreachable!() };
    /// assert_eq!(runs.iter().map(|run| (run.words.as_str(), run.bold)).collect::<Vec<_>>(),
    ///     [("It is ", false), ("312", true), (" due.", false)]);
    /// ```
    pub fn marked(words: &str) -> Block {
        let runs =
            words.split('*').enumerate().map(|(i, words)| Run { words: words.into(), bold: i % 2 == 1 });
        Block::Text(runs.filter(|run| !run.words.is_empty()).collect())
    }
}

impl Column {
    /// A column of words.
    pub fn words(title: &str, share: f32) -> Column {
        Column { title: title.into(), share, right: false }
    }

    /// A column of amounts.
    pub fn amounts(title: &str, share: f32) -> Column {
        Column { right: true, ..Column::words(title, share) }
    }
}

impl Row {
    /// A plain row.
    pub fn of<const N: usize>(cells: [String; N]) -> Row {
        Row { cells: cells.into(), strong: false }
    }
}
