//! How long the outcome of a country with very many lines takes: it must grow with their number and no faster.
#![allow(missing_docs, clippy::float_arithmetic)]

#[path = "../tests/suite/common.rs"]
#[allow(dead_code, clippy::unwrap_used)]
mod common;

use common::Atoll;
use hembo_core::{
    Case, Decision, Household, Pack, Paper, Person, Point, Recorder, Registry, Scope, Silent, Trail, Way,
    figures::Replacement,
    file,
    forms::{Forms, Required},
    line::{LineDef, LineId, SpreadRow, SpreadSection},
    pack::{About, Return, Suggestion, Totals},
    provision::{Declared, Provision},
    reckon,
    search::{Law, View, Weighable},
};
use hembo_money::Money;
use hembo_testing::median;
use serde_json::json;
use std::{
    hint::black_box,
    sync::{Arc, LazyLock},
};
use time::Date;

/// A country where a return has so many lines, each made from the one before.
struct Wide<const LINES: usize>;

static NAMES: LazyLock<Vec<&'static str>> =
    LazyLock::new(|| (0..6_000).map(|i| &*format!("wide.{i}").leak()).collect());

static SPREAD: LazyLock<[SpreadSection; 1]> = LazyLock::new(|| {
    let rows = NAMES[..100].iter().map(|name| SpreadRow::new(name, Some(name), name));
    [SpreadSection { title: "All", folds: false, rows: rows.collect::<Vec<_>>().leak() }]
});

impl<const LINES: usize> Pack for Wide<LINES> {
    fn keeping(&self, _: i32) -> hembo_core::paper::Keeping {
        hembo_core::paper::Keeping { until: String::new(), cite: "" }
    }

    fn about(&self) -> About {
        Atoll.about()
    }
    fn years(&self) -> Vec<i32> {
        Atoll.years()
    }
    fn span(&self, year: i32) -> (Date, Date) {
        Atoll.span(year)
    }
    fn rules(&self) -> &[(i32, toml::Table)] {
        &[]
    }
    fn with(&self, replaced: &[Replacement]) -> Result<Arc<dyn Pack>, String> {
        Atoll.with(replaced)
    }
    fn declared(&self) -> &'static Declared {
        static ALL: LazyLock<Declared> = LazyLock::new(|| {
            let line = |id: &&'static str| LineDef { id, label: id, cite: "Act", how: "The one before." };
            let lines = NAMES.iter().map(line).collect::<Vec<_>>().leak();
            Declared::of([&Provision { lines, ..Provision::NONE }])
        });
        &ALL
    }
    fn forms(&self, year: i32) -> &'static Forms {
        Atoll.forms(year)
    }
    fn spread(&self) -> &'static [SpreadSection] {
        &*SPREAD
    }
    fn totals(&self) -> &'static [Totals] {
        static TOTALS: LazyLock<Vec<Totals>> = LazyLock::new(|| {
            let of = |tax| Totals { authority: "wide", tax, paid: "wide.paid", balance: "wide.balance" };
            NAMES.iter().copied().map(of).collect()
        });
        &TOTALS[LINES - 1..LINES]
    }
    fn check_id_number(&self, number: &str) -> Result<(), &'static str> {
        Atoll.check_id_number(number)
    }
    fn locality(&self, household: &Household) -> String {
        Atoll.locality(household)
    }
    fn caption(&self, person: &Person) -> String {
        Atoll.caption(person)
    }
    fn suggestions(&self, household: &Household, paper: &Paper) -> Vec<Suggestion> {
        Atoll.suggestions(household, paper)
    }
    fn version(&self) -> &str {
        "bench"
    }
    fn open<'h>(&self, household: &'h Household) -> Box<dyn Case + 'h> {
        Box::new(Family::<LINES>(household.people.len()))
    }
}

/// So many people, each with every line.
struct Family<const LINES: usize>(usize);

impl<const LINES: usize> Family<LINES> {
    fn reckon(&self, trail: &mut impl Trail) -> Money {
        (0..self.0).map(|person| self.person(Scope::Person(person), trail)).sum()
    }

    fn person(&self, scope: Scope, trail: &mut impl Trail) -> Money {
        let mut before = Money::CENT;
        for pair in NAMES[..LINES].windows(2) {
            before = trail.line(pair[1], scope, before + Money::CENT, |i| {
                i.line(pair[0], scope, before);
            });
        }
        before
    }
}

impl<const LINES: usize> Weighable for Family<LINES> {
    fn decisions(&self) -> &[Decision] {
        &[]
    }
    fn law(&self, _: usize, _: &View<'_>) -> Law {
        Law::Closed
    }
    fn parts(&self) -> usize {
        1
    }
    fn total(&self, _: usize, _: &View<'_>) -> Money {
        self.reckon(&mut Silent)
    }
}

impl<const LINES: usize> Case for Family<LINES> {
    fn returns(&self, _: &Way) -> Vec<Return> {
        vec![Return { people: (0..self.0).collect(), main: true, caption: "own".into() }]
    }
    fn record(&self, _: &Way) -> Recorder {
        let mut recorder = Recorder::default();
        self.reckon(&mut recorder);
        recorder
    }
    fn points(&self, _: &Way, _: &Recorder) -> Vec<Point> {
        Vec::new()
    }
    fn counts(&self, _: &Way, _: LineId, _: Scope) -> bool {
        true
    }
    fn required(&self, _: &str, _: usize, _: &Way, _: &Recorder) -> Required {
        Required::Yes
    }
}

fn seconds<const LINES: usize>() -> f64 {
    let registry = Registry::of([Arc::new(Wide::<LINES>)]);
    let people: Vec<_> = [("ada", "filer"), ("bo", "filer"), ("cy", "dependent"), ("di", "dependent")]
        .map(|(id, role)| json!({ "id": id, "name": id, "role": role, "born": "1990-03-31" }))
        .into();
    let family = json!({ "hembo": 1, "country": "atoll", "year": 2025, "name": "Reef", "people": people });
    let family = file::read(family.to_string().as_bytes(), &registry).expect("the household is right");
    median(21, || drop(black_box(reckon(&family, &registry))))
}

fn main() {
    let found = [(375, seconds::<375>()), (1_500, seconds::<1_500>()), (6_000, seconds::<6_000>())];
    for (lines, seconds) in found {
        println!("outcome, {lines} lines of four people: {:.2} ms", seconds * 1e3);
    }
}
