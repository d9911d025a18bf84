//! A household divided in two, one for each filer.

use super::{Input, households::add, trials};
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::{
        divided as store,
        households::{Mark, mark_in},
    },
    work,
};
use axum::{
    Json,
    extract::{Path, State},
    http::StatusCode,
};
use hembo_core::{
    Fault,
    divide::{Divided, Went, divide},
};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A household by its name.
#[derive(Serialize, ToSchema)]
#[schema(as = NamedHousehold)]
#[allow(missing_docs)]
pub struct Named {
    pub id: Uuid,
    pub name: String,
}

/// How a household would be divided, and whether it was.
#[derive(Serialize, ToSchema)]
pub struct Dividing {
    /// The revision that is looked at.
    revision: i64,
    /// The one that it was divided from.
    from: Option<Named>,
    /// The ones into which it was divided.
    into: Vec<Named>,
    /// What the two would be called.
    names: Vec<String>,
    /// What would go where.
    went: Vec<Went>,
    /// Why it cannot be divided.
    refused: Option<String>,
}

/// How a household would be divided, and whether it was.
#[utoipa::path(get, path = "/api/households/{id}/divide", params(("id" = Uuid, Path)),
    responses((status = 200, body = Dividing), (status = 404, body = Problem)))]
pub async fn dividing(State(app): State<App>, _: By, Path(id): Path<Uuid>) -> Answer<Json<Dividing>> {
    let (revision, before, divided) = looked(&app, id).await?;
    let named = |(id, name)| Named { id, name };
    let from = before.from.zip(before.from_name.clone()).map(named);
    let into = before.into.into_iter().zip(before.into_names).map(named).collect();
    let (names, went, refused) = match divided {
        Ok(Divided { halves, went }) => (halves.map(|half| half.name).into(), went, None),
        Err(why) => (Vec::new(), Vec::new(), Some(why)),
    };
    Ok(Json(Dividing { revision, from, into, names, went, refused }))
}

/// The newest revision divided, or why it is not, and what was divided before.
async fn looked(app: &App, id: Uuid) -> Answer<(i64, store::Divided, Result<Divided, String>)> {
    let (revision, household) = work::load(app, id).await?;
    let before = store::of(&app.database, id).await?.ok_or_else(|| Problem::not_found("household"))?;
    let divided = if before.from.is_some() {
        Err("It is itself one of two into which a household was divided: that is not divided again.".into())
    } else {
        divide(&household, work::pack(app, &household)?).map_err(|why| why.to_string())
    };
    Ok((revision.revision, before, divided))
}

/// How to divide.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Divide {
    /// The revision that was seen.
    base_revision: i64,
    /// Whether the two take the place of those that were made before, which are deleted and can be brought back.
    #[serde(default)]
    replace: bool,
}

/// Divide a household in two; it stays as it is.
#[utoipa::path(post, path = "/api/households/{id}/divide", params(("id" = Uuid, Path)), request_body = Divide,
    responses((status = 201, body = Vec<Named>), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn divide_household(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<Divide>,
) -> Answer<(StatusCode, Json<Vec<Named>>)> {
    trials::refuse(&app, id, "Not divided").await?;
    let (revision, before, divided) = looked(&app, id).await?;
    if revision != wanted.base_revision {
        return Err(Problem::moved(format!("Revision {revision} came meanwhile. Look at it again.")));
    }
    let Divided { halves, .. } = divided.map_err(|why| Problem::invalid(vec![Fault::new("/people", why)]))?;
    let [one, other] = halves;
    let worked = [work::out(&app, one).await?, work::out(&app, other).await?];
    let mut transaction = app.database.begin().await?;
    let mut made = Vec::new();
    for half in &worked {
        let new = add(&app, &mut transaction, half, "divided", by, None).await?;
        store::note(&mut transaction, new, id).await?;
        made.push(Named { id: new, name: half.household.name.clone() });
    }
    for earlier in before.into.into_iter().filter(|_| wanted.replace) {
        mark_in(&mut transaction, earlier, Mark::Deleted, by).await?;
    }
    transaction.commit().await?;
    Ok((StatusCode::CREATED, Json(made)))
}
