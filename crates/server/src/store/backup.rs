//! What a backup is of: one moment of the database, and how much stands in it then.

use serde::{Deserialize, Serialize};
use sqlx::{PgConnection, PgPool, Postgres, Transaction};
use std::fmt;

/// How much stands in a database.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
#[allow(missing_docs)]
pub struct Counts {
    pub people: i64,
    pub households: i64,
    pub revisions: i64,
    pub files: i64,
}

impl fmt::Display for Counts {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let Counts { people, households, revisions, files } = self;
        write!(f, "households {households}, revisions {revisions}, files {files}, people {people}")
    }
}

/// A moment that stays as it was while others write on.
pub struct Moment {
    held: Transaction<'static, Postgres>,
    /// The name by which other programs see the same moment.
    pub snapshot: String,
}

impl Moment {
    /// Holds this moment.
    ///
    /// # Errors
    /// When the database fails.
    pub async fn hold(database: &PgPool) -> Result<Moment, sqlx::Error> {
        let mut held = database.begin_with("begin isolation level repeatable read read only").await?;
        let exported = sqlx::query_scalar!(r#"select pg_export_snapshot() as "name!""#);
        let snapshot = exported.fetch_one(&mut *held).await?;
        Ok(Moment { held, snapshot })
    }

    /// How much stands in the database then, and the last change that its tables had.
    ///
    /// # Errors
    /// When the database fails, or is none of this application.
    pub async fn told(&mut self) -> Result<(Counts, i64), sqlx::Error> {
        let at: &mut PgConnection = &mut self.held;
        let schema = sqlx::query_scalar(r"select coalesce(max(version), 0) from _sqlx_migrations");
        let schema: i64 = schema.fetch_one(&mut *at).await?;
        let counts = sqlx::query_as!(
            Counts,
            r#"select (select count(*) from users) as "people!", (select count(*) from households) as "households!",
                 (select count(*) from revisions) as "revisions!", (select count(*) from files) as "files!""#
        );
        Ok((counts.fetch_one(at).await?, schema))
    }
}

/// Whether nothing stands in a database.
///
/// # Errors
/// When the database fails.
pub async fn is_empty(database: &PgPool) -> Result<bool, sqlx::Error> {
    let any =
        "select not exists (select 1 from information_schema.tables where table_schema = current_schema())";
    sqlx::query_scalar(any).fetch_one(database).await
}
