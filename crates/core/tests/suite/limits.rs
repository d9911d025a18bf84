//! What must hold of every limit, and of everything that is read from outside.

use crate::common::{REGISTRY, file};
use hembo_core::{
    Recorder, Scope, file,
    limit::{self, LimitDef, PhaseOut},
};
use hembo_money::{Money, Rate, Rounding};
use proptest::prelude::*;
use serde_json::Value;

static LIMIT: LimitDef = LimitDef { id: "l", label: "L", how: "h", line: "x", cite: "c" };

fn rule(start: i64, step: i64, rate: i64, least: i64) -> PhaseOut {
    let step = (step > 0).then(|| (Money::whole(step), Rounding::Up));
    let continuous = PhaseOut::continuous(Money::whole(start), Rate::percent(rate), Money::WHOLE);
    PhaseOut { step, least: Money::whole(least), ..continuous }
}

proptest! {
    #[test]
    fn a_phase_out_never_grows_with_its_measure(
        entered in 0_i64..50_000,
        measures in (0_i64..900_000, 0_i64..900_000),
        start in 0_i64..500_000,
        step in prop::sample::select(vec![0_i64, 1, 50, 1_000]),
        rate in 1_i64..40,
        least in 0_i64..20_000,
    ) {
        let at = LIMIT.at(Scope::Return(0));
        let rule = rule(start, step, rate, least);
        let mut trail = Recorder::default();
        let mut at_measure = |m: i64| limit::phase_out(&mut trail, at, Money::whole(entered), Money::whole(m), rule);
        let (low, high) = (measures.0.min(measures.1), measures.0.max(measures.1));
        let (before, after) = (at_measure(low), at_measure(high));
        prop_assert!(after <= before && before <= Money::whole(entered));
        prop_assert!(after >= Money::whole(least.min(entered)));
        prop_assert_eq!(at_measure(start), Money::whole(entered));
        for (_, taken) in &trail.limits {
            prop_assert!(taken.edge.is_none_or(|e| !e.distance.is_negative()));
        }
    }

    #[test]
    fn up_to_the_next_edge_a_stepped_phase_out_does_not_move(entered in 1_i64..5_000, over in 0_i64..60_000) {
        let at = LIMIT.at(Scope::Return(0));
        let rule = rule(200_000, 1_000, 5, 0);
        let mut trail = Recorder::default();
        let measure = Money::whole(200_000 + over);
        let here = limit::phase_out(&mut trail, at, Money::whole(entered), measure, rule);
        if let Some(edge) = trail.limits[0].1.edge {
            let there = limit::phase_out(&mut trail, at, Money::whole(entered), edge.at, rule);
            prop_assert_eq!(here, there);
            let past = limit::phase_out(&mut trail, at, Money::whole(entered), edge.at + Money::CENT, rule);
            prop_assert!(past < here);
        } else {
            prop_assert_eq!(here, Money::ZERO);
        }
    }

    #[test]
    fn caps_and_floors_divide_what_came_in(entered in 0_i64..100_000, bound in 0_i64..100_000) {
        let at = LIMIT.at(Scope::Person(0));
        let (entered, bound) = (Money::whole(entered), Money::whole(bound));
        let mut trail = Recorder::default();
        let below = limit::cap(&mut trail, at, entered, bound);
        let above = limit::above(&mut trail, at, entered, bound);
        prop_assert_eq!(below + above, entered);
    }

    #[test]
    fn no_bytes_bring_the_reader_down(bytes in prop::collection::vec(any::<u8>(), 0..400)) {
        prop_assert!(file::read(&bytes, &REGISTRY).is_err());
    }

    #[test]
    fn a_file_with_one_value_replaced_is_read_or_refused(pick in any::<prop::sample::Index>(), with in 0_usize..8) {
        let odd = ["null", "true", "-1", "\"\"", "[]", "{}", "\"999999999999999999\"", "1e308"][with];
        let mut changed = file();
        let mut places = Vec::new();
        collect(&changed, String::new(), &mut places);
        let place = &places[pick.index(places.len())];
        *changed.pointer_mut(place).unwrap() = serde_json::from_str(odd).unwrap();
        match file::read(changed.to_string().as_bytes(), &REGISTRY) {
            Ok(household) => {
                let outcome = hembo_core::reckon(&household, &REGISTRY);
                prop_assert!(outcome.is_ok());
                // What was read is written as it was understood.
                let text = serde_json::to_vec(&household).unwrap();
                prop_assert_eq!(file::read(&text, &REGISTRY).unwrap(), household);
            }
            Err(faults) => prop_assert!(faults.iter().all(|f| !f.message.is_empty())),
        }
    }
}

/// Every place of a JSON document.
fn collect(value: &Value, at: String, places: &mut Vec<String>) {
    match value {
        Value::Object(map) => map.iter().for_each(|(k, v)| collect(v, format!("{at}/{k}"), places)),
        Value::Array(list) => {
            list.iter().enumerate().for_each(|(i, v)| collect(v, format!("{at}/{i}"), places))
        }
        _ => {}
    }
    if !at.is_empty() {
        places.push(at);
    }
}
