//! People who sign in.

use crate::auth::Role;
use sqlx::PgPool;
use time::OffsetDateTime;
use uuid::Uuid;

/// Someone who may sign in.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct User {
    pub id: Uuid,
    pub login: String,
    pub name: String,
    pub role: Role,
    pub password_hash: String,
    /// May no longer sign in.
    pub disabled: bool,
}

/// The user of a login.
///
/// # Errors
/// When the database fails.
pub async fn by_login(database: &PgPool, login: &str) -> Result<Option<User>, sqlx::Error> {
    sqlx::query_as!(
        User,
        r#"select id, login, name, role as "role: Role", password_hash, disabled_at is not null as "disabled!"
         from users where login = $1"#,
        login
    )
    .fetch_optional(database)
    .await
}

/// The user of an id.
///
/// # Errors
/// When the database fails.
pub async fn by_id(database: &PgPool, id: Uuid) -> Result<Option<User>, sqlx::Error> {
    sqlx::query_as!(
        User,
        r#"select id, login, name, role as "role: Role", password_hash, disabled_at is not null as "disabled!"
         from users where id = $1"#,
        id
    )
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
    role: Role,
    password_hash: &str,
) -> Result<Uuid, sqlx::Error> {
    let id = Uuid::new_v4();
    sqlx::query!(
        "insert into users (id, login, name, role, password_hash) values ($1, $2, $3, $4, $5)",
        id,
        login.to_lowercase(),
        name,
        role as Role,
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
    pub role: Role,
    /// May no longer sign in: nothing more is put into these hands.
    pub disabled: bool,
}

/// Everyone of the practice, by name.
///
/// # Errors
/// When the database fails.
pub async fn everyone(database: &PgPool) -> Result<Vec<Someone>, sqlx::Error> {
    sqlx::query_as!(
        Someone,
        r#"select id, name, role as "role: Role", disabled_at is not null as "disabled!" from users order by name"#
    )
    .fetch_all(database)
    .await
}

/// Someone who signs in, as an administrator sees them.
#[derive(Debug, Clone, serde::Serialize, utoipa::ToSchema)]
#[allow(missing_docs)]
pub struct Account {
    pub id: Uuid,
    pub login: String,
    pub name: String,
    pub role: Role,
    /// May no longer sign in.
    pub disabled: bool,
    /// No password was set yet, or it was taken away: a link is needed.
    pub without_password: bool,
    /// A second factor is asked for at the sign-in.
    pub second_factor: bool,
    /// In how many browsers the person is signed in.
    pub sessions: i64,
}

/// Everyone who signs in or did, by name.
///
/// # Errors
/// When the database fails.
pub async fn accounts(database: &PgPool) -> Result<Vec<Account>, sqlx::Error> {
    sqlx::query_as!(
        Account,
        r#"select id, login, name, role as "role: Role", disabled_at is not null as "disabled!",
             password_hash = '' as "without_password!", second_since is not null as "second_factor!",
             (select count(*) from sessions s where s.user_id = users.id and s.expires_at > now()) as "sessions!"
         from users order by name"#
    )
    .fetch_all(database)
    .await
}

/// Sets someone's role and whether the person may sign in; who may not is signed out at once. Whether that was done: not
/// where nobody would be left who is an administrator and may sign in.
///
/// # Errors
/// When the database fails.
pub async fn set(database: &PgPool, id: Uuid, role: Role, disabled: bool) -> Result<bool, sqlx::Error> {
    let mut transaction = database.begin().await?;
    // Two administrators who bar each other at once wait for one another.
    sqlx::query!("select id from users where role = 'administrator' order by id for update")
        .fetch_all(&mut *transaction)
        .await?;
    sqlx::query!(
        "update users set role = $2,
             disabled_at = case when $3 then coalesce(disabled_at, now()) end
         where id = $1",
        id,
        role as Role,
        disabled
    )
    .execute(&mut *transaction)
    .await?;
    let left = sqlx::query_scalar!(
        r#"select exists (select 1 from users where role = 'administrator' and disabled_at is null) as "left!""#
    )
    .fetch_one(&mut *transaction)
    .await?;
    if !left {
        transaction.rollback().await?;
        return Ok(false);
    }
    if disabled {
        sqlx::query!("delete from sessions where user_id = $1", id).execute(&mut *transaction).await?;
    }
    transaction.commit().await?;
    Ok(true)
}

/// Signs someone out everywhere.
///
/// # Errors
/// When the database fails.
pub async fn sign_out(database: &PgPool, id: Uuid) -> Result<(), sqlx::Error> {
    sqlx::query!("delete from sessions where user_id = $1", id).execute(database).await?;
    Ok(())
}

/// Takes someone's password, second factor and sessions away, and keeps the hash of the one link by which another is set.
///
/// # Errors
/// When the database fails.
pub async fn invite(database: &PgPool, id: Uuid, hash: &str, hours: i32) -> Result<(), sqlx::Error> {
    let mut transaction = database.begin().await?;
    sqlx::query!(
        "update users set password_hash = '', second_secret = null, second_sealed_with = null, second_since = null
         where id = $1",
        id
    )
    .execute(&mut *transaction)
    .await?;
    sqlx::query!("delete from recovery_codes where user_id = $1", id).execute(&mut *transaction).await?;
    sqlx::query!("delete from sessions where user_id = $1", id).execute(&mut *transaction).await?;
    sqlx::query!("delete from welcomes where user_id = $1 or expires_at < now()", id)
        .execute(&mut *transaction)
        .await?;
    sqlx::query!(
        "insert into welcomes (hash, user_id, expires_at) values ($1, $2, now() + make_interval(hours => $3))",
        hash,
        id,
        hours
    )
    .execute(&mut *transaction)
    .await?;
    transaction.commit().await
}

/// Whose link that is, where it can still be used: login and name.
///
/// # Errors
/// When the database fails.
pub async fn invited(database: &PgPool, hash: &str) -> Result<Option<(String, String)>, sqlx::Error> {
    let found = sqlx::query!(
        "select u.login, u.name from welcomes w join users u on u.id = w.user_id
         where w.hash = $1 and w.expires_at > now() and u.disabled_at is null",
        hash
    )
    .fetch_optional(database)
    .await?;
    Ok(found.map(|row| (row.login, row.name)))
}

/// Sets a password by a link, which is used up. Whether it could be used.
///
/// # Errors
/// When the database fails.
pub async fn welcome(database: &PgPool, hash: &str, password_hash: &str) -> Result<bool, sqlx::Error> {
    let mut transaction = database.begin().await?;
    let used = sqlx::query_scalar!(
        "delete from welcomes where hash = $1 and expires_at > now() returning user_id",
        hash
    )
    .fetch_optional(&mut *transaction)
    .await?;
    let Some(user) = used else { return Ok(false) };
    sqlx::query!("update users set password_hash = $2 where id = $1", user, password_hash)
        .execute(&mut *transaction)
        .await?;
    transaction.commit().await?;
    Ok(true)
}

/// A browser in which someone is signed in.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct Session {
    /// The hash of its id.
    pub id: String,
    pub began_at: OffsetDateTime,
    /// When it ends, unless it is used before.
    pub expires_at: OffsetDateTime,
}

/// Where someone is signed in, the latest first.
///
/// # Errors
/// When the database fails.
pub async fn sessions_of(database: &PgPool, id: Uuid) -> Result<Vec<Session>, sqlx::Error> {
    sqlx::query_as!(
        Session,
        "select id, began_at, expires_at from sessions where user_id = $1 and expires_at > now()
         order by began_at desc",
        id
    )
    .fetch_all(database)
    .await
}

/// Ends every session of someone but one.
///
/// # Errors
/// When the database fails.
pub async fn end_sessions_but(
    database: impl sqlx::PgExecutor<'_>,
    id: Uuid,
    but: &str,
) -> Result<(), sqlx::Error> {
    sqlx::query!("delete from sessions where user_id = $1 and id <> $2", id, but).execute(database).await?;
    Ok(())
}

/// Sets someone's password; every session but the one that it was set in ends.
///
/// # Errors
/// When the database fails.
pub async fn set_password(
    database: &PgPool,
    id: Uuid,
    password_hash: &str,
    but: &str,
) -> Result<(), sqlx::Error> {
    let mut transaction = database.begin().await?;
    sqlx::query!("update users set password_hash = $2 where id = $1", id, password_hash)
        .execute(&mut *transaction)
        .await?;
    end_sessions_but(&mut *transaction, id, but).await?;
    transaction.commit().await
}
