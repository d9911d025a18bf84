//! What an edit touches, and whether that was changed meanwhile: an edit against an older state is put on top of the
//! newest one where it touches nothing that is different there.

use super::Command;
use crate::{household::Household, point::Place};
use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;

/// Something that an edit sets and that was set to something else meanwhile.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Conflict {
    /// Where.
    pub place: Place,
    /// Who set it, where that is known.
    pub by: Option<String>,
    /// What stands there now; nothing where it is empty or was removed.
    #[schema(value_type = Option<Object>)]
    pub theirs: Option<Value>,
    /// What the edit would put there.
    #[schema(value_type = Option<Object>)]
    pub mine: Option<Value>,
}

/// One step into a household.
#[derive(PartialEq)]
pub(super) enum Step<'a> {
    /// A field.
    Key(&'a str),
    /// The one of a list that carries this id.
    Id(&'a str),
}

/// A place in the household with what the edit puts there.
pub(super) struct Touch<'a> {
    pub(super) place: Place,
    pub(super) path: Vec<Step<'a>>,
    pub(super) mine: Value,
}

/// What of these commands, made against `base`, touches something that is different in `newest`.
pub fn conflicts(commands: &[Command], base: &Household, newest: &Household) -> Vec<Conflict> {
    let json = |household: &Household| serde_json::to_value(household).unwrap_or_default();
    let (base, newest) = (json(base), json(newest));
    let conflict = |touch: Touch<'_>| {
        let (was, now) = (at(&base, &touch.path), at(&newest, &touch.path));
        let gone = removed(&base, &newest, &touch.path);
        let changed = was != now && now != Some(&touch.mine) && !(now.is_none() && touch.mine.is_null());
        let told = |value: Value| (!value.is_null()).then_some(value);
        // What both took away is away.
        let both_removed = touch.mine.is_null() && matches!(touch.path.last(), Some(Step::Id(_)));
        ((gone && !both_removed) || changed).then(|| Conflict {
            place: touch.place,
            by: None,
            theirs: now.cloned().and_then(told),
            mine: told(touch.mine),
        })
    };
    commands.iter().flat_map(touches).filter_map(conflict).collect()
}

impl Command {
    /// Whether the command sets that place.
    pub fn touches(&self, place: &Place) -> bool {
        touches(self).iter().any(|touch| touch.place == *place)
    }
}

/// Follows a path; what is not there is nothing.
pub(super) fn at<'v>(value: &'v Value, path: &[Step<'_>]) -> Option<&'v Value> {
    path.iter().try_fold(value, |value, step| match step {
        Step::Key(key) => value.get(key),
        Step::Id(id) => value.as_array()?.iter().find(|one| one["id"] == *id),
    })
}

/// Whether a person, paper or line on the path was there and is no more.
fn removed(base: &Value, newest: &Value, path: &[Step<'_>]) -> bool {
    let prefixes = (1..=path.len()).filter(|&n| matches!(path[n - 1], Step::Id(_)));
    prefixes.map(|n| &path[..n]).any(|path| at(base, path).is_some() && at(newest, path).is_none())
}

fn json(value: impl Serialize) -> Value {
    serde_json::to_value(value).unwrap_or_default()
}

/// Every place that a command sets.
pub(super) fn touches(command: &Command) -> Vec<Touch<'_>> {
    use Step::{Id, Key};
    let touch = |place, path, mine| vec![Touch { place, path, mine }];
    let person_place = |person: &str, field: &str| Place::person(person, field);
    match command {
        Command::Rename { name } => touch(Place::household("name"), vec![Key("name")], json(name)),
        Command::Refer { reference } => {
            let mine = if reference.trim().is_empty() { Value::Null } else { json(reference.trim()) };
            touch(Place::household("reference"), vec![Key("reference")], mine)
        }
        Command::Answer { field, value } => {
            touch(Place::household(field), vec![Key("answers"), Key(field)], json(value))
        }
        Command::AddPerson { person } => {
            touch(person_place(&person.id, "name"), vec![Key("people"), Id(&person.id)], json(person))
        }
        Command::SetPerson { person, name, role, born, died, id_number } => {
            let one = |field: &'static str, value: Option<Value>| {
                let mine = value?;
                // Empty text takes a date or number away.
                let mine = if mine == "" { Value::Null } else { mine };
                let path = vec![Key("people"), Id(person), Key(field)];
                Some(Touch { place: Place::person(person, field), path, mine })
            };
            let all = [
                one("name", name.as_ref().map(json)),
                one("role", role.as_ref().map(json)),
                one("born", born.as_ref().map(json)),
                one("died", died.as_ref().map(json)),
                one("id_number", id_number.as_ref().map(json)),
            ];
            all.into_iter().flatten().collect()
        }
        Command::AnswerFor { person, field, value } => {
            let path = vec![Key("people"), Id(person), Key("answers"), Key(field)];
            touch(person_place(person, field), path, json(value))
        }
        Command::SetLivedWith { person, with, months } => {
            let path = vec![Key("people"), Id(person), Key("lived_with"), Key(with)];
            touch(person_place(person, "lived_with"), path, json(months))
        }
        Command::RemovePerson { person } => {
            touch(person_place(person, "name"), vec![Key("people"), Id(person)], Value::Null)
        }
        Command::AddPaper { paper } => {
            touch(Place::paper(&paper.id, "title"), vec![Key("papers"), Id(&paper.id)], json(paper))
        }
        Command::SetPaper { paper, title, owners, checked, proof } => {
            let one = |field: &'static str, value: Option<Value>| {
                let path = vec![Key("papers"), Id(paper), Key(field)];
                Some(Touch { place: Place::paper(paper, field), path, mine: value? })
            };
            let all = [
                one("title", title.as_ref().map(json)),
                one("owners", owners.as_ref().map(json)),
                one("checked", checked.as_ref().map(json)),
                one("proof", proof.as_ref().map(json)),
            ];
            all.into_iter().flatten().collect()
        }
        Command::SetBox { paper, field, value } => {
            let path = vec![Key("papers"), Id(paper), Key("boxes"), Key(field)];
            touch(Place::paper(paper, field), path, json(value))
        }
        Command::AddRow { paper, id, row } => match id {
            Some(id) => {
                let path = vec![Key("papers"), Id(paper), Key("rows"), Id(id)];
                touch(Place::paper(paper, ""), path, json(row))
            }
            None => Vec::new(),
        },
        Command::SetCell { paper, row, field, value } => {
            let path = vec![Key("papers"), Id(paper), Key("rows"), Id(row), Key(field)];
            let place = Place { row: Some(row.clone()), ..Place::paper(paper, field) };
            touch(place, path, json(value))
        }
        Command::SetRowProof { paper, row, proof } => {
            let path = vec![Key("papers"), Id(paper), Key("proven"), Key(row)];
            let place = Place { row: Some(row.clone()), ..Place::paper(paper, "") };
            touch(place, path, json(proof))
        }
        Command::RemoveRow { paper, row } => {
            let path = vec![Key("papers"), Id(paper), Key("rows"), Id(row)];
            let place = Place { row: Some(row.clone()), ..Place::paper(paper, "") };
            touch(place, path, Value::Null)
        }
        Command::RemovePaper { paper } => {
            touch(Place::paper(paper, "title"), vec![Key("papers"), Id(paper)], Value::Null)
        }
        Command::SetHeld { paper, held } => {
            touch(Place::paper(paper, "held"), vec![Key("papers"), Id(paper), Key("held")], json(held))
        }
        Command::AddFile { paper, file } => {
            let path = vec![Key("papers"), Id(paper), Key("files"), Id(&file.id)];
            touch(Place::paper(paper, "files"), path, json(file))
        }
        Command::RemoveFile { paper, file } => {
            let path = vec![Key("papers"), Id(paper), Key("files"), Id(file)];
            touch(Place::paper(paper, "files"), path, Value::Null)
        }
        Command::RefuseSlip { slip, reason, .. } => {
            touch(Place::default(), vec![Key("refused"), Key(slip), Key("reason")], json(reason))
        }
        Command::Pin { decision, option } => {
            touch(Place::decision(decision), vec![Key("pins"), Key(decision)], json(option))
        }
        Command::GiveReason { decision, reason } => {
            touch(Place::decision(decision), vec![Key("pin_reasons"), Key(decision)], json(reason))
        }
        Command::SetWorth { line, worth } => {
            touch(Place::default(), vec![Key("worth"), Key(line)], json(worth))
        }
        Command::Dismiss { point, reason, .. } => {
            let path = vec![Key("dismissed"), Key(point), Key("reason")];
            touch(Place::default(), path, json(reason))
        }
    }
}
