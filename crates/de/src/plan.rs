//! What a way takes of every decision, as the rules read it, and one assessment within it.

use crate::{
    facts::Facts,
    rounding::{euros_up, half_up},
    tariff::Table,
};
use hembo_core::{
    brought::{Brought, Records},
    forms::Required,
    line::LineId,
    reading::sum,
    trail::{self, Item, Recorder, Scope, Trail},
};
use hembo_money::Money;

/// A way, read.
#[derive(Debug, Clone, Default)]
pub struct Plan {
    /// Each spouse is assessed alone (§26a).
    pub alone: bool,
    /// What both may share is divided by halves (§26a(2) S.2).
    pub halves: bool,
    /// What is done with capital income, by person; of those assessed together the same.
    pub capital: Vec<CapitalWay>,
    /// Who takes the room at home instead of the days.
    pub rooms: Vec<usize>,
    /// Whose trips home all count as way to work instead of a second household.
    pub trips: Vec<usize>,
    /// Over how many years large repairs of each let home are spread, by place among them.
    pub repairs: Vec<i64>,
    /// The tax of which countries is deducted instead of credited, by place among them.
    pub deducted: Vec<usize>,
    /// Which costs of care at home are claimed as services instead of a burden, by place among them.
    pub as_services: Vec<usize>,
    /// What of a child's other half is taken over, by child.
    pub taken_over: Vec<TakenOver>,
    /// Who claims the costs of a disability instead of the lump sum.
    pub actual_costs: Vec<usize>,
    /// Which work at the home is claimed as energy renovation, by place among such work.
    pub energy: Vec<usize>,
    /// To whom a child's disability lump sum goes, by child; half to each where nothing is said.
    pub lump_to: Vec<(usize, usize)>,
    /// To whom a child's training lump sum goes, by child; half to each where nothing is said.
    pub training_to: Vec<(usize, usize)>,
}

/// What of the other half of a child's allowances is taken over from a parent outside (§32(6) S.6 to 9).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum TakenOver {
    /// Nothing.
    #[default]
    Nothing,
    /// The care allowance.
    Care,
    /// Both allowances; the benefit of both halves stands against them.
    All,
}

/// What is done with capital income.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default)]
pub enum CapitalWay {
    /// Not declared: what was withheld stands (§43(5)).
    #[default]
    Left,
    /// Declared, at the flat rate (§32d(3), (4)).
    Flat,
    /// By the tariff (§32d(6)).
    Tariff,
}

/// One assessment of a way.
#[derive(Debug, Clone, Copy)]
pub struct On<'a> {
    /// The household's facts.
    pub facts: &'a Facts,
    /// What the way takes.
    pub plan: &'a Plan,
    /// Who is assessed: one, or both spouses.
    pub people: &'a [usize],
    /// Its scope in the trail.
    pub scope: Scope,
}

/// When a form is filed with a return.
pub type FormRule = fn(Filed<'_>) -> Required;

/// A return with its trail, to tell which forms are filed with it.
#[derive(Debug, Clone, Copy)]
pub struct Filed<'a> {
    /// The assessment.
    pub on: On<'a>,
    /// The trail of the way.
    pub trail: &'a Recorder,
}

impl Filed<'_> {
    /// Filed where a line of the return is anything but zero, or not for a reason.
    pub fn when(self, line: LineId, why_not: &'static str) -> Required {
        Required::if_so(self.has(line), why_not)
    }

    /// Whether a line of the return is anything but zero.
    pub fn has(self, line: LineId) -> bool {
        self.trail.amount(line, self.on.scope).is_some_and(|amount| !amount.is_zero())
    }

    /// Filed where papers bring any of these kinds, or not for a reason.
    pub fn brings(self, kinds: &[&'static Brought], why_not: &'static str) -> Required {
        Required::if_so(kinds.iter().any(|kind| self.on.items(kind).next().is_some()), why_not)
    }
}

impl<'a> On<'a> {
    /// Whether both spouses are assessed together.
    pub fn together(self) -> bool {
        self.people.len() == 2
    }

    /// Whether this is one of two assessments of a household: each parent has a half of what is of children.
    pub fn apart(self) -> bool {
        self.plan.alone && self.facts.filers.len() > 1
    }

    /// By which table: splitting together, and in the year after a spouse's death.
    pub fn table(self) -> Table {
        if self.together() || self.facts.widowed { Table::Splitting } else { Table::Basic }
    }

    /// So often as people are assessed: lump sums of both.
    pub fn times(self) -> i64 {
        self.people.len() as i64
    }

    /// What papers bring to a person.
    pub fn own(self, person: usize) -> &'a Records {
        &self.facts.people[person].own
    }

    /// What papers bring to all who are assessed.
    pub fn items(self, kind: &'static Brought) -> impl Iterator<Item = &'a Item> + Clone {
        let facts = self.facts;
        self.people.iter().flat_map(move |&person| facts.people[person].own.of(kind))
    }

    /// The same, added up.
    pub fn sum(self, kind: &'static Brought) -> Money {
        sum(self.items(kind))
    }

    /// What counts of a kind for a person that both may share: the own, or a half of all where the way divides so (§26a(2) S.2).
    pub fn shared_of(self, person: usize, kind: &'static Brought) -> Money {
        let own = |person: usize| sum(self.facts.people[person].own.of(kind));
        if self.halves() {
            return half_up(self.facts.filers.iter().map(|&person| own(person)).sum());
        }
        own(person)
    }

    /// The same for all who are assessed, each up to euros.
    pub fn shared_up(self, kind: &'static Brought) -> Money {
        self.people.iter().map(|&person| euros_up(self.shared_of(person, kind))).sum()
    }

    /// Whether what both may share is divided by halves.
    pub fn halves(self) -> bool {
        self.plan.alone && self.plan.halves && self.facts.couple()
    }

    /// A line that adds up items of the papers.
    pub fn gather<'i>(
        self,
        trail: &mut impl Trail,
        id: LineId,
        items: impl IntoIterator<Item = &'i Item> + Clone,
    ) -> Money {
        trail::gather(trail, id, self.scope, items)
    }

    /// A line that adds up other lines of this assessment.
    pub fn add(self, trail: &mut impl Trail, id: LineId, lines: &[(LineId, Money)]) -> Money {
        trail::add(trail, id, self.scope, lines)
    }

    /// A line of this assessment that is made of others and a figure or two.
    pub fn made(
        self,
        trail: &mut impl Trail,
        id: LineId,
        amount: Money,
        lines: &[(LineId, Money)],
        figures: &[(&'static str, &dyn ToString)],
    ) -> Money {
        trail::made(trail, id, self.scope, amount, lines, figures)
    }
}
