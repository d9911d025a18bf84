//! Managed funds and KiwiSaver (portfolio investment entities, ITA HM 56 to HM 60, Schedule 6): the rate that the two earlier years ask
//! for, and what the year's end settles between it and what the funds paid.

use crate::{
    bringing::Bringing,
    facts::EarlierYear,
    last_assessment,
    plan::{On, Plan},
    points::Points,
    rounding::cents,
};
use hembo_core::{
    field::{Choice, Field, Years},
    household::Entry,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Managed funds",
    lines: LINES,
    papers: &[FUND],
    points: POINTS,
    figures: &["managed_funds"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    pub INCOME = "nz.pie_income", "Income of managed funds", "ITA CP 1; IR3 question 18",
        "What every fund attributes; no part of taxable income.";
    pub DUE = "nz.pie_tax_due", "Tax at the right rate", "ITA HM 60, Schedule 6",
        "The income of every fund at the rate that the two earlier years ask for.";
    pub PAID = "nz.pie_tax_paid", "Tax that the funds paid", "ITA HM 57",
        "As they report it.";
    pub ADJUSTMENT = "nz.pie_adjustment", "Settled with the year's end", "ITA BC 7, LS 2",
        "Tax at the right rate less what the funds paid; below zero it comes back.";
}

const CARRIES: &[Carry] =
    &[Carry { line: INCOME, paper: last_assessment::PAPER, into: CarriedTo::Told("funds.1") }];

open_points! {
    RATE_LOW = look "C25", "ITA HM 57, HM 60", "Tell the fund the right rate; the difference is paid with this year.";
    RATE_HIGH = look "C26", "ITA HM 57, HM 60", "Tell the fund the right rate; the difference comes back with this year.";
    COUNTED_TWICE = blocks "C27", "ITA CX 56, HM 35", "Income of a managed fund is no interest and no dividend: take one of the papers away.";
    YEARS = blocks "C63", "ITA Schedule 6 table 1", "Enter both earlier years from the assessments; without them the highest rate counts.";
}

/// What its papers bring.
pub mod brings {
    use super::Fund;
    use hembo_core::brought::Brought;

    /// Managed funds.
    pub static FUNDS: Brought<Fund> = Brought::new();
}

/// A fund's year: the owner's part.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Fund {
    pub income: Item,
    pub tax: Item,
    /// Not to be taken out before retirement.
    pub locked_in: bool,
}

const RATES: &[Choice] = &[
    Choice::new("10.5", "10.5 %"),
    Choice::new("17.5", "17.5 %"),
    Choice::new("28", "28 %"),
    Choice::new("0", "0 %"),
];

/// The statement of a fund.
const FUND: PaperKind = PaperKind {
    id: "PIE",
    subject: subject::INVESTMENTS,
    name: "KiwiSaver or another portfolio investment",
    words: "pie kiwisaver managed fund pir portfolio",
    title: "Fund",
    shared: true,
    headline: "income",
    boxes: &[
        Field::text("number", "", "Fund's IRD number", 11).payer_number(),
        Field::amount("income", "18", "Attributed income"),
        Field::amount("tax", "18", "Tax paid by the fund"),
        Field::choice("rate", "", "Rate used", RATES).lasts(),
        Field::yes_no("locked", "", "Locked in until retirement")
            .lasts()
            .help("KiwiSaver: not counted in the family scheme."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives each owner a part of a fund.
pub fn read(paper: &mut Bringing<'_>) {
    let locked_in = paper.paper.paper.boxes.get("locked").and_then(Entry::flag).unwrap_or(false);
    let (income, tax) = (paper.amount("income"), paper.amount("tax"));
    let taxes = paper.paper.shares(tax);
    for ((person, income), (_, tax)) in paper.paper.shares(income).into_iter().zip(taxes) {
        let fund = Fund { income: paper.item("income", income), tax: paper.item("tax", tax), locked_in };
        paper.facts.people[person].own.add(&brings::FUNDS, fund);
    }
}

/// The rate that one earlier year gives.
fn of_year(on: On<'_>, year: EarlierYear) -> Rate {
    let figures = &on.facts.figures.managed_funds;
    let all = year.taxable + year.funds;
    match () {
        () if year.taxable <= figures.low_to && all <= figures.middle_to => figures.low,
        () if year.taxable <= figures.middle_to && all <= figures.with_funds_to => figures.middle,
        () => figures.high,
    }
}

/// The rate of a person: the lower of those of both earlier years; the highest where a year is not known.
pub fn rate(on: On<'_>) -> Rate {
    let high = on.facts.figures.managed_funds.high;
    match on.who().earlier {
        [Some(last), Some(before)] => settled::lesser(of_year(on, last), of_year(on, before)),
        _ => high,
    }
}

/// Income of funds that can be taken out, for the family scheme.
pub fn free_income(on: On<'_>) -> Money {
    on.own().of(&brings::FUNDS).iter().filter(|fund| !fund.locked_in).map(|fund| fund.income.amount).sum()
}

/// Question 18: tax at the right rate, and what the year's end settles.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Settled {
    pub due: Money,
    pub paid: Money,
    pub adjustment: Money,
}

/// The funds of a person.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Settled {
    let funds = on.own().of(&brings::FUNDS);
    if funds.is_empty() {
        return Settled::default();
    }
    let income = on.gather(trail, INCOME, funds.iter().map(|fund| &fund.income));
    let rate = rate(on);
    let due = funds.iter().map(|fund| cents(fund.income.amount, rate)).sum();
    on.made(trail, DUE, due, &[(INCOME, income)], &[("Rate", &rate)]);
    let paid = on.gather(trail, PAID, funds.iter().map(|fund| &fund.tax));
    let adjustment = on.made(trail, ADJUSTMENT, due - paid, &[(DUE, due), (PAID, paid)], &[]);
    Settled { due, paid, adjustment }
}

/// Rates that funds used and the earlier years do not ask for.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(FUND.id) {
        let other = |kind: &'static str| {
            points.papers(kind).any(|other| !paper.title.is_empty() && other.title == paper.title)
        };
        if other("Interest") || other("Dividend") {
            let message = format!("{} stands among interest or dividends, too.", paper.title);
            points.raise(&COUNTED_TWICE, Place::paper(&paper.id, "income"), message);
        }
    }
    let plan = Plan::default();
    for (_, person) in points.returns() {
        let on = On::of(points.facts, &plan, person);
        let funds = on.own().of(&brings::FUNDS);
        if funds.is_empty() {
            continue;
        }
        if on.who().earlier.iter().any(Option::is_none) {
            let message = format!(
                "{}: taxable income and that of funds in the two earlier years?",
                points.name(person)
            );
            points.raise(&YEARS, points.at(person, "name"), message);
        }
        let right = rate(on);
        for fund in funds {
            rate_of_fund(points, fund, right);
        }
    }
}

fn rate_of_fund(points: &mut Points<'_>, fund: &Fund, right: Rate) {
    let paper = &points.household.papers[fund.income.paper];
    let place = Place::paper(&paper.id, "rate");
    let due = cents(fund.income.amount, right);
    let apart = due - fund.tax.amount;
    let percent = Rate::from_billionths(right.billionths() * 100);
    let used = paper.text("rate").and_then(|text| text.parse::<Rate>().ok());
    if used.is_none_or(|used| used == percent) {
        return;
    }
    if apart > Money::ZERO {
        let message = format!("The earlier years ask for {percent} %: {apart:#} is still to pay.");
        points.suggest(&RATE_LOW, place, message, percent);
    } else if apart < Money::ZERO {
        let message = format!("The earlier years ask for {percent} %: {:#} comes back.", -apart);
        points.suggest(&RATE_HIGH, place, message, percent);
    }
}
