//! The certificate of a result: what was weighed and why nothing is lower, in words, with a digest of the facts, the rules and the result that
//! can be checked again.

use crate::{
    household::Household,
    outcome::{COMPARED_TIES, DecisionOutcome, Outcome},
    pack::Pack,
};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What is certified, in words.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Certificate {
    /// The digest of [`Certified`], in hexadecimal.
    pub digest: String,
    /// The version of the rules.
    pub rules: String,
    /// What was done and what follows from it, one after the other.
    pub statements: Vec<Statement>,
    /// The options that no lawful way takes, each with its rule.
    pub barred: Vec<Barred>,
    /// What is chosen beside the return, or left open and not weighed: it is no way.
    pub beside: Vec<Beside>,
}

/// A statement.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = CertificateStatement)]
pub struct Statement {
    /// What it is about.
    pub about: String,
    /// What it says.
    pub words: String,
}

/// An option that is not lawful here.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = BarredOption)]
pub struct Barred {
    /// The decision.
    pub decision: String,
    /// The option.
    pub option: String,
    /// Why it is not lawful.
    pub why: String,
    /// The rule of the decision.
    pub cite: String,
}

/// Something that may be chosen and is no way.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
#[schema(as = ChosenBeside)]
pub struct Beside {
    /// What.
    pub what: String,
    /// Why it is no way.
    pub why: String,
    /// The rule that leaves it open.
    pub cite: String,
}

/// What a digest is of: facts, rules and result. It is a file of its own, which `hembo verify` reads.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Certified {
    /// The household without the practice's own work.
    pub household: Household,
    /// The version of the rules.
    pub rules: String,
    /// What came out.
    pub result: CertifiedResult,
}

/// A certified result.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct CertifiedResult {
    /// Total tax.
    pub total: Money,
    /// The lowest total of any lawful way, held or not.
    pub lowest: Money,
    /// What was paid during the year.
    pub paid: Money,
    /// Due (above zero) or back (below).
    pub balance: Money,
    /// How many ways are lawful.
    pub lawful_ways: u64,
    /// Every one was weighed.
    pub complete: bool,
    /// Every rule that touches the household is computed.
    pub covered: bool,
    /// The chosen way: decision → option.
    pub way: BTreeMap<String, String>,
}

/// The file of a certificate: what it is of, with its digest.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Sealed {
    /// What the digest is of.
    pub certified: Certified,
    /// The digest.
    pub digest: String,
}

impl Certified {
    /// What is certified of a household and what came out of it.
    pub fn of(household: &Household, outcome: &Outcome, pack: &dyn Pack) -> Certified {
        let facts = Household {
            dismissed: BTreeMap::new(),
            refused: BTreeMap::new(),
            before: None,
            reference: String::new(),
            ..household.clone()
        };
        let result = CertifiedResult {
            total: outcome.total,
            lowest: outcome.lowest,
            paid: outcome.paid,
            balance: outcome.balance,
            lawful_ways: outcome.lawful_ways,
            complete: outcome.complete,
            covered: outcome.covered,
            way: outcome.ways.first().map(|way| way.options.clone()).unwrap_or_default(),
        };
        Certified { household: facts, rules: pack.version().to_owned(), result }
    }

    /// The SHA-256 of its JSON, whose members stand in a settled order, in hexadecimal.
    pub fn digest(&self) -> String {
        let text = serde_json::to_vec(self).unwrap_or_default();
        Sha256::digest(&text).iter().map(|byte| format!("{byte:02x}")).collect()
    }

    /// The file of it.
    pub fn sealed(self) -> Sealed {
        Sealed { digest: self.digest(), certified: self }
    }
}

impl Sealed {
    /// What does not agree with what is reckoned again, in words; nothing where all of it does.
    pub fn faults(&self, again: &Certified) -> Vec<String> {
        let mut faults = Vec::new();
        if self.digest != self.certified.digest() {
            faults.push("The file was changed: its digest is another.".to_owned());
        }
        let (then, now) = (&self.certified, again);
        if then.rules != now.rules {
            faults.push(format!("The rules are others: then {}, now {}.", then.rules, now.rules));
        }
        if then.result != now.result {
            let words = |of: &CertifiedResult| {
                format!("tax {}, balance {}, {} lawful ways", of.total, of.balance, of.lawful_ways)
            };
            let (then, now) = (words(&then.result), words(&now.result));
            let differ = if then == now {
                "another way, or other coverage".to_owned()
            } else {
                format!("then {then}; now {now}")
            };
            faults.push(format!("The result is another: {differ}."));
        }
        faults
    }
}

/// The certificate of what came out of a household.
pub fn certificate(household: &Household, outcome: &Outcome, pack: &dyn Pack) -> Certificate {
    let certified = Certified::of(household, outcome, pack);
    Certificate {
        digest: certified.digest(),
        statements: statements(household, outcome, pack),
        barred: barred(&outcome.decisions),
        beside: beside(outcome, pack),
        rules: certified.rules,
    }
}

fn statements(household: &Household, outcome: &Outcome, pack: &dyn Pack) -> Vec<Statement> {
    let numbers = pack.about().numbers;
    let amount = |amount: Money| numbers.amount(amount);
    let say = |about: &str, words: String| Statement { about: about.to_owned(), words };
    let mut all = vec![
        say("The result", result(outcome, &amount)),
        say("What was weighed", weighed(outcome)),
        say("Why no other way is lower", why_lowest(outcome)),
        say(
            "Ways with the same tax",
            format!(
                "Of the first {COMPARED_TIES} of them the one stands first that takes most as last year did; of these the one with the law's first option of most decisions; of these the one with the fewest official forms."
            ),
        ),
        say(
            "What counts",
            "Total tax less what is paid out as credits, over all returns and authorities of this year. What a way leaves to later years stands beside it and does not count.".to_owned(),
        ),
    ];
    if !household.pins.is_empty() && outcome.pins_hold {
        let more = outcome.total - outcome.lowest;
        let words = match more.is_zero() {
            true => "It costs nothing.".to_owned(),
            false => format!("Without it the lowest is {}, {} less.", amount(outcome.lowest), amount(more)),
        };
        all.push(say("Held by choice", format!("{}. {words}", held(household, outcome))));
    }
    all.push(say("Rules", covered(outcome, pack)));
    all
}

fn result(outcome: &Outcome, amount: &dyn Fn(Money) -> String) -> String {
    let way = outcome.ways.first().map(|way| way.name.as_str()).filter(|name| !name.is_empty());
    let way = way.map_or_else(String::new, |name| format!(" ({name})"));
    let standing = match (outcome.covered, outcome.complete, outcome.total == outcome.lowest) {
        (false, ..) => "no result: something that touches this household is not computed",
        (true, false, _) => "the lowest of the ways that were weighed",
        (true, true, true) => "the lowest lawful tax of the year",
        (true, true, false) => "the lowest of the year that holds what is held",
    };
    format!("Total tax {}{way} for {}: {standing}.", amount(outcome.total), outcome.year)
}

fn weighed(outcome: &Outcome) -> String {
    let ways = match outcome.lawful_ways {
        1 => "One way is lawful".to_owned(),
        many => format!("{many} ways are lawful"),
    };
    if !outcome.complete {
        return format!(
            "{ways}, or more: too many to weigh each. The result is the lowest of those that were weighed, and may not be the lowest of all."
        );
    }
    let open = outcome.points.iter().any(|point| point.unweighed && point.dismissed.is_none());
    let besides =
        if open { " The law leaves more open here, which is told below and was not weighed." } else { "" };
    match outcome.lawful_ways {
        1 => format!("{ways}, and it was computed.{besides}"),
        _ => {
            let times = match outcome.computed {
                1 => "once".to_owned(),
                many => format!("{many} times"),
            };
            format!("{ways}; every one was weighed, for which a return was computed {times}.{besides}")
        }
    }
}

fn why_lowest(outcome: &Outcome) -> String {
    if !outcome.complete {
        return "It is not proven: there were too many ways to weigh each.".to_owned();
    }
    let mut words = "The tax of a household is the sum of its returns. Each return was computed for every combination of the options that it reads; an option that it does not read cannot change it, so its sums stand for every way. The lowest sum is the lowest way: nothing was left out by a guess.".to_owned();
    if outcome.decisions.iter().any(|decision| decision.amount.is_some()) {
        words.push_str(" Amounts that may be chosen: between the points at which a rule bends the tax runs straight, so the lowest stands at such a point; points are left out only where more of an amount is proven never to cost.");
    }
    words
}

fn held(household: &Household, outcome: &Outcome) -> String {
    let of = |(decision, option): (&String, &String)| {
        let found = outcome.decisions.iter().find(|one| one.id == *decision)?;
        let label = found.options.iter().find(|one| one.id == *option).map_or(option, |one| &one.label);
        let why = found.reason.as_ref().map_or_else(String::new, |reason| format!(" ({reason})"));
        Some(format!("{}: {label}{why}", found.label))
    };
    household.pins.iter().filter_map(of).collect::<Vec<_>>().join("; ")
}

fn covered(outcome: &Outcome, pack: &dyn Pack) -> String {
    let version = format!("Rules {} of {}, {}", pack.version(), pack.about().name, outcome.year);
    if outcome.covered {
        format!("{version}. No rule that touches this household is left uncomputed.")
    } else {
        let points = outcome.points.iter().filter(|point| point.not_covered && point.dismissed.is_none());
        let told: Vec<&str> = points.map(|point| point.message.as_str()).collect();
        format!("{version}. The figures are not a result: {}", told.join(" "))
    }
}

fn barred(decisions: &[DecisionOutcome]) -> Vec<Barred> {
    let of = |decision: &DecisionOutcome| {
        let options = decision.options.iter().filter(|_| decision.arises);
        let barred = options.filter_map(|option| {
            Some(Barred {
                decision: decision.label.clone(),
                option: option.label.clone(),
                why: option.barred.clone()?,
                cite: decision.cite.clone(),
            })
        });
        barred.collect::<Vec<_>>()
    };
    decisions.iter().flat_map(of).collect()
}

fn beside(outcome: &Outcome, pack: &dyn Pack) -> Vec<Beside> {
    let points = outcome.points.iter().filter(|point| point.unweighed && point.dismissed.is_none());
    let of_household = points.map(|point| Beside {
        what: point.message.clone(),
        why: "The law leaves it open here, and it is not weighed.".to_owned(),
        cite: point.cite.clone(),
    });
    let of_anyone = pack.elections().iter().map(|election| Beside {
        what: election.what.to_owned(),
        why: "No paper tells of it: it is advice, and no way.".to_owned(),
        cite: election.cite.to_owned(),
    });
    of_household.chain(of_anyone).collect()
}
