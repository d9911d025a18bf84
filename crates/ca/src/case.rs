//! A household as the core asks for it: its returns, what they are made from, what is unsettled.

use crate::{
    discount_note, family_benefits, forms, law, medical_shown,
    plan::{Filed, On},
    points::Points,
    returns::CanadianCase,
    shares,
};
use hembo_core::{
    Case, Point, Recorder, Scope, Way, drawn::Drawn, forms::Required, line::LineId, pack::Return,
    search::View,
};

impl Case for CanadianCase<'_> {
    fn returns(&self, _: &Way) -> Vec<Return> {
        let own = |person: usize| Return { people: vec![person], main: true, caption: "own return".into() };
        self.facts.returns.iter().copied().map(own).collect()
    }

    fn record(&self, way: &Way) -> Recorder {
        let mut recorder = Recorder::default();
        self.reckon(&View::of(way), &mut recorder);
        family_benefits::record(&self.facts, &mut recorder);
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

    fn drawn(&self, way: &Way) -> Vec<(usize, Drawn)> {
        let (household, facts) = (self.household, &self.facts);
        let plan = self.plan(&View::of(way));
        let of_medical = medical_shown::drawn(facts, plan.medical.as_ref());
        [shares::drawn(household, facts), discount_note::drawn(household, facts), of_medical].concat()
    }

    fn required(&self, form: &str, place: usize, way: &Way, trail: &Recorder) -> Required {
        let Some(&person) = self.facts.returns.get(place) else {
            return Required::No("no such return".into());
        };
        let plan = self.plan(&View::of(way));
        let on = On { facts: &self.facts, plan: &plan, person, scope: Scope::Return(place) };
        forms::required(form, Filed { on, trail })
    }
}
