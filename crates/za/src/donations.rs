//! Gifts to approved bodies (s18A; code 4011): up to a part of income, the rest is carried.

use crate::{bringing::Bringing, carried, certificates, plan::On, points::Points, rounding::cents_down};
use hembo_core::{
    field::{Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    trail::Trail,
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Donations",
    lines: LINES,
    limits: LIMITS,
    papers: &[RECEIPTS],
    points: POINTS,
    figures: &["donations"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    GIFTS = "za.donations", "Gifts", "s18A(1); code 4011",
        "Receipts, gifts by payroll, and what earlier years left.";
    MOST = "za.donation_limit", "Most that is deducted", "s18A(1)(B)",
        "A tenth of income after retirement contributions.";
    pub DEDUCTED = "za.donation_deduction", "Gifts deducted", "s18A",
        "Gifts up to the most.";
    CARRIED = "za.donations_cf", "Gifts carried", "s18A(1)",
        "What is not deducted this year.";
}

limits! {
    CAP = "za.limit.donations" on DEDUCTED, "Gifts", "over a tenth of income, carried forward", "s18A(1)(B)";
}

open_points! {
    NO_RECEIPT = blocks "C34", "s18A(2)", "Without the number of an s18A receipt nothing is deducted: enter it, or take the line out.";
    ABOVE = look "C35", "s18A(1)", "The excess is carried to the next year.";
}

const CARRIES: &[Carry] = &[Carry { line: CARRIED, paper: carried::PAPER, into: CarriedTo::Box("gifts") }];

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Gifts with receipts.
    pub static GIFTS: Brought = Brought::new();
}

const RECEIPTS: PaperKind = PaperKind {
    id: "Donations",
    subject: subject::DEDUCTIONS,
    name: "Receipts of s18A",
    words: "gift charity donation pbo section 18a",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::text("donee", "", "Organisation", 80).payer_name(),
        Field::text("pbo", "", "PBO number", 20).payer_number(),
        Field::text("receipt", "", "Receipt number", 30),
        Field::amount("amount", "4011", "Amount"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives gifts to who gave them, by the name on the receipt.
pub fn read(paper: &mut Bringing<'_>) {
    let rows: Vec<(usize, Money)> =
        paper.paper.lines("amount").map(|(row, _, amount)| (row, amount)).collect();
    for (row, amount) in rows {
        paper.put("amount", Some(row), amount, &brings::GIFTS);
    }
}

/// The deduction: `income` is what is left after retirement contributions.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: Money) -> Money {
    let own = on.own();
    let brought = carried::of(on, carried::GIFTS);
    let items = own.of(&brings::GIFTS).iter().chain(own.of(&certificates::brings::GIFTS)).chain(brought);
    let all = on.gather(trail, GIFTS, items);
    let figures = &on.facts.figures.donations;
    let most = cents_down(limit::or_zero(trail, income), figures.rate);
    on.made(trail, MOST, most, &[], &[("Income", &income), ("Rate", &figures.rate)]);
    let deducted = limit::cap(trail, CAP.at(on.scope), all, most);
    on.made(trail, DEDUCTED, deducted, &[(GIFTS, all), (MOST, most)], &[]);
    on.made(trail, CARRIED, all - deducted, &[(GIFTS, all), (DEDUCTED, deducted)], &[]);
    deducted
}

/// Gifts without receipts, gifts above the most.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RECEIPTS.id) {
        for row in &paper.rows {
            let given = row.get("amount").and_then(Entry::money).is_some_and(|amount| !amount.is_zero());
            if given && row.get("receipt").and_then(Entry::text).is_none_or(str::is_empty) {
                points.raise(
                    &NO_RECEIPT,
                    Place::row(&paper.id, row, "receipt"),
                    "The number of the receipt?",
                );
            }
        }
    }
    for (place, person) in points.returns() {
        let carried = points.amount(CARRIED, place);
        if !carried.is_zero() {
            let message = format!("{}: {carried:#} of gifts are carried.", points.name(person));
            points.raise(&ABOVE, points.at(person, "name"), message);
        }
    }
}
