//! Reads slips that come as files: PDF and pictures. Each page becomes a picture to look at, and the words of a PDF's text
//! come with their places.
//!
//! A file from outside may be made to harm: [`read`] is called in a process of its own ([`child`]) that has no more memory and
//! time than a slip needs, sees nothing of the practice, and is ended when it takes more.

// Places on a page are fractions of points; no money is here.
#![allow(clippy::float_arithmetic)]

pub mod child;

mod pdf;
mod picture;

use base64::{Engine, engine::general_purpose::STANDARD};
use hembo_core::slip::Word;
use serde::{Deserialize, Serialize};

/// The largest file, in bytes.
pub const LARGEST: usize = 10 * 1024 * 1024;
/// The most pages of a slip.
pub const MOST_PAGES: usize = 20;
/// How wide the picture of a page is, in pixels.
const WIDTH: u32 = 1_200;
/// How many times as high as wide a page is at the most.
const TALLEST: f32 = 3.0;

/// A page of a slip.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Page {
    /// Its picture as PNG, in base64.
    pub picture: String,
    /// The words of its text with their places; none of a picture.
    pub words: Vec<Word>,
}

impl Page {
    fn of(png: &[u8], words: Vec<Word>) -> Page {
        Page { picture: STANDARD.encode(png), words }
    }

    /// Its picture as PNG.
    pub fn png(&self) -> Vec<u8> {
        STANDARD.decode(&self.picture).unwrap_or_default()
    }
}

/// Why a file cannot be read, and what to do instead.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, thiserror::Error)]
#[error("{0}")]
pub struct Unreadable(pub String);

/// What a file is, by its first bytes; its name says nothing.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum FileKind {
    /// A PDF.
    Pdf,
    /// A picture as PNG.
    Png,
    /// A picture as JPEG.
    Jpeg,
}

/// What a file is.
///
/// # Errors
/// When it is empty, too large, or neither a PDF nor a picture.
pub fn kind_of(file: &[u8]) -> Result<FileKind, Unreadable> {
    let no = |why: &str| Err(Unreadable(format!("{why} Slips are added as PDF, PNG or JPEG.")));
    if file.is_empty() {
        return no("The file is empty.");
    }
    if file.len() > LARGEST {
        return no("The file is larger than 10 MB.");
    }
    match file {
        [b'%', b'P', b'D', b'F', b'-', ..] => Ok(FileKind::Pdf),
        [0x89, b'P', b'N', b'G', 0x0d, 0x0a, 0x1a, 0x0a, ..] => Ok(FileKind::Png),
        [0xff, 0xd8, 0xff, ..] => Ok(FileKind::Jpeg),
        [b'P', b'K', ..] => {
            no("This is an archive or a document of an office program, which may hold macros.")
        }
        [0xd0, 0xcf, 0x11, 0xe0, ..] => no("This is a document of an office program, which may hold macros."),
        [b'M', b'Z', ..] | [0x7f, b'E', b'L', b'F', ..] => no("This is a program."),
        _ => no("This is neither a PDF nor a picture."),
    }
}

/// The pages of a file.
///
/// # Errors
/// When it is no slip that can be read.
pub fn read(file: &[u8]) -> Result<Vec<Page>, Unreadable> {
    match kind_of(file)? {
        FileKind::Pdf => pdf::pages(file),
        FileKind::Png | FileKind::Jpeg => picture::page(file).map(|page| vec![page]),
    }
}
