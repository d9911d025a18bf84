//! What stands in PostgreSQL.

pub mod households;
pub mod users;

use sqlx::{PgPool, postgres::PgPoolOptions};

static MIGRATIONS: sqlx::migrate::Migrator = sqlx::migrate!();

/// Connects and brings the tables up to date.
///
/// # Errors
/// When the database cannot be reached or a migration fails.
pub async fn connect(url: &str) -> Result<PgPool, sqlx::Error> {
    let pool = PgPoolOptions::new().max_connections(20).connect(url).await?;
    MIGRATIONS.run(&pool).await?;
    Ok(pool)
}
