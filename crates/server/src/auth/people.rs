//! The people of a practice: added, invited by a link that sets a password once, barred. What the Practice view and
//! `hembo user` share.

use super::{Role, password, sessions::digest};
use crate::store::users;
use hembo_core::Fault;
use sqlx::PgPool;
use uuid::Uuid;

/// So many hours a link lasts.
const LINK_HOURS: i32 = 72;
const LONGEST: usize = 120;

/// Adds someone without a password.
///
/// # Errors
/// A fault where the login is taken or cannot be one; the database's as words.
pub async fn add(database: &PgPool, login: &str, name: &str, role: Role) -> Result<Uuid, Fault> {
    let (login, name) = (login.trim().to_lowercase(), name.trim());
    let fits = |text: &str| {
        !text.is_empty() && text.chars().count() <= LONGEST && !text.chars().any(char::is_control)
    };
    if !fits(&login) || login.chars().any(char::is_whitespace) {
        return Err(Fault::new("login", "A sign-in name has no spaces, and 120 characters at most."));
    }
    if !fits(name) {
        return Err(Fault::new("name", "A name is needed, of 120 characters at most."));
    }
    let there = users::by_login(database, &login).await.map_err(broken)?;
    if there.is_some() {
        return Err(Fault::new("login", format!("'{login}' is there already: choose another sign-in name.")));
    }
    users::add(database, &login, name, role, "").await.map_err(broken)
}

/// Makes a link by which someone sets a password, once; the old one and all sessions end. What comes back is the path of
/// the link.
///
/// # Errors
/// When the database fails.
pub async fn invite(database: &PgPool, id: Uuid) -> Result<String, sqlx::Error> {
    let token = format!("{}{}", Uuid::new_v4().simple(), Uuid::new_v4().simple());
    users::invite(database, id, &digest(&token), LINK_HOURS).await?;
    // After the sign of a fragment it reaches no log of a proxy.
    Ok(format!("/welcome#{token}"))
}

/// Whose link that is: login and name.
///
/// # Errors
/// When the database fails.
pub async fn invited(database: &PgPool, token: &str) -> Result<Option<(String, String)>, sqlx::Error> {
    users::invited(database, &digest(token)).await
}

/// Sets a password by a link; false where the link was used or ran out.
///
/// # Errors
/// When the database fails.
pub async fn welcome(database: &PgPool, token: &str, password: &str) -> Result<bool, sqlx::Error> {
    users::welcome(database, &digest(token), &password::hash(password)).await
}

fn broken(error: sqlx::Error) -> Fault {
    Fault::new("", error.to_string())
}
