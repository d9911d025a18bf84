//! The official forms of a year, and when each is filed.

use crate::{
    business, capital_gains, child_care, contributions, cpp_ei, disability_supports, dividends,
    family_benefits, first_home, foreign_property, foreign_tax, gains_exemption, gifts, income, minimum_tax,
    non_capital, northern, pension_split,
    plan::{Filed, FormRule},
    province, rental, split_income, transfers, tuition, workers_benefit,
};
use hembo_core::forms::{Forms, Required};
use std::sync::LazyLock;

/// When each federal form is filed, by its id in `forms/federal.toml`.
static RULES: &[(&str, FormRule)] = &[
    ("t1", |_| Required::Yes),
    ("schedule-2", transfers::schedule_2),
    ("schedule-3", capital_gains::schedule_3),
    ("schedule-6", workers_benefit::schedule_6),
    ("schedule-7", contributions::schedule_7),
    ("schedule-8", cpp_ei::schedule_8),
    ("schedule-9", gifts::schedule_9),
    ("schedule-11", tuition::schedule_11),
    ("schedule-15", first_home::schedule_15),
    ("t776", rental::form_t776),
    ("t1135", foreign_property::form_t1135),
    ("t2209", foreign_tax::form_t2209),
    ("t2125", business::form_t2125),
    ("t777", |filed| filed.when(income::EXPENSES, "no employment expenses")),
    ("t929", |filed| filed.when(disability_supports::DEDUCTED, "no disability supports")),
    ("t1206", |filed| filed.when(split_income::TAX, "no split income")),
    ("t657", |filed| filed.when(gains_exemption::DEDUCTED, "no exempt gain")),
    ("losses", |filed| filed.when(non_capital::CARRIED, "no non-capital loss is left")),
    ("t2222", |filed| filed.when(northern::DEDUCTED, "no northern residence")),
    ("line-23200", income::statement_23200),
    ("t778", child_care::form_t778),
    ("t1032", pension_split::form_t1032),
    ("t691", minimum_tax::form_t691),
    ("dividends", dividends::election_statement),
    ("benefits", family_benefits::worksheet),
    ("summary", |_| Required::Yes),
];

/// The ids of all forms of which it is told when they are filed.
pub fn ids() -> impl Iterator<Item = &'static str> {
    RULES.iter().map(|(id, _)| *id).chain(province::forms().map(|(_, (id, _))| *id))
}

/// The forms of the first year: the federal ones, those of each province and territory, and the summary.
const FIRST: &str = concat!(
    include_str!("../forms/federal.toml"),
    "\n",
    include_str!("../forms/ontario.toml"),
    "\n",
    include_str!("../forms/british_columbia.toml"),
    "\n",
    include_str!("../forms/alberta.toml"),
    "\n",
    include_str!("../forms/saskatchewan.toml"),
    "\n",
    include_str!("../forms/manitoba.toml"),
    "\n",
    include_str!("../forms/new_brunswick.toml"),
    "\n",
    include_str!("../forms/nova_scotia.toml"),
    "\n",
    include_str!("../forms/newfoundland.toml"),
    "\n",
    include_str!("../forms/prince_edward.toml"),
    "\n",
    include_str!("../forms/yukon.toml"),
    "\n",
    include_str!("../forms/northwest.toml"),
    "\n",
    include_str!("../forms/nunavut.toml"),
    "\n",
    include_str!("../forms/summary.toml"),
    "\n",
    include_str!("../forms/sums.toml"),
    "\n",
);

/// What the years after change, in their order.
const LATER: [&str; 1] = [include_str!("../forms/2025.toml")];

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
    let federal = rule.map(|(_, rule)| rule(filed));
    federal.or_else(|| province::required(form, filed)).unwrap_or(Required::No("not known".into()))
}
