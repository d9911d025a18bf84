//! Amounts of a home and of news (ITA 118.02, 118.041, 118.05; lines 31270, 31285, 31350): a couple divides them as it likes, so that
//! they are one pool.

use crate::{bringing::Bringing, facts::Facts, plan::On, points::Points, rounding::STEEPEST_OF_CREDIT};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    field::{Field, Years},
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
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
    figures: &["home_credits"],
    ..Provision::NONE
};

lines! {
    POOL = "ca.home.pool", "Home and news, of the family", "ITA 118.02, 118.041, 118.05",
        "A first home, work that makes a home accessible, and digital news, each up to its most.";
    HOME = "ca.31270", "Home buyers' amount", "ITA 118.05",
        "For a first home, as much as the way claims here.";
    ACCESSIBLE = "ca.31285", "Home accessibility", "ITA 118.041",
        "Work for who is 65 or over or certified disabled, as much as the way claims here.";
    SUBSCRIBED = "ca.31350", "Digital news", "ITA 118.02",
        "Subscriptions, as much as the way claims here.";
    pub CLAIMED = "ca.home.claimed", "Home and news, claimed", "ITA 118.02, 118.041, 118.05",
        "Lines 31270, 31285 and 31350: of a couple the first fills them in this order, the second has the rest of each.";
}

limits! {
    ACCESS = "ca.limit.accessibility" on POOL, "Home accessibility", "over the most of a year",
        "ITA 118.041";
    NEWS = "ca.limit.news" on POOL, "Digital news", "over the most of a year",
        "ITA 118.02";
}

open_points! {
    FOUR_YEARS = look "C-70", "ITA 118.05(1)", "Neither may have lived in an owned home in this year or the four before, unless one is certified disabled.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// A first home.
    pub static HOME: Brought = Brought::new();

    /// Work that makes a home accessible.
    pub static ACCESS: Brought = Brought::new();

    /// Digital news.
    pub static NEWS: Brought = Brought::new();
}

/// The paper.
pub const PAID: PaperKind = PaperKind {
    id: "Home credits",
    subject: subject::CREDITS,
    name: "First home, accessible home, digital news",
    words: "home buyers renovation ramp subscription",
    title: "About",
    shared: false,
    headline: "access",
    boxes: &[
        Field::yes_no("home", "31270", "A first home was bought"),
        Field::amount("access", "31285", "Work on an accessible home")
            .help("For who is 65 or over or certified disabled; for a home up to a most."),
        Field::amount("news", "31350", "Digital news subscriptions").until(2024),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.flag("home") {
        let most = paper.facts.figures.home_credits.home;
        paper.put("home", None, most, &brings::HOME);
    }
    paper.give_all(&[("access", &brings::ACCESS), ("news", &brings::NEWS)]);
}

fn items(facts: &Facts) -> impl Iterator<Item = &Item> + Clone {
    let kinds = [&brings::HOME, &brings::ACCESS, &brings::NEWS];
    facts
        .filers
        .iter()
        .flat_map(move |&f| kinds.into_iter().flat_map(move |kind| facts.people[f].own.of(kind)))
}

/// What the family has of each of the three, up to its most.
fn parts(facts: &Facts) -> [Money; 3] {
    let of = |kind| -> Money { facts.filers.iter().map(|&f| sum(facts.people[f].own.of(kind))).sum() };
    let figures = &facts.figures.home_credits;
    [
        settled::lesser(of(&brings::HOME), figures.home),
        settled::lesser(of(&brings::ACCESS), figures.access),
        settled::lesser(of(&brings::NEWS), figures.news),
    ]
}

fn pool(facts: &Facts) -> Money {
    parts(facts).into_iter().sum()
}

/// What this return claims of the pool: of a couple the first what the way says, the second the rest.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let all = pool(on.facts);
    if all.is_zero() || !on.who().filer {
        return Money::ZERO;
    }
    let first = on.facts.filers[0] == on.person;
    if first {
        told(on, trail, all);
    }
    let mut left = limit::lesser(trail, on.plan.home_credits.unwrap_or(all), all);
    let mut claimed = Vec::new();
    for (line, part) in [HOME, ACCESSIBLE, SUBSCRIBED].into_iter().zip(parts(on.facts)) {
        let of_first = limit::lesser(trail, left, part);
        left -= of_first;
        let here = if first { of_first } else { part - of_first };
        claimed.push((line, on.made(trail, line, here, &[], &[("Of the family", &part)])));
    }
    on.add(trail, CLAIMED, &claimed)
}

/// The pool, and what is over the most of a year.
fn told(on: On<'_>, trail: &mut impl Trail, all: Money) {
    let figures = &on.facts.figures.home_credits;
    for (at, kind, most) in [
        (ACCESS.at(on.scope), &brings::ACCESS, figures.access),
        (NEWS.at(on.scope), &brings::NEWS, figures.news),
    ] {
        let paid: Money = on.facts.filers.iter().map(|&f| sum(on.facts.people[f].own.of(kind))).sum();
        limit::cap(trail, at, paid, most);
    }
    trail.line(POOL, on.scope, all, |i| {
        i.items(items(on.facts));
    });
}

/// How much of it the first of a couple claims.
pub static OF_FIRST: Open<Facts> = Open::new(
    |facts| if facts.couple && !pool(facts).is_zero() { vec![0] } else { Vec::new() },
    |facts, _| {
        let first = facts.first_name(facts.filers[0]);
        let amount = Amount {
            most: pool(facts),
            short: format!("home with {first}"),
            more: More::MayCost,
            steepest: STEEPEST_OF_CREDIT,
        };
        let label = format!("Home and news that {first} claims");
        Decision::amount("ca.home", label, "ITA 118.02, 118.041, 118.05", amount)
    },
);

/// What the first claims in a way; all where nobody else may.
pub fn chosen(way: Chosen<'_, '_, Facts>) -> Option<Money> {
    way.amount(&OF_FIRST, 0)
}

/// Conditions of a first home.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAID.id).filter(|paper| paper.flag("home")) {
        let place = Place::paper(&paper.id, "home");
        points.raise(&FOUR_YEARS, place, "Was it a first home?");
    }
}
