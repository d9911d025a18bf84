//! Draws a laid-out document as PDF: tagged, with contents and page labels, its fonts embedded, held to PDF/UA-1.

use crate::{
    document::Document,
    fonts::{Face, Fonts},
    layout::{Ink, Kind, Laid, Mark, Node, Placed, lay},
};
use krilla::{
    SerializeSettings,
    color::rgb,
    configure::{Accessibility, ConfigurationBuilder},
    destination::XyzDestination,
    geom::{PathBuilder, Point, Size, Transform},
    image::Image,
    metadata::Metadata,
    num::NormalizedF32,
    outline::{Outline, OutlineNode},
    page::PageSettings,
    paint::{Fill, Stroke},
    surface::Surface,
    tagging::{
        Artifact, ArtifactType, ContentTag, Identifier, ListNumbering, SpanTag, TableHeaderScope, Tag,
        TagGroup, TagKind, TagTree,
    },
    text::TextDirection,
};
use std::{num::NonZeroU16, sync::Arc};

/// A document that cannot be written.
#[derive(Debug, thiserror::Error)]
#[error("the document cannot be written: {0}")]
pub struct NotWritten(String);

impl NotWritten {
    pub(crate) fn because(why: impl std::fmt::Debug) -> NotWritten {
        NotWritten(format!("{why:?}"))
    }
}

/// A document as PDF.
///
/// # Errors
/// When what was drawn does not keep to PDF/UA-1, which must not happen.
pub fn write(document: &Document) -> Result<Written, NotWritten> {
    let fonts = Fonts::read();
    let laid = lay(document, &fonts);
    let configuration = ConfigurationBuilder::new().with_accessibility_validator(Accessibility::UA1).finish();
    let configuration = configuration.map_err(NotWritten::because)?;
    let settings = SerializeSettings { configuration, ..SerializeSettings::default() };
    let mut pdf = krilla::Document::new_with(settings);
    let mut leaves: Vec<Vec<Identifier>> = vec![Vec::new(); laid.leaves];
    let (width, height) = document.sheet.size();
    let size =
        PageSettings::from_wh(width, height).ok_or_else(|| NotWritten::because("a page without size"))?;
    for marks in &laid.pages {
        let mut page = pdf.start_page_with(size.clone());
        let mut surface = page.surface();
        if let Some(words) = &document.watermark {
            watermark(&mut surface, &fonts, &fonts.drawable(words), (width, height));
        }
        draw(&mut surface, &fonts, marks, &mut leaves);
        surface.finish();
        page.finish();
    }
    pdf.set_outline(outline(&laid));
    pdf.set_tag_tree(tree(&laid, &mut leaves, document.language));
    let metadata = Metadata::new().title(document.title.clone()).language(document.language.into());
    let authors = Some(document.author.clone()).filter(|author| !author.is_empty()).into_iter().collect();
    pdf.set_metadata(metadata.creator("Hembo".into()).authors(authors));
    let bytes = pdf.finish().map_err(NotWritten::because)?;
    Ok(Written { bytes, pages: laid.pages.len() })
}

/// A document that was written.
#[derive(Debug)]
pub struct Written {
    /// The file.
    pub bytes: Vec<u8>,
    /// How many pages it has.
    pub pages: usize,
}

fn colour(ink: Ink) -> rgb::Color {
    match ink {
        Ink::Dark => rgb::Color::new(0x2a, 0x1b, 0x33),
        Ink::Soft => rgb::Color::new(0x6b, 0x5f, 0x73),
        Ink::Plum => rgb::Color::new(0x4a, 0x25, 0x59),
        Ink::Petrol => rgb::Color::new(0x14, 0x5c, 0x66),
    }
}

fn fill(ink: Ink, opacity: f32) -> Option<Fill> {
    let opacity = NormalizedF32::new(opacity).unwrap_or(NormalizedF32::ONE);
    Some(Fill { paint: colour(ink).into(), opacity, ..Fill::default() })
}

/// Draws the marks of a page; words of one leaf that follow each other are one piece for a screen reader.
fn draw(surface: &mut Surface<'_>, fonts: &Fonts, marks: &[Placed], leaves: &mut [Vec<Identifier>]) {
    for together in marks.chunk_by(|one, other| one.leaf == other.leaf) {
        match together.first().and_then(|placed| placed.leaf) {
            Some(leaf) => {
                let is_picture = together.iter().any(|placed| matches!(placed.mark, Mark::Picture { .. }));
                let tag = if is_picture { ContentTag::Other } else { ContentTag::Span(SpanTag::empty()) };
                leaves[leaf].push(surface.start_tagged(tag));
            }
            None => {
                let artifact = Artifact::with_kind(ArtifactType::Layout);
                surface.start_tagged(ContentTag::Artifact(artifact));
            }
        }
        for placed in together {
            draw_mark(surface, fonts, &placed.mark);
        }
        surface.end_tagged();
    }
}

fn draw_mark(surface: &mut Surface<'_>, fonts: &Fonts, mark: &Mark) {
    match mark {
        Mark::Words { x, y, face, size, ink, words } => {
            surface.set_stroke(None);
            surface.set_fill(fill(*ink, 1.0));
            let font = fonts.font(*face);
            surface.draw_text(Point::from_xy(*x, *y), font, *size, words, false, TextDirection::Auto);
        }
        Mark::Rule { y, from, to, heavy } => {
            let (ink, width) = if *heavy { (Ink::Dark, 0.7) } else { (Ink::Soft, 0.25) };
            surface.set_fill(None);
            surface.set_stroke(Some(Stroke { paint: colour(ink).into(), width, ..Stroke::default() }));
            let mut path = PathBuilder::new();
            path.move_to(*from, *y);
            path.line_to(*to, *y);
            if let Some(path) = path.finish() {
                surface.draw_path(&path);
            }
        }
        Mark::Picture { x, y, width, height, png } => {
            let image = Image::from_png(Arc::clone(png).into(), true);
            if let (Ok(image), Some(size)) = (image, Size::from_wh(*width, *height)) {
                surface.push_transform(&Transform::from_translate(*x, *y));
                surface.draw_image(image, size);
                surface.pop();
            }
        }
        Mark::Bar { x, y, width, height, ink } => {
            surface.set_stroke(None);
            surface.set_fill(fill(*ink, 1.0));
            let mut path = PathBuilder::new();
            path.move_to(*x, *y);
            path.line_to(x + width, *y);
            path.line_to(x + width, y + height);
            path.line_to(*x, y + height);
            path.close();
            if let Some(path) = path.finish() {
                surface.draw_path(&path);
            }
        }
    }
}

/// Words across the page, below what stands on it.
fn watermark(surface: &mut Surface<'_>, fonts: &Fonts, words: &str, (width, height): (f32, f32)) {
    const SIZE: f32 = 34.0;
    let long = fonts.width(words, Face::Wide, SIZE);
    let artifact = Artifact::with_kind(ArtifactType::Watermark);
    surface.start_tagged(ContentTag::Artifact(artifact));
    let middle = Point::from_xy(width / 2.0, height / 2.0);
    surface.push_transform(&Transform::from_rotate_at(-35.0, middle.x, middle.y));
    surface.set_stroke(None);
    surface.set_fill(fill(Ink::Plum, 0.13));
    let from = Point::from_xy((width - long) / 2.0, height / 2.0);
    surface.draw_text(from, fonts.font(Face::Wide), SIZE, words, false, TextDirection::Auto);
    surface.pop();
    surface.end_tagged();
}

fn outline(laid: &Laid) -> Outline {
    let mut outline = Outline::new();
    for entry in &laid.entries {
        let to = XyzDestination::new(entry.page, Point::from_xy(0.0, 0.0));
        outline.push_child(OutlineNode::new(entry.title.clone(), to));
    }
    outline
}

fn tree(laid: &Laid, leaves: &mut [Vec<Identifier>], language: &str) -> TagTree {
    let mut tree = TagTree::new().with_lang(Some(language.into()));
    for node in &laid.tree {
        if let Node::Group(kind, nodes) = node {
            tree.push(group(kind, nodes, leaves));
        }
    }
    tree
}

fn group(kind: &Kind, nodes: &[Node], leaves: &mut [Vec<Identifier>]) -> TagGroup {
    let mut group = TagGroup::new(tag(kind));
    for node in nodes {
        match node {
            Node::Group(kind, nodes) => group.push(self::group(kind, nodes, leaves)),
            Node::Leaf(leaf) => std::mem::take(&mut leaves[*leaf]).into_iter().for_each(|id| group.push(id)),
        }
    }
    group
}

fn tag(kind: &Kind) -> TagKind {
    match kind {
        Kind::Section => Tag::Section.into(),
        Kind::Heading(level, words) => {
            Tag::Hn(NonZeroU16::new(*level).unwrap_or(NonZeroU16::MIN), Some(words.clone())).into()
        }
        Kind::Paragraph => Tag::P.into(),
        Kind::List => Tag::L(ListNumbering::Disc).into(),
        Kind::Item => Tag::LI.into(),
        Kind::Contents => Tag::TOC.into(),
        Kind::ContentsLine => Tag::TOCI.into(),
        Kind::Table => Tag::Table.into(),
        Kind::Row => Tag::TR.into(),
        Kind::HeadCell => Tag::TH(TableHeaderScope::Column).into(),
        Kind::Cell => Tag::TD.into(),
        Kind::Figure(words) => Tag::Figure(Some(words.clone())).into(),
    }
}
