//! What families of every law have in common: a household file in the making, and what came out for it.

use crate::laws::EVERY_LAW;
use hembo_core::{
    Outcome,
    lever::{Advice, Step},
    outcome::LineInput,
};
use hembo_money::Money;

/// Declares `Family`, a household file in the making under the laws of a registry, with what every law's families have.
macro_rules! family {
    ($registry:expr) => {
        /// A household file in the making.
        #[derive(Clone, Debug)]
        pub struct Family(pub ::serde_json::Value);

        impl Family {
            /// Answers a question about the household.
            pub fn answer(mut self, question: &str, value: ::serde_json::Value) -> Family {
                self.0["answers"][question] = value;
                self
            }

            /// Answers a question about a person.
            pub fn answer_for(self, person: &str, question: &str, value: ::serde_json::Value) -> Family {
                self.set(person, &format!("/answers/{question}"), value)
            }

            /// Sets something of a person, by a JSON pointer below the person.
            pub fn set(mut self, person: &str, pointer: &str, value: ::serde_json::Value) -> Family {
                let people = self.0["people"].as_array_mut().unwrap();
                let found = people.iter_mut().find(|p| p["id"] == person).unwrap();
                let (parent, key) = pointer.rsplit_once('/').unwrap();
                found.pointer_mut(parent).unwrap()[key] = value;
                self
            }

            /// Holds an option or an amount.
            pub fn pin(mut self, decision: &str, held: &str) -> Family {
                self.0["pins"][decision] = ::serde_json::json!(held);
                self
            }

            /// A paper with its owners and their per cent; rows only where they are a list.
            pub fn shared(
                mut self,
                kind: &str,
                owners: &[(&str, &str)],
                boxes: ::serde_json::Value,
                rows: ::serde_json::Value,
            ) -> Family {
                let owner = |(person, percent): &(&str, &str)| {
                    ::serde_json::json!({ "person": person, "percent": percent })
                };
                let owners: Vec<_> = owners.iter().map(owner).collect();
                let papers = self.0["papers"].as_array_mut().unwrap();
                let id = format!("paper{}", papers.len());
                let mut paper = ::serde_json::json!({
                    "id": id, "kind": kind, "title": "", "owners": owners, "boxes": boxes,
                });
                if rows.is_array() {
                    paper["rows"] = rows;
                }
                papers.push(paper);
                self
            }

            /// The ids of the filers so far.
            pub fn filers(&self) -> Vec<String> {
                let people = self.0["people"].as_array().unwrap();
                let filers = people.iter().filter(|p| p["role"] == "filer");
                filers.map(|p| p["id"].as_str().unwrap().to_owned()).collect()
            }

            /// The file, read and checked.
            pub fn household(&self) -> ::hembo_core::Household {
                let read = ::hembo_core::file::read(self.0.to_string().as_bytes(), &$registry);
                read.unwrap_or_else(|faults| panic!("{faults:#?}"))
            }

            /// What comes out for it.
            pub fn outcome(&self) -> ::hembo_core::Outcome {
                ::hembo_core::reckon(&self.household(), &$registry).unwrap()
            }

            /// What is advised under a name: of each step the amount, empty where there is none, and the change of tax.
            pub fn advised(&self, what: &str) -> Option<Vec<(String, String)>> {
                let stop = ::hembo_core::search::Stop::default();
                let household = self.household();
                let advice = ::hembo_core::lever::advice(&household, &self.outcome(), &$registry, &stop);
                $crate::family::steps_of(advice.unwrap(), what)
            }
        }
    };
}
pub(crate) use family;

/// The steps of an advice: the amount, empty where there is none, and the change of tax.
pub fn steps_of(advice: Vec<Advice>, what: &str) -> Option<Vec<(String, String)>> {
    let one = advice.into_iter().find(|one| one.what == what)?;
    let told = |step: Step| {
        (step.amount.map(|amount| amount.to_string()).unwrap_or_default(), step.change.to_string())
    };
    Some(one.steps.into_iter().map(told).collect())
}

/// Steps as [`steps_of`] tells them.
pub fn steps(of: &[(&str, &str)]) -> Option<Vec<(String, String)>> {
    Some(of.iter().map(|(amount, change)| ((*amount).to_owned(), (*change).to_owned())).collect())
}

/// Points that packs do not declare: those of the core, and those of questions that rule out what is not computed.
const NOT_DECLARED: [&str; 4] = ["asks", "not-computed", "too-many-ways", "pin-gone"];

/// Whether a point of that code is open; panics at a code that no pack declares, as no outcome could have it.
pub fn has_point(outcome: &Outcome, code: &str) -> bool {
    let declared =
        EVERY_LAW.packs().any(|pack| pack.declared().points.iter().any(|point| point.code == code));
    assert!(declared || NOT_DECLARED.contains(&code), "no pack declares a point {code}");
    outcome.points.iter().any(|p| p.id.split(':').next() == Some(code))
}

/// Where a trail does not lead on: a line that is made from another which is not there once, with that amount, or below zero where it is
/// taken off.
pub fn broken_trails(outcome: &Outcome) -> Vec<String> {
    let mut broken = Vec::new();
    for line in &outcome.lines {
        for input in &line.inputs {
            let LineInput::Line { id, scope, amount, .. } = input else { continue };
            let found: Vec<_> = outcome.lines.iter().filter(|l| l.id == *id && l.scope == *scope).collect();
            let there = found.first().map_or(Money::ZERO, |l| l.amount);
            if found.len() > 1 || (there != *amount && there != -*amount) {
                broken.push(format!("{id} of {scope} in {}: {amount}, not {there}", line.id));
            }
        }
        if line.label.is_empty() {
            broken.push(format!("{} is not declared", line.id));
        }
    }
    broken
}
