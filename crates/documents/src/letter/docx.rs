//! The letter as a file of a word processor.

use super::{Letter, LetterBlock, Words, editor::BREAK};
use docx_rs::{
    AbstractNumbering, BreakType, Docx, IndentLevel, Level, LevelJc, LevelText, NumberFormat, Numbering,
    NumberingId, Paragraph, Run, RunFonts, SpecialIndentType, Start,
};
use std::io::Cursor;

/// The numbering of lists.
const BULLETS: usize = 1;
/// Half points.
const SIZE: usize = 21;
const HEADING: usize = 26;

/// The letter as DOCX, below the practice's name.
///
/// # Errors
/// When the file cannot be written, which must not happen.
pub fn docx(letter: &Letter, practice: &str) -> Result<Vec<u8>, String> {
    let level =
        Level::new(0, Start::new(1), NumberFormat::new("bullet"), LevelText::new("•"), LevelJc::new("left"));
    let level = level.indent(Some(540), Some(SpecialIndentType::Hanging(270)), None, None);
    let mut file = Docx::new()
        .default_fonts(RunFonts::new().ascii("Archivo").hi_ansi("Archivo"))
        .default_size(SIZE)
        .add_abstract_numbering(AbstractNumbering::new(BULLETS).add_level(level))
        .add_numbering(Numbering::new(BULLETS, BULLETS));
    if !practice.is_empty() {
        file =
            file.add_paragraph(Paragraph::new().add_run(Run::new().add_text(practice).bold().size(HEADING)));
        file = file.add_paragraph(Paragraph::new());
    }
    for block in &letter.blocks {
        file = match block {
            LetterBlock::Heading(words) => {
                file.add_paragraph(paragraph(words, |run| run.bold().size(HEADING)))
            }
            LetterBlock::Paragraph(words) => file.add_paragraph(paragraph(words, |run| run)),
            LetterBlock::List(items) => items.iter().fold(file, |file, item| {
                let item = paragraph(item, |run| run);
                file.add_paragraph(item.numbering(NumberingId::new(BULLETS), IndentLevel::new(0)))
            }),
        };
    }
    let mut bytes = Cursor::new(Vec::new());
    file.build().pack(&mut bytes).map_err(|why| why.to_string())?;
    Ok(bytes.into_inner())
}

fn paragraph(words: &[Words], face: impl Fn(Run) -> Run) -> Paragraph {
    words.iter().fold(Paragraph::new(), |paragraph, words| {
        if words.text == BREAK {
            return paragraph.add_run(Run::new().add_break(BreakType::TextWrapping));
        }
        let mut run = face(Run::new().add_text(&words.text));
        if words.bold {
            run = run.bold();
        }
        if words.italic {
            run = run.italic();
        }
        paragraph.add_run(run)
    })
}
