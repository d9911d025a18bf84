//! Families under the law of New Zealand: short to write, whole on the inside.
#![allow(missing_docs)]

use crate::family::family;
pub use crate::family::{has_point, steps};
use hembo_core::{Outcome, Registry};
use hembo_money::Money;
use hembo_nz::not_computed::NOT_COMPUTED;
use serde_json::{Value, json};
use std::sync::{Arc, LazyLock};

pub static REGISTRY: LazyLock<Registry> =
    LazyLock::new(|| Registry::of([Arc::new(hembo_nz::NewZealand::COMMITTED)]));

const NUMBERS: [&str; 4] = ["49-091-850", "35-901-981", "49-098-576", "136-410-132"];

family!(REGISTRY);

impl Family {
    fn of(year: i32, partner: bool) -> Family {
        let family = Family(json!({
            "hembo": 1, "country": "nz", "year": year, "name": "Test", "people": [], "papers": [], "pins": {},
            "answers": { "residence": "whole", "partner": partner },
        }));
        NOT_COMPUTED.iter().fold(family, |family, asked| family.answer(asked.field.id, json!(false)))
    }

    pub fn single(year: i32) -> Family {
        Family::of(year, false).person("ada", "filer", "1985-07-01")
    }

    pub fn couple(year: i32) -> Family {
        let family = Family::of(year, true).person("ada", "filer", "1985-07-01");
        family.person("bo", "filer", "1986-08-02")
    }

    pub fn child(self, id: &str, born: &str) -> Family {
        self.person(id, "dependent", born).answer_for(id, "relationship", json!("child"))
    }

    pub fn person(mut self, id: &str, role: &str, born: &str) -> Family {
        let people = self.0["people"].as_array_mut().unwrap();
        let number = NUMBERS.get(people.len());
        let answers = if role == "filer" { json!({ "benefit_months": 0 }) } else { json!({}) };
        people.push(json!({
            "id": id, "name": id, "role": role, "born": born, "id_number": number, "lived_with": {}, "answers": answers,
        }));
        self
    }

    pub fn paper(self, kind: &str, who: &str, boxes: Value) -> Family {
        self.shared(kind, &[(who, "100")], boxes, Value::Null)
    }

    pub fn rows(self, kind: &str, who: &str, rows: Value) -> Family {
        self.shared(kind, &[(who, "100")], json!({}), rows)
    }

    pub fn pay(self, who: &str, gross: &str, paye: &str) -> Family {
        self.paper("Pay", who, json!({ "gross": gross, "paye": paye }))
    }

    pub fn interest(self, who: &str, gross: &str) -> Family {
        self.paper("Interest", who, json!({ "gross": gross }))
    }

    pub fn gifts(self, who: &str, amounts: &[&str]) -> Family {
        let rows: Vec<_> = amounts.iter().map(|amount| json!({ "amount": amount })).collect();
        self.rows("Donations", who, json!(rows))
    }

    pub fn earlier(self, who: &str, [last, before]: [(&str, &str); 2]) -> Family {
        let boxes =
            json!({ "taxable.1": last.0, "funds.1": last.1, "taxable.2": before.0, "funds.2": before.1 });
        self.paper("Last year", who, boxes)
    }
}

/// A line of a return to the cent; zero where the return has none.
pub fn line(outcome: &Outcome, place: usize, id: &str) -> Money {
    let scope = format!("return/{place}");
    let id = format!("nz.{id}");
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
