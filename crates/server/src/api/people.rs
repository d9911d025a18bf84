//! The people of the practice for its administrators, the link by which someone sets a password, and one's own password and sessions.

use super::Input;
use crate::{
    App,
    auth::{Administrator, By, Member, Role, password, people, sessions},
    error::{Answer, Problem},
    store::{
        audit,
        users::{self, Account},
    },
};
use axum::{
    Json,
    extract::{Path, State},
    http::StatusCode,
};
use hembo_core::Fault;
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use tower_sessions::Session;
use utoipa::ToSchema;
use uuid::Uuid;

/// Everyone who signs in, with what an administrator may change.
#[utoipa::path(get, path = "/api/people",
    responses((status = 200, body = Vec<Account>), (status = 403, body = Problem)))]
pub async fn people(State(app): State<App>, _: Administrator) -> Answer<Json<Vec<Account>>> {
    Ok(Json(users::accounts(&app.database).await?))
}

/// Someone new.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPerson {
    login: String,
    name: String,
    role: Role,
}

/// A link by which someone sets a password, once, within three days.
#[derive(Serialize, ToSchema)]
pub struct Invitation {
    id: Uuid,
    /// The address below that of the application.
    link: String,
}

/// Add someone, who sets a password by the link that comes back.
#[utoipa::path(post, path = "/api/people", request_body = NewPerson,
    responses((status = 201, body = Invitation), (status = 403, body = Problem), (status = 422, body = Problem)))]
pub async fn add_person(
    State(app): State<App>,
    Administrator(by): Administrator,
    Input(new): Input<NewPerson>,
) -> Answer<(StatusCode, Json<Invitation>)> {
    let id = people::add(&app.database, &new.login, &new.name, new.role).await;
    let id = id.map_err(|fault| Problem::invalid(vec![fault]))?;
    let link = people::invite(&app.database, id).await?;
    told(&app, by, &format!("{} added as {}", new.name.trim(), new.role)).await?;
    Ok((StatusCode::CREATED, Json(Invitation { id, link })))
}

/// Give someone a new link: the password of before and every session end.
#[utoipa::path(post, path = "/api/people/{id}/invite", params(("id" = Uuid, Path)),
    responses((status = 200, body = Invitation), (status = 403, body = Problem), (status = 404, body = Problem)))]
pub async fn invite_person(
    State(app): State<App>,
    Administrator(by): Administrator,
    Path(id): Path<Uuid>,
) -> Answer<Json<Invitation>> {
    let name = there(&app, id).await?;
    let link = people::invite(&app.database, id).await?;
    told(&app, by, &format!("{name} given a new link")).await?;
    Ok(Json(Invitation { id, link }))
}

/// What an administrator sets of someone.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SetPersonOfPractice {
    role: Role,
    /// May no longer sign in.
    disabled: bool,
}

/// Set someone's role, and whether the person may sign in; who may not is signed out at once.
#[utoipa::path(put, path = "/api/people/{id}", params(("id" = Uuid, Path)), request_body = SetPersonOfPractice,
    responses((status = 200, body = Vec<Account>), (status = 403, body = Problem), (status = 404, body = Problem),
        (status = 422, body = Problem)))]
pub async fn set_person(
    State(app): State<App>,
    Administrator(by): Administrator,
    Path(id): Path<Uuid>,
    Input(wanted): Input<SetPersonOfPractice>,
) -> Answer<Json<Vec<Account>>> {
    let name = there(&app, id).await?;
    if !users::set(&app.database, id, wanted.role, wanted.disabled).await? {
        let why =
            "Nobody would be left to administer the practice: make someone else an administrator first.";
        return Err(Problem::invalid(vec![Fault::new("role", why)]));
    }
    let may = if wanted.disabled { "may no longer sign in" } else { "may sign in" };
    told(&app, by, &format!("{name} is {}, {may}", wanted.role)).await?;
    Ok(Json(users::accounts(&app.database).await?))
}

/// Sign someone out everywhere.
#[utoipa::path(post, path = "/api/people/{id}/sign-out", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<Account>), (status = 403, body = Problem), (status = 404, body = Problem)))]
pub async fn sign_person_out(
    State(app): State<App>,
    Administrator(by): Administrator,
    Path(id): Path<Uuid>,
) -> Answer<Json<Vec<Account>>> {
    let name = there(&app, id).await?;
    told(&app, by, &format!("{name} signed out everywhere")).await?;
    users::sign_out(&app.database, id).await?;
    Ok(Json(users::accounts(&app.database).await?))
}

/// The name of someone who is there.
async fn there(app: &App, id: Uuid) -> Answer<String> {
    users::by_id(&app.database, id).await?.map(|one| one.name).ok_or_else(|| Problem::not_found("person"))
}

/// Notes in the audit what was done with someone.
async fn told(app: &App, by: Uuid, what: &str) -> Answer<()> {
    Ok(audit::note(&app.database, "person", Some(by), None, what).await?)
}

/// What stands in a link.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Link {
    token: String,
}

/// Whose link it is.
#[derive(Serialize, ToSchema)]
pub struct Invited {
    login: String,
    name: String,
    /// So many characters a password has at least.
    shortest: usize,
}

/// Look at a link.
#[utoipa::path(post, path = "/api/welcome", request_body = Link,
    responses((status = 200, body = Invited), (status = 404, body = Problem), (status = 429)))]
pub async fn look_at_link(State(app): State<App>, Input(link): Input<Link>) -> Answer<Json<Invited>> {
    let found = people::invited(&app.database, &link.token).await?;
    let (login, name) = found.ok_or_else(|| Problem::not_found("link"))?;
    Ok(Json(Invited { login, name, shortest: password::SHORTEST }))
}

/// A password set by a link.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Welcome {
    token: String,
    password: String,
}

/// Set a password by a link, which is used up.
#[utoipa::path(put, path = "/api/welcome", request_body = Welcome,
    responses((status = 204), (status = 404, body = Problem), (status = 422, body = Problem), (status = 429)))]
pub async fn use_link(State(app): State<App>, Input(given): Input<Welcome>) -> Answer<StatusCode> {
    let found = people::invited(&app.database, &given.token).await?;
    let (login, _) = found.ok_or_else(|| Problem::not_found("link"))?;
    fitting(&given.password, &login)?;
    if people::welcome(&app.database, &given.token, &given.password).await? {
        Ok(StatusCode::NO_CONTENT)
    } else {
        Err(Problem::not_found("link"))
    }
}

fn fitting(password: &str, login: &str) -> Answer<()> {
    match password::fault(password, login) {
        None => Ok(()),
        Some(why) => Err(Problem::invalid(vec![Fault::new("password", why)])),
    }
}

/// One's own password.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnPassword {
    /// The one of now.
    password: String,
    /// The one to come.
    new: String,
}

/// Change one's own password; every other session ends.
#[utoipa::path(put, path = "/api/account/password", request_body = OwnPassword,
    responses((status = 204), (status = 422, body = Problem)))]
pub async fn set_own_password(
    State(app): State<App>,
    session: Session,
    Member(user): Member,
    Input(given): Input<OwnPassword>,
) -> Answer<StatusCode> {
    let hash = user.password_hash.clone();
    let right = tokio::task::spawn_blocking(move || password::verify(&given.password, Some(&hash))).await?;
    if !right {
        let why = "This is not the password of now.";
        return Err(Problem::invalid(vec![Fault::new("password", why)]));
    }
    fitting(&given.new, &user.login)?;
    let hash = tokio::task::spawn_blocking(move || password::hash(&given.new)).await?;
    users::set_password(&app.database, user.id, &hash, &hash_of(&session)).await?;
    Ok(StatusCode::NO_CONTENT)
}

/// A browser in which one is signed in.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct OwnSession {
    #[serde(with = "time::serde::rfc3339")]
    pub began_at: OffsetDateTime,
    /// When it ends, unless it is used before.
    #[serde(with = "time::serde::rfc3339")]
    pub ends_at: OffsetDateTime,
    /// The one that asks.
    pub here: bool,
}

async fn own(app: &App, user: Uuid, here: &str) -> Answer<Json<Vec<OwnSession>>> {
    let sessions = users::sessions_of(&app.database, user).await?;
    let told = |one: users::Session| OwnSession {
        began_at: one.began_at,
        ends_at: one.expires_at,
        here: one.id == here,
    };
    Ok(Json(sessions.into_iter().map(told).collect()))
}

fn hash_of(session: &Session) -> String {
    session.id().map(|id| sessions::hashed(&id)).unwrap_or_default()
}

/// Where one is signed in, the latest first.
#[utoipa::path(get, path = "/api/account/sessions", responses((status = 200, body = Vec<OwnSession>)))]
pub async fn own_sessions(
    State(app): State<App>,
    session: Session,
    By(user): By,
) -> Answer<Json<Vec<OwnSession>>> {
    own(&app, user, &hash_of(&session)).await
}

/// Sign out in every other browser; what is left is the session that asks.
#[utoipa::path(delete, path = "/api/account/sessions", responses((status = 200, body = Vec<OwnSession>)))]
pub async fn end_other_sessions(
    State(app): State<App>,
    session: Session,
    By(user): By,
) -> Answer<Json<Vec<OwnSession>>> {
    let here = hash_of(&session);
    users::end_sessions_but(&app.database, user, &here).await?;
    own(&app, user, &here).await
}
