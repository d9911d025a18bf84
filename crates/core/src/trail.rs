//! The trail: how a line came to be, down to the boxes.
//!
//! Every rule is generic over a [`Trail`]. [`Silent`] compiles to nothing and is what the search runs;
//! [`Recorder`] keeps every line, its inputs and its limits, and is what people read. There is no second
//! implementation for explanations.

use crate::{
    household::Household,
    limit::{LimitAt, LimitTaken},
    line::LineId,
};
use hembo_money::Money;
use std::collections::HashMap;

/// Whose line it is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Scope {
    /// A return, by its place in the way's returns.
    Return(usize),
    /// A person, by the place among the household's people.
    Person(usize),
}

impl Scope {
    /// As it stands in an outcome: `return/0`, `person/ID`.
    pub fn name(self, household: &Household) -> String {
        match self {
            Scope::Return(r) => format!("return/{r}"),
            Scope::Person(p) => format!("person/{}", household.people[p].id),
        }
    }
}

/// A figure that came from a paper: one box, or one cell of a list, of one owner.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Item {
    /// The owner's part of the amount.
    pub amount: Money,
    /// The paper, by its place in the household.
    pub paper: usize,
    /// The box or column.
    pub field: &'static str,
    /// The line of a list, where the paper is one.
    pub row: Option<usize>,
}

/// What a line was made from.
#[derive(Debug, Clone, PartialEq)]
pub enum Input {
    /// Another line.
    Line(LineId, Scope, Money),
    /// An amount that moved here from a line of another return: a transfer, a split.
    Flow(LineId, Scope, Money),
    /// A paper's box.
    Box(Item),
    /// A figure of the law.
    Figure(&'static str, String),
    /// How it was worked out, with its figures: "(112,638.07 − 93,454) × 15 %".
    Working(String),
}

impl Input {
    /// How the line was worked out, if this says so.
    pub fn working(&self) -> Option<String> {
        match self {
            Input::Working(how) => Some(how.clone()),
            _ => None,
        }
    }
}

/// The inputs of a line, collected in the order of the rule.
#[derive(Debug, Default, Clone, PartialEq)]
pub struct Inputs(pub Vec<Input>);

impl Inputs {
    /// Another line with its amount.
    pub fn line(&mut self, id: LineId, scope: Scope, amount: Money) -> &mut Self {
        self.0.push(Input::Line(id, scope, amount));
        self
    }

    /// An amount that moved here from a line of another return, which has it too.
    pub fn flow(&mut self, id: LineId, from: Scope, amount: Money) -> &mut Self {
        self.0.push(Input::Flow(id, from, amount));
        self
    }

    /// Boxes of papers; the parts of several owners of one box stand as one.
    pub fn items<'a>(&mut self, items: impl IntoIterator<Item = &'a Item>) -> &mut Self {
        let place = |item: &Item| (item.paper, item.field, item.row);
        let boxes = self.0.iter().enumerate().filter_map(|(at, input)| match input {
            Input::Box(item) => Some((place(item), at)),
            _ => None,
        });
        let mut seen: HashMap<_, usize> = boxes.collect();
        for item in items {
            match seen.get(&place(item)).map(|&at| &mut self.0[at]) {
                Some(Input::Box(found)) => found.amount += item.amount,
                _ => {
                    seen.insert(place(item), self.0.len());
                    self.0.push(Input::Box(*item));
                }
            }
        }
        self
    }

    /// A figure of the law.
    pub fn figure(&mut self, what: &'static str, value: impl ToString) -> &mut Self {
        self.0.push(Input::Figure(what, value.to_string()));
        self
    }
}

impl Inputs {
    /// How the line was worked out, with its figures.
    pub fn working(&mut self, how: String) -> &mut Self {
        self.0.push(Input::Working(how));
        self
    }
}

/// What a rule tells about itself while it computes.
pub trait Trail {
    /// Notes a line and hands its amount back.
    fn line(&mut self, id: LineId, scope: Scope, amount: Money, inputs: impl FnOnce(&mut Inputs)) -> Money;

    /// Notes a limit that acted, or might have.
    fn limit(&mut self, at: LimitAt, taken: impl FnOnce() -> LimitTaken);

    /// Notes how the next line is worked out, with its figures.
    #[inline(always)]
    fn working(&mut self, _how: impl FnOnce() -> String) {}

    /// Notes how far the computation is from an edge at which a rule bends: the sign of `margin` tells the side.
    /// Where the edge does not matter, as nothing stands on it to be bent, it is still noted. Its identity is the place in
    /// the rules that tells it.
    #[inline(always)]
    #[track_caller]
    fn edge(&mut self, _margin: Money, _matters: bool) {}

    /// The same where a rule jumps: from zero up is one side, below zero the other. The margin moves by at most two
    /// with a unit of any amount that is open.
    #[inline(always)]
    #[track_caller]
    fn step(&mut self, _margin: Money, _matters: bool) {}

    /// The same where a rule takes a part of an amount in the proportion that another bears to `over`, which comes to `part`: what
    /// stands above and below is linear, the part itself is not.
    #[inline(always)]
    fn curve(&mut self, _part: Money, _over: Money) {}
}

/// A line that adds up items of the papers.
pub fn gather<'i>(
    trail: &mut impl Trail,
    id: LineId,
    scope: Scope,
    items: impl IntoIterator<Item = &'i Item> + Clone,
) -> Money {
    trail.line(id, scope, items.clone().into_iter().map(|item| item.amount).sum(), |i| {
        i.items(items);
    })
}

/// A line that adds up other lines of its scope; what is zero is no input.
pub fn add(trail: &mut impl Trail, id: LineId, scope: Scope, lines: &[(LineId, Money)]) -> Money {
    let total = lines.iter().map(|(_, amount)| *amount).sum();
    trail.line(id, scope, total, |i| {
        for &(line, amount) in lines.iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, scope, amount);
        }
    })
}

/// A line that is made of others of its scope and a figure or two.
pub fn made(
    trail: &mut impl Trail,
    id: LineId,
    scope: Scope,
    amount: Money,
    lines: &[(LineId, Money)],
    figures: &[(&'static str, &dyn ToString)],
) -> Money {
    trail.line(id, scope, amount, |i| {
        for &(line, amount) in lines {
            i.line(line, scope, amount);
        }
        for (what, value) in figures {
            i.figure(what, value.to_string());
        }
    })
}

/// Notes nothing.
#[derive(Debug, Default)]
pub struct Silent;

impl Trail for Silent {
    #[inline(always)]
    fn line(&mut self, _: LineId, _: Scope, amount: Money, _: impl FnOnce(&mut Inputs)) -> Money {
        amount
    }

    #[inline(always)]
    fn limit(&mut self, _: LimitAt, _: impl FnOnce() -> LimitTaken) {}
}

/// Passes on the edges of a computation whose lines nobody is to see, such as a test of what would be.
#[derive(Debug)]
pub struct Unseen<'t, T>(pub &'t mut T);

impl<T: Trail> Trail for Unseen<'_, T> {
    fn line(&mut self, _: LineId, _: Scope, amount: Money, _: impl FnOnce(&mut Inputs)) -> Money {
        amount
    }

    fn limit(&mut self, _: LimitAt, _: impl FnOnce() -> LimitTaken) {}

    #[track_caller]
    fn edge(&mut self, margin: Money, matters: bool) {
        self.0.edge(margin, matters);
    }

    #[track_caller]
    fn step(&mut self, margin: Money, matters: bool) {
        self.0.step(margin, matters);
    }

    fn curve(&mut self, part: Money, over: Money) {
        self.0.curve(part, over);
    }
}

/// Notes everything.
#[derive(Debug, Default, Clone)]
pub struct Recorder {
    /// The lines in the order of the computation.
    pub lines: Vec<Recorded>,
    /// Where each line stands; of one that is noted twice the first.
    places: HashMap<(LineId, Scope), usize>,
    /// The limits in the order of the computation.
    pub limits: Vec<(LimitAt, LimitTaken)>,
    /// How the next line is worked out.
    workings: Vec<String>,
}

/// A line as it was computed.
#[derive(Debug, Clone)]
pub struct Recorded {
    /// Which line.
    pub id: LineId,
    /// Whose.
    pub scope: Scope,
    /// The amount.
    pub amount: Money,
    /// What it was made from.
    pub inputs: Inputs,
}

impl Recorder {
    /// The amount of a line, if it was computed.
    pub fn amount(&self, id: LineId, scope: Scope) -> Option<Money> {
        self.places.get(&(id, scope)).map(|&at| self.lines[at].amount)
    }
}

impl Trail for Recorder {
    fn line(&mut self, id: LineId, scope: Scope, amount: Money, inputs: impl FnOnce(&mut Inputs)) -> Money {
        let mut collected = Inputs::default();
        inputs(&mut collected);
        collected.0.extend(self.workings.drain(..).map(Input::Working));
        self.places.entry((id, scope)).or_insert(self.lines.len());
        self.lines.push(Recorded { id, scope, amount, inputs: collected });
        amount
    }

    fn limit(&mut self, at: LimitAt, taken: impl FnOnce() -> LimitTaken) {
        self.limits.push((at, taken()));
    }

    fn working(&mut self, how: impl FnOnce() -> String) {
        self.workings.push(how());
    }
}
