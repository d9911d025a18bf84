//! People who sign in.

use sqlx::PgPool;
use uuid::Uuid;

/// Someone who may sign in.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct User {
    pub id: Uuid,
    pub name: String,
    pub role: String,
    pub password_hash: String,
}

/// The user of a login.
///
/// # Errors
/// When the database fails.
pub async fn by_login(database: &PgPool, login: &str) -> Result<Option<User>, sqlx::Error> {
    sqlx::query_as!(User, "select id, name, role, password_hash from users where login = $1", login)
        .fetch_optional(database)
        .await
}

/// The user of an id.
///
/// # Errors
/// When the database fails.
pub async fn by_id(database: &PgPool, id: Uuid) -> Result<Option<User>, sqlx::Error> {
    sqlx::query_as!(User, "select id, name, role, password_hash from users where id = $1", id)
        .fetch_optional(database)
        .await
}

/// Whether there is anyone at all.
///
/// # Errors
/// When the database fails.
pub async fn any(database: &PgPool) -> Result<bool, sqlx::Error> {
    sqlx::query_scalar!(r#"select exists (select 1 from users) as "any!""#).fetch_one(database).await
}

/// Adds a user; a login is kept in small letters.
///
/// # Errors
/// When the database fails or the login is taken.
pub async fn add(
    database: &PgPool,
    login: &str,
    name: &str,
    role: &str,
    password_hash: &str,
) -> Result<Uuid, sqlx::Error> {
    let id = Uuid::new_v4();
    sqlx::query!(
        "insert into users (id, login, name, role, password_hash) values ($1, $2, $3, $4, $5)",
        id,
        login.to_lowercase(),
        name,
        role,
        password_hash
    )
    .execute(database)
    .await?;
    Ok(id)
}

/// Someone of the practice, as others see them.
#[derive(Debug, Clone, serde::Serialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub struct Someone {
    pub id: Uuid,
    pub name: String,
    /// preparer, reviewer or administrator.
    pub role: String,
}

/// Everyone of the practice, by name.
///
/// # Errors
/// When the database fails.
pub async fn everyone(database: &PgPool) -> Result<Vec<Someone>, sqlx::Error> {
    sqlx::query_as!(Someone, "select id, name, role from users order by name").fetch_all(database).await
}
