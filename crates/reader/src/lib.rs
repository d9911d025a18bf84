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
use hembo_core::slip::{
    Word,
    file::{FileKind, Page, Unreadable, kind_of},
};

/// How wide the picture of a page is, in pixels.
const WIDTH: u32 = 1_200;
/// How many times as high as wide a page is at the most.
const TALLEST: f32 = 3.0;

fn page_of(png: &[u8], words: Vec<Word>) -> Page {
    Page { picture: STANDARD.encode(png), words }
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

/// The first page of a file as a picture (PNG), and the words on it; nothing of a file that cannot be read. It is the camera that
/// the stand-in of the authority is lent.
pub fn picture_of(file: &[u8]) -> Option<(Vec<u8>, Vec<Word>)> {
    let page = read(file).ok()?.into_iter().next()?;
    Some((STANDARD.decode(&page.picture).ok()?, page.words))
}
