//! A household as the core asks for it: its returns, what they are made from, what is unsettled.

use crate::{
    forms, law,
    plan::{Filed, On},
    points::Points,
    provisional,
    returns::SouthAfricanCase,
};
use hembo_core::{
    Case, Point, Recorder, Scope, Way, forms::Required, line::LineId, pack::Return, search::View,
};

impl Case for SouthAfricanCase<'_> {
    fn returns(&self, _: &Way) -> Vec<Return> {
        let own = |person: usize| Return {
            people: vec![person],
            main: self.facts.people[person].filer,
            caption: "own return".into(),
        };
        self.facts.returns.iter().copied().map(own).collect()
    }

    fn record(&self, way: &Way) -> Recorder {
        let mut recorder = Recorder::default();
        let plan = self.plan(&View::of(way));
        let (_, incomes) = self.reckon(&plan, &mut recorder);
        for (&person, income) in self.facts.returns.iter().zip(&incomes) {
            provisional::record(On::of(&self.facts, &plan, person), &mut recorder, self.household, income);
        }
        recorder
    }

    fn points(&self, _: &Way, trail: &Recorder) -> Vec<Point> {
        let mut points = Points { facts: &self.facts, household: self.household, trail, found: Vec::new() };
        law::find(&mut points);
        points.found
    }

    fn counts(&self, _: &Way, _: LineId, _: Scope) -> bool {
        true
    }

    fn required(&self, form: &str, place: usize, way: &Way, trail: &Recorder) -> Required {
        let Some(&person) = self.facts.returns.get(place) else {
            return Required::No("no such return".into());
        };
        let plan = self.plan(&View::of(way));
        forms::required(form, Filed { on: On::of(&self.facts, &plan, person), trail })
    }
}
