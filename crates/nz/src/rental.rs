//! Residential property that is let (ITA CC 1, DH 8, EL 1 to EL 20; form IR3R, question 22 of the IR3): what is spent counts against rents
//! and taxable sales of let property alone; the rest waits for later years.

use crate::{
    bringing::Bringing,
    facts::Facts,
    land, last_assessment,
    plan::{Filed, On},
    points::{Points, in_words},
    rounding::cents,
};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Decision, Opt},
    field::{Choice, Field, Years},
    forms::Required,
    household::{Entry, Row},
    limit, limits, lines, open_points,
    outcome::{CarriedTo, Carry},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Residential property let",
    lines: LINES,
    limits: LIMITS,
    papers: &[PROPERTY],
    points: POINTS,
    figures: &["rental"],
    carries: CARRIES,
    ..Provision::NONE
};

lines! {
    INCOME = "nz.rental_income", "Residential rents", "ITA CC 1; IR3 question 22",
        "The rents of every property, by each owner's part.";
    AVAILABLE = "nz.rental_deductions_available", "Deductions incl. brought forward", "ITA DA 1, DH 8, EL 4",
        "Interest as far as the year allows it, other costs, and what was left of earlier years.";
    DEDUCTED = "nz.rental_deductions", "Deductions allowed this year", "ITA EL 4",
        "At most rents, and profits of sales of let property.";
    pub NET = "nz.rental_net", "Net residential income", "ITA EL 4; IR3 question 22",
        "Rents less what is allowed; below zero only against a taxable sale of let property.";
    pub CARRIED = "nz.rental_loss_cf", "Excess carried to the next year", "ITA EL 5",
        "What is not allowed this year.";
}

limits! {
    RING = "nz.limit.ring" on DEDUCTED, "Deductions of residential property", "over its income, carried forward", "ITA EL 4";
}

open_points! {
    REASON = blocks "C30", "ITA DH 5 to DH 8", "Say why the interest counts: new build, loan, or purpose.";
    NO_DEPRECIATION = look "C31", "ITA EE 31, Schedule 39", "Of a dwelling itself the rate is 0 %: only chattels are written off.";
    RING_FENCED = look "C28", "ITA EL 4, EL 5", "The excess is carried to the next year's residential income.";
    NOT_HERE = not_covered "mixed-use", "ITA DG 3 to DG 22";
    RELEASE = not_weighed "ring-release", "ITA EL 9, EL 10", "A taxable sale may free what is left of a property or of all: look whether it may be used against other income.";
}

const CARRIES: &[Carry] =
    &[Carry { line: CARRIED, paper: last_assessment::PAPER, into: CarriedTo::Box("rental") }];

/// What its papers bring.
pub mod brings {
    use super::Let;
    use hembo_core::brought::Brought;

    /// Properties let.
    pub static LETS: Brought<Let> = Brought::new();
}

/// A property: the owner's part.
#[derive(Debug, Clone, PartialEq, Eq)]
#[allow(missing_docs)]
pub struct Let {
    pub rent: Item,
    /// As far as the year allows it.
    pub interest: Item,
    pub costs: Vec<Item>,
    /// Left of earlier years, where each property is apart.
    pub brought: Item,
}

impl Let {
    fn deductions(&self) -> Money {
        self.interest.amount + sum(&self.costs) + self.brought.amount
    }

    fn items(&self) -> impl Iterator<Item = &Item> {
        [&self.interest, &self.brought].into_iter().chain(&self.costs).filter(|item| !item.amount.is_zero())
    }
}

/// Why interest counts.
const REASONS: &[Choice] = &[
    Choice::new("new_build", "New build"),
    Choice::new("exempt", "Land that is exempt"),
    Choice::new("old_loan", "Loan drawn before 27 March 2021"),
    Choice::new("new_loan", "Loan drawn since"),
];

const PROPERTY: PaperKind = PaperKind {
    id: "Residential property",
    subject: subject::OWN_WORK,
    name: "House or flat let",
    words: "rental rent landlord ir3r tenant",
    title: "Property",
    shared: true,
    headline: "rent",
    boxes: &[
        Field::amount("rent", "", "Rents").help("With insurance for lost rents; without the bond."),
        Field::amount("interest", "", "Interest")
            .help("All of it: how much counts follows from the year and the reason."),
        Field::choice("reason", "", "Why it counts", REASONS).lasts(),
        Field::amount("brought", "", "Excess of this property from last year")
            .help("Only where each property is kept apart; else it stands on the last assessment."),
        Field::yes_no("private", "", "Also used privately")
            .lasts()
            .help("A holiday home that is let and used."),
    ],
    columns: &[Field::text("what", "", "What", 80), Field::amount("amount", "", "Cost")],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// What of interest the year allows.
fn allowed(paper: &Bringing<'_>) -> Rate {
    let figures = &paper.facts.figures.rental;
    match paper.text("reason") {
        "new_build" | "exempt" => Rate::percent(100),
        "new_loan" => figures.interest_of_new_loans,
        _ => figures.interest_of_old_loans,
    }
}

/// Gives each owner a part of a property.
pub fn read(paper: &mut Bringing<'_>) {
    let interest = cents(paper.amount("interest"), allowed(paper));
    let amounts =
        [("rent", paper.amount("rent")), ("interest", interest), ("brought", paper.amount("brought"))];
    let costs: Vec<(usize, Money)> =
        paper.paper.lines("amount").map(|(row, _, amount)| (row, amount)).collect();
    for (at, person) in paper.owners().into_iter().enumerate() {
        let share = |amount: Money| paper.paper.shares(amount)[at].1;
        let [rent, interest, brought] = amounts.map(|(field, amount)| paper.item(field, share(amount)));
        let cost = |&(row, amount): &(usize, Money)| paper.paper.item("amount", Some(row), share(amount));
        let property = Let { rent, interest, costs: costs.iter().map(cost).collect(), brought };
        paper.facts.people[person].own.add(&brings::LETS, property);
    }
    paper.needs_return();
}

/// Question 22 without sales of land that are not let: `sold` is the profit of those that were. The result goes into income, with that
/// profit.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, sold: Money) -> Money {
    let lets = on.own().of(&brings::LETS);
    let brought = last_assessment::of(on, last_assessment::RENTAL);
    if lets.is_empty() && brought.is_empty() {
        return Money::ZERO;
    }
    let rents = on.gather(trail, INCOME, lets.iter().map(|property| &property.rent));
    let available = lets.iter().map(Let::deductions).sum::<Money>() + sum(brought);
    trail.line(AVAILABLE, on.scope, available, |i| {
        i.items(lets.iter().flat_map(Let::items)).items(brought);
    });
    let most = if on.plan.lets_apart.contains(&on.person) { each_apart(lets) } else { rents + sold };
    let deducted = limit::cap(trail, RING.at(on.scope), available, most);
    on.made(
        trail,
        DEDUCTED,
        deducted,
        &[(AVAILABLE, available), (INCOME, rents), (land::OF_LETS, sold)],
        &[],
    );
    on.made(trail, CARRIED, available - deducted, &[(AVAILABLE, available), (DEDUCTED, deducted)], &[]);
    on.made(trail, NET, rents - deducted, &[(INCOME, rents), (DEDUCTED, deducted)], &[])
}

/// What all may deduct where each has a ring of its own.
fn each_apart(lets: &[Let]) -> Money {
    lets.iter().map(|property| settled::lesser(property.deductions(), property.rent.amount)).sum()
}

/// Whether a person keeps each property apart, by the person's place.
pub static RINGS: Open<Facts> = Open::new(
    |facts| {
        let several = |&p: &usize| facts.people[p].own.of(&brings::LETS).len() > 1;
        facts.returns.iter().copied().filter(several).collect()
    },
    |facts, person| {
        let name = facts.first_name(person);
        let options = vec![
            Opt::new("portfolio", "All together", ""),
            Opt::new("property", "Each apart", format!("properties of {name} apart")),
        ];
        let id = format!("nz.rings.{}", facts.people[person].id);
        Decision::between(id, format!("Properties of {name}"), "ITA EL 4 to EL 8", options)
    },
);

/// Who keeps each apart in a way.
pub fn chosen(facts: &Facts, way: Chosen<'_, '_, Facts>) -> Vec<usize> {
    facts.returns.iter().copied().filter(|&p| way.taken(&RINGS, p) == Some(1)).collect()
}

/// Form IR3R: where anything is let.
pub fn form_ir3r(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.own().has(&brings::LETS), "nothing is let")
}

/// When loans of before and after are told apart.
pub fn loans_differ(facts: &Facts) -> Option<Date> {
    let figures = &facts.figures.rental;
    (figures.interest_of_old_loans != figures.interest_of_new_loans).then_some(figures.new_loans_from.0)
}

/// Interest without a reason, private use, what is carried.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(PROPERTY.id) {
        let written_off = |row: &&Row| {
            let what = row.get("what").and_then(Entry::text).unwrap_or_default().to_lowercase();
            what.contains("depreciation") && (what.contains("building") || what.contains("house"))
        };
        for row in paper.rows.iter().filter(written_off) {
            points.raise(&NO_DEPRECIATION, Place::row(&paper.id, row, "what"), "Depreciation of a dwelling.");
        }
    }
    let full = points.facts.figures.rental.interest_of_old_loans == Rate::percent(100);
    for paper in points.papers(PROPERTY.id) {
        if !paper.amount("interest").is_zero() && !paper.boxes.contains_key("reason") && !full {
            let since = loans_differ(points.facts)
                .map(|day| format!(" Loans since {} count otherwise.", in_words(day)))
                .unwrap_or_default();
            let place = Place::paper(&paper.id, "reason");
            points.raise(&REASON, place, format!("Why does the interest count?{since}"));
        }
        if paper.boxes.get("private").and_then(Entry::flag) == Some(true) {
            let message = "Property that is let and used privately is not computed.";
            points.raise(&NOT_HERE, Place::paper(&paper.id, "private"), message);
        }
    }
    for (place, person) in points.returns() {
        let carried = points.amount(CARRIED, place);
        if carried.is_zero() {
            continue;
        }
        let name = points.name(person);
        let message = format!("{name}: {carried:#} of deductions wait for the next year.");
        points.raise(&RING_FENCED, points.at(person, "name"), message);
        if !points.amount(land::OF_LETS, place).is_zero() {
            let message = format!("{name}: let property was sold, and {carried:#} is left.");
            points.raise(&RELEASE, points.at(person, "name"), message);
        }
    }
}
