//! A slip as its issuer prints it: cells with a small label above what stands in them, and the lines of a list below.

use crate::{
    Sheet,
    fonts::{Face, Fonts},
    pdf::NotWritten,
};
use krilla::{
    color::rgb,
    geom::{PathBuilder, Point},
    metadata::Metadata,
    page::PageSettings,
    paint::{Fill, Stroke},
    surface::Surface,
    text::TextDirection,
};

/// A slip to print.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Printed {
    /// The form's code: "W-2".
    pub code: String,
    /// Its name, with the year.
    pub name: String,
    /// Its cells, row by row.
    pub cells: Vec<Cell>,
    /// Its list, where it is one.
    pub table: Option<Table>,
    /// What stands at the foot of each page.
    pub foot: String,
    /// The page it is printed on.
    pub sheet: Sheet,
}

/// A cell: what its label says, and what stands in it.
#[derive(Debug, Clone, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Cell {
    pub label: String,
    pub value: String,
}

/// A list: what heads each column, and the lines below.
#[derive(Debug, Clone, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Table {
    pub head: Vec<String>,
    pub lines: Vec<Vec<String>>,
}

const MARGIN: f32 = 42.0;
const COLUMNS: usize = 2;
const ROW: f32 = 40.0;
const HEAD: f32 = 46.0;
const LABEL: f32 = 7.5;
const VALUE: f32 = 11.0;
const PAD: f32 = 5.0;
const LINE: f32 = 18.0;
const CELL: f32 = 9.0;

/// What stands on a page, from the top.
#[derive(Default)]
struct Page<'p> {
    cells: Vec<&'p [Cell]>,
    lines: &'p [Vec<String>],
}

impl Page<'_> {
    /// Where its list begins, below its cells.
    fn list_at(&self) -> f32 {
        MARGIN + HEAD + self.cells.len() as f32 * ROW + if self.cells.is_empty() { 0.0 } else { LINE }
    }
}

/// What stands on which page: the cells first, then as many lines as there is room for.
fn pages(slip: &Printed, height: f32) -> Vec<Page<'_>> {
    let foot = height - MARGIN - ROW - LINE;
    let rows: Vec<&[Cell]> = slip.cells.chunks(COLUMNS).collect();
    let on_a_page = ((foot - MARGIN - HEAD) / ROW) as usize;
    let mut pages: Vec<Page<'_>> =
        rows.chunks(on_a_page.max(1)).map(|rows| Page { cells: rows.to_vec(), lines: &[] }).collect();
    let mut left = slip.table.as_ref().map_or(&[][..], |table| &table.lines);
    let mut page = pages.pop().unwrap_or_default();
    loop {
        let room = ((foot - page.list_at()) / LINE) as usize;
        // A line of it is the head's.
        let (here, rest) = left.split_at(room.saturating_sub(1).min(left.len()));
        page.lines = here;
        pages.push(page);
        if rest.is_empty() {
            return pages;
        }
        (left, page) = (rest, Page::default());
    }
}

/// The slip as a PDF with its text.
///
/// # Errors
/// When it cannot be written, which must not happen.
pub fn print(slip: &Printed) -> Result<Vec<u8>, NotWritten> {
    let fonts = Fonts::read();
    let (width, height) = slip.sheet.size();
    let mut pdf = krilla::Document::new();
    for page in pages(slip, height) {
        let size = PageSettings::from_wh(width, height);
        let mut sheet = pdf.start_page_with(size.ok_or_else(|| NotWritten::because("a page without size"))?);
        let mut surface = sheet.surface();
        let mut pen = Pen { surface: &mut surface, fonts: &fonts };
        pen.words((MARGIN, MARGIN + 20.0), Face::Wide, 20.0, &slip.code);
        pen.words((MARGIN + 150.0, MARGIN + 18.0), Face::Bold, 11.0, &slip.name);
        let cell = (width - 2.0 * MARGIN) / COLUMNS as f32;
        for (r, row) in page.cells.iter().enumerate() {
            for (c, one) in row.iter().enumerate() {
                pen.cell((MARGIN + c as f32 * cell, MARGIN + HEAD + r as f32 * ROW), cell, one);
            }
        }
        if let Some(table) = slip.table.as_ref().filter(|_| !page.lines.is_empty()) {
            pen.list(table, page.lines, page.list_at(), width - 2.0 * MARGIN);
        }
        pen.words((MARGIN, height - MARGIN), Face::Plain, LABEL, &slip.foot);
        surface.finish();
        sheet.finish();
    }
    pdf.set_metadata(Metadata::new().title(format!("{} {}", slip.code, slip.name)));
    pdf.finish().map_err(NotWritten::because)
}

struct Pen<'s, 'p> {
    surface: &'s mut Surface<'p>,
    fonts: &'s Fonts,
}

impl Pen<'_, '_> {
    fn words(&mut self, (x, y): (f32, f32), face: Face, size: f32, words: &str) {
        self.surface.set_stroke(None);
        self.surface.set_fill(Some(Fill::default()));
        let words = self.fonts.drawable(words);
        let font = self.fonts.font(face);
        self.surface.draw_text(Point::from_xy(x, y), font, size, &words, false, TextDirection::Auto);
    }

    /// A list from this height on: its head, and these lines of it; each column as wide as what stands in it asks for.
    fn list(&mut self, table: &Table, lines: &[Vec<String>], top: f32, width: f32) {
        let widest = |column: usize| {
            let words = table.lines.iter().filter_map(|line| line.get(column)).chain(table.head.get(column));
            words.map(|text| self.fonts.width(text, Face::Plain, CELL)).fold(0.0, f32::max) + 2.0 * PAD
        };
        let widths: Vec<f32> = (0..table.head.len()).map(widest).collect();
        let spread = width / widths.iter().sum::<f32>().max(1.0);
        let mut down = top + LINE;
        for (words, face) in
            std::iter::once((&table.head, Face::Bold)).chain(lines.iter().map(|line| (line, Face::Plain)))
        {
            let mut across = MARGIN;
            for (text, width) in words.iter().zip(&widths) {
                self.words((across, down), face, CELL * spread.min(1.0), text);
                across += width * spread;
            }
            down += LINE;
        }
    }

    fn cell(&mut self, (x, y): (f32, f32), width: f32, cell: &Cell) {
        self.frame((x, y), width);
        let mut down = y + PAD + LABEL;
        for line in self.lines(&cell.label, width - 2.0 * PAD) {
            self.words((x + PAD, down), Face::Plain, LABEL, &line);
            down += LABEL * 1.15;
        }
        self.words((x + PAD, y + ROW - PAD), Face::Bold, VALUE, &cell.value);
    }

    fn frame(&mut self, (x, y): (f32, f32), width: f32) {
        let colour = rgb::Color::new(0x80, 0x78, 0x86);
        self.surface.set_fill(None);
        self.surface.set_stroke(Some(Stroke { paint: colour.into(), width: 0.6, ..Stroke::default() }));
        let mut path = PathBuilder::new();
        for (at, (x, y)) in [(x, y), (x + width, y), (x + width, y + ROW), (x, y + ROW)].iter().enumerate() {
            if at == 0 { path.move_to(*x, *y) } else { path.line_to(*x, *y) }
        }
        path.close();
        if let Some(path) = path.finish() {
            self.surface.draw_path(&path);
        }
    }

    /// A label in at most two lines, so that what stands below it has its place.
    fn lines(&self, label: &str, width: f32) -> Vec<String> {
        let mut lines = vec![String::new()];
        for word in label.split_whitespace() {
            let last = lines.last().map(String::as_str).unwrap_or_default();
            let longer = if last.is_empty() { word.to_owned() } else { format!("{last} {word}") };
            let fits = self.fonts.width(&longer, Face::Plain, LABEL) <= width || last.is_empty();
            match (fits, lines.len()) {
                (true, at) => lines[at - 1] = longer,
                (false, 1) => lines.push(word.to_owned()),
                (false, _) => break,
            }
        }
        lines
    }
}
