//! Household files: from bytes to a household, with what older versions of the format called otherwise, and with faults
//! in plain words at their place.

use crate::{
    check::{Fault, LARGEST_FILE, faults},
    household::{ENTRY_EXPECTED, Household},
    pack::{Registry, Renamed},
};
use serde_json::{Map, Value};
use serde_path_to_error::{Path, Segment};

/// Reads a household file: its size, its JSON, its format, and everything that [`faults`] checks.
///
/// # Errors
/// All faults found, each at its place; a syntax error at its line and column.
pub fn read(bytes: &[u8], registry: &Registry) -> Result<Household, Vec<Fault>> {
    let value = json(bytes).map_err(|fault| vec![fault])?;
    let household = household(value, registry).map_err(|fault| vec![fault])?;
    let found = faults(&household, registry);
    if found.is_empty() { Ok(household) } else { Err(found) }
}

/// A household from its JSON, of this or an earlier version.
///
/// # Errors
/// Where the JSON is no household.
pub fn household(mut value: Value, registry: &Registry) -> Result<Household, Fault> {
    upgrade(&mut value, registry);
    if !value.is_object() {
        return Err(Fault::new("", format!("Expected an object, not {}.", kind_of_value(&value))));
    }
    let mut household: Household = serde_path_to_error::deserialize(value)
        .map_err(|error| Fault::new(pointer(error.path()), in_plain_words(&error.inner().to_string())))?;
    household.name_rows();
    Ok(household)
}

/// A path as the faults write it: `/papers/2/boxes/1`.
fn pointer(path: &Path) -> String {
    let segment = |segment: &Segment| match segment {
        Segment::Seq { index } => format!("/{index}"),
        Segment::Map { key } => format!("/{key}"),
        Segment::Enum { variant } => format!("/{variant}"),
        Segment::Unknown => String::new(),
    };
    path.iter().map(segment).collect()
}

fn kind_of_value(value: &Value) -> &'static str {
    match value {
        Value::Null => "nothing (null)",
        Value::Bool(_) => "true or false",
        Value::Number(_) => "a number",
        Value::String(_) => "text",
        Value::Array(_) => "a list",
        Value::Object(_) => "an object",
    }
}

fn json(bytes: &[u8]) -> Result<Value, Fault> {
    let fault = |message: String| Err(Fault::new("file", message));
    match bytes {
        [] => return fault("The file is empty; a household file is a JSON document.".into()),
        [0xff, 0xfe, ..] | [0xfe, 0xff, ..] => {
            return fault("The file is written in UTF-16; save it as UTF-8.".into());
        }
        [0xef, 0xbb, 0xbf, ..] => {
            return fault("The file begins with a byte order mark; save it as UTF-8 without one.".into());
        }
        _ if bytes.len() > LARGEST_FILE => return fault(too_large(bytes.len() as u64)),
        _ => {}
    }
    serde_json::from_slice(bytes).map_err(|error| {
        let at = format!("line {} column {}", error.line(), error.column());
        if error.is_eof() {
            return Fault::new(at, "The file is cut off: it ends before all of it is said.");
        }
        let why = error.to_string();
        let why = why.split(" at line ").next().unwrap_or_default();
        Fault::new(at, format!("This is not JSON: {why}."))
    })
}

/// What is said of a file of so many bytes.
pub fn too_large(bytes: u64) -> String {
    format!("The file has {bytes} bytes; a household file has at most {LARGEST_FILE}.")
}

/// Gives boxes, columns and questions of older files the ids of today.
fn upgrade(value: &mut Value, registry: &Registry) {
    let pack = value.get("country").and_then(Value::as_str).and_then(|country| registry.pack(country));
    for renamed in pack.map_or(&[][..], |pack| pack.renamed()) {
        match renamed.kind {
            Some(kind) => {
                let papers = value.get_mut("papers").and_then(Value::as_array_mut).into_iter().flatten();
                for paper in papers.filter(|p| p["kind"] == kind) {
                    rename(paper.get_mut("boxes"), renamed);
                    let rows = paper.get_mut("rows").and_then(Value::as_array_mut).into_iter().flatten();
                    rows.for_each(|row| rename(Some(row), renamed));
                }
            }
            None => {
                rename(value.get_mut("answers"), renamed);
                let people = value.get_mut("people").and_then(Value::as_array_mut).into_iter().flatten();
                people.for_each(|person| rename(person.get_mut("answers"), renamed));
            }
        }
    }
}

fn rename(answers: Option<&mut Value>, renamed: &Renamed) {
    let Some(answers) = answers.and_then(Value::as_object_mut) else { return };
    if let Some(entry) = Map::remove(answers, renamed.from) {
        answers.entry(renamed.to).or_insert(entry);
    }
}

/// What a deserializer says, without the names of its types.
fn in_plain_words(message: &str) -> String {
    let message = message.split(" at line ").next().unwrap_or(message);
    if message.contains(ENTRY_EXPECTED) {
        return format!("Expected {ENTRY_EXPECTED}. Amounts are text, such as \"1234.56\".");
    }
    if message.contains("untagged enum DismissalInFile") {
        return "Expected a reason as text, or an object with 'reason'.".into();
    }
    if message.contains("could not be parsed") || message.contains("component") {
        return "Expected a day such as \"2025-03-31\".".into();
    }
    if let Some(rest) = message.strip_prefix("missing field ") {
        return format!("The field {} is missing.", quoted(rest));
    }
    if let Some((field, known)) =
        message.strip_prefix("unknown field ").and_then(|m| m.split_once(", expected "))
    {
        return format!("There is no field {} here; there are {}.", quoted(field), quoted(list_of(known)));
    }
    if let Some((given, known)) =
        message.strip_prefix("unknown variant ").and_then(|m| m.split_once(", expected "))
    {
        return format!("{} is not possible here; possible are {}.", quoted(given), quoted(list_of(known)));
    }
    let wrong =
        ["invalid type: ", "invalid value: ", "invalid length "].iter().find_map(|p| message.strip_prefix(p));
    match wrong.and_then(|m| m.split_once(", expected ")) {
        Some((given, expected)) => format!("Expected {}, not {}.", expectation(expected), kind_of(given)),
        None => format!("{}.", quoted(message)),
    }
}

fn quoted(text: &str) -> String {
    text.replace('`', "'")
}

fn list_of(known: &str) -> &str {
    known.strip_prefix("one of ").unwrap_or(known)
}

/// What a type is in plain words.
fn expectation(expected: &str) -> String {
    match expected {
        "a string" | "a borrowed string" => "text".into(),
        "a boolean" => "true or false".into(),
        "a sequence" => "a list".into(),
        "u8" | "u32" | "u64" | "usize" => "a whole number from zero up".into(),
        "i32" | "i64" => "a whole number".into(),
        _ if expected.starts_with("struct ") || expected == "a map" => "an object".into(),
        _ if expected.starts_with("string enum") || expected.starts_with("enum ") => {
            "one of the listed words".into()
        }
        _ if expected.contains("date") || expected.contains("Date") => "a day such as \"2025-03-31\"".into(),
        other => other.into(),
    }
}

/// What was given, in plain words: `integer 5`, `null`.
fn kind_of(given: &str) -> String {
    let given = given.replace('`', "");
    for (word, plain) in [
        ("string ", "the text "),
        ("integer ", "the number "),
        ("floating point ", "the number "),
        ("boolean ", ""),
        ("null", "nothing (null)"),
        ("unit", "nothing (null)"),
        ("map", "an object"),
        ("sequence", "a list"),
    ] {
        if let Some(rest) = given.strip_prefix(word) {
            return format!("{plain}{rest}");
        }
    }
    given
}
