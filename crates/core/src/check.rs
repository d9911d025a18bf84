//! Whether a household can be worked with at all. A household with faults is never stored and never reckoned;
//! each fault names its place and what to do.

use crate::{
    field::{Field, FieldKind},
    held::Held,
    household::{Answers, Before, Entry, FORMAT, Household, Paper, Person, Role, SlipFile},
    pack::{Pack, Registry},
    paper::PaperKind,
};
use hembo_money::{Money, ParseMoneyError, Rate};
use serde::{Deserialize, Serialize};
use std::{collections::BTreeSet, fmt};
use time::Date;
use utoipa::ToSchema;

/// How many results of the year before are kept.
const MOST_RESULTS: usize = 40;
/// The most people a household may have.
pub const MOST_PEOPLE: usize = 20;
/// The most papers.
pub const MOST_PAPERS: usize = 500;
/// The most lines in a list of receipts.
pub const MOST_ROWS: usize = 2_000;
/// The most files of a paper.
pub const MOST_FILES: usize = 20;
/// The most lines in all lists of a household together.
pub const MOST_ROWS_TOGETHER: usize = 50_000;
/// The largest amount in a box: so small that no sum over all boxes and lines comes near the end of [`Money`].
pub const LARGEST_AMOUNT: Money = Money::from_cents(999_999_999_999);
/// The largest file, in bytes.
pub const LARGEST_FILE: usize = 4 * 1024 * 1024;
const MOST_RETIRED: usize = 20_000;
/// How many characters a name has at the most.
pub const LONGEST_NAME: usize = 120;
/// How many characters the practice's own number of a household has at the most.
pub const LONGEST_REFERENCE: usize = 40;
/// How many characters a reason has at the most.
pub const LONGEST_REASON: usize = 500;
const OLDEST: i32 = 130;

/// Something that cannot be right.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
pub struct Fault {
    /// Where, as a path into the household file: `/papers/2/boxes/1`.
    pub at: String,
    /// What is wrong and what would be right.
    pub message: String,
}

impl Fault {
    /// Something that cannot be right at a place.
    pub fn new(at: impl Into<String>, message: impl Into<String>) -> Fault {
        Fault { at: at.into(), message: message.into() }
    }
}

/// Everything that cannot be right about a household.
pub fn faults(household: &Household, registry: &Registry) -> Vec<Fault> {
    let Some(pack) = registry.pack(&household.country) else {
        let known: Vec<_> = registry.packs().map(|p| p.about().id).collect();
        let message = format!("No rules for country '{}'; known: {}.", household.country, known.join(", "));
        return vec![Fault::new("/country", message)];
    };
    if !pack.years().contains(&household.year) {
        let known: Vec<_> = pack.years().iter().map(i32::to_string).collect();
        let message = format!("No rule figures for {}; known years: {}.", household.year, known.join(", "));
        return vec![Fault::new("/year", message)];
    }
    let mut check = Check { household, pack, faults: Vec::new() };
    check.whole();
    check.people();
    check.papers();
    check.faults
}

/// Whether an entry can stand in a field.
///
/// # Errors
/// Why it cannot, and what could.
pub fn entry(field: &Field, entry: &Entry, household: &Household, pack: &dyn Pack) -> Result<(), String> {
    Check { household, pack, faults: Vec::new() }.entry(field, entry)
}

struct Check<'a> {
    household: &'a Household,
    pack: &'a dyn Pack,
    faults: Vec<Fault>,
}

impl Check<'_> {
    fn fault(&mut self, at: impl Into<String>, message: impl Into<String>) {
        self.faults.push(Fault::new(at, message));
    }

    fn whole(&mut self) {
        let household = self.household;
        if household.hembo != FORMAT {
            self.fault("/hembo", format!("This program reads format {FORMAT}, not {}.", household.hembo));
        }
        self.name("/name", &household.name, "The household");
        if household.reference.chars().count() > LONGEST_REFERENCE {
            let message = format!("A household's own number has at most {LONGEST_REFERENCE} characters.");
            self.fault("/reference", message);
        }
        self.plain_text("/reference", &household.reference);
        let filers = household.filers().count();
        if !(1..=2).contains(&filers) {
            self.fault(
                "/people",
                format!("A household has one or two filers, not {filers}: set a person's role to filer."),
            );
        }
        if household.people.len() > MOST_PEOPLE {
            self.fault("/people", format!("A household has at most {MOST_PEOPLE} people."));
        }
        if household.papers.len() > MOST_PAPERS {
            self.fault("/papers", format!("A household has at most {MOST_PAPERS} papers."));
        }
        self.answers(format_args!("/answers"), self.pack.household_questions().iter(), &household.answers);
        let rows: usize = household.papers.iter().map(|p| p.rows.len()).sum();
        if rows > MOST_ROWS_TOGETHER {
            let message =
                format!("All lists together have {rows} lines; at most {MOST_ROWS_TOGETHER} are possible.");
            self.fault("/papers", message);
        }
        if household.retired.len() > MOST_RETIRED {
            self.fault("/retired", format!("At most {MOST_RETIRED} ids of removed papers are kept."));
        }
        if let Some(before) = &household.before {
            self.last_year(before);
        }
        for (line, worth) in &household.worth {
            let at = format!("/worth/{}", line.escape_default());
            if !self.pack.declared().carries.iter().any(|carry| carry.line == line && carry.leaves()) {
                self.fault(&at, "Nothing of this line is left to later years.");
            }
            if *worth > Rate::ONE {
                self.fault(at, "A unit is worth one at the most: write 0.25 for a quarter of it.");
            }
        }
        let pins = household.pins.iter().map(|(key, value)| ("/pins", key, value));
        let why = household.pin_reasons.iter().map(|(key, value)| ("/pin_reasons", key, value));
        let reasons = household.dismissed.iter().map(|(key, value)| ("/dismissed", key, &value.reason));
        let refused = household.refused.iter().map(|(key, value)| ("/refused", key, &value.reason));
        if household.refused.len() > MOST_PAPERS {
            self.fault("/refused", format!("At most {MOST_PAPERS} refused slips are kept."));
        }
        if household.pin_reasons.keys().any(|decision| !household.pins.contains_key(decision)) {
            self.fault("/pin_reasons", "A reason is given for what is held alone.");
        }
        for (at, key, value) in pins.chain(why).chain(reasons).chain(refused) {
            if key.chars().count() > LONGEST_NAME * 2 || value.chars().count() > LONGEST_REASON {
                let message = format!("A pin or a reason is too long: at most {LONGEST_REASON} characters.");
                self.fault(at, message);
            }
            for text in [key, value] {
                self.plain_text(&format!("{at}/{}", key.escape_default()), text);
            }
        }
    }

    fn last_year(&mut self, before: &Before) {
        if before.year != self.household.year - 1 {
            self.fault("/before/year", format!("The year before is {}.", self.household.year - 1));
        }
        let filed = before.filed.iter().map(|(person, what)| ("/before/filed", person, what.as_str()));
        let results = before.results.keys().chain(before.left.keys()).map(|row| ("/before/results", row, ""));
        let of_two = before.of_two.iter().map(|paper| ("/before/of_two", paper, ""));
        for (at, key, text) in filed.chain(results).chain(of_two) {
            if key.chars().count() > LONGEST_NAME || text.chars().count() > LONGEST_NAME {
                self.fault(at, format!("At most {LONGEST_NAME} characters are possible here."));
            }
            self.plain_text(at, key);
            self.plain_text(at, text);
        }
        let many = before.results.len() + before.left.len() + before.of_two.len();
        if before.filed.len() > MOST_PEOPLE || many > MOST_RESULTS {
            self.fault("/before", "There is more of the year before than a return has.");
        }
    }

    fn name(&mut self, at: &str, name: &str, whose: &str) {
        if name.trim().is_empty() || name.chars().count() > LONGEST_NAME {
            self.fault(at, format!("{whose} needs a name of 1 to {LONGEST_NAME} characters."));
        } else if !name.chars().any(char::is_alphanumeric) {
            self.fault(at, format!("{whose} needs a name that can be read: at least one letter or digit."));
        }
        self.plain_text(at, name);
    }

    /// Text has no control characters: some cannot be stored, none can be seen.
    fn plain_text(&mut self, at: &str, text: &str) {
        if let Some(found) = text.chars().find(|c| c.is_control()) {
            let message =
                format!("There is a character that cannot be seen (U+{:04X}): remove it.", u32::from(found));
            self.fault(at, message);
        }
    }

    /// An id that is the only one of its kind; `at` is what has it.
    fn id<'f>(&mut self, at: fmt::Arguments<'_>, id: &'f str, seen: &mut BTreeSet<&'f str>) {
        let plain = |c: char| c.is_ascii_alphanumeric() || c == '-' || c == '_';
        if id.is_empty() || id.len() > 40 || !id.chars().all(plain) {
            self.fault(format!("{at}/id"), "An id has 1 to 40 letters, digits, '-' or '_'.");
        }
        if !seen.insert(id) {
            self.fault(format!("{at}/id"), format!("The id '{id}' stands here twice."));
        }
    }

    fn people(&mut self) {
        let mut seen = BTreeSet::new();
        let mut numbers = BTreeSet::new();
        for (i, person) in self.household.people.iter().enumerate() {
            let at = format!("/people/{i}");
            self.id(format_args!("{at}"), &person.id, &mut seen);
            self.name(&format!("{at}/name"), &person.name, "A person");
            self.dates(&at, person);
            self.lived_with(&at, person);
            if let Some(number) = &person.id_number {
                if let Err(why) = self.pack.check_id_number(number) {
                    self.fault(format!("{at}/id_number"), why);
                } else if !numbers.insert(digits(number)) {
                    self.fault(format!("{at}/id_number"), "Two people carry the same number.");
                }
            }
            let role = person.role;
            let asked = self.pack.person_questions().iter().filter(move |q| q.of.contains(&role));
            self.answers(format_args!("{at}/answers"), asked.map(|q| &q.field), &person.answers);
        }
    }

    fn dates(&mut self, at: &str, person: &Person) {
        let (_, end) = self.pack.span(self.household.year);
        if let Some(born) = person.born {
            if born > end {
                self.fault(format!("{at}/born"), format!("{} was born after the return year.", person.name));
            } else if born.year() < end.year() - OLDEST {
                self.fault(
                    format!("{at}/born"),
                    format!("{} would be over {OLDEST} years old.", person.name),
                );
            }
        }
        if let Some(died) = person.died {
            if person.born.is_some_and(|born| died < born) {
                self.fault(format!("{at}/died"), "The date of death is before the date of birth.");
            } else if died.year() > end.year() + 2 {
                self.fault(format!("{at}/died"), "The date of death lies too far ahead.");
            }
        }
    }

    fn lived_with(&mut self, at: &str, person: &Person) {
        for (with, months) in &person.lived_with {
            let at = format!("{at}/lived_with/{with}");
            match self.household.person(with) {
                None => self.fault(at, format!("There is no person '{with}'.")),
                Some(other) if other.role != Role::Filer => {
                    self.fault(at, "Months are counted with filers only.");
                }
                Some(_) if *months > 12 => self.fault(at, "A year has at most 12 months."),
                Some(_) => {}
            }
        }
    }

    fn papers(&mut self) {
        let mut seen = BTreeSet::new();
        for (i, paper) in self.household.papers.iter().enumerate() {
            let at = format!("/papers/{i}");
            self.id(format_args!("{at}"), &paper.id, &mut seen);
            if paper.title.chars().count() > LONGEST_NAME {
                self.fault(format!("{at}/title"), format!("A title has at most {LONGEST_NAME} characters."));
            }
            self.plain_text(&format!("{at}/title"), &paper.title);
            let Some(kind) = self.pack.paper_kinds().iter().find(|k| k.id == paper.kind) else {
                self.fault(format!("{at}/kind"), format!("There is no kind of paper '{}'.", paper.kind));
                continue;
            };
            if !kind.years.hold(self.household.year) {
                self.fault(format!("{at}/kind"), format!("A {} is {} only.", kind.id, kind.years));
            }
            self.owners(&at, paper, kind);
            self.answers(format_args!("{at}/boxes"), kind.boxes.iter(), &paper.boxes);
            self.years(format_args!("{at}/boxes"), kind.boxes, &paper.boxes);
            self.before(&at, paper, kind);
            if let Some(held) = &paper.held {
                self.held(&at, held, kind);
            }
            self.files(&at, &paper.files);
            if !paper.rows.is_empty() && kind.columns.is_empty() {
                self.fault(format!("{at}/rows"), format!("A {} has boxes, not a list.", kind.id));
            }
            if paper.rows.len() > MOST_ROWS {
                self.fault(format!("{at}/rows"), format!("A list has at most {MOST_ROWS} lines."));
            }
            let mut seen = BTreeSet::new();
            for (r, row) in paper.rows.iter().enumerate() {
                self.id(format_args!("{at}/rows/{r}"), &row.id, &mut seen);
                self.answers(format_args!("{at}/rows/{r}"), kind.columns.iter(), row);
                self.years(format_args!("{at}/rows/{r}"), kind.columns, row);
            }
        }
    }

    /// Last year's amounts: of boxes, or the sum of a column.
    fn before(&mut self, at: &str, paper: &Paper, kind: &PaperKind) {
        let fields = kind.boxes.iter().chain(kind.columns);
        let amounts = fields.filter(|field| matches!(field.kind, FieldKind::Amount { .. }));
        self.answers(format_args!("{at}/before"), amounts, &paper.before);
    }

    /// What the authority or the payer holds of a paper: no secrets, and no texts that only a paper has.
    fn held(&mut self, at: &str, held: &Held, kind: &PaperKind) {
        let at = format!("{at}/held");
        let told = kind.told_fields();
        let open = told.iter().filter(|field| !field.secret);
        self.answers(format_args!("{at}/boxes"), open, &held.boxes);
        let is_list = !kind.columns.is_empty() && kind.codes().is_none();
        if held.rows.len() > MOST_ROWS || (!held.rows.is_empty() && !is_list) {
            self.fault(
                format!("{at}/rows"),
                "Lines are held of lists only, and amounts under codes as boxes.",
            );
        }
        for (r, row) in held.rows.iter().enumerate() {
            self.answers(format_args!("{at}/rows/{r}"), kind.columns.iter(), row);
        }
        let short = [("slip", held.slip.as_str(), LONGEST_NAME), ("by", &held.by, LONGEST_NAME)];
        let kept = held.kept.as_deref().map(|kept| ("kept", kept, LONGEST_REASON));
        for (part, text, most) in short.into_iter().chain(kept) {
            if text.trim().is_empty() || text.chars().count() > most {
                self.fault(format!("{at}/{part}"), format!("1 to {most} characters are possible here."));
            }
            self.plain_text(&format!("{at}/{part}"), text);
        }
    }

    /// The files of a paper.
    fn files(&mut self, at: &str, files: &[SlipFile]) {
        if files.len() > MOST_FILES {
            self.fault(format!("{at}/files"), format!("A paper has at most {MOST_FILES} files."));
        }
        let mut seen = BTreeSet::new();
        for (n, file) in files.iter().enumerate() {
            let at = format!("{at}/files/{n}");
            let hash = file.id.len() == 64 && file.id.bytes().all(|b| b"0123456789abcdef".contains(&b));
            if !hash || !seen.insert(&file.id) {
                self.fault(format!("{at}/id"), "A file is told by its SHA-256, and stands here once.");
            }
            if file.name.trim().is_empty() || file.name.chars().count() > LONGEST_NAME {
                self.fault(
                    format!("{at}/name"),
                    format!("1 to {LONGEST_NAME} characters are possible here."),
                );
            }
            self.plain_text(&format!("{at}/name"), &file.name);
        }
    }

    fn owners(&mut self, at: &str, paper: &Paper, kind: &PaperKind) {
        let at = format!("{at}/owners");
        let people: BTreeSet<_> = paper.owners.iter().map(|o| &o.person).collect();
        for owner in &paper.owners {
            if self.household.person(&owner.person).is_none() {
                self.fault(&at, format!("There is no person '{}'.", owner.person));
            }
        }
        if people.len() != paper.owners.len() {
            self.fault(&at, "A person stands among the owners twice.");
        }
        if !kind.shared && paper.owners.len() != 1 {
            self.fault(&at, format!("A {} belongs to exactly one person.", kind.id));
        }
        let hundred: i64 = paper.owners.iter().map(|o| o.percent.billionths()).sum();
        if hundred != 100 * Rate::ONE.billionths() {
            let sum = Rate::from_billionths(hundred);
            self.fault(&at, format!("The owners' shares add up to {sum} %, not to 100 %."));
        }
    }

    fn answers<'f>(
        &mut self,
        at: fmt::Arguments<'_>,
        fields: impl Iterator<Item = &'f Field> + Clone,
        answers: &Answers,
    ) {
        for (id, entry) in answers {
            // The place is written only where there is a fault: a list has thousands of cells.
            let wrong = match fields.clone().find(|f| f.id == id) {
                None => Err(format!("There is no box or question '{id}' here.")),
                Some(field) => self.entry(field, entry).map_err(|why| format!("{}: {why}", field.label)),
            };
            if let Err(why) = wrong {
                self.fault(format!("{at}/{id}"), why);
            }
        }
    }

    /// A box that the year's form does not have. An answer to what is not asked for the year does no harm: it is kept
    /// and not read.
    fn years(&mut self, at: fmt::Arguments<'_>, fields: &[Field], entries: &Answers) {
        let year = self.household.year;
        for field in fields.iter().filter(|f| !f.years.hold(year) && entries.contains_key(f.id)) {
            self.fault(
                format!("{at}/{}", field.id),
                format!("{}: this is {} only.", field.label, field.years),
            );
        }
    }

    fn entry(&self, field: &Field, entry: &Entry) -> Result<(), String> {
        match (field.kind, entry) {
            (FieldKind::Amount { negative }, Entry::Text(text)) => {
                let amount: Money = text.parse().map_err(|error| no_amount(text, &error))?;
                if amount.is_negative() && !negative {
                    return Err("a negative amount is not possible in this box".into());
                }
                if amount.max(-amount) > LARGEST_AMOUNT {
                    return Err(format!("at most {LARGEST_AMOUNT:#} is possible in a box"));
                }
                Ok(())
            }
            (FieldKind::Amount { .. }, _) => Err("an amount is decimal text, such as \"1234.56\"".into()),
            (FieldKind::Count { max }, Entry::Count(n)) if (0..=max).contains(n) => Ok(()),
            (FieldKind::Count { max }, _) => Err(format!("a whole number from 0 to {max}")),
            (FieldKind::Number { places }, Entry::Text(text)) if is_number(text, places) => Ok(()),
            (FieldKind::Number { places }, _) => {
                Err(format!("a number from 0 up with at most {places} decimals, such as \"12.5\""))
            }
            (FieldKind::YesNo, Entry::Flag(_)) => Ok(()),
            (FieldKind::YesNo, _) => Err("yes or no (true or false)".into()),
            (FieldKind::Text { .. }, Entry::Text(text)) if text.chars().any(char::is_control) => {
                Err("there is a character that cannot be seen: remove it".into())
            }
            (FieldKind::Text { max }, Entry::Text(text)) if text.chars().count() <= max => Ok(()),
            (FieldKind::Text { max }, _) => Err(format!("text of at most {max} characters")),
            (FieldKind::Date, entry) => self.day(entry.date()),
            (FieldKind::Choice { options }, Entry::Text(text)) if options.iter().any(|o| o.id == text) => {
                Ok(())
            }
            (FieldKind::Choice { options }, _) => {
                let ids: Vec<_> = options.iter().map(|o| o.id).collect();
                Err(format!("one of {}", ids.join(", ")))
            }
            (FieldKind::Person, Entry::Text(id)) if self.household.person(id).is_some() => Ok(()),
            (FieldKind::Person, _) => Err("the id of a person of this household".into()),
        }
    }

    fn day(&self, date: Option<Date>) -> Result<(), String> {
        let (_, end) = self.pack.span(self.household.year);
        match date {
            Some(date) if (1900..=end.year() + 2).contains(&date.year()) => Ok(()),
            Some(_) => Err(format!("a day between 1900 and {}", end.year() + 2)),
            None => Err("a day such as 2025-03-31".into()),
        }
    }
}

/// Whether the last of these digits checks the others by the Luhn formula (ISO/IEC 7812-1): from the right every
/// second digit counts double, its own digits added, and the sum ends in zero.
///
/// ```
/// assert!(hembo_core::check::luhn("046454286"));
/// assert!(!hembo_core::check::luhn("046454287"));
/// ```
pub fn luhn(digits: &str) -> bool {
    let values = digits.bytes().rev().map(|b| u32::from(b.wrapping_sub(b'0')));
    let counted = |(place, digit): (usize, u32)| match (place % 2, digit) {
        (0, _) | (_, 9) => digit,
        _ => digit * 2 % 9,
    };
    digits.bytes().all(|b| b.is_ascii_digit()) && values.enumerate().map(counted).sum::<u32>() % 10 == 0
}

/// A number without the marks people put between its digits.
pub fn digits(number: &str) -> String {
    number.chars().filter(char::is_ascii_alphanumeric).collect()
}

/// Whether a text is a number from zero up with at most so many decimals.
fn is_number(text: &str, places: u32) -> bool {
    let decimals = text.split_once('.').map_or(0, |(_, decimals)| decimals.len());
    text.parse::<Rate>().is_ok() && decimals <= places as usize
}

/// Why a text is no amount, with what could be meant where its groups are not of three.
fn no_amount(text: &str, error: &ParseMoneyError) -> String {
    let digits = |s: &str| !s.is_empty() && s.bytes().all(|b| b.is_ascii_digit());
    let meant = text.rsplit_once([',', ' ']).filter(|(units, places)| {
        let units = units.strip_prefix('-').unwrap_or(units);
        digits(&units.replace([',', ' '], "")) && digits(places) && places.len() < 3
    });
    let Some((units, places)) = meant else { return error.to_string() };
    let units = units.replace([',', ' '], "");
    let read = |text: String| text.parse::<Money>().map(|amount| format!("{amount:#}"));
    match (format!("{units}.{places}").parse::<Money>(), read(format!("{units}{places}"))) {
        (Ok(small), Ok(large)) => {
            format!("{small} or {large}? Decimals follow a point, thousands are three digits")
        }
        _ => error.to_string(),
    }
}
