//! One way as people see it: the Spread, lines with their trail, limits, points, and what papers bring.

use super::{
    Authority, Cell, Column, Feed, Line, LineInput, PaperOutcome, Row, Section, age_on, fingerprint,
    headline, paid_back,
};
use crate::{
    decision::{Decision, More, Way},
    drawn::Drawn,
    forms::Required,
    gathered,
    household::{Entry, Household, Paper},
    limit::{Limit, LimitAt, LimitTaken},
    line::{LineId, SpreadRow},
    pack::{Case, Pack, Return, Totals},
    point::{Place, Point, PointDef, Weight},
    search::Weighed,
    trail::{Input, Inputs, Item, Recorded, Recorder, Scope},
    words::first_name,
};
use hembo_money::Money;
use std::collections::{BTreeMap, BTreeSet, HashMap};

const TOO_MANY_WAYS: PointDef = PointDef::blocks("too-many-ways", "", "Hold one of the decisions on Ways.");
const PIN_GONE: PointDef = PointDef::look("pin-gone", "", "Let it go; it has no effect.");

/// Whether a row is what is due to an authority, or back from it.
pub(super) fn is_balance(pack: &dyn Pack, row: &SpreadRow) -> bool {
    pack.totals().iter().any(|totals| totals.balance == row.total)
}

/// One way as people see it.
pub(super) struct Shown<'a> {
    pub(super) household: &'a Household,
    pub(super) pack: &'a dyn Pack,
    pub(super) case: &'a dyn Case,
    pub(super) returns: Vec<Return>,
    pub(super) way: &'a Way,
    pub(super) trail: &'a Recorder,
    pub(super) index: Index,
    /// Which of the year's forms are filed with each return, and why the others are not.
    pub(super) required: Vec<Vec<Required>>,
}

/// What is looked up for every cell, gathered once: so that the outcome takes time in its lines, not in their square.
pub(super) struct Index {
    /// The places of the lines of each id.
    lines: HashMap<LineId, Vec<usize>>,
    /// What limits took from each line.
    lost: HashMap<(LineId, Scope), Money>,
    /// To where amounts moved from each line.
    moved: HashMap<(LineId, Scope), Vec<Scope>>,
}

impl Index {
    pub(super) fn of(trail: &Recorder) -> Index {
        let mut lines: HashMap<LineId, Vec<usize>> = HashMap::new();
        let mut moved: HashMap<(LineId, Scope), Vec<Scope>> = HashMap::new();
        for (at, line) in trail.lines.iter().enumerate() {
            lines.entry(line.id).or_default().push(at);
            for input in &line.inputs.0 {
                match input {
                    Input::Flow(id, from, amount) if !amount.is_zero() => {
                        moved.entry((*id, *from)).or_default().push(line.scope);
                    }
                    _ => {}
                }
            }
        }
        let mut lost: HashMap<(LineId, Scope), Money> = HashMap::new();
        for (at, taken) in &trail.limits {
            *lost.entry((at.def.line, at.scope)).or_default() += taken.entered - taken.allowed;
        }
        Index { lines, lost, moved }
    }
}

impl<'a> Shown<'a> {
    pub(super) fn of(
        household: &'a Household,
        pack: &'a dyn Pack,
        case: &'a dyn Case,
        way: &'a Way,
        trail: &'a Recorder,
    ) -> Shown<'a> {
        let returns = case.returns(way);
        let forms = &pack.forms(household.year).forms;
        let of_return = |place| forms.iter().map(|form| case.required(&form.id, place, way, trail)).collect();
        let required = (0..returns.len()).map(of_return).collect();
        Shown { household, pack, case, returns, way, trail, index: Index::of(trail), required }
    }

    /// What all returns come to for each authority.
    pub(super) fn authorities(&self) -> Vec<Authority> {
        let all = |line: LineId| {
            (0..self.returns.len()).filter_map(|r| self.trail.amount(line, Scope::Return(r))).sum()
        };
        let one = |totals: &Totals| Authority {
            name: totals.authority.into(),
            total: all(totals.tax),
            paid: all(totals.paid),
            balance: all(totals.balance),
        };
        // An authority to which nothing is filed has no lines, such as a state whose return is not prepared.
        let filed = |totals: &&Totals| {
            (0..self.returns.len()).any(|r| self.trail.amount(totals.tax, Scope::Return(r)).is_some())
        };
        self.pack.totals().iter().filter(filed).map(one).collect()
    }

    pub(super) fn columns(&self) -> Vec<Column> {
        let (_, end) = self.pack.span(self.household.year);
        let column = |(i, person): (usize, &crate::Person)| {
            let died = person.died.filter(|day| *day <= end);
            let age = person.born.map(|born| format!("{} · ", age_on(born, died.unwrap_or(end))));
            let death = died.map(|day| format!(" · died {day}"));
            let place = self.returns.iter().position(|r| r.people.contains(&i));
            Column {
                person: person.id.clone(),
                name: person.name.clone(),
                caption: [age, Some(self.pack.caption(person)), death].into_iter().flatten().collect(),
                died,
                files: place.map(|place| self.returns[place].caption.clone()),
                place,
            }
        };
        self.household.people.iter().enumerate().map(column).collect()
    }

    pub(super) fn spread(&self) -> Vec<Section> {
        let section = |s: &crate::line::SpreadSection| Section {
            title: s.title.into(),
            folds: s.folds,
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
        // A result that no rule came to is not shown as nothing.
        if row.result && together.is_none() {
            return None;
        }
        if !row.always && empty(&together) && cells.iter().all(empty) {
            return None;
        }
        Some(Row {
            label: row.label.into(),
            line: row.total.into(),
            papers: self.papers_behind(row),
            takes_off: row.takes_off,
            balance: is_balance(self.pack, row),
            result: row.result,
            end: self.pack.totals().iter().any(|t| [t.tax, t.paid, t.balance].contains(&row.total)),
            shared: self.shared(&cells, together.as_ref()),
            counts: main.iter().any(|&s| self.case.counts(self.way, row.total, s)),
            cells,
            together,
        })
    }

    /// Whether a person's part is no part of the last column of its own: a dependent with a return apart, or one who stands on
    /// the return of someone who files alone.
    fn is_beside(&self, person: usize) -> bool {
        let on = |main: bool| self.returns.iter().any(|r| r.main == main && r.people.contains(&person));
        let all_alone = self.returns.iter().filter(|r| r.main).all(|r| r.people.len() == 1);
        on(false) || (!on(true) && all_alone)
    }

    /// What of the last column is nobody's part.
    fn shared(&self, cells: &[Option<Cell>], together: Option<&Cell>) -> Option<Money> {
        let parts = cells.iter().flatten().filter(|c| !c.beside);
        let parts: Vec<_> = parts.map(|c| c.amount).collect();
        let rest = together?.amount - parts.iter().copied().sum();
        let told = parts.iter().any(|part| !part.is_zero()) && !rest.to_whole().is_zero();
        told.then_some(rest)
    }

    /// Who files alone sees the line of that return; everyone else the part that is theirs.
    fn person_cell(&self, row: &SpreadRow, person: usize) -> Option<Cell> {
        let alone = self.returns.iter().position(|r| r.people == [person]);
        let own = alone.and_then(|r| self.cell(row.total, &[Scope::Return(r)]));
        let part = row.person.and_then(|line| self.cell(line, &[Scope::Person(person)]));
        let cell = own
            .filter(|c| !c.amount.is_zero())
            .or(part)
            .or(alone.and_then(|r| self.cell(row.total, &[Scope::Return(r)])));
        cell.map(|cell| Cell { beside: self.is_beside(person), ..cell })
    }

    fn cell(&self, line: LineId, scopes: &[Scope]) -> Option<Cell> {
        let amounts: Vec<_> = scopes.iter().filter_map(|&s| Some((s, self.trail.amount(line, s)?))).collect();
        if amounts.is_empty() {
            return None;
        }
        let (from, to) = (self.moved_in(line, scopes), self.moved_out(line, scopes));
        let lost = |scope: &Scope| self.index.lost.get(&(line, *scope)).copied();
        Some(Cell {
            line: line.into(),
            scopes: amounts.iter().map(|(s, _)| self.scope(*s)).collect(),
            amount: amounts.iter().map(|(_, a)| *a).sum(),
            lost: scopes.iter().filter_map(lost).sum(),
            beside: false,
            from,
            to,
        })
    }

    /// What limits took from a line.
    pub(super) fn lost(&self, line: &str, scope: Scope) -> Money {
        let id = self.pack.declared().line(line).map(|def| def.id);
        id.and_then(|id| self.index.lost.get(&(id, scope))).copied().unwrap_or_default()
    }

    /// The recorded lines of an id.
    pub(super) fn recorded(&self, line: &str) -> impl Iterator<Item = &Recorded> {
        let places = self.index.lines.get(line).map_or(&[][..], Vec::as_slice);
        places.iter().map(|&at| &self.trail.lines[at])
    }

    /// From whose returns amounts moved into a line of these.
    fn moved_in(&self, line: LineId, scopes: &[Scope]) -> Vec<String> {
        let lines = self.recorded(line).filter(|l| scopes.contains(&l.scope));
        let from = lines.flat_map(|l| &l.inputs.0).filter_map(|input| match input {
            Input::Flow(_, from, amount) if !amount.is_zero() && !scopes.contains(from) => Some(*from),
            _ => None,
        });
        self.filers_of(from)
    }

    /// To whose returns a line of these moved.
    fn moved_out(&self, line: LineId, scopes: &[Scope]) -> Vec<String> {
        let to = scopes.iter().filter_map(|&scope| self.index.moved.get(&(line, scope))).flatten();
        self.filers_of(to.copied().filter(|scope| !scopes.contains(scope)))
    }

    fn filers_of(&self, scopes: impl Iterator<Item = Scope>) -> Vec<String> {
        let mut people: Vec<usize> = scopes
            .flat_map(|scope| match scope {
                Scope::Return(r) => self.returns[r].people.clone(),
                Scope::Person(p) => vec![p],
            })
            .collect();
        people.sort_unstable();
        people.dedup();
        people.into_iter().map(|p| self.household.people[p].id.clone()).collect()
    }

    fn papers_behind(&self, row: &SpreadRow) -> usize {
        let of_people = row.person.filter(|line| *line != row.total);
        let lines: Vec<_> = self
            .recorded(row.total)
            .chain(of_people.into_iter().flat_map(|line| self.recorded(line)))
            .collect();
        // A person's part may add up lines of its own.
        let of_persons = lines.iter().filter(|l| matches!(l.scope, Scope::Person(_)));
        let added = of_persons.flat_map(|l| &l.inputs.0).filter_map(|i| match i {
            Input::Line(id, scope, _) => self.recorded(id).find(|l| l.scope == *scope),
            _ => None,
        });
        let all = lines.iter().copied().chain(added);
        let boxes = all.flat_map(|l| &l.inputs.0).filter_map(|i| match i {
            Input::Box(item) => Some(self.keyed(item.paper)),
            _ => None,
        });
        boxes.collect::<std::collections::BTreeSet<_>>().len()
    }

    pub(super) fn scope(&self, scope: Scope) -> String {
        scope.name(self.household)
    }

    pub(super) fn whose(&self, scope: Scope) -> String {
        let name = |p: &usize| self.household.people[*p].name.as_str();
        match scope {
            Scope::Person(p) => name(&p).into(),
            Scope::Return(r) => {
                let of = &self.returns[r];
                format!("{} · {}", of.people.iter().map(name).collect::<Vec<_>>().join(" and "), of.caption)
            }
        }
    }

    /// What a line is called.
    fn label(&self, id: &str) -> &'static str {
        self.pack.declared().line(id).map_or("", |def| def.label)
    }

    /// Where a line stands on the year's forms.
    fn place(&self, id: &str) -> &'static str {
        let filed = |form: usize| self.required.iter().any(|of_return| of_return[form] == Required::Yes);
        self.pack.forms(self.household.year).home(id, filed).map_or("", |(_, place)| place)
    }

    pub(super) fn line(&self, id: LineId, scope: Scope, amount: Money, inputs: &Inputs) -> Line {
        let def = self.pack.declared().line(id);
        Line {
            id: id.into(),
            scope: self.scope(scope),
            whose: self.whose(scope),
            label: self.label(id).into(),
            place: self.place(id).into(),
            cite: def.map_or("", |def| def.cite).into(),
            how: def.map_or("", |def| def.how).into(),
            amount,
            workings: inputs.0.iter().filter_map(Input::working).collect(),
            inputs: self.told_apart(inputs.0.iter().filter_map(|i| self.input(i)).collect()),
        }
    }

    /// Lines of one name among the inputs are told apart by whose they are, else by where they stand.
    fn told_apart(&self, mut inputs: Vec<LineInput>) -> Vec<LineInput> {
        let labels: Vec<_> = inputs.iter().map(|i| i.label().to_owned()).collect();
        let places: Vec<_> = inputs.iter().map(LineInput::line_scope).collect();
        let more: Vec<_> = (0..inputs.len())
            .map(|at| {
                let (id, scope) = places[at].clone()?;
                let twins: Vec<_> =
                    (0..inputs.len()).filter(|&o| o != at && labels[o] == labels[at]).collect();
                let alike = |o: &usize| places[*o].as_ref().is_some_and(|(_, s)| *s == scope);
                match twins.first() {
                    None => None,
                    Some(twin) if alike(twin) => {
                        Some(self.place(&id)).filter(|p| !p.is_empty()).map(str::to_owned)
                    }
                    Some(_) => Some(self.whose_is(&scope)),
                }
            })
            .collect();
        for (input, more) in inputs.iter_mut().zip(more) {
            if let (LineInput::Line { label, .. }, Some(more)) = (input, more) {
                *label = format!("{label} · {more}");
            }
        }
        inputs
    }

    /// Whose a scope is, in a word.
    fn whose_is(&self, scope: &str) -> String {
        let people = (0..self.household.people.len()).map(Scope::Person);
        let all = (0..self.returns.len()).map(Scope::Return).chain(people);
        let found = all.into_iter().find(|s| self.scope(*s) == scope);
        found.map_or(String::new(), |s| first_name(&self.whose(s)).to_owned())
    }

    fn input(&self, input: &Input) -> Option<LineInput> {
        Some(match input {
            Input::Working(_) => return None,
            Input::Line(id, scope, amount) => self.line_input(id, *scope, *amount, None),
            Input::Flow(id, from, amount) => {
                self.line_input(id, *from, *amount, self.filers_of([*from].into_iter()).pop())
            }
            Input::Box(item) => {
                let paper = &self.household.papers[item.paper];
                let declared = self.pack.declared();
                let (at, field) = gathered::keyed(&paper.id, item.field, item.row.is_some(), declared);
                LineInput::Box {
                    paper: at,
                    field,
                    row: item.row.map(|r| paper.rows[r].id.clone()),
                    label: self.box_label(paper, item),
                    amount: item.amount,
                }
            }
            Input::Figure(label, value) => LineInput::Figure { label: (*label).into(), value: value.clone() },
        })
    }

    fn line_input(&self, id: LineId, scope: Scope, amount: Money, moved_from: Option<String>) -> LineInput {
        let label = self.label(id).into();
        LineInput::Line { id: id.into(), scope: self.scope(scope), label, amount, moved_from }
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

    pub(super) fn limit(&self, at: LimitAt, taken: LimitTaken) -> Limit {
        Limit {
            id: at.def.id.into(),
            label: at.def.label.into(),
            how: at.def.how.into(),
            line: at.def.line.into(),
            scope: self.scope(at.scope),
            whose: self.whose(at.scope),
            shape: taken.shape,
            entered: taken.entered,
            allowed: taken.allowed,
            lost: taken.entered - taken.allowed,
            edge: taken.edge.map(|e| e.at),
            distance: taken.edge.map(|e| e.distance),
            cite: at.def.cite.into(),
        }
    }

    /// Every open point, with those that were found already; one tells where not all ways were weighed.
    pub(super) fn points(&self, weighed: &Weighed, found: Vec<Point>) -> Vec<Point> {
        let mut points = self.case.points(self.way, self.trail);
        points.extend(found);
        points.extend(self.pins_that_are_gone());
        points.extend((!weighed.complete).then(|| self.too_many_ways(weighed)));
        for point in &mut points {
            point.authority = self.pack.authority_of(point.code()).into();
            point.about = fingerprint::of(point, self.household);
            // What blocks cannot be put aside, and what was put aside is open again where its facts have changed.
            let dismissal = self
                .household
                .dismissed
                .get(&point.id)
                .filter(|_| point.weight == Weight::Look || point.beside);
            let same = dismissal.filter(|d| d.about.as_ref().is_none_or(|about| *about == point.about));
            point.dismissed = same.map(|d| d.reason.clone());
            point.place = gathered::place(std::mem::take(&mut point.place), self.pack.declared());
        }
        points.sort_by_key(|p| (p.dismissed.is_some(), p.weight));
        points
    }

    /// There are more ways than can be weighed: which decisions to hold, so that the rest is weighed in full.
    fn too_many_ways(&self, weighed: &Weighed) -> Point {
        let free = |(decision, about): &(usize, &Decision)| {
            let searched = about.amount.as_ref().is_some_and(|a| a.more != More::NeverCosts);
            (searched || weighed.left_out(*decision)) && !self.household.pins.contains_key(&about.id)
        };
        let decisions = self.case.decisions().iter().enumerate();
        let names: Vec<_> = decisions.filter(free).map(|(_, d)| d.label.as_str()).collect();
        let message =
            format!("Too many ways: this is the lowest of {} that were weighed, not of all.", weighed.lawful);
        let remedy =
            format!("Hold one of these on Ways, and the others are weighed in full: {}.", names.join(", "));
        Point { remedy, ..TOO_MANY_WAYS.at(Place::default(), message) }
    }

    /// Options held of decisions that no longer arise, or that no longer have the option.
    fn pins_that_are_gone(&self) -> Vec<Point> {
        let gone = |(decision, held): &(&String, &String)| {
            let about = self.case.decisions().iter().find(|d| d.id == **decision);
            about.is_none_or(|d| d.amount.is_none() && !d.options.iter().any(|o| o.id == **held))
        };
        let point = |(decision, held): (&String, &String)| {
            let message = format!("An option is held that is not there: {decision} = {held}.");
            PIN_GONE.at(Place::decision(decision), message)
        };
        self.household.pins.iter().filter(gone).map(point).collect()
    }

    /// What each paper brings.
    pub(super) fn papers(&self) -> Vec<PaperOutcome> {
        let mut feeds = self.feeds();
        let mut drawn: BTreeMap<usize, Drawn> = self.case.drawn(self.way).into_iter().collect();
        let paper = |(index, paper): (usize, &Paper)| {
            let drawn = drawn.remove(&index);
            let stands = drawn.as_ref().and_then(|drawn| drawn.stands);
            PaperOutcome {
                paper: paper.id.clone(),
                amount: stands.unwrap_or_else(|| headline(self.pack, paper)),
                back: paid_back(self.pack, paper),
                feeds: std::mem::take(&mut feeds[index]),
                suggestions: self.pack.suggestions(self.household, paper),
                drawn,
            }
        };
        let keyed = self.household.papers.iter().enumerate().filter(|(_, paper)| !gathered::is_part(paper));
        keyed.map(paper).collect()
    }

    /// The place of the paper that is keyed, by that of it or of a part.
    fn keyed(&self, paper: usize) -> usize {
        let papers = &self.household.papers;
        let (whole, _) = gathered::keyed(&papers[paper].id, "", false, self.pack.declared());
        papers.iter().position(|p| p.id == whole).unwrap_or(paper)
    }

    /// The lines that each paper's boxes go to; the parts of several owners stand as one, and what stands on a line of two returns is
    /// brought once.
    fn feeds(&self) -> Vec<Vec<Feed>> {
        let mut feeds: Vec<Vec<Feed>> = self.household.papers.iter().map(|_| Vec::new()).collect();
        let mut counted = BTreeSet::new();
        for line in &self.trail.lines {
            let mut brought: BTreeMap<usize, Money> = BTreeMap::new();
            for input in &line.inputs.0 {
                if let Input::Box(item) = input
                    && !item.amount.is_zero()
                {
                    let amount = brought.entry(self.keyed(item.paper)).or_default();
                    if counted.insert((line.id, item.paper, item.field, item.row)) {
                        *amount += item.amount;
                    }
                }
            }
            for (paper, amount) in brought {
                let scope = self.scope(line.scope);
                match feeds[paper].iter_mut().find(|f| f.line == line.id) {
                    Some(feed) => {
                        feed.amount += amount;
                        feed.scopes.push(scope);
                    }
                    None if amount.is_zero() => {}
                    None => {
                        let words = [self.label(line.id), self.place(line.id)];
                        let label =
                            words.into_iter().filter(|w| !w.is_empty()).collect::<Vec<_>>().join(", ");
                        feeds[paper].push(Feed { line: line.id.into(), scopes: vec![scope], label, amount });
                    }
                }
            }
        }
        feeds
    }
}
