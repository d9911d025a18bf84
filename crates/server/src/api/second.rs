//! One's own second factor: begun, asked for once a code of it fits, ended.

use super::Input;
use crate::{
    App,
    auth::{Member, password, second, sessions},
    error::{Answer, Problem},
    store::second as store,
};
use axum::{Json, extract::State, http::StatusCode};
use hembo_core::Fault;
use serde::{Deserialize, Serialize};
use tower_sessions::Session;
use utoipa::ToSchema;

/// How one's second factor stands.
#[derive(Serialize, ToSchema)]
pub struct SecondFactor {
    /// It is asked for at the sign-in.
    asked: bool,
    /// So many codes are left for who lost the device.
    recovery: i64,
}

/// How one's second factor stands.
#[utoipa::path(get, path = "/api/account/second", responses((status = 200, body = SecondFactor)))]
pub async fn second_factor(State(app): State<App>, Member(user): Member) -> Answer<Json<SecondFactor>> {
    let second = store::of(&app.database, user.id).await?.filter(|second| second.asked);
    let (asked, recovery) = second.map_or((false, 0), |second| (true, second.recovery));
    Ok(Json(SecondFactor { asked, recovery }))
}

/// What goes into an authenticator.
#[derive(Serialize, ToSchema)]
pub struct SecondBegun {
    /// The secret as it is typed.
    secret: String,
    /// A picture of it, PNG in Base64.
    picture: String,
}

/// Begin a second factor: it is not asked for until a code of it was typed.
#[utoipa::path(post, path = "/api/account/second",
    responses((status = 200, body = SecondBegun), (status = 403, body = Problem)))]
pub async fn begin_second_factor(State(app): State<App>, Member(user): Member) -> Answer<Json<SecondBegun>> {
    let second::Begun { secret, picture } = second::begin(&app, user.id, &user.login).await?;
    Ok(Json(SecondBegun { secret, picture }))
}

/// A code of an authenticator.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SecondCode {
    code: String,
}

/// The codes for who loses the device; they are shown this once.
#[derive(Serialize, ToSchema)]
pub struct RecoveryCodes {
    codes: Vec<String>,
}

/// Ask for the second factor from now on; every other session ends.
#[utoipa::path(put, path = "/api/account/second", request_body = SecondCode,
    responses((status = 200, body = RecoveryCodes), (status = 422, body = Problem)))]
pub async fn ask_second_factor(
    State(app): State<App>,
    session: Session,
    Member(user): Member,
    Input(given): Input<SecondCode>,
) -> Answer<Json<RecoveryCodes>> {
    let here = session.id().map(|id| sessions::hashed(&id)).unwrap_or_default();
    let codes = second::confirm(&app, user.id, &user.login, &given.code, &here).await?;
    let codes = codes.ok_or_else(|| {
        Problem::invalid(vec![Fault::new("code", "This is not the code of now: wait for the next one.")])
    })?;
    Ok(Json(RecoveryCodes { codes }))
}

/// One's password.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SecondEnd {
    password: String,
}

/// Ask for no second factor any more, by who knows the password.
#[utoipa::path(post, path = "/api/account/second/end", request_body = SecondEnd,
    responses((status = 204), (status = 422, body = Problem)))]
pub async fn end_second_factor(
    State(app): State<App>,
    Member(user): Member,
    Input(given): Input<SecondEnd>,
) -> Answer<StatusCode> {
    let hash = user.password_hash.clone();
    let right = tokio::task::spawn_blocking(move || password::verify(&given.password, Some(&hash))).await?;
    if !right {
        return Err(Problem::invalid(vec![Fault::new("password", "This is not the password of now.")]));
    }
    store::end(&app.database, user.id).await?;
    Ok(StatusCode::NO_CONTENT)
}
