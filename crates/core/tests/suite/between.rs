//! What differs between two states of a household: commands that lead from one to the other, whatever was done.

use crate::common::{REGISTRY, file};
use hembo_core::{
    command::{Command, between},
    file,
    household::Household,
};
use proptest::prelude::*;
use serde_json::{Value, json};

fn start() -> Household {
    file::read(file().to_string().as_bytes(), &REGISTRY).unwrap()
}

/// Every kind of edit that a household takes.
fn edits() -> Vec<Value> {
    let kit = json!({ "id": "kit", "name": "Kit", "role": "dependent", "lived_with": { "ada": 3 } });
    let paper = json!({ "id": "extra", "kind": "Pay", "owners": [{ "person": "ada", "percent": "100" }] });
    vec![
        json!({ "do": "rename", "name": "Shoal" }),
        json!({ "do": "refer", "reference": "17/2" }),
        json!({ "do": "answer", "field": "isle", "value": "north" }),
        json!({ "do": "answer", "field": "isle", "value": null }),
        json!({ "do": "add_person", "person": kit }),
        json!({ "do": "set_person", "person": "kit", "name": "Kit Reef", "born": "2019-09-09", "id_number": "k42" }),
        json!({ "do": "set_person", "person": "ada", "born": "", "died": "2025-07-01" }),
        json!({ "do": "answer_for", "person": "ada", "field": "sailor", "value": true }),
        json!({ "do": "set_lived_with", "person": "kit", "with": "ada", "months": 7 }),
        json!({ "do": "remove_person", "person": "kit" }),
        json!({ "do": "add_paper", "paper": paper }),
        json!({ "do": "set_paper", "paper": "extra", "title": "Second boat", "proof": true }),
        json!({ "do": "set_paper", "paper": "pay", "checked": true }),
        json!({ "do": "set_box", "paper": "pay", "field": "pay", "value": "1200.50" }),
        json!({ "do": "set_box", "paper": "pay", "field": "pay", "value": null }),
        json!({ "do": "add_row", "paper": "gifts", "row": { "amount": "5" } }),
        json!({ "do": "set_cell", "paper": "gifts", "row": "r1", "field": "amount", "value": "71" }),
        json!({ "do": "set_cell", "paper": "gifts", "row": "r2", "field": "date", "value": null }),
        json!({ "do": "set_row_proof", "paper": "gifts", "row": "r1", "proof": true }),
        json!({ "do": "set_row_proof", "paper": "gifts", "row": "r2", "proof": false }),
        json!({ "do": "set_paper", "paper": "gifts", "proof": true }),
        json!({ "do": "remove_row", "paper": "gifts", "row": "r2" }),
        json!({ "do": "remove_paper", "paper": "gifts" }),
        json!({ "do": "add_file", "paper": "pay", "file": { "id": "f1", "name": "slip.pdf", "pages": 1 } }),
        json!({ "do": "pin", "decision": "at.bonus", "option": "waive" }),
        json!({ "do": "dismiss", "point": "look:isle", "reason": "known", "about": "x" }),
        json!({ "do": "refuse_slip", "slip": "s1", "reason": "not ours" }),
        json!({ "do": "set_worth", "line": "at.gifts", "worth": "0.25" }),
    ]
}

/// A household without what changes leave on papers by themselves.
fn plain(mut household: Household) -> Household {
    for paper in &mut household.papers {
        paper.changed.clear();
        paper.rows_made = 0;
    }
    household.retired.clear();
    household
}

/// Applies what can be applied.
fn edited(picked: &[usize]) -> Household {
    let all = edits();
    let mut household = start();
    for &at in picked {
        let command: Command = serde_json::from_value(all[at].clone()).unwrap();
        let mut changed = household.clone();
        if command.apply(&mut changed).is_ok() {
            household = changed;
        }
    }
    household
}

fn led_to(before: &Household, after: &Household) -> Household {
    let mut household = before.clone();
    for command in between(before, after) {
        command.apply(&mut household).unwrap();
    }
    household
}

/// One edit is one command, and nothing is none.
#[test]
fn one_edit_is_one_command() {
    assert_eq!(between(&start(), &start()), []);
    for at in 0..edits().len() {
        let after = edited(&[at]);
        let commands = between(&start(), &after);
        assert!(commands.len() <= 1, "{commands:?}");
        assert_eq!(plain(led_to(&start(), &after)), plain(after), "{}", edits()[at]);
    }
}

/// A person who leaves takes the months with them: the commands can be applied.
#[test]
fn who_leaves_is_named_once() {
    let with_kit = edited(&[4, 8]);
    let without = edited(&[4, 8, 9]);
    assert_eq!(between(&with_kit, &without).len(), 1);
    assert_eq!(plain(led_to(&with_kit, &without)), plain(without));
}

proptest! {
    #[test]
    fn any_edits_are_led_to(picked in prop::collection::vec(0..edits().len(), 0..14)) {
        let after = edited(&picked);
        prop_assert_eq!(plain(led_to(&start(), &after)), plain(after));
    }
}
