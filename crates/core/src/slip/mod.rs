//! A slip as a file: what the words on its pages say of a paper, each with its place. Nothing here is taken for certain:
//! what is read is proposed, and somebody looks at it.

pub mod file;
mod table;

use crate::{
    check::digits,
    field::{Field, FieldKind},
    held,
    household::{Answers, Entry, Household, Person},
    pack::Pack,
    paper::PaperKind,
    typed,
};
use serde::{Deserialize, Serialize};
use std::collections::BTreeSet;
use utoipa::ToSchema;

/// The width of every page: places on it are told in parts of this, downwards as well as across.
pub const PAGE_WIDTH: i32 = 10_000;

/// A place on a page, in parts of [`PAGE_WIDTH`] from the top left.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[schema(as = PageArea)]
#[allow(missing_docs)]
pub struct Area {
    pub left: i32,
    pub top: i32,
    pub width: i32,
    pub height: i32,
}

impl Area {
    fn right(self) -> i32 {
        self.left + self.width
    }

    fn bottom(self) -> i32 {
        self.top + self.height
    }

    fn middle(self) -> i32 {
        self.top + self.height / 2
    }

    /// The smallest place that holds both.
    fn with(self, other: Area) -> Area {
        let (left, top) = (self.left.min(other.left), self.top.min(other.top));
        let (right, bottom) = (self.right().max(other.right()), self.bottom().max(other.bottom()));
        Area { left, top, width: right - left, height: bottom - top }
    }
}

/// A word on a page.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[allow(missing_docs)]
pub struct Word {
    pub text: String,
    pub at: Area,
}

/// Something that was read, and where it stands.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = SlipRead)]
pub struct Read {
    /// What it says: a box's words as they stand there, a kind's code, a person's id.
    pub words: String,
    /// The page, from 0.
    pub page: usize,
    /// Its place.
    pub at: Area,
}

/// A box that was read.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[schema(as = SlipBox)]
pub struct ReadBox {
    /// The box.
    pub field: String,
    /// What it says, and where.
    pub read: Read,
    /// What that means in the box; nothing where it cannot stand there.
    pub entry: Option<Entry>,
    /// Why it cannot.
    pub fault: Option<String>,
}

/// What a slip seems to be.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
#[schema(as = SlipProposal)]
pub struct Proposal {
    /// The kind of paper, by its code.
    pub kind: Option<Read>,
    /// The year that stands on it, where it is another than the household's.
    pub other_year: Option<Read>,
    /// Whose it is, by id.
    pub owner: Option<Read>,
    /// Who issued it.
    pub title: Option<Read>,
    /// Its boxes, in the paper's order.
    pub boxes: Vec<ReadBox>,
    /// The lines of its list, cell by cell.
    pub rows: Vec<Vec<ReadBox>>,
    /// The paper of the household that it seems to be.
    pub paper: Option<String>,
}

/// What the words on these pages say; `kind` where somebody says which kind it is.
pub fn propose(pages: &[Vec<Word>], household: &Household, pack: &dyn Pack, kind: Option<&str>) -> Proposal {
    let kinds = pack.paper_kinds().iter().filter(|kind| kind.years.hold(household.year));
    let mut sheet = Sheet::of(pages);
    let found = match kind {
        Some(code) => kinds.clone().find(|one| one.id == code).map(|one| (one, sheet.code(one))),
        None => {
            let scored = kinds.filter_map(|one| sheet.score(one).map(|score| (score, one)));
            let best = scored.max_by_key(|(score, _)| *score);
            best.map(|(_, one)| (one, sheet.code(one)))
        }
    };
    let Some((kind, code)) = found else { return Proposal::default() };
    let nowhere = Read { words: kind.id.into(), page: 0, at: Area::default() };
    let other_year = sheet.year().filter(|read| read.words != household.year.to_string());
    let owner = sheet.owner(household);
    let fields = kind.told_fields();
    let columns = kind.columns.iter().filter(|column| column.years.hold(household.year));
    // A list of codes is read as boxes.
    let columns: Vec<&Field> = columns.filter(|_| kind.codes().is_none()).collect();
    let rows = sheet.lines(&columns, kind.boxes);
    let labels = sheet.labels(kind.title, &fields);
    let mut proposal = Proposal {
        kind: Some(code.map_or(nowhere, |at| Read { words: kind.id.into(), ..at })),
        other_year,
        owner,
        ..Proposal::default()
    };
    proposal.rows = rows
        .into_iter()
        .map(|line| line.into_iter().map(|(field, read)| meant(field, read, household, pack)).collect())
        .collect();
    for (what, read) in sheet.values(&labels) {
        match what {
            What::Title => proposal.title = Some(read),
            What::Box(field) => proposal.boxes.push(meant(field, read, household, pack)),
        }
    }
    let order = |of: &ReadBox| fields.iter().position(|field| field.id == of.field);
    proposal.boxes.sort_by_key(order);
    proposal.paper = paper(&proposal, kind, household);
    proposal
}

fn meant(field: &Field, read: Read, household: &Household, pack: &dyn Pack) -> ReadBox {
    let field_id = field.id.to_owned();
    match typed::entry(&read.words, field, household, pack) {
        Ok(entry) => ReadBox { field: field_id, read, entry, fault: None },
        Err(why) => ReadBox { field: field_id, read, entry: None, fault: Some(why) },
    }
}

/// The paper that it seems to be: of its kind and owner, from the same payer; else the only one of which nothing is keyed.
fn paper(proposal: &Proposal, kind: &PaperKind, household: &Household) -> Option<String> {
    let owner = proposal.owner.as_ref().map(|read| read.words.as_str());
    let boxes: Answers =
        proposal.boxes.iter().filter_map(|of| Some((of.field.clone(), of.entry.clone()?))).collect();
    let title = proposal.title.as_ref().map_or("", |read| read.words.as_str());
    let own = |owner: &str, paper: &&crate::household::Paper| paper.owners.iter().any(|o| o.person == owner);
    let of_kind = household.papers.iter().filter(|paper| paper.kind == kind.id);
    let mut theirs = of_kind.filter(|paper| owner.is_none_or(|owner| own(owner, paper)));
    theirs.find(|paper| held::same_payer(kind, (title, &boxes), paper)).map(|paper| paper.id.clone())
}

/// What a label on the page stands for.
#[derive(Debug, Clone, Copy)]
enum What<'k> {
    /// The paper's title.
    Title,
    Box(&'k Field),
}

impl What<'_> {
    /// Whether words could stand there.
    fn suits(self, words: &str) -> bool {
        let has_digit = words.chars().any(|c| c.is_ascii_digit());
        match self {
            What::Title => words.chars().any(char::is_alphabetic),
            What::Box(field) => match field.kind {
                FieldKind::Amount { .. }
                | FieldKind::Count { .. }
                | FieldKind::Number { .. }
                | FieldKind::Date => has_digit,
                FieldKind::YesNo => words.chars().count() <= 5,
                FieldKind::Text { .. } | FieldKind::Choice { .. } | FieldKind::Person => true,
            },
        }
    }
}

/// A label that was found.
struct Label<'k> {
    what: What<'k>,
    page: usize,
    at: Area,
}

/// Words that stand side by side, without a gap.
struct Run {
    page: usize,
    words: Vec<usize>,
}

/// The words of all pages, in lines, and which of them are told for.
struct Sheet<'p> {
    words: Vec<(usize, &'p Word, String)>,
    runs: Vec<Run>,
    used: BTreeSet<usize>,
    /// The owner's name and number: they stand in no box, but a title may be the owner's name.
    names: BTreeSet<usize>,
}

/// The letters and digits of a word, small.
fn token(text: &str) -> String {
    text.chars().filter(|c| c.is_alphanumeric()).flat_map(char::to_lowercase).collect()
}

fn tokens(text: &str) -> Vec<String> {
    text.split(|c: char| c.is_whitespace() || c == '/').map(token).filter(|t| !t.is_empty()).collect()
}

impl<'p> Sheet<'p> {
    fn of(pages: &'p [Vec<Word>]) -> Sheet<'p> {
        let mut sheet =
            Sheet { words: Vec::new(), runs: Vec::new(), used: BTreeSet::new(), names: BTreeSet::new() };
        for (page, words) in pages.iter().enumerate() {
            let mut sorted: Vec<&Word> = words.iter().filter(|word| !word.text.trim().is_empty()).collect();
            sorted.sort_by_key(|word| (word.at.middle(), word.at.left));
            let mut lines: Vec<Vec<&Word>> = Vec::new();
            for word in sorted {
                match lines.last_mut().filter(|line| same_line(line[0].at, word.at)) {
                    Some(line) => line.push(word),
                    None => lines.push(vec![word]),
                }
            }
            for mut line in lines {
                line.sort_by_key(|word| word.at.left);
                for run in line.chunk_by(|one, next| next.at.left - one.at.right() <= one.at.height) {
                    let first = sheet.words.len();
                    sheet.words.extend(run.iter().map(|word| (page, *word, token(&word.text))));
                    sheet.runs.push(Run { page, words: (first..sheet.words.len()).collect() });
                }
            }
        }
        sheet
    }

    fn area(&self, words: &[usize]) -> Area {
        let areas = words.iter().map(|at| self.words[*at].1.at);
        areas.reduce(Area::with).unwrap_or_default()
    }

    fn read(&self, words: &[usize]) -> Read {
        let text: Vec<&str> = words.iter().map(|at| self.words[*at].1.text.as_str()).collect();
        let page = words.first().map_or(0, |at| self.words[*at].0);
        Read { words: text.join(" "), page, at: self.area(words) }
    }

    /// Where a kind's code stands: as one word, or as several; what stands there of its name is no label either.
    fn code(&mut self, kind: &PaperKind) -> Option<Read> {
        let words = self.find(&tokens(kind.id), false);
        self.used.extend(words.iter().flatten());
        let name = self.name(kind);
        self.used.extend(name.iter().flatten());
        words.or(name).map(|words| self.read(&words))
    }

    /// Where a kind's whole name stands; a name of one word stands in too many places to tell anything.
    fn name(&self, kind: &PaperKind) -> Option<Vec<usize>> {
        let name = tokens(kind.name);
        if name.len() > 1 { self.find(&name, false) } else { None }
    }

    /// How much speaks for a kind: its code or its whole name on the page, then the labels of its boxes.
    fn score(&self, kind: &PaperKind) -> Option<(bool, usize)> {
        let code = self.find(&tokens(kind.id), false).is_some();
        let stands = |field: &&Field| self.find(&tokens(field.label), false).is_some();
        let labels = kind.boxes.iter().filter(stands).count();
        let told = self.name(kind).is_some() || (code && kind.id.chars().any(|c| c.is_ascii_digit()));
        // What heads a list ("Date", "Amount") stands on too many papers to tell anything alone.
        let columns = if told { kind.columns.iter().filter(stands).count() } else { 0 };
        ((told && labels + columns > 0) || labels >= 3).then_some((told, labels + columns))
    }

    fn year(&self) -> Option<Read> {
        let is_year = |text: &str| text.len() == 4 && text.starts_with("20") && text.parse::<i32>().is_ok();
        let at = self.words.iter().position(|(_, _, token)| is_year(token))?;
        Some(Read { words: self.words[at].2.clone(), ..self.read(&[at]) })
    }

    /// Whose it is: by the number, whole or its last four digits, else by the name.
    fn owner(&mut self, household: &Household) -> Option<Read> {
        let by_number = household.people.iter().find_map(|person| {
            let number = digits(person.id_number.as_deref()?);
            let at = self.words.iter().position(|(_, word, _)| is_number(&word.text, &number))?;
            Some((person, vec![at]))
        });
        let by_name = || {
            let named = |person: &Person| self.find(&tokens(&person.name), false);
            household.people.iter().find_map(|person| Some((person, named(person)?)))
        };
        let (person, words) = by_number.or_else(by_name)?;
        let id = person.id.clone();
        let name = self.find(&tokens(&person.name), false);
        self.names.extend(words.iter().chain(name.iter().flatten()));
        Some(Read { words: id, ..self.read(&words) })
    }

    /// The labels of a kind's boxes, the longest first: a short one is often part of a longer.
    fn labels<'k>(&mut self, title: &str, fields: &'k [Field]) -> Vec<Label<'k>> {
        let alone = |field: &Field| {
            fields.iter().filter(|other| tokens(other.label) == tokens(field.label)).count() == 1
        };
        let mut wanted: Vec<(What<'k>, Vec<String>)> = vec![(What::Title, tokens(title))];
        for field in fields {
            let (number, label) = (tokens(field.number), tokens(field.label));
            if !number.is_empty() {
                wanted.push((What::Box(field), [number, label.clone()].concat()));
            }
            if alone(field) {
                wanted.push((What::Box(field), label));
            }
        }
        wanted.sort_by_key(|(_, tokens)| std::cmp::Reverse(tokens.len()));
        let mut found: Vec<Label<'k>> = Vec::new();
        for (what, tokens) in wanted {
            let is_title = matches!(what, What::Title);
            if found.iter().any(|label| same(label.what, what)) {
                continue;
            }
            if let Some(words) = self.find(&tokens, is_title) {
                let page = self.words[words[0]].0;
                found.push(Label { what, page, at: self.area(&words) });
                self.used.extend(words);
            }
        }
        found
    }

    /// Where these words stand one after the other, not told for yet; in a narrow cell they go on in the next line.
    /// `of` allows the first a genitive: "Employer's name".
    fn find(&self, wanted: &[String], of: bool) -> Option<Vec<usize>> {
        let (first, _) = wanted.split_first()?;
        let starts = |at: &usize| {
            let token = &self.words[*at].2;
            !self.used.contains(at) && (token == first || (of && *token == format!("{first}s")))
        };
        let all = self.runs.iter().flat_map(|run| run.words.iter().map(move |at| (run, *at)));
        all.filter(|(_, at)| starts(at)).find_map(|(run, at)| self.follow(run, at, wanted))
    }

    fn follow(&self, run: &Run, start: usize, wanted: &[String]) -> Option<Vec<usize>> {
        let mut found = vec![start];
        let mut run = run;
        let (left, mut next) = (self.words[start].1.at.left, start + 1);
        while found.len() < wanted.len() {
            if run.words.last().is_some_and(|last| next > *last) {
                run = self.below(run, left)?;
                next = run.words[0];
            }
            // Signs that are no letters, such as a dash, stand between words.
            let token = &self.words[next].2;
            if !token.is_empty() {
                let fits = token == &wanted[found.len()] && !self.used.contains(&next);
                fits.then(|| found.push(next))?;
            }
            next += 1;
        }
        Some(found)
    }

    /// The run in the next line that begins where this one's cell does.
    fn below(&self, run: &Run, left: i32) -> Option<&Run> {
        let at = self.area(&run.words);
        self.runs.iter().find(|other| {
            let below = self.area(&other.words);
            let gap = below.top - at.bottom();
            other.page == run.page
                && (-at.height / 3..=at.height).contains(&gap)
                && (below.left - left).abs() <= at.height
        })
    }

    /// What stands at each label: the nearest words below it or to its right that could, each for one label only.
    fn values<'k>(&self, labels: &[Label<'k>]) -> Vec<(What<'k>, Read)> {
        let free = |run: &Run| -> Vec<Vec<usize>> {
            let pieces = run.words.split(|at| self.used.contains(at));
            pieces.filter(|piece| !piece.is_empty()).map(<[usize]>::to_vec).collect()
        };
        let pieces: Vec<Vec<usize>> = self.runs.iter().flat_map(free).collect();
        let mut pairs: Vec<(i32, usize, usize)> = Vec::new();
        for (l, label) in labels.iter().enumerate() {
            for (p, piece) in pieces.iter().enumerate() {
                let read = self.read(piece);
                let is_name = piece.iter().any(|at| self.names.contains(at));
                let fits = label.what.suits(&read.words) && (!is_name || matches!(label.what, What::Title));
                let cost = (read.page == label.page && fits).then(|| cost(label.at, read.at)).flatten();
                pairs.extend(cost.map(|cost| (cost, l, p)));
            }
        }
        pairs.sort_unstable();
        let (mut told, mut taken) = (BTreeSet::new(), BTreeSet::new());
        let mut values = Vec::new();
        for (_, l, p) in pairs {
            if !told.contains(&l) && !taken.contains(&p) {
                told.insert(l);
                taken.insert(p);
                values.push((labels[l].what, self.read(&pieces[p])));
            }
        }
        values
    }
}

fn same(one: What<'_>, other: What<'_>) -> bool {
    match (one, other) {
        (What::Title, What::Title) => true,
        (What::Box(one), What::Box(other)) => one.id == other.id,
        _ => false,
    }
}

fn same_line(one: Area, other: Area) -> bool {
    (one.middle() - other.middle()).abs() * 2 < one.height.min(other.height)
}

/// How far words stand from a label, where they could belong to it: below it within three lines, or to its right.
fn cost(label: Area, words: Area) -> Option<i32> {
    let line = words.height.max(label.height);
    let down = words.top - label.bottom();
    let aside = words.left - label.left;
    if (-line / 3..=3 * line).contains(&down) && (-line..PAGE_WIDTH / 3).contains(&aside) {
        return Some(down.max(0) + aside.abs() / 4);
    }
    let across = words.left - label.right();
    let beside = (words.middle() - label.middle()).abs() <= line / 2;
    (beside && (0..PAGE_WIDTH / 2).contains(&across)).then_some(line + across / 2)
}

/// Whether a word is a number: all its digits, or the last four behind signs that hide the rest.
fn is_number(text: &str, number: &str) -> bool {
    let found = digits(text);
    let hidden = text.chars().any(|c| "*xX•#".contains(c));
    !number.is_empty() && (found == number || (hidden && found.len() >= 4 && number.ends_with(&found)))
}
