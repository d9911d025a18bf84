//! Special expenses other than provision (§§10, 10b, 10c EStG; Anlage Sonderausgaben): church tax, care and school of children, a first
//! training, maintenance with consent, gifts; against the lump sum.

use crate::{
    bringing::Bringing,
    children,
    plan::On,
    points::Points,
    rounding::{euros_down, euros_up, part_up},
    wage,
};
use hembo_core::{
    field::{Choice, Field, Years},
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Special expenses",
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    papers: &[EXPENSES],
    figures: &["special"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    CHURCH = "de.church_tax_special", "Church tax paid", "§10(1) Nr.4",
        "Withheld from wages and paid in the year, less what came back; not that on capital.";
    pub REFUND_SURPLUS = "de.church_refund_surplus", "Church tax that came back beyond it", "§10(4b) S.3",
        "It is added to income.";
    EDUCATION = "de.education", "First training (erste Ausbildung)", "§10(1) Nr.7",
        "Of each spouse up to a most.";
    MAINTENANCE = "de.alimony_paid", "Maintenance of a former spouse (Realsplitting)", "§10(1a) Nr.1",
        "With consent, up to a most and the payee's health cover.";
    GIFTS = "de.gifts", "Gifts (Zuwendungen)", "§10b",
        "Up to a part of income, and gifts to parties beyond what is credited.";
    GIFTS_CARRIED = "de.gift_carryover", "Gifts carried forward", "§10b(1) S.9",
        "What is above the part of income.";
    ACTUAL = "de.special_actual", "Special expenses, actual", "§§10, 10b",
        "All but provision.";
    pub TAKEN = "de.special", "Special expenses taken (Sonderausgaben)", "§10c",
        "The lump sum, or the actual ones where they are more.";
}

limits! {
    EDUCATION_MOST = "de.limit.education" on EDUCATION, "First training", "over the most of a person", "§10(1) Nr.7";
    MAINTENANCE_MOST = "de.limit.maintenance" on MAINTENANCE, "Maintenance of a former spouse", "over the most", "§10(1a) Nr.1";
    PARTY_MOST = "de.limit.party_gifts" on GIFTS, "Gifts to parties beyond the credit", "over the most", "§10b(2)";
    GIFT_MOST = "de.limit.gifts" on GIFTS, "Gifts", "over a fifth of income, carried forward", "§10b(1)";
}

open_points! {
    GIFTS_OVER = look "DE-C41", "§10b(1) S.9", "What is above is carried forward.";
    PARTY_FIRST = look "DE-C42", "§§10b(2), 34g", "Gifts to parties are credited first; only the rest is deducted.";
}

const CARRIES: &[Carry] = &[Carry { line: GIFTS_CARRIED, paper: "Last year", into: CarriedTo::Box("gifts") }];

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Church tax paid outside wages.
    pub static CHURCH: Brought = Brought::new();
    /// Church tax that came back.
    pub static CHURCH_BACK: Brought = Brought::new();
    /// First training.
    pub static EDUCATION: Brought = Brought::new();
    /// Maintenance of a former spouse.
    pub static MAINTENANCE: Brought = Brought::new();
    /// The former spouse's health cover.
    pub static MAINTENANCE_HEALTH: Brought = Brought::new();
    /// Gifts.
    pub static GIFTS: Brought = Brought::new();
    /// Gifts of earlier years.
    pub static GIFTS_BEFORE: Brought = Brought::new();
    /// Gifts to parties.
    pub static PARTIES: Brought = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("church", "Church tax paid, not withheld"),
    Choice::new("church_back", "Church tax that came back"),
    Choice::new("gift", "Gift"),
    Choice::new("party", "Gift to a party"),
    Choice::new("education", "First training"),
    Choice::new("maintenance", "Maintenance of a former spouse, Anlage U"),
    Choice::new("maintenance_health", "Basic health cover paid for the former spouse, beside it"),
];

const EXPENSES: PaperKind = PaperKind {
    id: "Special expenses",
    subject: subject::DEDUCTIONS,
    name: "Special expenses, Sonderausgaben",
    words: "church tax gifts donations spenden education realsplitting kirchensteuer",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::choice("kind", "", "Kind", KINDS),
        Field::date("date", "", "Paid on"),
        Field::text("what", "", "To whom", 80).payer_name(),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives special expenses to who paid them.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give_lines(&[
        ("church", &brings::CHURCH),
        ("church_back", &brings::CHURCH_BACK),
        ("party", &brings::PARTIES),
        ("education", &brings::EDUCATION),
        ("maintenance", &brings::MAINTENANCE),
        ("maintenance_health", &brings::MAINTENANCE_HEALTH),
        ("gift", &brings::GIFTS),
    ]);
}

/// Church tax paid less what came back, below zero what came back beyond it.
pub fn church(on: On<'_>, trail: &mut impl Trail) -> Money {
    let paid = |person: usize| {
        let own = on.shared_of(person, &wage::brings::CHURCH) + on.shared_of(person, &brings::CHURCH);
        own - on.shared_of(person, &brings::CHURCH_BACK)
    };
    let net = euros_up(on.people.iter().map(|&person| paid(person)).sum());
    let kinds = [&wage::brings::CHURCH, &brings::CHURCH, &brings::CHURCH_BACK];
    let items: Vec<_> = kinds.into_iter().flat_map(|kind| on.items(kind)).collect();
    let deducted = limit::or_zero(trail, net);
    trail.line(CHURCH, on.scope, deducted, |i| _ = i.items(items.iter().copied()));
    let surplus = euros_down(settled::or_zero(-net));
    trail.line(REFUND_SURPLUS, on.scope, surplus, |i| _ = i.items(items));
    net
}

/// Special expenses by the income of the assessment.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, church: Money, income: Money) -> Money {
    let figures = &on.facts.figures.special;
    let church = settled::or_zero(church);
    let care = children::care(on, trail);
    let school = children::school(on, trail);
    let education = euros_up(each(on, &brings::EDUCATION));
    let education =
        limit::cap(trail, EDUCATION_MOST.at(on.scope), education, figures.education_most * on.times());
    on.made(trail, EDUCATION, education, &[], &[("At most of each", &figures.education_most)]);
    let health = on.shared_up(&brings::MAINTENANCE_HEALTH);
    let paid = on.shared_up(&brings::MAINTENANCE) + health;
    let most = figures.maintenance_most + health;
    let maintenance = limit::cap(trail, MAINTENANCE_MOST.at(on.scope), paid, most);
    trail.line(MAINTENANCE, on.scope, maintenance, |i| {
        i.items(on.items(&brings::MAINTENANCE)).items(on.items(&brings::MAINTENANCE_HEALTH));
        i.figure("At most", most);
    });
    let gifts = gifts(on, trail, income);
    let actual = on.add(
        trail,
        ACTUAL,
        &[
            (CHURCH, church),
            (children::CARE, care),
            (children::SCHOOL, school),
            (EDUCATION, education),
            (MAINTENANCE, maintenance),
            (GIFTS, gifts),
        ],
    );
    let lump = figures.lump * on.times();
    let taken = limit::greater(trail, actual, lump);
    on.made(trail, TAKEN, taken, &[(ACTUAL, actual)], &[("Lump sum", &lump)])
}

/// What of a kind counts for all who are assessed, to the cent.
fn each(on: On<'_>, kind: &'static hembo_core::brought::Brought) -> Money {
    on.people.iter().map(|&person| on.shared_of(person, kind)).sum()
}

/// §10b: gifts up to a part of income, and those to parties beyond what is credited (§34g) up to as much again.
fn gifts(on: On<'_>, trail: &mut impl Trail, income: Money) -> Money {
    let figures = &on.facts.figures.special;
    let all = euros_up(each(on, &brings::GIFTS) + on.sum(&brings::GIFTS_BEFORE));
    let most = part_up(settled::or_zero(income), figures.gift_rate);
    let deducted = limit::cap(trail, GIFT_MOST.at(on.scope), all, most);
    let party_most = figures.party_most * on.times();
    let beyond = settled::or_zero(euros_up(each(on, &brings::PARTIES)) - party_most);
    let parties = limit::cap(trail, PARTY_MOST.at(on.scope), beyond, party_most);
    trail.line(GIFTS, on.scope, deducted + parties, |i| {
        i.items(on.items(&brings::GIFTS))
            .items(on.items(&brings::GIFTS_BEFORE))
            .items(on.items(&brings::PARTIES));
        i.figure("A fifth of income", most);
    });
    on.made(trail, GIFTS_CARRIED, all - deducted, &[(GIFTS, deducted + parties)], &[("Given", &all)]);
    deducted + parties
}

/// What follows from gifts.
pub fn points(points: &mut Points<'_>) {
    let Some(paper) = points.papers(EXPENSES.id).next() else { return };
    for place in 0..points.returns {
        if points.amount(GIFTS_CARRIED, place) > Money::ZERO {
            points.raise(&GIFTS_OVER, Place::paper(&paper.id, "rows"), "Gifts above a fifth of income.");
        }
    }
    if points.facts.filers.iter().any(|&person| points.facts.people[person].own.has(&brings::PARTIES)) {
        points.raise(&PARTY_FIRST, Place::paper(&paper.id, "rows"), "Gifts to parties.");
    }
}
