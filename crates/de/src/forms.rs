//! The official forms of a year, and when each is filed.

use crate::{
    burdens, capital, credits, foreign_tax, funds, other_income, pensions,
    plan::{CapitalWay, Filed, FormRule},
    provision, riester, special, wage, work,
};
use hembo_core::forms::{Forms, Required};
use std::sync::LazyLock;

/// When each form is filed, by its id in `forms/2024.toml`.
static RULES: &[(&str, FormRule)] = &[
    ("est1a", |_| Required::Yes),
    ("annex-n", |of| of.brings(&[&wage::brings::GROSS], "no wages")),
    ("annex-n-home", |of| {
        let any = of.on.people.iter().any(|&person| of.on.own(person).has(&work::brings::LODGING));
        Required::if_so(any, "no second household")
    }),
    ("annex-own", |of| {
        let kinds =
            [&other_income::brings::TRADE, &other_income::brings::FREELANCE, &other_income::brings::FARM];
        of.brings(&kinds, "no work of one's own")
    }),
    ("annex-v", |of| {
        let repairs = of.on.facts.repairs.iter().flat_map(|repairs| &repairs.parts);
        let repaired = repairs.clone().any(|(owner, _)| of.on.people.contains(owner));
        let let_out = of.on.items(&other_income::brings::RENTAL).next().is_some();
        Required::if_so(let_out || repaired, "no letting")
    }),
    ("annex-so", |of| {
        let kinds =
            [&other_income::brings::SERVICES, &other_income::brings::SALES, &pensions::brings::MAINTENANCE];
        of.brings(&kinds, "no such income")
    }),
    ("annex-r", |of| of.brings(&[&pensions::brings::TAXABLE], "no pension")),
    ("annex-kap", |of| {
        let declared = capital::way(of.on) != CapitalWay::Left;
        Required::if_so(declared, "capital income stays with what was withheld")
    }),
    ("annex-aus", |of| {
        let any = foreign_tax::countries(of.on).next().is_some();
        Required::if_so(any, "no income taxed abroad")
    }),
    ("annex-kap-inv", |of| of.brings(&[&funds::brings::FUNDS], "no funds held abroad")),
    ("annex-provision", |of| of.when(provision::ALL, "no provision")),
    ("annex-av", |of| {
        let any = of.on.people.iter().any(|&person| of.on.own(person).has(&riester::brings::CONTRACTS));
        Required::if_so(any, "no subsidised contract")
    }),
    ("annex-special", |of| {
        let kinds = [
            &special::brings::CHURCH,
            &special::brings::CHURCH_BACK,
            &special::brings::EDUCATION,
            &special::brings::MAINTENANCE,
            &special::brings::GIFTS,
            &special::brings::PARTIES,
            &wage::brings::CHURCH,
        ];
        of.brings(&kinds, "no special expenses")
    }),
    ("annex-child", |of| Required::if_so(!of.on.facts.children.is_empty(), "no children")),
    ("annex-burdens", |of| {
        let any = of.has(burdens::PAID) || of.has(burdens::LUMPS);
        Required::if_so(any, "no burdens")
    }),
    ("annex-support", |of| of.when(burdens::SUPPORTS, "nobody supported")),
    ("annex-home", |of| {
        let kinds = [&credits::brings::MINIJOB, &credits::brings::SERVICES, &credits::brings::CRAFTS];
        let brought = kinds.iter().any(|kind| of.on.items(kind).next().is_some());
        let used = [credits::SERVICES, credits::CRAFTS].into_iter().any(|line| of.has(line));
        Required::if_so(brought || used, "no services in the home")
    }),
    ("annex-energy", |of| {
        let kinds = [&credits::brings::ENERGY_1, &credits::brings::ENERGY_2, &credits::brings::ENERGY_3];
        let brought = kinds.iter().any(|kind| of.on.items(kind).next().is_some());
        Required::if_so(brought || of.has(credits::ENERGY), "no energy renovation")
    }),
    ("notice", |_| Required::Yes),
];

/// The ids of all forms of which it is told when they are filed.
pub fn ids() -> impl Iterator<Item = &'static str> {
    RULES.iter().map(|(id, _)| *id)
}

/// The forms of the first year.
const FIRST: &str = include_str!("../forms/2024.toml");

/// What the year after changes.
const LATER: &str = include_str!("../forms/2025.toml");

/// The forms of a year.
pub fn of(year: i32) -> &'static Forms {
    static YEARS: LazyLock<[Forms; 2]> = LazyLock::new(|| {
        let first = toml::from_str(FIRST).expect("the committed forms parse (tested)");
        [first, Forms::like(FIRST, LATER).expect("the committed forms parse (tested)")]
    });
    YEARS.iter().find(|forms| forms.year == year).unwrap_or(&YEARS[0])
}

/// Whether a form is filed with a return.
pub fn required(form: &str, filed: Filed<'_>) -> Required {
    let rule = RULES.iter().find(|(id, _)| *id == form);
    rule.map_or(Required::No("not known".into()), |(_, rule)| rule(filed))
}
