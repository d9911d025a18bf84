//! Gifts to charities (ITA 118.1; Schedule 9): one pool of a couple, each claims a part, the rest is carried.

use crate::{
    bringing::Bringing,
    business, contributions, earlier_minimum_tax,
    facts::Facts,
    figures::{Provincial, TopUp},
    first_home, income,
    papers::t4::T4,
    plan::{Filed, On},
    points::Points,
    rental,
    rounding::{STEEPEST_OF_GIFTS, cents},
};
use hembo_core::{
    Paper,
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Trail, Unseen},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[RECEIPTS, BROUGHT_IN],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["gifts", "year_of_death"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[Carry {
    line: CARRIED,
    paper: "Gifts carried",
    into: CarriedTo::Rows { column: "amount", says: None },
}];

lines! {
    pub CLAIMED = "ca.34000", "Gifts claimed", "ITA 118.1(1)",
        "As much of the pool as the way claims here, at most a part of net income.";
    CARRIED = "ca.gifts.carried", "Gifts kept for later", "ITA 118.1(1)",
        "What neither partner claims, for five years.";
    pub CREDIT = "ca.34900", "Credit for gifts", "ITA 118.1(3)",
        "The first tier at the lowest rate, the rest at the higher ones.";
    pub PROVINCIAL_CREDIT = "ca.58969", "Credit for gifts, province", "Income tax acts of the provinces; form 428",
        "The same gifts at the rates of the province.";
}

limits! {
    pub GIFTS = "ca.limit.gifts" on CLAIMED, "Gifts", "over the part of net income, kept for later",
        "ITA 118.1(1)";
}

open_points! {
    OTHER_DAYS = look "C-63", "ITA 118.1(1)", "Check the day.";
    NO_REGISTRATION = look "C-64", "ITA 118.1(2)",
        "It stands on the receipt.";
    CLAIMED_BEFORE = blocks "C-63-used", "ITA 118.1(1)",
        "Answer in the line.";
    TOO_OLD = blocks "C-63-carried", "ITA 118.1(1)",
        "Correct the year, or remove it.";
    OF_DEPENDANT = not_covered "gifts-of-dependant", "ITA 118.1(1)";
}

/// The most that a filer can claim at a net income; more in the year of the death.
pub fn most(facts: &Facts, person: usize, net: Money) -> Money {
    let figures = &facts.figures;
    cents(net, if facts.died(person) { figures.year_of_death.gifts_part } else { figures.gifts.part })
}

/// What a return claims of the pool.
#[derive(Debug, Clone, Copy, Default)]
pub struct Claim {
    /// What it claims.
    pub claimed: Money,
    /// What the pool has left after it.
    pub left: Money,
}

/// What this return claims of what the pool has left: at most the part of net income (118.1(1) "total gifts").
pub fn claimed(on: On<'_>, trail: &mut impl Trail, left: Money, net: Money) -> Claim {
    if on.facts.gifts.is_empty() || !on.who().filer {
        return Claim { claimed: Money::ZERO, left };
    }
    let wanted = on.plan.gifts[on.person].unwrap_or(left);
    let wanted = limit::lesser(trail, wanted, left);
    if on.plan.world.is_some() {
        let claimed = limit::lesser(trail, wanted, most(on.facts, on.person, net + deducted(on)));
        return Claim { claimed, left: left - least_claimed(on, trail, wanted) };
    }
    let most = most(on.facts, on.person, net);
    let allowed = limit::cap(trail, GIFTS.at(on.scope), wanted, most);
    let claimed = trail.line(CLAIMED, on.scope, allowed, |i| {
        i.items(&on.facts.gifts).line(income::NET, on.scope, net).figure("Left in the pool", left);
    });
    Claim { claimed, left: left - claimed }
}

/// What a way deducts by choice at the most: before it net income is so much more, and in a world the part that limits gifts is one of that.
fn deducted(on: On<'_>) -> Money {
    let (facts, person) = (on.facts, on.person);
    let most = contributions::most(facts, person)
        + first_home::most(facts, person)
        + rental::most(&facts.people[person].own);
    let chosen = on.plan.contributions[person].map_or(most, |wanted| settled::lesser(wanted, most));
    chosen + business::claimed(on)
}

/// What is claimed of `wanted` where all contributions are deducted, so that net income is the least: no deduction leaves
/// more to the other of a couple.
fn least_claimed(on: On<'_>, trail: &mut impl Trail, wanted: Money) -> Money {
    if on.facts.filers.last() == Some(&on.person) {
        return wanted;
    }
    let mut plan = on.plan.clone();
    plan.contributions[on.person] = None;
    let net = income::reckon(On { plan: &plan, ..on }, &mut Unseen(trail)).net;
    limit::lesser(trail, wanted, most(on.facts, on.person, net))
}

/// What neither of a couple claims, for the five years after.
pub fn carried(on: On<'_>, trail: &mut impl Trail, left: Money) {
    if on.facts.gifts.is_empty() {
        return;
    }
    trail.line(CARRIED, on.scope, left, |i| {
        i.figure("Gifts of this year and carried in", sum(&on.facts.gifts));
    });
}

/// Line 34900 (118.1(3)): the first tier at the lowest rate, what is above it at the top rate as far as taxable income
/// reaches into the top bracket, the rest at the rate before.
pub fn credit(on: On<'_>, trail: &mut impl Trail, gifts: Money, taxable: Money) -> Money {
    if on.facts.gifts.is_empty() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.gifts;
    let first = limit::lesser(trail, gifts, figures.first);
    let above = gifts - first;
    let in_top = limit::or_zero(trail, taxable - figures.top_from);
    let top = limit::lesser(trail, above, in_top);
    let tiers = [(first, figures.first_rate), (top, figures.top_rate), (above - top, figures.rate)];
    let credit = Money::sum_of_products(tiers, Money::CENT, Rounding::HalfUp);
    on.made(trail, CREDIT, credit, &[(CLAIMED, gifts), (income::TAXABLE, taxable)], &[])
}

/// Line 58969: the same gifts at the rates of the province; `top` is the rate out of income in the top bracket, where it has
/// one.
pub fn provincial_credit(
    on: On<'_>,
    trail: &mut impl Trail,
    gifts: Money,
    figures: &Provincial,
    taxable: Money,
    top: Option<&TopUp>,
) -> Money {
    if on.facts.gifts.is_empty() {
        return Money::ZERO;
    }
    let first = limit::lesser(trail, gifts, on.facts.figures.gifts.first);
    let above = gifts - first;
    let (in_top, top_rate) = match top {
        None => (Money::ZERO, figures.gift_rate),
        Some(top) => {
            let in_top = limit::or_zero(trail, taxable - top.above);
            (limit::lesser(trail, above, in_top), top.rate)
        }
    };
    let tiers = [(first, figures.gift_first_rate), (in_top, top_rate), (above - in_top, figures.gift_rate)];
    let credit = Money::sum_of_products(tiers, Money::CENT, Rounding::HalfUp);
    on.made(
        trail,
        PROVINCIAL_CREDIT,
        credit,
        &[(CLAIMED, gifts), (income::TAXABLE, taxable)],
        &[("First tier", &figures.gift_first_rate), ("Above it", &figures.gift_rate)],
    )
}

/// Schedule 9: where gifts are claimed.
pub fn schedule_9(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CLAIMED), "no gifts claimed here")
}

const RECEIPTS: PaperKind = PaperKind {
    id: "Gifts",
    subject: subject::DEDUCTIONS,
    name: "Gifts to registered charities",
    words: "charity donation church giving",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Given on"),
        Field::text("what", "", "To whom", 80).payer_name(),
        Field::text("number", "", "Registration", 20).payer_number(),
        Field::amount("amount", "", "Eligible amount"),
        Field::yes_no("used", "", "In an earlier claim")
            .help("A gift of January or February that was claimed for the year before."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const BROUGHT_IN: PaperKind = PaperKind {
    id: "Gifts carried",
    subject: subject::DEDUCTIONS,
    name: "Gifts of earlier years, not yet claimed",
    words: "charity donation left over",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[Field::count("year", "", "Given in", 2100), Field::amount("amount", "", "Left to claim")],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Whether a gift of a day counts for this year: for 2024 to the end of February after it.
fn counts_on(facts: &Facts, date: time::Date) -> bool {
    let last = facts.figures.gifts.last_day.map_or(facts.year_end, |day| day.0);
    (facts.year_begin..=last).contains(&date)
}

/// Gifts of this year and of the years from which they are carried.
pub fn read(paper: &mut Bringing<'_>) {
    let year = i64::from(paper.facts.figures.year);
    let counted = year - paper.facts.figures.gifts.carried_years..=year;
    for (row, cells, amount) in paper.paper.lines("amount") {
        let date = cells.get("date").and_then(Entry::date);
        let late = date.is_some_and(|date| date > paper.facts.year_end && counts_on(paper.facts, date));
        let given = date.filter(|_| !late).map(|d| i64::from(d.year()));
        let given = cells.get("year").and_then(Entry::count).or(given).unwrap_or(year);
        let used = cells.get("used").and_then(Entry::flag).unwrap_or(false);
        if counted.contains(&given) && !used {
            paper.gift("amount", Some(row), amount);
        }
    }
}

/// What a gift needs beside it, and how long one is carried.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(T4.id).filter(|paper| !paper.amount("46").is_zero()) {
        of_dependant(points, paper, "46");
    }
    for paper in points.papers(RECEIPTS.id) {
        points
            .dates(paper, &OTHER_DAYS, "no day of this return year", |facts, _, date| counts_on(facts, date));
        of_dependant(points, paper, "title");
        for cells in &paper.rows {
            if cells.get("number").and_then(Entry::text).is_none_or(str::is_empty) {
                let message = "A gift counts only with the charity's registration number.";
                points.raise(&NO_REGISTRATION, Place::row(&paper.id, cells, "number"), message);
            }
            let date = cells.get("date").and_then(Entry::date);
            let early = points.facts.figures.gifts.earlier_year_to.as_ref().zip(date);
            let early = early.is_some_and(|(to, date)| (points.facts.year_begin..=to.0).contains(&date));
            if early && !cells.contains_key("used") {
                let message =
                    "Was this gift claimed for the year before? Those of January and February could be.";
                points.raise(&CLAIMED_BEFORE, Place::row(&paper.id, cells, "used"), message);
            }
        }
    }
    for paper in points.papers(BROUGHT_IN.id) {
        let year = i64::from(points.facts.figures.year);
        let oldest = year - points.facts.figures.gifts.carried_years;
        for cells in &paper.rows {
            let given = cells.get("year").and_then(Entry::count);
            if given.is_none_or(|g| g < oldest || g >= year) {
                let message = format!("Gifts are carried from {oldest} to {} only.", year - 1);
                points.raise(&TOO_OLD, Place::row(&paper.id, cells, "year"), message);
            }
        }
    }
}

/// Gifts on a paper of someone who is no filer.
fn of_dependant(points: &mut Points<'_>, paper: &Paper, field: &str) {
    let files = |id: &str| points.household.index_of(id).is_some_and(|p| points.facts.people[p].filer);
    if !paper.owners.iter().all(|o| files(&o.person)) {
        let message = "Gifts of a dependant are not computed yet.";
        points.raise(&OF_DEPENDANT, Place::paper(&paper.id, field), message);
    }
}

/// How much of the pool a filer claims, by the filer's place among the people: of a couple the first an amount, the
/// second of the rest as much as helps; who files alone, too.
pub static CLAIM: Open<Facts> = Open::new(
    |facts| {
        let open = !sum(&facts.gifts).is_zero() && (facts.couple || facts.filers.len() == 1);
        if open { facts.filers.clone() } else { Vec::new() }
    },
    |facts, person| {
        let first = facts.couple && facts.filers[0] == person;
        let name = facts.first_name(person);
        let amount = Amount {
            most: sum(&facts.gifts),
            short: if first { format!("gifts with {name}") } else { String::new() },
            more: match facts.filers.last() == Some(&person) {
                true => earlier_minimum_tax::more(facts, person),
                false => More::MayCost,
            },
            steepest: STEEPEST_OF_GIFTS,
        };
        let id = format!("ca.gifts.{}", facts.people[person].id);
        Decision::amount(id, format!("Gifts that {name} claims"), "ITA 118.1(1), (3); Schedule 9", amount)
    },
);

/// What each person claims in a way; all that are left where nothing is said.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<Option<Money>> {
    (0..facts.people.len()).map(|person| way.amount(&CLAIM, person)).collect()
}
