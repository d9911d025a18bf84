//! Households erased for good, by an administrator: only what is put away, only once the law lets go of it, and with a
//! certificate of what was erased.

use super::Input;
use crate::{
    App,
    auth::Administrator,
    error::{Answer, Problem},
    store::erased::{self as store, Erased, Erasing, Stands},
};
use axum::{
    Json,
    extract::{Path, State},
};
use hembo_core::{Fault, household::date};
use serde::{Deserialize, Serialize};
use time::OffsetDateTime;
use utoipa::ToSchema;
use uuid::Uuid;

/// What would be erased, and whether it may be.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct EraseOpened {
    pub name: String,
    pub counts: Erasing,
    /// Why it may not be erased yet.
    pub refused: Option<String>,
}

async fn there(app: &App, id: Uuid) -> Answer<Stands> {
    store::stands(&app.database, id).await?.ok_or_else(|| Problem::not_found("household"))
}

/// Why a household may not be erased: it is at work, or was handed over and the law says keep.
fn refused(app: &App, household: &Stands) -> Option<String> {
    if !household.away {
        return Some("It stands in the list: put it away or delete it first.".into());
    }
    if !household.handed_over {
        return None;
    }
    let Some(pack) = app.registry.pack(&household.country) else {
        return Some("It was handed over, and the rules of its law are not known here.".into());
    };
    let keeping = pack.keeping(household.year);
    match date::parse(&keeping.until) {
        Some(until) if until < OffsetDateTime::now_utc().date() => None,
        Some(until) => {
            Some(format!("It was handed over: the law says keep until {until} ({}).", keeping.cite))
        }
        None => {
            Some(format!("It was handed over, and until when {} says keep is not held here.", keeping.cite))
        }
    }
}

/// Look at what would be erased.
#[utoipa::path(get, path = "/api/households/{id}/erasing", params(("id" = Uuid, Path)),
    responses((status = 200, body = EraseOpened), (status = 403, body = Problem), (status = 404, body = Problem)))]
pub async fn look_at_erasing(
    State(app): State<App>,
    _: Administrator,
    Path(id): Path<Uuid>,
) -> Answer<Json<EraseOpened>> {
    let household = there(&app, id).await?;
    let counts = store::erasing(&app.database, id).await?;
    Ok(Json(EraseOpened { refused: refused(&app, &household), name: household.name, counts }))
}

/// A household to erase.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EraseForGood {
    /// Its name, typed again.
    name: String,
}

/// Erase a household for good; what comes back is all that were erased.
#[utoipa::path(post, path = "/api/households/{id}/erase", params(("id" = Uuid, Path)), request_body = EraseForGood,
    responses((status = 200, body = Vec<Erased>), (status = 403, body = Problem), (status = 404, body = Problem),
        (status = 422, body = Problem)))]
pub async fn erase_household(
    State(app): State<App>,
    Administrator(by): Administrator,
    Path(id): Path<Uuid>,
    Input(wanted): Input<EraseForGood>,
) -> Answer<Json<Vec<Erased>>> {
    let household = there(&app, id).await?;
    if let Some(why) = refused(&app, &household) {
        return Err(Problem::cannot_move(why));
    }
    if wanted.name.trim() != household.name.trim() {
        let why = "Type the name as it stands: what is erased does not come back.";
        return Err(Problem::invalid(vec![Fault::new("name", why)]));
    }
    store::erase(&app.database, id, by).await?;
    tracing::info!(household = %id, user = %by, "erased for good");
    Ok(Json(store::erased(&app.database).await?))
}

/// What was erased.
#[utoipa::path(get, path = "/api/erased", responses((status = 200, body = Vec<Erased>), (status = 403, body = Problem)))]
pub async fn erased_households(State(app): State<App>, _: Administrator) -> Answer<Json<Vec<Erased>>> {
    Ok(Json(store::erased(&app.database).await?))
}
