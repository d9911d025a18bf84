//! Official forms of a year, as data: which line stands where, under which number and short title.

use crate::provision::Declared;
use hembo_money::Money;
use serde::Deserialize;
use std::{
    borrow::Cow,
    collections::{HashMap, HashSet},
};

/// The forms of one year in official order: `forms/YEAR.toml` of a pack.
#[derive(Debug, Deserialize)]
#[serde(from = "File")]
pub struct Forms {
    /// The tax year.
    pub year: i32,
    /// The forms, in the order in which they are filed.
    pub forms: Vec<Form>,
    /// How results are made of other lines, as the forms print it.
    pub sums: Vec<Sum>,
    /// Where each line stands on its own: the form by its place among them, and its number there.
    places: HashMap<String, Vec<(usize, String)>>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct File {
    year: i32,
    form: Vec<Form>,
    #[serde(default)]
    sum: Vec<Sum>,
}

/// A result as a form prints it: lines that add up and lines that come off. It is no part of the rules, so that a return can be
/// reckoned again from its lines alone.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Sum {
    /// The result.
    pub line: String,
    /// The form with which alone it is made so; of every return where nothing is said.
    #[serde(default)]
    pub form: Option<String>,
    /// What adds up.
    pub adds: Vec<String>,
    /// What comes off.
    #[serde(default)]
    pub less: Vec<String>,
    /// Zero where it would be below.
    #[serde(default)]
    pub or_zero: bool,
}

/// One official form.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Form {
    /// The id, by which the pack tells whether it is required.
    pub id: String,
    /// The official number, as it is printed.
    pub name: String,
    /// What it is, in a few words.
    pub title: String,
    /// A worksheet: kept with the return, not filed.
    #[serde(default)]
    pub kept: bool,
    /// To whom it goes where that is not the law's first authority: a state.
    #[serde(default)]
    pub authority: String,
    /// Its lines, in the printed order.
    pub lines: Vec<FormLine>,
}

/// One line of a form.
#[derive(Debug, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct FormLine {
    /// The printed number; empty where the form has none for it.
    #[serde(default)]
    pub number: String,
    /// Its words, shortened.
    pub title: String,
    /// The line that it shows.
    pub line: String,
    /// It only repeats the line, which stands on its own elsewhere.
    #[serde(default)]
    pub repeats: bool,
    /// One row for each person of whom there is such a line.
    #[serde(default)]
    pub each: bool,
    /// A result: bold, ruled off.
    #[serde(default)]
    pub result: bool,
}

/// Whether a form is filed with a return.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Required {
    /// It is.
    Yes,
    /// It is not, and why: "not above 1,500".
    No(Cow<'static, str>),
    /// It is a form of another place, and is not even named.
    Elsewhere,
}

impl Required {
    /// Required where a condition holds, else for the reason why not.
    pub fn if_so(so: bool, why_not: impl Into<Cow<'static, str>>) -> Required {
        if so { Required::Yes } else { Required::No(why_not.into()) }
    }
}

impl From<File> for Forms {
    fn from(file: File) -> Forms {
        let mut places: HashMap<String, Vec<(usize, String)>> = HashMap::new();
        for (at, form) in file.form.iter().enumerate() {
            for line in form.lines.iter().filter(|line| !line.repeats) {
                places.entry(line.line.clone()).or_default().push((at, form.place(line)));
            }
        }
        Forms { year: file.year, forms: file.form, sums: file.sum, places }
    }
}

impl Form {
    fn place(&self, line: &FormLine) -> String {
        match line.number.as_str() {
            "" => self.name.clone(),
            number => format!("{}, line {number}", self.name),
        }
    }
}

/// A line that a later year adds to a form.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Added {
    /// The form, by its id.
    form: String,
    /// The line after which it stands, by what that shows.
    after: String,
    line: FormLine,
}

/// A line that a later year no longer has.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Ended {
    /// The form, by its id.
    form: String,
    /// What the line shows.
    line: String,
}

/// What a year changes of the forms of another.
#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Next {
    year: i32,
    added: Vec<Added>,
    #[serde(default)]
    ended: Vec<Ended>,
}

impl File {
    /// Where a form shows a line.
    fn place(&mut self, form: &str, line: &str) -> Result<(&mut Form, usize), toml::de::Error> {
        let found = self.form.iter_mut().find(|found| found.id == form);
        let at = |found: &Form| found.lines.iter().position(|l| l.line == line);
        let found = found.and_then(|found| at(found).map(|at| (found, at)));
        found.ok_or_else(|| serde::de::Error::custom(format!("{form} has no line {line}")))
    }
}

impl Forms {
    /// The forms of a year that go by those of another: `latest` with the lines that `next` adds, without those that it ends.
    ///
    /// # Errors
    /// A file that cannot be read, or a line that is added or ended where nothing stands.
    pub fn like(latest: &str, next: &str) -> Result<Forms, toml::de::Error> {
        let (mut file, next): (File, Next) = (toml::from_str(latest)?, toml::from_str(next)?);
        file.year = next.year;
        for added in next.added {
            let (form, at) = file.place(&added.form, &added.after)?;
            form.lines.insert(at + 1, added.line);
        }
        for ended in next.ended {
            let (form, at) = file.place(&ended.form, &ended.line)?;
            form.lines.remove(at);
        }
        Ok(file.into())
    }

    /// The form on which a line stands on its own, by its place, and the number there: "Return, line 3". One that is
    /// `filed` goes before one that is not; nothing where no form shows the line.
    pub fn home(&self, line: &str, filed: impl Fn(usize) -> bool) -> Option<(usize, &str)> {
        let places = self.places.get(line)?;
        let found = places.iter().find(|(form, _)| filed(*form)).or(places.first())?;
        Some((found.0, &found.1))
    }

    /// The results of a return from its lines alone, each with what stands there and what the others make: one that was made
    /// again goes into the later ones in place of what stands there.
    pub fn again(
        &self,
        stands: impl Fn(&str) -> Option<Money>,
        filed: impl Fn(&str) -> bool,
    ) -> Vec<(&str, Money, Money)> {
        let mut made: Vec<(&str, Money, Money)> = Vec::new();
        for sum in self.sums.iter().filter(|sum| sum.form.as_deref().is_none_or(&filed)) {
            let Some(there) = stands(&sum.line) else { continue };
            let again = |line: &str| made.iter().find(|(id, ..)| *id == line).map(|(.., again)| *again);
            let of = |line: &String| again(line).or_else(|| stands(line));
            let all = |lines: &[String]| lines.iter().filter_map(of).sum::<Money>();
            let result = all(&sum.adds) - all(&sum.less);
            made.push((&sum.line, there, if sum.or_zero { result.or_zero() } else { result }));
        }
        made
    }

    /// What is wrong with them, in words: a line that is not declared, a number twice on one form, a line that must
    /// stand somewhere on its own (`wanted`) and does not.
    pub fn faults(&self, declared: &Declared, wanted: impl IntoIterator<Item = &'static str>) -> Vec<String> {
        let mut faults = Vec::new();
        for form in &self.forms {
            let mut numbers = HashSet::new();
            for line in &form.lines {
                if declared.line(&line.line).is_none() {
                    faults.push(format!(
                        "{} {}: {} shows no line {}",
                        self.year, form.id, form.name, line.line
                    ));
                }
                if !line.number.is_empty() && !line.each && !numbers.insert(&line.number) {
                    faults
                        .push(format!("{} {}: the number {} stands twice", self.year, form.id, line.number));
                }
            }
        }
        let summed = self.sums.iter().flat_map(|sum| sum.adds.iter().chain(&sum.less).chain([&sum.line]));
        let unknown = summed.filter(|line| declared.line(line).is_none());
        faults.extend(unknown.map(|line| format!("{}: a sum has no line {line}", self.year)));
        let missing = wanted.into_iter().filter(|line| self.home(line, |_| true).is_none());
        faults.extend(missing.map(|line| format!("{}: {line} stands on no form", self.year)));
        faults
    }
}
