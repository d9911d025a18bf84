//! What a template can name: the family, the practice, and the figures of the return.

use super::Language;
use crate::pack::{Source, size};
use hembo_core::{held, paper::PaperKind};
use hembo_money::Money;
use minijinja::Value;
use serde::Serialize;
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// A field that a template can name.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
#[schema(as = LetterField)]
pub struct FieldInfo {
    /// Its name, between double braces.
    pub name: &'static str,
    /// What it is.
    pub what: &'static str,
}

const fn field(name: &'static str, what: &'static str) -> FieldInfo {
    FieldInfo { name, what }
}

/// Every field.
pub static FIELDS: [FieldInfo; 23] = [
    field("practice", "The practice's name"),
    field("today", "The day on which the letter is made"),
    field("names", "Who files, with full names"),
    field("first_names", "Who files, with first names"),
    field("household", "What the household is called"),
    field("number", "The practice's own number of it"),
    field("year", "The return year"),
    field("law", "Country, and the part of it"),
    field("tax", "Total tax"),
    field("no_tax", "Whether no tax is left: credits are more than it"),
    field("credits", "By how much they are more; empty where they are not"),
    field("paid", "What was paid during the year"),
    field("balance", "What is due or comes back, without a sign"),
    field("refund", "Whether something comes back: {% if refund %}"),
    field("due", "Whether something is due"),
    field("ways", "How many ways are lawful"),
    field("all_weighed", "Whether all of them were weighed, and the law leaves nothing open beside them"),
    field("lowest", "Whether the way that was chosen is the lowest of them"),
    field("next_way", "How the next dearer way differs; empty where there is none"),
    field("next_more", "What the next dearer way would cost more"),
    field(
        "changes",
        "What moved against last year: {% for change in changes %} with change.what and change.by",
    ),
    field(
        "wanted",
        "Papers that only the family has and that are not there: {% for paper in wanted %} with paper.what and paper.proof",
    ),
    field("final", "Whether nothing blocks, the figures are a result, and the year is over"),
];

/// The values of the fields for a return.
#[derive(Debug, Clone)]
pub struct Fields {
    pub(super) values: BTreeMap<&'static str, Value>,
    /// Those that are figures of the return, as they are written.
    pub figures: BTreeMap<&'static str, String>,
}

/// What stands around a figure that was merged, so that it can be told from other words.
pub(super) const BEGIN: char = '\u{e000}';
pub(super) const NAMED: char = '\u{e001}';
pub(super) const END: char = '\u{e002}';

impl Fields {
    /// The values for a return, in a language.
    pub fn of(of: Source<'_>, language: Language) -> Fields {
        let outcome = of.outcome;
        let about = of.rules.about();
        let money = |amount| language.money(amount, &about);
        let filers: Vec<&str> =
            outcome.columns.iter().filter(|c| c.files.is_some()).map(|c| c.name.as_str()).collect();
        let first = |name: &&str| name.split(' ').next().unwrap_or_default().to_owned();
        let firsts: Vec<String> = filers.iter().map(first).collect();
        let next = outcome.ways.iter().find(|way| !way.more.is_zero());
        let no_tax = outcome.total.is_negative();
        let figures = BTreeMap::from([
            ("tax", money(outcome.total)),
            ("credits", if no_tax { money(size(outcome.total)) } else { String::new() }),
            ("paid", money(outcome.paid)),
            ("balance", money(size(outcome.balance))),
            ("ways", outcome.lawful_ways.to_string()),
            ("next_more", next.map_or_else(String::new, |way| money(way.more))),
        ]);
        let left_open = outcome.points.iter().any(|point| point.unweighed && point.dismissed.is_none());
        let text = |text: &str| Value::from(text.replace([BEGIN, NAMED, END], ""));
        let mut values = BTreeMap::from([
            ("practice", text(of.practice)),
            ("today", text(&language.day(of.made))),
            ("names", text(&language.and(&filers))),
            ("first_names", text(&language.and(&firsts.iter().map(String::as_str).collect::<Vec<_>>()))),
            ("household", text(&of.household.name)),
            ("number", text(&of.household.reference)),
            ("year", Value::from(outcome.year)),
            ("law", text(&of.law())),
            ("no_tax", Value::from(no_tax)),
            ("refund", Value::from(outcome.balance.is_negative())),
            ("due", Value::from(!outcome.balance.is_negative() && !outcome.balance.is_zero())),
            ("next_way", text(next.map_or("", |way| if way.but.is_empty() { &way.name } else { &way.but }))),
            ("all_weighed", Value::from(outcome.complete && !left_open)),
            ("lowest", Value::from(outcome.total == outcome.lowest)),
            ("changes", changes(of, language)),
            ("wanted", wanted(of)),
            ("final", Value::from(of.unsettled().is_none())),
        ]);
        for (name, figure) in &figures {
            values.insert(name, Value::from(format!("{BEGIN}{name}{NAMED}{figure}{END}")));
        }
        Fields { values, figures }
    }
}

fn changes(of: Source<'_>, language: Language) -> Value {
    let about = of.rules.about();
    let change = |(what, by): (String, Money)| {
        let by = language.apart(by, &about);
        Value::from(BTreeMap::from([("what", what.replace([BEGIN, NAMED, END], "")), ("by", by)]))
    };
    of.changes().into_iter().map(change).collect()
}

/// What nobody but the family holds and is not there, where an answer or last year calls for it or it was asked for.
fn wanted(of: Source<'_>) -> Value {
    let asked = |one: &held::FromFamily| one.papers == 0 && of.asked.contains(&one.kind);
    let missing = held::from_family(of.household, of.rules).into_iter();
    let missing = missing.filter(|one| one.called_for || asked(one));
    let kinds = missing.filter_map(|one| of.rules.paper_kinds().iter().find(|kind| kind.id == one.kind));
    let paper = |kind: &PaperKind| {
        let what =
            if kind.id == kind.name { kind.id.to_owned() } else { format!("{} ({})", kind.name, kind.id) };
        Value::from(BTreeMap::from([("what", what), ("proof", of.rules.proof(kind).to_owned())]))
    };
    kinds.map(paper).collect()
}
