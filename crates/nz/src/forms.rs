//! The official forms of a year, and when each is filed.

use crate::{
    donations, families, family_boost, land, managed_funds, overseas,
    plan::{Filed, FormRule},
    provisional, rental, student_loan, trade,
};
use hembo_core::forms::{Forms, Required};
use std::sync::LazyLock;

/// When each form is filed, by its id in `forms/2024.toml`.
static RULES: &[(&str, FormRule)] = &[
    ("ir3", provisional::route),
    ("assessment", |filed| match provisional::route(filed) {
        Required::Yes => Required::No("a return is asked for".into()),
        _ => Required::Yes,
    }),
    ("ir1261", overseas::form_ir1261),
    ("ir3r", rental::form_ir3r),
    ("ir833", land::form_ir833),
    ("ir10", trade::form_ir10),
    ("ir526", donations::form_ir526),
    ("funds", |filed| filed.when(managed_funds::INCOME, "no managed funds")),
    ("families", families::worksheet),
    ("family-boost", family_boost::worksheet),
    ("student-loan", student_loan::worksheet),
    ("provisional", provisional::worksheet),
    ("summary", |_| Required::Yes),
];

/// The ids of all forms of which it is told when they are filed.
pub fn ids() -> impl Iterator<Item = &'static str> {
    RULES.iter().map(|(id, _)| *id)
}

/// The forms of the first year.
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
