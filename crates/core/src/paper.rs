//! Kinds of papers, as a rule pack declares them.

use crate::{
    field::{Choice, Field, FieldKind, Years},
    household::{Answers, Entry, Paper, Row},
};
use hembo_money::Money;
use serde::Serialize;
use utoipa::ToSchema;

/// One kind of paper.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct PaperKind {
    /// The code that people type: the printed form number, or a word.
    pub id: &'static str,
    /// The heading under which it is offered: one of [`subject`].
    pub subject: &'static str,
    /// What it is, in words; searched as well as the code.
    pub name: &'static str,
    /// Everyday words that people look for it by, beside its code and name.
    pub words: &'static str,
    /// What its title means: "Employer", "Lender".
    pub title: &'static str,
    /// Whether several people may own it together.
    pub shared: bool,
    /// The box, or the column of rows, whose amount stands for the paper in lists; empty where it has no amounts.
    pub headline: &'static str,
    /// Its boxes in the printed order.
    pub boxes: &'static [Field],
    /// The columns of its list of receipts; empty where it has none.
    pub columns: &'static [Field],
    /// What of its list was paid back, and comes off its sum.
    pub back: Back,
    /// The return years for which there are such papers.
    pub years: Years,
    /// Whether such a paper comes again in the next year.
    pub next_year: NextYear,
}

/// The headings under which papers are offered, in their order.
#[allow(missing_docs)]
pub mod subject {
    pub const PAY: &str = "Pay";
    pub const INVESTMENTS: &str = "Interest, dividends, sales";
    pub const RETIREMENT: &str = "Retirement and benefits";
    pub const OWN_WORK: &str = "Own work and property";
    pub const OTHER_INCOME: &str = "Other income";
    pub const ADJUSTMENTS: &str = "Savings and loans";
    pub const DEDUCTIONS: &str = "Deductions";
    pub const CREDITS: &str = "Credits";
    pub const PAYMENTS: &str = "Payments, earlier years";

    /// All of them.
    pub const ALL: [&str; 9] =
        [PAY, INVESTMENTS, RETIREMENT, OWN_WORK, OTHER_INCOME, ADJUSTMENTS, DEDUCTIONS, CREDITS, PAYMENTS];
}

/// Whether a paper of a kind comes again in the next year.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum NextYear {
    /// From the same payer, about the same thing: it is carried forward empty.
    Again,
    /// A book that is kept on: its boxes and lines stay as they are.
    Whole,
    /// It is of one year; where it holds an amount carried over, the next year's is made from the outcome.
    Once,
}

/// What of a list of receipts was paid back.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Back {
    /// Nothing is.
    Nothing,
    /// A column of its own says how much of each line.
    Column(&'static str),
    /// Lines whose column says so.
    Lines {
        /// The column.
        column: &'static str,
        /// What it says.
        says: &'static str,
    },
}

/// How long a year's papers are kept, and by which rule.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Keeping {
    /// The last day, ISO 8601.
    pub until: String,
    /// The rule.
    pub cite: &'static str,
}

/// Boxes of a kind of paper whose amounts come by themselves to where another kind's papers go: shown there as counted already.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Counted {
    /// The kind beside whose papers they are shown.
    pub at: &'static str,
    /// The kind that has the boxes.
    pub from: &'static str,
    /// The boxes.
    pub boxes: &'static [&'static str],
}

/// A list with an amount under each code.
#[derive(Debug, Clone, Copy)]
pub struct Codes {
    /// The column of the code.
    pub code: &'static str,
    /// The column of the amount.
    pub amount: &'static str,
    /// What codes there are.
    pub options: &'static [Choice],
}

impl Codes {
    /// The code of a line.
    pub fn of(self, row: &Row) -> Option<&str> {
        row.get(self.code).and_then(Entry::text)
    }

    fn amount_of(self, row: &Row) -> Money {
        row.get(self.amount).and_then(Entry::money).unwrap_or_default()
    }

    /// A line.
    pub fn line(self, code: &str, amount: Entry) -> Answers {
        Answers::from([(self.code.to_owned(), Entry::Text(code.into())), (self.amount.to_owned(), amount)])
    }

    /// The line of a paper that has a code, and what it says where all of that code together are to say so much.
    pub fn line_of<'p>(self, paper: &'p Paper, code: &str, all: &Entry) -> Option<(&'p Row, Entry)> {
        let mut lines = paper.rows.iter().filter(|row| self.of(row) == Some(code));
        let first = lines.next()?;
        let others: Money = lines.map(|row| self.amount_of(row)).sum();
        Some((first, all.money().map_or_else(|| all.clone(), |all| Entry::amount(all - others))))
    }
}

impl PaperKind {
    /// The box of that id.
    pub fn field(&self, id: &str) -> Option<&Field> {
        self.boxes.iter().find(|f| f.id == id)
    }

    /// The columns of a list that has an amount under each code, and what codes there are.
    pub fn codes(&self) -> Option<Codes> {
        match self.columns {
            [code, amount] if matches!(amount.kind, FieldKind::Amount { .. }) => match code.kind {
                FieldKind::Choice { options } => Some(Codes { code: code.id, amount: amount.id, options }),
                _ => None,
            },
            _ => None,
        }
    }

    /// Its boxes, and of a list with an amount under each code every code as one: so it is issued, read and compared.
    pub fn told_fields(&self) -> Vec<Field> {
        let codes = self.codes().map_or(&[][..], |codes| codes.options);
        let coded = codes.iter().map(|code| Field::amount(code.id, "", code.label));
        self.boxes.iter().copied().chain(coded).collect()
    }

    /// What stands on a paper, by its boxes and codes.
    pub fn told(&self, paper: &Paper) -> Answers {
        let mut told = paper.boxes.clone();
        let Some(codes) = self.codes() else { return told };
        for code in codes.options {
            let lines = || paper.rows.iter().filter(|row| codes.of(row) == Some(code.id));
            if lines().next().is_some() {
                told.insert(code.id.into(), Entry::amount(lines().map(|row| codes.amount_of(row)).sum()));
            }
        }
        told
    }

    /// What proves such a paper where its law says nothing more of it.
    pub fn usual_proof(&self) -> &'static str {
        if self.columns.is_empty() {
            "The slip or statement as it came."
        } else {
            "The receipts, line by line."
        }
    }

    /// What a line of its list adds to its sum, and what of that was paid back.
    pub fn line(&self, row: &Row) -> (Money, Money) {
        let money = |column: &str| row.get(column).and_then(Entry::money).unwrap_or_default();
        let amount = money(self.headline);
        match self.back {
            Back::Lines { column, says } if row.get(column).and_then(Entry::text) == Some(says) => {
                (Money::ZERO, amount)
            }
            Back::Column(column) => (amount, money(column)),
            _ => (amount, Money::ZERO),
        }
    }

    /// The column of that id.
    pub fn column(&self, id: &str) -> Option<&Field> {
        self.columns.iter().find(|f| f.id == id)
    }
}
