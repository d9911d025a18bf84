//! What the rule packs declare: kinds of papers, questions, years.

use crate::{App, auth::By};
use axum::{Json, extract::State};
use hembo_core::{
    field::Field,
    gathered::Gathered,
    pack::{About, Election, Pack, Question},
    paper::{Counted, Keeping, PaperKind},
};
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// What a pack declares.
#[derive(Serialize, ToSchema)]
pub struct PackInfo {
    /// Its name and currency.
    #[serde(flatten)]
    pub about: About,
    /// The years whose figures it has, latest first.
    pub years: Vec<i32>,
    /// Those that are for planning only.
    pub planning: Vec<i32>,
    /// The kinds of papers.
    pub paper_kinds: &'static [PaperKind],
    /// Papers that have others as their parts.
    pub gathered: &'static [Gathered],
    /// What papers bring by themselves to where another kind's papers go.
    pub counted: &'static [Counted],
    /// The questions about people.
    pub person_questions: &'static [Question],
    /// The questions about the household.
    pub household_questions: &'static [Field],
    /// What may be chosen beside the return and is weighed for nobody.
    pub elections: &'static [Election],
    /// What titles of papers mean that name a payer.
    pub payer_titles: &'static [&'static str],
    /// The kinds of papers that the authority or a payer holds.
    pub held_kinds: &'static [&'static str],
    /// The authority assesses by itself what it holds.
    pub assesses_itself: bool,
    /// What proves a paper, by its kind.
    pub proofs: BTreeMap<&'static str, &'static str>,
    /// Until when the papers of a return year are kept.
    pub keeping: BTreeMap<i32, Keeping>,
}

/// The rule packs.
#[utoipa::path(get, path = "/api/packs", responses((status = 200, body = Vec<PackInfo>)))]
pub async fn known(State(app): State<App>, _: By) -> Json<Vec<PackInfo>> {
    let info = |pack: &dyn Pack| PackInfo {
        about: pack.about(),
        years: pack.years(),
        planning: pack.years().into_iter().filter(|&year| pack.is_planning(year)).collect(),
        paper_kinds: pack.paper_kinds(),
        gathered: &pack.declared().gathered,
        counted: pack.counted(),
        person_questions: pack.person_questions(),
        household_questions: pack.household_questions(),
        elections: pack.elections(),
        payer_titles: pack.payer_titles(),
        held_kinds: pack.held_kinds(),
        assesses_itself: pack.assesses_itself(),
        proofs: pack.paper_kinds().iter().map(|kind| (kind.id, pack.proof(kind))).collect(),
        keeping: pack.years().into_iter().map(|year| (year, pack.keeping(year))).collect(),
    };
    Json(app.registry.packs().map(info).collect())
}
