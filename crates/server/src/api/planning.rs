//! Households of a year by the law of another: what each would come to, for all that a practice has.

use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
    store::{
        households::{self as store, Found, Wanted as Listed},
        sight,
    },
    work::{self, Then},
};
use axum::{
    Json,
    extract::{Query, State},
};
use hembo_core::{Household, check::Fault, outcome::Wanted};
use hembo_money::Money;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// How many households an answer has: each is reckoned twice.
const PAGE: i64 = 10;

/// Which households, and by the law of which year.
#[derive(Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Asked {
    /// Of that law.
    country: String,
    /// Of that return year.
    year: i32,
    /// By the law of that year.
    by: i32,
    /// How many to pass over, in the order of their names.
    #[serde(default)]
    from: u32,
}

/// A few households by the law of another year.
#[derive(Serialize, ToSchema)]
pub struct Planned {
    /// In the order of their names.
    rows: Vec<PlannedRow>,
    /// How many there are in all.
    count: i64,
}

/// A household by the law of its year and of another.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct PlannedRow {
    pub household: Uuid,
    pub name: String,
    /// The practice's own number of it; may be empty.
    pub reference: String,
    /// By its own year; none where it cannot be worked with.
    pub own: Option<ByLaw>,
    /// By the other; none where its papers do not fit that year.
    pub other: Option<ByLaw>,
    /// How much more tax it is by the other; none unless both are results.
    pub more: Option<Money>,
    /// Why there is none of one of them.
    pub fault: String,
}

/// What a household comes to by a law.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct ByLaw {
    #[serde(flatten)]
    then: Then,
    /// The chosen way, in a few words.
    way: String,
    /// To whom it is.
    #[serde(skip)]
    authorities: Vec<String>,
}

impl ByLaw {
    /// How much more tax it is than by another law; nothing unless both are results, to the same authorities.
    fn more_than(&self, other: &ByLaw) -> Option<Money> {
        let alike = self.then.covered && other.then.covered && self.authorities == other.authorities;
        alike.then(|| self.then.total - other.then.total)
    }

    /// What of another law's is not in it, in words.
    fn lacks(&self, other: &ByLaw, year: i32) -> Option<String> {
        let missing = other.authorities.iter().find(|authority| !self.authorities.contains(authority))?;
        Some(format!("Without the return to {missing}, whose figures of {year} are not here."))
    }
}

/// Households of a year by the law of another, ten at once.
#[utoipa::path(get, path = "/api/planning", params(Asked),
    responses((status = 200, body = Planned), (status = 422, body = Problem)))]
pub async fn planning(
    State(app): State<App>,
    By(by): By,
    Query(asked): Query<Asked>,
) -> Answer<Json<Planned>> {
    known(&app, &asked).await?;
    let only_of = sight::only_of(&app.database, by).await?;
    let found = Found { country: Some(&asked.country), year: Some(asked.year), only_of, ..Found::default() };
    let count = store::count(&app.database, &found).await?.count;
    let wanted = Listed { found, order: "name", down: false, from: asked.from.into(), most: PAGE };
    let mut rows = Vec::new();
    for listed in store::list(&app.database, &wanted).await? {
        rows.push(row(&app, listed, asked.by).await?);
    }
    Ok(Json(Planned { rows, count }))
}

/// Refuses a law or a year whose figures are not here.
async fn known(app: &App, asked: &Asked) -> Answer<()> {
    let registry = app.rules.now(&app.database).await?;
    let Some(pack) = registry.pack(&asked.country) else {
        let why = format!("There are no rules for {}.", asked.country);
        return Err(Problem::invalid(vec![Fault::new("country", why)]));
    };
    let years = pack.years();
    if years.contains(&asked.by) {
        return Ok(());
    }
    let held = years.iter().map(ToString::to_string).collect::<Vec<_>>().join(", ");
    let why = format!("The figures of {} are not here; those of {held} are.", asked.by);
    Err(Problem::invalid(vec![Fault::new("by", why)]))
}

async fn row(app: &App, listed: store::Listed, by: i32) -> Answer<PlannedRow> {
    let (_, household) = work::load(app, listed.id).await?;
    let year = household.year;
    let (own, other) =
        (by_law(app, household.clone()).await?, by_law(app, Household { year: by, ..household }).await?);
    let faults: Vec<String> = [&own, &other].into_iter().filter_map(|law| law.clone().err()).collect();
    let more = match (&own, &other) {
        (Ok(own), Ok(other)) => other.more_than(own),
        _ => None,
    };
    let both = own.as_ref().ok().zip(other.as_ref().ok());
    let lacks = both.and_then(|(own, other)| other.lacks(own, by).or_else(|| own.lacks(other, year)));
    Ok(PlannedRow {
        household: listed.id,
        name: listed.name,
        reference: listed.reference,
        own: own.ok(),
        other: other.ok(),
        more,
        fault: faults.into_iter().chain(lacks).next().unwrap_or_default(),
    })
}

/// What a household comes to, or why it cannot be worked with by the law of its year.
async fn by_law(app: &App, household: Household) -> Answer<Result<ByLaw, String>> {
    match work::whole(app, household, Wanted::least(1)).await {
        Ok((_, outcome, _)) => {
            let then = Then { total: outcome.total, balance: outcome.balance, covered: outcome.covered };
            let authorities = outcome.authorities.into_iter().map(|authority| authority.name).collect();
            Ok(Ok(ByLaw { then, way: outcome.together, authorities }))
        }
        Err(problem) if !problem.faults.is_empty() => Ok(Err(problem.detail)),
        Err(problem) => Err(problem),
    }
}
