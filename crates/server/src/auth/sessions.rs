//! Sessions in the database.

use serde_json::Value;
use sqlx::PgPool;
use time::OffsetDateTime;
use tower_sessions::{
    SessionStore,
    session::{Id, Record},
    session_store::{Error, Result},
};

/// Sessions in the table `sessions`.
#[derive(Debug, Clone)]
pub struct Sessions(pub PgPool);

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

impl Sessions {
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
                "insert into sessions (id, data, expires_at) values ($1, $2, $3) on conflict do nothing",
                record.id.to_string(),
                data,
                record.expiry_date
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
        let (id, data) = (record.id.to_string(), data_of(record)?);
        sqlx::query!(
            "update sessions set data = $2, expires_at = $3 where id = $1",
            id,
            data,
            record.expiry_date
        )
        .execute(&self.0)
        .await
        .map_err(backend)?;
        Ok(())
    }

    async fn load(&self, id: &Id) -> Result<Option<Record>> {
        let found = sqlx::query!(
            "select data, expires_at from sessions where id = $1 and expires_at > $2",
            id.to_string(),
            OffsetDateTime::now_utc()
        )
        .fetch_optional(&self.0)
        .await
        .map_err(backend)?;
        let record = |data: Value, expiry_date| {
            let data = serde_json::from_value(data).map_err(|e| Error::Decode(e.to_string()))?;
            Ok(Record { id: *id, data, expiry_date })
        };
        found.map(|row| record(row.data, row.expires_at)).transpose()
    }

    async fn delete(&self, id: &Id) -> Result<()> {
        sqlx::query!("delete from sessions where id = $1", id.to_string())
            .execute(&self.0)
            .await
            .map_err(backend)?;
        Ok(())
    }
}
