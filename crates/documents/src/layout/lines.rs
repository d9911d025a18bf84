//! Words broken into lines, and a line drawn.

use super::{Ink, Layout, Mark};
use crate::{document::Run, fonts::Face};

/// A word with its face and width, and whether a space stands before it.
pub(super) struct Word {
    words: String,
    pub face: Face,
    pub width: f32,
    pub spaced: bool,
    /// A new line begins with it, as it was typed.
    breaks: bool,
}

impl Layout<'_> {
    /// Words broken into lines; a word that is wider than a line is broken within.
    pub(super) fn lines(
        &self,
        runs: &[Run],
        width: f32,
        size: f32,
        face: impl Fn(&Run) -> Face,
    ) -> Vec<Vec<Word>> {
        let mut lines: Vec<Vec<Word>> = vec![Vec::new()];
        let mut used = 0.0;
        for word in self.all_words(runs, width, size, face) {
            let space = if word.spaced { self.fonts.width(" ", word.face, size) } else { 0.0 };
            let begun = lines.last().is_some_and(|line| !line.is_empty());
            if begun && (word.breaks || used + space + word.width > width) {
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
        let (mut spaced, mut breaks) = (false, false);
        for run in runs {
            let text = self.fonts.drawable(&run.words);
            for (at, typed) in text.split('\n').enumerate() {
                breaks |= at > 0;
                let mut words = self.words(typed, face(run), (size, most), spaced || typed.starts_with(' '));
                if let Some(first) = words.first_mut() {
                    first.breaks = breaks;
                    breaks = false;
                }
                found.extend(words);
                spaced = typed.ends_with(' ');
            }
        }
        found
    }

    /// The words of a text; one that is wider than a line comes in pieces.
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
        Word { words, face, width, spaced, breaks: false }
    }

    /// Draws a line at the base line `y`: neighbours in one face together, with a space at the end.
    pub(super) fn line(&mut self, line: Vec<Word>, x: f32, size: f32, ink: Ink, leaf: Option<usize>) {
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
}
