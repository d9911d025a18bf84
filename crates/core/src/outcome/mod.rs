//! The outcome: everything that people read about a household, put together from the search, one recording of
//! the chosen way and the pack's declarations.

mod assemble;
mod beside;
mod compare;
mod fingerprint;
mod forward;
mod last_year;
mod schedules;
mod shown;
mod simplest;
mod why;

pub use assemble::{Unreckoned, age_on, headline, paid_back, pins_of, reckon, reckon_until};
pub use beside::{BesideRow, BesideSection, beside};
pub use compare::{Beside, ComparedRow, ComparedWay, Comparison, LaterRow, MOST_COLUMNS, Standing, compared};
pub use fingerprint::of_facts as fingerprint_of;
pub use forward::{CarriedOver, CarriedTo, Carry, NotForward, next_year};
pub use schedules::{Again, Apart, FormOutcome, FormRow, ReturnSchedules};
pub use simplest::COMPARED as COMPARED_TIES;

use crate::{
    asking::Blank,
    check::Fault,
    drawn::Drawn,
    limit::Limit,
    pack::{Pack, Suggestion, Totals},
    point::Point,
};
use hembo_money::Money;
use serde::Serialize;
use std::collections::{BTreeMap, BTreeSet, HashMap};
use time::Date;
use utoipa::ToSchema;

/// How many ways an outcome names where nobody asks for more.
pub const NAMED_WAYS: usize = 24;
/// How many ways an outcome names at the most.
pub const MOST_WAYS: usize = 100_000;

/// What an outcome holds beside what every view needs.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Wanted {
    /// How many of the lowest ways are named; all are weighed in any case.
    pub ways: usize,
    /// What differs between the lowest ways, and the curves of amounts.
    pub comparisons: bool,
    /// The official forms.
    pub schedules: bool,
}

impl Wanted {
    /// Everything, with so many ways.
    pub const fn all(ways: usize) -> Wanted {
        Wanted { ways, comparisons: true, schedules: true }
    }

    /// What every view needs, with so many ways.
    pub const fn least(ways: usize) -> Wanted {
        Wanted { ways, comparisons: false, schedules: false }
    }
}

/// What comes out for a household.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Outcome {
    /// The rule pack.
    pub country: String,
    /// The part of the country, for lists.
    pub locality: String,
    /// Whether all live in one home, as far as was said.
    pub one_home: bool,
    /// The return year.
    pub year: i32,
    /// The year is for planning only: its figures are not all sure, and its forms are not out.
    pub planning: bool,
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
    /// The same for each authority; their sums are the three above.
    pub authorities: Vec<Authority>,
    /// Whether every rule that touches this household is computed; if not, the figures are not a result.
    pub covered: bool,
    /// Whether every pin could be held.
    pub pins_hold: bool,
    /// Whether every lawful way was weighed; if not, the total is the lowest of those that were.
    pub complete: bool,
    /// How many ways are lawful; all were weighed, where that is said.
    pub lawful_ways: u64,
    /// How many of them hold every pin.
    pub holding_ways: u64,
    /// How often one of the returns was computed to weigh them.
    pub computed: u64,
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
    /// The chosen way beside others; nothing where that was not asked for.
    #[serde(default, skip_serializing_if = "Comparison::is_empty")]
    pub compared: Comparison,
    /// The official forms of every return; nothing where that was not asked for.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub schedules: Vec<ReturnSchedules>,
    /// Every line of the chosen way with its trail.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub lines: Vec<Line>,
    /// Every limit of the chosen way that something came to.
    pub limits: Vec<Limit>,
    /// What is unsettled: what blocks first.
    pub points: Vec<Point>,
    /// What is left blank, and what it is read as.
    pub blanks: Vec<Blank>,
    /// What each paper brings.
    pub papers: Vec<PaperOutcome>,
    /// What is carried over into the next year.
    pub carried: Vec<CarriedOver>,
}

/// What the filers' returns and those of their dependents come to for one authority.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Authority {
    /// To whom it is paid.
    pub name: String,
    /// Total tax.
    pub total: Money,
    /// What was paid during the year.
    pub paid: Money,
    /// Due (above zero) or back (below).
    pub balance: Money,
}

/// A person's column.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Column {
    /// The person.
    pub person: String,
    /// The name.
    pub name: String,
    /// Age at the end of the year or at death, what the person is, and the day of a death.
    pub caption: String,
    /// The day of a death by the end of the year.
    #[serde(skip)]
    pub died: Option<Date>,
    /// What the person's own return is, where there is one in the chosen way.
    pub files: Option<String>,
    /// Which of the returns that is.
    #[serde(skip)]
    pub place: Option<usize>,
}

/// A section of the Spread.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Section {
    /// The heading.
    pub title: String,
    /// A long one, which folds into its result until it is opened.
    pub folds: bool,
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
    /// A balance: told as due or back.
    pub balance: bool,
    /// A result.
    pub result: bool,
    /// The tax, what was paid, or the balance of an authority: the end of the computation.
    pub end: bool,
    /// What of the last column is nobody's part, such as what a limit took from all together; nothing where the parts are
    /// all of it.
    pub shared: Option<Money>,
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
    /// No part of the last column of its own: within another's part, or on a return that is not in it.
    pub beside: bool,
    /// The people from whose returns an amount moved into it.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub from: Vec<String>,
    /// The people to whose returns it moved.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub to: Vec<String>,
}

/// A way by name.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct NamedWay {
    /// What it is: "Joint · itemized".
    pub name: String,
    /// How it differs from the lowest: "but standard"; empty for that.
    pub but: String,
    /// The household's total tax.
    pub total: Money,
    /// How much more than the first.
    pub more: Money,
    /// What is taken: decision → option, or an amount as decimal text.
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
    /// The option or amount held by the preparer.
    pub pinned: Option<String>,
    /// Why it is held, where somebody said.
    pub reason: Option<String>,
    /// What deciding well is worth: the dearest open option, or end of an amount, less the cheapest.
    pub worth: Money,
    /// The options; none where an amount is chosen.
    pub options: Vec<OptionOutcome>,
    /// The amount, where one is chosen.
    pub amount: Option<AmountOutcome>,
    /// At what the choice turns, in words, where the larger of two lines wins.
    pub break_even: Option<String>,
}

/// An amount that the household chooses, with what it costs.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct AmountOutcome {
    /// The amount that the chosen way takes.
    pub taken: Money,
    /// The largest amount that the chosen way allows.
    pub most: Money,
    /// More of it never raises the tax; what does nothing is left for later.
    pub never_costs: bool,
    /// The best total with the amount left free, while the other pins hold.
    pub free: Option<Money>,
    /// The same with none of it.
    pub none: Option<Money>,
    /// The same with all of it.
    pub all: Option<Money>,
    /// The household's total along the amount at every kink, everything else as in the chosen way; nothing where that
    /// was not asked for.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub curve: Vec<Kink>,
}

/// A point at which the tax along an amount bends.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Kink {
    /// The amount.
    pub amount: Money,
    /// The household's total there.
    pub total: Money,
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
    /// Where it stands on the official forms of the year; empty where on none.
    pub place: String,
    /// The rule.
    pub cite: String,
    /// How it is made.
    pub how: String,
    /// The amount.
    pub amount: Money,
    /// How it was worked out, with its figures.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub workings: Vec<String>,
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
        /// Whose return it moved here from, where an amount moved between returns.
        #[serde(skip_serializing_if = "Option::is_none")]
        moved_from: Option<String>,
    },
    /// A box of a paper.
    Box {
        /// The paper.
        paper: String,
        /// The box or column.
        field: String,
        /// The line of a list, by its id.
        row: Option<String>,
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

/// The lines of an id at some scopes with their trail, those that they are made from down to so many steps, and those
/// that they feed.
pub fn trail<'l>(lines: &'l [Line], line: &str, scopes: &[&str], steps: usize) -> Vec<&'l Line> {
    let mut places: HashMap<(&str, &str), Vec<usize>> = HashMap::new();
    for (at, line) in lines.iter().enumerate() {
        places.entry((&line.id, &line.scope)).or_default().push(at);
    }
    let at = |id: &str, scope: &str| places.get(&(id, scope)).cloned().unwrap_or_default();
    let inputs = |at: usize| lines[at].inputs.iter().filter_map(LineInput::line);
    let mut level: Vec<usize> = scopes.iter().flat_map(|scope| at(line, scope)).collect();
    let mut found: BTreeSet<usize> = level.iter().copied().collect();
    for _ in 0..steps {
        let below = level.iter().flat_map(|&l| inputs(l)).flat_map(|(id, scope)| at(id, scope));
        level = below.filter(|&l| found.insert(l)).collect();
    }
    let feeds = |l: &usize| inputs(*l).any(|(id, scope)| id == line && scopes.contains(&scope));
    found.extend((0..lines.len()).filter(feeds));
    found.into_iter().map(|l| &lines[l]).collect()
}

/// What a paper brings.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PaperOutcome {
    /// The paper.
    pub paper: String,
    /// The amount that stands for it in lists.
    pub amount: Money,
    /// What was paid back, and is off that amount.
    pub back: Money,
    /// The lines its boxes go to.
    pub feeds: Vec<Feed>,
    /// What its empty boxes would hold.
    pub suggestions: Vec<Suggestion>,
    /// What is worked out beside its entries.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub drawn: Option<Drawn>,
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

impl LineInput {
    /// What it is called.
    fn label(&self) -> &str {
        match self {
            LineInput::Line { label, .. }
            | LineInput::Box { label, .. }
            | LineInput::Figure { label, .. } => label,
        }
    }

    /// The id and scope of the line that it is, on their own.
    fn line_scope(&self) -> Option<(String, String)> {
        self.line().map(|(id, scope)| (id.to_owned(), scope.to_owned()))
    }

    /// The id and scope of the line that it is, if it is one.
    fn line(&self) -> Option<(&str, &str)> {
        match self {
            LineInput::Line { id, scope, .. } => Some((id, scope)),
            _ => None,
        }
    }
}

impl AmountOutcome {
    /// Whether a text is an amount that the chosen way allows.
    fn check(&self, text: &str) -> Result<(), String> {
        match text.parse::<Money>() {
            Ok(amount) if amount.is_negative() || amount > self.most => {
                Err(format!("{amount:#} cannot be held here; an amount from 0 to {:#} can", self.most))
            }
            Ok(_) => Ok(()),
            Err(why) => Err(why.to_string()),
        }
    }
}

impl Outcome {
    /// A line of a scope, `return/0`; zero where it has none.
    pub fn amount(&self, line: &str, scope: &str) -> Money {
        let found = self.lines.iter().find(|l| l.id == line && l.scope == scope);
        found.map_or(Money::ZERO, |line| line.amount)
    }

    /// Whether an option or an amount can be held: the decision and the option are there and some lawful way takes
    /// it, or the amount is within what the chosen way allows.
    ///
    /// # Errors
    /// What is there instead, or why the option is not lawful.
    pub fn check_pin(&self, decision: &str, option: &str) -> Result<(), Fault> {
        let at = format!("/pins/{decision}");
        let list = |ids: Vec<&str>| ids.join(", ");
        let Some(found) = self.decisions.iter().find(|d| d.id == decision) else {
            let known = list(self.decisions.iter().map(|d| d.id.as_str()).collect());
            return Err(Fault::new(at, format!("There is no decision '{decision}'; there are {known}.")));
        };
        if let Some(amount) = &found.amount {
            return amount.check(option).map_err(|why| Fault::new(at, format!("{}: {why}.", found.label)));
        }
        let Some(found) = found.options.iter().find(|o| o.id == option) else {
            let known = list(found.options.iter().map(|o| o.id.as_str()).collect());
            return Err(Fault::new(at, format!("'{decision}' has no option '{option}'; it has {known}.")));
        };
        match &found.barred {
            Some(why) => Err(Fault::new(at, format!("{} is not lawful here: {why}.", found.label))),
            None => Ok(()),
        }
    }

    /// The tax and the balance of one return, `return/0`, with an authority; the law's first one has no name.
    pub fn of_return(&self, scope: &str, authority: &str, pack: &dyn Pack) -> (Money, Money) {
        let first = pack.totals().first().map(|totals| totals.authority);
        let is_to = |totals: &&Totals| match authority {
            "" => Some(totals.authority) == first,
            named => totals.authority == named,
        };
        let sum = |line: fn(&Totals) -> &'static str| {
            let ids: Vec<&str> = pack.totals().iter().filter(is_to).map(line).collect();
            let lines =
                self.lines.iter().filter(|line| line.scope == scope && ids.contains(&line.id.as_str()));
            lines.map(|line| line.amount).sum::<Money>()
        };
        (sum(|of| of.tax), sum(|of| of.balance))
    }

    /// The same outcome without what each line was made from.
    pub fn without_trail(mut self) -> Outcome {
        for line in &mut self.lines {
            line.inputs.clear();
            line.workings.clear();
        }
        self
    }
}
