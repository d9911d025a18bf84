//! Families under the law of Germany: short to write, whole on the inside.
#![allow(missing_docs)]

use crate::family::family;
pub use crate::family::has_point;
use hembo_core::{Outcome, Registry};
use hembo_money::Money;
use serde_json::{Value, json};
use std::sync::{Arc, LazyLock};

pub static REGISTRY: LazyLock<Registry> =
    LazyLock::new(|| Registry::of([Arc::new(hembo_de::Germany::COMMITTED)]));

family!(REGISTRY);

impl Family {
    pub fn of(year: i32, marital: &str) -> Family {
        Family(json!({
            "hembo": 1, "country": "de", "year": year, "name": "Test", "people": [], "papers": [], "pins": {},
            "answers": { "land": "NW", "marital": marital },
        }))
    }

    pub fn single(year: i32) -> Family {
        Family::of(year, "single").person("ada", "filer", "1985-03-04")
    }

    pub fn couple(year: i32) -> Family {
        let family = Family::of(year, "married").person("ada", "filer", "1985-03-04");
        family.person("bo", "filer", "1986-05-06")
    }

    pub fn person(mut self, id: &str, role: &str, born: &str) -> Family {
        self.0["people"].as_array_mut().unwrap().push(json!({
            "id": id, "name": id, "role": role, "born": born, "lived_with": {}, "answers": {},
        }));
        self
    }

    pub fn paper(self, kind: &str, who: &str, boxes: Value) -> Family {
        self.shared(kind, &[(who, "100")], boxes, Value::Null)
    }

    pub fn rows(self, kind: &str, who: &str, rows: Value) -> Family {
        self.shared(kind, &[(who, "100")], json!({}), rows)
    }
}

/// A line of a scope to the cent; zero where it has none.
pub fn line(outcome: &Outcome, scope: &str, id: &str) -> Money {
    outcome.amount(&format!("de.{id}"), scope)
}

pub fn money(text: &str) -> Money {
    text.parse().unwrap()
}
