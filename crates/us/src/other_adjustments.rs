//! The rarer adjustments (§62(a)), Schedule 1 lines 12 and 24b to 24k: each an amount with a line of its own.

use crate::{bringing::Bringing, points::Points, unit::On};
use hembo_core::{
    field::{Choice, Field, Years},
    household::Entry,
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Item, Scope, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision =
    Provision { lines: LINES, papers: &[ADJUSTMENTS], points: POINTS, ..Provision::NONE };

lines! {
    OFFICIALS = "us.sched_1.12", "Expenses of reservists and officials", "IRC §62(a)(2)(C), (E); Form 2106",
        "Travel of a reservist over 100 miles from home, and expenses of an official paid by fees.";
    PERSONAL_PROPERTY = "us.sched_1.24b", "Expenses of renting out personal property", "IRC §62(a)(4)",
        "Not in a business; the rent stands on line 8l.";
    REFORESTATION = "us.sched_1.24d", "Reforestation", "IRC §§62(a)(11), 194",
        "This year's part and expenses.";
    UNEMPLOYMENT = "us.sched_1.24e", "Supplemental unemployment repaid", "IRC §62(a)(12)",
        "Repaid under the Trade Act of 1974.";
    CHAPLAIN = "us.sched_1.24g", "Plan contributions of a chaplain", "IRC §403(b)(1)",
        "To a 403(b) plan, by a chaplain who works for himself.";
    DISCRIMINATION = "us.sched_1.24h", "Attorney fees of a discrimination claim", "IRC §62(a)(20), (e)",
        "No more than the award that is income.";
    WHISTLEBLOWER = "us.sched_1.24i", "Attorney fees of a whistleblower", "IRC §62(a)(21)",
        "No more than the award that is income.";
    TRUST = "us.sched_1.24k", "Excess deductions of an estate or trust", "IRC §§67(e), 642(h)(2)",
        "Of its last year, Schedule K-1 (1041) box 11, code A.";
    pub ALL = "us.other_adjustments", "Other adjustments", "IRC §62(a)",
        "Lines 12 and 24b to 24k.";
    pub OF = "us.other_adjustments.of", "Other adjustments", "IRC §62(a)",
        "What a person brings to lines 12 and 24b to 24k.";
}

open_points! {
    SORT = blocks "adjustment-sort", "Schedule 1, lines 12 and 24",
        "Choose what it is: each has a line of its own.";
    AWARD = not_known "adjustment-award", "IRC §62(a)(20), (21)",
        "Enter the award that is income this year: no more of the fees is deducted.";
    ARTIST = not_covered "2106-artist", "IRC §62(a)(2)(B), (b)";
}

/// An amount with its line.
#[derive(Debug, Clone)]
pub struct Sorted {
    line: LineId,
    item: Item,
}

/// What its papers bring.
pub mod brings {
    use super::Sorted;
    use hembo_core::brought::Brought;

    /// Adjustments of lines 12 and 24b to 24k.
    pub static ADJUSTMENTS: Brought<Sorted> = Brought::new();
}

/// The sorts with their lines.
const SORTED: [(&str, LineId); 8] = [
    ("official", OFFICIALS),
    ("personal_property", PERSONAL_PROPERTY),
    ("reforestation", REFORESTATION),
    ("unemployment", UNEMPLOYMENT),
    ("chaplain", CHAPLAIN),
    ("discrimination", DISCRIMINATION),
    ("whistleblower", WHISTLEBLOWER),
    ("trust", TRUST),
];

/// The sorts that are no more than an award.
const ATTORNEY: [&str; 2] = ["discrimination", "whistleblower"];

const SORTS: &[Choice] = &[
    Choice::new("official", "Reservist's travel, official paid by fees"),
    Choice::new("artist", "Performing artist's expenses"),
    Choice::new("personal_property", "Expenses of renting out personal property"),
    Choice::new("reforestation", "Reforestation"),
    Choice::new("unemployment", "Supplemental unemployment repaid"),
    Choice::new("chaplain", "Plan contributions of a chaplain"),
    Choice::new("discrimination", "Attorney fees, discrimination"),
    Choice::new("whistleblower", "Attorney fees, whistleblower"),
    Choice::new("trust", "Excess deductions of an estate or trust"),
];

const ADJUSTMENTS: PaperKind = PaperKind {
    id: "Other adjustments",
    subject: subject::ADJUSTMENTS,
    name: "Other adjustments",
    words: "2106 reservist official artist chaplain attorney fees whistleblower reforestation equipment rental 24",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::text("what", "", "What for", 80),
        Field::choice("sort", "", "Sort", SORTS),
        Field::amount("amount", "", "Amount"),
        Field::amount("award", "", "Award that is income")
            .help("Of attorney fees only: no more is deducted."),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives each amount to the owner.
pub fn read(paper: &mut Bringing<'_>) {
    for (r, row, amount) in paper.paper.lines("amount") {
        let sort = row.get("sort").and_then(Entry::text).unwrap_or_default();
        let award = row.get("award").and_then(Entry::money).filter(|_| ATTORNEY.contains(&sort));
        let amount = award.map_or(amount, |award| settled::lesser(amount, award));
        if let Some((_, line)) = SORTED.iter().find(|(id, _)| *id == sort) {
            paper.put_as("amount", Some(r), amount, &brings::ADJUSTMENTS, |item| Sorted { line, item });
        }
    }
}

fn of(on: On<'_>, line: LineId) -> impl Iterator<Item = &Item> {
    let all = on.owns().flat_map(|(_, own)| own.of(&brings::ADJUSTMENTS));
    all.filter(move |sorted| sorted.line == line).map(|sorted| &sorted.item)
}

/// Expenses of renting out personal property.
pub fn of_personal_property(on: On<'_>) -> Money {
    of(on, PERSONAL_PROPERTY).map(|item| item.amount).sum::<Money>().to_whole()
}

/// Lines 12 and 24b to 24k in one.
pub fn reckon(on: On<'_>, trail: &mut impl Trail) -> (LineId, Money) {
    let mut parts = Vec::new();
    for line in SORTED.iter().map(|(_, line)| *line).filter(|line| of(on, line).next().is_some()) {
        let amount = of(on, line).map(|item| item.amount).sum::<Money>().to_whole();
        parts.push((line, amount));
        trail.line(line, on.scope, amount, |i| {
            i.items(of(on, line));
        });
    }
    let all = parts.iter().map(|(_, amount)| *amount).sum();
    let all = trail.line(ALL, on.scope, all, |i| {
        for (line, amount) in parts {
            i.line(line, on.scope, amount);
        }
    });
    (ALL, all)
}

/// What a spouse on a joint return brings of them.
pub fn part(on: On<'_>, trail: &mut impl Trail, person: usize) -> (LineId, Money) {
    let items: Vec<Item> =
        on.facts.people[person].own.of(&brings::ADJUSTMENTS).iter().map(|sorted| sorted.item).collect();
    let amount = items.iter().map(|item| item.amount).sum();
    if !items.is_empty() {
        trail.line(OF, Scope::Person(person), amount, |i| {
            i.items(&items);
        });
    }
    (OF, amount)
}

/// An amount without a sort, and the expenses of an artist, which go by income.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(ADJUSTMENTS.id) {
        for row in &paper.rows {
            let place = Place::row(&paper.id, row, "sort");
            match row.get("sort").and_then(Entry::text) {
                None => points.raise(&SORT, place, "What is this adjustment?"),
                Some("artist") => {
                    points.raise(&ARTIST, place, "Expenses of a performing artist are not computed yet.");
                }
                Some(sort) if ATTORNEY.contains(&sort) && !row.cells.contains_key("award") => {
                    points.raise(
                        &AWARD,
                        Place::row(&paper.id, row, "award"),
                        "How much of the award is income?",
                    );
                }
                Some(_) => {}
            }
        }
    }
}
