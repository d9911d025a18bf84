//! A field: a box of a paper, a column of a list of receipts, or a question. A rule pack declares them once;
//! the check, the schema and the screen all read the same declaration.

use crate::{
    household::{Entry, Household},
    payer::PayerPart,
};
use serde::Serialize;
use std::fmt;
use utoipa::ToSchema;

/// One field, as a rule pack declares it.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Field {
    /// Id within its paper or among the questions; it never changes.
    pub id: &'static str,
    /// The number printed beside the box, or nothing.
    pub number: &'static str,
    /// The words beside the box, or the question.
    pub label: &'static str,
    /// What to enter, where the label is not enough.
    pub help: &'static str,
    /// What may stand in it.
    pub kind: FieldKind,
    /// An identification or account number: sealed where it is stored, hidden on the screen and in the history.
    pub secret: bool,
    /// How the digits of a number are printed, such as `00-0000000`; empty where the text has no shape.
    pub shape: &'static str,
    /// What a blank is read as, where it is not No or zero: `true`, a number, a choice's id.
    pub blank: &'static str,
    /// The return years in which it is on the form, or asked.
    pub years: Years,
    /// The answer about the household that calls for it, where only some do.
    pub only: Option<Only>,
    /// The kinds of papers that a yes calls for, by their codes.
    pub opens: &'static [&'static str],
    /// What it says holds in the next year as well, until somebody says otherwise.
    pub lasts: bool,
    /// A total that decides nothing: what else stands on the paper is compared with it.
    pub compared: bool,
    /// What of a payer it holds.
    pub payer: Option<PayerPart>,
}

/// A question about the household with the answers that call for a field.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Only {
    /// The question.
    pub question: &'static str,
    /// The choices; those of a question of yes or no are `true` and `false`.
    pub answers: &'static [&'static str],
}

/// Yes, of [`Only::answers`].
pub const YES: &[&str] = &["true"];

/// No, of [`Only::answers`].
pub const NO: &[&str] = &["false"];

/// Return years, both ends included; an end that is not named is open.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct Years {
    /// The first one.
    pub since: Option<i32>,
    /// The last one.
    pub until: Option<i32>,
}

impl Years {
    /// Every year.
    pub const ALL: Years = Years { since: None, until: None };

    /// Whether a year is one of these.
    pub fn hold(self, year: i32) -> bool {
        self.since.is_none_or(|since| since <= year) && self.until.is_none_or(|until| year <= until)
    }
}

impl fmt::Display for Years {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        match (self.since, self.until) {
            (None, None) => write!(to, "for every year"),
            (Some(since), None) => write!(to, "for {since} and later"),
            (None, Some(until)) => write!(to, "for {until} and earlier"),
            (Some(since), Some(until)) if since == until => write!(to, "for {since}"),
            (Some(since), Some(until)) => write!(to, "for {since} to {until}"),
        }
    }
}

/// What may stand in a field.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
#[serde(tag = "type", rename_all = "snake_case")]
pub enum FieldKind {
    /// An amount of money, as decimal text.
    Amount {
        /// Whether it may be below zero.
        negative: bool,
    },
    /// A whole number from zero up.
    Count {
        /// The largest number.
        max: i64,
    },
    /// A number from zero up that may have decimals, as decimal text: how many shares, a rate of exchange.
    Number {
        /// At most so many decimals, nine or fewer.
        places: u32,
    },
    /// Yes or no.
    YesNo,
    /// Words.
    Text {
        /// The longest text, in characters.
        max: usize,
    },
    /// A day.
    Date,
    /// One of a list.
    Choice {
        /// The list.
        options: &'static [Choice],
    },
    /// A person of the household, by id.
    Person,
}

/// One of a list.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct Choice {
    /// What stands in the file.
    pub id: &'static str,
    /// What stands on the screen.
    pub label: &'static str,
}

impl Choice {
    /// One of a list.
    pub const fn new(id: &'static str, label: &'static str) -> Choice {
        Choice { id, label }
    }
}

impl Field {
    const fn new(id: &'static str, number: &'static str, label: &'static str, kind: FieldKind) -> Field {
        Field {
            id,
            number,
            label,
            help: "",
            kind,
            secret: false,
            shape: "",
            blank: "",
            years: Years::ALL,
            only: None,
            opens: &[],
            lasts: false,
            compared: false,
            payer: None,
        }
    }

    /// A box for an amount that cannot be negative.
    pub const fn amount(id: &'static str, number: &'static str, label: &'static str) -> Field {
        Field::new(id, number, label, FieldKind::Amount { negative: false })
    }

    /// The same for one that may be below zero.
    pub const fn signed(id: &'static str, number: &'static str, label: &'static str) -> Field {
        Field::new(id, number, label, FieldKind::Amount { negative: true })
    }

    /// A box for a whole number.
    pub const fn count(id: &'static str, number: &'static str, label: &'static str, max: i64) -> Field {
        Field::new(id, number, label, FieldKind::Count { max })
    }

    /// A box for a number with at most so many decimals.
    pub const fn decimal(id: &'static str, number: &'static str, label: &'static str, places: u32) -> Field {
        Field::new(id, number, label, FieldKind::Number { places })
    }

    /// A box to tick.
    pub const fn yes_no(id: &'static str, number: &'static str, label: &'static str) -> Field {
        Field::new(id, number, label, FieldKind::YesNo)
    }

    /// A box for words.
    pub const fn text(id: &'static str, number: &'static str, label: &'static str, max: usize) -> Field {
        Field::new(id, number, label, FieldKind::Text { max })
    }

    /// A box for a day.
    pub const fn date(id: &'static str, number: &'static str, label: &'static str) -> Field {
        Field::new(id, number, label, FieldKind::Date)
    }

    /// A box for one of a list.
    pub const fn choice(
        id: &'static str,
        number: &'static str,
        label: &'static str,
        options: &'static [Choice],
    ) -> Field {
        Field::new(id, number, label, FieldKind::Choice { options })
    }

    /// A box for a person of the household.
    pub const fn person(id: &'static str, number: &'static str, label: &'static str) -> Field {
        Field::new(id, number, label, FieldKind::Person)
    }

    /// The same field, whose text is a secret.
    pub const fn secret(self) -> Field {
        Field { secret: true, ..self }
    }

    /// The same field, of a total that decides nothing.
    pub const fn compared(self) -> Field {
        Field { compared: true, ..self }
    }

    /// The same field, whose digits are printed in a shape: `00-0000000`.
    pub const fn shape(self, shape: &'static str) -> Field {
        Field { shape, ..self }
    }

    /// The same field, whose blank is read as something other than No or zero.
    pub const fn blank_is(self, entry: &'static str) -> Field {
        Field { blank: entry, ..self }
    }

    /// What a blank is read as; nothing for words, days and people, and for choices that say nothing of it.
    pub fn blank_entry(&self) -> Option<Entry> {
        match self.kind {
            FieldKind::YesNo => Some(Entry::Flag(self.blank == "true")),
            FieldKind::Count { .. } => Some(Entry::Count(self.blank.parse().unwrap_or(0))),
            FieldKind::Amount { .. } => Some(Entry::Text("0".into())),
            FieldKind::Choice { .. } => (!self.blank.is_empty()).then(|| Entry::Text(self.blank.into())),
            _ => None,
        }
    }

    /// The same field, from a year on.
    pub const fn since(self, year: i32) -> Field {
        Field { years: Years { since: Some(year), ..self.years }, ..self }
    }

    /// The same field, up to a year.
    pub const fn until(self, year: i32) -> Field {
        Field { years: Years { until: Some(year), ..self.years }, ..self }
    }

    /// The same field, whose entry is carried forward into the next year.
    pub const fn lasts(self) -> Field {
        Field { lasts: true, ..self }
    }

    /// The same field, which names a payer.
    pub const fn payer_name(self) -> Field {
        Field { payer: Some(PayerPart::Name), ..self }
    }

    /// The same field, which has a payer's number.
    pub const fn payer_number(self) -> Field {
        Field { payer: Some(PayerPart::Number), ..self }
    }

    /// The same field, of whose yes there are papers.
    pub const fn opens(self, papers: &'static [&'static str]) -> Field {
        Field { opens: papers, ..self }
    }

    /// The same field, for households that chose one of some answers.
    pub const fn only_for(self, question: &'static str, answers: &'static [&'static str]) -> Field {
        Field { only: Some(Only { question, answers }), ..self }
    }

    /// Whether a household is asked for it: in its year, and by its answers.
    pub fn applies(&self, household: &Household) -> bool {
        let answered = |only: Only| {
            let answer = household.answers.get(only.question);
            let said = answer
                .and_then(Entry::text)
                .or(answer.and_then(Entry::flag).map(|yes| if yes { "true" } else { "false" }));
            said.is_some_and(|said| only.answers.contains(&said))
        };
        self.years.hold(household.year) && self.only.is_none_or(answered)
    }

    /// The same field with words that help.
    pub const fn help(self, help: &'static str) -> Field {
        Field { help, ..self }
    }
}
