//! The audit: who opened, revealed, exported, edited, filed, signed in or was refused.

use crate::{
    App,
    auth::{Administrator, By},
    error::{Answer, Problem},
    layers::About,
    store::audit::{self as store, Row, Wanted},
};
use axum::{
    Json,
    extract::{Query, Request, State},
    http::{Method, header},
    middleware::Next,
    response::{IntoResponse, Response},
};
use hembo_core::household::date;
use hembo_documents::sheets::{self, Cell, Sheet};
use serde::{Deserialize, Serialize};
use time::{Duration, OffsetDateTime, format_description::well_known::Rfc3339};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// How many rows an answer has, and how many a file.
const PAGE: i64 = 100;
const FILE: i64 = 100_000;

/// What is looked for together.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
#[schema(as = AuditKind)]
pub enum Kind {
    /// Signed in, or refused.
    SignIns,
    /// Opened, shown in full, taken out.
    Reading,
    /// Made, edited, moved, deleted.
    Changes,
    /// Fetched and filed.
    Filing,
    /// People, the practice, rule figures, its keys, what was erased.
    Practice,
}

impl Kind {
    fn doings(self) -> Vec<String> {
        let doings: &[&str] = match self {
            Kind::SignIns => &["signed_in", "refused"],
            Kind::Reading => &["opened", "revealed", "exported", "pack_made"],
            Kind::Changes => &[
                "created",
                "imported",
                "copied",
                "carried",
                "divided",
                "tried",
                "followed",
                "edited",
                "undone",
                "redone",
                "brought_back",
                "moved",
                "hands",
                "deleted",
                "restored",
                "archived",
                "unarchived",
            ],
            Kind::Filing => &["fetched", "filed"],
            Kind::Practice => &["person", "practice", "figure", "key", "erased"],
        };
        doings.iter().map(ToString::to_string).collect()
    }
}

/// Which of it.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Which {
    /// Those before this one; the newest where it is left out.
    #[serde(default)]
    before: Option<i64>,
    /// By that person alone.
    #[serde(default)]
    who: Option<Uuid>,
    /// Of that kind alone.
    #[serde(default)]
    #[param(inline)]
    kind: Option<Kind>,
    /// At households with these words in their name or law.
    #[serde(default)]
    household: Option<String>,
    /// From that day on, ISO 8601.
    #[serde(default)]
    from: Option<String>,
    /// Until that day.
    #[serde(default)]
    until: Option<String>,
}

/// Something that was done.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct AuditRow {
    pub id: i64,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
    pub what: String,
    /// Nobody, where it is not known who.
    pub by: Option<String>,
    pub household: Option<Uuid>,
    /// The household's name and year, while it is there.
    pub name: Option<String>,
    pub year: Option<i32>,
    pub detail: String,
}

/// A page of it.
#[derive(Serialize, ToSchema)]
pub struct AuditPage {
    rows: Vec<AuditRow>,
    /// There are more, before the last one.
    more: bool,
    /// The application's user of the database cannot change it either.
    guarded: bool,
}

fn row(row: Row) -> AuditRow {
    let Row { id, at, what, by_name, household, name, year, detail } = row;
    AuditRow { id, at, what, by: by_name, household, name, year, detail }
}

/// A day's beginning.
fn day(text: Option<&str>) -> Answer<Option<OffsetDateTime>> {
    let Some(text) = text.filter(|text| !text.is_empty()) else { return Ok(None) };
    let wrong = || {
        Problem::unreadable(
            axum::http::StatusCode::BAD_REQUEST,
            format!("'{text}' is not a day; a day is written 2025-03-31."),
        )
    };
    date::parse(text).map(|day| Some(day.midnight().assume_utc())).ok_or_else(wrong)
}

async fn found(app: &App, which: &Which, most: i64) -> Answer<Vec<Row>> {
    let what = which.kind.map(Kind::doings);
    let household = which.household.as_deref().map(str::trim).filter(|words| !words.is_empty());
    let household = household.map(str::to_lowercase);
    let wanted = Wanted {
        before: which.before,
        who: which.who,
        what: what.as_deref(),
        household: household.as_deref(),
        from: day(which.from.as_deref())?,
        until: day(which.until.as_deref())?.map(|day| day + Duration::DAY),
        most,
    };
    Ok(store::rows(&app.database, &wanted).await?)
}

/// What was done, the newest first, a hundred at once.
#[utoipa::path(get, path = "/api/audit", params(Which),
    responses((status = 200, body = AuditPage), (status = 400, body = Problem), (status = 403, body = Problem)))]
pub async fn audit(
    State(app): State<App>,
    _: Administrator,
    Query(which): Query<Which>,
) -> Answer<Json<AuditPage>> {
    let mut rows = found(&app, &which, PAGE + 1).await?;
    let more = rows.len() > usize::try_from(PAGE).unwrap_or(usize::MAX);
    if more {
        rows.pop();
    }
    let guarded = store::is_guarded(&app.database).await?;
    Ok(Json(AuditPage { rows: rows.into_iter().map(row).collect(), more, guarded }))
}

/// The same as CSV, all of it up to a hundred thousand rows.
#[utoipa::path(get, path = "/api/audit/file", params(Which),
    responses((status = 200, content_type = "text/csv"), (status = 403, body = Problem)))]
pub async fn audit_file(
    State(app): State<App>,
    _: Administrator,
    Query(which): Query<Which>,
) -> Answer<impl IntoResponse> {
    let rows = found(&app, &which, FILE).await?;
    let text = |text: Option<String>| text.map_or(Cell::Empty, Cell::Text);
    let cells = |row: Row| {
        let at = row.at.format(&Rfc3339).unwrap_or_default();
        let household = row.household.map(|id| id.to_string());
        let year = row.year.map(|year| year.to_string());
        let cells = [Some(at), row.by_name, Some(row.what), row.name, year, household, Some(row.detail)];
        cells.map(text).into()
    };
    let head = ["At", "Who", "What", "Household", "Year", "Its id", "Detail"].map(String::from).into();
    let sheet = Sheet { name: "Audit", head, rows: rows.into_iter().map(cells).collect() };
    let file = sheets::csv(&sheet).map_err(Problem::internal)?;
    let headers = [
        (header::CONTENT_TYPE, "text/csv; charset=utf-8"),
        (header::CONTENT_DISPOSITION, "attachment; filename=\"audit.csv\""),
    ];
    Ok((headers, file))
}

/// Notes that someone looked at a household, by whichever route, or took a file of it out.
///
/// # Errors
/// When it cannot be noted: then nothing is shown either.
pub async fn noted(
    State(app): State<App>,
    By(user): By,
    About(about): About,
    request: Request,
    next: Next,
) -> Answer<Response> {
    let Some((household, tail)) = about else { return Ok(next.run(request).await) };
    let looks = matches!(*request.method(), Method::GET | Method::HEAD);
    let response = next.run(request).await;
    if !response.status().is_success() {
        return Ok(response);
    }
    if looks {
        store::opened(&app.database, user, household).await?;
    }
    let disposition = response.headers().get(header::CONTENT_DISPOSITION);
    if disposition.is_some_and(|kind| kind.as_bytes().starts_with(b"attachment")) {
        let detail = tail.trim_start_matches('/');
        store::note(&app.database, "exported", Some(user), Some(household), detail).await?;
    }
    Ok(response)
}
