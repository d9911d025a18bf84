//! Interest on education loans (§221), Schedule 1 line 21: up to an amount for each return, shrinking with income.

use crate::{
    bringing::Bringing,
    filing_status::Status,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    field::{Field, Years},
    forms::Required,
    limit::{self, Shape},
    limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::Trail,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[INTEREST],
    points: POINTS,
    figures: &["student_loan"],
    ..Provision::NONE
};

lines! {
    PAID = "us.student_loan.1", "Student-loan interest that counts", "IRC §221(b)(1)",
        "Box 1 of every Form 1098-E, up to the amount for a return.";
    pub L21 = "us.sched_1.21", "Student-loan interest", "IRC §221(a)",
        "What counts less the part that income within the range takes; none on a separate return or for someone who is claimed.";
}

limits! {
    MOST = "us.limit.student_loan" on PAID, "Student-loan interest", "over the amount for a return",
        "IRC §221(b)(1)";
    BY_INCOME = "us.limit.student_loan_income" on L21, "Student-loan interest", "shrinks with income",
        "IRC §221(b)(2)";
}

open_points! {
    BARRED = look "K-104", "IRC §221(c), (e)(2)",
        "It is lost on a separate return, and where someone else claims the person.";
}

/// What its papers bring.
pub mod brings {
    use hembo_core::brought::Brought;

    /// Interest on education loans.
    pub static INTEREST: Brought = Brought::new();
}

const INTEREST: PaperKind = PaperKind {
    id: "1098-E",
    subject: subject::ADJUSTMENTS,
    name: "Student-loan interest",
    words: "student loan education interest college",
    title: "Lender",
    shared: false,
    headline: "1",
    boxes: &[Field::amount("1", "1", "Interest")
        .help("For a loan of a filer, a spouse or who was a dependent then.")],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives the interest to who paid it.
pub fn read(paper: &mut Bringing<'_>) {
    paper.give("1", &brings::INTEREST);
}

fn barred(on: On<'_>) -> bool {
    on.unit.status == Status::Separate || on.unit.claimable
}

/// Line 21; `income` is adjusted gross income without it.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: Money) -> Money {
    let figures = &on.facts.figures.student_loan;
    let all = on.items(&brings::INTEREST).map(|item| item.amount).sum::<Money>().to_whole();
    if all.is_zero() {
        return trail.line(L21, on.scope, Money::ZERO, |_| {});
    }
    let paid = limit::cap(trail, MOST.at(on.scope), all, figures.most);
    trail.line(PAID, on.scope, paid, |i| {
        i.items(on.items(&brings::INTEREST));
    });
    if barred(on) {
        return trail.line(L21, on.scope, Money::ZERO, |i| {
            i.line(PAID, on.scope, paid)
                .figure("Not available", "on a separate return, or for someone who is claimed");
        });
    }
    let range = *figures.range.of(on.unit.status);
    let ratio = range.taken(trail, income, figures.ratio_places);
    let lost = paid.times(ratio, Money::WHOLE, Rounding::HalfUp);
    let allowed =
        limit::given(trail, BY_INCOME.at(on.scope), Shape::PhaseOut, paid, settled::or_zero(paid - lost));
    trail.line(L21, on.scope, allowed, |i| {
        i.line(PAID, on.scope, paid)
            .figure("Income", income)
            .figure("Shrinks above", range.from)
            .figure("Gone at", range.from + range.width)
            .figure("Part that is lost", ratio);
    })
}

/// Interest that no return deducts.
pub fn points(points: &mut Points<'_>) {
    let facts = points.facts;
    for unit in points.units {
        let on = On { facts, unit, scope: hembo_core::Scope::Return(0) };
        if let Some(item) = on.items(&brings::INTEREST).next().filter(|_| barred(on)) {
            let place = Place::paper(&points.household.papers[item.paper].id, "1");
            points.raise(&BARRED, place, "This interest is not deducted.");
        }
    }
}

/// The worksheet, kept.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(PAID), "no student-loan interest")
}
