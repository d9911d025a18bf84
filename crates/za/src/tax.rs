//! Tax by the table and what comes off it (ss 5, 6, 6A, 6B, 6C, 6quat), in the order in which it is used.

use crate::{
    bringing::Bringing,
    certificates,
    facts::Facts,
    foreign_tax,
    income::{self, Income},
    medical,
    plan::On,
    points::Points,
    rounding::cents,
};
use hembo_core::{
    Silent,
    field::{Field, Years},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Tax and rebates",
    lines: LINES,
    limits: LIMITS,
    papers: &[SOLAR],
    points: POINTS,
    figures: &["scale", "rebates", "solar"],
    ..Provision::NONE
};

lines! {
    pub TABLE = "za.table_tax", "Tax by the table", "s5; Rates and Monetary Amounts Act",
        "Each rate on its slice of taxable income, rounded once.";
    pub REBATES = "za.rebates", "Rebates", "s6(2)",
        "The primary one, with more from 65 and from 75 on; never more than the tax.";
    pub SOLAR_CREDIT = "za.solar_credit", "Credit for solar panels", "s6C",
        "A quarter of new panels, up to a most; of one year only.";
    pub NORMAL = "za.normal_tax", "Normal tax", "ss 5, 6, 6A, 6B, 6quat",
        "Tax by the table less rebates and credits.";
}

limits! {
    PANELS = "za.limit.solar" on SOLAR_CREDIT, "Part of solar panels", "over the most", "s6C(3)";
}

open_points! {
    NO_PAYE = look "C09", "Fourth Schedule para 2", "Compare the PAYE with the certificate.";
    NEAR = look "C72", "s6(2)", "A birthday near the end of the year decides about a rebate: check the date of birth.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// New solar panels.
    pub static PANELS: Brought = Brought::new();
}

const SOLAR: PaperKind = PaperKind {
    id: "Solar panels",
    subject: subject::CREDITS,
    name: "Solar panels first used in the year",
    words: "photovoltaic energy panels",
    title: "Installer",
    shared: true,
    headline: "cost",
    boxes: &[Field::amount("cost", "", "Cost of new panels").help("Without inverters and batteries.")],
    columns: &[],
    back: Back::Nothing,
    years: Years { since: None, until: Some(2024) },
    next_year: NextYear::Once,
};

/// Gives panels to who paid.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give(&[("cost", &brings::PANELS)]);
}

/// The rebates of a person's age.
pub fn rebates(facts: &Facts, person: usize) -> Money {
    let figures = &facts.figures.rebates;
    let more = |age: i32, amount: Money| if facts.reached(person, age) { amount } else { Money::ZERO };
    figures.primary
        + more(figures.secondary_age, figures.secondary)
        + more(figures.tertiary_age, figures.tertiary)
}

/// Tax by the table.
pub fn by_table(facts: &Facts, trail: &mut impl Trail, taxable: Money) -> Money {
    let scale = &facts.figures.scale;
    limit::by_brackets(trail, taxable, &scale.tops, scale.rates.iter().copied())
}

/// Normal tax.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: &Income) -> Money {
    let table = by_table(on.facts, trail, income.taxable);
    on.made(trail, TABLE, table, &[(income::TAXABLE, income.taxable)], &[]);
    let all = rebates(on.facts, on.person);
    let rebate = limit::lesser(trail, all, table);
    on.made(trail, REBATES, rebate, &[(TABLE, table)], &[("Of the age", &all)]);
    let after = table - rebate;
    let medical = medical::reckon(on, trail, after, income.taxable);
    let left = after - medical.iter().map(|(_, credit)| *credit).sum::<Money>();
    let solar = solar(on, trail, left);
    let foreign = foreign_tax::reckon(on, trail, income, left - solar);
    on.made(
        trail,
        NORMAL,
        left - solar - foreign,
        &[
            &[(TABLE, table), (REBATES, rebate)][..],
            &medical,
            &[(SOLAR_CREDIT, solar), (foreign_tax::CREDIT, foreign)],
        ]
        .concat(),
        &[],
    )
}

/// s6C: a part of new panels, of one year only.
fn solar(on: On<'_>, trail: &mut impl Trail, left: Money) -> Money {
    let panels = on.own().of(&brings::PANELS);
    let Some(figures) = on.facts.figures.solar.as_ref().filter(|_| !panels.is_empty()) else {
        return Money::ZERO;
    };
    let part = limit::cap(trail, PANELS.at(on.scope), cents(sum(panels), figures.rate), figures.most);
    let credit = limit::lesser(trail, part, left);
    trail.line(SOLAR_CREDIT, on.scope, credit, |i| {
        i.items(panels).figure("Part", figures.rate);
    })
}

/// Pay that is taxed and had nothing withheld; birthdays near the end of the year.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(certificates::CERTIFICATE.id) {
        let gross = paper.amount("gross");
        let owner = paper.owners.first().and_then(|owner| points.household.index_of(&owner.person));
        let taxed = owner
            .is_some_and(|person| by_table(points.facts, &mut Silent, gross) > rebates(points.facts, person));
        if taxed && certificates::of_code(paper, "4102").is_zero() {
            points.raise(&NO_PAYE, Place::paper(&paper.id, "gross"), format!("No PAYE on {gross:#}."));
        }
    }
    let figures = &points.facts.figures.rebates;
    let ages = [figures.secondary_age, figures.tertiary_age];
    for (_, person) in points.returns() {
        let Some(born) = points.facts.people[person].born else { continue };
        for age in ages {
            let Ok(birthday) = born.replace_year(born.year() + age) else { continue };
            let apart = (birthday - points.facts.year_end).whole_days();
            if (-60..=60).contains(&apart) {
                let message = format!("{} turns {age} around the end of the year.", points.name(person));
                points.raise(&NEAR, points.at(person, "born"), message);
            }
        }
    }
}
