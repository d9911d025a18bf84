//! What is due when: as a list, and as a calendar file.

use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    work,
};
use axum::{
    Json,
    extract::{Path, State},
    http::header,
    response::IntoResponse,
};
use hembo_core::{Household, dates::DueDate, outcome::Wanted};
use hembo_documents::calendar;
use uuid::Uuid;

async fn of(app: &App, id: Uuid) -> Answer<(Household, Vec<DueDate>)> {
    let (_, household) = work::load(app, id).await?;
    let (household, outcome, _) = work::whole(app, household, Wanted::least(1)).await?;
    let registry = app.rules.now(&app.database).await?;
    let rules = registry.pack(&household.country).ok_or_else(|| Problem::not_found("law"))?;
    let dates = rules.dates(&outcome);
    Ok((household, dates))
}

/// What is due when.
#[utoipa::path(get, path = "/api/households/{id}/dates", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<DueDate>), (status = 404, body = Problem)))]
pub async fn due_dates(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Vec<DueDate>>> {
    Ok(Json(of(&app, id).await?.1))
}

/// The same as a calendar file.
#[utoipa::path(get, path = "/api/households/{id}/dates.ics", params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "text/calendar"), (status = 404, body = Problem)))]
pub async fn calendar_file(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<impl IntoResponse> {
    let (household, dates) = of(&app, id).await?;
    let about = work::pack(&app, &household)?.about();
    let file = calendar::calendar(&dates, &household.name, about, &id.to_string());
    let headers = [
        (header::CONTENT_TYPE, "text/calendar; charset=utf-8"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"dates.ics\""),
    ];
    Ok((headers, file))
}
