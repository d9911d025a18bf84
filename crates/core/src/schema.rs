//! The JSON Schema of the household file, made from the same declarations that the check reads.

use crate::{
    field::{Field, FieldKind},
    household::FORMAT,
    pack::{Pack, Registry},
    paper::PaperKind,
};
use serde_json::{Map, Value, json};

/// The schema of the household file for all packs of a program (JSON Schema 2020-12).
pub fn household(registry: &Registry) -> Value {
    json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "$id": "urn:hembo:household:1",
        "title": "Hembo household",
        "description": "A household in one return year. Amounts are decimal strings with at most two places (\"71240.00\"), dates are ISO 8601 (\"2025-03-31\"). Unknown fields are refused.",
        "type": "object",
        "oneOf": registry.packs().map(country).collect::<Vec<_>>(),
        "$defs": definitions(),
    })
}

fn definitions() -> Value {
    json!({
        "amount": {
            "description": "An amount as a decimal string with at most two places; below zero only where the box says so.",
            "type": "string", "pattern": "^-?[0-9]{1,10}(\\.[0-9]{1,2})?$"
        },
        "before": {
            "description": "The amounts of the year before, by box; of a list its sum by its column.",
            "type": "object", "additionalProperties": { "$ref": "#/$defs/amount" }
        },
        "date": { "description": "A day, ISO 8601.", "type": "string", "format": "date" },
        "id": {
            "description": "A short name within the file.",
            "type": "string", "pattern": "^[A-Za-z0-9_-]{1,40}$"
        },
        "owners": {
            "description": "Whose it is; the shares add up to 100.",
            "type": "array", "minItems": 1,
            "items": object(&[
                ("person", json!({ "$ref": "#/$defs/id" }), true),
                ("percent", json!({
                    "description": "The share in per cent, as decimal text.",
                    "type": "string", "pattern": "^[0-9]{1,3}(\\.[0-9]{1,9})?$"
                }), true),
            ]),
        },
    })
}

fn country(pack: &dyn Pack) -> Value {
    let about = pack.about();
    object(&[
        ("hembo", json!({ "description": "The version of this format.", "const": FORMAT }), true),
        ("country", json!({ "description": about.name, "const": about.id }), true),
        ("year", json!({ "description": "The return year.", "enum": pack.years() }), true),
        ("name", text("What the household is called in lists.", 120), true),
        ("reference", text("The practice's own number of it.", 40), false),
        ("people", json!({ "type": "array", "minItems": 1, "items": person(pack) }), true),
        ("answers", fields("Answers about the household.", pack.household_questions().iter()), false),
        (
            "papers",
            json!({ "type": "array", "items": { "oneOf": pack.paper_kinds().iter().map(paper).collect::<Vec<_>>() } }),
            false,
        ),
        ("before", before(), false),
        ("pins", map("Options held: decision → option."), false),
        ("pin_reasons", map("Why they are held: decision → reason."), false),
        (
            "worth",
            json!({
                "description": "What a unit of what is left to later years is worth to the preparer: line → decimal text, at most 1.",
                "type": "object", "additionalProperties": { "type": "string", "pattern": "^(0(\\.[0-9]{1,9})?|1)$" }
            }),
            false,
        ),
        ("dismissed", dismissals("Open points put aside: point"), false),
        ("refused", dismissals("Slips that were offered and refused: slip"), false),
        (
            "retired",
            json!({
                "description": "The ids of papers that were removed; none is used again.",
                "type": "array", "items": { "$ref": "#/$defs/id" }
            }),
            false,
        ),
    ])
}

fn person(pack: &dyn Pack) -> Value {
    let months = json!({ "type": "integer", "minimum": 0, "maximum": 12 });
    let questions = pack.person_questions().iter().map(|q| &q.field);
    object(&[
        ("id", json!({ "$ref": "#/$defs/id" }), true),
        ("name", text("Name as on the card of the authority.", 120), true),
        (
            "role",
            json!({ "description": "Files a return here, or may depend on a filer.", "enum": ["filer", "dependent"] }),
            true,
        ),
        ("born", json!({ "description": "Date of birth.", "$ref": "#/$defs/date" }), false),
        ("died", json!({ "description": "Date of death.", "$ref": "#/$defs/date" }), false),
        ("id_number", json!({ "description": pack.about().id_number, "type": "string" }), false),
        (
            "lived_with",
            json!({
                "description": "Months of the year lived in the same home with each filer.",
                "type": "object", "additionalProperties": months
            }),
            false,
        ),
        ("answers", fields("Answers about the person.", questions), false),
    ])
}

fn paper(kind: &PaperKind) -> Value {
    let mut properties = vec![
        ("id", json!({ "$ref": "#/$defs/id" }), true),
        ("kind", json!({ "description": kind.name, "const": kind.id }), true),
        ("title", text(kind.title, 120), false),
        ("owners", json!({ "$ref": "#/$defs/owners" }), true),
        ("boxes", fields("What stands in the boxes.", kind.boxes.iter()), false),
        ("checked", json!({ "description": "Checked against the original.", "type": "boolean" }), false),
        ("proof", json!({ "description": "What proves it is at hand.", "type": "boolean" }), false),
        (
            "proven",
            json!({
                "description": "By line of its list, where it is otherwise: whether what proves that one is at hand.",
                "type": "object", "additionalProperties": { "type": "boolean" }
            }),
            false,
        ),
        (
            "changed",
            json!({
                "description": "What changed since it was checked: boxes, `owners`, `rows`.",
                "type": "array", "items": { "type": "string" }
            }),
            false,
        ),
    ];
    properties.push(("before", json!({ "$ref": "#/$defs/before" }), false));
    properties.push(("held", held(kind), false));
    properties.push(("files", json!({ "type": "array", "items": file() }), false));
    if !kind.columns.is_empty() {
        let mut row = fields("A line of the list.", kind.columns.iter());
        row["properties"]["id"] = json!({ "$ref": "#/$defs/id" });
        properties.push(("rows", json!({ "type": "array", "items": row }), false));
        let made = json!({ "description": "How many ids of lines were given out.", "type": "integer", "minimum": 0 });
        properties.push(("rows_made", made, false));
    }
    object(&properties)
}

/// What the authority or the payer holds of a paper.
fn held(kind: &PaperKind) -> Value {
    let told = kind.told_fields();
    let open = told.iter().filter(|field| !field.secret);
    let mut properties = vec![
        ("slip", text("The name of the slip where it is held.", 120), true),
        ("by", text("Who holds it.", 120), true),
        ("on", json!({ "description": "The day on which it was fetched.", "$ref": "#/$defs/date" }), true),
        ("boxes", fields("What stands in its boxes there.", open), false),
        ("kept", text("Why what was keyed stays, where it differs.", 500), false),
    ];
    if !kind.columns.is_empty() && kind.codes().is_none() {
        let line = fields("A line of its list there.", kind.columns.iter());
        properties.push(("rows", json!({ "type": "array", "items": line }), false));
    }
    let mut of = object(&properties);
    of["description"] = json!("What the authority or the payer holds of it, as it was fetched.");
    of
}

/// A slip that was added as a file.
fn file() -> Value {
    object(&[
        ("id", text("The SHA-256 of its bytes, in hexadecimal digits.", 64), true),
        ("name", text("What it was called.", 120), true),
        ("pages", json!({ "description": "How many pages it has.", "type": "integer", "minimum": 0 }), true),
    ])
}

fn fields<'f>(description: &str, fields: impl Iterator<Item = &'f Field>) -> Value {
    let properties: Map<_, _> = fields.map(|f| (f.id.to_owned(), field(f))).collect();
    json!({
        "description": description, "type": "object",
        "properties": properties, "additionalProperties": false
    })
}

fn field(field: &Field) -> Value {
    let mut schema = match field.kind {
        FieldKind::Amount { .. } => json!({ "$ref": "#/$defs/amount" }),
        FieldKind::Count { max } => json!({ "type": "integer", "minimum": 0, "maximum": max }),
        FieldKind::Number { places } => {
            json!({ "type": "string", "pattern": format!("^[0-9]{{1,9}}(\\.[0-9]{{1,{places}}})?$") })
        }
        FieldKind::YesNo => json!({ "type": "boolean" }),
        FieldKind::Text { max } => json!({ "type": "string", "maxLength": max }),
        FieldKind::Date => json!({ "$ref": "#/$defs/date" }),
        FieldKind::Choice { options } => {
            let each = options.iter().map(|o| json!({ "const": o.id, "description": o.label }));
            json!({ "oneOf": each.collect::<Vec<_>>() })
        }
        FieldKind::Person => json!({ "$ref": "#/$defs/id" }),
    };
    let words = [field.number, field.label, field.help].into_iter().filter(|s| !s.is_empty());
    schema["description"] = words.collect::<Vec<_>>().join(" · ").into();
    schema
}

fn text(description: &str, max: usize) -> Value {
    json!({ "description": description, "type": "string", "maxLength": max })
}

/// What the year before came to.
fn before() -> Value {
    let results = json!({
        "description": "The results for all together, or what was left over: row → amount.",
        "type": "object", "additionalProperties": { "$ref": "#/$defs/amount" }
    });
    let mut of = object(&[
        ("year", json!({ "description": "The return year.", "type": "integer" }), true),
        ("filed", map("What each person filed: person → status."), false),
        ("taken", map("What was taken of each decision: decision → option."), false),
        ("results", results.clone(), false),
        ("left", results, false),
        (
            "of_two",
            json!({ "description": "Papers of this household in which stands what a return of two left.",
            "type": "array", "items": { "type": "string" } }),
            false,
        ),
        ("no_result", json!({ "description": "Its figures were no result then.", "type": "boolean" }), false),
    ]);
    of["description"] = json!("What the year before came to, of a household that was carried forward.");
    of
}

/// What was put aside: the reason alone, or with the facts that it is about.
fn dismissals(what: &str) -> Value {
    let about = object(&[
        ("reason", json!({ "type": "string" }), true),
        ("about", json!({ "description": "A fingerprint of the facts.", "type": ["string", "null"] }), false),
    ]);
    json!({
        "description": format!("{what} → reason, or reason and what it is about."),
        "type": "object", "additionalProperties": { "oneOf": [{ "type": "string" }, about] }
    })
}

fn map(description: &str) -> Value {
    json!({ "description": description, "type": "object", "additionalProperties": { "type": "string" } })
}

fn object(properties: &[(&str, Value, bool)]) -> Value {
    let required: Vec<_> = properties.iter().filter(|p| p.2).map(|p| p.0).collect();
    let map: Map<_, _> = properties.iter().map(|p| (p.0.to_owned(), p.1.clone())).collect();
    json!({ "type": "object", "properties": map, "required": required, "additionalProperties": false })
}
