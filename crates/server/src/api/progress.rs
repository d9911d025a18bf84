//! Where a return stands: its states of work, who has it in hand, and the steps that can be taken.

use super::{Input, filing, filing_view::Refused, trials};
use crate::{
    App,
    auth::Member,
    error::{Answer, Problem},
    stage::{STEPS, Stage, Standing, Step},
    store::{
        practice,
        progress::{self as store, Hands, NewMove},
        users::{self, Someone},
    },
    work,
};
use axum::{
    Json,
    extract::{Path, State},
};
use hembo_core::{Fault, household::date};
use serde::{Deserialize, Serialize};
use time::{Date, OffsetDateTime};
use utoipa::ToSchema;
use uuid::Uuid;

/// How much may be said with a step.
const LONGEST_WORDS: usize = 2_000;

/// Where a return stands.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Progress {
    pub stage: Stage,
    /// Who works on it.
    pub worked_by: Option<Someone>,
    /// Who is asked to review it.
    pub reviewer: Option<Someone>,
    /// Its filing is held until this day, ISO 8601.
    pub held_until: Option<String>,
    /// The revision that was sent.
    pub filed_revision: Option<i64>,
    /// Why the authority refused what was filed last, and where.
    pub refusals: Vec<Refused>,
    /// The steps that lead on from here.
    pub next: Vec<Next>,
    /// The last step can be taken back by who asks.
    pub can_take_back: bool,
    /// The steps that were taken, the newest first.
    pub moves: Vec<Move>,
}

/// A step that leads on.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Next {
    pub to: Stage,
    /// Something must be said with it.
    pub words: bool,
    /// Why who asks cannot take it.
    pub why_not: Option<String>,
}

/// A step that was taken.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Move {
    /// moved, changed (by a change of the household), unchanged (that change undone) or taken_back.
    pub kind: String,
    pub from: Stage,
    pub to: Stage,
    pub revision: i64,
    pub words: String,
    pub by: String,
    #[serde(with = "time::serde::rfc3339")]
    pub at: OffsetDateTime,
}

impl Move {
    fn of(step: store::Move) -> Move {
        Move {
            from: Stage::read(&step.from_stage),
            to: Stage::read(&step.to_stage),
            kind: step.kind,
            revision: step.revision,
            words: step.words,
            by: step.by_name,
            at: step.at,
        }
    }
}

/// A household in the practice's hands, as someone sees it.
pub(super) struct Desk<'a> {
    app: &'a App,
    id: Uuid,
    member: &'a Member,
    stands: store::Standing,
    moves: Vec<store::Move>,
}

impl<'a> Desk<'a> {
    pub(super) async fn of(app: &'a App, id: Uuid, member: &'a Member) -> Answer<Desk<'a>> {
        let stands = store::standing(&app.database, id).await?;
        let stands = stands.ok_or_else(|| Problem::not_found("household"))?;
        let moves = store::moves(&app.database, id).await?;
        Ok(Desk { app, id, member, stands, moves })
    }

    pub(super) fn stage(&self) -> Stage {
        Stage::read(&self.stands.stage)
    }

    /// Who asks works on it, or handed it in for review.
    fn is_own(&self) -> bool {
        let me = self.member.0.id;
        let ready = Stage::Ready.stored();
        let handed_in = self.moves.iter().find(|m| m.to_stage == ready && m.kind == "moved");
        self.stands.worked_by == Some(me) || handed_in.is_some_and(|m| m.by_user == me)
    }

    /// How it stands by what lists show of it, which is renewed whenever rules change.
    async fn standing(&self) -> Answer<Standing> {
        let summary = serde_json::from_value(self.stands.summary.clone()).unwrap_or_default();
        self.standing_with(&summary).await
    }

    /// The same by the rules of the moment.
    pub(super) async fn standing_now(&self) -> Answer<Standing> {
        let (_, household) = work::load(self.app, self.id).await?;
        self.standing_with(&work::out(self.app, household).await?.summary).await
    }

    async fn standing_with(&self, summary: &work::Summary) -> Answer<Standing> {
        let country = self.stands.country.as_str();
        let today = OffsetDateTime::now_utc().date();
        Ok(Standing {
            is_reviewer: self.member.is_reviewer(),
            is_own: self.is_own(),
            own_review: practice::of(&self.app.database).await?.own_review,
            // The return of a state waits for its own points; nothing else does.
            blocking: summary.blocking.saturating_sub(summary.blocking_state),
            covered: summary.covered || summary.covered_but_state,
            planning: self.app.registry.pack(country).is_some_and(|pack| pack.is_planning(self.stands.year)),
            held: self.stands.held_until.is_some_and(|day| today < day),
        })
    }

    /// The last step, where who asks took it and nothing came of it yet.
    fn last_of_mine(&self) -> Option<&store::Move> {
        let last = self.moves.first()?;
        (last.kind == "moved" && last.by_user == self.member.0.id).then_some(last)
    }

    async fn shown(self) -> Answer<Json<Progress>> {
        let standing = self.standing().await?;
        let people = users::everyone(&self.app.database).await?;
        let someone = |id: Option<Uuid>| people.iter().find(|one| Some(one.id) == id).cloned();
        let stage = self.stage();
        let next = STEPS.iter().filter(|step| step.from == stage).map(|step| Next {
            to: step.to,
            words: step.words,
            why_not: step.why_not(standing),
        });
        Ok(Json(Progress {
            stage,
            worked_by: someone(self.stands.worked_by),
            reviewer: someone(self.stands.reviewer),
            held_until: self.stands.held_until.map(|day| day.to_string()),
            filed_revision: self.stands.filed_revision,
            refusals: filing::refusals(self.app, self.id).await?,
            next: next.collect(),
            can_take_back: self.last_of_mine().is_some(),
            moves: self.moves.into_iter().map(Move::of).collect(),
        }))
    }
}

/// Where a return stands.
#[utoipa::path(get, path = "/api/households/{id}/progress", params(("id" = Uuid, Path)),
    responses((status = 200, body = Progress), (status = 404, body = Problem)))]
pub async fn progress(
    State(app): State<App>,
    member: Member,
    Path(id): Path<Uuid>,
) -> Answer<Json<Progress>> {
    Desk::of(&app, id, &member).await?.shown().await
}

/// A step to take, from where it was seen to begin.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Take {
    /// The revision that was seen.
    base_revision: i64,
    /// From there.
    from: Stage,
    /// To there.
    to: Stage,
    /// What is said with it.
    #[serde(default)]
    words: String,
}

/// Move a return from one state of work to the next.
#[utoipa::path(post, path = "/api/households/{id}/progress", params(("id" = Uuid, Path)), request_body = Take,
    responses((status = 200, body = Progress), (status = 403, body = Problem), (status = 404, body = Problem),
        (status = 409, body = Problem), (status = 422, body = Problem)))]
pub async fn take_step(
    State(app): State<App>,
    member: Member,
    Path(id): Path<Uuid>,
    Input(wanted): Input<Take>,
) -> Answer<Json<Progress>> {
    trials::refuse(&app, id, "Not moved on").await?;
    let Take { base_revision, from, to, words } = wanted;
    let desk = Desk::of(&app, id, &member).await?;
    check_seen(&desk, base_revision, from)?;
    let step = STEPS.iter().find(|step| (step.from, step.to) == (from, to));
    let step: &Step = step.ok_or_else(|| no_step(from, to))?;
    let words = said(&words, step.words)?;
    if let Some(why) = step.why_not(desk.standing_now().await?) {
        return Err(Problem::cannot_move(why));
    }
    let kind = "moved";
    let new = NewMove { household: id, kind, from, to, revision: base_revision, words, by: member.0.id };
    if !store::take(&app.database, &new).await? {
        return Err(Problem::moved("The return was moved or changed meanwhile. Look again.".into()));
    }
    Desk::of(&app, id, &member).await?.shown().await
}

fn no_step(from: Stage, to: Stage) -> Problem {
    let message = format!("A return that is {from} cannot be {to} next.");
    Problem::invalid(vec![Fault::new("to", message)])
}

fn check_seen(desk: &Desk<'_>, revision: i64, from: Stage) -> Answer<()> {
    let (now, stage) = (desk.stands.revision, desk.stage());
    if now != revision {
        return Err(Problem::moved(format!("Revision {now} came meanwhile. Look at what changed first.")));
    }
    if stage != from {
        return Err(Problem::moved(format!("The return is {stage} by now.")));
    }
    Ok(())
}

/// What is said with a step, if it must say something.
fn said(words: &str, needed: bool) -> Answer<&str> {
    let words = words.trim();
    if needed && words.is_empty() {
        return Err(Problem::invalid(vec![Fault::new("words", "Say why, for whoever goes on with it.")]));
    }
    if words.chars().count() > LONGEST_WORDS {
        let message = format!("At most {LONGEST_WORDS} letters can be said here.");
        return Err(Problem::invalid(vec![Fault::new("words", message)]));
    }
    Ok(words)
}

/// Take the last step back, by who took it.
#[utoipa::path(delete, path = "/api/households/{id}/progress", params(("id" = Uuid, Path)),
    responses((status = 200, body = Progress), (status = 404, body = Problem), (status = 409, body = Problem)))]
pub async fn take_step_back(
    State(app): State<App>,
    member: Member,
    Path(id): Path<Uuid>,
) -> Answer<Json<Progress>> {
    let desk = Desk::of(&app, id, &member).await?;
    let last = desk.last_of_mine().ok_or_else(|| Problem::nothing_to("take back"))?;
    let (from, to) = (Stage::read(&last.to_stage), Stage::read(&last.from_stage));
    let (kind, words, revision) = ("taken_back", "", desk.stands.revision);
    let new = NewMove { household: id, kind, from, to, revision, words, by: member.0.id };
    if !store::take(&app.database, &new).await? {
        return Err(Problem::moved("The return was moved or changed meanwhile. Look again.".into()));
    }
    Desk::of(&app, id, &member).await?.shown().await
}

/// Into whose hands to put a household.
#[derive(Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct InHands {
    /// Who works on it.
    worked_by: Option<Uuid>,
    /// Who is asked to review it.
    reviewer: Option<Uuid>,
    /// Its filing is held until this day, ISO 8601.
    held_until: Option<String>,
}

/// Put a household into people's hands, and hold its filing until a day.
#[utoipa::path(put, path = "/api/households/{id}/hands", params(("id" = Uuid, Path)), request_body = InHands,
    responses((status = 200, body = Progress), (status = 404, body = Problem), (status = 422, body = Problem)))]
pub async fn put_in_hands(
    State(app): State<App>,
    member: Member,
    Path(id): Path<Uuid>,
    Input(hands): Input<InHands>,
) -> Answer<Json<Progress>> {
    let people = users::everyone(&app.database).await?;
    let now = Desk::of(&app, id, &member).await?.stands;
    // Nobody new who may not sign in; in whose hands it lies already, it may stay.
    let find = |id: Uuid, stays: Option<Uuid>| {
        people.iter().find(|one| one.id == id && (!one.disabled || stays == Some(id)))
    };
    if hands.worked_by.is_some_and(|id| find(id, now.worked_by).is_none()) {
        let message = "There is nobody of that id in the practice who may sign in.";
        return Err(Problem::invalid(vec![Fault::new("worked_by", message)]));
    }
    let own_review = practice::of(&app.database).await?.own_review;
    let reviews = |one: &Someone| own_review || one.role.reviews();
    if hands.reviewer.is_some_and(|id| !find(id, now.reviewer).is_some_and(reviews)) {
        let message = "Only a reviewer or an administrator who may sign in can be asked to review.";
        return Err(Problem::invalid(vec![Fault::new("reviewer", message)]));
    }
    let held_until = hands.held_until.as_deref().filter(|day| !day.is_empty()).map(day).transpose()?;
    let hands = Hands { worked_by: hands.worked_by, reviewer: hands.reviewer, held_until };
    let moves = (hands.worked_by, hands.reviewer) != (now.worked_by, now.reviewer);
    let named =
        |id: Option<Uuid>| people.iter().find(|one| Some(one.id) == id).map_or("nobody", |one| &one.name);
    let noted =
        format!("works on it: {}; asked to review: {}", named(hands.worked_by), named(hands.reviewer));
    if !store::put_in_hands(&app.database, id, &hands, member.0.id, moves.then_some(&*noted)).await? {
        return Err(Problem::not_found("household"));
    }
    Desk::of(&app, id, &member).await?.shown().await
}

fn day(text: &str) -> Answer<Date> {
    let wrong = || {
        let message = format!("'{text}' is not a day; a day is written 2025-03-31.");
        Problem::invalid(vec![Fault::new("held_until", message)])
    };
    date::parse(text).ok_or_else(wrong)
}
