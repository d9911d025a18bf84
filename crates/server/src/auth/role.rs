//! What someone of a practice may do, by type: handlers ask for a role by the extractor that they take, and the router
//! that a route stands in says the same of all of its routes.

use super::Member;
use crate::{
    App,
    error::{Answer, Problem},
};
use axum::{extract::FromRequestParts, http::request::Parts};
use serde::{Deserialize, Serialize};
use std::{fmt, str::FromStr};
use utoipa::ToSchema;
use uuid::Uuid;

/// What someone of the practice is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, sqlx::Type, ToSchema)]
#[serde(rename_all = "snake_case")]
#[sqlx(type_name = "text", rename_all = "snake_case")]
#[schema(as = PracticeRole)]
pub enum Role {
    /// Prepares returns.
    Preparer,
    /// Reviews what others prepared, too.
    Reviewer,
    /// Keeps the practice, too: its people, its figures, how it works.
    Administrator,
}

impl Role {
    /// All of them.
    pub const ALL: [Role; 3] = [Role::Preparer, Role::Reviewer, Role::Administrator];

    /// Whether what others prepared may be reviewed.
    pub fn reviews(self) -> bool {
        self != Role::Preparer
    }
}

impl fmt::Display for Role {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(match self {
            Role::Preparer => "preparer",
            Role::Reviewer => "reviewer",
            Role::Administrator => "administrator",
        })
    }
}

impl FromStr for Role {
    type Err = String;

    fn from_str(word: &str) -> Result<Role, String> {
        let known = Role::ALL.into_iter().find(|role| role.to_string() == word);
        known.ok_or_else(|| {
            format!("'{word}' is no role; known: {}.", Role::ALL.map(|r| r.to_string()).join(", "))
        })
    }
}

/// An administrator signed in, for handlers that need one.
#[derive(Debug, Clone, Copy)]
pub struct Administrator(pub Uuid);

impl FromRequestParts<App> for Administrator {
    type Rejection = Problem;

    async fn from_request_parts(parts: &mut Parts, app: &App) -> Answer<Administrator> {
        let Member(user) = Member::from_request_parts(parts, app).await?;
        match user.role {
            Role::Administrator => Ok(Administrator(user.id)),
            Role::Preparer | Role::Reviewer => Err(Problem::not_allowed("an administrator")),
        }
    }
}
