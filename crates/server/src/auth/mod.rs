//! Sign-in: argon2id, sessions in the database, a token against forged requests, a limit on tries.

pub mod password;
pub mod sessions;

use crate::{
    App,
    error::{Answer, Problem},
    store::{
        tries,
        users::{self, User},
    },
};
use axum::{
    Json,
    extract::{FromRequestParts, Request, State},
    http::{Method, StatusCode, request::Parts},
    middleware::Next,
    response::Response,
};
use serde::{Deserialize, Serialize};
use tower_sessions::Session;
use utoipa::ToSchema;
use uuid::Uuid;

const USER: &str = "user";
const TOKEN: &str = "token";
const LONGEST_LOGIN: usize = 120;
/// How often signing in to an account may fail before it must wait.
const MOST_TRIES: i64 = 10;
/// The header that carries the session's token on every change.
pub const TOKEN_HEADER: &str = "x-hembo-token";

/// A name and a password.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignIn {
    login: String,
    password: String,
}

/// Who is signed in.
#[derive(Serialize, ToSchema)]
pub struct SignedIn {
    /// The person's id.
    id: Uuid,
    /// The person's name.
    name: String,
    /// preparer, reviewer or administrator.
    role: String,
    /// What every change must carry in the header `x-hembo-token`.
    token: String,
}

/// Someone signed in, for handlers that need one.
#[derive(Debug, Clone, Copy)]
pub struct By(pub Uuid);

impl FromRequestParts<App> for By {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, _: &App) -> Answer<By> {
        let session = parts.extensions.get::<Session>().ok_or_else(Problem::signed_out)?;
        session.get(USER).await?.map(By).ok_or_else(Problem::signed_out)
    }
}

/// An administrator signed in, for handlers that need one.
#[derive(Debug, Clone, Copy)]
pub struct Administrator(pub Uuid);

impl FromRequestParts<App> for Administrator {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Answer<Administrator> {
        let Member(user) = Member::from_request_parts(parts, app).await?;
        if user.role == "administrator" {
            Ok(Administrator(user.id))
        } else {
            Err(Problem::not_allowed("an administrator"))
        }
    }
}

/// Someone signed in with name and role, for handlers that go by them.
#[derive(Debug, Clone)]
pub struct Member(pub User);

impl Member {
    /// A reviewer or an administrator.
    pub fn is_reviewer(&self) -> bool {
        self.0.role != "preparer"
    }
}

impl FromRequestParts<App> for Member {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Answer<Member> {
        let By(user) = By::from_request_parts(parts, app).await?;
        users::by_id(&app.database, user).await?.map(Member).ok_or_else(Problem::signed_out)
    }
}

/// Refuses a change that does not carry the session's token.
///
/// # Errors
/// 401 without a session, 403 without its token.
pub async fn guard(session: Session, request: Request, next: Next) -> Answer<Response> {
    if matches!(*request.method(), Method::GET | Method::HEAD) {
        return Ok(next.run(request).await);
    }
    let expected: String = session.get(TOKEN).await?.ok_or_else(Problem::signed_out)?;
    let given = request.headers().get(TOKEN_HEADER).and_then(|h| h.to_str().ok());
    if given != Some(expected.as_str()) {
        return Err(Problem::forged());
    }
    Ok(next.run(request).await)
}

/// Sign in.
#[utoipa::path(post, path = "/api/session", request_body = SignIn,
    responses((status = 200, body = SignedIn), (status = 401, body = Problem), (status = 429)))]
pub async fn sign_in(
    State(app): State<App>,
    session: Session,
    crate::api::Input(given): crate::api::Input<SignIn>,
) -> Answer<Json<SignedIn>> {
    let login: String = given.login.trim().to_lowercase().chars().take(LONGEST_LOGIN).collect();
    if login.chars().any(char::is_control) {
        return Err(Problem::refused());
    }
    if tries::of_late(&app.database, &login).await? >= MOST_TRIES {
        return Err(Problem::too_many());
    }
    let found = users::by_login(&app.database, &login).await?;
    let hash = found.as_ref().map(|u| u.password_hash.clone());
    let right =
        tokio::task::spawn_blocking(move || password::verify(&given.password, hash.as_deref())).await?;
    let Some(user) = found.filter(|_| right) else {
        tries::note(&app.database, &login).await?;
        return Err(Problem::refused());
    };
    tries::forget(&app.database, &login).await?;
    session.cycle_id().await?;
    let token = format!("{}{}", Uuid::new_v4().simple(), Uuid::new_v4().simple());
    session.insert(USER, user.id).await?;
    session.insert(TOKEN, &token).await?;
    tracing::info!(user = %user.id, "signed in");
    Ok(Json(signed_in(user, token)))
}

/// Who is signed in.
#[utoipa::path(get, path = "/api/session", responses((status = 200, body = SignedIn), (status = 401, body = Problem)))]
pub async fn who(State(app): State<App>, session: Session, By(user): By) -> Answer<Json<SignedIn>> {
    let user = users::by_id(&app.database, user).await?.ok_or_else(Problem::signed_out)?;
    let token = session.get(TOKEN).await?.ok_or_else(Problem::signed_out)?;
    Ok(Json(signed_in(user, token)))
}

/// Sign out.
#[utoipa::path(delete, path = "/api/session", responses((status = 204)))]
pub async fn sign_out(session: Session) -> Answer<StatusCode> {
    session.flush().await?;
    Ok(StatusCode::NO_CONTENT)
}

fn signed_in(user: User, token: String) -> SignedIn {
    SignedIn { id: user.id, name: user.name, role: user.role, token }
}
