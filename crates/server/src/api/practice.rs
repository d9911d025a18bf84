//! The practice: who is in it, its name, and how it works.

use super::Input;
use crate::{
    App,
    auth::{Administrator, By},
    error::{Answer, Problem},
    store::{
        audit,
        practice::{self as store, Practice},
        users::{self, Someone},
    },
};
use axum::{Json, extract::State};
use hembo_core::{Fault, check};
use serde::Serialize;
use utoipa::ToSchema;

/// The practice and everyone in it.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct PracticeOpened {
    #[serde(flatten)]
    pub practice: Practice,
    pub people: Vec<Someone>,
}

/// The practice and everyone in it.
#[utoipa::path(get, path = "/api/practice", responses((status = 200, body = PracticeOpened)))]
pub async fn practice(State(app): State<App>, _: By) -> Answer<Json<PracticeOpened>> {
    let practice = store::of(&app.database).await?;
    let people = users::everyone(&app.database).await?;
    Ok(Json(PracticeOpened { practice, people }))
}

/// Set the practice's name and how it works.
#[utoipa::path(put, path = "/api/practice", request_body = Practice,
    responses((status = 200, body = PracticeOpened), (status = 403, body = Problem), (status = 422, body = Problem)))]
pub async fn set_practice(
    State(app): State<App>,
    Administrator(by): Administrator,
    Input(mut practice): Input<Practice>,
) -> Answer<Json<PracticeOpened>> {
    practice.name = practice.name.trim().to_owned();
    if practice.name.chars().count() > check::LONGEST_NAME || practice.name.chars().any(char::is_control) {
        let message = format!("A name has at most {} letters, on one line.", check::LONGEST_NAME);
        return Err(Problem::invalid(vec![Fault::new("name", message)]));
    }
    store::set(&app.database, &practice).await?;
    let on = |on: bool| if on { "on" } else { "off" };
    let ways =
        format!("own review {}, own households alone {}", on(practice.own_review), on(practice.own_sight));
    audit::note(&app.database, "practice", Some(by), None, &ways).await?;
    let people = users::everyone(&app.database).await?;
    Ok(Json(PracticeOpened { practice, people }))
}
