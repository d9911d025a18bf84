//! Edits: commands against a revision, undo and redo, and bringing an earlier revision back.
//!
//! A change reads the newest revision, computes without holding anything, and is written only if that revision still
//! is the newest; else it is computed again on top of what came between. Nothing is locked while rules compute.

use super::{
    Input, files,
    views::{self, Opened},
};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    filing::without_keeping,
    store::{
        history,
        households::{self as store, Heading, NewRevision, Revision},
        payers, progress,
    },
    work,
};
use axum::{
    Json,
    extract::{Path, State},
};
use hembo_core::{
    Fault, Household, Outcome,
    check::LARGEST_FILE,
    command::{Command, conflicts},
    payer::{self, Payer},
    point::Place,
    secret,
};
use serde::Deserialize;
use serde_json::{Value, json};
use std::collections::BTreeSet;
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
    /// Names the edit: sent again after an answer that was lost, it is made once.
    #[serde(default)]
    pub key: Option<Uuid>,
    /// The revision with which it goes on, as typing does: while that is the newest, undo takes both back.
    #[serde(default)]
    pub continues: Option<i64>,
}

/// The revision that an undo or redo starts from.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct From {
    pub base_revision: i64,
}

/// The revision to bring back, and the newest one that was seen.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct BringBack {
    pub base_revision: i64,
    pub revision: i64,
}

/// Change a household; the answer is its new outcome. An edit against an older revision is put on top of the newest
/// where it touches nothing that was changed meanwhile. One that changes nothing makes no revision.
#[utoipa::path(post, path = "/api/households/{id}/edits", params(("id" = Uuid, Path)), request_body = Edit,
    responses((status = 200, body = Opened), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn edit(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(edit): Input<Edit>,
) -> Answer<Json<Opened>> {
    make(&app, by, id, edit).await.map(Json)
}

/// Makes an edit of a household by someone.
///
/// # Errors
/// What is wrong with it; then nothing was changed.
pub async fn make(app: &App, by: Uuid, id: Uuid, edit: Edit) -> Answer<Opened> {
    let change = Change { app, id, by };
    let _turn = app.turns.take(id).await;
    loop {
        let newest = change.newest().await?;
        let is_behind = newest.revision != edit.base_revision;
        // One that was made before went on from its base.
        if let Some(key) = edit.key.filter(|_| is_behind)
            && store::has_edit(&app.database, id, key).await?
        {
            return views::newest(app, id).await;
        }
        let until_now = work::read(app, id, &newest.state)?;
        if is_behind {
            change.check_conflicts(&edit, newest.revision, &until_now).await?;
        }
        let mut household = until_now.clone();
        let mut commands = Vec::with_capacity(edit.commands.len());
        for command in &edit.commands {
            command.clone().apply(&mut household).map_err(|fault| Problem::invalid(vec![fault]))?;
            commands.push(command.clone().carried_out(&household));
        }
        files::check_kept(app, &edit.commands).await?;
        if household == until_now {
            return views::newest(app, id).await;
        }
        let goes_on = newest.undo_to.filter(|_| edit.continues == Some(newest.revision));
        let before = match goes_on {
            Some(start) => work::read(app, id, &change.earlier(start).await?.state)?,
            None => until_now.clone(),
        };
        let step = Step { kind: "edited", commands, before: Some(before), ..Step::default() };
        let step = Step { undo_to: goes_on.or(Some(newest.revision)), key: edit.key, ..step };
        if let Some(opened) = change.write(&newest, &until_now, household, step).await? {
            return Ok(opened);
        }
    }
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
    Change { app: &app, id, by }.go_back_to(from.base_revision, Back::Undo).await
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
    Change { app: &app, id, by }.go_back_to(from.base_revision, Back::Redo).await
}

/// Make an earlier revision the newest again; that can be undone like any change.
#[utoipa::path(post, path = "/api/households/{id}/bring-back", params(("id" = Uuid, Path)), request_body = BringBack,
    responses((status = 200, body = Opened), (status = 404, body = Problem), (status = 409, body = Problem)))]
pub async fn bring_back(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<BringBack>,
) -> Answer<Json<Opened>> {
    Change { app: &app, id, by }.go_back_to(wanted.base_revision, Back::To(wanted.revision)).await
}

/// Which earlier state becomes the newest again.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Back {
    Undo,
    Redo,
    To(i64),
}

/// A change of a household by someone.
#[derive(Clone, Copy)]
struct Change<'a> {
    app: &'a App,
    id: Uuid,
    by: Uuid,
}

/// What a change writes beside the new state.
#[derive(Default)]
struct Step {
    kind: &'static str,
    commands: Vec<Command>,
    /// The household before the commands.
    before: Option<Household>,
    /// What was done in words, where there are no commands.
    words: Vec<String>,
    undo_to: Option<i64>,
    redo_to: Option<i64>,
    /// The revision whose state comes back.
    back_to: Option<i64>,
    key: Option<Uuid>,
}

impl Change<'_> {
    async fn newest(self) -> Answer<Revision> {
        store::newest(&self.app.database, self.id).await?.ok_or_else(|| Problem::not_found("household"))
    }

    async fn earlier(self, revision: i64) -> Answer<Revision> {
        let found = store::revision(&self.app.database, self.id, revision).await?;
        found.ok_or_else(|| Problem::not_found("revision"))
    }

    /// What was done after a revision, in words, newest last.
    async fn since(self, revision: i64) -> Answer<Vec<String>> {
        let line = |e: history::Entry| match words_of(&e.words).as_slice() {
            [] => format!("{} {}", e.by_name, e.kind.replace('_', " ")),
            words => format!("{}: {}", e.by_name, words.join(", ")),
        };
        Ok(history::since(&self.app.database, self.id, revision).await?.into_iter().map(line).collect())
    }

    /// Refuses an edit that touches what was changed since the revision it was made against.
    async fn check_conflicts(self, edit: &Edit, newest: i64, household: &Household) -> Answer<()> {
        let base = self.earlier(edit.base_revision).await?;
        let base = work::read(self.app, self.id, &base.state)?;
        let mut found = conflicts(&edit.commands, &base, household);
        if found.is_empty() {
            return Ok(());
        }
        let done = history::done_since(&self.app.database, self.id, edit.base_revision).await?;
        for conflict in &mut found {
            conflict.by =
                done.iter().find(|doing| touched(doing, &conflict.place)).map(|d| d.by_name.clone());
        }
        let changed = self.since(edit.base_revision).await?;
        Err(Problem::conflict(newest, changed, found))
    }

    /// The words of the edit that an undo to this revision takes back.
    async fn words_from(self, undo_to: Option<i64>) -> Answer<Vec<String>> {
        let Some(undo_to) = undo_to else { return Ok(Vec::new()) };
        let words = history::words_from(&self.app.database, self.id, undo_to).await?;
        Ok(words.map(|words| words_of(&words)).unwrap_or_default())
    }

    /// Writes the state of an earlier revision as a new one.
    async fn go_back_to(self, base: i64, back: Back) -> Answer<Json<Opened>> {
        let _turn = self.app.turns.take(self.id).await;
        let newest = self.newest().await?;
        if newest.revision != base {
            return Err(Problem::stale(newest.revision, self.since(base).await?));
        }
        let target = match back {
            Back::Undo => newest.undo_to.ok_or_else(|| Problem::nothing_to("undo"))?,
            Back::Redo => newest.redo_to.ok_or_else(|| Problem::nothing_to("redo"))?,
            Back::To(revision) => revision,
        };
        let target = self.earlier(target).await?;
        let household = work::read(self.app, self.id, &target.state)?;
        let here = Some(newest.revision);
        let step = match back {
            Back::Undo => Step { kind: "undone", undo_to: target.undo_to, redo_to: here, ..Step::default() },
            Back::Redo => Step { kind: "redone", undo_to: here, redo_to: target.redo_to, ..Step::default() },
            Back::To(_) => Step { kind: "brought_back", undo_to: here, ..Step::default() },
        };
        let words = match back {
            Back::To(_) => vec![format!("As it was in revision {}", target.revision)],
            Back::Undo => self.words_from(newest.undo_to).await?,
            Back::Redo => self.words_from(target.undo_to).await?,
        };
        let step = Step { words, back_to: Some(target.revision), ..step };
        let until_now = work::read(self.app, self.id, &newest.state)?;
        match self.write(&newest, &until_now, household, step).await? {
            Some(opened) => Ok(Json(opened)),
            None => Err(Problem::stale(base + 1, self.since(base).await?)),
        }
    }

    /// Checks, computes and writes the new state after a revision; only then is the change acknowledged. Nothing where
    /// that revision is no longer the newest.
    async fn write(
        self,
        newest: &Revision,
        until_now: &Household,
        household: Household,
        step: Step,
    ) -> Answer<Option<Opened>> {
        let after = newest.revision;
        let same_return = without_keeping(until_now) == without_keeping(&household);
        let worked = work::out(self.app, household).await?;
        for (decision, option) in step.commands.iter().filter_map(pin) {
            worked.outcome.check_pin(decision, option).map_err(|fault| Problem::invalid(vec![fault]))?;
        }
        let pack = work::pack(self.app, &worked.household)?;
        let (commands, words) = told(&step, pack, &worked.outcome)?;
        let words = if step.words.is_empty() { words } else { json!(step.words) };
        let stored = Stored::of(self.app, self.id, &worked)?;
        let revision = after + 1;
        let mut transaction = self.app.database.begin().await?;
        if !store::advance(&mut transaction, self.id, revision, &stored.heading(&worked.household)).await? {
            return Ok(None);
        }
        let new = NewRevision {
            household: self.id,
            revision,
            kind: step.kind,
            commands: &commands,
            words: &words,
            rules: &worked.rules,
            totals: &stored.summary,
            state: &stored.state,
            sealed_with: &stored.sealed_with,
            undo_to: step.undo_to,
            redo_to: step.redo_to,
            by: self.by,
            key: step.key,
        };
        store::write(&mut transaction, new).await?;
        // What stood there before this edit, too: a name that is still being typed is none yet.
        let stood = step.before.as_ref().map(|before| payer::payers(before, pack)).unwrap_or_default();
        let settled = stored.payers.intersection(&stood).cloned().collect();
        // A trial teaches nothing.
        if newest.trial_of.is_none() {
            payers::learn(&mut transaction, &worked.household.country, &settled, self.by).await?;
        }
        // A file, a proof or a mark with a paper is no change of what was cleared or filed.
        if !same_return {
            progress::changed(&mut transaction, self.id, after, step.back_to, self.by).await?;
        }
        transaction.commit().await?;
        let at = OffsetDateTime::now_utc();
        let (undo_to, redo_to) = (step.undo_to, step.redo_to);
        let written = Revision {
            revision,
            state: Value::Null,
            undo_to,
            redo_to,
            rules: None,
            totals: None,
            at,
            trial_of: newest.trial_of,
            trial_name: newest.trial_name.clone(),
        };
        let opened = Opened::new(self.app, self.id, &written, worked, pack);
        Ok(Some(Opened { did: words_of(&words), ..opened }))
    }
}

/// Whether a revision touched a place; one that brought an earlier state back touched every one.
fn touched(doing: &history::Doing, place: &Place) -> bool {
    let commands: Vec<Command> = serde_json::from_value(doing.commands.clone()).unwrap_or_default();
    commands.is_empty() || commands.iter().any(|command| command.touches(place))
}

/// The option that a command holds.
fn pin(command: &Command) -> Option<(&str, &str)> {
    match command {
        Command::Pin { decision, option: Some(option) } => Some((decision, option)),
        _ => None,
    }
}

/// Commands as they stand in the history, and in words: both without secrets.
fn told(step: &Step, pack: &dyn hembo_core::Pack, after: &Outcome) -> Answer<(Value, Value)> {
    let Some(mut before) = step.before.clone() else { return Ok((json!([]), json!([]))) };
    let (mut commands, mut words) = (Vec::new(), Vec::new());
    for command in &step.commands {
        words.push(command.words(&before, pack, after));
        commands.push(secret::hidden(command.clone(), &before, pack));
        command.clone().apply(&mut before).map_err(|fault| Problem::invalid(vec![fault]))?;
    }
    Ok((serde_json::to_value(commands).map_err(Problem::internal)?, json!(words)))
}

/// Words of the history as a list.
pub fn words_of(words: &Value) -> Vec<String> {
    words.as_array().into_iter().flatten().filter_map(Value::as_str).map(str::to_owned).collect()
}

/// A worked-out household as it is stored: its secrets sealed, with what lists show.
pub struct Stored {
    /// The sealed household.
    pub state: Value,
    /// The name of the key that sealed it.
    pub sealed_with: String,
    /// What lists show.
    pub summary: Value,
    search: String,
    digits: Vec<String>,
    rules: String,
    /// The payers that its papers name.
    pub payers: BTreeSet<Payer>,
}

impl Stored {
    /// What is stored of a household.
    ///
    /// # Errors
    /// A household that would be too large to be exported and imported again.
    pub fn of(app: &App, id: Uuid, worked: &work::Worked) -> Answer<Stored> {
        let household = &worked.household;
        let bytes = serde_json::to_vec(household).map_err(Problem::internal)?.len();
        if bytes > LARGEST_FILE {
            let message = format!(
                "The household would have {bytes} bytes as a file; at most {LARGEST_FILE} are possible: remove some lines."
            );
            return Err(Problem::invalid(vec![Fault::new("", message)]));
        }
        let pack = work::pack(app, household)?;
        let mut sealed = household.clone();
        let sealed_with = app.sealer.seal(id, &mut sealed, pack);
        Ok(Stored {
            state: serde_json::to_value(&sealed).map_err(Problem::internal)?,
            summary: serde_json::to_value(&worked.summary).map_err(Problem::internal)?,
            search: work::search_text(household, pack, &worked.summary),
            sealed_with,
            digits: work::last_digits(&app.sealer, household),
            rules: worked.rules.clone(),
            payers: payer::payers(household, pack),
        })
    }

    /// It as a revision that no commands made, from which nothing is undone.
    pub fn revision<'a>(
        &'a self,
        household: Uuid,
        revision: i64,
        kind: &'a str,
        by: Uuid,
    ) -> NewRevision<'a> {
        static NOTHING: Value = Value::Array(Vec::new());
        NewRevision {
            household,
            revision,
            kind,
            commands: &NOTHING,
            words: &NOTHING,
            rules: &self.rules,
            totals: &self.summary,
            state: &self.state,
            sealed_with: &self.sealed_with,
            undo_to: None,
            redo_to: None,
            by,
            key: None,
        }
    }

    /// What stands beside it in lists.
    pub fn heading<'a>(&'a self, household: &'a Household) -> Heading<'a> {
        Heading {
            name: &household.name,
            country: &household.country,
            year: household.year,
            search: &self.search,
            digits: &self.digits,
            reference: &household.reference,
            summary: &self.summary,
            rules: &self.rules,
        }
    }
}
