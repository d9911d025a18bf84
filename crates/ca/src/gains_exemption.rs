//! The exemption of gains on shares of a small business and on farm and fishing property (ITA 110.6; form T657): line 25400.

use crate::{
    bringing::Bringing,
    capital_gains,
    facts::Facts,
    plan::On,
    points::Points,
    rounding::{STEEPEST, cents},
};
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
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[ROOM],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["capital_gains"],
    ..Provision::NONE
};

lines! {
    ROOM_LEFT = "ca.exemption.room", "Exemption of gains, what is left", "ITA 110.6(2), (2.1), (31)",
        "Of a lifetime, in halves as gains are taxed.";
    GAINS = "ca.exemption.gains", "Gains that may be exempt this year", "ITA 110.6(1) 'annual gains limit'",
        "The taxable part of eligible gains, at most of all, less losses of other years that go beyond the others.";
    CUMULATIVE = "ca.exemption.cumulative", "Cumulative gains limit", "ITA 110.6(1) 'cumulative gains limit'",
        "With what earlier years left of theirs, less the cumulative net investment loss.";
    pub DEDUCTED = "ca.25400", "Exemption of gains", "ITA 110.6; form T657",
        "As much as the way claims, within the room and both limits.";
}

limits! {
    WITHIN = "ca.limit.exemption" on DEDUCTED, "Exemption of gains", "over what is left of it or over the gains limits, taxed",
        "ITA 110.6(2.1)";
}

open_points! {
    ROOM_ASKED = blocks "exemption-room", "ITA 110.6(2.1)", "Enter what is left of it, on a paper of its own.";
    QUALIFIES = look "exemption-shares", "ITA 110.6(1), 248(1) 'small business corporation'",
        "Held for 24 months, with most of the assets at work in Canada: keep what shows it.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// What is left of the exemption, in whole gains.
    pub static ROOM: Brought = Brought::new();

    /// What earlier years left of their gains limits.
    pub static EARLIER: Brought = Brought::new();

    /// The cumulative net investment loss.
    pub static INVESTMENT_LOSS: Brought = Brought::new();
}

const ROOM: PaperKind = PaperKind {
    id: "Gains exemption",
    subject: subject::INVESTMENTS,
    name: "Exemption of gains of a small business, farm or fishery",
    words: "lcge t657 qsbc lifetime qualified shares",
    title: "About",
    shared: false,
    headline: "room",
    boxes: &[
        Field::amount("room", "", "Exemption left, in whole gains")
            .help("The most of the year, 1,250,000 in 2025, less the gains that were exempt before."),
        Field::amount("cnil", "", "Cumulative net investment loss")
            .help("At the end of the year: form T936."),
        Field::amount("earlier", "", "Gains limits of earlier years left")
            .help("Form T657, line 9 and before."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_all(&[
        ("room", &brings::ROOM),
        ("cnil", &brings::INVESTMENT_LOSS),
        ("earlier", &brings::EARLIER),
    ]);
}

/// The taxable part of eligible gains, at most of all gains less losses.
fn eligible(facts: &Facts, person: usize) -> Money {
    let eligible = settled::or_zero(sum(facts.people[person].own.of(&capital_gains::brings::ELIGIBLE)));
    let part = facts.figures.capital_gains.part;
    settled::lesser(cents(eligible, part), capital_gains::taxable(facts, person))
}

/// What is left of the exemption, as gains are taxed.
fn room(facts: &Facts, person: usize) -> Money {
    cents(sum(facts.people[person].own.of(&brings::ROOM)), facts.figures.capital_gains.part)
}

/// Line 25400. `gains` are taxable gains, `losses` what of other years' is used against them.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, gains: Money, losses: Money) -> Money {
    let eligible = eligible(on.facts, on.person);
    if eligible.is_zero() {
        return eligible;
    }
    let own = on.own();
    let beyond = limit::or_zero(trail, losses - (gains - eligible));
    let of_year = limit::or_zero(trail, eligible - beyond);
    trail.line(GAINS, on.scope, of_year, |i| {
        i.items(own.of(&capital_gains::brings::ELIGIBLE)).figure("Losses beyond other gains", beyond);
    });
    let lost = sum(own.of(&brings::INVESTMENT_LOSS));
    let cumulative = limit::or_zero(trail, of_year + sum(own.of(&brings::EARLIER)) - lost);
    trail.line(CUMULATIVE, on.scope, cumulative, |i| {
        i.line(GAINS, on.scope, of_year)
            .items(own.of(&brings::EARLIER))
            .items(own.of(&brings::INVESTMENT_LOSS));
    });
    let room = trail.line(ROOM_LEFT, on.scope, room(on.facts, on.person), |i| {
        i.items(own.of(&brings::ROOM));
    });
    let of_both = limit::lesser(trail, of_year, cumulative);
    let most = limit::lesser(trail, of_both, room);
    let allowed = limit::cap(trail, WITHIN.at(on.scope), eligible, most);
    let wanted = on.plan.exemption.get(on.person).copied().flatten().unwrap_or(Money::LARGEST);
    let taken = limit::lesser(trail, wanted, allowed);
    on.made(trail, DEDUCTED, taken, &[(GAINS, of_year), (CUMULATIVE, cumulative), (ROOM_LEFT, room)], &[])
}

fn most(facts: &Facts, person: usize) -> Money {
    settled::lesser(eligible(facts, person), room(facts, person))
}

/// How much of it a person claims, by the person's place.
pub static CLAIM: Open<Facts> = Open::new(
    |facts| facts.returns.iter().copied().filter(|&p| !most(facts, p).is_zero()).collect(),
    |facts, person| {
        let name = facts.first_name(person);
        let amount = Amount {
            most: most(facts, person),
            short: format!("exemption of {name}"),
            more: More::MayCost,
            steepest: STEEPEST,
        };
        let id = format!("ca.exemption.{}", facts.people[person].id);
        let label = format!("Exemption of gains that {name} claims now");
        Decision::amount(id, label, "ITA 110.6(2.1)", amount)
    },
);

/// What each person claims in a way; all where nothing is said.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.people.len()).map(|person| way.amount(&CLAIM, person)).collect()
}

/// What is left of it, and whether the property is eligible.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    for &person in &facts.returns {
        let own = &facts.people[person].own;
        if sum(own.of(&capital_gains::brings::ELIGIBLE)) <= Money::ZERO {
            continue;
        }
        let name = &facts.people[person].name;
        points.raise(&QUALIFIES, points.at(person, "name"), format!("{name} sold what may be exempt."));
        if !own.has(&brings::ROOM) {
            let message = format!("How much of the exemption has {name} left?");
            points.raise(&ROOM_ASKED, points.at(person, "name"), message);
        }
    }
    for paper in points.papers(ROOM.id).filter(|paper| !paper.boxes.contains_key("room")) {
        points.raise(&ROOM_ASKED, Place::paper(&paper.id, "room"), "How much is left?");
    }
}
