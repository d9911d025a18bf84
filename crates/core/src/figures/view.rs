//! Rule figures for people to read: every table, its years side by side.

use super::Status;
use crate::provision::Declared;
use serde::Serialize;
use toml::Value;
use utoipa::ToSchema;

/// A table of rule figures over the years of a pack, for people to read.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Table {
    /// Its id.
    pub id: String,
    /// Its name in words.
    pub name: String,
    /// What it is used for: lines of the provisions that read it.
    pub used_for: Vec<String>,
    /// The figures, in the order of the latest year that has them.
    pub rows: Vec<FigureRow>,
    /// Where the law has them and how sure they are, by year; none where a year has not the table.
    pub years: Vec<Option<Source>>,
}

/// Where a year's table comes from.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Source {
    /// Where the law says so.
    pub cite: String,
    /// How sure it is.
    pub status: Status,
}

/// A figure over the years.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FigureRow {
    /// Its place in the table, as a replacement names it.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// The figure as it stands in the rules, by year; none where a year has not it.
    pub values: Vec<Option<String>>,
}

/// The tables of a pack's rules, each with its year, latest first.
///
/// # Errors
/// What is wrong with the rules of a year.
pub fn tables(rules: &[(i32, toml::Table)], declared: &Declared) -> Result<Vec<Table>, String> {
    let mut all: Vec<Table> = Vec::new();
    for (at, (year, of_year)) in rules.iter().enumerate() {
        for (id, value) in of_year.iter().filter_map(|(id, value)| Some((id, value.as_table()?))) {
            let place = all.iter().position(|table| table.id == *id).unwrap_or_else(|| {
                all.push(Table {
                    id: id.clone(),
                    name: titled(id),
                    used_for: declared.used_for(id),
                    rows: Vec::new(),
                    years: vec![None; rules.len()],
                });
                all.len() - 1
            });
            let table = &mut all[place];
            table.years[at] = Some(source_of(value).ok_or(format!("{year}: {id} names no source"))?);
            let mut figures = Vec::new();
            flatten("", value.get("figures").unwrap_or(&Value::Boolean(false)), &mut figures);
            for (id, figure) in figures {
                let row = table.rows.iter().position(|row| row.id == id).unwrap_or_else(|| {
                    table.rows.push(FigureRow { name: named(&id), id, values: vec![None; rules.len()] });
                    table.rows.len() - 1
                });
                table.rows[row].values[at] = Some(figure);
            }
        }
    }
    Ok(all)
}

fn source_of(table: &toml::Table) -> Option<Source> {
    let status = table.get("status")?.clone().try_into().ok()?;
    Some(Source { cite: table.get("cite")?.as_str()?.into(), status })
}

/// "most_new" as "most new".
fn in_words(id: &str) -> String {
    id.replace('_', " ")
}

/// The same with a capital: "Home loan".
fn titled(id: &str) -> String {
    let words = in_words(id);
    let (first, rest) = words.split_at(words.chars().next().map_or(0, char::len_utf8));
    first.to_uppercase() + rest
}

/// A place in words: "steps.0.up_to" as "steps, 1, up to".
fn named(id: &str) -> String {
    let part = |part: &str| part.parse::<usize>().map_or_else(|_| in_words(part), |at| (at + 1).to_string());
    id.split('.').map(part).collect::<Vec<_>>().join(", ")
}

/// Every figure below a value with its place; a list of plain figures is one.
fn flatten(id: &str, value: &Value, into: &mut Vec<(String, String)>) {
    let below = |key: &str| if id.is_empty() { key.to_owned() } else { format!("{id}.{key}") };
    match value {
        Value::Table(table) => table.iter().for_each(|(key, value)| flatten(&below(key), value, into)),
        Value::Array(list) if list.iter().any(|one| one.is_table() || one.is_array()) => {
            list.iter().enumerate().for_each(|(at, value)| flatten(&below(&at.to_string()), value, into));
        }
        plain => into.push((id.into(), written(plain))),
    }
}

/// A figure as it stands in the rules; a list with dots between.
pub(super) fn written(value: &Value) -> String {
    match value {
        Value::String(text) => text.clone(),
        Value::Array(list) => list.iter().map(written).collect::<Vec<_>>().join(BETWEEN),
        other => other.to_string(),
    }
}

/// What stands between the figures of a list.
pub(super) const BETWEEN: &str = " · ";

#[cfg(test)]
mod tests {
    use super::*;

    fn read(sources: &[(i32, &str)]) -> Vec<(i32, toml::Table)> {
        sources.iter().map(|(year, text)| (*year, text.parse().unwrap())).collect()
    }

    #[test]
    fn figures_of_two_years_stand_side_by_side() {
        let declared = Declared::of([]);
        let new = r#"
            year = 2025
            [wrecks]
            cite = "Act §8"
            status = "to_be_confirmed"
            [wrecks.figures]
            most_each = "700"
            tops = ["1", "2"]
            steps = [{ up_to = 3, rate = "0.1" }]
        "#;
        let old = "[wrecks]\ncite = \"Act §7\"\nstatus = \"enacted\"\n[wrecks.figures]\nmost_each = \"600\"\nlow = true";
        let tables = tables(&read(&[(2025, new), (2024, old)]), &declared).unwrap();
        assert_eq!(tables[0].name, "Wrecks");
        assert_eq!(tables[0].rows[2].id, "steps.0.up_to");
        let rows: Vec<_> = tables[0].rows.iter().map(|r| (r.name.as_str(), r.values.clone())).collect();
        let both = |a: Option<&str>, b: Option<&str>| vec![a.map(String::from), b.map(String::from)];
        assert_eq!(
            rows,
            [
                ("most each", both(Some("700"), Some("600"))),
                ("tops", both(Some("1 · 2"), None)),
                ("steps, 1, up to", both(Some("3"), None)),
                ("steps, 1, rate", both(Some("0.1"), None)),
                ("low", both(None, Some("true"))),
            ]
        );
        let sources: Vec<_> = tables[0].years.iter().flatten().map(|s| (s.cite.as_str(), s.status)).collect();
        assert_eq!(sources, [("Act §8", Status::ToBeConfirmed), ("Act §7", Status::Enacted)]);
        assert!(super::tables(&read(&[(2025, "[bare]")]), &declared).is_err());
    }
}
