//! What a box is: where it goes, by which rule, and an example.

use hembo_core::{
    Household, Registry,
    about_box::{AboutBox, about_box},
    file,
    household::Entry,
    point::Place,
    search::Stop,
};
use hembo_money::Money;
use std::sync::Arc;

fn registry() -> Registry {
    Registry::of([Arc::new(hembo_us::UnitedStates::COMMITTED)])
}

fn vreeland() -> Household {
    file::read(include_bytes!("../../../../demo/us/vreeland-mbeki.json"), &registry()).unwrap()
}

fn told(household: &Household, at: &Place) -> Option<AboutBox> {
    about_box(household, &registry(), at, &Stop::default())
}

fn first_paper<'h>(household: &'h Household, kind: &str) -> &'h str {
    household.papers.iter().find(|paper| paper.kind == kind).map(|paper| paper.id.as_str()).unwrap()
}

#[test]
fn a_box_with_an_amount_says_its_line_its_rule_and_what_a_thousand_more_does() {
    let household = vreeland();
    let at = Place::paper(first_paper(&household, "W-2"), "1");
    let about = told(&household, &at).unwrap();
    let now = household.paper(at.paper.as_deref().unwrap()).unwrap().amount("1");
    assert_eq!(about.example, Some(Entry::Text((now + Money::whole(1_000)).to_string())));
    assert!(about.direct);
    let wages = about.lines.iter().find(|line| line.place == "Form 1040, line 1a").unwrap();
    assert!(!wages.cite.is_empty() && !wages.how.is_empty());
    // In the bracket of 22 % a thousand more of wages costs 220.
    assert_eq!(about.total, Some(Money::whole(220)));
}

#[test]
fn a_box_that_goes_to_no_line_says_what_it_moves_and_words_say_nothing() {
    let household = vreeland();
    // Of a question what its other answer moves.
    let about = told(&household, &Place::person("osric", "blind")).unwrap();
    assert_eq!(about.example, Some(Entry::Flag(true)));
    assert!(!about.direct && !about.lines.is_empty());
    let number = told(&household, &Place::paper(first_paper(&household, "W-2"), "b")).unwrap();
    assert_eq!((number.example, number.lines.len()), (None, 0));
}

#[test]
fn a_line_that_is_not_stored_yet_and_a_day_are_tried_as_well() {
    let household = vreeland();
    let gifts = first_paper(&household, "Gifts").to_owned();
    let at = Place { paper: Some(gifts.clone()), row: Some("fresh".into()), ..Place::household("amount") };
    let about = told(&household, &at).unwrap();
    assert_eq!(about.example, Some(Entry::Text("1000.00".into())));
    assert!(!about.lines.is_empty() && about.total.is_some_and(|total| total < Money::ZERO), "{about:?}");
    let day = Place { field: Some("date".into()), ..at };
    assert!(
        matches!(told(&household, &day).unwrap().example, Some(Entry::Text(day)) if day.starts_with("2025-"))
    );
}

#[test]
fn what_is_not_there_is_not_told() {
    let household = vreeland();
    for at in [
        Place::paper("nothing", "1"),
        Place::paper(first_paper(&household, "W-2"), "nothing"),
        Place::person("osric", "nothing"),
        Place::household("nothing"),
        Place::default(),
    ] {
        assert!(told(&household, &at).is_none(), "{at:?}");
    }
}
