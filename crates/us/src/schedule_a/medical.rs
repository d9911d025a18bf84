//! Medical expenses above 7.5 % of adjusted gross income (§213), Schedule A lines 1 to 4.

use crate::{
    bringing::{self, Bringing, MedicalItem, miles},
    dependents, income,
    points::Points,
    self_employment, states,
    unit::On,
};
use hembo_core::{
    Silent,
    field::{Choice, Field, Years},
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, Counted, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    settled,
    trail::{Scope, Trail},
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[RECEIPTS],
    counted: &[Counted { at: RECEIPTS.id, from: "SSA-1099", boxes: &["medicare"] }],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["medical"],
    ..Provision::NONE
};

lines! {
    pub FOR = "us.medical.for", "Medical bills for this person", "IRC §213(d)",
        "Receipts by patient; long-term care premiums to the limit of the age.";
    L1 = "us.sched_a.1", "Medical bills that count", "IRC §213(a), (d)",
        "Receipts for the filers and their dependents, less what was paid back.";
    L3 = "us.sched_a.3", "The floor", "IRC §213(a)",
        "A part of adjusted gross income, to the whole dollar.";
    pub L4 = "us.sched_a.4", "Medical above the floor", "IRC §213(a)",
        "The part above the floor, never less than zero.";
}

limits! {
    MEDICAL_FLOOR = "us.limit.medical" on L4, "Medical", "below the floor",
        "IRC §213(a)";
    LONG_TERM_CARE = "us.limit.long_term_care" on FOR, "Long-term care premiums", "cap by age",
        "IRC §213(d)(10)";
}

open_points! {
    NO_DEPENDENT = look "medical-patient", "IRC §213(a)",
        "Look at whom it was for.";
}

/// Line 4.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let people: Vec<_> = (0..on.facts.people.len()).filter(|&p| counts_for(on, p)).collect();
    let of: Vec<_> =
        people.iter().map(|&p| (p, paid_for(on, trail, p))).filter(|(_, paid)| !paid.is_zero()).collect();
    let premiums = self_employment::premiums_left(on);
    let paid = settled::or_zero(of.iter().map(|(_, paid)| *paid).sum::<Money>()).to_whole() + premiums;
    let own_lines = on.facts.filers.len() == on.unit.people.len();
    if own_lines {
        for &(person, amount) in &of {
            trail.line(FOR, Scope::Person(person), amount, |i| {
                i.items(receipts(on, person).map(|m| &m.item));
            });
        }
    }
    trail.line(L1, on.scope, paid, |i| {
        if !premiums.is_zero() {
            i.figure("Health premiums that a business did not deduct", premiums);
        }
        for &(person, amount) in &of {
            if own_lines {
                i.line(FOR, Scope::Person(person), amount);
            } else {
                i.items(receipts(on, person).map(|m| &m.item));
            }
        }
    });
    let rate = on.facts.figures.medical.floor;
    let part = limit::share(trail, agi, rate, Money::WHOLE);
    let floor = limit::or_zero(trail, part);
    trail.line(L3, on.scope, floor, |i| {
        i.line(income::AGI, on.scope, agi).figure("Part of income", rate);
    });
    let allowed = limit::above(trail, MEDICAL_FLOOR.at(on.scope), paid, floor);
    trail.line(L4, on.scope, allowed, |i| {
        i.line(L1, on.scope, paid).line(L3, on.scope, floor);
    })
}

/// The family of §213(a): the filers and their spouses, the dependents, and who would be one but for gross income
/// or a joint return, unless the spouse's separate return claims that person.
fn counts_for(on: On<'_>, person: usize) -> bool {
    let about = &on.facts.people[person];
    if about.filer {
        return on.unit.main && (on.facts.couple() || on.unit.people.contains(&person));
    }
    on.unit.people.contains(&person)
        || on.unit.dependents.iter().any(|d| d.person == person)
        || (on.unit.main
            && !on.unit.claimed_elsewhere.contains(&person)
            && dependents::claimable_but_for_income(on.facts, &on.unit.people, person))
}

/// What a return may deduct for a person, before the floor.
pub fn bills_for(on: On<'_>, person: usize) -> Money {
    if counts_for(on, person) { paid_for(on, &mut Silent, person) } else { Money::ZERO }
}

fn receipts<'a>(on: On<'a>, person: usize) -> impl Iterator<Item = &'a MedicalItem> {
    on.owns().flat_map(|(_, own)| own.of(&bringing::brings::MEDICAL)).filter(move |m| m.patient == person)
}

/// What this return paid for a person, long-term care premiums up to the limit of the age (§213(d)(10)).
fn paid_for(on: On<'_>, trail: &mut impl Trail, person: usize) -> Money {
    let sum = |long_term: bool| {
        receipts(on, person).filter(|m| m.long_term_care == long_term).map(|m| m.item.amount).sum::<Money>()
    };
    let premiums = sum(true);
    if premiums.is_zero() {
        return sum(false);
    }
    let age = on.facts.people[person].age(on.facts.year_end).unwrap_or(0);
    let rows = &on.facts.figures.medical.long_term_care;
    let most = rows.iter().find(|r| age <= r.up_to_age).map_or(Money::ZERO, |r| r.most);
    sum(false) + limit::cap(trail, LONG_TERM_CARE.at(Scope::Person(person)), premiums, most)
}

const SORTS: &[Choice] = &[
    Choice::new("bill", "Bill"),
    Choice::new("premium", "Health premium, after tax"),
    Choice::new("long_term_care", "Long-term care"),
    Choice::new("travel", "Travel, miles"),
    Choice::new("reimbursed", "Paid back"),
];

const RECEIPTS: PaperKind = PaperKind {
    id: "Medical",
    subject: subject::DEDUCTIONS,
    name: "Medical receipts",
    words: "doctor dentist hospital prescription health premium",
    title: "About",
    shared: true,
    headline: "amount",
    boxes: &[states::SEPARATE],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::person("patient", "", "For"),
        Field::text("what", "", "To whom, what for", 80),
        Field::choice("sort", "", "Sort", SORTS),
        Field::count("miles", "", "Miles", 1_000_000),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Lines { column: "sort", says: "reimbursed" },
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Receipts by patient and payer; miles count at the rate of the year.
pub fn read(paper: &mut Bringing<'_>) {
    let mile = paper.facts.figures.medical.mile;
    for (r, row, paid) in paper.paper.lines("amount") {
        let text = |id: &str| row.get(id).and_then(Entry::text);
        let sort = text("sort").unwrap_or("bill");
        let amount = match sort {
            "travel" => miles(row).times(mile, Money::CENT, Rounding::HalfUp) + paid,
            "reimbursed" => -paid,
            _ => paid,
        };
        let named = text("patient").and_then(|id| paper.paper.household.index_of(id));
        let payer = paper.titled.paper.owners.first().and_then(|o| paper.paper.household.index_of(&o.person));
        let Some(patient) = named.or(payer) else { continue };
        let long_term_care = sort == "long_term_care";
        let receipt = |item| MedicalItem { item, patient, long_term_care };
        paper.put_as("amount", Some(r), amount, &bringing::brings::MEDICAL, receipt);
    }
}

/// Receipts for someone who is no dependent in the chosen way do not count.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(RECEIPTS.id) {
        for row in &paper.rows {
            let patient =
                row.get("patient").and_then(Entry::text).and_then(|id| points.household.index_of(id));
            let Some(patient) = patient else { continue };
            let person = &points.facts.people[patient];
            let counted = person.filer
                || points.units.iter().any(|u| u.dependents.iter().any(|d| d.person == patient))
                || dependents::claimable_but_for_income(points.facts, &points.facts.filers, patient);
            if !counted {
                let message = format!("{} is no dependent: this bill does not count.", person.name);
                points.raise(&NO_DEPENDENT, Place::row(&paper.id, row, "patient"), message);
            }
        }
    }
}
