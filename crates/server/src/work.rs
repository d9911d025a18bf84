//! Working out a household: from the stored state to the outcome and what lists show.

use crate::seal::Sealer;
use crate::{
    App,
    error::{Answer, Problem},
    store::households::{self as store, Revision},
};
use hembo_core::{
    Household, Outcome, Pack, Registry,
    check::Fault,
    file,
    outcome::{self, Beside, Comparison, Line, NAMED_WAYS, NotForward, Unreckoned, Wanted},
    point::Weight,
    search::Stop,
};
use hembo_money::Money;
use lru::LruCache;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use std::{
    collections::BTreeMap,
    num::NonZeroUsize,
    sync::{Arc, Mutex, PoisonError},
    time::Instant,
};
use utoipa::ToSchema;
use uuid::Uuid;

/// A household with its outcome.
pub struct Worked {
    /// The household, numbers open.
    pub household: Household,
    /// What comes out.
    pub outcome: Outcome,
    /// What lists show.
    pub summary: Summary,
    /// The version of the rules by which it was reckoned.
    pub rules: String,
}

/// What a list shows of a household.
#[derive(Debug, Clone, Default, Serialize, Deserialize, ToSchema)]
#[serde(default)]
#[allow(missing_docs)]
pub struct Summary {
    pub people: Vec<String>,
    pub locality: String,
    pub currency: String,
    pub papers: usize,
    pub checked: usize,
    pub blocking: usize,
    /// Of those that block what holds up the return of a state alone.
    pub blocking_state: usize,
    pub looking: usize,
    pub covered: bool,
    /// The figures are a result but for those of a state, where that differs.
    pub covered_but_state: bool,
    pub total: Money,
    pub ways: u64,
    /// What the chosen way saves against the next dearer one.
    pub saved: Money,
    pub balance: Money,
}

/// What a household comes to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Then {
    pub total: Money,
    pub balance: Money,
    pub covered: bool,
}

impl Then {
    /// What a list shows of it.
    pub fn of(summary: &Summary) -> Then {
        Then { total: summary.total, balance: summary.balance, covered: summary.covered }
    }
}

/// Of how many revisions the lines are kept at hand.
const KEPT: NonZeroUsize = NonZeroUsize::new(64).expect("it is not zero");

/// A revision of a household by a version of the rules.
type Key = (Uuid, i64, String);

/// The lines of late revisions with their trails, so that one is opened without computing again. A revision never
/// changes by the same rules; one that is not here is computed once more.
#[derive(Debug, Clone)]
pub struct Trails(Arc<Mutex<LruCache<Key, Arc<Vec<Line>>>>>);

impl Default for Trails {
    fn default() -> Trails {
        Trails(Arc::new(Mutex::new(LruCache::new(KEPT))))
    }
}

impl Trails {
    /// Keeps the lines of a revision.
    pub fn keep(&self, id: Uuid, revision: i64, rules: &str, lines: Vec<Line>) -> Arc<Vec<Line>> {
        let lines = Arc::new(lines);
        let mut kept = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        kept.put((id, revision, rules.to_owned()), Arc::clone(&lines));
        lines
    }

    fn get(&self, id: Uuid, revision: i64, rules: &str) -> Option<Arc<Vec<Line>>> {
        let key = (id, revision, rules.to_owned());
        self.0.lock().unwrap_or_else(PoisonError::into_inner).get(&key).cloned()
    }
}

/// Checks and computes a household: what every view needs.
///
/// # Errors
/// Its faults, or that the server ends.
pub async fn out(app: &App, household: Household) -> Answer<Worked> {
    let registry = app.rules.now(&app.database).await?;
    let rules = version(&registry, &household);
    let began = Instant::now();
    let (household, outcome) = by_rules(app, household, Wanted::least(NAMED_WAYS), registry).await?;
    app.metrics.reckoned(began.elapsed());
    let summary = summary(&household, &outcome);
    Ok(Worked { household, outcome, summary, rules })
}

/// The version of the rules of a household.
fn version(registry: &Registry, household: &Household) -> String {
    registry.pack(&household.country).map(|pack| pack.version().to_owned()).unwrap_or_default()
}

/// What a household comes to by other rules than those of the moment.
///
/// # Errors
/// Its faults, or that the server ends.
pub async fn comes_to(app: &App, household: Household, rules: &Registry) -> Answer<Then> {
    let (_, outcome) = by_rules(app, household, Wanted::least(1), rules.clone()).await?;
    Ok(Then { total: outcome.total, balance: outcome.balance, covered: outcome.covered })
}

/// A household with what is wanted of its outcome, and the version of the rules.
///
/// # Errors
/// Its faults, or that the server ends.
pub async fn whole(app: &App, household: Household, wanted: Wanted) -> Answer<(Household, Outcome, String)> {
    let registry = app.rules.now(&app.database).await?;
    let rules = version(&registry, &household);
    let (household, outcome) = by_rules(app, household, wanted, registry).await?;
    Ok((household, outcome, rules))
}

async fn reckoned(app: &App, household: Household, wanted: Wanted) -> Answer<(Household, Outcome)> {
    let registry = app.rules.now(&app.database).await?;
    by_rules(app, household, wanted, registry).await
}

async fn by_rules(
    app: &App,
    household: Household,
    wanted: Wanted,
    registry: Registry,
) -> Answer<(Household, Outcome)> {
    let run = move |stop: &Stop| {
        outcome::reckon_until(&household, &registry, wanted, stop).map(|outcome| (household, outcome))
    };
    on_a_core(app, run).await?.map_err(unreckoned)
}

/// Why there is no outcome, as a problem.
pub fn unreckoned(why: Unreckoned) -> Problem {
    match why {
        Unreckoned::Faults(faults) => Problem::invalid(faults),
        Unreckoned::Stopped => Problem::busy(),
    }
}

/// A household carried forward into the next year.
///
/// # Errors
/// Why it cannot be, or that the server ends.
pub async fn next_year(app: &App, household: Household) -> Answer<Household> {
    let registry = app.rules.now(&app.database).await?;
    let run = move |stop: &Stop| {
        let pack = registry.pack(&household.country).ok_or(NotForward::NoFigures(household.year + 1))?;
        outcome::next_year(&household, pack, stop)
    };
    on_a_core(app, run).await?.map_err(|why| match why {
        NotForward::Stopped => Problem::busy(),
        why => Problem::invalid(vec![Fault::new("/year", why.to_string())]),
    })
}

/// What a revision comes to, with what is wanted of it.
///
/// # Errors
/// When there is no such revision.
pub async fn of_revision(app: &App, id: Uuid, revision: i64, wanted: Wanted) -> Answer<Outcome> {
    let found = stored(app, id, revision).await?;
    let (_, outcome) = reckoned(app, read(app, id, &found.state)?, wanted).await?;
    Ok(outcome)
}

async fn stored(app: &App, id: Uuid, revision: i64) -> Answer<Revision> {
    let found = store::revision(&app.database, id, revision).await?;
    found.ok_or_else(|| Problem::not_found("revision"))
}

/// The chosen way of a revision beside others of choice.
///
/// # Errors
/// When there is no such revision.
pub async fn compared(app: &App, id: Uuid, revision: i64, beside: Beside) -> Answer<Comparison> {
    let found = stored(app, id, revision).await?;
    let household = read(app, id, &found.state)?;
    let registry = app.rules.now(&app.database).await?;
    let run = move |stop: &Stop| outcome::compared(&household, &registry, &beside, stop);
    on_a_core(app, run).await?.map_err(unreckoned)
}

/// The lines of another way of a revision with their trails, by what it takes of each decision.
///
/// # Errors
/// When there is no such revision.
pub async fn lines_of_way(
    app: &App,
    id: Uuid,
    revision: i64,
    way: BTreeMap<String, String>,
) -> Answer<Arc<Vec<Line>>> {
    let outcome = of_way(app, id, revision, way, Wanted::least(1)).await?;
    Ok(Arc::new(outcome.lines))
}

/// Another way of a revision, by what it takes of each decision.
///
/// # Errors
/// When there is no such revision.
pub async fn of_way(
    app: &App,
    id: Uuid,
    revision: i64,
    way: BTreeMap<String, String>,
    wanted: Wanted,
) -> Answer<Outcome> {
    let found = stored(app, id, revision).await?;
    let household = Household { pins: way, ..read(app, id, &found.state)? };
    Ok(reckoned(app, household, wanted).await?.1)
}

/// The lines of a revision with their trails.
///
/// # Errors
/// When there is no such revision.
pub async fn lines(app: &App, id: Uuid, revision: i64) -> Answer<Arc<Vec<Line>>> {
    // Asked first: what is at hand of a household that was deleted is told no more.
    let found = stored(app, id, revision).await?;
    let household = read(app, id, &found.state)?;
    let registry = app.rules.now(&app.database).await?;
    let rules = version(&registry, &household);
    if let Some(kept) = app.trails.get(id, revision, &rules) {
        return Ok(kept);
    }
    let (_, outcome) = by_rules(app, household, Wanted::least(NAMED_WAYS), registry).await?;
    Ok(app.trails.keep(id, revision, &rules, outcome.lines))
}

/// Stops a computation when nobody waits for it any more.
struct Waiting(Stop);

impl Drop for Waiting {
    fn drop(&mut self) {
        self.0.stop();
    }
}

/// Runs a computation as soon as a core is free for it. When the request is dropped, because its sender went away or
/// it took too long, or when the server ends, the computation stops.
///
/// # Errors
/// When the computation panics.
pub async fn on_a_core<T: Send + 'static>(
    app: &App,
    run: impl FnOnce(&Stop) -> T + Send + 'static,
) -> Answer<T> {
    let core = Arc::clone(&app.cores).acquire_owned().await.map_err(|_| Problem::busy())?;
    let stop = Stop::default();
    let waiting = Waiting(stop.clone());
    let run = move || {
        let done = run(&stop);
        drop(core);
        done
    };
    let done = tokio::select! {
        done = tokio::task::spawn_blocking(run) => done?,
        () = app.ending.cancelled() => return Err(Problem::busy()),
    };
    drop(waiting);
    Ok(done)
}

fn summary(household: &Household, outcome: &Outcome) -> Summary {
    let open = |weight| outcome.points.iter().filter(|p| p.weight == weight && p.dismissed.is_none()).count();
    Summary {
        people: household.people.iter().map(|p| p.name.clone()).collect(),
        locality: outcome.locality.clone(),
        currency: outcome.currency.clone(),
        papers: household.papers.len(),
        checked: household.papers.iter().filter(|p| p.is_checked()).count(),
        blocking: open(Weight::Blocks),
        blocking_state: outcome.points.iter().filter(|p| p.holds() && !p.authority.is_empty()).count(),
        looking: open(Weight::Look),
        covered: outcome.covered,
        covered_but_state: outcome.points.iter().all(|p| !p.not_covered || !p.authority.is_empty()),
        total: outcome.total,
        ways: outcome.lawful_ways,
        saved: outcome.ways.iter().map(|w| w.more).find(|more| !more.is_zero()).unwrap_or_default(),
        balance: outcome.balance,
    }
}

/// The newest revision of a household, its numbers open.
///
/// # Errors
/// When there is no such household.
pub async fn load(app: &App, id: Uuid) -> Answer<(Revision, Household)> {
    let revision = store::newest(&app.database, id).await?.ok_or_else(|| Problem::not_found("household"))?;
    let household = read(app, id, &revision.state)?;
    Ok((revision, household))
}

/// A stored state as a household, its secrets open.
///
/// # Errors
/// A state that cannot be read, which must not happen.
pub fn read(app: &App, id: Uuid, state: &Value) -> Answer<Household> {
    let mut household = file::household(state.clone(), &app.registry)
        .map_err(|fault| Problem::internal(format!("{}: {}", fault.at, fault.message)))?;
    let pack = pack(app, &household)?;
    app.sealer.open(id, &mut household, pack).map_err(Problem::internal)?;
    Ok(household)
}

/// A stored state with its secrets open, where a key opens them.
pub fn opened(sealer: &Sealer, registry: &Registry, id: Uuid, state: Value) -> Option<Household> {
    let mut household = file::household(state, registry).ok()?;
    let pack = registry.pack(&household.country)?;
    sealer.open(id, &mut household, pack).ok()?;
    Some(household)
}

/// What the rules of a household declare.
///
/// # Errors
/// A country that this program no longer knows.
pub fn pack<'a>(app: &'a App, household: &Household) -> Answer<&'a dyn Pack> {
    let found = app.registry.pack(&household.country);
    found.ok_or_else(|| Problem::internal(format!("no rules for {}", household.country)))
}

/// How many last digits of a number a household is found by.
const LAST: usize = 4;

/// By which last digits of its people's numbers a household is found, hashed.
pub fn last_digits(sealer: &Sealer, household: &Household) -> Vec<String> {
    let numbers = household.people.iter().filter_map(|person| person.id_number.as_deref());
    let last = |number: &str| {
        let digits: Vec<char> = number.chars().filter(char::is_ascii_digit).collect();
        let tail: String = digits[digits.len().saturating_sub(LAST)..].iter().collect();
        sealer.digits(&tail).swap_remove(0)
    };
    numbers.map(last).collect()
}

/// What a household is found by in lists, in small letters: names, law, year.
pub fn search_text(household: &Household, pack: &dyn Pack, summary: &Summary) -> String {
    let people = household.people.iter().map(|p| p.name.as_str());
    let year = household.year.to_string();
    let law = [pack.about().name, &summary.locality, &household.country, &year];
    let words = [household.name.as_str(), household.reference.as_str()].into_iter().chain(people).chain(law);
    words.collect::<Vec<_>>().join(" ").to_lowercase()
}
