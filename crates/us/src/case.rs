//! A household as the core asks for it: its returns, what they are made from, what is unsettled.

use crate::{
    california, forms, law,
    points::Points,
    returns::FederalCase,
    standard_deduction,
    unit::{Filed, Unit},
};
use hembo_core::{
    Case, Point, Recorder, Scope, Way, drawn::Drawn, forms::Required, line::LineId, pack::Return,
    search::View,
};

impl Case for FederalCase<'_> {
    fn returns(&self, way: &Way) -> Vec<Return> {
        let view = &View::of(way);
        let about = |(_, unit): (usize, Unit)| Return {
            caption: match (unit.main, unit.of_state.alone) {
                (true, _) => unit.status.label().into(),
                (false, true) => "own return to California".into(),
                (false, false) => "own return".into(),
            },
            people: unit.people,
            main: unit.main,
        };
        self.units(view).into_iter().map(about).collect()
    }

    fn record(&self, way: &Way) -> Recorder {
        let mut recorder = Recorder::default();
        for (place, (_, unit)) in self.units(&View::of(way)).iter().enumerate() {
            self.reckon(unit, place, &mut recorder);
        }
        recorder
    }

    fn points(&self, way: &Way, trail: &Recorder) -> Vec<Point> {
        let units: Vec<Unit> = self.units(&View::of(way)).into_iter().map(|(_, unit)| unit).collect();
        let (facts, household) = (self.facts_of(&units), self.household);
        let mut points = Points { facts, household, units: &units, trail, found: Vec::new() };
        law::find(&mut points);
        points.found
    }

    /// The months of health cover, where a state asks for them.
    fn drawn(&self, way: &Way) -> Vec<(usize, Drawn)> {
        if self.facts.of_state.as_ref().is_none_or(|of| of.cover.is_empty()) {
            return Vec::new();
        }
        let units: Vec<Unit> = self.units(&View::of(way)).into_iter().map(|(_, unit)| unit).collect();
        california::cover::drawn(&self.facts, self.household, &units, &self.record(way))
    }

    /// Schedule A counts where the return itemizes, the standard deduction where it does not.
    fn counts(&self, way: &Way, line: LineId, scope: Scope) -> bool {
        let Scope::Return(place) = scope else { return true };
        let units = self.units(&View::of(way));
        let takes = units.get(place).map(|(_, unit)| (unit.itemizes, unit.of_state.itemizes));
        let (itemizes, of_state) = takes.unwrap_or_default();
        match line {
            standard_deduction::STANDARD => !itemizes,
            _ if line.starts_with("us.sched_a.") => itemizes,
            california::itemized::STANDARD => !of_state,
            _ if line.starts_with("us.ca.sca2.") => of_state,
            _ => true,
        }
    }

    fn required(&self, form: &str, place: usize, way: &Way, trail: &Recorder) -> Required {
        let units = self.units(&View::of(way));
        let Some((_, unit)) = units.get(place) else { return Required::No("no such return".into()) };
        let on = self.on(unit, place);
        forms::required(form, Filed { on, trail })
    }
}
