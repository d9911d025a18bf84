//! Payers that the practice knows: found by name or number, corrected in one place and never silently.

use super::Input;
use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::payers::{self as store, Known, Using},
};
use axum::{
    Json,
    extract::{Path, Query, State},
};
use hembo_core::{Fault, Pack, check, payer};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// How many payers an answer has.
const MOST: i64 = 50;
const LONGEST_NUMBER: usize = 40;

/// Which payers to look for.
#[derive(Deserialize, IntoParams)]
pub struct Sought {
    /// The law.
    country: String,
    /// The first letters of a name or of a word in it, or of a number.
    #[serde(default)]
    text: String,
}

/// Known payers by first letters or number.
#[utoipa::path(get, path = "/api/payers", params(Sought), responses((status = 200, body = Vec<Known>)))]
pub async fn payers(State(app): State<App>, _: By, Query(sought): Query<Sought>) -> Answer<Json<Vec<Known>>> {
    let text: String =
        sought.text.trim().chars().filter(|c| !c.is_control()).take(check::LONGEST_NAME).collect();
    Ok(Json(store::find(&app.database, &sought.country, &text, MOST).await?))
}

/// A payer as it should be.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CorrectPayer {
    /// The law.
    country: String,
    /// Its name.
    name: String,
    /// Its number; may be empty.
    #[serde(default)]
    number: String,
}

/// What a payer was, and where it stands under that name.
#[derive(Serialize, ToSchema)]
pub struct Corrected {
    /// As it was.
    was: Known,
    /// The households whose papers have it so: they stay as they are until somebody changes them.
    uses: Vec<Use>,
}

/// A household in which a payer stands.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Use {
    pub household: Uuid,
    pub name: String,
    pub year: i32,
    pub revision: i64,
    pub papers: Vec<UsedOn>,
}

/// A paper on which a payer stands.
#[derive(Serialize, ToSchema)]
pub struct UsedOn {
    /// The paper.
    paper: String,
    /// The box that has the payer's number.
    number_box: Option<String>,
}

/// Correct a payer; the answer says which households have it as it was.
#[utoipa::path(put, path = "/api/payers/{payer}", params(("payer" = Uuid, Path)), request_body = CorrectPayer,
    responses((status = 200, body = Corrected), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
pub async fn correct_payer(
    State(app): State<App>,
    By(by): By,
    Path(id): Path<Uuid>,
    Input(wanted): Input<CorrectPayer>,
) -> Answer<Json<Corrected>> {
    let CorrectPayer { country, name, number } = wanted;
    let name = sensible("name", &name, 1, check::LONGEST_NAME)?;
    let number = sensible("number", &number, 0, LONGEST_NUMBER)?;
    let pack = app.registry.pack(&country).ok_or_else(|| Problem::not_found("country"))?;
    if payer::could_be_own(number, pack) {
        let message = "This could be a person's own number: it is kept with their papers only.";
        return Err(Problem::invalid(vec![Fault::new("number", message)]));
    }
    let was = store::correct(&app.database, &country, id, name, number, by).await;
    let was = was.map_err(|error| match &error {
        sqlx::Error::Database(why) if why.is_unique_violation() => {
            Problem::moved("Another payer has that name and number already.".into())
        }
        _ => Problem::from(error),
    })?;
    let was = was.ok_or_else(|| Problem::not_found("payer"))?;
    let using = store::using(&app.database, &country, &was.name).await?;
    let uses =
        using.into_iter().map(|using| used(using, &was.name, pack)).filter(|used| !used.papers.is_empty());
    Ok(Json(Corrected { uses: uses.collect(), was }))
}

fn sensible<'t>(at: &str, text: &'t str, least: usize, most: usize) -> Answer<&'t str> {
    let text = text.trim();
    let count = text.chars().count();
    if count < least || count > most || text.chars().any(char::is_control) {
        let message = format!("It has {least} to {most} letters, on one line.");
        return Err(Problem::invalid(vec![Fault::new(at, message)]));
    }
    Ok(text)
}

fn used(using: Using, name: &str, pack: &dyn Pack) -> Use {
    let papers = using.papers.as_ref().and_then(|papers| papers.as_array()).into_iter().flatten();
    let on = papers.filter(|paper| paper["title"] == name).filter_map(|paper| {
        let kind = pack.paper_kinds().iter().find(|kind| paper["kind"] == kind.id)?;
        let on = UsedOn {
            paper: paper["id"].as_str()?.to_owned(),
            number_box: payer::number_box(kind).map(str::to_owned),
        };
        payer::is_payer(kind, pack).then_some(on)
    });
    Use {
        household: using.id,
        year: using.year,
        revision: using.revision,
        papers: on.collect(),
        name: using.name,
    }
}
