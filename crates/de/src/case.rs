//! A household as the core asks for it: its returns, what they are made from, what is unsettled.

use crate::{
    forms, law,
    plan::{Filed, On},
    points::Points,
    returns::GermanCase,
};
use hembo_core::{
    Case, Point, Recorder, Scope, Way, forms::Required, line::LineId, pack::Return, search::View,
};

impl Case for GermanCase<'_> {
    fn returns(&self, way: &Way) -> Vec<Return> {
        let plan = self.plan(&View::of(way));
        let one = |people: Vec<usize>| {
            let caption = if people.len() == 2 { "together" } else { "alone" };
            Return { people, main: true, caption: caption.into() }
        };
        self.assessed(&plan).into_iter().map(one).collect()
    }

    fn record(&self, way: &Way) -> Recorder {
        let mut recorder = Recorder::default();
        self.reckon(&self.plan(&View::of(way)), &mut recorder);
        recorder
    }

    fn points(&self, way: &Way, trail: &Recorder) -> Vec<Point> {
        let plan = self.plan(&View::of(way));
        let returns = self.assessed(&plan).len();
        let mut points =
            Points { facts: &self.facts, household: self.household, returns, trail, found: Vec::new() };
        law::find(&mut points);
        points.found
    }

    fn counts(&self, _: &Way, _: LineId, _: Scope) -> bool {
        true
    }

    fn required(&self, form: &str, place: usize, way: &Way, trail: &Recorder) -> Required {
        let plan = self.plan(&View::of(way));
        let assessed = self.assessed(&plan);
        let Some(people) = assessed.get(place) else { return Required::No("no such return".into()) };
        let on = On { facts: &self.facts, plan: &plan, people, scope: Scope::Return(place) };
        forms::required(form, Filed { on, trail })
    }
}
