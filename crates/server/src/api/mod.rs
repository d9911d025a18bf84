//! The API, a module a resource.

pub mod audit;
pub mod certificate;
pub mod checking;
pub mod dates;
pub mod divide;
pub mod edits;
pub mod erasing;
pub mod figures;
pub mod filed;
pub mod files;
pub mod filing;
pub mod filing_view;
pub mod handover;
pub mod health;
pub mod history;
pub mod households;
pub mod letters;
pub mod lists;
pub mod outside;
pub mod own_assessment;
pub mod packs;
pub mod payers;
pub mod people;
pub mod planning;
pub mod practice;
pub mod progress;
pub mod rereckoned;
pub mod second;
pub mod supposed;
pub mod trials;
pub mod views;

use crate::error::{Answer, Problem};
use axum::{
    Json,
    extract::{FromRequest, Request, rejection::JsonRejection},
    http::StatusCode,
};
use hembo_core::Fault;
use serde::de::DeserializeOwned;

/// A JSON body; what cannot be read is answered with a problem document.
pub struct Input<T>(pub T);

impl<S: Send + Sync, T: DeserializeOwned> FromRequest<S> for Input<T> {
    type Rejection = Problem;

    async fn from_request(request: Request, state: &S) -> Answer<Input<T>> {
        match Json::<T>::from_request(request, state).await {
            Ok(Json(value)) => Ok(Input(value)),
            Err(JsonRejection::JsonDataError(error)) => {
                Err(Problem::invalid(vec![Fault::new("body", error.body_text())]))
            }
            Err(error) if error.status() == StatusCode::PAYLOAD_TOO_LARGE => Err(too_large()),
            Err(error) => Err(Problem::unreadable(error.status(), error.body_text())),
        }
    }
}

/// The body is larger than a household file may be.
pub fn too_large() -> Problem {
    let detail = format!("A household file has at most {} bytes.", hembo_core::check::LARGEST_FILE);
    Problem::unreadable(StatusCode::PAYLOAD_TOO_LARGE, detail)
}
