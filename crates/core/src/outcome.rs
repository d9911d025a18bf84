//! The outcome: everything that people read about a household, put together from the search, one recording of
//! the chosen way and the pack's declarations.

use crate::{
    check::{Fault, faults},
    decision::Way,
    field::FieldKind,
    household::{Entry, Household, Paper},
    limit::{Limit, LimitAt, LimitTaken},
    line::{LineDef, LineId, SpreadRow},
    pack::{Case, Pack, Registry, Return, Suggestion},
    point::Point,
    search::{Ranked, Weighed, search},
    trail::{Input, Inputs, Item, Recorder, Scope},
};
use hembo_money::Money;
use serde::Serialize;
use std::collections::BTreeMap;
use time::Date;
use utoipa::ToSchema;

/// How many ways an outcome names where nobody asks for more.
pub const NAMED_WAYS: usize = 24;
/// How many ways an outcome names at the most.
pub const MOST_WAYS: usize = 100_000;
/// How many of them it compares line by line.
const COMPARED: usize = 3;

/// What comes out for a household.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Outcome {
    /// The rule pack.
    pub country: String,
    /// The part of the country, for lists.
    pub locality: String,
    /// The return year.
    pub year: i32,
    /// The currency by its ISO 4217 code.
    pub currency: String,
    /// The lowest lawful total tax of the household, pins or not.
    pub lowest: Money,
    /// The total tax in the chosen way: the lowest that holds every pin.
    pub total: Money,
    /// What was paid during the year.
    pub paid: Money,
    /// Due (above zero) or back (below).
    pub balance: Money,
    /// Whether every rule that touches this household is computed; if not, the figures are not a result.
    pub covered: bool,
    /// Whether every pin could be held.
    pub pins_hold: bool,
    /// How many ways are lawful; all were weighed.
    pub lawful_ways: u64,
    /// How many of them hold every pin.
    pub holding_ways: u64,
    /// The people as columns.
    pub columns: Vec<Column>,
    /// What the last column is: "joint · itemized".
    pub together: String,
    /// The Spread.
    pub spread: Vec<Section>,
    /// The lowest ways that hold every pin; the first is the chosen one.
    pub ways: Vec<NamedWay>,
    /// What the law leaves open.
    pub decisions: Vec<DecisionOutcome>,
    /// The rows of the Spread that differ between the lowest ways.
    pub compared: Vec<ComparedRow>,
    /// Every line of the chosen way with its trail.
    pub lines: Vec<Line>,
    /// Every limit of the chosen way that something came to.
    pub limits: Vec<Limit>,
    /// What is unsettled: what blocks first.
    pub points: Vec<Point>,
    /// What each paper brings.
    pub papers: Vec<PaperOutcome>,
}

/// A person's column.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Column {
    /// The person.
    pub person: String,
    /// The name.
    pub name: String,
    /// Age at the end of the year and what the person is.
    pub caption: String,
    /// What the person's own return is, where there is one in the chosen way.
    pub files: Option<String>,
}

/// A section of the Spread.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Section {
    /// The heading.
    pub title: String,
    /// The rows.
    pub rows: Vec<Row>,
}

/// A row of the Spread.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Row {
    /// The words at the left.
    pub label: String,
    /// The line of the returns.
    pub line: String,
    /// How many papers feed it.
    pub papers: usize,
    /// Shown with a minus sign.
    pub takes_off: bool,
    /// A result.
    pub result: bool,
    /// Whether it counts in the chosen way, or only shows what another option would use.
    pub counts: bool,
    /// One cell a column.
    pub cells: Vec<Option<Cell>>,
    /// The last column.
    pub together: Option<Cell>,
}

/// A cell of the Spread.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Cell {
    /// The line.
    pub line: String,
    /// Whose lines it adds up: `return/0`, `person/ID`.
    pub scopes: Vec<String>,
    /// The amount.
    pub amount: Money,
    /// What limits took from it.
    pub lost: Money,
}

/// A way by name.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NamedWay {
    /// What it is: "Joint · itemized".
    pub name: String,
    /// The household's total tax.
    pub total: Money,
    /// How much more than the first.
    pub more: Money,
    /// The options taken: decision → option.
    pub options: BTreeMap<String, String>,
}

/// A decision with its prices.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DecisionOutcome {
    /// The id.
    pub id: String,
    /// The question.
    pub label: String,
    /// The rule.
    pub cite: String,
    /// Whether it arises in the chosen way.
    pub arises: bool,
    /// It moves amounts between returns without changing the total.
    pub neutral: bool,
    /// The option held by the preparer.
    pub pinned: Option<String>,
    /// What deciding well is worth: the dearest open option less the cheapest.
    pub worth: Money,
    /// The options.
    pub options: Vec<OptionOutcome>,
}

/// An option with its price.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct OptionOutcome {
    /// The id.
    pub id: String,
    /// What it is called.
    pub label: String,
    /// Whether the chosen way takes it.
    pub chosen: bool,
    /// The best total it allows while the other pins hold.
    pub best: Option<Money>,
    /// That, less the total of the chosen way.
    pub more: Option<Money>,
    /// Why it is not lawful here, or does not arise.
    pub barred: Option<String>,
}

/// A row that differs between the lowest ways.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ComparedRow {
    /// The words at the left.
    pub label: String,
    /// Shown with a minus sign.
    pub takes_off: bool,
    /// A result.
    pub result: bool,
    /// One amount for each of the first ways.
    pub amounts: Vec<Option<Money>>,
}

/// A line with its trail.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Line {
    /// The id.
    pub id: String,
    /// Whose: `return/0`, `person/ID`.
    pub scope: String,
    /// Whose, in words.
    pub whose: String,
    /// What it is called.
    pub label: String,
    /// Where it stands on the official form.
    pub place: String,
    /// The rule.
    pub cite: String,
    /// How it is made.
    pub how: String,
    /// The amount.
    pub amount: Money,
    /// What it was made from.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub inputs: Vec<LineInput>,
}

/// What a line was made from.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(tag = "from", rename_all = "snake_case")]
pub enum LineInput {
    /// Another line.
    Line {
        /// Its id.
        id: String,
        /// Whose.
        scope: String,
        /// What it is called.
        label: String,
        /// Its amount.
        amount: Money,
    },
    /// A box of a paper.
    Box {
        /// The paper.
        paper: String,
        /// The box or column.
        field: String,
        /// The line of a list.
        row: Option<usize>,
        /// The paper and the box in words.
        label: String,
        /// The amount.
        amount: Money,
    },
    /// A figure of the law.
    Figure {
        /// What it is.
        label: String,
        /// The figure.
        value: String,
    },
}

/// What a paper brings.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PaperOutcome {
    /// The paper.
    pub paper: String,
    /// The amount that stands for it in lists.
    pub amount: Money,
    /// The lines its boxes go to.
    pub feeds: Vec<Feed>,
    /// What its empty boxes would hold.
    pub suggestions: Vec<Suggestion>,
}

/// Where boxes go.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Feed {
    /// The line.
    pub line: String,
    /// Whose.
    pub scopes: Vec<String>,
    /// What it is called, and where it stands.
    pub label: String,
    /// What this paper brings to it.
    pub amount: Money,
}

impl Outcome {
    /// The same outcome without what each line was made from.
    pub fn without_trail(mut self) -> Outcome {
        for line in &mut self.lines {
            line.inputs.clear();
        }
        self
    }
}

/// Computes a household: all lawful ways, and the chosen one with its trail.
///
/// # Errors
/// The faults of a household that cannot be worked with.
pub fn reckon(household: &Household, registry: &Registry) -> Result<Outcome, Vec<Fault>> {
    reckon_naming(household, registry, NAMED_WAYS)
}

/// The same, naming so many of the lowest ways; all are weighed in any case.
///
/// # Errors
/// The faults of a household that cannot be worked with.
pub fn reckon_naming(household: &Household, registry: &Registry, ways: usize) -> Result<Outcome, Vec<Fault>> {
    let found = faults(household, registry);
    match registry.pack(&household.country) {
        Some(pack) if found.is_empty() => Ok(assemble(household, pack, ways.clamp(1, MOST_WAYS))),
        _ => Err(found),
    }
}

/// The household's pins as places among the decisions; pins of decisions that are gone are left out.
pub fn pins_of(household: &Household, case: &dyn Case) -> BTreeMap<usize, usize> {
    let find = |(d, o): (&String, &String)| {
        let decision = case.decisions().iter().position(|x| x.id == *d)?;
        let option = case.decisions()[decision].options.iter().position(|x| x.id == *o)?;
        Some((decision, option))
    };
    household.pins.iter().filter_map(find).collect()
}

/// The ranking that holds the pins; where no lawful way does, the ranking without them.
pub(crate) fn weigh(case: &dyn Case, pins: &BTreeMap<usize, usize>, keep: usize) -> (Weighed, bool) {
    let weighed = search(case, pins, keep);
    if weighed.ranking.is_empty() && !pins.is_empty() {
        return (search(case, &BTreeMap::new(), keep), false);
    }
    (weighed, true)
}

fn assemble(household: &Household, pack: &'static dyn Pack, ways: usize) -> Outcome {
    let case = pack.open(household);
    let pins = pins_of(household, &*case);
    let (weighed, pins_hold) = weigh(&*case, &pins, ways);
    let chosen = weighed.ranking.first().map(|r| r.way.clone()).unwrap_or_default();
    let trail = case.record(&chosen);
    let view =
        View { household, pack, case: &*case, returns: case.returns(&chosen), way: &chosen, trail: &trail };
    let total = weighed.ranking.first().map_or(Money::ZERO, |r| r.total);
    let points = view.points();
    let all =
        |line: LineId| (0..view.returns.len()).filter_map(|r| trail.amount(line, Scope::Return(r))).sum();
    Outcome {
        country: household.country.clone(),
        locality: pack.locality(household),
        year: household.year,
        currency: pack.about().currency.into(),
        lowest: weighed.lowest.as_ref().map_or(total, |r| r.total),
        total,
        paid: all(pack.totals().paid),
        balance: all(pack.totals().balance),
        covered: !points.iter().any(|p| p.not_covered),
        pins_hold,
        lawful_ways: weighed.lawful,
        holding_ways: weighed.holding,
        columns: view.columns(),
        together: way_name(&*case, &chosen),
        spread: view.spread(),
        ways: named_ways(&*case, &weighed.ranking),
        decisions: decisions(&*case, household, &chosen, &weighed, total),
        compared: compared(pack, &*case, &weighed.ranking),
        lines: trail.lines.iter().map(|l| view.line(l.id, l.scope, l.amount, &l.inputs)).collect(),
        limits: trail
            .limits
            .iter()
            .filter(|(_, t)| !t.entered.is_zero())
            .map(|(a, t)| view.limit(*a, *t))
            .collect(),
        points,
        papers: (0..household.papers.len()).map(|i| view.paper(i)).collect(),
    }
}

/// One way as people see it.
struct View<'a> {
    household: &'a Household,
    pack: &'static dyn Pack,
    case: &'a dyn Case,
    returns: Vec<Return>,
    way: &'a Way,
    trail: &'a Recorder,
}

impl View<'_> {
    fn columns(&self) -> Vec<Column> {
        let (_, end) = self.pack.span(self.household.year);
        let column = |(i, person): (usize, &crate::Person)| Column {
            person: person.id.clone(),
            name: person.name.clone(),
            caption: match person.born {
                Some(born) => format!("{} · {}", age_on(born, end), self.pack.caption(person)),
                None => self.pack.caption(person),
            },
            files: self.returns.iter().find(|r| r.people.contains(&i)).map(|r| r.caption.clone()),
        };
        self.household.people.iter().enumerate().map(column).collect()
    }

    fn spread(&self) -> Vec<Section> {
        let section = |s: &crate::line::SpreadSection| Section {
            title: s.title.into(),
            rows: s.rows.iter().filter_map(|r| self.row(r)).collect(),
        };
        self.pack.spread().iter().map(section).filter(|s| !s.rows.is_empty()).collect()
    }

    fn row(&self, row: &SpreadRow) -> Option<Row> {
        let main: Vec<_> =
            (0..self.returns.len()).filter(|&r| self.returns[r].main).map(Scope::Return).collect();
        let cells: Vec<_> = (0..self.household.people.len()).map(|p| self.person_cell(row, p)).collect();
        let together = self.cell(row.total, &main);
        let empty = |c: &Option<Cell>| c.as_ref().is_none_or(|c| c.amount.is_zero());
        if !row.always && empty(&together) && cells.iter().all(empty) {
            return None;
        }
        Some(Row {
            label: row.label.into(),
            line: row.total.into(),
            papers: self.papers_behind(row),
            takes_off: row.takes_off,
            result: row.result,
            counts: main.iter().any(|&s| self.case.counts(self.way, row.total, s)),
            cells,
            together,
        })
    }

    /// Who files alone sees the line of that return; everyone else the part that is theirs.
    fn person_cell(&self, row: &SpreadRow, person: usize) -> Option<Cell> {
        let alone = self.returns.iter().position(|r| r.people == [person]);
        let own = alone.and_then(|r| self.cell(row.total, &[Scope::Return(r)]));
        let part = row.person.and_then(|line| self.cell(line, &[Scope::Person(person)]));
        own.filter(|c| !c.amount.is_zero())
            .or(part)
            .or(alone.and_then(|r| self.cell(row.total, &[Scope::Return(r)])))
    }

    fn cell(&self, line: LineId, scopes: &[Scope]) -> Option<Cell> {
        let amounts: Vec<_> = scopes.iter().filter_map(|&s| Some((s, self.trail.amount(line, s)?))).collect();
        if amounts.is_empty() {
            return None;
        }
        let lost = |(at, taken): &(LimitAt, LimitTaken)| {
            (at.def.line == line && scopes.contains(&at.scope)).then_some(taken.entered - taken.allowed)
        };
        Some(Cell {
            line: line.into(),
            scopes: amounts.iter().map(|(s, _)| self.scope(*s)).collect(),
            amount: amounts.iter().map(|(_, a)| *a).sum(),
            lost: self.trail.limits.iter().filter_map(lost).sum(),
        })
    }

    fn papers_behind(&self, row: &SpreadRow) -> usize {
        let lines = self.trail.lines.iter().filter(|l| Some(l.id) == row.person || l.id == row.total);
        let boxes = lines.flat_map(|l| &l.inputs.0).filter_map(|i| match i {
            Input::Box(item) => Some(item.paper),
            _ => None,
        });
        boxes.collect::<std::collections::BTreeSet<_>>().len()
    }

    fn scope(&self, scope: Scope) -> String {
        match scope {
            Scope::Return(r) => format!("return/{r}"),
            Scope::Person(p) => format!("person/{}", self.household.people[p].id),
        }
    }

    fn whose(&self, scope: Scope) -> String {
        let name = |p: &usize| self.household.people[*p].name.as_str();
        match scope {
            Scope::Person(p) => name(&p).into(),
            Scope::Return(r) => {
                let of = &self.returns[r];
                format!("{} · {}", of.people.iter().map(name).collect::<Vec<_>>().join(" and "), of.caption)
            }
        }
    }

    fn def(&self, id: &str) -> LineDef {
        let found = self.pack.lines().iter().find(|l| l.id == id);
        found.copied().unwrap_or(LineDef::new("", "", "", "", ""))
    }

    fn line(&self, id: LineId, scope: Scope, amount: Money, inputs: &Inputs) -> Line {
        let def = self.def(id);
        Line {
            id: id.into(),
            scope: self.scope(scope),
            whose: self.whose(scope),
            label: def.label.into(),
            place: def.place.into(),
            cite: def.cite.into(),
            how: def.how.into(),
            amount,
            inputs: inputs.0.iter().map(|i| self.input(i)).collect(),
        }
    }

    fn input(&self, input: &Input) -> LineInput {
        match input {
            Input::Line(id, scope, amount) => LineInput::Line {
                id: (*id).into(),
                scope: self.scope(*scope),
                label: self.def(id).label.into(),
                amount: *amount,
            },
            Input::Box(item) => {
                let paper = &self.household.papers[item.paper];
                LineInput::Box {
                    paper: paper.id.clone(),
                    field: item.field.into(),
                    row: item.row,
                    label: self.box_label(paper, item),
                    amount: item.amount,
                }
            }
            Input::Figure(label, value) => LineInput::Figure { label: (*label).into(), value: value.clone() },
        }
    }

    fn box_label(&self, paper: &Paper, item: &Item) -> String {
        let kind = self.pack.paper_kinds().iter().find(|k| k.id == paper.kind);
        if let Some(row) = item.row {
            let cell = |field: &str| paper.rows[row].get(field).and_then(Entry::text);
            let words: Vec<_> = [cell("date"), cell("what")].into_iter().flatten().collect();
            return format!(
                "{} · {}",
                paper.kind,
                if words.is_empty() { "line".into() } else { words.join(" ") }
            );
        }
        let field = kind.and_then(|k| k.field(item.field));
        let number = field.map_or(item.field, |f| if f.number.is_empty() { f.label } else { f.number });
        let title = if paper.title.is_empty() { String::new() } else { format!(" {}", paper.title) };
        format!("{}{title} · box {number}", paper.kind)
    }

    fn limit(&self, at: LimitAt, taken: LimitTaken) -> Limit {
        Limit {
            id: at.def.id.into(),
            label: at.def.label.into(),
            how: at.def.how.into(),
            line: at.def.line.into(),
            scope: self.scope(at.scope),
            shape: taken.shape,
            entered: taken.entered,
            allowed: taken.allowed,
            lost: taken.entered - taken.allowed,
            edge: taken.edge.map(|e| e.at),
            distance: taken.edge.map(|e| e.distance),
            cite: at.def.cite.into(),
        }
    }

    fn points(&self) -> Vec<Point> {
        let mut points = self.case.points(self.way, self.trail);
        for point in &mut points {
            point.dismissed = self.household.dismissed.get(&point.id).cloned();
        }
        points.sort_by_key(|p| (p.dismissed.is_some(), p.weight));
        points
    }

    fn paper(&self, index: usize) -> PaperOutcome {
        let paper = &self.household.papers[index];
        PaperOutcome {
            paper: paper.id.clone(),
            amount: headline(self.pack, paper),
            feeds: self.feeds(index),
            suggestions: self.pack.suggestions(self.household, paper),
        }
    }

    /// The lines that the paper's boxes go to; the parts of several owners stand as one.
    fn feeds(&self, paper: usize) -> Vec<Feed> {
        let mut feeds: Vec<Feed> = Vec::new();
        for line in &self.trail.lines {
            let boxes = line.inputs.0.iter().filter_map(|i| match i {
                Input::Box(item) if item.paper == paper => Some(item.amount),
                _ => None,
            });
            let amount: Money = boxes.sum();
            if amount.is_zero() {
                continue;
            }
            let scope = self.scope(line.scope);
            match feeds.iter_mut().find(|f| f.line == line.id) {
                Some(feed) => {
                    feed.amount += amount;
                    feed.scopes.push(scope);
                }
                None => {
                    let def = self.def(line.id);
                    let label = format!("{}, {}", def.label, def.place);
                    feeds.push(Feed { line: line.id.into(), scopes: vec![scope], label, amount });
                }
            }
        }
        feeds
    }
}

/// The amount that stands for a paper in lists: its headline box (or the first amount that is filled), or the sum of
/// that column.
pub fn headline(pack: &dyn Pack, paper: &Paper) -> Money {
    let Some(kind) = pack.paper_kinds().iter().find(|k| k.id == paper.kind) else { return Money::ZERO };
    let column: Money =
        paper.rows.iter().filter_map(|row| row.get(kind.headline).and_then(Entry::money)).sum();
    let others = kind.boxes.iter().filter(|f| matches!(f.kind, FieldKind::Amount { .. })).map(|f| f.id);
    let boxes = std::iter::once(kind.headline).chain(others).map(|id| paper.amount(id));
    column + boxes.into_iter().find(|amount| !amount.is_zero()).unwrap_or_default()
}

/// Full years from a birth to a day.
pub fn age_on(born: Date, day: Date) -> i32 {
    let had_birthday = (day.month() as u8, day.day()) >= (born.month() as u8, born.day());
    day.year() - born.year() - i32::from(!had_birthday)
}

fn way_name(case: &dyn Case, way: &Way) -> String {
    let taken = case
        .decisions()
        .iter()
        .enumerate()
        .filter_map(|(d, about)| Some(&about.options[way.taken(d)?].short));
    let name = taken.filter(|s| !s.is_empty()).map(String::as_str).collect::<Vec<_>>().join(" · ");
    let mut letters = name.chars();
    letters.next().map(|first| first.to_uppercase().chain(letters).collect()).unwrap_or_default()
}

fn named_ways(case: &dyn Case, ranking: &[Ranked]) -> Vec<NamedWay> {
    let lowest = ranking.first().map_or(Money::ZERO, |r| r.total);
    let named = |ranked: &Ranked| NamedWay {
        name: way_name(case, &ranked.way),
        total: ranked.total,
        more: ranked.total - lowest,
        options: case
            .decisions()
            .iter()
            .enumerate()
            .filter_map(|(d, about)| Some((about.id.clone(), about.options[ranked.way.taken(d)?].id.clone())))
            .collect(),
    };
    ranking.iter().map(named).collect()
}

fn decisions(
    case: &dyn Case,
    household: &Household,
    chosen: &Way,
    weighed: &Weighed,
    total: Money,
) -> Vec<DecisionOutcome> {
    let outcome = |(d, about): (usize, &crate::Decision)| {
        let best = |o: usize| weighed.prices[d][o];
        let open: Vec<_> = (0..about.options.len()).filter_map(best).collect();
        DecisionOutcome {
            id: about.id.clone(),
            label: about.label.clone(),
            cite: about.cite.into(),
            arises: chosen.taken(d).is_some(),
            neutral: about.neutral,
            pinned: household.pins.get(&about.id).cloned(),
            worth: open
                .iter()
                .max()
                .zip(open.iter().min())
                .map_or(Money::ZERO, |(most, least)| *most - *least),
            options: about
                .options
                .iter()
                .enumerate()
                .map(|(o, option)| OptionOutcome {
                    id: option.id.clone(),
                    label: option.label.clone(),
                    chosen: chosen.taken(d) == Some(o),
                    best: best(o),
                    more: best(o).map(|b| b - total),
                    barred: weighed.bars[d][o].as_ref().map(|b| b.to_string()),
                })
                .collect(),
        }
    };
    case.decisions().iter().enumerate().map(outcome).collect()
}

fn compared(pack: &dyn Pack, case: &dyn Case, ranking: &[Ranked]) -> Vec<ComparedRow> {
    let recorded: Vec<_> =
        ranking.iter().take(COMPARED).map(|r| (case.record(&r.way), case.returns(&r.way), &r.way)).collect();
    let row = |row: &SpreadRow| ComparedRow {
        label: row.label.into(),
        takes_off: row.takes_off,
        result: row.result,
        amounts: recorded
            .iter()
            .map(|(trail, returns, way)| {
                let main = (0..returns.len()).filter(|&r| returns[r].main).map(Scope::Return);
                let counted = main.filter(|&s| case.counts(way, row.total, s));
                let amounts: Vec<_> = counted.filter_map(|s| trail.amount(row.total, s)).collect();
                (!amounts.is_empty()).then(|| amounts.into_iter().sum())
            })
            .collect(),
    };
    let differs =
        |r: &ComparedRow| r.amounts.windows(2).any(|w| w[0].unwrap_or_default() != w[1].unwrap_or_default());
    let rows = pack.spread().iter().flat_map(|s| s.rows).map(row);
    rows.filter(|r| differs(r) || (r.label.starts_with("Total") && r.result)).collect()
}
