//! Checking: notes on any person, paper, box, line or point, and lines ticked off.

use super::Input;
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::checking::{self as store, NewNote},
};
use axum::{
    Json,
    extract::{Path, State},
};
use hembo_core::Fault;
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

const LONGEST_NOTE: usize = 4_000;
const LONGEST_ABOUT: usize = 300;
const LONGEST_PLACE: usize = 200;
/// How many lines are ticked at once.
const MOST_TICKS: usize = 500;

/// Where a note stands: nothing of it is the household as a whole.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[schema(as = NotePlace)]
#[allow(missing_docs)]
pub struct Place {
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub person: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub paper: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub field: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub line: Option<String>,
    /// Whose line: `return/0`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub scope: Option<String>,
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub point: Option<String>,
}

impl Place {
    fn parts(&self) -> impl Iterator<Item = &String> {
        let all = [&self.person, &self.paper, &self.field, &self.line, &self.scope, &self.point];
        all.into_iter().flatten()
    }
}

/// A note.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Note {
    pub id: Uuid,
    pub place: Place,
    /// The place in words, as it was then.
    pub about: String,
    pub words: String,
    /// The note that it answers.
    pub answers: Option<Uuid>,
    pub by: String,
    /// It is of who asks, who may remove it.
    pub own: bool,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
    pub settled_by: Option<String>,
    #[serde(with = "time::serde::rfc3339::option")]
    pub settled_at: Option<OffsetDateTime>,
}

async fn listed(app: &App, id: Uuid, me: Uuid) -> Answer<Json<Vec<Note>>> {
    let note = |note: store::Note| Note {
        id: note.id,
        place: serde_json::from_value(note.place).unwrap_or_default(),
        about: note.about,
        words: note.words,
        answers: note.answers,
        own: note.by_user == me,
        by: note.by_name,
        at: note.at,
        settled_by: note.settled_by,
        settled_at: note.settled_at,
    };
    Ok(Json(store::notes(&app.database, id).await?.into_iter().map(note).collect()))
}

/// The notes on a household, the oldest first.
#[utoipa::path(get, path = "/api/households/{id}/notes", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<Note>)))]
pub async fn notes(State(app): State<App>, By(me): By, Path(id): Path<Uuid>) -> Answer<Json<Vec<Note>>> {
    listed(&app, id, me).await
}

/// A note to add.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AddNote {
    /// Where it stands.
    #[serde(default)]
    place: Place,
    /// The place in words.
    about: String,
    /// What it says.
    words: String,
    /// The note that it answers.
    #[serde(default)]
    answers: Option<Uuid>,
}

/// Add a note.
#[utoipa::path(post, path = "/api/households/{id}/notes", params(("id" = Uuid, Path)), request_body = AddNote,
    responses((status = 200, body = Vec<Note>), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn add_note(
    State(app): State<App>,
    By(me): By,
    Path(id): Path<Uuid>,
    Input(new): Input<AddNote>,
) -> Answer<Json<Vec<Note>>> {
    let words = text("words", &new.words, LONGEST_NOTE)?;
    let about = text("about", &new.about, LONGEST_ABOUT)?;
    if new.place.parts().any(|part| part.chars().count() > LONGEST_PLACE) {
        return Err(Problem::invalid(vec![Fault::new("place", "There is no such place.")]));
    }
    let place = serde_json::to_value(&new.place).map_err(Problem::internal)?;
    let note = NewNote { household: id, place: &place, about, words, answers: new.answers, by: me };
    if !store::add_note(&app.database, &note).await? {
        return Err(Problem::not_found("household or note"));
    }
    listed(&app, id, me).await
}

/// A text that must say something, and no sign that cannot be seen but line ends.
fn text<'t>(at: &str, text: &'t str, most: usize) -> Answer<&'t str> {
    let text = text.trim();
    let unseen = text.chars().any(|c| c.is_control() && c != '\n');
    if text.is_empty() || text.chars().count() > most || unseen {
        let message = format!("Say something here, in at most {most} letters.");
        return Err(Problem::invalid(vec![Fault::new(at, message)]));
    }
    Ok(text)
}

/// What becomes of a note.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ChangeNote {
    /// Settled, or open again; as it is where it is left out.
    #[serde(default)]
    settled: Option<bool>,
    /// Removed, or back again: by who wrote it.
    #[serde(default)]
    removed: Option<bool>,
}

/// Settle a note or open it again, remove one's own or bring it back.
#[utoipa::path(post, path = "/api/households/{id}/notes/{note}", params(("id" = Uuid, Path), ("note" = Uuid, Path)),
    request_body = ChangeNote, responses((status = 200, body = Vec<Note>), (status = 404, body = Problem)))]
pub async fn change_note(
    State(app): State<App>,
    By(me): By,
    Path((id, note)): Path<(Uuid, Uuid)>,
    Input(change): Input<ChangeNote>,
) -> Answer<Json<Vec<Note>>> {
    let mut there = true;
    if let Some(removed) = change.removed {
        there &= store::remove(&app.database, id, note, removed, me).await?;
    }
    if let Some(settled) = change.settled {
        there &= store::settle(&app.database, id, note, settled, me).await?;
    }
    if !there {
        return Err(Problem::not_found("note of yours"));
    }
    listed(&app, id, me).await
}

/// A line that was found right.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Tick {
    pub line: String,
    pub scope: String,
    /// The amount that it had: with another one it is ticked no more.
    pub amount: Money,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

async fn ticked(app: &App, id: Uuid) -> Answer<Json<Vec<Tick>>> {
    let tick = |tick: store::Tick| {
        let amount = tick.amount.parse().map_err(Problem::internal)?;
        Ok(Tick { line: tick.line, scope: tick.scope, amount, by: tick.by_name, at: tick.at })
    };
    store::ticks(&app.database, id).await?.into_iter().map(tick).collect::<Answer<_>>().map(Json)
}

/// The lines of a household that were found right.
#[utoipa::path(get, path = "/api/households/{id}/ticks", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<Tick>)))]
pub async fn ticks(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Vec<Tick>>> {
    ticked(&app, id).await
}

/// A line to tick off, with the amount that was read.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct TickLine {
    pub line: String,
    pub scope: String,
    pub amount: Money,
}

/// Lines to tick off, or to take the tick from.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TickLines {
    /// The lines.
    lines: Vec<TickLine>,
    /// Found right, or no longer.
    right: bool,
}

/// Tick lines off, or take their ticks back; all of them, or none.
#[utoipa::path(put, path = "/api/households/{id}/ticks", params(("id" = Uuid, Path)), request_body = TickLines,
    responses((status = 200, body = Vec<Tick>), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn tick(
    State(app): State<App>,
    By(me): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<TickLines>,
) -> Answer<Json<Vec<Tick>>> {
    let TickLines { lines, right } = wanted;
    let sensible = |text: &str| (1..=LONGEST_PLACE).contains(&text.chars().count());
    let twice = (1..lines.len()).any(|at| {
        lines[..at].iter().any(|one| (&one.line, &one.scope) == (&lines[at].line, &lines[at].scope))
    });
    if lines.len() > MOST_TICKS
        || twice
        || !lines.iter().all(|one| sensible(&one.line) && sensible(&one.scope))
    {
        let message = format!("At most {MOST_TICKS} lines are ticked at once, each once.");
        return Err(Problem::invalid(vec![Fault::new("lines", message)]));
    }
    let names: Vec<String> = lines.iter().map(|one| one.line.clone()).collect();
    let scopes: Vec<String> = lines.iter().map(|one| one.scope.clone()).collect();
    let amounts: Vec<String> = lines.iter().map(|one| one.amount.to_string()).collect();
    let amounts = right.then_some(&amounts[..]);
    if !store::tick(&app.database, id, (&names, &scopes), amounts, me).await? {
        return Err(Problem::not_found("household"));
    }
    ticked(&app, id).await
}
