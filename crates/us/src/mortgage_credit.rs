//! The mortgage interest credit (§25), Form 8396: a part of the interest by a certificate of the state or city; what is over the tax is
//! carried on for three years, and the interest that was credited is not deducted.

use crate::{
    bringing::{Bringing, Carried, expiring},
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Field, Years},
    forms::Required,
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[CERTIFICATE],
    points: POINTS,
    figures: &["mortgage_credit"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] =
    &[Carry { line: CARRY, paper: "8396", into: CarriedTo::Rows { column: "amount", says: None } }];

lines! {
    pub OF_YEAR = "us.8396.3", "Mortgage interest credit of the year", "IRC §25(a)",
        "Interest on the certified loan, by the rate of the certificate; above 20 % up to an amount.";
    CARRIED = "us.8396.7", "Mortgage interest credit carried here", "IRC §25(e)(1)",
        "Of three years.";
    pub CREDIT = "us.sched_3.6g", "Mortgage interest credit", "IRC §25",
        "Up to the tax that earlier credits leave.";
    CARRY = "us.carryover.mortgage_credit", "Mortgage interest credit carried on", "IRC §25(e)(1)",
        "What is over the tax, of this year and the two before.";
}

limits! {
    MOST = "us.limit.mortgage_credit" on OF_YEAR, "Mortgage interest credit", "over the amount of a year", "IRC §25(a)(2)(A)";
    TAX = "us.limit.mortgage_credit_tax" on CREDIT, "Mortgage interest credit", "over the tax, and carried on", "IRC §25(e)(1)";
}

open_points! {
    RATE = blocks "8396-rate", "IRC §25(d)",
        "A certificate has a rate from 10 to 50 %.";
    REISSUED = look "8396-residence", "IRC §25(b)(1)",
        "Only of the main home, and only by a certificate of the loan that runs.";
}

/// Interest on a certified loan with the rate of its certificate.
#[derive(Debug, Clone)]
pub struct Certified {
    interest: Item,
    rate: Rate,
    /// The owner's part of a hundred, by which the amount of a year is divided (§25(a)(2)(B)).
    share: Money,
}

/// What its papers bring.
pub mod brings {
    use super::{Carried, Certified};
    use hembo_core::brought::Brought;

    /// Certified loans.
    pub static LOANS: Brought<Certified> = Brought::new();

    /// Credits of three years, with their years.
    pub static CARRIED: Brought<Carried> = Brought::new();
}

const CERTIFICATE: PaperKind = PaperKind {
    id: "8396",
    subject: subject::CREDITS,
    name: "Credit certificate of a home loan",
    words: "mcc mortgage credit certificate 8396 first home",
    title: "Issued by",
    shared: true,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Interest on the certified loan")
            .help("Form 1098 has it too; what is credited is not deducted."),
        Field::amount("2", "2", "Rate of the certificate, per cent").lasts(),
    ],
    columns: &[
        Field::count("year", "", "Carried from the year", 2100),
        Field::amount("amount", "", "Credit carried here"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// The rate of a certificate: per cent with at most two places.
fn rate(per_cent: Money) -> Rate {
    per_cent.ratio_to(Money::whole(100), 4, Rounding::HalfUp)
}

/// Gives interest with its rate, and what is carried here, to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let of = paper.paper.paper;
    let rate = rate(of.amount("2"));
    let shares = paper.paper.shares(Money::whole(100)).into_iter();
    for ((person, amount), (_, share)) in paper.paper.shares(of.amount("1")).into_iter().zip(shares) {
        if !amount.is_zero() {
            let certified = Certified { interest: paper.paper.item("1", None, amount), rate, share };
            paper.facts.people[person].own.add(&brings::LOANS, certified);
        }
    }
    paper.carried(paper.facts.figures.mortgage_credit.carried_years, &brings::CARRIED);
}

/// Line 3.
pub fn of_year(on: On<'_>, trail: &mut impl Trail) -> Money {
    let loans = || on.owns().flat_map(|(_, own)| own.of(&brings::LOANS));
    if loans().next().is_none() {
        return Money::ZERO;
    }
    let figures = &on.facts.figures.mortgage_credit;
    let paid = |high: bool| {
        let of = loans().filter(move |loan| (loan.rate > figures.high_above) == high);
        of.map(|loan| loan.interest.amount.times(loan.rate, Money::CENT, Rounding::HalfUp))
            .sum::<Money>()
            .to_whole()
    };
    // The amount limits what certificates above 20 % bring (§25(a)(2)(A)).
    let share: Money = loans().filter(|loan| loan.rate > figures.high_above).map(|loan| loan.share).sum();
    let share = settled::lesser(share, Money::whole(100));
    let most = figures.most.in_proportion(share, Money::whole(100), Money::WHOLE, Rounding::HalfUp);
    let high = limit::cap(trail, MOST.at(on.scope), paid(true), most);
    trail.line(OF_YEAR, on.scope, high + paid(false), |i| {
        i.items(loans().map(|loan| &loan.interest));
    })
}

/// Whether there is any such credit.
pub fn any(on: On<'_>) -> bool {
    on.owns().any(|(_, own)| own.has(&brings::LOANS) || own.has(&brings::CARRIED))
}

/// Schedule 3 line 6g: this year's comes first, then the oldest (§25(e)(1)(B)); `left` is the tax that earlier credits leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, of_year: Money, left: Money) -> Money {
    let carried = || on.owns().flat_map(|(_, own)| own.of(&brings::CARRIED));
    let earlier = sum(carried().map(|(_, item)| item)).to_whole();
    trail.line(CARRIED, on.scope, earlier, |i| {
        i.items(carried().map(|(_, item)| item));
    });
    let credit = limit::cap(trail, TAX.at(on.scope), of_year + earlier, left);
    let oldest = expiring(on.facts, on.facts.figures.mortgage_credit.carried_years, carried());
    let used_of_earlier = settled::or_zero(credit - of_year);
    let lost = settled::or_zero(oldest - used_of_earlier);
    trail.line(CARRY, on.scope, of_year + earlier - credit - lost, |i| {
        i.line(OF_YEAR, on.scope, of_year)
            .line(CARRIED, on.scope, earlier)
            .figure("Of the oldest year, lost", lost);
    });
    trail.line(CREDIT, on.scope, credit, |i| {
        i.line(OF_YEAR, on.scope, of_year).line(CARRIED, on.scope, earlier).figure("Tax left", left);
    })
}

/// Form 8396: with a certificate, or a credit carried here.
pub fn form_8396(filed: Filed<'_>) -> Required {
    Required::if_so(any(filed.on), "no mortgage credit certificate")
}

/// What a certificate must show.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CERTIFICATE.id) {
        let figures = &points.facts.figures.mortgage_credit;
        let held = figures.least..=figures.highest;
        if !paper.amount("1").is_zero() && !held.contains(&rate(paper.amount("2"))) {
            points.raise(&RATE, Place::paper(&paper.id, "2"), "Which rate has the certificate?");
        }
        points.raise(
            &REISSUED,
            Place::paper(&paper.id, "1"),
            "Is it the main home, and this loan's certificate?",
        );
    }
}
