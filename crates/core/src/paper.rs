//! Kinds of papers, as a rule pack declares them.

use crate::field::{Field, Years};
use serde::Serialize;
use utoipa::ToSchema;

/// One kind of paper.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct PaperKind {
    /// The code that people type: the printed form number, or a word.
    pub id: &'static str,
    /// What it is, in words; searched as well as the code.
    pub name: &'static str,
    /// Everyday words that people look for it by, beside its code and name.
    pub words: &'static str,
    /// What its title means: "Employer", "Lender".
    pub title: &'static str,
    /// Whether several people may own it together.
    pub shared: bool,
    /// The box, or the column of rows, whose amount stands for the paper in lists.
    pub headline: &'static str,
    /// Its boxes in the printed order.
    pub boxes: &'static [Field],
    /// The columns of its list of receipts; empty where it has none.
    pub columns: &'static [Field],
    /// The return years for which there are such papers.
    pub years: Years,
}

impl PaperKind {
    /// The box of that id.
    pub fn field(&self, id: &str) -> Option<&Field> {
        self.boxes.iter().find(|f| f.id == id)
    }

    /// The column of that id.
    pub fn column(&self, id: &str) -> Option<&Field> {
        self.columns.iter().find(|f| f.id == id)
    }
}
