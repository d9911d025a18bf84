//! Which households someone sees: all, or where the practice wants it so those in the own hands; administrators see all.

use sqlx::PgPool;
use uuid::Uuid;

/// In whose hands the households lie that someone sees; nothing where someone sees all.
///
/// # Errors
/// When the database fails.
pub async fn only_of(database: &PgPool, user: Uuid) -> Result<Option<Uuid>, sqlx::Error> {
    sqlx::query_scalar!(
        "select u.id from users u, practice p where u.id = $1 and p.own_sight and u.role <> 'administrator'",
        user
    )
    .fetch_optional(database)
    .await
}

/// Whether someone sees a household; a trial is seen by who sees what it is a trial of.
///
/// # Errors
/// When the database fails.
pub async fn sees(database: &PgPool, user: Uuid, household: Uuid) -> Result<bool, sqlx::Error> {
    sqlx::query_scalar!(
        r#"select not exists (select 1 from users u, practice p
                 where u.id = $1 and p.own_sight and u.role <> 'administrator')
             or exists (select 1 from households h join households o on o.id = coalesce(h.trial_of, h.id)
                 where h.id = $2 and $1 in (o.worked_by, o.reviewer))
             as "sees!""#,
        user,
        household
    )
    .fetch_one(database)
    .await
}
