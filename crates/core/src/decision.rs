//! Decisions: what the law leaves open to a household.

use crate::line::LineId;
use hembo_money::{Money, Rate};
use std::borrow::Cow;

/// Something the law leaves open.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Decision {
    /// The id, which never changes; a decision about a person ends in the person's id.
    pub id: String,
    /// The question, in a few words.
    pub label: String,
    /// The rule that leaves it open.
    pub cite: &'static str,
    /// What may be chosen; among equals the first is taken. Empty where an amount is chosen.
    pub options: Vec<Opt>,
    /// The amount that may be chosen, where it is no choice between options.
    pub amount: Option<Amount>,
    /// It moves amounts between returns without changing the household's tax, so that the search need not
    /// weigh it: the pinned option, or the first, stands.
    pub neutral: bool,
}

impl Decision {
    /// A choice between options.
    pub fn between(
        id: impl Into<String>,
        label: impl Into<String>,
        cite: &'static str,
        options: Vec<Opt>,
    ) -> Decision {
        Decision { id: id.into(), label: label.into(), cite, options, amount: None, neutral: false }
    }

    /// An amount.
    pub fn amount(
        id: impl Into<String>,
        label: impl Into<String>,
        cite: &'static str,
        amount: Amount,
    ) -> Decision {
        Decision { amount: Some(amount), ..Decision::between(id, label, cite, Vec::new()) }
    }
}

/// An amount that the law lets the household choose, from zero up. Total tax is piecewise linear in it, so that the
/// search finds the lowest exactly, at a kink.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Amount {
    /// The largest amount that any way allows.
    pub most: Money,
    /// What it is called in the name of a way: "split"; empty where it need not be told.
    pub short: String,
    /// Whether more of it can raise the household's tax.
    pub more: More,
    /// By how much one unit more of it changes the household's tax at the very most, either way: what cannot become
    /// the lowest within that is not looked at more closely.
    pub steepest: Rate,
}

/// Whether more of an amount can raise the household's tax. Declared, so that the search need not look; a pack proves it
/// and checks it against every whole dollar.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum More {
    /// Never: all of it is taken, and of what does nothing the rest is left.
    NeverCosts,
    /// Not in any of the law's *worlds* ([`Weighable::worlds`](crate::search::Weighable::worlds)): it is looked for only
    /// where these are lower than the law.
    NeverCostsInWorlds,
    /// It may.
    MayCost,
}

/// One option of a decision.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Opt {
    /// The id within the decision.
    pub id: String,
    /// What it is called.
    pub label: String,
    /// What it is called in the name of a way; empty where it need not be told.
    pub short: String,
    /// The line that it takes off, where the larger of such lines wins: so that its break-even can be told.
    pub line: Option<LineId>,
}

impl Opt {
    /// An option.
    pub fn new(id: impl Into<String>, label: impl Into<String>, short: impl Into<String>) -> Opt {
        Opt { id: id.into(), label: label.into(), short: short.into(), line: None }
    }

    /// The same, taking off a line: of such options the larger wins.
    pub fn taking_off(self, line: LineId) -> Opt {
        Opt { line: Some(line), ..self }
    }
}

/// Why an option is not lawful here.
pub type Bar = Cow<'static, str>;

/// What a way takes of one decision.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Taken {
    /// An option, by its place.
    Option(u8),
    /// An amount.
    Amount(Money),
}

/// One option or amount for every decision that is open; `None` for a decision that does not arise.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord, Default)]
pub struct Way(pub Vec<Option<Taken>>);

impl Way {
    /// The option taken for a decision.
    pub fn taken(&self, decision: usize) -> Option<usize> {
        match self.0.get(decision).copied().flatten() {
            Some(Taken::Option(option)) => Some(option.into()),
            _ => None,
        }
    }

    /// The amount taken for a decision.
    pub fn amount(&self, decision: usize) -> Option<Money> {
        match self.0.get(decision).copied().flatten() {
            Some(Taken::Amount(amount)) => Some(amount),
            _ => None,
        }
    }
}
