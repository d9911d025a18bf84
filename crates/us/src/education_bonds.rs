//! Savings bonds cashed for education (§135), Form 8815: their interest is left out as far as the proceeds paid for education, shrinking with
//! income.

use crate::{
    bringing::Bringing,
    facts::Facts,
    filing_status::Status,
    papers::interest,
    points::Points,
    unit::{Filed, On, Unit},
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    forms::Required,
    limit::{self, Shape},
    limits, lines, open_points,
    paper::{Back, NextYear, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Trail},
};
use hembo_money::{Money, Rate, Rounding};

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    lines: LINES,
    limits: LIMITS,
    papers: &[BONDS],
    points: POINTS,
    figures: &["education_bonds"],
    ..Provision::NONE
};

lines! {
    FOR_EDUCATION = "us.8815.8", "Interest of bonds that paid for education", "IRC §135(a), (b)(1)",
        "The interest, in the part of the proceeds that the expenses are.";
    pub EXCLUDED = "us.8815.14", "Interest of bonds that is left out", "IRC §135(b)(2)",
        "What of it income within the range leaves; none on a separate return.";
}

limits! {
    BY_EXPENSES = "us.limit.education_bonds_part" on FOR_EDUCATION, "Savings bonds for education", "over what the expenses are of the proceeds",
        "IRC §135(b)(1)";
    BY_INCOME = "us.limit.education_bonds" on EXCLUDED, "Savings bonds for education", "shrinks with income",
        "IRC §135(b)(2)";
}

open_points! {
    ELIGIBLE = not_known "8815-eligible", "IRC §135(c)(1)",
        "Only bonds of series EE after 1989 and of series I count, bought by who was 24 then and in no child's name: answer the question.";
    STUDENT = blocks "8815-student", "IRC §135(c)(2)(A)",
        "Say who studies: a filer, the spouse or a dependent.";
    INTEREST = blocks "8815-interest", "Form 8815, line 6",
        "The interest is a part of the proceeds.";
    NOT_ON_PAPER = blocks "8815-1099", "Form 8815, line 6",
        "Enter the interest on Form 1099-INT, box 3, too: what is left out is taken from there.";
    BARRED = look "8815-barred", "IRC §135(d)(3)",
        "The interest is taxed on a separate return, and for a student who is no dependent of it.";
    DIVIDED = not_weighed "8815-divided", "IRC §135(d)(2)",
        "What a credit or a plan uses is no expense here: another division is not weighed here.";
}

/// Bonds of an owner.
#[derive(Debug, Clone)]
pub struct Bonds {
    student: Option<usize>,
    interest: Item,
    proceeds: Money,
    /// Expenses less benefits that are not taxed.
    expenses: Money,
}

/// What its papers bring.
pub mod brings {
    use super::Bonds;
    use hembo_core::brought::Brought;

    /// Bonds.
    pub static BONDS: Brought<Bonds> = Brought::new();
}

const BONDS: PaperKind = PaperKind {
    id: "8815",
    subject: subject::INVESTMENTS,
    name: "Savings bonds cashed for education",
    words: "savings bonds series ee i education tuition exclusion treasury 8815",
    title: "Bonds",
    shared: true,
    headline: "6",
    boxes: &[
        Field::person("student", "1a", "Student"),
        Field::yes_no("eligible", "", "Series EE after 1989, or I")
            .help("Bought by the owner, or the spouse, at 24 or over."),
        Field::amount("5", "5", "Proceeds").help("Principal and interest."),
        Field::amount("6", "6", "Interest in them").help("It stands on Form 1099-INT, box 3, as well."),
        Field::amount("2", "2", "Expenses for education")
            .help("Tuition and fees, payments into an education plan; without what a credit or a plan's distribution uses."),
        Field::amount("3", "3", "Untaxed benefits").help("Scholarships and grants for them."),
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
    next_year: NextYear::Once,
};

/// Gives the owners their parts.
pub fn read(paper: &mut Bringing<'_>) {
    let reading = paper.paper;
    let of = reading.paper;
    if !of.flag("eligible") {
        return;
    }
    let student = of.text("student").and_then(|id| reading.household.index_of(id));
    let expenses = settled::or_zero(of.amount("2") - of.amount("3"));
    for (place, (person, interest)) in reading.shares(of.amount("6")).into_iter().enumerate() {
        let part = |amount: Money| reading.shares(amount)[place].1;
        let interest = reading.item("6", None, interest);
        let bonds = Bonds { student, interest, proceeds: part(of.amount("5")), expenses: part(expenses) };
        paper.facts.people[person].own.add(&brings::BONDS, bonds);
    }
}

/// Whether the student is on the return (§135(c)(2)(A)).
fn studies(on: On<'_>, bonds: &Bonds) -> bool {
    let here = |person: usize| {
        on.unit.people.contains(&person) || on.unit.dependents.iter().any(|d| d.person == person)
    };
    bonds.student.is_some_and(here)
}

fn bonds(on: On<'_>) -> impl Iterator<Item = &Bonds> {
    on.owns().flat_map(|(_, own)| own.of(&brings::BONDS))
}

/// Whether a return has such bonds.
pub fn any(on: On<'_>) -> bool {
    bonds(on).next().is_some()
}

/// What tells the students with bonds apart in a sum: a place of its own for each who is claimed on the return.
pub fn mark(on: On<'_>, person: usize) -> i64 {
    let claimed = on.unit.dependents.iter().any(|d| d.person == person);
    let place = students(on.facts).position(|student| student == person);
    place.filter(|_| claimed).map_or(0, |place| 1 << place)
}

fn students(facts: &Facts) -> impl Iterator<Item = usize> {
    facts.people.iter().flat_map(|about| about.own.of(&brings::BONDS)).filter_map(|bonds| bonds.student)
}

/// Line 14; `income` is adjusted gross income without it and without the deduction of student-loan interest (§135(c)(4)).
pub fn reckon(on: On<'_>, trail: &mut impl Trail, income: Money) -> Money {
    if !any(on) {
        return Money::ZERO;
    }
    let counted = || bonds(on).filter(|bonds| studies(on, bonds));
    let all = |of: fn(&Bonds) -> Money| counted().map(of).sum::<Money>().to_whole();
    let (expenses, proceeds) = (all(|bonds| bonds.expenses), all(|bonds| bonds.proceeds));
    let interest = sum(counted().map(|bonds| &bonds.interest)).to_whole();
    let figures = &on.facts.figures.education_bonds;
    let part = if expenses >= proceeds {
        Rate::ONE
    } else {
        expenses.ratio_to(proceeds, figures.places, Rounding::HalfUp)
    };
    let paid = interest.times(part, Money::WHOLE, Rounding::HalfUp);
    let paid = limit::given(trail, BY_EXPENSES.at(on.scope), Shape::Cap, interest, paid);
    trail.line(FOR_EDUCATION, on.scope, paid, |i| {
        i.items(counted().map(|bonds| &bonds.interest))
            .figure("Expenses", expenses)
            .figure("Proceeds", proceeds)
            .figure("Part", part);
    });
    let range = *figures.range.of(on.unit.status);
    let lost = paid.times(range.taken(trail, income, figures.places), Money::WHOLE, Rounding::HalfUp);
    let barred = on.unit.status == Status::Separate;
    let left = if barred { Money::ZERO } else { paid - lost };
    let excluded = limit::given(trail, BY_INCOME.at(on.scope), Shape::PhaseOut, paid, left);
    trail.line(EXCLUDED, on.scope, excluded, |i| {
        i.line(FOR_EDUCATION, on.scope, paid).figure("Income", income);
        if barred {
            i.figure("Not available", "on a separate return");
        } else {
            i.figure("Shrinks above", range.from).figure("Gone at", range.from + range.width);
        }
    })
}

/// Form 8815: where interest is left out.
pub fn form_8815(filed: Filed<'_>) -> Required {
    Required::if_so(filed.has(EXCLUDED), "no interest of savings bonds left out")
}

/// What a paper of bonds must tell.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(BONDS.id) {
        one(points, paper);
    }
}

fn one(points: &mut Points<'_>, paper: &Paper) {
    let at = |field: &str| Place::paper(&paper.id, field);
    if !paper.boxes.contains_key("eligible") {
        points.raise(&ELIGIBLE, at("eligible"), "Are these bonds of a kind that counts?");
    }
    let student = paper.text("student").and_then(|id| points.household.index_of(id));
    let Some(student) = student else {
        return points.raise(&STUDENT, at("student"), "Whose education did the bonds pay for?");
    };
    if paper.amount("6") > paper.amount("5") {
        points.raise(&INTEREST, at("6"), "The interest is above the proceeds.");
    }
    let owners: Vec<usize> =
        paper.owners.iter().filter_map(|owner| points.household.index_of(&owner.person)).collect();
    let interest = |&p: &usize| sum(points.facts.people[p].own.of(&interest::brings::INTEREST));
    if paper.flag("eligible") && owners.iter().map(interest).sum::<Money>() < paper.amount("6") {
        points.raise(&NOT_ON_PAPER, at("6"), "There is less interest on the papers of the owners.");
    }
    let on_a_return = |u: &Unit| {
        u.people.iter().any(|p| owners.contains(p))
            && u.status != Status::Separate
            && (u.people.contains(&student) || u.dependents.iter().any(|d| d.person == student))
    };
    if paper.flag("eligible") && !points.units.iter().any(on_a_return) {
        points.raise(&BARRED, at("student"), "This interest is not left out.");
    } else if !paper.amount("2").is_zero() {
        points.raise(&DIVIDED, at("2"), "Expenses for education that bonds paid for.");
    }
}
