//! The household and its papers, as they stand in a file, in the database and on the screen.
//!
//! This is the open format: field by field it is described by [`crate::schema`]. Unknown fields are refused.

use crate::held::Held;
use hembo_money::{Money, Rate};
use serde::{
    Deserialize, Deserializer, Serialize,
    de::{self, Unexpected, Visitor},
};
use std::{
    collections::{BTreeMap, BTreeSet},
    fmt,
    ops::Deref,
};
use time::Date;
use utoipa::ToSchema;

/// The version of the household format that this program reads and writes.
pub const FORMAT: u32 = 1;

/// A household in one return year.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Household {
    /// The version of this format: 1.
    pub hembo: u32,
    /// The rule pack: a country's short name, such as `us`.
    pub country: String,
    /// The return year, by the calendar year in which it begins or which it is named after in that country.
    pub year: i32,
    /// What the household is called in lists.
    pub name: String,
    /// The practice's own number of it; may be left out.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub reference: String,
    /// Everyone in the household.
    pub people: Vec<Person>,
    /// Answers to the country's questions about the household as a whole.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub answers: Answers,
    /// Everything with figures that came in.
    #[serde(default)]
    pub papers: Vec<Paper>,
    /// Options held by the preparer: decision → option.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub pins: BTreeMap<String, String>,
    /// Why they are held, where somebody said: decision → reason. Printed with the way.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub pin_reasons: BTreeMap<String, String>,
    /// What a unit of what is left to later years is worth to the preparer, at most one: line → value.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub worth: BTreeMap<String, Rate>,
    /// Open points put aside: point → reason.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub dismissed: BTreeMap<String, Dismissal>,
    /// Slips that the authority or a payer offers and that were refused: slip → reason.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub refused: BTreeMap<String, Dismissal>,
    /// The ids of papers that were removed: none of them is used again.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub retired: BTreeSet<String>,
    /// What the year before came to, of a household that was carried forward.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub before: Option<Before>,
}

/// What the year before came to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Before {
    /// The return year.
    pub year: i32,
    /// What each person filed: person → "joint".
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub filed: BTreeMap<String, String>,
    /// What was taken of each decision between options: decision → option.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub taken: BTreeMap<String, String>,
    /// The results of the Spread for all together: row → amount.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub results: BTreeMap<String, Money>,
    /// What it left over that goes into papers of which the preparer knows which: line → amount.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub left: BTreeMap<String, Money>,
    /// The papers in which it put what a return of two left: how much of it is whose, only the preparer knows.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub of_two: BTreeSet<String>,
    /// Its figures were no result when it was carried forward.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub no_result: bool,
}

/// Why an open point was put aside, and about what it was. In a file the reason may stand alone.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(from = "DismissalInFile")]
pub struct Dismissal {
    /// The reason.
    pub reason: String,
    /// A fingerprint of the facts that the point was about: when they change, the point is open again.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub about: Option<String>,
}

#[derive(Deserialize)]
#[serde(untagged)]
enum DismissalInFile {
    Reason(String),
    Whole(DismissalParts),
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct DismissalParts {
    reason: String,
    about: Option<String>,
}

impl From<DismissalInFile> for Dismissal {
    fn from(file: DismissalInFile) -> Dismissal {
        match file {
            DismissalInFile::Reason(reason) => Dismissal { reason, about: None },
            DismissalInFile::Whole(DismissalParts { reason, about }) => Dismissal { reason, about },
        }
    }
}

/// One person of a household.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Person {
    /// Short name within the file, such as `ines`; papers point at it.
    pub id: String,
    /// Name as on the card of the authority.
    pub name: String,
    /// What the person is in this household.
    pub role: Role,
    /// Date of birth.
    #[serde(default, with = "date::option", skip_serializing_if = "Option::is_none")]
    pub born: Option<Date>,
    /// Date of death.
    #[serde(default, with = "date::option", skip_serializing_if = "Option::is_none")]
    pub died: Option<Date>,
    /// The country's identification number.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub id_number: Option<String>,
    /// Months of the year lived in the same home with each filer: person → 0 to 12. A month counts that was
    /// begun together; temporary absence is living there.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub lived_with: BTreeMap<String, u8>,
    /// Answers to the country's questions about a person.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub answers: Answers,
}

/// What a person is in the household.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Role {
    /// Files a return here; a household has one or two.
    Filer,
    /// May depend on a filer.
    Dependent,
}

/// Answers by the id of their question.
pub type Answers = BTreeMap<String, Entry>;

/// What stands in a box or answers a question: yes or no, a whole number, or text. Amounts are decimal text
/// (`"71240.00"`), dates are ISO 8601 text (`"2025-03-31"`), choices are the option's id.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(untagged)]
pub enum Entry {
    /// Yes or no.
    Flag(bool),
    /// A whole number: months, miles, a year.
    Count(i64),
    /// An amount, a date, a choice, a person's id, or words.
    Text(String),
}

/// Read by what it is, without trying one after the other: entries are most of what a state is made of.
impl<'de> Deserialize<'de> for Entry {
    fn deserialize<D: Deserializer<'de>>(from: D) -> Result<Entry, D::Error> {
        from.deserialize_any(ReadEntry)
    }
}

struct ReadEntry;

impl Visitor<'_> for ReadEntry {
    type Value = Entry;

    fn expecting(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        to.write_str(ENTRY_EXPECTED)
    }

    fn visit_bool<E: de::Error>(self, flag: bool) -> Result<Entry, E> {
        Ok(Entry::Flag(flag))
    }

    fn visit_i64<E: de::Error>(self, count: i64) -> Result<Entry, E> {
        Ok(Entry::Count(count))
    }

    fn visit_u64<E: de::Error>(self, count: u64) -> Result<Entry, E> {
        let most = i64::try_from(count).map_err(|_| E::invalid_value(Unexpected::Unsigned(count), &self));
        most.map(Entry::Count)
    }

    fn visit_str<E: de::Error>(self, text: &str) -> Result<Entry, E> {
        Ok(Entry::Text(text.to_owned()))
    }

    fn visit_string<E: de::Error>(self, text: String) -> Result<Entry, E> {
        Ok(Entry::Text(text))
    }
}

/// What an entry may be, as a refusal tells it.
pub(crate) const ENTRY_EXPECTED: &str = "text, a whole number, or true or false";

/// One paper: an official slip, or a list of receipts.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Paper {
    /// Short name within the file.
    pub id: String,
    /// The kind, by its code, such as the printed form number.
    pub kind: String,
    /// Who issued it, or what it is about.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub title: String,
    /// Whose it is: the owners' shares in per cent add up to 100.
    pub owners: Vec<Share>,
    /// What stands in the boxes.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub boxes: Answers,
    /// The lines of a list of receipts.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub rows: Vec<Row>,
    /// How many ids of lines were given out: none of them is used again.
    #[serde(default, skip_serializing_if = "is_zero")]
    pub rows_made: u32,
    /// Checked against the original.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub checked: bool,
    /// What proves it is at hand: the original slip, the receipts.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub proof: bool,
    /// By line of its list, where it is otherwise: whether what proves that one is at hand.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub proven: BTreeMap<String, bool>,
    /// The boxes that changed since it was checked, `owners` and `rows` for its owners and its list: it counts as not checked.
    #[serde(default, skip_serializing_if = "BTreeSet::is_empty")]
    pub changed: BTreeSet<String>,
    /// The amounts of the year before, of a paper that was carried forward: by box, of a list its sum under the column.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub before: Answers,
    /// What the authority or the payer holds of it, where it was fetched.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub held: Option<Held>,
    /// The slips that were added to it as files.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub files: Vec<SlipFile>,
}

/// A slip as a file: a PDF or a picture. Its pages are kept by the server, not in the household's file.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SlipFile {
    /// What tells it: the SHA-256 of its bytes, in hexadecimal digits.
    pub id: String,
    /// What it was called when it was added.
    pub name: String,
    /// How many pages it has.
    pub pages: u32,
}

fn is_zero(count: &u32) -> bool {
    *count == 0
}

/// A line of a list: its cells by column, under an id of its own. A file may leave the id out; it is given one.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
#[schema(as = PaperRow)]
pub struct Row {
    /// Short name within the paper, such as `r3`.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub id: String,
    /// What stands in the columns.
    #[serde(flatten)]
    pub cells: Answers,
}

impl Deref for Row {
    type Target = Answers;

    fn deref(&self) -> &Answers {
        &self.cells
    }
}

/// One owner of a paper.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Share {
    /// The person's id.
    pub person: String,
    /// The share in per cent, as decimal text: `"50"`.
    pub percent: Rate,
}

/// How dates stand in files: `2025-03-31`.
pub mod date {
    use time::{Date, format_description::BorrowedFormatItem, macros::format_description};

    const ISO: &[BorrowedFormatItem<'_>] = format_description!("[year]-[month]-[day]");
    #[allow(missing_docs)]
    mod serde_iso {
        time::serde::format_description!(iso, Date, "[year]-[month]-[day]");

        pub mod day {
            //! A date.
            pub use super::iso::{deserialize, serialize};
        }

        pub mod option {
            //! A date that may be left out.
            pub use super::iso::option::{deserialize, serialize};
        }
    }
    pub use serde_iso::{day, option};

    /// A date from its ISO 8601 text, if there is such a day.
    pub fn parse(text: &str) -> Option<Date> {
        Date::parse(text, ISO).ok()
    }
}

impl Household {
    /// Gives an id to every line of a list that has none.
    pub fn name_rows(&mut self) {
        for paper in &mut self.papers {
            paper.name_rows();
        }
    }

    /// The person of that id.
    pub fn person(&self, id: &str) -> Option<&Person> {
        self.people.iter().find(|p| p.id == id)
    }

    /// The place of a person among the people.
    pub fn index_of(&self, id: &str) -> Option<usize> {
        self.people.iter().position(|p| p.id == id)
    }

    /// The paper of that id.
    pub fn paper(&self, id: &str) -> Option<&Paper> {
        self.papers.iter().find(|p| p.id == id)
    }

    /// The same household with another entry in a box of a paper.
    pub fn with_entry(&self, paper: &str, field: &str, entry: Entry) -> Household {
        self.with_cell(paper, None, field, entry)
    }

    /// The same household with another entry in a cell of a paper's list, or where no line is named, in a box.
    pub fn with_cell(&self, paper: &str, row: Option<&str>, field: &str, entry: Entry) -> Household {
        let mut changed = self.clone();
        let paper = changed.papers.iter_mut().find(|p| p.id == paper);
        let entries = paper.and_then(|paper| match row {
            None => Some(&mut paper.boxes),
            Some(row) => paper.rows.iter_mut().find(|r| r.id == row).map(|row| &mut row.cells),
        });
        if let Some(entries) = entries {
            entries.insert(field.into(), entry);
        }
        changed
    }

    /// Those who file, in the order of the file.
    pub fn filers(&self) -> impl Iterator<Item = (usize, &Person)> {
        self.people.iter().enumerate().filter(|(_, p)| p.role == Role::Filer)
    }
}

impl Entry {
    /// An amount as it is entered.
    pub fn amount(amount: Money) -> Entry {
        Entry::Text(amount.to_string())
    }

    /// The amount, if this is one.
    pub fn money(&self) -> Option<Money> {
        self.text()?.parse().ok()
    }

    /// The number with decimals, if this is one.
    pub fn decimal(&self) -> Option<Rate> {
        self.text()?.parse().ok()
    }

    /// The date, if this is one.
    pub fn date(&self) -> Option<Date> {
        date::parse(self.text()?)
    }

    /// The text of an amount, date, choice or words.
    pub fn text(&self) -> Option<&str> {
        match self {
            Entry::Text(text) => Some(text),
            _ => None,
        }
    }

    /// The whole number, if this is one.
    pub fn count(&self) -> Option<i64> {
        match self {
            Entry::Count(count) => Some(*count),
            _ => None,
        }
    }

    /// Yes or no, if this is one.
    pub fn flag(&self) -> Option<bool> {
        match self {
            Entry::Flag(flag) => Some(*flag),
            _ => None,
        }
    }
}

impl Paper {
    /// An empty paper of one person.
    pub fn new(id: impl Into<String>, kind: &str, person: &str) -> Paper {
        let whole = Rate::from_billionths(100 * Rate::ONE.billionths());
        Paper {
            id: id.into(),
            kind: kind.into(),
            title: String::new(),
            owners: vec![Share { person: person.into(), percent: whole }],
            boxes: Answers::new(),
            rows: Vec::new(),
            rows_made: 0,
            checked: false,
            proof: false,
            proven: BTreeMap::new(),
            changed: BTreeSet::new(),
            before: Answers::new(),
            held: None,
            files: Vec::new(),
        }
    }

    /// The line of that id.
    pub fn row(&self, id: &str) -> Option<&Row> {
        self.rows.iter().find(|r| r.id == id)
    }

    pub(crate) fn name_rows(&mut self) {
        let number = |row: &Row| row.id.strip_prefix('r').and_then(|n| n.parse::<u32>().ok());
        let largest = self.rows.iter().filter_map(number).max().unwrap_or(0);
        let mut made = self.rows_made.max(largest);
        for row in self.rows.iter_mut().filter(|r| r.id.is_empty()) {
            made += 1;
            row.id = format!("r{made}");
        }
        self.rows_made = if self.rows.is_empty() { self.rows_made } else { made };
    }

    /// Whether what proves a line is at hand.
    pub fn is_proven(&self, row: &str) -> bool {
        self.proven.get(row).copied().unwrap_or(self.proof)
    }

    /// Whether it was checked against the original as it stands.
    pub fn is_checked(&self) -> bool {
        self.checked && self.changed.is_empty()
    }

    /// Notes where a checked paper changed.
    pub(crate) fn note_change(&mut self, place: &str) {
        if self.checked {
            self.changed.insert(place.into());
        }
    }

    /// Adds a line, under a given id or the next that was never used.
    pub fn add_row(&mut self, id: Option<String>, cells: Answers) {
        self.rows.push(Row { id: id.unwrap_or_default(), cells });
        self.name_rows();
    }

    /// The amount in a box; zero where it is empty.
    pub fn amount(&self, field: &str) -> Money {
        self.boxes.get(field).and_then(Entry::money).unwrap_or_default()
    }

    /// The text in a box, if any.
    pub fn text(&self, field: &str) -> Option<&str> {
        self.boxes.get(field).and_then(Entry::text)
    }

    /// Whether a yes/no box says yes.
    pub fn flag(&self, field: &str) -> bool {
        self.boxes.get(field).and_then(Entry::flag).unwrap_or(false)
    }
}
