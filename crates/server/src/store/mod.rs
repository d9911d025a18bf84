//! What stands in PostgreSQL.

pub mod audit;
pub mod backup;
pub mod checking;
pub mod divided;
pub mod erased;
pub mod figures;
pub mod files;
pub mod filings;
pub mod history;
pub mod households;
pub mod keys;
pub mod letters;
pub mod outside;
pub mod packs;
pub mod payers;
pub mod practice;
pub mod progress;
pub mod rereckoned;
pub mod second;
pub mod sight;
pub mod trials;
pub mod tries;
pub mod users;

use sqlx::{PgPool, postgres::PgPoolOptions};
use std::time::Duration;

/// How long a request waits for a connection before it is told that the server is busy.
const LONGEST_WAIT: Duration = Duration::from_secs(3);

static MIGRATIONS: sqlx::migrate::Migrator = sqlx::migrate!();

/// Connects and brings the tables up to date.
///
/// # Errors
/// When the database cannot be reached or a migration fails.
pub async fn connect(url: &str) -> Result<PgPool, sqlx::Error> {
    let options = PgPoolOptions::new().max_connections(20).acquire_timeout(LONGEST_WAIT);
    let pool = options.connect(url).await?;
    MIGRATIONS.run(&pool).await?;
    Ok(pool)
}
