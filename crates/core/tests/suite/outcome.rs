//! From a file to what people read, in a country of the tests' own.

use crate::common::{REGISTRY, file};
use hembo_core::{
    Household, Outcome, asking, effect, file,
    forms::Forms,
    household::Dismissal,
    outcome::{
        Beside, ComparedRow, LineInput, MOST_COLUMNS, Standing, Wanted, compared, reckon_until, trail,
    },
    reckon, schema,
    search::Stop,
};
use hembo_money::Money;
use serde_json::json;
use std::collections::BTreeMap;

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

/// Of ways with the same tax the one is chosen that is as last year's, then that with fewer forms, then the first.
#[test]
fn the_simpler_of_equal_ways_is_chosen() {
    let mut here = household();
    let taken = |of: &Household| {
        let outcome = reckon_until(of, &REGISTRY, Wanted::least(1), &Stop::default()).unwrap();
        assert_eq!((outcome.ways.len(), outcome.total), (1, outcome.lowest));
        outcome.ways[0].options["at.bonus"].clone()
    };
    assert_eq!(taken(&here), "keep");
    here.answers.insert("isle".into(), serde_json::from_value(json!("north")).unwrap());
    assert_eq!(taken(&here), "later", "who waives the bonus has a sheet more");
    let last_year = |option: &str| {
        let before = json!({ "year": 2024, "taken": { "at.bonus": option } });
        Household { before: serde_json::from_value(before).unwrap(), ..here.clone() }
    };
    assert_eq!(taken(&last_year("waive")), "waive");
    assert_eq!(taken(&last_year("keep")), "later", "it costs");
    let outcome = reckon(&last_year("waive"), &REGISTRY).unwrap();
    assert_eq!((outcome.together.as_str(), outcome.ways[1].more), ("Waived", Money::ZERO));
    here.people[0].answers.insert("sailor".into(), serde_json::from_value(json!(true)).unwrap());
    assert_eq!(taken(&here), "waive", "sailors have no sheet");
}

#[test]
fn effects_are_the_same_computation_on_a_changed_copy() {
    let found = effect::of_paper(&household(), &REGISTRY, "pay", Money::whole(50), &Stop::default()).unwrap();
    assert_eq!((found.with_more, found.without), (Some(Money::whole(10)), Money::whole(-180)));
    let list =
        effect::of_paper(&household(), &REGISTRY, "gifts", Money::whole(50), &Stop::default()).unwrap();
    assert_eq!((list.with_more, list.without), (None, Money::whole(20)));
    assert!(effect::of_paper(&household(), &REGISTRY, "none", Money::CENT, &Stop::default()).is_none());
    let spot = effect::Spot { paper: "pay", row: None, field: "pay" };
    let curve = effect::curve(&household(), &REGISTRY, spot, &BTreeMap::new(), 10, &Stop::default());
    assert_eq!(
        (curve.points.len(), curve.points[10].amount, curve.points[10].next_hundred),
        (11, Money::whole(100_000), Money::whole(20))
    );
}

/// A question is asked first where an answer would change something; a blank is told as it is read.
#[test]
fn answers_tell_what_they_would_do() {
    let stop = Stop::default();
    let asked = asking::asked(&household(), &REGISTRY, Some("ada"), &stop);
    let ids: Vec<_> = asked.iter().map(|a| a.field.as_str()).collect();
    assert!(ids.contains(&"sailor"), "{ids:?}");
    for question in &asked {
        let change = |a: &asking::Answered| a.total.is_some_and(|t| !t.is_zero()) || a.settles + a.raises > 0;
        assert_eq!(question.decides, question.answers.is_empty() || question.answers.iter().any(change));
    }
    assert!(asking::asked(&household(), &REGISTRY, Some("nobody"), &stop).is_empty());
    let blanks = reckon(&household(), &REGISTRY).unwrap().blanks;
    assert!(blanks.iter().all(|b| ["No", "0", "none"].contains(&b.read_as.as_str())), "{blanks:?}");
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

#[test]
fn the_official_forms_of_the_chosen_way() {
    let outcome = reckon(&household(), &REGISTRY).unwrap();
    let [of_return] = &outcome.schedules[..] else { panic!("{:?}", outcome.schedules) };
    assert_eq!((of_return.scope.as_str(), of_return.whose.as_str()), ("return/0", "Ada Reef · own"));
    let [form, gifts] = &of_return.forms[..] else { panic!("{of_return:?}") };
    let rows: Vec<_> = form.rows.iter().map(|r| (r.number.as_str(), r.amount, r.lost)).collect();
    let whole = |amount| Some(Money::whole(amount));
    let expected = [
        ("1", whole(1_000), Money::ZERO),
        ("2", whole(100), Money::whole(50)),
        ("3", whole(170), Money::ZERO),
    ];
    assert_eq!(rows, expected);
    // The return repeats the sheet on which gifts stand on their own.
    assert_eq!(form.rows[1].from.as_deref(), Some("gifts"));
    assert!(gifts.required && form.rows[2].result && form.rows[0].from.is_none());
    assert_eq!(outcome.lines.iter().find(|l| l.id == "at.gifts").unwrap().place, "Gift sheet, line 1");

    let mut without = household();
    without.papers.remove(1);
    let outcome = reckon(&without, &REGISTRY).unwrap();
    let gifts = &outcome.schedules[0].forms[1];
    assert_eq!((gifts.required, gifts.why_not.as_str(), gifts.rows.len()), (false, "no gifts", 0));
}

#[test]
fn forms_tell_what_is_wrong_with_them() {
    let line = |number: &str, line: &str| json!({ "number": number, "title": "", "line": line });
    let sheet = json!({ "id": "x", "name": "Sheet", "title": "", "lines": [line("1", "at.pay"), line("1", "at.none")] });
    let forms: Forms = serde_json::from_value(json!({ "year": 2025, "form": [sheet] })).unwrap();
    let faults = forms.faults(REGISTRY.pack("atoll").unwrap().declared(), ["at.pay", "at.tax"]);
    let expected = ["shows no line at.none", "the number 1 stands twice", "at.tax stands on no form"];
    assert_eq!(faults.len(), 3, "{faults:?}");
    assert!(faults.iter().zip(expected).all(|(fault, words)| fault.contains(words)), "{faults:?}");
}

#[test]
fn a_trail_is_the_lines_around_one() {
    let outcome = reckon(&household(), &REGISTRY).unwrap();
    let around = |line, steps| {
        let found = trail(&outcome.lines, line, &["return/0"], steps);
        found.into_iter().map(|l| l.id.as_str()).collect::<Vec<_>>()
    };
    assert_eq!(around("at.tax", 0), ["at.tax"]);
    assert_eq!(around("at.tax", 1), ["at.pay", "at.gifts", "at.tax"]);
    assert_eq!(around("at.pay", 0), ["at.pay", "at.tax"]);
    assert_eq!(trail(&outcome.lines, "at.tax", &["return/1"], 2).len(), 0);
}

#[test]
fn ways_of_choice_stand_side_by_side() {
    let household = household();
    let all = reckon(&household, &REGISTRY).unwrap();
    let (chosen, last) = (all.ways.first().unwrap(), all.ways.last().unwrap());
    let beside = |ways: Vec<BTreeMap<String, String>>, all_rows: bool| {
        compared(&household, &REGISTRY, &Beside { ways, all_rows }, &Stop::default()).unwrap()
    };
    let gone = BTreeMap::from([("gone".to_owned(), "x".to_owned())]);
    let two = beside(vec![gone, last.options.clone()], false);
    let columns: Vec<_> = two.ways.iter().map(|way| (way.standing, way.total, &way.options)).collect();
    assert_eq!(
        columns,
        [(Standing::Lowest, chosen.total, &chosen.options), (Standing::Beside, last.total, &last.options)]
    );
    assert_eq!(two.ways[1].more, last.total - chosen.total);
    // Every row has its columns, and all rows are more than those that differ.
    let whole = beside(vec![last.options.clone()], true);
    assert!(two.rows.iter().chain(&whole.rows).all(|row| row.amounts.len() == 2));
    let lines = |rows: &[ComparedRow]| rows.iter().filter(|row| !row.line.is_empty()).count();
    assert!(lines(&whole.rows) > lines(&two.rows));
    assert_eq!(beside(vec![last.options.clone(); 7], false).ways.len(), MOST_COLUMNS);
    assert_eq!(beside(Vec::new(), false).ways.len(), 1);
}

#[test]
fn only_what_is_wanted_is_computed() {
    let least = reckon_until(&household(), &REGISTRY, Wanted::least(24), &Stop::default()).unwrap();
    assert!(least.compared.ways.is_empty() && least.schedules.is_empty() && !least.lines.is_empty());
    let all = reckon(&household(), &REGISTRY).unwrap();
    assert_eq!(Outcome { compared: Default::default(), schedules: Vec::new(), ..all }, least);
    let [authority] = &least.authorities[..] else { panic!("{:?}", least.authorities) };
    assert_eq!((authority.name.as_str(), authority.total), ("atoll", least.total));
}
