//! The rules by which households are reckoned: the committed ones with the practice's own figures in their place.

use crate::{
    App,
    error::{Answer, Problem},
    store::{
        figures::{self as store, AtWork},
        rereckoned,
    },
    work::{self, Summary, Then},
};
use hembo_core::{Registry, figures::Replacement};
use serde_json::Value;
use sqlx::PgPool;
use std::{
    sync::{Arc, Mutex, PoisonError},
    time::Duration,
};
use uuid::Uuid;

/// The rules of the moment. Other servers may replace figures too, so what is at work is asked of the database each time;
/// the rules are only built anew where that changed.
#[derive(Clone)]
pub struct Rules {
    committed: Registry,
    built: Arc<Mutex<(Vec<AtWork>, Registry)>>,
}

impl Rules {
    /// The committed rules, before anything was replaced.
    pub fn of(committed: Registry) -> Rules {
        let built = (Vec::new(), committed.clone());
        Rules { committed, built: Arc::new(Mutex::new(built)) }
    }

    /// The rules as they are now.
    ///
    /// # Errors
    /// When the database fails.
    pub async fn now(&self, database: &PgPool) -> Answer<Registry> {
        let at_work = store::at_work(database).await?;
        let mut built = self.built.lock().unwrap_or_else(PoisonError::into_inner);
        if built.0 != at_work {
            *built = (at_work.clone(), self.built_with(&at_work));
        }
        Ok(built.1.clone())
    }

    /// How many figures of a return year are the practice's own, as the rules were when they were last asked for.
    pub fn own(&self, country: &str, year: i32) -> usize {
        let built = self.built.lock().unwrap_or_else(PoisonError::into_inner);
        built.0.iter().filter(|one| one.country == country && one.year == year).count()
    }

    /// The rules with these figures. One that no longer fits the rules of this program is left out.
    fn built_with(&self, at_work: &[AtWork]) -> Registry {
        self.committed.packs().fold(self.committed.clone(), |registry, pack| {
            let country = pack.about().id;
            let fits = |one: &Replacement| match pack.with(std::slice::from_ref(one)) {
                Ok(_) => true,
                Err(why) => {
                    tracing::warn!(country, why, "a replaced figure is left out");
                    false
                }
            };
            let of_pack = at_work.iter().filter(|one| one.country == country).map(AtWork::replacement);
            registry.with(country, &of_pack.filter(fits).collect::<Vec<_>>()).unwrap_or(registry)
        })
    }

    /// The rules with one figure in another place: `value`, or that of the committed rules where it is none.
    ///
    /// # Errors
    /// A figure that cannot stand there, or when the database fails.
    pub async fn trying(
        &self,
        database: &PgPool,
        country: &str,
        place: (i32, &str, &str),
        value: Option<&str>,
    ) -> Answer<Registry> {
        let (year, table, figure) = place;
        let mut at_work = store::at_work(database).await?;
        at_work.retain(|one| !one.is_at(country, place));
        if let Some(value) = value {
            let (table, figure) = (table.to_owned(), figure.to_owned());
            let one = Replacement { year, table, figure, value: value.to_owned() };
            let pack = self.committed.pack(country).ok_or_else(|| Problem::not_found("country"))?;
            pack.with(std::slice::from_ref(&one)).map_err(Problem::not_fitting)?;
            let Replacement { table, figure, value, .. } = one;
            at_work.push(AtWork { country: country.into(), year, in_table: table, figure, value });
        }
        Ok(self.built_with(&at_work))
    }
}

/// How long to wait for what another server has in work.
const WAIT: Duration = Duration::from_secs(10);

/// Renews what lists show of every household whose summary other rules made: after figures were replaced, and at the start.
/// Of several servers one renews a household; what one of them had in work when it ended, another takes up. A household that
/// cannot be renewed keeps what it shows until it is opened and changed.
pub async fn renew(app: App) {
    for country in app.registry.packs().map(|pack| pack.about().id) {
        loop {
            match all_of(&app, country).await {
                Ok(true) => tokio::time::sleep(WAIT).await,
                Ok(false) => break,
                Err(problem) => {
                    tracing::warn!(country, problem = problem.detail, "what lists show was not renewed");
                    break;
                }
            }
        }
    }
}

/// Renews the households of a law once; whether another server still has some of them in work.
async fn all_of(app: &App, country: &str) -> Answer<bool> {
    let mut after = Uuid::nil();
    while let Some(done) = next(app, country, after).await? {
        after = done;
    }
    let registry = app.rules.now(&app.database).await?;
    let pack = registry.pack(country).ok_or_else(|| Problem::not_found("country"))?;
    Ok(store::any_taken(&app.database, country, pack.version()).await?)
}

/// Renews the next household; none where there is none.
async fn next(app: &App, country: &str, after: Uuid) -> Answer<Option<Uuid>> {
    let registry = app.rules.now(&app.database).await?;
    let pack = registry.pack(country).ok_or_else(|| Problem::not_found("country"))?;
    let Some(id) = store::take_outdated(&app.database, country, pack.version(), after).await? else {
        return Ok(None);
    };
    if let Err(problem) = one(app, id).await {
        tracing::warn!(household = %id, problem = problem.detail, "what lists show was not renewed");
    }
    store::let_go(&app.database, id).await?;
    Ok(Some(id))
}

async fn one(app: &App, id: Uuid) -> Answer<()> {
    let (revision, household) = work::load(app, id).await?;
    let worked = work::out(app, household).await?;
    let summary = serde_json::to_value(&worked.summary).map_err(Problem::internal)?;
    let digits = work::last_digits(&app.sealer, &worked.household);
    let (revision, rules, digits) = (revision.revision, &*worked.rules, &*digits);
    let new = rereckoned::Renewed { household: id, revision, summary: &summary, rules, digits };
    let then = |summary: &Value| {
        let summary: Option<Summary> = serde_json::from_value(summary.clone()).ok();
        summary.as_ref().map(Then::of)
    };
    let moves = |was: &Value, came: &Value| then(was) != then(came);
    Ok(rereckoned::renew(&app.database, &new, moves).await?)
}
