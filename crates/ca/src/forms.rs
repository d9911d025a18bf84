//! The official forms of a year, and when each is filed.

use crate::{
    contributions, cpp_ei, dividends, gifts, pension_split,
    plan::{Filed, FormRule},
    province, transfers, tuition, workers_benefit,
};
use hembo_core::forms::{Forms, Required};
use std::sync::LazyLock;

/// When each federal form is filed, by its id in `forms/YEAR.toml`.
static RULES: &[(&str, FormRule)] = &[
    ("t1", |_| Required::Yes),
    ("schedule-2", transfers::schedule_2),
    ("schedule-6", workers_benefit::schedule_6),
    ("schedule-7", contributions::schedule_7),
    ("schedule-8", cpp_ei::schedule_8),
    ("schedule-9", gifts::schedule_9),
    ("schedule-11", tuition::schedule_11),
    ("t1032", pension_split::form_t1032),
    ("dividends", dividends::election_statement),
    ("summary", |_| Required::Yes),
];

/// The ids of all forms of which it is told when they are filed.
pub fn ids() -> impl Iterator<Item = &'static str> {
    RULES.iter().map(|(id, _)| *id).chain(province::forms().map(|(_, (id, _))| *id))
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
    let federal = rule.map(|(_, rule)| rule(filed));
    federal.or_else(|| province::required(form, filed)).unwrap_or(Required::No("not known".into()))
}
