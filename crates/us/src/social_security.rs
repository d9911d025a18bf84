//! Social security benefits (§86), Form 1040 lines 6a and 6b: how much of them is taxed, and the election to tax what was paid for
//! earlier years by the income of those years (§86(e)).

use crate::{
    bringing::{self, Bringing, MedicalItem},
    facts::Facts,
    filing_status::Status,
    points::Points,
    status,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    brought::Records,
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    forms::Required,
    household::{Answers, Entry},
    limit, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Scope, Silent, Trail},
    words::first_name,
};
use hembo_money::{Money, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    papers: &[BENEFITS],
    points: POINTS,
    figures: &["benefits"],
    ..Provision::NONE
};

lines! {
    pub L6A = "us.6a", "Social security benefits", "IRC §86(d)",
        "Box 5 of every Form SSA-1099 and RRB-1099.";
    MEASURE = "us.ss.7", "Income with half of the benefits", "IRC §86(b)(1)(A)",
        "Other income and tax-exempt interest with half of the benefits, less adjustments but student-loan interest.";
    BASE = "us.ss.9", "Above the base amount", "IRC §86(c)(1)",
        "What of it is above the base amount of the status; from nothing on for spouses who file apart and lived together.";
    EARLIER = "us.ss.earlier", "Taxed for earlier years", "IRC §86(e)",
        "What the benefits paid for earlier years would have added to what was taxed in those.";
    pub L6B = "us.6b", "Social security benefits, taxed", "IRC §86(a)",
        "None, up to a half, or up to 85 % of them.";
}

open_points! {
    NET = look "K-071", "Instructions for Form SSA-1099",
        "Box 5 is box 3 less box 4: look at the paper.";
    LUMP_SUM = look "K-072", "IRC §86(e)",
        "Enter a line for each earlier year: then both ways to tax it are weighed.";
    NEGATIVE = not_covered "ssa-negative", "IRC §§86(d)(2), 1341";
    YEAR = blocks "ssa-year", "IRC §86(e)",
        "Enter the year, the benefits and income of it: the election goes by them.";
}

/// A payment for an earlier year.
#[derive(Debug, Clone, Copy)]
pub struct Earlier {
    /// Received now for that year.
    amount: Money,
    /// What that year would have been taxed with it, less what was.
    adds: Money,
}

/// What its papers bring.
pub mod brings {
    use super::Earlier;
    use hembo_core::brought::Brought;

    /// Box 5.
    pub static BENEFITS: Brought = Brought::new();

    /// Of it what was paid for earlier years.
    pub static EARLIER: Brought<Earlier> = Brought::new();
}

const STATUSES: &[Choice] = &[
    Choice::new("joint", "Joint"),
    Choice::new("other", "Single, head, surviving spouse, or apart all year"),
    Choice::new("separate", "Separate, lived together"),
];

/// Form SSA-1099.
pub const BENEFITS: PaperKind = PaperKind {
    id: "SSA-1099",
    subject: subject::RETIREMENT,
    name: "Social security benefits",
    words: "social security railroad rrb retirement disability medicare",
    title: "Beneficiary",
    shared: false,
    headline: "5",
    boxes: &[
        Field::amount("3", "3", "Benefits paid"),
        Field::amount("4", "4", "Benefits repaid"),
        Field::amount("5", "5", "Net benefits").help("Box 3 less box 4."),
        Field::amount("6", "6", "Federal tax withheld"),
        Field::amount("medicare", "3", "Medicare premiums").help("Parts B and D taken out of the benefits: they count as medical."),
        Field::amount("earlier", "3", "Paid for earlier years").help("Told in the box of box 3."),
    ],
    columns: &[
        Field::count("year", "", "For the year", 2100),
        Field::amount("amount", "", "Received now for it"),
        Field::amount("benefits", "", "Other benefits of that year"),
        Field::amount("income", "", "Income of that year")
            .help("Adjusted gross income without benefits, with tax-exempt interest and the student-loan deduction."),
        Field::amount("taxed", "", "Benefits taxed in that year"),
        Field::choice("status", "", "Filed as", STATUSES).blank_is("other"),
    ],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// Gives its boxes to the beneficiary.
pub fn read(paper: &mut Bringing<'_>) {
    paper.earns();
    let reading = paper.paper.paper;
    let net = if reading.boxes.contains_key("5") {
        reading.amount("5")
    } else {
        reading.amount("3") - reading.amount("4")
    };
    paper.put("5", None, net, &brings::BENEFITS);
    paper.give("6", &bringing::brings::WITHHELD);
    let premiums = reading.amount("medicare");
    for (person, item) in paper.paper.parts("medicare", None, premiums) {
        let receipt = MedicalItem { item, patient: person, long_term_care: false };
        paper.facts.people[person].own.add(&bringing::brings::MEDICAL, receipt);
    }
    let rows: Vec<Answers> = paper.paper.lines("amount").map(|(_, row, _)| row.clone()).collect();
    for row in rows {
        let earlier = earlier(paper.facts, &row);
        for (person, _) in paper.paper.shares(earlier.amount) {
            paper.facts.people[person].own.add(&brings::EARLIER, earlier);
        }
    }
}

/// Worksheet 2 of Pub. 915: what the year would have been taxed with the payment, less what it was.
fn earlier(facts: &Facts, row: &Answers) -> Earlier {
    let of = |id: &str| row.get(id).and_then(Entry::money).unwrap_or_default();
    let figures = &facts.figures.benefits;
    let benefits = (of("benefits") + of("amount")).to_whole();
    let half = |amount: Money| amount.times(figures.first_rate, Money::WHOLE, Rounding::HalfUp);
    let measure = of("income").to_whole() + half(benefits);
    let (base, more) = match row.get("status").and_then(Entry::text) {
        Some("joint") => (figures.base.joint, figures.second_after.joint),
        Some("separate") => (Money::ZERO, Money::ZERO),
        _ => (figures.base.single, figures.second_after.single),
    };
    let taxed = taxed(facts, &mut Silent, benefits, measure, (base, more));
    Earlier { amount: of("amount"), adds: settled::or_zero(taxed - of("taxed").to_whole()) }
}

/// What makes the measure of a return but for the benefits.
#[derive(Debug, Clone, Copy)]
pub struct From {
    /// Total income without the benefits.
    pub income: Money,
    /// Line 2a.
    pub exempt_interest: Money,
    /// Adjustments but student-loan interest.
    pub adjustments: Money,
}

/// Lines 6a and 6b.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, from: From) -> Money {
    let benefits = on.gather(trail, L6A, &brings::BENEFITS);
    if benefits <= Money::ZERO {
        return trail.line(L6B, on.scope, Money::ZERO, |_| {});
    }
    let earlier = || on.owns().flat_map(|(_, own)| own.of(&brings::EARLIER));
    if !on.unit.elects_earlier_years || earlier().next().is_none() {
        return line_6b(on, trail, from, benefits, Money::ZERO);
    }
    let received = earlier().map(|e| e.amount).sum::<Money>().to_whole();
    let adds = earlier().map(|e| e.adds).sum();
    trail.line(EARLIER, on.scope, adds, |i| {
        i.figure("Received for earlier years", received);
    });
    line_6b(on, trail, from, benefits - received, adds)
}

fn line_6b(on: On<'_>, trail: &mut impl Trail, from: From, benefits: Money, earlier: Money) -> Money {
    let figures = &on.facts.figures.benefits;
    let half = benefits.times(figures.first_rate, Money::WHOLE, Rounding::HalfUp);
    let measure = from.income + from.exempt_interest + half - from.adjustments;
    trail.line(MEASURE, on.scope, measure, |i| {
        i.figure("Other income", from.income)
            .figure("Tax-exempt interest", from.exempt_interest)
            .figure("Half of the benefits", half)
            .figure("Adjustments", from.adjustments);
    });
    let together = on.unit.status == Status::Separate && on.facts.apart_all_year != Some(true);
    let (base, more) = if together {
        (Money::ZERO, Money::ZERO)
    } else {
        (*figures.base.of(on.unit.status), *figures.second_after.of(on.unit.status))
    };
    let above = limit::or_zero(trail, measure - base);
    trail.line(BASE, on.scope, above, |i| {
        i.line(MEASURE, on.scope, measure).figure("Base amount", base);
    });
    let taxed = taxed(on.facts, trail, benefits, measure, (base, more));
    each(on, trail, benefits, taxed + earlier);
    trail.line(L6B, on.scope, taxed + earlier, |i| {
        i.line(L6A, on.scope, benefits).line(BASE, on.scope, above).figure("Half up to", more);
        if !earlier.is_zero() {
            i.line(EARLIER, on.scope, earlier);
        }
    })
}

/// Each spouse's part of the taxed benefits of a joint return, by what each received.
fn each(on: On<'_>, trail: &mut impl Trail, benefits: Money, taxed: Money) {
    if on.unit.people.len() == 1 {
        return;
    }
    for (person, own) in on.owns().filter(|(_, own)| own.has(&brings::BENEFITS)) {
        trail.line(L6B, Scope::Person(person), part(own, benefits, taxed), |i| {
            i.items(own.of(&brings::BENEFITS));
        });
    }
}

/// A person's part of taxed benefits.
pub fn part(own: &Records, benefits: Money, taxed: Money) -> Money {
    taxed.in_proportion(sum(own.of(&brings::BENEFITS)), benefits, Money::CENT, Rounding::HalfUp)
}

/// Lines 9 to 18 of the worksheet: half of what is above the base amount, up to so much; 85 % of the rest; no more than 85 % of
/// the benefits.
fn taxed(
    facts: &Facts,
    trail: &mut impl Trail,
    benefits: Money,
    measure: Money,
    (base, more): (Money, Money),
) -> Money {
    let figures = &facts.figures.benefits;
    let by = |amount: Money, rate| amount.times(rate, Money::WHOLE, Rounding::HalfUp);
    let above = limit::or_zero(trail, measure - base);
    let second = limit::or_zero(trail, above - more);
    let first = by(above - second, figures.first_rate);
    let first = limit::lesser(trail, first, by(benefits, figures.first_rate));
    let sum = first + by(second, figures.second_rate);
    limit::lesser(trail, sum, by(benefits, figures.second_rate))
}

/// Whether what was paid for earlier years is taxed by their income, on the joint or only return.
pub static ELECTION: Open<Facts> = Open::new(
    |facts: &Facts| if facts.filers.iter().any(|&f| any(facts, f)) { vec![0] } else { Vec::new() },
    |_, _| Decision::between("us.lump_sum", "Benefits for earlier years", CITE, options("")),
)
.arises(|facts, _, way| !status::separate(facts, way));

/// The same on the separate return of a filer, by the filer's place among them.
pub static ELECTION_APART: Open<Facts> = Open::new(
    |facts: &Facts| {
        let two = facts.filers.len() == 2;
        (0..facts.filers.len()).filter(|&place| two && any(facts, facts.filers[place])).collect()
    },
    |facts, place| {
        let person = &facts.people[facts.filers[place]];
        let label = format!("Benefits for earlier years of {}", person.name);
        Decision::between(
            format!("us.lump_sum.{}", person.id),
            label,
            CITE,
            options(first_name(&person.name)),
        )
    },
)
.arises(|facts, _, way| status::separate(facts, way));

/// The law of the election.
const CITE: &str = "IRC §86(e)";

/// The option to elect.
const ELECTS: usize = 1;

fn any(facts: &Facts, person: usize) -> bool {
    facts.people[person].own.has(&brings::EARLIER)
}

fn options(whose: &str) -> Vec<Opt> {
    let of = |word: &str| format!("{whose} {word}").trim_start().to_owned();
    vec![
        Opt::new("now", "Taxed by this year's income", of("earlier benefits taxed now")),
        Opt::new("earlier", "Taxed by the income of those years", of("earlier benefits by their years")),
    ]
}

/// What a way elects on the joint or only return.
pub fn elects_together(way: Chosen<'_, '_, Facts>) -> bool {
    way.taken(&ELECTION, 0) == Some(ELECTS)
}

/// What a way elects on the separate return of a filer.
pub fn elects_apart(way: Chosen<'_, '_, Facts>, place: usize) -> bool {
    way.taken(&ELECTION_APART, place) == Some(ELECTS)
}

/// The worksheet: where there are benefits.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(L6A), "no benefits")
}

/// What the boxes should agree in, and payments for earlier years.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(BENEFITS.id) {
        one(points, paper);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    let amount = |field: &str| paper.amount(field);
    let stated = paper.boxes.contains_key("5") && paper.boxes.contains_key("3");
    if stated && amount("5") != amount("3") - amount("4") {
        points.raise(&NET, at("5"), "Box 5 is not box 3 less box 4.");
    }
    if amount("4") > amount("3") {
        points.raise(&NEGATIVE, at("4"), "More benefits were repaid than paid: not computed yet.");
    }
    if !amount("earlier").is_zero() && paper.rows.is_empty() {
        points.raise(&LUMP_SUM, at("earlier"), "Benefits were paid for earlier years.");
    }
    for row in &paper.rows {
        let missing = ["amount", "income"].into_iter().find(|field| !row.contains_key(*field));
        if let Some(field) = missing {
            points.raise(
                &YEAR,
                Place::row(&paper.id, row, field),
                "What belongs to this earlier year is missing.",
            );
        }
    }
}
