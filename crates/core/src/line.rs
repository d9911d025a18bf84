//! Lines: computed amounts with an id that never changes.

use serde::Serialize;
use utoipa::ToSchema;

/// The id of a line, such as `us.agi`.
pub type LineId = &'static str;

/// What a line is, as a rule pack declares it.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct LineDef {
    /// The id, which never changes.
    pub id: &'static str,
    /// What it is called.
    pub label: &'static str,
    /// The rule that makes it.
    pub cite: &'static str,
    /// How it is made, in a sentence.
    pub how: &'static str,
}

/// Declares the lines of a provision: a constant with the id of each, and all of them as `LINES`.
///
/// ```
/// hembo_core::lines! {
///     pub WAGES = "xx.1", "Wages", "Act §1", "Box 1 of every pay slip.";
/// }
/// assert_eq!((WAGES, LINES[0].label), ("xx.1", "Wages"));
/// ```
#[macro_export]
macro_rules! lines {
    ($($vis:vis $name:ident = $id:literal, $label:literal, $cite:literal, $how:literal;)*) => {
        $(#[doc = $label] $vis const $name: $crate::line::LineId = $id;)*
        const LINES: &[$crate::line::LineDef] =
            &[$($crate::line::LineDef { id: $name, label: $label, cite: $cite, how: $how }),*];
    };
}

/// A section of the Spread.
#[derive(Debug, Clone, Copy)]
pub struct SpreadSection {
    /// Its heading.
    pub title: &'static str,
    /// Its rows, in the order of the computation.
    pub rows: &'static [SpreadRow],
    /// A long one, which folds into its result until it is opened.
    pub folds: bool,
}

/// A row of the Spread.
#[derive(Debug, Clone, Copy)]
pub struct SpreadRow {
    /// The words at the left.
    pub label: &'static str,
    /// The line shown in a person's column.
    pub person: Option<LineId>,
    /// The line shown for a return; the last column adds the filers' returns.
    pub total: LineId,
    /// Whether the row takes off: shown with a minus sign.
    pub takes_off: bool,
    /// A result: bold, ruled off.
    pub result: bool,
    /// Shown even where every cell is empty.
    pub always: bool,
    /// It adds rows above it up, for who reads: the next result does not add it once more.
    pub subtotal: bool,
    /// It stands beside the computation: no result adds it.
    pub beside: bool,
    /// A result adds it, and more of it is less tax: an amount that makes a credit.
    pub lowers: bool,
}

impl SpreadRow {
    /// A row that adds, with the line of each person and that of the return.
    pub const fn new(label: &'static str, person: Option<LineId>, total: LineId) -> SpreadRow {
        SpreadRow {
            label,
            person,
            total,
            takes_off: false,
            result: false,
            always: false,
            subtotal: false,
            beside: false,
            lowers: false,
        }
    }

    /// The row takes off.
    pub const fn minus(self) -> SpreadRow {
        SpreadRow { takes_off: true, ..self }
    }

    /// The row is a result.
    pub const fn result(self) -> SpreadRow {
        SpreadRow { result: true, always: true, ..self }
    }

    /// The row adds others up.
    pub const fn subtotal(self) -> SpreadRow {
        SpreadRow { subtotal: true, always: true, ..self }
    }

    /// The row stands beside the computation.
    pub const fn beside(self) -> SpreadRow {
        SpreadRow { beside: true, ..self }
    }

    /// The row is an amount that makes a credit.
    pub const fn lowers(self) -> SpreadRow {
        SpreadRow { lowers: true, ..self }
    }

    /// The row is shown even where it is empty.
    pub const fn always(self) -> SpreadRow {
        SpreadRow { always: true, ..self }
    }
}
