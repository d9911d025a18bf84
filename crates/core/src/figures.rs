//! What every table of rule figures carries besides its figures.

use crate::{household::date, provision::Declared};
use serde::{Deserialize, Deserializer, Serialize};
use time::Date;
use toml::Value;
use utoipa::ToSchema;

/// How sure a figure is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Status {
    /// In force.
    Enacted,
    /// Made known by the authority, not yet in force.
    Announced,
    /// Believed right; must be confirmed against the source.
    ToBeConfirmed,
}

/// A table of rule figures with its citation and status.
#[derive(Debug, Clone, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Cited<T> {
    /// Where the law says so.
    pub cite: String,
    /// How sure it is.
    pub status: Status,
    /// The figures.
    pub figures: T,
}

impl<T> std::ops::Deref for Cited<T> {
    type Target = T;
    fn deref(&self) -> &T {
        &self.figures
    }
}

/// Declares tables of figures: structs that are read from the rule files and refuse what they do not know.
#[macro_export]
macro_rules! tables {
    ($($(#[$doc:meta])* $name:ident { $($field:ident: $type:ty),* $(,)? })*) => {$(
        $(#[$doc])*
        #[derive(Debug, ::serde::Deserialize)]
        #[serde(deny_unknown_fields)]
        #[allow(missing_docs)]
        pub struct $name { $(pub $field: $type),* }
    )*};
}

/// A day in the figures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct Day(pub Date);

impl<'de> Deserialize<'de> for Day {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Day, D::Error> {
        let text = String::deserialize(deserializer)?;
        date::parse(&text).map(Day).ok_or_else(|| serde::de::Error::custom("a day such as 2017-12-16"))
    }
}

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
    /// What it is, in words.
    pub name: String,
    /// The figure as it stands in the rules, by year; none where a year has not it.
    pub values: Vec<Option<String>>,
}

/// The tables of a pack's rule files, each with its year, latest first.
///
/// # Errors
/// What is wrong with a rule file.
pub fn tables(sources: &[(i32, &str)], declared: &Declared) -> Result<Vec<Table>, String> {
    let mut all: Vec<Table> = Vec::new();
    for (at, (year, source)) in sources.iter().enumerate() {
        let rules: toml::Table = source.parse().map_err(|error| format!("{year}: {error}"))?;
        for (id, value) in rules.iter().filter_map(|(id, value)| Some((id, value.as_table()?))) {
            let place = all.iter().position(|table| table.id == *id).unwrap_or_else(|| {
                all.push(Table {
                    id: id.clone(),
                    name: titled(id),
                    used_for: declared.used_for(id),
                    rows: Vec::new(),
                    years: vec![None; sources.len()],
                });
                all.len() - 1
            });
            let table = &mut all[place];
            table.years[at] = Some(source_of(value).ok_or(format!("{year}: {id} names no source"))?);
            let mut figures = Vec::new();
            flatten("", value.get("figures").unwrap_or(&Value::Boolean(false)), &mut figures);
            for (name, figure) in figures {
                let row = table.rows.iter().position(|row| row.name == name).unwrap_or_else(|| {
                    table.rows.push(FigureRow { name, values: vec![None; sources.len()] });
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

/// Every figure below a value with its name; a list of plain figures is one.
fn flatten(name: &str, value: &Value, into: &mut Vec<(String, String)>) {
    let below =
        |key: &str| if name.is_empty() { in_words(key) } else { format!("{name}, {}", in_words(key)) };
    match value {
        Value::Table(table) => table.iter().for_each(|(key, value)| flatten(&below(key), value, into)),
        Value::Array(list) if list.iter().any(|one| one.is_table() || one.is_array()) => {
            list.iter()
                .enumerate()
                .for_each(|(at, value)| flatten(&below(&(at + 1).to_string()), value, into));
        }
        Value::Array(list) => {
            into.push((name.into(), list.iter().map(plain).collect::<Vec<_>>().join(" · ")))
        }
        plain_value => into.push((name.into(), plain(plain_value))),
    }
}

fn plain(value: &Value) -> String {
    value.as_str().map_or_else(|| value.to_string(), str::to_owned)
}

#[cfg(test)]
mod tests {
    use super::*;

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
        let tables = tables(&[(2025, new), (2024, old)], &declared).unwrap();
        assert_eq!(tables[0].name, "Wrecks");
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
        assert!(super::tables(&[(2025, "[bare]")], &declared).is_err());
    }
}
