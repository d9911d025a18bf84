//! Adoption (ITA 118.01; line 31300): expenses for each child up to a most, which parents divide as they like.

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points, rounding::STEEPEST_OF_CREDIT};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    field::{Field, Years},
    limit, limits,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[PAID],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["adoption"],
    ..Provision::NONE
};

lines! {
    POOL = "ca.adoption.pool", "Adoption expenses of the family", "ITA 118.01",
        "Of each child whose adoption became final, up to the most.";
    pub CLAIMED = "ca.31300", "Adoption expenses", "ITA 118.01(2), (3)",
        "Of a couple the first claims what the way says, the other the rest.";
}

limits! {
    EACH = "ca.limit.adoption" on POOL, "Adoption expenses", "over the most of a child",
        "ITA 118.01(1)";
}

open_points! {
    OF_PROVINCE = not_covered "adoption-province", "Form 428 of the province, line 58330";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Expenses of an adoption, one of them for each child.
    pub static PAID: Brought = Brought::new();
}

const PAID: PaperKind = PaperKind {
    id: "Adoption",
    subject: subject::CREDITS,
    name: "Adoption expenses",
    words: "adopted child agency court 31300",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::text("child", "", "Child", 80),
        Field::amount("amount", "31300", "Expenses of the whole adoption")
            .help("In the year in which it became final, less what was paid back."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Expenses by child.
pub fn read(paper: &mut Bringing<'_>) {
    for (row, _, amount) in paper.paper.lines("amount") {
        paper.put("amount", Some(row), amount, &brings::PAID);
    }
    paper.files();
}

fn items(facts: &Facts) -> impl Iterator<Item = &Item> + Clone {
    facts.filers.iter().flat_map(|&f| facts.people[f].own.of(&brings::PAID))
}

/// What the family has, each child up to a most.
pub fn pool(facts: &Facts, most: Money) -> Money {
    items(facts).map(|item| settled::lesser(item.amount, most)).sum()
}

/// Line 31300: of a couple the first what the way says, the second the rest.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let figures = &on.facts.figures.adoption;
    let all = pool(on.facts, figures.most);
    if all.is_zero() || !on.who().filer {
        return Money::ZERO;
    }
    if on.facts.filers[0] == on.person {
        for item in items(on.facts) {
            limit::cap(trail, EACH.at(on.scope), item.amount, figures.most);
        }
        trail.line(POOL, on.scope, all, |i| {
            i.items(items(on.facts));
        });
    }
    divided(on, trail, CLAIMED, all, on.plan.adoption)
}

/// What this return claims: of a couple the first what the way says, the second the rest.
pub fn divided(
    on: On<'_>,
    trail: &mut impl Trail,
    line: LineId,
    all: Money,
    of_first: Option<Money>,
) -> Money {
    let of_first = limit::lesser(trail, of_first.unwrap_or(all), all);
    let here = if on.facts.filers[0] == on.person { of_first } else { all - of_first };
    on.made(trail, line, here, &[], &[("Of the family", &all)])
}

/// How much of it the first of a couple claims.
pub static OF_FIRST: Open<Facts> = Open::new(
    |facts| open(facts, pool(facts, facts.figures.adoption.most)),
    |facts, _| decision(facts, "ca.adoption", "", pool(facts, facts.figures.adoption.most)),
);

/// About what it is open: of a couple with anything to divide.
pub fn open(facts: &Facts, all: Money) -> Vec<usize> {
    if facts.couple && !all.is_zero() { vec![0] } else { Vec::new() }
}

/// How much the first claims of a pool.
pub fn decision(facts: &Facts, id: &str, of: &str, most: Money) -> Decision {
    let first = facts.first_name(facts.filers[0]);
    let short = format!("adoption with {first}{of}");
    let amount = Amount { most, short, more: More::MayCost, steepest: STEEPEST_OF_CREDIT };
    let label = format!("Adoption expenses that {first} claims{of}");
    Decision::amount(id, label, "ITA 118.01(3)", amount)
}

/// What the first claims in a way; all where nobody else may.
pub fn chosen(way: Chosen<'_, '_, Facts>) -> Option<Money> {
    way.amount(&OF_FIRST, 0)
}

/// Provinces whose most is not held.
pub fn points(points: &mut Points<'_>) {
    let code = points.facts.province_code.as_deref().unwrap_or_default();
    if points.facts.figures.adoption.not_held.iter().any(|held| held == code) {
        for paper in points.papers(PAID.id) {
            let message = format!("The adoption amount of {code} is not computed yet.");
            points.raise(&OF_PROVINCE, Place::paper(&paper.id, "amount"), message);
        }
    }
}
