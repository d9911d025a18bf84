//! Capital gains and losses (§§1211, 1212, 1221, 1222): Form 8949 by its boxes, Schedule D, the limit on a loss, and what of it
//! is carried over.

use crate::{
    bringing::Bringing,
    business_property::{self, Property},
    facts::Marital,
    gains::Gains,
    home_sale,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    brought::{Brought, Records},
    field::{Field, Years},
    forms::Required,
    limit, limits,
    line::LineId,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[CARRIED],
    points: POINTS,
    figures: &["capital_gains"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry { line: CARRY_SHORT, paper: "Losses carried", into: CarriedTo::Box("short") },
    Carry { line: CARRY_LONG, paper: "Losses carried", into: CarriedTo::Box("long") },
];

lines! {
    D1B = "us.sched_d.1b.d", "Short, basis reported: proceeds", "IRC §1001(b)",
        "Form 8949, Part I, box A (from 2025 also box G).";
    E1B = "us.sched_d.1b.e", "Short, basis reported: cost", "IRC §1011",
        "Form 8949, Part I, box A (from 2025 also box G).";
    G1B = "us.sched_d.1b.g", "Short, basis reported: adjustments", "Form 8949, column (g)",
        "Wash sales, market discount and other adjustments.";
    H1B = "us.sched_d.1b", "Short, basis reported", "IRC §1222(1), (2)",
        "Proceeds less cost, with the adjustments.";
    D2 = "us.sched_d.2.d", "Short, basis not reported: proceeds", "IRC §1001(b)",
        "Form 8949, Part I, box B (from 2025 also box H).";
    E2 = "us.sched_d.2.e", "Short, basis not reported: cost", "IRC §1011",
        "Form 8949, Part I, box B (from 2025 also box H).";
    G2 = "us.sched_d.2.g", "Short, basis not reported: adjustments", "Form 8949, column (g)",
        "Wash sales, market discount and other adjustments.";
    H2 = "us.sched_d.2", "Short, basis not reported", "IRC §1222(1), (2)",
        "Proceeds less cost, with the adjustments.";
    D3 = "us.sched_d.3.d", "Short, no Form 1099-B: proceeds", "IRC §1001(b)",
        "Form 8949, Part I, box C (from 2025 also box I).";
    E3 = "us.sched_d.3.e", "Short, no Form 1099-B: cost", "IRC §1011",
        "Form 8949, Part I, box C (from 2025 also box I).";
    G3 = "us.sched_d.3.g", "Short, no Form 1099-B: adjustments", "Form 8949, column (g)",
        "Wash sales, market discount and other adjustments.";
    H3 = "us.sched_d.3", "Short, no Form 1099-B", "IRC §1222(1), (2)",
        "Proceeds less cost, with the adjustments.";
    THROUGH_SHORT = "us.sched_d.5", "Short-term gain of partnerships, S corporations, estates, trusts", "IRC §§652, 702(a)(1), 1366(a)(1)",
        "Net short-term gain or loss of every Schedule K-1.";
    CARRIED_SHORT = "us.sched_d.6", "Short-term loss carried here", "IRC §1212(b)",
        "From the year before.";
    pub SHORT = "us.sched_d.7", "Net short-term gain or loss", "IRC §1222(5), (6)",
        "Lines 1b to 6.";
    D8B = "us.sched_d.8b.d", "Long, basis reported: proceeds", "IRC §1001(b)",
        "Form 8949, Part II, box D (from 2025 also box J).";
    E8B = "us.sched_d.8b.e", "Long, basis reported: cost", "IRC §1011",
        "Form 8949, Part II, box D (from 2025 also box J).";
    G8B = "us.sched_d.8b.g", "Long, basis reported: adjustments", "Form 8949, column (g)",
        "Wash sales, market discount and other adjustments.";
    H8B = "us.sched_d.8b", "Long, basis reported", "IRC §1222(3), (4)",
        "Proceeds less cost, with the adjustments.";
    D9 = "us.sched_d.9.d", "Long, basis not reported: proceeds", "IRC §1001(b)",
        "Form 8949, Part II, box E (from 2025 also box K).";
    E9 = "us.sched_d.9.e", "Long, basis not reported: cost", "IRC §1011",
        "Form 8949, Part II, box E (from 2025 also box K).";
    G9 = "us.sched_d.9.g", "Long, basis not reported: adjustments", "Form 8949, column (g)",
        "Wash sales, market discount and other adjustments.";
    H9 = "us.sched_d.9", "Long, basis not reported", "IRC §1222(3), (4)",
        "Proceeds less cost, with the adjustments.";
    D10 = "us.sched_d.10.d", "Long, no Form 1099-B: proceeds", "IRC §1001(b)",
        "Form 8949, Part II, box F (from 2025 also box L).";
    E10 = "us.sched_d.10.e", "Long, no Form 1099-B: cost", "IRC §1011",
        "Form 8949, Part II, box F (from 2025 also box L).";
    G10 = "us.sched_d.10.g", "Long, no Form 1099-B: adjustments", "Form 8949, column (g)",
        "Wash sales, market discount and other adjustments.";
    H10 = "us.sched_d.10", "Long, no Form 1099-B", "IRC §1222(3), (4)",
        "Proceeds less cost, with the adjustments.";
    UNDISTRIBUTED = "us.sched_d.11.fund", "Undistributed gains of funds", "IRC §852(b)(3)(D)(i)",
        "Box 1a of every Form 2439.";
    THROUGH_LONG = "us.sched_d.12", "Long-term gain of partnerships, S corporations, estates, trusts", "IRC §§652, 702(a)(2), 1366(a)(1)",
        "Net long-term gain or loss of every Schedule K-1.";
    DISTRIBUTED = "us.sched_d.13", "Capital gain distributions", "IRC §852(b)(3)(B)",
        "Box 2a of every Form 1099-DIV.";
    CARRIED_LONG = "us.sched_d.14", "Long-term loss carried here", "IRC §1212(b)",
        "From the year before.";
    pub LONG = "us.sched_d.15", "Net long-term gain or loss", "IRC §1222(7), (8)",
        "Lines 8b to 14.";
    COMBINED = "us.sched_d.16", "Gains and losses together", "IRC §1222(9), (10)",
        "Lines 7 and 15.";
    pub RATE_28 = "us.sched_d.18", "28 % rate gain", "IRC §1(h)(4)",
        "Collectibles, less a short-term loss and a long-term loss carried here.";
    pub SECTION_1250 = "us.sched_d.19", "Unrecaptured section 1250 gain", "IRC §1(h)(6)",
        "Depreciation taxed at 25 %, less what losses took beyond the 28 % rate gain.";
    pub L7 = "us.7", "Capital gain or loss", "IRC §§1211(b), 1222",
        "Line 16 of Schedule D; a loss only up to the limit of the year.";
    pub CARRY_SHORT = "us.carryover.short", "Short-term loss carried on", "IRC §1212(b)(1)(A)",
        "What of a short-term loss this year does not use, Capital Loss Carryover Worksheet line 8.";
    pub CARRY_LONG = "us.carryover.long", "Long-term loss carried on", "IRC §1212(b)(1)(B)",
        "What of a long-term loss this year does not use, Capital Loss Carryover Worksheet line 13.";
}

limits! {
    LOSS = "us.limit.capital_loss" on L7, "Capital loss", "over the limit of the year, carried on",
        "IRC §1211(b)";
}

open_points! {
    DIED = look "K-064", "IRC §1212(b); Rev. Rul. 74-175",
        "A loss that one spouse had dies with that spouse: look at whose it was.";
}

/// The box of Form 8949, by term and by what the broker reported; those for digital assets stand on the same rows.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum SaleBox {
    A,
    B,
    C,
    D,
    E,
    F,
}

/// A row of Schedule D with its columns.
struct RowOf {
    of: SaleBox,
    columns: [LineId; 3],
    gain: LineId,
}

const SHORT_ROWS: [RowOf; 3] = [
    RowOf { of: SaleBox::A, columns: [D1B, E1B, G1B], gain: H1B },
    RowOf { of: SaleBox::B, columns: [D2, E2, G2], gain: H2 },
    RowOf { of: SaleBox::C, columns: [D3, E3, G3], gain: H3 },
];

const LONG_ROWS: [RowOf; 3] = [
    RowOf { of: SaleBox::D, columns: [D8B, E8B, G8B], gain: H8B },
    RowOf { of: SaleBox::E, columns: [D9, E9, G9], gain: H9 },
    RowOf { of: SaleBox::F, columns: [D10, E10, G10], gain: H10 },
];

/// One amount of a sale: proceeds, cost or adjustment, by the place of its column.
#[derive(Debug, Clone)]
pub struct Sold {
    into: SaleBox,
    column: usize,
    /// Cost stands as an amount above zero.
    item: Item,
}

/// The place of the cost among the columns.
const COST: usize = 1;

/// What its papers bring.
pub mod brings {
    use super::Sold;
    use hembo_core::brought::Brought;

    /// Sales of Form 8949, amount by amount.
    pub static SALES: Brought<Sold> = Brought::new();

    /// Gains of sales, without losses: gross income (§61(a)(3)).
    pub static GROSS: Brought = Brought::new();

    /// Short-term gains and losses of partnerships, S corporations, estates and trusts.
    pub static THROUGH_SHORT: Brought = Brought::new();

    /// Their long-term ones.
    pub static THROUGH_LONG: Brought = Brought::new();

    /// Long-term gains that a fund kept.
    pub static UNDISTRIBUTED: Brought = Brought::new();

    /// Capital gain distributions.
    pub static DISTRIBUTIONS: Brought = Brought::new();

    /// Unrecaptured section 1250 gain.
    pub static SECTION_1250: Brought = Brought::new();

    /// Long-term gains and losses of collectibles.
    pub static COLLECTIBLES: Brought = Brought::new();

    /// Short-term loss of earlier years.
    pub static CARRIED_SHORT: Brought = Brought::new();

    /// Long-term loss of earlier years.
    pub static CARRIED_LONG: Brought = Brought::new();
}

const CARRIED: PaperKind = PaperKind {
    id: "Losses carried",
    subject: subject::INVESTMENTS,
    name: "Capital losses of earlier years",
    words: "capital loss carryover schedule d",
    title: "From",
    shared: true,
    headline: "long",
    boxes: &[
        Field::amount("short", "6", "Short-term loss carried")
            .help("Capital Loss Carryover Worksheet of last year, line 8."),
        Field::amount("long", "14", "Long-term loss carried").help("The same worksheet, line 13."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives a sale to the owners: proceeds, cost and adjustment, each with its box or column.
pub fn sale(paper: &mut Bringing<'_>, into: SaleBox, row: Option<usize>, parts: [(&'static str, Money); 3]) {
    let [(_, proceeds), (_, cost), (_, adjusted)] = parts;
    for (column, (field, amount)) in parts.into_iter().enumerate() {
        paper.put_as(field, row, amount, &brings::SALES, |item| Sold { into, column, item });
    }
    paper.put(parts[0].0, row, settled::or_zero(proceeds - cost + adjusted), &brings::GROSS);
}

/// Gives a gain or loss of a Schedule K-1 to the owners.
pub fn through(paper: &mut Bringing<'_>, field: &'static str, kind: &'static Brought) {
    paper.give(field, kind);
    paper.put(field, None, settled::or_zero(paper.paper.paper.amount(field)), &brings::GROSS);
}

/// Gives losses of earlier years to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("short", &brings::CARRIED_SHORT);
    paper.give("long", &brings::CARRIED_LONG);
}

/// Whether papers bring anything to Schedule D.
pub fn anything(own: &Records) -> bool {
    let kinds = [
        &brings::DISTRIBUTIONS,
        &brings::UNDISTRIBUTED,
        &brings::CARRIED_SHORT,
        &brings::CARRIED_LONG,
        &brings::THROUGH_SHORT,
        &brings::THROUGH_LONG,
    ];
    own.has(&brings::SALES)
        || own.has(&home_sale::brings::HOMES)
        || kinds.into_iter().any(|kind| own.has(kind))
}

/// Lines 1b to 21 of Schedule D, and Form 1040 line 7.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, of_children: (LineId, Money), property: Property) -> Gains {
    if of_children.1.is_zero() && property.gain.is_zero() && !on.owns().any(|(_, own)| anything(own)) {
        trail.line(L7, on.scope, Money::ZERO, |_| {});
        return Gains::default();
    }
    let home = home_sale::reckon(on, trail);
    let carried = (CARRIED_SHORT, &brings::CARRIED_SHORT);
    let through = on.gather(trail, THROUGH_SHORT, &brings::THROUGH_SHORT);
    let more = [(home_sale::TAXED, home.short), (THROUGH_SHORT, through)];
    let short = net(on, trail, SHORT, &SHORT_ROWS, &more, carried);
    let distributed = on.gather_with(trail, DISTRIBUTED, &brings::DISTRIBUTIONS, of_children);
    let through = on.gather(trail, THROUGH_LONG, &brings::THROUGH_LONG);
    let kept = on.gather(trail, UNDISTRIBUTED, &brings::UNDISTRIBUTED);
    let more = [
        (business_property::GAIN, property.gain),
        (UNDISTRIBUTED, kept),
        (home_sale::TAXED, home.long),
        (THROUGH_LONG, through),
        (DISTRIBUTED, distributed),
    ];
    let long = net(on, trail, LONG, &LONG_ROWS, &more, (CARRIED_LONG, &brings::CARRIED_LONG));
    let together = trail.line(COMBINED, on.scope, short + long, |i| {
        i.line(SHORT, on.scope, short).line(LONG, on.scope, long);
    });
    let lesser = limit::lesser(trail, long, together);
    let taxed = limit::or_zero(trail, lesser);
    let (rate_28, section_1250) = layers(on, trail, short, taxed, [home.section_1250, property.section_1250]);
    each(on, trail, property);
    let line_7 = if together.is_negative() {
        -limit::cap(trail, LOSS.at(on.scope), -together, most_lost(on))
    } else {
        together
    };
    trail.line(L7, on.scope, line_7, |i| {
        i.line(COMBINED, on.scope, together);
    });
    let gross = on.owns().map(|(_, own)| gross(own)).sum::<Money>().to_whole()
        + home.short
        + home.long
        + of_children.1;
    Gains { line_7, short, long, net: taxed, rate_28, section_1250, gross }
}

/// What a loss counts for at most.
fn most_lost(on: On<'_>) -> Money {
    *on.facts.figures.capital_gains.loss.of(on.unit.status)
}

/// Line 7 of so much on line 16.
pub fn limited(on: On<'_>, together: Money) -> Money {
    settled::greater(together, -most_lost(on))
}

/// The rows of a term with what else belongs to it, less what is carried here.
fn net(
    on: On<'_>,
    trail: &mut impl Trail,
    id: LineId,
    rows: &[RowOf; 3],
    more: &[(LineId, Money)],
    (line, carried): (LineId, &'static Brought),
) -> Money {
    let gains = rows.each_ref().map(|row| of_row(on, trail, row));
    let carried = on.gather(trail, line, carried);
    let added: Money = more.iter().map(|(_, amount)| *amount).sum();
    let total = gains.iter().copied().sum::<Money>() + added - carried;
    trail.line(id, on.scope, total, |i| {
        let rows = rows.iter().map(|row| row.gain).zip(gains);
        let parts = rows.chain(more.iter().copied()).chain([(line, carried)]);
        for (line, amount) in parts.filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    })
}

/// Proceeds less cost, with adjustments: each column added up with cents and rounded once.
fn of_row(on: On<'_>, trail: &mut impl Trail, row: &RowOf) -> Money {
    let sold = || on.owns().flat_map(|(_, own)| own.of(&brings::SALES)).filter(|sold| sold.into == row.of);
    if sold().next().is_none() {
        return Money::ZERO;
    }
    let mut amounts = [Money::ZERO; 3];
    for (column, (amount, id)) in amounts.iter_mut().zip(row.columns).enumerate() {
        let items = || sold().filter(|sold| sold.column == column).map(|sold| &sold.item);
        *amount = trail.line(id, on.scope, sum(items()).to_whole(), |i| {
            i.items(items());
        });
    }
    let [proceeds, cost, adjusted] = amounts;
    trail.line(row.gain, on.scope, proceeds - cost + adjusted, |i| {
        for (id, amount) in row.columns.into_iter().zip(amounts) {
            i.line(id, on.scope, amount);
        }
    })
}

/// The layers of the net gain that are taxed at 28 % and at 25 %: the 28% Rate Gain and the Unrecaptured Section 1250 Gain
/// Worksheets. Losses take from the first, then from the second.
fn layers(
    on: On<'_>,
    trail: &mut impl Trail,
    short: Money,
    taxed: Money,
    [home, property]: [Money; 2],
) -> (Money, Money) {
    let all = |kind| sum(on.items(kind)).to_whole();
    let (collectibles, depreciation) =
        (all(&brings::COLLECTIBLES), all(&brings::SECTION_1250) + home + property);
    if taxed.is_zero() || (collectibles.is_zero() && depreciation.is_zero()) {
        return (Money::ZERO, Money::ZERO);
    }
    let lost = limit::lesser(trail, short, Money::ZERO) - all(&brings::CARRIED_LONG);
    let left = collectibles + lost;
    let rate_28 = limit::or_zero(trail, left);
    trail.line(RATE_28, on.scope, rate_28, |i| {
        i.items(on.items(&brings::COLLECTIBLES)).figure("Losses that take from it", lost);
    });
    let beyond = limit::lesser(trail, left, Money::ZERO);
    let section_1250 = limit::or_zero(trail, depreciation + beyond);
    trail.line(SECTION_1250, on.scope, section_1250, |i| {
        i.items(on.items(&brings::SECTION_1250)).figure("Losses that take from it", beyond);
        for (name, amount) in [("Depreciation of the home", home), ("Depreciation of what was let", property)]
        {
            if !amount.is_zero() {
                i.figure(name, amount);
            }
        }
    });
    (rate_28, section_1250)
}

/// What each spouse brings to the gains of a joint return.
fn each(on: On<'_>, trail: &mut impl Trail, property: Property) {
    if on.unit.people.len() == 1 {
        return;
    }
    let of_business = |own: &Records| !of_property(own, property).is_zero();
    for (person, own) in on.owns().filter(|(_, own)| anything(own) || of_business(own)) {
        trail.line(L7, Scope::Person(person), of_person(own, property), |i| {
            let minus = |item: &Item| Item { amount: -item.amount, ..*item };
            let cost = |sold: &Sold| if sold.column == COST { minus(&sold.item) } else { sold.item };
            let sold: Vec<Item> = own.of(&brings::SALES).iter().map(cost).collect();
            let carried =
                [&brings::CARRIED_SHORT, &brings::CARRIED_LONG].into_iter().flat_map(|kind| own.of(kind));
            let carried: Vec<Item> = carried.map(minus).collect();
            i.items(&sold).items(own.of(&brings::DISTRIBUTIONS)).items(own.of(&brings::UNDISTRIBUTED));
            i.items(&carried);
            i.items(own.of(&brings::THROUGH_SHORT)).items(own.of(&brings::THROUGH_LONG));
            i.items(home_sale::items(own));
            if of_business(own) {
                i.items(business_property::items(own));
            }
        });
    }
}

/// A person's gains and distributions, without losses (§61(a)(3)).
pub fn gross(own: &Records) -> Money {
    let kinds = [&brings::GROSS, &brings::DISTRIBUTIONS, &brings::UNDISTRIBUTED];
    kinds.into_iter().map(|kind| sum(own.of(kind))).sum()
}

/// What a person's sales of business property bring, where they are a capital gain of the return.
fn of_property(own: &Records, property: Property) -> Money {
    if property.gain.is_zero() { Money::ZERO } else { business_property::of_person(own) }
}

/// A person's gains less losses, those of earlier years too, before any limit.
pub fn of_person(own: &Records, property: Property) -> Money {
    let signed = |sold: &Sold| if sold.column == COST { -sold.item.amount } else { sold.item.amount };
    let sold: Money = own.of(&brings::SALES).iter().map(signed).sum();
    let carried = sum(own.of(&brings::CARRIED_SHORT)) + sum(own.of(&brings::CARRIED_LONG));
    let through = sum(own.of(&brings::THROUGH_SHORT)) + sum(own.of(&brings::THROUGH_LONG));
    let sold = sold + of_property(own, property);
    let of_funds = sum(own.of(&brings::DISTRIBUTIONS)) + sum(own.of(&brings::UNDISTRIBUTED));
    sold + through + of_funds + sum(home_sale::items(own)) - carried
}

/// What of the losses is carried to the next year: the Capital Loss Carryover Worksheet on this year's figures. `income` is
/// adjusted gross income less all deductions, below zero too.
pub fn carry(on: On<'_>, trail: &mut impl Trail, gains: Gains, income: Money) {
    if !gains.line_7.is_negative() {
        return;
    }
    let allowed = -gains.line_7;
    let counted = limit::or_zero(trail, income + allowed);
    let used = limit::lesser(trail, counted, allowed);
    let lost = |amount: Money| settled::or_zero(-amount);
    let short = limit::or_zero(trail, lost(gains.short) - used - settled::or_zero(gains.long));
    let left = limit::or_zero(trail, used - lost(gains.short));
    let long = limit::or_zero(trail, lost(gains.long) - left - settled::or_zero(gains.short));
    for (line, from, amount, carried) in
        [(CARRY_SHORT, SHORT, gains.short, short), (CARRY_LONG, LONG, gains.long, long)]
    {
        trail.line(line, on.scope, carried, |i| {
            i.line(from, on.scope, amount).line(L7, on.scope, gains.line_7).figure("Used this year", used);
        });
    }
}

/// Schedule D: sales, losses carried, or a layer of its own; distributions alone go to Form 1040.
pub fn schedule_d(filed: Filed<'_>) -> Required {
    let kinds = [
        &brings::CARRIED_SHORT,
        &brings::CARRIED_LONG,
        &brings::SECTION_1250,
        &brings::COLLECTIBLES,
        &brings::THROUGH_SHORT,
        &brings::THROUGH_LONG,
    ];
    let sold = |own: &Records| own.has(&brings::SALES) || own.has(&home_sale::brings::HOMES);
    let needed = |own: &Records| sold(own) || kinds.into_iter().any(|kind| own.has(kind));
    let any = filed.on.owns().any(|(_, own)| needed(own)) || filed.has(business_property::GAIN);
    let why = if filed.has(DISTRIBUTED) { "distributions go to Form 1040" } else { "nothing sold" };
    Required::if_so(any, why)
}

/// Form 8949: sales.
pub fn form_8949(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.owns().any(|(_, own)| own.has(&brings::SALES)), "nothing sold")
}

/// The worksheet of the losses carried on.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(CARRY_SHORT) || filed.has(CARRY_LONG), "no loss carried on")
}

/// A loss carried here that two own, one of whom died before the year.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CARRIED.id) {
        let widowed = points.facts.marital == Marital::Widowed;
        if widowed {
            let place = Place::paper(&paper.id, "long");
            points.raise(&DIED, place, "Of losses of a joint return only the survivor's own are carried on.");
        }
    }
}
