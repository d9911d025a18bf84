//! The faces that documents are set in, and how wide words are in them.

use krilla::text::Font;
use rustybuzz::{Face as Shape, UnicodeBuffer};

/// A face.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Face {
    Plain,
    Bold,
    /// For titles.
    Wide,
}

static PLAIN: &[u8] = include_bytes!("../fonts/Archivo-Regular.ttf");
static BOLD: &[u8] = include_bytes!("../fonts/Archivo-Bold.ttf");
static WIDE: &[u8] = include_bytes!("../fonts/Archivo-Wide.ttf");

/// The faces, read.
pub struct Fonts {
    faces: [(Font, Shape<'static>); 3],
}

impl Fonts {
    /// Reads the faces that ship with this crate.
    pub fn read() -> Fonts {
        let one = |bytes: &'static [u8]| {
            let font = Font::new(bytes.into(), 0).expect("the font ships with this crate");
            (font, Shape::from_slice(bytes, 0).expect("the font ships with this crate"))
        };
        Fonts { faces: [one(PLAIN), one(BOLD), one(WIDE)] }
    }

    fn of(&self, face: Face) -> &(Font, Shape<'static>) {
        &self.faces[face as usize]
    }

    /// The face to draw with.
    pub fn font(&self, face: Face) -> Font {
        self.of(face).0.clone()
    }

    /// The width of words in points, as they are drawn.
    pub fn width(&self, words: &str, face: Face, size: f32) -> f32 {
        let shape = &self.of(face).1;
        let mut buffer = UnicodeBuffer::new();
        buffer.push_str(words);
        let glyphs = rustybuzz::shape(shape, &[], buffer);
        let advance: i32 = glyphs.glyph_positions().iter().map(|position| position.x_advance).sum();
        advance as f32 * size / shape.units_per_em() as f32
    }

    /// Words with only those signs that the faces have: an arrow is written as one, what cannot be is a question mark; line ends stay.
    pub fn drawable(&self, words: &str) -> String {
        let shape = &self.of(Face::Plain).1;
        let sign = |c: char| match c {
            '→' => "›".to_owned(),
            '\u{a0}' | '\n' => c.to_string(),
            c if c.is_whitespace() => " ".to_owned(),
            c if shape.glyph_index(c).is_some() => c.to_string(),
            _ => "?".to_owned(),
        };
        words.chars().map(sign).collect()
    }
}
