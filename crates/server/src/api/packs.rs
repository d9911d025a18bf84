//! What the rule packs declare: kinds of papers, questions, years.

use crate::{
    App,
    auth::By,
    error::{Answer, Problem},
};
use axum::{
    Json,
    extract::{Path, State},
};
use hembo_core::{
    field::Field,
    figures::{self, Table},
    pack::{About, Pack, Question},
    paper::{Counted, PaperKind},
};
use serde::Serialize;
use utoipa::ToSchema;

/// What a pack declares.
#[derive(Serialize, ToSchema)]
pub struct PackInfo {
    /// Its name and currency.
    #[serde(flatten)]
    pub about: About,
    /// The years whose figures it has, latest first.
    pub years: Vec<i32>,
    /// The kinds of papers.
    pub paper_kinds: &'static [PaperKind],
    /// What papers bring by themselves to where another kind's papers go.
    pub counted: &'static [Counted],
    /// The questions about people.
    pub person_questions: &'static [Question],
    /// The questions about the household.
    pub household_questions: &'static [Field],
}

/// The rule packs.
#[utoipa::path(get, path = "/api/packs", responses((status = 200, body = Vec<PackInfo>)))]
pub async fn known(State(app): State<App>, _: By) -> Json<Vec<PackInfo>> {
    let info = |pack: &'static dyn Pack| PackInfo {
        about: pack.about(),
        years: pack.years(),
        paper_kinds: pack.paper_kinds(),
        counted: pack.counted(),
        person_questions: pack.person_questions(),
        household_questions: pack.household_questions(),
    };
    Json(app.registry.packs().map(info).collect())
}

/// The rule figures of a pack.
#[derive(Serialize, ToSchema)]
pub struct RuleFigures {
    /// The years that stand side by side, latest first.
    pub years: Vec<i32>,
    /// Every table, in the order of the latest rule file.
    pub tables: Vec<Table>,
}

/// The rule figures of a country: every table over its years, with its source and what it is used for.
#[utoipa::path(
    get, path = "/api/packs/{id}/figures", params(("id" = String, Path, description = "The pack, by its id.")),
    responses((status = 200, body = RuleFigures), (status = 404, body = Problem))
)]
pub async fn rule_figures(
    State(app): State<App>,
    _: By,
    Path(id): Path<String>,
) -> Answer<Json<RuleFigures>> {
    let pack = app.registry.pack(&id).ok_or_else(|| Problem::not_found("country"))?;
    // A rule file that cannot be read fails the pack's own test: there is none at run time.
    let tables = figures::tables(pack.rules(), pack.declared()).unwrap_or_default();
    Ok(Json(RuleFigures { years: pack.rules().iter().map(|(year, _)| *year).collect(), tables }))
}
