//! Payments of long-term care insurance and accelerated death benefits (§§101(g), 7702B(d)), Form 8853, Section C: what is above an amount
//! a day, or the cost of the care, is income.

use crate::{
    bringing::Bringing,
    facts::Facts,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Choice, Field, Years},
    forms::Required,
    household::Entry,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Scope, Silent, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[PAYMENTS],
    points: POINTS,
    figures: &["long_term_care_payments"],
    ..Provision::NONE
};

lines! {
    RECEIVED = "us.8853.20", "Payments by the day", "IRC §7702B(d)(1)",
        "Of long-term care contracts and death benefits paid in life, without those of the terminally ill.";
    LIMIT = "us.8853.25", "Payments left out", "IRC §7702B(d)(2)",
        "An amount for each day of care, or its cost if more, less what was reimbursed.";
    pub OF = "us.8853.26", "Payments, taxed", "IRC §7702B(d)(1)",
        "What was received above that.";
    pub INCOME = "us.sched_1.8e", "Long-term care payments", "IRC §7702B(d)(1)",
        "Form 8853 of each person.";
}

open_points! {
    KIND = blocks "1099-LTC-3", "Form 1099-LTC, box 3",
        "Mark box 3: payments by the day go by Form 8853, reimbursed cost is not taxed.";
    DAYS = blocks "1099-LTC-days", "IRC §7702B(d)(2)(A)",
        "Enter the days of the period of care: the amount left out goes by them.";
}

/// Payments for an insured person, the part of an owner.
#[derive(Debug, Clone, Copy)]
struct Paid {
    gross: Item,
    received: Money,
    days: i64,
    cost: Money,
    reimbursed: Money,
}

/// What its papers bring.
mod brings {
    use super::Paid;
    use hembo_core::brought::Brought;

    /// Payments by the day.
    pub static PAID: Brought<Paid> = Brought::new();
}

const KINDS: &[Choice] =
    &[Choice::new("day", "By the day or period"), Choice::new("reimbursed", "Reimbursed cost")];

const PAYMENTS: PaperKind = PaperKind {
    id: "1099-LTC",
    subject: subject::OTHER_INCOME,
    name: "Long-term care payments",
    words: "long term care insurance ltc accelerated death benefit 8853 nursing per diem",
    title: "Payer",
    shared: false,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Long-term care benefits")
            .help("All payers for one insured person on one paper."),
        Field::amount("2", "2", "Death benefits paid in life"),
        Field::choice("3", "3", "Paid", KINDS),
        Field::yes_no("terminal", "5", "Terminally ill")
            .help("Death benefits paid in life are then not taxed."),
        Field::count("days", "", "Days of care in the period", 366).help("Form 8853, line 21."),
        Field::amount("cost", "", "Cost of the care in it").help("Form 8853, line 22."),
        Field::amount("reimbursed", "", "Reimbursed for it otherwise").help("Form 8853, line 24."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives payments by the day to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    let of = paper.paper.paper;
    if of.text("3") == Some("reimbursed") {
        return;
    }
    paper.earns();
    let in_life = if of.flag("terminal") { Money::ZERO } else { of.amount("2") };
    let paid = |gross| Paid {
        gross,
        received: of.amount("1") + in_life,
        days: of.boxes.get("days").and_then(Entry::count).unwrap_or(0),
        cost: of.amount("cost"),
        reimbursed: of.amount("reimbursed"),
    };
    paper.put_as("1", None, of.amount("1") + in_life, &brings::PAID, paid);
}

/// What of a person's payments is taxed: paper by paper, each of an insured person.
pub fn of_person(facts: &Facts, trail: &mut impl Trail, person: usize) -> Money {
    let all = facts.people[person].own.of(&brings::PAID);
    if all.is_empty() {
        return Money::ZERO;
    }
    let (scope, a_day) = (Scope::Person(person), facts.figures.long_term_care_payments.a_day);
    let left_out = |paid: &Paid| {
        let by_day = Money::from_cents(a_day.cents() * paid.days);
        settled::or_zero(settled::greater(by_day, paid.cost) - paid.reimbursed)
    };
    let received = all.iter().map(|paid| paid.received).sum::<Money>().to_whole();
    trail.line(RECEIVED, scope, received, |i| {
        i.items(all.iter().map(|paid| &paid.gross));
    });
    let limit = all.iter().map(left_out).sum::<Money>().to_whole();
    trail.line(LIMIT, scope, limit, |i| {
        i.figure("Each day", a_day).figure("Days", all.iter().map(|paid| paid.days).sum::<i64>());
    });
    let taxed =
        all.iter().map(|paid| settled::or_zero(paid.received - left_out(paid))).sum::<Money>().to_whole();
    trail.line(OF, scope, taxed, |i| {
        i.line(RECEIVED, scope, received).line(LIMIT, scope, limit);
    })
}

/// The same without a trail, with its line.
pub fn part(facts: &Facts, person: usize) -> (LineId, Money) {
    (OF, of_person(facts, &mut Silent, person))
}

/// Schedule 1 line 8e.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    let each: Vec<_> = on.unit.people.iter().map(|&p| (p, of_person(on.facts, trail, p))).collect();
    on.of_each(trail, INCOME, OF, &each)
}

/// Form 8853: where payments by the day were received.
pub fn form_8853(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.owns().any(|(_, own)| own.has(&brings::PAID)), "no payments by the day")
}

/// What the paper must tell.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PAYMENTS.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let any = !(paper.amount("1") + paper.amount("2")).is_zero();
        match paper.text("3") {
            None if any => points.raise(&KIND, at("3"), "Was this paid by the day?"),
            Some("day") if any && !paper.boxes.contains_key("days") => {
                points.raise(&DAYS, at("days"), "For how many days was this paid?");
            }
            _ => {}
        }
    }
}
