//! The front end's files as they were built: packed already, kept by browsers for as long as their names last, and what is
//! none of them the page itself, so that every address of a view opens it.

use crate::{App, error::Problem};
use axum::{
    Router,
    extract::Request,
    http::{HeaderValue, header},
    middleware::{self, Next},
    response::Response,
    routing::get,
};
use std::path::Path;
use tower_http::services::{ServeDir, ServeFile};

/// The folder of what is named by its content.
const ASSETS: &str = "/assets";
/// A year: under that name it never changes.
const FOR_GOOD: HeaderValue = HeaderValue::from_static("public, max-age=31536000, immutable");

/// The files of a folder.
pub fn files(folder: &Path) -> Router<App> {
    let packed = |at: &Path| ServeDir::new(at).precompressed_br().precompressed_gzip();
    let page = ServeFile::new(folder.join("index.html")).precompressed_br().precompressed_gzip();
    let none = get(async || Problem::not_found("file"));
    let assets = Router::new()
        .nest_service(ASSETS, packed(&folder.join(&ASSETS[1..])).fallback(none))
        .layer(middleware::from_fn(kept_for_good));
    Router::new().merge(assets).fallback_service(packed(folder).fallback(page))
}

async fn kept_for_good(request: Request, next: Next) -> Response {
    let mut response = next.run(request).await;
    if response.status().is_success() || response.status() == axum::http::StatusCode::NOT_MODIFIED {
        response.headers_mut().insert(header::CACHE_CONTROL, FOR_GOOD);
    }
    response
}
