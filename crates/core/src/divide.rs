//! A household with two filers divided in two, one for each: who and what goes where, and what of it somebody has to decide.

use crate::{
    check,
    field::{Field, FieldKind},
    household::{Answers, Entry, Household, Paper, Person, Role, Row, Share},
    pack::Pack,
    paper::PaperKind,
};
use hembo_money::{Money, Rate};
use serde::Serialize;
use std::{cmp::Ordering, collections::BTreeMap};
use utoipa::ToSchema;

/// A rule by which papers of a kind are divided that is not plain ownership: told, for somebody to follow.
#[derive(Debug, Clone, Copy)]
pub struct Rule {
    /// The kind, by its code.
    pub kind: &'static str,
    /// The rule in words.
    pub words: &'static str,
    /// Where it stands.
    pub cite: &'static str,
}

/// Where something went.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = WentWhere)]
pub struct Went {
    /// What: a person's name, a paper.
    pub what: String,
    /// To whom, by first names; both where it was divided.
    pub to: String,
    /// How: by its owner, half, or by which rule.
    pub how: String,
    /// Somebody has to decide whether that is right.
    pub decide: bool,
}

/// A household divided in two.
#[derive(Debug, Clone, PartialEq)]
pub struct Divided {
    /// One for each filer, in their order.
    pub halves: [Household; 2],
    /// What went where.
    pub went: Vec<Went>,
}

/// A household that cannot be divided.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("Only a household in which two people file is divided in two.")]
pub struct NotTwo;

/// Divides a household: each filer with the dependents who lived longer there and what they own; what both own is divided by
/// their shares, to the cent. Pins, points put aside and last year's results stay behind: they were of both together.
///
/// # Errors
/// When there are not two filers.
pub fn divide(household: &Household, pack: &dyn Pack) -> Result<Divided, NotTwo> {
    let filers: Vec<&Person> = household.filers().map(|(_, filer)| filer).collect();
    let [one, other] = filers.as_slice() else { return Err(NotTwo) };
    let mut dividing = Dividing {
        household,
        pack,
        filers: [*one, *other],
        half_of: BTreeMap::from([(one.id.as_str(), 0), (other.id.as_str(), 1)]),
        went: Vec::new(),
    };
    dividing.dependents();
    let mut halves = [0, 1].map(|half| dividing.people(half));
    for paper in &household.papers {
        for (half, part) in dividing.paper(paper).into_iter().enumerate() {
            halves[half].papers.extend(part);
        }
    }
    for half in &mut halves {
        pack.settle_divided(household, half);
    }
    Ok(Divided { halves, went: dividing.went })
}

fn first_name(person: &Person) -> &str {
    person.name.split_whitespace().next().unwrap_or(&person.name)
}

struct Dividing<'h> {
    household: &'h Household,
    pack: &'h dyn Pack,
    filers: [&'h Person; 2],
    /// In which half each person is.
    half_of: BTreeMap<&'h str, usize>,
    went: Vec<Went>,
}

impl<'h> Dividing<'h> {
    fn to(&self, half: usize) -> String {
        first_name(self.filers[half]).to_owned()
    }

    fn both(&self) -> String {
        format!("{} and {}", self.to(0), self.to(1))
    }

    /// A dependent goes where more months were lived; where that is the same or not said, to the first, to be decided.
    fn dependents(&mut self) {
        let dependents = self.household.people.iter().filter(|person| person.role == Role::Dependent);
        for person in dependents {
            let months = self.filers.map(|filer| person.lived_with.get(&filer.id).copied());
            let (half, how, decide) = match months[0].cmp(&months[1]) {
                Ordering::Greater => (0, "lived there longer", false),
                Ordering::Less => (1, "lived there longer", false),
                Ordering::Equal => (0, "lived as long with both, or it is not said", true),
            };
            self.half_of.insert(&person.id, half);
            let to = self.to(half);
            self.went.push(Went { what: person.name.clone(), to, how: how.into(), decide });
        }
    }

    /// The household of a half, without its papers.
    fn people(&mut self, half: usize) -> Household {
        let gone = &self.filers[1 - half].id;
        let mut people: Vec<Person> = self
            .household
            .people
            .iter()
            .filter(|person| self.half_of[person.id.as_str()] == half)
            .cloned()
            .collect();
        let asked: Vec<Field> = self.pack.person_questions().iter().map(|question| question.field).collect();
        for person in &mut people {
            person.lived_with.remove(gone);
            if self.take_strangers(&mut person.answers, &asked, half) {
                self.tell_stranger(person.name.clone(), half);
            }
        }
        let mut answers = self.household.answers.clone();
        if self.take_strangers(&mut answers, self.pack.household_questions(), half) {
            self.tell_stranger(self.household.name.clone(), half);
        }
        let mark = first_name(self.filers[half]);
        let kept: String = self
            .household
            .name
            .chars()
            .take(check::LONGEST_NAME.saturating_sub(mark.chars().count() + 3))
            .collect();
        Household {
            name: format!("{kept} ({mark})"),
            people,
            answers,
            papers: Vec::new(),
            pins: BTreeMap::new(),
            pin_reasons: BTreeMap::new(),
            dismissed: BTreeMap::new(),
            refused: BTreeMap::new(),
            before: None,
            ..self.household.clone()
        }
    }

    /// What of a paper goes to each half.
    fn paper(&mut self, paper: &Paper) -> [Option<Paper>; 2] {
        let kind = self.pack.paper_kinds().iter().find(|kind| kind.id == paper.kind);
        let what = name(paper);
        let weight = |half: usize| -> i64 {
            let own =
                paper.owners.iter().filter(|owner| self.half_of.get(owner.person.as_str()) == Some(&half));
            own.map(|owner| owner.percent.billionths()).sum()
        };
        let weights = [weight(0), weight(1)];
        let rule = self.pack.divides().iter().find(|rule| rule.kind == paper.kind);
        let by = |plain: &str| {
            rule.map_or_else(|| plain.to_owned(), |rule| format!("{} ({})", rule.words, rule.cite))
        };
        let decide = rule.is_some();
        if weights.contains(&0) {
            let half = usize::from(weights[0] == 0);
            self.went.push(Went { what, to: self.to(half), how: by("its owner"), decide });
            let whole = Some(self.without_strangers(paper.clone(), kind, half));
            return if half == 0 { [whole, None] } else { [None, whole] };
        }
        let has_amounts = kind.is_none_or(|kind| {
            kind.boxes.iter().chain(kind.columns).any(|field| matches!(field.kind, FieldKind::Amount { .. }))
        });
        let how = match (has_amounts, weights[0] == weights[1]) {
            (false, _) => by("stands in both"),
            (true, true) => by("half each"),
            (true, false) => by("by their shares"),
        };
        self.went.push(Went { what, to: self.both(), how, decide });
        [0, 1].map(|half| Some(self.part(paper, kind, weights, half)))
    }

    /// A half's part of a paper that both own: its amounts by their shares; what else stands on it, on both.
    fn part(&mut self, paper: &Paper, kind: Option<&PaperKind>, weights: [i64; 2], half: usize) -> Paper {
        let owners: Vec<Share> = paper
            .owners
            .iter()
            .filter(|o| self.half_of.get(o.person.as_str()) == Some(&half))
            .cloned()
            .collect();
        let boxes = kind.map_or(&[][..], |kind| kind.boxes);
        let columns = kind.map_or(&[][..], |kind| kind.columns);
        let row = |row: &Row| Row { id: row.id.clone(), cells: parts(&row.cells, columns, weights, half) };
        let part = Paper {
            owners: whole(owners),
            boxes: parts(&paper.boxes, boxes, weights, half),
            rows: paper.rows.iter().map(row).collect(),
            checked: false,
            changed: Default::default(),
            before: Answers::new(),
            held: None,
            ..paper.clone()
        };
        self.without_strangers(part, kind, half)
    }

    /// A paper without the names of people who are in the other half; that is told.
    fn without_strangers(&mut self, mut paper: Paper, kind: Option<&PaperKind>, half: usize) -> Paper {
        let Some(kind) = kind else { return paper };
        let mut named = self.take_strangers(&mut paper.boxes, kind.boxes, half);
        for row in &mut paper.rows {
            named |= self.take_strangers(&mut row.cells, kind.columns, half);
        }
        if named {
            self.tell_stranger(name(&paper), half);
        }
        paper
    }

    /// Takes the names of people who are in the other half out of entries. Whether there was one.
    fn take_strangers(&self, entries: &mut Answers, fields: &[Field], half: usize) -> bool {
        let before = entries.len();
        entries.retain(|id, entry| {
            let is_person =
                fields.iter().any(|field| field.id == id && matches!(field.kind, FieldKind::Person));
            !is_person || entry.text().and_then(|id| self.half_of.get(id)) == Some(&half)
        });
        entries.len() < before
    }

    fn tell_stranger(&mut self, what: String, half: usize) {
        let how = "names someone who is in the other household: left empty here".to_owned();
        self.went.push(Went { what, to: self.to(half), how, decide: true });
    }
}

fn name(paper: &Paper) -> String {
    format!("{} {}", paper.kind, paper.title).trim_end().to_owned()
}

fn parts(entries: &Answers, fields: &[Field], weights: [i64; 2], half: usize) -> Answers {
    let is_amount =
        |id: &str| fields.iter().any(|f| f.id == id && matches!(f.kind, FieldKind::Amount { .. }));
    let part = |(id, entry): (&String, &Entry)| {
        let entry = match entry.money().filter(|_| is_amount(id)) {
            Some(amount) => Entry::amount(amount.split(&weights)[half]),
            None => entry.clone(),
        };
        (id.clone(), entry)
    };
    entries.iter().map(part).collect()
}

/// Shares that add up to a hundred again, in the same proportion.
fn whole(owners: Vec<Share>) -> Vec<Share> {
    let weights: Vec<i64> = owners.iter().map(|owner| owner.percent.billionths()).collect();
    let shares = Money::whole(100).split(&weights);
    let percent = |share: Money| Rate::from_billionths(share.cents() * Rate::ONE.billionths() / 100);
    owners.into_iter().zip(shares).map(|(owner, share)| Share { percent: percent(share), ..owner }).collect()
}
