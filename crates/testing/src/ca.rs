//! Families under the law of Canada: short to write, whole on the inside.
#![allow(missing_docs)]

use crate::family::family;
pub use crate::family::has_point;
use hembo_ca::not_computed::NOT_COMPUTED;
use hembo_core::{Outcome, Registry};
use hembo_money::Money;
use serde_json::{Value, json};
use std::sync::{Arc, LazyLock};

pub static REGISTRY: LazyLock<Registry> =
    LazyLock::new(|| Registry::of([Arc::new(hembo_ca::Canada::COMMITTED)]));

const NUMBERS: [&str; 4] = ["471 238 808", "528 416 902", "613 507 243", "739 225 142"];

family!(REGISTRY);

impl Family {
    pub fn of(province: &str, marital: &str) -> Family {
        let family = Family(json!({
            "hembo": 1, "country": "ca", "year": 2025, "name": "Test", "people": [], "papers": [], "pins": {},
            "answers": {
                "marital": marital, "province": province, "foreign_property": false, "advance_benefit": false,
            },
        }));
        NOT_COMPUTED.iter().fold(family, |family, asked| family.answer(asked.field.id, json!(false)))
    }

    /// The same papers in another return year.
    pub fn in_year(mut self, year: i32) -> Family {
        self.0["year"] = json!(year);
        self
    }

    pub fn single(province: &str, born: &str) -> Family {
        Family::of(province, "single").person("ada", "filer", born)
    }

    pub fn couple(province: &str, born: [&str; 2]) -> Family {
        Family::of(province, "married").person("ada", "filer", born[0]).person("bo", "filer", born[1])
    }

    pub fn child(self, id: &str, born: &str) -> Family {
        self.person(id, "dependent", born).answer_for(id, "relationship", json!("child"))
    }

    pub fn person(mut self, id: &str, role: &str, born: &str) -> Family {
        let filers = if role == "dependent" { self.filers() } else { Vec::new() };
        let people = self.0["people"].as_array_mut().unwrap();
        let number = NUMBERS[people.len() % NUMBERS.len()];
        let lived: serde_json::Map<_, _> = filers.into_iter().map(|f| (f, json!(12))).collect();
        people.push(json!({
            "id": id, "name": id, "role": role, "born": born, "id_number": number, "lived_with": lived, "answers": {},
        }));
        self
    }

    pub fn paper(self, kind: &str, who: &str, boxes: Value) -> Family {
        self.shared(kind, &[(who, "100")], boxes, Value::Null)
    }

    /// A T4 with the contributions that its earnings ask for.
    pub fn employed(self, who: &str, amount: &str) -> Family {
        let boxes = json!({ "14": amount });
        let bare = self.clone().paper("T4", who, boxes.clone());
        let mut boxes = boxes;
        let made = bare.outcome().papers.last().unwrap().suggestions.clone();
        for suggestion in made {
            boxes[suggestion.field] = json!(suggestion.value);
        }
        self.paper("T4", who, boxes)
    }

    pub fn pension(self, who: &str, amount: &str) -> Family {
        self.paper("T4A", who, json!({ "016": amount }))
    }

    pub fn benefits(self, who: &str, cpp: &str, oas: &str) -> Family {
        self.paper("T4A(P)", who, json!({ "20": cpp })).paper("T4A(OAS)", who, json!({ "18": oas }))
    }

    pub fn interest(self, who: &str, amount: &str) -> Family {
        self.paper("T5", who, json!({ "13": amount }))
    }

    pub fn gifts(self, who: &str, amount: &str) -> Family {
        let row = json!({ "date": "2025-06-01", "number": "10684 1234 RR0001", "amount": amount });
        self.shared("Gifts", &[(who, "100")], json!({}), json!([row]))
    }

    pub fn medical(self, who: &str, bills: &[(&str, &str)]) -> Family {
        let row = |(date, amount): &(&str, &str)| json!({ "date": date, "patient": who, "amount": amount });
        let rows: Vec<_> = bills.iter().map(row).collect();
        self.shared("Medical", &[(who, "100")], json!({}), json!(rows))
    }

    pub fn contributions(self, who: &str, limit: &str, paid: &str) -> Family {
        let rows = json!([{ "date": "2025-11-03", "plan": "own", "amount": paid }]);
        self.shared("RRSP", &[(who, "100")], json!({ "limit": limit }), rows)
    }

    pub fn tuition(self, who: &str, fees: &str) -> Family {
        self.paper("T2202", who, json!({ "26": fees, "25": 8 }))
    }
}

/// A line of a return to the cent; zero where the return has none.
pub fn line(outcome: &Outcome, place: usize, id: &str) -> Money {
    let scope = format!("return/{place}");
    let id = if id.starts_with("ca.") { id.to_owned() } else { format!("ca.{id}") };
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

/// Why an option is barred; none where it is not, or where there is no such decision.
pub fn bar(outcome: &Outcome, decision: &str, option: &str) -> Option<String> {
    let decision = outcome.decisions.iter().find(|d| d.id == decision)?;
    decision.options.iter().find(|o| o.id == option)?.barred.clone()
}

/// The option that is taken; none where there is no such decision or it does not arise.
pub fn taken(outcome: &Outcome, decision: &str) -> Option<String> {
    let decision = outcome.decisions.iter().find(|d| d.id == decision)?;
    decision.options.iter().find(|o| o.chosen).map(|o| o.id.clone())
}
