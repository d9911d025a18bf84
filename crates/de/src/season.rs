//! When a return is due and whether it must be filed (§46(2) EStG, §149 AO), what is prepaid after it (§37), when interest begins.

use crate::{benefits, capital, figures::Figures, other_income, payments, pensions, points::Points, wage};
use hembo_core::{Outcome, dates::DueDate, household::Entry, reading::sum, settled};
use hembo_money::{Money, Rounding};
use time::{Date, Month};

/// Whether the law asks for a return of anyone: other income or benefits above a limit, classes III, V and VI, no wages at all, capital income
/// without tax withheld.
pub fn has_duty(points: &Points<'_>) -> bool {
    let classes = points.papers(wage::CERTIFICATE.id).filter_map(|paper| paper.boxes.get("class"));
    if classes.filter_map(Entry::count).any(|class| matches!(class, 3 | 5 | 6)) {
        return true;
    }
    points.facts.filers.iter().any(|&person| by_income(points, person))
}

fn by_income(points: &Points<'_>, person: usize) -> bool {
    let own = &points.facts.people[person].own;
    let free = points.facts.figures.hardship.free;
    let benefits = sum(own.of(&benefits::brings::BENEFITS)) + sum(own.of(&wage::brings::BENEFITS));
    let kinds = [
        &other_income::brings::FARM,
        &other_income::brings::TRADE,
        &other_income::brings::FREELANCE,
        &other_income::brings::RENTAL,
        &other_income::brings::SERVICES,
        &other_income::brings::SALES,
        &pensions::brings::TAXABLE,
        &pensions::brings::MAINTENANCE,
    ];
    let other: Money = kinds.iter().map(|kind| sum(own.of(kind))).sum();
    let earns = own.has(&wage::brings::GROSS);
    benefits > free
        || other > free
        || capital::must_be_declared(points.facts, person)
        || (!earns && other > Money::ZERO)
}

fn due(day: Date, what: &str, words: impl Into<String>, cite: &str) -> DueDate {
    DueDate {
        day,
        what: what.into(),
        whose: String::new(),
        amount: None,
        words: words.into(),
        cite: cite.into(),
    }
}

/// What is due when: the return, the prepayments that follow, interest.
pub fn dates(outcome: &Outcome, figures: &Figures) -> Vec<DueDate> {
    let of = &figures.dates;
    let mut all = vec![
        due(of.due.0, "Return, without an adviser", "Where one must be filed.", "§149(2) AO"),
        due(of.due_adviser.0, "Return, by an adviser", "Where one must be filed.", "§149(3) AO"),
        due(of.interest.0, "Interest begins", "For each full month from here, both ways.", "§233a AO"),
        due(
            of.on_request.0,
            "Return on request",
            "Where nobody must file: the last day.",
            "§§46(2) Nr.8, 169, 170 AO",
        ),
    ];
    all.extend(prepayments(outcome, figures));
    all.sort_by_key(|due| due.day);
    all
}

/// §37: a quarter of what was neither withheld nor is small, on four days of a year.
fn prepayments(outcome: &Outcome, figures: &Figures) -> Vec<DueDate> {
    let all = |line: &str| outcome.lines.iter().filter(|of| of.id == line).map(|of| of.amount).sum::<Money>();
    let year = all(payments::BALANCE) + all(payments::PREPAID_TAX);
    let quarter =
        settled::or_zero(year).in_proportion(Money::whole(1), Money::whole(4), Money::WHOLE, Rounding::Down);
    if year < figures.dates.prepayment_year || quarter < figures.dates.prepayment_quarter {
        return Vec::new();
    }
    let year = figures.year;
    let days = [
        (year + 1, Month::September),
        (year + 1, Month::December),
        (year + 2, Month::March),
        (year + 2, Month::June),
    ];
    let of = |(year, month): (i32, Month)| {
        let day = Date::from_calendar_date(year, month, 10).ok()?;
        let words = "As the office may fix it by this assessment, all three taxes together.";
        Some(DueDate { amount: Some(quarter), ..due(day, "Prepayment", words, "§37 EStG; §51a") })
    };
    days.into_iter().filter_map(of).collect()
}
