//! The months of health cover (FTB 3853 Part III): a line a person, a cell a month, one or two codes a cell; what the rules fill in where
//! nothing was entered.

use super::{
    affordability::{ALONE, TOGETHER},
    residence,
};
use crate::{
    figures::CaliforniaCover,
    points::Points,
    state_facts::{Months, OfPerson, StateFacts},
};
use hembo_core::{
    Household,
    command::Command,
    drawn::{CellMade, Code, Opening, Tone},
    field::{Field, Years},
    household::{Answers, Entry, Row},
    open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    supposed::{StepMark, Steps},
    trail::Item,
};
use hembo_money::Money;
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[COVER, STATEMENTS],
    points: POINTS,
    figures: &["california_cover"],
    ..Provision::NONE
};

open_points! {
    CODE = blocks "ca-cover-code", "FTB 3853 Part III", "A cell holds one or two of the codes, X stands alone: correct it.";
    WHOSE = blocks "ca-cover-whose", "FTB 3853 Part I", "Choose the person of the line.";
    GAP_LONG = blocks "ca-cover-gap", "FTB 3853, code B", "Only the first gap of three months and less is B, with the months before January: enter X, or leave the months empty.";
    GAP_FREE = look "ca-cover-b", "FTB 3853, code B", "A gap so short is free of the penalty: leave the months empty, or enter B.";
    NOT_JOINED = look "ca-cover-h", "FTB 3853, code H", "H is of months up to that of birth or adoption, and from that of death on: correct it.";
    NOT_AFFORDABLE = look "ca-cover-a", "FTB 3853, codes A and G", "Leave the month empty: the worksheet finds the code.";
    BEFORE = look "ca-cover-before", "FTB 3853, code B", "Say how many months before January were without cover: they count for the length of the gap.";
    STATED = look "ca-cover-1095", "FTB 3853 Part III", "A statement of cover has this month, the line says otherwise: compare both.";
    PENDING = look "ca-cover-pending", "FTB 3853 Part I", "Enter the number of the certificate once it is there; until then the month counts as free.";
}

/// The months, as columns of the paper.
pub const MONTHS: [&str; 12] = ["m1", "m2", "m3", "m4", "m5", "m6", "m7", "m8", "m9", "m10", "m11", "m12"];

/// The code of a certificate of exemption.
const CERTIFICATE: &str = "ECN";

/// No cover and no exemption.
const NONE: &str = "X";

/// Abroad, in another state.
const ELSEWHERE: &str = "C";

/// A short gap.
const SHORT: &str = "B";

/// Cover.
const COVERED: &str = "Z";

const fn month(id: &'static str, label: &'static str) -> Field {
    Field::text(id, "", label, 7).help(
        "Z cover · X none · A, G not affordable · B short gap · C abroad or elsewhere · D sharing ministry · E tribe · F in prison · H born, adopted, died · I, K limited Medi-Cal · ECN certificate. Empty: without cover, and the rules find B or X.",
    )
}

/// The months of health cover.
pub const COVER: PaperKind = PaperKind {
    id: "Health cover",
    subject: subject::CREDITS,
    name: "Health cover month by month, FTB 3853",
    words: "california coverage months exemption penalty individual shared responsibility 3853 insurance gap",
    title: "About",
    shared: false,
    headline: "",
    boxes: &[],
    columns: &[
        Field::person("person", "", "Person"),
        Field::text(YEAR, "", "Year", 7)
            .help("One code for all twelve months; a month of its own goes before it."),
        month("m1", "Jan"),
        month("m2", "Feb"),
        month("m3", "Mar"),
        month("m4", "Apr"),
        month("m5", "May"),
        month("m6", "Jun"),
        month("m7", "Jul"),
        month("m8", "Aug"),
        month("m9", "Sep"),
        month("m10", "Oct"),
        month("m11", "Nov"),
        month("m12", "Dec"),
        Field::count("before", "", "Before", 12)
            .help("Months without cover right before January: they count for the length of a gap."),
        Field::text("number", "", "Certificate", 20)
            .help("Its number (ECN); PENDING where it was applied for."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Statements of cover: who was covered, from which month to which.
pub const STATEMENTS: PaperKind = PaperKind {
    id: "1095-B",
    subject: subject::CREDITS,
    name: "Months of cover: Forms 1095-A, 1095-B, 1095-C Part III, FTB 3895",
    words: "health insurance coverage statement 1095-c 3895 covered individuals months medi-cal employer",
    title: "Insurer",
    shared: false,
    headline: "",
    boxes: &[],
    columns: &[
        Field::person("person", "", "Covered person"),
        Field::count("from", "", "From month", 12).blank_is("1"),
        Field::count("to", "", "To month", 12).blank_is("12"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The column for all months.
const YEAR: &str = "year";

/// What each code means.
pub const MEANINGS: [Code; 13] = [
    Code { code: COVERED, means: "cover, for a day of the month or more" },
    Code { code: NONE, means: "no cover, no exemption" },
    Code { code: ALONE, means: "not affordable, by the worksheet" },
    Code { code: SHORT, means: "short gap: the first of three months or less" },
    Code { code: ELSEWHERE, means: "abroad, in another state, not lawfully here" },
    Code { code: "D", means: "member of a sharing ministry" },
    Code { code: "E", means: "member of a tribe" },
    Code { code: "F", means: "in prison after conviction" },
    Code { code: TOGETHER, means: "together not affordable, by the worksheet" },
    Code { code: "H", means: "born, adopted or died in the year" },
    Code { code: "I", means: "limited Medi-Cal" },
    Code { code: "K", means: "limited Medi-Cal, other" },
    Code { code: CERTIFICATE, means: "certificate: hardship, religion, affordability" },
];

/// The codes of a month, in capital letters: its own, else those of the year.
fn codes_of(cells: &Answers, month: &str) -> Vec<String> {
    let own = codes(cells, month);
    if own.is_empty() { codes(cells, YEAR) } else { own }
}

/// The codes of a cell, in capital letters.
fn codes(cells: &Answers, month: &str) -> Vec<String> {
    let text = cells.get(month).and_then(Entry::text).unwrap_or_default();
    let parts = text.split(|sign: char| !sign.is_ascii_alphanumeric()).filter(|part| !part.is_empty());
    parts.map(str::to_ascii_uppercase).collect()
}

/// A line of a paper that names a person, with its place.
struct Named<'h> {
    person: usize,
    item: Item,
    cells: &'h Row,
}

/// The lines of the papers of a kind that name a person.
fn named<'h>(household: &'h Household, kind: &'static str) -> impl Iterator<Item = Named<'h>> {
    let papers = household.papers.iter().enumerate().filter(move |(_, paper)| paper.kind == kind);
    let rows = papers
        .flat_map(|(paper, of)| of.rows.iter().enumerate().map(move |(row, cells)| (paper, row, cells)));
    rows.filter_map(|(paper, row, cells)| {
        let person = cells.get("person").and_then(Entry::text).and_then(|id| household.index_of(id))?;
        let item = Item { amount: Money::ZERO, paper, field: "person", row: Some(row) };
        Some(Named { person, item, cells })
    })
}

/// In which months statements tell of cover of a person.
fn stated(household: &Household, person: usize) -> [bool; 12] {
    let mut covered = [false; 12];
    for of in named(household, STATEMENTS.id).filter(|of| of.person == person) {
        let month = |column: &str, blank: i64| of.cells.get(column).and_then(Entry::count).unwrap_or(blank);
        let (from, to) = (month("from", 1), month("to", 12));
        for (at, month) in covered.iter_mut().enumerate() {
            *month |= (from..=to).contains(&(at as i64 + 1));
        }
    }
    covered
}

/// The months of everyone of whom a paper tells: as entered, else as a statement of cover says.
pub fn read(household: &Household, people: &[OfPerson]) -> Vec<Months> {
    let resident = |person: usize| resident(household, people, person);
    let of = |of: Named<'_>| {
        let stated = stated(household, of.person);
        let cell = |month: usize| match codes_of(of.cells, MONTHS[month]) {
            own if own.is_empty() && stated[month] => vec![COVERED.to_owned()],
            own => own,
        };
        Months {
            person: of.person,
            cells: std::array::from_fn(cell),
            resident: resident(of.person),
            before: of.cells.get("before").and_then(Entry::count),
            item: of.item,
        }
    };
    let mut all: Vec<Months> = named(household, COVER.id).map(of).collect();
    for statement in named(household, STATEMENTS.id) {
        if !all.iter().any(|months| months.person == statement.person) {
            all.push(of(statement));
        }
    }
    all
}

/// The months of residence of a person: of a dependent those of whoever files.
fn resident(household: &Household, people: &[OfPerson], person: usize) -> [bool; 12] {
    let filers: Vec<usize> = household.filers().map(|(at, _)| at).collect();
    let whose = if filers.contains(&person) { vec![person] } else { filers };
    std::array::from_fn(|month| whose.iter().any(|&at| people[at].residence.months[month]))
}

/// The codes that the rules found for the months of a person, where nothing was entered.
pub type Found = [Option<&'static str>; 12];

/// What a month of a person is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Is {
    /// Covered, or free by another code.
    Free,
    /// A month of a short gap, which the rules found or was entered.
    Short,
    /// Without cover and exemption.
    Bare,
}

/// Whether someone was not in the household in a month: up to the month of birth, from that of death on (code H).
pub fn outside(year: i32, month: usize, born: Option<Date>, died: Option<Date>) -> bool {
    let at = |day: Date| usize::from(u8::from(day.month())) - 1;
    born.is_some_and(|day| day.year() == year && month <= at(day))
        || died.is_some_and(|day| day.year() == year && month >= at(day))
}

/// What the months of a person are; the rules find B and X where a cell is empty (§ 8.7 of the form's logic: the first run of so many months
/// and less, with those before January, is short).
pub fn judged(
    figures: &CaliforniaCover,
    year: i32,
    of: &Months,
    born: Option<Date>,
    died: Option<Date>,
    found: &Found,
) -> [Is; 12] {
    let gap: [bool; 12] = std::array::from_fn(|month| {
        let cell = &of.cells[month];
        let spared = cell.is_empty() && found[month].is_some();
        !spared
            && of.resident[month]
            && !outside(year, month, born, died)
            && cell.iter().all(|code| code == NONE || code == SHORT)
    });
    let mut is = [Is::Free; 12];
    let mut taken = false;
    let mut month = 0;
    while month < 12 {
        if !gap[month] {
            month += 1;
            continue;
        }
        let end = (month..12).find(|at| !gap[*at]).unwrap_or(12);
        let before = if month == 0 { of.before.unwrap_or(0) } else { 0 };
        let short = !taken && (end - month) as i64 + before <= figures.short_gap;
        taken |= short;
        for (is, cell) in is.iter_mut().zip(&of.cells).take(end).skip(month) {
            let says = |code: &str| cell.iter().any(|entered| entered == code);
            *is = if says(SHORT) || (short && !says(NONE)) { Is::Short } else { Is::Bare };
        }
        month = end;
    }
    is
}

/// What the rules know of a line's months beside what was entered.
pub struct Known<'a> {
    /// What each month is.
    pub judged: [Is; 12],
    /// The codes that were found.
    pub found: &'a Found,
    /// The months that are of the one short gap.
    pub short: [bool; 12],
    /// The months in which the person was not of the household.
    pub outside: [bool; 12],
    /// In which months it is known what cover would have cost.
    pub offered: [bool; 12],
}

impl Known<'_> {
    /// Of the codes those of which the rules can say whether they are open to a month.
    fn open(&self, of: &Months, month: usize) -> Vec<Opening> {
        let opening = |code, open, words| Opening { code, open, words, fills: Vec::new() };
        let affordable = match (self.found[month], self.offered[month]) {
            (Some(ALONE), _) => [("by this return: yes", true), ("the plan alone is too much: A", false)],
            (Some(_), _) => [("alone it was affordable", false), ("by this return: yes", true)],
            (None, true) => [("by this return: no", false), ("by this return: no", false)],
            (None, false) => {
                [("say what cover would have cost", true), ("say what cover would have cost", true)]
            }
        };
        let [alone, together] = affordable;
        let resident = of.resident[month];
        vec![
            opening(ALONE, alone.1, alone.0),
            Opening {
                fills: self.gap(month),
                ..opening(
                    SHORT,
                    self.short[month],
                    if self.short[month] {
                        "open: one gap of three months or less"
                    } else {
                        "no short gap, or not the first"
                    },
                )
            },
            opening(ELSEWHERE, true, if resident { "abroad only" } else { "open: lived elsewhere" }),
            opening(TOGETHER, together.1, together.0),
            opening(
                "H",
                true,
                if self.outside[month] { "open: not of the household" } else { "adopted only" },
            ),
        ]
    }
}

impl Known<'_> {
    /// The months of the short gap of which this one is.
    fn gap(&self, month: usize) -> Vec<&'static str> {
        // A person has one short gap.
        let all = (0..12).filter(|&other| self.short[month] && self.short[other]);
        all.map(|other| MONTHS[other]).collect()
    }
}

/// Other numbers of months without cover of the person of a line: one gap, from where the present one begins to December, then to the
/// months before it. Months that are free by another code stay so, and those with a statement of cover are covered.
pub fn steps(figures: &CaliforniaCover, household: &Household, paper: &str, row: &str) -> Option<Steps> {
    let cells = household.paper(paper).filter(|paper| paper.kind == COVER.id)?.row(row)?;
    let person = cells.get("person").and_then(Entry::text).and_then(|id| household.index_of(id))?;
    let stated = stated(household, person);
    let own: [Vec<String>; 12] = std::array::from_fn(|month| codes_of(cells, MONTHS[month]));
    let bare = |month: &usize| own[*month].iter().all(|code| code == NONE || code == SHORT);
    let covered = |month: &usize| own[*month].iter().all(|code| code == COVERED);
    let open: Vec<usize> =
        (0..12).filter(|month| !stated[*month] && (bare(month) || covered(month))).collect();
    let now = open.iter().filter(|month| bare(month)).count();
    let first = open.iter().copied().find(|month| bare(month)).unwrap_or(0);
    let (before, after): (Vec<usize>, Vec<usize>) = open.iter().copied().partition(|&month| month < first);
    let order: Vec<usize> = after.into_iter().chain(before.into_iter().rev()).collect();
    let set = |column: &str, value: Option<String>| Command::SetCell {
        paper: paper.into(),
        row: row.into(),
        field: column.into(),
        value: value.map(Entry::Text),
    };
    let step = |many: usize| {
        let cell = |month: usize| {
            let is_open = open.contains(&month);
            let value = match order[..many].contains(&month) {
                true => None,
                false if is_open => Some(COVERED.to_owned()),
                false => Some(own[month].join(" ")).filter(|codes| !codes.is_empty()),
            };
            set(MONTHS[month], value)
        };
        std::iter::once(set(YEAR, None)).chain((0..12).map(cell)).collect()
    };
    let name = household.people[person].name.split(' ').next().unwrap_or_default();
    Some(Steps {
        title: format!("If {name} were without cover for so many months"),
        now,
        steps: (0..=order.len()).map(step).collect(),
        marks: vec![StepMark {
            step: usize::try_from(figures.short_gap).ok()?,
            words: format!("one gap of {} months or less is free", figures.short_gap),
        }],
    })
}

/// What the rules make of each month of a line, for its cells.
pub fn made(row: &Row, of: &Months, known: &Known<'_>) -> Vec<CellMade> {
    let found = known.found;
    let cell = |(month, is): (usize, Is)| {
        let covered = of.cells[month].iter().any(|code| code == COVERED);
        let (tone, makes) = match is {
            Is::Free if covered => (Tone::Good, ""),
            Is::Free if found[month].is_some() => (Tone::Spared, found[month].unwrap_or_default()),
            Is::Free if !of.resident[month] => (Tone::Spared, ELSEWHERE),
            Is::Free => (Tone::Spared, "H"),
            Is::Short => (Tone::Spared, SHORT),
            Is::Bare => (Tone::Costs, NONE),
        };
        let of_year =
            of.cells[month].first().and_then(|code| MEANINGS.iter().find(|known| known.code == code));
        let reads = match codes(row, MONTHS[month]).is_empty() {
            true => of_year.map_or(makes, |of| of.code),
            false => "",
        };
        CellMade { row: row.id.clone(), column: MONTHS[month], reads, tone, open: known.open(of, month) }
    };
    known.judged.into_iter().enumerate().map(cell).collect()
}

/// Whether someone is of age on the first day of a month.
pub fn is_adult(figures: &CaliforniaCover, year: i32, month: usize, born: Option<Date>) -> bool {
    let (Some(born), Some(first)) = (born, residence::first_day(year, month)) else { return true };
    hembo_core::outcome::age_on(born, first) >= figures.of_age
}

/// What is wrong with the cells of a person.
pub fn points(points: &mut Points<'_>, facts: &StateFacts, found_of: impl Fn(usize) -> Found) {
    let figures = &points.facts.figures;
    let (Some(cover), year) = (&figures.california_cover, figures.year) else { return };
    let mut found = Vec::new();
    for of in &facts.cover {
        let paper = &points.household.papers[of.item.paper];
        let row = &paper.rows[of.item.row.unwrap_or_default()];
        let about = &points.facts.people[of.person];
        let codes = found_of(of.person);
        let judged = judged(cover, year, of, about.born, about.died, &codes);
        let at = |month: &str| Place::row(&paper.id, row, month);
        for (month, cell) in of.cells.iter().enumerate() {
            let known = cell.iter().all(|code| MEANINGS.iter().any(|known| known.code == code));
            let alone = cell.len() == 1 || !cell.iter().any(|code| code == NONE);
            let twice = cell.len() == 2 && cell[0] == cell[1];
            if !known || !alone || twice || cell.len() > 2 {
                found.push((
                    &CODE,
                    at(MONTHS[month]),
                    format!("{}: such codes do not stand in one month.", about.name),
                ));
            }
        }
        let alone = |month: usize, code: &str| of.cells[month].len() == 1 && of.cells[month][0] == code;
        let lawful = short_runs(cover, year, of, about.born, about.died, &codes);
        if let Some(month) = (0..12).find(|&month| alone(month, SHORT) && !lawful[month]) {
            found.push((
                &GAP_LONG,
                at(MONTHS[month]),
                format!("{}: B in a gap that is too long, or not the first.", about.name),
            ));
        }
        if let Some(month) = (0..12).find(|&month| alone(month, NONE) && lawful[month]) {
            found.push((
                &GAP_FREE,
                at(MONTHS[month]),
                format!("{}: X in a gap of three months or less.", about.name),
            ));
        }
        let amiss = |month: &usize| {
            about.filer && alone(*month, "H") && !outside(year, *month, about.born, about.died)
        };
        if let Some(month) = (0..12).find(amiss) {
            let words = format!("{}: neither born nor died by this month.", about.name);
            found.push((&NOT_JOINED, at(MONTHS[month]), words));
        }
        if let Some(month) = (0..12).find(|&month| alone(month, NONE) && codes[month].is_some()) {
            found.push((
                &NOT_AFFORDABLE,
                at(MONTHS[month]),
                format!("{}: cover was not affordable in this month.", about.name),
            ));
        }
        let stated = stated(points.household, of.person);
        let against = |month: &usize| stated[*month] && !of.cells[*month].iter().any(|code| code == COVERED);
        if let Some(month) = (0..12).find(against) {
            let words = format!("{}: a statement tells of cover in this month.", about.name);
            found.push((&STATED, at(MONTHS[month]), words));
        }
        // A line of a statement has no more to say.
        if paper.kind != COVER.id {
            continue;
        }
        if judged[0] != Is::Free && of.before.is_none() {
            found.push((&BEFORE, at("before"), format!("{}: without cover before January?", about.name)));
        }
        let pending = row
            .get("number")
            .and_then(Entry::text)
            .is_none_or(|number| number.eq_ignore_ascii_case("pending"));
        if pending && of.cells.iter().flatten().any(|code| code == CERTIFICATE) {
            found.push((
                &PENDING,
                at("number"),
                format!("{}: the certificate has no number yet.", about.name),
            ));
        }
    }
    for paper in points.papers(COVER.id) {
        for row in paper.rows.iter().filter(|row| !row.contains_key("person")) {
            found.push((&WHOSE, Place::row(&paper.id, row, "person"), "Whose months are these?".into()));
        }
    }
    for (def, place, words) in found {
        points.raise(def, place, words);
    }
}

/// The months that are of the one short gap, whatever was entered for them.
pub fn short_runs(
    figures: &CaliforniaCover,
    year: i32,
    of: &Months,
    born: Option<Date>,
    died: Option<Date>,
    found: &Found,
) -> [bool; 12] {
    let bare = |cell: &Vec<String>| {
        if cell.iter().all(|code| code == NONE || code == SHORT) { Vec::new() } else { cell.clone() }
    };
    let plain = Months { cells: of.cells.each_ref().map(bare), ..of.clone() };
    judged(figures, year, &plain, born, died, found).map(|is| is == Is::Short)
}
