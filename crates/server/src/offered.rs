//! Slips that the authority and the payers offer, beside the papers of a household: which paper each is, how it stands to
//! what was keyed, and the commands that settle it.

use crate::{
    App,
    error::{Answer, Problem},
    store::outside as store,
    work,
};
use hembo_authority::wire::{self, Source};
use hembo_core::{
    Fault, Household, Pack,
    check::{self, LONGEST_REASON, digits},
    command::Command,
    held::{self, Beside, BesideLine, Held},
    household::{Answers, Dismissal, Paper},
    paper::PaperKind,
};
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};
use time::{Date, OffsetDateTime};
use utoipa::ToSchema;
use uuid::Uuid;

/// How a slip stands to what was keyed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Stands {
    /// No such paper was keyed.
    New,
    /// It says what was keyed.
    Agrees,
    /// It says something else.
    Differs,
    /// It says something else, and what was keyed stays, with a reason.
    Kept,
    /// It was refused with a reason.
    Refused,
    /// It was taken, and is no longer held.
    Gone,
    /// It is no paper of this law and year, or cannot be right.
    Unusable,
}

/// A slip that is offered.
#[derive(Serialize, ToSchema)]
#[allow(missing_docs)]
pub struct Offered {
    pub slip: String,
    pub kind: String,
    pub title: String,
    /// Whose it is.
    pub person: String,
    /// Who sent it in: authority, employer, bank, broker, lender, payer.
    pub source: String,
    /// ISO 8601.
    pub issued: String,
    pub state: Stands,
    /// It is marked on the paper, or was refused: nothing is left to decide.
    pub settled: bool,
    /// The keyed paper that it is.
    pub paper: Option<String>,
    pub boxes: Vec<Beside>,
    /// The lines of its list that are held or were keyed, where any is held.
    pub lines: Vec<BesideLine>,
    /// Why it was refused, what was keyed stays, or it cannot be used.
    pub reason: Option<String>,
}

/// What becomes of a slip.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Settling {
    /// It is taken: a new paper, or its boxes on the one that was keyed.
    Take,
    /// What was keyed stays, with a reason.
    Keep,
    /// It is refused with a reason.
    Refuse,
    /// It is offered again; of one that is no longer held the mark is taken from its paper.
    TakeUp,
}

/// A slip as it was fetched, with a person of the household in the number's place.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Slip {
    /// Its name there.
    pub id: String,
    person: String,
    kind: String,
    title: String,
    source: Source,
    issued: String,
    /// What stands in its boxes.
    pub boxes: Answers,
    /// The lines of its list.
    #[serde(default)]
    pub rows: Vec<Answers>,
}

impl Slip {
    /// Its kind and who issued it.
    pub fn name(&self) -> String {
        format!("{} {}", self.kind, self.title).trim_end().to_owned()
    }

    fn held(&self, on: Date) -> Held {
        let (boxes, rows) = (self.boxes.clone(), self.rows.clone());
        Held { slip: self.id.clone(), by: self.title.clone(), on, boxes, rows, kept: None }
    }

    /// The paper that it makes.
    fn paper(&self, kind: &PaperKind, id: &str, held: Held) -> Paper {
        let paper = held::paper_of(kind, id, &self.person, &held);
        Paper { held: Some(held), ..paper }
    }
}

/// A household beside what was fetched last.
pub struct Table<'a> {
    app: &'a App,
    /// The household, numbers open.
    pub household: Household,
    /// Its rules.
    pub pack: &'a dyn Pack,
    slips: Vec<Slip>,
    on: Date,
}

impl<'a> Table<'a> {
    /// A household with the slips of its last fetch; none where nothing was fetched.
    ///
    /// # Errors
    /// When there is no such household.
    pub async fn of(app: &'a App, id: Uuid) -> Answer<(Table<'a>, Vec<store::Fetch>)> {
        let (_, household) = work::load(app, id).await?;
        let pack = work::pack(app, &household)?;
        let fetches = store::fetches(&app.database, id).await?;
        let slips = fetches.first().map(slips_of).transpose()?.unwrap_or_default();
        let on = fetches.first().map_or_else(OffsetDateTime::now_utc, |fetch| fetch.at).date();
        Ok((Table { app, household, pack, slips, on }, fetches))
    }

    fn kind(&self, slip: &Slip) -> Option<&'static PaperKind> {
        self.pack.paper_kinds().iter().find(|kind| kind.id == slip.kind)
    }

    /// Why a slip cannot be used.
    fn unusable(&self, slip: &Slip) -> Option<String> {
        let Some(kind) = self.kind(slip) else {
            return Some(format!("There is no kind of paper '{}'.", slip.kind));
        };
        let probe = slip.paper(kind, "offered-slip", slip.held(self.on));
        let at = format!("/papers/{}/", self.household.papers.len());
        let mut household = self.household.clone();
        household.papers.push(probe);
        let found = check::faults(&household, &self.app.registry);
        found.into_iter().find(|fault| fault.at.starts_with(&at)).map(|fault| fault.message)
    }

    /// A refusal holds for what is held now only.
    fn fingerprint(&self, slip: &Slip) -> String {
        held::fingerprint(&slip.kind, &slip.held(self.on))
    }

    /// The keyed paper that each slip is, where there is one: no paper is two slips'.
    fn papers(&self) -> BTreeMap<&str, &Paper> {
        let mut found: BTreeMap<&str, &Paper> = BTreeMap::new();
        let mut others: BTreeSet<String> = BTreeSet::new();
        let marked = |slip: &&Slip| {
            self.household.papers.iter().any(|p| p.held.as_ref().is_some_and(|held| held.slip == slip.id))
        };
        let (first, then): (Vec<_>, Vec<_>) = self.slips.iter().partition(marked);
        for slip in first.into_iter().chain(then) {
            let Some(kind) = self.kind(slip) else { continue };
            let paper = held::find(&slip.held(self.on), kind, &slip.person, &self.household, &others);
            if let Some(paper) = paper {
                others.insert(paper.id.clone());
                found.insert(&slip.id, paper);
            }
        }
        found
    }

    /// Every slip that is offered, and those that were taken and are gone.
    pub fn offered(&self) -> Vec<Offered> {
        let papers = self.papers();
        let mut all: Vec<Offered> =
            self.slips.iter().map(|slip| self.one(slip, papers.get(slip.id.as_str()).copied())).collect();
        all.extend(self.household.papers.iter().filter_map(|paper| self.gone(paper)));
        all
    }

    fn one(&self, slip: &Slip, paper: Option<&Paper>) -> Offered {
        let kind = self.kind(slip);
        let boxes =
            kind.map(|kind| held::beside(kind, &slip.boxes, paper.map(|paper| kind.told(paper)).as_ref()));
        let boxes = boxes.unwrap_or_default();
        let lines = kind.map(|kind| held::lines(kind, &slip.rows, paper)).unwrap_or_default();
        let refused = self.household.refused.get(&slip.id).filter(|refused| {
            refused.about.is_none() || refused.about.as_deref() == Some(&self.fingerprint(slip))
        });
        let marked = paper.and_then(|paper| paper.held.as_ref()).filter(|held| held.slip == slip.id);
        let as_marked = marked.filter(|held| held.boxes == slip.boxes && held.rows == slip.rows);
        let kept = as_marked.and_then(|held| held.kept.clone());
        let unusable = self.unusable(slip);
        let (state, reason) = match (unusable, refused, paper) {
            (Some(why), ..) => (Stands::Unusable, Some(why)),
            (_, Some(Dismissal { reason, .. }), _) => (Stands::Refused, Some(reason.clone())),
            (_, _, None) => (Stands::New, None),
            _ if boxes.iter().all(|of| of.agrees) && lines.iter().all(|of| of.agrees) => {
                (Stands::Agrees, None)
            }
            _ if kept.is_some() => (Stands::Kept, kept),
            _ => (Stands::Differs, None),
        };
        let settled = match state {
            Stands::Refused | Stands::Kept => true,
            Stands::Agrees => as_marked.is_some(),
            _ => false,
        };
        Offered {
            slip: slip.id.clone(),
            kind: slip.kind.clone(),
            title: slip.title.clone(),
            person: slip.person.clone(),
            source: source(slip.source),
            issued: slip.issued.clone(),
            state,
            settled,
            paper: paper.map(|paper| paper.id.clone()),
            boxes,
            lines,
            reason,
        }
    }

    /// A paper that was taken from a slip that is no longer held.
    fn gone(&self, paper: &Paper) -> Option<Offered> {
        let held = paper.held.as_ref()?;
        if self.slips.is_empty() || self.slips.iter().any(|slip| slip.id == held.slip) {
            return None;
        }
        let kind = self.pack.paper_kinds().iter().find(|kind| kind.id == paper.kind)?;
        Some(Offered {
            slip: held.slip.clone(),
            kind: paper.kind.clone(),
            title: paper.title.clone(),
            person: paper.owners.first().map(|owner| owner.person.clone()).unwrap_or_default(),
            source: String::new(),
            issued: held.on.to_string(),
            state: Stands::Gone,
            settled: false,
            paper: Some(paper.id.clone()),
            boxes: held::beside(kind, &Answers::new(), Some(&kind.told(paper))),
            lines: Vec::new(),
            reason: None,
        })
    }
}

fn source(source: Source) -> String {
    let json = serde_json::to_value(source).unwrap_or_default();
    json.as_str().unwrap_or_default().to_owned()
}

/// The slips of a fetch.
///
/// # Errors
/// When they cannot be read, which must not happen.
pub fn slips_of(fetch: &store::Fetch) -> Answer<Vec<Slip>> {
    serde_json::from_value(fetch.slips.clone()).map_err(Problem::internal)
}

/// A slip as it came, of a person of the household.
pub fn of_household(slip: wire::Slip, household: &Household) -> Option<Slip> {
    let number = digits(&slip.number);
    let is_it = |text: Option<&str>| text.is_some_and(|text| digits(text) == number);
    let person = household.people.iter().find(|person| is_it(person.id_number.as_deref()))?;
    let wire::Slip { id, kind, title, source, issued, boxes, rows, .. } = slip;
    Some(Slip { id, person: person.id.clone(), kind, title, source, issued, boxes, rows })
}

impl Table<'_> {
    /// The commands that settle slips.
    ///
    /// # Errors
    /// A slip that is not offered or cannot be used, or a reason that is missing.
    pub fn commands(&self, slips: &[String], how: Settling, reason: &str) -> Answer<Vec<Command>> {
        let reason = reason.trim();
        let needs_reason = matches!(how, Settling::Keep | Settling::Refuse);
        if needs_reason && (reason.is_empty() || reason.chars().count() > LONGEST_REASON) {
            let message = format!("Say why, in at most {LONGEST_REASON} letters.");
            return Err(Problem::invalid(vec![Fault::new("reason", message)]));
        }
        let papers = self.papers();
        let mut commands = Vec::new();
        let mut new = 0;
        for id in slips {
            if how == Settling::TakeUp && self.is_gone(id) {
                let unmarked = |paper: &Paper| Command::SetHeld { paper: paper.id.clone(), held: None };
                commands.extend(self.marked(id).map(unmarked));
                continue;
            }
            let slip =
                self.slips.iter().find(|slip| slip.id == *id).ok_or_else(|| Problem::not_found("slip"))?;
            let paper = papers.get(slip.id.as_str()).copied();
            match how {
                Settling::Take => {
                    if let Some(why) = self.unusable(slip) {
                        return Err(Problem::invalid(vec![Fault::new("slips", why)]));
                    }
                    commands.extend(self.take(slip, paper, &mut new));
                }
                Settling::Keep => {
                    let paper = paper.ok_or_else(|| Problem::not_found("paper for this slip"))?;
                    let held = Held { kept: Some(reason.into()), ..slip.held(self.on) };
                    commands.push(Command::SetHeld { paper: paper.id.clone(), held: Some(held) });
                }
                Settling::Refuse => commands.push(Command::RefuseSlip {
                    slip: slip.id.clone(),
                    reason: Some(reason.into()),
                    about: Some(self.fingerprint(slip)),
                }),
                Settling::TakeUp => {
                    let marked = paper.filter(|paper| paper.held.is_some());
                    commands
                        .extend(marked.map(|paper| Command::SetHeld { paper: paper.id.clone(), held: None }));
                    commands.push(Command::RefuseSlip { slip: slip.id.clone(), reason: None, about: None });
                }
            }
        }
        Ok(commands)
    }

    /// The paper that was taken from a slip.
    fn marked(&self, slip: &str) -> Option<&Paper> {
        let is_it = |paper: &&Paper| paper.held.as_ref().is_some_and(|held| held.slip == slip);
        self.household.papers.iter().find(is_it)
    }

    /// A slip that was taken is no longer held.
    fn is_gone(&self, slip: &str) -> bool {
        self.marked(slip).is_some() && !self.slips.iter().any(|one| one.id == slip)
    }

    /// A slip taken: into the paper that was keyed, or as a new one.
    fn take(&self, slip: &Slip, paper: Option<&Paper>, new: &mut usize) -> Vec<Command> {
        let held = slip.held(self.on);
        let again = self.household.refused.contains_key(&slip.id);
        let taken_up =
            again.then(|| Command::RefuseSlip { slip: slip.id.clone(), reason: None, about: None });
        let mut commands: Vec<Command> = taken_up.into_iter().collect();
        let Some(kind) = self.kind(slip) else { return commands };
        let Some(paper) = paper else {
            let id = self.free_id(new);
            commands.push(Command::AddPaper { paper: slip.paper(kind, &id, held) });
            return commands;
        };
        let boxes = held::beside(kind, &slip.boxes, Some(&kind.told(paper)));
        let apart = boxes.into_iter().filter(|of| !of.agrees);
        commands.extend(apart.map(|of| held::taking(kind, paper, &of.field, of.held)));
        let lines = held::lines(kind, &slip.rows, Some(paper));
        commands.extend(lines.iter().flat_map(|line| held::taking_line(kind, paper, line)));
        commands.push(Command::SetHeld { paper: paper.id.clone(), held: Some(held) });
        commands
    }

    /// An id that no paper has or had.
    fn free_id(&self, new: &mut usize) -> String {
        loop {
            *new += 1;
            let id = format!("held-{new}");
            if self.household.paper(&id).is_none() && !self.household.retired.contains(&id) {
                return id;
            }
        }
    }
}
