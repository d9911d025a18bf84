//! The second factor of who signs in.

use sqlx::PgPool;
use uuid::Uuid;

/// How someone's second factor stands.
#[derive(Debug)]
pub struct Second {
    /// Sealed.
    pub secret: String,
    /// It is asked for at the sign-in.
    pub asked: bool,
    /// So many codes are left for who lost the device.
    pub recovery: i64,
}

/// How someone's second factor stands; nothing where there is none.
///
/// # Errors
/// When the database fails.
pub async fn of(database: &PgPool, user: Uuid) -> Result<Option<Second>, sqlx::Error> {
    sqlx::query_as!(
        Second,
        r#"select second_secret as "secret!", second_since is not null as "asked!",
             (select count(*) from recovery_codes r where r.user_id = users.id) as "recovery!"
         from users where id = $1 and second_secret is not null"#,
        user
    )
    .fetch_optional(database)
    .await
}

/// Keeps a secret, sealed with a key, that is not asked for yet. Whether it was kept: not where one is asked for.
///
/// # Errors
/// When the database fails.
pub async fn begin(database: &PgPool, user: Uuid, sealed: &str, with: &str) -> Result<bool, sqlx::Error> {
    let done = sqlx::query!(
        "update users set second_secret = $2, second_sealed_with = $3, second_step = 0
         where id = $1 and second_since is null",
        user,
        sealed,
        with
    );
    Ok(done.execute(database).await?.rows_affected() == 1)
}

/// Uses a step of the clock up. Whether it was still unused.
///
/// # Errors
/// When the database fails.
pub async fn use_step(database: &PgPool, user: Uuid, step: i64) -> Result<bool, sqlx::Error> {
    let used =
        sqlx::query!("update users set second_step = $2 where id = $1 and second_step < $2", user, step);
    Ok(used.execute(database).await?.rows_affected() == 1)
}

/// Uses a recovery code up. Whether there was one.
///
/// # Errors
/// When the database fails.
pub async fn use_recovery(database: &PgPool, user: Uuid, hash: &str) -> Result<bool, sqlx::Error> {
    let used = sqlx::query!("delete from recovery_codes where user_id = $1 and hash = $2", user, hash);
    Ok(used.execute(database).await?.rows_affected() == 1)
}

/// Asks for the second factor from now on, with these recovery codes; every other session ends.
///
/// # Errors
/// When the database fails.
pub async fn ask(database: &PgPool, user: Uuid, hashes: &[String], but: &str) -> Result<(), sqlx::Error> {
    let mut transaction = database.begin().await?;
    sqlx::query!("update users set second_since = now() where id = $1", user)
        .execute(&mut *transaction)
        .await?;
    sqlx::query!("delete from recovery_codes where user_id = $1", user).execute(&mut *transaction).await?;
    sqlx::query!("insert into recovery_codes (hash, user_id) select unnest($1::text[]), $2", hashes, user)
        .execute(&mut *transaction)
        .await?;
    sqlx::query!("delete from sessions where user_id = $1 and id <> $2", user, but)
        .execute(&mut *transaction)
        .await?;
    transaction.commit().await
}

/// Asks for no second factor any more.
///
/// # Errors
/// When the database fails.
pub async fn end(database: &PgPool, user: Uuid) -> Result<(), sqlx::Error> {
    let mut transaction = database.begin().await?;
    sqlx::query!("delete from recovery_codes where user_id = $1", user).execute(&mut *transaction).await?;
    sqlx::query!(
        "update users set second_secret = null, second_sealed_with = null, second_since = null where id = $1",
        user
    )
    .execute(&mut *transaction)
    .await?;
    transaction.commit().await
}
