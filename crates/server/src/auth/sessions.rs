//! Sessions in the database.

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

fn backend(error: sqlx::Error) -> Error {
    Error::Backend(error.to_string())
}

impl Sessions {
    async fn put(&self, record: &Record) -> Result<()> {
        let (id, json) = (record.id.to_string(), serde_json::to_value(record).map_err(|e| Error::Encode(e.to_string()))?);
        sqlx::query!(
            "insert into sessions (id, record, expires_at) values ($1, $2, $3)
             on conflict (id) do update set record = excluded.record, expires_at = excluded.expires_at",
            id,
            json,
            record.expiry_date
        )
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
        sqlx::query!("delete from sessions where expires_at < $1", OffsetDateTime::now_utc()).execute(&self.0).await?;
        Ok(())
    }
}

#[async_trait::async_trait]
impl SessionStore for Sessions {
    async fn save(&self, record: &Record) -> Result<()> {
        self.put(record).await
    }

    async fn load(&self, id: &Id) -> Result<Option<Record>> {
        let found = sqlx::query_scalar!(
            "select record from sessions where id = $1 and expires_at > $2",
            id.to_string(),
            OffsetDateTime::now_utc()
        )
        .fetch_optional(&self.0)
        .await
        .map_err(backend)?;
        found.map(serde_json::from_value).transpose().map_err(|e| Error::Decode(e.to_string()))
    }

    async fn delete(&self, id: &Id) -> Result<()> {
        sqlx::query!("delete from sessions where id = $1", id.to_string()).execute(&self.0).await.map_err(backend)?;
        Ok(())
    }
}
