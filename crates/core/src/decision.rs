//! Decisions: what the law leaves open to a household.

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
    /// What may be chosen; among equals the first is taken.
    pub options: Vec<Opt>,
    /// It moves amounts between returns without changing the household's tax, so that the search need not
    /// weigh it: the pinned option, or the first, stands.
    pub neutral: bool,
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
}

impl Opt {
    /// An option.
    pub fn new(id: impl Into<String>, label: impl Into<String>, short: impl Into<String>) -> Opt {
        Opt { id: id.into(), label: label.into(), short: short.into() }
    }
}

/// Why an option is not lawful here.
pub type Bar = Cow<'static, str>;

/// One option for every decision that is open; `None` for a decision that does not arise.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord, Default)]
pub struct Way(pub Vec<Option<u8>>);

impl Way {
    /// The option taken for a decision.
    pub fn taken(&self, decision: usize) -> Option<usize> {
        self.0.get(decision).copied().flatten().map(usize::from)
    }
}
