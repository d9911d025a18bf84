//! What the rules work out beside a paper's own entries, to be read and looked at there: columns of its list that are not
//! typed, how a result came about, and a picture over the days.

use hembo_money::{Money, Rate};
use serde::Serialize;
use std::collections::BTreeMap;
use time::Date;
use utoipa::ToSchema;

/// What is worked out of one paper.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Drawn {
    /// The amount that stands for the paper in lists, where it is none of its own.
    pub stands: Option<Money>,
    /// Columns beside those that are typed.
    pub columns: Vec<WorkedColumn>,
    /// How results came about, one after another.
    pub workings: Vec<Working>,
    /// Something to look at.
    pub picture: Option<Picture>,
    /// What the rules make of cells of its list.
    pub cells: Vec<CellMade>,
    /// Amounts that are weighed against each other, side by side.
    pub panels: Vec<Panel>,
    /// What follows from them, in a sentence; may be empty.
    pub conclusion: String,
    /// What the codes of its cells mean.
    pub codes: Vec<Code>,
    /// What else is to be known when they are typed; may be empty.
    pub hint: &'static str,
}

/// A code of a cell, and what it means.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = CellCode)]
pub struct Code {
    /// The code.
    pub code: &'static str,
    /// What it means.
    pub means: &'static str,
}

/// What the rules make of a cell.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct CellMade {
    /// The id of the line.
    pub row: String,
    /// The column.
    pub column: &'static str,
    /// What an empty cell reads as; empty where something was entered.
    pub reads: &'static str,
    /// How it stands.
    pub tone: Tone,
    /// Of the codes those of which the rules can say whether they are open here.
    pub open: Vec<Opening>,
}

/// Whether a code is open to a cell.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = CodeOpening)]
pub struct Opening {
    /// The code.
    pub code: &'static str,
    /// It may stand here.
    pub open: bool,
    /// Why, or why not.
    pub words: &'static str,
    /// The columns of the line into which it goes together; where there are none, into the cell alone.
    pub fills: Vec<&'static str>,
}

/// How something stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Tone {
    /// As it should be.
    Good,
    /// Not as it should be, and free of what that would cost.
    Spared,
    /// Not as it should be, and it costs.
    Costs,
}

/// One of several amounts that are weighed against each other.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Panel {
    /// What it is.
    pub title: String,
    /// How much.
    pub amount: Money,
    /// How it is reckoned.
    pub how: String,
    /// Whether it is the one that counts.
    pub rules: bool,
}

/// A column of a list that is worked out.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WorkedColumn {
    /// Its heading.
    pub label: String,
    /// The column behind which it stands.
    pub after: &'static str,
    /// What stands in it, as decimal text, by the id of the line.
    pub cells: BTreeMap<String, String>,
}

/// A result with the amounts that make it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Working {
    /// What it is about: "Sold 640".
    pub title: String,
    /// The day.
    #[serde(serialize_with = "crate::household::date::day::serialize")]
    #[schema(value_type = String)]
    pub day: Date,
    /// The amounts that make it, each with its sign.
    pub parts: Vec<Part>,
    /// What they make: "Gain".
    pub result: String,
    /// The result.
    pub amount: Money,
    /// What else is to be known of it; may be empty.
    pub note: String,
}

/// An amount that makes a result.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = WorkingPart)]
pub struct Part {
    /// What it is.
    pub label: String,
    /// How much, with its sign.
    pub amount: Money,
}

impl Part {
    /// An amount that makes a result.
    pub fn new(label: &str, amount: Money) -> Part {
        Part { label: label.into(), amount }
    }
}

/// A picture over the days: steps that hold until the next, values that grow evenly, bars, and marks at a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Picture {
    /// What it shows, in a sentence: it stands for the picture where it cannot be seen.
    pub caption: String,
    /// A value that holds from a day until the next step.
    pub steps: Vec<At>,
    /// Values between which it grows evenly from day to day.
    pub slope: Vec<At>,
    /// Amounts of a day.
    pub bars: Vec<Bar>,
    /// What is pointed out.
    pub marks: Vec<At>,
    /// Days that belong together, in the order in which they end.
    pub spans: Vec<Span>,
}

/// A value at a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct At {
    /// The day.
    #[serde(serialize_with = "crate::household::date::day::serialize")]
    #[schema(value_type = String)]
    pub day: Date,
    /// The value.
    pub value: Rate,
    /// What happened; may be empty.
    pub label: String,
}

/// An amount of a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Bar {
    /// The day.
    #[serde(serialize_with = "crate::household::date::day::serialize")]
    #[schema(value_type = String)]
    pub day: Date,
    /// The amount.
    pub value: Money,
    /// Whether it counts.
    pub counts: bool,
}

/// Days that belong together, both ends included.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Span {
    /// The first day.
    #[serde(serialize_with = "crate::household::date::day::serialize")]
    #[schema(value_type = String)]
    pub from: Date,
    /// The last day.
    #[serde(serialize_with = "crate::household::date::day::serialize")]
    #[schema(value_type = String)]
    pub to: Date,
    /// What they are.
    pub label: String,
}
