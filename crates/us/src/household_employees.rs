//! Household employees (§§3101, 3111, 3121(x), 3301, 3510), Schedule H: payroll taxes on their cash wages.

use crate::{
    bringing::Bringing,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Field, Years},
    forms::Required,
    household::{Entry, Row},
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[EMPLOYEES],
    points: POINTS,
    figures: &["household_employees", "self_employment", "social_security", "additional_medicare"],
    ..Provision::NONE
};

lines! {
    PAYROLL = "us.sched_h.8a", "Social security, Medicare and withheld tax", "IRC §§3101, 3111, 3121(x)",
        "Both halves of the taxes on wages of whoever was paid enough, and what was withheld.";
    UNEMPLOYMENT = "us.sched_h.16", "Federal unemployment tax", "IRC §§3301, 3302, 3306(a)(3)",
        "On the first 7,000 of each, with contributions to one state paid in full and in time.";
    pub TAX = "us.sched_2.9", "Household employment taxes", "IRC §3510",
        "Schedule H.";
}

open_points! {
    EIN = blocks "schedule-h-ein", "Schedule H",
        "An employer of one's own number is needed: apply for an EIN.";
    STATE = blocks "schedule-h-state", "IRC §3302",
        "The low rate needs contributions to one state, paid in full by the due date, in a state without a credit reduction: answer the question.";
    OTHER_STATES = not_covered "schedule-h-section-b", "IRC §3302(c)";
    SMALL = look "schedule-h-small", "IRC §3121(a)(7)(B), (x)",
        "Nobody was paid enough in cash for payroll taxes.";
}

/// An employee's wages.
#[derive(Debug, Clone)]
pub struct Employee {
    wages: Item,
    withheld: Money,
    unemployment: bool,
}

/// What its papers bring.
pub mod brings {
    use super::Employee;
    use hembo_core::brought::Brought;

    /// Household employees.
    pub static EMPLOYEES: Brought<Employee> = Brought::new();
}

const EMPLOYEES: PaperKind = PaperKind {
    id: "Schedule H",
    subject: subject::PAYMENTS,
    name: "Household employees",
    words: "nanny housekeeper caregiver household employee schedule h payroll",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::text("ein", "", "Employer number", 10).lasts().shape("00-0000000"),
        Field::yes_no("quarter", "C", "1,000 or more in a quarter")
            .help("Of cash wages to all together, in a quarter of this year or the last: unemployment tax."),
        Field::yes_no("one_state", "10-12", "Paid to one state, in time")
            .help("In full by the due date, all wages taxed there, no credit reduction state."),
    ],
    columns: &[
        Field::text("name", "", "Who", 80).help("Not the spouse, a child under 21 or a parent."),
        Field::amount("amount", "", "Cash wages"),
        Field::amount("withheld", "", "Income tax withheld"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the employees to who pays them.
pub fn read(paper: &mut Bringing<'_>) {
    let unemployment = paper.paper.paper.flag("quarter");
    for (r, row, amount) in paper.paper.lines("amount") {
        let withheld = row.get("withheld").and_then(Entry::money).unwrap_or_default();
        paper.put_as("amount", Some(r), amount, &brings::EMPLOYEES, |wages| Employee {
            wages,
            withheld,
            unemployment,
        });
    }
}

fn employees(on: On<'_>) -> impl Iterator<Item = &Employee> {
    on.owns().flat_map(|(_, own)| own.of(&brings::EMPLOYEES))
}

/// Schedule 2 line 9.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Money {
    if employees(on).next().is_none() {
        return Money::ZERO;
    }
    let (figures, payroll) = (&on.facts.figures.household_employees, &on.facts.figures.self_employment);
    let base = on.facts.figures.social_security.wage_base;
    let counted: Vec<_> = employees(on).filter(|one| one.wages.amount >= figures.from).collect();
    let within =
        |most: Money| counted.iter().map(|one| settled::lesser(one.wages.amount, most)).sum::<Money>();
    let wages = sum(counted.iter().map(|one| &one.wages));
    let above = wages - within(on.facts.figures.additional_medicare.withheld_above);
    let by = |amount: Money, rate| amount.to_whole().times(rate, Money::WHOLE, Rounding::HalfUp);
    let withheld: Money = employees(on).map(|one| one.withheld).sum();
    let taxes = by(within(base), payroll.social_rate)
        + by(wages, payroll.medicare_rate)
        + by(above, on.facts.figures.additional_medicare.rate)
        + withheld.to_whole();
    trail.line(PAYROLL, on.scope, taxes, |i| {
        i.items(counted.iter().map(|one| &one.wages))
            .figure("From", figures.from)
            .figure("Social security", payroll.social_rate)
            .figure("Medicare", payroll.medicare_rate)
            .figure("Income tax withheld", withheld);
    });
    let taxed = employees(on).filter(|one| one.unemployment);
    let taxed = taxed.map(|one| settled::lesser(one.wages.amount, figures.unemployment_most)).sum();
    let unemployment = by(taxed, figures.unemployment_rate);
    trail.line(UNEMPLOYMENT, on.scope, unemployment, |i| {
        i.figure("Wages taxed", taxed).figure("Rate", figures.unemployment_rate);
    });
    trail.line(TAX, on.scope, taxes + unemployment, |i| {
        i.line(PAYROLL, on.scope, taxes).line(UNEMPLOYMENT, on.scope, unemployment);
    })
}

/// Schedule H: where there is such a tax.
pub fn schedule_h(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(TAX), "no household employee paid enough")
}

/// What an employer must know.
pub fn points(points: &mut Points<'_>) {
    let from = points.facts.figures.household_employees.from;
    for paper in points.papers(EMPLOYEES.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let amount = |row: &Row| row.get("amount").and_then(Entry::money).unwrap_or_default();
        let liable = paper.rows.iter().any(|row| amount(row) >= from) || paper.flag("quarter");
        if !liable {
            points.raise(&SMALL, at("quarter"), "No payroll taxes.");
            continue;
        }
        if paper.text("ein").is_none() {
            points.raise(&EIN, at("ein"), "The employer's number is missing.");
        }
        if paper.flag("quarter") && !paper.boxes.contains_key("one_state") {
            points.raise(&STATE, at("one_state"), "Was all paid to one state, and in time?");
        } else if paper.flag("quarter") && !paper.flag("one_state") {
            points.raise(
                &OTHER_STATES,
                at("one_state"),
                "Unemployment tax with several states is not computed yet.",
            );
        }
    }
}
