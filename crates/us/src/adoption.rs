//! The adoption credit (§23), Form 8839: expenses for each child up to an amount that shrinks with income; from 2025 on a part is paid
//! out, the rest is carried on for five years.

use crate::{
    bringing::{self, Bringing, Carried, expiring},
    filing_status::Status,
    income,
    points::Points,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    forms::Required,
    limit::{self, Shape},
    limits, lines, open_points,
    outcome::{CarriedTo, Carry},
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
    limits: LIMITS,
    papers: &[CHILD],
    points: POINTS,
    figures: &["adoption"],
    carries: CARRIES,
    ..Provision::NONE
};

/// What is left goes into the next year.
const CARRIES: &[Carry] =
    &[Carry { line: CARRY, paper: "8839", into: CarriedTo::Rows { column: "amount", says: None } }];

lines! {
    EXPENSES = "us.8839.6", "Adoption expenses that count", "IRC §23(a), (b)(1)",
        "For each child up to an amount, less what was credited before; all of the amount for a child with special needs.";
    OF_YEAR = "us.8839.11", "Adoption credit of the year", "IRC §23(b)(2)",
        "Less the part that income within the range takes.";
    pub L30 = "us.30", "Adoption credit paid out", "IRC §23(a)(4)",
        "Up to an amount for each child, from 2025 on.";
    CARRIED = "us.8839.15", "Adoption credit carried here", "IRC §23(c)",
        "Of five years.";
    pub CREDIT = "us.sched_3.6c", "Adoption credit", "IRC §23",
        "What is not paid out, up to the tax that earlier credits leave.";
    CARRY = "us.carryover.adoption", "Adoption credit carried on", "IRC §23(c)",
        "What is over the tax, the oldest used first.";
}

limits! {
    MOST = "us.limit.adoption" on EXPENSES, "Adoption expenses", "over the amount for a child", "IRC §23(b)(1)";
    INCOME = "us.limit.adoption_income" on OF_YEAR, "Adoption credit", "shrinks with income", "IRC §23(b)(2)";
    TAX = "us.limit.adoption_tax" on CREDIT, "Adoption credit", "over the tax, and carried on", "IRC §23(c)";
}

open_points! {
    WHEN = blocks "8839-when", "IRC §23(a)(2), (e)",
        "Until an adoption within the country is final, expenses count in the year after; of a foreign one only from the year in which it is final.";
    BARRED = look "8839-separate", "IRC §23(f)",
        "No credit on a separate return, unless the spouses lived apart and the child with the filer.";
    NUMBER = look "8839-number", "IRC §23(f)(2)",
        "Name the child, with a number: an ATIN serves.";
}

/// What was spent for a child.
#[derive(Debug, Clone)]
pub struct Adoption {
    spent: Item,
    before: Money,
    /// The owner's part of a hundred.
    share: Money,
    special: bool,
    counts: bool,
}

/// What its papers bring.
pub mod brings {
    use super::{Adoption, Carried};
    use hembo_core::brought::Brought;

    /// Adoptions.
    pub static ADOPTIONS: Brought<Adoption> = Brought::new();

    /// Credits of five years, with their years.
    pub static CARRIED: Brought<Carried> = Brought::new();
}

const CHILD: PaperKind = PaperKind {
    id: "8839",
    subject: subject::CREDITS,
    name: "Adoption",
    words: "adoption adopted child special needs foreign 8839",
    title: "Child",
    shared: true,
    headline: "5",
    boxes: &[
        Field::yes_no("special", "1d", "Special needs")
            .help("As a state determined; only with a final adoption."),
        Field::yes_no("foreign", "1e", "Foreign child"),
        Field::yes_no("final", "1g", "Final by the end of the year"),
        Field::amount("5", "5", "Expenses that count this year").help(
            "Not final: of last year. Final this year: of last year and this. Final before: of this year.",
        ),
        Field::amount("3", "3", "Counted for this child before").help("Form 8839 line 6 of earlier years."),
    ],
    columns: &[
        Field::count("year", "", "Carried from the year", 2100),
        Field::amount("amount", "", "Credit carried here"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Whether what was spent counts yet, or all of the amount does.
fn counts(paper: &Paper) -> bool {
    !paper.flag("foreign") || paper.flag("final")
}

/// Gives each owner a part.
pub fn read(paper: &mut Bringing<'_>) {
    let of = paper.paper.paper;
    let (special, counts) = (of.flag("special") && of.flag("final"), counts(of));
    let (spent, before) = (paper.paper.shares(of.amount("5")), paper.paper.shares(of.amount("3")));
    let shares = paper.paper.shares(Money::whole(100));
    for (i, (person, share)) in shares.into_iter().enumerate() {
        let spent = paper.paper.item("5", None, spent[i].1);
        let adoption = Adoption { spent, before: before[i].1, share, special, counts };
        paper.facts.people[person].own.add(&brings::ADOPTIONS, adoption);
    }
    paper.carried(paper.facts.figures.adoption.carried_years, &brings::CARRIED);
}

/// Whether there is any such credit.
pub fn any(on: On<'_>) -> bool {
    on.owns().any(|(_, own)| own.has(&brings::ADOPTIONS) || own.has(&brings::CARRIED))
}

/// The adoptions of a return, child by child: the parts of spouses belong together.
fn children(on: On<'_>) -> Vec<Vec<&Adoption>> {
    bringing::by_paper(on.owns().flat_map(|(_, own)| own.of(&brings::ADOPTIONS)), |one| one.spent.paper)
}

/// Line 6 of a child, with what it was without the amount.
fn expenses(on: On<'_>, child: &[&Adoption]) -> (Money, Money) {
    let figures = &on.facts.figures.adoption;
    let share: Money = child.iter().map(|one| one.share).sum();
    let amount = figures.most.in_proportion(share, Money::whole(100), Money::WHOLE, Rounding::HalfUp);
    let before: Money = child.iter().map(|one| one.before).sum();
    let room = settled::or_zero(amount - before.to_whole());
    let spent = match child[0] {
        one if !one.counts => Money::ZERO,
        one if one.special => room,
        _ => sum(child.iter().map(|one| &one.spent)).to_whole(),
    };
    (spent, settled::lesser(spent, room))
}

/// What the credits of the year come to before the tax limits them.
#[derive(Debug, Clone, Copy, Default)]
pub struct OfYear {
    /// Carried on where it is over the tax.
    not_paid_out: Money,
    /// Line 30 of Form 1040.
    pub paid_out: Money,
}

/// Lines 2 to 12.
pub fn of_year(on: On<'_>, trail: &mut impl Trail, agi: Money) -> OfYear {
    let children = children(on);
    if children.is_empty() || on.unit.status == Status::Separate {
        return OfYear::default();
    }
    let figures = &on.facts.figures.adoption;
    let each: Vec<_> = children.iter().map(|child| expenses(on, child)).collect();
    let (spent, counted): (Money, Money) = (each.iter().map(|e| e.0).sum(), each.iter().map(|e| e.1).sum());
    limit::given(trail, MOST.at(on.scope), Shape::Cap, spent, counted);
    trail.line(EXPENSES, on.scope, counted, |i| {
        i.items(children.iter().flatten().map(|one| &one.spent))
            .figure("For each child, at most", figures.most);
    });
    let ratio = figures.range.taken(trail, agi, figures.ratio_places);
    let credit = |counted: Money| counted - counted.times(ratio, Money::WHOLE, Rounding::HalfUp);
    let all: Money = each.iter().map(|e| credit(e.1)).sum();
    limit::given(trail, INCOME.at(on.scope), Shape::PhaseOut, counted, all);
    trail.line(OF_YEAR, on.scope, all, |i| {
        i.line(EXPENSES, on.scope, counted).line(income::AGI, on.scope, agi).figure("Taken by income", ratio);
    });
    let paid_out = each.iter().map(|e| settled::lesser(credit(e.1), figures.paid_out_each)).sum();
    trail.line(L30, on.scope, paid_out, |i| {
        i.line(OF_YEAR, on.scope, all).figure("For each child, at most", figures.paid_out_each);
    });
    OfYear { not_paid_out: all - paid_out, paid_out }
}

/// Schedule 3 line 6c; `left` is the tax that earlier credits leave.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, of_year: OfYear, left: Money) -> Money {
    let carried = || on.owns().flat_map(|(_, own)| own.of(&brings::CARRIED));
    let earlier = sum(carried().map(|(_, item)| item)).to_whole();
    trail.line(CARRIED, on.scope, earlier, |i| {
        i.items(carried().map(|(_, item)| item));
    });
    let credit = limit::cap(trail, TAX.at(on.scope), of_year.not_paid_out + earlier, left);
    // First in, first out (§23(c)(2)): what is left of the oldest year ends here.
    let oldest = expiring(on.facts, on.facts.figures.adoption.carried_years, carried());
    let lost = settled::or_zero(oldest - credit);
    trail.line(CARRY, on.scope, of_year.not_paid_out + earlier - credit - lost, |i| {
        i.figure("Of the year, not paid out", of_year.not_paid_out)
            .line(CARRIED, on.scope, earlier)
            .figure("Of the oldest year, lost", lost);
    });
    trail.line(CREDIT, on.scope, credit, |i| {
        i.figure("Of the year, not paid out", of_year.not_paid_out)
            .line(CARRIED, on.scope, earlier)
            .figure("Tax left", left);
    })
}

/// Form 8839: with an adoption, or a credit carried here.
pub fn form_8839(filed: Filed<'_>) -> Required {
    Required::if_so(any(filed.on), "no adoption")
}

/// When expenses count, and where there is no credit.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(CHILD.id) {
        if !paper.boxes.contains_key("final") && !paper.amount("5").is_zero() {
            points.raise(
                &WHEN,
                Place::paper(&paper.id, "final"),
                "Was the adoption final by the end of the year?",
            );
        }
        points.raise(&NUMBER, Place::paper(&paper.id, "5"), "Is the child named, and has it a number?");
    }
    for unit in points.units.iter().filter(|unit| unit.status == Status::Separate) {
        let own = |&p: &usize| points.facts.people[p].own.has(&brings::ADOPTIONS);
        if unit.people.iter().any(own) {
            points.raise(&BARRED, points.whose(unit), "Adoption on a separate return.");
        }
    }
}
