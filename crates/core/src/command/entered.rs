//! Which command put an entry of a paper there, found by going back from the newest.

use super::{
    Command,
    touch::{Step, at, touches},
};
use crate::household::Household;
use serde::Serialize;
use serde_json::Value;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// Where an entry stands: in a box of a paper, or in a cell of its list.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[schema(as = EntryPlace)]
pub struct Spot {
    /// The paper's id.
    pub paper: String,
    /// The line of its list.
    pub row: Option<String>,
    /// The box or the column.
    pub field: String,
}

impl Spot {
    /// The path to it from its paper.
    fn path(&self) -> Vec<Step<'_>> {
        match &self.row {
            None => vec![Step::Key("boxes"), Step::Key(&self.field)],
            Some(row) => vec![Step::Key("rows"), Step::Id(row), Step::Key(&self.field)],
        }
    }
}

/// The entries of a household's papers of which it is not known yet what put them there.
#[derive(Debug, Clone, PartialEq)]
pub struct Sought(BTreeMap<Spot, Value>);

impl Sought {
    /// All of them.
    pub fn of(household: &Household) -> Sought {
        let json = |entry| serde_json::to_value(entry).unwrap_or_default();
        let of_papers = household.papers.iter().flat_map(|paper| {
            let spot = |row: Option<&str>, field: &str| Spot {
                paper: paper.id.clone(),
                row: row.map(str::to_owned),
                field: field.to_owned(),
            };
            let boxes = paper.boxes.iter().map(move |(field, entry)| (spot(None, field), json(entry)));
            let cells = paper.rows.iter().flat_map(move |row| {
                row.cells.iter().map(move |(field, entry)| (spot(Some(&row.id), field), json(entry)))
            });
            boxes.chain(cells).collect::<Vec<_>>()
        });
        Sought(of_papers.collect())
    }

    /// Those that the command put there as they stand; they are sought no longer. What it put otherwise was changed
    /// since or taken back: an earlier command is the one.
    pub fn found_in(&mut self, command: &Command) -> Vec<Spot> {
        let touched = touches(command);
        let in_papers = touched.iter().filter_map(|touch| match touch.path.as_slice() {
            [Step::Key("papers"), Step::Id(paper), within @ ..] => Some((*paper, within, &touch.mine)),
            _ => None,
        });
        let in_papers: Vec<_> = in_papers.collect();
        self.take(|spot, stands| {
            let of_it = in_papers.iter().filter(|(paper, ..)| *paper == spot.paper);
            of_it.into_iter().any(|(_, within, mine)| {
                spot.path().strip_prefix(*within).is_some_and(|rest| at(mine, rest) == Some(stands))
            })
        })
    }

    /// Those that stood so at the beginning; they are sought no longer.
    pub fn found_at_first(&mut self, first: &Household) -> Vec<Spot> {
        let first = Sought::of(first);
        self.take(|spot, stands| first.0.get(spot) == Some(stands))
    }

    fn take(&mut self, found: impl Fn(&Spot, &Value) -> bool) -> Vec<Spot> {
        let taken: Vec<Spot> = self
            .0
            .iter()
            .filter(|(spot, stands)| found(spot, stands))
            .map(|(spot, _)| spot.clone())
            .collect();
        for spot in &taken {
            self.0.remove(spot);
        }
        taken
    }

    /// Whether nothing is sought any longer.
    pub fn is_empty(&self) -> bool {
        self.0.is_empty()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::household::Entry;
    use serde_json::json;

    fn command(json: Value) -> Command {
        serde_json::from_value(json).unwrap()
    }

    #[test]
    fn what_stands_is_found_at_the_command_that_put_it_there() {
        let file = json!({ "hembo": 1, "country": "nowhere", "year": 2025, "name": "Quill",
            "people": [{ "id": "ada", "name": "Ada Quill", "role": "filer", "born": "1980-01-01" }],
            "papers": [{ "id": "wages", "kind": "Wages", "owners": [{ "person": "ada", "percent": "100" }],
                "boxes": { "1": "100.00", "2": "7.00" } }] });
        let first: Household = serde_json::from_value(file).unwrap();
        let rows = json!({ "id": "gifts", "kind": "Gifts", "owners": [{ "person": "ada", "percent": "100" }],
            "rows": [{ "id": "r1", "amount": "5.00" }] });
        let commands = [
            command(json!({ "do": "set_box", "paper": "wages", "field": "1", "value": "200.00" })),
            command(json!({ "do": "add_paper", "paper": rows })),
            command(json!({ "do": "set_box", "paper": "wages", "field": "1", "value": "300.00" })),
            command(json!({ "do": "add_row", "paper": "gifts", "id": "r2", "row": { "amount": "6.00" } })),
            command(
                json!({ "do": "set_cell", "paper": "gifts", "row": "r1", "field": "amount", "value": "8.00" }),
            ),
        ];
        let mut now = first.clone();
        for one in &commands {
            one.clone().apply(&mut now).unwrap();
        }
        // The second figure of box 1 was taken back, by an undo that left no command.
        now.papers[0].boxes.insert("1".into(), Entry::Text("200.00".into()));
        let mut sought = Sought::of(&now);
        let mut found = |n: usize| {
            let spots = sought.found_in(&commands[n]);
            spots.into_iter().map(|s| (s.row.unwrap_or_default(), s.field)).collect::<Vec<_>>()
        };
        let spot = |row: &str, field: &str| (row.to_owned(), field.to_owned());
        assert_eq!(found(4), [spot("r1", "amount")]);
        assert_eq!(found(3), [spot("r2", "amount")]);
        assert_eq!(found(2), []);
        assert_eq!(found(1), [], "its cell was changed since");
        assert_eq!(found(0), [spot("", "1")]);
        let at_first = sought.found_at_first(&first);
        assert_eq!(at_first.iter().map(|s| s.field.as_str()).collect::<Vec<_>>(), ["2"]);
        assert!(sought.is_empty());
    }
}
