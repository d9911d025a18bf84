//! The official forms of a year, and when each is filed.

use crate::{
    contributions, cpp_ei, dividends, gifts, ontario, pension_split, plan::Filed, provinces::Province,
    transfers, tuition, workers_benefit,
};
use hembo_core::forms::{Forms, Required};
use std::sync::LazyLock;

/// When a form is filed with a return.
type Rule = fn(Filed<'_>) -> Required;

/// When each form is filed, by its id in `forms/YEAR.toml`.
pub static RULES: &[(&str, Rule)] = &[
    ("t1", |_| Required::Yes),
    ("schedule-2", transfers::schedule_2),
    ("schedule-6", workers_benefit::schedule_6),
    ("schedule-7", contributions::schedule_7),
    ("schedule-8", cpp_ei::schedule_8),
    ("schedule-9", gifts::schedule_9),
    ("schedule-11", tuition::schedule_11),
    ("t1032", pension_split::form_t1032),
    ("dividends", dividends::election_statement),
    ("on428", |filed| in_province(filed, Province::Ontario, |_| Required::Yes)),
    ("on428-a", |filed| in_province(filed, Province::Ontario, ontario::form_on428_a)),
    ("on479", |filed| in_province(filed, Province::Ontario, ontario::form_on479)),
    ("on-s2", |filed| in_province(filed, Province::Ontario, transfers::provincial_schedule_2)),
    ("on-s11", |filed| in_province(filed, Province::Ontario, tuition::provincial_schedule_11)),
    ("ab428", |filed| in_province(filed, Province::Alberta, |_| Required::Yes)),
    ("ab-s2", |filed| in_province(filed, Province::Alberta, transfers::provincial_schedule_2)),
    ("ab-s11", |filed| in_province(filed, Province::Alberta, tuition::provincial_schedule_11)),
    ("summary", |_| Required::Yes),
];

/// A province's form: only where the return is that province's.
fn in_province(filed: Filed<'_>, province: Province, rule: Rule) -> Required {
    match filed.on.facts.province {
        Some(here) if here == province => rule(filed),
        _ => Required::Elsewhere,
    }
}

/// The forms of a year.
pub fn of(year: i32) -> &'static Forms {
    static YEARS: LazyLock<Vec<Forms>> = LazyLock::new(|| {
        let sources = [include_str!("../forms/2025.toml")];
        let parse = |text: &&str| toml::from_str(text).expect("the committed forms parse (tested)");
        sources.iter().map(parse).collect()
    });
    YEARS.iter().find(|f| f.year == year).unwrap_or(&YEARS[0])
}

/// Whether a form is filed with a return.
pub fn required(form: &str, filed: Filed<'_>) -> Required {
    let rule = RULES.iter().find(|(id, _)| *id == form);
    rule.map_or(Required::No("not known".into()), |(_, rule)| rule(filed))
}
