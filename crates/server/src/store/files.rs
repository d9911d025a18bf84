//! Slips as files, with their pages; all of it sealed.

use crate::seal::key_of_bytes;
use sqlx::PgPool;
use uuid::Uuid;

/// A file to keep.
#[derive(Debug)]
#[allow(missing_docs)]
pub struct NewFile<'a> {
    /// The SHA-256 of its bytes.
    pub id: &'a str,
    pub media: &'a str,
    /// Sealed.
    pub bytes: &'a [u8],
    /// Its pages as pictures, sealed.
    pub pages: &'a [Vec<u8>],
    pub by: Uuid,
}

/// Keeps a file, once.
///
/// # Errors
/// When the database fails.
pub async fn keep(database: &PgPool, file: &NewFile<'_>) -> Result<(), sqlx::Error> {
    let mut transaction = database.begin().await?;
    let new = sqlx::query!(
        "insert into files (id, media, bytes, by_user, sealed_with) values ($1, $2, $3, $4, $5) on conflict do nothing",
        file.id,
        file.media,
        file.bytes,
        file.by,
        key_of_bytes(file.bytes)
    );
    if new.execute(&mut *transaction).await?.rows_affected() == 1 {
        for (page, picture) in (0..).zip(file.pages) {
            sqlx::query!(
                "insert into file_pages (file, page, picture, sealed_with) values ($1, $2, $3, $4)",
                file.id,
                page,
                picture,
                key_of_bytes(picture)
            )
            .execute(&mut *transaction)
            .await?;
        }
    }
    transaction.commit().await
}

/// Which of these files are kept.
///
/// # Errors
/// When the database fails.
pub async fn kept(database: &PgPool, ids: &[String]) -> Result<Vec<String>, sqlx::Error> {
    sqlx::query_scalar!("select id from files where id = any($1)", ids).fetch_all(database).await
}

/// A file's media type and its bytes, sealed.
///
/// # Errors
/// When the database fails.
pub async fn bytes(database: &PgPool, id: &str) -> Result<Option<(String, Vec<u8>)>, sqlx::Error> {
    let found = sqlx::query!("select media, bytes from files where id = $1", id).fetch_optional(database);
    Ok(found.await?.map(|file| (file.media, file.bytes)))
}

/// The picture of a page, sealed.
///
/// # Errors
/// When the database fails.
pub async fn page(database: &PgPool, id: &str, page: i32) -> Result<Option<Vec<u8>>, sqlx::Error> {
    sqlx::query_scalar!("select picture from file_pages where file = $1 and page = $2", id, page)
        .fetch_optional(database)
        .await
}
