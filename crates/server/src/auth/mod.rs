//! Sign-in: argon2id, sessions in the database, a token against forged requests, a limit on tries.

pub mod password;
pub mod people;
pub mod role;
pub mod second;
pub mod sessions;

pub use role::{Administrator, Role};

use crate::{
    App,
    error::{Answer, Problem},
    layers::About,
    store::{
        audit, sight, tries,
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
/// The header that carries the session's token on every change.
pub const TOKEN_HEADER: &str = "x-hembo-token";

/// A name and a password.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SignIn {
    login: String,
    password: String,
    /// The code of the second factor, or one for who lost the device, where it is asked for.
    #[serde(default)]
    code: Option<String>,
}

/// Who is signed in.
#[derive(Serialize, ToSchema)]
pub struct SignedIn {
    /// The person's id.
    id: Uuid,
    /// The person's name.
    name: String,
    role: Role,
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

/// Someone signed in with name and role, for handlers that go by them.
#[derive(Debug, Clone)]
pub struct Member(pub User);

impl Member {
    /// A reviewer or an administrator.
    pub fn is_reviewer(&self) -> bool {
        self.0.role.reviews()
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

/// Refuses what is asked of a household that someone does not see, as if it were not there.
///
/// # Errors
/// 404.
pub async fn in_sight(
    State(app): State<App>,
    By(user): By,
    About(household): About,
    request: Request,
    next: Next,
) -> Answer<Response> {
    match household {
        Some((id, _)) if !sight::sees(&app.database, user, id).await? => Err(Problem::not_found("household")),
        _ => Ok(next.run(request).await),
    }
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
    let found = users::by_login(&app.database, &login).await?;
    let known = found.as_ref().map(|user| user.id);
    let refused = async |why: &str| audit::note(&app.database, "refused", known, None, why).await;
    if let Some(wait) = tries::waiting(&app.database, &login).await? {
        refused("waits after failed tries").await?;
        tracing::info!("sign-in refused: an account waits");
        return Err(Problem::too_many(wait));
    }
    let hash = found.as_ref().map(|u| u.password_hash.clone()).filter(|hash| !hash.is_empty());
    let right =
        tokio::task::spawn_blocking(move || password::verify(&given.password, hash.as_deref())).await?;
    let Some(user) = found.filter(|user| right && !user.disabled) else {
        tries::note(&app.database, &login).await?;
        let why = match (known, right) {
            (None, _) => "nobody of that name",
            (Some(_), true) => "may no longer sign in",
            (Some(_), false) => "password",
        };
        refused(why).await?;
        // Never the name: a password is typed there, too.
        tracing::info!("sign-in refused: name and password do not go together");
        return Err(Problem::refused());
    };
    match second::stands(&app, user.id, &login, given.code.as_deref()).await? {
        second::Stands::Fits => {}
        second::Stands::Asked => return Err(Problem::second_factor("Type the code of your authenticator.")),
        second::Stands::Wrong => {
            tries::note(&app.database, &login).await?;
            refused("second factor").await?;
            tracing::info!("sign-in refused: the second factor does not fit");
            return Err(Problem::second_factor(
                "This code does not fit, or was used: wait for the next one.",
            ));
        }
    }
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
