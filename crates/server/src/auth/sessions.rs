//! Sessions in the database, by the hash of their id: what a dump holds signs nobody in.
//!
//! The database says when a session ends: some hours after it was used last, at the latest some days after it began, and at once where its
//! person may no longer sign in. The cookie ends with the browser.

use super::USER;
use serde_json::Value;
use sha2::{Digest, Sha256};
use sqlx::PgPool;
use time::{Duration, OffsetDateTime};
use tower_sessions::{
    SessionStore,
    session::{Id, Record},
    session_store::{Error, Result},
};

/// Sessions in the table `sessions`.
#[derive(Debug, Clone)]
pub struct Sessions(pub PgPool);

/// So long a session may lie unused.
const UNUSED: Duration = Duration::hours(12);
/// So long it lasts at most.
const LONGEST: Duration = Duration::days(7);
/// Its end is moved no more often than this.
const MOVED: Duration = Duration::minutes(5);

/// How the store says that the database gives no connection: its errors are words only.
pub const BUSY: &str = "no connection to the database";

fn backend(error: sqlx::Error) -> Error {
    match error {
        sqlx::Error::PoolTimedOut | sqlx::Error::PoolClosed | sqlx::Error::Io(_) => {
            Error::Backend(BUSY.into())
        }
        _ => Error::Backend(error.to_string()),
    }
}

fn data_of(record: &Record) -> Result<Value> {
    serde_json::to_value(&record.data).map_err(|e| Error::Encode(e.to_string()))
}

/// What stands in the database for an id.
pub fn hashed(id: &Id) -> String {
    digest(&id.to_string())
}

/// What stands in the database for something that signs in: its SHA-256 in hexadecimal digits.
pub fn digest(secret: &str) -> String {
    Sha256::digest(secret).iter().map(|byte| format!("{byte:02x}")).collect()
}

/// When a session that is used now and began then ends.
fn end(began: OffsetDateTime) -> OffsetDateTime {
    (OffsetDateTime::now_utc() + UNUSED).min(began + LONGEST)
}

impl Sessions {
    /// A session that is used ends later.
    async fn move_end(&self, id: &Id, until: OffsetDateTime) -> Result<()> {
        sqlx::query!("update sessions set expires_at = $2 where id = $1", hashed(id), until)
            .execute(&self.0)
            .await
            .map_err(backend)?;
        Ok(())
    }

    /// Removes sessions that have run out.
    ///
    /// # Errors
    /// When the database cannot be reached.
    pub async fn sweep(&self) -> std::result::Result<(), sqlx::Error> {
        sqlx::query!("delete from sessions where expires_at < $1", OffsetDateTime::now_utc())
            .execute(&self.0)
            .await?;
        Ok(())
    }
}

#[async_trait::async_trait]
impl SessionStore for Sessions {
    async fn create(&self, record: &mut Record) -> Result<()> {
        let data = data_of(record)?;
        loop {
            let added = sqlx::query!(
                "insert into sessions (id, data, expires_at, user_id) values ($1, $2, $3, ($2::jsonb ->> $4::text)::uuid)
                 on conflict do nothing",
                hashed(&record.id),
                data,
                end(OffsetDateTime::now_utc()),
                USER
            )
            .execute(&self.0)
            .await
            .map_err(backend)?;
            if added.rows_affected() == 1 {
                return Ok(());
            }
            record.id = Id::default();
        }
    }

    async fn save(&self, record: &Record) -> Result<()> {
        let data = data_of(record)?;
        sqlx::query!(
            "update sessions set data = $2, user_id = ($2::jsonb ->> $3::text)::uuid where id = $1",
            hashed(&record.id),
            data,
            USER
        )
        .execute(&self.0)
        .await
        .map_err(backend)?;
        Ok(())
    }

    async fn load(&self, id: &Id) -> Result<Option<Record>> {
        let found = sqlx::query!(
            "select s.data, s.expires_at, s.began_at from sessions s left join users u on u.id = s.user_id
             where s.id = $1 and s.expires_at > $2 and u.disabled_at is null",
            hashed(id),
            OffsetDateTime::now_utc()
        )
        .fetch_optional(&self.0)
        .await
        .map_err(backend)?;
        let record = |data: Value, expiry_date| {
            let data = serde_json::from_value(data).map_err(|e| Error::Decode(e.to_string()))?;
            Ok(Record { id: *id, data, expiry_date })
        };
        let Some(row) = found else { return Ok(None) };
        let until = end(row.began_at);
        if until - row.expires_at > MOVED {
            self.move_end(id, until).await?;
        }
        record(row.data, until).map(Some)
    }

    async fn delete(&self, id: &Id) -> Result<()> {
        sqlx::query!("delete from sessions where id = $1", hashed(id))
            .execute(&self.0)
            .await
            .map_err(backend)?;
        Ok(())
    }
}
