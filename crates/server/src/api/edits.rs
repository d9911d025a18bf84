//! Edits: commands against a revision, undo and redo, and the history.

use super::{Input, views::Opened};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::households::{self as store, Heading, NewRevision, Revision},
    work,
};
use axum::{
    Json,
    extract::{Path, State},
};
use hembo_core::{Household, command::Command};
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// Commands against a revision: all of them happen, or none.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Edit {
    pub base_revision: i64,
    pub commands: Vec<Command>,
}

/// The revision that an undo or redo starts from.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct From {
    pub base_revision: i64,
}

/// An entry of the history.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct HistoryEntry {
    pub revision: i64,
    /// created, imported, copied, edited, undone or redone.
    pub kind: String,
    /// What was done, in words.
    pub what: Vec<String>,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

/// Change a household; the answer is its new outcome.
#[utoipa::path(post, path = "/api/households/{id}/edits", params(("id" = Uuid, Path)), request_body = Edit,
    responses((status = 200, body = Opened), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn edit(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(edit): Input<Edit>,
) -> Answer<Json<Opened>> {
    let change = Change::begin(&app, id, edit.base_revision).await?;
    let mut household = work::read(&app, id, &change.held.state)?;
    let log = logged(&edit.commands);
    let pins: Vec<_> = edit.commands.iter().filter_map(pin).collect();
    for command in edit.commands {
        command.apply(&mut household).map_err(|fault| Problem::invalid(vec![fault]))?;
    }
    let (undo_to, redo_to) = (Some(change.held.revision), None);
    change.finish(household, Step { kind: "edited", log, undo_to, redo_to, pins, by }).await
}

/// Take the last change back.
#[utoipa::path(post, path = "/api/households/{id}/undo", params(("id" = Uuid, Path)), request_body = From,
    responses((status = 200, body = Opened), (status = 409, body = Problem)))]
pub async fn undo(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(from): Input<From>,
) -> Answer<Json<Opened>> {
    go_back_to(&app, id, from, Direction::Undo, by).await
}

/// Make an undone change again.
#[utoipa::path(post, path = "/api/households/{id}/redo", params(("id" = Uuid, Path)), request_body = From,
    responses((status = 200, body = Opened), (status = 409, body = Problem)))]
pub async fn redo(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(from): Input<From>,
) -> Answer<Json<Opened>> {
    go_back_to(&app, id, from, Direction::Redo, by).await
}

#[derive(Clone, Copy, PartialEq, Eq)]
enum Direction {
    Undo,
    Redo,
}

/// Writes the state of an earlier revision as a new one.
async fn go_back_to(app: &App, id: Uuid, from: From, direction: Direction, by: Uuid) -> Answer<Json<Opened>> {
    let mut change = Change::begin(app, id, from.base_revision).await?;
    let undo = direction == Direction::Undo;
    let target = if undo { change.held.undo_to } else { change.held.redo_to };
    let target = target.ok_or_else(|| Problem::nothing_to(if undo { "undo" } else { "redo" }))?;
    let target = change.earlier(target).await?;
    let household = work::read(app, id, &target.state)?;
    let here = Some(change.held.revision);
    let (undo_to, redo_to) = if undo { (target.undo_to, here) } else { (here, target.redo_to) };
    let kind = if undo { "undone" } else { "redone" };
    change.finish(household, Step { kind, log: json!([]), undo_to, redo_to, pins: Vec::new(), by }).await
}

/// What was done to a household, newest last.
#[utoipa::path(get, path = "/api/households/{id}/history", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<HistoryEntry>)))]
pub async fn history(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Vec<HistoryEntry>>> {
    let entries = store::history(&app.database, id, 0).await?;
    let entry = |e: store::Entry| HistoryEntry {
        what: words(&e.commands),
        revision: e.revision,
        kind: e.kind,
        by: e.by_name,
        at: e.at,
    };
    Ok(Json(entries.into_iter().map(entry).collect()))
}

/// A household held in a transaction while it changes.
struct Change<'a> {
    app: &'a App,
    id: Uuid,
    transaction: sqlx::PgTransaction<'a>,
    held: Revision,
}

/// What a change writes beside the new state.
struct Step {
    kind: &'static str,
    log: Value,
    undo_to: Option<i64>,
    redo_to: Option<i64>,
    /// Options to hold, which must be lawful in the new state.
    pins: Vec<(String, String)>,
    by: Uuid,
}

/// The option that a command holds.
fn pin(command: &Command) -> Option<(String, String)> {
    match command {
        Command::Pin { decision, option: Some(option) } => Some((decision.clone(), option.clone())),
        _ => None,
    }
}

impl<'a> Change<'a> {
    async fn begin(app: &'a App, id: Uuid, base: i64) -> Answer<Change<'a>> {
        let mut transaction = app.database.begin().await?;
        let held = store::hold(&mut transaction, id).await?.ok_or_else(|| Problem::not_found("household"))?;
        if held.revision != base {
            let since = store::history(&app.database, id, base).await?;
            let line = |e: &store::Entry| match words(&e.commands).as_slice() {
                [] => format!("{} {} it", e.by_name, e.kind),
                words => format!("{}: {}", e.by_name, words.join(", ")),
            };
            return Err(Problem::stale(held.revision, since.iter().map(line).collect()));
        }
        Ok(Change { app, id, transaction, held })
    }

    async fn earlier(&mut self, revision: i64) -> Answer<Revision> {
        let found = store::revision(&mut self.transaction, self.id, revision).await?;
        found.ok_or_else(|| Problem::internal("a revision of the history is missing"))
    }

    /// Checks, computes and writes the new state; only then is the change acknowledged.
    async fn finish(mut self, household: Household, step: Step) -> Answer<Json<Opened>> {
        let worked = work::out(self.app, household).await?;
        for (decision, option) in &step.pins {
            worked.outcome.check_pin(decision, option).map_err(|fault| Problem::invalid(vec![fault]))?;
        }
        let mut sealed = worked.household.clone();
        self.app.sealer.seal(self.id, &mut sealed);
        let state = serde_json::to_value(&sealed).map_err(Problem::internal)?;
        let summary = serde_json::to_value(&worked.summary).map_err(Problem::internal)?;
        let revision = self.held.revision + 1;
        let heading =
            Heading { name: &sealed.name, country: &sealed.country, year: sealed.year, summary: &summary };
        store::write(
            &mut self.transaction,
            NewRevision {
                household: self.id,
                revision,
                kind: step.kind,
                commands: &step.log,
                state: &state,
                undo_to: step.undo_to,
                redo_to: step.redo_to,
                by: step.by,
            },
        )
        .await?;
        store::advance(&mut self.transaction, self.id, revision, &heading).await?;
        self.transaction.commit().await?;
        let at = OffsetDateTime::now_utc();
        let (undo_to, redo_to) = (step.undo_to, step.redo_to);
        Ok(Json(Opened::new(
            self.id,
            &Revision { revision, state: Value::Null, undo_to, redo_to, at },
            worked,
        )))
    }
}

/// Commands as they stand in the history: identification numbers are left out.
fn logged(commands: &[Command]) -> Value {
    let hide = |command: &Command| {
        let mut value = serde_json::to_value(command).unwrap_or_default();
        for path in ["/id_number", "/person/id_number"] {
            if let Some(number) = value.pointer_mut(path).filter(|n| !n.is_null()) {
                *number = "•".into();
            }
        }
        value
    };
    commands.iter().map(hide).collect()
}

/// Commands in words: what was done, to what, to which box.
fn words(commands: &Value) -> Vec<String> {
    let one = |command: &Value| {
        let text = |key: &str| command.get(key).and_then(Value::as_str);
        let done = text("do").unwrap_or("changed").replace('_', " ");
        let at = [text("paper"), text("person"), text("field"), text("decision")];
        [Some(done.as_str())].into_iter().chain(at).flatten().collect::<Vec<_>>().join(" ")
    };
    commands.as_array().into_iter().flatten().map(one).collect()
}
