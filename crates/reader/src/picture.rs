//! Pictures: drawn anew in a size to look at, so that nothing but what is seen is kept of the page.

use crate::{TALLEST, WIDTH, page_of};
use hembo_core::slip::file::{Page, Unreadable};
use image::{ImageFormat, ImageReader, Limits, imageops::FilterType};
use std::io::Cursor;

/// The longest side, in pixels.
const LONGEST: u32 = 12_000;
/// The most memory that unpacking may take, in bytes.
const MOST_MEMORY: u64 = 300 * 1024 * 1024;

/// A picture as a page without words.
pub fn page(file: &[u8]) -> Result<Page, Unreadable> {
    let broken = |why: &dyn std::fmt::Display| Unreadable(format!("The picture cannot be read: {why}"));
    let mut reader = ImageReader::new(Cursor::new(file)).with_guessed_format().map_err(|why| broken(&why))?;
    let mut limits = Limits::default();
    limits.max_image_width = Some(LONGEST);
    limits.max_image_height = Some(LONGEST);
    limits.max_alloc = Some(MOST_MEMORY);
    reader.limits(limits);
    let picture = reader.decode().map_err(|why| broken(&why))?;
    let (width, height) = (picture.width().max(1), picture.height().max(1));
    if height as f32 > TALLEST * width as f32 {
        return Err(Unreadable("The picture is too tall for a page: scan it page by page.".into()));
    }
    let width_to = width.min(WIDTH);
    let height_to = u32::try_from(u64::from(height) * u64::from(width_to) / u64::from(width)).unwrap_or(1);
    let sized = picture.resize_exact(width_to, height_to.max(1), FilterType::Triangle).into_rgb8();
    let mut png = Vec::new();
    sized.write_to(&mut Cursor::new(&mut png), ImageFormat::Png).map_err(|why| broken(&why))?;
    Ok(page_of(&png, Vec::new()))
}
