//! A provision: one rule or form of the law, one module of a pack, owner of all that it declares.

use crate::{
    field::Field,
    gathered::Gathered,
    limit::LimitDef,
    line::{LineDef, LineId},
    outcome::{CarriedTo, Carry},
    pack::Question,
    paper::{Counted, PaperKind},
    point::PointDef,
};
use std::collections::HashMap;

/// What one provision declares. A pack lists them in the order of the law.
#[derive(Debug, Clone, Copy)]
pub struct Provision {
    /// What it is about, where no line, paper or question of its own says so.
    pub about: &'static str,
    /// Its lines, in the order of the computation.
    pub lines: &'static [LineDef],
    /// Its limits.
    pub limits: &'static [&'static LimitDef],
    /// The papers that it reads, or that stand in a module of their own because several provisions read them.
    pub papers: &'static [PaperKind],
    /// Papers that have others as their parts.
    pub gathered: &'static [Gathered],
    /// What other papers bring to where its own papers go.
    pub counted: &'static [Counted],
    /// What it asks about people.
    pub person_questions: &'static [Question],
    /// What it asks about the household.
    pub household_questions: &'static [Field],
    /// What it may find unsettled.
    pub points: &'static [&'static PointDef],
    /// The tables of rule figures that it reads, by their ids.
    pub figures: &'static [&'static str],
    /// Its amounts that go into papers of the next year.
    pub carries: &'static [Carry],
}

impl Provision {
    /// What it is about, in words: as it says, else its last line, else its first paper or question.
    fn name(&self) -> &'static str {
        let line = self.lines.last().map(|line| line.label);
        let paper = self.papers.first().map(|paper| paper.name);
        let question = self.person_questions.first().map(|question| question.field.label);
        let asked = self.household_questions.first().map(|field| field.label);
        let found = self.points.first().map(|_| "Open points");
        let about = Some(self.about).filter(|about| !about.is_empty());
        about.or(line).or(paper).or(question).or(asked).or(found).unwrap_or_default()
    }

    /// One that declares nothing: the start of every other.
    pub const NONE: Provision = Provision {
        about: "",
        lines: &[],
        limits: &[],
        papers: &[],
        gathered: &[],
        counted: &[],
        person_questions: &[],
        household_questions: &[],
        points: &[],
        figures: &[],
        carries: &[],
    };
}

/// A provision at work in a pack: `R` makes facts of its papers, `P` tells what is unsettled.
#[derive(Debug, Clone, Copy)]
pub struct Rule<R, P> {
    /// What it declares.
    pub declares: &'static Provision,
    /// Makes facts of its papers.
    pub reads: Option<R>,
    /// Tells what is unsettled.
    pub finds: Option<P>,
}

impl<R: Copy, P: Copy> Rule<R, P> {
    /// A provision that reads no paper and finds nothing.
    pub const fn new(declares: &'static Provision) -> Rule<R, P> {
        Rule { declares, reads: None, finds: None }
    }

    /// The same, reading its papers.
    pub const fn reads(self, reads: R) -> Rule<R, P> {
        Rule { reads: Some(reads), ..self }
    }

    /// The same, telling what is unsettled.
    pub const fn finds(self, finds: P) -> Rule<R, P> {
        Rule { finds: Some(finds), ..self }
    }

    /// How a kind of paper is read, by the provision of a list that declares it.
    pub fn reader(list: &[Rule<R, P>], kind: &str) -> Option<R> {
        list.iter().find(|rule| rule.declares.papers.iter().any(|paper| paper.id == kind))?.reads
    }
}

/// Everything that a pack declares, gathered once at its start: looking up is never a scan.
#[derive(Debug)]
pub struct Declared {
    /// Kinds of papers, in the order of the law.
    pub papers: Vec<PaperKind>,
    /// Papers that have others as their parts; their kinds stand among `papers`.
    pub gathered: Vec<Gathered>,
    /// What other papers bring to where a kind's papers go.
    pub counted: Vec<Counted>,
    /// The questions about a person.
    pub person_questions: Vec<Question>,
    /// The questions about the household as a whole.
    pub household_questions: Vec<Field>,
    /// Every line, in the order of the computation.
    pub lines: Vec<LineDef>,
    /// Every limit.
    pub limits: Vec<&'static LimitDef>,
    /// Every kind of open point.
    pub points: Vec<&'static PointDef>,
    /// Every amount that goes into a paper of the next year.
    pub carries: Vec<Carry>,
    /// The tables of rule figures with what each is used for, in the order of the law.
    figures: Vec<(&'static str, &'static str)>,
    by_id: HashMap<LineId, usize>,
}

impl Declared {
    /// What a list of provisions declares, in its order.
    pub fn of<'p>(law: impl IntoIterator<Item = &'p Provision>) -> Declared {
        let mut all = Declared {
            papers: Vec::new(),
            gathered: Vec::new(),
            counted: Vec::new(),
            person_questions: Vec::new(),
            household_questions: Vec::new(),
            lines: Vec::new(),
            limits: Vec::new(),
            points: Vec::new(),
            carries: Vec::new(),
            figures: Vec::new(),
            by_id: HashMap::new(),
        };
        for provision in law {
            all.papers.extend(provision.papers);
            all.gathered.extend(provision.gathered);
            all.counted.extend(provision.counted);
            all.person_questions.extend(provision.person_questions);
            all.household_questions.extend(provision.household_questions);
            all.lines.extend(provision.lines);
            all.limits.extend(provision.limits);
            all.points.extend(provision.points);
            all.carries.extend(provision.carries);
            all.figures.extend(provision.figures.iter().map(|table| (*table, provision.name())));
        }
        let whole: Vec<PaperKind> = all.gathered.iter().map(|gathered| gathered.kind(&all.papers)).collect();
        all.papers.extend(whole);
        let counted: Vec<Counted> =
            all.gathered.iter().flat_map(|gathered| gathered.counted(&all.counted)).collect();
        all.counted.extend(counted);
        all.by_id = all.lines.iter().enumerate().map(|(at, line)| (line.id, at)).collect();
        all
    }

    /// What a table of rule figures is used for: the last line of each provision that reads it, else its paper.
    pub fn used_for(&self, table: &str) -> Vec<String> {
        let of = self.figures.iter().filter(|(id, name)| *id == table && !name.is_empty());
        let mut names: Vec<String> = of.map(|(_, name)| (*name).into()).collect();
        names.dedup();
        names
    }

    /// The tables of rule figures that provisions read.
    pub fn tables(&self) -> impl Iterator<Item = &'static str> + '_ {
        self.figures.iter().map(|(table, _)| *table)
    }

    /// The line of an id.
    pub fn line(&self, id: &str) -> Option<&LineDef> {
        self.by_id.get(id).map(|&at| &self.lines[at])
    }

    /// What is wrong with it, in words: an id that stands twice, a limit on a line that is not there.
    pub fn faults(&self) -> Vec<String> {
        let twice = |what: &str, ids: Vec<&'static str>| {
            let mut seen = std::collections::HashSet::new();
            let again = ids.into_iter().filter(|id| !seen.insert(*id));
            again.map(|id| format!("{what} {id} is declared twice")).collect::<Vec<_>>()
        };
        let mut faults = twice("line", self.lines.iter().map(|l| l.id).collect());
        faults.extend(twice("limit", self.limits.iter().map(|l| l.id).collect()));
        faults.extend(twice("point", self.points.iter().map(|p| p.code).collect()));
        faults.extend(twice("paper", self.papers.iter().map(|p| p.id).collect()));
        faults.extend(twice("question", self.household_questions.iter().map(|q| q.id).collect()));
        faults.extend(twice("question", self.person_questions.iter().map(|q| q.field.id).collect()));
        let has = |kind: &str, field: &str| {
            self.papers.iter().any(|paper| paper.id == kind && paper.field(field).is_some())
        };
        let parts = self.gathered.iter().flat_map(|gathered| gathered.parts);
        let astray = parts.filter(|part| !self.papers.iter().any(|paper| paper.id == part.kind));
        faults.extend(astray.map(|part| format!("{} is a part, and no paper", part.kind)));
        let known = |counted: &&Counted| {
            let at = self.papers.iter().any(|paper| paper.id == counted.at);
            at && counted.boxes.iter().all(|field| has(counted.from, field))
        };
        let unknown = self.counted.iter().filter(|counted| !known(counted));
        faults.extend(unknown.map(|c| format!("what {} brings to {} is no box of it", c.from, c.at)));
        let lost = self.carries.iter().filter(|carry| {
            let paper = self.papers.iter().find(|paper| paper.id == carry.paper);
            let goes = |paper: &PaperKind| match carry.into {
                CarriedTo::ByHand => true,
                CarriedTo::Box(id) | CarriedTo::Told(id) => paper.field(id).is_some(),
                CarriedTo::Rows { column, says } => {
                    let ids = [Some(column), Some("year"), says.map(|(id, _)| id)];
                    ids.into_iter().flatten().all(|id| paper.column(id).is_some())
                }
            };
            self.line(carry.line).is_none() || !paper.is_some_and(goes)
        });
        faults.extend(lost.map(|carry| format!("{} is carried to no place of {}", carry.line, carry.paper)));
        let astray = self.limits.iter().filter(|limit| self.line(limit.line).is_none());
        faults
            .extend(astray.map(|limit| format!("limit {} is on {}, which is no line", limit.id, limit.line)));
        faults
    }
}
