//! Sign-ins that failed, so that an account is guarded whatever address the tries come from.

use sqlx::PgPool;
use std::time::Duration;

/// Within how many minutes tries count together.
const MINUTES: i32 = 60;
/// So many may fail in a row without a wait.
const FREE: u32 = 5;
/// The first wait; each further failure doubles it, up to the longest.
const FIRST_WAIT: Duration = Duration::from_secs(15);
const LONGEST_WAIT: Duration = Duration::from_secs(15 * 60);

/// How long signing in to an account must wait after so many failures.
pub fn wait_after(failed: u32) -> Duration {
    match failed.checked_sub(FREE) {
        None => Duration::ZERO,
        Some(more) => FIRST_WAIT.saturating_mul(2_u32.saturating_pow(more)).min(LONGEST_WAIT),
    }
}

/// How long signing in to an account must still wait; nothing where it may be tried now.
///
/// # Errors
/// When the database fails.
pub async fn waiting(database: &PgPool, login: &str) -> Result<Option<Duration>, sqlx::Error> {
    let found = sqlx::query!(
        r#"select count(*) as "count!", coalesce(extract(epoch from now() - max(at)), 0)::float8 as "since!"
         from tries where login = $1 and at > now() - make_interval(mins => $2)"#,
        login,
        MINUTES
    )
    .fetch_one(database)
    .await?;
    let wait = wait_after(u32::try_from(found.count).unwrap_or(u32::MAX));
    let left = wait.saturating_sub(Duration::try_from_secs_f64(found.since).unwrap_or_default());
    Ok((!left.is_zero()).then_some(left))
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
