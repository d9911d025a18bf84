//! Errors as problem documents (RFC 9457), each with the place of the fault where there is one.

use crate::{auth::sessions::BUSY, outside::Trouble};
use axum::{
    Json,
    http::{StatusCode, header},
    response::{AppendHeaders, IntoResponse, Response},
};
use hembo_core::{Fault, command::Conflict};
use serde::Serialize;
use std::time::Duration;
use utoipa::ToSchema;

/// What a handler answers with, if all goes well or not.
pub type Answer<T> = Result<T, Problem>;

/// A problem document.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct Problem {
    /// What kind of problem: a name that does not change.
    #[serde(rename = "type")]
    pub kind: &'static str,
    /// The kind in words.
    pub title: &'static str,
    /// The HTTP status.
    pub status: u16,
    /// What happened here, and what to do.
    pub detail: String,
    /// The places at fault.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub faults: Vec<Fault>,
    /// For a stale revision: the newest one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub revision: Option<i64>,
    /// For a stale revision: what was changed since, newest last.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub changed: Vec<String>,
    /// For a stale edit: what it touches that was set to something else meanwhile.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub conflicts: Vec<Conflict>,
    /// After how many seconds to try again, as the header says, too.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub retry_after: Option<u64>,
}

impl Problem {
    fn new(
        status: StatusCode,
        kind: &'static str,
        title: &'static str,
        detail: impl Into<String>,
    ) -> Problem {
        Problem {
            kind,
            title,
            status: status.as_u16(),
            detail: detail.into(),
            faults: Vec::new(),
            revision: None,
            changed: Vec::new(),
            conflicts: Vec::new(),
            retry_after: None,
        }
    }

    /// The input cannot be right; nothing was changed.
    pub fn invalid(faults: Vec<Fault>) -> Problem {
        let detail = faults.iter().map(|f| f.message.as_str()).collect::<Vec<_>>().join(" ");
        Problem {
            faults,
            ..Problem::new(StatusCode::UNPROCESSABLE_ENTITY, "urn:hembo:invalid", "Cannot be right", detail)
        }
    }

    /// Someone else was faster; nothing was changed.
    pub fn stale(revision: i64, changed: Vec<String>) -> Problem {
        let detail = "This household was changed meanwhile. Look at what changed and try again.";
        let problem = Problem::new(StatusCode::CONFLICT, "urn:hembo:stale", "Changed meanwhile", detail);
        Problem { revision: Some(revision), changed, ..problem }
    }

    /// Someone else set the same thing to something else; nothing was changed, and both values are told.
    pub fn conflict(revision: i64, changed: Vec<String>, conflicts: Vec<Conflict>) -> Problem {
        let detail = "The same thing was changed meanwhile. Choose which of the two stands.";
        let problem = Problem::new(StatusCode::CONFLICT, "urn:hembo:conflict", "Changed meanwhile", detail);
        Problem { revision: Some(revision), changed, conflicts, ..problem }
    }

    /// The database has no connection free, or does not answer.
    pub fn busy() -> Problem {
        let detail = "The server is too busy just now. Nothing was changed; try again in a moment.";
        Problem::new(StatusCode::SERVICE_UNAVAILABLE, "urn:hembo:busy", "Busy", detail)
    }

    /// There is no such thing.
    pub fn not_found(what: &str) -> Problem {
        let detail = format!("There is no such {what}, or it was deleted.");
        Problem::new(StatusCode::NOT_FOUND, "urn:hembo:not-found", "Not found", detail)
    }

    /// Not signed in.
    pub fn signed_out() -> Problem {
        Problem::new(
            StatusCode::UNAUTHORIZED,
            "urn:hembo:signed-out",
            "Not signed in",
            "Sign in and try again.",
        )
    }

    /// Wrong name or password.
    pub fn refused() -> Problem {
        let detail = "This name and password do not go together.";
        Problem::new(StatusCode::UNAUTHORIZED, "urn:hembo:refused", "Sign-in refused", detail)
    }

    /// Name and password go together, and a second factor is asked for.
    pub fn second_factor(why: &str) -> Problem {
        Problem::new(StatusCode::UNAUTHORIZED, "urn:hembo:second-factor", "Second factor", why)
    }

    /// A request that another site may have made.
    pub fn forged() -> Problem {
        let detail = "The request did not carry this session's token. Reload the page.";
        Problem::new(StatusCode::FORBIDDEN, "urn:hembo:forged", "Request not accepted", detail)
    }

    /// Who is signed in may not do this.
    pub fn not_allowed(who: &str) -> Problem {
        let detail = format!("Only {who} may do this.");
        Problem::new(StatusCode::FORBIDDEN, "urn:hembo:not-allowed", "Not allowed", detail)
    }

    /// A return that cannot be moved on by who asks, or as it stands.
    pub fn cannot_move(why: String) -> Problem {
        Problem::new(StatusCode::FORBIDDEN, "urn:hembo:cannot-move", "Cannot be moved", why)
    }

    /// A figure that cannot stand where it shall.
    pub fn not_fitting(why: String) -> Problem {
        Problem::invalid(vec![Fault::new("value", why)])
    }

    /// What was looked at is another by now; nothing was changed.
    pub fn moved(detail: String) -> Problem {
        Problem::new(StatusCode::CONFLICT, "urn:hembo:moved", "Changed meanwhile", detail)
    }

    /// The authority's service says no, or cannot be asked as things stand.
    pub fn outside(why: impl Into<String>) -> Problem {
        Problem::new(StatusCode::CONFLICT, "urn:hembo:outside", "Not done by the authority", why)
    }

    /// Nothing to undo or redo.
    pub fn nothing_to(what: &str) -> Problem {
        let detail = format!("There is nothing to {what}.");
        Problem::new(StatusCode::CONFLICT, "urn:hembo:nothing", "Nothing to do", detail)
    }

    /// A body that is no JSON of the expected shape, or too large.
    pub fn unreadable(status: StatusCode, detail: impl Into<String>) -> Problem {
        Problem::new(status, "urn:hembo:unreadable", "Cannot be read", detail)
    }

    /// Too many tries; the next one after so long.
    pub fn too_many(wait: Duration) -> Problem {
        let seconds = wait.as_secs().max(1);
        let told = if seconds < 90 {
            format!("{seconds} seconds")
        } else {
            format!("{} minutes", seconds.div_ceil(60))
        };
        let detail = format!("Too many tries. Try again in {told}.");
        let problem =
            Problem::new(StatusCode::TOO_MANY_REQUESTS, "urn:hembo:too-many", "Too many tries", detail);
        Problem { retry_after: Some(seconds), ..problem }
    }

    /// Something that must not happen; the cause is in the log, not in the answer.
    pub fn internal(cause: impl std::fmt::Display) -> Problem {
        tracing::error!(%cause, "request failed");
        let detail = "Something went wrong on the server. Nothing was changed; try again.";
        Problem::new(StatusCode::INTERNAL_SERVER_ERROR, "urn:hembo:internal", "Server error", detail)
    }
}

impl IntoResponse for Problem {
    fn into_response(self) -> Response {
        let status = StatusCode::from_u16(self.status).unwrap_or(StatusCode::INTERNAL_SERVER_ERROR);
        let wait =
            self.retry_after.map(|seconds| AppendHeaders([(header::RETRY_AFTER, seconds.to_string())]));
        (status, [(header::CONTENT_TYPE, "application/problem+json")], wait, Json(self)).into_response()
    }
}

impl From<sqlx::Error> for Problem {
    fn from(error: sqlx::Error) -> Problem {
        match error {
            sqlx::Error::PoolTimedOut | sqlx::Error::PoolClosed | sqlx::Error::Io(_) => {
                tracing::warn!(%error, "the database gives no connection");
                Problem::busy()
            }
            _ => Problem::internal(error),
        }
    }
}

impl From<Trouble> for Problem {
    fn from(trouble: Trouble) -> Problem {
        tracing::warn!(%trouble, "asking outside failed");
        match trouble {
            Trouble::Refused(why) => Problem::outside(why),
            trouble => {
                let (status, kind) = (StatusCode::BAD_GATEWAY, "urn:hembo:outside-trouble");
                Problem::new(status, kind, "No answer from the authority", trouble.to_string())
            }
        }
    }
}

impl From<tower_sessions::session::Error> for Problem {
    fn from(error: tower_sessions::session::Error) -> Problem {
        if error.to_string().contains(BUSY) { Problem::busy() } else { Problem::internal(error) }
    }
}

impl From<tokio::task::JoinError> for Problem {
    fn from(error: tokio::task::JoinError) -> Problem {
        Problem::internal(error)
    }
}
