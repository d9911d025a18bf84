//! PDF files: each page drawn as a picture, its words with their places.

use crate::{TALLEST, WIDTH, page_of};
use hayro::{
    PixmapSettings, RenderCache, RenderSettings,
    hayro_interpret::{
        BlendMode, ClipPath, Context, Device, DrawMode, DrawProps, Image, ImageDrawProps, InterpreterCache,
        InterpreterSettings, SoftMask,
        font::{Glyph, GlyphRun},
        hayro_cmap::BfString,
        interpret_page,
        util::TransformExt,
    },
    hayro_syntax::{LoadPdfError, Pdf, page::Page as PdfPage},
    kurbo::{BezPath, Point, Rect},
    render,
    vello_cpu::color::palette::css::WHITE,
};
use hembo_core::slip::{
    Area, PAGE_WIDTH, Word,
    file::{MOST_PAGES, Page, Unreadable},
};

/// The most words that are read of a page.
const MOST_WORDS: usize = 2_000;
/// How wide a sign is taken to be that does not say so, as a part of its height.
const USUAL_ADVANCE: f64 = 0.5;
/// The gap, as a part of the height, that parts two words where no blank is written.
const GAP: f64 = 0.25;
/// How far letters reach above their line and below it, as parts of their size.
const ABOVE: f64 = 0.75;
const BELOW: f64 = 0.22;
/// The size of letters in which signs are placed.
const UNIT: f64 = 1_000.0;

/// The pages of a PDF.
pub fn pages(file: &[u8]) -> Result<Vec<Page>, Unreadable> {
    let pdf = Pdf::new(file.to_vec()).map_err(|why| match why {
        LoadPdfError::Decryption(_) => {
            Unreadable("The PDF is locked with a password: save it without one.".into())
        }
        LoadPdfError::Invalid => Unreadable("The PDF is damaged, or is none: save or scan it again.".into()),
    })?;
    let pages = pdf.pages();
    if pages.is_empty() {
        return Err(Unreadable("The PDF has no page.".into()));
    }
    if pages.len() > MOST_PAGES {
        let why = format!("The PDF has {} pages: a slip has at most {MOST_PAGES}.", pages.len());
        return Err(Unreadable(why));
    }
    let cache = RenderCache::new();
    let settings = InterpreterSettings::default();
    pages.iter().map(|one| page(one, &cache, &settings)).collect()
}

fn page<'a>(
    page: &'a PdfPage<'a>,
    cache: &RenderCache<'a>,
    settings: &InterpreterSettings,
) -> Result<Page, Unreadable> {
    let (width, height) = page.render_dimensions();
    let sized = width > 0.0 && height > 0.0 && height <= TALLEST * width;
    if !sized {
        return Err(Unreadable("A page of the PDF has no size that could be a slip's.".into()));
    }
    let scale = WIDTH as f32 / width;
    let pixels = PixmapSettings { x_scale: scale, y_scale: scale, bg_color: WHITE };
    let drawn = render(page, cache, settings, &RenderSettings::default(), &pixels);
    let png = drawn.into_png().map_err(|why| Unreadable(format!("A page cannot be drawn: {why}")))?;
    Ok(page_of(&png, words(page, settings, f64::from(width), f64::from(height))))
}

fn words<'a>(page: &'a PdfPage<'a>, settings: &InterpreterSettings, width: f64, height: f64) -> Vec<Word> {
    let mut words = Words { unit: f64::from(PAGE_WIDTH) / width, done: Vec::new(), open: None };
    let cache = InterpreterCache::new();
    let whole = Rect::new(0.0, 0.0, width, height);
    let transform = page.initial_transform(true).to_kurbo();
    let mut context = Context::new(transform, whole, &cache, page.xref(), settings.clone());
    interpret_page(page, &mut context, &mut words);
    words.end();
    words.done
}

/// A word that is being put together.
struct Open {
    text: String,
    place: Rect,
    /// Where its next sign would stand.
    next: Point,
}

/// Takes the signs that a page draws, and makes words of them.
struct Words {
    unit: f64,
    done: Vec<Word>,
    open: Option<Open>,
}

impl Words {
    fn end(&mut self) {
        let Some(open) = self.open.take() else { return };
        if open.text.trim().is_empty() || self.done.len() >= MOST_WORDS {
            return;
        }
        let part = |points: f64| (points * self.unit).round().clamp(-1e6, 1e6) as i32;
        let Rect { x0, y0, .. } = open.place;
        let (width, height) = (part(open.place.width()), part(open.place.height()));
        let at = Area { left: part(x0), top: part(y0), width, height };
        self.done.push(Word { text: open.text, at });
    }

    /// A sign with its size and where it and the next one stand.
    fn sign(&mut self, text: &str, size: f64, at: Point, next: Point) {
        if text.chars().all(char::is_whitespace) {
            return self.end();
        }
        let place = Rect::from_points((at.x, at.y - ABOVE * size), (next.x, at.y + BELOW * size));
        let follows =
            |open: &Open| (open.next.y - at.y).abs() < GAP * size && (open.next.x - at.x).abs() < GAP * size;
        match self.open.as_mut().filter(|open| follows(open)) {
            Some(open) => {
                open.text.push_str(text);
                open.place = open.place.union(place);
                open.next = next;
            }
            None => {
                self.end();
                self.open = Some(Open { text: text.to_owned(), place, next });
            }
        }
    }
}

impl<'a> Device<'a> for Words {
    fn draw_glyph_run(&mut self, run: &GlyphRun<'_, 'a>, props: DrawProps<'a>, _: &DrawMode) {
        for sign in run.glyphs() {
            let text = match sign.as_unicode() {
                Some(BfString::Char(one)) => one.to_string(),
                Some(BfString::String(several)) => several,
                None => continue,
            };
            let place = props.transform * sign.transform();
            let advance = match &**sign {
                Glyph::Outline(outline) => outline.advance_width(),
                Glyph::Type3(drawn) => drawn.advance_width(),
            };
            let advance = advance.map(f64::from);
            let at = place * Point::ZERO;
            let up = place * Point::new(0.0, UNIT);
            let next = place * Point::new(advance.unwrap_or(USUAL_ADVANCE * UNIT), 0.0);
            self.sign(&text, (up - at).hypot(), at, next);
        }
    }

    fn draw_path(&mut self, _: &BezPath, _: DrawProps<'a>, _: &DrawMode) {}
    fn push_clip_path(&mut self, _: &ClipPath) {}
    fn push_transparency_group(&mut self, _: f32, _: Option<SoftMask<'a>>, _: BlendMode) {}
    fn draw_image(&mut self, _: Image<'a, '_>, _: ImageDrawProps<'a>) {}
    fn pop_clip(&mut self) {}
    fn pop_transparency_group(&mut self) {}
}
