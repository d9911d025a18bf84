//! The slips that were added to papers as files, page by page.

use super::Source;
use crate::document::Block;

pub(super) fn blocks(of: Source<'_>) -> Vec<Block> {
    if of.slips.is_empty() {
        return vec![Block::text("No slip was added as a file.")];
    }
    of.slips.iter().cloned().map(Block::Picture).collect()
}
