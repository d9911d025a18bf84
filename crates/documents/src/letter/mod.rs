//! The letter to the family: made from the figures by a template of the practice, edited, and written as DOCX or as PDF.

mod docx;
mod editor;
mod fields;
mod language;
mod template;

pub use docx::docx;
pub use editor::NotALetter;
pub use fields::{FIELDS, FieldInfo, Fields};
pub use language::{DAY, Language};
pub use template::{TemplateFault, merge};

use crate::{
    Sheet,
    document::{Block, Document, Part, Run},
};

/// A letter.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Letter {
    /// What stands in it, one below the other.
    pub blocks: Vec<LetterBlock>,
}

/// One thing below the other.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum LetterBlock {
    /// A heading.
    Heading(Vec<Words>),
    /// A paragraph.
    Paragraph(Vec<Words>),
    /// A list.
    List(Vec<Vec<Words>>),
}

/// Words in one face.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Words {
    /// The words.
    pub text: String,
    /// In bold.
    pub bold: bool,
    /// In italics.
    pub italic: bool,
    /// The figure of the return that they are, by the name of its field: it is marked where it has changed since.
    pub figure: Option<String>,
}

impl Letter {
    /// The letter as it stands in a document; italics are set in the plain face.
    pub fn blocks(&self) -> Vec<Block> {
        let runs = |words: &[Words]| {
            words.iter().map(|w| Run { words: w.text.clone(), bold: w.bold }).collect::<Vec<Run>>()
        };
        let block = |block: &LetterBlock| match block {
            LetterBlock::Heading(words) => Block::Heading(words.iter().map(|w| w.text.as_str()).collect()),
            LetterBlock::Paragraph(words) => Block::Text(runs(words)),
            LetterBlock::List(items) => Block::List(items.iter().map(|item| runs(item)).collect()),
        };
        self.blocks.iter().map(block).collect()
    }

    /// The letter as a document of its own, below the practice's name.
    pub fn document(&self, practice: &str, title: &str, sheet: Sheet, language: Language) -> Document {
        Document {
            title: title.into(),
            author: practice.into(),
            about: Vec::new(),
            foot: String::new(),
            watermark: None,
            sheet,
            language: language.code(),
            contents: false,
            parts: vec![Part { title: String::new(), blocks: self.blocks() }],
        }
    }
}
