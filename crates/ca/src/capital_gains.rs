//! Capital gains (ITA 38 to 40, 46, 111(1)(b); Schedule 3): line 12700, and net capital losses of other years, line 25300.

use crate::{
    bringing::Bringing,
    earlier_minimum_tax,
    facts::Facts,
    papers::{t3, t5},
    plan::{Filed, On},
    points::Points,
    rounding::{STEEPEST, cents},
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision},
    field::{Choice, Field, Years},
    forms::Required,
    household::{Answers, Entry},
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[SOLD, BROUGHT_IN],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["capital_gains"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry { line: CARRIED, paper: "Capital losses", into: CarriedTo::Box("left") }];

lines! {
    NET = "ca.19700", "Gains less losses", "ITA 39, 40",
        "What was sold, capital gains dividends and gains of trusts; below zero a loss.";
    pub TAXABLE = "ca.12700", "Taxable capital gains", "ITA 3(b), 38(a)",
        "A half of what gains are above losses.";
    pub LOSSES_USED = "ca.25300", "Net capital losses of other years", "ITA 111(1)(b)",
        "As much as the way uses, at most the taxable gains.";
    CARRIED = "ca.losses.carried", "Net capital losses kept for later", "ITA 111(1)(b)",
        "A half of the loss of this year, and what of earlier ones is not used.";
}

limits! {
    GAINS = "ca.limit.capital_losses" on LOSSES_USED, "Net capital losses", "over the taxable gains, kept for later",
        "ITA 111(1)(b)";
}

open_points! {
    BACK = not_weighed "T1A", "ITA 111(1)(b); form T1A",
        "The loss may be carried back to gains of the three years before: weigh it with their returns.";
    HOME = blocks "C-22", "ITA 40(2)(b), 220(3.21)", "Enter both in the row.";
    YEARS = not_weighed "C-27", "ITA 40(2)(b), 54 'principal residence'",
        "Another home may have the larger gain for a year: compare the designations of both (form T2091).";
    OTHER_DAYS = look "C-74", "ITA 248(1); settlement of a sale", "The day of settlement decides the year.";
    SHORT = blocks "C-76", "ITA 54 'adjusted cost base'", "Enter the cost, nil where there was none.";
    REPURCHASED = look "C-75", "ITA 40(2)(g)(i), 54 'superficial loss'",
        "Bought again within 30 days by the family or its plans, the loss is denied: enter it without that part.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Gains, below zero losses, of what was sold.
    pub static SOLD: Brought = Brought::new();

    /// Those of them that may be exempt (ITA 110.6).
    pub static ELIGIBLE: Brought = Brought::new();

    /// That something was sold, whatever it gained: the row of its list.
    pub static SALES: Brought<usize> = Brought::new();

    /// Net capital losses of earlier years.
    pub static LOSSES: Brought = Brought::new();
}

const KINDS: &[Choice] = &[
    Choice::new("shares", "Listed shares and fund units"),
    Choice::new("bonds", "Bonds, notes, crypto"),
    Choice::new("exempt", "Small business shares, farm or fishing property, eligible for the exemption"),
    Choice::new("property", "Real estate"),
    Choice::new("home", "Home, designated for all years"),
    Choice::new("home_part", "Home, not designated for all years"),
    Choice::new("personal", "Personal-use property"),
];

const SOLD: PaperKind = PaperKind {
    id: "Schedule 3",
    subject: subject::INVESTMENTS,
    name: "Sales of shares, property and other things",
    words: "capital gain loss disposition sold stock home",
    title: "About",
    shared: true,
    headline: "proceeds",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Settled on"),
        Field::text("what", "", "What", 80),
        Field::choice("kind", "", "Kind", KINDS),
        Field::amount("proceeds", "", "Proceeds"),
        Field::amount("cost", "", "Adjusted cost base"),
        Field::amount("outlays", "", "Outlays and expenses"),
        Field::count("owned", "", "Home: years owned", 100).help("Calendar years, whole or in part."),
        Field::count("designated", "", "Home: years designated", 100)
            .help("Years lived in while resident, for which no other home of the family is designated."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const BROUGHT_IN: PaperKind = PaperKind {
    id: "Capital losses",
    subject: subject::INVESTMENTS,
    name: "Net capital losses of earlier years",
    words: "capital loss left over carried",
    title: "About",
    shared: false,
    headline: "left",
    boxes: &[Field::amount("left", "", "Left to use")
        .help("At a half of the loss, from the notice of assessment.")],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// The gain of a sale, below zero the loss: of personal-use property with a floor under both sides and without losses (46).
fn gain(facts: &Facts, cells: &Answers) -> Money {
    let amount = |field: &str| cells.get(field).and_then(Entry::money).unwrap_or_default();
    let (proceeds, cost, outlays) = (amount("proceeds"), amount("cost"), amount("outlays"));
    match cells.get("kind").and_then(Entry::text) {
        Some("home") => Money::ZERO,
        Some("home_part") => {
            let gain = settled::or_zero(proceeds - cost - outlays);
            let count = |field: &str| cells.get(field).and_then(Entry::count).unwrap_or(0);
            exempt(gain, count("designated"), count("owned"))
        }
        Some("personal") => {
            let floor = facts.figures.capital_gains.personal_floor;
            let gain = settled::greater(proceeds, floor) - settled::greater(cost, floor) - outlays;
            settled::or_zero(gain)
        }
        _ => proceeds - cost - outlays,
    }
}

/// What of the gain of a home is not exempt (40(2)(b)): its part of the years owned that are not designated, but for one more.
fn exempt(gain: Money, designated: i64, owned: i64) -> Money {
    if owned == 0 {
        return gain;
    }
    let taxed = Money::CENT * (owned - designated - 1);
    let left =
        gain.in_proportion(settled::or_zero(taxed), Money::CENT * owned, Money::CENT, Rounding::HalfUp);
    settled::lesser(left, gain)
}

/// Gives every sale to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == BROUGHT_IN.id {
        return paper.give_all(&[("left", &brings::LOSSES)]);
    }
    for (row, cells, _) in paper.paper.lines("proceeds") {
        let of_year = |facts: &Facts, date| (facts.year_begin..=facts.year_end).contains(&date);
        if cells.get("date").and_then(Entry::date).is_none_or(|date| of_year(paper.facts, date)) {
            let gain = gain(paper.facts, cells);
            paper.put("proceeds", Some(row), gain, &brings::SOLD);
            if cells.get("kind").and_then(Entry::text) == Some("exempt") {
                paper.put("proceeds", Some(row), gain, &brings::ELIGIBLE);
            }
            reported(paper, row);
        }
    }
    paper.files();
}

/// A sale is reported by every owner, also one without a gain, such as of a home.
pub fn reported(paper: &mut Bringing<'_>, row: usize) {
    for (person, _) in paper.paper.shares(Money::ZERO) {
        paper.facts.people[person].own.add(&brings::SALES, row);
    }
}

/// Gains less losses of a person.
fn net(facts: &Facts, person: usize) -> Money {
    let own = &facts.people[person].own;
    sum(own.of(&brings::SOLD)) + sum(own.of(&t5::brings::GAINS)) + sum(own.of(&t3::brings::GAINS))
}

/// A half of what gains are above losses.
pub fn taxable(facts: &Facts, person: usize) -> Money {
    cents(settled::or_zero(net(facts, person)), facts.figures.capital_gains.part)
}

/// Line 12700.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let own = on.own();
    let items =
        || own.of(&brings::SOLD).iter().chain(own.of(&t5::brings::GAINS)).chain(own.of(&t3::brings::GAINS));
    if items().next().is_none() {
        return Money::ZERO;
    }
    let net = on.gather(trail, NET, items());
    let part = on.facts.figures.capital_gains.part;
    on.made(trail, TAXABLE, taxable(on.facts, on.person), &[(NET, net)], &[("Part", &part)])
}

/// Line 25300, and what is kept for later years. In the year of death losses are taken from any income (111(2)).
pub fn losses(on: On<'_>, trail: &mut impl Trail, taxable: Money, net_income: Money) -> Money {
    let brought_in = sum(on.own().of(&brings::LOSSES));
    let of_year = cents(settled::or_zero(-net(on.facts, on.person)), on.facts.figures.capital_gains.part);
    if (brought_in + of_year).is_zero() {
        return Money::ZERO;
    }
    let wanted = on.plan.losses.get(on.person).copied().flatten().unwrap_or(Money::LARGEST);
    let most = match on.facts.died(on.person) {
        true => limit::cap(trail, GAINS.at(on.scope), brought_in + of_year, net_income),
        false => limit::cap(trail, GAINS.at(on.scope), brought_in, taxable),
    };
    let used = limit::lesser(trail, wanted, most);
    trail.line(LOSSES_USED, on.scope, used, |i| {
        i.items(on.own().of(&brings::LOSSES)).line(TAXABLE, on.scope, taxable);
    });
    let made = [("Brought in", brought_in), ("Of this year", of_year)];
    trail.line(CARRIED, on.scope, brought_in + of_year - used, |i| {
        for (what, amount) in made {
            i.figure(what, amount);
        }
        i.line(LOSSES_USED, on.scope, used);
    });
    used
}

/// How much of earlier years' losses a person uses now, by the person's place.
pub static USED: Open<Facts> = Open::new(
    |facts| facts.returns.iter().copied().filter(|&p| !most(facts, p).is_zero()).collect(),
    |facts, person| {
        let name = facts.first_name(person);
        let amount = Amount {
            most: most(facts, person),
            short: format!("losses of {name}"),
            more: earlier_minimum_tax::more(facts, person),
            steepest: STEEPEST,
        };
        let id = format!("ca.losses.{}", facts.people[person].id);
        Decision::amount(id, format!("Capital losses that {name} uses now"), "ITA 111(1)(b)", amount)
    },
);

fn most(facts: &Facts, person: usize) -> Money {
    let brought_in = sum(facts.people[person].own.of(&brings::LOSSES));
    // Of who died nothing is left for later: all is used.
    if facts.died(person) { Money::ZERO } else { settled::lesser(brought_in, taxable(facts, person)) }
}

/// What each person uses in a way; all where nothing is said.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.people.len()).map(|person| way.amount(&USED, person)).collect()
}

/// Schedule 3: where anything was sold.
pub fn schedule_3(filed: Filed<'_>) -> Required {
    let own = filed.on.own();
    let any = own.has(&brings::SALES)
        || own.has(&brings::SOLD)
        || own.has(&t5::brings::GAINS)
        || own.has(&t3::brings::GAINS);
    Required::if_so(any || filed.has(CARRIED), "nothing was sold")
}

/// A loss of the year, homes, days and costs.
pub fn points(points: &mut Points<'_>) {
    for &person in &points.facts.returns {
        if net(points.facts, person) < Money::ZERO {
            let name = &points.facts.people[person].name;
            let message = format!("{name} has a capital loss this year.");
            points.raise(&BACK, points.at(person, "name"), message);
        }
    }
    for paper in points.papers(SOLD.id) {
        points.dates(paper, &OTHER_DAYS, "no day of this return year", |facts, _, date| {
            (facts.year_begin..=facts.year_end).contains(&date)
        });
        for cells in &paper.rows {
            let kind = cells.get("kind").and_then(Entry::text);
            let years = ["owned", "designated"].map(|field| cells.get(field).and_then(Entry::count));
            if kind == Some("home_part") && years.contains(&None) {
                let message = "How many years was the home owned, and how many are designated?";
                points.raise(&HOME, Place::row(&paper.id, cells, "owned"), message);
            } else if kind == Some("home_part") {
                let message = "Which years are designated for this home is taken as it is entered.";
                points.raise(&YEARS, Place::row(&paper.id, cells, "designated"), message);
            }
            if kind != Some("home") && cells.contains_key("proceeds") && !cells.contains_key("cost") {
                points.raise(&SHORT, Place::row(&paper.id, cells, "cost"), "What did it cost?");
            }
            if kind == Some("shares") && gain(points.facts, cells) < Money::ZERO {
                let message = "A loss on shares: were the same bought within 30 days before or after?";
                points.raise(&REPURCHASED, Place::row(&paper.id, cells, "cost"), message);
            }
        }
    }
}
