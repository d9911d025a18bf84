//! Medical scheme fees and bills (s6A, s6B): a credit by months and persons, and an additional one by age, disability and what is above a
//! part of income.

use crate::{bringing::Bringing, certificates, facts::Facts, plan::On, points::Points, rounding::cents};
use hembo_core::{
    choice::{Chosen, Open},
    decision::{Amount, Decision, More},
    field::{Choice, Field, Years},
    household::Entry,
    limit, limits,
    line::LineId,
    lines, open_points,
    pack::{FILER, Question},
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    trail::Trail,
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    about: "Medical credits",
    lines: LINES,
    limits: LIMITS,
    papers: &[SCHEME, BILLS],
    person_questions: &[Question {
        of: FILER,
        from_age: 0,
        field: Field::yes_no(
            ask::DISABILITY,
            "",
            "Disability confirmed on ITR-DD, own, of the spouse or a child",
        )
        .lasts()
        .help("The form is valid for up to ten years, or one where it is temporary."),
    }],
    points: POINTS,
    figures: &["medical"],
    ..Provision::NONE
};

/// The ids of its questions.
#[allow(missing_docs)]
pub mod ask {
    pub const DISABILITY: &str = "disability";
}

lines! {
    FULL = "za.medical_credit_full", "Medical scheme credit of the year", "s6A(2)",
        "For each month by how many are covered.";
    pub CREDIT = "za.medical_credit", "Medical scheme credit", "s6A",
        "As much as the tax takes.";
    FEES = "za.medical_fees", "Scheme contributions", "s6B(1)",
        "Paid by the person, the employer's part among them.";
    BILLS_PAID = "za.medical_bills", "Bills not paid back", "s6B(1) 'qualifying medical expenses'",
        "Paid by the person, of those that either may have paid the part that the way takes.";
    ADDITIONAL_FULL = "za.additional_medical_credit_full", "Additional medical credit of the year", "s6B(3)",
        "From 65 on and with a disability a third of what is above three credits; else a quarter of what is above four and a part of income.";
    pub ADDITIONAL = "za.additional_medical_credit", "Additional medical credit", "s6B",
        "As much as the tax takes.";
}

limits! {
    FLOOR = "za.limit.medical" on ADDITIONAL_FULL, "Medical costs", "below 7.5 % of taxable income", "s6B(3)(c)";
    BY_TAX = "za.limit.medical.tax" on CREDIT, "Medical scheme credit", "over the tax, lost", "s6A(1)";
    ADDITIONAL_BY_TAX = "za.limit.additional" on ADDITIONAL, "Additional medical credit", "over the tax, lost", "s6B(2)";
}

open_points! {
    NO_SCHEME = look "C10", "s6A", "Add the certificate of the scheme: without months and persons there is no credit.";
    MONTHS = blocks "C64", "s6A(2)", "Say how many were covered in each month.";
    CONFIRMED = look "C31", "s6B(1) 'disability'", "Keep the ITR-DD.";
    NOT_REACHED = look "C32", "s6B(3)(c)", "No additional credit this year.";
    OTHER_PAYER = look "C33", "s6B(3)", "The spouse of 65 or with a disability would have more of bills: look who paid them.";
}

/// What its papers bring.
pub mod brings {
    use super::Months;
    use hembo_core::brought::Brought;

    /// Contributions paid to a scheme outside the certificates.
    pub static FEES: Brought = Brought::new();
    /// How many were covered by month.
    pub static MONTHS: Brought<Months> = Brought::new();
    /// Bills that were not paid back.
    pub static BILLS: Brought = Brought::new();
    /// Bills that either of two may have paid.
    pub static OF_EITHER: Brought = Brought::new();
}

/// How many were covered, month by month.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Months {
    /// From March on.
    pub members: [i64; 12],
}

/// The months as boxes.
const MONTH_BOXES: [&str; 12] = ["m3", "m4", "m5", "m6", "m7", "m8", "m9", "m10", "m11", "m12", "m1", "m2"];

const SCHEME: PaperKind = PaperKind {
    id: "Scheme",
    subject: subject::CREDITS,
    name: "Medical scheme certificate",
    words: "medical aid scheme members dependants contributions",
    title: "Scheme",
    shared: false,
    headline: "paid",
    boxes: &[
        Field::amount("paid", "", "Contributions paid outside the certificates"),
        Field::count("all", "", "Covered all year, the member among them", 30)
            .help("Or month by month below."),
        Field::count("m3", "", "March", 30),
        Field::count("m4", "", "April", 30),
        Field::count("m5", "", "May", 30),
        Field::count("m6", "", "June", 30),
        Field::count("m7", "", "July", 30),
        Field::count("m8", "", "August", 30),
        Field::count("m9", "", "September", 30),
        Field::count("m10", "", "October", 30),
        Field::count("m11", "", "November", 30),
        Field::count("m12", "", "December", 30),
        Field::count("m1", "", "January", 30),
        Field::count("m2", "", "February", 30),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Again,
};

const PAYERS: &[Choice] = &[
    Choice::new("owner", "The one named above"),
    Choice::new("either", "Either of the two, from joint money"),
];

const BILLS: PaperKind = PaperKind {
    id: "Medical bills",
    subject: subject::CREDITS,
    name: "Medical bills not paid back",
    words: "doctor medicine hospital out of pocket 4020",
    title: "About",
    shared: false,
    headline: "amount",
    boxes: &[],
    columns: &[
        Field::date("date", "", "Paid on"),
        Field::person("patient", "", "For whom"),
        Field::text("what", "", "What", 80),
        Field::amount("amount", "4020", "Amount"),
        Field::amount("back", "", "Paid back"),
        Field::choice("payer", "", "Who paid", PAYERS).blank_is("owner"),
    ],
    back: Back::Column("back"),
    years: Years::ALL,
    next_year: NextYear::Again,
};

/// A month's credit by how many are covered.
fn of_month(facts: &Facts, members: i64) -> Money {
    let figures = &facts.figures.medical;
    let first = hembo_core::settled::lesser(members, 2);
    figures.first_two * first + figures.further * (members - first)
}

/// Gives months, contributions and bills to who paid.
pub fn read(paper: &mut Bringing<'_>) {
    if paper.paper.paper.kind == BILLS.id {
        return bills(paper);
    }
    paper.give(&[("paid", &brings::FEES)]);
    let all = paper.count("all");
    let members = MONTH_BOXES.map(|month| if paper.has(month) { paper.count(month) } else { all });
    let months = Months { members };
    for person in paper.owners() {
        paper.facts.people[person].own.add(&brings::MONTHS, months);
    }
}

fn bills(paper: &mut Bringing<'_>) {
    let rows: Vec<_> = paper.paper.lines("amount").collect();
    let couple = paper.facts.filers.len() == 2;
    for (row, cells, amount) in rows {
        let back = cells.get("back").and_then(Entry::money).unwrap_or_default();
        let either = couple && cells.get("payer").and_then(Entry::text) == Some("either");
        let kind = if either { &brings::OF_EITHER } else { &brings::BILLS };
        paper.put("amount", Some(row), amount - back, kind);
    }
}

/// Bills that either of the two may have paid.
fn of_either(facts: &Facts) -> Money {
    facts.filers.iter().map(|&person| sum(facts.people[person].own.of(&brings::OF_EITHER))).sum()
}

/// What of them is a person's in a way: the first has what the way takes, the second the rest.
fn part_of_either(on: On<'_>) -> Money {
    let all = of_either(on.facts);
    let first = on.plan.of_either.unwrap_or_default();
    match on.facts.filers.iter().position(|&person| person == on.person) {
        Some(0) => first,
        Some(_) => all - first,
        None => Money::ZERO,
    }
}

/// The credits: `tax` is what the rebates leave, `taxable` taxable income.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, tax: Money, taxable: Money) -> [(LineId, Money); 2] {
    let own = on.own();
    let months = own.of(&brings::MONTHS);
    let year = |months: &Months| months.members.iter().map(|&count| of_month(on.facts, count)).sum::<Money>();
    let full = trail.line(FULL, on.scope, months.iter().map(year).sum(), |i| {
        for months in months {
            let told: Vec<String> = months.members.iter().map(i64::to_string).collect();
            i.figure("Covered, March to February", told.join(" "));
        }
    });
    let credit = limit::cap(trail, BY_TAX.at(on.scope), full, tax);
    on.made(trail, CREDIT, credit, &[(FULL, full)], &[("Tax after rebates", &tax)]);
    let left = tax - credit;
    let fees = own.of(&brings::FEES).iter().chain(own.of(&certificates::brings::MEDICAL));
    let fees = on.gather(trail, FEES, fees);
    let of_either = part_of_either(on);
    let bills = own.of(&brings::BILLS).iter().chain(own.of(&certificates::brings::MEDICAL_PAID));
    let own_bills: Money = bills.clone().map(|item| item.amount).sum();
    let paid = trail.line(BILLS_PAID, on.scope, own_bills + of_either, |i| {
        i.items(bills);
        if !of_either.is_zero() {
            i.figure("Of those that either paid", of_either);
        }
    });
    let additional = additional(on, trail, [fees, paid, full], taxable);
    let allowed = limit::cap(trail, ADDITIONAL_BY_TAX.at(on.scope), additional, left);
    on.made(trail, ADDITIONAL, allowed, &[(ADDITIONAL_FULL, additional)], &[("Tax left", &left)]);
    [(CREDIT, credit), (ADDITIONAL, allowed)]
}

/// s6B: from 65 on and with a disability a third of what is above three credits; else a quarter of what is above four and a part of income.
fn additional(on: On<'_>, trail: &mut impl Trail, [fees, bills, full]: [Money; 3], taxable: Money) -> Money {
    let figures = &on.facts.figures.medical;
    let favoured = on.facts.reached(on.person, figures.age) || on.who().disability;
    let times = if favoured { figures.aged_times } else { figures.others_times };
    let above = limit::or_zero(trail, fees - full * times) + bills;
    let credit = if favoured {
        cents(above, figures.aged_rate)
    } else {
        // The floor is exact, the credit rounded once.
        let floor = taxable.times(figures.floor, Money::CENT, Rounding::HalfUp);
        limit::above(trail, FLOOR.at(on.scope), above, floor);
        of_above(trail, above, taxable, figures.floor, figures.others_rate)
    };
    on.made(
        trail,
        ADDITIONAL_FULL,
        credit,
        &[(FEES, fees), (FULL, full), (BILLS_PAID, bills)],
        &[("Credits that come off contributions", &times), ("Taxable income", &taxable)],
    )
}

/// A rate on what is above an exact part of income, rounded once.
fn of_above(trail: &mut impl Trail, above: Money, taxable: Money, floor: Rate, rate: Rate) -> Money {
    let of_floor = Rate::from_billionths(-(floor.billionths() * rate.billionths() / Rate::ONE.billionths()));
    let credit = Money::sum_of_products([(above, rate), (taxable, of_floor)], Money::CENT, Rounding::HalfUp);
    limit::or_zero(trail, credit)
}

/// How much of the bills that either paid is the first filer's: an amount, as both credits are linear in it but for their edges.
pub static OF_FIRST: Open<Facts> = Open::new(
    |facts| if of_either(facts).is_zero() { Vec::new() } else { vec![0] },
    |facts, _| {
        let name = facts.first_name(facts.filers[0]);
        let amount = Amount {
            most: of_either(facts),
            short: format!("bills of {name}"),
            more: More::MayCost,
            steepest: Rate::percent(34),
        };
        Decision::amount("za.bills", format!("Bills from joint money, paid by {name}"), "s6B(1)", amount)
    },
);

/// What the first claims of them in a way.
pub fn chosen(way: Chosen<'_, '_, Facts>) -> Option<Money> {
    way.amount(&OF_FIRST, 0)
}

/// Schemes that are missing, months that are not told, floors that are not reached.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(SCHEME.id) {
        let told = paper.boxes.contains_key("all")
            || MONTH_BOXES.iter().any(|month| paper.boxes.contains_key(*month));
        if !told {
            points.raise(&MONTHS, Place::paper(&paper.id, "all"), "How many were covered?");
        }
    }
    for (place, person) in points.returns() {
        of_person(points, place, person);
    }
}

fn of_person(points: &mut Points<'_>, place: usize, person: usize) {
    let facts: &Facts = points.facts;
    let own = &facts.people[person].own;
    let name = points.name(person);
    let at = points.at(person, "name");
    if own.has(&certificates::brings::MEDICAL) && own.of(&brings::MONTHS).is_empty() {
        points.raise(&NO_SCHEME, at.clone(), format!("{name}: contributions without months and persons."));
    }
    if facts.people[person].disability {
        points.raise(
            &CONFIRMED,
            points.at(person, ask::DISABILITY),
            format!("{name}: a confirmed disability."),
        );
    }
    let bills = points.amount(BILLS_PAID, place);
    if !bills.is_zero() && points.amount(ADDITIONAL_FULL, place).is_zero() {
        points.raise(
            &NOT_REACHED,
            at.clone(),
            format!("{name}: bills of {bills:#} are below 7.5 % of income."),
        );
    }
    let favoured =
        |person: usize| facts.reached(person, facts.figures.medical.age) || facts.people[person].disability;
    let better = facts.partner(person).filter(|&partner| favoured(partner) && !favoured(person));
    if let Some(partner) = better.filter(|_| !sum(own.of(&brings::BILLS)).is_zero()) {
        let message = format!("{name} paid bills; {} would have a third of them.", points.name(partner));
        points.raise(&OTHER_PAYER, at, message);
    }
}
