//! Home-loan interest (§163(h)(3)), Schedule A line 8, by Table 1 of Pub. 936.

use crate::{
    bringing::{self, Bringing},
    mortgage_credit,
    points::Points,
    states,
    unit::{Filed, On},
};
use hembo_core::{
    Paper,
    field::{Field, Years},
    forms::Required,
    household::Entry,
    limit, limits, lines, open_points,
    paper::{Back, PaperKind, subject},
    point::{Gather, Place},
    provision::Provision,
    reading::sum,
    settled,
    trail::{Item, Scope, Silent, Trail},
};
use hembo_money::{Money, Rate, Rounding};
use time::Date;

/// What this provision declares.
pub static PROVISION: Provision = Provision {
    papers: &[STATEMENT],
    lines: LINES,
    limits: LIMITS,
    points: POINTS,
    figures: &["home_loan", "mortgage_insurance"],
    ..Provision::NONE
};

lines! {
    BALANCE = "us.loan.balance", "Average loan balances", "IRC §163(h)(3)",
        "Half of the first and the last balance of the year, or the lender's figure.";
    MOST = "us.loan.limit", "The loan limit", "IRC §163(h)(3)(B), (F)",
        "The balances that count, up to the limits for newer and older loans.";
    pub L8A = "us.sched_a.8a", "Home-loan interest paid", "IRC §163(h)(3)",
        "Box 1 of Form 1098, and points on a purchase.";
    L8D = "us.sched_a.8d", "Mortgage insurance premiums", "IRC §163(h)(3)(E)",
        "Box 5 of Form 1098 from 2026, less a part for each step of income above a start.";
    pub L8E = "us.sched_a.8e", "Home-loan interest", "IRC §163(h)(3)",
        "Interest × loan limit ÷ average balances, to three places, and mortgage insurance premiums.";
}

limits! {
    pub HOME_LOAN = "us.limit.home_loan" on L8E, "Home-loan interest", "only on loans up to the limit",
        "IRC §163(h)(3)(B), (F)";
    INSURANCE = "us.limit.mortgage_insurance" on L8D, "Mortgage insurance premiums", "less by income",
        "IRC §163(h)(3)(E)(ii)";
}

open_points! {
    NO_BALANCE = blocks "K-108", "IRC §163(h)(3); Pub. 936",
        "Enter box 2, or an average balance.";
    END_BALANCE = look "K-108-end", "Pub. 936, Part II",
        "Enter it from the lender's statement.";
    NO_DATE = look "K-108-date", "IRC §163(h)(3)(F)",
        "Enter the origination date; older loans have a higher limit.";
    REFUND = not_covered "overpaid-interest", "IRC §111";
}

/// A person's part of a home loan.
#[derive(Debug, Clone)]
#[allow(missing_docs)]
pub struct Loan {
    pub interest: Item,
    pub points: Item,
    pub average: Money,
    pub other_use: Money,
    pub originated: Option<Date>,
}

/// What its papers bring.
pub mod brings {
    use super::Loan;
    use hembo_core::brought::Brought;

    /// Mortgage insurance premiums, 1098 box 5, in years that deduct them.
    pub static INSURANCE: Brought = Brought::new();

    /// Home loans.
    pub static LOANS: Brought<Loan> = Brought::new();
}

/// Line 8e: interest and points, times the part of the average balances that the limit allows.
pub fn reckon(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let paid = on
        .owns()
        .flat_map(|(_, own)| own.of(&brings::LOANS))
        .map(|l| l.interest.amount + l.points.amount)
        .sum::<Money>();
    if on.unit.people.len() > 1 {
        for (person, own) in on.owns().filter(|(_, own)| own.has(&brings::LOANS)) {
            let own_paid = own.of(&brings::LOANS).iter().map(|l| l.interest.amount + l.points.amount).sum();
            trail.line(L8A, Scope::Person(person), own_paid, |i| {
                i.items(
                    own.of(&brings::LOANS)
                        .iter()
                        .flat_map(|l| [&l.interest, &l.points])
                        .filter(|x| !x.amount.is_zero()),
                );
            });
        }
    }
    let credited = mortgage_credit::of_year(on, &mut Silent);
    let paid = settled::or_zero(paid.to_whole() - credited);
    let paid = trail.line(L8A, on.scope, paid, |i| {
        if !credited.is_zero() {
            i.figure("Credited on Form 8396", credited);
        }
        for (person, own) in on.owns().filter(|(_, own)| own.has(&brings::LOANS)) {
            if on.unit.people.len() > 1 {
                let own_paid =
                    own.of(&brings::LOANS).iter().map(|l| l.interest.amount + l.points.amount).sum();
                i.line(L8A, Scope::Person(person), own_paid);
            } else {
                i.items(
                    own.of(&brings::LOANS)
                        .iter()
                        .flat_map(|l| [&l.interest, &l.points])
                        .filter(|x| !x.amount.is_zero()),
                );
            }
        }
    });
    let ratio = allowed_part(on, trail);
    let allowed = limit::part(trail, HOME_LOAN.at(on.scope), paid, ratio, Money::WHOLE);
    let insurance = insurance(on, trail, agi);
    trail.line(L8E, on.scope, allowed + insurance, |i| {
        i.line(L8A, on.scope, paid).figure("Limit ÷ average balance", ratio);
        if !insurance.is_zero() {
            i.line(L8D, on.scope, insurance);
        }
    })
}

/// Line 8d: premiums, a part less for each step of income or part of it.
fn insurance(on: On<'_>, trail: &mut impl Trail, agi: Money) -> Money {
    let Some(figures) = on.facts.figures.mortgage_insurance.as_deref() else { return Money::ZERO };
    let paid = sum(on.items(&brings::INSURANCE)).to_whole();
    if paid.is_zero() {
        return Money::ZERO;
    }
    let status = on.unit.status;
    let over = limit::or_zero(trail, agi - *figures.from.of(status));
    let steps = over.steps_of(*figures.step.of(status), Rounding::Up);
    let left = settled::greater(Rate::ONE.billionths() - steps * figures.rate.billionths(), 0);
    let part = Rate::from_billionths(left);
    let allowed = limit::part(trail, INSURANCE.at(on.scope), paid, part, Money::WHOLE);
    trail.line(L8D, on.scope, allowed, |i| {
        i.items(on.items(&brings::INSURANCE)).figure("Part by income", part);
    })
}

/// Table 1: the loan limit ÷ all average balances, to three places, not above one.
fn allowed_part(on: On<'_>, trail: &mut impl Trail) -> Rate {
    let figures = &on.facts.figures.home_loan;
    let status = on.unit.status;
    let (mut grandfathered, mut old, mut new, mut all) = (Money::ZERO, Money::ZERO, Money::ZERO, Money::ZERO);
    for loan in on.owns().flat_map(|(_, own)| own.of(&brings::LOANS)) {
        let for_the_home = loan.average - loan.other_use;
        all += loan.average;
        match loan.originated {
            // Before 14 October 1987 any secured debt counts, whatever it was used for.
            Some(date) if date < figures.grandfathered_before.0 => grandfathered += loan.average,
            Some(date) if date < figures.old_before.0 => old += for_the_home,
            _ => new += for_the_home,
        }
    }
    let line_6 =
        settled::lesser(grandfathered + old, settled::greater(grandfathered, *figures.most_old.of(status)));
    let line_9 = settled::greater(line_6, *figures.most_new.of(status));
    let most = settled::lesser(line_9, line_6 + new);
    trail.line(BALANCE, on.scope, all, |_| {});
    trail.line(MOST, on.scope, most, |i| {
        i.figure("Limit for newer loans", figures.most_new.of(status));
        i.figure("Limit for older loans", figures.most_old.of(status));
    });
    if most >= all { Rate::ONE } else { most.ratio_to(all, figures.ratio_places, Rounding::HalfUp) }
}

/// The worksheet: where the return itemizes and there is a loan.
pub fn worksheet(filed: Filed<'_>) -> Required {
    Required::if_so(filed.on.unit.itemizes && filed.has(L8A), "no home loan deducted")
}

const STATEMENT: PaperKind = PaperKind {
    id: "1098",
    subject: subject::DEDUCTIONS,
    name: "Home-loan interest",
    words: "mortgage home house loan bank",
    title: "Lender",
    shared: true,
    headline: "1",
    boxes: &[
        Field::amount("1", "1", "Interest received"),
        Field::amount("2", "2", "Principal on 1 January"),
        Field::amount("year_end", "", "Principal on 31 December")
            .help("From the lender's statement; with box 2 it gives the average balance."),
        Field::amount("average", "", "Average balance, if stated")
            .help("A figure of the lender replaces the average of the two balances."),
        Field::amount("other_use", "", "Not for the home, average")
            .help("The part of the average balance not used to buy, build or improve the home."),
        Field::date("3", "3", "Origination date"),
        Field::amount("4", "4", "Refund of overpaid interest"),
        Field::amount("5", "5", "Insurance premiums").help("Deducted from 2026 on."),
        Field::amount("6", "6", "Points on purchase"),
        Field::text("8", "8", "Address of the property", 80),
        Field::count("9", "9", "Number of properties", 99),
        Field::amount("10", "10", "Real estate tax in escrow"),
        Field::date("11", "11", "Acquisition date"),
        states::SEPARATE,
    ],
    columns: &[],
    back: Back::Nothing,
    years: Years::ALL,
};

/// Gives its boxes to the owners.
pub fn read(paper: &mut Bringing<'_>) {
    let average = average_balance(paper.paper.paper);
    let loan = |field: &str| paper.paper.shares(paper.paper.paper.amount(field));
    let (interest, points, other) = (loan("1"), loan("6"), loan("other_use"));
    let originated = paper.paper.paper.boxes.get("3").and_then(Entry::date);
    let item = |amount, field| paper.paper.item(field, None, amount);
    let averages = paper.paper.shares(average);
    for (i, (person, average)) in averages.into_iter().enumerate() {
        let loan = Loan {
            interest: item(interest[i].1, "1"),
            points: item(points[i].1, "6"),
            average,
            other_use: settled::lesser(other[i].1, average),
            originated,
        };
        paper.facts.people[person].own.add(&brings::LOANS, loan);
    }
    if paper.facts.figures.mortgage_insurance.is_some() {
        paper.give("5", &brings::INSURANCE);
    }
    paper.give("10", &bringing::brings::REAL_ESTATE_TAX);
}

/// The average balance of a home loan (Pub. 936): the lender's figure, or half of the first and the last balance
/// of the year, or the first where the last is not known.
pub fn average_balance(paper: &Paper) -> Money {
    let (first, last) = (paper.amount("2"), paper.amount("year_end"));
    if paper.boxes.contains_key("average") {
        paper.amount("average")
    } else if paper.boxes.contains_key("year_end") {
        (first + last).split(&[1, 1])[0]
    } else {
        first
    }
}

/// What the limit on loans needs to know.
pub fn points(points: &mut Points<'_>) {
    for paper in points.papers(STATEMENT.id) {
        let at = |field: &str| Place::paper(&paper.id, field);
        let has = |field: &str| paper.boxes.contains_key(field);
        if !paper.amount("1").is_zero() && !has("2") && !has("average") {
            points.raise(&NO_BALANCE, at("2"), "Without a balance the loan limit cannot be tested.");
        }
        let share = |limit: &&(hembo_core::limit::LimitAt, hembo_core::limit::LimitTaken)| {
            limit.0.def == &HOME_LOAN && limit.1.allowed < limit.1.entered
        };
        let bites = points.trail.limits.iter().any(|l| share(&l));
        if bites && has("2") && !has("year_end") && !has("average") {
            points.raise(
                &END_BALANCE,
                at("year_end"),
                "The loan limit bites; the balance at the end of the year lowers the average.",
            );
        }
        if bites && !has("3") {
            points.raise(&NO_DATE, at("3"), "Taken as a loan after 15 December 2017.");
        }
        if !paper.amount("4").is_zero() {
            points.raise(&REFUND, at("4"), "A refund of interest deducted earlier is not computed yet.");
        }
    }
}
