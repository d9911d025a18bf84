//! Families under the federal law of the United States: short to write, whole on the inside.
#![allow(missing_docs)]

use crate::family::family;
pub use crate::family::has_point;
use hembo_core::{Outcome, Registry};
use hembo_us::not_computed::NOT_COMPUTED;
use serde_json::{Value, json};
use std::sync::{Arc, LazyLock};

pub static REGISTRY: LazyLock<Registry> =
    LazyLock::new(|| Registry::of([Arc::new(hembo_us::UnitedStates::COMMITTED)]));

family!(REGISTRY);

impl Family {
    pub fn of(year: i32) -> Family {
        let family = Family(json!({
            "hembo": 1, "country": "us", "year": year, "name": "Test", "people": [], "papers": [], "pins": {},
            "answers": { "marital": "single", "digital_assets": false, "state": "OH" },
        }));
        NOT_COMPUTED.iter().fold(family, |family, asked| family.answer(asked.field.id, json!(false)))
    }

    pub fn single(year: i32) -> Family {
        Family::of(year).filer("ada", "1985-03-03")
    }

    pub fn couple(year: i32) -> Family {
        let family = Family::of(year).filer("ada", "1985-03-03").filer("bo", "1984-04-04");
        family.answer("marital", json!("married")).answer("apart", json!(false))
    }

    pub fn filer(self, id: &str, born: &str) -> Family {
        self.person(json!({ "id": id, "name": id, "role": "filer", "born": born, "answers": {} }))
    }

    /// A child who lived all year with every filer so far.
    pub fn child(self, id: &str, born: &str) -> Family {
        let filers: Vec<String> = self.filers();
        let months: Value =
            filers.into_iter().map(|f| (f, json!(12))).collect::<serde_json::Map<_, _>>().into();
        self.person(json!({
            "id": id, "name": id, "role": "dependent", "born": born, "lived_with": months,
            "answers": { "relationship": "child" },
        }))
    }

    pub fn person(mut self, mut person: Value) -> Family {
        let people = self.0["people"].as_array_mut().unwrap();
        person["id_number"] = json!(format!("811-34-{:04}", 2207 + people.len()));
        people.push(person);
        self
    }

    /// A paper of one owner, or of two by half.
    pub fn paper(self, kind: &str, owners: &[&str], boxes: Value, rows: Value) -> Family {
        let percent = if owners.len() == 1 { "100" } else { "50" };
        let owners: Vec<_> = owners.iter().map(|o| (*o, percent)).collect();
        self.shared(kind, &owners, boxes, rows)
    }

    /// A W-2 whose boxes 3 to 6 follow box 1.
    pub fn wages(self, who: &str, amount: i64) -> Family {
        self.wages_with(who, amount, json!({}))
    }

    pub fn wages_with(self, who: &str, amount: i64, more: Value) -> Family {
        let social = amount.min(168_600);
        let cents = |c: i64| format!("{}.{:02}", c / 100, c % 100);
        let mut boxes = json!({
            "b": "36-4410927", "1": amount.to_string(), "3": social.to_string(), "5": amount.to_string(),
            "4": cents((social * 62 + 5) / 10), "6": cents((amount * 145 + (amount - 200_000).max(0) * 90) / 100),
        });
        for (key, value) in more.as_object().unwrap() {
            boxes[key] = value.clone();
        }
        self.paper("W-2", &[who], boxes, Value::Null)
    }

    /// A household whose return of California is prepared, all year there and with nothing open about it.
    pub fn in_california(self) -> Family {
        [
            ("state", json!("CA")),
            ("community_all_year", json!(true)),
            ("california", json!(true)),
            ("ca_all_year", json!(true)),
            ("ca_other", json!(false)),
            ("ca_covered", json!(true)),
            ("ca_homeowner", json!(false)),
            ("ca_use_tax", json!("0")),
        ]
        .into_iter()
        .fold(self, |family, (question, answer)| family.answer(question, answer))
    }

    /// The signatures of a return, filed on paper.
    pub fn signed(self, who: &[&str]) -> Family {
        let boxes = json!({
            "how": "paper", "signed": "2027-02-01", "signed.spouse": "2027-02-01", "ptin": "P01748236", "consent": true,
            "street": "1 Quay Street", "town": "Astoria, OR", "zip": "97103", "telephone": "503-555-0110",
        });
        self.paper("8879", who, boxes, Value::Null)
    }

    pub fn interest(self, who: &[&str], amount: i64) -> Family {
        self.paper("1099-INT", who, json!({ "1": amount.to_string() }), Value::Null)
    }

    /// Ordinary dividends with the part that is qualified.
    pub fn dividends(self, who: &[&str], ordinary: i64, qualified: i64) -> Family {
        let boxes = json!({ "1a": ordinary.to_string(), "1b": qualified.to_string() });
        self.paper("1099-DIV", who, boxes, Value::Null)
    }

    /// A sale of a term at a gain or loss.
    pub fn sale(self, who: &[&str], term: &str, gain: i64) -> Family {
        let (proceeds, basis) = (100 + gain.max(0), 100 - gain.min(0));
        let row = json!({ "term": term, "proceeds": proceeds.to_string(), "basis": basis.to_string() });
        self.paper("1099-B", who, json!({}), json!([row]))
    }

    pub fn medical(self, payer: &[&str], patient: &str, amount: i64) -> Family {
        let row = json!({ "patient": patient, "sort": "bill", "amount": amount.to_string() });
        self.paper("Medical", payer, json!({}), json!([row]))
    }

    pub fn cash_gift(self, who: &[&str], amount: i64) -> Family {
        self.paper("Gifts", who, json!({}), json!([{ "sort": "cash", "amount": amount.to_string() }]))
    }

    pub fn state_tax(self, who: &[&str], amount: i64) -> Family {
        self.paper("State tax paid", who, json!({}), json!([{ "amount": amount.to_string() }]))
    }

    pub fn property_tax(self, who: &[&str], amount: i64) -> Family {
        self.paper("Property tax", who, json!({ "real_estate": amount.to_string() }), Value::Null)
    }

    /// A 1098 of a loan from 2021, with a steady balance.
    pub fn loan(self, who: &[&str], interest: i64, balance: i64) -> Family {
        let (interest, balance) = (interest.to_string(), balance.to_string());
        let boxes = json!({ "1": interest, "2": balance, "year_end": balance, "3": "2021-05-01" });
        self.paper("1098", who, boxes, Value::Null)
    }
}

/// A line of the first return in whole dollars.
pub fn line(outcome: &Outcome, id: &str) -> i64 {
    line_of(outcome, id, "return/0")
}

/// A line at a scope in whole dollars.
pub fn line_of(outcome: &Outcome, id: &str, scope: &str) -> i64 {
    let found = outcome.lines.iter().find(|l| l.id == id && l.scope == scope);
    found.unwrap_or_else(|| panic!("no line {id} of {scope}")).amount.cents() / 100
}

/// Compares lines with what the law gives.
pub fn assert_lines(outcome: &Outcome, expected: &[(&str, i64)]) {
    for &(id, amount) in expected {
        assert_eq!(line(outcome, id), amount, "{id}");
    }
}
