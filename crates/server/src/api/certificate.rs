//! The certificate of a household's result: in words, and as a file that can be verified without the server.

use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::households as store,
    work,
};
use axum::{
    Json,
    extract::{Path, State},
    http::header,
    response::IntoResponse,
};
use hembo_core::{
    certificate::{Certificate, Certified, certificate},
    outcome::{NAMED_WAYS, Wanted},
};
use uuid::Uuid;

/// What was weighed and why nothing is lower, with the digest of facts, rules and result.
#[utoipa::path(get, path = "/api/households/{id}/certificate", params(("id" = Uuid, Path)),
    responses((status = 200, body = Certificate), (status = 404, body = Problem)))]
pub async fn of(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Certificate>> {
    let (_, household) = work::load(&app, id).await?;
    let (household, outcome, _) = work::whole(&app, household, Wanted::all(NAMED_WAYS)).await?;
    let pack = work::pack(&app, &household)?;
    Ok(Json(certificate(&household, &outcome, pack)))
}

/// The file of the certificate, which `hembo verify` reads. Numbers are in it in full, which is noted in the audit.
#[utoipa::path(get, path = "/api/households/{id}/certificate/file", params(("id" = Uuid, Path)),
    responses((status = 200, content_type = "application/json"), (status = 404, body = Problem)))]
pub async fn file(State(app): State<App>, By(by): By, Path(id): Path<Uuid>) -> Answer<impl IntoResponse> {
    let (_, household) = work::load(&app, id).await?;
    let (household, outcome, _) = work::whole(&app, household, Wanted::all(NAMED_WAYS)).await?;
    let pack = work::pack(&app, &household)?;
    store::note_reveal(&app.database, id, None, by).await?;
    let disposition = format!("attachment; filename=\"certificate-{}.json\"", household.year);
    let sealed = Certified::of(&household, &outcome, pack).sealed();
    Ok(([(header::CONTENT_DISPOSITION, disposition)], Json(sealed)))
}
