//! Households: list, make, import, copy, export, delete with undo.

use super::{Input, too_large, views::Opened};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::households::{self as store, Heading, NewRevision},
    work,
};
use axum::{
    Json,
    body::Bytes,
    extract::{Path, Query, State, rejection::BytesRejection},
    http::{StatusCode, header},
    response::IntoResponse,
};
use hembo_core::{
    Household, Person, check,
    household::{FORMAT, Role, date},
};
use serde::{Deserialize, Serialize};
use serde_json::json;
use time::OffsetDateTime;
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// A household in the list.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct HouseholdRow {
    pub id: Uuid,
    pub revision: i64,
    pub name: String,
    pub country: String,
    pub year: i32,
    pub stage: String,
    #[serde(with = "time::serde::rfc3339")]
    pub touched_at: OffsetDateTime,
    pub summary: work::Summary,
}

/// Which households to list.
#[derive(Deserialize, IntoParams)]
pub struct Which {
    /// Those deleted instead of those that are there.
    #[serde(default)]
    deleted: bool,
}

/// The households.
#[utoipa::path(get, path = "/api/households", params(Which), responses((status = 200, body = Vec<HouseholdRow>)))]
pub async fn list(
    State(app): State<App>,
    _: By,
    Query(which): Query<Which>,
) -> Answer<Json<Vec<HouseholdRow>>> {
    let rows = store::list(&app.database, which.deleted).await?;
    let row = |l: store::Listed| {
        Ok(HouseholdRow {
            id: l.id,
            revision: l.revision,
            name: l.name,
            country: l.country,
            year: l.year,
            stage: l.stage,
            touched_at: l.touched_at,
            summary: serde_json::from_value(l.summary).map_err(Problem::internal)?,
        })
    };
    Ok(Json(rows.into_iter().map(row).collect::<Answer<_>>()?))
}

/// A new household.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct NewHousehold {
    pub name: String,
    pub country: String,
    pub year: i32,
    /// One or two filers.
    pub filers: Vec<NewFiler>,
}

/// A filer of a new household.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct NewFiler {
    pub name: String,
    /// Date of birth, ISO 8601.
    #[serde(default)]
    pub born: Option<String>,
}

/// The id of a household that was made.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Made {
    pub id: Uuid,
}

/// Make a household.
#[utoipa::path(post, path = "/api/households", request_body = NewHousehold,
    responses((status = 201, body = Made), (status = 422, body = Problem)))]
pub async fn make(
    State(app): State<App>,
    By(by): By,
    Input(new): Input<NewHousehold>,
) -> Answer<(StatusCode, Json<Made>)> {
    let mut people = Vec::new();
    for (i, filer) in new.filers.into_iter().enumerate() {
        let text = filer.born.filter(|b| !b.is_empty());
        let born = text.as_deref().map(|b| date::parse(b).ok_or_else(|| not_a_day(i, b))).transpose()?;
        people.push(Person {
            id: format!("filer{}", i + 1),
            name: filer.name,
            role: Role::Filer,
            born,
            died: None,
            id_number: None,
            lived_with: Default::default(),
            answers: Default::default(),
        });
    }
    let household = Household {
        hembo: FORMAT,
        country: new.country,
        year: new.year,
        name: new.name,
        people,
        answers: Default::default(),
        papers: Vec::new(),
        pins: Default::default(),
        dismissed: Default::default(),
    };
    let id = store_new(&app, household, "created", by).await?;
    Ok((StatusCode::CREATED, Json(Made { id })))
}

fn not_a_day(person: usize, text: &str) -> Problem {
    let at = format!("/people/{person}/born");
    Problem::invalid(vec![check::Fault::new(
        at,
        format!("'{text}' is not a day; a day is written 2025-03-31."),
    )])
}

/// Checks a household and stores it as a new one.
///
/// # Errors
/// Its faults, or a database that fails.
pub async fn store_new(app: &App, household: Household, kind: &str, by: Uuid) -> Answer<Uuid> {
    let id = Uuid::new_v4();
    let worked = work::out(app, household).await?;
    let mut sealed = worked.household.clone();
    app.sealer.seal(id, &mut sealed);
    let state = serde_json::to_value(&sealed).map_err(Problem::internal)?;
    let summary = serde_json::to_value(&worked.summary).map_err(Problem::internal)?;
    let mut transaction = app.database.begin().await?;
    store::add(
        &mut transaction,
        id,
        &Heading { name: &sealed.name, country: &sealed.country, year: sealed.year, summary: &summary },
    )
    .await?;
    let commands = json!([]);
    let new = NewRevision {
        household: id,
        revision: 1,
        kind,
        commands: &commands,
        state: &state,
        undo_to: None,
        redo_to: None,
        by,
    };
    store::write(&mut transaction, new).await?;
    transaction.commit().await?;
    Ok(id)
}

/// Import a household file.
#[utoipa::path(post, path = "/api/households/import", request_body(content = Object, description = "A household file"),
    responses((status = 201, body = Made), (status = 413, body = Problem), (status = 422, body = Problem)))]
pub async fn import(
    State(app): State<App>,
    By(by): By,
    body: Result<Bytes, BytesRejection>,
) -> Answer<(StatusCode, Json<Made>)> {
    let body = body.map_err(|_| too_large())?;
    let household = check::read(&body, &app.registry).map_err(Problem::invalid)?;
    let id = store_new(&app, household, "imported", by).await?;
    Ok((StatusCode::CREATED, Json(Made { id })))
}

/// Copy a household.
#[utoipa::path(post, path = "/api/households/{id}/copy", params(("id" = Uuid, Path)),
    responses((status = 201, body = Made), (status = 404, body = Problem)))]
pub async fn copy(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
) -> Answer<(StatusCode, Json<Made>)> {
    let (_, mut household) = work::load(&app, id).await?;
    household.name = format!("{} (copy)", household.name.chars().take(110).collect::<String>());
    let id = store_new(&app, household, "copied", by).await?;
    Ok((StatusCode::CREATED, Json(Made { id })))
}

/// Open a household with its outcome.
#[utoipa::path(get, path = "/api/households/{id}", params(("id" = Uuid, Path)),
    responses((status = 200, body = Opened), (status = 404, body = Problem)))]
pub async fn open(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Opened>> {
    let (revision, household) = work::load(&app, id).await?;
    let worked = work::out(&app, household).await?;
    Ok(Json(Opened::new(id, &revision, worked)))
}

/// Export the household file, numbers included; noted in the audit.
#[utoipa::path(get, path = "/api/households/{id}/file", params(("id" = Uuid, Path)),
    responses((status = 200, body = Household), (status = 404, body = Problem)))]
pub async fn export(State(app): State<App>, By(by): By, Path(id): Path<Uuid>) -> Answer<impl IntoResponse> {
    let (_, household) = work::load(&app, id).await?;
    store::note_reveal(&app.database, id, None, by).await?;
    let plain = |c: char| if c.is_ascii_alphanumeric() { c.to_ascii_lowercase() } else { '-' };
    let name: String = household.name.chars().map(plain).collect();
    let disposition = format!("attachment; filename=\"{name}-{}.json\"", household.year);
    Ok(([(header::CONTENT_DISPOSITION, disposition)], Json(household)))
}

/// Delete a household; it can be brought back.
#[utoipa::path(delete, path = "/api/households/{id}", params(("id" = Uuid, Path)),
    responses((status = 204), (status = 404, body = Problem)))]
pub async fn delete(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<StatusCode> {
    mark(&app, id, true).await
}

/// Bring a deleted household back.
#[utoipa::path(post, path = "/api/households/{id}/restore", params(("id" = Uuid, Path)),
    responses((status = 204), (status = 404, body = Problem)))]
pub async fn restore(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<StatusCode> {
    mark(&app, id, false).await
}

async fn mark(app: &App, id: Uuid, deleted: bool) -> Answer<StatusCode> {
    if store::set_deleted(&app.database, id, deleted).await? {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Problem::not_found("household"))
    }
}
