//! The official forms of a year, and when each is filed.

use crate::{
    lump_sums,
    plan::{Filed, FormRule},
    provisional,
};
use hembo_core::forms::{Forms, Required};
use std::sync::LazyLock;

/// When each form is filed, by its id in `forms/2024.toml`.
static RULES: &[(&str, FormRule)] = &[
    ("itr12", |_| Required::Yes),
    ("calculation", |_| Required::Yes),
    ("lump-sums", |filed| filed.when(lump_sums::TAX, "no tax on lump sums")),
    ("irp6", provisional::worksheet),
    ("summary", |_| Required::Yes),
];

/// The ids of all forms of which it is told when they are filed.
pub fn ids() -> impl Iterator<Item = &'static str> {
    RULES.iter().map(|(id, _)| *id)
}

/// The forms of the latest year.
const FIRST: &str = include_str!("../forms/2024.toml");

/// What the years after change, in their order.
const LATER: [&str; 2] = [include_str!("../forms/2025.toml"), include_str!("../forms/2026.toml")];

/// The forms of a year.
pub fn of(year: i32) -> &'static Forms {
    static YEARS: LazyLock<Vec<Forms>> = LazyLock::new(|| {
        let first = toml::from_str(FIRST).expect("the committed forms parse (tested)");
        let later =
            LATER.iter().map(|next| Forms::like(FIRST, next).expect("the committed forms parse (tested)"));
        std::iter::once(first).chain(later).collect()
    });
    YEARS.iter().find(|forms| forms.year == year).unwrap_or(&YEARS[0])
}

/// Whether a form is filed with a return.
pub fn required(form: &str, filed: Filed<'_>) -> Required {
    let rule = RULES.iter().find(|(id, _)| *id == form);
    rule.map_or(Required::No("not known".into()), |(_, rule)| rule(filed))
}
