//! From a file to what people read, in a country of the tests' own.
#![allow(missing_docs, clippy::unwrap_used, clippy::type_complexity)]

mod common;

use common::{REGISTRY, file};
use hembo_core::{
    Household, effect, file, household::Dismissal, outcome::LineInput, reckon, schema, search::Stop,
};
use hembo_money::Money;

fn household() -> Household {
    file::read(file().to_string().as_bytes(), &REGISTRY).unwrap()
}

#[test]
fn the_outcome_tells_where_every_figure_comes_from() {
    let outcome = reckon(&household(), &REGISTRY).unwrap();
    assert_eq!(outcome.total, Money::whole(170)); // 20 % of 1,000 − 100, less the bonus of 10
    assert_eq!((outcome.lawful_ways, outcome.ways[1].more), (2, Money::whole(10)));
    assert_eq!(outcome.ways[1].name, "Waived");
    let limit = &outcome.limits[0];
    assert_eq!(
        (limit.entered, limit.allowed, limit.lost),
        (Money::whole(150), Money::whole(100), Money::whole(50))
    );
    let gifts = &outcome.spread[0].rows[1];
    assert_eq!(gifts.together.as_ref().unwrap().lost, Money::whole(50));
    assert_eq!(gifts.papers, 1);
    let line = outcome.lines.iter().find(|l| l.id == "at.gifts").unwrap();
    let LineInput::Box { paper, row, label, .. } = &line.inputs[1] else { panic!("{line:?}") };
    assert_eq!((paper.as_str(), row.as_deref(), label.as_str()), ("gifts", Some("r2"), "Gifts · 2025-05-01"));
    let pay = &outcome.papers[0];
    assert_eq!((pay.amount, pay.feeds[0].line.as_str()), (Money::whole(1_000), "at.pay"));
    assert_eq!(outcome.papers[1].amount, Money::whole(150));
    // The year ends on 31 March: Ada turns 36 on its last day.
    assert_eq!(outcome.columns[0].caption, "36 · filer");
    // What blocks stands first; what was put aside stands last.
    assert_eq!(outcome.points[0].id, "block:ada/sailor");
    let mut aside = household();
    aside.dismissed.insert("look:isle".into(), Dismissal { reason: "asked".into(), about: None });
    aside.dismissed.insert("block:ada/sailor".into(), Dismissal { reason: "never mind".into(), about: None });
    let points = reckon(&aside, &REGISTRY).unwrap().points;
    assert_eq!(points[1].dismissed.as_deref(), Some("asked"));
    assert_eq!(points[0].dismissed, None, "what blocks cannot be put aside");
    assert!(outcome.without_trail().lines.iter().all(|l| l.inputs.is_empty()));
}

#[test]
fn pins_are_held_and_priced() {
    let mut pinned = household();
    pinned.pins.insert("at.bonus".into(), "waive".into());
    pinned.pins.insert("at.gone".into(), "x".into());
    let outcome = reckon(&pinned, &REGISTRY).unwrap();
    assert_eq!((outcome.total, outcome.lowest), (Money::whole(180), Money::whole(170)));
    assert_eq!((outcome.holding_ways, outcome.lawful_ways), (1, 2));
    let decision = &outcome.decisions[0];
    assert_eq!(decision.pinned.as_deref(), Some("waive"));
    assert_eq!(decision.options[0].more, Some(Money::whole(-10)));
    assert_eq!(decision.worth, Money::whole(10));
}

#[test]
fn effects_are_the_same_computation_on_a_changed_copy() {
    let found = effect::of_paper(&household(), &REGISTRY, "pay", Money::whole(50), &Stop::default()).unwrap();
    assert_eq!((found.with_more, found.without), (Some(Money::whole(10)), Money::whole(-180)));
    let list =
        effect::of_paper(&household(), &REGISTRY, "gifts", Money::whole(50), &Stop::default()).unwrap();
    assert_eq!((list.with_more, list.without), (None, Money::whole(20)));
    assert!(effect::of_paper(&household(), &REGISTRY, "none", Money::CENT, &Stop::default()).is_none());
    let curve = effect::curve(&household(), &REGISTRY, "pay", "pay", 10, &Stop::default());
    assert_eq!(
        (curve.len(), curve[10].amount, curve[10].next_hundred),
        (11, Money::whole(100_000), Money::whole(20))
    );
}

#[test]
fn the_schema_describes_every_declared_field() {
    let schema = schema::household(&REGISTRY);
    let papers = schema.pointer("/oneOf/0/properties/papers/items/oneOf").unwrap().as_array().unwrap();
    assert_eq!(papers.len(), 3);
    assert_eq!(papers[0].pointer("/properties/boxes/properties/days/maximum").unwrap(), 366);
    assert!(
        papers[1].pointer("/properties/rows").is_some() && papers[0].pointer("/properties/rows").is_none()
    );
    assert_eq!(schema.pointer("/oneOf/0/properties/country/const").unwrap(), "atoll");
}
