//! Families under the law of South Africa: short to write, whole on the inside.
#![allow(missing_docs)]

use crate::family::family;
pub use crate::family::{has_point, steps};
use hembo_core::{Outcome, Registry};
use hembo_money::Money;
use hembo_za::not_computed::NOT_COMPUTED;
use serde_json::{Value, json};
use std::sync::{Arc, LazyLock};

pub static REGISTRY: LazyLock<Registry> =
    LazyLock::new(|| Registry::of([Arc::new(hembo_za::SouthAfrica::COMMITTED)]));

family!(REGISTRY);

impl Family {
    fn of(year: i32, marriage: &str) -> Family {
        let family = Family(json!({
            "hembo": 1, "country": "za", "year": year, "name": "Test", "people": [], "papers": [], "pins": {},
            "answers": { "residence": "whole", "marriage": marriage },
        }));
        NOT_COMPUTED.iter().fold(family, |family, asked| family.answer(asked.field.id, json!(false)))
    }

    pub fn single(year: i32, born: &str) -> Family {
        Family::of(year, "single").person("ada", "filer", born)
    }

    pub fn couple(year: i32, marriage: &str, born: [&str; 2]) -> Family {
        Family::of(year, marriage).person("ada", "filer", born[0]).person("bo", "filer", born[1])
    }

    pub fn person(mut self, id: &str, role: &str, born: &str) -> Family {
        let people = self.0["people"].as_array_mut().unwrap();
        let number = id_number(born, people.len());
        people.push(json!({
            "id": id, "name": id, "role": role, "born": born, "id_number": number, "lived_with": {}, "answers": {},
        }));
        self
    }

    pub fn paper(self, kind: &str, who: &str, boxes: Value) -> Family {
        self.shared(kind, &[(who, "100")], boxes, Value::Null)
    }

    pub fn rows(self, kind: &str, who: &str, rows: Value) -> Family {
        self.shared(kind, &[(who, "100")], json!({}), rows)
    }

    /// A certificate by its codes.
    pub fn pay(self, who: &str, codes: &[(&str, &str)]) -> Family {
        let line = |(code, amount): &&(&str, &str)| json!({ "code": code, "amount": amount });
        let rows: Vec<_> = codes.iter().filter(|(code, _)| *code != "3699").collect();
        let rows: Vec<_> = rows.iter().map(line).collect();
        let gross = codes.iter().find(|(code, _)| *code == "3699");
        let boxes = gross.map_or(json!({}), |(_, amount)| json!({ "gross": amount }));
        self.shared("IRP5", &[(who, "100")], boxes, json!(rows))
    }

    pub fn interest(self, who: &str, amount: &str) -> Family {
        self.paper("IT3(b)", who, json!({ "interest": amount }))
    }

    pub fn gain(self, who: &str, proceeds: &str, cost: &str) -> Family {
        self.rows("Assets sold", who, json!([{ "kind": "shares", "proceeds": proceeds, "cost": cost }]))
    }
}

/// An identity number of a day of birth.
pub fn id_number(born: &str, place: usize) -> String {
    let day: String = born.chars().filter(char::is_ascii_digit).skip(2).collect();
    let base = format!("{day}{:04}08", 5000 + place);
    let fits = |check: &u32| hembo_core::check::luhn(&format!("{base}{check}"));
    format!("{base}{}", (0..10).find(fits).unwrap())
}

/// A line of a return to the cent; zero where the return has none.
pub fn line(outcome: &Outcome, place: usize, id: &str) -> Money {
    let scope = format!("return/{place}");
    let id = format!("za.{id}");
    outcome.lines.iter().find(|l| l.id == id && l.scope == scope).map_or(Money::ZERO, |l| l.amount)
}

/// Compares lines of a return with what the law gives.
pub fn assert_lines(outcome: &Outcome, place: usize, expected: &[(&str, &str)]) {
    for (id, amount) in expected {
        assert_eq!(line(outcome, place, id), amount.parse().unwrap(), "line {id} of return {place}");
    }
}

pub fn money(text: &str) -> Money {
    text.parse().unwrap()
}
