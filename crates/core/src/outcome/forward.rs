//! A household carried forward into the next return year: its people, the answers and boxes that last, its papers as empty ones with
//! last year's amounts beside the boxes, and as papers of their own the amounts that the law carries over.

use super::{assemble::headline, pins_of, shown::Shown, simplest};
use crate::{
    field::{Field, FieldKind},
    gathered,
    household::{Answers, Before, Entry, Household, Paper, Person, Role, Row, Share},
    line::LineId,
    pack::{Pack, Return},
    paper::{NextYear, PaperKind},
    search::{Stop, Stopped},
    trail::{Recorder, Scope},
};
use hembo_money::{Money, Rate};
use serde::Serialize;
use std::{
    collections::{BTreeMap, BTreeSet},
    fmt,
};
use utoipa::ToSchema;

/// A line whose amount goes into a paper of the next year.
#[derive(Debug, Clone, Copy)]
pub struct Carry {
    /// The line: what is left.
    pub line: LineId,
    /// The kind of paper, by its code.
    pub paper: &'static str,
    /// Where in it.
    pub into: CarriedTo,
}

impl Carry {
    /// Whether what is carried over is left to use in a later year.
    pub fn leaves(&self) -> bool {
        !matches!(self.into, CarriedTo::Told(_))
    }
}

/// Where in a paper an amount goes that is carried over.
#[derive(Debug, Clone, Copy)]
pub enum CarriedTo {
    /// A box.
    Box(&'static str),
    /// A box that tells what the year came to, or what a later one taxes: nothing is left of it to use.
    Told(&'static str),
    /// Papers of the kind, of which the preparer knows which: it is told until that is done.
    ByHand,
    /// A list by the year of origin, in which the oldest is used up first.
    Rows {
        /// The column of the amount.
        column: &'static str,
        /// What tells its lines from others, as column and entry.
        says: Option<(&'static str, &'static str)>,
    },
}

/// An amount that is carried over into the next year.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct CarriedOver {
    /// The line.
    pub line: String,
    /// What it is.
    pub label: String,
    /// Whose, by name.
    pub whose: String,
    /// How much is left for the next year.
    pub amount: Money,
    /// How much of it came in from earlier years.
    pub came: Money,
    /// The kind of paper that it goes into, by its code.
    pub paper: String,
}

/// The column of the year of origin in a list of amounts carried over.
const YEAR: &str = "year";

/// Why a household cannot be carried forward.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NotForward {
    /// The next year's figures are not there.
    NoFigures(i32),
    /// Nobody is left who files.
    NobodyFiles(i32),
    /// The computation was stopped.
    Stopped,
}

impl From<Stopped> for NotForward {
    fn from(_: Stopped) -> NotForward {
        NotForward::Stopped
    }
}

impl fmt::Display for NotForward {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            NotForward::NoFigures(year) => {
                write!(to, "The figures of {year} are not here yet: carry it forward when they are.")
            }
            NotForward::NobodyFiles(year) => write!(to, "No filer lived to see {year}."),
            NotForward::Stopped => write!(to, "The computation was stopped."),
        }
    }
}

/// The household in the next year.
///
/// # Errors
/// Why it cannot be carried forward.
pub fn next_year(household: &Household, pack: &dyn Pack, stop: &Stop) -> Result<Household, NotForward> {
    let year = household.year + 1;
    if !pack.years().contains(&year) {
        return Err(NotForward::NoFigures(year));
    }
    let (_, end) = pack.span(household.year);
    let lives = |person: &&Person| person.died.is_none_or(|died| died > end);
    let people: Vec<Person> = household.people.iter().filter(lives).map(|p| person(p, pack)).collect();
    if !people.iter().any(|person| person.role == Role::Filer) {
        return Err(NotForward::NobodyFiles(year));
    }
    let mut next = Household {
        year,
        people,
        answers: lasting(&household.answers, pack.household_questions().iter()),
        papers: Vec::new(),
        pins: BTreeMap::new(),
        pin_reasons: BTreeMap::new(),
        dismissed: BTreeMap::new(),
        refused: BTreeMap::new(),
        retired: Default::default(),
        before: None,
        ..household.clone()
    };
    next.papers = household.papers.iter().filter_map(|paper| again(paper, &next, pack)).collect();
    with_outcome(household, &mut next, pack, stop)?;
    pack.settle_next(household, &mut next);
    Ok(next)
}

/// What last year's outcome leaves: the amounts carried over, what each filed, the results.
fn with_outcome(
    household: &Household,
    next: &mut Household,
    pack: &dyn Pack,
    stop: &Stop,
) -> Result<(), Stopped> {
    let household = &*gathered::apart(household, pack.declared());
    let case = pack.open(household);
    let pins = pins_of(household, &*case);
    let lowest = |pins: &_| simplest::lowest(pack, &*case, household, pins, stop);
    let found = lowest(&pins)?;
    let found = if found.is_none() { lowest(&BTreeMap::new())? } else { found };
    let way = found.map(|ranked| ranked.way).unwrap_or_default();
    let trail = case.record(&way);
    let view = Shown::of(household, pack, &*case, &way, &trail);
    let filed = view.columns().into_iter().filter_map(|column| Some((column.person, column.files?)));
    let rows = view.spread().into_iter().flat_map(|section| section.rows).filter(|row| row.result);
    let results = rows.filter_map(|row| Some((row.label, row.together?.amount)));
    let mut before = Before {
        year: household.year,
        filed: filed.collect(),
        taken: simplest::taken(&*case, &way),
        results: results.collect(),
        left: BTreeMap::new(),
        of_two: BTreeSet::new(),
        no_result: case.points(&way, &trail).iter().any(|point| point.not_covered),
    };
    let returns = case.returns(&way);
    let mut papers = std::mem::take(&mut next.papers);
    for carry in &pack.declared().carries {
        let Some(kind) = pack.paper_kinds().iter().find(|kind| kind.id == carry.paper) else { continue };
        for (people, amount) in left(carry.line, &trail, kind, &returns, household) {
            // No box that takes such an amount is below zero: a negative income leaves nothing.
            if amount <= Money::ZERO {
                used_up(&mut papers, carry, &people);
                continue;
            }
            let people: Vec<String> = people.into_iter().filter(|id| next.person(id).is_some()).collect();
            if matches!(carry.into, CarriedTo::ByHand) {
                let label = pack.declared().line(carry.line).map_or(carry.line, |line| line.label);
                *before.left.entry(label.to_owned()).or_default() += amount;
            } else if !people.is_empty() {
                let of_two = people.len() > 1 && carry.leaves();
                let paper = put(&mut papers, kind, carry, owners(people, kind), amount, household);
                before.of_two.extend(of_two.then_some(paper));
            }
        }
    }
    for paper in &mut papers {
        paper.name_rows();
    }
    next.papers = papers;
    next.before = Some(before);
    Ok(())
}

/// A person in the next year: what lasts. Months in a home are asked anew.
fn person(of: &Person, pack: &dyn Pack) -> Person {
    let fields = pack.person_questions().iter().map(|question| &question.field);
    Person { lived_with: BTreeMap::new(), answers: lasting(&of.answers, fields), ..of.clone() }
}

fn lasting<'f>(entries: &Answers, fields: impl Iterator<Item = &'f Field>) -> Answers {
    let lasting = fields.filter(|field| field.lasts);
    lasting.filter_map(|field| Some((field.id.to_owned(), entries.get(field.id)?.clone()))).collect()
}

/// An empty paper of the same kind, owners and title, with what lasts of its boxes and lines and, beside the boxes, what stood in them.
fn again(paper: &Paper, next: &Household, pack: &dyn Pack) -> Option<Paper> {
    let kind = pack.paper_kinds().iter().find(|kind| kind.id == paper.kind)?;
    if kind.next_year == NextYear::Once || !kind.years.hold(next.year) {
        return None;
    }
    let people: Vec<Share> =
        paper.owners.iter().filter(|owner| next.person(&owner.person).is_some()).cloned().collect();
    let owners = match people.len() {
        0 => return None,
        len if len == paper.owners.len() => people,
        _ => self::owners(people.into_iter().map(|owner| owner.person).collect(), kind),
    };
    let mut boxes = lasting(&paper.boxes, kind.boxes.iter().filter(|field| field.years.hold(next.year)));
    boxes.retain(|id, entry| {
        let is_person = kind.field(id).is_some_and(|field| matches!(field.kind, FieldKind::Person));
        !is_person || entry.text().is_some_and(|id| next.person(id).is_some())
    });
    if kind.next_year == NextYear::Whole {
        return Some(Paper {
            owners,
            checked: false,
            proof: false,
            proven: BTreeMap::new(),
            changed: Default::default(),
            before: Answers::new(),
            held: None,
            files: Vec::new(),
            ..paper.clone()
        });
    }
    let mut again = Paper {
        id: paper.id.clone(),
        kind: paper.kind.clone(),
        title: paper.title.clone(),
        owners,
        boxes,
        rows: Vec::new(),
        rows_made: 0,
        checked: false,
        proof: false,
        proven: BTreeMap::new(),
        changed: Default::default(),
        before: amounts(paper, kind, next.year, pack),
        held: None,
        files: Vec::new(),
    };
    let columns = || kind.columns.iter().filter(|column| column.years.hold(next.year));
    for cells in paper.rows.iter().map(|row| lasting(row, columns())).filter(|cells| !cells.is_empty()) {
        again.add_row(None, cells);
    }
    Some(again)
}

/// The amounts of a paper, and the sums of its list; that which stands for it less what was paid back.
fn amounts(paper: &Paper, kind: &PaperKind, year: i32, pack: &dyn Pack) -> Answers {
    let is_amount = |id: &str| {
        kind.field(id)
            .is_some_and(|field| matches!(field.kind, FieldKind::Amount { .. }) && field.years.hold(year))
    };
    let boxes = paper.boxes.iter().filter(|(id, _)| is_amount(id));
    let mut amounts: Answers = boxes.map(|(id, entry)| (id.clone(), entry.clone())).collect();
    let columns = kind.columns.iter().filter(|column| matches!(column.kind, FieldKind::Amount { .. }));
    for column in columns.filter(|column| column.years.hold(year)) {
        let cells = paper.rows.iter().filter_map(|row| row.get(column.id).and_then(Entry::money));
        let sum = if column.id == kind.headline { headline(pack, paper) } else { cells.sum() };
        if !sum.is_zero() {
            amounts.insert(column.id.into(), Entry::amount(sum));
        }
    }
    amounts
}

/// In equal parts, or the first where the paper belongs to one.
fn owners(people: Vec<String>, kind: &PaperKind) -> Vec<Share> {
    let people = if kind.shared { people } else { people.into_iter().take(1).collect() };
    let parts = vec![1; people.len()];
    let shares = Money::whole(100).split(&parts);
    let percent = |share: Money| Rate::from_billionths(share.cents() * Rate::ONE.billionths() / 100);
    people.into_iter().zip(shares).map(|(person, share)| Share { person, percent: percent(share) }).collect()
}

/// What the chosen way leaves to the next year.
pub(super) fn carried(
    household: &Household,
    pack: &dyn Pack,
    trail: &Recorder,
    returns: &[Return],
) -> Vec<CarriedOver> {
    let name = |id: &String| household.person(id).map_or_else(|| id.clone(), |person| person.name.clone());
    let of_carry = |carry: &Carry| {
        let kind = pack.paper_kinds().iter().find(|kind| kind.id == carry.paper);
        let found = kind.map(|kind| left(carry.line, trail, kind, returns, household)).unwrap_or_default();
        let label = pack.declared().line(carry.line).map_or(carry.line, |line| line.label);
        let one = |(people, amount): (Vec<String>, Money)| CarriedOver {
            line: carry.line.to_owned(),
            label: label.to_owned(),
            whose: people.iter().map(name).collect::<Vec<_>>().join(", "),
            amount,
            came: came(household, carry, &people),
            paper: carry.paper.to_owned(),
        };
        let moved = |of: &CarriedOver| of.amount > Money::ZERO || of.came > Money::ZERO;
        found.into_iter().map(one).filter(moved).collect::<Vec<_>>()
    };
    pack.declared().carries.iter().flat_map(of_carry).collect()
}

/// What came in from earlier years where a line's amount goes, on the papers of these people alone.
fn came(household: &Household, carry: &Carry, people: &[String]) -> Money {
    let theirs = |paper: &&Paper| {
        paper.kind == carry.paper && paper.owners.iter().all(|owner| people.contains(&owner.person))
    };
    let of_row = |row: &Row, column: &str, says: Option<(&str, &str)>| {
        let meant = says.is_none_or(|(column, entry)| row.get(column).and_then(Entry::text) == Some(entry));
        row.get(column).and_then(Entry::money).filter(|_| meant).unwrap_or_default()
    };
    let of_paper = |paper: &Paper| match carry.into {
        CarriedTo::Box(field) | CarriedTo::Told(field) => paper.amount(field),
        CarriedTo::Rows { column, says } => paper.rows.iter().map(|row| of_row(row, column, says)).sum(),
        CarriedTo::ByHand => Money::ZERO,
    };
    household.papers.iter().filter(theirs).map(of_paper).sum()
}

/// What a line leaves, and to whom: by person where the line is a person's, else by return.
fn left(
    line: LineId,
    trail: &Recorder,
    kind: &PaperKind,
    returns: &[Return],
    household: &Household,
) -> Vec<(Vec<String>, Money)> {
    let id = |person: usize| household.people[person].id.clone();
    let of = |scope: Scope| trail.amount(line, scope);
    let each = (0..household.people.len()).filter_map(|p| Some((vec![id(p)], of(Scope::Person(p))?)));
    let each: Vec<_> = each.collect();
    let by_return = returns.iter().enumerate().filter_map(|(place, of_return)| {
        Some((of_return.people.iter().map(|p| id(*p)).collect(), of(Scope::Return(place))?))
    });
    let by_return: Vec<_> = by_return.collect();
    if by_return.is_empty() || (!kind.shared && !each.is_empty()) { each } else { by_return }
}

/// Of an amount that lasts until it is used up nothing is left.
fn used_up(papers: &mut [Paper], carry: &Carry, people: &[String]) {
    let (CarriedTo::Box(field) | CarriedTo::Told(field)) = carry.into else { return };
    for paper in papers.iter_mut().filter(|paper| paper.kind == carry.paper) {
        if paper.owners.iter().all(|owner| people.contains(&owner.person)) {
            paper.boxes.remove(field);
        }
    }
}

/// Puts an amount into the paper of its kind and owners, a new one where there is none. The paper's id.
fn put(
    papers: &mut Vec<Paper>,
    kind: &PaperKind,
    carry: &Carry,
    owners: Vec<Share>,
    amount: Money,
    household: &Household,
) -> String {
    let at = papers.iter().position(|paper| paper.kind == kind.id && paper.owners == owners);
    let at = at.unwrap_or_else(|| {
        let taken = |id: &String| papers.iter().any(|paper| paper.id == *id);
        let id = (1..).map(|n| format!("carried{n}")).find(|id| !taken(id));
        papers.push(Paper {
            id: id.unwrap_or_default(),
            kind: kind.id.into(),
            title: household.year.to_string(),
            owners: owners.clone(),
            boxes: Answers::new(),
            rows: Vec::new(),
            rows_made: 0,
            checked: false,
            proof: false,
            proven: BTreeMap::new(),
            changed: Default::default(),
            before: Answers::new(),
            held: None,
            files: Vec::new(),
        });
        papers.len() - 1
    });
    let paper = &mut papers[at];
    match carry.into {
        CarriedTo::Box(field) | CarriedTo::Told(field) => {
            paper.boxes.insert(field.into(), Entry::amount(amount));
        }
        CarriedTo::ByHand => {}
        CarriedTo::Rows { column, says } => {
            for (year, amount) in by_year(column, says, kind, &owners, amount, household) {
                let same = |row: &Row| {
                    let of_year = row.get(YEAR).and_then(Entry::count) == Some(year);
                    of_year && says.is_none_or(|(id, entry)| row.get(id).and_then(Entry::text) == Some(entry))
                };
                let at = paper.rows.iter().position(same).unwrap_or_else(|| {
                    paper.rows.push(new_row(year, says));
                    paper.rows.len() - 1
                });
                paper.rows[at].cells.insert(column.into(), Entry::amount(amount));
            }
        }
    }
    paper.id.clone()
}

fn new_row(year: i64, says: Option<(&str, &str)>) -> Row {
    let mut cells = Answers::from([(YEAR.to_owned(), Entry::Count(year))]);
    if let Some((column, entry)) = says {
        cells.insert(column.into(), Entry::Text(entry.into()));
    }
    Row { id: String::new(), cells }
}

/// What is left, by year of origin, oldest first: what the year itself brought is used before what was carried into it, and of that
/// the oldest first.
fn by_year(
    column: &str,
    says: Option<(&str, &str)>,
    kind: &PaperKind,
    owners: &[Share],
    left: Money,
    household: &Household,
) -> Vec<(i64, Money)> {
    let theirs = |paper: &&Paper| {
        paper.kind == kind.id
            && paper.owners.iter().any(|owner| owners.iter().any(|o| o.person == owner.person))
    };
    let rows = household.papers.iter().filter(theirs).flat_map(|paper| &paper.rows);
    let said = |row: &&Row| says.is_none_or(|(id, entry)| row.get(id).and_then(Entry::text) == Some(entry));
    let mut earlier: BTreeMap<i64, Money> = BTreeMap::new();
    for row in rows.filter(said) {
        let year = row.get(YEAR).and_then(Entry::count);
        if let (Some(year), Some(amount)) = (year, row.get(column).and_then(Entry::money)) {
            *earlier.entry(year).or_default() += amount;
        }
    }
    let mut rest = left;
    let mut found = Vec::new();
    for (year, amount) in earlier.into_iter().rev() {
        let kept = rest.min(amount);
        rest -= kept;
        found.push((year, kept));
    }
    found.push((i64::from(household.year), rest));
    found.retain(|(_, amount)| !amount.is_zero());
    found.sort();
    found
}
