//! A slip that came as a file: what it is by its content, and its pages.

use super::Word;
use serde::{Deserialize, Serialize};

/// The largest file, in bytes.
pub const LARGEST: usize = 10 * 1024 * 1024;
/// The most pages of a slip.
pub const MOST_PAGES: usize = 20;

/// A page of a slip.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Page {
    /// Its picture as PNG, in base64.
    pub picture: String,
    /// The words of its text with their places; none of a picture.
    pub words: Vec<Word>,
}

/// Why a file cannot be read, and what to do instead.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, thiserror::Error)]
#[error("{0}")]
pub struct Unreadable(pub String);

/// What a file is, by its first bytes; its name says nothing.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum FileKind {
    Pdf,
    Png,
    Jpeg,
}

impl FileKind {
    /// Its media type.
    pub fn media(self) -> &'static str {
        match self {
            FileKind::Pdf => "application/pdf",
            FileKind::Png => "image/png",
            FileKind::Jpeg => "image/jpeg",
        }
    }
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_file_is_what_its_first_bytes_say() {
        for (bytes, kind) in [
            (&b"%PDF-1.7\n"[..], FileKind::Pdf),
            (b"\x89PNG\r\n\x1a\n....", FileKind::Png),
            (b"\xff\xd8\xff\xe0", FileKind::Jpeg),
        ] {
            assert_eq!(kind_of(bytes), Ok(kind));
        }
        for (bytes, told) in [
            (&b""[..], "empty"),
            (b"PK\x03\x04word/vbaProject.bin", "macros"),
            (b"\xd0\xcf\x11\xe0\xa1", "macros"),
            (b"MZ\x90", "program"),
            (b"<html>", "neither"),
            (b"\x89PNG", "neither"),
        ] {
            let why = kind_of(bytes).expect_err(told);
            assert!(why.0.contains(told) && why.0.contains("PDF, PNG or JPEG"), "{why}");
        }
        assert_eq!(kind_of(&[b"%PDF-", vec![0; LARGEST - 5].as_slice()].concat()), Ok(FileKind::Pdf));
        assert!(kind_of(&[b"%PDF-", vec![0; LARGEST - 4].as_slice()].concat()).is_err());
    }
}
