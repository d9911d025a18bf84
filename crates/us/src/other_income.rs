//! Other income (§61), Schedule 1 lines 2a and 8a to 8z, and alimony by the date of its instrument (former §§71, 215).

use crate::{
    bringing::{self, Bringing},
    papers::tuition,
    points::Points,
    states,
    unit::On,
};
use hembo_core::{
    Paper,
    brought::Records,
    field::{Choice, Field, Years},
    household::{Entry, Row},
    line::LineId,
    lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::{Item, Scope, Trail},
};
use hembo_money::Money;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[WINNINGS, INCOME, ALIMONY],
    points: POINTS,
    figures: &["alimony"],
    ..Provision::NONE
};

lines! {
    pub ALIMONY_RECEIVED = "us.sched_1.2a", "Alimony received", "former IRC §71",
        "Under an instrument of 2018 or earlier that was not changed to the new rule.";
    GAMBLING = "us.sched_1.8b", "Gambling winnings not on Form W-2G", "IRC §61(a)",
        "Winnings before losses; losses are itemized.";
    DEBT = "us.sched_1.8c", "Cancelled debt", "IRC §61(a)(11)",
        "Box 2 of Form 1099-C, as far as no exclusion applies.";
    FUND = "us.sched_1.8g", "Alaska Permanent Fund dividends", "IRC §61(a)",
        "Dividends of the fund.";
    JURY = "us.sched_1.8h", "Jury duty pay", "IRC §61(a)(1)",
        "Pay for jury duty; what goes to an employer is taken off on line 24a.";
    PRIZE = "us.sched_1.8i", "Prizes and awards", "IRC §74(a)",
        "Prizes and awards.";
    HOBBY = "us.sched_1.8j", "Income of a hobby", "IRC §183",
        "Without its expenses.";
    OPTION = "us.sched_1.8k", "Stock options not on Form W-2", "IRC §83",
        "Income of stock options.";
    SCHOLARSHIP = "us.sched_1.8r", "Scholarships not on Form W-2", "IRC §117",
        "What went to neither tuition nor required fees and books.";
    DIGITAL = "us.sched_1.8v", "Digital assets received as income", "IRC §61(a)",
        "Staking, mining, forks, payments: the value when received.";
    PERSONAL_PROPERTY = "us.sched_1.8l", "Rent of personal property", "IRC §61(a)(5)",
        "Not in a business; its expenses stand on line 24b.";
    PRISON = "us.sched_1.8u", "Pay earned in prison", "IRC §§32(c)(2)(B)(iv), 61(a)(1)",
        "It is no earned income for the credits.";
    OTHER = "us.sched_1.8z", "Other income", "IRC §61(a)",
        "What has no line of its own.";
    pub ALL = "us.other_income", "Other income and alimony", "IRC §61(a)",
        "Lines 2a and 8a to 8z.";
    pub OF = "us.other_income.of", "Other income and alimony", "IRC §61(a)",
        "What a person brings to lines 2a and 8a to 8z.";
    pub ALIMONY_PAID = "us.sched_1.19a", "Alimony paid", "former IRC §215",
        "Under an instrument of 2018 or earlier that was not changed to the new rule.";
    pub JURY_GIVEN = "us.sched_1.24a", "Jury pay given to an employer", "IRC §62(a)(13)",
        "What of jury pay went to the employer.";
}

open_points! {
    WHAT = blocks "other-income-sort", "Schedule 1, lines 8a to 8z",
        "Choose what it is: it stands on a line of its own.";
    CANCELLED = look "K-084", "IRC §108; Form 982",
        "Bankruptcy, insolvency, the main home: what Form 982 leaves out is not entered here.";
    INSTRUMENT = blocks "K-082", "P.L. 115-97 §11051",
        "Enter the day of the instrument: after 2018 alimony is neither income nor deducted.";
    RECIPIENT = blocks "K-082-number", "Reg. §1.215-1T",
        "Enter the recipient's number: a penalty of 50 otherwise.";
}

/// Income of a sort.
#[derive(Debug, Clone)]
pub struct Sorted {
    /// The line.
    line: LineId,
    item: Item,
}

impl Sorted {
    /// Income of line 8z.
    pub fn other(item: Item) -> Sorted {
        Sorted { line: OTHER, item }
    }
}

/// What its papers bring.
pub mod brings {
    use super::Sorted;
    use hembo_core::brought::Brought;

    /// Income of lines 8a to 8z.
    pub static OTHER: Brought<Sorted> = Brought::new();

    /// Gambling winnings, those on line 8b too.
    pub static WINNINGS: Brought = Brought::new();

    /// Alimony that is income.
    pub static ALIMONY_RECEIVED: Brought = Brought::new();

    /// Alimony that is deducted.
    pub static ALIMONY_PAID: Brought = Brought::new();

    /// Jury pay that went to an employer.
    pub static JURY_GIVEN: Brought = Brought::new();
}

/// The sorts with their lines.
const SORTED: [(&str, LineId); 12] = [
    ("gambling", GAMBLING),
    ("debt", DEBT),
    ("fund", FUND),
    ("jury", JURY),
    ("prize", PRIZE),
    ("hobby", HOBBY),
    ("option", OPTION),
    ("personal_property", PERSONAL_PROPERTY),
    ("scholarship", SCHOLARSHIP),
    ("prison", PRISON),
    ("digital", DIGITAL),
    ("other", OTHER),
];

const SORTS: &[Choice] = &[
    Choice::new("gambling", "Gambling winnings not on Form W-2G"),
    Choice::new("debt", "Cancelled debt"),
    Choice::new("fund", "Alaska Permanent Fund dividends"),
    Choice::new("jury", "Jury duty pay"),
    Choice::new("prize", "Prizes and awards"),
    Choice::new("hobby", "Income of a hobby"),
    Choice::new("option", "Stock options not on Form W-2"),
    Choice::new("personal_property", "Rent of personal property"),
    Choice::new("scholarship", "Scholarships not on Form W-2"),
    Choice::new("prison", "Pay earned in prison"),
    Choice::new("digital", "Digital assets received as income"),
    Choice::new("other", "Other income"),
    Choice::new("jury_given", "Jury pay given to an employer"),
];

const INCOME: PaperKind = PaperKind {
    id: "Other income",
    subject: subject::OTHER_INCOME,
    name: "Other income",
    words: "prize award jury hobby crypto staking mining cancelled debt 1099-c 1099-misc scholarship gambling",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[Field::amount("4", "4", "Federal tax withheld"), states::SEPARATE],
    columns: &[
        Field::date("date", "", "Received on"),
        Field::text("what", "", "From whom, what for", 80),
        Field::choice("sort", "", "Sort", SORTS),
        Field::amount("amount", "", "Amount"),
    ],
    back: Back::Lines { column: "sort", says: "jury_given" },
    years: Years::ALL,
    next_year: NextYear::Again,
};

const WINNINGS: PaperKind = PaperKind {
    id: "W-2G",
    subject: subject::OTHER_INCOME,
    name: "Gambling winnings",
    words: "gambling lottery casino slots bingo keno",
    title: "Payer",
    shared: false,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Reportable winnings"),
        Field::amount("4", "4", "Federal tax withheld"),
        Field::amount("15", "15", "State tax withheld"),
        Field::amount("17", "17", "Local tax withheld"),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

const ALIMONY: PaperKind = PaperKind {
    id: "Alimony",
    subject: subject::OTHER_INCOME,
    name: "Alimony",
    words: "alimony separate maintenance divorce former spouse",
    title: "Former spouse",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::amount("received", "2a", "Received"),
        Field::amount("paid", "19a", "Paid"),
        Field::date("instrument", "19c", "Day of the decree or agreement"),
        Field::yes_no("changed", "", "Changed after 2018 to the new rule"),
        Field::text("number", "19b", "Recipient's number", 11).secret(),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Whether alimony under an instrument is income of one and deducted by the other.
fn counts(paper: &Paper, first_year_without: i32) -> bool {
    let day = paper.boxes.get("instrument").and_then(Entry::date);
    day.is_some_and(|day| day.year() < first_year_without) && !paper.flag("changed")
}

/// Gives income to its owner.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper.paper;
    match reading.kind.as_str() {
        id if id == ALIMONY.id => {
            if counts(reading, paper.facts.figures.alimony.first_year_without) {
                paper.earns();
                paper.give("received", &brings::ALIMONY_RECEIVED);
                paper.give("paid", &brings::ALIMONY_PAID);
            }
        }
        id if id == WINNINGS.id => {
            paper.earns();
            paper.give("1", &brings::WINNINGS);
            paper.put_as("1", None, reading.amount("1"), &brings::OTHER, |item| Sorted {
                line: GAMBLING,
                item,
            });
            paper.give("4", &bringing::brings::WITHHELD_OTHER);
            for field in ["15", "17"] {
                paper.give(field, &bringing::brings::STATE_INCOME_TAX);
            }
            paper.give_state("13", Money::ZERO, "15");
        }
        _ => other(paper),
    }
}

fn other(paper: &mut Bringing<'_>) {
    paper.earns();
    paper.give("4", &bringing::brings::WITHHELD);
    for (r, row, amount) in paper.paper.lines("amount") {
        let sort = row.get("sort").and_then(Entry::text).unwrap_or("other");
        if sort == "jury_given" {
            paper.put("amount", Some(r), amount, &brings::JURY_GIVEN);
            continue;
        }
        let line = SORTED.iter().find(|(id, _)| *id == sort).map_or(OTHER, |(_, line)| *line);
        paper.put_as("amount", Some(r), amount, &brings::OTHER, |item| Sorted { line, item });
        if line == GAMBLING {
            paper.put("amount", Some(r), amount, &brings::WINNINGS);
        }
    }
}

/// Line 2a and lines 8a to 8z of a return, each that has anything, in one.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, (of_children, children): (LineId, Money)) -> Money {
    let taken = tuition::items(on);
    let of = |line: LineId| {
        let all = on.owns().flat_map(|(_, own)| own.of(&brings::OTHER));
        let here = taken.iter().filter(move |_| line == SCHOLARSHIP);
        all.filter(move |sorted| sorted.line == line).map(|sorted| &sorted.item).chain(here)
    };
    let mut parts = vec![(ALIMONY_RECEIVED, on.gather(trail, ALIMONY_RECEIVED, &brings::ALIMONY_RECEIVED))];
    for line in SORTED.iter().map(|(_, line)| *line).filter(|line| of(line).next().is_some()) {
        let amount = of(line).map(|item| item.amount).sum::<Money>().to_whole();
        parts.push((line, amount));
        trail.line(line, on.scope, amount, |i| {
            i.items(of(line));
        });
    }
    parts.push((of_children, children));
    trail.line(ALL, on.scope, parts.iter().map(|(_, amount)| *amount).sum(), |i| {
        for &(line, amount) in parts.iter().filter(|(_, amount)| !amount.is_zero()) {
            i.line(line, on.scope, amount);
        }
    })
}

/// What a person of a return brings of it, with alimony.
fn items(on: On<'_>, person: usize) -> Vec<Item> {
    let own = &on.facts.people[person].own;
    let entered = own.of(&brings::OTHER).iter().map(|sorted| &sorted.item);
    let all = entered.chain(own.of(&brings::ALIMONY_RECEIVED)).copied();
    all.chain(tuition::item(on, person)).collect()
}

/// What it comes to.
pub fn of_person(on: On<'_>, person: usize) -> Money {
    sum(&items(on, person))
}

/// Rent of personal property.
pub fn of_personal_property(on: On<'_>) -> Money {
    let all = on.owns().flat_map(|(_, own)| own.of(&brings::OTHER));
    let rent = all.filter(|sorted| sorted.line == PERSONAL_PROPERTY).map(|sorted| sorted.item.amount);
    rent.sum::<Money>().to_whole()
}

/// Dividends of the Alaska Permanent Fund.
pub fn of_fund(own: &Records) -> Money {
    own.of(&brings::OTHER).iter().filter(|sorted| sorted.line == FUND).map(|sorted| sorted.item.amount).sum()
}

/// Whether someone's other income holds a scholarship.
pub fn has_scholarship(own: &Records) -> bool {
    own.of(&brings::OTHER).iter().any(|sorted| sorted.line == SCHOLARSHIP)
}

/// Scholarships of a return, which are earned income of a dependent (§63(c)(5), Prop. Reg. §1.117-6(h)).
pub fn scholarships(on: On<'_>) -> Money {
    let all = on.owns().flat_map(|(_, own)| own.of(&brings::OTHER));
    let entered = all.filter(|sorted| sorted.line == SCHOLARSHIP).map(|sorted| sorted.item.amount);
    (entered.sum::<Money>() + sum(&tuition::items(on))).to_whole()
}

/// What each line asks.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(INCOME.id) {
        for row in &paper.rows {
            let sort = row.get("sort").and_then(Entry::text);
            if sort.is_none() {
                points.raise(&WHAT, Place::row(&paper.id, row, "sort"), "What is this income?");
            }
            if sort == Some("debt") {
                points.raise(
                    &CANCELLED,
                    Place::row(&paper.id, row, "sort"),
                    "Is a part of this cancelled debt left out?",
                );
            }
        }
    }
    for paper in points.papers(ALIMONY.id) {
        alimony(points, paper);
    }
}

fn alimony(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    if !paper.boxes.contains_key("instrument") {
        points.raise(&INSTRUMENT, at("instrument"), "Of which day is the instrument of this alimony?");
    }
    let deducted =
        counts(paper, points.facts.figures.alimony.first_year_without) && !paper.amount("paid").is_zero();
    if deducted && paper.text("number").is_none() {
        points.raise(&RECIPIENT, at("number"), "Who received this alimony?");
    }
}

/// The part of a spouse on a joint return.
pub fn part(on: On<'_>, trail: &mut impl Trail, person: usize) {
    let items = items(on, person);
    if !items.is_empty() {
        trail.line(OF, Scope::Person(person), sum(&items), |i| {
            i.items(&items);
        });
    }
}

/// Whether digital assets were received.
pub fn any_digital(points: &Points<'_>) -> bool {
    let digital = |row: &Row| row.get("sort").and_then(Entry::text) == Some("digital");
    points.papers(INCOME.id).flat_map(|paper| &paper.rows).any(digital)
}
