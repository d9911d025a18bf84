//! The addition for underpaid estimated tax (§6654), Form 2210: four instalments of what had to be paid in the year, and interest on what
//! came late. It is part of the balance, not of the tax.

use crate::{
    bringing::Bringing,
    excess_contributions,
    figures::InterestPeriod,
    filing_status::Status,
    income, misclassified_pay,
    papers::w2,
    payments::{self, TotalPaid},
    points::Points,
    total_tax,
    unit::{Filed, On},
    unreported_tips,
};
use hembo_core::{
    brought::Brought,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Silent, Trail},
};
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[LAST_YEAR],
    points: POINTS,
    figures: &["underpayment"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] = &[
    Carry { line: CURRENT, paper: "Last year", into: CarriedTo::Told("tax") },
    Carry { line: income::AGI, paper: "Last year", into: CarriedTo::Told("agi") },
];

lines! {
    pub CURRENT = "us.2210.4", "Tax of the year for instalments", "IRC §6654(f)",
        "Line 24 less refundable credits, and less payroll taxes on tips and of employers and the taxes on accounts.";
    OF_CURRENT = "us.2210.5", "The part of it that is due in the year", "IRC §6654(d)(1)(B)(i)",
        "90 %.";
    OF_LAST = "us.2210.8", "Last year's tax for instalments", "IRC §6654(d)(1)(B)(ii), (C)",
        "All of it; 110 % after a high income.";
    REQUIRED = "us.2210.9", "Required payments of the year", "IRC §6654(d)(1)(B)",
        "The smaller of the two.";
    pub PENALTY = "us.38", "Addition for underpayment", "IRC §6654(a)",
        "Interest on each instalment until it was paid, to the due date of the return at most.";
}

open_points! {
    LAST_YEAR_ASKED = look "K-156", "IRC §6654",
        "Enter last year's tax: it decides whether there is an addition for underpayment (Form 2210).";
    PENALTY_TAKEN = not_weighed "K-156-penalty", "IRC §6654(d)(2), (e)(3)",
        "Income by periods or actual days of withholding may lower it, and hardship may waive it: not weighed here.";
    APPLIED = look "K-155", "IRC §6402(b)",
        "Enter it among the estimated payments, on the due date of the first one.";
    UNDATED = look "2210-date", "IRC §6654(b)(2)",
        "Enter the day of each payment: without it the last due date is taken.";
}

/// What its papers bring.
pub mod brings {
    use super::LastYear;
    use hembo_core::brought::Brought;

    /// Last year's tax and income.
    pub static LAST_YEAR: Brought<LastYear> = Brought::new();
}

/// Last year's return, the part of an owner or of all on a return.
#[derive(Debug, Clone, Copy)]
pub struct LastYear {
    /// The tax that instalments go by.
    pub tax: Money,
    /// Adjusted gross income.
    pub agi: Money,
    /// No tax for a year of twelve months, as a citizen or resident (§6654(e)(2)).
    pub none: bool,
}

/// Last year's federal return.
pub const LAST_YEAR: PaperKind = PaperKind {
    id: "Last year",
    subject: subject::PAYMENTS,
    name: "Last year's federal return",
    words: "prior year tax agi 2210 underpayment penalty safe harbor estimated",
    title: "About",
    shared: true,
    headline: "tax",
    boxes: &[
        Field::amount("tax", "8", "Tax for Form 2210")
            .help("Line 24 less refundable credits, and less tax on tips."),
        Field::amount("agi", "", "Adjusted gross income"),
        Field::yes_no("none", "", "No tax, for all twelve months")
            .help("As a citizen or resident of the US."),
        Field::amount("36", "36", "Overpayment applied to this year"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives last year's return to those who filed it.
pub fn read(paper: &mut Bringing<'_>) {
    bring(paper, &brings::LAST_YEAR);
}

/// Brings the boxes "tax", "agi" and "none" of last year's return to those who filed it.
pub fn bring(paper: &mut Bringing<'_>, kind: &'static Brought<LastYear>) {
    let of = paper.paper.paper;
    let none = of.flag("none");
    let incomes = paper.paper.shares(of.amount("agi"));
    for ((person, tax), (_, agi)) in paper.paper.shares(of.amount("tax")).into_iter().zip(incomes) {
        paper.facts.people[person].own.add(kind, LastYear { tax, agi, none });
    }
}

/// Last year's return of all on a return; nothing where none is known.
pub fn known(on: On<'_>, kind: &'static Brought<LastYear>) -> Option<LastYear> {
    let parts = on.owns().flat_map(|(_, own)| own.of(kind)).copied();
    parts.reduce(|all, one| LastYear {
        tax: all.tax + one.tax,
        agi: all.agi + one.agi,
        none: all.none && one.none,
    })
}

fn last_year(on: On<'_>) -> Option<LastYear> {
    known(on, &brings::LAST_YEAR)
}

/// Taxes that no instalment is due for (Form 2210, line 2).
fn without_instalments(on: On<'_>, for_ira: Money) -> Money {
    let payroll = [&w2::brings::UNCOLLECTED, &w2::brings::EXCISE];
    let payroll = payroll.into_iter().flat_map(|kind| on.items(kind)).map(|item| item.amount).sum::<Money>();
    unreported_tips::tax(on, &mut Silent)
        + misclassified_pay::tax(on, &mut Silent)
        + payroll.to_whole()
        + excess_contributions::taxes(on, for_ira)
}

/// Line 8: last year's tax, more of it after a high income.
fn of_last_year(on: On<'_>) -> Option<Money> {
    let figures = &on.facts.figures.underpayment;
    let LastYear { tax, agi, .. } = last_year(on)?;
    let separate = on.unit.status == Status::Separate;
    let high = if separate { figures.high_above_separate } else { figures.high_above };
    let rate = if agi > high { figures.last_part_high } else { Rate::ONE };
    Some(tax.to_whole().times(rate, Money::WHOLE, Rounding::HalfUp))
}

/// What was paid when: withholding evenly at the due dates (§6654(g)(1)).
fn paid(on: On<'_>, withheld: Money) -> Vec<(Date, Money)> {
    let due = &on.facts.figures.underpayment.due;
    let each = withheld.split(&vec![1; due.len()]);
    let mut all: Vec<(Date, Money)> = due.iter().map(|day| day.0).zip(each).collect();
    let last = due.last().map(|day| day.0);
    for (date, amount) in payments::dated(on) {
        all.extend(date.or(last).map(|date| (date, amount)));
    }
    all.sort_by_key(|(date, _)| *date);
    all
}

/// What had to be paid when, what was paid, and what it costs to be late.
#[derive(Debug)]
pub struct Instalments<'a> {
    /// The instalments, each with its day.
    pub required: Vec<(Date, Money)>,
    /// The payments by their days.
    pub paid: Vec<(Date, Money)>,
    /// No interest runs after it.
    pub until: Date,
    /// The rates.
    pub rates: &'a [InterestPeriod],
}

/// The parts of an amount that are its interest from a day to another, by the rates of the law.
fn interest(periods: &[InterestPeriod], from: Date, to: Date) -> impl Iterator<Item = Rate> {
    let starts = periods.iter().map(|period| period.from.0);
    let ends = starts.clone().skip(1).chain([Date::MAX]);
    periods.iter().zip(starts.zip(ends)).map(move |(period, (start, end))| {
        let days = (settled::lesser(end, to) - settled::greater(start, from)).whole_days();
        Rate::from_billionths(period.rate.billionths() * settled::greater(days, 0) / period.days)
    })
}

impl Instalments<'_> {
    /// Each payment goes to the oldest instalment that is open; what none needs waits for the next. Rounded once.
    pub fn addition(self) -> Money {
        let mut open = self.required;
        let mut late: Vec<(Money, Rate)> = Vec::new();
        for (date, mut amount) in self.paid {
            for (since, left) in &mut open {
                let here = settled::lesser(amount, *left);
                let until = settled::lesser(date, self.until);
                late.extend(interest(self.rates, *since, until).map(|rate| (here, rate)));
                *left -= here;
                amount -= here;
            }
        }
        for (since, left) in open {
            late.extend(interest(self.rates, since, self.until).map(|rate| (left, rate)));
        }
        Money::sum_of_products(late, Money::WHOLE, Rounding::HalfUp)
    }
}

/// The addition of equal instalments.
fn addition(on: On<'_>, required: Money, withheld: Money) -> Money {
    let rules = &on.facts.figures.underpayment;
    let parts = required.split(&vec![1; rules.due.len()]);
    let required = rules.due.iter().map(|day| day.0).zip(parts).collect();
    let paid = paid(on, withheld);
    Instalments { required, paid, until: rules.until.0, rates: &rules.interest }.addition()
}

/// Line 38.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, tax: Money, paid: TotalPaid) -> Money {
    let figures = &on.facts.figures.underpayment;
    let current =
        trail.line(CURRENT, on.scope, settled::or_zero(tax - without_instalments(on, paid.for_ira)), |i| {
            i.line(total_tax::L24, on.scope, paid.tax_of_form);
        });
    let Some(last) = of_last_year(on) else { return Money::ZERO };
    let part = trail.line(
        OF_CURRENT,
        on.scope,
        current.times(figures.current_part, Money::WHOLE, Rounding::HalfUp),
        |i| {
            i.line(CURRENT, on.scope, current).figure("Part", figures.current_part);
        },
    );
    trail.line(OF_LAST, on.scope, last, |i| {
        i.figure("After an income above", figures.high_above).figure("Part then", figures.last_part_high);
    });
    let required = trail.line(REQUIRED, on.scope, settled::lesser(part, last), |i| {
        i.line(OF_CURRENT, on.scope, part).line(OF_LAST, on.scope, last);
    });
    let spared = current - paid.withheld < figures.no_penalty_below
        || paid.withheld >= required
        || last_year(on).is_some_and(|one| one.none);
    let penalty = if spared { Money::ZERO } else { addition(on, required, paid.withheld) };
    trail.line(PENALTY, on.scope, penalty, |i| {
        i.line(REQUIRED, on.scope, required).figure("Withheld", paid.withheld);
    })
}

/// Form 2210: where there is an addition.
pub fn form_2210(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(PENALTY), "no addition for underpayment")
}

/// An overpayment of last year that stands among no payments.
fn applied(points: &mut Points<'_>) {
    let paid = |amount: Money| {
        let mut rows = points.papers(payments::ESTIMATED.id).flat_map(|paper| &paper.rows);
        rows.any(|row| row.get("amount").and_then(Entry::money) == Some(amount))
    };
    let missing = points.papers(LAST_YEAR.id).find(|paper| {
        let amount = paper.amount("36");
        !amount.is_zero() && !paid(amount)
    });
    if let Some(paper) = missing {
        let message = format!("{:#} of last year's overpayment stand among no payments.", paper.amount("36"));
        points.raise(&APPLIED, Place::paper(&paper.id, "36"), message);
    }
}

/// A balance without last year's tax, and an addition.
pub fn points(points: &mut Points<'_>) {
    applied(points);
    let least = points.facts.figures.underpayment.no_penalty_below;
    for (place, unit) in points.units.iter().enumerate() {
        let on = On { facts: points.facts, unit, scope: hembo_core::Scope::Return(place) };
        let name = &points.facts.people[unit.people[0]].name;
        if unit.main && last_year(on).is_none() && points.amount(payments::BALANCE, place) >= least {
            let message = format!("{name}: so much is due that an addition for underpayment is possible.");
            points.raise(&LAST_YEAR_ASKED, points.whose(unit), message);
        }
        let penalty = points.amount(PENALTY, place);
        if !penalty.is_zero() {
            let message = format!("{name}: {penalty:#} for instalments that were paid late or not at all.");
            points.raise(&PENALTY_TAKEN, points.whose(unit), message);
        }
        let undated = payments::dated(on).any(|(date, _)| date.is_none());
        if undated && last_year(on).is_some() {
            let paper =
                points.papers(payments::ESTIMATED.id).next().map(|paper| Place::paper(&paper.id, "date"));
            points.raise(&UNDATED, paper.unwrap_or_default(), "A payment has no day.");
        }
    }
}
