//! A practice's own figure in place of one of the rules: a newer one than this program has.

use super::view::{BETWEEN, written};
use crate::household::date;
use hembo_money::Rate;
use serde::{Deserialize, Serialize};
use toml::Value;
use utoipa::ToSchema;

/// A figure in place of one of the rules.
#[derive(Debug, Clone, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
pub struct Replacement {
    /// The return year.
    pub year: i32,
    /// The table.
    pub table: String,
    /// The figure's place in the table: keys and places in lists, from 0, with points between.
    pub figure: String,
    /// The figure as people write it; a list with dots between its figures.
    pub value: String,
}

/// Puts a replacement into the rules of its year.
///
/// # Errors
/// In words: a place that is not there, or a figure that cannot stand in it.
pub fn put(rules: &mut toml::Table, replaced: &Replacement) -> Result<(), String> {
    let Replacement { year, table, figure, value } = replaced;
    let missing = || format!("The rules of {year} have no figure {figure} in {table}.");
    let mut at = rules.get_mut(table).and_then(|table| table.get_mut("figures")).ok_or_else(missing)?;
    for key in figure.split('.').filter(|key| !key.is_empty()) {
        at = match at {
            Value::Table(table) => table.get_mut(key),
            Value::Array(list) => key.parse::<usize>().ok().and_then(|place| list.get_mut(place)),
            _ => None,
        }
        .ok_or_else(missing)?;
    }
    *at = like(at, value)?;
    Ok(())
}

/// What the rules hold at a place, as people write it; none where there is no such place.
pub fn stands(rules: &toml::Table, table: &str, figure: &str) -> Option<String> {
    let mut at = rules.get(table)?.get("figures")?;
    for key in figure.split('.').filter(|key| !key.is_empty()) {
        at = match at {
            Value::Table(table) => table.get(key)?,
            Value::Array(list) => list.get(key.parse::<usize>().ok()?)?,
            _ => return None,
        };
    }
    Some(written(at))
}

/// What was typed, as a figure of the same kind.
fn like(old: &Value, typed: &str) -> Result<Value, String> {
    let typed = typed.trim();
    match old {
        Value::String(text) if date::parse(text).is_some() => match date::parse(typed) {
            Some(_) => Ok(Value::String(typed.to_owned())),
            None => Err(format!("'{typed}' is not a day; write it as {text}.")),
        },
        Value::String(text) => amount(text, typed).map(Value::String),
        Value::Integer(whole) => {
            let number = plain(typed).parse().ok().filter(|typed| *typed >= 0 || *whole < 0);
            number
                .map(Value::Integer)
                .ok_or_else(|| format!("'{typed}' is not a whole number, as {whole} is."))
        }
        Value::Boolean(_) => match typed {
            "yes" | "true" => Ok(Value::Boolean(true)),
            "no" | "false" => Ok(Value::Boolean(false)),
            _ => Err(format!("'{typed}' is neither yes nor no.")),
        },
        Value::Array(list) if !list.iter().any(|one| one.is_table() || one.is_array()) => {
            all_like(list, typed)
        }
        _ => Err("Here stand several figures; replace one of them.".to_owned()),
    }
}

/// What may stand between the figures of a list, besides a semicolon.
const DOT: char = '·';

/// A list of as many figures; one that rises must go on rising.
fn all_like(old: &[Value], typed: &str) -> Result<Value, String> {
    let parts: Vec<&str> = typed.split([DOT, ';']).collect();
    if parts.len() != old.len() {
        let example = old.iter().map(written).collect::<Vec<_>>().join(BETWEEN);
        return Err(format!("Write {} figures with semicolons between, such as {example}.", old.len()));
    }
    let new = old.iter().zip(parts).map(|(old, typed)| like(old, typed)).collect::<Result<Vec<_>, _>>()?;
    if rises(old) && !rises(&new) {
        return Err("These figures rise; each must be above the one before it.".to_owned());
    }
    Ok(Value::Array(new))
}

/// Whether each figure is above the one before it.
fn rises(list: &[Value]) -> bool {
    let numbers: Vec<Option<Rate>> = list.iter().map(|one| written(one).parse().ok()).collect();
    numbers.iter().all(Option::is_some) && numbers.is_sorted_by(|a, b| a < b)
}

/// A decimal, without the signs that people put into it.
fn amount(old: &str, typed: &str) -> Result<String, String> {
    let figure = plain(typed);
    let number: Option<Rate> = figure.parse().ok();
    let below = |text: &str| text.starts_with('-');
    match number {
        Some(_) if !below(&figure) || below(old) => Ok(figure),
        _ => Err(format!("'{typed}' is not a figure such as {old}.")),
    }
}

fn plain(typed: &str) -> String {
    typed.chars().filter(|sign| !matches!(sign, ',' | '$' | ' ' | '\u{a0}')).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    const RULES: &str = r#"
        [wrecks]
        cite = "Act §8"
        status = "enacted"
        [wrecks.figures]
        most_each = "700"
        age = 65
        low = true
        from = "2017-12-16"
        tops = ["1000", "2000"]
        steps = [{ up_to = 3, rate = "0.1" }]
    "#;

    fn replaced(figure: &str, value: &str) -> Result<String, String> {
        let mut rules = RULES.parse().unwrap();
        let replaced =
            Replacement { year: 2025, table: "wrecks".into(), figure: figure.into(), value: value.into() };
        put(&mut rules, &replaced)?;
        Ok(stands(&rules, "wrecks", figure).unwrap())
    }

    #[test]
    fn a_figure_takes_one_of_its_kind() {
        let cases = [
            ("most_each", "$1,250.50", "1250.50"),
            ("age", "66", "66"),
            ("low", "no", "false"),
            ("from", "2018-01-01", "2018-01-01"),
            ("tops", "1,100; 2,200", "1100 · 2200"),
            ("tops", "1100 · 2200", "1100 · 2200"),
            ("tops.1", "2300", "2300"),
            ("steps.0.rate", "0.15", "0.15"),
        ];
        for (figure, typed, stands) in cases {
            assert_eq!(replaced(figure, typed).unwrap(), stands, "{figure}");
        }
    }

    #[test]
    fn what_cannot_stand_there_is_refused_in_words() {
        let cases = [
            ("most_each", "seven", "'seven' is not a figure such as 700."),
            ("most_each", "-7", "'-7' is not a figure such as 700."),
            ("age", "6.5", "'6.5' is not a whole number, as 65 is."),
            ("low", "perhaps", "'perhaps' is neither yes nor no."),
            ("from", "12/16/2017", "'12/16/2017' is not a day; write it as 2017-12-16."),
            ("tops", "1000", "Write 2 figures with semicolons between, such as 1000 · 2000."),
            ("tops", "2000; 1000", "These figures rise; each must be above the one before it."),
            ("steps", "3", "Here stand several figures; replace one of them."),
            ("steps.1.rate", "0.1", "The rules of 2025 have no figure steps.1.rate in wrecks."),
            ("cite", "Act §9", "The rules of 2025 have no figure cite in wrecks."),
        ];
        for (figure, typed, told) in cases {
            assert_eq!(replaced(figure, typed).unwrap_err(), told, "{figure}");
        }
    }
}
