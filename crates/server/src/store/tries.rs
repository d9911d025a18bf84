//! Sign-ins that failed, so that an account is guarded whatever address the tries come from.

use sqlx::PgPool;

/// Within how many minutes tries count together.
const MINUTES: i32 = 10;

/// How often signing in to an account failed of late.
///
/// # Errors
/// When the database fails.
pub async fn of_late(database: &PgPool, login: &str) -> Result<i64, sqlx::Error> {
    sqlx::query_scalar!(
        r#"select count(*) as "count!" from tries where login = $1 and at > now() - make_interval(mins => $2)"#,
        login,
        MINUTES
    )
    .fetch_one(database)
    .await
}

/// Notes one that failed.
///
/// # Errors
/// When the database fails.
pub async fn note(database: &PgPool, login: &str) -> Result<(), sqlx::Error> {
    sqlx::query!("insert into tries (login) values ($1)", login).execute(database).await?;
    Ok(())
}

/// Forgets those of an account that was signed in to.
///
/// # Errors
/// When the database fails.
pub async fn forget(database: &PgPool, login: &str) -> Result<(), sqlx::Error> {
    sqlx::query!("delete from tries where login = $1", login).execute(database).await?;
    Ok(())
}

/// Removes those that no longer count.
///
/// # Errors
/// When the database fails.
pub async fn sweep(database: &PgPool) -> Result<(), sqlx::Error> {
    sqlx::query!("delete from tries where at < now() - make_interval(mins => $1)", MINUTES)
        .execute(database)
        .await?;
    Ok(())
}
