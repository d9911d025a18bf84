//! Pay for work abroad (s10(1)(o)(ii)): exempt up to a most, above so many days and so long a run.

use crate::{bringing::Bringing, plan::On, points::Points};
use hembo_core::{
    field::{Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Item, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Work abroad",
    lines: LINES,
    limits: LIMITS,
    papers: &[WORK],
    points: POINTS,
    figures: &["foreign_pay"],
    ..Provision::NONE
};

lines! {
    pub PAY = "za.foreign_employment", "Pay for work abroad, on no certificate", "s1 'gross income' (c)",
        "Before the exemption.";
    pub EXEMPT = "za.foreign_employment_exempt", "Exempt pay for work abroad", "s10(1)(o)(ii)",
        "Of who was away long enough, up to a most.";
}

limits! {
    MOST = "za.limit.foreign_pay" on EXEMPT, "Pay for work abroad", "over the exempt most, or not away long enough", "s10(1)(o)(ii)";
}

open_points! {
    DAYS = blocks "C46", "s10(1)(o)(ii)", "Enter the full days outside in twelve months, and the longest run of them.";
    NEAR = look "days-abroad", "s10(1)(o)(ii)", "One day decides about up to 1,250,000: count the passport stamps again.";
}

/// What its papers bring.
pub mod brings {
    use super::Work;
    use hembo_core::brought::Brought;

    /// Work abroad.
    pub static WORK: Brought<Work> = Brought::new();
}

/// Pay for work abroad.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Work {
    /// The pay.
    pub pay: Item,
    /// It is among the codes of a certificate.
    pub on_certificate: bool,
    /// Away long enough.
    pub exempt: bool,
}

/// Work abroad.
pub const WORK: PaperKind = PaperKind {
    id: "Work abroad",
    subject: subject::PAY,
    name: "Pay for work abroad",
    words: "foreign employment secondment days outside",
    title: "Employer",
    shared: false,
    headline: "amount",
    boxes: &[
        Field::amount("amount", "", "Pay for the work abroad"),
        Field::count("days", "", "Full days outside in twelve months", 366),
        Field::count("run", "", "Longest run of them", 366),
        Field::yes_no("on_certificate", "", "Already among the codes of a certificate"),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives pay for work abroad to who earned it.
pub fn read(paper: &mut Bringing<'_>) {
    let figures = &paper.facts.figures.foreign_pay;
    let exempt = paper.count("days") > figures.days_above && paper.count("run") > figures.run_above;
    let work = Work {
        pay: paper.item("amount", paper.amount("amount")),
        on_certificate: paper.flag("on_certificate"),
        exempt,
    };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::WORK, work);
    }
}

/// Pay for work abroad as income.
#[derive(Debug, Clone, Copy, Default)]
#[allow(missing_docs)]
pub struct Abroad {
    pub pay: Money,
    pub exempt: Money,
    /// What is taxed of all of it.
    pub taxed: Money,
}

/// Pay for work abroad, and what of it is exempt.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> Abroad {
    let all = on.own().of(&brings::WORK);
    if all.is_empty() {
        return Abroad::default();
    }
    let apart: Vec<Item> = all.iter().filter(|work| !work.on_certificate).map(|work| work.pay).collect();
    let pay = on.gather(trail, PAY, &apart);
    let whole: Money = all.iter().map(|work| work.pay.amount).sum();
    let open: Vec<Item> = all.iter().filter(|work| work.exempt).map(|work| work.pay).collect();
    let most = on.facts.figures.foreign_pay.exempt;
    let within = limit::lesser(trail, sum(&open), most);
    let exempt = limit::cap(trail, MOST.at(on.scope), whole, within);
    trail.line(EXEMPT, on.scope, exempt, |i| {
        i.items(&open).figure("Up to", most);
    });
    Abroad { pay, exempt, taxed: whole - exempt }
}

/// Days that are missing or near.
pub fn points(points: &mut Points<'_>) {
    let (days_above, run_above) = {
        let figures = &points.facts.figures.foreign_pay;
        (figures.days_above, figures.run_above)
    };
    for paper in points.papers(WORK.id) {
        let count = |field: &str| paper.boxes.get(field).and_then(Entry::count);
        let at = |field: &str| Place::paper(&paper.id, field);
        match (count("days"), count("run")) {
            (Some(days), Some(run)) => {
                if (days_above - 2..=days_above + 3).contains(&days)
                    || (run_above - 2..=run_above + 3).contains(&run)
                {
                    points.raise(&NEAR, at("days"), format!("{days} days, the longest run {run}."));
                }
            }
            (None, _) => points.raise(&DAYS, at("days"), "How many days outside?"),
            (_, None) => points.raise(&DAYS, at("run"), "How long was the longest run?"),
        }
    }
}
