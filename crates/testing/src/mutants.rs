//! Mutants of a law's choices: the law with one option dropped, with the bars of one decision turned round, or with one edge untold. The
//! search over a mutant must come to another result for some household: else no comparison of totals would notice such a mistake. Most edges
//! lie where nothing hangs on them; without some of them the search goes wrong.

use hembo_core::{
    Household, Pack, Way,
    decision::{Bar, Decision},
    search::{Edges, Law, Stop, Tally, View, Weighable, search},
};
use hembo_money::Money;
use serde_json::Value;
use std::{
    collections::{BTreeMap, BTreeSet},
    fs,
    panic::Location,
    path::Path,
};

/// What rounded lines add up to: so near two results are the same.
const ROUNDING: i64 = 8;

/// Of how many households one has its edges left untold: each edge costs a search.
const EDGES_OF_EACH: usize = 10;

/// A place in the rules, as it is told.
type Edge = &'static Location<'static>;

/// One change of the law.
#[derive(Debug, Clone, Copy)]
enum Change {
    /// An option is barred; of an amount at most a half is open.
    Dropped { decision: usize, option: usize },
    /// What is open is barred, and what is barred is open.
    Inverted { decision: usize },
    /// The edge of a place is not told.
    Untold { edge: Edge },
}

struct Mutant<'a> {
    case: &'a dyn Weighable,
    change: Change,
}

impl Mutant<'_> {
    fn without(&self, edges: &mut Edges) {
        if let Change::Untold { edge } = self.change {
            edges.forget(edge);
        }
    }
}

impl Weighable for Mutant<'_> {
    fn decisions(&self) -> &[Decision] {
        self.case.decisions()
    }

    fn law(&self, decision: usize, view: &View<'_>) -> Law {
        let law = self.case.law(decision, view);
        let Law::Open(mut bars) = law else { return law };
        match self.change {
            Change::Dropped { decision: of, option } if of == decision && !bars.is_empty() => {
                bars[option].get_or_insert(Bar::Borrowed("dropped"));
            }
            Change::Inverted { decision: of } if of == decision => {
                let turned = |bar: Option<Bar>| bar.map_or(Some(Bar::Borrowed("turned")), |_| None);
                bars = bars.into_iter().map(turned).collect();
            }
            _ => {}
        }
        Law::Open(bars)
    }

    fn most(&self, decision: usize, view: &View<'_>) -> Money {
        match self.change {
            Change::Dropped { decision: of, .. } if of == decision => {
                Money::from_cents(self.case.most(decision, view).cents() / 2)
            }
            _ => self.case.most(decision, view),
        }
    }

    fn jump(&self) -> Money {
        self.case.jump()
    }

    fn parts(&self) -> usize {
        self.case.parts()
    }

    fn total(&self, part: usize, view: &View<'_>) -> Money {
        self.case.total(part, view)
    }

    fn total_with_edges(&self, part: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let total = self.case.total_with_edges(part, view, edges);
        self.without(edges);
        total
    }

    fn worlds(&self) -> usize {
        self.case.worlds()
    }

    fn total_in_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        let total = self.case.total_in_world(world, view, edges);
        self.without(edges);
        total
    }

    fn inside_world(&self, world: usize, view: &View<'_>, edges: &mut Edges) -> Money {
        self.case.inside_world(world, view, edges)
    }

    fn leads_out_of_world(&self, world: usize, view: &View<'_>, decision: usize) -> bool {
        self.case.leads_out_of_world(world, view, decision)
    }

    fn moves_inside(&self, decision: usize) -> bool {
        self.case.moves_inside(decision)
    }

    fn tally(&self, tally: usize) -> Tally {
        self.case.tally(tally)
    }
}

/// What the households of a test noticed.
#[derive(Debug, Default)]
pub struct Noticed {
    /// The kinds of decisions that arose, and those that change the tax.
    met: BTreeSet<String>,
    weighed: BTreeSet<String>,
    /// Those of which a dropped option was noticed.
    dropped: BTreeSet<String>,
    /// Those of which some option was barred, and those whose turned bars were noticed.
    barred: BTreeSet<String>,
    inverted: BTreeSet<String>,
    /// Which edges were told, and which were noticed to be missing.
    told: BTreeMap<String, bool>,
}

impl Noticed {
    /// Looks at a household: each change of each decision that it has, and of each edge where `edges` is said.
    fn look(&mut self, household: &Household, case: &dyn Weighable, edges: bool) {
        let Some((way, lowest)) = lowest(case).filter(|(_, lowest)| lowest.1) else { return };
        let differs = |change: Change| {
            let found = self::lowest(&Mutant { case, change });
            found.is_none_or(|(_, (total, _))| (total - lowest.0).cents().abs() > ROUNDING)
        };
        for (decision, about) in case.decisions().iter().enumerate() {
            if way.0.get(decision).copied().flatten().is_none() {
                continue;
            }
            let kind = kind(household, &about.id);
            self.met.insert(kind.clone());
            // What costs the same whichever is taken changes no tax.
            if about.neutral {
                continue;
            }
            self.weighed.insert(kind.clone());
            let option = way.taken(decision).unwrap_or_default();
            if !self.dropped.contains(&kind) && differs(Change::Dropped { decision, option }) {
                self.dropped.insert(kind.clone());
            }
            let Law::Open(bars) = case.law(decision, &View::of(&way)) else { continue };
            let barred = bars.iter().filter(|bar| bar.is_some()).count();
            if barred > 0 && barred < bars.len() {
                self.barred.insert(kind.clone());
                if !self.inverted.contains(&kind) && differs(Change::Inverted { decision }) {
                    self.inverted.insert(kind);
                }
            }
        }
        if edges && case.decisions().iter().any(|d| d.amount.is_some()) {
            for edge in told_at(case, &way) {
                let noticed = self.told.entry(edge.to_string()).or_default();
                if !*noticed {
                    *noticed = differs(Change::Untold { edge });
                }
            }
        }
    }

    /// What nobody noticed, in words.
    pub fn unnoticed(&self) -> Vec<String> {
        let of = |what: &str, all: &BTreeSet<String>, noticed: &BTreeSet<String>| -> Vec<String> {
            all.difference(noticed).map(|kind| format!("{what} of {kind}")).collect()
        };
        let dropped = of("a dropped option", &self.weighed, &self.dropped);
        let inverted = of("turned bars", &self.barred, &self.inverted);
        [dropped, inverted].concat()
    }

    /// How many kinds of decisions arose.
    pub fn kinds(&self) -> &BTreeSet<String> {
        &self.met
    }

    /// Of the edges that were told how many were noticed to be missing.
    pub fn edges(&self) -> &BTreeMap<String, bool> {
        &self.told
    }
}

/// The lowest way with its total, and whether every way was weighed; nothing where no way is lawful.
fn lowest(case: &dyn Weighable) -> Option<(Way, (Money, bool))> {
    let weighed = search(case, &BTreeMap::new(), 1, &Stop::default()).ok()?;
    let complete = weighed.complete;
    weighed.ranking.into_iter().next().map(|ranked| (ranked.way, (ranked.total, complete)))
}

/// The places of all edges that a way tells.
fn told_at(case: &dyn Weighable, way: &Way) -> Vec<Edge> {
    let mut edges = Edges::default();
    for part in 0..case.parts() {
        case.total_with_edges(part, &View::of(way), &mut edges);
    }
    let mut places: Vec<Edge> = edges.places().collect();
    places.sort_unstable_by_key(|place| (place.file(), place.line(), place.column()));
    places.dedup();
    places
}

/// A decision without the person or thing that it is about.
fn kind(household: &Household, id: &str) -> String {
    let about = |part: &str| {
        household.people.iter().any(|person| person.id == part)
            || household.papers.iter().any(|paper| paper.id == part)
            || part.trim_start_matches('r').parse::<u32>().is_ok()
    };
    // The first two parts are the law's own.
    let parts = id.split('.').enumerate().filter(|(place, part)| *place < 2 || !about(part));
    parts.map(|(_, part)| part).collect::<Vec<_>>().join(".")
}

/// What these households notice; of every tenth the edges, too.
pub fn noticed(pack: &dyn Pack, households: impl Iterator<Item = Household>) -> Noticed {
    let mut noticed = Noticed::default();
    for (number, household) in households.enumerate() {
        noticed.look(&household, &*pack.open(&household), number % EDGES_OF_EACH == 0);
    }
    noticed
}

/// The households of worked cases and of the demonstration, as files of folders beside a crate.
pub fn written(beside: &str, folders: &[&str]) -> impl Iterator<Item = Value> {
    let files = |folder: &&str| -> Vec<_> {
        let entries = fs::read_dir(Path::new(beside).join(folder)).unwrap();
        let mut files: Vec<_> = entries.map(|entry| entry.unwrap().path()).collect();
        files.sort();
        files
    };
    let read = |path| serde_json::from_str::<Value>(&fs::read_to_string(path).unwrap()).unwrap();
    let all: Vec<_> = folders.iter().flat_map(files).collect();
    all.into_iter().map(read).map(|file| file.get("household").cloned().unwrap_or(file))
}
