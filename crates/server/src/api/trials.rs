//! Trials: a copy beside the return in which anything may change; kept, applied to the return as one edit, or thrown away.

use super::{
    Input,
    edits::{self, Edit, Stored},
    households::add,
    views::Opened,
};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::{
        history,
        households::{self as households_store, Mark, mark},
        trials::{self as store, Standing},
    },
    work,
};
use axum::{
    Json,
    extract::{Path, State},
    http::StatusCode,
};
use hembo_core::{
    Fault, Household, Outcome, Pack,
    command::{Command, between, conflicts},
    household::Entry,
    outcome::{BesideSection, beside},
    quick_move::QuickMove,
};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// So many trials a household has at most.
const MOST: usize = 20;
/// So long is a name at most, in characters.
const LONGEST_NAME: usize = 60;

/// A trial in the list of its household.
#[derive(Serialize, ToSchema)]
pub struct ListedTrial {
    id: Uuid,
    name: String,
    /// Its total tax.
    total: Money,
    /// How much more than the return's.
    more: Money,
    balance: Money,
    covered: bool,
    #[serde(with = "time::serde::rfc3339")]
    touched_at: OffsetDateTime,
    /// Who began it.
    by: String,
    /// It was thrown away, and can be taken back for thirty days.
    thrown_away: bool,
}

/// The trials of a household, the oldest first.
#[utoipa::path(get, path = "/api/households/{id}/trials", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<ListedTrial>), (status = 404, body = Problem)))]
pub async fn trials(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Vec<ListedTrial>>> {
    let (_, household) = work::load(&app, id).await?;
    let total = work::out(&app, household).await?.summary.total;
    let row = |of: store::Listed| {
        let summary: work::Summary = serde_json::from_value(of.summary).unwrap_or_default();
        ListedTrial {
            id: of.id,
            name: of.name,
            total: summary.total,
            more: summary.total - total,
            balance: summary.balance,
            covered: summary.covered,
            touched_at: of.touched_at,
            by: of.by_name,
            thrown_away: of.thrown_away,
        }
    };
    Ok(Json(store::of(&app.database, id).await?.into_iter().map(row).collect()))
}

/// A new trial.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewTrial {
    /// What it is called; "Trial 2" where nothing is said.
    #[serde(default)]
    name: String,
    /// By the law of another year; such a trial is not applied.
    #[serde(default)]
    year: Option<i32>,
    /// A first step.
    #[serde(default)]
    quick: Option<QuickMove>,
}

/// Begin a trial of a household; the household stays as it is.
#[utoipa::path(post, path = "/api/households/{id}/trials", params(("id" = Uuid, Path)), request_body = NewTrial,
    responses((status = 201, body = super::households::Made), (status = 404, body = Problem),
        (status = 409, body = Problem), (status = 422, body = Problem)))]
pub async fn begin_trial(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(new): Input<NewTrial>,
) -> Answer<(StatusCode, Json<super::households::Made>)> {
    refuse(&app, id, "A trial is not tried again").await?;
    let _turn = app.turns.take(id).await;
    let there = store::of(&app.database, id).await?;
    if there.iter().filter(|trial| !trial.thrown_away).count() >= MOST {
        let why = format!("A household has {MOST} trials at most: throw one away first.");
        return Err(Problem::invalid(vec![Fault::new("name", why)]));
    }
    let name = match new.name.trim() {
        "" => format!("Trial {}", there.len() + 1),
        name => named(name)?,
    };
    let (revision, mut household) = work::load(&app, id).await?;
    let pack = work::pack(&app, &household)?;
    let commands = new.quick.map(|quick| quick.commands(&household, pack)).transpose();
    let commands = commands.map_err(|fault| Problem::invalid(vec![fault]))?;
    household.year = new.year.unwrap_or(household.year);
    let worked = work::out(&app, household).await?;
    let mut transaction = app.database.begin().await?;
    let trial = add(&app, &mut transaction, &worked, "tried", by, None).await?;
    store::note(&mut transaction, trial, id, revision.revision, &name).await?;
    transaction.commit().await?;
    if let Some(commands) = commands {
        let edit = Edit { base_revision: 1, commands, key: None, continues: None };
        if let Err(refused) = edits::make(&app, by, trial, edit).await {
            mark(&app.database, trial, Mark::Deleted, by).await?;
            return Err(refused);
        }
    }
    Ok((StatusCode::CREATED, Json(super::households::Made { id: trial })))
}

/// A name that can be read and is not too long.
fn named(name: &str) -> Answer<String> {
    let name = name.trim();
    let readable = name.chars().any(char::is_alphanumeric) && !name.chars().any(char::is_control);
    if readable && name.chars().count() <= LONGEST_NAME {
        return Ok(name.to_owned());
    }
    let why = format!("A trial needs a name that can be read, of {LONGEST_NAME} characters at most.");
    Err(Problem::invalid(vec![Fault::new("name", why)]))
}

/// Refuses what is for a return alone, where a household is a trial.
///
/// # Errors
/// A problem that says to apply it first.
pub async fn refuse(app: &App, id: Uuid, what: &str) -> Answer<()> {
    match store::standing(&app.database, id).await? {
        None => Ok(()),
        Some(trial) => {
            let why = format!("{what}: this is the trial '{}'. Apply it to the return first.", trial.name);
            Err(Problem::invalid(vec![Fault::new("", why)]))
        }
    }
}

/// A trial beside its return.
#[derive(Serialize, ToSchema)]
pub struct Trial {
    /// The household.
    of: Uuid,
    name: String,
    /// The newest revision of the household.
    revision: i64,
    /// What happened to the household since the trial stands on it, in words; the trial can follow.
    since: Vec<String>,
    /// The trial is by the law of another year: it cannot be applied.
    other_year: bool,
    /// What the trial changes, in words.
    changes: Vec<String>,
    /// The lowest way of the return.
    was: Totals,
    /// That of the trial.
    now: Totals,
    /// How much more the trial's tax is.
    more: Money,
    /// The first amount that it changes, along which a curve is drawn.
    along: Option<Along>,
    /// The Spread, side by side.
    sections: Vec<BesideSection>,
}

/// An amount that a trial changes.
#[derive(Serialize, ToSchema)]
#[schema(as = TriedAmount)]
pub struct Along {
    paper: String,
    /// The line of a list.
    row: Option<String>,
    field: String,
    /// What it is, in words.
    name: String,
    /// In the return, when the trial began to stand on it.
    was: Money,
    /// In the trial.
    now: Money,
}

/// What a household comes to.
#[derive(Serialize, ToSchema)]
pub struct Totals {
    /// The way: "joint · itemized".
    way: String,
    total: Money,
    balance: Money,
    covered: bool,
}

impl Totals {
    fn of(outcome: &Outcome) -> Totals {
        Totals {
            way: outcome.together.clone(),
            total: outcome.total,
            balance: outcome.balance,
            covered: outcome.covered,
        }
    }
}

/// A trial as it stands: its household, what that was when the trial began to stand on it, and what the trial makes of it.
struct Tried {
    standing: Standing,
    revision: i64,
    base: Household,
    household: Household,
    /// The household as it is now.
    newest: Household,
    newest_revision: i64,
}

impl Tried {
    async fn load(app: &App, id: Uuid) -> Answer<Tried> {
        let standing =
            store::standing(&app.database, id).await?.ok_or_else(|| Problem::not_found("trial"))?;
        let (revision, household) = work::load(app, id).await?;
        let (newest, newest_household) = work::load(app, standing.household).await?;
        let base = households_store::revision(&app.database, standing.household, standing.base).await?;
        let base = base.ok_or_else(|| Problem::not_found("revision"))?;
        let base = work::read(app, standing.household, &base.state)?;
        Ok(Tried {
            standing,
            revision: revision.revision,
            base,
            household,
            newest: newest_household,
            newest_revision: newest.revision,
        })
    }

    /// What the trial changes.
    fn changes(&self) -> Vec<Command> {
        between(&self.base, &self.household)
    }

    /// The same in words.
    fn words(&self, pack: &dyn Pack, after: &Outcome) -> Answer<Vec<String>> {
        let mut before = self.base.clone();
        let mut words = Vec::new();
        for command in self.changes() {
            words.push(command.words(&before, pack, after));
            command.apply(&mut before).map_err(|fault| Problem::invalid(vec![fault]))?;
        }
        Ok(words)
    }

    /// The first amount that it changes in a box or a line that is in both, with its words out of those of all changes.
    fn along(&self, words: &[String]) -> Option<Along> {
        let told = |of: &Household, paper: &str, row: Option<&str>, field: &str| {
            let paper = of.paper(paper)?;
            let entries = row.map_or(Some(&paper.boxes), |row| paper.row(row).map(|found| &found.cells))?;
            entries.get(field).and_then(Entry::money)
        };
        let along = |(command, words): (Command, &String)| {
            let (paper, row, field) = match command {
                Command::SetBox { paper, field, .. } => (paper, None, field),
                Command::SetCell { paper, row, field, .. } => (paper, Some(row), field),
                _ => return None,
            };
            let [was, now] = [&self.base, &self.household].map(|of| told(of, &paper, row.as_deref(), &field));
            let name = words.split(": ").next().unwrap_or_default().to_owned();
            Some(Along { was: was?, now: now?, paper, row, field, name })
        };
        self.changes().into_iter().zip(words).find_map(along)
    }

    async fn since(&self, app: &App) -> Answer<Vec<String>> {
        let all = history::since(&app.database, self.standing.household, self.standing.base).await?;
        Ok(all.iter().flat_map(|entry| edits::words_of(&entry.words)).collect())
    }
}

/// A trial beside its return.
#[utoipa::path(get, path = "/api/households/{id}/trial", params(("id" = Uuid, Path)),
    responses((status = 200, body = Trial), (status = 404, body = Problem)))]
pub async fn trial(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Trial>> {
    let tried = Tried::load(&app, id).await?;
    let since = tried.since(&app).await?;
    let was = work::out(&app, tried.newest.clone()).await?.outcome;
    let now = work::out(&app, tried.household.clone()).await?.outcome;
    let changes = tried.words(work::pack(&app, &tried.household)?, &now)?;
    Ok(Json(Trial {
        along: tried.along(&changes),
        changes,
        of: tried.standing.household,
        revision: tried.newest_revision,
        since,
        other_year: tried.newest.year != tried.household.year,
        more: now.total - was.total,
        sections: beside(&was, &now),
        was: Totals::of(&was),
        now: Totals::of(&now),
        name: tried.standing.name,
    }))
}

/// What a trial is called.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrialName {
    name: String,
}

/// Call a trial otherwise.
#[utoipa::path(put, path = "/api/households/{id}/trial", params(("id" = Uuid, Path)), request_body = TrialName,
    responses((status = 204), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn rename_trial(
    State(app): State<App>,
    _: By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<TrialName>,
) -> Answer<StatusCode> {
    let name = named(&wanted.name)?;
    let standing = store::standing(&app.database, id).await?.ok_or_else(|| Problem::not_found("trial"))?;
    let mut transaction = app.database.begin().await?;
    store::note(&mut transaction, id, standing.household, standing.base, &name).await?;
    transaction.commit().await?;
    Ok(StatusCode::NO_CONTENT)
}

/// A quick move, made against a revision of the trial.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MoveTrial {
    base_revision: i64,
    quick: QuickMove,
}

/// Make a quick move in a trial.
#[utoipa::path(post, path = "/api/households/{id}/trial/move", params(("id" = Uuid, Path)), request_body = MoveTrial,
    responses((status = 200, body = Opened), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn quick_move(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<MoveTrial>,
) -> Answer<Json<Opened>> {
    let tried = Tried::load(&app, id).await?;
    if tried.revision != wanted.base_revision {
        return Err(Problem::moved(format!("Revision {} came meanwhile. Look at it again.", tried.revision)));
    }
    let pack = work::pack(&app, &tried.household)?;
    let commands =
        wanted.quick.commands(&tried.household, pack).map_err(|fault| Problem::invalid(vec![fault]))?;
    let edit = Edit { base_revision: tried.revision, commands, key: None, continues: None };
    edits::make(&app, by, id, edit).await.map(Json)
}

/// The revision of the return that was seen.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ApplyTrial {
    revision: i64,
}

/// Apply a trial: what it changes is made in the return, as one edit that can be undone, on top of what came since. The trial is put away.
#[utoipa::path(post, path = "/api/households/{id}/trial/apply", params(("id" = Uuid, Path)),
    request_body = ApplyTrial,
    responses((status = 200, body = Opened), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn apply_trial(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<ApplyTrial>,
) -> Answer<Json<Opened>> {
    let tried = Tried::load(&app, id).await?;
    if tried.newest_revision != wanted.revision {
        let told =
            format!("Revision {} of the return came meanwhile. Look at it again.", tried.newest_revision);
        return Err(Problem::moved(told));
    }
    if tried.newest.year != tried.household.year {
        let why = format!(
            "This trial is by the law of {}: it is not applied to {}.",
            tried.household.year, tried.newest.year
        );
        return Err(Problem::invalid(vec![Fault::new("/year", why)]));
    }
    let commands = tried.changes();
    let household = tried.standing.household;
    let edit = Edit { base_revision: tried.standing.base, commands, key: None, continues: None };
    let opened = edits::make(&app, by, household, edit).await?;
    mark(&app.database, id, Mark::Deleted, by).await?;
    Ok(Json(opened))
}

/// Let a trial follow its return: what it changes is put on top of the newest revision.
#[utoipa::path(post, path = "/api/households/{id}/trial/follow", params(("id" = Uuid, Path)),
    responses((status = 200, body = Opened), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn follow_trial(State(app): State<App>, By(by): By, Path(id): Path<Uuid>) -> Answer<Json<Opened>> {
    let _turn = app.turns.take(id).await;
    let tried = Tried::load(&app, id).await?;
    let commands = tried.changes();
    let found = conflicts(&commands, &tried.base, &tried.newest);
    if !found.is_empty() {
        return Err(Problem::conflict(tried.newest_revision, tried.since(&app).await?, found));
    }
    let mut household = Household { year: tried.household.year, ..tried.newest };
    for command in commands {
        command.apply(&mut household).map_err(|fault| Problem::invalid(vec![fault]))?;
    }
    let worked = work::out(&app, household).await?;
    let stored = Stored::of(&app, id, &worked)?;
    let revision = tried.revision + 1;
    let mut transaction = app.database.begin().await?;
    if !households_store::advance(&mut transaction, id, revision, &stored.heading(&worked.household)).await? {
        return Err(Problem::moved("The trial was changed meanwhile. Look at it again.".into()));
    }
    let new = stored.revision(id, revision, "followed", by);
    households_store::write(&mut transaction, new).await?;
    let Standing { household: of, name, .. } = &tried.standing;
    store::note(&mut transaction, id, *of, tried.newest_revision, name).await?;
    transaction.commit().await?;
    super::views::newest(&app, id).await.map(Json)
}
